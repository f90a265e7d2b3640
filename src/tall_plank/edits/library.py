"""Saved units, runs and islands: read from a job, written as text, placed again in any job (RN8)."""

from __future__ import annotations

from typing import Any, Literal, TypeVar

import msgspec

from tall_plank.edits.change import Change, new_ids, next_number, with_cells, with_room
from tall_plank.edits.clipboard import MAX_TEXT, fitted, plain_length, plain_width, with_template
from tall_plank.edits.hanging import free_run
from tall_plank.edits.runs import add_run, run_on
from tall_plank.edits.things.island import LETTERS, find_island, middle_of, start_of
from tall_plank.formats.envelope import brought_up, marked
from tall_plank.formats.table import LIBRARY
from tall_plank.job import Anchor, Cell, Island, Job, Kind, Run, Template, Unit
from tall_plank.measure import Length, PlankError
from tall_plank.measure.lengths import names_in

T = TypeVar("T", Run, Island)


class SavedRun(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A run with what stands in it; `face` 1 or 2 on an island, 0 on a wall."""

    run: Run
    face: int
    units: tuple[Unit, ...]


class Saved(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Something kept under a name, with the templates it needs."""

    what: Literal["unit", "run", "island"]
    name: str
    note: str
    runs: tuple[SavedRun, ...]
    templates: tuple[Template, ...]
    island: Island | None = None


def save_cells(job: Job, cells: tuple[str, ...], name: str) -> str:
    """Selected units of one run as text, in their order.

    Raises
    ------
    PlankError where there is no name or they stand in different runs
    """
    _named(name)
    if not cells:
        raise PlankError("Nothing is selected.", "library", "Select units, a run or an island.")
    _, run, _ = job.find_cell(cells[0])
    kept = tuple(c for c in run.cells if c.id in cells)
    if len(kept) != len(cells):
        raise PlankError("They stand in different runs.", "library", "Save them one run at a time.")
    part = msgspec.structs.replace(run, cells=kept, start=run.start if run.free else None, end=None)
    return _written(job, "unit" if len(kept) == 1 else "run", name, [(part, 0)], None)


def save_run(job: Job, run_id: str, name: str) -> str:
    """A run as text."""
    _named(name)
    _, run = job.find_run(run_id)
    return _written(job, "run", name, [(run, 0)], None)


def save_island(job: Job, island_id: str, name: str) -> str:
    """An island with its faces as text."""
    _named(name)
    room, island = find_island(job, island_id)
    faces = {f"{island.letter}1": 1, f"{island.letter}2": 2}
    return _written(job, "island", name, [(r, faces[r.wall]) for r in room.runs if r.wall in faces], island)


def _named(name: str) -> None:
    if not name.strip():
        raise PlankError("It needs a name.", "library", "Type one, such as the client's.")


def _written(job: Job, what: str, name: str, runs: list[tuple[Run, int]], island: Island | None) -> str:
    saved = []
    templates: dict[str, Template] = {}
    for run, face in runs:
        inside = {c.id for c in run.cells}
        # What holds a cell stays behind unless it comes along.
        cells = tuple(
            c
            if c.anchor is None or c.anchor.source is None or c.anchor.source.id in inside
            else msgspec.structs.replace(c, anchor=None)
            for c in run.cells
        )
        units = tuple(job.unit(u) for u in dict.fromkeys(c.unit for c in cells))
        templates |= {u.template: job.template(u.template) for u in units}
        saved.append(SavedRun(msgspec.structs.replace(run, cells=cells), face, units))
    note = f"{job.name} {job.client}".strip()
    value = Saved(what, name.strip()[:80], note, tuple(saved), tuple(templates.values()), island)  # type: ignore[arg-type]
    return msgspec.json.encode(marked(msgspec.to_builtins(value), LIBRARY)).decode()


def read_saved(text: str) -> Saved:
    """Read what was saved.

    Raises
    ------
    PlankError where the text is something else
    """
    try:
        if len(text) > MAX_TEXT:
            raise ValueError
        raw = msgspec.json.decode(text.encode(), type=dict[str, Any])
        if raw.get("kind") != LIBRARY.kind:
            raise ValueError
        saved = msgspec.convert(brought_up(raw, LIBRARY, "library"), Saved)
        units = {u.id for r in saved.runs for u in r.units}
        kinds = {t.code for t in saved.templates}
        whole = all(c.unit in units for r in saved.runs for c in r.run.cells)
        if not whole or any(u.template not in kinds for r in saved.runs for u in r.units):
            raise ValueError
    except (msgspec.MsgspecError, ValueError, RecursionError):
        raise PlankError("This is nothing that was saved.", "library", "Choose another file.") from None
    return saved


def place_saved(
    job: Job, text: str, room_id: str, wall_id: str, at: tuple[float, float] | None = None, after: str = ""
) -> Change:
    """Place a saved unit, run or island: units after a cell or at the end of the runs on a line, an island at a
    place or in the middle of the room. What this job cannot follow is made plain and named in `skipped`. `at`:
    mm."""
    saved = read_saved(text)
    skipped: list[str] = []
    if saved.what == "island":
        assert saved.island is not None
        return _place_island(job, saved, room_id, at, skipped)
    made: list[str] = []
    for part in saved.runs:
        run = None if part.run.free else run_on(job, room_id, wall_id, part.run.level, after)
        if part.run.free and part.run.start is not None and part.run.bottom is not None:
            job, run = free_run(job, room_id, wall_id, part.run.start.mm, part.run.bottom.mm)
        elif run is None:
            started = add_run(job, room_id, wall_id, part.run.level)
            job, run = started.job, started.job.find_run(started.made[0])[1]
        job, new = _cells(job, run, part, saved, after, skipped)
        made += new
    return Change(job, f"Place {saved.name}", tuple(skipped), tuple(made))


def _cells(job: Job, run: Run, part: SavedRun, saved: Saved, after: str, skipped: list[str]) -> tuple[Job, list[str]]:
    """Put the cells of a saved run into a run of the job, units that were linked still so."""
    new_units: dict[str, str] = {}
    made: list[str] = []
    names: dict[str, str] = {}
    for cell in part.run.cells:
        job, (cell_id, unit_id) = new_ids(job, "u", 2)
        if cell.unit in new_units:
            unit_id = new_units[cell.unit]
        else:
            old = next(u for u in part.units if u.id == cell.unit)
            template = next(t for t in saved.templates if t.code == old.template)
            job, code, lost_kind = with_template(job, template)
            unit, lost = fitted(job, msgspec.structs.replace(old, template=code))
            skipped += [*lost_kind, *lost]
            job = msgspec.structs.replace(job, units=(*job.units, msgspec.structs.replace(unit, id=unit_id)))
            new_units[cell.unit] = unit_id
        room, now = job.find_run(run.id)
        number = next_number(job, room, now.wall) if cell.number else ""
        anchor = cell.anchor
        if anchor is not None and anchor.source is not None:
            anchor = Anchor.by(anchor.at, Kind.CELL.of(names.get(anchor.source.id, "")), anchor.offset)
        copy = Cell(
            cell_id, unit_id, number, plain_width(job, cell.width), anchor, cell.label,
            bottom=plain_length(job, cell.bottom),
        )  # fmt: skip
        names[cell.id] = cell_id
        places = [c.id for c in now.cells]
        at = places.index(after) + 1 if after in places else len(places)
        job = with_cells(job, now, (*now.cells[:at], copy, *now.cells[at:]))
        after = cell_id if after in places else after
        made.append(cell_id)
    return job, made


def _place_island(job: Job, saved: Saved, room_id: str, at: tuple[float, float] | None, skipped: list[str]) -> Change:
    assert saved.island is not None
    room = job.room(room_id)
    taken = {i.letter for i in room.islands} | set(room.wall_ids())
    letter = next((c for c in LETTERS if c not in taken), "")
    if not letter:
        raise PlankError("A room takes at most six islands.", "island", "Take one away first.")
    job, (island_id,) = new_ids(job, "i")
    island = _plain(job, saved.island, skipped)
    x, y = at or start_of(middle_of(room), island.length.mm, island.angle)
    island = msgspec.structs.replace(
        island,
        id=island_id,
        letter=letter,
        x=Length.of(round(x)),
        y=Length.of(round(y)),
        wall=island.wall if island.wall in room.wall_ids() else "",
    )
    room = job.room(room_id)
    job = with_room(job, msgspec.structs.replace(room, islands=(*room.islands, island)))
    for part in saved.runs:
        job, (run_id,) = new_ids(job, "n")
        run = _plain(job, msgspec.structs.replace(part.run, cells=()), skipped)
        run = msgspec.structs.replace(run, id=run_id, wall=f"{letter}{part.face}")
        here = job.room(room_id)
        job = with_room(job, msgspec.structs.replace(here, runs=(*here.runs, run)))
        job, _ = _cells(job, run, part, saved, "", skipped)
    return Change(job, f"Place {saved.name}", tuple(skipped), (island_id,))


def _plain(job: Job, value: T, skipped: list[str]) -> T:
    """An island or a run whose lengths use no value that this job lacks."""
    known = job.named_values().keys()
    changed: dict[str, object] = {}
    for name in value.__struct_fields__:
        length = getattr(value, name)
        if isinstance(length, Length) and not names_in(length.text) <= known:
            changed[name] = Length.of(length.mm)
            skipped.append(f"{name}: placed as a plain length")
    return msgspec.structs.replace(value, **changed) if changed else value
