"""What comes of making: every placed unit and every trim with its parts, and their numbers."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

import msgspec

from tall_plank.job import Source
from tall_plank.making.parts import Item, Part, Problem
from tall_plank.making.sliding import MadeSliding
from tall_plank.making.unit import MadeUnit
from tall_plank.measure.frames import RoomFrame
from tall_plank.measure.remembered import remembered
from tall_plank.setout import Placed
from tall_plank.setout.frames import MoldingFrame


class NumberedPart(msgspec.Struct, frozen=True):
    """A part with its number, the same on list, plan, label and drawing; `frame` is in the room."""

    number: str
    unit: str
    cell: str
    part: Part
    parent: RoomFrame


def numbers_told(numbers: Iterable[str]) -> str:
    """Numbers of parts in one line: those that differ only in what stands after a dash are counted, as 5 x AN1.3."""
    counts: dict[str, list[str]] = {}
    for number in numbers:
        counts.setdefault(number.partition("-")[0], []).append(number)
    return ", ".join(found[0] if len(found) == 1 else f"{len(found)} x {head}" for head, found in counts.items())


class MadeTrim(msgspec.Struct, frozen=True, cache_hash=True):
    """A board of a trim made; `label` such as `A worktop`; `parent` the line's frame in the room.

    Attributes
    ----------
    source : what it belongs to: a run, an island, sliding doors
    items : what is bought for it: joint bolts
    bought_for : what the schedule names for its items; empty: its number
    """

    label: str
    number: str
    room: str
    run: str
    parent: RoomFrame
    part: Part | None
    problem: Problem | None = None
    source: Source | None = None
    kind: str = ""
    items: tuple[Item, ...] = ()
    bought_for: str = ""


class MadeLength(msgspec.Struct, frozen=True, cache_hash=True):
    """A piece cut from a bar of a profile: a molding.

    Attributes
    ----------
    what : what it is, such as cornice
    length : at its long points, mm
    left, right : saw angle at each end, degrees from square; above 0 the back is the longer side
    by_others : drawn, but in no list of what is cut and in no price
    spring : degrees from the upright of the corners to its back: its profile's; 90 where it turns in the plane of its
        back, as a casing does
    """

    number: str
    room: str
    what: str
    profile: str
    length: float
    left: float
    right: float
    by_others: bool
    spring: float = 0.0


class MadeField(msgspec.Struct, frozen=True, cache_hash=True):
    """A wall field made; its parts are trims.

    Attributes
    ----------
    moldings : mitred round its panels
    problems : what is wrong with it, and what to mind
    number, label : as in the numbers of its parts
    """

    source: Source
    room: str
    wall_id: str
    number: str
    label: str
    moldings: tuple[MoldingFrame, ...] = ()
    problems: tuple[Problem, ...] = ()


class OfferedThing(msgspec.Struct, frozen=True, cache_hash=True):
    """Something that an offer names by itself, beside units and worktops: its number, what it is, its sizes, mm."""

    number: str
    what: str
    sizes: tuple[float, ...]


class MadeRoom(msgspec.Struct, frozen=True, cache_hash=True):
    """Everything of one room."""

    units: tuple[tuple[Placed, MadeUnit], ...]
    trims: tuple[MadeTrim, ...]
    lengths: tuple[MadeLength, ...] = ()
    sliding: tuple[MadeSliding, ...] = ()
    offered: tuple[OfferedThing, ...] = ()
    room: str = ""
    fields: tuple[MadeField, ...] = ()


class MadeJob(msgspec.Struct, frozen=True):
    """Every placed unit with what it is made of, and the trims."""

    rooms: tuple[MadeRoom, ...]

    @property
    def units(self) -> tuple[tuple[Placed, MadeUnit], ...]:
        return tuple(u for room in self.rooms for u in room.units)

    @property
    def trims(self) -> tuple[MadeTrim, ...]:
        return tuple(t for room in self.rooms for t in room.trims)

    @property
    def lengths(self) -> tuple[MadeLength, ...]:
        """Everything that is cut from bars of a profile."""
        return tuple(m for room in self.rooms for m in room.lengths)

    @property
    def sliding(self) -> tuple[MadeSliding, ...]:
        return tuple(s for room in self.rooms for s in room.sliding)

    @property
    def fields(self) -> tuple[MadeField, ...]:
        """Every wall field."""
        return tuple(f for room in self.rooms for f in room.fields)

    def of(self, cell: str) -> MadeUnit | None:
        for room in self.rooms:
            found = _by_cell(room).get(cell)
            if found is not None:
                return found
        return None

    def parts(self) -> Iterator[NumberedPart]:
        """Every part of the job with its number."""
        for placed, made in self.units:
            for i, part in enumerate(made.parts, 1):
                yield NumberedPart(f"{placed.number}.{i}", placed.number, placed.cell, part, placed.frame)
        for trim in self.trims:
            if trim.part is not None:
                yield NumberedPart(trim.number, trim.label, "", trim.part, trim.parent)


@remembered(128)
def _by_cell(room: MadeRoom) -> dict[str, MadeUnit]:
    return {placed.cell: made for placed, made in room.units}
