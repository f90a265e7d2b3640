"""Edits of runs: adding, ordering, sizing and deleting units, and moving them by clear distances."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change, new_cell, new_ids, with_cells, with_room, with_run
from tall_plank.edits.rooms import read, read_in
from tall_plank.edits.widths import check_width, read_width
from tall_plank.job import Anchor, Body, Cell, Column, Job, Kind, Level, Run, Template
from tall_plank.job.run import WidthRule
from tall_plank.job.standard import CHOICES
from tall_plank.measure import Length, LengthError, PlankError, format_length, told
from tall_plank.measure.shareout import Rule
from tall_plank.measure.units import TOLERANCE, same_length
from tall_plank.setout import set_out
from tall_plank.setout.clear import clear_of
from tall_plank.setout.corners import bottom_of
from tall_plank.setout.runs import RunLayout


def add_run(job: Job, room_id: str, wall_id: str, level: Level) -> Change:
    """Start a run along a whole wall or face; a line takes one run a level. Columns in its way are left out by gaps
    that keep to them.

    Raises
    ------
    PlankError “Wall … has a … run already.”, “There is no wall ….”
    """
    room = job.room(room_id)
    if run_on(job, room_id, wall_id, level) is not None:
        raise PlankError(f"Wall {wall_id} has a {level} run already.", f"wall {wall_id}", "Add units to it.")
    if not set_out(job).room(room_id).has_line(wall_id):
        raise PlankError(f"There is no wall {wall_id}.", f"wall {wall_id}", "Choose another wall.")
    job, (run_id,) = new_ids(job, "n")
    room = msgspec.structs.replace(job.room(room_id), runs=(*room.runs, Run(run_id, wall_id, level)))
    job = with_room(job, room)
    for column in sorted((c for c in room.columns if c.wall == wall_id), key=lambda c: c.x.mm):
        job = _leave_out(job, run_id, column)
    return Change(job, f"Start a {level} run", made=(run_id,))


def _leave_out(job: Job, run_id: str, column: Column) -> Job:
    """A gap at the end of a run that keeps to a column."""
    room, run = job.find_run(run_id)
    code = gap_code(job, run.level)
    job, cell = new_cell(job, room, run, code, WidthRule.fixed(column.width))
    cell = msgspec.structs.replace(cell, anchor=Anchor.by("span", Kind.COLUMN.of(column.id)))
    return with_cells(job, run, (*run.cells, cell))


def gap_code(job: Job, level: Level) -> str:
    """Code of the kind that is a gap on a level."""
    return next(t.code for t in job.templates if t.body is Body.GAP and t.level is level)


def run_level(job: Job, room_id: str, wall_id: str, template: Template) -> Level:
    """The level of the run that a kind goes into on a line: tall units join a base run where no tall one stands."""
    if template.level is Level.TALL and run_on(job, room_id, wall_id, Level.TALL) is None:
        return Level.BASE
    return template.level


def delete_run(job: Job, run_id: str) -> Change:
    """Take a run and its units away."""
    room, run = job.find_run(run_id)
    job = with_cells(job, run, ())
    room = job.room(room.id)
    room = msgspec.structs.replace(
        room,
        runs=tuple(r for r in room.runs if r.id != run_id),
        soffits=tuple(s for s in room.soffits if s.over != run_id),
    )
    return Change(with_room(job, room), f"Delete the {run.level} run")


def run_on(job: Job, room_id: str, wall_id: str, level: Level, beside: str = "") -> Run | None:
    """The run of a level on a wall that new units go into: that of the cell beside them, else the first; what hangs
    free is none."""
    found = [r for r in job.room(room_id).runs if r.wall == wall_id and r.level is level and not r.free]
    return next((r for r in found if beside and any(c.id == beside for c in r.cells)), found[0] if found else None)


def default_width(job: Job, run_id: str, template_code: str) -> WidthRule:
    """A new unit's starting width, held to what its run has left where that is enough for it."""
    template = job.template(template_code)
    run = set_out(job).run(run_id)
    left = run.left if run else template.width
    width = min(template.width, left) if left >= template.least else template.width
    return WidthRule.fixed(Length.of(round(width, 3)))


