"""Fronts and drawers that cannot be opened for what stands before or beside them: other units and their handles,
boards, walls, columns, a ceiling that slopes; and those that reach into the swing of a door of the room. Source:
geometry.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import NamedTuple

import msgspec
import numpy as np
from numpy.typing import NDArray

from tall_plank.job import Room, Snag, Where
from tall_plank.job.choices import Weight
from tall_plank.making import MadeUnit
from tall_plank.making.ways import Thing, Way
from tall_plank.measure import DisplayUnit, format_length
from tall_plank.measure.frames import RoomFrame, RoomPoint
from tall_plank.measure.remembered import remembered
from tall_plank.setout import Placed
from tall_plank.setout.rooms import ceiling_at
from tall_plank.snags.checked import Checked
from tall_plank.snags.corner import covered_cells
from tall_plank.snags.standing import Standing, standing_in_room, unit_ways
from tall_plank.stock import Stock

Place = NDArray[np.float64]
"""(3,) mm, in the room."""

LEAST_OPEN = 1 / 3
"""Share of its way that a front has to open at least; what opens less is of no use, and wrong."""

SQUARE = 75.0
"""Degrees; a front that opens further and is stopped by its handle wants room beside its hinges."""


class Hindered(NamedTuple):
    """A front that does not open all the way.

    Attributes
    ----------
    at : how far it opens: degrees, or mm where it slides
    whole : how far it should
    name : what it meets
    handle : whether its handle meets that
    lacks : (mm that its handle needs beside its hinges, mm that it has)
    swings : whether it only reaches into the swing of a door of the room
    """

    way: Way
    at: float
    whole: float
    name: str
    handle: bool
    lacks: tuple[float, float] | None = None
    swings: bool = False

    @property
    def share(self) -> float:
        return 2.0 if self.swings else self.at / self.whole


def find(checked: Checked) -> list[Snag]:
    found: list[Snag] = []
    covered = covered_cells(checked)
    for room, made in zip(checked.layout.rooms, checked.made.rooms, strict=True):
        things, boxes = standing_in_room(room, made, checked.job.stock)
        for placed, unit in made.units:
            if placed.cell in covered or not unit.fronts or not unit.parts:
                continue
            low, high = _reach(placed, unit, checked.job.stock)
            near = np.flatnonzero(((boxes[:, 3:] > low) & (boxes[:, :3] < high)).all(axis=1))
            others = tuple(things[i] for i in near if things[i].cell != placed.cell)
            sloped = room.room if room.room.slopes or room.room.soffits else None
            if not others and sloped is None:
                continue
            hindered = _hindered(placed.frame, unit, checked.job.stock, others, sloped)
            if hindered:
                found.append(_snag(placed, hindered, checked.job.display))
    return found


@remembered(2048)
def _reach(placed: Placed, unit: MadeUnit, stock: Stock) -> tuple[Place, Place]:
    """The upright box in the room about all that the fronts of a unit pass, out of their faces."""
    points: list[RoomPoint] = []
    for way in unit_ways(unit, stock):
        side = way.projection + unit.spec.made.corner_play
        for u in (way.x - side, way.x + way.width + side):
            for out in (way.thick + 0.5, way.out):
                for z in (way.z, way.z + way.height):
                    points.append(placed.frame.at(*way.face.point(u, out, z)))
    if not points:
        points = [placed.frame.at(0.0, 0.0, 0.0)]
    rows: NDArray[np.float64] = np.array(points)
    return rows.min(axis=0), rows.max(axis=0)


@remembered(2048)
def _hindered(
    frame: RoomFrame, unit: MadeUnit, stock: Stock, others: tuple[Standing, ...], sloped: Room | None
) -> tuple[Hindered, ...]:
    """The fronts of a unit that do not open all the way, the worst one first."""
    found: list[Hindered] = []
    play = unit.spec.made.corner_play
    z = frame.origin[2]
    solid, swings = [o for o in others if not o.swings], [o for o in others if o.swings]
    for way in unit_ways(unit, stock):
        # A handle that swings keeps as much clear as fillers leave it.
        turning = way.projection and way.moves != "slides"
        wide = msgspec.structs.replace(way, projection=way.projection + play) if turning else way
        # What it stands in as it is closed is told by other rules.
        known = [(other, _before(frame, wide, other, z)) for other in solid]
        known = [(other, thing) for other, thing in known if not way.stands_in(thing)]
        met = wide.meets([thing for _, thing in known])
        if met is not None:
            other, thing = known[met.which]
            lacks = _lacking(wide, thing[0]) if met.handle and met.at >= SQUARE else None
            found.append(Hindered(way, met.at, wide.sweep.whole, other.name, met.handle, lacks))
        elif sloped is not None and (at := _under(frame, way, sloped)) is not None:
            found.append(Hindered(way, at, way.sweep.whole, "the ceiling", handle=False))
        elif (met := way.meets([_before(frame, way, other, z) for other in swings])) is not None:
            found.append(Hindered(way, met.at, way.sweep.whole, swings[met.which].name, met.handle, swings=True))
    return tuple(sorted(found, key=lambda h: h.share))


def _before(frame: RoomFrame, way: Way, other: Standing, z: float) -> Thing:
    """Something of the room in the coordinates of a front's face."""
    points = tuple(way.face.into(*frame.from_floor(p)) for p in other.points)
    return points, other.bottom - z, other.top - z


