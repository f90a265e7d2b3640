"""What units of an island without gables ask of the panels that they stand between."""

from __future__ import annotations

from tall_plank.making.things.common import Lent, ThingMaking
from tall_plank.making.unit import MadeUnit
from tall_plank.measure.frames import Vec
from tall_plank.setout import Placed, RoomLayout


def lent_holes(room: RoomLayout, units: tuple[tuple[Placed, MadeUnit], ...]) -> Lent:
    """Island -> holes that its units without gables ask of the panels beside them, in the frame of its first face."""
    found: dict[str, list[tuple[Vec, float, float, str]]] = {}
    for placed, made in units:
        island = room.wall(placed.wall_id).island
        if not made.lent or not island:
            continue
        first = next(w for w in room.faces if w.island == island)
        for _, bores in made.lent:
            for point, diameter, depth, use in bores:
                place = first.frame.into(placed.frame.at(*point))
                found.setdefault(island, []).append((place, diameter, depth, use))
    return {key: tuple(rows) for key, rows in found.items()}


ISLAND = ThingMaking(lends=lent_holes)
