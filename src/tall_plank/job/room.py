"""A room: outline, height, openings and the runs in it."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.run import Run
from tall_plank.measure import Length


class Rectangle(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True, tag="rectangle"):
    """A rectangular floor: `width` along x (walls A and C), `depth` along y (walls B and D), inside dimensions."""

    width: Length
    depth: Length


class Opening(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A door or window in a wall.

    Attributes
    ----------
    x : of its left side from the wall's left end, seen from inside
    sill : height of its underside above the floor (0 for a door)
    hand : side of the hinges seen from inside the room
    """

    id: str
    wall: str
    kind: Literal["door", "window"]
    x: Length
    width: Length
    height: Length
    sill: Length
    hand: Literal["left", "right"] = "left"


class Room(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """One room with its runs. Walls are lettered clockwise from the north: A, B, C, D."""

    id: str
    name: str
    outline: Rectangle
    height: Length
    wall_thickness: Length
    openings: tuple[Opening, ...] = ()
    runs: tuple[Run, ...] = ()
