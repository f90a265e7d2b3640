"""A molding round the room."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import Length

MoldingKind = Literal["skirting", "dado rail", "picture rail", "cornice"]


class RoomMolding(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A molding round the room.

    Attributes
    ----------
    profile : code of its profile in the stock
    height : off the floor, to the edge that `edge` names; None: a skirting stands on the floor, a cornice under the
        ceiling
    walls : letters of the walls it runs on; empty: all
    by_others : drawn, but in no list and no price
    """

    id: str
    kind: MoldingKind
    profile: str
    height: Length | None = None
    edge: Literal["top", "bottom"] = "top"
    walls: tuple[str, ...] = ()
    by_others: bool = True


MOLDING = Noun(
    kind=Kind.MOLDING,
    word="molding",
    prefix="d",
    rows="moldings",
    name=lambda thing: thing.kind,
)
