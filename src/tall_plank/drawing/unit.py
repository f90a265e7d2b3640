"""One unit for its own list: from the front as it stands, and beside it without its fronts."""

from __future__ import annotations

import msgspec

from tall_plank.drawing.primitives import Arc, Dim, Drawing, Item, Line, Shape, Text
from tall_plank.drawing.shows import Shows
from tall_plank.drawing.unitfront import unit_front
from tall_plank.making import MadeUnit
from tall_plank.measure import DisplayUnit, format_length
from tall_plank.setout import Placed
from tall_plank.stock import Stock


def unit_drawing(p: Placed, unit: MadeUnit, stock: Stock, display: DisplayUnit) -> Drawing:
    """A unit closed and open, side by side, with its width and height; x from its left side, y from its lower edge."""
    w, h = p.width, p.height
    gap = max(w * 0.35, 250.0)
    items: list[Item] = [moved_by(i, -p.x, -p.bottom) for i in unit_front(p, unit, stock, shows=Shows(labels=False))]
    both = bool(unit.fronts)
    if both:
        shift = w + gap - p.x
        items += [
            moved_by(i, shift, -p.bottom) for i in unit_front(p, unit, stock, shows=Shows(labels=False, fronts=False))
        ]
    items.append(Dim(0.0, w, 0.0, -1, "x", format_length(w, display)))
    items.append(Dim(0.0, h, 0.0, -1, "y", format_length(h, display)))
    return Drawing(p.number, tuple(items), 0.0, 0.0, 2 * w + gap if both else w, h)


def moved_by(item: Item, dx: float, dy: float) -> Item:
    """An item moved, mm; dimensions stay."""
    match item:
        case Line():
            return msgspec.structs.replace(item, x1=item.x1 + dx, x2=item.x2 + dx, y1=item.y1 + dy, y2=item.y2 + dy)
        case Shape():
            return msgspec.structs.replace(item, points=tuple((x + dx, y + dy) for x, y in item.points))
        case Arc() | Text():
            return msgspec.structs.replace(item, x=item.x + dx, y=item.y + dy)
        case _:
            return item
