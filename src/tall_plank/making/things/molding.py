"""Moldings as lengths cut from bars."""

from __future__ import annotations

from tall_plank.making.made import MadeLength
from tall_plank.making.things.common import RoomMaking, ThingMaking

LETTER = "M"


def make_moldings(making: RoomMaking) -> None:
    """Every piece of a room's moldings with its number."""
    room = making.room
    by_others = {m.id: m.by_others for m in room.room.moldings}
    for p in room.all_moldings:
        line = making.line_name(room.wall(p.wall_id)) if room.has_line(p.wall_id) else "0"
        number = making.number(line, LETTER)
        others = by_others[p.molding]
        profile = making.basis.stock.profile(p.profile)
        spring = profile.spring if profile is not None else 0.0
        one = MadeLength(number, room.room.id, p.kind, p.profile, p.length, p.left, p.right, others, spring)
        making.lengths.append(one)


MOLDING = ThingMaking(make=make_moldings)
