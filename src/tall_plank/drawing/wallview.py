"""A wall as a view of the scene of solids: seen square to it, with hidden lines worked out.

What is left out: the wall itself, openings, soffits and slopes, which the elevation draws around it; what belongs to
other walls and begins further than `CLOSE` from this one, or before its units; what lies behind it. What belongs to
other walls and is seen beside it is drawn whole and in a plain tone, and ends where the wall does.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from tall_plank.drawing.beside import CLOSE, LEAST, is_leg_on
from tall_plank.drawing.colors import grain_of, is_light
from tall_plank.drawing.cropped import clipped, cropped
from tall_plank.drawing.cutview import depths
from tall_plank.drawing.fills import painted
from tall_plank.drawing.primitives import Item, Layer, Line, Pen, Shape
from tall_plank.drawing.seen import Looked, Way, look, order_of, see
from tall_plank.drawing.shows import FOR_CLIENT, Shows
from tall_plank.drawing.things.common import Scope
from tall_plank.drawing.things.wall_field import covered_fronts
from tall_plank.job import Job, Kind, Source
from tall_plank.making import MadeJob
from tall_plank.making.parts import Part
from tall_plank.measure.remembered import remembered
from tall_plank.setout import RoomLayout, Wall
from tall_plank.solids.room import solids_in
from tall_plank.solids.solids import Solid
from tall_plank.stock import Stock

Floats = NDArray[np.float64]

SHELL = (Kind.WALL, Kind.OPENING, Kind.ROOM, Kind.SOFFIT, Kind.ROOF_WINDOW)
"""What the elevation draws around the view."""

TOPS = ("worktop", "splashback")
"""Trims that go with the worktops."""

LEAF = "front", "front frame", "front panel", "front bar", "louver", "glass", "face frame"
"""Roles of parts that are seen as fronts."""


class WallView(NamedTuple):
    """What is seen, from the rearmost on.

    Attributes
    ----------
    fills : without lines
    before : fills of what stands before the units: it hides the marks on them too
    handles : fills of what lies over the marks on fronts
    lines : hidden ones left out
    """

    fills: tuple[Item, ...]
    before: tuple[Item, ...]
    handles: tuple[Item, ...]
    lines: tuple[Item, ...]


class _Standing(NamedTuple):
    """A solid of the view.

    Attributes
    ----------
    own : whether it belongs to the wall
    plain : whether it is drawn in a plain tone: the side of another wall's unit, or of a corner unit's other leg
    part : what it is made from, where it is one of a unit's parts
    """

    solid: Solid
    own: bool
    plain: bool
    part: Part | None


def way_to(wall: Wall) -> Way:
    """How a wall is looked at: x from its left end, y from the floor, z out of it."""
    return Way(wall.frame.at(0.0, 0.0, 0.0), wall.frame.x, (0.0, 0.0, 1.0))


@remembered(256)
def wall_view(job: Job, room: RoomLayout, wall: Wall, made: MadeJob, *, fronts: bool, worktops: bool) -> WallView:
    """What is seen of a room square to a wall or an island's face.

    Parameters
    ----------
    fronts, worktops : as in `Shows`
    """
    standing = list(standing_on(Scope(job, room, made), wall, Shows(fronts=fronts, worktops=worktops)))
    by_solid = {id(s.solid): s for s in standing}
    seen = see([s.solid for s in standing], way_to(wall))
    of = [by_solid[id(solid)] for solid in seen.solids]
    fills: list[Item] = []
    before: list[Item] = []
    handles: list[Item] = []
    first = _stands_before(of, seen.looked, room, wall, made)
    box = (0.0, -1e6, wall.length, 1e6)
    for piece in painted(seen.looked.corners, seen.looked.face_of):
        n = int(seen.looked.face_of[piece.face])
        it = of[n]
        shape = _fill(job.stock, it, piece.outline)
        layer = handles if shape.layer is Layer.HANDLE else before if first[n] else fills
        layer += [shape] if it.own else cropped([shape], box)
    edges = _outlines(room, wall, made)
    wide = _on_edges(seen.lines, edges)
    lines: list[Line] = []
    for (x1, y1, x2, y2), n, is_wide in zip(seen.lines.tolist(), seen.line_of.tolist(), wide.tolist(), strict=True):
        it = of[n]
        a, b = (x1, y1), (x2, y2)
        ends = (a, b) if it.own else clipped(a, b, box)
        if ends is not None:
            (x1, y1), (x2, y2) = ends
            pen = Pen.MEDIUM if is_wide and it.own else Pen.NARROW
            lines.append(Line(x1, y1, x2, y2, pen, _layer(it), it.solid.source, over=_lies_on_finish(it)))
    # Lines of one look together: they are painted as one.
    lines.sort(key=lambda i: (i.pen.value, i.layer.value))
    return WallView(tuple(fills), tuple(before), tuple(handles), tuple(lines))


def _stands_before(of: list[_Standing], looked: Looked, room: RoomLayout, wall: Wall, made: MadeJob) -> list[bool]:
    """Of each solid, whether it stands before the units of the wall where it is: sliding doors, what belongs to other
    walls and reaches further out."""
    low, high = np.full(len(of), np.inf), np.full((len(of), 3), -np.inf)
    np.minimum.at(low, looked.face_of, looked.corners[:, :, 0].min(axis=1))
    np.maximum.at(high, looked.face_of, looked.corners.max(axis=1))
    units = [
        (p.x, p.right, p.depth + unit.spec.made.reach)
        for p, unit in made.units
        if p.room == room.room.id and p.wall_id == wall.id
    ]

    def out_there(x0: float, x1: float) -> float:
        return max((deep for a, b, deep in units if a < x1 and b > x0), default=0.0)

    found: list[bool] = []
    for n, it in enumerate(of):
        if it.solid.source.kind is Kind.CELL and it.own:
            found.append(False)
        else:
            doors = it.solid.source.kind is Kind.SLIDING
            found.append(doors or float(high[n, 2]) > out_there(float(low[n]), float(high[n, 0])) + 0.5)
    return found


def standing_on(scope: Scope, wall: Wall, shows: Shows) -> Iterator[_Standing]:
    """The solids that an elevation is a view of."""
    job, room, made = scope.job, scope.room, scope.made
    solids = [
        s
        for s in order_of(
            solids_in(job, room, made, hidden=not shows.fronts, fronts="closed" if shows.fronts else "off")
        )
        if s.source.kind not in SHELL
    ]
    lines = {f.id for f in room.faces if f.island == wall.island} if wall.island else {wall.id}
    fronts = [face for face, _, _ in covered_fronts(room, wall)]
    frames = {room.wall(line).frame for line in lines} | {face.frame for face in fronts}
    names = {wall.id, *(face.id for face in fronts)}
    own_cells = {p.cell for p in room.placed if p.wall_id in lines or is_leg_on(scope, p, wall)}
    trims = {(t.source or Kind.RUN.of(t.run), f"{t.number} {t.part.name}"): t for t in made.trims if t.part is not None}
    sliding = {d.source for d in made.sliding if d.wall_id == wall.id and d.room == room.room.id}
    fitted = {
        (Kind.CELL.of(p.cell), f"{p.number} {f.kind}")
        for p, unit in made.units
        if p.room == room.room.id
        for f in unit.fitted
    }
    parts = {
        (Kind.CELL.of(p.cell), f"{p.number} {part.name}"): part
        for p, unit in made.units
        if p.room == room.room.id
        for part in unit.shown
    }
    corners = {p.cell for p, unit in made.units if unit.spec.corner in ("l", "diagonal")}
    extents = _extents(solids, wall)
    units = [(p.x, p.right, p.depth) for p in room.placed if p.wall_id == wall.id and p.is_solid]
    for solid in solids:
        key = (solid.source, solid.name)
        trim = trims.get(key)
        if key in fitted or (trim is not None and trim.kind in TOPS and not shows.worktops):
            continue
        if solid.source.kind is Kind.SLIDING and not shows.fronts:
            continue
        match solid.source.kind:
            case Kind.CELL:
                own = solid.source.id in own_cells
            case Kind.WALL_FIELD:
                # What covers the other walls is left out as they are themselves.
                own = trim.parent in frames if trim is not None else solid.name.rpartition(" ")[2] in names
                if not own:
                    continue
            case Kind.MOLDING:
                own = solid.name.rpartition(" ")[2] == wall.id
            case Kind.SLIDING:
                own = solid.source in sliding
            case Kind.COLUMN:
                own = any(c.id == solid.source.id and c.wall == wall.id for c in room.room.columns)
            case _:
                own = trim is not None and trim.parent in frames
        if own or (not wall.is_face and _is_beside(extents[_group(solid)], wall, units)):
            part = parts.get(key)
            plain = solid.source.kind is Kind.CELL and not own
            plain |= part is not None and part.role not in LEAF and solid.source.id in corners
            yield _Standing(solid, own, plain, part)


def _group(solid: Solid) -> tuple[Source, str]:
    """What stands or falls together: a unit, else each board."""
    return (solid.source, "" if solid.source.kind is Kind.CELL else solid.name)


def _extents(solids: Iterable[Solid], wall: Wall) -> dict[tuple[Source, str], tuple[float, float, float, float]]:
    """Of each group, from where to where it lies along the wall and out of it, mm: x0, x1, z0, z1."""
    order = tuple(solids)
    looked = look(order, way_to(wall))
    found: dict[tuple[Source, str], tuple[float, float, float, float]] = {}
    low, high = np.full((len(order), 3), np.inf), np.full((len(order), 3), -np.inf)
    np.minimum.at(low, looked.face_of, looked.corners.min(axis=1))
    np.maximum.at(high, looked.face_of, looked.corners.max(axis=1))
    rear = depths(order, way_to(wall))[0]
    for n, solid in enumerate(order):
        key = _group(solid)
        x0, x1, z0, z1 = found.get(key, (np.inf, -np.inf, np.inf, -np.inf))
        found[key] = (
            min(x0, float(low[n, 0])), max(x1, float(high[n, 0])), min(z0, float(rear[n])), max(z1, float(high[n, 2])),
        )  # fmt: skip
    return found


def _is_beside(extent: tuple[float, float, float, float], wall: Wall, units: list[tuple[float, float, float]]) -> bool:
    """Whether something of another wall shows on this one: near it, and not before its units, where whoever looks at
    them stands.

    Parameters
    ----------
    units : from where to where each of the wall's own stands, and how deep, mm
    """
    x0, x1, z0, z1 = extent
    depth = max((deep for a, b, deep in units if a < x1 - 1.0 and b > x0 + 1.0), default=CLOSE)
    if z0 > min(CLOSE, depth) or z1 < LEAST:
        return False
    return min(x1, wall.length) - max(x0, 0.0) >= LEAST


def _lies_on_finish(it: _Standing) -> bool:
    """Whether its edges lie on a finish that dark lines read on, not on a tone of the drawing."""
    return (
        is_light(it.solid.color)
        and not it.plain
        and it.solid.source.kind is not Kind.COLUMN
        and not it.solid.name.endswith(" appliance")
    )


def _fill(stock: Stock, it: _Standing, outline: tuple[tuple[float, float], ...]) -> Shape:
    solid, layer = it.solid, _layer(it)
    fill, grain = solid.color, ""
    if solid.name.endswith(" appliance"):
        fill = "basin" if solid.size[1] < 10.0 else "appliance"  # type: ignore[union-attr]
    elif layer is Layer.WALL:
        fill = "column"
    elif it.plain:
        fill = "unit"
    elif it.part is not None:
        board = stock.board_by_code(it.part.board)
        if board is not None:
            grain = grain_of(stock, board.finish, abs(solid.frame.x[2]) > 0.7)
    return Shape(outline, Pen.NONE, layer, solid.source, fill, grain)  # type: ignore[arg-type]


def _layer(it: _Standing) -> Layer:
    kind, name = it.solid.source.kind, it.solid.name
    if kind is Kind.COLUMN:
        return Layer.WALL
    if kind is Kind.SLIDING:
        return Layer.FRONT
    if kind is not Kind.CELL:
        return Layer.TRIM
    if name.endswith(" handle"):
        return Layer.HANDLE
    if name.endswith(" appliance"):
        return Layer.APPLIANCE
    if it.part is not None and it.part.role in LEAF:
        return Layer.FRONT
    return Layer.CARCASS


def _outlines(room: RoomLayout, wall: Wall, made: MadeJob) -> Floats:
    """(N, 4) floats, mm: rectangles of units and fronts on the wall, x0, y0, x1, y1; their sides are drawn wider."""
    found: list[tuple[float, float, float, float]] = []
    for p, unit in made.units:
        if p.room != room.room.id or p.wall_id != wall.id:
            continue
        found.append((p.x, p.bottom, p.right, p.top))
        for f in unit.fronts:
            if f.face is None:
                x, z = p.x + f.x, p.bottom + f.z
                found.append((x, z, x + f.width, z + f.height))
    return np.array(found, dtype=np.float64).reshape(-1, 4)


def _on_edges(lines: Floats, edges: Floats) -> NDArray[np.bool_]:
    """Which lines lie on a side of one of the rectangles.

    Parameters
    ----------
    lines, edges : (K, 4) and (N, 4) floats, mm
    """
    wide = np.zeros(len(lines), dtype=bool)
    if not len(lines) or not len(edges):
        return wide
    x0, y0, x1, y1 = (np.minimum(lines[:, 0], lines[:, 2]), np.minimum(lines[:, 1], lines[:, 3]),
                      np.maximum(lines[:, 0], lines[:, 2]), np.maximum(lines[:, 1], lines[:, 3]))  # fmt: skip
    near = 0.3
    for low, high, a, b, at, first, last in (
        (x0, x1, y0, y1, (0, 2), 1, 3), (y0, y1, x0, x1, (1, 3), 0, 2),
    ):  # fmt: skip
        level = high - low < near
        for side in at:
            on = np.abs(low[:, None] - edges[None, :, side]) < near
            on &= (a[:, None] > edges[None, :, first] - near) & (b[:, None] < edges[None, :, last] + near)
            wide |= level & on.any(axis=1)
    return wide


def view_items(scope: Scope, wall: Wall, shows: Shows = FOR_CLIENT) -> WallView:
    """The view of a wall for what is shown."""
    return wall_view(scope.job, scope.room, wall, scope.made, fronts=shows.fronts, worktops=shows.worktops)
