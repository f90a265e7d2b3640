"""The walls of a room, clockwise seen from above, each with its frame; the ceiling above them."""

from __future__ import annotations

import math

from tall_plank.job import Room, Side, Sides, Slope, Soffit, WallOwn
from tall_plank.job.room import Rectangle
from tall_plank.measure import Length, PlankError, told
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import FloorPoint, FloorPoints, floor_points, wall_frame
from tall_plank.measure.outlines import Point, Points
from tall_plank.measure.remembered import remembered
from tall_plank.setout.things.slope import slope_height, sloped
from tall_plank.setout.wall import Wall

COMPASS = ("north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west")
LEAST_WALL = 10.0
"""mm; a wall shorter than this is none."""


def corners_of(outline: Rectangle | Sides) -> FloorPoints:
    """Corners of a floor, clockwise from where the first wall starts, in the room's frame.

    Raises
    ------
    PlankError where the sides do not close or cross one another, naming the wall
    """
    return _rectangle(outline) if isinstance(outline, Rectangle) else _closed(outline)


def _rectangle(outline: Rectangle) -> FloorPoints:
    w, d = outline.width.mm, outline.depth.mm
    return floor_points(((0.0, d), (w, d), (w, 0.0), (0.0, 0.0)))


@remembered(256)
def _closed(outline: Sides) -> FloorPoints:
    sides = outline.sides
    n = len(sides)
    if n < 3:
        raise PlankError("A room needs three walls or more.", "outline", "Add a corner.")
    last = (n - 2) * 180.0 - math.fsum(s.angle for s in sides[:-1])
    for side, angle in zip(sides, [*(s.angle for s in sides[:-1]), last], strict=True):
        if not 1.0 <= angle <= 359.0 or abs(angle - 180.0) < 1e-9:
            where = f"end of wall {side.id}"
            raise PlankError(f"The angle of {angle:g}° makes no corner.", where, "Type one between 1 and 359.")
    heading = math.radians(outline.heading)
    ways: list[Point] = []
    for side in sides:
        # Exact for square rooms: the sine of 180 degrees in floats is not 0.
        c, s = math.cos(heading), math.sin(heading)
        ways.append((0.0 if abs(c) < 1e-12 else c, 0.0 if abs(s) < 1e-12 else s))
        heading -= math.radians(180.0 - side.angle)
    loose = [i for i, side in enumerate(sides) if side.length is None]
    lengths = [side.length.mm if side.length else 0.0 for side in sides]
    if len(loose) != 2:
        raise PlankError("Two walls have to be left to close the outline.", "outline", "Let two walls take the rest.")
    i, j = loose
    x = -math.fsum(a * w[0] for a, w in zip(lengths, ways, strict=True))
    y = -math.fsum(a * w[1] for a, w in zip(lengths, ways, strict=True))
    cross = ways[i][0] * ways[j][1] - ways[i][1] * ways[j][0]
    if abs(cross) < 1e-9:
        where = f"walls {sides[i].id} and {sides[j].id}"
        raise PlankError("These two walls run alongside and cannot close the outline.", where, "Type one of them.")
    lengths[i] = (x * ways[j][1] - y * ways[j][0]) / cross
    lengths[j] = (ways[i][0] * y - ways[i][1] * x) / cross
    for side, length in zip(sides, lengths, strict=True):
        if length < LEAST_WALL:
            what = (
                "would have no length."
                if length > -1e-6
                else f"would be {told(-length)} mm too short to close the room."
            )
            raise PlankError(f"The wall {what}", f"wall {side.id}", "Type another length or angle.")
    points: list[Point] = []
    at = (0.0, 0.0)
    for length, way in zip(lengths, ways, strict=True):
        points.append(at)
        at = (at[0] + length * way[0], at[1] + length * way[1])
    hit = ol.crossing(points)
    if hit is not None or ol.area(points) > 0:
        a, b = hit or (0, n - 1)
        raise PlankError("These two walls cross.", f"walls {sides[a].id} and {sides[b].id}", "Move a corner.")
    x0, y0, _, _ = ol.bounds(points)
    return floor_points((round(px - x0, 9), round(py - y0, 9)) for px, py in points)


