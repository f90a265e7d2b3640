"""Hidden lines, exactly: which pieces of straight lines are seen past convex faces that stand before them.

View coordinates: x to the right, y up, z towards who looks, mm. The hidden part of a line behind one face is one
interval: it ends where the line crosses a side of the face's outline, or the face's plane. Intervals are joined over
all faces.

What falls on an outline in front of it is hidden, so that it is drawn once; what lies in a face's own plane is not.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

NEAR = 0.001
"""mm; in depth, and from the outline of a face."""

LEAST = 0.002
"""mm; a shorter piece is not drawn."""


class Faces(NamedTuple):
    """Convex faces.

    Attributes
    ----------
    sides : (M, K, 3) floats; ``nx * x + ny * y + c <= 0`` within each side of the outline (unit normals, c in mm);
        rows that are not needed hold 0, 0, -1
    plane : (M, 3) floats; ``z = px * x + py * y + pz``
    box : (M, 4) floats, mm; x0, y0, x1, y1
    high : (M,) floats, mm; greatest z
    """

    sides: Floats
    plane: Floats
    box: Floats
    high: Floats


class Pieces(NamedTuple):
    """Seen pieces: the number of the line, and where on it each begins and ends, 0 to 1."""

    line: NDArray[np.int64]
    start: Floats
    end: Floats


def empty_faces() -> Faces:
    """No faces."""
    return Faces(np.zeros((0, 1, 3)), np.zeros((0, 3)), np.zeros((0, 4)), np.zeros(0))


def faces_of(corners: Floats, counts: NDArray[np.int64] | None = None, shrink: Floats | None = None) -> Faces:
    """Faces from their corners; those that are seen edge on are left out.

    Parameters
    ----------
    corners : (M, K, 3) floats, mm; in order either way round; rows beyond a face's count repeat its last corner
    counts : (M,) ints; None: all K
    shrink : (M,) floats, mm; by how much the outline is drawn in; None: not at all
    """
    if not len(corners):
        return empty_faces()
    m = len(corners)
    follow = np.roll(corners, -1, axis=1)
    if counts is not None:
        follow[np.arange(m), counts - 1] = corners[:, 0]
    x, y = corners[:, :, 0], corners[:, :, 1]
    dx, dy = follow[:, :, 0] - x, follow[:, :, 1] - y
    area = (x * (y + dy) - (x + dx) * y).sum(axis=1) / 2
    seen = np.abs(area) > 0.01
    way = np.sign(area)[:, None]
    size = np.hypot(dx, dy)
    real = size > 1e-9
    safe = np.where(real, size, 1.0)
    # Outwards: to the right of a side when the corners run counter-clockwise.
    nx, ny = way * dy / safe, -way * dx / safe
    inset = np.zeros(m) if shrink is None else shrink
    sides = np.stack(
        [np.where(real, nx, 0.0), np.where(real, ny, 0.0), np.where(real, -(nx * x + ny * y) + inset[:, None], -1.0)],
        axis=2,
    )
    low, high = corners[:, :, :2].min(axis=1), corners[:, :, :2].max(axis=1)
    found = Faces(sides, _planes(corners), np.hstack([low, high]), corners[:, :, 2].max(axis=1))
    return Faces(*(part[seen] for part in found))


def _planes(corners: Floats) -> Floats:
    """(M, 3): ``z = px * x + py * y + pz`` through the corners of faces (M, K, 3), by Newell's normal."""
    follow = np.roll(corners, -1, axis=1)
    a, b = corners, follow
    nx = ((a[:, :, 1] - b[:, :, 1]) * (a[:, :, 2] + b[:, :, 2])).sum(axis=1)
    ny = ((a[:, :, 2] - b[:, :, 2]) * (a[:, :, 0] + b[:, :, 0])).sum(axis=1)
    nz = ((a[:, :, 0] - b[:, :, 0]) * (a[:, :, 1] + b[:, :, 1])).sum(axis=1)
    nz = np.where(np.abs(nz) > 1e-9, nz, 1.0)
    middle = corners.mean(axis=1)
    px, py = -nx / nz, -ny / nz
    return np.stack([px, py, middle[:, 2] - px * middle[:, 0] - py * middle[:, 1]], axis=1)


def joined(parts: Sequence[Faces]) -> Faces:
    """Faces of several lots in one, their rows of sides filled up."""
    parts = [p for p in parts if len(p.high)]
    if not parts:
        return empty_faces()
    k = max(p.sides.shape[1] for p in parts)
    filled = []
    for p in parts:
        more = np.zeros((len(p.high), k - p.sides.shape[1], 3))
        more[:, :, 2] = -1.0
        filled.append(np.concatenate([p.sides, more], axis=1))
    rest = [np.concatenate([p[i] for p in parts]) for i in (1, 2, 3)]
    return Faces(np.concatenate(filled), *rest)


def seen_pieces(starts: Floats, ends: Floats, faces: Faces) -> Pieces:
    """The pieces of lines that no face before them hides.

    Parameters
    ----------
    starts, ends : (N, 3) floats, mm
    """
    n = len(starts)
    out = np.zeros(n, dtype=bool)
    if n > FEW and len(faces.high) > FEW:
        covers = _large(faces)
        out = _behind(np.minimum(starts, ends), np.maximum(starts, ends), covers)
        low = np.column_stack([faces.box[:, :2], faces.high])
        needed = ~_behind(low, np.column_stack([faces.box[:, 2:], faces.high]), covers)
        faces = Faces(*(part[needed] for part in faces))
    left = np.flatnonzero(~out)
    found = _pieces(starts[left], ends[left], faces)
    return Pieces(left[found.line], found.start, found.end)


