"""Dimensions on screen, at the scale that it is zoomed to: a figure without room waits until it is zoomed in. On paper
they are placed by `placing`, which leaves nothing out."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from tall_plank.assets import text_width
from tall_plank.drawing.placing import FIRST_ROW, LEAST, OUTSIDE, OVERSHOOT, ROW, SIZE, TICK
from tall_plank.drawing.primitives import Dim, Layer, Line, Pen, Text

SMALL = LEAST / SIZE
"""Share of the height at which a text is set that has little room."""


def offset(dim: Dim, scale: float) -> float:
    """Coordinate of the dimension line across the direction it measures; `scale` is real mm per mm of paper."""
    rows = abs(dim.row) - 1
    away = (dim.away or FIRST_ROW + ROW * rows) * scale
    return dim.base + (away if dim.row > 0 else -away)


def fits(dim: Dim, scale: float, size: float = SIZE) -> bool:
    """Whether the text has room between the extension lines."""
    return text_width(dim.text, size) * scale <= abs(dim.b - dim.a) - 1.2 * scale


def expand(dims: Iterable[Dim], scale: float) -> list[Line | Text]:
    """Lines and texts of dimensions at a scale (real mm per mm of paper).

    A text without room in its own row is set smaller, then on the free side of the line; where it would meet the
    text before it on that side, it is left out rather than printed over it (the chain's total still stands).
    """
    items: list[Line | Text] = []
    taken: dict[tuple[str, float, bool], list[tuple[float, float]]] = {}
    # Texts with room of their own come first; one without gives way to them.
    for dim in sorted(dims, key=lambda d: (d.along, d.row, not fits(d, scale, SIZE * SMALL), min(d.a, d.b))):
        items += _expand_one(dim, scale, taken)
    return items


def _expand_one(
    dim: Dim, scale: float, taken: dict[tuple[str, float, bool], list[tuple[float, float]]]
) -> list[Line | Text]:
    a, b = sorted((dim.a, dim.b))
    at = offset(dim, scale)
    out = 1.0 if dim.row > 0 else -1.0
    start = dim.base + out * 1.0 * scale
    end = at + out * OVERSHOOT * scale
    tick = TICK * scale
    pen, layer, source = Pen.NARROW, Layer.DIMENSION, dim.source

    def line(x1: float, y1: float, x2: float, y2: float) -> Line:
        if dim.along == "x":
            return Line(x1, y1, x2, y2, pen, layer, source)
        return Line(y1, x1, y2, x2, pen, layer, source)

    lines: list[Line | Text] = [
        line(a, at, b, at),
        line(a, start, a, end),
        line(b, start, b, end),
        line(a - tick, at - tick, a + tick, at + tick),
        line(b - tick, at - tick, b + tick, at + tick),
    ]
    size = SIZE if fits(dim, scale) else SIZE * SMALL
    inside = fits(dim, scale, size)
    # Outside, a text lies level beyond the line's overshoot, so it takes its height along an upright line.
    along = text_width(dim.text, size) if inside or dim.along == "x" else size * 1.3
    middle = (a + b) / 2
    # Above a lying line and left of an upright one, texts outside lie where those inside do.
    key = (dim.along, offset(dim, scale), inside or (out > 0) == (dim.along == "x"))
    low, high = middle - along * scale / 2, middle + along * scale / 2
    near = 0.8 * scale
    if any(low < b1 + near and high > a1 - near for a1, b1 in taken.get(key, [])):
        return lines
    taken.setdefault(key, []).append((low, high))
    if inside:
        if dim.along == "x":
            lines.append(Text(middle, at, dim.text, size, layer, source, rise=0.9))
        else:
            # Read from the right: the text stands on the left of an upright dimension line.
            lines.append(Text(at, middle, dim.text, size, layer, source, angle=90.0, rise=0.9))
    elif dim.along == "x":
        rise = OUTSIDE if out > 0 else -(OUTSIDE + size)
        lines.append(Text(middle, at, dim.text, size, layer, source, rise=rise))
    else:
        align: Literal["left", "right"] = "left" if out > 0 else "right"
        place = at + out * OUTSIDE * scale
        lines.append(Text(place, middle, dim.text, size, layer, source, align=align, rise=-size / 2))
    return lines
