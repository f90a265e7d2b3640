"""Dimensions by hand and notes whose thing is gone."""

from __future__ import annotations

from tall_plank.job import Snag, Source, Where
from tall_plank.setout.anchors import box_in, gone
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    found = []
    for room in checked.layout.rooms:
        for dimension in room.room.dimensions:
            lost = gone(room, dimension)
            if lost:
                what = f"A dimension by hand is broken: {', '.join(lost)} is gone or not seen there."
                where = Where(room=room.room.id, wall_id=dimension.view, label=room.room.name)
                found.append(Snag("dimension", what, "Delete it, or undo what took its thing away.", where, "mind"))
        for note in room.room.notes:
            source = Source.parse(note.to)
            if source is None or box_in(room, note.view, source) is None:
                what = f"What a note is about is gone: “{note.text[:40]}”."
                where = Where(room=room.room.id, wall_id=note.view, label=room.room.name)
                found.append(Snag("note", what, "Delete it, or undo what took its thing away.", where, "mind"))
    return found
