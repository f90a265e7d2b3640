"""Edits of islands and peninsulas: placing, sizing, turning, what closes their ends and backs."""

from __future__ import annotations

import math

import msgspec

from tall_plank.edits.change import Change, new_ids, with_cells, with_room
from tall_plank.edits.rooms import read, read_in
from tall_plank.edits.things.common import Spot, ThingEdits
from tall_plank.job import Island, Job, Room
from tall_plank.measure import Length, PlankError, format_length
from tall_plank.measure import outlines as ol
from tall_plank.measure.limits import LIMITS, check_reach
from tall_plank.measure.units import TOLERANCE, same_length
from tall_plank.setout import set_out
from tall_plank.setout.clear import aisles_of, whole_of
from tall_plank.setout.rooms import corners_of, find_wall

LETTERS = "KLMNOP"


ENDS = ("open", "panel", "waterfall")


ROW = 600.0
"""mm of depth of a row of units, about."""


def find_island(job: Job, island_id: str) -> tuple[Room, Island]:
    """An island with its room.

    Raises
    ------
    PlankError where it is no longer there
    """
    for room in job.rooms:
        found = room.island(island_id)
        if found is not None:
            return room, found
    raise PlankError("The island is no longer there.", island_id, "Select another one.")


def with_island(job: Job, room: Room, island: Island) -> Job:
    """The job with one island of a room replaced."""
    islands = tuple(island if i.id == island.id else i for i in room.islands)
    return with_room(job, msgspec.structs.replace(room, islands=islands))


def middle_of(room: Room) -> tuple[float, float]:
    """The middle of a room's outline, mm."""
    x0, y0, x1, y1 = ol.bounds(corners_of(room.outline))
    return (x0 + x1) / 2, (y0 + y1) / 2


def start_of(middle: tuple[float, float], length: float, degrees: float = 0.0) -> tuple[float, float]:
    """Where an island's line starts so that one row of units before it has its middle at a place, mm."""
    along = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    # The depth of the row lies before its line, so the line stands behind the middle.
    behind = -along[1] * ROW / 2, along[0] * ROW / 2
    x, y = (m - a * length / 2 + b for m, a, b in zip(middle, along, behind, strict=True))
    return x, y


def add_island(job: Job, room_id: str, at: tuple[float, float] | None = None, length: float = 1800.0) -> Change:
    """Set an island into the middle of a room, or with its middle at a place; its first face looks south. `at`,
    `length`: mm.

    Raises
    ------
    PlankError “A room takes at most six islands.”
    """
    check_reach(length, *(at or ()))
    room = job.room(room_id)
    taken = {i.letter for i in room.islands} | set(room.wall_ids())
    letter = next((c for c in LETTERS if c not in taken), "")
    if not letter:
        raise PlankError("A room takes at most six islands.", "island", "Take one away first.")
    x0, _, x1, _ = ol.bounds(corners_of(room.outline))
    length = min(length, max(600.0, x1 - x0 - 1000.0))
    x, y = start_of(at or middle_of(room), length)
    job, (island_id,) = new_ids(job, "i")
    island = Island(island_id, letter, Length.of(round(x)), Length.of(round(y)), Length.of(round(length)))
    room = job.room(room_id)
    job = with_room(job, msgspec.structs.replace(room, islands=(*room.islands, island)))
    return Change(job, "Add an island", made=(island_id,))


