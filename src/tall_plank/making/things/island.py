"""What units of an island without gables ask of the panels that they stand between."""

from __future__ import annotations

import msgspec

from tall_plank.making.parts import Asked
from tall_plank.making.things.common import Lent, ThingMaking
from tall_plank.making.unit import MadeUnit
from tall_plank.setout import Placed, RoomLayout


def lent_work(room: RoomLayout, units: tuple[tuple[Placed, MadeUnit], ...]) -> Lent:
    """Island -> what its units without gables ask of the panels beside them, in the frame of its first face."""
    found: dict[str, list[Asked]] = {}
    for placed, made in units:
        island = room.wall(placed.wall_id).island
        if not made.lent or not island:
            continue
        first = next(w for w in room.faces if w.island == island)
        for _, asked in made.lent:
            for work in asked:
                at = first.frame.into(placed.frame.at(*work.at))
                to = None if work.to is None else first.frame.into(placed.frame.at(*work.to))
                found.setdefault(island, []).append(msgspec.structs.replace(work, at=at, to=to))
    return {key: tuple(rows) for key, rows in found.items()}


ISLAND = ThingMaking(lends=lent_work)
