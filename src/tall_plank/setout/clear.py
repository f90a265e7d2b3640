"""Clear distances from a unit to its neighbours on all sides (HD3)."""

from __future__ import annotations

import math

import msgspec

from tall_plank.job import Island, Kind, Level
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import FloorPoint, FloorPoints
from tall_plank.measure.units import TOLERANCE
from tall_plank.setout.layout import RoomLayout
from tall_plank.setout.rooms import ceiling_at
from tall_plank.setout.runs import Placed
from tall_plank.setout.things.column import column_points
from tall_plank.setout.wall import Wall


class Clear(msgspec.Struct, frozen=True):
    """Clear distances in mm seen from inside the room, and what each is measured to."""

    left: float
    right: float
    below: float
    above: float
    left_to: str
    right_to: str
    below_to: str
    above_to: str


def floor_before(p: Placed, deep: float) -> FloorPoints:
    """The floor before a unit, as wide as it is and so deep, from its carcass on; in the room's plan, mm."""
    corners = ((0.0, -p.depth - deep), (p.width, -p.depth - deep), (p.width, -p.depth), (0.0, -p.depth))
    return tuple(p.frame.floor(x, y) for x, y in corners)


def aisles_of(layout: RoomLayout, island: Island) -> list[tuple[str, float, str]]:
    """Clear floor from an island's worktop (or its units) to what stands nearest before each side, mm.

    Returns
    -------
    (side, mm, what it is measured to) for the front, back, left and right, seen from face 1; sides of a peninsula
    that meet its wall are left out
    """
    line = next((w for w in layout.faces if w.island == island.id), None)
    points = _points_of(layout, island)
    if line is None or not points:
        return []
    x0, y0, x1, y1 = ol.bounds(points)
    things = _things(layout, island)
    found = []
    for side, across, low, high, start, way in (
        ("Front", 0, x0, x1, y0, -1.0),
        ("Back", 0, x0, x1, y1, 1.0),
        ("Left", 1, y0, y1, x0, -1.0),
        ("Right", 1, y0, y1, x1, 1.0),
    ):
        if side == "Left" and island.wall:
            continue
        near = [
            (away, name)
            for name, a, b in things
            if (away := _away(line, a, b, across, low, high, start, way)) is not None
        ]
        mm, to = min(near, default=(0.0, "nothing"))
        found.append((side, mm, to))
    return found


def _points_of(layout: RoomLayout, island: Island) -> list[tuple[float, float]]:
    """Corners of an island's worktop and units on its first face's line, mm; none where nothing stands there."""
    line = next((w for w in layout.faces if w.island == island.id), None)
    if line is None:
        return []
    own = [w for w in layout.worktops if w.source == Kind.ISLAND.of(island.id)]
    points = [(x, -out) for top in own for x, out in top.points]
    for p in layout.placed:
        if layout.wall(p.wall_id).island == island.id and p.is_solid:
            points += [line.frame.from_floor(corner) for corner in _corners(p)]
    return points


def whole_of(layout: RoomLayout, island: Island) -> tuple[float, float] | None:
    """Length and depth of an island over all, worktop and units, mm; None where nothing stands there."""
    points = _points_of(layout, island)
    if not points:
        return None
    x0, y0, x1, y1 = ol.bounds(points)
    return x1 - x0, y1 - y0


def _corners(p: Placed) -> list[FloorPoint]:
    """The four corners of a unit's carcass in the room's plan."""
    w, d = p.width, p.depth
    return [p.frame.floor(x, y) for x, y in ((0.0, 0.0), (w, 0.0), (w, -d), (0.0, -d))]


Edge = tuple[str, FloorPoint, FloorPoint]


