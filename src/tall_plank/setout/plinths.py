"""Plinths under runs: set back, led round corners, returned to the wall at open ends. Frames in the line's frame."""

from __future__ import annotations

import math
from collections.abc import Sequence

import msgspec

from tall_plank.job import Basis, Kind, Level
from tall_plank.job.choices import LEFT, RIGHT, Side
from tall_plank.job.inherit import construction_of, finish_of
from tall_plank.job.scheme import Role
from tall_plank.measure import Frame
from tall_plank.measure.frames import NEG_X, PartFrame, Y, Z
from tall_plank.setout.runs import Placed, RunLayout
from tall_plank.setout.tops import slant_depth
from tall_plank.setout.trims import BevelCut, TrimBoard, at_line_end, neighbour_at, stretches


def plinth_face(basis: Basis, group: Sequence[Placed]) -> float:
    """How far the face of a stretch's plinth stands out from the line, mm."""
    made = construction_of(basis, basis.unit(group[0].unit))
    return min(p.depth for p in group) - made.plinth_setback + made.reach


def has_plinth(basis: Basis, run: RunLayout) -> bool:
    return run.run.level is not Level.HUNG and any(p.feet == "plinth" for p in run.cells)


def plinths_of(basis: Basis, run: RunLayout, runs: Sequence[RunLayout]) -> tuple[TrimBoard, ...]:
    """Plinth boards of one run: one along each stretch, longer ones in equal pieces, and returns at open ends."""
    if not has_plinth(basis, run):
        return ()
    found: list[TrimBoard] = []
    for group in stretches(basis, run, plinth=True):
        height = min(p.bottom for p in group)
        face = plinth_face(basis, group)
        if height <= 0 or face <= 0:
            continue
        straight = tuple(p for p in group if not basis.template(p.template).shape.startswith("angled"))
        slanted = [p for p in group if p not in straight]
        if straight:
            found += _stretch(basis, run, straight, runs, height, face, ends_slanted=bool(slanted))
        for p in slanted:
            found += _slanted(basis, run, p, height)
    return tuple(found)


def _stretch(
    basis: Basis,
    run: RunLayout,
    group: tuple[Placed, ...],
    runs: Sequence[RunLayout],
    height: float,
    face: float,
    *,
    ends_slanted: bool = False,
) -> list[TrimBoard]:
    unit = basis.unit(group[0].unit)
    made = construction_of(basis, unit)
    t, finish = made.plinth_thickness, finish_of(basis, unit, Role.PLINTH)
    x0, x1 = group[0].x, group[-1].right
    ends = []
    for side, x in ((LEFT, x0), (RIGHT, x1)):
        corner = run.start_corner if side == "left" else run.end_corner
        outer = group[0] is run.cells[0] if side == "left" else group[-1] is run.cells[-1]
        mate = next((r for r in runs if corner is not None and r.run.id == corner.other), None)
        at = x
        if outer and corner is not None and mate is not None:
            at = _at_corner(basis, run, side, corner.angle, corner.holds, mate, face, t)
        opened = (
            not (outer and corner is not None and mate is not None)
            and not at_line_end(run.wall, x)
            and neighbour_at(run, x, side) is None
            and not run.wall.island
            and not (ends_slanted and _slant_beside(basis, run, x, side) is not None)
        )
        ends.append((at, opened))
    (x0, left_open), (x1, right_open) = ends
    if x1 - x0 <= t:
        return []

    def board(kind: str, frame: PartFrame, length: float) -> TrimBoard:
        return _board(run, group[0], kind, frame, (length, height, t), finish)

    longest = max(
        (b.length for b in basis.stock.boards if b.finish == finish and abs(b.thickness - t) < 0.01), default=math.inf
    )
    count = max(1, math.ceil((x1 - x0) / (longest - 40.0))) if math.isfinite(longest) else 1
    length = (x1 - x0) / count
    # Face A looks back; its length runs from right to left.
    boards = [board("plinth", Frame((x0 + length * (i + 1), -face, 0.0), NEG_X, Z), length) for i in range(count)]
    # Where it meets the plinth of a slanted end both are mitred, long at the front.
    for i, side, end in ((0, LEFT, "W2"), (count - 1, RIGHT, "W1")):
        slant = _slant_beside(basis, run, x0 if side == "left" else x1, side)
        if slant is not None:
            cut: BevelCut = (end, "B", _slant_angle(slant) / 2)  # type: ignore[assignment]
            boards[i] = msgspec.structs.replace(boards[i], bevels=(*boards[i].bevels, cut))
    if run.run.plinth_returns and face - t > 1.0:
        if left_open:
            boards.append(board("plinth return", Frame((x0, -face + t, 0.0), Y, Z), face - t))
        if right_open:
            boards.append(board("plinth return", Frame((x1 - t, -face + t, 0.0), Y, Z), face - t))
    return boards


