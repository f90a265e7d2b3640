"""Working at speed: anchors, repeats, mirrored runs, moves by a distance, groups, locks, hiding, links, labels."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change, change_units, new_ids, next_number, with_cells, with_room, with_run
from tall_plank.edits.rooms import read
from tall_plank.edits.runs import gap_code, shift_by
from tall_plank.edits.units import mirror as mirror_units
from tall_plank.job import Anchor, Body, Cell, Island, Job, Kind, LabelRule, Level, Room, Run, Source, Unit
from tall_plank.job.bays import mirrored
from tall_plank.job.run import WidthRule
from tall_plank.making.labels import check_label
from tall_plank.measure import Length, PlankError, format_length
from tall_plank.measure.shareout import Rule
from tall_plank.measure.units import TOLERANCE
from tall_plank.setout import set_out

ANCHORS = ("left", "right", "centre", "span")


def _changed(job: Job, cell_id: str, **values: object) -> Job:
    _, run, cell = job.find_cell(cell_id)
    new = msgspec.structs.replace(cell, **values)
    return with_cells(job, run, tuple(new if c.id == cell_id else c for c in run.cells))


def hold(job: Job, cell_id: str, at: str, to: Source | None, offset: str = "0mm") -> Change:
    """Hold a cell by something else on its line: centred on a window, its sides on the seams of a base unit.

    Parameters
    ----------
    at : left, right, centre or span (both sides)
    to : an opening, a column, a service point, a guide line, a cell of another run; None: the line itself

    Raises
    ------
    PlankError where there is no such thing on this line, or cells would hold one another in a circle
    """
    if at not in ANCHORS:
        raise PlankError(f"“{at}” holds nothing.", "anchor", f"Choose {', '.join(ANCHORS)}.")
    _, run, cell = job.find_cell(cell_id)
    if cell.locked:
        raise PlankError(f"{cell.number} is locked.", "anchor", "Unlock it first.")
    if to == Kind.CELL.of(cell_id):
        raise PlankError("A unit cannot hold itself.", "anchor", "Choose another thing.")
    if to is not None and to.kind is Kind.CELL:
        _, other, _ = job.find_cell(to.id)
        if other.id == run.id:
            raise PlankError("Units of one run hold one another anyway.", "anchor", "Choose a unit of another run.")
        _no_circle(job, run, other)
    anchor = Anchor.by(at, to, read(job, offset))  # type: ignore[arg-type]
    changed = _changed(job, cell_id, anchor=anchor)
    layout = set_out(changed).run(run.id)
    assert layout is not None
    if cell_id in layout.unmet:
        raise PlankError("That is not on this unit's wall.", "anchor", "Choose something on the same wall.")
    word = {"centre": "Center", "span": "Line up", "left": "Line up", "right": "Line up"}[at]
    return Change(changed, f"{word} {cell.number}".strip())


def _no_circle(job: Job, run: Run, other: Run) -> None:
    """Raises PlankError where the other run already waits for this one."""
    owner = {c.id: r.id for _, r in job.runs() for c in r.cells}
    waits: dict[str, set[str]] = {}
    for _, r in job.runs():
        held_by = (c.anchor.source for c in r.cells if c.anchor is not None)
        to = {source.id for source in held_by if source is not None and source.kind is Kind.CELL}
        waits[r.id] = {owner[c] for c in to if c in owner}
    seen, todo = set(), [other.id]
    while todo:
        at = todo.pop()
        if at == run.id:
            raise PlankError("These runs would hold one another in a circle.", "anchor", "Let one of them stand free.")
        if at not in seen:
            seen.add(at)
            todo += waits.get(at, set())


def let_go(job: Job, cells: tuple[str, ...]) -> Change:
    """Let cells stand free again, where they stand by their run's order."""
    for cell_id in cells:
        job = _changed(job, cell_id, anchor=None)
    return Change(job, "Let go")


