"""Windows in sloped ceilings, in the window."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Sheet, length_row, setter
from tall_plank.desk.things.dragging import along_wall, on_floor
from tall_plank.desk.things.handling import Handling, drawing_of, placed_by, shape
from tall_plank.drawing.primitives import Drawing, Item
from tall_plank.edits.things.roof_window import set_roof_window
from tall_plank.job import Kind
from tall_plank.job.things.table import find_thing


def roof_window_sheet(doc: Document, thing_id: str) -> Sheet:
    """A window in a sloped ceiling."""
    room, window = find_thing(doc.job, Kind.ROOF_WINDOW, thing_id)
    wall = next(s.wall for s in room.slopes if s.id == window.slope)
    rows = tuple(
        length_row(doc, key, label, getattr(window, key),
                   setter(set_roof_window, thing_id, key))
        for key, label in (("x", tr("From the left")), ("width", tr("Width")), ("length", tr("Up the slope")),
                           ("sill", tr("Sill above the floor")))
    )  # fmt: skip
    return Sheet(tr("Roof window"), f"{tr('in the slope over wall')} {wall}", (Group(tr("Size"), rows),))


def _picture_roof_window() -> Drawing:
    items: list[Item] = [
        shape(((0, 0), (700, 0), (700, 60), (0, 60)), "wall"),
        shape(((0, 60), (700, 60), (620, 560), (80, 560)), "ceiling"),
        shape(((230, 170), (470, 170), (450, 440), (250, 440)), "glass"),
    ]
    return drawing_of("roof window", items)


ROOF_WINDOW = Handling(
    sheet=roof_window_sheet,
    offers=(placed_by("roof window", "Structure", _picture_roof_window),),
    on_strip=along_wall,
    on_plan=on_floor,
    pick_on_strip=True,
)