def _board(
    run: RunLayout, p: Placed, kind: str, frame: PartFrame, size: tuple[float, float, float], finish: str
) -> TrimBoard:
    source = Kind.RUN.of(run.run.id)
    return TrimBoard(kind, p.room, run.wall.id, source, p.cell, frame, *size, finish, "plinth")  # type: ignore[arg-type]


def _slant_beside(basis: Basis, run: RunLayout, x: float, side: Side) -> Placed | None:
    """The slanted end unit that a plinth leads to, its deep side towards it."""
    shape = "angled left" if side == "left" else "angled right"
    beside = (p for p in run.cells if abs((p.right if side == "left" else p.x) - x) < 0.5)
    return next((p for p in beside if basis.template(p.template).shape == shape), None)


def _slant_angle(p: Placed) -> float:
    """Degrees by which the front of a slanted end turns off its run."""
    return math.degrees(math.atan2(p.depth - slant_depth(p.width, p.depth), p.width))


def _slanted(basis: Basis, run: RunLayout, p: Placed, height: float) -> list[TrimBoard]:
    """The plinth under a slanted end: a board along the slant, and a return from its shallow end to the wall."""
    made = construction_of(basis, basis.unit(p.unit))
    t, finish = made.plinth_thickness, finish_of(basis, basis.unit(p.unit), Role.PLINTH)
    shallow = slant_depth(p.width, p.depth)
    right = basis.template(p.template).shape == "angled right"
    deep_at, shallow_at = (p.x, p.right) if right else (p.right, p.x)
    back = made.plinth_setback - made.reach
    a, b = (deep_at, p.depth - back), (shallow_at, shallow - back)
    length = math.dist(a, b)
    if b[1] <= t or length <= t:
        return []
    # From right to left seen from the room, as the straight plinth; face A looks back.
    start, end = (b, a) if right else (a, b)
    way = ((end[0] - start[0]) / length, -(end[1] - start[1]) / length, 0.0)
    along = _board(run, p, "plinth", Frame((start[0], -start[1], 0.0), way, Z), (length, height, t), finish)
    if any(abs((c.right if right else c.x) - deep_at) < 0.5 and c is not p and c.bottom > 0 for c in run.cells):
        deep_end: BevelCut = ("W2" if right else "W1", "B", _slant_angle(p) / 2)
        along = msgspec.structs.replace(along, bevels=(deep_end,))
    boards = [along]
    if run.run.plinth_returns:
        x = shallow_at - t if right else shallow_at
        frame = Frame((x, -b[1] + t, 0.0), Y, Z)
        boards.append(_board(run, p, "plinth return", frame, (b[1] - t, height, t), finish))
    return boards


def _at_corner(
    basis: Basis, run: RunLayout, side: Side, angle: float, holds: bool, mate: RunLayout, face: float, thickness: float
) -> float:
    """Where a plinth ends in a corner: the run that takes it reaches behind the other's end, which butts on it.

    The faces of both plinths meet at x = (f2 + f1 cos a) / sin a from the corner (geometry, as for any two lines).
    """
    groups = list(stretches(basis, mate, plinth=True))
    other = plinth_face(basis, groups[-1] if side == "left" else groups[0]) if groups else face
    a = math.radians(angle)
    meet = (other + face * math.cos(a)) / math.sin(a)
    if holds:
        meet -= thickness / math.sin(a)
    return meet if side == "left" else run.wall.length - meet
