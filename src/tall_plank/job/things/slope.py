"""A ceiling that slopes down to a wall."""

from __future__ import annotations

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import Length


class Slope(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A ceiling that slopes down to a wall: `low` at the wall, the room's height at `run` from it."""

    id: str
    wall: str
    low: Length
    run: Length


SLOPE = Noun(
    kind=Kind.SLOPE,
    word="slope",
    prefix="l",
    rows="slopes",
    wall=lambda room, thing: thing.wall,
)
