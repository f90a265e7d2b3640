"""Making the whole job: every placed unit and every trim, with the numbers of their parts."""

from __future__ import annotations

from collections.abc import Callable

from tall_plank.job import Basis, Construction, Service, Source, Unit, basis_of
from tall_plank.job.inherit import construction_of
from tall_plank.making.between import keep_apart
from tall_plank.making.byhand import BY_HAND
from tall_plank.making.lending import lend
from tall_plank.making.letin import let_in
from tall_plank.making.made import MadeJob, MadeRoom, MadeTrim
from tall_plank.making.parts import Item, Part, Problem
from tall_plank.making.proof import faults_in
from tall_plank.making.specs import spec_in, spec_of
from tall_plank.making.things.common import Lent, RoomMaking
from tall_plank.making.things.table import MAKING
from tall_plank.making.trims import trim_part, worktop_part
from tall_plank.making.unit import MadeUnit, make_unit
from tall_plank.measure import PlankError
from tall_plank.measure.remembered import remembered
from tall_plank.setout import Layout, Placed, RoomLayout, RunLayout, TrimBoard, Wall, Worktop

TRIM_LETTERS = {
    "worktop": "W", "plinth": "P", "plinth return": "P", "corner filler": "F", "ceiling filler": "F",
    "waterfall filler": "F", "end panel": "E", "back panel": "B", "dividing panel": "D", "waterfall leg": "L",
    "upstand": "U", "splashback": "S",
}  # fmt: skip
"""Letter of each kind of trim in its number, after the wall's: AW.1 is the first worktop on wall A."""


def make_one(basis: Basis, layout: Layout, cell: str) -> MadeUnit | None:
    """One placed unit made by itself, as in the whole job; None where there is no such cell."""
    placed = layout.find(cell)
    if placed is None:
        return None
    return make_unit(spec_of(basis, placed, layout.room(placed.room)), basis.stock)


def make_job(basis: Basis, layout: Layout) -> MadeJob:
    """Make everything that is placed. Units alike are made once; a room that did not change is kept."""
    return MadeJob(
        tuple(_made_room(room, basis_of(basis, _used(basis, room)), i) for i, room in enumerate(layout.rooms))
    )


def _used(basis: Basis, room: RoomLayout) -> tuple[Unit, ...]:
    used = {p.unit for p in room.placed}
    return tuple(u for u in basis.units if u.id in used)


@remembered(64)
def _made_room(room: RoomLayout, basis: Basis, place: int) -> MadeRoom:
    """A room made.

    Parameters
    ----------
    basis : with the units that stand in the room
    place : of the room in the job; further rooms put their number before those of their parts
    """
    outfit = basis_of(basis)
    units = tuple(
        pair
        for laid in room.runs
        for pair in _made_run(outfit, tuple(basis.unit(p.unit) for p in laid.cells), laid, room.room.services)
    )
    units = let_in(room, lend(room, units), basis.stock)
    making = RoomMaking(room, basis, "" if place == 0 else str(place + 1), units)
    for top in room.worktops:
        making.trims.append(_worktop(making, top))
    lent: Lent = {}
    for thing in MAKING.values():
        if thing.lends is not None:
            lent |= thing.lends(room, units)
    for board in room.boards:
        making.trims.append(_board(making, board, lent))
    for thing in MAKING.values():
        if thing.make is not None:
            thing.make(making)
    units, trims = keep_apart(units, making.trims)
    return MadeRoom(
        units, tuple(trims), tuple(making.lengths), tuple(making.sliding), tuple(making.offered), room.room.id,
        tuple(making.fields),
    )  # fmt: skip


@remembered(256)
def _made_run(
    basis: Basis, units: tuple[Unit, ...], laid: RunLayout, services: tuple[Service, ...]
) -> tuple[tuple[Placed, MadeUnit], ...]:
    """The units of a run made; kept while nothing that they are made from changes.

    Parameters
    ----------
    basis : without units
    units : those of its cells
    """
    basis = basis_of(basis, units)
    return tuple((p, make_unit(spec_in(basis, p, services), basis.stock)) for p in laid.cells)


def _construction(making: RoomMaking, cell: str) -> Construction:
    """How the unit is built whose construction a trim follows."""
    return construction_of(making.basis, making.basis.unit(making.unit_of(cell)))


def _worktop(making: RoomMaking, top: Worktop) -> MadeTrim:
    made, line = _construction(making, top.cell), making.room.wall(top.wall_id)
    items = (
        (Item(made.joint_bolt, top.bolts, f"{top.bolts} bolts in a worktop joint; {BY_HAND['joint_bolt']}"),)
        if top.bolts
        else ()
    )
    stock = making.basis.stock
    return _made_trim(making, line, "worktop", top.run, top.source, items, lambda: worktop_part(top, made, stock))


def _board(making: RoomMaking, board: TrimBoard, lent: Lent) -> MadeTrim:
    made, line = _construction(making, board.cell), making.room.wall(board.wall_id)
    run = next((p.run for p in making.room.placed if p.cell == board.cell), "")
    holes = lent.get(line.island, ()) if board.kind in ("end panel", "dividing panel") else ()
    stock = making.basis.stock
    return _made_trim(making, line, board.kind, run, board.source, (), lambda: trim_part(board, made, stock, holes))


def _made_trim(
    making: RoomMaking,
    line: Wall,
    kind: str,
    run: str,
    source: Source,
    items: tuple[Item, ...],
    make: Callable[[], Part],
) -> MadeTrim:
    """A trim with its number, or the problem that stops it."""
    name = making.line_name(line)
    label, number = f"{making.prefix}{name} {kind}", making.number(name, TRIM_LETTERS[kind])
    part: Part | None
    try:
        part, problem = make(), None
        for fault in faults_in(part):
            part, problem = None, fault
            break
    except PlankError as error:
        part, problem = None, Problem(error.what, error.remedy)
    room = making.room.room.id
    return MadeTrim(label, number, room, run, line.frame, part, problem, source, kind, items if part else ())
