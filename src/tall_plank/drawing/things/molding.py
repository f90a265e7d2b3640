"""Moldings along walls and along units."""

from __future__ import annotations

import math

from tall_plank.drawing.colors import color_of
from tall_plank.drawing.primitives import Item, Layer, Line, Pen, Shape
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Kind
from tall_plank.measure.outlines import Points
from tall_plank.setout import MoldingPiece, Wall
from tall_plank.stock import Profile


def _on_wall(scope: Scope, wall: Wall) -> list[Item]:
    return _pieces(scope, wall, scope.room.moldings)


def _before_units(scope: Scope, wall: Wall) -> list[Item]:
    """Those at the side of a unit first, so that what runs before them covers their ends."""
    mine = [p for p in scope.room.unit_moldings if p.wall_id == wall.id]
    return _pieces(scope, wall, sorted(mine, key=lambda p: abs(_ways(wall, p)[2])))


def _pieces(scope: Scope, wall: Wall, pieces: tuple[MoldingPiece, ...] | list[MoldingPiece]) -> list[Item]:
    stock = scope.job.stock
    items: list[Item] = []
    for piece in pieces:
        profile = stock.profile(piece.profile)
        if piece.wall_id != wall.id or profile is None:
            continue
        source = Kind.MOLDING.of(piece.molding)
        points = _seen(wall, piece, profile)
        items.append(Shape(points, Pen.NARROW, Layer.TRIM, source, color_of(stock, profile.finish)))
        x0, x1, along = _ways(wall, piece)
        if abs(along) < 0.99:
            continue
        for x, y in _arrises(profile):
            a = x0 - x * math.tan(math.radians(-piece.left)) if piece.left < 0 else x0
            b = x1 + x * math.tan(math.radians(-piece.right)) if piece.right < 0 else x1
            items.append(Line(a, piece.low + y, b, piece.low + y, Pen.NARROW, Layer.TRIM, source))
    return items


def _ways(wall: Wall, piece: MoldingPiece) -> tuple[float, float, float]:
    """Where a piece's back begins and ends along a wall, mm, and how much of it runs along the wall: 1 all, 0 none."""
    x0, x1 = (wall.frame.from_floor(p)[0] for p in (piece.start, piece.end))
    length = math.dist(piece.start, piece.end)
    return x0, x1, (x1 - x0) / length if length else 0.0


def _seen(wall: Wall, piece: MoldingPiece, profile: Profile) -> Points:
    """A piece from before the wall: at an outer mitre its section stands out beyond its back, and one that runs into
    the room shows its section's end, or its side."""
    (x0, y0), (x1, y1) = (wall.frame.from_floor(p) for p in (piece.start, piece.end))
    length = math.dist(piece.start, piece.end) or 1.0
    along, across = ((x1 - x0) / length, (y1 - y0) / length)
    outer = _front(profile)

    def side(x: float, saw: float, way: float) -> list[tuple[float, float]]:
        lean = math.tan(math.radians(-saw)) * way
        # Out of the back is to the right of the way.
        return [(x + px * (along * lean + across), piece.low + py) for px, py in outer]

    left, right = side(x0, piece.left, -1.0), side(x1, piece.right, 1.0)
    if abs(along) > 0.99:
        flat_left = left if piece.left < 0 else [(x0, y) for _, y in left]
        flat_right = right if piece.right < 0 else [(x1, y) for _, y in right]
        return (*flat_left, *reversed(flat_right))
    back = [(x0 if abs(along) < 0.01 else x1, piece.low + y) for _, y in (outer[-1], outer[0])]
    if abs(along) < 0.01:
        return (*((x0 + px * across, piece.low + py) for px, py in outer), *back)
    return (*left, *reversed(right))


def _front(profile: Profile) -> list[tuple[float, float]]:
    """The face of a section, from its lowest point to its highest."""
    points = profile.section
    low = min(range(len(points)), key=lambda i: (points[i][1], -points[i][0]))
    high = max(range(len(points)), key=lambda i: (points[i][1], points[i][0]))
    n = len(points)
    up = [points[(low + i) % n] for i in range((high - low) % n + 1)]
    down = [points[(low - i) % n] for i in range((low - high) % n + 1)]
    return max((up, down), key=lambda chain: max(x for x, _ in chain) * 1000.0 + len(chain))


def _arrises(profile: Profile) -> list[tuple[float, float]]:
    """The corners of a section that show as lines: those of its outline, no chords of its arcs."""
    front = {(round(x, 3), round(y, 3)) for x, y in _front(profile)}
    corners = {(round(x, 3), round(y, 3)) for x, y, _ in profile.placed}
    found: dict[float, tuple[float, float]] = {}
    for x, y in sorted(corners & front):
        found[round(y, 1)] = (x, y)
    heights = sorted(found)
    return [found[y] for y in heights[1:-1]]


def _above(scope: Scope) -> list[Item]:
    """A thin line along walls, cornices left out; along units the lines of its face."""
    along_walls = [
        Line(*piece.start, *piece.end, Pen.NARROW, Layer.TRIM, Kind.MOLDING.of(piece.molding))
        for piece in scope.room.moldings
        if piece.kind != "cornice"
    ]
    return [*along_walls, *(line for piece in scope.room.unit_moldings for line in _face_on_plan(scope, piece))]


def _face_on_plan(scope: Scope, piece: MoldingPiece) -> list[Item]:
    """The outer edge of a piece, mitred."""
    profile = scope.job.stock.profile(piece.profile)
    length = math.dist(piece.start, piece.end)
    if profile is None or length <= 0:
        return []
    ux, uy = (piece.end[0] - piece.start[0]) / length, (piece.end[1] - piece.start[1]) / length
    d = profile.depth
    a, b = (d * math.tan(math.radians(angle)) for angle in (piece.left, piece.right))
    x0, y0 = piece.start[0] + ux * a + uy * d, piece.start[1] + uy * a - ux * d
    x1, y1 = piece.end[0] - ux * b + uy * d, piece.end[1] - uy * b - ux * d
    return [Line(x0, y0, x1, y1, Pen.NARROW, Layer.TRIM, Kind.MOLDING.of(piece.molding))]


MOLDING = ThingDrawn(on_wall=_on_wall, closing=_before_units, solid=True, above=_above)