def set_island(job: Job, island_id: str, key: str, text: str) -> Change:
    """Set a decision of an island: x, y, length, angle, gap, seating, left, right, back, spine or wall.

    Raises
    ------
    PlankError for an unknown decision or a value that does not fit
    """
    room, island = find_island(job, island_id)
    if key in ("x", "y", "length", "gap", "seating"):
        new = msgspec.structs.replace(island, **{key: read_in(job, text, Island, key)})
    elif key == "angle":
        new = msgspec.structs.replace(island, angle=read_degrees(text) % 360.0)
    elif key in ("left", "right"):
        if text not in ENDS:
            raise PlankError(f"“{text}” closes no end.", key, f"Choose {', '.join(ENDS)}.")
        new = msgspec.structs.replace(island, **{key: text})
    elif key in ("back", "spine"):
        new = msgspec.structs.replace(island, **{key: text == "yes"})
    elif key == "wall":
        if text and text not in room.wall_ids():
            raise PlankError(f"There is no wall {text}.", "peninsula", "Choose another wall.")
        new = msgspec.structs.replace(island, wall=text)
        if text:
            length = find_wall(room, text).length
            new = msgspec.structs.replace(new, x=Length.of(min(island.x.mm, round(length / 2))))
    else:
        raise PlankError(f"An island has no {key}.", "island", "Choose a known decision.")
    return Change(with_island(job, room, new), f"Set the island's {key}")


def read_degrees(text: str) -> float:
    """Degrees from text.

    Raises
    ------
    PlankError where it is no number
    """
    try:
        angle = float(text.strip().rstrip("°").replace(",", "."))
    except ValueError:
        raise PlankError(f"“{text}” is no angle.", "angle", "Type degrees such as 0, 45 or 90.") from None
    if not math.isfinite(angle):
        raise PlankError(f"“{text}” is no angle.", "angle", "Type degrees such as 0, 45 or 90.")
    return angle


def move_island(job: Job, island_id: str, dx: float, dy: float) -> Change:
    """Drag an island across the floor, on whole millimetres; a peninsula along its wall. `dx`, `dy`: mm."""
    check_reach(dx, dy)
    room, island = find_island(job, island_id)
    if island.wall:
        wall = find_wall(room, island.wall)
        along = dx * wall.frame.x[0] + dy * wall.frame.x[1]
        x = min(max(0.0, island.x.mm + along), wall.length)
        new = msgspec.structs.replace(island, x=Length.of(round(x)))
    else:
        new = msgspec.structs.replace(
            island, x=Length.of(round(island.x.mm + dx)), y=Length.of(round(island.y.mm + dy))
        )
    return Change(with_island(job, room, new), f"Move island {island.letter}")


def turn_island(job: Job, island_id: str, degrees: float) -> Change:
    """Turn an island about the middle of its line. `degrees`: degrees.

    Raises
    ------
    PlankError “A peninsula stands square to its wall.”
    """
    check_reach(degrees)
    room, island = find_island(job, island_id)
    if island.wall:
        raise PlankError("A peninsula stands square to its wall.", "island", "Let go of the wall first.")
    half = island.length.mm / 2
    a = math.radians(island.angle)
    cx, cy = island.x.mm + half * math.cos(a), island.y.mm + half * math.sin(a)
    angle = (island.angle + degrees) % 360.0
    b = math.radians(angle)
    new = msgspec.structs.replace(
        island,
        angle=round(angle, 6),
        x=Length.of(round(cx - half * math.cos(b), 3)),
        y=Length.of(round(cy - half * math.sin(b), 3)),
    )
    return Change(with_island(job, room, new), f"Turn island {island.letter}")


def delete_island(job: Job, island_id: str) -> Change:
    """Take an island and its units away."""
    room, island = find_island(job, island_id)
    faces = (f"{island.letter}1", f"{island.letter}2")
    for run in [r for r in room.runs if r.wall in faces]:
        job = with_cells(job, run, ())
    room = job.room(room.id)
    new = msgspec.structs.replace(
        room,
        islands=tuple(i for i in room.islands if i.id != island_id),
        runs=tuple(r for r in room.runs if r.wall not in faces),
    )
    return Change(with_room(job, new), f"Delete island {island.letter}")


