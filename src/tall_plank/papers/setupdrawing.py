"""How a part or a board lies on the machine: seen from above, its corner at the stops, what is done to it."""

from __future__ import annotations

from tall_plank.drawing.primitives import Arc, Drawing, Item, Layer, Line, Pen, Shape, Text, rectangle
from tall_plank.job import Kind
from tall_plank.shop.machine.setup import SetUp
from tall_plank.shop.machine.work import PartWork

STOP = 0.06
"""Length of the stops drawn, as a share of the longer side."""


def setup_drawing(setup: SetUp) -> Drawing:
    """X to the right, Y up, the stops at the lower left corner."""
    long, wide, _ = setup.size
    reach = STOP * max(long, wide)
    items: list[Item] = [Shape(rectangle(0.0, 0.0, long, wide), Pen.NARROW, Layer.WALL, None, "offcut")]
    for work in setup.works:
        items += _work(work, numbered=len(setup.works) > 1)
    away = 0.25 * reach
    items += [
        Line(-away, -away, reach, -away, Pen.WIDE, Layer.TRIM),
        Line(-away, -away, -away, reach, Pen.WIDE, Layer.TRIM),
        Text(reach + away, -away, "X", 2.4, Layer.LABEL, rise=-0.9),
        Text(-away, reach + away, "Y", 2.4, Layer.LABEL, align="right"),
        Text(long / 2, 0.0, setup.at_y0, 2.2, Layer.LABEL, rise=-4.0),
        Text(0.0, wide / 2, setup.at_x0, 2.2, Layer.LABEL, angle=90.0, rise=3.6),
    ]
    return Drawing(setup.program, tuple(items), -2 * reach, -2 * reach, long, wide)


def _work(work: PartWork, *, numbered: bool) -> list[Item]:
    """What is done to a part, on what it is cut from."""
    source = Kind.PART.of(work.part)
    items: list[Item] = [Shape(work.outline, Pen.MEDIUM, Layer.CARCASS, source, "board")]
    for p in work.pockets:
        items.append(Shape(rectangle(p.x0, p.y0, p.x1 - p.x0, p.y1 - p.y0), Pen.NARROW, Layer.TRIM, source, ""))
    for o in work.openings:
        items.append(Shape(rectangle(o.x0, o.y0, o.x1 - o.x0, o.y1 - o.y0), Pen.MEDIUM, Layer.TRIM, source, ""))
    for s in work.slots:
        items.append(Line(s.x1, s.y1, s.x2, s.y2, Pen.WIDE, Layer.TRIM, source))
    for h in work.holes:
        items.append(Arc(h.x, h.y, h.diameter / 2, 0.0, 360.0, Pen.NARROW, Layer.TRIM, source))
    if numbered:
        xs, ys = [x for x, _ in work.outline], [y for _, y in work.outline]
        text = f"{work.part} {work.up}"
        items.append(Text((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2, text, 2.2, Layer.LABEL, source))
    return items
