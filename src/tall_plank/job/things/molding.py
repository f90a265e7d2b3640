"""A molding round the room, or along units."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import Length

MoldingKind = Literal["skirting", "dado rail", "picture rail", "cornice", "unit cornice", "light rail", "shelf edge"]

ALONG_UNITS: tuple[MoldingKind, ...] = ("unit cornice", "light rail", "shelf edge")
"""Kinds that run along units; the others run along walls."""


class RoomMolding(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A molding round the room, or along units.

    Attributes
    ----------
    profile : code of its profile in the stock
    height : off the floor, to the edge that `edge` names; None: a skirting stands on the floor, a cornice under the
        ceiling or on its units, a light rail hangs under them, a shelf edge is level with their tops
    walls : letters of the walls it runs on; empty: all
    by_others : drawn, but in no list and no price
    cells : the units that it runs along; empty: all of the room that it suits
    out : mm that its back stands before the carcasses; None: a light rail stands back by its own depth, others lie on
        their faces
    """

    id: str
    kind: MoldingKind
    profile: str
    height: Length | None = None
    edge: Literal["top", "bottom"] = "top"
    walls: tuple[str, ...] = ()
    by_others: bool = True
    cells: tuple[str, ...] = ()
    out: Length | None = None

    @property
    def along_units(self) -> bool:
        """Whether it runs along units."""
        return self.kind in ALONG_UNITS


MOLDING = Noun(
    kind=Kind.MOLDING,
    word="molding",
    prefix="d",
    rows="moldings",
    name=lambda thing: thing.kind,
)
