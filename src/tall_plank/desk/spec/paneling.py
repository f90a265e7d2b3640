"""What the spec sheet says at the Paneling stage while nothing is selected: every wall field of the room."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet, length_text
from tall_plank.desk.things.wall_field import counts_told


def paneling_sheet(doc: Document) -> Sheet:
    """The wall fields of the room with their sizes; what to do first where there are none."""
    groups = []
    for laid in doc.room.fields:
        size = f"{length_text(doc, laid.width)} × {length_text(doc, laid.height)}"
        rows = [
            Row(f"treatment_{laid.field.id}", tr("Treatment"), laid.treatment.name),
            Row(f"size_{laid.field.id}", tr("Size"), size),
            Row(f"off_{laid.field.id}", tr("Face off the wall"), length_text(doc, laid.stands_off)),
            Row(f"counts_{laid.field.id}", tr("Panels"), counts_told(doc, laid)),
        ]
        groups.append(Group(f"{doc.room.wall(laid.wall_id).heading}, {laid.field.name}", tuple(rows)))
    if not groups:
        first = tr("Choose a wall on the strip, then a treatment at the left: Enter puts it there, or drag it.")
        groups.append(Group(tr("First"), (Row("first", first, ""),)))
    return Sheet(tr("Paneling"), doc.room.room.name, tuple(groups))
