"""A pier, a chimney breast or a free column."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import ZERO, Length


class Column(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A pier or chimney breast against a wall, or a column that stands free.

    Attributes
    ----------
    wall : the wall it stands against; empty: it stands free
    x : from the wall's left end to its left side, or the room's x of its left lower corner
    y : the room's y of that corner where it stands free
    width, depth : along the wall and out of it (along x and y where it stands free)
    height : None reaches the ceiling
    """

    id: str
    kind: Literal["column", "chimney breast"]
    wall: str
    x: Length
    width: Length
    depth: Length
    y: Length = ZERO
    height: Length | None = None


FACES = ("left", "front", "right", "back")
"""Of a column, clockwise from its left side as it is seen from the room."""


def face_id(column: Column, face: str) -> str:
    """What a face of a column is called where wall fields say what they lie on."""
    return f"{column.id}-{face}"


COLUMN = Noun(
    kind=Kind.COLUMN,
    word="column",
    prefix="m",
    rows="columns",
    wall=lambda room, thing: thing.wall,
    name=lambda thing: thing.kind,
    extent=lambda thing: (thing.x.mm, thing.width.mm),
)
