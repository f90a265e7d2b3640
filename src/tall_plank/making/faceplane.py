"""The plane of a unit's front edges: fronts stand before it."""

from __future__ import annotations

import math

import msgspec

from tall_plank.measure import Frame
from tall_plank.measure.frames import NEG_Z, PartFrame, Vec, Z
from tall_plank.measure.outlines import Point


class FacePlane(msgspec.Struct, frozen=True, cache_hash=True):
    """The plane of a unit's front edges, seen from above: where it starts at the left, and where it runs.

    Attributes
    ----------
    x, y : of its left end in the unit's frame, mm
    ux, uy : unit vector from left to right
    name : front, or leg for the face on a corner unit's other leg
    """

    x: float
    y: float
    ux: float = 1.0
    uy: float = 0.0
    name: str = "front"

    def point(self, u: float, out: float, z: float) -> Vec:
        """The point at u along the face, `out` before it, at height z, in the unit's frame."""
        return (self.x + self.ux * u + self.uy * out, self.y + self.uy * u - self.ux * out, z)

    def into(self, x: float, y: float) -> Point:
        """How far along the face a point of the unit's plan lies, and how far before it, mm."""
        dx, dy = x - self.x, y - self.y
        return dx * self.ux + dy * self.uy, dx * self.uy - dy * self.ux

    def frame(self, u: float, out: float, z: float, *, upright: bool) -> PartFrame:
        """Frame of a board on the face whose face A looks into the unit: length up with L1 at the left, or length to
        the right with L1 above."""
        along = (self.ux, self.uy, 0.0)
        return Frame(self.point(u, out, z), Z, along) if upright else Frame(self.point(u, out, z), along, NEG_Z)


def plane(a: tuple[float, float], b: tuple[float, float], name: str = "front") -> FacePlane:
    """The face from a to b, seen from above."""
    length = math.dist(a, b)
    return FacePlane(a[0], a[1], (b[0] - a[0]) / length, (b[1] - a[1]) / length, name)