def insert_unit(
    job: Job, room_id: str, wall_id: str, template_code: str, *, after: str = "", index: int | None = None
) -> Change:
    """Put a new unit into the run of its level on a wall, after a cell, at an index, or at the end.

    The run is started where the wall has none. A unit of another level than the selected cell goes to its own run.
    """
    template = job.template(template_code)
    level = run_level(job, room_id, wall_id, template)
    run = run_on(job, room_id, wall_id, level, after)
    if run is None:
        started = add_run(job, room_id, wall_id, level)
        job, run = started.job, started.job.find_run(started.made[0])[1]
    width = default_width(job, run.id, template_code)
    job, cell = new_cell(job, job.room(room_id), run, template_code, width)
    places = [c.id for c in run.cells]
    at = len(places) if index is None else max(0, min(index, len(places)))
    if index is None and after in places:
        at = places.index(after) + 1
    cells = (*run.cells[:at], cell, *run.cells[at:])
    return Change(with_cells(job, run, cells), f"Add {template.name.lower()}", made=(cell.id,))


def delete_cells(job: Job, cells: tuple[str, ...]) -> Change:
    """Delete units; the others of their runs close up by their rules. Locked ones are skipped and named.

    Raises
    ------
    PlankError where all of them are locked
    """
    locked = tuple(c for c in cells if job.find_cell(c)[2].locked)
    skipped = tuple(f"{job.find_cell(c)[2].number} is locked" for c in locked)
    gone = set(cells) - set(locked)
    if not gone:
        raise PlankError(skipped[0] + "." if skipped else "Nothing is selected.", "delete", "Unlock it first.")
    for _, run in job.runs():
        keep = tuple(c for c in run.cells if c.id not in gone)
        if len(keep) != len(run.cells):
            job = with_cells(job, run, keep)
    return Change(job, "Delete a unit" if len(gone) == 1 else f"Delete {len(gone)} units", skipped)


def move_cell(job: Job, cell_id: str, index: int) -> Change:
    """Put a cell at an index of its run.

    Raises
    ------
    PlankError where it is locked
    """
    _, run, cell = job.find_cell(cell_id)
    if cell.locked:
        raise PlankError(f"{cell.number} is locked.", "move", "Unlock it first.")
    rest = [c for c in run.cells if c.id != cell_id]
    at = max(0, min(index, len(rest)))
    rest.insert(at, cell)
    return Change(with_cells(job, run, tuple(rest)), f"Move {cell.number}")


def shift_cell(job: Job, cell_id: str, by: int) -> Change:
    """Move a cell some places to the right (or left)."""
    _, run, _ = job.find_cell(cell_id)
    places = [c.id for c in run.cells]
    return move_cell(job, cell_id, places.index(cell_id) + by)


def set_width(job: Job, cells: tuple[str, ...], text: str, *, name: str = "Set a width") -> Change:
    """Set the width of cells by text: a length, `share` or `rest`. What it does not fit is skipped and named.

    Raises
    ------
    PlankError where it fits none of them
    """
    try:
        rule = read_width(job, text)
    except LengthError as error:
        raise PlankError(error.what, "width", error.remedy) from None
    skipped: list[str] = []
    remedy = "Choose others."
    for cell_id in cells:
        _, run, cell = job.find_cell(cell_id)
        if cell.locked:
            skipped.append(f"{cell.number} is locked")
            continue
        if run.free and rule.rule is not Rule.FIXED:
            skipped.append(f"{cell.number} hangs by itself: there is nothing to share out")
            remedy = "Type a width."
            continue
        try:
            check_width(job, job.unit(cell.unit), rule)
        except LengthError as error:
            skipped.append(f"{cell.number}: {error.what.rstrip('.')}")
            remedy = error.remedy
            continue
        new = msgspec.structs.replace(cell, width=rule)
        job = with_cells(job, run, tuple(new if c.id == cell_id else c for c in run.cells))
    if skipped and len(skipped) == len(cells):
        raise PlankError(skipped[0] + ".", "width", remedy)
    return Change(job, name, tuple(skipped))


