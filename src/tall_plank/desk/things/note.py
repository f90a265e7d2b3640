"""Notes in the window."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet
from tall_plank.desk.things.handling import Handling
from tall_plank.edits.things.note import set_note
from tall_plank.job import Kind
from tall_plank.job.things.table import find_thing
from tall_plank.setout.anchors import anchor_words


def note_sheet(doc: Document, thing_id: str) -> Sheet:
    """A note's words, with the fields that they may have, and how far they stand off."""
    _, note = find_thing(doc.job, Kind.NOTE, thing_id)

    def row(key: str, label: str, text: str, source: str = "") -> Row:
        return Row(key, label, text, source=source, apply=lambda job, t: set_note(job, thing_id, key, t))

    fields = tr("text with fields: {number}, {width}, {height}, {depth}, {kind}")
    rows = (
        row("text", tr("Words"), note.text, fields if note.to.startswith("cell:") else ""),
        row("right", tr("To the right, mm of paper"), f"{note.right:g}"),
        row("up", tr("Up, mm of paper"), f"{note.up:g}"),
    )
    return Sheet(tr("Note"), f"{tr('about')} {anchor_words(doc.room, note.to)}", (Group(tr("Note"), rows),))


NOTE = Handling(sheet=note_sheet)
