"""Edits of sliding doors: their opening, leaves, overlap, lines, and the bands of each leaf (BY4)."""

from __future__ import annotations

from collections.abc import Callable

import msgspec

from tall_plank.edits.change import Change, new_ids, with_run
from tall_plank.edits.rooms import read, read_in
from tall_plank.edits.things.common import ThingEdits
from tall_plank.edits.whole import MOST_LEAVES
from tall_plank.job import Body, Job, Kind, Run
from tall_plank.job.bays import INSIDE
from tall_plank.job.things.sliding import Band, BayRef, Leaf, SlidingDoors
from tall_plank.measure import PlankError
from tall_plank.setout import set_out

MOST_BANDS = 8


def find_sliding(job: Job, doors_id: str) -> tuple[Run, SlidingDoors]:
    """A set and its run.

    Raises
    ------
    PlankError where it is gone
    """
    for _, run in job.runs():
        for doors in run.sliding:
            if doors.id == doors_id:
                return run, doors
    raise PlankError("These sliding doors are gone.", "sliding doors", "Choose others.")


def _replaced(job: Job, run: Run, doors: SlidingDoors, name: str) -> Change:
    sliding = tuple(doors if d.id == doors.id else d for d in run.sliding)
    return Change(with_run(job, msgspec.structs.replace(run, sliding=sliding)), name)


def add_sliding(job: Job, first: BayRef, last: BayRef, leaves: int = 2) -> Change:
    """Sliding doors before an opening from one bay to another of the same run. Doors of the units behind them that lie
    in the opening are left out; the leaves start filled with the units' front finish.

    Raises
    ------
    PlankError where the bays are not in one run of units with bays
    """
    from tall_plank.job.inherit import finish_of
    from tall_plank.job.scheme import Role

    _, run, cell = job.find_cell(first.cell)
    _, other, _ = job.find_cell(last.cell)
    if run.id != other.id:
        raise PlankError("The two bays stand in different runs.", "sliding doors", "Choose bays of one run.")
    layout = set_out(job).run(run.id)
    assert layout is not None
    order = [p.cell for p in layout.cells]
    if order.index(first.cell) > order.index(last.cell):
        first, last = last, first
    low, high = order.index(first.cell), order.index(last.cell)
    behind = order[low : high + 1]
    for one in behind:
        if job.template_of(job.find_cell(one)[2]).body is not Body.CARCASS:
            raise PlankError("Sliding doors stand before units with bays.", "sliding doors", "Choose other units.")
    finish = finish_of(job, job.unit(cell.unit), Role.FRONT)
    job, (doors_id,) = new_ids(job, "l")
    doors = SlidingDoors(doors_id, first, last, (Leaf((Band(finish),)),) * _count(leaves))
    job = _bared(job, first, last, behind)
    _, run = job.find_run(run.id)
    new = msgspec.structs.replace(run, sliding=(*run.sliding, doors))
    return Change(with_run(job, new), "Put sliding doors", made=(doors_id,))


def _bared(job: Job, first: BayRef, last: BayRef, cells: list[str]) -> Job:
    """The job with no fronts but inner drawers where the doors of an opening will stand."""
    from tall_plank.edits.change import with_unit
    from tall_plank.workings import Workings

    made = Workings(job).made
    layout = set_out(job)
    spans = []
    for ref in (first, last):
        unit, placed = made.of(ref.cell), layout.find(ref.cell)
        box = next((b for b in unit.set.boxes if b.path == ref.path), None) if unit and unit.set else None
        if box is None or placed is None:
            raise PlankError("This bay is not set out.", "sliding doors", "Mend its unit first.")
        spans.append((placed.bottom + box.zone.z0, placed.bottom + box.zone.z1))
    low, high = min(s[0] for s in spans), max(s[1] for s in spans)
    for cell in cells:
        found, placed = made.of(cell), layout.find(cell)
        if found is None or found.set is None or placed is None:
            continue
        unit_now = job.unit(job.find_cell(cell)[2].unit)
        bay = unit_now.bay
        for box in found.set.boxes:
            front = bay.at(box.path).front
            inside = placed.bottom + box.zone.z1 > low + 1.0 and placed.bottom + box.zone.z0 < high - 1.0
            if front is not None and front.kind not in INSIDE and inside:
                bay = bay.replaced(box.path, msgspec.structs.replace(bay.at(box.path), front=None))
        job = with_unit(job, msgspec.structs.replace(unit_now, bay=bay))
    return job


