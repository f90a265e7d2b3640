"""Sections: what a plane cuts of boards with all that is machined into them, and of plain solids.

A board and everything taken out of it are convex solids, or few of them, in the board's own frame: the plane cuts each
into a convex polygon, exactly; those of the voids are taken off that of the board.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from tall_plank.drawing.primitives import Hatch
from tall_plank.drawing.strokes import convex_pieces
from tall_plank.making.parts import Bevel, Bore, Cutout, Groove, Part, Rebate
from tall_plank.making.solids import SEGMENTS, face_matrix
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import Frame, Vec, cross
from tall_plank.measure.remembered import remembered
from tall_plank.solids.solids import Box, Prism, Solid
from tall_plank.stock import Board, Stock

Floats = NDArray[np.float64]
Ring = tuple[tuple[float, float], ...]

REACH = 1e5
"""mm; no section reaches further."""

LEAST = 0.02
"""mm²; a smaller piece of a section is none."""


class Plane(NamedTuple):
    """A plane to cut with, and how it is looked at: from the side that `towards` points to.

    Attributes
    ----------
    origin : what lies at 0, 0 of the section, mm
    right, up : unit vectors in the plane
    """

    origin: Vec
    right: Vec
    up: Vec

    @property
    def towards(self) -> Vec:
        return cross(self.right, self.up)

    def seen_from(self, frame: Frame[Any]) -> Plane:
        """The same plane in the coordinates of a frame that stands where the plane does."""

        def turned(v: Vec) -> Vec:
            return tuple(sum(a * b for a, b in zip(axis, v, strict=True)) for axis in (frame.x, frame.y, frame.z))  # type: ignore[return-value]

        return Plane(frame.into(self.origin), turned(self.right), turned(self.up))


class Cut(NamedTuple):
    """What is cut of one thing: rings (outlines and holes, even-odd), mm in the plane, and its hatching."""

    rings: tuple[Ring, ...]
    hatch: Hatch


def hatch_of(board: Board | None) -> Hatch:
    """The hatching of a board by what it is made of."""
    if board is None:
        return "panel"
    if board.cut_to_size:
        return "glass"
    if board.solid:
        return "timber"
    if board.blank:
        return "worktop"
    return "ply" if board.grain == "length" else "panel"


@remembered(4096)
def part_cut(part: Part, plane: Plane) -> tuple[Ring, ...]:
    """Rings of what a plane cuts of a part, its holes, grooves, rebates, bevels and cut-outs taken off.

    Parameters
    ----------
    plane : in the part's own frame; bent parts are taken flat
    """
    import shapely

    size = (part.length, part.width, part.thickness)
    spots = [sum(a * b for a, b in zip(plane.towards, _from(plane.origin, c), strict=True)) for c in _corners(size)]
    if min(spots) >= -1e-9 or max(spots) <= 1e-9:
        return ()
    outline = part.outline or ((0.0, 0.0), (size[0], 0.0), (size[0], size[1]), (0.0, size[1]))
    pieces = [_convex(plane, plate(p, 0.0, size[2])) for p in convex_pieces(outline)]
    whole = shapely.union_all([p for p in pieces if p is not None])
    voids = [_convex(plane, v) for op in part.operations for v in voids_of(part, op)]
    found = [v for v in voids if v is not None]
    if found:
        whole = shapely.difference(whole, shapely.union_all(found))
    return _rings(whole)


def _from(origin: Vec, at: Vec) -> Vec:
    return (at[0] - origin[0], at[1] - origin[1], at[2] - origin[2])


def _corners(size: Vec) -> list[Vec]:
    return [(x, y, z) for x in (0.0, size[0]) for y in (0.0, size[1]) for z in (0.0, size[2])]


def plate(outline: ol.Points, low: float, high: float) -> Floats:
    """(K, 4) half-spaces ``a x + b y + c z + d <= 0`` of a convex outline between two heights, mm."""
    points = outline if ol.area(outline) > 0 else tuple(reversed(outline))
    rows = []
    for (ax, ay), (bx, by) in zip(points, (*points[1:], points[0]), strict=True):
        size = math.hypot(bx - ax, by - ay)
        if size > 1e-9:
            nx, ny = (by - ay) / size, -(bx - ax) / size
            rows.append((nx, ny, 0.0, -(nx * ax + ny * ay)))
    return np.array([*rows, (0.0, 0.0, 1.0, -high), (0.0, 0.0, -1.0, low)])


def voids_of(part: Part, op: object) -> list[Floats]:
    """Half-spaces of what an operation takes out, convex pieces, in the part's own frame."""
    match op:
        case Bore():
            r = op.diameter / 2
            turns = [2 * math.pi * i / SEGMENTS for i in range(SEGMENTS)]
            points = tuple((op.x + r * math.cos(t), op.y + r * math.sin(t)) for t in turns)
            return [_in_face(part, op.face, plate(points, -1.0, op.depth + (1.0 if op.through else 0.0)))]
        case Groove():
            dx, dy = op.x2 - op.x1, op.y2 - op.y1
            size = math.hypot(dx, dy) or 1.0
            nx, ny = -dy / size * op.width / 2, dx / size * op.width / 2
            points = (
                (op.x1 + nx, op.y1 + ny), (op.x1 - nx, op.y1 - ny), (op.x2 - nx, op.y2 - ny), (op.x2 + nx, op.y2 + ny),
            )  # fmt: skip
            return [_in_face(part, op.face, plate(points, -1.0, op.depth))]
        case Rebate():
            x0, y0, x1, y1 = {
                "L1": (-1.0, -1.0, part.length + 1, op.width),
                "L2": (-1.0, part.width - op.width, part.length + 1, part.width + 1),
                "W1": (-1.0, -1.0, op.width, part.width + 1),
                "W2": (part.length - op.width, -1.0, part.length + 1, part.width + 1),
            }[op.edge]
            return [_in_face(part, op.face, plate(((x0, y0), (x1, y0), (x1, y1), (x0, y1)), -1.0, op.depth))]
        case Cutout():
            x1, y1 = op.x + op.length, op.y + op.width
            points = ol.rounded_box(op.x, op.y, x1, y1, op.radius) if op.radius > 0.01 else (
                (op.x, op.y), (x1, op.y), (x1, y1), (op.x, y1)
            )  # fmt: skip
            return [plate(points, -1.0, part.thickness + 1.0)]
        case Bevel():
            return [_beyond(part, op)]
    return []