def align_seams(job: Job, cells: tuple[str, ...]) -> Change:
    """Line hung units up with the base units that stand most under them: both sides on their seams. Each base unit
    takes one; what finds none is skipped and named.

    Raises
    ------
    PlankError where none of them can be lined up, with why
    """
    layout = set_out(job)
    taken: set[str] = set()
    skipped: list[str] = []
    for cell_id in cells:
        placed = layout.find(cell_id)
        _, _, cell = job.find_cell(cell_id)
        if placed is None or placed.level is not Level.HUNG or not placed.is_solid:
            skipped.append(f"{cell.number or 'a gap'}: only hung units line up with base units")
            continue
        below = [
            (min(p.right, placed.right) - max(p.x, placed.x), p)
            for p in layout.room(placed.room).placed
            if p.wall_id == placed.wall_id and p.level is Level.BASE and p.is_solid and p.cell not in taken
        ]
        best = max(below, key=lambda pair: pair[0], default=None)
        if best is None or best[0] <= 1.0:
            skipped.append(f"{cell.number}: no base unit stands under it")
            continue
        taken.add(best[1].cell)
        job = _changed(job, cell_id, anchor=Anchor.by("span", Kind.CELL.of(best[1].cell)))
    if len(skipped) == len(cells):
        what = f"{skipped[0]}." if skipped else "Nothing is chosen."
        raise PlankError(what, "line up", "Choose hung units over base units.")
    return Change(job, "Line up with the base units", tuple(skipped))


def move_by(job: Job, cells: tuple[str, ...], text: str) -> Change:
    """Move units along their run by a typed distance (to the left where negative)."""
    by = read(job, text).mm
    order = sorted(cells, key=lambda c: _place(job, c), reverse=by > 0)
    moved: set[str] = set()
    for cell_id in order:
        _, run, _ = job.find_cell(cell_id)
        if run.free and run.id in moved:
            continue  # what hangs free moves as a whole
        moved.add(run.id)
        job = shift_by(job, cell_id, by, "").job
    return Change(job, f"Move by {format_length(by, job.display, mark=True)}")


def _place(job: Job, cell_id: str) -> float:
    found = set_out(job).find(cell_id)
    return found.x if found is not None else 0.0


def copy_of(job: Job, room: Room, run: Run, cell: Cell, *, linked: bool = False) -> tuple[Job, Cell]:
    """A copy of a cell with a number of its own; a linked one shares the unit."""
    job, (cell_id, unit_id) = new_ids(job, "u", 2)
    if linked:
        unit_id = cell.unit
    else:
        unit = job.unit(cell.unit)
        job = msgspec.structs.replace(job, units=(*job.units, msgspec.structs.replace(unit, id=unit_id)))
    number = next_number(job, room, run.wall) if cell.number else ""
    return job, Cell(cell_id, unit_id, number, cell.width, label=cell.label, bottom=cell.bottom)


def repeat(job: Job, cell_id: str, count: int, pitch: str = "", *, linked: bool = False) -> Change:
    """Repeat a unit to its right: butting, or at a pitch (from left side to left side) with gaps between.

    Raises
    ------
    PlankError where the pitch is smaller than the unit or the count makes no sense
    """
    if not 1 <= count <= 50:
        raise PlankError(f"{count} copies are not possible.", "repeat", "Type a number from 1 to 50.")
    _, run, cell = job.find_cell(cell_id)
    placed = set_out(job).find(cell_id)
    assert placed is not None
    gap = 0.0
    if pitch.strip():
        gap = read(job, pitch, least=1.0).mm - placed.width
        if gap < -TOLERANCE:
            shown = format_length(placed.width, job.display, mark=True)
            raise PlankError(f"The unit is {shown} wide: it would overlap itself.", "pitch", f"Type {shown} or more.")
    made: list[str] = []
    at = next(i for i, c in enumerate(run.cells) if c.id == cell_id) + 1
    for _ in range(count):
        if gap > TOLERANCE:
            job, at = _insert_gap(job, run.id, at, gap)
        room, run = job.find_run(run.id)
        job, copy = copy_of(job, room, run, cell, linked=linked)
        job = with_cells(job, run, (*run.cells[:at], copy, *run.cells[at:]))
        room, run = job.find_run(run.id)
        at += 1
        made.append(copy.id)
    return Change(job, f"Repeat {cell.number}", made=tuple(made))


