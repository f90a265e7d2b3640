"""Edits of the room: its sizes, its name, doors and windows."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change, new_ids, with_room
from tall_plank.job import Job, Opening, Rectangle, Room
from tall_plank.measure import Length, PlankError, format_length, parse_length
from tall_plank.setout import Wall, walls_of
from tall_plank.setout.rooms import roof_window_frame

ROOM_RANGE = {"width": (500.0, 50_000.0), "depth": (500.0, 50_000.0), "height": (1500.0, 12_000.0)}
"""mm that make sense for a room."""


def read(job: Job, text: str, *, least: float | None = None, most: float | None = None) -> Length:
    """A typed length in the job's display unit with its named values."""
    return parse_length(text, job.display, job.named_values(), least=least, most=most)


def rename_room(job: Job, room_id: str, name: str) -> Change:
    """Name a room; an empty name is refused."""
    if not name.strip():
        raise PlankError("A room needs a name.", "room", "Type one.")
    room = msgspec.structs.replace(job.room(room_id), name=name.strip()[:80])
    return Change(with_room(job, room), "Rename the room")


def set_room_length(job: Job, room_id: str, key: str, text: str) -> Change:
    """Set width, depth, height or wall_thickness. Openings that no longer fit stop it, and say which."""
    room = job.room(room_id)
    if key in ("width", "depth"):
        if not isinstance(room.outline, Rectangle):
            raise PlankError("This room is no rectangle.", "room", "Type the length of one of its walls.")
        least, most = ROOM_RANGE[key]
        outline = msgspec.structs.replace(room.outline, **{key: read(job, text, least=least, most=most)})
        room = msgspec.structs.replace(room, outline=outline)
    elif key == "height":
        least, most = ROOM_RANGE[key]
        room = msgspec.structs.replace(room, height=read(job, text, least=least, most=most))
    elif key == "wall_thickness":
        room = msgspec.structs.replace(room, wall_thickness=read(job, text, least=20, most=1500))
    else:
        raise PlankError(f"A room has no {key}.", "room", "Choose width, depth, height or wall thickness.")
    check_room(job, room)
    return Change(with_room(job, room), f"Set the room's {key.replace('_', ' ')}")


def check_room(job: Job, room: Room) -> None:
    """Raises PlankError where an outline does not close, or an opening, column or peninsula leaves its wall."""
    lengths = {w.id: w.length for w in walls_of(room)}
    for opening in room.openings:
        check_opening(room, opening, f"The {opening.kind} in wall {opening.wall} would no longer fit.")
    for window in room.roof_windows:
        roof_window_frame(room, window)
    for column in room.columns:
        if column.wall and column.x.mm + column.width.mm > lengths.get(column.wall, 0.0) + 1e-6:
            raise PlankError(
                f"The {column.kind} would stand past the end of its wall.", f"wall {column.wall}", "Move it first."
            )


def check_opening(room: Room, opening: Opening, head: str = "") -> None:
    """Raises PlankError where an opening leaves its wall or runs into another one."""
    wall = next((w for w in walls_of(room) if w.id == opening.wall), None)
    if wall is None:
        raise PlankError(f"There is no wall {opening.wall}.", opening.kind, "Choose another wall.")
    name = f"{opening.kind} in wall {wall.id}"
    x, width = opening.x.mm, opening.width.mm
    if x < -1e-6 or x + width > wall.length + 1e-6:
        over = max(-x, x + width - wall.length)
        what = f"It reaches {format_length(over, mark=True)} past the end of the wall."
        raise PlankError(f"{head} {what}".strip(), name, "Move it or make it narrower.")
    high = lowest(wall, x, x + width)
    if opening.sill.mm < 0 or opening.sill.mm + opening.height.mm > high + 1e-6:
        over = opening.sill.mm + opening.height.mm - high
        what = f"It reaches {format_length(over, mark=True)} above the ceiling."
        raise PlankError(f"{head} {what}".strip(), name, "Make it lower.")
    for other in room.openings:
        if other.id != opening.id and other.wall == opening.wall:
            overlap = min(x + width, other.x.mm + other.width.mm) - max(x, other.x.mm)
            if overlap > 1e-6:
                what = f"It overlaps the {other.kind} beside it by {format_length(overlap, mark=True)}."
                raise PlankError(f"{head} {what}".strip(), name, "Move one of them.")


