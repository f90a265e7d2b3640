"""Edits of the room: its sizes, its name, doors and windows."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change, with_room
from tall_plank.job import Job, Rectangle, Room
from tall_plank.job.uses import USES
from tall_plank.measure import Length, PlankError, parse_length
from tall_plank.measure.limits import limits_of
from tall_plank.setout import walls_of
from tall_plank.setout.things.table import check_things


def read(job: Job, text: str, *, least: float | None = None, most: float | None = None) -> Length:
    """A typed length in the job's display unit with its named values. `least`, `most`: mm."""
    return parse_length(text, job.display, job.named_values(), least=least, most=most)


def read_in(job: Job, text: str, kind: type, key: str) -> Length:
    """A typed length that makes sense in a field of a kind of value."""
    span = limits_of(kind, key)
    return read(job, text, least=span.least, most=span.most)


def rename_room(job: Job, room_id: str, name: str) -> Change:
    """Name a room; an empty name is refused.

    Raises
    ------
    PlankError “A room needs a name.”
    """
    if not name.strip():
        raise PlankError("A room needs a name.", "room", "Type one.")
    room = msgspec.structs.replace(job.room(room_id), name=name.strip()[:80])
    return Change(with_room(job, room), "Rename the room")


def set_room_length(job: Job, room_id: str, key: str, text: str) -> Change:
    """Set width, depth, height or wall_thickness. Openings that no longer fit stop it, and say which.

    Raises
    ------
    PlankError “This room is no rectangle.”, “A room has no ….”
    """
    room = job.room(room_id)
    if key in ("width", "depth"):
        if not isinstance(room.outline, Rectangle):
            raise PlankError("This room is no rectangle.", "room", "Type the length of one of its walls.")
        outline = msgspec.structs.replace(room.outline, **{key: read_in(job, text, Rectangle, key)})
        room = msgspec.structs.replace(room, outline=outline)
    elif key in ("height", "wall_thickness"):
        room = msgspec.structs.replace(room, **{key: read_in(job, text, Room, key)})
    else:
        raise PlankError(f"A room has no {key}.", "room", "Choose width, depth, height or wall thickness.")
    check_room(job, room)
    return Change(with_room(job, room), f"Set the room's {key.replace('_', ' ')}")


def check_room(job: Job, room: Room) -> None:
    """Raises PlankError where an outline does not close, or what stands in the room no longer fits."""
    walls_of(room)
    check_things(room)


def set_use(job: Job, room_id: str, use: str) -> Change:
    """Say what a room is for; it decides which kinds the shelf offers first.

    Raises
    ------
    PlankError “… is no use of a room.”
    """
    if use not in USES:
        raise PlankError(f"“{use}” is no use of a room.", "use", f"Known: {', '.join(u for u in USES if u)}.")
    return Change(with_room(job, msgspec.structs.replace(job.room(room_id), use=use)), "Set the room's use")
