"""Sliding doors before the units of a run."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.bays import Front
from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import Length

LEAF = 34.0
"""mm; thickness of a leaf's frame."""


class Band(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A band of a sliding leaf: its finish (board, glass or mirror) and its height; None takes a share."""

    finish: str
    size: Length | None = None


class Leaf(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A sliding leaf: its bands from the top down, and the line that it runs on; empty: in turns, rear line first."""

    bands: tuple[Band, ...]
    line: Literal["", "front", "rear"] = ""


class BayRef(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A bay of a placed unit; an empty path is the whole unit."""

    cell: str
    path: tuple[int, ...] = ()


class Replaced(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A front that sliding doors stand in the place of; it comes back when they go."""

    cell: str
    path: tuple[int, ...]
    front: Front


class SlidingDoors(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Sliding doors before an opening that reaches from one bay to another, over several bays or units of a wall, in
    one run or in several that stand over one another.

    Attributes
    ----------
    first, last, more : the bays that the opening reaches over; it is the least upright box about them
    replaced : fronts in whose place they stand
    overlap : of neighbouring leaves; None is the standard's
    """

    id: str
    first: BayRef
    last: BayRef
    leaves: tuple[Leaf, ...]
    overlap: Length | None = None
    more: tuple[BayRef, ...] = ()
    replaced: tuple[Replaced, ...] = ()

    @property
    def bays(self) -> tuple[BayRef, ...]:
        """Every bay that was chosen."""
        return (self.first, self.last, *self.more)

    def line_of(self, index: int) -> int:
        """The line of a leaf: 0 in front, 1 behind."""
        own = self.leaves[index].line
        return (0 if own == "front" else 1) if own else (1 if index % 2 == 0 else 0)


SLIDING = Noun(
    kind=Kind.SLIDING,
    word="sliding doors",
    prefix="l",
    rows="sliding",
    on_run=True,
)
