"""Edits of notes in views."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change, new_ids
from tall_plank.edits.things.common import ThingEdits, added, deleted, replaced
from tall_plank.job import Job, Kind, Source
from tall_plank.job.things.note import Note
from tall_plank.job.things.table import find_thing
from tall_plank.making.labels import check_label
from tall_plank.measure import PlankError
from tall_plank.measure.limits import check_reach
from tall_plank.setout import set_out
from tall_plank.setout.anchors import anchor_words, box_in

FAR = 200.0
"""mm of paper that words stand off what they are about at the most."""

LONGEST = 120
"""Letters of a note."""


def add_note(job: Job, room_id: str, view: str, source: Source, text: str = "") -> Change:
    """A note about a thing of a view; of a unit its kind and its width where no words are given.

    Raises
    ------
    PlankError where the thing is not seen there, or a field is not known
    """
    job.room(room_id)  # told where there is none
    room = set_out(job).room(room_id)
    if box_in(room, view, source) is None:
        where = f"wall {view}" if view else "the plan"
        what = f"{anchor_words(room, str(source)).capitalize()} is not seen on {where}."
        raise PlankError(what, "note", "Select something else.")
    words = text or ("{kind}, {width}" if source.kind is Kind.CELL else anchor_words(room, str(source)))
    job, (new_id,) = new_ids(job, "t")
    return added(job, room_id, Kind.NOTE, Note(new_id, view, str(source), _checked(words)), "Add a note")


def _checked(text: str) -> str:
    check_label(text)
    words = text.strip()[:LONGEST]
    if not words:
        raise PlankError("A note needs words.", "text", "Type some, or delete the note.")
    return words


def set_note(job: Job, note_id: str, key: str, text: str) -> Change:
    """Set a note's words (text), or how far they stand off (right, up), mm of paper.

    Raises
    ------
    PlankError where the text is none of these, or names a field that is not known
    """
    room, note = find_thing(job, Kind.NOTE, note_id)
    if key == "text":
        new = msgspec.structs.replace(note, text=_checked(text))
    elif key in ("right", "up"):
        try:
            mm = float(text.strip().removesuffix("mm"))
        except ValueError:
            raise PlankError(f"“{text[:20]}” is no distance on paper.", key, "Type mm of paper, such as 14.") from None
        new = msgspec.structs.replace(note, **{key: _off(mm, key)})
    else:
        raise PlankError(f"A note has no {key[:20]}.", "note", "Choose text, right or up.")
    return replaced(job, room, Kind.NOTE, new, "Set the note")


def move_note(job: Job, note_id: str, right: float, up: float) -> Change:
    """Drag a note's words. `right`, `up`: mm of paper from the middle of its thing."""
    check_reach(right, up)
    room, note = find_thing(job, Kind.NOTE, note_id)
    new = msgspec.structs.replace(note, right=_off(right, "right"), up=_off(up, "up"))
    return replaced(job, room, Kind.NOTE, new, "Move the note")


def _off(mm: float, key: str) -> float:
    """In halves of a mm of paper.

    Raises
    ------
    PlankError where it is no number or too far
    """
    if not -FAR <= mm <= FAR:
        raise PlankError(f"{mm:g} mm of paper is too far.", key, f"Give up to {FAR:g} mm.")
    return round(mm * 2) / 2


def delete_note(job: Job, thing_id: str) -> Change:
    """Take a note away."""
    return deleted(job, Kind.NOTE, thing_id)


NOTE = ThingEdits(add={}, set=set_note, delete=delete_note)
