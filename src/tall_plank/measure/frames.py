"""Frames: the one module that turns coordinates of one into another. Right-handed, mm.

The conventions (room, wall, unit, part) are a table in tests/measure/test_frames.py.
"""

from __future__ import annotations

import math

import msgspec

Vec = tuple[float, float, float]

X: Vec = (1.0, 0.0, 0.0)
Y: Vec = (0.0, 1.0, 0.0)
Z: Vec = (0.0, 0.0, 1.0)
NEG_X: Vec = (-1.0, 0.0, 0.0)
NEG_Y: Vec = (0.0, -1.0, 0.0)
NEG_Z: Vec = (0.0, 0.0, -1.0)


def cross(a: Vec, b: Vec) -> Vec:
    """The right-handed vector product."""
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


class Frame(msgspec.Struct, frozen=True, cache_hash=True):
    """A place to stand and two directions; the third follows.

    Attributes
    ----------
    origin : (3,) mm, in the parent frame
    x, y : (3,) unit vectors in the parent frame
    """

    origin: Vec = (0.0, 0.0, 0.0)
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

    def out(self, p: Vec) -> Vec:
        """A point of this frame, in the parent's coordinates."""
        # Written out: a drag asks this thousands of times a step.
        (ox, oy, oz), (ax, ay, az), (bx, by, bz), (u, v, w) = self.origin, self.x, self.y, p
        if w == 0.0:
            return (ox + (ax * u + bx * v), oy + (ay * u + by * v), oz + (az * u + bz * v))
        return (
            ox + (ax * u + bx * v + (ay * bz - az * by) * w),
            oy + (ay * u + by * v + (az * bx - ax * bz) * w),
            oz + (az * u + bz * v + (ax * by - ay * bx) * w),
        )

    def into(self, p: Vec) -> Vec:
        """A point of the parent, in this frame's coordinates."""
        (ox, oy, oz), (ax, ay, az), (bx, by, bz) = self.origin, self.x, self.y
        u, v, w = p[0] - ox, p[1] - oy, p[2] - oz
        return (
            u * ax + v * ay + w * az,
            u * bx + v * by + w * bz,
            u * (ay * bz - az * by) + v * (az * bx - ax * bz) + w * (ax * by - ay * bx),
        )

    def then(self, inner: Frame) -> Frame:
        """A frame given in this frame, in the parent's coordinates."""
        (ax, ay, az), (bx, by, bz), (cx, cy, cz) = self.x, self.y, self.z
        (u, v, w), o = inner.origin, self.origin
        (xu, xv, xw), (yu, yv, yw) = inner.x, inner.y
        return Frame(
            (o[0] + ax * u + bx * v + cx * w, o[1] + ay * u + by * v + cy * w, o[2] + az * u + bz * v + cz * w),
            (ax * xu + bx * xv + cx * xw, ay * xu + by * xv + cy * xw, az * xu + bz * xv + cz * xw),
            (ax * yu + bx * yv + cx * yw, ay * yu + by * yv + cy * yw, az * yu + bz * yv + cz * yw),
        )


def wall_frame(start: tuple[float, float], end: tuple[float, float]) -> Frame:
    """The frame of a wall whose floor line goes from start to end, clockwise seen from above.

    Wall: x left to right seen from inside the room, y into the wall, z up from the floor.
    """
    dx, dy = end[0] - start[0], end[1] - start[1]
    length = math.hypot(dx, dy)
    if length < 1e-9:
        return Frame((start[0], start[1], 0.0))
    ux, uy = dx / length, dy / length
    return Frame((start[0], start[1], 0.0), (ux, uy, 0.0), (-uy, ux, 0.0))


def box_corners(frame: Frame, size: Vec) -> tuple[Vec, Vec]:
    """The least and greatest corner, in the parent, of a box (0,0,0)-(size) in a frame that is square to it."""
    a, b = frame.origin, frame.out(size)
    return (
        (min(a[0], b[0]), min(a[1], b[1]), min(a[2], b[2])),
        (max(a[0], b[0]), max(a[1], b[1]), max(a[2], b[2])),
    )
