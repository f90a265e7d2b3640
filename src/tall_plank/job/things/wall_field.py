"""A field of a wall that is covered: where it lies, between which marks, and the treatment that it has."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import Length

Meets = Literal["butt", "scribe", "gap"]
"""How an edge meets what is beside it: square on; cut larger to be scribed; with a shadow gap."""


class Limit(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """One side of a field.

    Attributes
    ----------
    to : the thing at whose edge it lies, as text (`opening:o3`); empty: the wall's end, the floor, the ceiling
    edge : which edge of that thing
    off : from there into the field
    meets : how the edge meets what is there
    kept : where its mark lay when it went, from the wall's left end or the floor
    """

    to: str = ""
    edge: Literal["", "left", "right", "top", "bottom"] = ""
    off: Length = Length("0mm", 0.0)
    meets: Meets = "butt"
    kept: Length | None = None


class OwnCount(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """The number of panels in one stretch of a zone on this wall, where it is not the treatment's.

    Attributes
    ----------
    path : of the zone in its treatment
    stretch : its number from the left, from 0
    """

    path: tuple[int, ...]
    stretch: int
    count: int


class WallField(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A field of a wall.

    Attributes
    ----------
    treatment : id of the treatment that it shares
    mirrored : whether the treatment is turned about an upright line
    clear : what openings and units keep free of it
    """

    id: str
    name: str
    wall: str
    treatment: str
    left: Limit = Limit()
    right: Limit = Limit()
    bottom: Limit = Limit()
    top: Limit = Limit()
    mirrored: bool = False
    clear: Length = Length("0mm", 0.0)
    counts: tuple[OwnCount, ...] = ()

    def count_of(self, path: tuple[int, ...], stretch: int) -> int:
        """Its own count in a stretch of a zone; 0 where it has none."""
        return next((c.count for c in self.counts if c.path == path and c.stretch == stretch), 0)


WALL_FIELD = Noun(
    kind=Kind.WALL_FIELD,
    word="wall field",
    prefix="f",
    rows="fields",
    wall=lambda room, thing: thing.wall,
    name=lambda thing: f"wall field {thing.name}",
)
