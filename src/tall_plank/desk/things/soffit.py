"""Soffits in the window."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet, length_row, length_text
from tall_plank.desk.things.dragging import on_floor
from tall_plank.desk.things.handling import Handling, drawing_of, placed_by, shape
from tall_plank.drawing.primitives import Drawing, Item, rectangle
from tall_plank.edits.things.soffit import corners_text, set_soffit
from tall_plank.job import Kind
from tall_plank.job.things.table import find_thing


def soffit_sheet(doc: Document, thing_id: str) -> Sheet:
    """A soffit: how far it comes down, and its corners."""
    _, soffit = find_thing(doc.job, Kind.SOFFIT, thing_id)
    if soffit.over:
        reveal = length_row(
            doc,
            "reveal",
            tr("Set in behind the fronts"),
            soffit.reveal,
            lambda job, t: set_soffit(job, thing_id, "reveal", t),
        )
        shown = next((s for s in doc.room.room.soffits if s.id == thing_id), None)
        drop = Row("drop", tr("Below the ceiling"), length_text(doc, shown.drop.mm) if shown else "–")
        return Sheet(tr("Soffit"), tr("stands on the units of a run"), (Group(tr("Size"), (reveal, drop)),))
    rows = (
        length_row(
            doc, "drop", tr("Below the ceiling"), soffit.drop, lambda job, t: set_soffit(job, thing_id, "drop", t)
        ),
        Row(
            "corners",
            tr("Corners"),
            corners_text(doc.job, soffit),
            source=tr("x y; x y; x y"),
            apply=lambda job, t: set_soffit(job, thing_id, "corners", t),
        ),
    )
    return Sheet(tr("Soffit"), doc.room.room.name, (Group(tr("Size"), rows),))


def _picture_soffit() -> Drawing:
    items: list[Item] = [
        shape(rectangle(0, 0, 700, 560), "wall"),
        shape(rectangle(0, 400, 700, 160), "column"),
    ]
    return drawing_of("soffit", items)


SOFFIT = Handling(
    sheet=soffit_sheet,
    offers=(placed_by("soffit", "Structure", _picture_soffit),),
    on_plan=on_floor,
    outlined=True,
)
