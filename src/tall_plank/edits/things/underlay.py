"""Edits of a plan image that lies under the drawing, to trace over (RM6)."""

from __future__ import annotations

import math

import msgspec

from tall_plank.edits.change import Change
from tall_plank.edits.pictures import with_picture, without_unused
from tall_plank.edits.rooms import read, read_in
from tall_plank.edits.things.common import ThingEdits, added, deleted, replaced
from tall_plank.edits.things.island import read_degrees
from tall_plank.job import Job, Kind, Underlay
from tall_plank.job.things.table import find_thing
from tall_plank.measure import Length, PlankError
from tall_plank.measure import outlines as ol
from tall_plank.measure.limits import check_reach
from tall_plank.measure.outlines import Point
from tall_plank.setout.rooms import corners_of

WIDEST = 500_000.0  # mm


def add_underlay(job: Job, room_id: str, wide: int, high: int, data: bytes) -> Change:
    """Put an image (its pixels, its file) under the plan, as wide as the room until its scale is set."""
    x0, _, x1, _ = ol.bounds(corners_of(job.room(room_id).outline))
    job, name = with_picture(job, wide, high, data, "b")
    new_id = name.removesuffix(".jpg")
    zero = Length.of(0.0)
    return added(
        job, room_id, Kind.UNDERLAY, Underlay(new_id, name, zero, zero, Length.of(x1 - x0)), "Read a plan image"
    )


def set_underlay(job: Job, underlay_id: str, key: str, text: str) -> Change:
    """Set x or y of its lower left corner, the width that it stands for, turn (degrees) or shown (yes, no).

    Raises
    ------
    PlankError “A plan image has no ….”
    """
    room, underlay = find_thing(job, Kind.UNDERLAY, underlay_id)
    if key in ("x", "y"):
        new = msgspec.structs.replace(underlay, **{key: read_in(job, text, Underlay, key)})
    elif key == "width":
        new = msgspec.structs.replace(underlay, width=read_in(job, text, Underlay, key))
    elif key == "turn":
        new = msgspec.structs.replace(underlay, turn=read_degrees(text) % 360.0)
    elif key == "shown":
        new = msgspec.structs.replace(underlay, shown=text == "yes")
    else:
        raise PlankError(f"A plan image has no {key}.", "plan image", "Choose x, y, width, turn or shown.")
    return replaced(job, room, Kind.UNDERLAY, new, "Set the plan image")


def move_underlay(job: Job, underlay_id: str, dx: float, dy: float) -> Change:
    """Drag a plan image under the room. `dx`, `dy`: mm."""
    check_reach(dx, dy)
    room, underlay = find_thing(job, Kind.UNDERLAY, underlay_id)
    x, y = Length.of(round(underlay.x.mm + dx, 3)), Length.of(round(underlay.y.mm + dy, 3))
    return replaced(job, room, Kind.UNDERLAY, msgspec.structs.replace(underlay, x=x, y=y), "Move the plan image")


def scale_underlay(job: Job, underlay_id: str, a: Point, b: Point, text: str) -> Change:
    """Set the scale by one known length: two points that were picked on the image, and how far they are apart. The
    first point stays where it is.

    Raises
    ------
    PlankError where the points fall together or the length is none
    """
    check_reach(*a, *b)
    room, underlay = find_thing(job, Kind.UNDERLAY, underlay_id)
    now = math.dist(a, b)
    if now < 1.0:
        raise PlankError("The two points fall together.", "plan image", "Pick two that are further apart.")
    known = read(job, text, least=10.0, most=WIDEST).mm
    factor = known / now
    width = underlay.width.mm * factor
    if not 100.0 <= width <= WIDEST:
        raise PlankError("The image would be as large as a town.", "plan image", "Check the length and the points.")
    x = a[0] + (underlay.x.mm - a[0]) * factor
    y = a[1] + (underlay.y.mm - a[1]) * factor
    new = msgspec.structs.replace(
        underlay, x=Length.of(round(x, 3)), y=Length.of(round(y, 3)), width=Length.of(round(width, 3))
    )
    return replaced(job, room, Kind.UNDERLAY, new, "Scale the plan image")


def delete_underlay(job: Job, underlay_id: str) -> Change:
    """Take a plan image away, and its picture where nothing else shows it."""
    change = deleted(job, Kind.UNDERLAY, underlay_id)
    return Change(without_unused(change.job), change.name)


UNDERLAY = ThingEdits(add={}, set=set_underlay, delete=delete_underlay, shift=move_underlay)