def _beyond(part: Part, op: Bevel) -> Floats:
    """What a slanted cut takes off: beyond a plane through the edge of the long face."""
    t = part.thickness
    lean = math.tan(math.radians(op.angle))
    sides = {"L1": (1, 1.0, 0.0), "L2": (1, -1.0, part.width), "W1": (0, 1.0, 0.0), "W2": (0, -1.0, part.length)}
    axis, sign, far = sides[op.edge]
    # Inwards from the edge by u; taken off where u < lean * (distance from the long face).
    row = [0.0, 0.0, 0.0, 0.0]
    row[axis] = sign
    if op.long == "A":
        row[2], row[3] = lean, -sign * far - lean * t
    else:
        row[2], row[3] = -lean, -sign * far
    box = plate(((-REACH, -REACH), (REACH, -REACH), (REACH, REACH), (-REACH, REACH)), -1.0, t + 1.0)
    return np.vstack([box, row])


def _in_face(part: Part, face: str, halves: Floats) -> Floats:
    """Half-spaces given in a face's own frame (u, v, and w into the wood), in the part's."""
    matrix = face_matrix(part, face)
    turn, origin = matrix[:, :3], matrix[:, 3]
    normals = halves[:, :3] @ turn.T
    return np.column_stack([normals, halves[:, 3] - normals @ origin])


