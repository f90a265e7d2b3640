"""Columns and chimney breasts."""

from __future__ import annotations

from tall_plank.drawing.primitives import Item, Layer, Pen, Shape, rectangle
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Kind
from tall_plank.measure.outlines import Points
from tall_plank.setout import RoomLayout, Wall
from tall_plank.setout.things.column import column_height, column_points


def _on_wall(scope: Scope, wall: Wall) -> list[Item]:
    items: list[Item] = []
    room = scope.room.room
    for column in room.columns:
        if column.wall == wall.id:
            high = min(column_height(room, column), wall.height)
            points = rectangle(column.x.mm, 0.0, column.width.mm, high)
            items.append(Shape(points, Pen.MEDIUM, Layer.WALL, Kind.COLUMN.of(column.id), "column"))
    return items


def _shell(room: RoomLayout) -> list[Item]:
    return [
        Shape(column_points(room.room, c), Pen.WIDE, Layer.WALL, Kind.COLUMN.of(c.id), "masonry")
        for c in room.room.columns
    ]


def _taken(room: RoomLayout) -> list[Points]:
    return [column_points(room.room, c) for c in room.room.columns]


COLUMN = ThingDrawn(on_wall=_on_wall, solid=True, shell=_shell, taken=_taken)
