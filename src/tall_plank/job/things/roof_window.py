"""A window in a sloped ceiling."""

from __future__ import annotations

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import Length


class RoofWindow(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A window in a sloped ceiling.

    Attributes
    ----------
    slope : id of the slope that it lies in
    x : of its left side from the left end of the slope's wall, seen from inside
    sill : height of its lower edge above the floor
    length : up the slope, along its pitch
    """

    id: str
    slope: str
    x: Length
    width: Length
    sill: Length
    length: Length


ROOF_WINDOW = Noun(
    kind=Kind.ROOF_WINDOW,
    word="roof window",
    prefix="y",
    rows="roof_windows",
    wall=lambda room, thing: next((s.wall for s in room.slopes if s.id == thing.slope), ""),
    extent=lambda thing: (thing.x.mm, thing.width.mm),
)
