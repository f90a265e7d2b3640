"""Moldings as lengths cut from bars."""

from __future__ import annotations

from tall_plank.making.made import MadeLength
from tall_plank.making.things.common import RoomMaking, ThingMaking

LETTER = "M"


def make_moldings(making: RoomMaking) -> None:
    """Every piece of a room's moldings with its number."""
    room = making.room
    by_others = {m.id: m.by_others for m in room.room.moldings}
    for p in room.moldings:
        number = making.number(p.wall_id or "0", LETTER)
        others = by_others[p.molding]
        making.lengths.append(MadeLength(number, room.room.id, p.kind, p.profile, p.length, p.left, p.right, others))


MOLDING = ThingMaking(make=make_moldings)
