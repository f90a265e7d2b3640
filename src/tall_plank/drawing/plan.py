"""The plan of a room from above: x to the right, y up (north), as the room's own frame."""

from __future__ import annotations

import msgspec

from tall_plank.drawing.floor import on_line
from tall_plank.drawing.floorview import floor_view
from tall_plank.drawing.plandims import plan_dims
from tall_plank.drawing.planwords import plan_words
from tall_plank.drawing.primitives import Drawing, Item, Layer, Pen, Shape, Text
from tall_plank.drawing.shopmarks import shop_marks
from tall_plank.drawing.shows import FOR_CLIENT, Shows
from tall_plank.drawing.things.common import Scope
from tall_plank.drawing.things.table import DRAWN
from tall_plank.drawing.trims import PLAN_BOARDS, board_plan, top_plan
from tall_plank.drawing.unitplan import hung_label, moved, plan_label, unit_outline, unit_plan
from tall_plank.job import Job, Kind, Level, Room
from tall_plank.making import MadeJob
from tall_plank.making.labels import label_of
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import FloorPoints
from tall_plank.measure.remembered import remembered
from tall_plank.setout import RoomLayout, Wall
from tall_plank.setout.clear import floor_before


def plan(job: Job, room: RoomLayout, made: MadeJob, *, chains: bool = False, shows: Shows = FOR_CLIENT) -> Drawing:
    """Walls, openings with their swing, columns, soffits, base units under their worktops, hung units dashed,
    islands, service points, name, use and sizes.

    Parameters
    ----------
    chains : figures of openings, services and units along every wall too, columns, islands, what hangs
    """
    bare = msgspec.structs.replace(room.room, runs=(), fields=())
    items: list[Item] = list(_shell(bare, room.walls, room.points))
    scope = Scope(job, room, made)
    by_cell = {p.cell: m for r in made.rooms for p, m in r.units if p.room == room.room.id}
    hidden = {c.id for run in room.room.runs for c in run.cells if c.hidden}
    view = floor_view(job, room, made) if shows.exact else None
    if view is not None:
        items += [*view.fills, *view.lines]
    for p in room.placed:
        if p.level is not Level.HUNG and p.is_solid and p.cell not in hidden:
            unit, label = by_cell.get(p.cell), label_of(job, room.room, p)
            items += unit_plan(job.stock, p, unit, label) if view is None else plan_label(p, label)
            if shows.making and unit is not None and unit.spec.corner not in ("l", "diagonal"):
                marks = shop_marks(unit, "top", edging=shows.edging, joints=shows.joints)
                items += [moved(item, p.frame, Kind.CELL.of(p.cell)) for item in marks]
            deep = unit.clear_front if unit is not None else 0.0
            if deep > 0:
                items.append(Shape(floor_before(p, deep), Pen.MOVING, Layer.APPLIANCE))
    for drawn in DRAWN.values():
        items += drawn.floor(scope) if drawn.floor is not None else []
    for board in room.boards if view is None else ():
        if board.kind in PLAN_BOARDS:
            items += board_plan(board, room.wall(board.wall_id))
    for top in room.worktops if shows.worktops else ():
        items += top_plan(room.wall(top.wall_id), top)
    for drawn in DRAWN.values() if shows.fronts else ():
        items += drawn.fronts(scope) if drawn.fronts is not None else []
    for p in room.placed:
        if p.level is Level.HUNG and p.is_solid and p.cell not in hidden:
            items.append(Shape(unit_outline(p), Pen.ABOVE, Layer.HUNG, Kind.CELL.of(p.cell)))
            items += hung_label(p, label_of(job, room.room, p)) if chains else ()
    for drawn in DRAWN.values():
        items += drawn.above(scope) if drawn.above is not None else []
    items += plan_words(job, room)
    if shows.dims:
        items += plan_dims(job, room, chains=chains)
    t = max(w.thickness for w in room.walls)
    w, d = room.size
    return Drawing(f"{room.room.name}, plan", tuple(items), -t, -t, w + t, d + t, "P")


@remembered(64)
def _shell(room: Room, walls: tuple[Wall, ...], points: FloorPoints) -> tuple[Item, ...]:
    """Walls, floor, openings and columns: what does not change while units are moved."""
    # Sides of an outline run clockwise; outwards is to the left.
    outer = ol.offset(points, [w.thickness for w in walls])
    items: list[Item] = [
        Shape(outer, Pen.WIDE, Layer.WALL, None, "masonry"),
        Shape(points, Pen.WIDE, Layer.WALL, Kind.ROOM.of(room.id), "floor"),
    ]
    for wall in walls:
        strip = on_line(wall, 0.0, 0.0, wall.length, wall.thickness)
        items.append(Shape(strip, Pen.NONE, Layer.WALL, Kind.WALL.of(wall.id), ""))
    layout = RoomLayout(room, walls, (), (), (), points=points)
    for drawn in DRAWN.values():
        items += drawn.shell(layout) if drawn.shell is not None else []
    for wall in walls:
        at = max(wall.length / 2, min(wall.length * 0.96, wall.length - 260.0))
        fx, fy = wall.frame.floor(at, wall.thickness / 2)
        items.append(Text(fx, fy, wall.id, 2.2, Layer.LABEL, Kind.WALL.of(wall.id), bold=True, rise=-1.1))
    return tuple(items)
