"""The work triangle of a kitchen on its plan: from what is cold to the sink to where it is cooked, with the length of
each leg; and the zones that these are in."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import combinations

from tall_plank.drawing.primitives import Item, Layer, Line, Pen, Text
from tall_plank.job import Job
from tall_plank.making import MadeJob
from tall_plank.measure import DisplayUnit, format_chain, format_length
from tall_plank.measure.frames import FloorPoint
from tall_plank.setout import RoomLayout

ZONES = {
    "fridge": "store", "sink": "wash", "dishwasher": "wash", "hob": "cook", "cooker": "cook", "oven": "cook",
}  # fmt: skip
"""Kinds of appliances, and the zone that each makes of its place."""

CORNERS = (("fridge",), ("sink",), ("hob", "cooker"))
"""What the triangle runs between: the first kind of each that there is."""


def places(room: RoomLayout, made: MadeJob) -> dict[str, FloorPoint]:
    """The middle of the front of the first unit with an appliance of each kind, in the room."""
    units = {p.cell: unit for p, unit in made.units if p.room == room.room.id}
    found: dict[str, FloorPoint] = {}
    for p in room.placed:
        unit = units.get(p.cell)
        for appliance in unit.appliances if unit is not None else ():
            found.setdefault(appliance.kind, p.frame.floor(p.width / 2, -p.depth))
    return found


def triangle(room: RoomLayout, made: MadeJob) -> list[tuple[FloorPoint, FloorPoint]]:
    """The legs between store, sink and cooking; none where one of the three is missing."""
    there = places(room, made)
    ends = [next((there[kind] for kind in kinds if kind in there), None) for kinds in CORNERS]
    return [] if None in ends else [(a, b) for a, b in combinations(ends, 2) if a is not None and b is not None]


def leg_words(legs: Sequence[tuple[FloorPoint, FloorPoint]], display: DisplayUnit) -> list[str]:
    """How long each leg is, to the millimetre, and all of them: what is printed adds up."""
    lengths = [float(round(math.dist(a, b))) for a, b in legs]
    return [*format_chain(lengths, display), format_length(sum(lengths), display)]


def workflow(job: Job, room: RoomLayout, made: MadeJob) -> list[Item]:
    """The triangle with its legs' lengths and their sum, and the zones' names before their units."""
    legs = triangle(room, made)
    items: list[Item] = []
    *lengths, whole = leg_words(legs, job.display)
    for ((ax, ay), (bx, by)), length in zip(legs, lengths, strict=True):
        items.append(Line(ax, ay, bx, by, Pen.MOVING, Layer.LABEL))
        items.append(Text((ax + bx) / 2, (ay + by) / 2, length, 1.8, Layer.LABEL, backed=True, rise=-0.9))
    if legs:
        x = sum(p[0] for leg in legs for p in leg) / 6
        y = sum(p[1] for leg in legs for p in leg) / 6
        items.append(Text(x, y, f"triangle {whole}", 1.8, Layer.LABEL, quiet=True, backed=True))
    named: set[str] = set()
    for kind, (x, y) in places(room, made).items():
        zone = ZONES.get(kind, "")
        if zone and zone not in named:
            named.add(zone)
            items.append(Text(x, y, zone, 2.0, Layer.LABEL, bold=True, rise=1.0))
    return items
