"""What dresses runs and islands, as boards in their places: plinths, fillers, panels, upstands. Worktops: tops.py."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

import msgspec

from tall_plank.job import Basis, Body, Level, Source, Template
from tall_plank.job.choices import Side
from tall_plank.measure.frames import PartFrame
from tall_plank.setout.runs import Placed, RunLayout
from tall_plank.setout.wall import Wall

TrimKind = Literal[
    "plinth", "plinth return", "corner filler", "ceiling filler", "end panel", "back panel", "dividing panel",
    "waterfall leg", "waterfall filler", "upstand", "splashback",
]  # fmt: skip


BevelCut = tuple[Literal["W1", "W2"], Literal["A", "B"], float]
"""An end that is cut at a slant: which, the face at which the board is long, degrees from square."""


class TrimBoard(msgspec.Struct, frozen=True, cache_hash=True):
    """A board of a trim.

    Attributes
    ----------
    wall : the wall or island's face whose frame it is given in
    source : what it belongs to: a run or an island
    cell : a placed unit whose construction values it follows
    frame : the part's frame in the line's frame
    length, width, thickness : mm
    role : whose board and edging it is made of: front, worktop or plinth
    banded : edges with edging (L1, L2, W1, W2)
    outline : its corners in the part's face where it is no rectangle
    bevels : (edge, the face at which it is long, degrees from square) of edges that are cut at a slant
    """

    kind: TrimKind
    room: str
    wall_id: str
    source: Source
    cell: str
    frame: PartFrame
    length: float
    width: float
    thickness: float
    finish: str
    role: Literal["front", "worktop", "plinth"]
    banded: tuple[str, ...] = ()
    outline: tuple[tuple[float, float], ...] = ()
    bevels: tuple[BevelCut, ...] = ()

    def box(self) -> tuple[tuple[float, float, float], tuple[float, float, float]]:
        """Least and greatest corner, in the line's frame, of the upright box about it."""
        size = (self.length, self.width, self.thickness)
        corners = [self.frame.at(size[0] * i, size[1] * j, size[2] * k) for i in (0, 1) for j in (0, 1) for k in (0, 1)]
        low, high = (tuple(f(c[axis] for c in corners) for axis in range(3)) for f in (min, max))
        return low, high  # type: ignore[return-value]


def stretches(basis: Basis, run: RunLayout, *, plinth: bool = False) -> Iterable[tuple[Placed, ...]]:
    """Neighbouring cells that the worktop (or the plinth) runs over (or under) without a break or a step."""
    group: list[Placed] = []
    for placed in run.cells:
        template = basis.template(placed.template)
        carries = (_on_plinth(template, placed) if plinth else template.trims) and placed.width > 0
        level = bool(group) and plinth and abs(group[-1].bottom - placed.bottom) > 0.5
        step = bool(group) and not plinth and abs(group[-1].top - placed.top) > 0.5 and placed.body is not Body.FILLER
        apart = bool(group) and abs(group[-1].right - placed.x) > 0.5
        if group and (not carries or step or apart or level):
            yield tuple(group)
            group = []
        if carries:
            group.append(placed)
    if group:
        yield tuple(group)


def _on_plinth(template: Template, placed: Placed) -> bool:
    return template.has_plinth and placed.feet == "plinth"


def carries_top(basis: Basis, run: RunLayout) -> bool:
    """Whether a run has a worktop at all."""
    return run.run.level is not Level.HUNG and not run.run.top.left_out


def neighbour_at(run: RunLayout, x: float, side: Side) -> Placed | None:
    """The solid unit of the run that butts against x from a side. `x`: mm."""
    for p in run.cells:
        if p.is_solid and abs((p.right if side == "left" else p.x) - x) < 0.5:
            return p
    return None


def at_line_end(wall: Wall, x: float) -> bool:
    """Whether x lies at an end of a wall (an island's ends are open). `x`: mm."""
    return not wall.island and (x < 0.5 or x > wall.length - 0.5)
