"""Sloped ceilings."""

from __future__ import annotations

from itertools import pairwise

from tall_plank.drawing.primitives import Item, Layer, Pen, Shape
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Kind
from tall_plank.measure import outlines as ol
from tall_plank.setout import Wall
from tall_plank.setout.layout import neighbours


def _behind(scope: Scope, wall: Wall) -> list[Item]:
    """The sloped ceiling that starts on this wall, seen square to the wall. Where the ceiling slopes down to the next
    wall as well, the two meet in a hip."""
    room = scope.room
    slope = next((s for s in room.room.slopes if s.wall == wall.id), None)
    if slope is None:
        return []
    low, high = slope.low.mm, room.room.height.mm
    points: list[tuple[float, float]] = [(0.0, low), (wall.length, low), (wall.length, high), (0.0, high)]
    for side, neighbour in neighbours(room, wall):
        other = next((s for s in room.room.slopes if s.wall == neighbour.id), None)
        if other is not None and other.run.mm > 1.0:
            points = _below(points, wall.length, side == "left", other.low.mm, high, other.run.mm)
    return [Shape(tuple(points), Pen.NARROW, Layer.WALL, Kind.WALL.of(wall.id), "ceiling")] if len(points) > 2 else []


def _below(
    points: list[tuple[float, float]], length: float, left: bool, low: float, high: float, run: float
) -> list[tuple[float, float]]:
    """What of a slope is seen under the next wall's one, which rises from `low` at the corner to `high` at `run` from
    it: the two meet in a hip where they are equally high. All mm."""

    def over(p: tuple[float, float]) -> float:
        away = p[0] if left else length - p[0]
        return p[1] - (low + (high - low) * min(away, run) / run)

    found: list[tuple[float, float]] = []
    for p, q in zip(points, [*points[1:], points[0]], strict=True):
        # Cut where the other slope ends, too, so that each piece is straight.
        ends = [p, q]
        at = run if left else length - run
        if (p[0] - at) * (q[0] - at) < 0:
            t = (at - p[0]) / (q[0] - p[0])
            ends = [p, (at, p[1] + (q[1] - p[1]) * t), q]
        for a, b in pairwise(ends):
            u, v = over(a), over(b)
            if u <= 1e-9:
                found.append(a)
            if u * v < 0:
                t = u / (u - v)
                found.append((a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t))
    return list(ol.cleaned(found))


SLOPE = ThingDrawn(behind=_behind)
