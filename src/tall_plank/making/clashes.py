"""Holes of rows that meet other work give way, and holes from both faces are made shallower, by rule (geometry). What
is left is told by the proof."""

from __future__ import annotations

import math
from collections.abc import Iterator

import msgspec

from tall_plank.making.joints import WOOD_BETWEEN
from tall_plank.making.parts import ROW, Bore, Draft, Groove, Operation, Part

LEAST_DEPTH = 6.0
"""mm; a pin or screw in less than this does not hold (common practice)."""

SHALLOWER = ("shelf pin", "shelf", "runner", "hinge plate", "stay", "butt hinge")
"""Uses whose holes may be made shallower where one from the other face meets them."""

SKIN = 1.0
"""mm of wood that stay between a hole and the edge of its part."""

LARGEST = 35.0
"""mm; no hole is larger than a hinge cup."""


def settled(part: Draft | Part) -> list[Operation]:
    """A part's operations without the clashes that rules can clear.

    Row holes that nothing stands on give way; holes from both faces of a board are made shallower until 2 mm of wood
    stay between them.
    """
    bores = [op for op in part.operations if isinstance(op, Bore)]
    if not bores:
        return list(part.operations)
    gone: set[int] = set()
    shallow: dict[int, float] = {}
    flat = sorted((b for b in bores if b.face in ("A", "B") and not b.slant), key=lambda b: b.x)
    for one, other in _near(flat):
        if id(one) in gone or id(other) in gone:
            continue
        if one.face == other.face or one.through or other.through:
            gone |= _rows(one, other)
        elif one.depth + other.depth > part.thickness - WOOD_BETWEEN:
            deep = (part.thickness - WOOD_BETWEEN) / 2
            if deep >= LEAST_DEPTH and all(b.use in SHALLOWER or b.depth <= deep for b in (one, other)):
                for b in (one, other):
                    shallow[id(b)] = min(deep, b.depth)
            else:
                gone |= _rows(one, other)
    rows = [b for b in flat if b.use == ROW and id(b) not in gone]
    if rows:
        grooves = [op for op in part.operations if isinstance(op, Groove) and op.face in ("A", "B")]
        ends = [op for op in bores if op.face not in ("A", "B")]
        for bore in rows:
            meets = any(_reaches(bore, groove, part.thickness) and _meets(bore, groove) for groove in grooves)
            if meets or _breaks_out(part, bore) or any(_meets_end(part, bore, end) for end in ends):
                gone.add(id(bore))
    return [
        msgspec.structs.replace(op, depth=shallow[id(op)]) if isinstance(op, Bore) and id(op) in shallow else op
        for op in part.operations
        if id(op) not in gone
    ]


def _rows(one: Bore, other: Bore) -> set[int]:
    """The one of two holes that is of a row."""
    return {id(one)} if one.use == ROW else {id(other)} if other.use == ROW else set()


def _near(bores: list[Bore]) -> Iterator[tuple[Bore, Bore]]:
    """Pairs of holes, sorted by x, whose circles overlap seen from the face."""
    for i, one in enumerate(bores):
        for k in range(i + 1, len(bores)):
            other = bores[k]
            dx = other.x - one.x
            reach = (one.diameter + other.diameter) / 2
            if dx >= reach:
                if dx >= (one.diameter + LARGEST) / 2:
                    break
                continue
            dy = other.y - one.y
            if dx * dx + dy * dy < reach * reach - 1e-6:
                yield one, other


def _reaches(bore: Bore, groove: Groove, thickness: float) -> bool:
    """Whether a hole is so deep that a groove may meet it."""
    if bore.face == groove.face or bore.through:
        return True
    return bore.depth + groove.depth > thickness - WOOD_BETWEEN + 0.01


def _meets(bore: Bore, groove: Groove) -> bool:
    dx, dy = groove.x2 - groove.x1, groove.y2 - groove.y1
    length = math.hypot(dx, dy) or 1.0
    t = ((bore.x - groove.x1) * dx + (bore.y - groove.y1) * dy) / length
    t = min(max(t, 0.0), length)
    away = math.hypot(bore.x - groove.x1 - dx / length * t, bore.y - groove.y1 - dy / length * t)
    return away < (bore.diameter + groove.width) / 2 - 0.01


def _breaks_out(part: Draft | Part, bore: Bore) -> bool:
    """Whether a hole breaks out at an edge of a rectangular part."""
    if part.outline or part.bend:
        return False
    near = min(bore.x, part.length - bore.x, bore.y, part.width - bore.y)
    return near < bore.diameter / 2 + SKIN - 0.01


def _meets_end(part: Draft | Part, bore: Bore, end: Bore) -> bool:
    """Whether a hole in a face runs into one in an edge or an end."""
    r, k, t = end.diameter / 2, bore.diameter / 2, part.thickness
    match end.face:
        case "W1" | "W2":
            x0, x1 = (0.0, end.depth) if end.face == "W1" else (part.length - end.depth, part.length)
            y0, y1 = end.x - r, end.x + r
        case "L1" | "L2":
            x0, x1 = end.x - r, end.x + r
            y0, y1 = (0.0, end.depth) if end.face == "L1" else (part.width - end.depth, part.width)
        case _:
            return False
    if not (x0 - k < bore.x < x1 + k and y0 - k < bore.y < y1 + k):
        return False
    deep = t if bore.through else bore.depth
    return end.y + r > t - deep + 0.01 if bore.face == "A" else end.y - r < deep - 0.01
