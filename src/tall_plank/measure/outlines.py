"""Closed outlines of straight sides in a plane: area, crossing, inside, offset, clipping, triangles. All in mm.

An outline is a tuple of points without the first one repeated at its end.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

Point = tuple[float, float]
Points = tuple[Point, ...]

NEAR = 1e-7
"""mm; points nearer than this are one point."""


def area(points: Sequence[Point]) -> float:
    """Area of an outline in mm2: positive where it runs counter-clockwise (shoelace formula)."""
    return (
        0.5 * math.fsum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, (*points[1:], points[0]), strict=True))
        if points
        else 0.0
    )


def bounds(points: Sequence[Point]) -> tuple[float, float, float, float]:
    """x0, y0, x1, y1 of the upright rectangle about some points."""
    xs, ys = [p[0] for p in points], [p[1] for p in points]
    return min(xs), min(ys), max(xs), max(ys)


def inside(points: Sequence[Point], x: float, y: float) -> bool:
    """Whether a point lies inside an outline (its edge counts by chance of rounding)."""
    found = False
    j = len(points) - 1
    for i, (xi, yi) in enumerate(points):
        xj, yj = points[j]
        if (yi > y) != (yj > y) and x < (xj - xi) * (y - yi) / (yj - yi) + xi:
            found = not found
        j = i
    return found


def meet(p: Point, d: Point, q: Point, e: Point) -> Point | None:
    """Where the line through p along d meets the line through q along e; None where they are parallel."""
    cross = d[0] * e[1] - d[1] * e[0]
    if abs(cross) < 1e-12 * (math.hypot(*d) * math.hypot(*e) or 1.0):
        return None
    t = ((q[0] - p[0]) * e[1] - (q[1] - p[1]) * e[0]) / cross
    return (p[0] + t * d[0], p[1] + t * d[1])


def _side(a: Point, b: Point, p: Point) -> float:
    return (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])


def _on(a: Point, b: Point, p: Point) -> bool:
    """Whether a point in line with a and b lies between them."""
    return (
        min(a[0], b[0]) - NEAR <= p[0] <= max(a[0], b[0]) + NEAR
        and min(a[1], b[1]) - NEAR <= p[1] <= max(a[1], b[1]) + NEAR
    )


def edges_touch(a: Point, b: Point, c: Point, d: Point) -> bool:
    """Whether the stretch a-b and the stretch c-d have a point in common."""
    s1, s2, s3, s4 = _side(a, b, c), _side(a, b, d), _side(c, d, a), _side(c, d, b)
    if ((s1 > 0) != (s2 > 0)) and ((s3 > 0) != (s4 > 0)) and s1 and s2 and s3 and s4:
        return True
    size = 1e-9 * max(1.0, math.dist(a, b), math.dist(c, d)) ** 2
    return (
        (abs(s1) <= size and _on(a, b, c))
        or (abs(s2) <= size and _on(a, b, d))
        or (abs(s3) <= size and _on(c, d, a))
        or (abs(s4) <= size and _on(c, d, b))
    )


def crossing(points: Sequence[Point]) -> tuple[int, int] | None:
    """The first two sides (by the index of their first point) that touch without being neighbours, or None."""
    n = len(points)
    for i in range(n):
        for j in range(i + 2, n):
            if i == 0 and j == n - 1:
                continue
            if edges_touch(points[i], points[(i + 1) % n], points[j], points[(j + 1) % n]):
                return i, j
    return None


def offset(points: Sequence[Point], distances: Sequence[float] | float) -> Points:
    """An outline with each side moved out by its distance (in, where negative), corners mitred.

    Parameters
    ----------
    points : outline, either way round
    distances : mm, one for all or one a side

    The caller sees to it that no side vanishes.
    """
    n = len(points)
    by = [float(distances)] * n if isinstance(distances, int | float) else list(distances)
    sign = 1.0 if area(points) > 0 else -1.0
    lines: list[tuple[Point, Point]] = []
    for i in range(n):
        (x1, y1), (x2, y2) = points[i], points[(i + 1) % n]
        length = math.hypot(x2 - x1, y2 - y1) or 1.0
        ux, uy = (x2 - x1) / length, (y2 - y1) / length
        # To the right of a counter-clockwise side is outside.
        nx, ny = uy * sign, -ux * sign
        lines.append(((x1 + nx * by[i], y1 + ny * by[i]), (ux, uy)))
    found = []
    for i in range(n):
        (p, d), (q, e) = lines[i - 1], lines[i]
        found.append(meet(p, d, q, e) or q)
    return tuple(found)


def cut_away(points: Sequence[Point], a: Point, b: Point) -> Points:
    """What of an outline lies to the left of the line from a to b (convex, or cut through once)."""
    found: list[Point] = []
    n = len(points)
    for i in range(n):
        p, q = points[i], points[(i + 1) % n]
        sp, sq = _side(a, b, p), _side(a, b, q)
        if sp >= 0:
            found.append(p)
        if (sp > 0 > sq) or (sp < 0 < sq):
            t = sp / (sp - sq)
            found.append((p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])))
    return cleaned(found)


def cleaned(points: Sequence[Point]) -> Points:
    """An outline without points that stand twice or lie in the line of their neighbours."""
    kept = [p for i, p in enumerate(points) if math.dist(p, points[i - 1]) > 1e-6 or len(points) == 1]
    found = []
    for i, p in enumerate(kept):
        a, b = kept[i - 1], kept[(i + 1) % len(kept)]
        if abs(_side(a, b, p)) > 1e-6 * max(1.0, math.dist(a, b)):
            found.append(p)
    return tuple(found)


MANY_CORNERS = 9
"""From so many corners on, triangles are found by Shapely: 70 times faster than ears for a curve of a hundred."""


def triangles(points: Sequence[Point]) -> tuple[tuple[int, int, int], ...]:
    """An outline divided into triangles; indices run counter-clockwise."""
    return (_delaunay(points) if len(points) >= MANY_CORNERS else None) or _by_ears(points)


def _delaunay(points: Sequence[Point]) -> tuple[tuple[int, int, int], ...] | None:
    """None for an outline that crosses itself or passes one point twice."""
    import shapely

    index = {(float(x), float(y)): i for i, (x, y) in enumerate(points)}
    shape = shapely.Polygon(points)
    if len(index) < len(points) or not shape.is_valid:
        return None
    corners = shapely.get_coordinates(shapely.constrained_delaunay_triangles(shape)).tolist()
    found = []
    for n in range(0, len(corners), 4):
        a, b, c = (index[x, y] for x, y in corners[n : n + 3])
        found.append((a, b, c) if _side(points[a], points[b], points[c]) > 0 else (a, c, b))
    return tuple(found)


def _by_ears(points: Sequence[Point]) -> tuple[tuple[int, int, int], ...]:
    """Ears cut off one after another."""
    order = list(range(len(points)))
    if area(points) < 0:
        order.reverse()
    found: list[tuple[int, int, int]] = []
    guard = 0
    while len(order) > 3 and guard < 10_000:
        guard += 1
        for k in range(len(order)):
            i, j, m = order[k - 1], order[k], order[(k + 1) % len(order)]
            a, b, c = points[i], points[j], points[m]
            turn = _side(a, b, c)
            if turn <= 1e-12:
                if abs(turn) <= 1e-12:
                    order.pop(k)
                    break
                continue
            rest = (points[o] for o in order if o not in (i, j, m))
            if any(_side(a, b, p) > 1e-9 and _side(b, c, p) > 1e-9 and _side(c, a, p) > 1e-9 for p in rest):
                continue
            found.append((i, j, m))
            order.pop(k)
            break
        else:
            break
    if len(order) == 3:
        found.append((order[0], order[1], order[2]))
    return tuple(found)


def overlap(a: Sequence[Point], b: Sequence[Point], touch: float = 0.0) -> bool:
    """Whether two outlines overlap by more than `touch` (mm): a triangle of one and a triangle of the other do, found
    by separating lines."""
    for i, j, k in triangles(tuple(a)):
        for u, v, w in triangles(tuple(b)):
            if _triangles_meet((a[i], a[j], a[k]), (b[u], b[v], b[w]), touch):
                return True
    return False


def _triangles_meet(a: Points, b: Points, touch: float) -> bool:
    for one, other in ((a, b), (b, a)):
        for n in range(3):
            p, q = one[n], one[(n + 1) % 3]
            nx, ny = q[1] - p[1], p[0] - q[0]
            size = (nx * nx + ny * ny) ** 0.5 or 1.0
            own = max((x - p[0]) * nx + (y - p[1]) * ny for x, y in one) / size
            least = min((x - p[0]) * nx + (y - p[1]) * ny for x, y in other) / size
            if least > own - touch:
                return False
    return True


def interior_angle(before: Point, corner: Point, after: Point) -> float:
    """Angle in degrees inside a clockwise outline at a corner: 90 in a square room's corner, 270 at an outer one."""
    ax, ay = before[0] - corner[0], before[1] - corner[1]
    bx, by = after[0] - corner[0], after[1] - corner[1]
    return math.degrees(math.atan2(ax * by - ay * bx, ax * bx + ay * by)) % 360.0


