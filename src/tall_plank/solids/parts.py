"""Parts as solids, where they stand."""

from __future__ import annotations

import math

from tall_plank.job import Source
from tall_plank.making import Part
from tall_plank.making.parts import Groove, Rebate
from tall_plank.measure import Frame
from tall_plank.measure.frames import RoomFrame, RoomPoint, Y, Z
from tall_plank.measure.outlines import Points
from tall_plank.solids.solids import Box, Prism, Solid
from tall_plank.stock import Stock


def solid_of(frame: RoomFrame, part: Part, color: str, source: Source, name: str) -> list[Solid]:
    """A part as it stands: a box, a prism of its outline, or strips where it is bent."""
    if part.bend:
        return [_bent(frame, part, color, source, name)]
    if part.outline:
        return [Prism(frame, part.outline, part.thickness, color, source, name)]
    if len(section := grooved_section(part)) > 4:
        return [Prism(frame.then(Frame((0.0, 0.0, 0.0), Y, Z)), section, part.length, color, source, name)]
    x0, y0, x1, y1 = without_tongues(part)
    place = frame if x0 == y0 == 0.0 else frame.then(Frame((x0, y0, 0.0)))
    return [Box(place, (x1 - x0, y1 - y0, part.thickness), color, source, name)]


def grooved_section(part: Part) -> Points:
    """The section of a board across its grain with the grooves that decorate its face from end to end: y, z, mm. Four
    corners where it has none."""
    found = [(0.0, 0.0), (part.width, 0.0), (part.width, part.thickness)]
    grooves = [
        op
        for op in part.operations
        if isinstance(op, Groove) and op.face == "A" and op.over == "face" and abs(op.y1 - op.y2) < 0.01
        and min(op.x1, op.x2) < 0.05 and max(op.x1, op.x2) > part.length - 0.05
    ]  # fmt: skip
    for op in sorted(grooves, key=lambda op: -op.y1):
        high, low, floor = op.y1 + op.width / 2, op.y1 - op.width / 2, part.thickness - op.depth
        if found[-1][0] > high + 0.01 and low > 0.01:
            found += [(high, part.thickness), (high, floor), (low, floor), (low, part.thickness)]
    return (*found, (0.0, part.thickness))


def without_tongues(part: Part) -> tuple[float, float, float, float]:
    """What of a board is seen between its tongues, which stand in other parts: x0, y0, x1, y1, mm. An edge is a tongue
    where both faces are rebated."""
    both: dict[str, dict[str, float]] = {}
    for op in part.operations:
        if isinstance(op, Rebate):
            both.setdefault(op.edge, {})[op.face] = op.width
    cut = {edge: min(faces.values()) for edge, faces in both.items() if len(faces) == 2}
    return (
        cut.get("W1", 0.0), cut.get("L1", 0.0), part.length - cut.get("W2", 0.0), part.width - cut.get("L2", 0.0),
    )  # fmt: skip


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
