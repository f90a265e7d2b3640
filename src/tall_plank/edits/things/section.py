"""Edits of section lines: where a room is cut open for a drawing."""

from __future__ import annotations

import math
from collections.abc import Callable

import msgspec

from tall_plank.edits.change import Change, new_ids
from tall_plank.edits.rooms import read
from tall_plank.edits.things.common import Spot, ThingEdits, added, deleted, replaced
from tall_plank.job import Job, Kind, Room
from tall_plank.job.things.section import Section
from tall_plank.job.things.table import find_thing
from tall_plank.measure import Length, PlankError
from tall_plank.measure import outlines as ol
from tall_plank.measure.limits import check_reach
from tall_plank.setout.rooms import corners_of
from tall_plank.setout.things.section import cuts_room

NAMES = {"section across": "x", "section along": "y"}
"""What a section line is called on the shelf, and the axis of the plan that it runs along."""

ENDS = ("x1", "y1", "x2", "y2")

LEAST = 100.0
"""mm; a shorter line cuts nothing that could be drawn."""

REACH = 100_000.0


def add_section(job: Job, room_id: str, axis: str, at: float | None = None) -> Change:
    """A section line from side to side of a room, in its middle or at a place, mm.

    Raises
    ------
    PlankError where that place lies beside the room
    """
    check_reach(at)
    if axis not in ("x", "y"):
        raise PlankError(f"“{axis}” is no way that a section runs.", "section", "Choose x or y.")
    room = job.room(room_id)
    x0, y0, x1, y1 = ol.bounds(corners_of(room.outline))
    if axis == "x":
        y = float(round((y0 + y1) / 2 if at is None else at))
        ends = (x0, y, x1, y)
    else:
        x = float(round((x0 + x1) / 2 if at is None else at))
        ends = (x, y0, x, y1)
    job, (new_id,) = new_ids(job, "q")
    ax, ay, bx, by = (Length.of(v) for v in ends)
    section = Section(new_id, ax, ay, bx, by)
    _crosses(room, section)
    return added(job, room_id, Kind.SECTION, section, "Add a section")


def _crosses(room: Room, section: Section) -> None:
    """Raises PlankError where a section line is too short or lies beside its room."""
    ax, ay, bx, by = (getattr(section, key).mm for key in ENDS)
    if math.dist((ax, ay), (bx, by)) < LEAST:
        raise PlankError("The section line is too short.", "section", f"Make it {LEAST:g} mm long or more.")
    if not cuts_room(room, section):
        raise PlankError("The section line lies beside the room.", "section", "Draw it through the room.")


def set_section(job: Job, section_id: str, key: str, text: str) -> Change:
    """Set an end of a section line (x1, y1, x2, y2), or to which side it looks.

    Raises
    ------
    PlankError where it would lie beside the room, or has no such key
    """
    room, section = find_thing(job, Kind.SECTION, section_id)
    if key == "looks":
        if text not in ("left", "right"):
            raise PlankError(f"“{text}” is no side.", "section", "Choose left or right.")
        new = msgspec.structs.replace(section, looks=text)
    elif key in ENDS:
        new = msgspec.structs.replace(section, **{key: read(job, text, least=-REACH, most=REACH)})
    else:
        raise PlankError(f"A section has no {key[:20]}.", "section", f"Choose {', '.join((*ENDS, 'looks'))}.")
    _crosses(room, new)
    return replaced(job, room, Kind.SECTION, new, "Set the section")


def turn_section(job: Job, section_id: str) -> Change:
    """Look to the other side."""
    _, section = find_thing(job, Kind.SECTION, section_id)
    return set_section(job, section_id, "looks", "right" if section.looks == "left" else "left")


def move_section(job: Job, section_id: str, dx: float, dy: float) -> Change:
    """Drag a section line over the plan, to whole millimetres. `dx`, `dy`: mm.

    Raises
    ------
    PlankError where it would lie beside the room
    """
    check_reach(dx, dy)
    room, section = find_thing(job, Kind.SECTION, section_id)
    by = {"x1": dx, "y1": dy, "x2": dx, "y2": dy}
    ends = {key: Length.of(float(round(getattr(section, key).mm + by[key]))) for key in ENDS}
    new = msgspec.structs.replace(section, **ends)
    _crosses(room, new)
    return replaced(job, room, Kind.SECTION, new, "Move the section")


def delete_section(job: Job, thing_id: str) -> Change:
    """Take a section line away, with its drawing."""
    return deleted(job, Kind.SECTION, thing_id)


def _adder(axis: str) -> Callable[[Job, Spot], Change]:
    def add(job: Job, spot: Spot) -> Change:
        at = None if spot.at is None else spot.at[1] if axis == "x" else spot.at[0]
        return add_section(job, spot.room, axis, at)

    return add


SECTION = ThingEdits(
    add={name: _adder(axis) for name, axis in NAMES.items()},
    set=set_section,
    delete=delete_section,
    shift=move_section,
)