def _convex(plane: Plane, halves: Floats) -> Any:
    """The polygon that a plane cuts of a convex solid, as a shapely polygon; None where there is none."""
    import shapely

    o, r, u = np.array(plane.origin), np.array(plane.right), np.array(plane.up)
    a, b = halves[:, :3] @ r, halves[:, :3] @ u
    c = halves[:, :3] @ o + halves[:, 3]
    ring: list[tuple[float, float]] = [(-REACH, -REACH), (REACH, -REACH), (REACH, REACH), (-REACH, REACH)]
    for p, q, d in zip(a.tolist(), b.tolist(), c.tolist(), strict=True):
        if abs(p) < 1e-12 and abs(q) < 1e-12:
            if d > 1e-9:
                return None
            continue
        ring = _half(ring, p, q, d)
        if len(ring) < 3:
            return None
    found = shapely.Polygon(ring)
    return found if found.area > LEAST / 10 else None


def _half(ring: list[tuple[float, float]], p: float, q: float, d: float) -> list[tuple[float, float]]:
    """A convex ring cut to ``p x + q y + d <= 0``."""
    found: list[tuple[float, float]] = []
    at = [p * x + q * y + d for x, y in ring]
    for i, (x, y) in enumerate(ring):
        k = (i + 1) % len(ring)
        if at[i] <= 0:
            found.append((x, y))
        if at[i] * at[k] < 0:
            t = at[i] / (at[i] - at[k])
            found.append((x + (ring[k][0] - x) * t, y + (ring[k][1] - y) * t))
    return found


def _rings(shape: Any) -> tuple[Ring, ...]:
    """Outlines and holes of a shapely polygon or several."""
    found: list[Ring] = []
    for polygon in getattr(shape, "geoms", (shape,)):
        if polygon.is_empty or polygon.geom_type != "Polygon" or polygon.area < LEAST:
            continue
        for i, ring in enumerate((polygon.exterior, *polygon.interiors)):
            points = ol.cleaned([(float(x), float(y)) for x, y in ring.coords[:-1]])
            # Outlines run counter-clockwise, holes clockwise.
            if len(points) > 2:
                found.append(points if (ol.area(points) > 0) == (i == 0) else points[::-1])
    return tuple(found)


def solid_cut(solid: Solid, plane: Plane) -> tuple[Ring, ...]:
    """Rings of what a plane cuts of a plain solid; the plane in the solid's frame's parent."""
    import shapely

    own = plane.seen_from(solid.frame)
    if isinstance(solid, Box):
        x, y, z = solid.size
        pieces = [_convex(own, plate(((0.0, 0.0), (x, 0.0), (x, y), (0.0, y)), 0.0, z))]
    else:
        pieces = [_convex(own, plate(p, *_ends(solid, p))) for p in convex_pieces(solid.points)]
    found = [p for p in pieces if p is not None]
    return _rings(shapely.union_all(found)) if found else ()


def _ends(prism: Prism, _outline: ol.Points) -> tuple[float, float]:
    """Lower and upper end of a prism; mitred ends are taken square."""
    return 0.0, prism.thickness


def parts_cut(placed: Iterable[tuple[Frame[Any], Part]], plane: Plane, stock: Stock) -> list[tuple[Part, Cut]]:
    """What a plane cuts of parts.

    Parameters
    ----------
    placed : each part with the frame that it stands in, in the plane's coordinates
    """
    found = []
    for frame, part in placed:
        rings = part_cut(part, plane.seen_from(frame))
        if rings:
            found.append((part, Cut(rings, hatch_of(stock.board_by_code(part.board)))))
    return found


def area_of(rings: Sequence[Ring]) -> float:
    """mm² inside rings, holes taken off."""
    outer = [abs(ol.area(r)) for r in rings]
    if not outer:
        return 0.0
    import shapely

    whole = shapely.Polygon()
    for ring in rings:
        whole = whole.symmetric_difference(shapely.Polygon(ring))
    return float(whole.area)
