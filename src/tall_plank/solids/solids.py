"""Solids in a room, boxes and prisms, and the meshes made of them, one a color. Room frame, mm, z up."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from tall_plank.job import Source
from tall_plank.measure.frames import RoomFrame, RoomPoint, Vec
from tall_plank.measure.outlines import Points as Points2
from tall_plank.measure.outlines import area, triangles
from tall_plank.measure.remembered import remembered

Points = NDArray[np.float64]

# Corners of a unit box and its six faces, each seen from outside counter-clockwise.
CORNERS = np.array([(x, y, z) for z in (0, 1) for y in (0, 1) for x in (0, 1)], dtype=np.float64)
EDGES = np.array(
    [(0, 1), (2, 3), (4, 5), (6, 7), (0, 2), (1, 3), (4, 6), (5, 7), (0, 4), (1, 5), (2, 6), (3, 7)], dtype=np.int64
)
FACES = np.array([(0, 2, 3, 1), (4, 5, 7, 6), (0, 1, 5, 4), (2, 6, 7, 3), (0, 4, 6, 2), (1, 3, 7, 5)], dtype=np.int64)


@dataclass(frozen=True)
class Box:
    """A box in the room: frame, size along its axes (mm), color, and the id of what it belongs to."""

    frame: RoomFrame
    size: Vec
    color: str
    source: Source
    name: str = ""


@dataclass(frozen=True)
class Prism:
    """An outline in the x-y plane of its frame, as thick as `thickness` along z.

    `skew`: mm that the lower and the upper end move along z for each mm of x, where they are mitred.
    """

    frame: RoomFrame
    points: Points2
    thickness: float
    color: str
    source: Source
    name: str = ""
    skew: tuple[float, float] = (0.0, 0.0)


Solid = Box | Prism


@dataclass(frozen=True)
class Mesh:
    """Solids of one color.

    Attributes
    ----------
    points : (n, 3) array, mm
    quads : (m, 4) array of point indices, counter-clockwise seen from outside; a triangle repeats its last index
    lines : (k, 2) array of point indices: the edges
    point_owner, quad_owner, line_owner : index of the solid that each belongs to
    sources, names : of each solid
    """

    color: str
    points: Points
    quads: NDArray[np.int64]
    lines: NDArray[np.int64]
    point_owner: NDArray[np.int64]
    quad_owner: NDArray[np.int64]
    line_owner: NDArray[np.int64]
    sources: tuple[Source, ...]
    names: tuple[str, ...]

    def without(self, hidden: frozenset[Source]) -> Mesh:
        """This mesh without the faces and edges of hidden things; its points stay."""
        if not hidden.intersection(self.sources):
            return self
        keep = np.array([source not in hidden for source in self.sources], dtype=bool)
        quads, lines = keep[self.quad_owner], keep[self.line_owner]
        return replace(
            self,
            quads=self.quads[quads],
            lines=self.lines[lines],
            quad_owner=self.quad_owner[quads],
            line_owner=self.line_owner[lines],
        )


@dataclass(frozen=True)
class Scene:
    """Meshes by color, and the extent of the room's floor."""

    meshes: tuple[Mesh, ...]
    low: Vec
    high: Vec


