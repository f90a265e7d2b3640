"""The seen parts of faces, exactly: what no face before them covers, in an order in which they are painted."""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from tall_plank.drawing.hidden import NEAR
from tall_plank.measure import outlines as ol

Floats = NDArray[np.float64]
Ring = tuple[tuple[float, float], ...]

LEAST = 0.5
"""mm²; a smaller piece is not painted."""


SNAP = 0.01
"""mm; corners of pieces that are joined fall together within it."""


class SeenFace(NamedTuple):
    """A piece of a face that is seen: the number of the face, and its outline, mm. What shows in a hole of it comes
    later."""

    face: int
    outline: Ring


def seen_faces(corners: Floats, groups: NDArray[np.int64]) -> list[SeenFace]:
    """What is seen of faces.

    Parameters
    ----------
    corners : (M, 4, 3) floats, mm; x, y, z of view coordinates, counter-clockwise; z towards who looks; a triangle
        repeats its last corner
    groups : (M,) ints; pieces of faces of one number are joined where they touch: they are painted alike
    """
    import shapely

    if not len(corners):
        return []
    shapes = shapely.polygons(corners[:, :, :2])
    sizes = shapely.area(shapes)
    tree = shapely.STRtree(shapes)
    a, b = tree.query(shapes, predicate="intersects")
    pairs = a < b
    a, b = a[pairs], b[pairs]
    over = shapely.intersection(shapes[a], shapes[b])
    real = shapely.area(over) > LEAST
    a, b, over = a[real], b[real], over[real]
    spots = shapely.get_coordinates(shapely.point_on_surface(over))
    planes = _planes(corners)
    za, zb = _depth(planes[a], spots), _depth(planes[b], spots)
    # A face that one other covers wholly is not seen, and what lies before it is asked no more.
    whole = shapely.area(over)
    lost = np.zeros(len(shapes), dtype=bool)
    lost[a[(zb > za + NEAR) & (whole > sizes[a] - LEAST / 10)]] = True
    lost[b[(za > zb + NEAR) & (whole > sizes[b] - LEAST / 10)]] = True
    asked = ~(lost[a] | lost[b])
    a, b, za, zb = a[asked], b[asked], za[asked], zb[asked]
    behind: dict[int, list[int]] = {}
    for i, j, low, high in zip(a.tolist(), b.tolist(), za.tolist(), zb.tolist(), strict=True):
        if high > low + NEAR:
            behind.setdefault(i, []).append(j)
        elif low > high + NEAR:
            behind.setdefault(j, []).append(i)
    pieces: dict[int, list[Any]] = {}
    first: dict[int, int] = {}
    for n, shape in enumerate(shapes.tolist()):
        if sizes[n] <= LEAST or lost[n]:
            continue
        left: Any = shape
        if n in behind:
            left = shapely.difference(shape, shapely.union_all(shapes[behind[n]]))
        pieces.setdefault(int(groups[n]), []).append(left)
        first.setdefault(int(groups[n]), n)
    found: list[SeenFace] = []
    for group, parts in pieces.items():
        whole = shapely.union_all(parts, grid_size=SNAP) if len(parts) > 1 else parts[0]
        for piece in getattr(whole, "geoms", (whole,)):
            if piece.geom_type == "Polygon" and piece.area > LEAST:
                found.append(SeenFace(first[group], _ring(piece.exterior)))
    # What lies in a hole is smaller than what the hole is in.
    return sorted(found, key=lambda f: -abs(ol.area(f.outline)))


def _planes(corners: Floats) -> Floats:
    """``z = p x + q y + r`` of each face, from the longest of its corners' crosses."""
    first, second = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    third = corners[:, 3] - corners[:, 0]
    one, two = np.cross(first, second), np.cross(second, third)
    normal = one + two
    z = np.where(np.abs(normal[:, 2]) < 1e-9, 1e-9, normal[:, 2])
    p, q = -normal[:, 0] / z, -normal[:, 1] / z
    return np.column_stack([p, q, corners[:, 0, 2] - p * corners[:, 0, 0] - q * corners[:, 0, 1]])


def _depth(planes: Floats, spots: Floats) -> Floats:
    depth: Floats = planes[:, 0] * spots[:, 0] + planes[:, 1] * spots[:, 1] + planes[:, 2]
    return depth


def _ring(ring: Any) -> Ring:
    return tuple((float(x), float(y)) for x, y in ring.coords[:-1])