def circle(x: float, y: float, radius: float, count: int = 20) -> Points:
    """A circle as an outline."""
    turns = (2 * math.pi * i / count for i in range(count))
    return tuple((x + radius * math.cos(t), y + radius * math.sin(t)) for t in turns)


def ellipse(a: float, b: float, count: int = 12) -> list[tuple[float, float]]:
    """The upper half of an ellipse, from right to left, without its ends."""
    turns = [math.pi * i / count for i in range(1, count)]
    return [(a * math.cos(t), b * math.sin(t)) for t in turns]


def bow(length: float, out: float, thick: float = 8.0, count: int = 16) -> Points:
    """A bow seen from above: two half ellipses, the outer `out` mm high, the inner a thickness less."""
    outer = [(length / 2 + x, y) for x, y in ellipse(length / 2, out, count)]
    inner = [(length / 2 + x, y) for x, y in ellipse(length / 2 - thick, out - thick, count)]
    return ((length, 0.0), *outer, (0.0, 0.0), (thick, 0.0), *reversed(inner), (length - thick, 0.0))


def inner_corners(outline: Points) -> tuple[Point, ...]:
    """Corners of an outline that a mill outside it cannot reach into: turned inwards by more than 20 degrees."""
    if len(outline) < 3:
        return ()
    way = 1.0 if area(outline) > 0 else -1.0
    found = []
    for a, b, c in zip((outline[-1], *outline[:-1]), outline, (*outline[1:], outline[0]), strict=True):
        turn = math.atan2(
            (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]),
            (b[0] - a[0]) * (c[0] - b[0]) + (b[1] - a[1]) * (c[1] - b[1]),
        )
        if turn * way < -math.radians(20.0):
            found.append(b)
    return tuple(found)


def rounded_box(x0: float, y0: float, x1: float, y1: float, radius: float, count: int = 6) -> Points:
    """A rectangle with rounded corners, each of `count` chords within it; square where the radius is small. mm."""
    r = min(radius, (x1 - x0) / 2, (y1 - y0) / 2)
    if r < 1.0:
        return ((x0, y0), (x1, y0), (x1, y1), (x0, y1))
    middles = ((x1 - r, y0 + r, -90.0), (x1 - r, y1 - r, 0.0), (x0 + r, y1 - r, 90.0), (x0 + r, y0 + r, 180.0))
    return tuple(
        (cx + r * math.cos(math.radians(a + 90.0 * i / count)), cy + r * math.sin(math.radians(a + 90.0 * i / count)))
        for cx, cy, a in middles
        for i in range(count + 1)
    )
