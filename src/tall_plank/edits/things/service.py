"""Edits of service points."""

from __future__ import annotations

from collections.abc import Callable

import msgspec

from tall_plank.edits.change import Change, new_ids
from tall_plank.edits.rooms import read
from tall_plank.edits.things.common import Spot, ThingEdits, added, deleted, replaced
from tall_plank.job import Job, Kind, Service
from tall_plank.job.things.table import find_thing
from tall_plank.measure import Length, PlankError
from tall_plank.measure.limits import check_reach
from tall_plank.setout.rooms import find_wall, walls_of

START_HEIGHTS = {"water": 500.0, "waste": 400.0, "power": 300.0, "gas": 500.0, "vent": 2000.0}
"""mm above the floor of new service points."""

SERVICES = tuple(START_HEIGHTS)


def add_service(job: Job, room_id: str, wall_id: str, kind: str, x: float | None = None) -> Change:
    """Mark a service point on a wall, in its middle or at x. `x`: mm."""
    check_reach(x)
    room = job.room(room_id)
    length = find_wall(room, wall_id).length
    if kind not in START_HEIGHTS:
        raise PlankError(f"“{kind[:20]}” is no service.", "service point", f"Choose {', '.join(START_HEIGHTS)}.")
    height = START_HEIGHTS[kind]
    at = length / 2 if x is None else min(max(0.0, x), length)
    job, (new_id,) = new_ids(job, "s")
    service = Service(new_id, kind, wall_id, Length.of(at), Length.of(height))  # type: ignore[arg-type]
    return added(job, room_id, Kind.SERVICE, service, f"Mark {kind}")


def set_service(job: Job, service_id: str, key: str, text: str) -> Change:
    """Set x, y, height, wall (empty: on the floor) or kind of a service point.

    Raises
    ------
    PlankError “There is no wall ….”, “A service point has no ….”
    """
    room, service = find_thing(job, Kind.SERVICE, service_id)
    if key == "wall":
        if text and text not in room.wall_ids():
            raise PlankError(f"There is no wall {text}.", "service point", "Choose another wall.")
        new = msgspec.structs.replace(service, wall=text)
    elif key == "kind" and text in SERVICES:
        new = msgspec.structs.replace(service, kind=text)
    elif key in ("x", "y", "height"):
        length = next((w.length for w in walls_of(room) if w.id == service.wall), None)
        most = length if key == "x" and service.wall else None
        new = msgspec.structs.replace(service, **{key: read(job, text, least=0.0, most=most)})
    else:
        raise PlankError(f"A service point has no {key}.", "service point", "Choose x, y, height, wall or kind.")
    return replaced(job, room, Kind.SERVICE, new, f"Set the {service.kind} point")


def move_service(job: Job, service_id: str, x: float) -> Change:
    """Drag a service point along its wall. `x`: mm."""
    check_reach(x)
    room, service = find_thing(job, Kind.SERVICE, service_id)
    length = next((w.length for w in walls_of(room) if w.id == service.wall), 1e6)
    new = msgspec.structs.replace(service, x=Length.of(round(min(max(0.0, x), length))))
    return replaced(job, room, Kind.SERVICE, new, f"Move the {service.kind} point")


def shift_service(job: Job, service_id: str, dx: float, dy: float) -> Change:
    """Drag a service point over the floor by dx, dy mm."""
    check_reach(dx, dy)
    room, service = find_thing(job, Kind.SERVICE, service_id)
    new = msgspec.structs.replace(service, x=Length.of(round(service.x.mm + dx)), y=Length.of(round(service.y.mm + dy)))
    return replaced(job, room, Kind.SERVICE, new, f"Move the {service.kind} point")


def delete_service(job: Job, thing_id: str) -> Change:
    """Take a service point away; cells that it held stand free."""
    return deleted(job, Kind.SERVICE, thing_id)


def _adder(kind: str) -> Callable[[Job, Spot], Change]:
    return lambda job, spot: add_service(job, spot.room, spot.wall_id, kind, spot.x)


SERVICE = ThingEdits(
    add={kind: _adder(kind) for kind in SERVICES},
    set=set_service,
    delete=delete_service,
    slide=move_service,
    shift=shift_service,
)
