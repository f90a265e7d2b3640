"""A line of the designer's own to set things out by."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import Length


class Guide(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A line of the designer's own to set things out by; drawn on screen, on no paper.

    Attributes
    ----------
    axis : z level at a height, through every wall; x upright on a wall, or across the plan; y across the plan
    at : from the wall's left end, the floor, or the plan's west or south side
    wall : of an upright line on a wall; empty: on the plan
    """

    id: str
    axis: Literal["x", "y", "z"]
    at: Length
    wall: str = ""


GUIDE = Noun(
    kind=Kind.GUIDE,
    word="guide line",
    prefix="g",
    rows="guides",
    wall=lambda room, thing: thing.wall,
)
