"""A cutting plan drawn: the board with its pieces, x along the board's length."""

from __future__ import annotations

import msgspec

from tall_plank.assets import text_width
from tall_plank.drawing.primitives import Drawing, Item, Layer, Pen, Shape, Text, rectangle
from tall_plank.job import Kind
from tall_plank.measure import DisplayUnit, format_length

CUT_SIZE = 1.5
"""mm on paper: height of the number of a cut."""


class CutMark(msgspec.Struct, frozen=True):
    """A cut in its order: where the saw enters (mm, the middle of its kerf), how it runs, how long it is."""

    number: int
    turn: int
    along: bool
    x: float
    y: float
    length: float


def board_drawing(
    name: str,
    length: float,
    width: float,
    pieces: tuple[tuple[str, float, float, float, float], ...],
    scale: float,
    offcuts: tuple[tuple[float, float, float, float], ...] = (),
    cuts: tuple[CutMark, ...] = (),
    marks: tuple[str, ...] = (),
    display: DisplayUnit = DisplayUnit.MM,
) -> Drawing:
    """A board and its pieces (part, x, y, length, width, all mm); a number or size without room is left out. Sizes are
    told in `display`. Offcuts to
    keep are dashed, with their size and `marks`. Cuts are numbered where the saw enters; where numbers would meet, the
    later one moves on along its cut."""
    items: list[Item] = [Shape(rectangle(0, 0, length, width), Pen.WIDE, Layer.WALL, None, "offcut")]
    for i, (x, y, long, wide) in enumerate(offcuts):
        items.append(Shape(rectangle(x, y, long, wide), Pen.DASHED, Layer.CARCASS, None, ""))
        size = f"{marks[i]} · " if i < len(marks) else ""
        size += f"{format_length(round(long), display)} × {format_length(round(wide), display)}"
        angle = 90.0 if wide > long else 0.0
        if text_width(size, 1.8) * scale < max(long, wide) and min(long, wide) > 3.0 * scale:
            middle = (x + long / 2, y + wide / 2)
            items.append(Text(*middle, size, 1.8, Layer.LABEL, angle=angle, quiet=True, rise=-0.9))
    for part, x, y, long, wide in pieces:
        items.append(Shape(rectangle(x, y, long, wide), Pen.NARROW, Layer.CARCASS, Kind.PART.of(part), "board"))
        size = f"{format_length(long, display)} × {format_length(wide, display)}"
        upright = wide > long
        room_long, room_wide = (wide, long) if upright else (long, wide)
        angle = 90.0 if upright else 0.0
        cx, cy = x + long / 2, y + wide / 2
        two = room_wide > 7.0 * scale and (text_width(size, 1.8) + 1.5) * scale < room_long
        if text_width(part, 2.2) * scale < room_long and room_wide > 2.6 * scale:
            rise = 0.5 if two else -1.1
            items.append(Text(cx, cy, part, 2.2, Layer.LABEL, Kind.PART.of(part), angle=angle, rise=rise))
        if two:
            items.append(Text(cx, cy, size, 1.8, Layer.LABEL, angle=angle, quiet=True, rise=-2.6))
    items += _numbered(cuts, scale)
    return Drawing(name, tuple(items), 0.0, 0.0, length, width)


def _numbered(cuts: tuple[CutMark, ...], scale: float) -> list[Item]:
    items: list[Item] = []
    taken: list[tuple[float, float, float, float]] = []
    high = CUT_SIZE * scale
    for cut in cuts:
        told = str(cut.number)
        wide = text_width(told, CUT_SIZE) * scale + 0.8 * scale
        # Along the cut from where the saw enters, until the number stands free or the cut ends.
        reach, step = 0.5 * scale, 1.2 * scale
        box = (0.0, 0.0, 0.0, 0.0)
        while True:
            mid_x, mid_y = (cut.x + reach + wide / 2, cut.y) if cut.along else (cut.x, cut.y + reach + high / 2)
            box = (mid_x - wide / 2, mid_y - high * 0.7, mid_x + wide / 2, mid_y + high * 0.7)
            room = reach + (wide if cut.along else high)
            if room > cut.length or not any(_meet(box, other) for other in taken):
                break
            reach += step
        taken.append(box)
        items.append(
            Text(mid_x, mid_y, told, CUT_SIZE, Layer.DIMENSION, backed=True, bold=cut.turn == 1, rise=-CUT_SIZE / 2)
        )
    return items


def _meet(a: tuple[float, float, float, float], b: tuple[float, float, float, float]) -> bool:
    return a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]
