"""What was decided about a worktop."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.measure import Length

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
