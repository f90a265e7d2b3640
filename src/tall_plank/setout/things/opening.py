"""Doors, windows, open passages and niches in their walls."""

from __future__ import annotations

import math

from tall_plank.job import Opening, Room
from tall_plank.measure import PlankError, format_length
from tall_plank.measure.frames import FloorPoints
from tall_plank.setout.rooms import walls_of
from tall_plank.setout.things.common import ThingSetOut, on_its_wall
from tall_plank.setout.wall import Wall


def lowest(wall: Wall, x0: float, x1: float) -> float:
    """Least height of a wall's upper edge between two places, mm."""
    marks = [x0, x1, *(x for x, _ in wall.profile if x0 < x < x1)]
    return min(wall.height_at(x) for x in marks)


def swing_points(wall: Wall, opening: Opening) -> FloorPoints:
    """The floor over which a door of a room swings into it, in the room's plan: a quarter of a circle about its hinges,
    mm; nothing for what does not."""
    if opening.kind != "door" or opening.swing != "in":
        return ()
    x, width = opening.x.mm, opening.width.mm
    hinge, way = (x, 1.0) if opening.hand == "left" else (x + width, -1.0)
    arc = ((hinge + way * width * math.cos(a), -width * math.sin(a)) for a in (math.pi / 2 * i / 12 for i in range(13)))
    return tuple(wall.frame.floor(u, v) for u, v in ((hinge, 0.0), *arc))


def check_opening(room: Room, opening: Opening, head: str = "") -> None:
    """Raises PlankError where an opening leaves its wall or runs into another one."""
    wall = next((w for w in walls_of(room) if w.id == opening.wall), None)
    if wall is None:
        raise PlankError(f"There is no wall {opening.wall}.", opening.kind, "Choose another wall.")
    name = f"{opening.kind} in wall {wall.id}"
    x, width = opening.x.mm, opening.width.mm
    if x < -1e-6 or x + width > wall.length + 1e-6:
        over = max(-x, x + width - wall.length)
        what = f"It reaches {format_length(over, mark=True)} past the end of the wall."
        raise PlankError(f"{head} {what}".strip(), name, "Move it or make it narrower.")
    high = lowest(wall, x, x + width)
    if opening.sill.mm < 0 or opening.sill.mm + opening.height.mm > high + 1e-6:
        over = opening.sill.mm + opening.height.mm - high
        what = f"It reaches {format_length(over, mark=True)} above the ceiling."
        raise PlankError(f"{head} {what}".strip(), name, "Make it lower.")
    for other in room.openings:
        if other.id != opening.id and other.wall == opening.wall:
            overlap = min(x + width, other.x.mm + other.width.mm) - max(x, other.x.mm)
            if overlap > 1e-6:
                what = f"It overlaps the {other.kind} beside it by {format_length(overlap, mark=True)}."
                raise PlankError(f"{head} {what}".strip(), name, "Move one of them.")


def _fits(room: Room, opening: Opening) -> None:
    check_opening(room, opening, f"The {opening.kind} in wall {opening.wall} would no longer fit.")


OPENING = ThingSetOut(
    span=lambda room, wall, o: on_its_wall(wall, o.wall, o.x.mm, o.width.mm),
    fits=_fits,
)
