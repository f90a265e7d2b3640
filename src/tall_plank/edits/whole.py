"""Whether a job is whole: it holds what it refers to, its values make sense, it can be set out, and what is written of
it can be read again. Every edit and every reader asks here."""

from __future__ import annotations

from typing import Any

import msgspec

from tall_plank.formats.door import through
from tall_plank.job import Job, Level
from tall_plank.job.basis import Basis
from tall_plank.job.bays import Bay
from tall_plank.job.inherit import size_of
from tall_plank.job.rules import reevaluated
from tall_plank.job.standard import CHOICES, check_standard, is_choice
from tall_plank.job.template import Body
from tall_plank.job.things.table import all_things, wall_of
from tall_plank.measure import PlankError
from tall_plank.measure.limits import SIZES, check_sound, in_sense
from tall_plank.measure.remembered import remembered
from tall_plank.measure.shareout import Rule
from tall_plank.setout import set_out
from tall_plank.setout.things.roof_window import roof_window_frame
from tall_plank.stock.library import Stock, check_stock

NO_STOCK = Stock()
MOST_LEAVES = 8
"""Sliding leaves before one opening."""


def check_whole(job: Job) -> None:
    """Raises PlankError where a job refers to something it does not hold, or holds impossible values."""
    if not job.rooms:
        raise PlankError("The job has no room.", "job")
    check_sound(job, "job")
    _check_stock(job.stock)
    job.active_standard(), job.active_scheme(), job.price_book()
    for cell in job.cells():
        if cell.width.rule is Rule.FIXED and cell.width.length is None:
            raise PlankError("Its fixed width has no length.", f"unit {cell.number or cell.id}")
        template = job.template_of(cell)
        if template.body is not Body.GAP:
            _check_size(job, cell.unit, cell.number)
    for template in job.templates:
        _check_own(template)
        _check_bay(template.bay)
    for unit in job.units:
        _check_own(unit)
        _check_bay(unit.bay)
        for own in unit.own:
            if own.key.startswith("standard"):
                job.standard_by(str(own.value))
    for standard in job.standards:
        _check_standard(standard)
    treatments = [t.id for t in job.treatments]
    if len(set(treatments)) != len(treatments):
        raise PlankError("Two treatments have one id.", "job")
    ids = [c.id for c in job.cells()]
    if len(set(ids)) != len(ids):
        raise PlankError("Two units have one id.", "job")
    for room in job.rooms:
        lines = set(room.line_ids())
        standing = {wall_of(room, source) for source, _ in all_things(room)} - {""}
        surfaces = set(room.surface_ids())
        if any(r.wall in surfaces - lines for r in room.runs):
            raise PlankError("Units stand on no face of a column.", room.name, "Choose a wall or an island.")
        for wall in sorted(({r.wall for r in room.runs} - lines) | (standing - surfaces)):
            raise PlankError(f"There is no wall “{wall[:20]}”.", "job")
        for name, wall in [(o.id, o.wall) for o in room.openings] + [(s.id, s.wall) for s in room.slopes]:
            if wall not in lines:
                raise PlankError(f"{name} stands on no wall.", room.name)
        for run in room.runs:
            if run.free and (run.level is not Level.HUNG or run.start is None or run.bottom is None):
                raise PlankError("What hangs by itself has no place.", room.name)
        for doors in (d for run in room.runs for d in run.sliding):
            if not 2 <= len(doors.leaves) <= MOST_LEAVES or not all(leaf.bands for leaf in doors.leaves):
                raise PlankError("Sliding doors have too few or too many leaves.", room.name)
        if any(u.image not in {p.name for p in job.pictures} for u in room.underlays):
            raise PlankError("A plan image has no picture.", "job")
        for window in room.roof_windows:
            roof_window_frame(room, window)
        if any(f.treatment not in treatments for f in room.fields):
            raise PlankError("A wall field has no treatment.", "job")
        if any(len(s.corners) < 3 for s in room.soffits):
            raise PlankError("A soffit has no outline.", "job")
        letters = [*room.wall_ids(), *(i.letter for i in room.islands)]
        if len(set(letters)) != len(letters):
            raise PlankError("Two walls have one letter.", "job")
    reevaluated(job)
    with through("job", "job", ""):
        set_out(job)
    for room in job.rooms:
        for part in (msgspec.structs.replace(room, runs=()), *room.runs):
            _check_read_again(part)
    for part in (*job.units, *job.values, *((job.kept_plan,) if job.kept_plan is not None else ())):
        _check_read_again(part)
    # What is left of the job without its long lists.
    lists: dict[str, Any] = dict.fromkeys(("rooms", "units", "values", "templates", "standards", "pictures"), ())
    _check_read_again(msgspec.structs.replace(job, **lists, stock=NO_STOCK, kept_plan=None))


@remembered(16)
def _check_stock(stock: Any) -> None:
    check_stock(stock)


@remembered(256)
def _check_standard(standard: Any) -> None:
    check_standard(standard)


@remembered(4096)
def _check_own(holder: Any) -> None:
    """Own values of a unit or a kind are choices that there are."""
    for own in holder.own:
        if not is_choice(own.key, own.value):
            what = f"“{str(own.value)[:40]}” is no choice of {own.key.replace('_', ' ')}."
            raise PlankError(what, "job")


@remembered(4096)
def _check_bay(bay: Bay) -> None:
    """Fronts of a bay and of all inside it are of styles that there are."""
    style = bay.front.style if bay.front is not None else ""
    if style and style not in CHOICES["front_style"]:
        raise PlankError(f"There is no style “{style[:40]}” of fronts.", "job")
    for child in bay.children:
        _check_bay(child)


def _check_size(job: Basis, unit_id: str, number: str) -> None:
    """A unit's sizes make sense, whoever gives them."""
    unit = job.unit(unit_id)
    for key in ("height", "depth"):
        in_sense(key, size_of(job, unit, key), SIZES[key], f"unit {number}")


@remembered(16384)
def _check_read_again(part: msgspec.Struct) -> None:
    """What is written of a part of a job can be read, and is the same."""
    try:
        again = msgspec.json.decode(msgspec.json.encode(part), type=type(part), strict=False)
    except (msgspec.ValidationError, UnicodeEncodeError, TypeError, ValueError) as error:
        raise PlankError(f"That cannot be kept: {error}.", "job", "Type something else.") from None
    if again != part:
        raise PlankError("That cannot be kept as it is.", "job", "Type something else.")
