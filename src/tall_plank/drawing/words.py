"""Words on paper placed so that none lies over another: where its own place is taken, a text moves aside on a leader;
where lines run through it, it has a white ground."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

import msgspec
import numpy as np
from numpy.typing import NDArray

from tall_plank.assets import text_width
from tall_plank.drawing.placing import LEAST
from tall_plank.drawing.primitives import Layer, Line, Pen, Shape, Text

Box = tuple[float, float, float, float]

HANGING = 0.28
"""Share of the height of capitals by which letters hang below their line."""

STRONG = 1.07
"""How much wider the semibold face is."""

LEADER = 1.6
"""Heights that a text moves at the least before it has a leader."""


def box_of(text: Text, scale: float, x: float | None = None, y: float | None = None) -> Box:
    """What a text takes, mm of paper: x0, y0, x1, y1, round it where it is turned. `x`, `y`: place, mm of paper."""
    x = text.x / scale if x is None else x
    y = text.y / scale if y is None else y
    left, low, wide, high = _takes(text)
    corners = [(left, low), (left + wide, low), (left + wide, low + high), (left, low + high)]
    if text.angle:
        c, s = math.cos(math.radians(text.angle)), math.sin(math.radians(text.angle))
        corners = [(u * c - v * s, u * s + v * c) for u, v in corners]
    us, vs = [p[0] for p in corners], [p[1] for p in corners]
    return x + min(us), y + min(vs), x + max(us), y + max(vs)


def place_words(texts: Sequence[Text], taken: Sequence[Box], scale: float) -> list[Text | Line]:
    """Texts, each clear of the others and of boxes that are taken (mm of paper), with leaders where they moved."""
    boxes = list(taken)
    found: list[Text | Line] = []
    # What was put aside by hand stays where it was put.
    for text in (t for t in texts if t.shift != (0.0, 0.0)):
        dx, dy = text.shift
        put = msgspec.structs.replace(text, x=text.x + dx * scale, y=text.y + dy * scale, shift=(0.0, 0.0))
        boxes.append(box_of(put, scale))
        found += [put, _leader(text, boxes[-1], scale)]
    # What stands in a mark of its own, and what is bold, keeps its place before others.
    free = [t for t in texts if t.shift == (0.0, 0.0)]
    for text in sorted(free, key=lambda t: (not t.within, not t.bold, not t.backed)):
        text = _as_large(text, scale)
        for placed, moved in _candidates(text, scale):
            box = box_of(placed, scale)
            if not any(_meet(box, b) for b in boxes):
                boxes.append(box)
                found.append(placed)
                if moved:
                    found.append(_leader(text, box, scale))
                break
    return found


def _as_large(text: Text, scale: float) -> Text:
    """A text at least as high as can be read; smaller where it has to fit into something."""
    size = max(text.size, LEAST)
    if text.within and text_width(text.text, size) * scale > text.within:
        size = LEAST
    return text if size == text.size else msgspec.structs.replace(text, size=size)


def _candidates(text: Text, scale: float) -> Iterator[tuple[Text, bool]]:
    """The text at its own place, then further and further about it; whether it has moved so far that it needs a
    leader."""
    fits = not text.within or text_width(text.text, text.size) * scale <= text.within
    if fits:
        yield text, False
    high, wide = text.size, text_width(text.text, text.size)
    for ring in range(1, 60):
        away = ring * high * 0.7
        spots = []
        for k in range(16):
            turn = math.pi / 2 + k * math.pi / 8
            dx = math.cos(turn) * (away + (wide / 2 if abs(math.cos(turn)) > 0.5 else 0.0))
            dy = math.sin(turn) * away
            spots.append((abs(math.hypot(dx, dy)), dx, dy))
        for size, dx, dy in sorted(spots, key=lambda s: round(s[0], 3)):
            yield msgspec.structs.replace(text, x=text.x + dx * scale, y=text.y + dy * scale), size > LEADER * high


def _leader(text: Text, box: Box, scale: float) -> Line:
    """From what the text is about to the nearest side of where it stands."""
    x, y = text.x / scale, text.y / scale
    end_x, end_y = min(max(x, box[0]), box[2]), min(max(y, box[1]), box[3])
    return Line(text.x, text.y, end_x * scale, end_y * scale, Pen.NARROW, Layer.LABEL, text.source)


def _meet(a: Box, b: Box) -> bool:
    near = 0.3
    return a[0] < b[2] + near and b[0] < a[2] + near and a[1] < b[3] + near and b[1] < a[3] + near


def ground_of(text: Text) -> Box:
    """The white ground under a text in its own frame, mm of paper: left, low, width, height about its place."""
    left, low, wide, high = _takes(text)
    return left - 0.3, low - 0.3, wide + 0.6, high + 0.6


def _takes(text: Text) -> Box:
    """What a text takes in its own frame, mm of paper: left, low, width, height about its place."""
    wide = text_width(text.text, text.size) * (STRONG if text.bold else 1.0)
    left = {"left": 0.0, "middle": -wide / 2, "right": -wide}[text.align]
    hanging = HANGING * text.size if any(c in "gjpqy,;()" for c in text.text) else 0.0
    return left, text.rise - hanging, wide, text.size + hanging


def with_grounds(
    texts: Sequence[Text], boxes: NDArray[np.float64], lines: NDArray[np.float64], fills: Sequence[Shape]
) -> list[Text]:
    """Texts, those that lines run through or that stand on a finish on a white ground.

    Parameters
    ----------
    boxes : (M, 4) floats; what each text takes, real mm
    lines : (N, 4) floats; x1, y1, x2, y2, real mm
    fills : in the order in which they are painted
    """
    if not texts:
        return []
    spans = np.array([_bounds(f) for f in fills if f.fill.startswith("#")]).reshape(-1, 4)
    low, high = boxes[:, None, :2], boxes[:, None, 2:]
    meets = (spans[None, :, :2] < high) & (spans[None, :, 2:] > low)
    on: NDArray[np.bool_] = np.any(np.all(meets, axis=2), axis=1)
    on |= _crossed(lines, boxes)
    return [
        msgspec.structs.replace(t, backed=True) if marked and not t.backed else t
        for t, marked in zip(texts, on.tolist(), strict=True)
    ]


def _bounds(shape: Shape) -> Box:
    xs, ys = [p[0] for p in shape.points], [p[1] for p in shape.points]
    return min(xs), min(ys), max(xs), max(ys)


FEW = 400_000
"""Pairs of boxes and lines that are compared one by one; more are looked up in a tree."""


def _near(lines: NDArray[np.float64], boxes: NDArray[np.float64]) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """Pairs of boxes and lines whose own boxes meet."""
    if len(lines) * len(boxes) <= FEW:
        low, high = np.minimum(lines[:, :2], lines[:, 2:]), np.maximum(lines[:, :2], lines[:, 2:])
        meets = (low[:, 0] <= boxes[:, 2:3]) & (high[:, 0] >= boxes[:, 0:1])
        meets &= (low[:, 1] <= boxes[:, 3:4]) & (high[:, 1] >= boxes[:, 1:2])
        box, line = np.nonzero(meets)
        return box, line
    import shapely

    tree = shapely.STRtree(shapely.linestrings(lines.reshape(-1, 2, 2)))
    box, line = tree.query(shapely.box(*boxes.T))
    return box, line


def _crossed(lines: NDArray[np.float64], boxes: NDArray[np.float64]) -> NDArray[np.bool_]:
    """(M,) whether a line runs through each of the boxes (M, 4)."""
    found = np.zeros(len(boxes), dtype=bool)
    if not len(lines):
        return found
    box, line = _near(lines, boxes)
    p, way = lines[line, :2], lines[line, 2:] - lines[line, :2]
    low, high = np.zeros(len(line)), np.ones(len(line))
    for k in (0, 1):
        lo, hi = boxes[box, k], boxes[box, k + 2]
        flat = np.abs(way[:, k]) < 1e-9
        step = np.where(flat, 1.0, way[:, k])
        t1, t2 = (lo - p[:, k]) / step, (hi - p[:, k]) / step
        inside = (p[:, k] > lo) & (p[:, k] < hi)
        low = np.where(flat, np.where(inside, low, 2.0), np.maximum(low, np.minimum(t1, t2)))
        high = np.where(flat, high, np.minimum(high, np.maximum(t1, t2)))
    found[box[low < high]] = True
    return found
