"""How the window handles every kind of placed thing."""

from __future__ import annotations

from tall_plank.desk.things.column import COLUMN
from tall_plank.desk.things.detail import DETAIL
from tall_plank.desk.things.dimension import DIMENSION
from tall_plank.desk.things.guide import GUIDE
from tall_plank.desk.things.handling import Handling, Offered
from tall_plank.desk.things.island import ISLAND
from tall_plank.desk.things.molding import MOLDING
from tall_plank.desk.things.note import NOTE
from tall_plank.desk.things.opening import OPENING
from tall_plank.desk.things.roof_window import ROOF_WINDOW
from tall_plank.desk.things.section import SECTION
from tall_plank.desk.things.service import SERVICE
from tall_plank.desk.things.sliding import SLIDING
from tall_plank.desk.things.slope import SLOPE
from tall_plank.desk.things.soffit import SOFFIT
from tall_plank.desk.things.underlay import UNDERLAY
from tall_plank.desk.things.wall_field import WALL_FIELD
from tall_plank.job import Kind

HANDLING: dict[Kind, Handling] = {
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

HEADINGS = (
    "Openings", "Structure", "Islands", "Service points", "Moldings", "Unit moldings", "Guide lines", "Drawings",
)  # fmt: skip
"""Of the shelf at the Room stage, in their order."""

PANELING_HEADINGS = ("Treatments", "Moldings")
"""Of the shelf at the Paneling stage."""

OFFERED: dict[str, Offered] = {o.name: o for handling in HANDLING.values() for o in handling.offers}
"""What the shelf of the Room stage offers, by name."""


def offered_under(heading: str) -> list[Offered]:
    """What the shelf offers under a heading, in its order."""
    found = [o for o in OFFERED.values() if o.heading == heading]
    return sorted(found, key=lambda o: STRUCTURE.index(o.name)) if heading == "Structure" else found


STRUCTURE = ("column", "chimney breast", "soffit", "slope", "roof window")
"""What stands under this heading comes from several kinds."""
