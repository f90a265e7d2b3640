"""Moldings round a room: along walls, round columns and soffits, mitred at corners, stopped at openings (RM4). Those
along units: setout.unitmoldings."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

import msgspec

from tall_plank.job import Opening, Room, RoomMolding
from tall_plank.job.things.molding import MoldingKind
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import FloorPoint, FloorPoints, floor_points
from tall_plank.measure.outlines import Point, Points
from tall_plank.measure.remembered import remembered
from tall_plank.setout.frames import casings_of
from tall_plank.setout.rooms import corners_of, soffit_points, walls_of
from tall_plank.setout.things.column import column_height, column_points
from tall_plank.setout.wall import Span, Wall
from tall_plank.stock import Profile

NEAR = 0.5
"""mm; a side of the path nearer than this to a wall lies on it."""


class MoldingPiece(msgspec.Struct, frozen=True, cache_hash=True):
    """One straight piece of a molding, along a wall or round a column.

    Attributes
    ----------
    wall_id : letter of the wall it lies on, or on which its unit stands; empty: on a column or a soffit
    start, end : of its back on the plan, mm; clockwise, the room on its right
    low : height of its lower edge above the floor, mm
    left, right : saw angle of the mitre at each end, degrees from square; 0 square, positive where the back is the
        longer side (an inner corner), negative at an outer corner
    length : at its long points, mm
    height : of its profile, mm
    """

    molding: str
    kind: MoldingKind
    profile: str
    wall_id: str
    start: FloorPoint
    end: FloorPoint
    low: float
    left: float
    right: float
    length: float
    height: float = 0.0


def mitre(angle: float) -> float:
    """Saw angle at a corner of so many degrees inside the room, from square: 45 at 90, -45 at 270 (half the turn)."""
    return (180.0 - angle) / 2.0


def long_length(back: float, depth: float, left: float, right: float) -> float:
    """Length of a piece at its long points, mm.

    Parameters
    ----------
    back : length of its back, from corner to corner, mm
    depth : of the molding out from the wall, mm
    left, right : saw angles as in `mitre`; at an outer corner the face is longer than the back by depth x tan
    """
    return back + sum(depth * math.tan(math.radians(-a)) for a in (left, right) if a < 0)


def plan_of(piece: MoldingPiece, depth: float) -> FloorPoints:
    """What a piece takes of the floor with its mitres, mm.

    Parameters
    ----------
    depth : of its profile, mm
    """
    length = math.dist(piece.start, piece.end)
    ux, uy = (piece.end[0] - piece.start[0]) / length, (piece.end[1] - piece.start[1]) / length
    a, b = (depth * math.tan(math.radians(angle)) for angle in (piece.left, piece.right))
    (x0, y0), (x1, y1) = piece.start, piece.end
    return floor_points((
        (x0, y0), (x1, y1), (x1 - ux * b + uy * depth, y1 - uy * b - ux * depth),
        (x0 + ux * a + uy * depth, y0 + uy * a - ux * depth),
    ))  # fmt: skip


def lower_edge(molding: RoomMolding, profile: Profile, ceiling: float) -> float:
    """Height of a molding's lower edge above the floor, mm."""
    if molding.height is not None:
        return molding.height.mm - (profile.height if molding.edge == "top" else 0.0)
    return ceiling - profile.height if molding.kind == "cornice" else 0.0


def path_of(room: Room, molding: RoomMolding, low: float, high: float) -> list[FloorPoints]:
    """Closed paths of a molding's back, clockwise with the room on the right: the floor without columns, and for a
    cornice without soffits; free columns give paths of their own. `low`, `high`: mm."""
    outline = corners_of(room.outline)
    solid = [column_points(room, c) for c in room.columns if column_height(room, c) > low]
    if molding.kind == "cornice":
        solid += [soffit_points(s) for s in room.soffits if room.height.mm - s.drop.mm < high]
    if not solid:
        return [outline]
    from shapely.geometry import Polygon
    from shapely.ops import unary_union

    # A hair wider, so that what stands against a wall leaves no sliver; the hair is taken back from the paths.
    free = Polygon(outline).difference(unary_union([Polygon(ol.offset(_ccw(p), HAIR)) for p in solid]))
    known = [p for shape in (outline, *solid) for p in shape]
    parts = [free] if free.geom_type == "Polygon" else list(getattr(free, "geoms", []))
    paths: list[FloorPoints] = []
    for part in parts:
        if part.area < 1000.0:
            continue
        for i, ring in enumerate((part.exterior, *part.interiors)):
            points = floor_points(ol.cleaned([_without_hair((x, y), known) for x, y in list(ring.coords)[:-1]]))
            clockwise = ol.area(points) < 0
            # Outside rings run clockwise, those round free columns counter-clockwise: the room lies to the right.
            wanted = i == 0
            paths.append(points if clockwise is wanted else tuple(reversed(points)))
    return paths


