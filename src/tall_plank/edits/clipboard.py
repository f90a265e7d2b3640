"""Copy and paste of units between places, jobs and programs, as text."""

from __future__ import annotations

from typing import Any

import msgspec

from tall_plank.edits.change import Change, new_ids, next_number, with_cells
from tall_plank.edits.hanging import free_run, open_place
from tall_plank.edits.runs import add_run, run_on
from tall_plank.edits.values import lengths_in
from tall_plank.formats.envelope import brought_up, marked
from tall_plank.formats.table import CLIPBOARD
from tall_plank.job import Bay, Cell, Job, Level, Run, Template, Unit
from tall_plank.job.inherit import FINISH_KEYS, size_of
from tall_plank.job.run import WidthRule
from tall_plank.job.standard import is_choice
from tall_plank.measure import Length, PlankError
from tall_plank.measure.lengths import names_in
from tall_plank.setout import set_out

MAX_TEXT = 2_000_000


class Copied(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """One copied unit with the template it needs.

    Attributes
    ----------
    bottom : its own height above the floor
    hung_at : where it hung by itself: mm from the wall's left end and above the floor
    """

    level: Level
    width: WidthRule
    unit: Unit
    template: Template
    bottom: Length | None = None
    hung_at: tuple[float, float] | None = None


class Clip(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """What is on the clipboard."""

    units: tuple[Copied, ...]


def copy_cells(job: Job, cells: tuple[str, ...]) -> str:
    """Units as text, in the order of their runs."""
    wanted = set(cells)
    layout = set_out(job)

    def place(run: Run, cell: Cell) -> tuple[float, float] | None:
        placed = layout.find(cell.id) if run.free else None
        return (round(placed.x, 6), round(placed.bottom, 6)) if placed is not None else None

    copied = [
        Copied(run.level, cell.width, job.unit(cell.unit), job.template_of(cell), cell.bottom, place(run, cell))
        for _, run in job.runs()
        for cell in run.cells
        if cell.id in wanted
    ]
    return msgspec.json.encode(marked(msgspec.to_builtins(Clip(tuple(copied))), CLIPBOARD)).decode()


def read_clip(text: str) -> Clip:
    """Read what was copied.

    Raises
    ------
    PlankError where the text is something else
    """
    try:
        if len(text) > MAX_TEXT:
            raise ValueError
        raw = msgspec.json.decode(text.encode(), type=dict[str, Any])
        if raw.get("kind") != CLIPBOARD.kind:
            raise ValueError
    except (msgspec.MsgspecError, ValueError, RecursionError):
        raise PlankError("There are no units on the clipboard.", "paste", "Copy some units first.") from None
    try:
        return msgspec.convert(brought_up(raw, CLIPBOARD, "paste"), Clip)
    except (msgspec.ValidationError, RecursionError):
        raise PlankError("What is on the clipboard is damaged.", "paste", "Copy the units again.") from None


def paste(job: Job, text: str, room_id: str, wall_id: str, after: str = "") -> Change:
    """Paste units after a cell, or at the end of the runs on a wall; templates the job lacks come along.

    Rules that use values this job does not have, and finishes or fittings it does not stock, are pasted as
    plain lengths or inherited again, and named in `skipped`.
    """
    clip = read_clip(text)
    made: list[str] = []
    skipped: list[str] = []
    for item in clip.units:
        job, _, lost_kind = with_template(job, item.template)
        skipped += lost_kind
        run = run_on(job, room_id, wall_id, item.level, after)
        if item.hung_at is not None:
            job, run = _hung(job, room_id, wall_id, item, item.hung_at)
        elif run is None:
            started = add_run(job, room_id, wall_id, item.level)
            job, run = started.job, started.job.find_run(started.made[0])[1]
        job, (cell_id, unit_id) = new_ids(job, "u", 2)
        unit, lost = fitted(job, item.unit)
        skipped += lost
        job = msgspec.structs.replace(job, units=(*job.units, msgspec.structs.replace(unit, id=unit_id)))
        number = next_number(job, job.room(room_id), wall_id)
        low = plain_length(job, item.bottom)
        cell = Cell(cell_id, unit_id, number, plain_width(job, item.width), bottom=low)
        places = [c.id for c in run.cells]
        at = places.index(after) + 1 if after in places else len(places)
        job = with_cells(job, run, (*run.cells[:at], cell, *run.cells[at:]))
        after = cell_id if after in places else after
        made.append(cell_id)
    return Change(job, "Paste" if len(made) != 1 else "Paste a unit", tuple(skipped), tuple(made))


def _hung(job: Job, room_id: str, wall_id: str, item: Copied, at: tuple[float, float]) -> tuple[Job, Run]:
    """A row for what hung by itself: where it was, or above what is there."""
    width = item.width.length.mm if item.width.length is not None else item.template.width
    height = size_of(job, fitted(job, item.unit)[0], "height")
    return free_run(job, room_id, wall_id, *open_place(job, room_id, wall_id, *at, width, height))


def with_template(job: Job, template: Template) -> tuple[Job, str, list[str]]:
    """The job with a kind that it may lack; a kind of the same code stays the job's own. What could not be followed
    is named."""
    if any(t.code == template.code for t in job.templates):
        return job, template.code, []
    lost = []
    named = job.named_values()
    for key in ("height", "depth", "leg"):
        if not names_in(getattr(template, key)) <= named.keys():
            template = msgspec.structs.replace(template, **{key: "600mm"})
            lost.append(f"{key} of {template.name}: taken as 600 mm")
    return msgspec.structs.replace(job, templates=(*job.templates, template)), template.code, lost


def plain_width(job: Job, width: WidthRule) -> WidthRule:
    if width.length is None or not _unknown(job, width.length):
        return width
    return WidthRule(width.rule, Length.of(width.length.mm))


def plain_length(job: Job, length: Length | None) -> Length | None:
    """A length that uses no value this job lacks."""
    return Length.of(length.mm) if length is not None and _unknown(job, length) else length


def _unknown(job: Job, length: Length) -> bool:
    return not names_in(length.text) <= job.named_values().keys()


def fitted(job: Job, unit: Unit) -> tuple[Unit, list[str]]:
    """The unit with what this job cannot follow made plain or inherited."""
    lost: list[str] = []
    for item in unit.own:
        if isinstance(item.value, Length) and _unknown(job, item.value):
            unit = unit.with_own(item.key, Length.of(item.value.mm))
            lost.append(f"{item.key.replace('_', ' ')}: pasted as a plain length")
        elif item.key in FINISH_KEYS and isinstance(item.value, str) and job.stock.finish(item.value) is None:
            unit = unit.with_own(item.key, None)
            lost.append(f"finish {item.value}: not in this job's stock")
        elif not is_choice(item.key, item.value):
            unit = unit.with_own(item.key, None)
            lost.append(f"{item.key.replace('_', ' ')} {item.value}: not known")
    if any(_unknown(job, length) for length in lengths_in(unit.bay)):
        unit = msgspec.structs.replace(unit, bay=_plain_bay(unit.bay))
    return unit, lost


def _plain_bay(bay: Bay) -> Bay:
    size = Length.of(bay.size.mm) if bay.size is not None else None
    return msgspec.structs.replace(bay, size=size, children=tuple(_plain_bay(c) for c in bay.children))
