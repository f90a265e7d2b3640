"""Elevations: a wall seen from inside the room, x from its left end, y up from the floor."""

from __future__ import annotations

from tall_plank.drawing.beside import sides_before
from tall_plank.drawing.colors import color_of
from tall_plank.drawing.frontdims import elevation_dims, seen_height
from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, Shape, rectangle
from tall_plank.drawing.shopmarks import edging_marks
from tall_plank.drawing.shows import FOR_CLIENT, Shows
from tall_plank.drawing.things.common import Scope
from tall_plank.drawing.things.service import service_heights
from tall_plank.drawing.things.table import DRAWN
from tall_plank.drawing.trims import board_front, top_front
from tall_plank.drawing.unitfront import unit_front, unit_signs
from tall_plank.drawing.veneer import veneer_marks
from tall_plank.drawing.wallview import TOPS, view_items
from tall_plank.job import Job, Kind, Room
from tall_plank.job.choices import Side
from tall_plank.job.uses import starting_values
from tall_plank.making import MadeJob, MadeUnit
from tall_plank.making.feet import seen_legs
from tall_plank.making.labels import label_of
from tall_plank.setout import Placed, RoomLayout, Wall
from tall_plank.setout.layout import neighbours
from tall_plank.stock import Stock


def elevation(
    job: Job,
    room: RoomLayout,
    wall: Wall,
    made: MadeJob,
    shows: Shows = FOR_CLIENT,
) -> Drawing:
    """The elevation of a wall, or of an island's face, with its units, trims, openings and automatic dimensions."""
    source = Kind.WALL.of(wall.id)
    height = seen_height(room, wall)
    items: list[Item] = []
    scope = Scope(job, room, made)
    for drawn in DRAWN.values():
        items += drawn.behind(scope, wall) if drawn.behind is not None else []
    if wall.is_face:
        items.append(Shape(rectangle(0.0, 0.0, wall.length, height), Pen.NONE, Layer.WALL, source, "wall"))
    else:
        items.append(Shape(_wall_outline(wall), Pen.MEDIUM, Layer.WALL, source, "wall"))
    items += (_seen if shows.exact else _painted)(scope, wall, shows)
    if shows.spread:
        items += veneer_marks(job, room, wall, made)
    if shows.edging:
        items += _edged_trims(room, wall, made, worktops=shows.worktops)
    for drawn in DRAWN.values():
        items += drawn.over(scope, wall) if drawn.over is not None and not (shows.exact and drawn.solid) else []
    items.append(Line(-150.0, 0.0, wall.length + 150.0, 0.0, Pen.WIDE, Layer.WALL))
    if shows.dims:
        placed = [p for p in room.placed if p.wall_id == wall.id]
        items += service_heights(job, room, wall)
        items += elevation_dims(job, room, wall, placed, made, spread=shows.spread)
    words = f"wall {wall.id} {wall.name}" if not wall.is_face else wall.title
    title = f"{room.room.name}, {words}"
    return Drawing(title, tuple(items), 0.0, 0.0, wall.length, height, wall.mark)


def _painted(scope: Scope, wall: Wall, shows: Shows) -> list[Item]:
    """What stands on and beside a wall, each painted over what it covers: quick, for the screen."""
    job, room, made = scope.job, scope.room, scope.made
    items: list[Item] = []
    for drawn in DRAWN.values():
        items += drawn.on_wall(scope, wall) if drawn.on_wall is not None else []
    by_cell = {p.cell: m for r in made.rooms for p, m in r.units if p.room == room.room.id}
    hidden = {c.id for run in room.room.runs for c in run.cells if c.hidden}
    items += sides_before(scope, wall, by_cell, hidden)
    for side, neighbour in neighbours(room, wall):
        items += _legs_beside(room, wall, side, neighbour, by_cell, job.stock, hidden)
    for board in room.boards:
        if board.kind in BEHIND_UNITS and (shows.worktops or board.kind != "splashback") and board.wall_id == wall.id:
            items.append(board_front(job.stock, board))
    for p in (p for p in room.placed if p.wall_id == wall.id):
        unit = by_cell.get(p.cell)
        if unit is not None and p.is_solid and p.cell not in hidden:
            for x in sorted({x for x, _ in seen_legs(p, unit.spec.made)}):
                leg = rectangle(p.x + x, 0.0, unit.spec.made.leg_size, p.bottom)
                items.append(Shape(leg, Pen.NARROW, Layer.CARCASS, Kind.CELL.of(p.cell), "ink"))
            label = marked_label(job, room.room, p)
            items += unit_front(p, unit, job.stock, label=label, shows=shows)
    for board in room.boards:
        if board.kind not in BEHIND_UNITS and board.wall_id == wall.id:
            items.append(board_front(job.stock, board))
    for top in room.worktops:
        if top.wall_id == wall.id and shows.worktops:
            items.append(top_front(job.stock, top, top.x))
    if shows.fronts:
        for drawn in DRAWN.values():
            items += drawn.closing(scope, wall) if drawn.closing is not None else []
    return items


