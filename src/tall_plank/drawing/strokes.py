"""The lines of a drawing that are seen on paper: what a later fill covers is cut away, what falls on a line is drawn
once. Straight lines stay straight, arcs keep their radius."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

import msgspec
import numpy as np
from numpy.typing import NDArray

from tall_plank.drawing.hidden import Faces, empty_faces, faces_of, joined, seen_pieces
from tall_plank.drawing.primitives import Arc, Item, Layer, Line, Pen, Shape
from tall_plank.job import Source
from tall_plank.measure import outlines as ol

RANK = {Pen.WIDE: 0, Pen.MEDIUM: 1, Pen.NARROW: 2, Pen.DASHED: 3, Pen.ABOVE: 4, Pen.MOVING: 5, Pen.CHAIN: 6}
"""Which of two lines in one place is drawn: outlines that are seen before hidden ones before axes (ISO 128-2, from
memory), the wider before the narrower."""

CHORD = 2.0
"""Degrees of the chords by which an arc is looked at."""

UNDER = 0.02
"""mm; a fill without a line of its own hides no line on its outline."""


class _Stroke(NamedTuple):
    """One straight stroke, or one chord of an arc."""

    item: int
    x1: float
    y1: float
    x2: float
    y2: float


def seen_items(items: Sequence[Item]) -> list[Item]:
    """Fills first, without lines; then every line, outline and arc as far as it is seen. Texts are left to others."""
    fills: list[Item] = [
        msgspec.structs.replace(i, pen=Pen.NONE, over=False) for i in items if isinstance(i, Shape) and i.fill
    ]
    return [*fills, *_lines(items)]


def _lines(items: Sequence[Item]) -> list[Item]:
    strokes: list[_Stroke] = []
    found: list[Item] = []
    fills = [(n, ol.bounds(i.points)) for n, i in enumerate(items) if isinstance(i, Shape) and i.fill]
    boxes = np.array([box for _, box in fills], dtype=np.float64).reshape(-1, 4)
    order = np.array([n for n, _ in fills], dtype=np.int64)
    for n, item in enumerate(items):
        match item:
            case Arc() if not _is_under(item, n, boxes, order):
                found.append(item)
            case Line():
                strokes.append(_Stroke(n, item.x1, item.y1, item.x2, item.y2))
            case Shape() if item.pen is not Pen.NONE:
                sides = zip(item.points, (*item.points[1:], item.points[0]), strict=True)
                strokes += [_Stroke(n, *a, *b) for a, b in sides if math.dist(a, b) > 0.001]
            case Arc():
                steps = max(2, round(item.sweep / CHORD))
                turns = [math.radians(item.start + item.sweep * i / steps) for i in range(steps + 1)]
                points = [(item.x + item.radius * math.cos(t), item.y + item.radius * math.sin(t)) for t in turns]
                strokes += [_Stroke(n, *a, *b) for a, b in pairwise(points)]
    if not strokes:
        return found
    flat = np.array(strokes)
    starts = np.stack([flat[:, 1], flat[:, 2], flat[:, 0]], axis=1)
    ends = np.stack([flat[:, 3], flat[:, 4], flat[:, 0]], axis=1)
    seen = seen_pieces(starts, ends, _covers(items))
    pieces: dict[int, list[tuple[int, float, float]]] = {}
    for number, start, end in zip(seen.line.tolist(), seen.start.tolist(), seen.end.tolist(), strict=True):
        pieces.setdefault(strokes[number].item, []).append((number, start, end))
    counts: dict[int, int] = {}
    for stroke in strokes:
        counts[stroke.item] = counts.get(stroke.item, 0) + 1
    first: dict[int, int] = {}
    for number, stroke in enumerate(strokes):
        first.setdefault(stroke.item, number)
    straight: list[tuple[int, Line]] = []
    for n, parts in pieces.items():
        item = items[n]
        if isinstance(item, Arc):
            found += _arcs(item, parts, counts[n], first[n])
        elif isinstance(item, Line | Shape):
            for number, start, end in parts:
                straight.append((n, _piece(strokes[number], start, end, item.pen, item.layer, item.source)))
    return [*_once(straight, items, counts), *found]


def _is_under(arc: Arc, n: int, boxes: NDArray[np.float64], order: NDArray[np.int64]) -> bool:
    """Whether a later fill may cover an arc: their boxes meet."""
    r = arc.radius
    meet = (boxes[:, 0] < arc.x + r) & (boxes[:, 2] > arc.x - r) & (boxes[:, 1] < arc.y + r) & (boxes[:, 3] > arc.y - r)
    return bool((meet & (order > n)).any())


def _piece(s: _Stroke, start: float, end: float, pen: Pen, layer: Layer, source: Source | None) -> Line:
    dx, dy = s.x2 - s.x1, s.y2 - s.y1
    low = (s.x1, s.y1) if start <= 0.0 else (s.x1 + dx * start, s.y1 + dy * start)
    high = (s.x2, s.y2) if end >= 1.0 else (s.x1 + dx * end, s.y1 + dy * end)
    return Line(*low, *high, pen, layer, source)


def _arcs(item: Arc, parts: list[tuple[int, float, float]], count: int, first: int) -> list[Item]:
    """The seen pieces of an arc by angle; those that meet are one."""
    step = item.sweep / count
    spans: list[list[float]] = []
    for number, start, end in sorted(parts):
        low, high = item.start + (number - first + start) * step, item.start + (number - first + end) * step
        if spans and low - spans[-1][1] < 1e-6:
            spans[-1][1] = high
        else:
            spans.append([low, high])
    if len(spans) > 1 and item.sweep == 360.0 and spans[-1][1] - spans[0][0] > 360.0 - 1e-6:
        spans[-1][1] = spans.pop(0)[1] + 360.0
    whole = len(spans) == 1 and spans[0][1] - spans[0][0] > item.sweep - 1e-6
    return [item] if whole else [msgspec.structs.replace(item, start=a, end=b) for a, b in spans]


def _covers(items: Sequence[Item]) -> Faces:
    """What each fill hides, its number as its depth."""
    lots: dict[int, list[tuple[NDArray[np.float64], float]]] = {}
    for n, item in enumerate(items):
        if not isinstance(item, Shape) or not item.fill or len(item.points) < 3:
            continue
        inset = UNDER if item.pen is Pen.NONE else 0.0
        for piece in convex_pieces(item.points):
            # Between its own number and the next, so that its own outline lies before it.
            corners = np.array([(x, y, n - 0.5) for x, y in piece])
            lots.setdefault(len(piece), []).append((corners, inset))
    parts = []
    for lot in lots.values():
        parts.append(faces_of(np.array([c for c, _ in lot]), None, np.array([inset for _, inset in lot])))
    return joined(parts) if parts else empty_faces()


def convex_pieces(points: ol.Points) -> list[ol.Points]:
    """An outline as convex pieces: itself where it is convex, else triangles."""
    if _is_convex(points):
        return [points]
    import shapely

    polygon = shapely.Polygon(points)
    if not polygon.is_valid:
        polygon = polygon.buffer(0)
    if polygon.is_empty:
        return []
    found = shapely.constrained_delaunay_triangles(polygon)
    return [tuple((float(x), float(y)) for x, y in t.exterior.coords[:-1]) for t in found.geoms]


def _is_convex(points: ol.Points) -> bool:
    way = 0.0
    n = len(points)
    for i in range(n):
        (ax, ay), (bx, by), (cx, cy) = points[i], points[(i + 1) % n], points[(i + 2) % n]
        turn = (bx - ax) * (cy - by) - (by - ay) * (cx - bx)
        if abs(turn) < 1e-6:
            continue
        if way * turn < 0:
            return False
        way = turn
    return True


def _once(lines: list[tuple[int, Line]], items: Sequence[Item], counts: dict[int, int]) -> list[Item]:
    """Lines that fall on one another drawn once; an outline that is left whole stays one."""
    groups: dict[tuple[int, int, int], list[tuple[int, Line, float, float]]] = {}
    for n, line in lines:
        dx, dy = line.x2 - line.x1, line.y2 - line.y1
        size = math.hypot(dx, dy)
        if size < 1e-9:
            continue
        ux, uy = dx / size, dy / size
        if ux < -1e-9 or (abs(ux) <= 1e-9 and uy < 0):
            ux, uy = -ux, -uy
        key = (round(ux * 1e5), round(uy * 1e5), round((ux * line.y1 - uy * line.x1) * 100))
        a, b = ux * line.x1 + uy * line.y1, ux * line.x2 + uy * line.y2
        groups.setdefault(key, []).append((n, line, min(a, b), max(a, b)))
    kept: dict[int, list[Line]] = {}
    spoiled: set[int] = set()
    for group in groups.values():
        taken: list[tuple[float, float]] = []
        for n, line, a, b in sorted(group, key=lambda g: (RANK[g[1].pen], g[0])):
            gaps = _gaps(a, b, taken)
            if gaps != [(a, b)]:
                spoiled.add(n)
            turned = (line.x2 - line.x1, line.y2 - line.y1) < (0.0, 0.0)
            for low, high in gaps:
                s, e = (
                    ((b - high) / (b - a), (b - low) / (b - a))
                    if turned
                    else ((low - a) / (b - a), (high - a) / (b - a))
                )
                stroke = _Stroke(n, line.x1, line.y1, line.x2, line.y2)
                kept.setdefault(n, []).append(_piece(stroke, s, e, line.pen, line.layer, line.source))
            taken.append((a, b))
    found: list[Item] = []
    for n, parts in sorted(kept.items()):
        item = items[n]
        whole = n not in spoiled and len(parts) == counts[n]
        if isinstance(item, Shape) and whole and _is_whole(item, parts):
            found.append(msgspec.structs.replace(item, fill="", grain="", over=False))
        else:
            found += parts
    return found


def _is_whole(item: Shape, parts: list[Line]) -> bool:
    around = sum(math.dist(a, b) for a, b in zip(item.points, (*item.points[1:], item.points[0]), strict=True))
    return sum(math.hypot(p.x2 - p.x1, p.y2 - p.y1) for p in parts) > around - 0.01


def _gaps(a: float, b: float, taken: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """What is left of a to b."""
    found = [(a, b)]
    for low, high in taken:
        if high <= a or low >= b:
            continue
        found = [
            piece
            for start, end in found
            for piece in ((start, min(end, low)), (max(start, high), end))
            if piece[1] - piece[0] > 0.002
        ]
    return found
