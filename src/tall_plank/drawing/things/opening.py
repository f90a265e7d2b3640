"""Doors, windows, open passages and niches."""

from __future__ import annotations

import math
from collections.abc import Callable

from tall_plank.drawing.floor import on_line
from tall_plank.drawing.frames import frame_items
from tall_plank.drawing.primitives import Arc, Item, Layer, Line, Pen, Shape, rectangle
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Kind, Opening, Source
from tall_plank.measure.outlines import Points
from tall_plank.setout import RoomLayout, Wall


def _on_wall(scope: Scope, wall: Wall) -> list[Item]:
    items: list[Item] = []
    for o in scope.room.room.openings:
        if o.wall == wall.id:
            source = Kind.OPENING.of(o.id)
            items += _front(o.kind, o.x.mm, o.sill.mm, o.width.mm, o.height.mm, o.hand, source)
    for casing in scope.room.casings:
        if casing.wall_id == wall.id:
            items += frame_items(scope.job.stock, casing.frame, casing.source)
    return items


def _front(kind: str, x: float, z: float, w: float, h: float, hand: str, source: Source) -> list[Item]:
    items: list[Item] = [Shape(rectangle(x, z, w, h), Pen.MEDIUM, Layer.OPENING, source, "opening")]
    edge = 45.0
    if kind in ("arch", "niche"):
        if kind == "niche":
            inner = rectangle(x + edge, z + edge, w - 2 * edge, h - 2 * edge)
            items.append(Shape(inner, Pen.NARROW, Layer.OPENING, source, "niche"))
        return items
    top = h - edge if kind == "door" else h - 2 * edge
    base = z if kind == "door" else z + edge
    fill = "door" if kind == "door" else "glass"
    items.append(Shape(rectangle(x + edge, base, w - 2 * edge, top), Pen.NARROW, Layer.OPENING, source, fill))
    if kind == "window":
        items.append(Line(x + w / 2, z + edge, x + w / 2, z + h - edge, Pen.NARROW, Layer.OPENING, source))
        # Glass by two thin strokes.
        for shift in (0.0, 40.0):
            gx, gz = x + edge + 40 + shift, z + edge + 60
            items.append(Line(gx, gz, gx + 70, gz + 110, Pen.NARROW, Layer.OPENING, source))
    else:
        hx = x + w - edge - 70 if hand == "left" else x + edge + 70
        items.append(Line(hx - 35, z + 1000, hx + 35, z + 1000, Pen.MEDIUM, Layer.OPENING, source))
    return items


def _shell(room: RoomLayout) -> list[Item]:
    by_id = {w.id: w for w in room.walls}
    return [item for o in room.room.openings if o.wall in by_id for item in _plan(by_id[o.wall], o)]


def _plan(wall: Wall, o: Opening) -> list[Item]:
    source = Kind.OPENING.of(o.id)
    x, w, t = o.x.mm, o.width.mm, wall.thickness
    deep = min(o.depth.mm, t) if o.kind == "niche" else t
    items: list[Item] = [Shape(on_line(wall, x, 0.0, w, deep), Pen.MEDIUM, Layer.OPENING, source, "opening")]

    def line(x1: float, y1: float, x2: float, y2: float, pen: Pen = Pen.NARROW) -> Line:
        a, b = wall.frame.at(x1, y1, 0.0), wall.frame.at(x2, y2, 0.0)
        return Line(a[0], a[1], b[0], b[1], pen, Layer.OPENING, source)

    if o.kind == "window":
        at = o.reveal.mm or t * 0.4
        items += [line(x, at, x + w, at), line(x, min(t, at + t * 0.2), x + w, min(t, at + t * 0.2))]
    elif o.kind == "arch":
        items += [line(x, 0.0, x + w, 0.0, Pen.ABOVE), line(x, t, x + w, t, Pen.ABOVE)]
    elif o.kind == "door":
        items += _swing(wall, o, line)
    return items


def _swing(wall: Wall, o: Opening, line: Callable[..., Line]) -> list[Item]:
    """A door's leaf standing open, and the arc of its edge."""
    x, w = o.x.mm, o.width.mm
    hinge, far = (x, x + w) if o.hand == "left" else (x + w, x)
    way = -1.0 if o.swing == "in" else 1.0
    face = 0.0 if o.swing == "in" else wall.thickness
    cx, cy = wall.frame.floor(hinge, face)
    closed = wall.frame.turn((1.0 if far > hinge else -1.0, 0.0, 0.0))
    opened = wall.frame.turn((0.0, way, 0.0))
    a, b = _degrees(closed), _degrees(opened)
    start, end = (a, b) if (b - a) % 360 <= 180 else (b, a)
    return [
        line(hinge, face, hinge, face + way * w),
        Arc(cx, cy, w, start, end, Pen.MOVING, Layer.OPENING, Kind.OPENING.of(o.id)),
    ]


def _degrees(v: tuple[float, float, float]) -> float:
    return math.degrees(math.atan2(v[1], v[0])) % 360


def _taken(room: RoomLayout) -> list[Points]:
    """Where doors swing into the room."""
    return [
        on_line(room.wall(o.wall), o.x.mm, -o.width.mm, o.width.mm, o.width.mm)
        for o in room.room.openings
        if o.kind == "door" and o.swing == "in"
    ]


OPENING = ThingDrawn(on_wall=_on_wall, shell=_shell, taken=_taken)
