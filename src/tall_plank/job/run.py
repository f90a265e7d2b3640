"""A run: a row of cells along a line at one level. A cell places a unit and says how its width is found."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

import msgspec

from tall_plank.measure import Length
from tall_plank.measure.shareout import Rule


class Level(StrEnum):
    """At what height a run stands. Tall units stand in base runs too."""

    BASE = "base"
    HUNG = "hung"
    TALL = "tall"


class WidthRule(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """How a cell's width is found (RN2): fixed, an equal share (within a range), or what is left.

    Attributes
    ----------
    length : of a fixed width
    clear : the fixed length is the clear width inside; the unit is wider by its gables
    least, most : own range of a share; None is the kind's
    """

    rule: Rule
    length: Length | None = None
    clear: bool = False
    least: Length | None = None
    most: Length | None = None

    @classmethod
    def fixed(cls, length: Length) -> WidthRule:
        return cls(Rule.FIXED, length)


SHARE = WidthRule(Rule.SHARE)
REST = WidthRule(Rule.REST)


class Anchor(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """What holds a cell in its place along the line.

    Attributes
    ----------
    at : which of the cell is held: its left or right side, its centre, or both sides (span)
    to : source of what holds it (`cell:u4`, `opening:o2`, `column:m3`, `service:s1`), or `line`: the line's left end
    offset : added to the place of what holds it
    """

    at: Literal["left", "right", "centre", "span"]
    to: str
    offset: Length = Length("0mm", 0.0)


class Cell(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """One place in a run.

    Attributes
    ----------
    id : short and stable
    unit : id of the unit that stands here
    number : the unit's number on every list, plan and label; never changes by itself
    anchor : what holds it, where anything does
    label : own text of its label, with live fields in braces; empty: the kind's
    group : cells of one group are picked together
    locked : edits leave it as it is
    hidden : the views leave it out; lists and prices do not
    """

    id: str
    unit: str
    number: str
    width: WidthRule
    anchor: Anchor | None = None
    label: str = ""
    group: str = ""
    locked: bool = False
    hidden: bool = False


EdgeName = Literal["front", "left", "right", "back"]


class TopEdge(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """What one edge of a worktop has of its own; None is inherited.

    `upstand` says whether a strip stands up from the top along this edge; `profile` shapes the edge.
    """

    edge: EdgeName
    overhang: Length | None = None
    profile: str = ""
    upstand: bool | None = None


class TopCut(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A cut-out put into a worktop by hand: its middle from the top's left end and rear edge, and its size."""

    id: str
    x: Length
    back: Length
    width: Length
    depth: Length


class TopPoint(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A corner of a worktop's own outline, from the line's left end and out from the line.

    `bulge` of the side that starts here: 0 straight, else the tangent of a quarter of the arc's angle, positive to
    the left of the way from this point to the next.
    """

    x: Length
    out: Length
    bulge: float = 0.0


class Top(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """What was decided about the worktop of a run or an island.

    Attributes
    ----------
    left_out : no worktop at all
    thickness : None is the job value `worktop`
    joint : how it meets the worktop of the next run at a corner
    joints : own places of joints in its length, from its left end; the program finds others where the stock is short
    waterfall_left, waterfall_right : a leg of the same board down to the floor
    splashback : height of a panel behind it, None for none
    outline : own corners; empty: it follows the units
    """

    left_out: bool = False
    thickness: Length | None = None
    edges: tuple[TopEdge, ...] = ()
    joint: Literal["butt", "mitre", "masons mitre"] = "butt"
    joints: tuple[Length, ...] = ()
    cuts: tuple[TopCut, ...] = ()
    waterfall_left: bool = False
    waterfall_right: bool = False
    splashback: Length | None = None
    outline: tuple[TopPoint, ...] = ()

    def edge(self, name: EdgeName) -> TopEdge:
        """The decisions on an edge."""
        return next((e for e in self.edges if e.edge == name), TopEdge(name))


class Band(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A band of a sliding leaf: its finish (board, glass or mirror) and its height; None takes a share."""

    finish: str
    size: Length | None = None


class Leaf(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A sliding leaf: its bands from the top down, and the line that it runs on; empty: in turns, rear line first."""

    bands: tuple[Band, ...]
    line: Literal["", "front", "rear"] = ""


class BayRef(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A bay of a placed unit; an empty path is the whole unit."""

    cell: str
    path: tuple[int, ...] = ()


class SlidingDoors(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Sliding doors before an opening that reaches from one bay to another, over several bays or units.

    Attributes
    ----------
    first, last : the bays that limit the opening
    overlap : of neighbouring leaves; None is the standard's
    """

    id: str
    first: BayRef
    last: BayRef
    leaves: tuple[Leaf, ...]
    overlap: Length | None = None

    def line_of(self, index: int) -> int:
        """The line of a leaf: 0 in front, 1 behind."""
        own = self.leaves[index].line
        return (0 if own == "front" else 1) if own else (1 if index % 2 == 0 else 0)


class Run(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Cells from left to right, as seen from inside the room.

    Attributes
    ----------
    wall : the wall, or the island's face, that it stands along
    start, end : free length kept at the line's left and right end; None: up to the end, or clear of what stands in
        the corner
    bottom : own height of the underside above the floor; None is inherited from the job's values
    top : its worktop
    feet : what it stands on: a plinth, legs that are seen, or nothing
    plinth_returns : whether the plinth turns back to the wall at open ends
    to_ceiling : a filler closes what is open above its units
    sliding : sliding doors before its units
    """

    id: str
    wall: str
    level: Level
    cells: tuple[Cell, ...] = ()
    start: Length | None = None
    end: Length | None = None
    bottom: Length | None = None
    top: Top = Top()
    feet: Literal["plinth", "legs", "none"] = "plinth"
    plinth_returns: bool = True
    to_ceiling: bool = False
    sliding: tuple[SlidingDoors, ...] = ()
