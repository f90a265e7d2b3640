"""How a front or a drawer opens, and what stands in its way."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

import msgspec
import shapely

from tall_plank.making.faceplane import FacePlane
from tall_plank.making.parts import Part
from tall_plank.making.sweeps import Grip, Meeting, Sweep, first_met, furthest, pulled, seen_from_the_side, turned
from tall_plank.measure.outlines import Points

Thing = tuple[Points, float, float]
"""Something upright: its outline from above, its bottom and its top, mm."""


class Way(msgspec.Struct, frozen=True, cache_hash=True):
    """How a front or a drawer opens.

    Attributes
    ----------
    name : what the names of its parts begin with
    word : what it is called: door, drawer
    face : the plane of its back, in the unit's frame
    x, z, width, height : its place on the face, mm
    thick : mm
    moves : about an upright or a level axis, or straight out
    far : whether it is hinged at its right or upper edge
    handle : (x, z, x, z) of both ends, mm
    projection : mm that the handle stands out
    reach : mm that it is pulled
    """

    name: str
    word: str
    face: FacePlane
    x: float
    z: float
    width: float
    height: float
    thick: float
    moves: Literal["turns", "tilts", "slides"]
    far: bool = False
    handle: tuple[float, float, float, float] | None = None
    projection: float = 0.0
    reach: float = 0.0

    def owns(self, part: str) -> bool:
        """Whether a part of that name belongs to it."""
        return part == self.name or part.startswith(self.name + " ")

    def handle_body(self) -> Thing | None:
        """Its handle as it stands when the front is closed, in the unit's plan; None where it has none."""
        if self.handle is None or self.projection <= 0.0:
            return None
        x0, x1 = sorted((self.handle[0], self.handle[2]))
        z0, z1 = sorted((self.handle[1], self.handle[3]))
        x0, x1 = (x0 - GRIP, x1 + GRIP) if x1 - x0 < 1.0 else (x0, x1)
        z0, z1 = (z0 - GRIP, z1 + GRIP) if z1 - z0 < 1.0 else (z0, z1)
        near, far = self.thick, self.thick + self.projection
        corners = [self.face.point(u, out, 0.0) for u, out in ((x0, near), (x1, near), (x1, far), (x0, far))]
        return tuple((x, y) for x, y, _ in corners), z0, z1

    @property
    def _grip(self) -> Grip | None:
        """The handle along its way."""
        if self.handle is None or self.projection <= 0.0:
            return None
        upright = self.moves == "tilts"
        a, b = sorted((self.handle[1], self.handle[3]) if upright else (self.handle[0], self.handle[2]))
        a, b = (a - GRIP, b + GRIP) if b - a < 1.0 else (a, b)
        start, length = (self.z, self.height) if upright else (self.x, self.width)
        near, far = (start + length - b, start + length - a) if self.far else (a - start, b - start)
        return near, far, self.projection

    @property
    def sweep(self) -> Sweep:
        """What it passes."""
        if self.moves == "slides":
            return pulled(self.width, self.thick, self._grip, self.reach)
        return turned(self.height if self.moves == "tilts" else self.width, self.thick, self._grip)

    @property
    def out(self) -> float:
        """How far out of its back it reaches at most, mm."""
        if self.moves == "slides":
            return self.thick + self.projection + self.reach
        return furthest(self.height if self.moves == "tilts" else self.width, self.thick, self._grip)

    def stands_in(self, thing: Thing) -> bool:
        """Whether the front, closed, stands in something given in coordinates of its face."""
        points, low, high = thing
        if low > self.z + self.height - 0.5 or high < self.z + 0.5:
            return False
        own = shapely.box(self.x + 0.5, 0.5, self.x + self.width - 0.5, self.thick - 0.5)
        return bool(shapely.intersects(own, shapely.Polygon(points)))

    def meets(self, things: Sequence[Thing]) -> Meeting | None:
        """The first thing that stands in its way; what stands no further out than its face lets it pass.

        Parameters
        ----------
        things : in coordinates of the face: u along it, out of the front's back, height in the unit
        """
        outlines: list[Points] = []
        places: list[int] = []
        level, far = self.moves == "tilts", self.far and self.moves != "slides"
        start, length = (self.z, self.height) if level else (self.x, self.width)
        for i, (points, low, high) in enumerate(things):
            if max(q for _, q in points) < self.thick + 1.0:
                continue
            seen = points
            if level:
                seen = seen_from_the_side(points, self.x, self.x + self.width, low, high)
            elif low > self.z + self.height - 0.5 or high < self.z + 0.5:
                continue
            if seen:
                outlines.append(tuple((start + length - s if far else s - start, q) for s, q in seen))
                places.append(i)
        met = first_met(self.sweep, outlines)
        return None if met is None else met._replace(which=places[met.which])


GRIP = 6.0
"""mm; half the width of a handle seen along it (common practice)."""


def outline_of(part: Part) -> Thing:
    """A part seen from above, in the frame that it stands in: a lying board by its outline, else the hull of its
    corners; mm."""
    f = part.frame
    if abs(f.x[2]) + abs(f.y[2]) < 1e-9:
        flat = part.outline or ((0.0, 0.0), (part.length, 0.0), (part.length, part.width), (0.0, part.width))
        ends = (f.origin[2], f.at(0.0, 0.0, part.thickness)[2])
        return tuple(f.at(x, y)[:2] for x, y in flat), min(ends), max(ends)
    corners = [f.at(x, y, z) for x in (0.0, part.length) for y in (0.0, part.width) for z in (0.0, part.thickness)]
    zs = [z for _, _, z in corners]
    hull = shapely.convex_hull(shapely.multipoints([(x, y) for x, y, _ in corners]))
    points = shapely.get_coordinates(hull)[:-1]
    return tuple((float(x), float(y)) for x, y in points), min(zs), max(zs)
