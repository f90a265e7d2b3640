"""Moldings round the room and along units in the window."""

from __future__ import annotations

from functools import partial

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet, optional_row, yes_no, yes_no_choices
from tall_plank.desk.things.handling import Handling, Mark, drawing_of, placed_by, shape
from tall_plank.drawing.primitives import Drawing, Pen, rectangle
from tall_plank.edits.things.molding import profiles_for, set_molding
from tall_plank.job import Kind, RoomMolding, Source
from tall_plank.job.things.molding import ALONG_UNITS
from tall_plank.job.things.table import find_thing
from tall_plank.setout import RoomLayout


def molding_sheet(doc: Document, thing_id: str) -> Sheet:
    """A molding round the room, with its pieces."""
    _, molding = find_thing(doc.job, Kind.MOLDING, thing_id)
    profiles = tuple((p.code, p.name) for p in profiles_for(doc.job, molding.kind))
    profile = doc.job.stock.profile(molding.profile)
    where = tr(PLACES[molding.kind])
    rows = [
        Row("profile", tr("Profile"), profile.name if profile else molding.profile, choices=profiles,
            apply=lambda job, t: set_molding(job, thing_id, "profile", t)),
        optional_row(doc, "height", tr("Height"), molding.height, where, where,
                     lambda job, t: set_molding(job, thing_id, "height", t)),
        Row("edge", tr("Measured to"), tr(f"its {molding.edge} edge"),
            choices=(("top", tr("its top edge")), ("bottom", tr("its bottom edge"))),
            apply=lambda job, t: set_molding(job, thing_id, "edge", t)),
        *_where_rows(doc, molding),
        Row("by_others", tr("By others"), yes_no(molding.by_others), choices=yes_no_choices(),
            apply=lambda job, t: set_molding(job, thing_id, "by_others", t)),
    ]  # fmt: skip
    spring = f"{profile.spring:g}° {tr('from the wall')}" if profile and profile.spring else tr("flat on the wall")
    pieces = [p for p in doc.room.all_moldings if p.molding == thing_id]
    figures = (
        Row("spring", tr("Its back"), spring),
        Row("pieces", tr("Pieces"), str(len(pieces))),
        Row("metres", tr("At long points"), f"{sum(p.length for p in pieces) / 1000:.2f} m"),
        Row("mitres", tr("Mitred ends"), str(sum((p.left != 0) + (p.right != 0) for p in pieces))),
    )
    return Sheet(
        tr(molding.kind.capitalize()),
        doc.room.room.name,
        (Group(tr("Molding"), tuple(rows)), Group(tr("Made of"), figures)),
    )


PLACES = {
    "skirting": "on the floor", "dado rail": "on the floor", "picture rail": "on the floor",
    "cornice": "under the ceiling", "unit cornice": "on its units", "light rail": "under its units",
    "shelf edge": "at the top of its units",
}  # fmt: skip
"""Where a molding without a height of its own lies."""


def _where_rows(doc: Document, molding: RoomMolding) -> list[Row]:
    """On which walls, or along which units."""
    if not molding.along_units:
        return [
            Row("walls", tr("Walls"), " ".join(molding.walls), source=tr("letters; empty: all of them"),
                apply=lambda job, t: set_molding(job, molding.id, "walls", t))
        ]  # fmt: skip
    numbers = {c.id: c.number for run in doc.room.room.runs for c in run.cells}
    chosen = " ".join(numbers[c] for c in molding.cells if c in numbers)
    own = tr("behind the faces") if molding.kind == "light rail" else tr("on the faces")
    return [
        Row("cells", tr("Units"), chosen, source=tr("numbers; empty: all that it suits"),
            apply=lambda job, t: set_molding(job, molding.id, "cells", t)),
        optional_row(doc, "out", tr("Its back stands out"), molding.out, own, own,
                     lambda job, t: set_molding(job, molding.id, "out", t)),
    ]  # fmt: skip


BANDS = {"skirting": (0, 70), "dado rail": (200, 36), "picture rail": (420, 30), "cornice": (500, 60)}
"""Lower edge and height of each on its picture."""

BESIDE = {"unit cornice": (440, 60, 40), "light rail": (140, 40, 0), "shelf edge": (404, 36, 12)}
"""Lower edge, height and what it stands out of each on the picture of a hung unit."""


def _along(kind: str) -> Drawing:
    """A hung unit with its molding."""
    low, high, out = BESIDE[kind]
    wall, unit = rectangle(0, 0, 700, 560), rectangle(120, 180, 460, 260)
    band = rectangle(120 - out, low, 460 + 2 * out, high)
    doors = [shape(rectangle(x, 180, 230, 260), "board", Pen.NARROW) for x in (120, 350)]
    return drawing_of(kind, [shape(wall, "wall"), shape(unit, "board"), *doors, shape(band, "front", Pen.NARROW)])


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
    offers=(
        *(placed_by(kind, "Moldings", partial(_picture, kind)) for kind in BANDS),
        *(placed_by(kind, "Unit moldings", partial(_along, kind)) for kind in ALONG_UNITS),
    ),
    level=_level,
)
