"""Windows in sloped ceilings."""

from __future__ import annotations

from tall_plank.drawing.primitives import Item, Layer, Line, Pen, Shape, rectangle
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Kind
from tall_plank.measure.outlines import Points
from tall_plank.setout import RoomLayout, Wall
from tall_plank.setout.things.roof_window import roof_window_corners


def _behind(scope: Scope, wall: Wall) -> list[Item]:
    """Those in the slope that starts on the wall, seen square to the wall."""
    room = scope.room.room
    items: list[Item] = []
    slope = next((s for s in room.slopes if s.wall == wall.id), None)
    for window in room.roof_windows:
        if slope is None or window.slope != slope.id:
            continue
        source = Kind.ROOF_WINDOW.of(window.id)
        corners = [wall.frame.into(c) for c in roof_window_corners(room, window)]
        (x0, _, z0), (x1, _, z1) = corners[0], corners[2]
        edge = min(45.0, (x1 - x0) / 4, (z1 - z0) / 4)
        items.append(Shape(rectangle(x0, z0, x1 - x0, z1 - z0), Pen.MEDIUM, Layer.OPENING, source, "opening"))
        inner = rectangle(x0 + edge, z0 + edge, x1 - x0 - 2 * edge, z1 - z0 - 2 * edge)
        items.append(Shape(inner, Pen.NARROW, Layer.OPENING, source, "glass"))
        for shift in (0.0, 40.0):
            gx, gz = x0 + 2 * edge + shift, z0 + 2 * edge
            items.append(Line(gx, gz, gx + 60, gz + 90, Pen.NARROW, Layer.OPENING, source))
    return items


def _above(scope: Scope) -> list[Item]:
    items: list[Item] = []
    for window, points in zip(scope.room.room.roof_windows, _taken(scope.room), strict=True):
        items.append(Shape(points, Pen.ABOVE, Layer.HUNG, Kind.ROOF_WINDOW.of(window.id)))
        (ax, ay), (bx, by), (cx, cy), (dx, dy) = points
        items += [Line(ax, ay, cx, cy, Pen.ABOVE, Layer.HUNG), Line(bx, by, dx, dy, Pen.ABOVE, Layer.HUNG)]
    return items


def _taken(room: RoomLayout) -> list[Points]:
    return [tuple(c[:2] for c in roof_window_corners(room.room, w)) for w in room.room.roof_windows]


ROOF_WINDOW = ThingDrawn(behind=_behind, above=_above, taken=_taken)
