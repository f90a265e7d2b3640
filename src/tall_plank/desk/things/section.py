"""Section lines in the window."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet, length_row
from tall_plank.desk.things.handling import Hand, Handling, Offered, drawing_of, shape
from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, rectangle
from tall_plank.drawing.things.section import section_name
from tall_plank.edits.things.section import move_section, set_section
from tall_plank.job import Kind
from tall_plank.job.things.table import find_thing
from tall_plank.measure import format_length


def section_sheet(doc: Document, thing_id: str) -> Sheet:
    """A section line: its ends on the plan, and to which side it is looked."""
    room, section = find_thing(doc.job, Kind.SECTION, thing_id)
    labels = {"x1": "First end, x", "y1": "First end, y", "x2": "Second end, x", "y2": "Second end, y"}

    def end(key: str, label: str) -> Row:
        return length_row(doc, key, tr(label), getattr(section, key), lambda job, t: set_section(job, thing_id, key, t))

    ends = tuple(end(key, label) for key, label in labels.items())
    looks = Row(
        "looks",
        tr("Looks to the"),
        tr(section.looks),
        choices=(("left", tr("left")), ("right", tr("right"))),
        apply=lambda job, t: set_section(job, thing_id, "looks", t),
    )
    title = f"{tr('Section')} {section_name(room, section)}"
    return Sheet(title, tr("drawn on a sheet of its own"), (Group(tr("Place"), (*ends, looks)),))


def _picture(along: bool) -> Drawing:
    x1, y1, x2, y2 = (350.0, -40.0, 350.0, 520.0) if along else (-40.0, 240.0, 740.0, 240.0)
    items: list[Item] = [
        shape(rectangle(0, 0, 700, 480), "floor", Pen.WIDE),
        shape(rectangle(0, 360, 700, 120), "unit", Pen.NARROW),
        Line(x1, y1, x2, y2, Pen.CHAIN, Layer.OPENING),
    ]
    return drawing_of("section", items)


def _on_plan(hand: Hand) -> None:
    """After the pointer, on whole centimetres; straight ones only across themselves."""
    _, section = find_thing(hand.origin, Kind.SECTION, hand.source.id)
    dx, dy = (round(v / 10.0) * 10.0 for v in hand.by)
    if abs(section.y1.mm - section.y2.mm) < 0.5:
        dx = 0.0
        hand.snaps.tell_snap(format_length(section.y1.mm + dy, hand.document.job.display))
    elif abs(section.x1.mm - section.x2.mm) < 0.5:
        dy = 0.0
        hand.snaps.tell_snap(format_length(section.x1.mm + dx, hand.document.job.display))
    hand.document.drag(lambda job: move_section(job, section.id, dx, dy))


SECTION = Handling(
    sheet=section_sheet,
    offers=(
        Offered(
            "section across", "Drawings", "Across", f"{tr('Section')}: {tr('across the plan')}", "section_across",
            lambda: _picture(False),
        ),
        Offered(
            "section along", "Drawings", "Along", f"{tr('Section')}: {tr('along the plan')}", "section_along",
            lambda: _picture(True),
        ),
    ),
    on_plan=_on_plan,
)  # fmt: skip
