"""Columns and chimney breasts in the window."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet, length_row, length_text, optional_row, setter
from tall_plank.desk.things.dragging import along_wall, on_floor, sides_of
from tall_plank.desk.things.handling import Handling, drawing_of, placed_by, shape
from tall_plank.drawing.primitives import Drawing, Item, Pen, rectangle
from tall_plank.edits.things.column import set_column
from tall_plank.edits.things.wall_field import STARTS, cover_column
from tall_plank.job import Kind
from tall_plank.job.things.table import find_thing
from tall_plank.setout.columnfaces import joined_faces


def column_sheet(doc: Document, thing_id: str) -> Sheet:
    """A column or chimney breast."""
    room, column = find_thing(doc.job, Kind.COLUMN, thing_id)
    walls = (*((w, w) for w in room.wall_ids()), ("", tr("free standing")))
    rows = [
        Row(
            "wall",
            tr("Wall"),
            column.wall or tr("free standing"),
            choices=walls,
            apply=lambda job, t: set_column(job, thing_id, "wall", t),
        ),
    ]
    keys = [("x", tr("From the left")), ("width", tr("Width")), ("depth", tr("Depth"))]
    if not column.wall:
        keys.insert(1, ("y", tr("From the south")))
    for key, label in keys:
        rows.append(length_row(doc, key, label, getattr(column, key), setter(set_column, thing_id, key)))
    rows.append(
        optional_row(
            doc,
            "height",
            tr("Height"),
            column.height,
            length_text(doc, room.height.mm),
            tr("up to the ceiling"),
            lambda job, t: set_column(job, thing_id, "height", t),
        )
    )
    groups = [Group(tr("Size"), tuple(rows))]
    if any(not j.hidden and not any(f.wall == j.line.id for f in room.fields) for j in joined_faces(room, column)):
        starts = tuple((start, tr(name)) for start, (name, _) in STARTS.items())
        covering = Row(
            "cover",
            tr("Cover its faces"),
            tr("with"),
            "inherited",
            tr("every face that has no wall field yet, all alike"),
            choices=starts,
            apply=lambda job, start: cover_column(job, room.id, thing_id, start),
        )
        groups.append(Group(tr("Paneling"), (covering,)))
    where = f"{tr('wall')} {column.wall}" if column.wall else tr("free standing")
    return Sheet(tr(column.kind.capitalize()), where, tuple(groups))


def _picture(name: str, wide: float) -> Drawing:
    items: list[Item] = [
        shape(rectangle(0, 300, 740, 120), "masonry", Pen.WIDE),
        shape(rectangle(370 - wide / 2, 60, wide, 240), "masonry", Pen.WIDE),
    ]
    return drawing_of(name, items)


COLUMN = Handling(
    sheet=column_sheet,
    offers=(
        placed_by("column", "Structure", lambda: _picture("column", 300.0)),
        placed_by("chimney breast", "Structure", lambda: _picture("chimney breast", 620.0)),
    ),
    on_strip=along_wall,
    on_plan=on_floor,
    upright=sides_of(Kind.COLUMN),
    outlined=True,
    pick_on_strip=True,
)
