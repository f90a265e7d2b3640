"""How a part or a board lies on the machine: seen from above, its edges at the stops, what is done to it."""

from __future__ import annotations

import math

from tall_plank.drawing.primitives import Arc, Drawing, Item, Layer, Line, Pen, Shape, Text, rectangle
from tall_plank.job import Kind
from tall_plank.measure.outlines import Points
from tall_plank.shop.machine.frame import Frame
from tall_plank.shop.machine.setup import SetUp
from tall_plank.shop.machine.work import PartWork

AXIS = 0.09
"""Length of the axes drawn, as a share of the longer side."""

HEAD = 14.0
"""Degrees between an arrow's shaft and its barbs."""


def setup_drawing(setup: SetUp) -> Drawing:
    """As who stands before the machine sees it, with X and Y where they begin."""
    frame = Frame(setup.machine, setup.size)
    long, wide = frame.seen
    reach = AXIS * max(long, wide)
    items: list[Item] = [Shape(rectangle(0.0, 0.0, long, wide), Pen.NARROW, Layer.WALL, None, "offcut")]
    for work in setup.works:
        items += _work(work, frame, numbered=len(setup.works) > 1)
    items += _axes(frame, reach)
    x_side, y_side = (0.0 if share < 0.6 else 1.0 for share in frame.share)
    items += [
        Text(long / 2, y_side * wide, setup.at_y0, 2.2, Layer.LABEL, rise=3.0 if y_side else -4.6),
        Text(x_side * long, wide / 2, setup.at_x0, 2.2, Layer.LABEL, angle=90.0, rise=-5.0 if x_side else 3.6),
    ]
    return Drawing(setup.program, tuple(items), -reach, -reach, long + 2 * reach, wide + 1.5 * reach)


def _axes(frame: Frame, reach: float) -> list[Item]:
    """X and Y with arrows from where they begin, outside the work where that is a corner."""
    right = -1.0 if frame.machine.x_to == "left" else 1.0
    back = -1.0 if frame.machine.y_to == "front" else 1.0
    away = 0.2 * reach
    x0 = frame.share[0] * frame.seen[0] + (0.0 if frame.share[0] == 0.5 else away * (1 if frame.share[0] > 0.5 else -1))
    y0 = frame.share[1] * frame.seen[1] + (0.0 if frame.share[1] == 0.5 else away * (1 if frame.share[1] > 0.5 else -1))
    return [
        *_arrow(x0, y0, right * reach, 0.0),
        *_arrow(x0, y0, 0.0, back * reach),
        Text(x0 + right * 1.25 * reach, y0, "X", 2.4, Layer.LABEL, rise=-0.9),
        Text(x0, y0 + back * 1.25 * reach, "Y", 2.4, Layer.LABEL, rise=-0.9),
    ]


def _arrow(x: float, y: float, dx: float, dy: float) -> list[Item]:
    items: list[Item] = [Line(x, y, x + dx, y + dy, Pen.WIDE, Layer.TRIM)]
    angle, barb = math.atan2(-dy, -dx), 0.25 * math.hypot(dx, dy)
    for turn in (-math.radians(HEAD), math.radians(HEAD)):
        end = (x + dx + barb * math.cos(angle + turn), y + dy + barb * math.sin(angle + turn))
        items.append(Line(x + dx, y + dy, *end, Pen.WIDE, Layer.TRIM))
    return items


def _work(work: PartWork, frame: Frame, *, numbered: bool) -> list[Item]:
    """What is done to a part, on what it is cut from."""
    source = Kind.PART.of(work.part)

    def seen(points: Points) -> Points:
        return tuple(frame.look(x, y) for x, y in points)

    items: list[Item] = [Shape(seen(work.outline), Pen.MEDIUM, Layer.CARCASS, source, "board")]
    for p in work.pockets:
        items.append(Shape(seen(rectangle(p.x0, p.y0, p.x1 - p.x0, p.y1 - p.y0)), Pen.NARROW, Layer.TRIM, source, ""))
    for o in work.openings:
        items.append(Shape(seen(rectangle(o.x0, o.y0, o.x1 - o.x0, o.y1 - o.y0)), Pen.MEDIUM, Layer.TRIM, source, ""))
    for s in work.slots:
        items.append(Line(*frame.look(s.x1, s.y1), *frame.look(s.x2, s.y2), Pen.WIDE, Layer.TRIM, source))
    for h in work.holes:
        items.append(Arc(*frame.look(h.x, h.y), h.diameter / 2, 0.0, 360.0, Pen.NARROW, Layer.TRIM, source))
    if numbered:
        found = seen(work.outline)
        xs, ys = [x for x, _ in found], [y for _, y in found]
        text = f"{work.part} {work.up}"
        items.append(Text((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2, text, 2.2, Layer.LABEL, source))
    return items