HAIR = 0.01
"""mm by which columns are taken larger while paths are cut round them."""


def _without_hair(point: Point, known: Sequence[Point]) -> Point:
    """A corner of a path at the line of the corner that it comes from, mm."""
    found = []
    for axis in (0, 1):
        mm = float(point[axis])
        near = min((p[axis] for p in known), key=lambda at: abs(at - mm), default=mm)
        found.append(float(near) if abs(near - mm) < 1.5 * HAIR else mm)
    return found[0], found[1]


def _ccw(points: Points) -> Points:
    return points if ol.area(points) > 0 else tuple(reversed(points))


def moldings_of(room: Room, profiles: tuple[Profile, ...]) -> tuple[MoldingPiece, ...]:
    """Every piece of the room's moldings."""
    return _moldings(msgspec.structs.replace(room, runs=(), islands=(), services=(), name="", use=""), profiles)


@remembered(64)
def _moldings(room: Room, profiles: tuple[Profile, ...]) -> tuple[MoldingPiece, ...]:
    by_code = {p.code: p for p in profiles}
    walls = walls_of(room)
    cased = {c.opening: (c.box[0], c.box[2]) for c in casings_of(room, profiles)}
    found: list[MoldingPiece] = []
    for molding in room.moldings:
        profile = by_code.get(molding.profile)
        if profile is None or molding.along_units:
            continue
        low = lower_edge(molding, profile, room.height.mm)
        for path in path_of(room, molding, low, low + profile.height):
            found += _along(room, walls, molding, profile, path, low, cased)
    return tuple(found)


def _along(
    room: Room,
    walls: tuple[Wall, ...],
    molding: RoomMolding,
    profile: Profile,
    path: FloorPoints,
    low: float,
    cased: dict[str, Span],
) -> list[MoldingPiece]:
    n = len(path)
    angles = [ol.interior_angle(path[i - 1], path[i], path[(i + 1) % n]) for i in range(n)]
    on = [_wall_of(walls, path[i], path[(i + 1) % n]) for i in range(n)]
    wanted = [not molding.walls or w == "" or w in molding.walls for w in on]
    if molding.walls:
        # What lies on no wall goes with the walls beside it.
        wanted = [w and (on[i] != "" or wanted[i - 1]) for i, w in enumerate(wanted)]
    sides = [
        _stretches(room, walls, molding, profile, on[i], path[i], math.dist(path[i], path[(i + 1) % n]), low, cased)
        if wanted[i]
        else []
        for i in range(n)
    ]
    found: list[MoldingPiece] = []
    for i in range(n):
        a, b = path[i], path[(i + 1) % n]
        length = math.dist(a, b)
        way = ((b[0] - a[0]) / length, (b[1] - a[1]) / length)
        for x0, x1, own in sides[i]:
            # Mitred where the next side has a piece at the same height that reaches the corner.
            before = any(abs(z - own) < 0.01 and e > math.dist(path[i - 1], a) - 1e-6 for _, e, z in sides[i - 1])
            after = any(abs(z - own) < 0.01 and s < 1e-6 for s, _, z in sides[(i + 1) % n])
            left = mitre(angles[i]) if x0 < 1e-6 and before else 0.0
            right = mitre(angles[(i + 1) % n]) if x1 > length - 1e-6 and after else 0.0
            start = FloorPoint((a[0] + way[0] * x0, a[1] + way[1] * x0))
            end = FloorPoint((a[0] + way[0] * x1, a[1] + way[1] * x1))
            found.append(
                MoldingPiece(
                    molding.id,
                    molding.kind,
                    profile.code,
                    on[i],
                    start,
                    end,
                    own,
                    round(left, 6),
                    round(right, 6),
                    long_length(x1 - x0, profile.depth, left, right),
                    profile.height,
                )
            )
    return found


