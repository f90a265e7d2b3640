"""Fills of solids: the seen parts of their faces, exactly, or whole, in an order in which what stands before is painted
after what it covers."""

from __future__ import annotations

from graphlib import CycleError, TopologicalSorter
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


def painted(corners: Floats, groups: NDArray[np.int64]) -> list[SeenFace]:
    """Each group of faces as one fill, those behind first; groups that others cover wholly are left out. Much quicker
    than what is seen of them exactly.

    Parameters
    ----------
    corners, groups : as for `seen_faces`; a group is what is painted alike, as a solid
    """
    import shapely

    if not len(corners):
        return []
    low, high = corners[:, :, :2].min(axis=1), corners[:, :, :2].max(axis=1)
    over = np.ones((len(corners), len(corners)), dtype=bool)
    for axis in (0, 1):
        inner = np.minimum(high[:, None, axis], high[None, :, axis]) - np.maximum(
            low[:, None, axis], low[None, :, axis]
        )
        over &= inner > SNAP
    a, b = np.nonzero(np.triu(over, 1))
    real = groups[a] != groups[b]
    a, b = a[real], b[real]
    spots = (np.maximum(low[a], low[b]) + np.minimum(high[a], high[b])) / 2
    upright = (np.isclose(corners[:, :, :2], low[:, None]) | np.isclose(corners[:, :, :2], high[:, None])).all(
        axis=(1, 2)
    )
    upright &= (corners[:, 3] != corners[:, 2]).any(axis=1)
    slanted = np.flatnonzero(~(upright[a] & upright[b]))
    if len(slanted):
        shapes = shapely.convex_hull(shapely.polygons(corners[:, :, :2]))
        common = shapely.intersection(shapes[a[slanted]], shapes[b[slanted]])
        there = shapely.area(common) > LEAST
        spots[slanted[there]] = shapely.get_coordinates(shapely.point_on_surface(common[there]))
        keep = np.ones(len(a), dtype=bool)
        keep[slanted[~there]] = False
        a, b, spots = a[keep], b[keep], spots[keep]
    planes = _planes(corners)
    za, zb = _depth(planes[a], spots), _depth(planes[b], spots)
    first, then = np.where(za < zb, a, b), np.where(za < zb, b, a)
    apart = np.abs(za - zb) > NEAR
    first, then = first[apart], then[apart]
    # What one upright rectangle covers wholly is not seen.
    inside = (low[first] >= low[then] - SNAP).all(axis=1) & (high[first] <= high[then] + SNAP).all(axis=1)
    lost = np.zeros(len(corners), dtype=bool)
    lost[first[inside & upright[then]]] = True
    kept = np.flatnonzero(~lost)
    members: dict[int, list[int]] = {}
    for n in kept.tolist():
        members.setdefault(int(groups[n]), []).append(n)
    known = ~(lost[first] | lost[then])
    pairs = set(zip(groups[first[known]].tolist(), groups[then[known]].tolist(), strict=True))
    depth = {g: float(corners[faces, :, 2].mean()) for g, faces in members.items()}
    found: list[SeenFace] = []
    for group in _in_order(depth, pairs):
        faces = members[group]
        if len(faces) == 1:
            n = faces[0]
            ring = corners[n, : 4 if (corners[n, 3] != corners[n, 2]).any() else 3, :2]
            found.append(SeenFace(n, tuple((float(x), float(y)) for x, y in ring)))
            continue
        whole = shapely.union_all(shapely.convex_hull(shapely.polygons(corners[faces][:, :, :2])), grid_size=SNAP)
        for piece in getattr(whole, "geoms", (whole,)):
            if piece.geom_type == "Polygon" and piece.area > LEAST:
                found.append(SeenFace(faces[0], _ring(piece.exterior)))
    return found


def _in_order(depth: dict[int, float], pairs: set[tuple[int, int]]) -> list[int]:
    """Groups so that the first of each pair comes before the second; where pairs run in a ring, by depth."""
    before: dict[int, set[int]] = {g: set() for g in sorted(depth, key=lambda g: depth[g])}
    for first, then in pairs:
        if (then, first) not in pairs or depth[first] <= depth[then]:
            before[then].add(first)
    try:
        return list(TopologicalSorter(before).static_order())
    except CycleError:
        return list(before)


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
