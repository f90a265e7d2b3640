"""What setting-out has of every kind of placed thing."""

from __future__ import annotations

from tall_plank.job import Kind, Room, Source
from tall_plank.job.things.table import all_things, thing_in
from tall_plank.setout.things.column import COLUMN
from tall_plank.setout.things.common import ThingSetOut
from tall_plank.setout.things.guide import GUIDE
from tall_plank.setout.things.opening import OPENING
from tall_plank.setout.things.roof_window import ROOF_WINDOW
from tall_plank.setout.things.service import SERVICE
from tall_plank.setout.things.slope import SLOPE
from tall_plank.setout.things.soffit import SOFFIT
from tall_plank.setout.things.wall_field import WALL_FIELD
from tall_plank.setout.wall import Span, Wall

NONE = ThingSetOut()
"""A kind that holds no cells and fits everywhere."""

SET_OUT: dict[Kind, ThingSetOut] = {
    Kind.SLOPE: SLOPE,
    Kind.OPENING: OPENING,
    Kind.COLUMN: COLUMN,
    Kind.SLIDING: NONE,
    Kind.ISLAND: NONE,
    Kind.SOFFIT: SOFFIT,
    Kind.ROOF_WINDOW: ROOF_WINDOW,
    Kind.WALL_FIELD: WALL_FIELD,
    Kind.MOLDING: NONE,
    Kind.SERVICE: SERVICE,
    Kind.GUIDE: GUIDE,
    Kind.UNDERLAY: NONE,
    Kind.SECTION: NONE,
    Kind.DETAIL: NONE,
    Kind.DIMENSION: NONE,
    Kind.NOTE: NONE,
}


def span_of(room: Room, wall: Wall, source: Source) -> Span | None:
    """Where a thing that may hold cells lies along a line; None where it is gone or not on that line."""
    made = SET_OUT.get(source.kind, NONE)
    thing = thing_in(room, source)
    return made.span(room, wall, thing) if made.span is not None and thing is not None else None


def check_things(room: Room) -> None:
    """Raises PlankError where something in a room no longer fits into it."""
    for source, thing in all_things(room):
        fits = SET_OUT[source.kind].fits
        if fits is not None:
            fits(room, thing)
