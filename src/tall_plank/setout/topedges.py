"""Which edges of a worktop are free: nothing stands beside them. In the line's plan: x along it, out from it, mm."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

import msgspec

from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import FloorPoint
from tall_plank.measure.outlines import Point
from tall_plank.setout.runs import Placed
from tall_plank.setout.wall import Wall
from tall_plank.setout.worktop import Worktop

BESIDE = (2.0, 12.0, 25.0)
"""mm out from an edge at which is asked what stands there: no edge is seen, or reached, that is nearer to something."""

JOINT = 1.0
"""mm between two edges that are joined."""


def with_free_edges(tops: Sequence[Worktop], lines: Sequence[Wall], placed: Sequence[Placed]) -> tuple[Worktop, ...]:
    """The worktops of a room with what of their edges is free: not at a wall, at another piece of worktop, or at a unit
    that stands higher.

    Parameters
    ----------
    lines : walls and faces of islands
    """
    if not tops:
        return ()
    by_id = {line.id: line for line in lines}
    shapes = [_on_floor(top, by_id[top.wall_id]) for top in tops]
    walls = [line for line in lines if not line.island]
    found = []
    for i, top in enumerate(tops):
        beside = [shape for k, shape in enumerate(shapes) if k != i and abs(tops[k].bottom - top.bottom) < 1.0]
        if not top.points or (top.is_plain and not beside):
            found.append(top)
            continue
        high = [p for p in placed if p.is_solid and p.bottom < top.bottom + top.thickness and p.top > top.bottom + 1.0]
        free = tuple(_free_of(edge, walls, beside, high) for edge in _edges(shapes[i]))
        found.append(msgspec.structs.replace(top, free=free))
    return tuple(found)


def _on_floor(top: Worktop, line: Wall) -> list[FloorPoint]:
    return [line.frame.floor(x, -out) for x, out in top.points]


def _edges(corners: Sequence[Point]) -> Iterator[tuple[Point, Point, Point]]:
    """Start, end and outward direction of every edge, on the room's floor."""
    turn = 1.0 if ol.area(corners) > 0 else -1.0
    for p, q in zip(corners, [*corners[1:], corners[0]], strict=True):
        size = math.dist(p, q) or 1.0
        yield p, q, (turn * (q[1] - p[1]) / size, -turn * (q[0] - p[0]) / size)


def _free_of(
    edge: tuple[Point, Point, Point],
    walls: Sequence[Wall],
    tops: Sequence[Sequence[FloorPoint]],
    high: Sequence[Placed],
) -> float:
    """mm of an edge at which nothing stands: what is joined to other pieces is left out, and so is the rest where it
    lies at a wall or at something higher."""
    (ax, ay), (bx, by), (nx, ny) = edge
    length = math.dist((ax, ay), (bx, by))
    if length < 0.01:
        return 0.0
    ux, uy = (bx - ax) / length, (by - ay) / length
    joined: list[tuple[float, float]] = []
    for shape in tops:
        for (px, py), (qx, qy), (mx, my) in _edges(shape):
            if nx * mx + ny * my < -0.9999 and abs((px - ax) * nx + (py - ay) * ny) < JOINT:
                ends = sorted(((px - ax) * ux + (py - ay) * uy, (qx - ax) * ux + (qy - ay) * uy))
                low, high_end = max(0.0, ends[0]), min(length, ends[1])
                if high_end - low > 0.01:
                    joined.append((low, high_end))
    free = 0.0
    at = 0.0
    for low, far in [*sorted(joined), (length, length)]:
        if low - at > 0.01:
            t = (at + low) / 2
            x, y = ax + ux * t, ay + uy * t
            if not any(_stands(FloorPoint((x + nx * d, y + ny * d)), walls, high) for d in BESIDE):
                free += low - at
        at = max(at, far)
    return free


def _stands(at: FloorPoint, walls: Sequence[Wall], high: Sequence[Placed]) -> bool:
    """Whether something is at a point of the floor: a wall, or a unit that is higher."""
    for wall in walls:
        x, y = wall.frame.from_floor(at)
        if -1.0 < x < wall.length + 1.0 and 0.0 < y < 400.0:
            return True
    for p in high:
        x, y = p.frame.from_floor(at)
        if 0.0 < x < p.width and -p.depth < y < 0.0:
            return True
    return False
