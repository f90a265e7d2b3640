"""Casings round the openings of a room, as lengths cut from bars."""

from __future__ import annotations

from tall_plank.making.made import MadeLength
from tall_plank.making.things.common import RoomMaking, ThingMaking

LETTER = "C"


def make_casings(making: RoomMaking) -> None:
    """The sides of every casing with their numbers, mitred to their outer edges."""
    room = making.room.room.id
    for casing in making.room.casings:
        for _, length, left, right in casing.frame.pieces():
            number = making.number(casing.wall_id, LETTER)
            code, others = casing.frame.profile, casing.by_others
            making.lengths.append(MadeLength(number, room, "casing", code, round(length, 6), left, right, others, 90.0))


OPENING = ThingMaking(make=make_casings)
