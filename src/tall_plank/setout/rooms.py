"""The walls of a room, clockwise seen from above, each with its frame; the ceiling above them; columns as boxes."""

from __future__ import annotations

import itertools
import math
from functools import lru_cache

import msgspec

from tall_plank.job import Column, Island, RoofWindow, Room, Side, Sides, Slope, Soffit, WallOwn
from tall_plank.job.room import Rectangle
from tall_plank.measure import Frame, Length, PlankError, format_length
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import wall_frame
from tall_plank.measure.outlines import Point, Points

COMPASS = ("north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west")
LEAST_WALL = 10.0
"""mm; a wall shorter than this is none."""


class Wall(msgspec.Struct, frozen=True, cache_hash=True):
    """A wall as it stands, or the face of an island.

    Attributes
    ----------
    length, height, thickness : mm; the height is the greatest along the wall
    frame : in the room's frame
    before, after : degrees inside the room at its left and right end
    profile : (x, z) of its upper edge from left to right, where the ceiling slopes
    island : id of the island whose face this is
    """

    id: str
    name: str
    length: float
    height: float
    thickness: float
    frame: Frame
    before: float = 90.0
    after: float = 90.0
    profile: tuple[Point, ...] = ()
    island: str = ""

    @property
    def title(self) -> str:
        """What it is called where people read of it: a face of an island never by its id, which a unit has too."""
        return self.name if self.island else f"wall {self.id}"

    @property
    def heading(self) -> str:
        """Its title at the head of a drawing or a line."""
        return self.title[0].upper() + self.title[1:]

    @property
    def start(self) -> Point:
        return self.frame.origin[:2]

    @property
    def end(self) -> Point:
        return self.frame.out((self.length, 0.0, 0.0))[:2]

    @property
    def out_of(self) -> Point:
        """Direction square out of the wall into the room."""
        return (-self.frame.y[0], -self.frame.y[1])

    def height_at(self, x: float) -> float:
        """Height of the wall's upper edge at x, mm."""
        for (x0, z0), (x1, z1) in zip(self.profile, self.profile[1:], strict=False):
            if x0 - 1e-9 <= x <= x1 + 1e-9:
                return z0 if x1 - x0 < 1e-9 else z0 + (z1 - z0) * (x - x0) / (x1 - x0)
        return self.height


def corners_of(outline: Rectangle | Sides) -> Points:
    """Corners of a floor, clockwise from where the first wall starts, in the room's frame.

    Raises
    ------
    PlankError where the sides do not close or cross one another, naming the wall
    """
    return _rectangle(outline) if isinstance(outline, Rectangle) else _closed(outline)


def _rectangle(outline: Rectangle) -> Points:
    w, d = outline.width.mm, outline.depth.mm
    return ((0.0, d), (w, d), (w, 0.0), (0.0, 0.0))


@lru_cache(maxsize=256)
def _closed(outline: Sides) -> Points:
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
                "would have no length." if length > -1e-6 else f"would be {-length:.0f} mm too short to close the room."
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
    return tuple((round(px - x0, 9), round(py - y0, 9)) for px, py in points)


def sides_from(points: Points, ids: tuple[str, ...]) -> Sides:
    """An outline from its corners (either way round), the last two walls left to close it.

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


@lru_cache(maxsize=256)
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
    return tuple(_sloped(wall, walls, height, slopes) for wall in walls)


def _compass(start: Point, end: Point) -> str:
    """The side of the room on which a wall stands: that of its outward direction."""
    dx, dy = end[0] - start[0], end[1] - start[1]
    # Outward is (-dy, dx); a bearing is counted clockwise from north.
    bearing = math.degrees(math.atan2(-dy, dx)) % 360.0
    return COMPASS[round(bearing / 45.0) % 8]


def ceiling_at(room: Room, x: float, y: float, *, soffits: bool = True) -> float:
    """Height of the ceiling over a point of the floor, mm: the room's, less slopes and soffits."""
    high = room.height.mm
    for slope in room.slopes:
        wall = next((w for w in walls_of(room) if w.id == slope.wall), None)
        if wall is not None:
            away = -wall.frame.into((x, y, 0.0))[1]
            high = min(high, _slope_height(slope, away, room.height.mm))
    if soffits:
        for soffit in room.soffits:
            if ol.inside(soffit_points(soffit), x, y):
                high = min(high, room.height.mm - soffit.drop.mm)
    return high


def _slope_height(slope: Slope, away: float, height: float) -> float:
    if slope.run.mm <= 0:
        return height
    return slope.low.mm + (height - slope.low.mm) * min(max(away, 0.0) / slope.run.mm, 1.0)


