"""Marks of details on elevations: the window that is drawn large, how it is cut, its letter and its sheet."""

from __future__ import annotations

from tall_plank.drawing.primitives import Item, Layer, Line, Pen, Shape, Text, rectangle
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Kind
from tall_plank.job.room import Room
from tall_plank.job.things.detail import Detail
from tall_plank.setout import Wall

STROKE = 60.0
"""mm that the line of a cut runs on past its window."""


def detail_name(room: Room, detail: Detail) -> str:
    """What a detail is called in its room: a, b and so on, after z aa."""
    n = next((i for i, d in enumerate(room.details) if d.id == detail.id), 0)
    letter = chr(ord("a") + n % 26)
    return letter if n < 26 else chr(ord("a") + n // 26 - 1) + letter


def _over(scope: Scope, wall: Wall) -> list[Item]:
    items: list[Item] = []
    for detail in scope.room.room.details:
        if detail.wall == wall.id:
            items += _mark(detail, detail_name(scope.room.room, detail))
    return items


def _mark(detail: Detail, name: str) -> list[Item]:
    source = Kind.DETAIL.of(detail.id)
    x, z, half = detail.x.mm, detail.z.mm, detail.size.mm / 2
    box = rectangle(x - half, z - half, 2 * half, 2 * half)
    items: list[Item] = [Shape(box, Pen.NARROW, Layer.LABEL, source, over=True)]
    if detail.cut == "upright":
        for a, b in ((z + half, z + half + STROKE), (z - half - STROKE, z - half)):
            items.append(Line(x, a, x, b, Pen.WIDE, Layer.LABEL, source, over=True))
    elif detail.cut == "level":
        for a, b in ((x + half, x + half + STROKE), (x - half - STROKE, x - half)):
            items.append(Line(a, z, b, z, Pen.WIDE, Layer.LABEL, source, over=True))
    at = (x + half, z + half)
    items.append(Text(*at, name, 2.5, Layer.LABEL, source, align="left", bold=True, rise=0.8, backed=True))
    # The number of its sheet, as far as it is its own.
    items.append(Text(*at, f"    D{name}", 1.8, Layer.LABEL, source, align="left", quiet=True, rise=0.8))
    return items


DETAIL = ThingDrawn(over=_over)