def _seen(scope: Scope, wall: Wall, shows: Shows) -> list[Item]:
    """What stands on and beside a wall as a view of the room's solids, and the signs that no solid shows."""
    job, room = scope.job, scope.room
    items: list[Item] = []
    for drawn in DRAWN.values():
        items += drawn.on_wall(scope, wall) if drawn.on_wall is not None and not drawn.solid else []
    view = view_items(scope, wall, shows)
    items += view.fills
    by_cell = {p.cell: m for r in scope.made.rooms for p, m in r.units if p.room == room.room.id}
    hidden = {c.id for run in room.room.runs for c in run.cells if c.hidden}
    for p in room.placed:
        unit = by_cell.get(p.cell)
        if p.wall_id == wall.id and unit is not None and p.is_solid and p.cell not in hidden:
            items += unit_signs(p, unit, job.stock, label=marked_label(job, room.room, p), shows=shows)
    items += view.before
    if shows.fronts:
        for drawn in DRAWN.values():
            items += drawn.signs(scope, wall) if drawn.signs is not None else []
    return [*items, *view.handles, *view.lines]


def marked_label(job: Job, room: Room, p: Placed) -> str:
    """A unit's label, with a star where it departs from its kind and the shop standard."""
    template = job.template(p.template)
    own = set(job.unit(p.unit).own) - set(template.own) - set(starting_values(room.use, template))
    return label_of(job, room, p) + ("*" if own else "")


BEHIND_UNITS = ("plinth", "plinth return", "splashback", "dividing panel", "back panel")


def _wall_outline(wall: Wall) -> tuple[tuple[float, float], ...]:
    if not wall.profile:
        return rectangle(0.0, 0.0, wall.length, wall.height)
    return ((0.0, 0.0), (wall.length, 0.0), *reversed(wall.profile))


def _legs_beside(
    room: RoomLayout,
    wall: Wall,
    side: Side,
    neighbour: Wall,
    by_cell: dict[str, MadeUnit],
    stock: Stock,
    hidden: set[str],
) -> list[Item]:
    """A corner unit's other leg, which stands on this wall though the unit belongs to the next one."""
    items: list[Item] = []
    for run in room.runs:
        if run.wall.id != neighbour.id or not run.cells:
            continue
        p = run.cells[-1] if side == "left" else run.cells[0]
        unit = by_cell.get(p.cell)
        if not p.is_solid or unit is None or p.cell in hidden:
            continue
        if p.leg > p.depth and p.corner == ("right" if side == "left" else "left"):
            items += _leg_front(wall, side, p, unit, stock)
    return items


def _leg_front(wall: Wall, side: Side, p: Placed, unit: MadeUnit, stock: Stock) -> list[Item]:
    """The other leg of a corner unit, as its fronts show on this wall."""
    source = Kind.CELL.of(p.cell)
    color = color_of(stock, unit.spec.front)
    x = 0.0 if side == "left" else wall.length - p.leg
    items: list[Item] = [Shape(rectangle(x, p.bottom, p.leg, p.height), Pen.MEDIUM, Layer.CARCASS, source, "unit")]
    for f in unit.fronts:
        if f.face is None:
            continue
        points = []
        for u in (f.x, f.x + f.width):
            points.append(wall.frame.into(p.frame.at(*f.face.point(u, 0.0, 0.0)))[0])
        low, high = min(points), max(points)
        if high - low < 30.0:
            continue
        shape = rectangle(low, p.bottom + f.z, high - low, f.height)
        items.append(Shape(shape, Pen.MEDIUM, Layer.FRONT, source, color))
        if f.frame and high - low > 2 * f.frame:
            inner = rectangle(low + f.frame, p.bottom + f.z + f.frame, high - low - 2 * f.frame, f.height - 2 * f.frame)
            items.append(Shape(inner, Pen.NARROW, Layer.FRONT, source, ""))
    return items


def _edged_trims(room: RoomLayout, wall: Wall, made: MadeJob, *, worktops: bool) -> list[Item]:
    """Marks of the edged edges of end panels, plinths, worktops and the like on a line."""
    found = [t for t in made.trims if t.part is not None and t.room == room.room.id and t.parent == wall.frame]
    return edging_marks(tuple(t.part for t in found if t.part is not None and (worktops or t.kind not in TOPS)))
