"""Dimensions by hand in the window."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet
from tall_plank.desk.things.handling import Handling
from tall_plank.edits.things.dimension import length_of, set_dimension, sides_of
from tall_plank.job import Kind
from tall_plank.job.things.table import find_thing
from tall_plank.measure import format_length
from tall_plank.setout.anchors import anchor_words


def dimension_sheet(doc: Document, thing_id: str) -> Sheet:
    """Between what it measures, how far its line stands off, and a text in place of the figure."""
    _, dim = find_thing(doc.job, Kind.DIMENSION, thing_id)
    true = length_of(doc.job, thing_id)

    def side(key: str, label: str, now: str) -> Row:
        return Row(
            key,
            label,
            tr(now),
            choices=tuple((s, tr(s)) for s in sides_of(dim)),
            apply=lambda job, t: set_dimension(job, thing_id, key, t),
        )

    rows = (
        Row("length", tr("Measures"), format_length(true, doc.job.display) if true is not None else tr("broken")),
        side("from", f"{tr('From')} {anchor_words(doc.room, dim.a.to)}", dim.a.role),
        side("to", f"{tr('To')} {anchor_words(doc.room, dim.b.to)}", dim.b.role),
        Row(
            "offset", tr("Off, mm of paper"), f"{dim.offset:g}",
            apply=lambda job, t: set_dimension(job, thing_id, "offset", t),
        ),
        Row("text", tr("Text instead"), dim.text, apply=lambda job, t: set_dimension(job, thing_id, "text", t)),
    )  # fmt: skip
    where = f"{tr('on the elevation of')} {dim.view}" if dim.view else tr("on the plan")
    return Sheet(tr("Dimension"), where, (Group(tr("Place"), rows),))


DIMENSION = Handling(sheet=dimension_sheet)
