"""Fillers in corners and up to the ceiling, upstands and splashbacks, and the panels that close an island."""

from __future__ import annotations

from collections.abc import Sequence

import msgspec

from tall_plank.job import Basis, Kind, Room, Source
from tall_plank.job.choices import Side
from tall_plank.job.inherit import construction_of, finish_of
from tall_plank.job.scheme import Role
from tall_plank.measure import Frame
from tall_plank.measure.frames import NEG_Y, PartFrame, X, Y, Z
from tall_plank.setout.rooms import ceiling_at
from tall_plank.setout.runs import Placed, RunLayout
from tall_plank.setout.trims import TrimBoard
from tall_plank.setout.worktop import Worktop

ALL_ROUND = ("L1", "L2", "W1", "W2")


def trim_board(
    basis: Basis,
    p: Placed,
    kind: str,
    wall_id: str,
    source: Source,
    frame: PartFrame,
    size: tuple[float, float, float],
    **more: object,
) -> TrimBoard:
    """A board beside units, with the finish of its role; `size`: length, width and thickness in mm."""
    role = more.pop("role", "front")
    finish = more.pop("finish", None) or finish_of(
        basis, basis.unit(p.unit), {"front": Role.FRONT, "worktop": Role.WORKTOP, "plinth": Role.PLINTH}[str(role)]
    )
    return TrimBoard(kind, p.room, wall_id, source, p.cell, frame, *size, finish, role, **more)  # type: ignore[arg-type]


def corner_fillers(basis: Basis, run: RunLayout) -> list[TrimBoard]:
    """The strip between the fronts of the run in the corner and this run's first (or last) unit."""
    found = []
    for side, corner in (("left", run.start_corner), ("right", run.end_corner)):
        if corner is None or corner.holds or corner.filler < 1.0 or not run.cells:
            continue
        p = run.cells[0] if side == "left" else run.cells[-1]
        butts = abs(p.x - run.x) < 0.5 if side == "left" else abs(p.right - run.end) < 0.5
        if not butts:
            continue
        made = construction_of(basis, basis.unit(p.unit))
        x = p.x - corner.filler if side == "left" else p.right
        t = made.front_thickness
        # Upright, flush with the fronts: length up, face A looks back.
        frame = Frame((x, -p.depth - t, p.bottom), Z, X)
        source = Kind.RUN.of(run.run.id)
        found.append(
            trim_board(
                basis, p, "corner filler", run.wall.id, source, frame, (p.height, corner.filler, t), banded=ALL_ROUND
            )
        )
    return found


def ceiling_fillers(basis: Basis, room: Room, run: RunLayout) -> list[TrimBoard]:
    """What closes the gap between a run's units and the ceiling, flush with the fronts, cut to a slope."""
    if not run.run.to_ceiling:
        return []
    found: list[TrimBoard] = []
    group: list[Placed] = []
    for p in (*run.cells, None):
        fits = not group or (p is not None and p.right - group[0].x <= _longest(basis, group[0]))
        if p is not None and p.is_solid and fits and (not group or _goes_on(group[-1], p)):
            group.append(p)
            continue
        if group:
            found += _ceiling_filler(basis, room, run, group)
        group = [p] if p is not None and p.is_solid else []
    return found


def _longest(basis: Basis, p: Placed) -> float:
    """mm of the longest strip that a board of the front's finish gives; strips meet over a seam of units."""
    unit = basis.unit(p.unit)
    thick, finish = construction_of(basis, unit).front_thickness, finish_of(basis, unit, Role.FRONT)
    boards = [b.usable_length for b in basis.stock.boards if b.finish == finish and abs(b.thickness - thick) < 0.01]
    return max(boards, default=1e9)


def _goes_on(a: Placed, b: Placed) -> bool:
    """Whether one strip runs over both units."""
    return abs(b.x - a.right) < 0.5 and abs(b.top - a.top) < 0.5 and abs(b.depth - a.depth) < 0.5


def _ceiling_filler(basis: Basis, room: Room, run: RunLayout, group: list[Placed]) -> list[TrimBoard]:
    first = group[0]
    made = construction_of(basis, basis.unit(first.unit))
    t, out = made.front_thickness, first.depth + made.reach
    x0, x1 = first.x, group[-1].right
    steps = 24
    heights = []
    for i in range(steps + 1):
        # A hair inside the ends, so that a soffit that starts there does not count.
        x = x0 + 0.5 + (x1 - x0 - 1.0) * i / steps
        at = run.wall.frame.floor(x, -out + 1.0)
        heights.append((x0 + (x1 - x0) * i / steps, ceiling_at(room, at) - first.top))
    low, high = min(h for _, h in heights), max(h for _, h in heights)
    if low < 5.0:
        return []
    frame = Frame((x0, -out + t, first.top), X, Z)
    source = Kind.RUN.of(run.run.id)
    length = x1 - x0
    if high - low < 0.5:
        return [
            trim_board(basis, first, "ceiling filler", run.wall.id, source, frame, (length, low, t), banded=("L1",))
        ]
    edge = [heights[0]]
    for (xa, ha), (xb, hb), (xc, hc) in zip(heights, heights[1:], heights[2:], strict=False):
        if abs((hb - ha) * (xc - xb) - (hc - hb) * (xb - xa)) > 1e-3:
            edge.append((xb, hb))
    edge.append(heights[-1])
    points = ((0.0, 0.0), (length, 0.0), *((x - x0, h) for x, h in reversed(edge)))
    board = trim_board(
        basis, first, "ceiling filler", run.wall.id, source, frame, (length, high, t), banded=("L1",), outline=points
    )
    return [board]


