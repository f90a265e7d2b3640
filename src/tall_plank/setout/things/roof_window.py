"""Windows in sloped ceilings."""

from __future__ import annotations

import math

from tall_plank.job import RoofWindow, Room
from tall_plank.measure import Frame, PlankError, format_length
from tall_plank.measure.frames import RoomFrame, RoomPoint
from tall_plank.setout.rooms import walls_of
from tall_plank.setout.things.common import ThingSetOut


def roof_window_frame(room: Room, window: RoofWindow) -> RoomFrame:
    """The frame of a roof window: origin at its lower left corner seen from the room, x to the right, y up the slope,
    z down into the room.

    Raises
    ------
    PlankError where its slope is gone, or it leaves the slope or its wall
    """
    slope = next((s for s in room.slopes if s.id == window.slope), None)
    if slope is None:
        raise PlankError("The sloped ceiling is no longer there.", "roof window", "Slope the ceiling first.")
    wall = next(w for w in walls_of(room) if w.id == slope.wall)
    rise, run = room.height.mm - slope.low.mm, slope.run.mm
    pitch = math.atan2(rise, run)
    over = max(-window.x.mm, window.x.mm + window.width.mm - wall.length)
    if over > 1e-6:
        raise PlankError(
            f"It reaches {format_length(over, mark=True)} past the end of the wall.", "roof window", "Move it."
        )
    if window.sill.mm < slope.low.mm - 1e-6:
        least = format_length(slope.low.mm)
        raise PlankError("Its sill lies below the slope.", "roof window", f"Type {least} or more.")
    top = window.sill.mm + window.length.mm * math.sin(pitch)
    if top > room.height.mm + 1e-6:
        past = format_length((top - room.height.mm) / math.sin(pitch), mark=True)
        raise PlankError(f"It reaches {past} past the upper end of the slope.", "roof window", "Make it shorter.")
    away = (window.sill.mm - slope.low.mm) / math.tan(pitch)
    up = (0.0, -math.cos(pitch), math.sin(pitch))
    return wall.frame.then(Frame((window.x.mm, -away, window.sill.mm), (1.0, 0.0, 0.0), up))


def roof_window_corners(room: Room, window: RoofWindow) -> tuple[RoomPoint, ...]:
    """Its corners in the room's frame, mm: lower left, lower right, upper right, upper left."""
    frame, w, h = roof_window_frame(room, window), window.width.mm, window.length.mm
    return tuple(frame.at(x, y, 0.0) for x, y in ((0.0, 0.0), (w, 0.0), (w, h), (0.0, h)))


def _fits(room: Room, window: RoofWindow) -> None:
    roof_window_frame(room, window)


ROOF_WINDOW = ThingSetOut(fits=_fits)
