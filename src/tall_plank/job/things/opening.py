"""A door, window, open passage or niche in a wall."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import ZERO, Length

OpeningKind = Literal["door", "window", "arch", "niche"]


class Opening(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A door, window, open passage or niche in a wall.

    Attributes
    ----------
    x : of its left side from the wall's left end, seen from inside
    sill : height of its underside above the floor (0 for a door)
    hand : side of the hinges seen from inside the room
    swing : whether a door opens into the room or out of it
    reveal : from the wall's face back to the frame
    depth : how far a niche goes into the wall
    casing : code of the profile that is mitred round it; empty: none
    casing_by_others : it is drawn, but in no list and no price
    """

    id: str
    wall: str
    kind: OpeningKind
    x: Length
    width: Length
    height: Length
    sill: Length
    hand: Literal["left", "right"] = "left"
    swing: Literal["in", "out"] = "in"
    reveal: Length = ZERO
    depth: Length = ZERO
    casing: str = ""
    casing_by_others: bool = False


OPENING = Noun(
    kind=Kind.OPENING,
    word="opening",
    prefix="o",
    rows="openings",
    wall=lambda room, thing: thing.wall,
    name=lambda thing: thing.kind,
    extent=lambda thing: (thing.x.mm, thing.width.mm),
)
