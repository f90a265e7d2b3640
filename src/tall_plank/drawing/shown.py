"""What a drawing shows on paper at a scale: every screen, PDF, DXF and SVG replays this and nothing else."""

from __future__ import annotations

import math
from collections.abc import Iterable
from itertools import pairwise

import msgspec
import numpy as np
from numpy.typing import NDArray

from tall_plank.drawing.hatching import strokes_in
from tall_plank.drawing.placing import Figure, letter_names, place
from tall_plank.drawing.primitives import Arc, Dim, Drawing, Item, Line, Shape, Text
from tall_plank.drawing.strokes import seen_items
from tall_plank.drawing.words import box_of, place_words, with_grounds
from tall_plank.measure.remembered import remembered

Mark = Line | Shape | Arc | Text


class Shown(msgspec.Struct, frozen=True):
    """A drawing at a scale.

    Attributes
    ----------
    drawn : fills, then lines as far as they are seen; real mm
    figures : dimensions
    words : texts of the drawing, with their leaders
    table : letters that stand for figures without room, and the figures
    x0, y0, x1, y1 : what all of it takes, real mm
    """

    drawn: tuple[Mark, ...]
    figures: tuple[Figure, ...]
    words: tuple[Text | Line, ...]
    table: tuple[tuple[str, str], ...]
    x0: float
    y0: float
    x1: float
    y1: float

    @property
    def items(self) -> tuple[Mark, ...]:
        """All of it in the order in which it is painted: texts last."""
        return (*self.drawn, *_rules(self.figures), *(i for i in self.words if isinstance(i, Line)), *self.texts)

    @property
    def texts(self) -> tuple[Text, ...]:
        return (*(t for f in self.figures for t in f.texts), *(i for i in self.words if isinstance(i, Text)))


def _rules(figures: Iterable[Figure]) -> list[Line]:
    return [line for f in figures for line in (*f.rules, *((f.leader,) if f.leader is not None else ()))]


@remembered(512)
def shown(drawing: Drawing, scale: float) -> Shown:
    """A drawing at a scale (real mm per mm of paper)."""
    drawn: list[Mark] = [i for i in seen_items(_hatched(drawing.items, scale)) if not isinstance(i, Dim)]
    placed = place([i for i in drawing.items if isinstance(i, Dim)], scale, letter_names())
    taken = [box_of(t, scale) for f in placed.figures for t in f.texts]
    words = place_words([i for i in drawing.items if isinstance(i, Text)], taken, scale)
    lines = _segments([*drawn, *_rules(placed.figures), *(i for i in words if isinstance(i, Line))])
    fills = [i for i in drawn if isinstance(i, Shape) and i.fill]
    texts = [*(t for f in placed.figures for t in f.texts), *(i for i in words if isinstance(i, Text))]
    boxes = np.array([box_of(t, scale) for t in texts], dtype=np.float64).reshape(-1, 4) * scale
    grounded = iter(with_grounds(texts, boxes, lines, fills))
    figures = tuple(_with_texts(f, [next(grounded) for _ in f.texts]) for f in placed.figures)
    told = tuple(next(grounded) if isinstance(i, Text) else i for i in words)
    x0, y0, x1, y1 = _extent(drawing, lines, fills, boxes)
    return Shown(tuple(drawn), figures, told, tuple(placed.table), x0, y0, x1, y1)


def _hatched(items: tuple[Item, ...], scale: float) -> list[Item]:
    """With the strokes of what is hatched, each after its shape."""
    found: list[Item] = []
    for item in items:
        found.append(item)
        if isinstance(item, Shape) and item.hatch:
            found += strokes_in(item, scale)
            found += [Shape(hole, item.pen, item.layer, item.source) for hole in item.holes]
    return found


def _with_texts(figure: Figure, texts: list[Text]) -> Figure:
    """A figure with other texts in the order of its own."""
    if not texts:
        return figure
    text = texts[0] if figure.text is not None else None
    return msgspec.structs.replace(figure, text=text, name=texts[-1] if figure.name is not None else None)


def _segments(items: list[Mark]) -> NDArray[np.float64]:
    """(N, 4) floats: every straight line and side, x1, y1, x2, y2; arcs by chords."""
    found: list[tuple[float, float, float, float]] = []
    for item in items:
        if isinstance(item, Line):
            found.append((item.x1, item.y1, item.x2, item.y2))
        elif isinstance(item, Shape) and not item.fill:
            ends = zip(item.points, (*item.points[1:], item.points[0]), strict=True)
            found += [(*a, *b) for a, b in ends]
        elif isinstance(item, Arc):
            steps = max(4, round(item.sweep / 10))
            turns = [math.radians(item.start + item.sweep * i / steps) for i in range(steps + 1)]
            points = [(item.x + item.radius * math.cos(t), item.y + item.radius * math.sin(t)) for t in turns]
            found += [(*a, *b) for a, b in pairwise(points)]
    return np.array(found, dtype=np.float64).reshape(-1, 4)


def _extent(
    drawing: Drawing, lines: NDArray[np.float64], fills: list[Shape], texts: NDArray[np.float64]
) -> tuple[float, float, float, float]:
    """What is drawn and written, real mm."""
    corners = np.array([p for f in fills for p in f.points], dtype=np.float64).reshape(-1, 2)
    own = np.array([[drawing.x0, drawing.y0], [drawing.x1, drawing.y1]])
    every = np.concatenate([own, lines.reshape(-1, 2), corners, texts.reshape(-1, 2)])
    (x0, y0), (x1, y1) = every.min(axis=0).tolist(), every.max(axis=0).tolist()
    return x0, y0, x1, y1
