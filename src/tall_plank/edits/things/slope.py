"""Edits of sloped ceilings."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change, new_ids, with_room
from tall_plank.edits.rooms import read_in
from tall_plank.edits.things.common import ThingEdits, added, deleted, replaced
from tall_plank.job import Job, Kind, Slope
from tall_plank.job.things.table import find_thing
from tall_plank.measure import Length, PlankError


def add_slope(job: Job, room_id: str, wall_id: str) -> Change:
    """Let the ceiling slope down to a wall: two thirds of the height there, the whole height 1500 from it.

    Raises
    ------
    PlankError “The ceiling slopes to wall … already.”
    """
    room = job.room(room_id)
    if any(s.wall == wall_id for s in room.slopes):
        raise PlankError(f"The ceiling slopes to wall {wall_id} already.", f"wall {wall_id}", "Change that slope.")
    job, (new_id,) = new_ids(job, "l")
    slope = Slope(new_id, wall_id, Length.of(round(room.height.mm * 2 / 3)), Length.of(1500.0))
    return added(job, room_id, Kind.SLOPE, slope, "Slope the ceiling")


def set_slope(job: Job, slope_id: str, key: str, text: str) -> Change:
    """Set the height at the wall (low) or the distance at which the whole height is reached (run).

    Raises
    ------
    PlankError “A slope has no ….”
    """
    room, slope = find_thing(job, Kind.SLOPE, slope_id)
    if key not in ("low", "run"):
        raise PlankError(f"A slope has no {key}.", "slope", "Choose low or run.")
    new = msgspec.structs.replace(slope, **{key: read_in(job, text, Slope, key)})
    return replaced(job, room, Kind.SLOPE, new, "Set the slope")


def delete_slope(job: Job, slope_id: str) -> Change:
    """Take a slope away, and the roof windows in it."""
    room, _ = find_thing(job, Kind.SLOPE, slope_id)
    left = tuple(w for w in room.roof_windows if w.slope != slope_id)
    return deleted(with_room(job, msgspec.structs.replace(room, roof_windows=left)), Kind.SLOPE, slope_id)


SLOPE = ThingEdits(
    add={
        "slope": lambda job, spot: add_slope(job, spot.room, spot.wall_id),
    },
    set=set_slope,
    delete=delete_slope,
)