FEW = 600
"""So few lines or faces are asked one by one at once."""

LARGE = 160
"""Rectangles that are tried as covers of whole lines and faces."""


def _large(faces: Faces) -> Floats:
    """(K, 5) floats: x0, y0, x1, y1, z of the largest faces that are upright rectangles square to the view."""
    upright = (np.abs(faces.sides[:, :, 0] * faces.sides[:, :, 1]) < 1e-9).all(axis=1)
    # Four sides that are there: an upright outline of three would be no rectangle.
    four = (np.abs(faces.sides[:, :, :2]).sum(axis=2) > 0.5).sum(axis=1) == 4
    flat = (np.abs(faces.plane[:, :2]) < 1e-9).all(axis=1)
    at = np.flatnonzero(upright & four & flat)
    box = faces.box[at]
    size = (box[:, 2] - box[:, 0]) * (box[:, 3] - box[:, 1])
    most = at[np.argsort(-size)[:LARGE]]
    return np.column_stack([faces.box[most], faces.plane[most, 2]])


def _behind(low: Floats, high: Floats, covers: Floats) -> NDArray[np.bool_]:
    """(N,) whether boxes from `low` to `high` (N, 3) lie wholly behind one of the covers."""
    found = np.zeros(len(low), dtype=bool)
    left = np.arange(len(low))
    # Row by row in memory; what is found once is not asked again.
    x_low, y_low, x_high, y_high, z_high = (np.ascontiguousarray(c) for c in (*low.T[:2], *high.T))
    for i, (x0, y0, x1, y1, z) in enumerate(covers.tolist()):
        hit = (x_low >= x0 - NEAR) & (x_high <= x1 + NEAR) & (y_low >= y0 - NEAR) & (y_high <= y1 + NEAR)
        hit &= z_high < z - NEAR
        found[left[hit]] = True
        if i % 8 == 7:
            keep = ~found[left]
            left, x_low, y_low, x_high, y_high, z_high = (
                part[keep] for part in (left, x_low, y_low, x_high, y_high, z_high)
            )
    return found


def _pieces(starts: Floats, ends: Floats, faces: Faces) -> Pieces:
    """The seen pieces of lines, each asked against every face that its box meets."""
    n = len(starts)
    line, face = _pairs(starts, ends, faces)
    p, q = starts[line], ends[line]
    way = q - p
    low, high = np.zeros(len(line)), np.ones(len(line))
    for i in range(faces.sides.shape[1] if len(line) else 0):
        side = faces.sides[face, i]
        at = side[:, 0] * p[:, 0] + side[:, 1] * p[:, 1] + side[:, 2] - NEAR
        low, high = _clipped(low, high, at, side[:, 0] * way[:, 0] + side[:, 1] * way[:, 1])
    if len(line):
        plane = faces.plane[face]
        # The face stands before the line by more than what counts as the same depth.
        at = p[:, 2] - (plane[:, 0] * p[:, 0] + plane[:, 1] * p[:, 1] + plane[:, 2]) + NEAR
        low, high = _clipped(low, high, at, way[:, 2] - plane[:, 0] * way[:, 0] - plane[:, 1] * way[:, 1])
    size = np.sqrt(((ends - starts) ** 2).sum(axis=1))
    # What lies on a slope is long in depth, not on paper; both count.
    shown = (high - low) * size[line] > LEAST
    return _left(n, size, line[shown], low[shown], high[shown])


def _clipped(low: Floats, high: Floats, at: Floats, rate: Floats) -> tuple[Floats, Floats]:
    """Intervals of t cut to where ``at + rate * t <= 0``."""
    flat = np.abs(rate) < 1e-12
    t = -at / np.where(flat, 1.0, rate)
    low = np.where(~flat & (rate < 0), np.maximum(low, t), low)
    high = np.where(~flat & (rate > 0), np.minimum(high, t), high)
    high = np.where(flat & (at > 0), low - 1.0, high)
    return low, high


def _pairs(starts: Floats, ends: Floats, faces: Faces) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """Lines and faces whose boxes meet, where the face reaches before the line."""
    none = np.zeros(0, dtype=np.int64)
    if not len(starts) or not len(faces.high):
        return none, none
    import shapely

    low, high = np.minimum(starts, ends), np.maximum(starts, ends)
    boxes = shapely.box(low[:, 0] - NEAR, low[:, 1] - NEAR, high[:, 0] + NEAR, high[:, 1] + NEAR)
    tree = shapely.STRtree(shapely.box(*faces.box.T))
    line, face = tree.query(boxes)
    ahead = faces.high[face] > low[line, 2] + NEAR
    return line[ahead], face[ahead]


def _left(n: int, size: Floats, line: NDArray[np.int64], low: Floats, high: Floats) -> Pieces:
    """What intervals leave of lines 0 to 1."""
    # Every line begins with an empty interval at 0 and ends with one at 1.
    every = np.arange(n)
    line = np.concatenate([line, every, every])
    low = np.concatenate([np.clip(low, 0.0, 1.0), np.zeros(n), np.ones(n)])
    high = np.concatenate([np.clip(high, 0.0, 1.0), np.zeros(n), np.ones(n)])
    order = np.lexsort((low, line))
    line, low, high = line[order], low[order], high[order]
    # Lines stand 2 apart on one long axis, so that one running maximum serves all of them.
    reached = np.maximum.accumulate(high + 2.0 * line) - 2.0 * line
    gap = np.zeros(len(line), dtype=bool)
    gap[1:] = (line[1:] == line[:-1]) & ((low[1:] - reached[:-1]) * size[line[1:]] > LEAST)
    at = np.flatnonzero(gap)
    return Pieces(line[at], reached[at - 1], low[at])
