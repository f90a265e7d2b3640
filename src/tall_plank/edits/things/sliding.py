"""Edits of sliding doors: their opening, leaves, overlap, lines, and the bands of each leaf (BY4)."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import msgspec

from tall_plank.edits.bays import FRONTS
from tall_plank.edits.change import Change, new_ids, with_fronts_back, with_run, with_unit
from tall_plank.edits.rooms import read, read_in
from tall_plank.edits.things.common import ThingEdits
from tall_plank.edits.whole import MOST_LEAVES
from tall_plank.job import Body, Job, Kind, Run
from tall_plank.job.bays import INSIDE, Front
from tall_plank.job.inherit import finish_of
from tall_plank.job.scheme import Role
from tall_plank.job.things.sliding import Band, BayRef, Leaf, Replaced, SlidingDoors
from tall_plank.making import make_one
from tall_plank.making.sliding import overlaps
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


@dataclass(frozen=True)
class Covering:
    """What sliding doors before some bays would stand before.

    Attributes
    ----------
    bays : from the left, the lowest first
    x0, x1, z0, z1 : of the opening, mm from the left end of the wall and above the floor
    replaced : fronts that would stand behind the leaves
    """

    bays: tuple[BayRef, ...]
    wall_id: str
    x0: float
    x1: float
    z0: float
    z1: float
    replaced: tuple[Replaced, ...]

    @property
    def leaves(self) -> int:
        """As many leaves as the width asks for, mm: none wider than they run well."""
        return min(MOST_LEAVES, max(2, math.ceil((self.x1 - self.x0) / WIDE_LEAF)))


WIDE_LEAF = 1200.0
"""mm of opening for each leaf, at most, to begin with."""


def covering(job: Job, bays: tuple[BayRef, ...]) -> Covering:
    """What sliding doors before some bays would stand before, and which fronts they would replace.

    Raises
    ------
    PlankError where the bays are on several walls, something without bays stands between them, or a front lies only
    partly behind the leaves
    """
    layout = set_out(job)
    spans: list[tuple[float, float, float, float, BayRef]] = []
    walls: set[tuple[str, str]] = set()
    for ref in dict.fromkeys(bays):
        _, _, cell = job.find_cell(ref.cell)
        unit, placed = make_one(job, layout, ref.cell), layout.find(ref.cell)
        box = next((b for b in unit.set.boxes if b.path == ref.path), None) if unit and unit.set else None
        if job.template_of(cell).body is not Body.CARCASS:
            raise PlankError("Sliding doors stand before units with bays.", "sliding doors", "Choose other units.")
        if box is None or placed is None:
            raise PlankError("This bay is not set out.", "sliding doors", "Mend its unit first.")
        z = box.zone
        walls.add((placed.room, placed.wall_id))
        spans.append((placed.x + z.x0, placed.x + z.x1, placed.bottom + z.z0, placed.bottom + z.z1, ref))
    if len(walls) != 1:
        raise PlankError("The bays stand on several walls.", "sliding doors", "Choose bays of one wall.")
    room_id, wall_id = next(iter(walls))
    x0, x1 = min(s[0] for s in spans), max(s[1] for s in spans)
    z0, z1 = min(s[2] for s in spans), max(s[3] for s in spans)
    replaced: list[Replaced] = []
    for p in layout.room(room_id).placed:
        if p.wall_id != wall_id or not p.is_solid or not overlaps(p, x0, x1, z0, z1):
            continue
        found = make_one(job, layout, p.cell)
        if p.body is not Body.CARCASS:
            what = f"{p.number}, {job.template(p.template).name.lower()}, stands between them."
            raise PlankError(what, "sliding doors", "Choose bays that stand side by side.")
        if found is None or found.set is None:
            continue
        for box in found.set.boxes:
            front = box.bay.front
            if front is None or front.kind in INSIDE:
                continue
            low, high = p.bottom + box.zone.z0, p.bottom + box.zone.z1
            left, right = p.x + box.zone.x0, p.x + box.zone.x1
            if min(right, x1) - max(left, x0) < 1.0 or min(high, z1) - max(low, z0) < 1.0:
                continue
            if left < x0 - 1.0 or right > x1 + 1.0 or low < z0 - 1.0 or high > z1 + 1.0:
                word = FRONTS.get(front.kind, front.kind).partition(",")[0]
                what = f"The {word} of {p.number} reaches past the doors."
                raise PlankError(what, "sliding doors", "Choose the whole bay behind it, or leave that bay out.")
            replaced.append(Replaced(p.cell, box.path, front))
    refs = tuple(s[4] for s in sorted(spans, key=lambda s: (s[0], s[2])))
    return Covering(refs, wall_id, x0, x1, z0, z1, tuple(replaced))


def told_replaced(job: Job, replaced: tuple[Replaced, ...]) -> str:
    """Fronts that sliding doors replace, in words: the flap of T1, 2 drawers each of T2, T3."""
    counts: dict[tuple[str, str], int] = {}
    for r in replaced:
        _, _, cell = job.find_cell(r.cell)
        counts[r.front.kind, cell.number] = counts.get((r.front.kind, cell.number), 0) + 1
    alike: dict[tuple[str, int], list[str]] = {}
    for (kind, number), n in counts.items():
        alike.setdefault((kind, n), []).append(number)
    told = []
    for (kind, n), numbers in alike.items():
        word = FRONTS.get(kind, kind).partition(",")[0]
        many = f"pairs{word[4:]}" if word.startswith("pair ") else f"{word}s"
        each = " each" if n > 1 and len(numbers) > 1 else ""
        told.append(f"{f'{n} {many}' if n > 1 else f'the {word}'}{each} of {', '.join(numbers)}")
    return "; ".join(told)


def add_sliding_over(job: Job, bays: tuple[BayRef, ...], leaves: int = 0) -> Change:
    """Sliding doors before chosen bays of one or several units of a wall. Fronts that would stand behind the leaves are
    replaced, named, and come back when the doors go; all others stay. The leaves start filled with the units' front
    finish.

    Parameters
    ----------
    leaves : 0: as many as the width asks for

    Raises
    ------
    PlankError where the bays cannot be covered together
    """
    if not bays:
        raise PlankError("No bay is chosen.", "sliding doors", "Choose one bay or more.")
    over = covering(job, bays)
    _, run, cell = job.find_cell(over.bays[0].cell)
    finish = finish_of(job, job.unit(cell.unit), Role.FRONT)
    told = told_replaced(job, over.replaced)
    job, (doors_id,) = new_ids(job, "l")
    first, last = over.bays[0], over.bays[-1]
    doors = SlidingDoors(
        doors_id, first, last, (Leaf((Band(finish),)),) * _count(leaves or over.leaves),
        more=over.bays[1:-1], replaced=over.replaced,
    )  # fmt: skip
    for r in over.replaced:
        job = _with_front(job, r.cell, r.path, None)
    _, run = job.find_run(run.id)
    job = with_run(job, msgspec.structs.replace(run, sliding=(*run.sliding, doors)))
    note = f"The sliding doors replace {told}: these come back when the doors go." if told else ""
    return Change(job, "Put sliding doors", made=(doors_id,), told=note)


def add_sliding(job: Job, first: BayRef, last: BayRef, leaves: int = 2) -> Change:
    """Sliding doors before an opening from one bay to another.

    Raises
    ------
    PlankError where the bays cannot be covered together
    """
    return add_sliding_over(job, (first, last), leaves)


def _with_front(job: Job, cell_id: str, path: tuple[int, ...], front: Front | None) -> Job:
    _, _, cell = job.find_cell(cell_id)
    unit = job.unit(cell.unit)
    bay = unit.bay.replaced(path, msgspec.structs.replace(unit.bay.at(path), front=front))
    return with_unit(job, msgspec.structs.replace(unit, bay=bay))


def _count(leaves: int) -> int:
    if not 2 <= leaves <= MOST_LEAVES:
        raise PlankError(f"{leaves} leaves are not possible.", "leaves", f"From 2 to {MOST_LEAVES}.")
    return leaves


def delete_sliding(job: Job, doors_id: str) -> Change:
    """Take sliding doors away; the fronts that they replaced come back."""
    run, doors = find_sliding(job, doors_id)
    sliding = tuple(d for d in run.sliding if d.id != doors_id)
    job = with_run(job, msgspec.structs.replace(run, sliding=sliding))
    return Change(with_fronts_back(job, doors), "Take the sliding doors away")


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