def _insert_gap(job: Job, run_id: str, at: int, width: float) -> tuple[Job, int]:
    from tall_plank.edits.change import new_cell

    room, run = job.find_run(run_id)
    job, gap = new_cell(job, room, run, gap_code(job, run.level), WidthRule.fixed(Length.of(round(width, 6))))
    return with_cells(job, run, (*run.cells[:at], gap, *run.cells[at:])), at + 1


def spread(job: Job, cells: tuple[str, ...]) -> Change:
    """Space units of one run evenly between the first and the last of them: the gaps between become equal.

    Raises
    ------
    PlankError where fewer than three are chosen, they are not neighbours but for gaps, or their space is taken
    """
    if len(cells) < 3:
        raise PlankError("Choose three units or more.", "spread", "The first and the last stay where they are.")
    _, run, _ = job.find_cell(cells[0])
    layout = set_out(job).run(run.id)
    assert layout is not None
    chosen = [p for p in layout.cells if p.cell in cells]
    if len(chosen) != len(cells):
        raise PlankError("They stand in different runs.", "spread", "Choose units of one run.")
    first = next(i for i, c in enumerate(run.cells) if c.id == chosen[0].cell)
    last = next(i for i, c in enumerate(run.cells) if c.id == chosen[-1].cell)
    between = run.cells[first : last + 1]
    if any(c.id not in cells and job.template_of(c).body is not Body.GAP for c in between):
        raise PlankError("Other units stand between them.", "spread", "Choose those too.")
    total = chosen[-1].right - chosen[0].x
    free = total - sum(p.width for p in chosen)
    if free < -TOLERANCE:
        raise PlankError("There is no space between them.", "spread", "Move the last one first.")
    gap = free / (len(chosen) - 1)
    gaps = [c for c in between if c.id not in cells]
    kept: list[Cell] = []
    for p in chosen[:-1]:
        kept.append(next(c for c in between if c.id == p.cell))
        if gap > TOLERANCE:
            if gaps:
                spare = gaps.pop(0)
            else:
                from tall_plank.edits.change import new_cell

                room, _ = job.find_run(run.id)
                job, spare = new_cell(job, room, run, gap_code(job, run.level), WidthRule(Rule.REST))
            kept.append(msgspec.structs.replace(spare, width=WidthRule.fixed(Length.of(round(gap, 6)))))
    kept.append(between[-1])
    _, run = job.find_run(run.id)
    return Change(with_cells(job, run, (*run.cells[:first], *kept, *run.cells[last + 1 :])), "Space evenly")


def mirror_run(job: Job, run_id: str) -> Change:
    """Turn a whole run round: the order of its cells, what they are inside, and the ends it keeps free."""
    _, run = job.find_run(run_id)
    job = _units_of_its_own(job, run)
    _, run = job.find_run(run_id)
    line = set_out(job).run(run_id)
    assert line is not None
    cells = tuple(_mirrored_cell(c, line.wall.length) for c in reversed(run.cells))
    job = change_units(job, tuple(c.id for c in cells), _mirrored_unit)
    _, run = job.find_run(run_id)
    new = msgspec.structs.replace(
        run,
        cells=tuple(cells),
        start=Length.of(round(line.wall.length - line.end, 6)) if run.free else run.end,
        end=None if run.free else run.start,
        top=msgspec.structs.replace(
            run.top, waterfall_left=run.top.waterfall_right, waterfall_right=run.top.waterfall_left
        ),
    )
    return Change(with_run(job, new), "Mirror the run")


def _units_of_its_own(job: Job, run: Run) -> Job:
    """The job with copies for cells whose unit is linked with cells of other runs, so that only this run turns."""
    here = {c.id for c in run.cells}
    elsewhere = {c.unit for c in job.cells() if c.id not in here}
    for cell in run.cells:
        if cell.unit in elsewhere:
            job, (unit_id,) = new_ids(job, "u")
            unit = msgspec.structs.replace(job.unit(cell.unit), id=unit_id)
            job = msgspec.structs.replace(job, units=(*job.units, unit))
            job = _changed(job, cell.id, unit=unit_id)
    return job


