"""No two parts share space but where one is cut to take the other.

Parts are boxes first; what is taken off them in straight lines (grooves, rebates, cut-outs) is taken off the space that
two of them would share. What is left of it, and parts that stand askew, are compared as solids.
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from functools import cached_property
from typing import Any

import msgspec

from tall_plank.making.parts import Bore, Cutout, Groove, Part, Rebate
from tall_plank.measure.frames import Vec

TOUCH = 0.06
"""mm; what shares less than this in any direction only touches."""

LEAST_VOLUME = 2.0
"""mm3; solids that share less are taken for touching: facets of round holes and edges."""

Box = tuple[Vec, Vec]
"""Least and greatest corner, mm."""


class Shared(msgspec.Struct, frozen=True):
    """Space that two parts would take together.

    Attributes
    ----------
    one, other : their places in the unit's list of parts, from 0
    low, high : corners of the upright box about it, in the unit, mm
    """

    one: int
    other: int
    low: Vec
    high: Vec

    @property
    def size(self) -> Vec:
        """How much it is each way, mm."""
        (a, b, c), (d, e, f) = self.low, self.high
        return (d - a, e - b, f - c)


def shared_space(
    parts: Sequence[Part], entered: list[tuple[int, int]] | None = None, boxes: Sequence[Box] | None = None
) -> tuple[Shared, ...]:
    """Every pair of parts of a unit that share space. Bent parts are left out: they bow out of their box.

    Parameters
    ----------
    entered : takes the pairs of which one stands in what is cut out of the other
    boxes : about the parts, where they are known
    """
    known = boxes_of(parts) if boxes is None else boxes
    shapes = [(i, _Shape(p, known[i])) for i, p in enumerate(parts) if not p.bend]
    found: list[Shared] = []
    # Swept from left to right: only what is still open at a part's left side can meet it.
    still: list[tuple[int, _Shape]] = []
    for i, shape in sorted(shapes, key=lambda row: row[1].box[0][0]):
        (x0, y0, z0), (_, y1, z1) = shape.box
        left, near, far, low, high = x0 + TOUCH, y0 + TOUCH, y1 - TOUCH, z0 + TOUCH, z1 - TOUCH
        still = [row for row in still if row[1].right > left]
        for k, other in still:
            (_, a, b), (_, c, d) = other.box
            if a < far and c > near and b < high and d > low and (both := _both(other.box, shape.box)) is not None:
                piece = _shared(other, shape, both)
                if piece is None:
                    if entered is not None:
                        entered.append((i, k))
                else:
                    found.append(Shared(min(i, k), max(i, k), *piece))
        still.append((i, shape))
    return tuple(sorted(found, key=lambda s: (s.one, s.other)))


class _Shape:
    """A part with its box, what is taken off it in straight lines, and its solid where that is asked for."""

    def __init__(self, part: Part, box: Box) -> None:
        self.part = part
        self.box = box
        self.right = self.box[1][0]
        self._gaps: list[Box] | None = None

    @property
    def gaps(self) -> list[Box] | None:
        """What is taken off it; None where its frame does not run along the unit's, so that no box says it."""
        if self._gaps is None:
            (a, b, c), (d, e, f) = self.part.frame.x, self.part.frame.y
            if max(abs(a), abs(b), abs(c)) < 1.0 - 1e-9 or max(abs(d), abs(e), abs(f)) < 1.0 - 1e-9:
                return None
            self._gaps = _gaps(self.part)
        return self._gaps

    @cached_property
    def solid(self) -> Any:
        """Its wood without what is drilled: no part goes into a hole."""
        from tall_plank.making.solids import placed

        cuts = tuple(op for op in self.part.operations if not isinstance(op, Bore))
        return placed(msgspec.structs.replace(self.part, operations=cuts))


def bounds_of(part: Part) -> Box:
    """The upright box about a part, in the unit, mm."""
    a, b = part.frame.origin, part.frame.at(part.length, part.width, part.thickness)
    f = part.frame
    if abs(f.x[0]) + abs(f.x[1]) + abs(f.x[2]) > 1.0 + 1e-9 or abs(f.y[0]) + abs(f.y[1]) + abs(f.y[2]) > 1.0 + 1e-9:
        corners = [f.at(x, y, z) for x in (0.0, part.length) for y in (0.0, part.width) for z in (0.0, part.thickness)]
        xs, ys, zs = zip(*corners, strict=True)
        return (min(xs), min(ys), min(zs)), (max(xs), max(ys), max(zs))
    return (
        (min(a[0], b[0]), min(a[1], b[1]), min(a[2], b[2])),
        (max(a[0], b[0]), max(a[1], b[1]), max(a[2], b[2])),
    )


def boxes_of(parts: Sequence[Part]) -> list[Box]:
    """The upright box about each part, in the unit, mm."""
    return [bounds_of(part) for part in parts]


