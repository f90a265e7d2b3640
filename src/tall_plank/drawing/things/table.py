"""How every kind of placed thing is drawn."""

from __future__ import annotations

from tall_plank.drawing.things.column import COLUMN
from tall_plank.drawing.things.common import ThingDrawn
from tall_plank.drawing.things.detail import DETAIL
from tall_plank.drawing.things.dimension import DIMENSION
from tall_plank.drawing.things.island import ISLAND
from tall_plank.drawing.things.molding import MOLDING
from tall_plank.drawing.things.note import NOTE
from tall_plank.drawing.things.opening import OPENING
from tall_plank.drawing.things.roof_window import ROOF_WINDOW
from tall_plank.drawing.things.section import SECTION
from tall_plank.drawing.things.service import SERVICE
from tall_plank.drawing.things.sliding import SLIDING
from tall_plank.drawing.things.slope import SLOPE
from tall_plank.drawing.things.soffit import SOFFIT
from tall_plank.drawing.things.wall_field import WALL_FIELD
from tall_plank.job import Kind

NONE = ThingDrawn()
"""A kind that is on no drawing; the window shows it by itself."""

DRAWN: dict[Kind, ThingDrawn] = {
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
    Kind.GUIDE: NONE,
    Kind.UNDERLAY: NONE,
    Kind.SECTION: SECTION,
    Kind.DETAIL: DETAIL,
    Kind.DIMENSION: DIMENSION,
    Kind.NOTE: NOTE,
}
"""In the order in which they lie over one another."""