Stretch = tuple[float, float, float]
"""From where to where along a side of a path, and the lower edge above the floor, mm."""


def _stretches(
    room: Room,
    walls: tuple[Wall, ...],
    molding: RoomMolding,
    profile: Profile,
    wall_id: str,
    start: FloorPoint,
    length: float,
    low: float,
    cased: dict[str, Span],
) -> list[Stretch]:
    """What a molding takes of one side of its path: where its wall is as high as it, and no opening takes it."""
    found = []
    for x0, x1, own in _levels(walls, molding, profile, wall_id, start, length, low):
        levels = (own, own + profile.height)
        for a, b in _between_openings(room, walls, wall_id, start, length, levels, cased):
            if min(b, x1) - max(a, x0) > 1.0:
                found.append((max(a, x0), min(b, x1), own))
    return found


def _levels(
    walls: tuple[Wall, ...],
    molding: RoomMolding,
    profile: Profile,
    wall_id: str,
    start: FloorPoint,
    length: float,
    low: float,
) -> list[Stretch]:
    """Where and at what height a molding can run along a side: a cornice under the level parts of the ceiling there,
    any other one as far as its wall is higher than it."""
    wall = next((w for w in walls if w.id == wall_id), None)
    if wall is None:
        return [(0.0, length, low)]
    x0 = wall.frame.from_floor(start)[0]
    marks = [(x - x0, z) for x, z in wall.profile] or [(-x0, wall.height), (wall.length - x0, wall.height)]
    hung = molding.kind == "cornice" and molding.height is None
    top = low + profile.height
    found: list[Stretch] = []
    for (a, z0), (b, z1) in itertools.pairwise(marks):
        if hung:
            if abs(z1 - z0) < 0.01 and z0 > profile.height:
                found.append((max(a, 0.0), min(b, length), min(low, z0 - profile.height)))
            continue
        if min(z0, z1) < top - 0.01 < max(z0, z1) and abs(z1 - z0) > 0.01:
            cut = a + (b - a) * (top - z0) / (z1 - z0)
            a, b = (cut, b) if z1 > z0 else (a, cut)
        elif max(z0, z1) < top - 0.01:
            continue
        found.append((max(a, 0.0), min(b, length), low))
    joined: list[Stretch] = []
    for s, e, z in found:
        if joined and s - joined[-1][1] < 1e-6 and abs(joined[-1][2] - z) < 0.01:
            joined[-1] = (joined[-1][0], e, z)
        elif e - s > 1e-6:
            joined.append((s, e, z))
    return joined


def _wall_of(walls: tuple[Wall, ...], a: FloorPoint, b: FloorPoint) -> str:
    for wall in walls:
        if all(abs(wall.frame.from_floor(p)[1]) < NEAR for p in (a, b)):
            xs = sorted(wall.frame.from_floor(p)[0] for p in (a, b))
            if xs[0] > -NEAR and xs[1] < wall.length + NEAR:
                return wall.id
    return ""


def _between_openings(
    room: Room,
    walls: tuple[Wall, ...],
    wall_id: str,
    start: FloorPoint,
    length: float,
    levels: Span,
    cased: dict[str, Span],
) -> list[Span]:
    """Stretches of one side, from its start, that no opening at this height takes with its casing.

    Parameters
    ----------
    levels : lower and upper edge of the molding above the floor, mm
    cased : opening -> from where to where its casing reaches along the wall, mm
    """
    low, high = levels
    openings: list[Opening] = [o for o in room.openings if wall_id and o.wall == wall_id]
    if not openings:
        return [(0.0, length)]
    wall = next(w for w in walls if w.id == wall_id)
    x0 = wall.frame.from_floor(start)[0]
    stretches = [(0.0, length)]
    for o in openings:
        if o.sill.mm >= high - 0.5 or o.sill.mm + o.height.mm <= low + 0.5:
            continue
        left, right = cased.get(o.id, (o.x.mm, o.x.mm + o.width.mm))
        a, b = left - x0, right - x0
        stretches = [
            piece for s, e in stretches for piece in ((s, min(e, a)), (max(s, b), e)) if piece[1] - piece[0] > 1.0
        ]
    return stretches
