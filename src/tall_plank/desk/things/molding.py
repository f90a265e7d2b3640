"""Moldings round the room in the window."""

from __future__ import annotations

from functools import partial

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet, optional_row, yes_no, yes_no_choices
from tall_plank.desk.things.handling import Handling, Mark, drawing_of, placed_by, shape
from tall_plank.drawing.primitives import Drawing, Pen, rectangle
from tall_plank.edits.things.molding import MOLDINGS, set_molding
from tall_plank.job import Kind, Source
from tall_plank.job.things.table import find_thing
from tall_plank.setout import RoomLayout


def molding_sheet(doc: Document, thing_id: str) -> Sheet:
    """A molding round the room, with its pieces."""
    _, molding = find_thing(doc.job, Kind.MOLDING, thing_id)
    profiles = tuple((p.code, p.name) for p in doc.job.stock.profiles if molding.kind in p.uses)
    profile = doc.job.stock.profile(molding.profile)
    where = tr("on the floor") if molding.kind != "cornice" else tr("under the ceiling")
    rows = [
        Row("profile", tr("Profile"), profile.name if profile else molding.profile, choices=profiles,
            apply=lambda job, t: set_molding(job, thing_id, "profile", t)),
        optional_row(doc, "height", tr("Height"), molding.height, where, where,
                     lambda job, t: set_molding(job, thing_id, "height", t)),
        Row("edge", tr("Measured to"), tr(f"its {molding.edge} edge"),
            choices=(("top", tr("its top edge")), ("bottom", tr("its bottom edge"))),
            apply=lambda job, t: set_molding(job, thing_id, "edge", t)),
        Row("walls", tr("Walls"), " ".join(molding.walls), source=tr("letters; empty: all of them"),
            apply=lambda job, t: set_molding(job, thing_id, "walls", t)),
        Row("by_others", tr("By others"), yes_no(molding.by_others), choices=yes_no_choices(),
            apply=lambda job, t: set_molding(job, thing_id, "by_others", t)),
    ]  # fmt: skip
    pieces = [p for p in doc.room.moldings if p.molding == thing_id]
    figures = (
        Row("pieces", tr("Pieces"), str(len(pieces))),
        Row("metres", tr("At long points"), f"{sum(p.length for p in pieces) / 1000:.2f} m"),
        Row("mitres", tr("Mitred ends"), str(sum((p.left != 0) + (p.right != 0) for p in pieces))),
    )
    return Sheet(
        tr(molding.kind.capitalize()),
        doc.room.room.name,
        (Group(tr("Molding"), tuple(rows)), Group(tr("Made of"), figures)),
    )


BANDS = {"skirting": (0, 70), "dado rail": (200, 36), "picture rail": (420, 30), "cornice": (500, 60)}
"""Lower edge and height of each on its picture."""


def _picture(kind: str) -> Drawing:
    low, high = BANDS[kind]
    wall, band = rectangle(0, 0, 700, 560), rectangle(0, low, 700, high)
    return drawing_of(kind, [shape(wall, "wall"), shape(band, "board", Pen.NARROW)])


def _level(room: RoomLayout, wall_id: str) -> list[tuple[Source, Mark]]:
    """Undersides."""
    return [
        (Kind.MOLDING.of(p.molding), Mark(p.low, f"{tr('underside of')} {tr(p.kind)}"))
        for p in room.moldings
        if p.wall_id == wall_id
    ]


MOLDING = Handling(
    sheet=molding_sheet,
    offers=tuple(placed_by(kind, "Moldings", partial(_picture, kind)) for kind in MOLDINGS),
    level=_level,
)
