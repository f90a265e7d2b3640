"""An island or a peninsula."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.job.top import Top
from tall_plank.measure import ZERO, Length

EndKind = Literal["open", "panel", "waterfall"]


class Island(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A free line with two faces, or a peninsula.

    Attributes
    ----------
    letter : its faces are this letter with 1 and 2
    x, y : the left end of its line, seen from face 1, in the room's frame
    angle : where the line runs, degrees counter-clockwise from east
    wall : a peninsula's wall: the line then starts at `x` along that wall and runs square into the room
    length : of the whole island, panels at its ends included
    gap : clear space between the backs of both faces
    left, right : what closes each end, seen from face 1
    back : whether a face without units is closed by a panel
    spine : a dividing panel between the two faces
    seating : how far the worktop reaches past the back face for people to sit at
    """

    id: str
    letter: str
    x: Length
    y: Length
    length: Length
    angle: float = 0.0
    wall: str = ""
    gap: Length = ZERO
    left: EndKind = "panel"
    right: EndKind = "panel"
    back: bool = True
    spine: bool = False
    seating: Length = ZERO
    top: Top = Top()


ISLAND = Noun(
    kind=Kind.ISLAND,
    word="island",
    prefix="i",
    rows="islands",
    wall=lambda room, thing: thing.wall,
)