def mesh_of(color: str, solids: list[Solid]) -> Mesh:
    """One mesh of many solids, boxes first."""
    boxes = [s for s in solids if isinstance(s, Box)]
    prisms = [s for s in solids if isinstance(s, Prism)]
    n = len(boxes)
    points: list[Points] = []
    quads: list[NDArray[np.int64]] = []
    lines: list[NDArray[np.int64]] = []
    owners: tuple[list[NDArray[np.int64]], ...] = ([], [], [])
    if boxes:
        axes = np.array([(b.frame.x, b.frame.y, b.frame.z) for b in boxes], dtype=np.float64)
        origins = np.array([b.frame.origin for b in boxes], dtype=np.float64)
        sizes = np.array([b.size for b in boxes], dtype=np.float64)
        corners = CORNERS[None, :, :] * sizes[:, None, :]
        points.append((np.einsum("bck,bkj->bcj", corners, axes) + origins[:, None, :]).reshape(-1, 3))
        step = 8 * np.arange(n)[:, None, None]
        quads.append((FACES[None] + step).reshape(-1, 4))
        lines.append((EDGES[None] + step).reshape(-1, 2))
        for found, count in zip(owners, (8, 6, 12), strict=True):
            found.append(np.repeat(np.arange(n), count))
    at = 8 * n
    shapes = [_prism(prism) for prism in prisms]
    if shapes:
        points.append(np.array([p for shape in shapes for p in shape[0]], dtype=np.float64))
        starts = [at + k for k in itertools.accumulate((len(shape[0]) for shape in shapes), initial=0)]
        for which, (found, width) in enumerate(((quads, 4), (lines, 2)), start=1):
            counts = [len(shape[which]) for shape in shapes]
            rows = np.array([row for shape in shapes for row in shape[which]], dtype=np.int64).reshape(-1, width)
            found.append(rows + np.repeat(np.array(starts[:-1]), counts)[:, None])
        order = np.arange(n, n + len(shapes))
        for which, owner in enumerate(owners):
            owner.append(np.repeat(order, [len(shape[which]) for shape in shapes]))
    solids_in_order: list[Solid] = [*boxes, *prisms]
    return Mesh(
        color,
        np.concatenate(points),
        np.concatenate(quads),
        np.concatenate(lines),
        np.concatenate(owners[0]),
        np.concatenate(owners[1]),
        np.concatenate(owners[2]),
        tuple(s.source for s in solids_in_order),
        tuple(s.name for s in solids_in_order),
    )


Corners = tuple[Vec, ...]
Rows = tuple[tuple[int, ...], ...]


@remembered(4096)
def _prism(p: Prism) -> tuple[Corners, Rows, Rows]:
    """Points, quads and edges of a prism. Few corners are worked out faster one by one than as arrays."""
    outline = p.points if area(p.points) > 0 else tuple(reversed(p.points))
    n = len(outline)
    low, high = p.skew
    z0, z1, z2 = (along * p.thickness for along in p.frame.z)
    if low or high:
        lower = [p.frame.at(x, y, x * low) for x, y in outline]
        upper = [p.frame.at(x, y, p.thickness + x * high) for x, y in outline]
    else:
        lower = [p.frame.at(x, y) for x, y in outline]
        upper = [RoomPoint((x + z0, y + z1, z + z2)) for x, y, z in lower]
    corners = triangles(outline)
    quads = [(c + n, d + n, e + n, e + n) for c, d, e in corners]
    quads += [(e, d, c, c) for c, d, e in corners]
    quads += [(i, (i + 1) % n, (i + 1) % n + n, i + n) for i in range(n)]
    edges = [(i, (i + 1) % n) for i in range(n)] + [(i + n, (i + 1) % n + n) for i in range(n)]
    # A curve's points are no corners of the thing.
    for i, (x, y) in enumerate(outline):
        (a, b), (c, d) = outline[i - 1], outline[(i + 1) % n]
        ux, uy, vx, vy = x - a, y - b, c - x, d - y
        if abs(ux * vy - uy * vx) > 0.3 * (math.hypot(ux, uy) * math.hypot(vx, vy) + 1e-12):
            edges.append((i, i + n))
    return (*lower, *upper), tuple(quads), tuple(edges)


def meshes_of(solids: Iterable[Solid]) -> tuple[Mesh, ...]:
    """Solids gathered by color."""
    by_color: dict[str, list[Solid]] = {}
    for solid in solids:
        by_color.setdefault(solid.color, []).append(solid)
    return tuple(mesh_of(color, group) for color, group in sorted(by_color.items()))
