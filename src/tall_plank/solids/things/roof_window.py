"""Windows in sloped ceilings."""

from __future__ import annotations

from tall_plank.job import Kind, RoofWindow, Room
from tall_plank.measure import Frame
from tall_plank.setout import RoomLayout
from tall_plank.setout.things.roof_window import roof_window_frame
from tall_plank.solids.solids import Box, Solid
from tall_plank.solids.things.common import GLASS, JOINERY, ThingSolids


def _roof_window(room: Room, window: RoofWindow) -> list[Solid]:
    """A frame of four bars and a pane, in the plane of the slope; the slope itself is left open to look in."""
    frame, w, h = roof_window_frame(room, window), window.width.mm, window.length.mm
    source, bar, thick = Kind.ROOF_WINDOW.of(window.id), 60.0, 80.0
    bars = ((0.0, 0.0, w, bar), (0.0, h - bar, w, bar), (0.0, bar, bar, h - 2 * bar), (w - bar, bar, bar, h - 2 * bar))
    found: list[Solid] = [
        Box(frame.then(Frame((x, y, 0.0))), (dx, dy, thick), JOINERY, source, "roof window") for x, y, dx, dy in bars
    ]
    found.append(Box(frame.then(Frame((bar, bar, 30.0))), (w - 2 * bar, h - 2 * bar, 20.0), GLASS, source, "pane"))
    return found


def _shell(room: RoomLayout) -> list[Solid]:
    return [solid for window in room.room.roof_windows for solid in _roof_window(room.room, window)]


ROOF_WINDOW = ThingSolids(shell=_shell)
