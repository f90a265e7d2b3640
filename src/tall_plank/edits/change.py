"""What an edit gives back, and the small helpers that all edits share."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import msgspec

from tall_plank.edits.whole import check_whole
from tall_plank.job import Body, Cell, Column, Job, Kind, Room, Run, SlidingDoors, Template, Unit
from tall_plank.job.run import WidthRule
from tall_plank.job.things.column import FACES, face_id
from tall_plank.job.uses import starting_values
from tall_plank.measure import Length, PlankError
from tall_plank.setout import set_out
from tall_plank.setout.paneling.marks import place_of


@dataclass(frozen=True)
class Change:
    """A new job, the name of the step, and what the change did not fit (HD4)."""

    job: Job
    name: str
    skipped: tuple[str, ...] = ()
    made: tuple[str, ...] = ()
    """Ids of what is new, so that it can be selected."""
    told: str = ""
    """What else happened, in a sentence."""

    def __post_init__(self) -> None:
        """Raises PlankError where the new job would not be whole: nothing that can be saved fails to load."""
        try:
            check_whole(self.job)
        except PlankError as error:
            raise PlankError(error.what, error.where, error.remedy or "Nothing was changed.") from None


def new_ids(job: Job, prefix: str, count: int = 1) -> tuple[Job, list[str]]:
    """Fresh ids; none is ever used twice in a job."""
    ids = [f"{prefix}{job.next_id + i}" for i in range(count)]
    return msgspec.structs.replace(job, next_id=job.next_id + count), ids


def with_room(job: Job, room: Room) -> Job:
    """The job with one room replaced."""
    return msgspec.structs.replace(job, rooms=tuple(room if r.id == room.id else r for r in job.rooms))


def with_run(job: Job, run: Run) -> Job:
    """The job with one run replaced."""
    room, _ = job.find_run(run.id)
    runs = tuple(run if r.id == run.id else r for r in room.runs)
    return with_room(job, msgspec.structs.replace(room, runs=runs))


def with_cells(job: Job, run: Run, cells: tuple[Cell, ...]) -> Job:
    """The job with the cells of a run replaced; units that no cell places any more are dropped, and with its last cell
    a row that hangs free. What hangs free alone has no height besides its row's."""
    whole = job
    room, before = job.find_run(run.id)
    if run.free and len(cells) == 1 and cells[0].bottom is not None:
        run = msgspec.structs.replace(run, bottom=cells[0].bottom)
        cells = (msgspec.structs.replace(cells[0], bottom=None),)
    if run.free and not cells:
        job = _without_run(job, run)
    else:
        job = with_run(job, msgspec.structs.replace(run, cells=cells))
    gone = {c.id for c in before.cells} - {c.id for c in cells}
    if gone:
        job = _without_lost_doors(job, room.id)
        if room.fields:
            kept = with_kept_limits(whole, room, frozenset(str(Kind.CELL.of(c)) for c in gone))
            job = with_room(job, msgspec.structs.replace(job.room(room.id), fields=kept.fields))
    used = {cell.unit for cell in job.cells()}
    if all(unit.id in used for unit in job.units):
        return job
    return msgspec.structs.replace(job, units=tuple(u for u in job.units if u.id in used))


def with_kept_limits(job: Job, room: Room, gone: frozenset[str]) -> Room:
    """The room with sides of wall fields that lie at what goes held where they are. `gone`: sources as text."""
    sides = ("left", "right", "bottom", "top")
    if not any(getattr(f, side).to in gone for f in room.fields for side in sides):
        return room
    laid = set_out(job).room(room.id)
    fields = []
    for one in room.fields:
        for side in sides:
            limit = getattr(one, side)
            if limit.to in gone:
                try:
                    at = place_of(room, laid.wall(one.wall), laid.moldings, laid.placed, limit)
                except PlankError:  # it was no longer on this wall
                    continue
                one = msgspec.structs.replace(
                    one, **{side: msgspec.structs.replace(limit, kept=Length.of(round(at, 6)))}
                )
        fields.append(one)
    return msgspec.structs.replace(room, fields=tuple(fields))


