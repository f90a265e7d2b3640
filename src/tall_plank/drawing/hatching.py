"""Hatching of what is cut, by what it is made of; strokes are so far apart on paper, whatever the scale. After
ISO 128-3 (from memory): narrow lines, at 45 degrees to the outline for what has no other sign."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from tall_plank.drawing.primitives import Hatch, Line, Pen, Shape


class Strokes(NamedTuple):
    """Parallel strokes: degrees, and mm of paper from one to the next in turn."""

    angle: float
    apart: tuple[float, ...]


PATTERNS: dict[Hatch, tuple[Strokes, ...]] = {
    "panel": (Strokes(45.0, (1.4,)),),
    "ply": (Strokes(45.0, (0.5, 1.6)),),
    "timber": (Strokes(30.0, (0.9,)),),
    "worktop": (Strokes(45.0, (1.8,)), Strokes(135.0, (1.8,))),
    "glass": (Strokes(60.0, (0.6, 2.6)),),
    "masonry": (Strokes(45.0, (3.0,)),),
    "metal": (Strokes(135.0, (0.9,)),),
}

WORDS: dict[Hatch, str] = {
    "panel": "panel board", "ply": "plywood, veneered board", "timber": "solid timber", "worktop": "worktop",
    "glass": "glass", "masonry": "wall", "metal": "metal",
}  # fmt: skip

Ring = Sequence[tuple[float, float]]


def strokes_in(shape: Shape, scale: float) -> list[Line]:
    """The strokes of a hatched shape at a scale (real mm per mm of paper). Strokes run through from shape to shape, so
    that boards of one kind that meet are one hatching; what is thinner than a stroke's gap has one at least."""
    found: list[Line] = []
    rings = (shape.points, *shape.holes)
    for pattern in PATTERNS.get(shape.hatch, ()):
        c, s = math.cos(math.radians(pattern.angle)), math.sin(math.radians(pattern.angle))
        # In a frame turned so that the strokes run along u.
        turned = [[(x * c + y * s, y * c - x * s) for x, y in ring] for ring in rings]
        low, high = min(v for r in turned for _, v in r), max(v for r in turned for _, v in r)
        for v in _levels(low, high, [a * scale for a in pattern.apart]):
            for a, b in _spans(turned, v):
                if b - a > 0.05:
                    found.append(
                        Line(
                            a * c - v * s, a * s + v * c, b * c - v * s, b * s + v * c, Pen.NARROW, shape.layer,
                            shape.source,
                        )
                    )  # fmt: skip
    return found


MOST = 4000
"""Strokes of one shape at the most."""


def _levels(low: float, high: float, apart: Sequence[float]) -> list[float]:
    period = sum(apart)
    if (high - low) / period * len(apart) > MOST:
        return []
    starts = np.concatenate([[0.0], np.cumsum(apart)[:-1]])
    first, last = math.floor(low / period) - 1, math.ceil(high / period) + 1
    found = sorted(k * period + float(s) for k in range(first, last + 1) for s in starts)
    inside = [v for v in found if low + 1e-6 < v < high - 1e-6]
    return inside or [(low + high) / 2]


def _spans(rings: Sequence[Ring], v: float) -> list[tuple[float, float]]:
    """Where a level line runs inside rings (even-odd)."""
    at = []
    for ring in rings:
        for (x1, y1), (x2, y2) in zip(ring, (*ring[1:], ring[0]), strict=True):
            if (y1 > v) != (y2 > v):
                at.append(x1 + (v - y1) / (y2 - y1) * (x2 - x1))
    at.sort()
    return list(zip(at[::2], at[1::2], strict=False))