def _things(layout: RoomLayout, island: Island) -> list[Edge]:
    """Every edge on the plan that limits the floor about an island, with the name of what it belongs to."""
    shapes: list[tuple[str, list[FloorPoint]]] = []
    for p in layout.placed:
        if p.is_solid and p.level is not Level.HUNG and layout.wall(p.wall_id).island != island.id:
            shapes.append((p.number or "filler", _corners(p)))
    for top in layout.worktops:
        if top.source != Kind.ISLAND.of(island.id):
            frame = layout.wall(top.wall_id).frame
            shapes.append(("worktop", [frame.floor(x, -out) for x, out in top.points]))
    for column in layout.room.columns:
        shapes.append((column.kind, list(column_points(layout.room, column))))
    edges = [(name, s[i], s[(i + 1) % len(s)]) for name, s in shapes for i in range(len(s))]
    return edges + [(f"wall {w.id}", w.start, w.end) for w in layout.walls]


def _away(
    line: Wall,
    a: FloorPoint,
    b: FloorPoint,
    across: int,
    low: float,
    high: float,
    start: float,
    way: float,
) -> float | None:
    """Least distance from a side of an island to an edge before it, within the side's width; None where it is not."""
    p, q = line.frame.from_floor(a), line.frame.from_floor(b)
    u0, v0, u1, v1 = p[across], p[1 - across], q[across], q[1 - across]
    if u0 > u1:
        u0, v0, u1, v1 = u1, v1, u0, v0
    left, right = max(u0, low), min(u1, high)
    if left >= right - 1e-6:
        return None

    def at(u: float) -> float:
        return v0 if u1 - u0 < 1e-9 else v0 + (v1 - v0) * (u - u0) / (u1 - u0)

    near = min((at(left) - start) * way, (at(right) - start) * way)
    return near if near > -1e-6 else None


def nearest_line(layout: RoomLayout, at: FloorPoint) -> tuple[str, float]:
    """The wall or island face nearest to a place on the floor, and where along it, mm. Behind an island's face counts
    three times as far, so that a place before one face is not taken for the other."""
    best, found = math.inf, (layout.walls[0].id, 0.0)
    for line in (*layout.walls, *layout.faces):
        u, v = line.frame.from_floor(at)
        away = math.hypot(max(0.0, -u, u - line.length), v if not line.island or v < 0 else v * 3)
        if away < best:
            best, found = away, (line.id, min(max(0.0, u), line.length))
    return found


def clear_of(layout: RoomLayout, placed: Placed) -> Clear:
    """Distances to the nearest solid unit whose height overlaps, or to the wall's ends, the worktop, the floor
    and the ceiling."""
    wall = layout.wall(placed.wall_id)
    end = "end of the island" if wall.island else "wall"
    left, left_to = placed.x, end
    right, right_to = wall.length - placed.right, end
    below, below_to = placed.bottom, "floor"
    middle = placed.frame.floor(placed.width / 2, -placed.depth / 2)
    above, above_to = ceiling_at(layout.room, middle) - placed.top, "ceiling"
    for other in layout.placed:
        if other.wall_id != placed.wall_id or other.cell == placed.cell or not other.is_solid:
            continue
        beside = other.bottom < placed.top - TOLERANCE and other.top > placed.bottom + TOLERANCE
        over = other.x < placed.right - TOLERANCE and other.right > placed.x + TOLERANCE
        if beside and other.right <= placed.x + TOLERANCE and placed.x - other.right < left:
            left, left_to = max(0.0, placed.x - other.right), other.number
        if beside and other.x >= placed.right - TOLERANCE and other.x - placed.right < right:
            right, right_to = max(0.0, other.x - placed.right), other.number
        if over and other.top <= placed.bottom + TOLERANCE and placed.bottom - other.top < below:
            below, below_to = placed.bottom - other.top, other.number
        if over and other.bottom >= placed.top - TOLERANCE and other.bottom - placed.top < above:
            above, above_to = other.bottom - placed.top, other.number
    for worktop in layout.worktops:
        over = worktop.x < placed.right - TOLERANCE and worktop.x + worktop.length > placed.x + TOLERANCE
        if worktop.wall_id != placed.wall_id or not over:
            continue
        top = worktop.bottom + worktop.thickness
        if placed.level is Level.HUNG and top <= placed.bottom + TOLERANCE and placed.bottom - top < below:
            below, below_to = placed.bottom - top, "worktop"
    return Clear(left, right, below, above, left_to, right_to, below_to, above_to)
