"""What is dragged on a wall snaps to seams, edges and middles of what stands there, and to guide lines; by name."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.things.handling import Mark
from tall_plank.desk.things.table import HANDLING
from tall_plank.job import Source
from tall_plank.measure import format_length
from tall_plank.measure.units import DisplayUnit
from tall_plank.setout import RoomLayout

SNAP_PX = 6.0


def upright_marks(room: RoomLayout, wall_id: str, run: str = "", leave: Source | None = None) -> list[Mark]:
    """Places along a wall. `run`, `leave`: what is moving, whose own places do not count."""
    marks = []
    line = room.wall(wall_id)
    for p in room.placed:
        if p.wall_id == wall_id and p.run != run and p.is_solid:
            marks += [
                Mark(p.x, f"{tr('left of')} {p.number}"),
                Mark(p.right, f"{tr('right of')} {p.number}"),
                Mark(p.x + p.width / 2, f"{tr('middle of')} {p.number}"),
            ]
    for handling in HANDLING.values():
        if handling.upright is not None:
            marks += [mark for source, mark in handling.upright(room, wall_id) if source != leave]
    return [*marks, Mark(line.length / 2, tr("middle of the wall"))]


def level_marks(room: RoomLayout, wall_id: str, run: str = "", leave: Source | None = None) -> list[Mark]:
    """Heights on a wall: tops and undersides of units, worktops, and of placed things."""
    marks = []
    for p in room.placed:
        if p.wall_id == wall_id and p.run != run and p.is_solid:
            marks += [Mark(p.top, f"{tr('top of')} {p.number}"), Mark(p.bottom, f"{tr('underside of')} {p.number}")]
    for top in room.worktops:
        if top.wall_id == wall_id:
            marks.append(Mark(top.bottom + top.thickness, tr("worktop")))
    for handling in HANDLING.values():
        if handling.level is not None:
            marks += [mark for source, mark in handling.level(room, wall_id) if source != leave]
    return marks


def nearest(at: float, marks: list[Mark], scale: float) -> Mark | None:
    """The mark within a few pixels of a place, mm; None where there is none. `scale`: px per mm."""
    near = [(abs(m.at - at), m.at, m) for m in marks if abs(m.at - at) * scale < SNAP_PX]
    return min(near, key=lambda n: n[:2])[2] if near else None


def snap_box(x: float, width: float, marks: list[Mark], scale: float) -> tuple[float, Mark | None]:
    """Where the left side of something as wide as `width` comes to lie when its nearest side or its middle snaps."""
    found = []
    for by in (0.0, width, width / 2):
        mark = nearest(x + by, marks, scale)
        if mark is not None:
            found.append((abs(mark.at - x - by), mark.at - by, mark))
    if not found:
        return x, None
    _, left, mark = min(found, key=lambda f: f[:2])
    return left, mark


def place_name(mm: float, display: DisplayUnit, mark: Mark | None) -> str:
    """What stands at the pointer during a drag: the distance, and what it snapped to."""
    text = format_length(mm, display)
    return f"{text} · {mark.name}" if mark is not None else text
