"""Sloped ceilings."""

from __future__ import annotations

from tall_plank.drawing.primitives import Item, Layer, Pen, Shape
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Kind
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
    cuts = {"left": 0.0, "right": 0.0}
    for side, neighbour in neighbours(room, wall):
        other = next((s for s in room.room.slopes if s.wall == neighbour.id), None)
        if other is not None:
            cuts[side] = min(other.run.mm, wall.length / 2)
    points = ((0.0, low), (wall.length, low), (wall.length - cuts["right"], high), (cuts["left"], high))
    return [Shape(points, Pen.NARROW, Layer.WALL, Kind.WALL.of(wall.id), "ceiling")]


SLOPE = ThingDrawn(behind=_behind)
