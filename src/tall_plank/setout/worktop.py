"""A piece of worktop, and what every way of making one asks: overhangs, thickness, bolts. In the line's plan: x along
the line, out from it into the room, mm."""

from __future__ import annotations

import math
from collections.abc import Sequence

import msgspec

from tall_plank.job import Basis, Source, Top
from tall_plank.job.choices import Side
from tall_plank.job.inherit import construction_of
from tall_plank.job.top import EdgeName
from tall_plank.measure import outlines as ol
from tall_plank.measure.outlines import Points
from tall_plank.setout.corners import front_depth
from tall_plank.setout.runs import Placed

BOLT_PITCH = 250.0
"""mm of joint for each bolt, two at least (common practice: three in a 600 deep top)."""


class Cutout(msgspec.Struct, frozen=True, cache_hash=True):
    """A hole right through a worktop: from the worktop's left end and its rear edge, mm."""

    x: float
    back: float
    width: float
    depth: float
    cell: str
    appliance: str


class Worktop(msgspec.Struct, frozen=True, cache_hash=True):
    """One piece of a worktop.

    Attributes
    ----------
    wall : the wall or island's face whose line it lies along
    run : the run that it covers; for an island the first one
    source : a run or an island
    x, length : along the line, mm
    depth : how far its front edge stands out from the line, mm
    rear : where its rear edge lies, mm out from the line (negative behind it)
    bottom, thickness : mm
    points : its outline (x, out), counter-clockwise seen from below (x to the right, out downwards on a plan)
    open_left, open_right, open_back : whether these edges are free, and so banded
    joints : kinds of the joints at its left and right end: butt, mitre, masons mitre, or empty
    bolts : joint bolts at its right end and at corners it is the second piece of
    dropped : decisions that no longer fit it
    profiles : (edge, profile) of edges that are worked to a profile
    free : for every edge of its outline, from its first corner on, mm at which nothing stands; none where it is a
        rectangle that no other piece is joined to
    legs : ends at which a leg of the same board is mitred to it
    """

    room: str
    wall_id: str
    run: str
    source: Source
    cell: str
    x: float
    length: float
    depth: float
    bottom: float
    thickness: float
    finish: str
    open_left: bool
    open_right: bool
    cutouts: tuple[Cutout, ...] = ()
    rear: float = 0.0
    points: Points = ()
    open_back: bool = False
    joints: tuple[str, str] = ("", "")
    bolts: int = 0
    dropped: tuple[str, ...] = ()
    profiles: tuple[tuple[str, str], ...] = ()
    free: tuple[float, ...] = ()
    legs: tuple[Side, ...] = ()

    @property
    def is_plain(self) -> bool:
        """Whether its outline is a rectangle."""
        return len(self.points) == 4 and abs(abs(ol.area(self.points)) - self.length * (self.depth - self.rear)) < 1.0


def overhang(basis: Basis, top: Top, name: EdgeName, cell: Placed) -> float:
    """How far a worktop reaches past its units at an edge, mm: own, or the standard's."""
    own = top.edge(name).overhang
    if own is not None:
        return own.mm
    made = construction_of(basis, basis.unit(cell.unit))
    return {"front": made.worktop_front, "back": made.worktop_back}.get(name, made.worktop_side)


def top_thickness(basis: Basis, top: Top) -> float:
    return top.thickness.mm if top.thickness is not None else basis.value("worktop")


def faces_out(basis: Basis, cells: Sequence[Placed]) -> float:
    """How far the faces of the deepest unit stand out, mm."""
    return max(front_depth(basis, basis.unit(p.unit)) for p in cells)


def joint_bolts(length: float) -> int:
    return max(2, math.ceil(length / BOLT_PITCH))
