"""Plan images in the window."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Apply, Group, Row, Sheet, length_row, setter, yes_no, yes_no_choices
from tall_plank.desk.things.dragging import on_floor
from tall_plank.desk.things.handling import Handling
from tall_plank.edits.things.underlay import set_underlay
from tall_plank.job import Kind
from tall_plank.job.things.table import find_thing


def underlay_sheet(doc: Document, thing_id: str) -> Sheet:
    """A plan image under the room."""
    _, under = find_thing(doc.job, Kind.UNDERLAY, thing_id)

    def set_it(key: str) -> Apply:
        return setter(set_underlay, thing_id, key)

    rows = (
        length_row(doc, "x", tr("From the west"), under.x, set_it("x")),
        length_row(doc, "y", tr("From the south"), under.y, set_it("y")),
        length_row(doc, "width", tr("Stands for"), under.width, set_it("width")),
        Row("turn", tr("Turned"), f"{under.turn:g}°", apply=set_it("turn")),
        Row("shown", tr("Shown"), yes_no(under.shown), choices=yes_no_choices(), apply=set_it("shown")),
    )
    return Sheet(tr("Plan image"), doc.room.room.name, (Group(tr("Place"), rows),))


UNDERLAY = Handling(sheet=underlay_sheet, on_plan=on_floor)
