"""A note in a view: words about a thing, on a leader."""

from __future__ import annotations

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun


class Note(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A note in a view.

    Attributes
    ----------
    view : letter of the wall or face on whose elevation it stands; empty: the plan
    to : the thing that it is about, as `cell:u4`
    text : words; of a unit with live fields in braces, as a label has
    right, up : mm of paper from the middle of the thing to the words
    """

    id: str
    view: str
    to: str
    text: str
    right: float = 16.0
    up: float = 14.0


NOTE = Noun(
    kind=Kind.NOTE,
    word="note",
    prefix="t",
    rows="notes",
)
