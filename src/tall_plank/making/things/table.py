"""What making has of every kind of placed thing."""

from __future__ import annotations

from tall_plank.job import Kind
from tall_plank.making.things.common import ThingMaking
from tall_plank.making.things.island import ISLAND
from tall_plank.making.things.molding import MOLDING
from tall_plank.making.things.opening import OPENING
from tall_plank.making.things.sliding import SLIDING
from tall_plank.making.things.wall_field import WALL_FIELD

NONE = ThingMaking()
"""A kind of which nothing is made."""

MAKING: dict[Kind, ThingMaking] = {
    Kind.SLOPE: NONE,
    Kind.OPENING: OPENING,
    Kind.COLUMN: NONE,
    Kind.SLIDING: SLIDING,
    Kind.ISLAND: ISLAND,
    Kind.SOFFIT: NONE,
    Kind.ROOF_WINDOW: NONE,
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