def upstands(basis: Basis, room: Room, run: RunLayout, tops: Sequence[Worktop]) -> list[TrimBoard]:
    """Upstands along the edges of a worktop that ask for one, and the splashback behind it."""
    found: list[TrimBoard] = []
    top = run.run.top
    for piece in tops:
        if piece.run != run.run.id or piece.source != Kind.RUN.of(run.run.id):
            continue
        p = next(c for c in run.cells if c.cell == piece.cell)
        made = construction_of(basis, basis.unit(p.unit))
        high, t, z = made.upstand_height, made.upstand_thickness, piece.bottom + piece.thickness
        wall, source = run.wall.id, piece.source
        if top.edge("back").upstand:
            frame = Frame((piece.x, -piece.rear, z), X, Z)
            found.append(
                trim_board(
                    basis, p, "upstand", wall, source, frame, (piece.length, high, t), role="worktop", banded=("L2",)
                )
            )
        for side, x in (("left", piece.x), ("right", piece.x + piece.length - t)):
            if top.edge(side).upstand:  # type: ignore[arg-type]
                frame = Frame((x, -piece.depth, z), Y, Z)
                size = (piece.depth - piece.rear - (t if top.edge("back").upstand else 0.0), high, t)
                # Y then Z: the thickness lies along x.
                found.append(trim_board(basis, p, "upstand", wall, source, frame, size, role="worktop", banded=("L2",)))
        if top.splashback is not None and top.splashback.mm > 1.0:
            above = high if top.edge("back").upstand else 0.0
            thick = made.splash_thickness
            frame = Frame((piece.x, -piece.rear, z + above), X, Z)
            size = (piece.length, top.splashback.mm, thick)
            found.append(trim_board(basis, p, "splashback", wall, source, frame, size, banded=()))
    return found


def run_waterfalls(basis: Basis, run: RunLayout, tops: Sequence[Worktop]) -> list[TrimBoard]:
    """Legs of the worktop's own board at the ends of a run along a wall."""
    found: list[TrimBoard] = []
    mine = [t for t in tops if t.source == Kind.RUN.of(run.run.id)]
    for side, wanted in (("left", run.run.top.waterfall_left), ("right", run.run.top.waterfall_right)):
        if not wanted or not mine:
            continue
        left = side == "left"
        piece = mine[0] if left else mine[-1]
        if not (piece.open_left if left else piece.open_right):
            continue  # a wall or a tall unit stands there
        p = next(c for c in run.cells if c.cell == piece.cell)
        beside = min(
            run.cells, key=lambda c: abs((c.x if left else c.right) - (piece.x if left else piece.x + piece.length))
        )
        x = piece.x if left else piece.x + piece.length - piece.thickness
        found.append(waterfall_leg(basis, p, run.wall.id, piece.source, x, piece, side="left" if left else "right"))
        made = construction_of(basis, basis.unit(beside.unit))
        free = beside.x - (x + piece.thickness) if left else x - beside.right
        if free >= 1.0:
            t = made.front_thickness
            start = beside.x - free if left else beside.right
            frame = Frame((start, -beside.depth - t, beside.bottom), Z, X)
            size = (beside.height, free, t)
            found.append(
                trim_board(basis, beside, "waterfall filler", run.wall.id, piece.source, frame, size, banded=ALL_ROUND)
            )
    return found


MITRE = 45.0
"""degrees from square at which a worktop and its leg meet."""


def waterfall_leg(
    basis: Basis, p: Placed, wall_id: str, source: Source, x: float, top: Worktop, *, side: Side
) -> TrimBoard:
    """A waterfall leg: mitred to the worktop, so that its outer face is as high as the worktop's upper one. `x`: mm."""
    high = top.bottom + top.thickness
    frame = Frame((x, -top.rear, 0.0), Z, NEG_Y)
    size = (high, top.depth - top.rear, top.thickness)
    # Its face A looks along the line: outwards at the right end, inwards at the left one. L1 is its rear edge.
    banded = ("L1", "L2") if top.open_back else ("L2",)
    leg = trim_board(basis, p, "waterfall leg", wall_id, source, frame, size, role="worktop", banded=banded)
    return msgspec.structs.replace(leg, bevels=(("W2", "B" if side == "left" else "A", MITRE),))