def lowest(wall: Wall, x0: float, x1: float) -> float:
    """Least height of a wall's upper edge between two places, mm."""
    marks = [x0, x1, *(x for x, _ in wall.profile if x0 < x < x1)]
    return min(wall.height_at(x) for x in marks)


START_SIZES = {
    "door": (838.0, 2040.0, 0.0),
    "window": (1000.0, 1100.0, 1050.0),
    "arch": (900.0, 2100.0, 0.0),
    "niche": (600.0, 900.0, 900.0),
}
"""Width, height, sill of new openings, mm."""

NICHE_DEPTH = 120.0  # mm


def add_opening(job: Job, room_id: str, wall: str, kind: str, x: float | None = None) -> Change:
    """Add a door or window with its starting size, in the middle of the wall or at x.

    Raises
    ------
    PlankError where it does not fit
    """
    room = job.room(room_id)
    line = next((w for w in walls_of(room) if w.id == wall), None)
    if line is None:
        raise PlankError(f"There is no wall {wall}.", kind, "Choose a wall of the room.")
    width, height, sill = START_SIZES[kind]
    width = min(width, line.length)
    at = (line.length - width) / 2 if x is None else min(max(0.0, x), line.length - width)
    high = lowest(line, at, at + width)
    sill = min(sill, max(0.0, high - 400.0))
    height = min(height, high - sill)
    job, (opening_id,) = new_ids(job, "o")
    opening = Opening(
        opening_id,
        wall,
        kind,  # type: ignore[arg-type]
        Length.of(at),
        Length.of(width),
        Length.of(height),
        Length.of(sill),
        depth=Length.of(NICHE_DEPTH if kind == "niche" else 0.0),
    )
    check_opening(room, opening)
    room = msgspec.structs.replace(room, openings=(*room.openings, opening))
    return Change(with_room(job, room), f"Add a {kind}", made=(opening_id,))


def find_opening(job: Job, opening_id: str) -> tuple[Room, Opening]:
    for room in job.rooms:
        for opening in room.openings:
            if opening.id == opening_id:
                return room, opening
    raise PlankError("The opening is no longer there.", opening_id, "Select another one.")


def set_opening(job: Job, opening_id: str, key: str, text: str) -> Change:
    """Set x, width, height, sill, hand or wall of an opening."""
    room, opening = find_opening(job, opening_id)
    if key in ("x", "width", "height", "sill", "reveal", "depth"):
        least = 100.0 if key in ("width", "height") else 0.0
        thickness = next(w.thickness for w in walls_of(room) if w.id == opening.wall)
        most = thickness if key in ("reveal", "depth") else None
        new = msgspec.structs.replace(opening, **{key: read(job, text, least=least, most=most)})
    elif key == "hand":
        new = msgspec.structs.replace(opening, hand="left" if text == "left" else "right")
    elif key == "swing":
        new = msgspec.structs.replace(opening, swing="out" if text == "out" else "in")
    elif key == "wall" and text in room.wall_ids():
        new = msgspec.structs.replace(opening, wall=text)
    else:
        raise PlankError(f"An opening has no {key}.", "opening", "Choose x, width, height, sill, hand or wall.")
    check_opening(room, new)
    openings = tuple(new if o.id == opening_id else o for o in room.openings)
    return Change(with_room(job, msgspec.structs.replace(room, openings=openings)), f"Set the {opening.kind}'s {key}")


def move_opening(job: Job, opening_id: str, x: float) -> Change:
    """Drag an opening along its wall; it stops at the wall's ends and at its neighbours."""
    room, opening = find_opening(job, opening_id)
    wall = next(w for w in walls_of(room) if w.id == opening.wall)
    width = opening.width.mm
    low, high = 0.0, wall.length - width
    for other in room.openings:
        if other.id == opening_id or other.wall != opening.wall:
            continue
        if other.x.mm >= opening.x.mm:
            high = min(high, other.x.mm - width)
        else:
            low = max(low, other.x.mm + other.width.mm)
    new = msgspec.structs.replace(opening, x=Length.of(round(min(max(x, low), max(low, high)))))
    openings = tuple(new if o.id == opening_id else o for o in room.openings)
    return Change(with_room(job, msgspec.structs.replace(room, openings=openings)), f"Move the {opening.kind}")


def delete_opening(job: Job, opening_id: str) -> Change:
    room, opening = find_opening(job, opening_id)
    openings = tuple(o for o in room.openings if o.id != opening_id)
    return Change(with_room(job, msgspec.structs.replace(room, openings=openings)), f"Delete the {opening.kind}")
