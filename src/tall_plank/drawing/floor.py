"""What plans share: rectangles on a line, in the room."""

from __future__ import annotations

from tall_plank.measure.outlines import Points
from tall_plank.setout import RoomLayout, Wall


def on_line(wall: Wall, x: float, y: float, w: float, h: float) -> Points:
    """A rectangle given in the line's floor frame, in the room's plan."""
    return tuple(wall.frame.floor(px, py) for px, py in ((x, y), (x + w, y), (x + w, y + h), (x, y + h)))


def face_depth(room: RoomLayout, face: Wall) -> float:
    """How far units stand out before a face of an island, mm."""
    return max((p.depth + 20.0 for p in room.placed if p.wall_id == face.id), default=0.0)
