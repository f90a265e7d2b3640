"""Closed paths of lines and exact arcs in a plane: area, crossings, chords where straight sides are needed. All in mm.

A path is a tuple of corners (x, y, bulge) without the first one repeated at its end. A side runs from its corner to the
next; its bulge is the tangent of a quarter of the angle that it turns by, above 0 where it bends counter-clockwise, 0
for a line: as in the drawing exchange format DXF. Arcs stay arcs until they are drawn on a screen or laid on a board.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from tall_plank.measure import outlines as ol
from tall_plank.measure.outlines import Point, Points

NEAR = 1e-7
"""mm; corners nearer than this are one corner."""

Corner = tuple[float, float, float]
Path = tuple[Corner, ...]


class Side(NamedTuple):
    """A side of a path.

    Attributes
    ----------
    a, b : its ends, mm
    bulge : see above
    """

    a: Point
    b: Point
    bulge: float

    @property
    def chord(self) -> float:
        """mm from end to end."""
        return math.dist(self.a, self.b)

    @property
    def turn(self) -> float:
        """Radians that it turns by, above 0 counter-clockwise; 0 for a line."""
        return 4.0 * math.atan(self.bulge)

    @property
    def radius(self) -> float:
        """mm; 0 for a line."""
        return self.chord * (1.0 + self.bulge**2) / (4.0 * abs(self.bulge)) if self.bulge else 0.0

    @property
    def center(self) -> Point:
        """Of an arc."""
        # From the chord's middle to the left by the apothem, which is negative beyond half a turn.
        (ax, ay), (bx, by) = self.a, self.b
        off = (1.0 - self.bulge**2) / (4.0 * self.bulge)
        return ((ax + bx) / 2 - (by - ay) * off, (ay + by) / 2 + (bx - ax) * off)

    @property
    def length(self) -> float:
        """mm along it."""
        return self.radius * abs(self.turn) if self.bulge else self.chord

    def at(self, share: float) -> Point:
        """The point at a share of its length."""
        (ax, ay), (bx, by) = self.a, self.b
        if not self.bulge:
            return (ax + (bx - ax) * share, ay + (by - ay) * share)
        cx, cy = self.center
        angle = math.atan2(ay - cy, ax - cx) + self.turn * share
        return (cx + self.radius * math.cos(angle), cy + self.radius * math.sin(angle))

    def way(self, share: float) -> Point:
        """The unit vector along it at a share of its length."""
        dx, dy = self.b[0] - self.a[0], self.b[1] - self.a[1]
        angle = math.atan2(dy, dx) + self.turn * (share - 0.5)
        return (math.cos(angle), math.sin(angle))

    def share_of(self, p: Point) -> float:
        """The share of its length at which a point of its line or circle lies; beyond 0 to 1 outside it."""
        if not self.bulge:
            dx, dy = self.b[0] - self.a[0], self.b[1] - self.a[1]
            return ((p[0] - self.a[0]) * dx + (p[1] - self.a[1]) * dy) / (dx * dx + dy * dy)
        cx, cy = self.center
        start = math.atan2(self.a[1] - cy, self.a[0] - cx)
        off = math.atan2(p[1] - cy, p[0] - cx) - start
        turn = self.turn
        # Measured from the middle of the arc, so that what lies across counts as far as it is.
        off = (off - turn / 2 + math.pi) % (2 * math.pi) - math.pi + turn / 2
        return off / turn

    def part(self, low: float, high: float) -> Side:
        """A piece of it between two shares."""
        bulge = math.tan(self.turn * (high - low) / 4.0) if self.bulge else 0.0
        a = self.a if low <= 0.0 else self.at(low)
        b = self.b if high >= 1.0 else self.at(high)
        return Side(a, b, bulge)

    def turned(self) -> Side:
        """The other way round."""
        return Side(self.b, self.a, -self.bulge)


def path_of(points: Sequence[Point]) -> Path:
    """An outline of straight sides as a path."""
    return tuple((x, y, 0.0) for x, y in points)


def joined(sides: Sequence[Side]) -> Path:
    """The path of sides that follow one another; those without a length are left out."""
    return tuple((*s.a, s.bulge) for s in sides if s.chord > NEAR)


def sides_of(path: Path) -> Iterator[Side]:
    """Its sides in order."""
    for (ax, ay, bulge), (bx, by, _) in zip(path, (*path[1:], path[0]), strict=True):
        yield Side((ax, ay), (bx, by), bulge)


def area(path: Path) -> float:
    """mm2: above 0 where it runs counter-clockwise. The shoelace formula, and a circle's segment for every arc."""
    found = [ol.area([(x, y) for x, y, _ in path])]
    for side in sides_of(path):
        if side.bulge:
            found.append(side.radius**2 / 2 * (side.turn - math.sin(side.turn)))
    return math.fsum(found)


