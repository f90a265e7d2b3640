"""Flat regions with holes, bounded by lines and exact arcs: what of one lies in another, and what is left without it.

Which pieces there are is found on close chords by Shapely; every corner and arc of the answer is then worked out anew
from the lines and circles it came from, so that arcs stay arcs and corners are exact. All in mm.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

import msgspec
import numpy as np
from numpy.typing import NDArray

from tall_plank.measure import paths
from tall_plank.measure.outlines import Point, Points
from tall_plank.measure.paths import NEAR, Path, Side, carriers_meet, chords, joined, path_of, sides_of

CLOSE = 0.01
"""mm that a chord is off its arc at most while pieces are looked for."""

SLIVER = 0.01
"""mm²; what is smaller is none."""


class Region(msgspec.Struct, frozen=True, cache_hash=True):
    """A simple outline that runs counter-clockwise, and holes inside it."""

    outer: Path
    holes: tuple[Path, ...] = ()

    @property
    def area(self) -> float:
        """mm², holes taken off."""
        return abs(paths.area(self.outer)) - sum(abs(paths.area(h)) for h in self.holes)

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """x0, y0, x1, y1, mm."""
        return paths.bounds(self.outer)

    @property
    def is_box(self) -> bool:
        """Whether it is an upright rectangle without holes."""
        if self.holes or len(self.outer) != 4 or paths.is_bent(self.outer):
            return False
        (a, b, _), (c, d, _), (e, f, _), (g, h, _) = self.outer
        one = abs(b - d) < NEAR and abs(c - e) < NEAR and abs(f - h) < NEAR and abs(g - a) < NEAR
        other = abs(a - c) < NEAR and abs(d - f) < NEAR and abs(e - g) < NEAR and abs(h - b) < NEAR
        return one or other

    def inside(self, x: float, y: float) -> bool:
        """Whether a point lies in it, holes left out; mm."""
        return paths.inside(self.outer, x, y) and not any(paths.inside(h, x, y) for h in self.holes)


def box_path(x0: float, y0: float, x1: float, y1: float) -> Path:
    """An upright rectangle, counter-clockwise; mm."""
    return path_of(((x0, y0), (x1, y0), (x1, y1), (x0, y1)))


def within(region: Region, shapes: Sequence[Path]) -> list[list[Region]]:
    """What of a region lies in each of some shapes."""
    x0, y0, x1, y1 = region.bounds
    if region.is_box and all(_upright(s) for s in shapes):
        found = []
        for s in shapes:
            a0, b0, a1, b1 = paths.bounds(s)
            a0, b0, a1, b1 = max(a0, x0), max(b0, y0), min(a1, x1), min(b1, y1)
            found.append([Region(box_path(a0, b0, a1, b1))] if a1 - a0 > NEAR and b1 - b0 > NEAR else [])
        return found
    return _worked_out(region, shapes, "intersection")


def without(region: Region, shapes: Sequence[Path]) -> list[Region]:
    """What is left of a region when shapes are taken out of it."""
    near = [s for s in shapes if _meet(paths.bounds(s), region.bounds)]
    left = [region]
    for shape in near:
        left = [piece for one in left for piece in _worked_out(one, [shape], "difference")[0]]
    return left


def _upright(path: Path) -> bool:
    return len(path) == 4 and Region(path).is_box


def _meet(a: tuple[float, float, float, float], b: tuple[float, float, float, float]) -> bool:
    return a[0] < b[2] - NEAR and b[0] < a[2] - NEAR and a[1] < b[3] - NEAR and b[1] < a[3] - NEAR


def _worked_out(region: Region, shapes: Sequence[Path], how: str) -> list[list[Region]]:
    import shapely

    ground = shapely.Polygon(chords(region.outer, CLOSE), [chords(h, CLOSE) for h in region.holes])
    outlines = [chords(s, CLOSE) for s in shapes]
    made = getattr(shapely, how)(ground, np.array([shapely.Polygon(o) for o in outlines]))
    own = [s for path in (region.outer, *region.holes) for s in sides_of(path) if s.chord > NEAR]
    known = _Carriers(own)
    arcs = [paths.bounds((*_ends(s),)) for s in own if s.bulge]
    found: list[list[Region]] = []
    for shape, outline, geometry in zip(shapes, outlines, made, strict=True):
        pieces = [g for g in shapely.get_parts(geometry) if g.geom_type == "Polygon" and g.area > SLIVER]
        if not pieces:
            found.append([])
            continue
        box = _box_of(outline)
        straight = len(outline) == len(shape) and not any(_touch(a, box) for a in arcs)
        if how == "intersection" and straight:
            carriers = None
        else:
            carriers = known.with_sides([s for s in sides_of(shape) if s.chord > NEAR])
        found.append([_region(g, carriers) for g in pieces])
    return found


def _ends(side: Side) -> Path:
    """An arc closed by its chord."""
    return ((*side.a, side.bulge), (*side.b, 0.0))


def _box_of(points: Points) -> tuple[float, float, float, float]:
    xs, ys = zip(*points, strict=True)
    return min(xs), min(ys), max(xs), max(ys)


def _touch(a: tuple[float, float, float, float], b: tuple[float, float, float, float]) -> bool:
    return a[0] < b[2] + 1.0 and b[0] < a[2] + 1.0 and a[1] < b[3] + 1.0 and b[1] < a[3] + 1.0


def _region(polygon: Any, carriers: _Carriers | None) -> Region:
    import shapely

    def ring(line: Any) -> Path:
        points = shapely.get_coordinates(line)[:-1]
        path = carriers.exact(points) if carriers is not None else path_of([(float(x), float(y)) for x, y in points])
        path = path if paths.area(path) > 0 else paths.turned_round(path)
        return tuple((x + 0.0, y + 0.0, bulge + 0.0) for x, y, bulge in path)

    return Region(ring(polygon.exterior), tuple(ring(r) for r in polygon.interiors))


class _Carriers:
    """The lines and circles that borders run on."""

    def __init__(self, sides: Sequence[Side]) -> None:
        self.sides = list(sides)
        n = len(self.sides)
        self.a = np.array([s.a for s in self.sides]).reshape(n, 2)
        chord = np.array([s.b for s in self.sides]).reshape(n, 2) - self.a
        self.size = np.hypot(chord[:, 0], chord[:, 1])
        self.way = chord / self.size[:, None]
        self.bent = np.array([bool(s.bulge) for s in self.sides])
        self.wide = np.array([abs(s.bulge) > 1.0 + 1e-9 for s in self.sides])
        self.center = np.array([s.center if s.bulge else (0.0, 0.0) for s in self.sides]).reshape(n, 2)
        self.radius = np.array([s.radius for s in self.sides])

    def with_sides(self, sides: Sequence[Side]) -> _Carriers:
        """These and others."""
        other = _Carriers(sides)
        both = _Carriers.__new__(_Carriers)
        both.sides = [*self.sides, *other.sides]
        for name in ("a", "size", "way", "bent", "wide", "center", "radius"):
            setattr(both, name, np.concatenate([getattr(self, name), getattr(other, name)]))
        return both

    def exact(self, points: NDArray[np.float64]) -> Path:
        """A closed ring of chords as sides on the lines and circles that it came from."""
        n = len(points)
        ends = np.roll(points, -1, axis=0)
        owner = self._owners(points, ends)
        start = next((i for i in range(n) if not self._same(owner[i - 1], owner[i])), 0)
        runs: list[tuple[int, Point]] = []
        for k in range(n):
            i = (start + k) % n
            if k == 0 or not self._same(owner[i - 1], owner[i]):
                runs.append((int(owner[i]), (float(points[i][0]), float(points[i][1]))))
        if len(runs) < 2:
            return path_of([(float(x), float(y)) for x, y in points])
        corners = [self._corner(runs[i - 1][0], runs[i][0], at) for i, (_, at) in enumerate(runs)]
        sides = []
        for i, (which, _) in enumerate(runs):
            a, b = corners[i], corners[(i + 1) % len(runs)]
            if math.dist(a, b) > NEAR:
                side = self.sides[which]
                share = side.share_of(b) - side.share_of(a) if side.bulge else 0.0
                sides.append(Side(a, b, math.tan(side.turn * share / 4.0) if side.bulge else 0.0))
        return joined(sides)

    def _owners(self, starts: NDArray[np.float64], ends: NDArray[np.float64]) -> NDArray[np.int64]:
        """The side that each chord lies on: the one that both its ends and its middle are nearest to. An arc's chord
        has its ends on the circle, a line that touches the circle there has not."""
        middles = (starts + ends) / 2
        off = middles[:, None, :] - self.a[None]
        along = (off * self.way[None]).sum(axis=2)
        # An arc of more than half a turn reaches beyond its chord.
        beyond = np.where(self.wide, 0.0, np.maximum(np.maximum(-along, along - self.size), 0.0))
        away = beyond + sum(self._away(points) for points in (starts, ends, middles))
        return away.argmin(axis=1)  # type: ignore[no-any-return]

    def _away(self, points: NDArray[np.float64]) -> NDArray[np.float64]:
        """How far points are from every line and circle, mm."""
        off = points[:, None, :] - self.a[None]
        across = np.abs(off[..., 0] * self.way[:, 1] - off[..., 1] * self.way[:, 0])
        to_center = points[:, None, :] - self.center[None]
        from_circle = np.abs(np.hypot(to_center[..., 0], to_center[..., 1]) - self.radius)
        away: NDArray[np.float64] = np.where(self.bent, from_circle, across)
        return away

    def _same(self, i: int, k: int) -> bool:
        """Whether two sides run on one line or circle."""
        if i == k:
            return True
        if self.bent[i] != self.bent[k]:
            return False
        if self.bent[i]:
            return math.dist(self.center[i], self.center[k]) < 1e-6 and abs(self.radius[i] - self.radius[k]) < 1e-6
        off = self.a[k] - self.a[i]
        turned = self.way[i][0] * self.way[k][1] - self.way[i][1] * self.way[k][0]
        return bool(abs(turned) < 1e-9 and abs(self.way[i][0] * off[1] - self.way[i][1] * off[0]) < 1e-6)

    def _corner(self, before: int, after: int, near: Point) -> Point:
        """Where two sides meet, next to where their chords did."""
        one, two = self.sides[before], self.sides[after]
        for end in (one.a, one.b, two.a, two.b):
            if math.dist(end, near) < 1e-6:
                return end
        found = [p for p in carriers_meet(one, two) if math.dist(p, near) < 1.0]
        return min(found, key=lambda p: math.dist(p, near)) if found else near
