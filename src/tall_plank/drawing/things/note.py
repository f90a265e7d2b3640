"""Notes on leaders. One whose thing is gone is told: it is never dropped."""

from __future__ import annotations

from tall_plank.drawing.primitives import Item, Layer, Text
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Kind, Source
from tall_plank.job.things.note import Note
from tall_plank.making.labels import filled
from tall_plank.setout import Wall
from tall_plank.setout.anchors import box_in


def _notes(scope: Scope, view: str) -> list[Item]:
    return [_drawn(scope, note) for note in scope.room.room.notes if note.view == view]


def _drawn(scope: Scope, note: Note) -> Item:
    source = Kind.NOTE.of(note.id)
    about = Source.parse(note.to)
    box = box_in(scope.room, note.view, about) if about is not None else None
    if box is None:
        words = f"✕ what this note was about is gone: {note.text}"
        return Text(0.0, 0.0, words, 1.8, Layer.LABEL, source, "left", backed=True, shift=(note.right, note.up))
    x, y = (box[0] + box[2]) / 2, (box[1] + box[3]) / 2
    words = words_of(scope, note, about)
    return Text(x, y, words, 2.2, Layer.LABEL, source, "left", backed=True, shift=(note.right, note.up))


def words_of(scope: Scope, note: Note, about: Source | None) -> str:
    """A note's words, its live fields filled."""
    room = scope.room
    placed = next((p for p in room.placed if about is not None and about == Kind.CELL.of(p.cell)), None)
    return filled(note.text, scope.job, room.room, placed) if placed is not None else note.text


def _over(scope: Scope, wall: Wall) -> list[Item]:
    return _notes(scope, wall.id)


def _above(scope: Scope) -> list[Item]:
    return _notes(scope, "")


NOTE = ThingDrawn(over=_over, above=_above)
