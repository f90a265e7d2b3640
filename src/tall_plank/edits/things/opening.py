"""Edits of doors, windows, open passages and niches."""

from __future__ import annotations

from collections.abc import Callable

import msgspec

from tall_plank.edits.change import Change, new_ids
from tall_plank.edits.rooms import read
from tall_plank.edits.things.common import Spot, ThingEdits, added, deleted, replaced
from tall_plank.job import Job, Kind, Opening, Room
from tall_plank.job.things.table import find_thing
from tall_plank.measure import Length, PlankError
from tall_plank.measure.limits import check_reach
from tall_plank.measure.units import TOLERANCE
from tall_plank.setout.rooms import find_wall
from tall_plank.setout.things.opening import check_opening, lowest

START_SIZES = {
    "door": (838.0, 2040.0, 0.0),
    "window": (1000.0, 1100.0, 1050.0),
    "arch": (900.0, 2100.0, 0.0),
    "niche": (600.0, 900.0, 900.0),
}
"""Width, height, sill of new openings, mm."""


NICHE_DEPTH = 120.0  # mm


def add_opening(job: Job, room_id: str, wall_id: str, kind: str, x: float | None = None) -> Change:
    """Add a door or window with its starting size, in the middle of the wall or at x. `x`: mm.

    Raises
    ------
    PlankError where it does not fit
    """
    check_reach(x)
    room = job.room(room_id)
    line = find_wall(room, wall_id)
    if kind not in START_SIZES:
        raise PlankError(f"“{kind[:20]}” is no opening.", "opening", f"Choose {', '.join(START_SIZES)}.")
    width, height, sill = START_SIZES[kind]
    width = min(width, line.length)
    at = (line.length - width) / 2 if x is None else min(max(0.0, x), line.length - width)
    high = lowest(line, at, at + width)
    sill = min(sill, max(0.0, high - 400.0))
    height = min(height, high - sill)
    job, (opening_id,) = new_ids(job, "o")
    opening = Opening(
        opening_id,
        wall_id,
        kind,  # type: ignore[arg-type]
        Length.of(at),
        Length.of(width),
        Length.of(height),
        Length.of(sill),
        depth=Length.of(NICHE_DEPTH if kind == "niche" else 0.0),
    )
    check_opening(room, opening)
    return added(job, room_id, Kind.OPENING, opening, f"Add a {kind}")


def set_opening(job: Job, opening_id: str, key: str, text: str) -> Change:
    """Set x, width, height, sill, hand or wall of an opening, or how far it is from what is at its left or right.

    Raises
    ------
    PlankError “An opening has no ….”
    """
    room, opening = find_thing(job, Kind.OPENING, opening_id)
    if key in ("x", "width", "height", "sill", "reveal", "depth"):
        least = 100.0 if key in ("width", "height") else 0.0
        thickness = find_wall(room, opening.wall).thickness
        most = thickness if key in ("reveal", "depth") else None
        new = msgspec.structs.replace(opening, **{key: read(job, text, least=least, most=most)})
    elif key in ("left", "right"):
        new = msgspec.structs.replace(opening, x=_beside(job, room, opening, key, text))
    elif key == "hand":
        new = msgspec.structs.replace(opening, hand="left" if text == "left" else "right")
    elif key == "swing":
        new = msgspec.structs.replace(opening, swing="out" if text == "out" else "in")
    elif key == "casing":
        if text and job.stock.profile(text) is None:
            raise PlankError(f"The stock has no profile “{text[:20]}”.", "casing", "Choose one from the list.")
        new = msgspec.structs.replace(opening, casing=text)
    elif key == "casing_by_others":
        new = msgspec.structs.replace(opening, casing_by_others=text == "yes")
    elif key == "wall" and text in room.wall_ids():
        new = msgspec.structs.replace(opening, wall=text)
    else:
        raise PlankError(f"An opening has no {key}.", "opening", "Choose x, width, height, sill, hand or wall.")
    check_opening(room, new)
    return replaced(job, room, Kind.OPENING, new, f"Set the {opening.kind}'s {key}")


def _beside(job: Job, room: Room, opening: Opening, key: str, text: str) -> Length:
    """Where an opening starts at a typed distance from what is beside it.

    Raises
    ------
    PlankError where there is not so much space
    """
    wanted = read(job, text, least=0.0)
    others = [o for o in room.openings if o.wall == opening.wall and o.id != opening.id]
    if key == "left":
        ends = [o.x.mm + o.width.mm for o in others if o.x.mm <= opening.x.mm]
        low = max(ends, default=0.0)
        # From the wall's end a rule that was typed stays one.
        return wanted if low < TOLERANCE else Length.of(round(low + wanted.mm, 6))
    starts = [o.x.mm for o in others if o.x.mm > opening.x.mm]
    x = min(starts, default=find_wall(room, opening.wall).length) - wanted.mm - opening.width.mm
    if x < -TOLERANCE:
        raise PlankError("There is not so much space beside it.", key, "Type less.")
    return Length.of(round(max(0.0, x), 6))


def move_opening(job: Job, opening_id: str, x: float) -> Change:
    """Drag an opening along its wall; it stops at the wall's ends and at its neighbours. `x`: mm."""
    check_reach(x)
    room, opening = find_thing(job, Kind.OPENING, opening_id)
    wall = find_wall(room, opening.wall)
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
    return replaced(job, room, Kind.OPENING, new, f"Move the {opening.kind}")


def delete_opening(job: Job, thing_id: str) -> Change:
    """Take an opening away; cells that it held stand free."""
    return deleted(job, Kind.OPENING, thing_id)


def _adder(kind: str) -> Callable[[Job, Spot], Change]:
    return lambda job, spot: add_opening(job, spot.room, spot.wall_id, kind, spot.x)


OPENING = ThingEdits(
    add={kind: _adder(kind) for kind in START_SIZES},
    set=set_opening,
    delete=delete_opening,
    slide=move_opening,
)
