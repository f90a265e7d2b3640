"""Islands: what an empty one shows on the plan, and the panels of its first face seen from behind."""

from __future__ import annotations

from tall_plank.drawing.colors import color_of
from tall_plank.drawing.floor import face_depth, on_line
from tall_plank.drawing.primitives import Item, Layer, Pen, Shape, rectangle
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.drawing.trims import top_front
from tall_plank.job import Kind
from tall_plank.measure.outlines import Points
from tall_plank.setout import RoomLayout, Wall


def _over(scope: Scope, wall: Wall) -> list[Item]:
    """On an island's second face: its worktop, and the panels that belong to the first, seen from behind."""
    job, room = scope.job, scope.room
    if not wall.island or wall.id.endswith("1"):
        return []
    items: list[Item] = []
    first = room.wall(f"{wall.id[:-1]}1")
    for board in room.boards:
        if board.wall_id == first.id and board.kind in ("end panel", "waterfall leg", "back panel"):
            low, high = board.box()
            points = rectangle(wall.length - high[0], low[2], high[0] - low[0], high[2] - low[2])
            items.append(Shape(points, Pen.NARROW, Layer.TRIM, board.source, color_of(job.stock, board.finish)))
    for top in room.worktops:
        if top.wall_id == first.id:
            items.append(top_front(job.stock, top, wall.length - top.x - top.length))
    return items


def _floor(scope: Scope) -> list[Item]:
    """An island that nothing stands on yet, dashed, as deep as base units are: so that it is seen and taken hold of."""
    job, room = scope.job, scope.room
    taken = {p.wall_id for p in room.placed}
    items: list[Item] = []
    for face in room.faces[::2]:
        if not any(f.id in taken for f in room.faces if f.island == face.island):
            depth = job.value("base_depth")
            points = on_line(face, 0.0, -depth, face.length, depth)
            items.append(Shape(points, Pen.DASHED, Layer.CARCASS, Kind.ISLAND.of(face.island), ""))
    return items


def _taken(room: RoomLayout) -> list[Points]:
    """Where the names of faces stand, and where the aisles are measured while it is selected."""
    shapes: list[Points] = []
    for face in room.faces:
        fx, fy = face.frame.floor(face.length / 2, -face_depth(room, face) - 200.0)
        shapes.append(((fx - 300.0, fy - 150.0), (fx + 300.0, fy + 150.0)))
        ax, ay = face.frame.floor(face.length / 2, -face_depth(room, face) - 1200.0)
        shapes.append(((ax - 60.0, ay - 900.0), (ax + 60.0, ay + 900.0)))
    return shapes


ISLAND = ThingDrawn(over=_over, solid=True, floor=_floor, taken=_taken)
