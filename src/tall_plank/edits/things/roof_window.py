"""Edits of roof windows."""

from __future__ import annotations

import math

import msgspec

from tall_plank.edits.change import Change, new_ids
from tall_plank.edits.rooms import read_in
from tall_plank.edits.things.common import ThingEdits, added, deleted, replaced
from tall_plank.job import Job, Kind, RoofWindow
from tall_plank.job.things.table import find_thing
from tall_plank.measure import Length, PlankError
from tall_plank.measure.limits import check_reach
from tall_plank.setout.rooms import find_wall


def add_roof_window(job: Job, room_id: str, wall_id: str, x: float | None = None) -> Change:
    """A roof window of 780 x 980, or as large as fits, in the slope over a wall, in its middle or at x. `x`: mm.

    Raises
    ------
    PlankError where no ceiling slopes to this wall
    """
    check_reach(x)
    room = job.room(room_id)
    slope = next((s for s in room.slopes if s.wall == wall_id), None)
    if slope is None:
        raise PlankError(f"No ceiling slopes down to wall {wall_id}.", "roof window", "Slope the ceiling there first.")
    length = find_wall(room, wall_id).length
    rise = room.height.mm - slope.low.mm
    pitch = math.hypot(rise, slope.run.mm)
    width, high = min(780.0, length), min(980.0, pitch * 0.8)
    sill = slope.low.mm + (pitch - high) / 2 * rise / pitch
    at = (length - width) / 2 if x is None else min(max(0.0, x), length - width)
    job, (new_id,) = new_ids(job, "y")
    whole = [Length.of(v) for v in (math.floor(at), math.floor(width), math.ceil(sill), math.floor(high) - 2.0)]
    window = RoofWindow(new_id, slope.id, whole[0], whole[1], whole[2], whole[3])
    return added(job, room_id, Kind.ROOF_WINDOW, window, "Add a roof window")


def set_roof_window(job: Job, window_id: str, key: str, text: str) -> Change:
    """Set x, width, sill (its lower edge above the floor) or length (up the slope) of a roof window.

    Raises
    ------
    PlankError “A roof window has no ….”
    """
    room, window = find_thing(job, Kind.ROOF_WINDOW, window_id)
    if key not in ("x", "width", "sill", "length"):
        raise PlankError(f"A roof window has no {key}.", "roof window", "Choose x, width, sill or length.")
    new = msgspec.structs.replace(window, **{key: read_in(job, text, RoofWindow, key)})
    return replaced(job, room, Kind.ROOF_WINDOW, new, f"Set the roof window's {key}")


def move_roof_window(job: Job, window_id: str, x: float) -> Change:
    """Drag a roof window along its slope, held to the ends of the wall. `x`: mm."""
    check_reach(x)
    room, window = find_thing(job, Kind.ROOF_WINDOW, window_id)
    slope = next(s for s in room.slopes if s.id == window.slope)
    length = find_wall(room, slope.wall).length
    at = min(max(0.0, x), max(0.0, length - window.width.mm))
    new = msgspec.structs.replace(window, x=Length.of(float(round(at))))
    return replaced(job, room, Kind.ROOF_WINDOW, new, "Move the roof window")


def delete_roof_window(job: Job, thing_id: str) -> Change:
    """Take a roof window away."""
    return deleted(job, Kind.ROOF_WINDOW, thing_id)


ROOF_WINDOW = ThingEdits(
    add={
        "roof window": lambda job, spot: add_roof_window(job, spot.room, spot.wall_id, spot.x),
    },
    set=set_roof_window,
    delete=delete_roof_window,
    slide=move_roof_window,
)
