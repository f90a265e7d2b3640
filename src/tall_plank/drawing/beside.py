"""What stands before a wall and belongs to other lines: units, worktops and panels round the corner, columns, an island
or a peninsula close by. Each shows its side, as wide as it is seen square to the wall."""

from __future__ import annotations

from typing import NamedTuple

from tall_plank.drawing.colors import color_of
from tall_plank.drawing.primitives import Item, Layer, Pen, Shape, rectangle
from tall_plank.drawing.things.common import Scope
from tall_plank.job import Kind, Source
from tall_plank.making import MadeUnit
from tall_plank.measure.frames import FloorPoint
from tall_plank.measure.remembered import remembered
from tall_plank.setout import Placed, Wall
from tall_plank.setout.things.column import column_height, column_points

CLOSE = 450.0
"""mm from the wall within which something begins that shows on its elevation."""

LEAST = 1.0
"""mm; what is seen narrower than this does not show."""


class _Side(NamedTuple):
    """Something seen square to the wall: its span along it, its heights, how far from the wall it begins, mm."""

    low: float
    high: float
    bottom: float
    top: float
    near: float
    layer: Layer
    source: Source
    fill: str


def sides_before(scope: Scope, wall: Wall, by_cell: dict[str, MadeUnit], hidden: set[str]) -> list[Item]:
    """Their sides on a wall's elevation, what stands nearest to the wall first."""
    if wall.is_face:
        return []
    found = [s for s in (*_units(scope, wall, by_cell, hidden), *_boards(scope, wall), *_columns(scope, wall)) if s]
    items: list[Item] = []
    for s in sorted(found, key=lambda s: -s.near):
        shape = rectangle(s.low, s.bottom, s.high - s.low, s.top - s.bottom)
        items.append(Shape(shape, Pen.NARROW, s.layer, s.source, s.fill))
    return items


def _seen(
    wall: Wall, points: list[FloorPoint], bottom: float, top: float, layer: Layer, source: Source, fill: str
) -> _Side | None:
    """What a footprint shows on a wall; None where it stands too far off, beside the wall, or behind it."""
    at = [wall.frame.from_floor(p) for p in points]
    # y runs into the wall: what stands before it lies below 0.
    near, far = max(y for _, y in at), min(y for _, y in at)
    if near < -CLOSE or far > -LEAST:
        return None
    low, high = max(0.0, min(x for x, _ in at)), min(wall.length, max(x for x, _ in at))
    if high - low < LEAST or (near > 1.0 and high - low < 30.0):
        return None
    return _Side(low, high, bottom, top, near, layer, source, fill)


@remembered(2048)
def footprint(p: Placed, unit: MadeUnit | None) -> list[FloorPoint]:
    """The plan of a unit with its fronts, in the room."""
    reach = unit.spec.made.reach if unit is not None and unit.fronts else 0.0
    points = [(x, y - reach if abs(y + p.depth) < 0.5 else y) for x, y in p.plan]
    return [p.frame.floor(x, y) for x, y in points]


def _units(scope: Scope, wall: Wall, by_cell: dict[str, MadeUnit], hidden: set[str]) -> list[_Side | None]:
    found: list[_Side | None] = []
    for p in scope.room.placed:
        if p.wall_id == wall.id or not p.is_solid or p.cell in hidden or p.cell not in by_cell:
            continue
        if is_leg_on(scope, p, wall):
            continue
        points = footprint(p, by_cell[p.cell])
        source = Kind.CELL.of(p.cell)
        found.append(_seen(wall, points, p.bottom, p.top, Layer.CARCASS, source, "unit"))
    return found


def is_leg_on(scope: Scope, p: Placed, wall: Wall) -> bool:
    """Whether a corner unit of another wall has its other leg on this one: it shows its fronts there."""
    if p.leg <= p.depth or p.corner not in ("left", "right"):
        return False
    walls = scope.room.walls
    own = next((i for i, w in enumerate(walls) if w.id == p.wall_id), -1)
    return own >= 0 and walls[(own + (1 if p.corner == "right" else -1)) % len(walls)].id == wall.id


def _boards(scope: Scope, wall: Wall) -> list[_Side | None]:
    room, stock = scope.room, scope.job.stock
    found: list[_Side | None] = []
    for top in room.worktops:
        if top.wall_id != wall.id:
            frame = room.wall(top.wall_id).frame
            points = [frame.floor(x, -out) for x, out in top.points]
            fill = color_of(stock, top.finish)
            high = top.bottom + top.thickness
            found.append(_seen(wall, points, top.bottom, high, Layer.TRIM, top.source, fill))
    for board in room.boards:
        if board.wall_id != wall.id and board.kind in SHOWN:
            (x0, y0, z0), (x1, y1, z1) = board.box()
            frame = room.wall(board.wall_id).frame
            points = [frame.floor(x, y) for x, y in ((x0, y0), (x1, y0), (x1, y1), (x0, y1))]
            found.append(_seen(wall, points, z0, z1, Layer.TRIM, board.source, color_of(stock, board.finish)))
    return found


SHOWN = ("plinth", "plinth return", "end panel", "back panel", "waterfall leg")
"""Boards that show beside a wall."""


def _columns(scope: Scope, wall: Wall) -> list[_Side | None]:
    room = scope.room.room
    found: list[_Side | None] = []
    for column in room.columns:
        if column.wall != wall.id:
            high = min(column_height(room, column), room.height.mm)
            points = list(column_points(room, column))
            found.append(_seen(wall, points, 0.0, high, Layer.WALL, Kind.COLUMN.of(column.id), "column"))
    return found
