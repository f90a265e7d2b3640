"""Moldings along units (TR4): cornices on them, light rails under them, shelf edges before them. They follow the faces
of the carcasses, mitred at every corner, go back to the wall at open ends, and end square where something stands."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

import msgspec
from shapely import prepare, union_all
from shapely.geometry import LineString, Polygon
from shapely.geometry import Point as ShapelyPoint
from shapely.geometry.base import BaseGeometry

from tall_plank.job import Body, Level, Room, RoomMolding
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import FloorPoint, floor_points
from tall_plank.measure.outlines import Point
from tall_plank.measure.remembered import remembered
from tall_plank.setout.rooms import corners_of, soffit_points
from tall_plank.setout.runs import Placed
from tall_plank.setout.things.column import column_height, column_points
from tall_plank.setout.things.molding import MoldingPiece, long_length, mitre
from tall_plank.setout.trims import TrimBoard
from tall_plank.setout.wall import Span, Wall
from tall_plank.stock import Profile

REACH = 100.0
"""mm; a gap beside a wall or another unit that is no wider than this is run over."""

GRID = 1e-4
"""mm by which corners of outlines that are joined are rounded."""

HAIR = 0.1
"""mm; a gap wider than what is run over by less is run over too."""

LEAST = 1.0
"""mm; no piece is shorter."""

TALL = 1500.0
"""mm; what is higher stands tall."""

STEEPEST = 60.0
"""Degrees from square at which an end still meets a wall along it."""

LEVEL = 0.5
"""mm; tops that differ by less carry one molding."""

CLOSERS = ("end panel", "back panel", "dividing panel", "corner filler")
"""Boards beside units that a molding runs over as it runs over the units."""


def suits(molding: RoomMolding, p: Placed) -> bool:
    """Whether a molding that names no units runs along one: cornices on what hangs or stands tall, light rails under
    what hangs, shelf edges before what hangs. Appliances that stand free carry none."""
    if p.body is Body.APPLIANCE:
        return False
    return p.level is Level.HUNG or (molding.kind == "unit cornice" and p.top > TALL)


def chosen_units(molding: RoomMolding, placed: Iterable[Placed]) -> tuple[Placed, ...]:
    """The units that a molding runs along."""
    solid = (p for p in placed if p.is_solid and p.width > LEAST)
    if molding.cells:
        return tuple(p for p in solid if p.cell in molding.cells)
    return tuple(p for p in solid if suits(molding, p))


def level_of(molding: RoomMolding, profile: Profile, p: Placed) -> float:
    """Height of the molding's lower edge at a unit above the floor, mm."""
    if molding.height is not None:
        return molding.height.mm - (profile.height if molding.edge == "top" else 0.0)
    if molding.kind == "unit cornice":
        return p.top
    return (p.bottom if molding.kind == "light rail" else p.top) - profile.height


def stand_out(molding: RoomMolding, profile: Profile) -> float:
    """mm that its back stands before the faces of the carcasses; below 0 behind them."""
    if molding.out is not None:
        return molding.out.mm
    return -profile.depth if molding.kind == "light rail" else 0.0


def unit_moldings(
    room: Room,
    profiles: tuple[Profile, ...],
    lines: tuple[Wall, ...],
    placed: tuple[Placed, ...],
    boards: tuple[TrimBoard, ...],
) -> tuple[MoldingPiece, ...]:
    """Every piece of the room's moldings along units.

    Parameters
    ----------
    lines : walls and faces of islands
    """
    mine = tuple(m for m in room.moldings if m.along_units)
    if not mine:
        return ()
    bare = msgspec.structs.replace(
        room, runs=(), islands=(), services=(), openings=(), guides=(), details=(), sections=(), dimensions=(),
        notes=(), fields=(), underlays=(), name="", use="", moldings=(),
    )  # fmt: skip
    by_code = {p.code: p for p in profiles}
    heights = [(board, *_height_of(board)) for board in boards]
    found: list[MoldingPiece] = []
    for molding in mine:
        profile = by_code.get(molding.profile)
        if profile is None:
            continue
        for low, group in _by_level(molding, profile, chosen_units(molding, placed)):
            cells = {p.cell for p in group}
            span = (low, low + profile.height)
            others = tuple(p for p in placed if p.is_solid and p.cell not in cells and _between(p.bottom, p.top, span))
            beside = tuple(b for b, z0, z1 in heights if _between(z0 - 2 * LEVEL, z1 + 2 * LEVEL, span))
            found += _at_level(bare, molding, profile, lines, group, others, beside, low)
    return tuple(found)