def without_covers(job: Job, room_id: str, columns: Sequence[Column]) -> Job:
    """The job without the wall fields that cover columns which go, and treatments that no other field has."""
    room = job.room(room_id)
    gone = {face_id(c, face) for c in columns for face in FACES}
    if not any(f.wall in gone for f in room.fields):
        return job
    kept = msgspec.structs.replace(room, fields=tuple(f for f in room.fields if f.wall not in gone))
    return without_unused_treatments(with_room(job, kept))


def without_unused_treatments(job: Job) -> Job:
    """The job without treatments that no wall field has."""
    used = {f.treatment for room in job.rooms for f in room.fields}
    if all(t.id in used for t in job.treatments):
        return job
    return msgspec.structs.replace(job, treatments=tuple(t for t in job.treatments if t.id in used))


def _without_lost_doors(job: Job, room_id: str) -> Job:
    """The job without sliding doors of a room whose units are gone; fronts that they replaced elsewhere come back."""
    room = job.room(room_id)
    here = {cell.id for run in room.runs for cell in run.cells}
    for run in room.runs:
        lost = tuple(d for d in run.sliding if not all(ref.cell in here for ref in d.bays))
        if lost:
            job = with_run(job, msgspec.structs.replace(run, sliding=tuple(d for d in run.sliding if d not in lost)))
            for doors in lost:
                job = with_fronts_back(job, doors)
    return job


def with_fronts_back(job: Job, doors: SlidingDoors) -> Job:
    """The job with the fronts that sliding doors replaced, where their bays are still open."""
    units = {cell.id: cell.unit for cell in job.cells()}
    for r in doors.replaced:
        unit = job.unit(units[r.cell]) if r.cell in units else None
        if unit is None or r.path not in set(unit.bay.paths()):
            continue
        bay = unit.bay.at(r.path)
        if bay.front is None:
            new = unit.bay.replaced(r.path, msgspec.structs.replace(bay, front=r.front))
            job = with_unit(job, msgspec.structs.replace(unit, bay=new))
    return job


def _without_run(job: Job, run: Run) -> Job:
    room, _ = job.find_run(run.id)
    return with_room(job, msgspec.structs.replace(room, runs=tuple(r for r in room.runs if r.id != run.id)))


def with_unit(job: Job, unit: Unit) -> Job:
    """The job with one unit replaced."""
    return msgspec.structs.replace(job, units=tuple(unit if u.id == unit.id else u for u in job.units))


def change_units(job: Job, cells: tuple[str, ...], change: Callable[[Unit], Unit]) -> Job:
    """The job with the units of some cells changed, each unit once."""
    done: set[str] = set()
    for cell_id in cells:
        _, _, cell = job.find_cell(cell_id)
        if cell.unit not in done:
            done.add(cell.unit)
            job = with_unit(job, change(job.unit(cell.unit)))
    return job


def next_number(job: Job, room: Room, wall_id: str) -> str:
    """The next free unit number on a wall: its letter and a count; further rooms put their number before it."""
    place = next(i for i, r in enumerate(job.rooms) if r.id == room.id)
    island = room.island_of(wall_id)
    wall_id = island.letter if island is not None else wall_id
    prefix = wall_id if place == 0 else f"{place + 1}{wall_id}"
    taken = [
        int(rest)
        for cell in job.cells()
        if cell.number.startswith(prefix) and (rest := cell.number.removeprefix(prefix)).isdigit()
    ]
    return f"{prefix}{max(taken, default=0) + 1}"


def unit_from(template: Template, use: str, unit_id: str = "") -> Unit:
    """A unit as it starts from its kind, in a room of a use."""
    return Unit(unit_id, template.code, template.bay, (*template.own, *starting_values(use, template)))


def new_cell(job: Job, room: Room, run: Run, template_code: str, width: WidthRule) -> tuple[Job, Cell]:
    """A new unit from its template, and a cell for it that is not in the run yet."""
    template = job.template(template_code)
    job, (cell_id, unit_id) = new_ids(job, "u", 2)
    unit = unit_from(template, room.use, unit_id)
    job = msgspec.structs.replace(job, units=(*job.units, unit))
    # A gap is nothing to make, so it takes no number.
    number = "" if template.body is Body.GAP else next_number(job, room, run.wall)
    return job, Cell(cell_id, unit_id, number, width)
