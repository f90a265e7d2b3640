"""A place that is drawn large: a window on a wall or an island's face, seen from before it or cut open."""

from __future__ import annotations

from typing import Any, Literal

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import Length

DetailCut = Literal["seen", "upright", "level"]

DetailScale = Literal[1, 2, 5, 10]
"""mm per mm of paper, after ISO 5455 (from memory)."""


class Detail(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A place that is drawn large.

    Attributes
    ----------
    wall : letter of the wall, or name of the island's face, that it is placed on
    x, z : of its middle, from the wall's left end and from the floor
    away : of its middle, from the wall into the room; what is only seen has none
    size : side of the square that is drawn
    cut : seen from before the wall; cut upright at x and looked at to the left; or cut level at z, from above
    """

    id: str
    wall: str
    x: Length
    z: Length
    away: Length
    size: Length
    cut: DetailCut = "upright"
    scale: DetailScale = 5


def _wall(room: Any, detail: Detail) -> str:
    """The wall that it is on; none where that is gone."""
    return detail.wall if detail.wall in room.line_ids() else ""


DETAIL = Noun(
    kind=Kind.DETAIL,
    word="detail",
    prefix="y",
    rows="details",
    wall=_wall,
    extent=lambda thing: (thing.x.mm, 0.0),
)