def _height_of(board: TrimBoard) -> Span:
    low, high = board.box()
    return low[2], high[2]


@remembered(256)
def _at_level(
    room: Room,
    molding: RoomMolding,
    profile: Profile,
    lines: tuple[Wall, ...],
    group: tuple[Placed, ...],
    others: tuple[Placed, ...],
    boards: tuple[TrimBoard, ...],
    low: float,
) -> tuple[MoldingPiece, ...]:
    """The pieces of a molding at one height; kept while nothing of this height changes.

    Parameters
    ----------
    room : bare of what stands in it
    group : the units that it runs along
    others, boards : what else stands at this height
    """
    frames = {w.id: w for w in lines}
    floor, top = Polygon(corners_of(room.outline)), room.height.mm
    span = (low, low + profile.height)
    shapes = [_outline(p, frames[p.wall_id], floor) for p in group]
    closing, solids = _boards(boards, frames, group, union_all(shapes, grid_size=GRID), span)
    inside = [
        *solids,
        *(_plan(p) for p in others),
        *(Polygon(column_points(room, c)) for c in room.columns if _between(0.0, column_height(room, c), span)),
        *(Polygon(soffit_points(s)) for s in room.soffits if _between(top - s.drop.mm, top, span)),
    ]
    solid = union_all([b.buffer(0.0) for b in inside]) if inside else Polygon()
    # In a gap that is narrower than two of them they would meet on their way to the wall.
    reach = max(REACH, 2 * (profile.depth + stand_out(molding, profile)))
    base = _over_gaps(union_all([*shapes, *closing], grid_size=GRID), floor, solid, reach)
    base = _wide_enough(base, -stand_out(molding, profile))
    free = floor.difference(solid)
    prepare(free)
    return tuple(_round(molding, profile, group, base, floor, free, low))


def _by_level(
    molding: RoomMolding, profile: Profile, units: Sequence[Placed]
) -> list[tuple[float, tuple[Placed, ...]]]:
    """Units that carry a molding at one height, from the lowest up."""
    groups: list[tuple[float, list[Placed]]] = []
    for p in sorted(units, key=lambda p: level_of(molding, profile, p)):
        low = level_of(molding, profile, p)
        if molding.height is not None and not (p.bottom - LEVEL < low + profile.height and low < p.top + LEVEL):
            continue
        if groups and low - groups[-1][0] < LEVEL:
            groups[-1][1].append(p)
        else:
            groups.append((low, [p]))
    return [(low, tuple(group)) for low, group in groups]


def _between(bottom: float, top: float, span: Span) -> bool:
    """Whether something stands at a molding's height, mm."""
    return bottom < span[1] - LEVEL and top > span[0] + LEVEL


@remembered(512)
def _plan(p: Placed) -> Polygon:
    """A carcass on the floor of the room."""
    return Polygon([p.frame.at(x, y)[:2] for x, y in p.plan])


def _outline(p: Placed, line: Wall, floor: Polygon) -> BaseGeometry:
    """A carcass on the floor, up to the wall that it stands before."""
    shape = _plan(p)
    if line.island:
        return shape
    back = Polygon([p.frame.at(x, y)[:2] for x, y in ((0.0, -1.0), (p.width, -1.0), (p.width, REACH), (0.0, REACH))])
    return union_all([shape, back.intersection(floor)], grid_size=GRID)