def drag_width(job: Job, cell_id: str, mm: float) -> Change:
    """Resize by hand: held to the kind's range and to what the run has left, on whole millimetres. `mm`: mm.

    Raises
    ------
    PlankError “… is locked.”
    """
    _, run, cell = job.find_cell(cell_id)
    if cell.locked:
        raise PlankError(f"{cell.number} is locked.", "resize", "Unlock it first.")
    template = job.template_of(cell)
    placed = set_out(job).find(cell_id)
    layout = set_out(job).run(run.id)
    assert placed is not None and layout is not None
    loose = any(c.width.rule is not Rule.FIXED for c in run.cells if c.id != cell_id)
    # What hangs by itself may grow up to the end of its wall.
    left = layout.wall.length - layout.end if run.free else layout.left
    most = template.most if loose else min(template.most, placed.width + left)
    width = float(round(max(template.least, min(mm, most))))
    new = msgspec.structs.replace(cell, width=WidthRule.fixed(Length.of(width)))
    cells = tuple(new if c.id == cell_id else c for c in run.cells)
    return Change(with_cells(job, run, cells), f"Resize {cell.number}")


def set_run_length(job: Job, run_id: str, key: str, text: str) -> Change:
    """Set a run's start, end or bottom; an empty bottom is inherited again.

    Raises
    ------
    PlankError “The run would have no length.”, “A run has no ….”
    """
    _, run = job.find_run(run_id)
    if key in ("start", "end", "bottom"):
        if run.free and (key == "end" or not text.strip()):
            raise PlankError("What hangs by itself has its own place.", "run", "Type where it starts and how high.")
        value = read_in(job, text, Run, key) if text.strip() else None
    else:
        raise PlankError(f"A run has no {key}.", "run", "Choose start, end or bottom.")
    new = msgspec.structs.replace(run, **{key: value})
    layout = set_out(with_run(job, new)).run(run_id)
    if layout is not None and layout.total <= 0:
        raise PlankError("The run would have no length.", f"run on wall {run.wall}", "Leave it some of the wall.")
    return Change(with_run(job, new), f"Set the run's {key}")


def set_left(job: Job, run_id: str, text: str) -> Change:
    """Type what is to be left of a run: its last unit of a fixed width takes up the difference.

    Raises
    ------
    PlankError where units take what is left, nothing stands there, or the last unit cannot be so wide
    """
    _, run = job.find_run(run_id)
    layout = set_out(job).run(run_id)
    wanted = read(job, text, least=0.0).mm
    if layout is None or run.free:
        raise PlankError("What hangs by itself leaves nothing.", "left", "Type its widths.")
    loose = [c for c in run.cells if c.width.rule is not Rule.FIXED]
    if loose and wanted > TOLERANCE:
        what = f"{loose[-1].number or 'A gap'} takes what is left."
        raise PlankError(what, "left", "Give it a fixed width first.")
    last = next((p for p in reversed(layout.cells) if p.is_solid and not job.find_cell(p.cell)[2].locked), None)
    if last is None:
        raise PlankError("Nothing stands in the run that could be wider.", "left", "Put a unit there first.")
    width = last.width + (layout.left - layout.short) - wanted
    if width < 1.0:
        raise PlankError("The run is not so long.", "left", "Type less.")
    return set_width(job, (last.cell,), Length.of(round(width, 6)).text, name=f"Size {last.number} to what is left")


