"""What the model has of every kind of placed thing."""

from __future__ import annotations

from tall_plank.job import Kind
from tall_plank.solids.things.column import COLUMN
from tall_plank.solids.things.common import ThingSolids
from tall_plank.solids.things.molding import MOLDING
from tall_plank.solids.things.opening import OPENING
from tall_plank.solids.things.roof_window import ROOF_WINDOW
from tall_plank.solids.things.sliding import SLIDING
from tall_plank.solids.things.soffit import SOFFIT
from tall_plank.solids.things.wall_field import WALL_FIELD

NONE = ThingSolids()
"""A kind that is not seen by itself in the model."""

SOLIDS: dict[Kind, ThingSolids] = {
    Kind.SLOPE: NONE,
    Kind.OPENING: OPENING,
    Kind.COLUMN: COLUMN,
    Kind.SLIDING: SLIDING,
    Kind.ISLAND: NONE,
    Kind.SOFFIT: SOFFIT,
    Kind.ROOF_WINDOW: ROOF_WINDOW,
    Kind.WALL_FIELD: WALL_FIELD,
    Kind.MOLDING: MOLDING,
    Kind.SERVICE: NONE,
    Kind.GUIDE: NONE,
    Kind.UNDERLAY: NONE,
    Kind.SECTION: NONE,
    Kind.DETAIL: NONE,
    Kind.DIMENSION: NONE,
    Kind.NOTE: NONE,
}
