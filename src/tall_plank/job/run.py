"""A run: a row of cells along a wall at one level. A cell places a unit and says how its width is found."""

from __future__ import annotations

from enum import StrEnum

import msgspec

from tall_plank.measure import Length
from tall_plank.measure.shareout import Rule


class Level(StrEnum):
    """At what height a run stands."""

    BASE = "base"
    HUNG = "hung"


class WidthRule(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """How a cell's width is found (RN2): fixed, an equal share, or what is left."""

    rule: Rule
    length: Length | None = None

    @classmethod
    def fixed(cls, length: Length) -> WidthRule:
        return cls(Rule.FIXED, length)


SHARE = WidthRule(Rule.SHARE)
REST = WidthRule(Rule.REST)


class Cell(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """One place in a run.

    Attributes
    ----------
    id : short and stable
    unit : id of the unit that stands here
    number : the unit's number on every list, plan and label; never changes by itself
    """

    id: str
    unit: str
    number: str
    width: WidthRule


class Run(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Cells from left to right, as seen from inside the room.

    Attributes
    ----------
    start, end : free length kept at the wall's left and right end
    bottom : own height of the underside above the floor; None is inherited from the job's values
    """

    id: str
    wall: str
    level: Level
    cells: tuple[Cell, ...] = ()
    start: Length = Length("0mm", 0.0)
    end: Length = Length("0mm", 0.0)
    bottom: Length | None = None