def _count(leaves: int) -> int:
    if not 2 <= leaves <= MOST_LEAVES:
        raise PlankError(f"{leaves} leaves are not possible.", "leaves", f"From 2 to {MOST_LEAVES}.")
    return leaves


def delete_sliding(job: Job, doors_id: str) -> Change:
    """Take sliding doors away."""
    run, _ = find_sliding(job, doors_id)
    sliding = tuple(d for d in run.sliding if d.id != doors_id)
    return Change(with_run(job, msgspec.structs.replace(run, sliding=sliding)), "Take the sliding doors away")


def set_sliding(job: Job, doors_id: str, key: str, text: str) -> Change:
    """Set the number of leaves, or the overlap (nothing: the standard's).

    Raises
    ------
    PlankError “Sliding doors have no ….”, “… is no number of leaves.”
    """
    run, doors = find_sliding(job, doors_id)
    if key == "leaves":
        if not text.strip().isdigit():
            raise PlankError(f"“{text}” is no number of leaves.", "leaves", f"From 2 to {MOST_LEAVES}.")
        count = _count(int(text))
        leaves = doors.leaves[:count]
        for i in range(len(leaves), count):
            # The next one is made up like the last, on the line of the last but one.
            leaves = (*leaves, msgspec.structs.replace(leaves[-1], line=leaves[i - 2].line))
        return _replaced(job, run, msgspec.structs.replace(doors, leaves=leaves), "Set the leaves")
    if key == "overlap":
        value = read_in(job, text, SlidingDoors, key) if text.strip() else None
        return _replaced(job, run, msgspec.structs.replace(doors, overlap=value), "Set the overlap")
    raise PlankError(f"Sliding doors have no {key}.", "sliding doors", "Choose leaves or overlap.")


def _with_leaf(job: Job, doors_id: str, index: int, change: Callable[[Leaf], Leaf], name: str) -> Change:
    run, doors = find_sliding(job, doors_id)
    if not 0 <= index < len(doors.leaves):
        raise PlankError("There is no such leaf.", "leaf", "Choose another one.")
    leaves = (*doors.leaves[:index], change(doors.leaves[index]), *doors.leaves[index + 1 :])
    return _replaced(job, run, msgspec.structs.replace(doors, leaves=leaves), name)


def set_line(job: Job, doors_id: str, index: int, line: str) -> Change:
    """Let a leaf run in front or behind; the others follow in turns, since neighbours never share a line. Empty: as
    the doors started.

    Raises
    ------
    PlankError “… is no line.”, “There is no such leaf.”
    """
    if line not in ("", "front", "rear"):
        raise PlankError(f"“{line}” is no line.", "leaf", "Choose front or rear.")
    run, doors = find_sliding(job, doors_id)
    if not 0 <= index < len(doors.leaves):
        raise PlankError("There is no such leaf.", "leaf", "Choose another one.")
    other = {"front": "rear", "rear": "front", "": ""}[line]
    leaves = tuple(
        msgspec.structs.replace(leaf, line=line if (i - index) % 2 == 0 else other)
        for i, leaf in enumerate(doors.leaves)
    )
    name = f"Set the line of leaf {index + 1}"
    return _replaced(job, run, msgspec.structs.replace(doors, leaves=leaves), name)


