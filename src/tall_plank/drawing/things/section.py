"""Section lines on the plan: a chain line between two strokes with arrows that say where it is looked, and a number."""

from __future__ import annotations

import math

from tall_plank.drawing.primitives import Item, Layer, Line, Pen, Shape, Text
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Kind
from tall_plank.job.room import Room
from tall_plank.job.things.section import Section

STROKE = 180.0
"""mm; length of the wide strokes at its ends."""

ARROW = 160.0

TAKEN = 40.0
"""mm beside the line in which a press takes hold of it."""


def section_name(room: Room, section: Section) -> str:
    """What a section is called in its room: 1-1, 2-2; walls have letters."""
    number = next((i for i, s in enumerate(room.sections, 1) if s.id == section.id), 0)
    return f"{number}-{number}"


def _above(scope: Scope) -> list[Item]:
    items: list[Item] = []
    room = scope.room.room
    for section in room.sections:
        items += _marks(section, section_name(room, section).split("-")[0])
    return items


def _marks(section: Section, number: str) -> list[Item]:
    source = Kind.SECTION.of(section.id)
    ax, ay, bx, by = section.x1.mm, section.y1.mm, section.x2.mm, section.y2.mm
    size = math.hypot(bx - ax, by - ay) or 1.0
    dx, dy = (bx - ax) / size, (by - ay) / size
    sign = 1.0 if section.looks == "left" else -1.0
    nx, ny = -dy * sign, dx * sign
    px, py = -dy * TAKEN, dx * TAKEN
    band = ((ax + px, ay + py), (ax - px, ay - py), (bx - px, by - py), (bx + px, by + py))
    items: list[Item] = [
        # Nothing is painted of it: it is what a press takes hold of.
        Shape(band, Pen.NONE, Layer.LABEL, source),
        Line(ax, ay, bx, by, Pen.CHAIN, Layer.LABEL, source),
    ]
    for x, y, way in ((ax, ay, -1.0), (bx, by, 1.0)):
        sx, sy = x + dx * way * STROKE, y + dy * way * STROKE
        items.append(Line(x, y, sx, sy, Pen.WIDE, Layer.LABEL, source))
        tx, ty = sx + nx * ARROW, sy + ny * ARROW
        items.append(Line(sx, sy, tx, ty, Pen.MEDIUM, Layer.LABEL, source))
        for turn in (2.6, -2.6):
            c, s = math.cos(turn), math.sin(turn)
            hx, hy = nx * c - ny * s, nx * s + ny * c
            items.append(Line(tx, ty, tx + hx * 60.0, ty + hy * 60.0, Pen.MEDIUM, Layer.LABEL, source))
        items.append(
            Text(sx + dx * way * 90.0, sy + dy * way * 90.0, number, 2.5, Layer.LABEL, source, bold=True, rise=-1.2)
        )
        # The number of its sheet, as far as it is its own.
        items.append(Text(tx, ty, f"X{number}", 1.8, Layer.LABEL, source, quiet=True, rise=1.0 if ny >= 0 else -3.0))
    return items


SECTION = ThingDrawn(above=_above)
