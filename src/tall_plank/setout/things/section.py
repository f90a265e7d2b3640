"""Section lines in their room."""

from __future__ import annotations

from tall_plank.job import Room
from tall_plank.job.things.section import Section
from tall_plank.measure import outlines as ol
from tall_plank.setout.rooms import corners_of

STEPS = 200
"""Places along a line at which it is looked whether it lies in its room."""


def cuts_room(room: Room, section: Section) -> bool:
    """Whether a section line runs through its room, and not only beside it or along its walls."""
    corners = corners_of(room.outline)
    ax, ay, bx, by = section.x1.mm, section.y1.mm, section.x2.mm, section.y2.mm
    along = ((ax + (bx - ax) * i / STEPS, ay + (by - ay) * i / STEPS) for i in range(1, STEPS))
    return any(ol.inside(corners, x, y) for x, y in along)