def fillings(job: Job) -> tuple[tuple[str, str], ...]:
    """Finishes that a band may have: those of fronts that are stocked thin enough, glass and mirror."""
    found = []
    for finish in job.stock.finishes:
        boards = [b for b in job.stock.boards if b.finish == finish.code]
        if "glass" in finish.roles or ("front" in finish.roles and any(b.thickness <= 12 for b in boards)):
            found.append((finish.code, finish.name))
    return tuple(found)


def set_band(job: Job, doors_id: str, index: int, band: int, key: str, text: str) -> Change:
    """Set a band's finish, or its height (nothing or share: a share of what is left).

    Raises
    ------
    PlankError “There is no such band.”, “… fills no leaf.”, “One band fills its leaf.”
    """
    _, doors = find_sliding(job, doors_id)
    if not (0 <= index < len(doors.leaves) and 0 <= band < len(doors.leaves[index].bands)):
        raise PlankError("There is no such band.", "leaf", "Choose another one.")
    bands = doors.leaves[index].bands
    if key == "finish":
        if text not in dict(fillings(job)):
            raise PlankError(f"“{text}” fills no leaf.", "band", f"Known: {', '.join(dict(fillings(job)))}.")
        new = msgspec.structs.replace(bands[band], finish=text)
        changed = (*bands[:band], new, *bands[band + 1 :])
    else:
        size = read(job, text, least=60, most=3000) if text.strip().lower() not in ("", "share") else None
        listed = list(bands)
        listed[band] = msgspec.structs.replace(bands[band], size=size)
        if size is not None and all(b.size is not None for b in listed):
            if len(listed) == 1:
                raise PlankError("One band fills its leaf.", "band", "Add a band first.")
            other = band + 1 if band + 1 < len(listed) else band - 1
            listed[other] = msgspec.structs.replace(listed[other], size=None)
        changed = tuple(listed)
    change = _with_leaf(
        job,
        doors_id,
        index,
        lambda leaf: msgspec.structs.replace(leaf, bands=changed),
        f"Set a band of leaf {index + 1}",
    )
    check(change.job, doors_id)
    return change


def set_band_count(job: Job, doors_id: str, index: int, text: str) -> Change:
    """Split a leaf into a number of bands; those that are there stay, from the top.

    Raises
    ------
    PlankError “… is no number of bands.”
    """
    if not text.strip().isdigit() or not 1 <= int(text) <= MOST_BANDS:
        raise PlankError(f"“{text}” is no number of bands.", "bands", f"From 1 to {MOST_BANDS}.")
    count = int(text)

    def change(leaf: Leaf) -> Leaf:
        bands = leaf.bands[:count]
        bands = (*bands, *((msgspec.structs.replace(bands[-1], size=None),) * (count - len(bands))))
        if all(b.size is not None for b in bands):
            bands = (*bands[:-1], msgspec.structs.replace(bands[-1], size=None))
        return msgspec.structs.replace(leaf, bands=bands)

    return _with_leaf(job, doors_id, index, change, f"Set the bands of leaf {index + 1}")


def copy_leaf(job: Job, doors_id: str, index: int) -> Change:
    """Make up all the other leaves as one is; each keeps its line.

    Raises
    ------
    PlankError “There is no such leaf.”
    """
    run, doors = find_sliding(job, doors_id)
    if not 0 <= index < len(doors.leaves):
        raise PlankError("There is no such leaf.", "leaf", "Choose another one.")
    bands = doors.leaves[index].bands
    leaves = tuple(msgspec.structs.replace(leaf, bands=bands) for leaf in doors.leaves)
    return _replaced(job, run, msgspec.structs.replace(doors, leaves=leaves), f"Make all leaves as leaf {index + 1}")


def check(job: Job, doors_id: str) -> None:
    """Raises PlankError where the set cannot be made as decided."""
    from tall_plank.workings import Workings

    made = next((s for s in Workings(job).made.sliding if s.source == Kind.SLIDING.of(doors_id)), None)
    if made is not None and made.problems:
        raise PlankError(made.problems[0].what, "sliding doors", made.problems[0].remedy)


SLIDING = ThingEdits(add={}, set=set_sliding, delete=delete_sliding)
