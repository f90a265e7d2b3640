"""Fittings inside a bay: rails, baskets, trays, lights and the like."""

from __future__ import annotations

from typing import Any

import msgspec

from tall_plank.edits.bays import Path, check_free, still_made, unit_at, with_bay
from tall_plank.edits.change import Change
from tall_plank.edits.rooms import read_in
from tall_plank.job import Job
from tall_plank.job.bays import Fitted
from tall_plank.measure import PlankError


def add_fitting(job: Job, cell_id: str, path: Path, code: str, start: str = "") -> Change:
    """Put a fitting into a bay, placed as such a fitting is where no start is given.

    Raises
    ------
    PlankError where it does not fit: with the clear size that it needs
    """
    number, unit, bay = unit_at(job, cell_id, path)
    thing = job.stock.fitting(code)
    if thing is None or not thing.is_inside:
        raise PlankError(f"“{code}” is nothing to put into a bay.", "fitting", "Choose one of the stock.")
    if bay.children:
        raise PlankError("This bay is split.", number, "Choose one of the bays in it.")
    check_free(number, bay)
    fitted = Fitted(code, start)  # type: ignore[arg-type]
    new = msgspec.structs.replace(bay, fittings=(*bay.fittings, fitted))
    return still_made(job, cell_id, with_bay(job, unit, path, new, f"Put in: {thing.name.lower()}"))


def set_fitting(job: Job, cell_id: str, path: Path, index: int, key: str, text: str) -> Change:
    """Where a fitting is placed: `start` (low, high, middle) or `at` (distance; nothing: its own).

    Raises
    ------
    PlankError “There is no such fitting.”, “… is no place.”
    """
    number, unit, bay = unit_at(job, cell_id, path)
    if not 0 <= index < len(bay.fittings):
        raise PlankError("There is no such fitting.", number, "Choose another one.")
    values: dict[str, Any]
    if key == "start":
        if text not in ("low", "high", "middle"):
            raise PlankError(f"“{text}” is no place.", "fitting", "Choose low, high or middle.")
        values = {"start": text, "at": None}
    else:
        values = {"at": read_in(job, text, Fitted, "at") if text.strip() else None}
    fitted = msgspec.structs.replace(bay.fittings[index], **values)
    fittings = (*bay.fittings[:index], fitted, *bay.fittings[index + 1 :])
    new = msgspec.structs.replace(bay, fittings=fittings)
    return still_made(job, cell_id, with_bay(job, unit, path, new, f"Move a fitting of {number}"))


def remove_fitting(job: Job, cell_id: str, path: Path, index: int) -> Change:
    """Take a fitting out of a bay.

    Raises
    ------
    PlankError “There is no such fitting.”
    """
    number, unit, bay = unit_at(job, cell_id, path)
    if not 0 <= index < len(bay.fittings):
        raise PlankError("There is no such fitting.", number, "Choose another one.")
    new = msgspec.structs.replace(bay, fittings=(*bay.fittings[:index], *bay.fittings[index + 1 :]))
    return with_bay(job, unit, path, new, f"Take a fitting out of {number}")
