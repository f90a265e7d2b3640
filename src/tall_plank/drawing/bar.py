"""Bars drawn one under the other, each with the pieces that are cut from it, true in length."""

from __future__ import annotations

import math
from collections.abc import Sequence

import msgspec

from tall_plank.assets import text_width
from tall_plank.drawing.primitives import Drawing, Item, Layer, Pen, Shape, Text, rectangle
from tall_plank.job import Kind

HIGH, PITCH = 7.0, 15.0
"""mm on paper: a bar's height, and from one bar to the next."""


class BarPieceShown(msgspec.Struct, frozen=True):
    """A piece on its bar: mm from the bar's left end, its length with allowances, what that is called, and the saw
    angle at either end, degrees from square: above 0 the far side is the longer."""

    name: str
    at: float
    length: float
    size: str
    left: float = 0.0
    right: float = 0.0


class BarShown(msgspec.Struct, frozen=True):
    """A bar: what stands over it, its length, its pieces, mm left and what that is called."""

    head: str
    length: float
    pieces: tuple[BarPieceShown, ...]
    left: float
    left_size: str


def bar_drawing(title: str, bars: Sequence[BarShown], scale: float) -> Drawing:
    """Bars from the top down. `scale`: real mm for one mm of paper; texts and heights keep their size on paper."""
    items: list[Item] = []
    high, pitch = HIGH * scale, PITCH * scale
    longest = max((b.length for b in bars), default=1.0)
    total = pitch * max(1, len(bars))
    for i, bar in enumerate(bars):
        y = total - (i + 1) * pitch + 1.0 * scale
        items.append(Shape(rectangle(0.0, y, bar.length, high), Pen.WIDE, Layer.WALL, None, "offcut"))
        items.append(Text(0.0, y + high, bar.head, 2.2, Layer.LABEL, align="left", bold=True, rise=1.6))
        free = 0.0
        for piece in bar.pieces:
            items += _piece(piece, y, high, scale)
            if text_width(piece.name, 2.2) * scale >= piece.length - 2.0 * scale:
                # No room inside: under the bar, in the pieces' order where several stand close.
                told = f"{piece.name} {piece.size}"
                half = text_width(told, 1.8) * scale / 2
                middle = max(half, piece.at + piece.length / 2, free + half)
                items.append(Text(middle, y, told, 1.8, Layer.LABEL, Kind.PART.of(piece.name), quiet=True, rise=-2.6))
                free = middle + half + 1.5 * scale
        if bar.left_size and text_width(bar.left_size, 1.8) * scale < bar.left - 2 * scale:
            end = bar.length - 2.0 * scale
            items.append(Text(end, y + high / 2, bar.left_size, 1.8, Layer.LABEL, align="right", quiet=True, rise=-0.9))
    return Drawing(title, tuple(items), 0.0, 0.0, longest, total, scale=scale)


def _piece(piece: BarPieceShown, y: float, high: float, scale: float) -> list[Item]:
    x0, x1 = piece.at, piece.at + piece.length
    # Where an end is cut to an angle, the far side (up) or the near one is shorter.
    lean = [math.tan(math.radians(a)) * high for a in (piece.left, piece.right)]
    points = (
        (x0 + max(0.0, lean[0]), y), (x1 - max(0.0, lean[1]), y),
        (x1 - max(0.0, -lean[1]), y + high), (x0 + max(0.0, -lean[0]), y + high),
    )  # fmt: skip
    source = Kind.PART.of(piece.name)
    items: list[Item] = [Shape(points, Pen.NARROW, Layer.CARCASS, source, "board")]
    room = piece.length - 2.0 * scale
    middle = (x0 + x1) / 2
    name, size = piece.name, piece.size
    if text_width(name, 2.2) * scale < room:
        items.append(Text(middle, y + high / 2, name, 2.2, Layer.LABEL, source, rise=0.5))
        if text_width(size, 1.8) * scale < room:
            items.append(Text(middle, y + high / 2, size, 1.8, Layer.LABEL, source, quiet=True, rise=-2.6))
    if abs(piece.left) > 0.01:
        at = x0 + 0.6 * scale
        items.append(Text(at, y, f"{piece.left:g}°", 1.8, Layer.LABEL, align="left", quiet=True, rise=-2.4))
    if abs(piece.right) > 0.01:
        at = x1 - 0.6 * scale
        items.append(Text(at, y, f"{piece.right:g}°", 1.8, Layer.LABEL, align="right", quiet=True, rise=-2.4))
    return items