def _boards(
    boards: Sequence[TrimBoard], frames: dict[str, Wall], group: Sequence[Placed], units: BaseGeometry, span: Span
) -> tuple[list[Polygon], list[Polygon]]:
    """Boards that close units at a molding's height, up to the faces of the carcasses, and those that stand in its
    way."""
    closing, others = [], []
    near = units.buffer(LEAST)
    for board in boards:
        if board.wall_id not in frames:
            continue
        (x0, y0, z0), (x1, y1, z1) = board.box()
        deep = max((p.depth for p in group if p.wall_id == board.wall_id), default=0.0)
        closes = board.kind in CLOSERS and deep > 0.0 and _between(z0 - 2 * LEVEL, z1 + 2 * LEVEL, span)
        if not closes and not _between(z0, z1, span):
            continue
        if closes:
            # What stands flush with the fronts goes as deep as the carcasses beside it.
            y0, y1 = max(y0, -deep), 0.0 if board.kind == "corner filler" else y1
        frame = frames[board.wall_id].frame
        if (x1 - x0) * (y1 - y0) < 1.0:
            continue
        shape = Polygon([frame.at(x, y)[:2] for x, y in ((x0, y0), (x1, y0), (x1, y1), (x0, y1))])
        if closes and shape.intersects(near):
            closing.append(shape)
        elif _between(z0, z1, span):
            others.append(shape)
    return closing, others


def _wide_enough(base: BaseGeometry, inset: float) -> BaseGeometry:
    """Outlines without what is too narrow to have a molding so far (mm) behind both its faces."""
    if inset <= 0.0:
        return base
    inner = base.buffer(-inset - HAIR, join_style="mitre")
    kept = inner.buffer(inset + 2 * HAIR, join_style="mitre")
    lost = [part for part in _polygons(base.difference(kept)) if part.area > 1.0]
    return union_all([base.difference(union_all(lost))], grid_size=GRID) if lost else base


def _over_gaps(base: BaseGeometry, floor: Polygon, solid: BaseGeometry, reach: float) -> BaseGeometry:
    """Outlines carried on to what stands no more than `reach` (mm) beside them, other ones of them too."""
    free = floor.difference(solid).difference(base)
    reach += LEVEL
    open_floor = free.buffer(-HAIR)
    prepare((free, open_floor))
    more = []
    for ring in _rings(base):
        for a, b in zip(ring, (*ring[1:], ring[0]), strict=True):
            length = math.dist(a, b)
            if length < LEAST:
                continue
            nx, ny = (b[1] - a[1]) / length, -(b[0] - a[0]) / length
            # Longer than the far line lies, so that what is run over is closed.
            on = reach + LEAST
            strip = Polygon([a, b, (b[0] + nx * on, b[1] + ny * on), (a[0] + nx * on, a[1] + ny * on)])
            if free.contains(strip):
                continue
            # Only where the whole side faces something across the gap.
            gaps = _polygons(strip.intersection(free))
            far = LineString([(b[0] + nx * reach, b[1] + ny * reach), (a[0] + nx * reach, a[1] + ny * reach)])
            if len(gaps) == 1 and not far.intersects(open_floor):
                more += gaps
    return union_all([base, *more], grid_size=GRID) if more else base


def _polygons(shape: BaseGeometry) -> list[BaseGeometry]:
    """The areas of a shape; lines and points that touch it are none."""
    parts = [shape] if shape.geom_type == "Polygon" else list(getattr(shape, "geoms", []))
    return [part for part in parts if part.geom_type == "Polygon" and part.area > 1.0]


def _rings(shape: BaseGeometry) -> list[tuple[Point, ...]]:
    """Outer rings counter-clockwise: what they enclose lies to the left. Holes are closed in on all sides."""
    found = []
    for part in _polygons(shape):
        ring = _straightened([(float(x), float(y)) for x, y in list(part.exterior.coords)[:-1]])
        if len(ring) > 2:
            found.append(ring if ol.area(ring) > 0 else tuple(reversed(ring)))
    return found


