"""Appliances without the service points that they need, and without the floor that they need before them (CK1, CK3).

How far a hose or lead reaches is common practice; the clear floor is the appliance's own, from the stock.
"""

from __future__ import annotations

import math

from tall_plank.job import Snag, Where
from tall_plank.measure import format_length
from tall_plank.measure import outlines as ol
from tall_plank.setout import Placed, RoomLayout
from tall_plank.setout.clear import floor_before
from tall_plank.snags.checked import Checked

REACH = 1200.0
"""mm from the side of a unit to a service point on its wall, or from its middle to one on the floor or another wall
(hoses and leads of about 1.5 m, common practice)."""

TOUCH = 2.0
"""mm; what reaches into the clear floor by less only touches it."""


def find(checked: Checked) -> list[Snag]:
    found: list[Snag] = []
    for room in checked.layout.rooms:
        without = 0
        for p, unit in checked.made.units:
            if p.room != room.room.id:
                continue
            needs = {kind for a in unit.appliances for kind in a.services}
            missing = sorted(kind for kind in needs if not _near(room, p, kind))
            if missing and not room.room.services:
                without += 1
            elif missing:
                names = " and ".join(missing)
                reach = format_length(REACH, checked.job.display)
                what = f"No {names} point lies within {reach} of it."
                found.append(Snag("service", what, "Mark one in the Room stage.", _where(p), "mind", "common practice"))
            deep = unit.clear_front
            if deep > 0 and (name := _in_the_way(room, p, deep)):
                clear = format_length(deep, checked.job.display)
                what = f"It needs {clear} of clear floor before it; {name} stands there."
                found.append(Snag("clear floor", what, "Move one of them.", _where(p), "mind", "the appliance's own"))
        if without:
            what = f"{without} unit{'s' if without > 1 else ''} with appliances; no service point is marked."
            where = Where(room.room.id, room.walls[0].id, "", "", room.room.name)
            found.append(Snag("service", what, "Mark water, waste, power and vents in the Room stage.", where, "mind"))
    return found


def _where(p: Placed) -> Where:
    return Where(p.room, p.wall_id, p.run, p.cell, p.number)


def _near(room: RoomLayout, p: Placed, kind: str) -> bool:
    mx, my = p.frame.floor(p.width / 2, -p.depth / 2)
    for s in room.room.services:
        if s.kind != kind:
            continue
        if s.wall == p.wall_id and s.wall:
            if max(p.x - s.x.mm, s.x.mm - p.right) <= REACH:
                return True
            continue
        x, y = room.wall(s.wall).frame.floor(s.x.mm, 0.0) if s.wall else (s.x.mm, s.y.mm)
        if math.hypot(x - mx, y - my) <= REACH + p.width / 2:
            return True
    return False


def _in_the_way(room: RoomLayout, p: Placed, deep: float) -> str:
    """What stands on the floor before a unit, by its number; empty where nothing does."""
    floor = floor_before(p, deep)
    for other in room.placed:
        if other.cell != p.cell and other.is_solid and other.level != "hung" and other.width > 0:
            points = tuple(other.frame.floor(x, y) for x, y in other.plan)
            if ol.overlap(floor, points, TOUCH):
                return other.number or "a filler"
    mx, my = (sum(p[k] for p in floor) / 4 for k in (0, 1))
    # A hair towards the middle, so that what only touches a wall stands free.
    held = all(ol.inside(room.points, x + (mx - x) * 0.002, y + (my - y) * 0.002) for x, y in floor)
    return "" if held else "a wall"
