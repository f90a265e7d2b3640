"""Moldings."""

from __future__ import annotations

from tall_plank.drawing.colors import color_of
from tall_plank.drawing.primitives import Item, Layer, Line, Pen, Shape, rectangle
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Kind
from tall_plank.setout import Wall


def _on_wall(scope: Scope, wall: Wall) -> list[Item]:
    room, stock = scope.room, scope.job.stock
    items: list[Item] = []
    for piece in room.moldings:
        profile = stock.profile(piece.profile)
        if piece.wall_id != wall.id or profile is None:
            continue
        x0 = wall.frame.from_floor(piece.start)[0]
        x1 = wall.frame.from_floor(piece.end)[0]
        source = Kind.MOLDING.of(piece.molding)
        points = rectangle(min(x0, x1), piece.low, abs(x1 - x0), profile.height)
        items.append(Shape(points, Pen.NARROW, Layer.TRIM, source, color_of(stock, profile.finish)))
        for y in sorted({round(y, 1) for _, y in profile.points})[1:-1]:
            items.append(Line(min(x0, x1), piece.low + y, max(x0, x1), piece.low + y, Pen.NARROW, Layer.TRIM, source))
    return items


def _above(scope: Scope) -> list[Item]:
    """A thin line; cornices are left out."""
    return [
        Line(*piece.start, *piece.end, Pen.NARROW, Layer.TRIM, Kind.MOLDING.of(piece.molding))
        for piece in scope.room.moldings
        if piece.kind != "cornice"
    ]


MOLDING = ThingDrawn(on_wall=_on_wall, solid=True, above=_above)
