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
from tall_plank.measure import told
from tall_plank.measure.frames import Vec
from tall_plank.measure.outlines import Points
from tall_plank.measure.remembered import remembered

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
    frozenset({"handle", "face"}),
    frozenset({"handle", "slats"}),
    frozenset({"panel", "rebate"}),
    frozenset({"louver", "dowel"}),
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


_Void = tuple[float, float, float, float, float, float, int, str, str, bool]
"""What an operation takes away: least corner and greatest one in the part's frame (mm); the axis along which it is
round (0 x, 1 y, 2 z; -1 for a box); the face that it is cut into; what it is for; whether wood stays behind it. A plain
tuple: there are hundreds in a unit."""


def amiss_in(part: Part) -> tuple[Amiss, ...]:
    """What is wrong with the operations of a part, one by one."""
    return _amiss(part.length, part.width, part.thickness, part.outline, part.operations)


@remembered(4096)
def _amiss(
    length: float, width: float, thick: float, outline: Points, operations: tuple[Operation, ...]
) -> tuple[Amiss, ...]:
    """The same for all parts that are cut alike, wherever they stand. Lengths in mm."""
    board = _Board(length, width, thick, outline)
    return tuple(_each_amiss(board, operations))


class _Board(NamedTuple):
    """What the operations of a part lie in, mm."""

    length: float
    width: float
    thickness: float
    outline: Points


def _each_amiss(part: _Board, operations: tuple[Operation, ...]) -> Iterator[Amiss]:
    voids: list[_Void] = []
    length, width, thick = part.length, part.width, part.thickness
    plain = not part.outline
    for op in operations:
        if type(op) is Bore and not op.slant and (op.face == "A" or op.face == "B"):
            # Most of them: the usual ones are right at a glance.
            r, u, v, blind = op.diameter / 2, op.x, op.y, not op.through
            deep = op.depth if blind else thick
            low = thick - deep if op.face == "A" else 0.0
            void: _Void = (u - r, v - r, low, u + r, v + r, low + deep, 2, op.face, op.use, blind)
            voids.append(void)
            edge = r + BESIDE - HAIR
            right = edge <= u <= length - edge and edge <= v <= width - edge
            if plain and right and (not blind or thick - deep >= BEHIND - HAIR):
                continue
        elif type(op) is Bore and not op.slant:
            void = _hole_in_edge(part, op)
            voids.append(void)
            edge, u, v = op.diameter / 2 + BESIDE - HAIR, op.x, op.y
            along, deep = (length, width) if op.face in ("L1", "L2") else (width, length)
            beside = edge <= u <= along - edge and edge <= v <= thick - edge
            if beside and not op.through and deep - op.depth >= BEHIND - HAIR:
                continue
        else:
            other = _void(part, op)
            if other is None:
                continue
            voids.append(void := other)
        if (word := _lies(part, void)) is not None:
            yield Amiss(word, _middle(void))
    if len(voids) < 2:
        return
    voids.sort()
    still: list[_Void] = []
    for void in voids:
        x0, y0, z0, _, y1, z1 = void[:6]
        left, near, far, down, up = x0 + HAIR, y0 + HAIR, y1 - HAIR, z0 - BETWEEN, z1 + BETWEEN
        still = [v for v in still if v[3] > left]
        for other in still:
            if other[1] < far and other[4] > near and other[2] < up and other[5] > down and _meet(void, other):
                yield Amiss(f"{_words(other)} runs into {_words(void)}", _middle(void))
        still.append(void)


def _corners(void: _Void) -> tuple[Vec, Vec]:
    return (void[0], void[1], void[2]), (void[3], void[4], void[5])


def _middle(void: _Void) -> tuple[float, float, float]:
    return (void[0] + void[3]) / 2, (void[1] + void[4]) / 2, (void[2] + void[5]) / 2


def _words(void: _Void) -> str:
    """What an operation is, with its article."""
    use = void[8]
    if void[6] >= 0 or use == "pocket screw":
        return f"a {use} hole"
    if use in ("rebate", "cut-out"):
        return f"a {use}"
    return f"the groove of the {use}"


def _void(part: _Board, op: Operation) -> _Void | None:
    length, width, thick = part.length, part.width, part.thickness
    match op:
        case Bore():
            if op.slant:
                return _pocket(part, op)
            return _hole_in_edge(part, op)
        case Groove():
            if abs(op.x1 - op.x2) > 1e-6 and abs(op.y1 - op.y2) > 1e-6:
                return None  # a louver's, askew in an edge
            along = abs(op.x1 - op.x2) > abs(op.y1 - op.y2)
            pad_u, pad_v = (0.0, op.width / 2) if along else (op.width / 2, 0.0)
            u0, u1 = min(op.x1, op.x2) - pad_u, max(op.x1, op.x2) + pad_u
            v0, v1 = min(op.y1, op.y2) - pad_v, max(op.y1, op.y2) + pad_v
            deep, use = op.depth, op.over or "groove"
            match op.face:
                case "A":
                    return (u0, v0, thick - deep, u1, v1, thick, -1, "A", use, True)
                case "B":
                    return (u0, v0, 0.0, u1, v1, deep, -1, "B", use, True)
                case "L1":
                    return (u0, 0.0, v0, u1, deep, v1, -1, "L1", use, True)
                case "L2":
                    return (u0, width - deep, v0, u1, width, v1, -1, "L2", use, True)
                case "W1":
                    return (0.0, u0, v0, deep, u1, v1, -1, "W1", use, True)
                case _:
                    return (length - deep, u0, v0, length, u1, v1, -1, "W2", use, True)
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
            return (x0, y0, z0, x1, y1, z1, -1, op.face, "rebate", True)
        case Cutout():
            return (op.x, op.y, 0.0, op.x + op.length, op.y + op.width, thick, -1, "A", "cut-out", False)
    return None