def set_aisle(job: Job, island_id: str, side: str, text: str) -> Change:
    """Type the clear floor on a side of an island (front, back, left or right, seen from face 1): it moves there.

    Raises
    ------
    PlankError where there is nothing to measure to, or a peninsula would leave its wall
    """
    wanted = read(job, text, least=0.0).mm
    room, island = find_island(job, island_id)
    layout = set_out(job).room(room.id)
    found = {name.lower(): mm for name, mm, _ in aisles_of(layout, island)}
    if side not in found:
        raise PlankError("There is no aisle on this side.", "aisle", "Choose another side.")
    by = found[side] - wanted
    line = next(f for f in layout.faces if f.island == island_id)
    way = {"front": (0.0, -1.0), "back": (0.0, 1.0), "left": (-1.0, 0.0), "right": (1.0, 0.0)}[side]
    dx, dy, _ = line.frame.turn((way[0] * by, way[1] * by, 0.0))
    if island.wall and side in ("left", "right"):
        new = msgspec.structs.replace(island, length=Length.of(round(island.length.mm + by, 3)))
        if new.length.mm < 300.0:
            raise PlankError("The peninsula would have no length.", "aisle", "Type less.")
        return Change(with_island(job, room, new), f"Set the aisle beside {island.letter}")
    new = msgspec.structs.replace(
        island, x=Length.of(round(island.x.mm + dx, 6)), y=Length.of(round(island.y.mm + dy, 6))
    )
    if island.wall:
        wall = find_wall(room, island.wall)
        along = dx * wall.frame.x[0] + dy * wall.frame.x[1]
        new = msgspec.structs.replace(island, x=Length.of(round(island.x.mm + along, 6)))
    return Change(with_island(job, room, new), f"Set the aisle beside {island.letter}")


def set_whole(job: Job, island_id: str, key: str, text: str) -> Change:
    """Type an island's length or depth over all. Its line takes up the length; the space between the backs, or on an
    island with units on one face its seating overhang, the depth.

    Parameters
    ----------
    key : length or depth

    Raises
    ------
    PlankError where its units, ends and overhangs do not leave so much, or nothing stands there yet
    """
    if key not in ("length", "depth"):
        raise PlankError(f"An island has no whole {key}.", "island", "Choose length or depth.")
    wanted = read(job, text, least=1.0).mm
    room, island = find_island(job, island_id)
    layout = set_out(job).room(room.id)
    now = whole_of(layout, island)
    if now is None:
        raise PlankError("Nothing stands on the island yet.", "island", "Put units on it first.")
    both = all(any(p.wall_id == f"{island.letter}{n}" for p in layout.placed) for n in (1, 2))
    taken = "length" if key == "length" else "gap" if both else "seating"
    by = wanted - now[0 if key == "length" else 1]
    value = getattr(island, taken).mm + by
    span = LIMITS["Island"][taken]
    if value < span.least - TOLERANCE:
        least = format_length(wanted - value + span.least, job.display, mark=True)
        what = {"length": "its ends", "gap": "its units and overhangs", "seating": "its units and overhangs"}[taken]
        raise PlankError(f"{least} is the least that {what} leave.", f"whole {key}", f"Type {least} or more.")
    new = msgspec.structs.replace(island, **{taken: Length.of(round(value, 6))})
    changed = with_island(job, room, new)
    found = whole_of(set_out(changed).room(room.id), new)
    if found is None or not same_length(found[0 if key == "length" else 1], wanted):
        raise PlankError(
            f"The {key} cannot be had this way: its worktop has corners of its own.", f"whole {key}", "Change them."
        )
    return Change(changed, f"Set the island's whole {key}")


def add_peninsula(job: Job, spot: Spot) -> Change:
    """An island that starts at a wall."""
    change = add_island(job, spot.room, spot.at)
    joined = set_island(change.job, change.made[0], "wall", spot.wall_id)
    return Change(joined.job, "Add a peninsula", made=change.made)


ISLAND = ThingEdits(
    add={
        "island": lambda job, spot: add_island(job, spot.room, spot.at),
        "peninsula": add_peninsula,
    },
    set=set_island,
    delete=delete_island,
    shift=move_island,
)
