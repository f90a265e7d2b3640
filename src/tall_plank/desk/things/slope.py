"""Sloped ceilings in the window: they are decided on with their wall."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, length_row, setter
from tall_plank.desk.things.handling import Handling, drawing_of, placed_by, shape
from tall_plank.drawing.primitives import Drawing, Item
from tall_plank.edits.things.slope import set_slope


def slope_groups(doc: Document, wall_id: str) -> list[Group]:
    """What is decided of the ceiling that slopes to a wall; nothing where none does."""
    slope = next((s for s in doc.room.room.slopes if s.wall == wall_id), None)
    if slope is None:
        return []
    rows = (
        length_row(doc, "low", tr("Height at the wall"), slope.low, setter(set_slope, slope.id, "low")),
        length_row(doc, "run", tr("Full height after"), slope.run, setter(set_slope, slope.id, "run")),
    )
    return [Group(tr("Sloped ceiling"), rows)]


def _picture_slope() -> Drawing:
    items: list[Item] = [shape(((0, 0), (700, 0), (700, 300), (380, 560), (0, 560)), "wall")]
    return drawing_of("slope", items)


SLOPE = Handling(offers=(placed_by("slope", "Structure", _picture_slope, "Sloped ceiling", tr("sloped ceiling")),))
