"""Nothing of one unit stands in another, nor in a worktop, a plinth, a panel or a filler: what it meets stops it."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterator, Sequence
from typing import Any, NamedTuple

import msgspec
import numpy as np
from numpy.typing import NDArray

from tall_plank.making.made import MadeTrim
from tall_plank.making.parts import Part, Problem
from tall_plank.making.proof.space import LEAST_VOLUME, bounds_of
from tall_plank.making.solids import placed as solid_of
from tall_plank.making.unit import MadeUnit
from tall_plank.measure.frames import RoomFrame, Vec
from tall_plank.measure.remembered import remembered
from tall_plank.setout import Placed

Units = tuple[tuple[Placed, MadeUnit], ...]
Boxes = NDArray[np.float64]
"""(n, 2, 3): least and greatest corner of upright boxes, mm."""

COVER = "wall field"
"""Kind of the boards that cover walls."""

TOUCH = 0.1
"""mm; what shares less in any direction only touches."""

CORNERS = np.array(list(itertools.product((0, 1), repeat=3)))


class _Stand(NamedTuple):
    """Something that stands in the room: a unit, or a board by itself.

    Attributes
    ----------
    place : among units, or among trims
    number : what its parts are called by
    """

    place: int
    is_unit: bool
    number: str
    frame: RoomFrame
    parts: tuple[Part, ...]


class Clash(NamedTuple):
    """Two parts that take the same space in the room.

    Attributes
    ----------
    low, high : corners of the upright box about it in the first one's own frame, mm
    """

    one: _Stand
    part: int
    other: _Stand
    other_part: int
    low: Vec
    high: Vec


def keep_apart(units: Units, trims: Sequence[MadeTrim]) -> tuple[Units, list[MadeTrim]]:
    """The units and boards of a room; what stands in something else is not made, and says so."""
    stands = [
        _Stand(i, True, placed.number, placed.frame, made.parts) for i, (placed, made) in enumerate(units) if made.parts
    ]
    stands += [
        _Stand(i, False, trim.number, trim.parent, (trim.part,))
        for i, trim in enumerate(trims)
        if trim.part is not None
    ]
    told_units: dict[int, Problem] = {}
    told_trims: dict[int, Problem] = {}

    def gives_way(one: _Stand, other: _Stand) -> _Stand:
        """A board by itself gives way to a unit, what covers a wall to all else; of two units the one that reaches out
        of its own place."""
        if not one.is_unit and not other.is_unit and trims[other.place].kind == COVER != trims[one.place].kind:
            return other
        if not one.is_unit or _reaches_out(one, units):
            return one
        return other if not other.is_unit or _reaches_out(other, units) else one

    def told(stand: _Stand) -> bool:
        return stand.place in (told_units if stand.is_unit else told_trims)

    def one_cover(one: _Stand, other: _Stand) -> bool:
        """Pieces of one wall field are cut from one outline: they lie beside one another."""
        if one.is_unit or other.is_unit:
            return False
        a, b = trims[one.place], trims[other.place]
        return a.kind == COVER and a.source == b.source

    # Who is told of already is not looked at once more: a run of fifty units in one place would take seconds.
    for clash in clashes(stands, lambda one, other: one_cover(one, other) or told(gives_way(one, other))):
        blamed = clash if gives_way(clash.one, clash.other) is clash.one else _turned(clash)
        target = told_units if blamed.one.is_unit else told_trims
        target.setdefault(blamed.one.place, _problem(blamed))
    if not told_units and not told_trims:
        return units, list(trims)
    kept = tuple(
        (placed, _refused(made, told_units[i]) if i in told_units else made) for i, (placed, made) in enumerate(units)
    )
    return kept, [
        msgspec.structs.replace(trim, part=None, problem=told_trims[i], items=()) if i in told_trims else trim
        for i, trim in enumerate(trims)
    ]


def _refused(made: MadeUnit, problem: Problem) -> MadeUnit:
    return msgspec.structs.replace(
        made, parts=(), items=(), drawers=(), weight=0.0, lent=(), faulty=made.parts, problems=(*made.problems, problem)
    )


def _problem(clash: Clash) -> Problem:
    one, other = clash.one.parts[clash.part], clash.other.parts[clash.other_part]
    size = " x ".join(f"{b - a:.1f}".removesuffix(".0") for a, b in zip(clash.low, clash.high, strict=True))
    number = f"{clash.other.number}.{clash.other_part + 1}" if clash.other.is_unit else clash.other.number
    mine = f"Part {clash.part + 1}, {one.name}," if clash.one.is_unit else f"The {one.name}"
    return Problem(
        f"{mine} and {number}, {other.name}, take the same space: {size} mm.",
        "Move one of them, or choose another kind for this place.",
        place=(clash.low, clash.high),
        parts=(clash.part + 1,),
    )


def _turned(clash: Clash) -> Clash:
    """The same, told from the other side."""
    low, high = _bounds_in(clash.other.frame, _in_room(clash.one.frame, (clash.low, clash.high)))
    return Clash(clash.other, clash.other_part, clash.one, clash.part, low, high)


def _in_room(frame: RoomFrame, box: tuple[Vec, Vec]) -> list[Vec]:
    low, high = box
    return [frame.at(*(low[k] if bit == 0 else high[k] for k, bit in enumerate(bits))) for bits in CORNERS]


def _bounds_in(frame: RoomFrame, points: list[Any]) -> tuple[Vec, Vec]:
    rows = list(zip(*(frame.into(p) for p in points), strict=True))
    low, high = tuple(min(r) for r in rows), tuple(max(r) for r in rows)
    return low, high


def _reaches_out(stand: _Stand, units: Units) -> bool:
    """Whether a unit's parts stand out of its own width."""
    placed, _ = units[stand.place]
    low, high = whole_box(stand.parts)
    return low[0] < -TOUCH or high[0] > placed.width + TOUCH


