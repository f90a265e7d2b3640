"""The walls of a room, clockwise seen from above, each with its frame."""

from __future__ import annotations

import msgspec

from tall_plank.job import Room
from tall_plank.measure import Frame
from tall_plank.measure.frames import wall_frame

NAMES = ("north", "east", "south", "west")


class Wall(msgspec.Struct, frozen=True, cache_hash=True):
    """A wall as it stands. `length` and `height` in mm; `frame` in the room's frame."""

    id: str
    name: str
    length: float
    height: float
    thickness: float
    frame: Frame


def walls_of(room: Room) -> tuple[Wall, ...]:
    """The four walls of a rectangular room: A north, B east, C south, D west."""
    w, d = room.outline.width.mm, room.outline.depth.mm
    corners = ((0.0, d), (w, d), (w, 0.0), (0.0, 0.0))
    walls = []
    for i, letter in enumerate("ABCD"):
        start, end = corners[i], corners[(i + 1) % 4]
        length = w if i % 2 == 0 else d
        frame = wall_frame(start, end)
        walls.append(Wall(letter, NAMES[i], length, room.height.mm, room.wall_thickness.mm, frame))
    return tuple(walls)
