"""Insides of bays that are kept under a name and put into others."""

from __future__ import annotations

import msgspec

from tall_plank.edits.bays import Path, still_made, unit_at, with_bay
from tall_plank.edits.change import Change
from tall_plank.job import Job
from tall_plank.job.bays import Insert
from tall_plank.measure import PlankError


def save_insert(job: Job, cell_id: str, path: Path, name: str) -> Change:
    """Keep the inside of a bay under a name; one of the same name is replaced.

    Raises
    ------
    PlankError where the name is empty or there is nothing in the bay
    """
    number, _, bay = unit_at(job, cell_id, path)
    name = name.strip()[:60]
    if not name:
        raise PlankError("An insert needs a name.", "insert", "Type one.")
    if not (bay.children or bay.front or bay.shelves or bay.fittings):
        raise PlankError("There is nothing in this bay.", number, "Divide it or put something in first.")
    insert = Insert(name, msgspec.structs.replace(bay, size=None, weight=1.0))
    rest = tuple(i for i in job.inserts if i.name.lower() != name.lower())
    return Change(msgspec.structs.replace(job, inserts=(*rest, insert)), f"Keep {name}")


def put_insert(job: Job, cell_id: str, path: Path, name: str) -> Change:
    """Put a kept inside into a bay, in place of what is in it. What does not fit is refused with the size it needs.

    Raises
    ------
    PlankError “There is no insert ….”
    """
    number, unit, bay = unit_at(job, cell_id, path)
    insert = next((i for i in job.inserts if i.name == name), None)
    if insert is None:
        raise PlankError(f"There is no insert “{name}”.", "insert", "Choose another one.")
    new = msgspec.structs.replace(insert.bay, size=bay.size, weight=bay.weight)
    return still_made(job, cell_id, with_bay(job, unit, path, new, f"Put {name} into {number}"))


def delete_insert(job: Job, name: str) -> Change:
    """Forget an insert; bays made with it stay.

    Raises
    ------
    PlankError “There is no insert ….”
    """
    rest = tuple(i for i in job.inserts if i.name != name)
    if len(rest) == len(job.inserts):
        raise PlankError(f"There is no insert “{name}”.", "insert", "Choose another one.")
    return Change(msgspec.structs.replace(job, inserts=rest), f"Forget {name}")