def _hole_in_edge(part: _Board, op: Bore) -> _Void:
    """A hole in an edge or an end, as a box."""
    r, u, v, blind = op.diameter / 2, op.x, op.y, not op.through
    deep = op.depth if blind else part.thickness
    match op.face:
        case "L1":
            return (u - r, 0.0, v - r, u + r, deep, v + r, 1, "L1", op.use, blind)
        case "L2":
            return (u - r, part.width - deep, v - r, u + r, part.width, v + r, 1, "L2", op.use, blind)
        case "W1":
            return (0.0, u - r, v - r, deep, u + r, v + r, 0, "W1", op.use, blind)
        case _:
            return (part.length - deep, u - r, v - r, part.length, u + r, v + r, 0, "W2", op.use, blind)


def _pocket(part: _Board, op: Bore) -> _Void:
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
    return (x0, y0, z0, x1, y1, z0 + op.depth, -1, op.face, op.use, True)


def _lies(part: _Board, void: _Void) -> str | None:
    """What is wrong with an operation by itself."""
    size = (part.length, part.width, part.thickness)
    (low, high), axis, face, use, blind = _corners(void), void[6], void[7], void[8], void[9]
    deep = 2 if face in ("A", "B") else 1 if face in ("L1", "L2") else 0
    if blind:
        left = size[deep] - (high[deep] - low[deep])
        if left < BEHIND - HAIR:
            return f"{_words(void)} leaves {told(max(left, 0.0))} mm of wood behind it; {BEHIND:g} mm is the least"
    if use in ("rebate", "cut-out"):
        return None
    if axis < 0:
        # A groove may run out at an edge; what is left beside it has to stand.
        across = min((k for k in (0, 1, 2) if k != deep), key=lambda k: high[k] - low[k])
        left = min(low[across], size[across] - high[across])
        if HAIR < left < BESIDE - HAIR:
            return f"{_words(void)} leaves {told(left)} mm of wood beside it; {BESIDE:g} mm is the least"
        return None
    for k in (0, 1, 2):
        if k != deep:
            left = min(low[k], size[k] - high[k])
            if left < BESIDE - HAIR:
                return f"{_words(void)} lies {told(left)} mm from an edge; {BESIDE:g} mm is the least"
    if part.outline and deep == 2:
        x, y, _ = _middle(void)
        if not ol.inside(part.outline, x, y):
            return f"{_words(void)} lies off the part's outline"
    return None


def _meet(one: _Void, other: _Void) -> bool:
    """Whether two that overlap as boxes, seen from the face, run into each other."""
    axis, face, use = one[6], one[7], one[8]
    axis2, face2, use2 = other[6], other[7], other[8]
    if (use != use2 and frozenset((use, use2)) in TOGETHER) or use == use2 == "pocket screw":
        return False
    cut = axis < 0 and axis2 < 0
    if cut and face == face2:
        return False  # what is cut from one side may cross
    # Between both faces wood has to stay; elsewhere nothing may overlap.
    wall = 0.0
    if face != face2 and one[9] and other[9] and face in ("A", "B") and face2 in ("A", "B"):
        wall = BETWEEN
    if min(one[5], other[5]) - max(one[2], other[2]) <= HAIR - wall:
        return False
    if cut:
        return not (use == "rebate" == use2 and _corner(one, other))
    if axis == axis2:
        a, b = [k for k in (0, 1, 2) if k != axis]
        p, q = _middle(one), _middle(other)
        (low, high), (low2, high2) = _corners(one), _corners(other)
        reach = (high[a] - low[a] + high2[a] - low2[a]) / 2
        return math.hypot(p[a] - q[a], p[b] - q[b]) < reach - HAIR
    return _as_solids(one, other)


def _corner(one: _Void, other: _Void) -> bool:
    """Whether two rebates run along different edges: at the corner where they meet, all the wood may go."""
    (low, high), (low2, high2) = _corners(one), _corners(other)
    across = [low[k] >= low2[k] - HAIR and high[k] <= high2[k] + HAIR for k in (0, 1)]
    back = [low2[k] >= low[k] - HAIR and high2[k] <= high[k] + HAIR for k in (0, 1)]
    return not (all(across) or all(back))


def _as_solids(one: _Void, other: _Void) -> bool:
    """Whether a round hole and another void share space."""
    from tall_plank.making.solids import hollow

    common = hollow(*_corners(one), one[6]) ^ hollow(*_corners(other), other[6])
    if common.volume() < 0.05:
        return False
    x0, y0, z0, x1, y1, z1 = common.bounding_box()
    return bool(min(x1 - x0, y1 - y0, z1 - z0) > HAIR)
