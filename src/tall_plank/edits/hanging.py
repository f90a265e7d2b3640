"""What hangs on a wall: rows above one another, things that hang free where they are put, and heights of their own."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change, new_cell, new_ids, unit_from, with_cells, with_room, with_run
from tall_plank.edits.placing import copy_of
from tall_plank.edits.rooms import read, read_in
from tall_plank.edits.runs import add_run, gap_code, insert_unit, move_cell, run_level
from tall_plank.edits.units import goes_into
from tall_plank.job import Body, Cell, Job, Level, Run
from tall_plank.job.inherit import size_of
from tall_plank.job.run import WidthRule
from tall_plank.measure import Length, PlankError, format_length
from tall_plank.measure.limits import LIMITS, check_reach
from tall_plank.measure.shareout import Rule
from tall_plank.measure.units import TOLERANCE
from tall_plank.setout import Placed, set_out
from tall_plank.setout.corners import bottom_of
from tall_plank.setout.runs import RunLayout

HIGHEST = LIMITS["Run"]["bottom"].most
LEAST_ROW = 100.0
"""mm of height that a further row needs."""


def length_at(mm: float) -> Length:
    """A place that was found by the mouse or by a sum, mm."""
    return Length.of(round(mm, 6))


def free_run(job: Job, room_id: str, wall_id: str, x: float, bottom: float) -> tuple[Job, Run]:
    """A row that hangs free, without cells yet. `x`, `bottom`: of its lower left corner, mm."""
    job, (run_id,) = new_ids(job, "n")
    start, low = length_at(max(0.0, x)), length_at(min(max(0.0, bottom), HIGHEST))
    run = Run(run_id, wall_id, Level.HUNG, start=start, bottom=low, free=True)
    room = job.room(room_id)
    return with_room(job, msgspec.structs.replace(room, runs=(*room.runs, run))), run


def hang(job: Job, room_id: str, wall_id: str, code: str, x: float, bottom: float) -> Change:
    """Hang a new unit on a wall where it is put, kept on the wall and under the ceiling. `x`, `bottom`: of its lower
    left corner, mm.

    Raises
    ------
    PlankError where its kind does not hang free, or there is no such wall
    """
    check_reach(x, bottom)
    job.room(room_id)
    template = job.template(code)
    if not set_out(job).room(room_id).has_line(wall_id):
        raise PlankError(f"There is no wall {wall_id}.", f"wall {wall_id}", "Choose another wall.")
    job, run = free_run(job, room_id, wall_id, x, bottom)
    if not goes_into(run, template) or template.body is Body.GAP:
        raise PlankError(f"{template.name} does not hang by itself.", "hang", "Put it into a run.")
    job, cell = new_cell(job, job.room(room_id), run, code, WidthRule.fixed(Length.of(template.width)))
    job = with_cells(job, run, (cell,))
    return Change(_kept_in(job, run.id), f"Hang {template.name.lower()}", made=(cell.id,))


ABOVE = 400.0
"""mm between a unit and what is hung above it, to begin with."""

NEAR_RUN = 150.0
"""mm; what is dropped so near to the height of the hung run goes into it."""


def put(job: Job, room_id: str, wall_id: str, code: str, *, after: str = "") -> Change:
    """Put a new unit on a wall without saying where: into its run, or, where its kind hangs free, above the unit that
    is selected, else in the middle of the wall."""
    template = job.template(code)
    room = job.room(room_id)
    if not template.free or not set_out(job).room(room.id).has_line(wall_id):
        return insert_unit(job, room_id, wall_id, code, after=after)
    below = set_out(job).find(after) if after else None
    if below is not None and below.wall_id == wall_id:
        x, low = below.x, below.top + ABOVE
    else:
        x = (set_out(job).room(room_id).wall(wall_id).length - template.width) / 2
        low = job.value("hung_bottom")
    height = size_of(job, unit_from(template, room.use), "height")
    return hang(job, room_id, wall_id, code, *open_place(job, room_id, wall_id, x, low, template.width, height))


def drop(job: Job, room_id: str, wall_id: str, code: str, x: float, z: float) -> Change:
    """Put a new unit where it was dropped on a wall: into its run where that hangs at this height, else free. `x`, `z`:
    of the middle of the unit, mm."""
    check_reach(x, z)
    template = job.template(code)
    room = job.room(room_id)
    layout = set_out(job).room(room.id)
    rows = [r for r in layout.runs if r.wall.id == wall_id and r.run.level is Level.HUNG and not r.run.free]
    hung = template.level is Level.HUNG and layout.has_line(wall_id) and template.body is not Body.GAP
    if hung:
        height = size_of(job, unit_from(template, room.use), "height")
        spans = [_span(job, row) for row in rows] or [(job.value("hung_bottom"), job.value("hung_bottom") + height)]
        near = [i for i, (low, high) in enumerate(spans) if low - NEAR_RUN <= z <= high + NEAR_RUN]
        if (template.free or not near) and not template.corner and template.gables:
            left, low = round(x - template.width / 2), round((z - height / 2) / 5) * 5
            return hang(job, room_id, wall_id, code, float(left), float(low))
        rows = [rows[i] for i in near] if rows else rows
    level = run_level(job, room_id, wall_id, template)
    run = next((r for r in rows if hung), None) or next(
        (r for r in layout.runs if r.wall.id == wall_id and r.run.level is level and not r.run.free), None
    )
    index = sum(p.x + p.width / 2 < x for p in run.cells) if run is not None else 0
    beside = run.cells[0].cell if run is not None and run.cells else ""
    return insert_unit(job, room_id, wall_id, code, after=beside, index=index)


def _span(job: Job, row: RunLayout) -> tuple[float, float]:
    """The heights between which a hung row hangs, mm."""
    low = bottom_of(job, row.run)
    tops = [p.top for p in row.cells if p.is_solid]
    return low, max([low + job.value("hung_height"), *tops])


def _kept_in(job: Job, run_id: str) -> Job:
    """The job with a free row moved onto its wall and under the ceiling, where it would hang beyond."""
    room, run = job.find_run(run_id)
    layout = set_out(job).run(run_id)
    if layout is None or not layout.cells:
        return job
    right, top = max(p.right for p in layout.cells), max(p.top for p in layout.cells)
    x = max(0.0, min(layout.x, layout.wall.length - (right - layout.x)))
    low = bottom_of(job, run)
    bottom = max(0.0, min(low, low + room.height.mm - top))
    moved = msgspec.structs.replace(run, start=length_at(x), bottom=length_at(bottom))
    return with_run(job, moved) if (x, bottom) != (layout.x, low) else job


def open_place(
    job: Job, room_id: str, wall_id: str, x: float, bottom: float, width: float, height: float
) -> tuple[float, float]:
    """The first place at or above a height where a thing of a size stands in nothing else on the wall; where there is
    none under the ceiling, the one asked for. All in mm.

    Returns
    -------
    (x, bottom)
    """
    check_reach(x, bottom)
    job.room(room_id)
    layout = set_out(job).room(room_id)
    beside = [
        p
        for p in layout.placed
        if p.wall_id == wall_id and p.is_solid and p.x < x + width - TOLERANCE and p.right > x + TOLERANCE
    ]
    tops = [(t.bottom, t.bottom + t.thickness) for t in layout.worktops if t.wall_id == wall_id]
    spans = sorted(
        [(p.bottom, p.top) for p in beside] + (tops if any(p.level is not Level.HUNG for p in beside) else [])
    )
    low = bottom
    for under, over in spans:
        if under < low + height - TOLERANCE and over > low + TOLERANCE:
            low = over
    return (x, low) if low + height <= layout.room.height.mm + TOLERANCE else (x, bottom)


def move_free(job: Job, run_id: str, x: float, bottom: float, wall_id: str = "", name: str = "Move it") -> Change:
    """Move a free row along its wall and up or down, or onto another wall; it stays on the wall and under the
    ceiling. What held it lets go. `x`, `bottom`: of its lower left corner, mm.

    Raises
    ------
    PlankError where something of it is locked
    """
    check_reach(x, bottom)
    _, run = job.find_run(run_id)
    for cell in run.cells:
        if cell.locked:
            raise PlankError(f"{cell.number} is locked.", "move", "Unlock it first.")
    cells = tuple(msgspec.structs.replace(c, anchor=None) for c in run.cells)
    low = length_at(min(max(0.0, bottom), HIGHEST))
    new = msgspec.structs.replace(run, cells=cells, start=length_at(max(0.0, x)), bottom=low, wall=wall_id or run.wall)
    return Change(_kept_in(with_run(job, new), run_id), name)


def move_along(job: Job, cell_id: str, at: float, by: float) -> Change:
    """Bring a unit along its wall by hand: what hangs free by a distance, one of a run to its place among the others.

    Parameters
    ----------
    at : where the pointer is, from the wall's left end, mm
    by : how far it has come, mm
    """
    check_reach(at, by)
    _, run, _ = job.find_cell(cell_id)
    layout = set_out(job).run(run.id)
    if layout is None:
        raise PlankError("It is not set out.", "move", "Mend its run first.")
    if run.free:
        return move_free(job, run.id, float(round(layout.x + by)), bottom_of(job, run))
    return move_cell(job, cell_id, sum(p.x + p.width / 2 < at for p in layout.cells if p.cell != cell_id))


def free_of(job: Job, cells: tuple[str, ...]) -> Change:
    """Let units hang by themselves where they are; gaps keep the others of their runs in their places.

    Raises
    ------
    PlankError where none of them can, with why
    """
    skipped: list[str] = []
    made: list[str] = []
    for cell_id in cells:
        room, run, cell = job.find_cell(cell_id)
        placed = set_out(job).find(cell_id)
        why = _stays(job, run, cell)
        if why or placed is None:
            skipped.append(f"{cell.number or 'a gap'}: {why}")
            continue
        job, gap = new_cell(job, room, run, gap_code(job, run.level), WidthRule.fixed(length_at(placed.width)))
        gap = msgspec.structs.replace(gap, anchor=cell.anchor)
        job = _handed_over(job, run, cell, placed, gap)
        made.append(cell_id)
    if not made:
        raise PlankError(f"{skipped[0]}." if skipped else "Nothing is chosen.", "hang", "Choose other units.")
    return Change(job, "Let it hang by itself", tuple(skipped), tuple(made))


def _handed_over(job: Job, run: Run, cell: Cell, placed: Placed, gap: Cell) -> Job:
    """The job with a cell in a free row of its own, and a gap where it was."""
    room, _ = job.find_run(run.id)
    job, own = free_run(job, room.id, run.wall, placed.x, placed.bottom)
    width = WidthRule.fixed(length_at(placed.width)) if cell.width.rule is not Rule.FIXED else cell.width
    alone = msgspec.structs.replace(cell, width=width, anchor=None, bottom=None)
    job = with_run(job, msgspec.structs.replace(own, cells=(alone,)))
    _, run = job.find_run(run.id)
    return with_cells(job, run, tuple(gap if c.id == cell.id else c for c in run.cells))


def _stays(job: Job, run: Run, cell: Cell) -> str:
    """Why a cell cannot hang by itself; empty where it can."""
    template = job.template_of(cell)
    if cell.locked:
        return "it is locked"
    if run.free:
        return "it hangs by itself already"
    if template.body is Body.GAP:
        return "there is nothing to hang"
    if template.corner:
        return "it fills a corner"
    if not template.gables:
        return "it stands between panels"
    return ""


def into_run(job: Job, cells: tuple[str, ...]) -> Change:
    """Put what hangs by itself into the hung run of its wall that is nearest to its height, where it is in the row; it
    takes the run's height.

    Raises
    ------
    PlankError where none of them hangs by itself
    """
    skipped: list[str] = []
    done = 0
    for cell_id in cells:
        room, own, cell = job.find_cell(cell_id)
        placed = set_out(job).find(cell_id)
        template = job.template_of(cell)
        if not own.free or placed is None or cell.locked or template.level is not Level.HUNG:
            why = (
                "it stands in a run"
                if not own.free
                else "it is locked"
                if cell.locked
                else "its kind stands in no hung run"
            )
            skipped.append(f"{cell.number or 'a gap'}: {why}")
            continue
        rows = [r for r in room.runs if r.wall == own.wall and r.level is Level.HUNG and not r.free]
        run = min(rows, key=lambda r: abs(bottom_of(job, r) - placed.bottom), default=None)
        if run is None:
            started = add_run(job, room.id, own.wall, Level.HUNG)
            job, run = started.job, started.job.find_run(started.made[0])[1]
        layout = set_out(job).run(run.id)
        assert layout is not None
        at = sum(p.x + p.width / 2 < placed.x + placed.width / 2 for p in layout.cells)
        plain = msgspec.structs.replace(cell, bottom=None)
        job = with_run(job, msgspec.structs.replace(run, cells=(*run.cells[:at], plain, *run.cells[at:])))
        _, own = job.find_run(own.id)
        job = with_cells(job, own, tuple(c for c in own.cells if c.id != cell_id))
        done += 1
    if not done:
        raise PlankError(f"{skipped[0]}." if skipped else "Nothing is chosen.", "hang", "Choose what hangs by itself.")
    return Change(job, "Put it into the run", tuple(skipped))


def add_row(job: Job, room_id: str, wall_id: str) -> Change:
    """Start another hung row on a wall, on top of the highest one and of tall units; its underside can be typed.

    Raises
    ------
    PlankError where there is no space for it under the ceiling
    """
    job.room(room_id)
    layout = set_out(job).room(room_id)
    if not layout.has_line(wall_id):
        raise PlankError(f"There is no wall {wall_id}.", f"wall {wall_id}", "Choose another wall.")
    rows = [r for r in layout.runs if r.wall.id == wall_id and r.run.level is Level.HUNG and not r.run.free]
    below = [p for p in layout.placed if p.wall_id == wall_id and p.is_solid and p.level is Level.TALL]
    if not rows and not below:
        return add_run(job, room_id, wall_id, Level.HUNG)
    below += [p for r in rows for p in r.cells if p.is_solid]
    low = max([bottom_of(job, r.run) for r in rows] + [p.top for p in below])
    if low > layout.room.height.mm - LEAST_ROW:
        raise PlankError(
            "There is no space for another row above.", f"wall {wall_id}", "Bring the hung run down first."
        )
    job, (run_id,) = new_ids(job, "n")
    room = job.room(room_id)
    run = Run(run_id, wall_id, Level.HUNG, bottom=length_at(low))
    return Change(
        with_room(job, msgspec.structs.replace(room, runs=(*room.runs, run))), "Start another row", made=(run_id,)
    )


def set_bottom(job: Job, cells: tuple[str, ...], text: str) -> Change:
    """Give units an underside of their own, above the floor; empty: that of their run. What hangs by itself alone is
    moved there. Locked ones are skipped and named.

    Raises
    ------
    PlankError where the text is no height, or none of them can have it
    """
    value = read_in(job, text, Run, "bottom") if text.strip() else None
    skipped: list[str] = []
    for cell_id in cells:
        _, run, cell = job.find_cell(cell_id)
        if cell.locked or job.template_of(cell).body is Body.GAP:
            skipped.append(f"{cell.number} is locked" if cell.locked else "a gap has nothing to set")
            continue
        if run.free and len(run.cells) == 1:
            if value is not None:
                job = with_run(job, msgspec.structs.replace(run, bottom=value))
            continue
        new = msgspec.structs.replace(cell, bottom=value)
        job = with_run(job, msgspec.structs.replace(run, cells=tuple(new if c.id == cell_id else c for c in run.cells)))
    if skipped and len(skipped) == len(cells):
        raise PlankError(skipped[0] + ".", "underside", "Choose others.")
    return Change(job, "Set the underside" if value is not None else "Inherit the underside", tuple(skipped))


def lift_cell(job: Job, cell_id: str, bottom: float) -> Change:
    """Bring one unit of a run to a height of its own, by hand; it stops at the floor and under the ceiling. `bottom`:
    mm."""
    check_reach(bottom)
    room, _, _ = job.find_cell(cell_id)
    placed = set_out(job).find(cell_id)
    height = placed.height if placed is not None else 0.0
    low = max(0.0, min(bottom, room.height.mm - height, HIGHEST))
    return set_bottom(job, (cell_id,), length_at(low).text)


def repeat_up(job: Job, cell_id: str, count: int, pitch: str, *, linked: bool = False) -> Change:
    """Repeat a hung unit above itself at a pitch, from underside to underside; the copies hang by themselves.

    Raises
    ------
    PlankError where the pitch is smaller than the unit, or the copies would reach the ceiling
    """
    if not 1 <= count <= 50:
        raise PlankError(f"{count} copies are not possible.", "repeat", "Type a number from 1 to 50.")
    room, run, cell = job.find_cell(cell_id)
    placed = set_out(job).find(cell_id)
    if (
        placed is None
        or run.level is not Level.HUNG
        or not goes_into(msgspec.structs.replace(run, free=True), job.template_of(cell))
    ):
        raise PlankError("Only what hangs on a wall is repeated upwards.", "repeat", "Choose a hung unit.")
    step = read(job, pitch, least=1.0).mm if pitch.strip() else placed.height
    if step < placed.height - TOLERANCE:
        shown = format_length(placed.height, job.display, mark=True)
        raise PlankError(f"The unit is {shown} high: it would overlap itself.", "pitch", f"Type {shown} or more.")
    space = room.height.mm - placed.top
    if step * count > space + TOLERANCE:
        fit = int((space + TOLERANCE) // step)
        raise PlankError(
            f"The ceiling leaves space for {fit} of them.", "repeat", "Type a smaller number or a smaller pitch."
        )
    made: list[str] = []
    width = WidthRule.fixed(length_at(placed.width)) if cell.width.rule is not Rule.FIXED else cell.width
    for i in range(1, count + 1):
        job, own = free_run(job, room.id, run.wall, placed.x, placed.bottom + step * i)
        here, own = job.find_run(own.id)
        job, copy = copy_of(job, here, own, cell, linked=linked)
        job = with_cells(job, own, (msgspec.structs.replace(copy, width=width, bottom=None),))
        made.append(copy.id)
    return Change(job, f"Repeat {cell.number} upwards", made=tuple(made))
