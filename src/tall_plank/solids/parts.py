"""Parts as solids, where they stand."""

from __future__ import annotations

import math

from tall_plank.job import Source
from tall_plank.making import Part
from tall_plank.measure import Frame
from tall_plank.measure.frames import RoomFrame, RoomPoint
from tall_plank.solids.solids import Box, Prism, Solid
from tall_plank.stock import Stock


def solid_of(frame: RoomFrame, part: Part, color: str, source: Source, name: str) -> list[Solid]:
    """A part as it stands: a box, a prism of its outline, or strips where it is bent."""
    if part.bend:
        return [_bent(frame, part, color, source, name)]
    if part.outline:
        return [Prism(frame, part.outline, part.thickness, color, source, name)]
    return [Box(frame, (part.length, part.width, part.thickness), color, source, name)]


def _bent(frame: RoomFrame, part: Part, color: str, source: Source, name: str) -> Prism:
    """A bent part: the section of its arc, as high as the part. Its frame stands at the foot of its chord."""
    upright = abs(frame.x[2]) > 0.5
    arc, high = (part.width, part.length) if upright else (part.length, part.width)
    radius = abs(part.bend)
    half = arc / radius / 2
    chord = 2 * radius * math.sin(half)
    sign = 1.0 if part.bend > 0 else -1.0
    along = frame.y if upright else frame.x
    steps = 16
    outer, inner = [], []
    for i in range(steps + 1):
        t = -half + 2 * half * i / steps
        u = chord / 2 + radius * math.sin(t)
        out = sign * radius * (math.cos(t) - math.cos(half))
        outer.append((u, out))
        inner.append((u, out - part.thickness))
    # x along the face, y out of it (to the right of its way), z up.
    out_of = (along[1], -along[0], 0.0)
    x, y, z = frame.origin
    origin = frame.origin if upright else RoomPoint((x, y, z - high))
    points = tuple(outer) + tuple(reversed(inner))
    # x, y and up are left-handed here, so the section is mirrored: y counts into the unit.
    plan = tuple((u, -o) for u, o in points)
    return Prism(Frame(origin, along, (-out_of[0], -out_of[1], 0.0)), plan, high, color, source, name)


def board_color(stock: Stock, code: str) -> str:
    """The color of a board's finish; grey where the stock has none."""
    board = stock.board_by_code(code)
    finish = stock.finish(board.finish) if board else None
    return finish.color if finish else "#CCCCCC"