def _both(a: Box, b: Box) -> Box | None:
    """What two boxes share, where it is more than a touch."""
    low = (max(a[0][0], b[0][0]), max(a[0][1], b[0][1]), max(a[0][2], b[0][2]))
    high = (min(a[1][0], b[1][0]), min(a[1][1], b[1][1]), min(a[1][2], b[1][2]))
    if high[0] - low[0] > TOUCH and high[1] - low[1] > TOUCH and high[2] - low[2] > TOUCH:
        return low, high
    return None


def _shared(a: _Shape, b: _Shape, both: Box) -> Box | None:
    """The upright box about what two parts share: as solids, where what is cut out of their boxes leaves a doubt."""
    mine, others = a.gaps, b.gaps
    if mine is not None and others is not None:
        pieces = [both]
        for gap in itertools.chain(mine, others):
            pieces = [rest for piece in pieces for rest in _less(piece, gap)]
            if not pieces:
                return None
    return _as_solids(a, b)


def _gaps(part: Part) -> list[Box]:
    """What is taken off a part in straight lines, in the unit."""
    found = []
    for op in part.operations:
        if type(op) is Bore:  # most of them are
            continue
        match op:
            case Groove() if abs(op.x1 - op.x2) < 1e-6 or abs(op.y1 - op.y2) < 1e-6:
                half = op.width / 2
                along = abs(op.x1 - op.x2) > abs(op.y1 - op.y2)
                u, v = sorted((op.x1, op.x2)), sorted((op.y1, op.y2))
                if along:
                    v = [v[0] - half, v[1] + half]
                else:
                    u = [u[0] - half, u[1] + half]
                found.append(_cut(part, op.face, (u[0], v[0]), (u[1], v[1]), op.depth))
            case Rebate():
                x0, x1, y0, y1 = 0.0, part.length, 0.0, part.width
                match op.edge:
                    case "L1":
                        y1 = op.width
                    case "L2":
                        y0 = part.width - op.width
                    case "W1":
                        x1 = op.width
                    case "W2":
                        x0 = part.length - op.width
                found.append(_cut(part, op.face, (x0, y0), (x1, y1), op.depth))
            case Cutout():
                found.append(_cut(part, "A", (op.x, op.y), (op.x + op.length, op.y + op.width), part.thickness))
            case _:
                pass
    return found


def _cut(part: Part, face: str, low: tuple[float, float], high: tuple[float, float], depth: float) -> Box:
    """A box cut into a face, from (u, v) to (u, v), in the unit; a touch is added all round."""
    (u0, v0), (u1, v1), length, width, thick = low, high, part.length, part.width, part.thickness
    spans = {
        "A": ((u0, u1), (v0, v1), (thick - depth, thick)), "B": ((u0, u1), (v0, v1), (0.0, depth)),
        "L1": ((u0, u1), (0.0, depth), (v0, v1)), "L2": ((u0, u1), (width - depth, width), (v0, v1)),
        "W1": ((0.0, depth), (u0, u1), (v0, v1)), "W2": ((length - depth, length), (u0, u1), (v0, v1)),
    }  # fmt: skip
    (x0, x1), (y0, y1), (z0, z1) = spans[face]
    a, b = part.frame.at(x0, y0, z0), part.frame.at(x1, y1, z1)
    return (
        (min(a[0], b[0]) - TOUCH, min(a[1], b[1]) - TOUCH, min(a[2], b[2]) - TOUCH),
        (max(a[0], b[0]) + TOUCH, max(a[1], b[1]) + TOUCH, max(a[2], b[2]) + TOUCH),
    )


def _less(box: Box, gap: Box) -> list[Box]:
    """What of a box lies outside another, in boxes that do not overlap; slivers are left out."""
    if _both(box, gap) is None:
        return [box]
    found = []
    (x0, y0, z0), (x1, y1, z1) = box
    (a0, b0, c0), (a1, b1, c1) = gap
    if a0 - x0 > TOUCH:
        found.append(((x0, y0, z0), (a0, y1, z1)))
    if x1 - a1 > TOUCH:
        found.append(((a1, y0, z0), (x1, y1, z1)))
    x0, x1 = max(x0, a0), min(x1, a1)
    if b0 - y0 > TOUCH:
        found.append(((x0, y0, z0), (x1, b0, z1)))
    if y1 - b1 > TOUCH:
        found.append(((x0, b1, z0), (x1, y1, z1)))
    y0, y1 = max(y0, b0), min(y1, b1)
    if c0 - z0 > TOUCH:
        found.append(((x0, y0, z0), (x1, y1, c0)))
    if z1 - c1 > TOUCH:
        found.append(((x0, y0, c1), (x1, y1, z1)))
    return found


def _as_solids(a: _Shape, b: _Shape) -> Box | None:
    """What two parts share, as solids with what is cut into them."""
    common = a.solid ^ b.solid
    if common.volume() < LEAST_VOLUME:
        return None
    x0, y0, z0, x1, y1, z1 = common.bounding_box()
    # A thin wedge along a touching face is no more than the hair that solids are cut with.
    if min(x1 - x0, y1 - y0, z1 - z0) < TOUCH:
        return None
    return (x0, y0, z0), (x1, y1, z1)
