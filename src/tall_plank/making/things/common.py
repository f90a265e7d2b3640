"""What making has of a kind of placed thing."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from tall_plank.job import Basis
from tall_plank.making.made import MadeField, MadeLength, MadeTrim, OfferedThing
from tall_plank.making.parts import Asked
from tall_plank.making.sliding import MadeSliding
from tall_plank.making.unit import MadeUnit
from tall_plank.setout import Placed, RoomLayout, Wall

Lent = dict[str, tuple[Asked, ...]]
"""Island -> what its units ask of the panels beside them, in the frame of its first face."""


@dataclass
class RoomMaking:
    """A room while it is made: what is read, and what has been made of it so far.

    Attributes
    ----------
    basis : with the units of the room
    prefix : before every number of the room; empty in the first one
    """

    room: RoomLayout
    basis: Basis
    prefix: str
    units: tuple[tuple[Placed, MadeUnit], ...]
    trims: list[MadeTrim] = field(default_factory=list)
    lengths: list[MadeLength] = field(default_factory=list)
    sliding: list[MadeSliding] = field(default_factory=list)
    offered: list[OfferedThing] = field(default_factory=list)
    fields: list[MadeField] = field(default_factory=list)
    _counts: dict[str, int] = field(default_factory=dict)

    def line_name(self, line: Wall) -> str:
        """What a wall, an island or a face of a column is called in numbers and labels."""
        return line.id[0] if line.island else line.mark

    def number(self, line: str, letter: str) -> str:
        """The next number of a letter on a line: AW.1 is the first worktop on wall A."""
        head = f"{self.prefix}{line}{letter}"
        self._counts[head] = self._counts.get(head, 0) + 1
        return f"{head}.{self._counts[head]}"

    def unit_of(self, cell: str) -> str:
        """Id of the unit that a cell places."""
        return next(p.unit for p in self.room.placed if p.cell == cell)


@dataclass(frozen=True, kw_only=True)
class ThingMaking:
    """
    Attributes
    ----------
    make : makes every one in a room
    lends : the holes that units ask of what closes an island
    """

    make: Callable[[RoomMaking], None] | None = None
    lends: Callable[[RoomLayout, tuple[tuple[Placed, MadeUnit], ...]], Lent] | None = None
