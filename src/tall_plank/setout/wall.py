"""A wall as it stands, or the face of an island: the line that everything on it is measured along."""

from __future__ import annotations

import msgspec

from tall_plank.measure.frames import FloorPoint, RoomFrame
from tall_plank.measure.outlines import Point

Span = tuple[float, float]
"""Two places along a line, mm from its left end."""


class Wall(msgspec.Struct, frozen=True, cache_hash=True):
    """A wall as it stands, or the face of an island or a column.

    Attributes
    ----------
    length, height, thickness : mm; the height is the greatest along the wall
    frame : in the room's frame
    before, after : degrees inside the room at its left and right end
    profile : (x, z) of its upper edge from left to right, where the ceiling slopes
    island : id of the island whose face this is
    column : id of the column whose face this is
    code : what it is called in numbers of parts; empty: its letter
    """

    id: str
    name: str
    length: float
    height: float
    thickness: float
    frame: RoomFrame
    before: float = 90.0
    after: float = 90.0
    profile: tuple[Point, ...] = ()
    island: str = ""
    column: str = ""
    code: str = ""

    @property
    def is_face(self) -> bool:
        """Whether it is a face of something that stands in the room, not a wall of it."""
        return bool(self.island or self.column)

    @property
    def mark(self) -> str:
        """What it is called in numbers and marks."""
        return self.code or self.id

    @property
    def title(self) -> str:
        """What it is called where people read of it: a face of an island never by its id, which a unit has too."""
        return self.name if self.is_face else f"wall {self.id}"

    @property
    def heading(self) -> str:
        """Its title at the head of a drawing or a line."""
        return self.title[0].upper() + self.title[1:]

    @property
    def start(self) -> FloorPoint:
        return self.frame.floor(0.0, 0.0)

    @property
    def end(self) -> FloorPoint:
        return self.frame.floor(self.length, 0.0)

    @property
    def out_of(self) -> Point:
        """Direction square out of the wall into the room."""
        return (-self.frame.y[0], -self.frame.y[1])

    def height_at(self, x: float) -> float:
        """Height of the wall's upper edge at x, mm."""
        for (x0, z0), (x1, z1) in zip(self.profile, self.profile[1:], strict=False):
            if x0 - 1e-9 <= x <= x1 + 1e-9:
                return z0 if x1 - x0 < 1e-9 else z0 + (z1 - z0) * (x - x0) / (x1 - x0)
        return self.height