_SWAPPED = {"left": "right", "right": "left", "centre": "centre", "span": "span"}


def _mirrored_cell(cell: Cell, length: float) -> Cell:
    anchor = cell.anchor
    if anchor is None:
        return cell
    if anchor.source is None:
        # Held from the line's left end: from its right end now, which is the length away.
        offset = Length.of(length - anchor.offset.mm) if anchor.at in ("left", "right") else anchor.offset
        return msgspec.structs.replace(cell, anchor=Anchor.by(_SWAPPED[anchor.at], None, offset))  # type: ignore[arg-type]
    return msgspec.structs.replace(cell, anchor=Anchor(_SWAPPED[anchor.at], anchor.to, Length.of(-anchor.offset.mm)))  # type: ignore[arg-type]


HANDED = {"end-left": "end-right", "end-right": "end-left"}
"""Kinds that are one another's mirror image."""


def _mirrored_unit(unit: Unit) -> Unit:
    return msgspec.structs.replace(unit, bay=mirrored(unit.bay), template=HANDED.get(unit.template, unit.template))


def set_flag(job: Job, cells: tuple[str, ...], flag: str, on: bool) -> Change:
    """Lock or hide cells, or the other way round.

    Raises
    ------
    PlankError “There is no ….”
    """
    if flag not in ("locked", "hidden"):
        raise PlankError(f"There is no {flag}.", "unit", "Choose locked or hidden.")
    for cell_id in cells:
        job = _changed(job, cell_id, **{flag: on})
    word = {("locked", True): "Lock", ("locked", False): "Unlock", ("hidden", True): "Hide", ("hidden", False): "Show"}
    return Change(job, word[flag, on])


def show_all(job: Job) -> Change:
    """Show every hidden unit."""
    return set_flag(job, tuple(c.id for c in job.cells() if c.hidden), "hidden", False)


def group(job: Job, cells: tuple[str, ...]) -> Change:
    """Let cells be picked together; a group takes its cells out of others.

    Raises
    ------
    PlankError “A group needs two units or more.”
    """
    if len(cells) < 2:
        raise PlankError("A group needs two units or more.", "group", "Select more.")
    job, (name,) = new_ids(job, "g")
    for cell_id in cells:
        job = _changed(job, cell_id, group=name)
    return Change(job, "Group")


def ungroup(job: Job, cells: tuple[str, ...]) -> Change:
    """Let the cells of the groups that these belong to be picked one by one."""
    names = {job.find_cell(c)[2].group for c in cells} - {""}
    for cell in job.cells():
        if cell.group in names:
            job = _changed(job, cell.id, group="")
    return Change(job, "Ungroup")


def grouped(job: Job, cell_id: str) -> tuple[str, ...]:
    """Every cell of the group that a cell belongs to; itself alone where it has none."""
    name = job.find_cell(cell_id)[2].group
    return tuple(c.id for c in job.cells() if c.group == name) if name else (cell_id,)


def link(job: Job, cells: tuple[str, ...]) -> Change:
    """Make cells linked copies of the first: change one, and all follow. Other levels are skipped and named.

    Raises
    ------
    PlankError “Linking needs two units or more.”
    """
    if len(cells) < 2:
        raise PlankError("Linking needs two units or more.", "link", "Select the one to follow first, then others.")
    _, first_run, first = job.find_cell(cells[0])
    skipped: list[str] = []
    for cell_id in cells[1:]:
        _, run, cell = job.find_cell(cell_id)
        if run.level is not first_run.level:
            skipped.append(f"{cell.number}: it stands on another level")
            continue
        job = _changed(job, cell_id, unit=first.unit)
    if len(skipped) == len(cells) - 1:
        raise PlankError(skipped[0] + ".", "link", "Select units of one level.")
    return Change(job, f"Link with {first.number}", tuple(skipped))


