"""What units without gables ask of the panels beside them: panels of the run are drilled for it, panels that close an
island are asked later; what finds no panel stops the unit."""

from __future__ import annotations

from collections.abc import Sequence

import msgspec

from tall_plank.job import Body
from tall_plank.making.clashes import settled
from tall_plank.making.parts import ON_FACE, Asked, Bore, Groove, Part, Problem
from tall_plank.making.proof import faults_in
from tall_plank.making.unit import MadeUnit
from tall_plank.measure.frames import RoomPoint, Vec
from tall_plank.setout import Placed, RoomLayout, TrimBoard

Units = tuple[tuple[Placed, MadeUnit], ...]

CLOSES = ("end panel", "dividing panel")
"""Boards of an island that carry what stands between them."""


def lend(room: RoomLayout, units: Units) -> Units:
    """The units of a room, their panels drilled for what stands between them; a unit that nothing holds is not made."""
    if not any(made.lent for _, made in units):
        return units
    taken: dict[str, list[Bore | Groove]] = {}
    loose: dict[str, list[str]] = {}
    for placed, made in units:
        panels = [(p, m) for p, m in units if p.body is Body.PANEL and p.run == placed.run and m.parts]
        island = room.wall(placed.wall_id).island
        boards = [b for b in room.boards if b.kind in CLOSES and island and room.wall(b.wall_id).island == island]
        for gable, asked in made.lent:
            if not all(_finds(room, placed, work, panels, boards, taken) for work in asked):
                loose.setdefault(placed.cell, []).append(gable.split()[0])
    return tuple((p, _finished(p, made, taken.get(p.cell, ()), loose.get(p.cell, ()))) for p, made in units)


def _finds(
    room: RoomLayout,
    placed: Placed,
    work: Asked,
    panels: Sequence[tuple[Placed, MadeUnit]],
    boards: Sequence[TrimBoard],
    taken: dict[str, list[Bore | Groove]],
) -> bool:
    """Whether something takes what a unit asks; where it is a panel of the run, it is noted there."""
    at = placed.frame.at(*work.at)
    for stands, made in panels:
        part = made.parts[0]
        on = part.frame.into(stands.frame.into(at))
        if _lies(on, part.length, part.width, part.thickness):
            end = None
            if work.to is not None:
                end = part.frame.into(stands.frame.into(placed.frame.at(*work.to)))
            op = _operation(part, work, on, end)
            if op not in taken.setdefault(stands.cell, []):
                taken[stands.cell].append(op)
            return True
    for board in boards:
        u, v, w = board.frame.into(room.wall(board.wall_id).frame.into(RoomPoint(at)))
        if _lies((u, v, w), board.length, board.width, board.thickness):
            return True
    return False


def _lies(at: Vec, length: float, width: float, thick: float) -> bool:
    on_face = min(abs(at[2]), abs(at[2] - thick)) < ON_FACE
    return on_face and 0.0 <= at[0] <= length and 0.0 <= at[1] <= width


def _operation(part: Part, work: Asked, on: Vec, end: Vec | None) -> Bore | Groove:
    face = "B" if abs(on[2]) < ON_FACE else "A"
    if end is not None:
        return Groove(face, on[0], on[1], end[0], end[1], work.size, work.depth, work.use)  # type: ignore[arg-type]
    through = work.depth <= 0.0
    return Bore(face, on[0], on[1], work.size, part.thickness if through else work.depth, work.use, through)  # type: ignore[arg-type]


def _finished(placed: Placed, made: MadeUnit, work: Sequence[Bore | Groove], loose: Sequence[str]) -> MadeUnit:
    """A unit with what it was asked for, or what is wrong with it."""
    if loose:
        sides = " and ".join(dict.fromkeys(loose))
        problem = Problem(
            f"Nothing stands at its {sides} that carries it.", "Put a panel there, or take a unit with gables."
        )
        return msgspec.structs.replace(
            made, parts=(), items=(), drawers=(), lent=(), weight=0.0, problems=(*made.problems, problem)
        )
    if not work:
        return made
    (panel, *others) = made.parts
    drilled = msgspec.structs.replace(panel, operations=(*panel.operations, *work))
    drilled = msgspec.structs.replace(drilled, operations=tuple(settled(drilled)))
    faults = faults_in(drilled)
    if faults:
        return msgspec.structs.replace(made, parts=(), items=(), weight=0.0, problems=(*made.problems, *faults))
    return msgspec.structs.replace(made, parts=(drilled, *others))
