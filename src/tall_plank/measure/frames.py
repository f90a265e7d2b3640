"""Frames: the one module that turns coordinates of one into another. Right-handed, mm.

The conventions (room, wall, unit, part) are a table in tests/measure/test_frames.py.
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from typing import Generic, NewType, TypeVar

import msgspec

from tall_plank.measure.outlines import Point

Vec = tuple[float, float, float]

RoomPoint = NewType("RoomPoint", Vec)
"""A point in a room's own coordinates, mm. A point along a wall is none: a frame turns the one into the other."""

FloorPoint = NewType("FloorPoint", Point)
"""A point of a room's floor in the room's own coordinates, mm."""

FloorPoints = tuple[FloorPoint, ...]


def floor_points(points: Iterable[Point]) -> FloorPoints:
    """Places that were worked out in a room's plan, as such, mm."""
    return tuple(FloorPoint(p) for p in points)


def room_point(at: Iterable[float]) -> RoomPoint:
    """Three coordinates in the room, mm, such as a row of an array."""
    x, y, z = at
    return RoomPoint((float(x), float(y), float(z)))


P = TypeVar("P", bound=Vec)

X: Vec = (1.0, 0.0, 0.0)
Y: Vec = (0.0, 1.0, 0.0)
Z: Vec = (0.0, 0.0, 1.0)
NEG_X: Vec = (-1.0, 0.0, 0.0)
NEG_Y: Vec = (0.0, -1.0, 0.0)
NEG_Z: Vec = (0.0, 0.0, -1.0)


def cross(a: Vec, b: Vec) -> Vec:
    """The right-handed vector product."""
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


class Frame(msgspec.Struct, Generic[P], frozen=True, cache_hash=True):
    """A place to stand and two directions; the third follows.

    The type of its parent's points is its own: what stands in a room (a wall, a unit, a board) has a RoomFrame, a part
    in its unit a PartFrame.

    Attributes
    ----------
    origin : (3,) mm, in the parent frame
    x, y : (3,) unit vectors in the parent frame
    """

    origin: P = (0.0, 0.0, 0.0)  # type: ignore[assignment]
    x: Vec = X
    y: Vec = Y

    @property
    def z(self) -> Vec:
        """The third direction, so that x, y, z are right-handed."""
        return cross(self.x, self.y)

    def turn(self, v: Vec) -> Vec:
        """A direction of this frame, in the parent's."""
        if v[2] == 0.0:  # what lies in the x-y plane needs no third direction
            (ax, ay, az), (bx, by, bz) = self.x, self.y
            return (ax * v[0] + bx * v[1], ay * v[0] + by * v[1], az * v[0] + bz * v[1])
        z = self.z
        return (
            self.x[0] * v[0] + self.y[0] * v[1] + z[0] * v[2],
            self.x[1] * v[0] + self.y[1] * v[1] + z[1] * v[2],
            self.x[2] * v[0] + self.y[2] * v[1] + z[2] * v[2],
        )

    def at(self, u: float, v: float, w: float = 0.0) -> P:
        """A point of this frame, in the parent's coordinates, mm."""
        # Written out: a drag asks this thousands of times a step.
        (ox, oy, oz), (ax, ay, az), (bx, by, bz) = self.origin, self.x, self.y
        if w == 0.0:
            return (ox + (ax * u + bx * v), oy + (ay * u + by * v), oz + (az * u + bz * v))  # type: ignore[return-value]
        return (
            ox + (ax * u + bx * v + (ay * bz - az * by) * w),
            oy + (ay * u + by * v + (az * bx - ax * bz) * w),
            oz + (az * u + bz * v + (ax * by - ay * bx) * w),
        )  # type: ignore[return-value]

    def into(self, p: P) -> Vec:
        """A point of the parent, in this frame's coordinates, mm."""
        (ox, oy, oz), (ax, ay, az), (bx, by, bz) = self.origin, self.x, self.y
        u, v, w = p[0] - ox, p[1] - oy, p[2] - oz
        return (
            u * ax + v * ay + w * az,
            u * bx + v * by + w * bz,
            u * (ay * bz - az * by) + v * (az * bx - ax * bz) + w * (ax * by - ay * bx),
        )

    def floor(self: Frame[RoomPoint], u: float, v: float) -> FloorPoint:
        """A point of this frame, as one of the room's floor, mm."""
        x, y, _ = self.at(u, v)
        return FloorPoint((x, y))

    def from_floor(self: Frame[RoomPoint], p: FloorPoint) -> Point:
        """A point of the room's floor, along this frame's x and y, mm."""
        return self.into(RoomPoint((p[0], p[1], 0.0)))[:2]

    def then(self, inner: PartFrame) -> Frame[P]:
        """A frame given in this frame, in the parent's coordinates."""
        (ax, ay, az), (bx, by, bz), (cx, cy, cz) = self.x, self.y, self.z
        u, v, w = inner.origin
        (xu, xv, xw), (yu, yv, yw) = inner.x, inner.y
        return Frame(
            self.at(u, v, w),
            (ax * xu + bx * xv + cx * xw, ay * xu + by * xv + cy * xw, az * xu + bz * xv + cz * xw),
            (ax * yu + bx * yv + cx * yw, ay * yu + by * yv + cy * yw, az * yu + bz * yv + cz * yw),
        )


RoomFrame = Frame[RoomPoint]
"""The frame of what stands in a room."""

PartFrame = Frame[Vec]
"""The frame of a part in its unit, or of whatever else lies in something that has a frame itself."""


def wall_frame(start: FloorPoint, end: FloorPoint) -> RoomFrame:
    """The frame of a wall whose floor line goes from start to end, clockwise seen from above.

    Wall: x left to right seen from inside the room, y into the wall, z up from the floor.
    """
    dx, dy = end[0] - start[0], end[1] - start[1]
    length = math.hypot(dx, dy)
    if length < 1e-9:
        return Frame(RoomPoint((start[0], start[1], 0.0)))
    ux, uy = dx / length, dy / length
    return Frame(RoomPoint((start[0], start[1], 0.0)), (ux, uy, 0.0), (-uy, ux, 0.0))


def box_corners(frame: Frame[P], size: Vec) -> tuple[Vec, Vec]:
    """The least and greatest corner, in the parent, of a box (0,0,0)-(size) in a frame that is square to it."""
    a, b = frame.origin, frame.at(*size)
    return (
        (min(a[0], b[0]), min(a[1], b[1]), min(a[2], b[2])),
        (max(a[0], b[0]), max(a[1], b[1]), max(a[2], b[2])),
    )
