"""Soffits."""

from __future__ import annotations

from tall_plank.drawing.primitives import Item, Layer, Pen, Shape, Text, rectangle
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Kind
from tall_plank.measure import outlines as ol
from tall_plank.setout import Wall
from tall_plank.setout.rooms import soffit_points


def _over(scope: Scope, wall: Wall) -> list[Item]:
    """The cut of those that touch the wall."""
    items: list[Item] = []
    room = scope.room.room
    if wall.is_face:
        return items
    for soffit in room.soffits:
        xs = []
        for corner in soffit_points(soffit):
            u, v = wall.frame.from_floor(corner)
            if v > -400.0:
                xs.append(min(max(u, 0.0), wall.length))
        if len(xs) >= 2 and max(xs) - min(xs) > 10.0:
            top = room.height.mm
            points = rectangle(min(xs), top - soffit.drop.mm, max(xs) - min(xs), soffit.drop.mm)
            items.append(Shape(points, Pen.MEDIUM, Layer.WALL, Kind.SOFFIT.of(soffit.id), "column"))
    return items


def _above(scope: Scope) -> list[Item]:
    items: list[Item] = []
    for soffit in scope.room.room.soffits:
        points, source = soffit_points(soffit), Kind.SOFFIT.of(soffit.id)
        items.append(Shape(points, Pen.ABOVE, Layer.HUNG, source))
        x0, _, x1, y1 = ol.bounds(points)
        word = Text((x0 + x1) / 2, y1, "soffit", 1.8, Layer.LABEL, source, quiet=True, rise=-3.0, within=500.0)
        items.append(word)
    return items


SOFFIT = ThingDrawn(over=_over, above=_above)