def _lacking(way: Way, outline: Sequence[tuple[float, float]]) -> tuple[float, float] | None:
    """mm that a handle needs beside the hinges, and that it has; None where what it meets does not stand there."""
    edge = way.x + way.width if way.far else way.x
    have = min(u - edge for u, _ in outline) if way.far else min(edge - u for u, _ in outline)
    return (way.projection, max(0.0, have)) if -1.0 < have < way.projection else None


def _under(frame: RoomFrame, way: Way, room: Room) -> float | None:
    """How far a front opens below a ceiling that slopes or steps down; None where it opens all the way."""
    top = frame.origin[2] + way.z + way.height
    for share in np.linspace(0.0, 1.0, 7):
        for place in _places(way, float(share)):
            if ceiling_at(room, frame.floor(*place)) < top - 0.5:
                return float(share) * way.sweep.whole
    return None


def _places(way: Way, share: float) -> Iterator[tuple[float, float]]:
    """Points of the unit's plan over which the upper edge of a front stands, so far open."""
    if way.moves == "slides":
        for u in (way.x + 1.0, way.x + way.width - 1.0):
            yield way.face.point(u, way.thick + share * way.reach, 0.0)[:2]
    elif way.moves == "turns":
        a = math.radians(90.0 * share)
        u, out = way.width * math.cos(a), way.thick + way.width * math.sin(a)
        yield way.face.point(way.x + way.width - u if way.far else way.x + u, out - 1.0, 0.0)[:2]


def _snag(placed: Placed, hindered: Sequence[Hindered], unit: DisplayUnit) -> Snag:
    """The worst of the fronts of a unit, in words."""
    worst = hindered[0]
    more = len(hindered) - 1
    others = f" So {'does' if more == 1 else 'do'} {more} more of its fronts." if more else ""
    where = Where(placed.room, placed.wall_id, placed.run, placed.cell, placed.number)
    what, remedy = _words(worst, unit)
    weight: Weight = "wrong" if worst.share < LEAST_OPEN else "mind"
    return Snag("opened", what + others, remedy, where, weight)


def _words(worst: Hindered, unit: DisplayUnit) -> tuple[str, str]:
    """What is wrong with a front, and the remedy."""

    def shown(mm: float) -> str:
        return format_length(mm, unit, mark=True)

    way, by = worst.way, "its handle" if worst.handle else "it"
    if worst.swings:
        what = f"Its {way.word}, opened, reaches into {worst.name}."
        return what, "Mind that both are not opened at once, or move one of them."
    if way.moves == "slides":
        what = f"Its {way.word} comes out {shown(worst.at)} of {shown(worst.whole)} only: {by} meets {worst.name}."
        return what, "Put a filler between, or move one of them."
    if worst.lacks is not None:
        needs, has = worst.lacks
        what = f"Its {way.word} does not open square: its handle meets {worst.name}; it needs {shown(needs)} there and "
        what += f"has {shown(has)}."
        return what, "Put a filler there, hinge it at the other side, or choose another handle."
    what = f"Its {way.word} opens {worst.at:.0f}° of {worst.whole:.0f}° only: {by} meets {worst.name}."
    if way.moves == "turns":
        return what, "Move one of them, or hinge it at the other side."
    return what, "Move one of them, or close it with another front."
