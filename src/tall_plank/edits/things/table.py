"""The edits of every kind of placed thing."""

from __future__ import annotations

from tall_plank.edits.change import Change
from tall_plank.edits.things.column import COLUMN
from tall_plank.edits.things.common import Spot, ThingEdits
from tall_plank.edits.things.detail import DETAIL
from tall_plank.edits.things.dimension import DIMENSION
from tall_plank.edits.things.guide import GUIDE
from tall_plank.edits.things.island import ISLAND
from tall_plank.edits.things.molding import MOLDING
from tall_plank.edits.things.note import NOTE
from tall_plank.edits.things.opening import OPENING
from tall_plank.edits.things.roof_window import ROOF_WINDOW
from tall_plank.edits.things.section import SECTION
from tall_plank.edits.things.service import SERVICE
from tall_plank.edits.things.sliding import SLIDING
from tall_plank.edits.things.slope import SLOPE
from tall_plank.edits.things.soffit import SOFFIT
from tall_plank.edits.things.underlay import UNDERLAY
from tall_plank.edits.things.wall_field import WALL_FIELD
from tall_plank.job import Job, Kind, Source
from tall_plank.measure import PlankError

EDITS: dict[Kind, ThingEdits] = {
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

ADDED = {name: add for edits in EDITS.values() for name, add in edits.add.items()}
"""What the shelf calls a thing -> the edit that adds one."""


def add_thing(job: Job, name: str, spot: Spot) -> Change:
    """Add what the shelf calls by a name, where it was dropped or on the wall that is worked on."""
    if name not in ADDED:
        raise PlankError(f"There is no “{name[:20]}” to add.", "shelf", f"Known: {', '.join(ADDED)}.")
    return ADDED[name](job, spot)


def delete_thing(job: Job, source: Source) -> Change:
    """Take a placed thing away."""
    if source.kind not in EDITS:
        raise PlankError(f"A {source.kind} is not taken away like this.", str(source), "Choose a placed thing.")
    return EDITS[source.kind].delete(job, source.id)
