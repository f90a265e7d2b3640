"""Moldings mitred round a rectangle on a wall, as they are seen."""

from __future__ import annotations

from tall_plank.drawing.colors import color_of
from tall_plank.drawing.primitives import Item, Layer, Pen, Shape
from tall_plank.job import Source
from tall_plank.setout.frames import MoldingFrame
from tall_plank.stock import Stock


def frame_items(stock: Stock, frame: MoldingFrame, source: Source) -> list[Item]:
    """Every side of a frame; mitres show where two meet."""
    profile = stock.profile(frame.profile)
    if profile is None:
        return []
    color = color_of(stock, profile.finish)
    return [
        Shape(frame.outline_of(side, profile.height), Pen.NARROW, Layer.TRIM, source, color)
        for side, *_ in frame.pieces()
    ]
