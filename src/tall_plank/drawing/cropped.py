"""A drawing cropped to an upright rectangle, for details."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from itertools import pairwise
from typing import Any

import msgspec

from tall_plank.drawing.primitives import Arc, Item, Line, Pen, Shape, Text
from tall_plank.drawing.words import Box


def cropped(items: Iterable[Item], box: Box) -> list[Item]:
    """Items as far as they lie in a rectangle, in their order; dimensions are left out.

    Parameters
    ----------
    box : x0, y0, x1, y1, mm of the drawing
    """
    found: list[Item] = []
    for item in items:
        match item:
            case Line():
                ends = clipped((item.x1, item.y1), (item.x2, item.y2), box)
                if ends is not None:
                    (x1, y1), (x2, y2) = ends
                    found.append(msgspec.structs.replace(item, x1=x1, y1=y1, x2=x2, y2=y2))
            case Shape():
                found += _shape(item, box)
            case Arc():
                found += _arc(item, box)
            case Text():
                if box[0] <= item.x <= box[2] and box[1] <= item.y <= box[3]:
                    found.append(item)
    return found


def clipped(
    a: tuple[float, float], b: tuple[float, float], box: Box
) -> tuple[tuple[float, float], tuple[float, float]] | None:
    """The piece of a line in a rectangle (Liang and Barsky's method); None where there is none."""
    low, high = 0.0, 1.0
    dx, dy = b[0] - a[0], b[1] - a[1]
    for way, room in ((-dx, a[0] - box[0]), (dx, box[2] - a[0]), (-dy, a[1] - box[1]), (dy, box[3] - a[1])):
        if abs(way) < 1e-12:
            if room < 0.0:
                return None
        elif way < 0.0:
            low = max(low, room / way)
        else:
            high = min(high, room / way)
    if high - low < 1e-9:
        return None
    return (a[0] + dx * low, a[1] + dy * low), (a[0] + dx * high, a[1] + dy * high)


def _shape(shape: Shape, box: Box) -> Iterator[Item]:
    """What is filled or hatched of a shape, then its outline: the rectangle's own sides are no part of it."""
    xs, ys = [p[0] for p in shape.points], [p[1] for p in shape.points]
    if box[0] <= min(xs) and max(xs) <= box[2] and box[1] <= min(ys) and max(ys) <= box[3]:
        yield shape
        return
    if shape.fill or shape.hatch:
        for outer, holes in _inside(shape, box):
            yield msgspec.structs.replace(shape, points=outer, holes=holes, pen=Pen.NONE)
    if shape.pen is not Pen.NONE:
        for ring in (shape.points, *shape.holes):
            for a, b in zip(ring, (*ring[1:], ring[0]), strict=True):
                ends = clipped(a, b, box)
                if ends is not None:
                    yield Line(*ends[0], *ends[1], shape.pen, shape.layer, shape.source, shape.over)


Ring = tuple[tuple[float, float], ...]


def _inside(shape: Shape, box: Box) -> list[tuple[Ring, tuple[Ring, ...]]]:
    import shapely

    whole: Any = shapely.Polygon(shape.points, shape.holes)
    if not whole.is_valid:
        whole = shapely.make_valid(whole)
    found = shapely.intersection(whole, shapely.box(*box))
    pieces = [g for g in getattr(found, "geoms", (found,)) if g.geom_type == "Polygon" and g.area > 1e-6]
    return [(_ring(p.exterior), tuple(_ring(r) for r in p.interiors)) for p in pieces]


def _ring(ring: Any) -> Ring:
    return tuple((float(x), float(y)) for x, y in ring.coords[:-1])


def _arc(arc: Arc, box: Box) -> Iterator[Arc]:
    """The pieces of an arc between the places where it meets the rectangle's sides."""
    cuts = {0.0, arc.sweep}
    for side, value in enumerate(box):
        off = (value - (arc.x if side % 2 == 0 else arc.y)) / arc.radius
        if abs(off) < 1.0:
            turns = (math.acos(off), -math.acos(off)) if side % 2 == 0 else (math.asin(off), math.pi - math.asin(off))
            for turn in turns:
                at = (math.degrees(turn) - arc.start) % 360.0
                if at < arc.sweep:
                    cuts.add(at)
    marks = sorted(cuts)
    for a, b in pairwise(marks):
        middle = math.radians(arc.start + (a + b) / 2)
        x, y = arc.x + arc.radius * math.cos(middle), arc.y + arc.radius * math.sin(middle)
        if b - a > 1e-6 and box[0] <= x <= box[2] and box[1] <= y <= box[3]:
            yield msgspec.structs.replace(arc, start=arc.start + a, end=arc.start + b)
