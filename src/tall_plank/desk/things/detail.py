"""Details in the window."""

from __future__ import annotations

from functools import partial

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet, length_row, setter
from tall_plank.desk.things.handling import Hand, Handling, Offered, drawing_of, shape
from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, rectangle
from tall_plank.drawing.things.detail import detail_name
from tall_plank.edits.things.detail import CUTS, SCALES, move_detail, set_detail
from tall_plank.job import Kind
from tall_plank.job.things.table import find_thing


def detail_sheet(doc: Document, thing_id: str) -> Sheet:
    """A detail: where it is, how it is cut, how large it is drawn."""
    room, detail = find_thing(doc.job, Kind.DETAIL, thing_id)

    def choice(key: str, label: str, text: str, choices: tuple[tuple[str, str], ...]) -> Row:
        return Row(key, label, text, choices=choices, apply=lambda job, t: set_detail(job, thing_id, key, t))

    keys = [("x", tr("From the left")), ("z", tr("Height")), ("size", tr("Side of the window"))]
    if detail.cut != "seen":
        keys.insert(2, ("away", tr("From the wall")))
    rows = (
        choice("wall", tr("Wall"), detail.wall, tuple((w, w) for w in room.line_ids())),
        choice("cut", tr("Drawn"), tr(CUTS[detail.cut]), tuple((k, tr(v)) for k, v in CUTS.items())),
        *(length_row(doc, k, label, getattr(detail, k), setter(set_detail, thing_id, k)) for k, label in keys),
        choice("scale", tr("Scale"), f"1:{detail.scale}", tuple((s, s) for s in SCALES)),
    )
    title = f"{tr('Detail')} {detail_name(room, detail)}"
    return Sheet(title, tr("drawn on the sheets of its room"), (Group(tr("Detail"), rows),))


def _picture(cut: str) -> Drawing:
    items: list[Item] = [
        shape(rectangle(0, 0, 700, 480), "floor", Pen.WIDE),
        shape(rectangle(0, 300, 700, 60), "unit", Pen.NARROW),
        shape(rectangle(220, 150, 260, 260), "", Pen.MEDIUM),
    ]
    if cut == "upright":
        items += [Line(350, a, 350, b, Pen.WIDE, Layer.OPENING) for a, b in ((410, 480), (80, 150))]
    if cut == "level":
        items += [Line(a, 280, b, 280, Pen.WIDE, Layer.OPENING) for a, b in ((140, 220), (480, 560))]
    return drawing_of("detail", items)


def _on_strip(hand: Hand) -> None:
    """After the pointer, over the wall."""
    _, detail = find_thing(hand.origin, Kind.DETAIL, hand.source.id)
    x, z = detail.x.mm + hand.by[0], detail.z.mm + hand.by[1]
    hand.document.drag(lambda job: move_detail(job, detail.id, x, z))


LABELS = {"upright": "Cut upright", "level": "Cut level", "seen": "Seen"}

DETAIL = Handling(
    sheet=detail_sheet,
    offers=tuple(
        Offered(
            f"detail {cut}", "Drawings", f"Detail {label.lower()}", f"{tr('Detail')}: {tr(label.lower())}",
            f"detail_{cut}", partial(_picture, cut),
        )
        for cut, label in LABELS.items()
    ),
    on_strip=_on_strip,
    pick_on_strip=True,
)  # fmt: skip