def length(path: Path) -> float:
    """mm around it."""
    return math.fsum(side.length for side in sides_of(path))


def is_bent(path: Path) -> bool:
    """Whether any side is an arc."""
    return any(bulge for _, _, bulge in path)


def bounds(path: Path) -> tuple[float, float, float, float]:
    """x0, y0, x1, y1 of the upright rectangle about it, arcs with their highest points."""
    xs, ys, bulges = zip(*path, strict=True)
    if not any(bulges):
        return min(xs), min(ys), max(xs), max(ys)
    points = list(zip(xs, ys, strict=True))
    for side in sides_of(path):
        if side.bulge:
            (cx, cy), r = side.center, side.radius
            for dx, dy in ((1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0)):
                p = (cx + r * dx, cy + r * dy)
                if 0.0 < side.share_of(p) < 1.0:
                    points.append(p)
    return ol.bounds(points)


def inside(path: Path, x: float, y: float) -> bool:
    """Whether a point lies inside (the path itself counts by chance of rounding)."""
    found = ol.inside([(a, b) for a, b, _ in path], x, y)
    for side in sides_of(path):
        if side.bulge and _in_segment(side, x, y):
            found = not found
    return found


def _in_segment(side: Side, x: float, y: float) -> bool:
    """Whether a point lies between an arc and its chord."""
    cx, cy = side.center
    if math.hypot(x - cx, y - cy) >= side.radius:
        return False
    (ax, ay), (bx, by) = side.a, side.b
    left = (bx - ax) * (y - ay) - (by - ay) * (x - ax) > 0.0
    return left == (side.bulge < 0.0)


def turned_round(path: Path) -> Path:
    """The same path run the other way."""
    sides = [s.turned() for s in sides_of(path)][::-1]
    return tuple((*s.a, s.bulge) for s in sides)


def shifted(path: Path, dx: float, dy: float) -> Path:
    """Moved by mm."""
    return tuple((x + dx, y + dy, b) for x, y, b in path)


def mirrored(path: Path, x: float) -> Path:
    """Mirrored at an upright axis, still running the same way round. `x`: mm."""
    return turned_round(tuple((2 * x - px, py, -b) for px, py, b in path))


def rotated(path: Path, degrees: float, about: Point = (0.0, 0.0)) -> Path:
    """Turned counter-clockwise about a point."""
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    ox, oy = about
    return tuple((ox + (x - ox) * c - (y - oy) * s, oy + (x - ox) * s + (y - oy) * c, b) for x, y, b in path)


def distance(path: Path, x: float, y: float) -> float:
    """mm from a point to the nearest place of a path."""
    return min(_to_side(side, x, y) for side in sides_of(path))


def _to_side(side: Side, x: float, y: float) -> float:
    ends = min(math.dist((x, y), side.a), math.dist((x, y), side.b))
    if side.bulge:
        cx, cy = side.center
        away = math.hypot(x - cx, y - cy)
        if away < NEAR:
            return side.radius
        return abs(away - side.radius) if 0.0 <= side.share_of((x, y)) <= 1.0 else ends
    if side.chord < NEAR:
        return ends
    share = side.share_of((x, y))
    return math.dist((x, y), side.at(share)) if 0.0 <= share <= 1.0 else ends


# --- where sides meet


def meets(one: Side, two: Side) -> list[Point]:
    """The points in which two sides cross or touch; sides that lie on one another give none."""
    return [p for p in carriers_meet(one, two) if _on(one, p) and _on(two, p)]


def _on(side: Side, p: Point) -> bool:
    near = NEAR / max(side.length, NEAR)
    return -near <= side.share_of(p) <= 1.0 + near


def carriers_meet(one: Side, two: Side) -> list[Point]:
    """Where the lines or circles of two sides meet, up to two points."""
    if one.bulge and two.bulge:
        return _circles_meet(one.center, one.radius, two.center, two.radius)
    if one.bulge:
        return _line_meets_circle(two.a, two.b, one.center, one.radius)
    if two.bulge:
        return _line_meets_circle(one.a, one.b, two.center, two.radius)
    d, e = (one.b[0] - one.a[0], one.b[1] - one.a[1]), (two.b[0] - two.a[0], two.b[1] - two.a[1])
    p = ol.meet(one.a, d, two.a, e)
    return [p] if p is not None else []


