"""A service point on a wall or on the floor."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import ZERO, Length

ServiceKind = Literal["water", "waste", "power", "gas", "vent"]


class Service(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A service point on a wall (x from its left end), or on the floor (wall empty: x and y in the room)."""

    id: str
    kind: ServiceKind
    wall: str
    x: Length
    height: Length
    y: Length = ZERO


SERVICE = Noun(
    kind=Kind.SERVICE,
    word="service point",
    prefix="s",
    rows="services",
    wall=lambda room, thing: thing.wall,
    name=lambda thing: f"{thing.kind} point",
    extent=lambda thing: (thing.x.mm, 0.0),
)