def lift_run(job: Job, run_id: str, by: float) -> Change:
    """Move a hung run up or down by mm; it stops at the floor and under the ceiling.

    Raises
    ------
    PlankError “A base unit stands on its plinth.”
    """
    room, run = job.find_run(run_id)
    layout = set_out(job).run(run_id)
    if run.level is not Level.HUNG or layout is None or not layout.cells:
        raise PlankError("A base unit stands on its plinth.", "move", "Set the plinth's height instead.")
    own = {cell.id for cell in run.cells if cell.bottom is not None}
    low = bottom_of(job, run)
    high = max((p.top for p in layout.cells if p.cell not in own), default=low)
    by = max(-low, min(by, max(0.0, room.height.mm - high)))
    new = msgspec.structs.replace(run, bottom=Length.of(round(low + by, 6)))
    return Change(with_run(job, new), "Move the run up" if by > 0 else "Move the run down")


def set_run_choice(job: Job, run_id: str, key: str, text: str) -> Change:
    """Set what a run stands on, whether its plinth returns to the wall, or whether it is closed up to the ceiling.

    Raises
    ------
    PlankError “A run has no … ….”
    """
    _, run = job.find_run(run_id)
    value: object
    if key == "feet" and text in CHOICES["feet"]:
        value = text
    elif key in ("plinth_returns", "to_ceiling"):
        value = text == "yes"
    else:
        raise PlankError(f"A run has no {key} “{text}”.", "run", "Choose from the list.")
    return Change(with_run(job, msgspec.structs.replace(run, **{key: value})), f"Set the run's {key.replace('_', ' ')}")


def set_clear(job: Job, cell_id: str, side: str, text: str) -> Change:
    """Type the clear distance on a side of a unit; the unit moves there (M4, HD3).

    Left and right put, widen or take away a gap in the run before the unit; below and above move a hung run, or the
    unit alone where it has a height of its own. What hangs free moves as it is.

    Raises
    ------
    PlankError where the distance cannot be had
    """
    room, run, cell = job.find_cell(cell_id)
    layout = set_out(job).room(room.id)
    placed = next(p for p in layout.placed if p.cell == cell_id)
    clear = clear_of(layout, placed)
    wanted = read(job, text, least=0).mm
    if side in ("above", "below"):
        if run.level is not Level.HUNG:
            raise PlankError("A base unit stands on its plinth.", "clear distance", "Set the plinth's height instead.")
        by = wanted - clear.below if side == "below" else clear.above - wanted
        shown = format_length(wanted, job.display, mark=True)
        if placed.bottom + by < -TOLERANCE or placed.top + by > room.height.mm + TOLERANCE:
            through = "floor" if by < 0 else "ceiling"
            raise PlankError(f"It would go through the {through}.", "clear distance", "Type less.")
        if cell.bottom is not None:
            low = Length.of(round(max(0.0, placed.bottom + by), 6))
            return Change(_replaced(job, run, cell, bottom=low), f"Move {cell.number} to {shown} clear")
        new = msgspec.structs.replace(run, bottom=Length.of(round(max(0.0, bottom_of(job, run) + by), 6)))
        return Change(with_run(job, new), f"Move {'it' if run.free else 'the run'} to {shown} clear")
    by = wanted - clear.left if side == "left" else clear.right - wanted
    shown = format_length(wanted, job.display, mark=True)
    change = shift_by(job, cell_id, by, f"Move {cell.number} to {shown} clear")
    # Units that take a share or the rest may move with the gaps: then the distance cannot be had this way.
    moved = set_out(change.job).room(room.id)
    found = clear_of(moved, next(p for p in moved.placed if p.cell == cell_id))
    if not same_length(found.left if side == "left" else found.right, wanted):
        raise PlankError(
            f"{shown} cannot be had: units beside it take a share or the rest.",
            "clear distance",
            "Give them fixed widths first.",
        )
    return change


def _replaced(job: Job, run: Run, cell: Cell, **values: object) -> Job:
    new = msgspec.structs.replace(cell, **values)
    return with_run(job, msgspec.structs.replace(run, cells=tuple(new if c.id == cell.id else c for c in run.cells)))