def _straightened(points: Sequence[Point]) -> tuple[Point, ...]:
    """An outline without corners that rounding put beside its sides."""
    kept = [p for i, p in enumerate(points) if math.dist(p, points[i - 1]) > 10 * GRID]
    found = []
    for i, p in enumerate(kept):
        a, b = kept[i - 1], kept[(i + 1) % len(kept)]
        long = math.dist(a, b)
        off = abs((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])) / long if long else 0.0
        if off > 10 * GRID:
            found.append(p)
    return tuple(found)


class _Run(msgspec.Struct, frozen=True):
    """A stretch of a side that is free, from `a` to `b` on the floor, with the corners of its side."""

    a: Point
    b: Point
    side: int


def _round(
    molding: RoomMolding,
    profile: Profile,
    group: tuple[Placed, ...],
    base: BaseGeometry,
    floor: Polygon,
    free: BaseGeometry,
    low: float,
) -> list[MoldingPiece]:
    """The pieces of a molding round what units take together, at one height."""
    out = stand_out(molding, profile)
    found: list[MoldingPiece] = []
    for ring in _rings(base):
        n = len(ring)
        sides: list[list[_Run]] = []
        leans = [_at_walls(ring, i, max(LEAST, profile.depth + out), floor) for i in range(n)]
        for i in range(n):
            sides.append(_free(ring[i], ring[(i + 1) % n], i, profile.depth + out, leans[i], free))
        open_corners = [_corner_is_free(ring, i, profile.depth + out, free) for i in range(n)]
        for run in (run for side in sides for run in side):
            i, j = run.side, (run.side + 1) % n
            left = right = 0.0
            if math.dist(run.a, ring[i]) < 0.01:
                meets = open_corners[i] and any(math.dist(r.b, run.a) < 0.01 for r in sides[i - 1])
                left = _angle(ring, i) if meets else leans[i][0]
            if math.dist(run.b, ring[j]) < 0.01:
                meets = open_corners[j] and any(math.dist(r.a, run.b) < 0.01 for r in sides[j])
                right = _angle(ring, j) if meets else leans[i][1]
            if not left and out < 0.0 and any(math.dist(r.b, ring[i]) < -out for r in sides[i - 1]):
                run = _shortened(run, ring[i], -out)
            piece = _piece(molding, profile, group, run, out, low, left, right)
            if piece is not None:
                found.append(piece)
    return found


def _shortened(run: _Run, corner: Point, by: float) -> _Run:
    """A stretch that ends square behind another one round a corner: it begins where that one's back is. `by`: mm."""
    length, short = math.dist(run.a, run.b), by - math.dist(run.a, corner)
    if short <= 0.0 or length <= short:
        return run
    t = short / length
    return _Run((run.a[0] + (run.b[0] - run.a[0]) * t, run.a[1] + (run.b[1] - run.a[1]) * t), run.b, run.side)


def _corner_is_free(ring: tuple[Point, ...], i: int, reach: float, free: BaseGeometry) -> bool:
    """Whether nothing stands where a molding goes round an outer corner."""
    angle = _angle(ring, i)
    if angle >= 0.0 or reach <= 0.0:
        return True
    (px, py), (x, y), (qx, qy) = ring[i - 1], ring[i], ring[(i + 1) % len(ring)]
    before, after = math.dist((px, py), (x, y)), math.dist((x, y), (qx, qy))
    u, v = ((x - px) / before, (y - py) / before), ((qx - x) / after, (qy - y) / after)
    on = reach * math.tan(math.radians(-angle))
    first, second = (x + u[1] * reach, y - u[0] * reach), (x + v[1] * reach, y - v[0] * reach)
    shape = Polygon([(x, y), first, (first[0] + u[0] * on, first[1] + u[1] * on), second])
    return bool(free.contains(shape) or shape.difference(free).area < 0.1)


