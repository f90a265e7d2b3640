"""Every kind of placed thing, in the order in which drawings and models take them; and finding things by it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from tall_plank.job.job import Job
from tall_plank.job.room import Room
from tall_plank.job.source import Kind, Source
from tall_plank.job.things.column import COLUMN
from tall_plank.job.things.detail import DETAIL
from tall_plank.job.things.dimension import DIMENSION
from tall_plank.job.things.guide import GUIDE
from tall_plank.job.things.island import ISLAND
from tall_plank.job.things.molding import MOLDING
from tall_plank.job.things.note import NOTE
from tall_plank.job.things.noun import Noun
from tall_plank.job.things.opening import OPENING
from tall_plank.job.things.roof_window import ROOF_WINDOW
from tall_plank.job.things.section import SECTION
from tall_plank.job.things.service import SERVICE
from tall_plank.job.things.sliding import SLIDING
from tall_plank.job.things.slope import SLOPE
from tall_plank.job.things.soffit import SOFFIT
from tall_plank.job.things.underlay import UNDERLAY
from tall_plank.job.things.wall_field import WALL_FIELD
from tall_plank.measure import PlankError

THINGS: dict[Kind, Noun] = {
    Kind.SLOPE: SLOPE,
    Kind.OPENING: OPENING,
    Kind.COLUMN: COLUMN,
    Kind.SLIDING: SLIDING,
    Kind.ISLAND: ISLAND,
    Kind.SOFFIT: SOFFIT,
    Kind.ROOF_WINDOW: ROOF_WINDOW,
    Kind.WALL_FIELD: WALL_FIELD,
    Kind.MOLDING: MOLDING,
    Kind.SERVICE: SERVICE,
    Kind.GUIDE: GUIDE,
    Kind.UNDERLAY: UNDERLAY,
    Kind.SECTION: SECTION,
    Kind.DETAIL: DETAIL,
    Kind.DIMENSION: DIMENSION,
    Kind.NOTE: NOTE,
}


def things_of(room: Room, kind: Kind) -> tuple[Any, ...]:
    """The things of a kind in a room."""
    noun = THINGS[kind]
    if noun.on_run:
        return tuple(thing for run in room.runs for thing in getattr(run, noun.rows))
    return tuple(getattr(room, noun.rows))


def all_things(room: Room) -> Iterator[tuple[Source, Any]]:
    """Every placed thing of a room with its source."""
    for kind in THINGS:
        for thing in things_of(room, kind):
            yield kind.of(thing.id), thing


def thing_in(room: Room, source: Source) -> Any | None:
    """A thing of a room; None where it is not there."""
    if source.kind not in THINGS:
        return None
    return next((thing for thing in things_of(room, source.kind) if thing.id == source.id), None)


def find_thing(job: Job, kind: Kind, thing_id: str) -> tuple[Room, Any]:
    """A thing with its room.

    Raises
    ------
    PlankError where it is no longer there
    """
    for room in job.rooms:
        thing = thing_in(room, kind.of(thing_id))
        if thing is not None:
            return room, thing
    raise PlankError(f"The {THINGS[kind].word} is no longer there.", thing_id, "Select another one.")


def wall_of(room: Room, source: Source) -> str:
    """Letter of the wall that a thing stands on; empty where it stands on none or is gone."""
    thing = thing_in(room, source)
    return THINGS[source.kind].wall(room, thing) if thing is not None else ""