def _line_meets_circle(a: Point, b: Point, center: Point, radius: float) -> list[Point]:
    dx, dy = b[0] - a[0], b[1] - a[1]
    size = math.hypot(dx, dy)
    if size < 1e-12:
        return []
    ux, uy = dx / size, dy / size
    along = (center[0] - a[0]) * ux + (center[1] - a[1]) * uy
    fx, fy = a[0] + ux * along, a[1] + uy * along
    off = math.hypot(center[0] - fx, center[1] - fy)
    if off > radius + NEAR:
        return []
    half = math.sqrt(max(0.0, radius**2 - off**2))
    return [(fx, fy)] if half < 1e-9 else [(fx - ux * half, fy - uy * half), (fx + ux * half, fy + uy * half)]


def _circles_meet(p: Point, r: float, q: Point, s: float) -> list[Point]:
    away = math.dist(p, q)
    if away < NEAR or away > r + s + NEAR or away < abs(r - s) - NEAR:
        return []
    along = (away**2 + r**2 - s**2) / (2 * away)
    half = math.sqrt(max(0.0, r**2 - along**2))
    ux, uy = (q[0] - p[0]) / away, (q[1] - p[1]) / away
    mx, my = p[0] + ux * along, p[1] + uy * along
    return [(mx, my)] if half < 1e-9 else [(mx - uy * half, my + ux * half), (mx + uy * half, my - ux * half)]


def crossing(path: Path) -> tuple[int, int] | None:
    """The numbers of two sides of a path that meet though they do not follow one another, or cross though they do;
    None for a simple path."""
    sides = list(sides_of(path))
    n = len(sides)
    for i in range(n):
        for j in range(i + 1, n):
            shared = [sides[i].b] if j == i + 1 else []
            shared += [sides[j].b] if (j + 1) % n == i else []
            for p in meets(sides[i], sides[j]):
                if all(math.dist(p, q) > 1e-5 for q in shared):
                    return i, j
    return None


# --- where straight sides are needed

CHORD = 0.1
"""mm that straight sides may leave an arc by, on screen and on boards."""


def chords(path: Path, within: float = CHORD) -> Points:
    """Straight sides with their corners on the path, for a screen."""
    if not is_bent(path):
        return tuple((x, y) for x, y, _ in path)
    return tuple(p for side in sides_of(path) for p in _by_chords(side, within))


def fitting_chords(path: Path, within: float = CHORD) -> Points:
    """Straight sides whose corners on a circle are the same for every piece of it, so that what is cut along one arc
    from both sides fits together."""
    if not is_bent(path):
        return tuple((x, y) for x, y, _ in path)
    found: list[Point] = []
    for side in sides_of(path):
        found.append(side.a)
        if not side.bulge:
            continue
        (cx, cy), r, turn = side.center, side.radius, side.turn
        reach = math.acos(max(-1.0, 1.0 - within / r)) if within < 2 * r else math.pi / 4
        step = 2 * math.pi / (4 * max(6, math.ceil(math.pi / 4 / reach)))
        start = math.atan2(side.a[1] - cy, side.a[0] - cx) / step
        end = start + turn / step
        low, high = min(start, end), max(start, end)
        inner = [k * step for k in range(math.floor(low + 1e-6) + 1, math.ceil(high - 1e-6))]
        found += [(cx + r * math.cos(t), cy + r * math.sin(t)) for t in (inner if turn > 0 else inner[::-1])]
    return tuple(found)


def _by_chords(side: Side, within: float) -> list[Point]:
    if not side.bulge:
        return [side.a]
    n = _steps(side, within)
    # As `Side.at`, with what does not change worked out once.
    (cx, cy), r, turn = side.center, side.radius, side.turn
    start = math.atan2(side.a[1] - cy, side.a[0] - cx)
    turns = [start + turn * (i / n) for i in range(1, n)]
    return [side.a, *((cx + r * math.cos(t), cy + r * math.sin(t)) for t in turns)]


def _steps(side: Side, within: float) -> int:
    """How many straight pieces keep within mm of an arc."""
    reach = math.acos(max(-1.0, 1.0 - within / side.radius)) if within < 2 * side.radius else math.pi
    return max(2, math.ceil(abs(side.turn) / (2 * reach)))


ON_ARC = 1e-3
"""mm within which corners lie on one circle to be those of an arc."""

FEWEST = 4
"""Straight pieces that are taken for an arc's."""


