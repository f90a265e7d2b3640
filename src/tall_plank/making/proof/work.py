"""Every operation lies in its part, leaves wood behind and beside it, and meets no other that it does not belong to.

What an operation takes away is a box or an upright cylinder in the part's own frame; two of them are compared as boxes
first, then by their circles, and as solids only where a hole in an edge meets something round.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

from tall_plank.making.parts import Bore, Cutout, Groove, Operation, Part, Rebate
from tall_plank.measure import outlines as ol

BEHIND = 2.0
"""mm of wood that stay behind what is cut into a face (common practice)."""

BESIDE = 1.0
"""mm of wood that stay between a hole and the nearest edge of its face (common practice: less breaks out)."""

BETWEEN = 2.0
"""mm of wood that stay between what is cut from both faces of a board (common practice)."""

HAIR = 0.02
"""mm; what is short by less is right."""

TOGETHER = (
    frozenset({"cam", "cam dowel"}),
    frozenset({"pocket screw"}),
    frozenset({"handle", "face"}),
    frozenset({"handle", "slats"}),
    frozenset({"panel", "rebate"}),
    frozenset({"louvre", "dowel"}),
)
"""What may meet in one part: a cam with its dowel, a pocket with its screw, a handle's screws through the grooves of a
front's face, a groove through the tongue at a rail's end."""


class Amiss(NamedTuple):
    """What is wrong with the work on a part.

    Attributes
    ----------
    what : in words, without the part
    at : its place on the part (x, y, z), mm
    """

    what: str
    at: tuple[float, float, float]


class _Void(NamedTuple):
    """What an operation takes away: a box in the part's frame, mm.

    Attributes
    ----------
    axis : along which it is round (0 x, 1 y, 2 z), -1 for a box
    face : that it is cut into
    blind : whether wood stays behind it
    """

    low: tuple[float, float, float]
    high: tuple[float, float, float]
    axis: int
    face: str
    use: str
    blind: bool


def amiss_in(part: Part) -> Iterator[Amiss]:
    """What is wrong with the operations of a part, one by one."""
    voids = [v for op in part.operations if (v := _void(part, op)) is not None]
    if not voids:
        return
    for void in voids:
        if (word := _lies(part, void)) is not None:
            yield Amiss(word, _middle(void))
    voids.sort(key=_left)
    still: list[_Void] = []
    for void in voids:
        left = void.low[0] + HAIR
        near, far, down, up = void.low[1] + HAIR, void.high[1] - HAIR, void.low[2], void.high[2]
        still = [v for v in still if v.high[0] > left]
        for other in still:
            (_, a, b), (_, c, d) = other.low, other.high
            if a < far and c > near and b - BETWEEN < up and d + BETWEEN > down and _meet(void, other):
                yield Amiss(f"{_words(other)} runs into {_words(void)}", _middle(void))
        still.append(void)


def _left(void: _Void) -> float:
    return void.low[0]


def _middle(void: _Void) -> tuple[float, float, float]:
    (a, b, c), (d, e, f) = void.low, void.high
    return (a + d) / 2, (b + e) / 2, (c + f) / 2


def _words(void: _Void) -> str:
    """What an operation is, with its article."""
    if void.axis >= 0 or void.use == "pocket screw":
        return f"a {void.use} hole"
    if void.use in ("rebate", "cut-out"):
        return f"a {void.use}"
    return f"the groove of the {void.use}"


def _void(part: Part, op: Operation) -> _Void | None:
    length, width, thick = part.length, part.width, part.thickness
    match op:
        case Bore():
            if op.slant:
                return _pocket(part, op)
            r, u, v, blind = op.diameter / 2, op.x, op.y, not op.through
            deep = op.depth if blind else thick
            match op.face:
                case "A":
                    return _Void((u - r, v - r, thick - deep), (u + r, v + r, thick), 2, "A", op.use, blind)
                case "B":
                    return _Void((u - r, v - r, 0.0), (u + r, v + r, deep), 2, "B", op.use, blind)
                case "L1":
                    return _Void((u - r, 0.0, v - r), (u + r, deep, v + r), 1, "L1", op.use, blind)
                case "L2":
                    return _Void((u - r, width - deep, v - r), (u + r, width, v + r), 1, "L2", op.use, blind)
                case "W1":
                    return _Void((0.0, u - r, v - r), (deep, u + r, v + r), 0, "W1", op.use, blind)
                case _:
                    return _Void((length - deep, u - r, v - r), (length, u + r, v + r), 0, "W2", op.use, blind)
        case Groove():
            if abs(op.x1 - op.x2) > 1e-6 and abs(op.y1 - op.y2) > 1e-6:
                return None  # a louvre's, askew in an edge
            along = abs(op.x1 - op.x2) > abs(op.y1 - op.y2)
            pad_u, pad_v = (0.0, op.width / 2) if along else (op.width / 2, 0.0)
            u0, u1 = min(op.x1, op.x2) - pad_u, max(op.x1, op.x2) + pad_u
            v0, v1 = min(op.y1, op.y2) - pad_v, max(op.y1, op.y2) + pad_v
            deep = op.depth
            low, high = {
                "A": ((u0, v0, thick - deep), (u1, v1, thick)), "B": ((u0, v0, 0.0), (u1, v1, deep)),
                "L1": ((u0, 0.0, v0), (u1, deep, v1)), "L2": ((u0, width - deep, v0), (u1, width, v1)),
                "W1": ((0.0, u0, v0), (deep, u1, v1)), "W2": ((length - deep, u0, v0), (length, u1, v1)),
            }[op.face]  # fmt: skip
            return _Void(low, high, -1, op.face, op.over or "groove", True)
        case Rebate():
            x0, x1, y0, y1 = 0.0, length, 0.0, width
            match op.edge:
                case "L1":
                    y1 = op.width
                case "L2":
                    y0 = width - op.width
                case "W1":
                    x1 = op.width
                case "W2":
                    x0 = length - op.width
            z0, z1 = (thick - op.depth, thick) if op.face == "A" else (0.0, op.depth)
            return _Void((x0, y0, z0), (x1, y1, z1), -1, op.face, "rebate", True)
        case Cutout():
            high = (op.x + op.length, op.y + op.width, thick)
            return _Void((op.x, op.y, 0.0), high, -1, "A", "cut-out", False)
    return None


def _pocket(part: Part, op: Bore) -> _Void:
    """A hole that leans to the nearest edge, as a box from its mouth to there."""
    r, z0 = op.diameter / 2, part.thickness - op.depth if op.face == "A" else 0.0
    x0, x1, y0, y1 = op.x - r, op.x + r, op.y - r, op.y + r
    edges = ((op.x, "W1"), (part.length - op.x, "W2"), (op.y, "L1"), (part.width - op.y, "L2"))
    match min(edges)[1]:
        case "W1":
            x0 = 0.0
        case "W2":
            x1 = part.length
        case "L1":
            y0 = 0.0
        case _:
            y1 = part.width
    return _Void((x0, y0, z0), (x1, y1, z0 + op.depth), -1, op.face, op.use, True)


def _lies(part: Part, void: _Void) -> str | None:
    """What is wrong with an operation by itself."""
    size = (part.length, part.width, part.thickness)
    deep = 2 if void.face in ("A", "B") else 1 if void.face in ("L1", "L2") else 0
    if void.blind:
        left = size[deep] - (void.high[deep] - void.low[deep])
        if left < BEHIND - HAIR:
            return f"{_words(void)} leaves {max(left, 0.0):.1f} mm of wood behind it; {BEHIND:g} is the least"
    if void.use == "rebate" or void.use == "cut-out":
        return None
    if void.axis < 0:
        # A groove may run out at an edge; what is left beside it has to stand.
        across = min((k for k in (0, 1, 2) if k != deep), key=lambda k: void.high[k] - void.low[k])
        left = min(gap for gap in (void.low[across], size[across] - void.high[across]))
        if HAIR < left < BESIDE - HAIR:
            return f"{_words(void)} leaves {left:.1f} mm of wood beside it; {BESIDE:g} is the least"
        return None
    for k in (0, 1, 2):
        if k != deep:
            left = min(void.low[k], size[k] - void.high[k])
            if left < BESIDE - HAIR:
                return f"{_words(void)} lies {left:.1f} mm from an edge; {BESIDE:g} is the least"
    if part.outline and deep == 2:
        x, y, _ = _middle(void)
        if not ol.inside(part.outline, x, y):
            return f"{_words(void)} lies off the part's outline"
    return None


def _meet(one: _Void, other: _Void) -> bool:
    """Whether two that overlap as boxes, seen from the face, run into each other."""
    if frozenset({one.use, other.use}) in TOGETHER:
        return False
    cut = one.axis < 0 and other.axis < 0
    if cut and one.face == other.face:
        return False  # what is cut from one side may cross
    # Between both faces wood has to stay; elsewhere nothing may overlap.
    faces = one.face in ("A", "B") and other.face in ("A", "B")
    wall = BETWEEN if faces and one.face != other.face and one.blind and other.blind else 0.0
    if min(one.high[2], other.high[2]) - max(one.low[2], other.low[2]) <= HAIR - wall:
        return False
    if cut:
        return not (one.use == "rebate" == other.use and _corner(one, other))
    if one.axis == other.axis:
        a, b = [k for k in (0, 1, 2) if k != one.axis]
        p, q = _middle(one), _middle(other)
        reach = (one.high[a] - one.low[a] + other.high[a] - other.low[a]) / 2
        return math.hypot(p[a] - q[a], p[b] - q[b]) < reach - HAIR
    return _as_solids(one, other)


def _corner(one: _Void, other: _Void) -> bool:
    """Whether two rebates run along different edges: at the corner where they meet, all the wood may go."""
    across = [one.low[k] >= other.low[k] - HAIR and one.high[k] <= other.high[k] + HAIR for k in (0, 1)]
    back = [other.low[k] >= one.low[k] - HAIR and other.high[k] <= one.high[k] + HAIR for k in (0, 1)]
    return not (all(across) or all(back))


def _as_solids(one: _Void, other: _Void) -> bool:
    """Whether a round hole and another void share space."""
    from tall_plank.making.solids import hollow

    common = hollow(one.low, one.high, one.axis) ^ hollow(other.low, other.high, other.axis)
    if common.volume() < 0.05:
        return False
    x0, y0, z0, x1, y1, z1 = common.bounding_box()
    return bool(min(x1 - x0, y1 - y0, z1 - z0) > HAIR)