def sides_from(points: Points, ids: tuple[str, ...]) -> Sides:
    """An outline from its corners (either way round), the last two walls left to close it. `points`: mm.

    Raises
    ------
    PlankError where it crosses itself or a wall has no length
    """
    n = len(points)
    if n < 3:
        raise PlankError("A room needs three corners or more.", "outline", "Set another corner.")
    for i, p in enumerate(points):
        if math.dist(p, points[(i + 1) % n]) < LEAST_WALL:
            raise PlankError("A wall would have no length.", f"corner {i + 1}", "Move the corner.")
    hit = ol.crossing(points)
    if hit is not None:
        raise PlankError("Two walls cross.", f"sides {hit[0] + 1} and {hit[1] + 1}", "Move a corner.")
    if ol.area(points) > 0:
        points = (points[0], *points[:0:-1])
    loose = _loose(points)
    sides = []
    for i in range(n):
        a, b, c = points[i], points[(i + 1) % n], points[(i + 2) % n]
        angle = round(ol.interior_angle(a, b, c), 9)
        length = None if i in loose else Length.of(round(math.dist(a, b), 6))
        sides.append(Side(ids[i], length, angle))
    dx, dy = points[1][0] - points[0][0], points[1][1] - points[0][1]
    return Sides(tuple(sides), round(math.degrees(math.atan2(dy, dx)), 9))


def _loose(points: Points) -> tuple[int, int]:
    """The last wall, and the last before it that does not run alongside it: they close the outline."""
    n = len(points)

    def way(i: int) -> Point:
        a, b = points[i], points[(i + 1) % n]
        return (b[0] - a[0], b[1] - a[1])

    e = way(n - 1)
    for i in range(n - 2, -1, -1):
        d = way(i)
        if abs(d[0] * e[1] - d[1] * e[0]) > 1e-6 * math.hypot(*d) * math.hypot(*e):
            return (i, n - 1)
    raise PlankError("All the walls lie in one line.", "outline", "Move a corner.")


def walls_of(room: Room) -> tuple[Wall, ...]:
    """The walls of a room, clockwise; the first of a rectangular one is its north wall.

    Raises
    ------
    PlankError where the outline does not close
    """
    return _walls(room.outline, room.wall_ids(), room.height.mm, room.wall_thickness.mm, room.walls, room.slopes)


@remembered(256)
def _walls(
    outline: Rectangle | Sides,
    ids: tuple[str, ...],
    height: float,
    thickness: float,
    owns: tuple[WallOwn, ...],
    slopes: tuple[Slope, ...],
) -> tuple[Wall, ...]:
    points = corners_of(outline)
    n = len(points)
    own = {o.wall: o for o in owns}
    angles = [ol.interior_angle(points[i - 1], points[i], points[(i + 1) % n]) for i in range(n)]
    bare = []
    for i, letter in enumerate(ids):
        start, end = points[i], points[(i + 1) % n]
        o = own.get(letter, WallOwn(letter))
        bare.append(
            Wall(
                letter,
                _compass(start, end),
                math.dist(start, end),
                o.height.mm if o.height else height,
                o.thickness.mm if o.thickness else thickness,
                wall_frame(start, end),
                angles[i],
                angles[(i + 1) % n],
            )
        )
    walls = tuple(bare)
    if not slopes:
        return walls
    return tuple(sloped(wall, walls, height, slopes) for wall in walls)


def _compass(start: Point, end: Point) -> str:
    """The side of the room on which a wall stands: that of its outward direction."""
    dx, dy = end[0] - start[0], end[1] - start[1]
    # Outward is (-dy, dx); a bearing is counted clockwise from north.
    bearing = math.degrees(math.atan2(-dy, dx)) % 360.0
    return COMPASS[round(bearing / 45.0) % 8]


def ceiling_at(room: Room, at: FloorPoint, *, soffits: bool = True) -> float:
    """Height of the ceiling over a point of the floor, mm: the room's, less slopes and soffits."""
    high = room.height.mm
    for slope in room.slopes:
        wall = next((w for w in walls_of(room) if w.id == slope.wall), None)
        if wall is not None:
            away = -wall.frame.from_floor(at)[1]
            high = min(high, slope_height(slope, away, room.height.mm))
    if soffits:
        for soffit in room.soffits:
            if ol.inside(soffit_points(soffit), *at):
                high = min(high, room.height.mm - soffit.drop.mm)
    return high


def soffit_points(soffit: Soffit) -> FloorPoints:
    """Outline of a soffit in the room's plan."""
    return floor_points((c.x.mm, c.y.mm) for c in soffit.corners)


def find_wall(room: Room, wall_id: str) -> Wall:
    """A wall of a room by its letter.

    Raises
    ------
    PlankError where there is none
    """
    for wall in walls_of(room):
        if wall.id == wall_id:
            return wall
    raise PlankError(f"There is no wall {wall_id[:20]}.", room.name, "Choose another wall.")
