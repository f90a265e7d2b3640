"""Service points in the window."""

from __future__ import annotations

from functools import partial

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet, length_row, setter
from tall_plank.desk.things.dragging import along_wall, on_floor, sides_of
from tall_plank.desk.things.handling import Handling, drawing_of, placed_by, shape
from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, rectangle
from tall_plank.edits.things.service import SERVICES, set_service
from tall_plank.job import Kind
from tall_plank.job.things.table import find_thing


def service_sheet(doc: Document, thing_id: str) -> Sheet:
    """A service point."""
    room, service = find_thing(doc.job, Kind.SERVICE, thing_id)
    walls = (*((w, w) for w in room.wall_ids()), ("", tr("on the floor")))
    rows = [
        Row(
            "kind",
            tr("Kind"),
            tr(service.kind),
            choices=tuple((k, tr(k)) for k in SERVICES),
            apply=lambda job, t: set_service(job, thing_id, "kind", t),
        ),
        Row(
            "wall",
            tr("Wall"),
            service.wall or tr("on the floor"),
            choices=walls,
            apply=lambda job, t: set_service(job, thing_id, "wall", t),
        ),
    ]
    keys = [("x", tr("From the left")), ("height", tr("Height"))]
    if not service.wall:
        keys.insert(1, ("y", tr("From the south")))
    for key, label in keys:
        rows.append(length_row(doc, key, label, getattr(service, key), setter(set_service, thing_id, key)))
    return Sheet(tr("Service point"), tr(service.kind), (Group(tr("Place"), tuple(rows)),))


RING = (
    (1.0, 0.0), (0.87, 0.5), (0.5, 0.87), (0.0, 1.0), (-0.5, 0.87), (-0.87, 0.5),
    (-1.0, 0.0), (-0.87, -0.5), (-0.5, -0.87), (0.0, -1.0), (0.5, -0.87), (0.87, -0.5),
)  # fmt: skip


def _picture(kind: str) -> Drawing:
    """A ring with what comes out of it."""
    ring = tuple((250 + 200 * x, 250 + 200 * y) for x, y in RING)
    marks: dict[str, list[Item]] = {
        "water": [shape(((250, 400), (170, 220), (250, 140), (330, 220)), "glass", Pen.NARROW)],
        "waste": [shape(rectangle(180, 150, 140, 200), "basin", Pen.NARROW)],
        "power": [shape(((270, 400), (190, 240), (255, 240), (230, 110), (320, 290), (250, 290)), "ink", Pen.NARROW)],
        "gas": [shape(((250, 400), (180, 260), (210, 150), (290, 150), (320, 260)), "", Pen.MEDIUM)],
        "vent": [Line(150, y, 350, y, Pen.MEDIUM, Layer.OPENING) for y in (190, 250, 310)],
    }
    return drawing_of(kind, [shape(ring, "floor"), *marks.get(kind, [])])


SERVICE = Handling(
    sheet=service_sheet,
    offers=tuple(placed_by(kind, "Service points", partial(_picture, kind)) for kind in SERVICES),
    on_strip=along_wall,
    on_plan=on_floor,
    upright=sides_of(Kind.SERVICE),
    pick_on_strip=True,
)