def shift_by(job: Job, cell_id: str, by: float, name: str) -> Change:
    """Move a unit along its run by mm, by changing the gaps on either side of it.

    Units before it stay. Units after it stay where a gap lies between or opens; where the unit is pushed against
    them, they move on into what the run has left.

    Raises
    ------
    PlankError where a neighbour or the wall is in the way
    """
    room, run, cell = job.find_cell(cell_id)
    layout = set_out(job).run(run.id)
    assert layout is not None
    if cell.locked:
        raise PlankError(f"{cell.number} is locked.", "clear distance", "Unlock it first.")
    if run.free:
        return _shift_free(job, run, layout, by, name)
    if any(c.anchor is not None for c in run.cells):
        return _hold_at(job, run, cell, layout, by, name)
    i = next(n for n, c in enumerate(run.cells) if c.id == cell_id)
    last = i == len(run.cells) - 1
    gap_before = i > 0 and _is_gap(job, run.cells[i - 1])
    gap_after = not last and _is_gap(job, run.cells[i + 1])
    before = layout.cells[i - 1].width if gap_before else 0.0
    after = layout.cells[i + 1].width if gap_after else layout.left
    room_for, way, remedy = (
        (before, "left", "Move its neighbor first.")
        if by < 0
        else (after, "right", "Make a unit narrower or move its neighbor first.")
    )
    if abs(by) > room_for + TOLERANCE:
        shown = format_length(room_for, job.display, mark=True)
        raise PlankError(f"{cell.number} can go {shown} to the {way}.", "clear distance", remedy)
    cells = list(run.cells)

    def new_gap(width: float) -> Cell:
        nonlocal job
        job, gap = new_cell(job, room, run, gap_code(job, run.level), WidthRule.fixed(Length.of(width)))
        return gap

    # From the right, so that places to the left keep their numbers.
    if gap_after:
        cells[i + 1] = _with_gap(cells[i + 1], after - by)
    elif not last and by < -TOLERANCE:
        cells.insert(i + 1, new_gap(-by))
    if gap_before:
        cells[i - 1] = _with_gap(cells[i - 1], before + by)
    elif by > TOLERANCE:
        cells.insert(i, new_gap(by))
    kept = tuple(
        c for c in cells if not (_is_gap(job, c) and c.width.length is not None and c.width.length.mm < TOLERANCE)
    )
    return Change(with_cells(job, job.find_run(run.id)[1], kept), name)


def _shift_free(job: Job, run: Run, layout: RunLayout, by: float, name: str) -> Change:
    """Move what hangs free along its wall as a whole; what held it lets go. `by`: mm."""
    room_for = layout.x if by < 0 else layout.wall.length - layout.end
    if abs(by) > room_for + TOLERANCE:
        shown = format_length(max(0.0, room_for), job.display, mark=True)
        way = "left" if by < 0 else "right"
        raise PlankError(f"It can go {shown} to the {way}.", "clear distance", "The wall ends there.")
    cells = tuple(msgspec.structs.replace(c, anchor=None) for c in run.cells)
    start = Length.of(round(max(0.0, layout.x + by), 6))
    return Change(with_run(job, msgspec.structs.replace(run, cells=cells, start=start)), name)


def _hold_at(job: Job, run: Run, cell: Cell, layout: RunLayout, by: float, name: str) -> Change:
    """In a run with held cells, hold this one where it is wanted instead of moving gaps."""
    placed = next(p for p in layout.cells if p.cell == cell.id)
    new = msgspec.structs.replace(cell, anchor=Anchor.by("left", None, Length.of(placed.x + by)))
    job = with_cells(job, run, tuple(new if c.id == cell.id else c for c in run.cells))
    after = set_out(job).run(run.id)
    assert after is not None
    if after.short > layout.short + TOLERANCE:
        raise PlankError(
            f"{cell.number} cannot go there: it is {told(after.short - layout.short)} mm short.",
            "clear distance",
            "Move its neighbor first.",
        )
    return Change(job, name)


def _is_gap(job: Job, cell: Cell) -> bool:
    return job.template_of(cell).body is Body.GAP


def _with_gap(cell: Cell, width: float) -> Cell:
    return msgspec.structs.replace(cell, width=WidthRule.fixed(Length.of(max(0.0, round(width, 6)))))