def _sloped(wall: Wall, walls: tuple[Wall, ...], height: float, slopes: tuple[Slope, ...]) -> Wall:
    """The wall with its upper edge under the slopes: straight pieces between the places where planes meet."""
    planes = []
    for slope in slopes:
        at = next((w for w in walls if w.id == slope.wall), None)
        if at is None:
            continue
        # Distance from the slope's wall along this wall: linear in x.
        d0 = -at.frame.into((*wall.start, 0.0))[1]
        d1 = -at.frame.into((*wall.end, 0.0))[1]
        planes.append((slope, d0, d1))
    marks = {0.0, 1.0}
    for slope, d0, d1 in planes:
        for level in (0.0, slope.run.mm):
            if abs(d1 - d0) > 1e-9 and 0.0 < (level - d0) / (d1 - d0) < 1.0:
                marks.add((level - d0) / (d1 - d0))
    cuts = sorted(marks)

    def tall(t: float) -> float:
        found = [min(height, wall.height)]
        found += [_slope_height(slope, d0 + (d1 - d0) * t, height) for slope, d0, d1 in planes]
        return min(found)

    # Where two slopes meet inside a stretch, the edge turns too.
    extra = set()
    for t0, t1 in itertools.pairwise(cuts):
        for k, (s, d0, d1) in enumerate(planes):
            for s2, e0, e1 in planes[k + 1 :]:
                f0 = _slope_height(s, d0 + (d1 - d0) * t0, height) - _slope_height(s2, e0 + (e1 - e0) * t0, height)
                f1 = _slope_height(s, d0 + (d1 - d0) * t1, height) - _slope_height(s2, e0 + (e1 - e0) * t1, height)
                if f0 * f1 < 0:
                    extra.add(t0 + (t1 - t0) * f0 / (f0 - f1))
    profile = tuple((t * wall.length, tall(t)) for t in sorted(marks | extra))
    if all(abs(z - profile[0][1]) < 1e-9 for _, z in profile):
        return msgspec.structs.replace(wall, height=profile[0][1])
    return msgspec.structs.replace(wall, height=max(z for _, z in profile), profile=profile)


def roof_window_frame(room: Room, window: RoofWindow) -> Frame:
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


def roof_window_corners(room: Room, window: RoofWindow) -> tuple[tuple[float, float, float], ...]:
    """Its corners in the room's frame, mm: lower left, lower right, upper right, upper left."""
    frame, w, h = roof_window_frame(room, window), window.width.mm, window.length.mm
    return tuple(frame.out((x, y, 0.0)) for x, y in ((0.0, 0.0), (w, 0.0), (w, h), (0.0, h)))


def soffit_points(soffit: Soffit) -> Points:
    """Outline of a soffit in the room's plan."""
    return tuple((c.x.mm, c.y.mm) for c in soffit.corners)


def column_frame(room: Room, column: Column) -> Frame:
    """The frame of a column's box: origin at its left front lower corner seen from the room, y into the wall."""
    if not column.wall:
        return Frame((column.x.mm, column.y.mm, 0.0))
    wall = next(w for w in walls_of(room) if w.id == column.wall)
    return wall.frame.then(Frame((column.x.mm, -column.depth.mm, 0.0)))


def column_points(room: Room, column: Column) -> Points:
    """Outline of a column in the room's plan."""
    frame, w, d = column_frame(room, column), column.width.mm, column.depth.mm
    return tuple(frame.out((x, y, 0.0))[:2] for x, y in ((0, 0), (w, 0), (w, d), (0, d)))


def column_height(room: Room, column: Column) -> float:
    return column.height.mm if column.height is not None else room.height.mm


def island_line(room: Room, island: Island) -> Frame:
    """The frame of an island's first face: x along it, y towards the other face, z up.

    Raises
    ------
    PlankError where the wall of a peninsula is not there
    """
    if island.wall:
        wall = next((w for w in walls_of(room) if w.id == island.wall), None)
        if wall is None:
            raise PlankError(f"There is no wall {island.wall}.", f"island {island.letter}", "Choose another wall.")
        x, y, _ = wall.frame.out((island.x.mm, 0.0, 0.0))
        ux, uy = wall.out_of
    else:
        x, y = island.x.mm, island.y.mm
        a = math.radians(island.angle)
        ux, uy = math.cos(a), math.sin(a)
        ux, uy = (0.0 if abs(ux) < 1e-12 else ux), (0.0 if abs(uy) < 1e-12 else uy)
    return Frame((x, y, 0.0), (ux, uy, 0.0), (-uy, ux, 0.0))


def faces_of(room: Room, island: Island, spine: float = 0.0) -> tuple[Wall, Wall]:
    """Both faces of an island as lines that runs stand along.

    Parameters
    ----------
    spine : thickness of its dividing panel, mm; the backs stand this far apart at least
    """
    first = island_line(room, island)
    length, gap = island.length.mm, island.gap.mm + (spine if island.spine else 0.0)
    second = first.then(Frame((length, gap, 0.0), (-1.0, 0.0, 0.0), (0.0, -1.0, 0.0)))
    high = room.height.mm
    kind = "peninsula" if island.wall else "island"
    return (
        Wall(f"{island.letter}1", f"{kind} {island.letter}, front", length, high, 0.0, first, island=island.id),
        Wall(f"{island.letter}2", f"{kind} {island.letter}, back", length, high, 0.0, second, island=island.id),
    )