@remembered(2048)
def local_boxes(parts: tuple[Part, ...]) -> Boxes:
    """The upright box about each part, in the frame that they stand in, mm."""
    return np.array([bounds_of(part) for part in parts])


@remembered(2048)
def whole_box(parts: tuple[Part, ...]) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """The one upright box about all parts, in the frame that they stand in, mm."""
    boxes = local_boxes(parts)
    return tuple(boxes[:, 0].min(axis=0)), tuple(boxes[:, 1].max(axis=0))


def clashes(stands: Sequence[_Stand], known: Callable[[_Stand, _Stand], bool] = lambda a, b: False) -> Iterator[Clash]:
    """Parts of different things that share space.

    Parameters
    ----------
    known : whether nobody asks about two things any more; asked right before they are looked at
    """
    if len(stands) < 2:
        return
    wholes = np.array([whole_box(s.parts) if len(s.parts) > 1 else bounds_of(s.parts[0]) for s in stands])
    ways = np.array([(s.frame.x, s.frame.y, s.frame.z) for s in stands])
    middle, half = wholes.mean(axis=1), (wholes[:, 1] - wholes[:, 0]) / 2
    # The upright box about a box that is turned: its middle moves, its halves add up by what each lends.
    middle = np.einsum("ik,ikj->ij", middle, ways) + np.array([s.frame.origin for s in stands])
    half = np.einsum("ik,ikj->ij", half, np.abs(ways))
    low, high = middle - half, middle + half
    # One axis after the other, the later ones only where the earlier ones meet.
    x0, x1 = low[:, 0], high[:, 0]
    near = np.argwhere(np.triu(np.minimum.outer(x1, x1) - np.maximum.outer(x0, x0) > TOUCH, 1))
    for axis in (1, 2):
        p, q = near.T
        near = near[np.minimum(high[p, axis], high[q, axis]) - np.maximum(low[p, axis], low[q, axis]) > TOUCH]
    turned: dict[int, Boxes] = {}
    for i, k in near:
        one, other = stands[int(i)], stands[int(k)]
        if known(one, other):
            continue
        if _same_way(one.frame, other.frame):
            # Along one line, slanting in the room as it may, boxes are compared as they stand.
            a = local_boxes(one.parts)
            b = local_boxes(other.parts) + np.array(one.frame.into(other.frame.at(0.0, 0.0, 0.0)))
        else:
            a = turned.setdefault(int(i), _turned_box(one.frame, local_boxes(one.parts)))
            b = turned.setdefault(int(k), _turned_box(other.frame, local_boxes(other.parts)))
        common = np.minimum(a[:, None, 1], b[None, :, 1]) - np.maximum(a[:, None, 0], b[None, :, 0])
        for m, n in np.argwhere((common > TOUCH).all(axis=2)):
            if one.parts[m].bend or other.parts[n].bend:
                continue
            box = _as_solids(one, int(m), other, int(n))
            if box is not None:
                yield Clash(one, int(m), other, int(n), *box)
                break


def _same_way(one: RoomFrame, other: RoomFrame) -> bool:
    """Whether two frames are turned alike."""
    return all(abs(a - b) < 1e-9 for a, b in zip((*one.x, *one.y), (*other.x, *other.y), strict=True))


def _turned_box(frame: RoomFrame, boxes: Boxes) -> Boxes:
    """The upright boxes in the room about boxes that stand in a frame of it."""
    picked = np.stack([boxes[:, CORNERS[:, axis], axis] for axis in range(3)], axis=2)
    points = picked @ np.array([frame.x, frame.y, frame.z]) + np.array(frame.origin)
    return np.stack([points.min(axis=1), points.max(axis=1)], axis=1)


def _as_solids(one: _Stand, m: int, other: _Stand, n: int) -> tuple[Vec, Vec] | None:
    """The box about what two parts share, in the frame of the first one; None where they only touch."""
    f, g = one.frame, other.frame
    a = solid_of(one.parts[m])
    turn = np.array([f.x, f.y, f.z]).T
    back = turn.T @ np.array([g.x, g.y, g.z]).T
    shift = turn.T @ (np.array(g.origin) - np.array(f.origin))
    b = solid_of(other.parts[n]).transform(np.column_stack([back, shift]))
    common = a ^ b
    if common.volume() < LEAST_VOLUME:
        return None
    x0, y0, z0, x1, y1, z1 = common.bounding_box()
    if min(x1 - x0, y1 - y0, z1 - z0) < TOUCH:
        return None
    return (x0, y0, z0), (x1, y1, z1)
