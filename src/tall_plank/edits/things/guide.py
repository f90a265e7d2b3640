"""Edits of the designer's own guide lines (HD1)."""

from __future__ import annotations

from collections.abc import Callable

import msgspec

from tall_plank.edits.change import Change, new_ids
from tall_plank.edits.rooms import read
from tall_plank.edits.things.common import Spot, ThingEdits, added, deleted, replaced
from tall_plank.job import Guide, Job, Kind, Room
from tall_plank.job.things.table import find_thing
from tall_plank.measure import Length, PlankError
from tall_plank.measure import outlines as ol
from tall_plank.measure.limits import check_reach
from tall_plank.setout.rooms import corners_of, find_wall

NAMES = {"upright": "x", "level": "z", "across": "y"}
"""What a guide line is called, and its axis; an upright one without a wall runs north and south on the plan."""


def reach(room: Room, axis: str, wall_id: str) -> float:
    """How far a guide line may lie from where it is measured, mm."""
    if axis == "z":
        return room.height.mm
    if wall_id:
        return find_wall(room, wall_id).length
    x0, y0, x1, y1 = ol.bounds(corners_of(room.outline))
    return x1 - x0 if axis == "x" else y1 - y0


def add_guide(job: Job, room_id: str, axis: str, wall_id: str = "", at: float | None = None) -> Change:
    """A guide line, in the middle or at a place, mm. A level one takes the value `eye_line` where the job has it.

    Raises
    ------
    PlankError where there is no such wall or axis
    """
    check_reach(at)
    room = job.room(room_id)
    if axis not in NAMES.values():
        raise PlankError(f"“{axis}” is no guide line.", "guide line", f"Choose {', '.join(NAMES)}.")
    if wall_id and (wall_id not in room.wall_ids() or axis != "x"):
        raise PlankError(f"There is no wall {wall_id}.", "guide line", "Choose another wall.")
    most = reach(room, axis, wall_id)
    place = Length.of(float(round(min(max(0.0, most / 2 if at is None else at), most))))
    if axis == "z" and at is None and "eye_line" in job.named_values():
        place = read(job, "eye_line")
    job, (new_id,) = new_ids(job, "g")
    return added(job, room_id, Kind.GUIDE, Guide(new_id, axis, place, wall_id), "Add a guide line")  # type: ignore[arg-type]


def set_guide(job: Job, guide_id: str, text: str) -> Change:
    """Type where a guide line lies."""
    room, guide = find_thing(job, Kind.GUIDE, guide_id)
    length = read(job, text, least=0.0, most=reach(room, guide.axis, guide.wall))
    return replaced(job, room, Kind.GUIDE, msgspec.structs.replace(guide, at=length), "Set the guide line")


def move_guide(job: Job, guide_id: str, at: float) -> Change:
    """Drag a guide line, held inside the room, to whole millimetres. `at`: mm."""
    check_reach(at)
    room, guide = find_thing(job, Kind.GUIDE, guide_id)
    place = float(round(min(max(0.0, at), reach(room, guide.axis, guide.wall))))
    return replaced(job, room, Kind.GUIDE, msgspec.structs.replace(guide, at=Length.of(place)), "Move the guide line")


def clear_guides(job: Job, room_id: str) -> Change:
    """Take every guide line of a room away. Units that were held by one stand where their order puts them."""
    change = Change(job, "Clear the guide lines")
    for guide in job.room(room_id).guides:
        change = deleted(change.job, Kind.GUIDE, guide.id)
    return Change(change.job, "Clear the guide lines")


def delete_guide(job: Job, thing_id: str) -> Change:
    """Take a guide line away; cells that it held stand free."""
    return deleted(job, Kind.GUIDE, thing_id)


def _add(job: Job, spot: Spot, axis: str) -> Change:
    if spot.at is not None:
        place = spot.at[0] if axis == "x" else spot.at[1]
        return add_guide(job, spot.room, axis if axis != "z" else "y", "", place)
    on_wall = axis == "x"
    return add_guide(job, spot.room, axis, spot.wall_id if on_wall else "", spot.x if on_wall else None)


def _adder(axis: str) -> Callable[[Job, Spot], Change]:
    return lambda job, spot: _add(job, spot, axis)


GUIDE = ThingEdits(
    add={name: _adder(axis) for name, axis in NAMES.items()},
    set=lambda job, guide_id, key, text: set_guide(job, guide_id, text),
    delete=delete_guide,
    slide=move_guide,
)
