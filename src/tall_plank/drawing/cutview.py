"""A view with a cut: what a plane cuts is hatched, what lies before it is taken away, what lies behind is seen with its
hidden lines taken off."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from tall_plank.drawing.hidden import Faces, faces_of, joined, seen_pieces
from tall_plank.drawing.primitives import Hatch, Item, Layer, Line, Pen, Shape
from tall_plank.drawing.section import Cut, Plane, Ring, hatch_of, part_cut, solid_cut
from tall_plank.drawing.seen import Looked, Way, look, order_of, within
from tall_plank.drawing.strokes import convex_pieces
from tall_plank.job import Kind, Source
from tall_plank.making import Part
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import RoomFrame
from tall_plank.solids.solids import Solid, mesh_of
from tall_plank.stock import Stock

Floats = NDArray[np.float64]


class Board(NamedTuple):
    """A part where it stands, with what it belongs to."""

    frame: RoomFrame
    part: Part
    source: Source


HATCHES: dict[Kind, Hatch] = {Kind.WALL: "masonry", Kind.COLUMN: "masonry", Kind.SOFFIT: "masonry"}
"""Hatching of what is no part."""


def cut_view(boards: Sequence[Board], solids: Sequence[Solid], way: Way, stock: Stock) -> list[Item]:
    """Lines behind the plane z = 0 of a view, then what the plane cuts.

    Parameters
    ----------
    boards : parts, cut with their machining
    solids : what is seen behind: the parts too
    """
    plane = Plane(way.origin, way.right, way.up)
    cuts: list[tuple[Source, Cut]] = []
    for board in boards:
        rings = part_cut(board.part, plane.seen_from(board.frame))
        if rings:
            cuts.append((board.source, Cut(rings, hatch_of(stock.board_by_code(board.part.board)))))
    named = {(board.source, board.part.name) for board in boards}
    order = order_of(solids)
    low, high = depths(order, way)
    for n in np.flatnonzero((low < -1e-6) & (high > 1e-6)).tolist():
        solid = order[n]
        if (solid.source, solid.name.partition(" ")[2]) in named:
            continue  # drawn from its part
        rings = solid_cut(solid, plane)
        if rings:
            cuts.append((solid.source, Cut(rings, HATCHES.get(solid.source.kind, ""))))
    looked = look(order, way)
    behind = behind_plane(within(looked, way))
    sections = _covers([cut for _, cut in cuts])
    faces = joined([faces_of(behind.corners), sections])
    pieces = seen_pieces(behind.starts, behind.ends, faces)
    a, b = behind.starts[pieces.line], behind.ends[pieces.line]
    low, high = a + (b - a) * pieces.start[:, None], a + (b - a) * pieces.end[:, None]
    items: list[Item] = [
        Line(p[0], p[1], q[0], q[1], Pen.NARROW, Layer.CARCASS, order[n].source)
        for p, q, n in zip(low.tolist(), high.tolist(), behind.edge_of[pieces.line].tolist(), strict=True)
    ]
    for source, cut in cuts:
        items += cut_shapes(cut, source)
    return items


def cut_shapes(cut: Cut, source: Source | None) -> list[Item]:
    """What is cut of a thing, outlined and hatched."""
    outer = [r for r in cut.rings if ol.area(r) > 0] or list(cut.rings)
    holes = [r for r in cut.rings if r not in outer]
    items: list[Item] = []
    for ring in outer:
        inner = tuple(h for h in holes if ol.inside(ring, *h[0]))
        items.append(Shape(ring, Pen.MEDIUM, Layer.CUT, source, "floor", hatch=cut.hatch, holes=inner))
    return items


def depths(solids: Sequence[Solid], way: Way) -> tuple[Floats, Floats]:
    """Least and greatest z of solids in a view, mm; in the order of `order_of`."""
    if not solids:
        return np.zeros(0), np.zeros(0)
    mesh = mesh_of("", list(solids))
    z = (mesh.points - np.array(way.origin)) @ np.array(way.towards)
    low, high = np.full(len(solids), np.inf), np.full(len(solids), -np.inf)
    np.minimum.at(low, mesh.point_owner, z)
    np.maximum.at(high, mesh.point_owner, z)
    return low, high


def behind_plane(looked: Looked) -> Looked:
    """Only what lies behind the plane z = 0: faces and edges that cross it are cut there."""
    high = looked.starts[:, 2], looked.ends[:, 2]
    edges = np.minimum(*high) < -1e-6
    starts, ends = looked.starts[edges].copy(), looked.ends[edges].copy()
    for p, q in ((starts, ends), (ends, starts)):
        out = p[:, 2] > 0.0
        t = p[out, 2] / (p[out, 2] - q[out, 2])
        p[out] = p[out] + (q[out] - p[out]) * t[:, None]
    top, low = looked.corners[:, :, 2].max(axis=1), looked.corners[:, :, 2].min(axis=1)
    whole = (top <= 1e-6) & (low < -1e-6)
    across = np.flatnonzero((top > 1e-6) & (low < -1e-6))
    cut = [(n, c) for n in across.tolist() if (c := _below(looked.corners[n])) is not None]
    corners = np.concatenate([_five(looked.corners[whole]), np.array([c for _, c in cut]).reshape(-1, 5, 3)])
    owner = np.concatenate([looked.face_of[whole], looked.face_of[[n for n, _ in cut]]])
    return Looked(corners, owner, starts, ends, looked.edge_of[edges])


def _five(corners: Floats) -> Floats:
    """Faces of four corners, the last repeated."""
    return np.concatenate([corners, corners[:, 3:]], axis=1)


def _below(corners: Floats) -> Floats | None:
    """A face cut at z = 0, with five corners, the last repeated; None where nothing is left."""
    found: list[Floats] = []
    for i in range(4):
        a, b = corners[i], corners[(i + 1) % 4]
        if a[2] <= 0:
            found.append(a)
        if (a[2] > 0) != (b[2] > 0) and abs(a[2] - b[2]) > 1e-9:
            found.append(a + (b - a) * (a[2] / (a[2] - b[2])))
    kept = [p for i, p in enumerate(found) if i == 0 or np.abs(p - found[i - 1]).max() > 1e-6]
    if len(kept) < 3:
        return None
    return np.array([*kept[:5], *[kept[-1]] * (5 - len(kept[:5]))])


def _covers(cuts: Sequence[Cut]) -> Faces:
    """What is cut, as faces in the plane: nothing is seen through it."""
    lots: dict[int, list[list[tuple[float, float, float]]]] = {}
    for cut in cuts:
        for piece in _pieces(cut.rings):
            lots.setdefault(len(piece), []).append([(x, y, 0.0) for x, y in piece])
    return joined([faces_of(np.array(lot)) for lot in lots.values()])


def _pieces(rings: Sequence[Ring]) -> list[ol.Points]:
    """Convex pieces of the insides of rings."""
    outer = [r for r in rings if ol.area(r) > 0] or list(rings)
    return [piece for ring in outer for piece in convex_pieces(ring)]
