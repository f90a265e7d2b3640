"""One unit by itself: together or taken apart, its boards whole or with all that is machined into them."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from tall_plank.job import Kind, Source
from tall_plank.making import MadeUnit, Part
from tall_plank.making.solids import mesh_of_part
from tall_plank.measure.frames import Frame, RoomPoint
from tall_plank.setout import Placed
from tall_plank.solids.parts import board_color, solid_of
from tall_plank.solids.solids import Mesh, Scene, Solid, mesh_of
from tall_plank.stock import Stock

ALONE = Frame(RoomPoint((0.0, 0.0, 0.0)))
"""Where a unit stands that is shown by itself."""

SHARP = math.cos(math.radians(40.0))
"""Faces that meet at less than this are one curve: no edge is drawn between them."""


def unit_scene(unit: MadeUnit, stock: Stock, *, apart: float = 0.0, machined: bool = False) -> Scene:
    """The parts of a unit, each a source `part:N` with N its place in the unit from 1 on.

    Parameters
    ----------
    apart : how far parts move away from the middle, as a share of their distance from it; 0 stands together
    machined : whether holes, grooves and rebates are cut
    """
    spec = unit.spec
    middle = np.array([spec.width / 2, -spec.depth / 2, spec.height / 2])
    by_color: dict[str, list[Mesh]] = {}
    low, high = np.full(3, np.inf), np.full(3, -np.inf)
    for i, part in enumerate(unit.shown, 1):
        color = board_color(stock, part.board)
        mesh = _machined(part, color, i) if machined and not part.bend else _plain(part, color, i)
        center = (mesh.points.min(axis=0) + mesh.points.max(axis=0)) / 2
        points = mesh.points + (center - middle) * apart
        low, high = np.minimum(low, points.min(axis=0)), np.maximum(high, points.max(axis=0))
        by_color.setdefault(color, []).append(_moved(mesh, points))
    if not by_color:
        return Scene((), (0.0, 0.0, 0.0), (spec.width, spec.depth, spec.height))
    meshes = tuple(_joined(color, group, low) for color, group in sorted(by_color.items()))
    size = high - low
    return Scene(meshes, (0.0, 0.0, 0.0), (float(size[0]), float(size[1]), float(size[2])))


def machined_in_room(unit: MadeUnit, placed: Placed, stock: Stock) -> tuple[Mesh, ...]:
    """The parts of a placed unit with their machining, in the room's frame; without its fronts, so that the inside is
    seen. All belong to the unit's cell."""
    from dataclasses import replace

    f = placed.frame
    turn, at = np.array([f.x, f.y, f.z]), np.array(f.origin)
    by_color: dict[str, list[Mesh]] = {}
    for i, part in enumerate(unit.shown, 1):
        if part.bend or any(front.owns(part.name) for front in unit.fronts):
            continue
        # A color of its own, so that it is drawn apart from what looks alike.
        color = board_color(stock, part.board) + "!"
        mesh = _machined(part, color, i)
        mesh = replace(mesh, points=mesh.points @ turn + at, sources=(Kind.CELL.of(placed.cell),))
        by_color.setdefault(color, []).append(mesh)
    zero = np.zeros(3)
    return tuple(_joined(color, group, zero) for color, group in sorted(by_color.items()))


def unit_start(unit: MadeUnit) -> tuple[float, float, float]:
    """The least corner of a unit's parts in its own frame, mm: what its scene is moved by when it is in one piece."""
    corners = np.array(
        [
            part.frame.at(u, v, w)
            for part in unit.shown
            for u in (0.0, part.length)
            for v in (0.0, part.width)
            for w in (0.0, part.thickness)
        ]
    )
    x, y, z = corners.min(axis=0)
    return float(x), float(y), float(z)


def _plain(part: Part, color: str, number: int) -> Mesh:
    solids: list[Solid] = solid_of(ALONE.then(part.frame), part, color, Kind.PART.of(str(number)), part.name)
    return mesh_of(color, solids)


def _machined(part: Part, color: str, number: int) -> Mesh:
    """The machined solid as a mesh in the unit's frame, its sharp edges as lines."""
    local, faces = mesh_of_part(part)
    f = part.frame
    points = local @ np.array([f.x, f.y, f.z]) + np.array(f.origin)
    quads = np.column_stack([faces, faces[:, 2]])
    lines = sharp_edges(points, faces)
    return Mesh(
        color,
        points,
        quads,
        lines,
        np.zeros(len(points), dtype=np.int64),
        np.zeros(len(quads), dtype=np.int64),
        np.zeros(len(lines), dtype=np.int64),
        (Kind.PART.of(str(number)),),
        (part.name,),
    )


def sharp_edges(points: NDArray[np.float64], faces: NDArray[np.int64]) -> NDArray[np.int64]:
    """(k, 2) array of the edges of a closed triangle mesh where its faces meet at an angle."""
    a, b, c = (points[faces[:, k]] for k in range(3))
    normals = np.cross(b - a, c - a)
    normals /= np.linalg.norm(normals, axis=1, keepdims=True) + 1e-12
    edges = np.concatenate([faces[:, [0, 1]], faces[:, [1, 2]], faces[:, [2, 0]]])
    owner = np.tile(np.arange(len(faces)), 3)
    key = np.sort(edges, axis=1)
    order = np.lexsort((key[:, 1], key[:, 0]))
    key, owner = key[order], owner[order]
    same = np.all(key[1:] == key[:-1], axis=1)
    first = np.nonzero(same)[0]
    bent = np.einsum("ij,ij->i", normals[owner[first]], normals[owner[first + 1]]) < SHARP
    found: NDArray[np.int64] = key[first[bent]]
    return found


def _moved(mesh: Mesh, points: NDArray[np.float64]) -> Mesh:
    from dataclasses import replace

    return replace(mesh, points=points)


def _joined(color: str, group: list[Mesh], low: NDArray[np.float64]) -> Mesh:
    """Meshes of one color in one, moved so that the unit starts at the origin."""
    at, count = 0, 0
    points, quads, lines = [], [], []
    owners: tuple[list[NDArray[np.int64]], ...] = ([], [], [])
    sources: list[Source] = []
    names: list[str] = []
    for mesh in group:
        points.append(mesh.points - low)
        quads.append(mesh.quads + at)
        lines.append(mesh.lines + at)
        for found, own in zip(owners, (mesh.point_owner, mesh.quad_owner, mesh.line_owner), strict=True):
            found.append(own + count)
        sources += mesh.sources
        names += mesh.names
        at += len(mesh.points)
        count += len(mesh.sources)
    return Mesh(
        color,
        np.concatenate(points),
        np.concatenate(quads),
        np.concatenate(lines),
        np.concatenate(owners[0]),
        np.concatenate(owners[1]),
        np.concatenate(owners[2]),
        tuple(sources),
        tuple(names),
    )