def unlink(job: Job, cells: tuple[str, ...]) -> Change:
    """Give linked cells units of their own; the others stay linked."""
    for cell_id in cells:
        _, _, cell = job.find_cell(cell_id)
        if sum(c.unit == cell.unit for c in job.cells()) > 1:
            job, (unit_id,) = new_ids(job, "u")
            unit = msgspec.structs.replace(job.unit(cell.unit), id=unit_id)
            job = msgspec.structs.replace(job, units=(*job.units, unit))
            job = _changed(job, cell_id, unit=unit_id)
    return Change(job, "Break the link")


def set_label(job: Job, cells: tuple[str, ...], text: str) -> Change:
    """Give cells a label of their own, with live fields in braces; an empty one follows the kind's again."""
    text = check_label(text.strip())
    for cell_id in cells:
        job = _changed(job, cell_id, label=text)
    return Change(job, "Set the label")


def set_label_rule(job: Job, kind: str, text: str) -> Change:
    """Set the label of every unit of a kind (its code), or of all (``*``); an empty text takes the rule away."""
    text = check_label(text.strip())
    if kind != "*":
        job.template(kind)
    rest = tuple(r for r in job.labels if r.kind != kind)
    labels = tuple(sorted((*rest, LabelRule(kind, text)), key=lambda r: r.kind)) if text else rest
    return Change(msgspec.structs.replace(job, labels=labels), "Set the labels")


def start_from(job: Job, cell_id: str) -> Change:
    """Let new units of this kind start like this one: its width, its bays and its own values (RN8)."""
    placed = set_out(job).find(cell_id)
    _, _, cell = job.find_cell(cell_id)
    unit, template = job.unit(cell.unit), job.template_of(cell)
    width = placed.width if placed is not None else template.width
    new = msgspec.structs.replace(template, width=round(width, 3), bay=unit.bay, own=unit.own)
    templates = tuple(new if t.code == template.code else t for t in job.templates)
    name = f"Start new ones from {cell.number}"
    return Change(msgspec.structs.replace(job, templates=templates), name)


def mirror(job: Job, cells: tuple[str, ...]) -> Change:
    """Mirror units in their place; slanted ends become their counterparts."""
    change = mirror_units(job, cells)
    job = change.job
    known = {t.code for t in job.templates}

    def swap(unit: Unit) -> Unit:
        other = HANDED.get(unit.template, unit.template)
        return msgspec.structs.replace(unit, template=other) if other in known else unit

    return Change(change_units(job, cells, swap), "Mirror")


def copy_island(job: Job, island_id: str, dx: float, dy: float) -> Change:
    """Copy an island with everything on it, moved by a distance. `dx`, `dy`: mm.

    Raises
    ------
    PlankError “A room takes at most six islands.”
    """
    from tall_plank.edits.things.island import LETTERS, find_island

    room, island = find_island(job, island_id)
    taken = {i.letter for i in room.islands} | set(room.wall_ids())
    letter = next((c for c in LETTERS if c not in taken), "")
    if not letter:
        raise PlankError("A room takes at most six islands.", "island", "Take one away first.")
    job, (new_id,) = new_ids(job, "i")
    copy: Island = msgspec.structs.replace(
        island, id=new_id, letter=letter, x=Length.of(island.x.mm + dx), y=Length.of(island.y.mm + dy)
    )
    room = job.room(room.id)
    job = with_room(job, msgspec.structs.replace(room, islands=(*room.islands, copy)))
    for run in [r for r in room.runs if r.wall in (f"{island.letter}1", f"{island.letter}2")]:
        job, (run_id,) = new_ids(job, "n")
        new_run = msgspec.structs.replace(run, id=run_id, wall=f"{letter}{run.wall[-1]}", cells=())
        here = job.room(room.id)
        job = with_room(job, msgspec.structs.replace(here, runs=(*here.runs, new_run)))
        for cell in run.cells:
            here, now = job.find_run(run_id)
            job, made = copy_of(job, here, now, cell)
            job = with_cells(job, now, (*now.cells, made))
    return Change(job, f"Copy island {island.letter}", made=(new_id,))