def arcs_in(points: Sequence[Point]) -> Path:
    """The path of an outline whose arcs were drawn by chords: runs of four or more chords of one circle, each turning
    on by less than 20 degrees, become that arc again, with its own ends and radius.

    Parameters
    ----------
    points : mm; a whole circle becomes two arcs
    """
    n = len(points)
    turns = [_bend(points[i - 1], points[i], points[(i + 1) % n]) for i in range(n)]
    start = next((i for i in range(n) if not _goes_on(points, turns, i)), None)
    if start is None:
        return _circle_of(points)
    found: list[Corner] = []
    i = 0
    while i < n:
        a = (start + i) % n
        count = 1
        while count < n - i and _goes_on(points, turns, (a + count) % n) and _on_one(points, a, count + 1):
            count += 1
        if count >= FEWEST:
            b = (a + count) % n
            found.append((*points[a], bulge_through(points[a], points[(a + count // 2) % n], points[b])))
            i += count
        else:
            # An arc may begin at the next corner where it touches a line.
            found.append((*points[a], 0.0))
            i += 1
    return tuple(found)


def _bend(a: Point, b: Point, c: Point) -> float:
    """Radians by which the way turns at b."""
    ux, uy, vx, vy = b[0] - a[0], b[1] - a[1], c[0] - b[0], c[1] - b[1]
    return math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)


def _goes_on(points: Sequence[Point], turns: Sequence[float], i: int) -> bool:
    """Whether a corner may be one inside an arc."""
    return 1e-6 < abs(turns[i]) < math.radians(20.0)


def _on_one(points: Sequence[Point], first: int, count: int) -> bool:
    """Whether the ends of so many pieces from a corner on lie on one circle, bending one way."""
    n = len(points)
    run = [points[(first + k) % n] for k in range(count + 1)]
    found = _center(run[0], run[len(run) // 2], run[-1])
    if found is None:
        return False
    radius = math.dist(found, run[0])
    if any(abs(math.dist(found, p) - radius) > ON_ARC for p in run):
        return False
    bends = [_bend(p, q, r) for p, q, r in zip(run, run[1:], run[2:], strict=False)]
    return all(b > 0 for b in bends) or all(b < 0 for b in bends)


def _center(a: Point, b: Point, c: Point) -> Point | None:
    """The center of the circle through three points; None where they lie in line."""
    middle = [((p[0] + q[0]) / 2, (p[1] + q[1]) / 2) for p, q in ((a, b), (b, c))]
    ways = [(p[1] - q[1], q[0] - p[0]) for p, q in ((a, b), (b, c))]
    return ol.meet(middle[0], ways[0], middle[1], ways[1])


def bulge_through(a: Point, m: Point, b: Point) -> float:
    """The bulge of the arc from a to b through m: the angle at m stands over half the arc (Euclid III.20)."""
    half = math.pi - abs(_angle_at(a, m, b))
    if half < 1e-9:
        return 0.0
    left = (m[0] - a[0]) * (b[1] - a[1]) - (m[1] - a[1]) * (b[0] - a[0]) > 0
    return math.tan(half / 2) * (1.0 if left else -1.0)


def _angle_at(a: Point, m: Point, b: Point) -> float:
    ux, uy, vx, vy = a[0] - m[0], a[1] - m[1], b[0] - m[0], b[1] - m[1]
    return math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)


def _circle_of(points: Sequence[Point]) -> Path:
    """A ring without a corner, as two arcs where it is a circle."""
    n = len(points)
    if n >= 2 * FEWEST and _on_one(points, 0, n - 1):
        half = n // 2
        return tuple(
            (*points[a], bulge_through(points[a], points[(a + half // 2) % n], points[b]))
            for a, b in ((0, half), (half, 0))
        )
    return path_of(points)


def arc_chords(a: Point, b: Point, bulge: float, within: float = CHORD) -> list[Point]:
    """Corners of the chords of one arc, without its ends; fine enough that `arcs_in` finds it again."""
    side = Side(a, b, bulge)
    if not bulge or side.chord < NEAR:
        return []
    n = max(FEWEST, _steps(side, within), math.ceil(abs(side.turn) / math.radians(15.0)))
    return [side.at(i / n) for i in range(1, n)]


def around(path: Path, within: float = CHORD) -> Points:
    """Straight sides that nothing of a path reaches beyond, for laying it on a board: tangents where it bulges out,
    chords where it draws in.

    Parameters
    ----------
    path : counter-clockwise
    """
    found: list[Point] = []
    for side in sides_of(path):
        if side.bulge <= 0.0:
            found += _by_chords(side, within)
            continue
        n = _steps(side, within)
        (cx, cy), far = side.center, side.radius / math.cos(side.turn / n / 2)
        found.append(side.a)
        start = math.atan2(side.a[1] - cy, side.a[0] - cx)
        for i in range(n):
            angle = start + side.turn * (i + 0.5) / n
            found.append((cx + far * math.cos(angle), cy + far * math.sin(angle)))
    return tuple(found)
