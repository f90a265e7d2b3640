"""Handles as they look, lying or upright: on elevations, and for the pictures of stock."""

from __future__ import annotations

import math

from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, Shape, rectangle
from tall_plank.measure.outlines import bow, circle, ellipse
from tall_plank.measure.remembered import remembered
from tall_plank.stock import Fitting

BAR = 12.0
"""mm; thickness of a bar, a bow or a post (common practice)."""

CUP_HIGH, EDGE_HIGH = 34.0, 14.0
"""mm of a cup's height and of what an edge pull shows at the front."""


def handle_outline(handle: Fitting | None, length: float) -> tuple[tuple[float, float], ...]:
    """The outline of a handle seen from the front, along x from 0 to its length, about y = 0; mm."""
    shape = handle.shape if handle is not None else "bar"
    half = BAR / 2
    if shape == "knob" or (handle is not None and not handle.centers and length <= 60.0):
        return circle(length / 2, 0.0, length / 2)
    if shape == "bow":
        # Its feet are wider than its grip.
        waist = half * 0.6
        foot = min(18.0, length / 5)
        return (
            (0, -half), (foot, -half), (2 * foot, -waist), (length - 2 * foot, -waist), (length - foot, -half),
            (length, -half), (length, half), (length - foot, half), (length - 2 * foot, waist), (2 * foot, waist),
            (foot, half), (0, half),
        )  # fmt: skip
    if shape == "cup":
        top = [(x, y - CUP_HIGH / 2) for x, y in ellipse(length / 2, CUP_HIGH)]
        return ((0.0, -CUP_HIGH / 2), (length, -CUP_HIGH / 2), *((length / 2 + x, y) for x, y in top))
    if shape == "edge":
        return rectangle(0.0, -EDGE_HIGH / 2, length, EDGE_HIGH)
    return rectangle(0.0, -half, length, BAR)


def handle_items(handle: Fitting | None, ends: tuple[float, float, float, float]) -> list[Item]:
    """A handle between its ends (x, z, x, z; mm) on an elevation, in its own color."""
    x1, z1, x2, z2 = ends
    length = max(math.hypot(x2 - x1, z2 - z1), BAR)
    upright = abs(z2 - z1) > abs(x2 - x1)
    outline = handle_outline(handle, length)
    points = tuple((x1 - v, z1 + u) if upright else (x1 + u, z1 + v) for u, v in outline)
    color = handle.finish if handle is not None and handle.finish else "ink"
    return [Shape(points, Pen.NARROW, Layer.HANDLE, None, color)]


@remembered(256)
def handle_drawing(handle: Fitting) -> Drawing:
    """A handle for a list of stock: from the front, and under it from above on its front; mm, to one scale."""
    length, out = handle.length, handle.projection or 30.0
    items: list[Item] = [*handle_items(handle, (0.0, 0.0, length, 0.0))]
    low = min(y for item in items if isinstance(item, Shape) for _, y in item.points)
    face = low - 14.0 - out
    items.append(Line(-12.0, face, length + 12.0, face, Pen.MEDIUM, Layer.FRONT))
    for points in side_outlines(handle):
        items.append(
            Shape(tuple((x, face + y) for x, y in points), Pen.NARROW, Layer.HANDLE, None, handle.finish or "ink")
        )
    high = max(y for item in items if isinstance(item, Shape) for _, y in item.points)
    return Drawing(handle.name, tuple(items), -14.0, face - 4.0, length + 28.0, high - face + 8.0)


def side_outlines(handle: Fitting) -> tuple[tuple[tuple[float, float], ...], ...]:
    """The outlines of a handle seen from above: along x, y out from the front; mm."""
    length, out = handle.length, handle.projection or 30.0
    if handle.shape == "knob":
        neck, head = min(12.0, length * 0.4), out * 0.45
        return (rectangle((length - neck) / 2, 0.0, neck, out - head), rectangle(0.0, out - head, length, head))
    if handle.shape == "bow":
        return (bow(length, out),)
    if handle.shape == "cup":
        return (((0.0, 0.0), (length, 0.0), *((length / 2 + x, y) for x, y in ellipse(length / 2, out))),)
    if handle.shape == "edge":
        return (
            rectangle(0.0, 0.0, length, 2.0),
            rectangle(0.0, 0.0, length, out) if out <= 4.0 else rectangle(0.0, out - 3.0, length, 3.0),
        )
    posts = tuple(
        rectangle((length - handle.centers) / 2 + shift - 4.0, 0.0, 8.0, out - BAR) for shift in (0.0, handle.centers)
    )
    return (rectangle(0.0, out - BAR, length, BAR), *posts)
