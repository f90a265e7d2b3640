"""Dimensions by hand in the window."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet
from tall_plank.desk.things.handling import Handling
from tall_plank.edits.things.dimension import ends_of, length_of, set_dimension
from tall_plank.job import Kind
from tall_plank.job.things.dimension import DimensionEnd
from tall_plank.job.things.table import find_thing
from tall_plank.measure import format_length
from tall_plank.measure.outlines import Point
from tall_plank.setout.anchors import anchor_words


def dimension_sheet(doc: Document, thing_id: str) -> Sheet:
    """Between what it measures, how far its line stands off, and a text in place of the figure."""
    _, dim = find_thing(doc.job, Kind.DIMENSION, thing_id)
    true = length_of(doc.job, thing_id)

    def words(side: str, at: Point | None) -> str:
        name, _, number = side.partition(" ")
        if at is None:
            return tr(name)
        return f"{tr(name)} {number} ({', '.join(format_length(v, doc.job.display) for v in at)})"

    def side(key: str, label: str, end: DimensionEnd) -> Row:
        ends = ends_of(doc.room, dim, end)
        return Row(
            key,
            label,
            words(end.side, ends.get(end.side)),
            choices=tuple((s, words(s, at)) for s, at in ends.items()),
            apply=lambda job, t: set_dimension(job, thing_id, key, t),
        )

    rows = (
        Row("length", tr("Measures"), format_length(true, doc.job.display) if true is not None else tr("broken")),
        side("from", f"{tr('From')} {anchor_words(doc.room, dim.a.to)}", dim.a),
        side("to", f"{tr('To')} {anchor_words(doc.room, dim.b.to)}", dim.b),
        Row(
            "offset", tr("Off, mm of paper"), f"{dim.offset:g}",
            apply=lambda job, t: set_dimension(job, thing_id, "offset", t),
        ),
        Row("text", tr("Text instead"), dim.text, apply=lambda job, t: set_dimension(job, thing_id, "text", t)),
    )  # fmt: skip
    where = f"{tr('on the elevation of')} {dim.view}" if dim.view else tr("on the plan")
    return Sheet(tr("Dimension"), where, (Group(tr("Place"), rows),))


DIMENSION = Handling(sheet=dimension_sheet)
