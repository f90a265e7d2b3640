"""A run: a row of cells along a line at one level. A cell places a unit and says how its width is found."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

import msgspec

from tall_plank.job.choices import Feet
from tall_plank.job.source import Source
from tall_plank.job.things.sliding import SlidingDoors
from tall_plank.job.top import Top
from tall_plank.measure import ZERO, Length
from tall_plank.measure.shareout import Rule


class Level(StrEnum):
    """At what height a run stands. Tall units stand in base runs too."""

    BASE = "base"
    HUNG = "hung"
    TALL = "tall"


class WidthRule(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """How a cell's width is found (RN2): fixed, an equal share (within a range), or what is left.

    Attributes
    ----------
    length : of a fixed width
    clear : the fixed length is the clear width inside; the unit is wider by its gables
    least, most : own range of a share; None is the kind's
    """

    rule: Rule
    length: Length | None = None
    clear: bool = False
    least: Length | None = None
    most: Length | None = None

    @classmethod
    def fixed(cls, length: Length) -> WidthRule:
        return cls(Rule.FIXED, length)


SHARE = WidthRule(Rule.SHARE)
REST = WidthRule(Rule.REST)


LINE = "line"
"""What an anchor to the left end of the line says."""


class Anchor(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """What holds a cell in its place along the line.

    Attributes
    ----------
    at : which of the cell is held: its left or right side, its centre, or both sides (span)
    to : source of what holds it (`cell:u4`, `opening:o2`, `column:m3`, `service:s1`), or `line`: the line's left end
    offset : added to the place of what holds it
    """

    at: Literal["left", "right", "centre", "span"]
    to: str
    offset: Length = ZERO

    @classmethod
    def by(cls, at: Literal["left", "right", "centre", "span"], source: Source | None, offset: Length = ZERO) -> Anchor:
        """Held by a thing, or by the line (None)."""
        return cls(at, str(source) if source is not None else LINE, offset)

    @property
    def source(self) -> Source | None:
        """What holds it; None for the line."""
        return Source.parse(self.to)


class Cell(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """One place in a run.

    Attributes
    ----------
    id : short and stable
    unit : id of the unit that stands here
    number : the unit's number on every list, plan and label; never changes by itself
    anchor : what holds it, where anything does
    label : own text of its label, with live fields in braces; empty: the kind's
    group : cells of one group are picked together
    bottom : own height of its underside above the floor; None: its run's
    locked : edits leave it as it is
    hidden : the views leave it out; lists and prices do not
    """

    id: str
    unit: str
    number: str
    width: WidthRule
    anchor: Anchor | None = None
    label: str = ""
    group: str = ""
    locked: bool = False
    hidden: bool = False
    bottom: Length | None = None


class Run(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Cells from left to right, as seen from inside the room.

    Attributes
    ----------
    wall : the wall, or the island's face, that it stands along
    start, end : free length kept at the line's left and right end; None: up to the end, or clear of what stands in
        the corner
    bottom : own height of the underside above the floor; None is inherited from the job's values
    top : its worktop
    feet : what it stands on: a plinth, legs that are seen, or nothing
    plinth_returns : whether the plinth turns back to the wall at open ends
    to_ceiling : a filler closes what is open above its units
    sliding : sliding doors before its units
    free : it hangs where it is put: its start and bottom are its own, and it is as long as its cells
    """

    id: str
    wall: str
    level: Level
    cells: tuple[Cell, ...] = ()
    start: Length | None = None
    end: Length | None = None
    bottom: Length | None = None
    top: Top = Top()
    feet: Feet = "plinth"
    plinth_returns: bool = True
    to_ceiling: bool = False
    sliding: tuple[SlidingDoors, ...] = ()
    free: bool = False

    @property
    def levels(self) -> tuple[Level, ...]:
        """The levels whose kinds may be in it; where two answer to one word, the last is meant."""
        return levels_of(self.level, free=self.free)


def levels_of(level: Level, *, free: bool = False) -> tuple[Level, ...]:
    """The levels whose kinds may be in a run of a level: tall units stand in base runs too, anything may hang free."""
    if free:
        return (Level.TALL, Level.BASE, Level.HUNG)
    return (Level.TALL, Level.BASE) if level is Level.BASE else (level,)
