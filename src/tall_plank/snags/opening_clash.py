"""A unit that stands across a door, window or passage of its wall, or where a door of the room swings. Source:
geometry."""

from __future__ import annotations

from tall_plank.job import Snag, Where
from tall_plank.measure import format_length
from tall_plank.measure import outlines as ol
from tall_plank.setout import Placed, RoomLayout
from tall_plank.setout.things.opening import swing_points
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    found = []
    unit = checked.job.display
    for room in checked.layout.rooms:
        tops = {w.run: w.bottom + w.thickness for w in room.worktops}
        for placed in room.placed:
            if not placed.is_solid:
                continue
            where = Where(placed.room, placed.wall_id, placed.run, placed.cell, placed.number)
            if name := _in_the_swing(room, placed):
                remedy = "Move it, or hang the door at its other side or out of the room."
                found.append(Snag("opening", f"It stands where {name} swings.", remedy, where, "mind"))
            top = max(placed.top, tops.get(placed.run, 0.0))
            for opening in room.room.openings:
                if opening.wall != placed.wall_id:
                    continue
                x0, x1 = opening.x.mm, opening.x.mm + opening.width.mm
                z0, z1 = opening.sill.mm, opening.sill.mm + opening.height.mm
                across = min(placed.right, x1) - max(placed.x, x0)
                up = min(top, z1) - max(placed.bottom, z0)
                if across > 0.001 and up > 0.001:
                    found.append(
                        Snag(
                            "opening",
                            f"It covers {format_length(across, unit, mark=True)} of the {opening.kind}.",
                            "Move it, or put a gap there.",
                            where,
                        )
                    )
    return found


TOUCH = 2.0
"""mm; what reaches into a swing by less only touches it."""


def _in_the_swing(room: RoomLayout, placed: Placed) -> str:
    """The door of the room, in words, that cannot open for a unit; empty where none is hindered."""
    points = tuple(placed.frame.floor(x, y) for x, y in placed.plan)
    for opening in room.room.openings:
        wall = room.wall(opening.wall)
        swing = swing_points(wall, opening)
        low, high = opening.sill.mm, opening.sill.mm + opening.height.mm
        if swing and placed.bottom < high - TOUCH and placed.top > low + TOUCH and ol.overlap(points, swing, TOUCH):
            return f"the door in {wall.title}"
    return ""
