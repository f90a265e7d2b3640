"""Solids seen along a direction: the lines of their edges as far as nothing before them hides them, and their faces
for whoever colors them. One rule for elevations, plans, units and sections.

View coordinates: x to the right, y up, z towards who looks, mm.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from tall_plank.drawing.hidden import Faces, Pieces, empty_faces, faces_of, joined, seen_pieces
from tall_plank.drawing.primitives import Item, Layer, Line, Pen, Shape
from tall_plank.job import Source
from tall_plank.measure.frames import Vec, cross
from tall_plank.solids.solids import Solid, mesh_of

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


class Way(NamedTuple):
    """How solids are looked at, in their frame.

    Attributes
    ----------
    origin : what lies at 0, 0, 0 of the view, mm
    right, up : unit vectors
    near, far : limits of z, mm: what lies wholly beyond either is left out
    eye : mm from the origin towards who looks to the eye, in perspective; 0: looked at from infinitely far
    """

    origin: Vec
    right: Vec
    up: Vec
    near: float = np.inf
    far: float = -np.inf
    eye: float = 0.0

    @property
    def towards(self) -> Vec:
        """Towards who looks."""
        return cross(self.right, self.up)


class Looked(NamedTuple):
    """Solids in view coordinates: faces that look this way, and their edges.

    Attributes
    ----------
    corners : (M, 4, 3) floats, mm; a triangle repeats its last corner
    face_of : (M,) ints; number of the solid of each face
    starts, ends : (N, 3) floats, mm
    edge_of : (N,) ints; number of the solid of each edge
    """

    corners: Floats
    face_of: Ints
    starts: Floats
    ends: Floats
    edge_of: Ints


class Seen(NamedTuple):
    """Solids, and what is seen of their edges.

    Attributes
    ----------
    solids : those that were looked at
    lines : (K, 4) floats, mm; x1, y1, x2, y2
    line_of : (K,) ints; number of the solid of each line
    looked : faces and edges before anything was hidden
    """

    solids: tuple[Solid, ...]
    lines: Floats
    line_of: Ints
    looked: Looked


def look(solids: Sequence[Solid], way: Way) -> Looked:
    """Solids in view coordinates."""
    if not solids:
        none = np.zeros((0, 3))
        return Looked(np.zeros((0, 4, 3)), np.zeros(0, np.int64), none, none, np.zeros(0, np.int64))
    mesh = mesh_of("", list(solids))
    turn = np.array([way.right, way.up, way.towards]).T
    points = (mesh.points - np.array(way.origin)) @ turn
    if way.eye:
        points = in_perspective(points, way.eye)
    corners = points[mesh.quads]
    # A face looks this way where its corners run counter-clockwise.
    x, y = corners[:, :, 0], corners[:, :, 1]
    area = (x * np.roll(y, -1, axis=1) - np.roll(x, -1, axis=1) * y).sum(axis=1)
    front = area > 0.02
    quads = mesh.quads[front]
    # Edges of such a face; what only faces away touch is hidden by the solid itself.
    n = len(points)
    sides = np.stack([quads, np.roll(quads, -1, axis=1)], axis=2).reshape(-1, 2)
    known = np.unique(np.sort(sides, axis=1) @ np.array([n, 1]))
    keys = np.sort(mesh.lines, axis=1) @ np.array([n, 1])
    at = np.searchsorted(known, keys)
    there = known[np.minimum(at, len(known) - 1)] == keys if len(known) else np.zeros(len(keys), dtype=bool)
    lines = mesh.lines[there]
    return Looked(
        corners[front],
        mesh.quad_owner[front],
        points[lines[:, 0]],
        points[lines[:, 1]],
        mesh.line_owner[there],
    )


def in_perspective(points: Floats, eye: float) -> Floats:
    """Points as an eye sees them that stands so far before the plane z = 0, where sizes are true. What is straight or
    plane stays so, and what lies before something else still does: lines are hidden as exactly as from infinitely far.

    Parameters
    ----------
    points : (N, 3) floats, mm; all of them before the eye
    """
    away = np.maximum(eye - points[:, 2], eye * 0.02)
    mapped = points * (eye / away)[:, None]
    mapped[:, 2] = eye * eye / away - eye
    return mapped


def order_of(solids: Sequence[Solid]) -> tuple[Solid, ...]:
    """Solids in the order in which their faces and edges are numbered."""
    from tall_plank.solids.solids import Box

    return (*(s for s in solids if isinstance(s, Box)), *(s for s in solids if not isinstance(s, Box)))


def see(solids: Sequence[Solid], way: Way) -> Seen:
    """What is seen of solids."""
    solids = order_of(solids)
    looked = within(look(solids, way), way)
    lines, line_of = _clipped(looked.starts, looked.ends, looked.edge_of, _faces(looked))
    return Seen(solids, lines, line_of, looked)


def _clipped(starts: Floats, ends: Floats, owner: Ints, faces: Faces) -> tuple[Floats, Ints]:
    """The seen pieces of edges, and whose they are."""
    pieces = seen_pieces(starts, ends, faces)
    return _lines(starts, ends, pieces), owner[pieces.line]


class Standpoint:
    """A way of looking that remembers what it saw of each thing: after a change only what the changed things cover, or
    covered, is looked at anew."""

    def __init__(self, way: Way) -> None:
        self.way = way
        self.things: dict[Source, _Thing] = {}

    def see(self, solids: Sequence[Solid]) -> Seen:
        """What is seen of solids; the same as `see` finds, thing by thing in their order."""
        groups: dict[Source, list[Solid]] = {}
        for solid in solids:
            groups.setdefault(solid.source, []).append(solid)
        kept = {s: self.things[s] for s, group in groups.items() if s in self.things and self.things[s].is_of(group)}
        fresh = {s: group for s, group in groups.items() if s not in kept}
        gone = [thing for s, thing in self.things.items() if s not in kept]
        made = {s: _Thing.of(group, self.way) for s, group in fresh.items()}
        self.things = {s: kept.get(s) or made[s] for s in groups}
        boxes = np.array([t.box for t in (*made.values(), *gone) if t.box is not None]).reshape(-1, 4)
        asked = {
            s: chosen
            for s, t in self.things.items()
            if len(chosen := np.arange(len(t.looked.starts)) if s in made else t.under(boxes))
        }
        if asked:
            self._clip(asked)
        return self._seen()

    def _clip(self, asked: dict[Source, Ints]) -> None:
        """Look at some edges of some things anew."""
        things = [self.things[s] for s in asked]
        starts = np.concatenate([t.looked.starts[at] for t, at in zip(things, asked.values(), strict=True)])
        ends = np.concatenate([t.looked.ends[at] for t, at in zip(things, asked.values(), strict=True)])
        low, high = np.minimum(starts, ends)[:, :2].min(axis=0), np.maximum(starts, ends)[:, :2].max(axis=0)
        over = np.concatenate([low, high]).reshape(1, 4)
        pieces = seen_pieces(starts, ends, joined([t.faces for t in self.things.values() if t.touches(over)]))
        lines = _lines(starts, ends, pieces)
        begin = np.concatenate([[0], np.cumsum([len(at) for at in asked.values()])])
        cuts = np.searchsorted(pieces.line, begin)
        for i, (source, at) in enumerate(asked.items()):
            part = slice(cuts[i], cuts[i + 1])
            self.things[source] = things[i].seen_anew(at, lines[part], at[pieces.line[part] - begin[i]])

    def _seen(self) -> Seen:
        things = list(self.things.values())
        at = np.concatenate([[0], np.cumsum([len(t.solids) for t in things])]).astype(np.int64)
        looked = Looked(
            np.concatenate([t.looked.corners for t in things]),
            np.concatenate([t.looked.face_of + at[i] for i, t in enumerate(things)]),
            np.concatenate([t.looked.starts for t in things]),
            np.concatenate([t.looked.ends for t in things]),
            np.concatenate([t.looked.edge_of + at[i] for i, t in enumerate(things)]),
        )
        lines = np.concatenate([t.lines for t in things])
        line_of = np.concatenate([t.looked.edge_of[t.edge] + at[i] for i, t in enumerate(things)])
        return Seen(tuple(s for t in things for s in t.solids), lines, line_of, looked)


class _Thing(NamedTuple):
    """A thing as it was seen last.

    Attributes
    ----------
    box : x0, y0, x1, y1 of its faces, mm
    lines : (K, 4) floats, mm; the seen pieces
    edge : (K,) ints; the edge that each is a piece of
    """

    group: tuple[Solid, ...]
    solids: tuple[Solid, ...]
    looked: Looked
    faces: Faces
    box: tuple[float, float, float, float] | None
    lines: Floats
    edge: Ints

    @staticmethod
    def of(group: Sequence[Solid], way: Way) -> _Thing:
        solids = order_of(group)
        looked = within(look(solids, way), way)
        box = None
        if len(looked.corners):
            low, high = looked.corners.min(axis=(0, 1)), looked.corners.max(axis=(0, 1))
            box = (float(low[0]), float(low[1]), float(high[0]), float(high[1]))
        return _Thing(tuple(group), solids, looked, _faces(looked), box, np.zeros((0, 4)), np.zeros(0, dtype=np.int64))

    def is_of(self, group: Sequence[Solid]) -> bool:
        return len(group) == len(self.group) and all(a is b or a == b for a, b in zip(group, self.group, strict=True))

    def touches(self, boxes: Floats) -> bool:
        """Whether what changed lies over it or under it."""
        if self.box is None or not len(boxes):
            return False
        x0, y0, x1, y1 = self.box
        return bool(
            ((boxes[:, 0] < x1 + 1) & (boxes[:, 2] > x0 - 1) & (boxes[:, 1] < y1 + 1) & (boxes[:, 3] > y0 - 1)).any()
        )

    def under(self, boxes: Floats) -> Ints:
        """Its edges that lie over or under what changed."""
        if not self.touches(boxes):
            return np.zeros(0, dtype=np.int64)
        low, high = np.minimum(self.looked.starts, self.looked.ends), np.maximum(self.looked.starts, self.looked.ends)
        found = np.zeros(len(low), dtype=bool)
        for x0, y0, x1, y1 in boxes.tolist():
            found |= (low[:, 0] < x1 + 1) & (high[:, 0] > x0 - 1) & (low[:, 1] < y1 + 1) & (high[:, 1] > y0 - 1)
        return np.flatnonzero(found)

    def seen_anew(self, at: Ints, lines: Floats, edge: Ints) -> _Thing:
        """With the pieces of some edges replaced."""
        keep = ~np.isin(self.edge, at)
        return self._replace(
            lines=np.concatenate([self.lines[keep], lines]), edge=np.concatenate([self.edge[keep], edge])
        )


def within(looked: Looked, way: Way) -> Looked:
    """Without the solids that lie wholly beyond the limits."""
    if not np.isfinite(way.near) and not np.isfinite(way.far):
        return looked
    low, high = looked.corners[:, :, 2].min(axis=1), looked.corners[:, :, 2].max(axis=1)
    faces = (high > way.far + 0.01) & (low < way.near - 0.01)
    kept = np.unique(looked.face_of[faces])
    edges = np.isin(looked.edge_of, kept)
    return Looked(
        looked.corners[faces], looked.face_of[faces], looked.starts[edges], looked.ends[edges], looked.edge_of[edges]
    )


def _faces(looked: Looked) -> Faces:
    if not len(looked.corners):
        return empty_faces()
    triangles = (looked.corners[:, 3] == looked.corners[:, 2]).all(axis=1)
    return joined([faces_of(looked.corners[~triangles]), faces_of(looked.corners[triangles, :3])])


def _lines(starts: Floats, ends: Floats, pieces: Pieces) -> Floats:
    a, b = starts[pieces.line], ends[pieces.line]
    low = a + (b - a) * pieces.start[:, None]
    high = a + (b - a) * pieces.end[:, None]
    return np.hstack([low[:, :2], high[:, :2]])


LAYERS = {"handle": Layer.HANDLE, "appliance": Layer.APPLIANCE, "leg": Layer.CARCASS}
"""Layers by what a solid's name ends with."""


def items_of(seen: Seen, pen: Pen = Pen.NARROW, layer: Layer = Layer.CARCASS) -> list[Item]:
    """Faces as fills from the rearmost on, then the seen lines."""
    looked = seen.looked
    items: list[Item] = []
    depth = looked.corners[:, :, 2].max(axis=1)
    for n in np.argsort(depth, kind="stable").tolist():
        solid = seen.solids[int(looked.face_of[n])]
        points = tuple((float(x), float(y)) for x, y, _ in looked.corners[n])
        items.append(Shape(points, Pen.NONE, layer, solid.source, solid.color))
    items += lines_of(seen, pen, layer)
    return items


def lines_of(seen: Seen, pen: Pen = Pen.NARROW, layer: Layer = Layer.CARCASS) -> list[Item]:
    """The seen lines."""
    return [
        Line(x1, y1, x2, y2, pen, layer, seen.solids[n].source)
        for (x1, y1, x2, y2), n in zip(seen.lines.tolist(), seen.line_of.tolist(), strict=True)
    ]


def sources_of(seen: Seen) -> frozenset[Source]:
    """What is seen at all."""
    return frozenset(seen.solids[int(n)].source for n in np.unique(seen.line_of))