def _at_walls(ring: tuple[Point, ...], i: int, reach: float, floor: Polygon) -> tuple[float, float]:
    """By how many degrees from square a side meets a wall at its start and its end; 0 where it meets none."""
    n = len(ring)
    edge = floor.exterior

    def lean(at: int, beyond: int) -> float:
        corner, other = ring[at % n], ring[beyond % n]
        length = math.dist(corner, other)
        inner = 360.0 - ol.interior_angle(ring[at - 1], corner, ring[(at + 1) % n])
        if length < LEAST or abs(inner - 90.0) > STEEPEST:
            return 0.0
        out = (corner[0] - (other[0] - corner[0]) / length * reach, corner[1] - (other[1] - corner[1]) / length * reach)
        on_wall = all(edge.distance(ShapelyPoint(p)) < LEVEL for p in (corner, out))
        return inner - 90.0 if on_wall else 0.0

    return lean(i, i - 1), lean((i + 1) % n, i + 2)


def _angle(ring: tuple[Point, ...], i: int) -> float:
    """Saw angle of the mitre at a corner; the molding runs outside, to the right."""
    return mitre(ol.interior_angle(ring[i - 1], ring[i], ring[(i + 1) % len(ring)]))


def _free(a: Point, b: Point, side: int, reach: float, leans: tuple[float, float], free: BaseGeometry) -> list[_Run]:
    """Where nothing stands before a side as deep as the molding reaches, mm; `leans`: as in `_at_walls`."""
    length = math.dist(a, b)
    if length < LEAST:
        return []
    ux, uy = (b[0] - a[0]) / length, (b[1] - a[1]) / length
    reach = max(LEAST, reach)
    first, last = (reach * math.tan(math.radians(angle)) for angle in leans)
    strip = Polygon([
        (a[0] + uy * t + ux * s, a[1] - ux * t + uy * s)
        for s, t in ((0.0, 0.01), (length, 0.01), (length - last, reach), (first, reach))
    ])  # fmt: skip
    spans = [(0.0, length)]
    if free.contains(strip):
        return [_Run(a, b, side)]
    taken = strip.difference(free)
    for part in getattr(taken, "geoms", [taken]):
        if part.is_empty or part.area < 1e-3:
            continue
        along = [(x - a[0]) * ux + (y - a[1]) * uy for x, y in part.exterior.coords]
        low, high = min(along), max(along)
        spans = [(s, e) for p, q in spans for s, e in ((p, min(q, low)), (max(p, high), q)) if e - s > LEAST]
    return [
        _Run((a[0] + ux * s, a[1] + uy * s), (a[0] + ux * e, a[1] + uy * e), side) for s, e in spans if e - s > LEAST
    ]


def _piece(
    molding: RoomMolding,
    profile: Profile,
    group: tuple[Placed, ...],
    run: _Run,
    out: float,
    low: float,
    left: float,
    right: float,
) -> MoldingPiece | None:
    """A piece along a free stretch; its back stands before it by `out`."""
    length = math.dist(run.a, run.b)
    ux, uy = (run.b[0] - run.a[0]) / length, (run.b[1] - run.a[1]) / length
    # At a mitred corner the back grows with how far it stands out, by the same rule as its face.
    grows = [-out * math.tan(math.radians(angle)) if angle else 0.0 for angle in (left, right)]
    back = length + sum(grows)
    if back < LEAST:
        return None
    x, y = run.a[0] + uy * out - ux * grows[0], run.a[1] - ux * out - uy * grows[0]
    start, end = floor_points([(x, y), (x + ux * back, y + uy * back)])
    long = round(long_length(back, profile.depth, left, right), 3)
    return MoldingPiece(
        molding.id, molding.kind, profile.code, _nearest(group, run), FloorPoint(start), FloorPoint(end), low,
        round(left, 4) + 0.0, round(right, 4) + 0.0, long, profile.height,
    )  # fmt: skip


def _nearest(group: tuple[Placed, ...], run: _Run) -> str:
    """The line of the unit that a piece runs along."""
    if len({p.wall_id for p in group}) == 1:
        return group[0].wall_id
    middle = ShapelyPoint((run.a[0] + run.b[0]) / 2, (run.a[1] + run.b[1]) / 2)
    return min(group, key=lambda p: _plan(p).distance(middle)).wall_id
