"""Pictures of a room by lines and flat colors: in perspective from a corner, without the walls that stand between."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

import numpy as np
from numpy.typing import NDArray

from tall_plank.drawing.fills import seen_faces
from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, Shape
from tall_plank.drawing.seen import Way, look, order_of, see
from tall_plank.job import Job, Kind
from tall_plank.job.things.table import wall_of
from tall_plank.making import MadeJob
from tall_plank.measure.frames import Vec, cross
from tall_plank.measure.outlines import Point
from tall_plank.measure.remembered import remembered
from tall_plank.setout import RoomLayout, Wall
from tall_plank.setout.things.column import column_points
from tall_plank.solids.room import solids_in
from tall_plank.solids.solids import Solid

Floats = NDArray[np.float64]

CORNERS = (("south-east", 1.0, -1.0), ("south-west", -1.0, -1.0), ("north-east", 1.0, 1.0), ("north-west", -1.0, 1.0))
"""Where one may stand to look, and the way there from the middle of the room."""

RAISED = 24.0
"""Degrees that one looks down."""

FAR = 1.9
"""Distance of the eye from the middle of the room, in diagonals of its floor."""

LEVEL = 1000.0
"""mm; height of what is looked at."""

SHADES = (1.0, 0.90, 0.80)
"""How light faces are that look up, to the one side, to the other."""


def views_of(room: RoomLayout) -> list[str]:
    """From where a room is looked at so that every wall with something on it is seen: the best corner first, then the
    one across where that leaves something out."""
    busy = {p.wall_id: 0.0 for p in room.placed}
    for p in room.placed:
        busy[p.wall_id] += p.width * p.height
    walls = [wall for wall in room.walls if wall.id in busy]

    def seen(corner: tuple[str, float, float]) -> float:
        return sum(busy[wall.id] for wall in walls if not stands_between(wall, corner[1:]))

    best = max(CORNERS, key=seen)
    if all(not stands_between(wall, best[1:]) for wall in walls):
        return [best[0]]
    across = next(c for c in CORNERS if (c[1], c[2]) == (-best[1], -best[2]))
    return [best[0], across[0]]


def stands_between(wall: Wall, towards: tuple[float, float]) -> bool:
    """Whether a wall stands between the room and one who looks from a side; `towards`: the way from room to eye."""
    y = wall.frame.y
    return y[0] * towards[0] + y[1] * towards[1] > 1e-9


@remembered(16)
def room_view(job: Job, room: RoomLayout, made: MadeJob, corner: str) -> Drawing:
    """A room as it is seen from above one of its corners, in the colors of its finishes, with the walls between, and
    what is on them, taken away. Sizes are not to scale.

    Raises
    ------
    KeyError for a corner that there is not
    """
    towards = {name: (x, y) for name, x, y in CORNERS}[corner]
    gone = {wall.id for wall in room.walls if stands_between(wall, towards)}
    solids = list(_kept(job, room, made, gone))
    way = _way(room, towards)
    order = order_of(solids)
    looked = look(order, way)
    items: list[Item] = []
    shades = _shades(looked.corners)
    # Faces of a solid that are painted alike are painted as one.
    groups = looked.face_of * 3 + np.array([SHADES.index(s) for s in shades], dtype=np.int64)
    for piece in seen_faces(looked.corners, groups):
        solid = order[int(looked.face_of[piece.face])]
        fill = darker(solid.color, shades[piece.face])
        items.append(Shape(piece.outline, Pen.NONE, Layer.FRONT, solid.source, fill))
    seen = see(solids, way)
    items += [
        Line(x1, y1, x2, y2, Pen.NARROW, Layer.FRONT, seen.solids[n].source, over=True)
        for (x1, y1, x2, y2), n in zip(seen.lines.tolist(), seen.line_of.tolist(), strict=True)
    ]
    points = looked.corners.reshape(-1, 3)
    (x0, y0), (x1, y1) = points[:, :2].min(axis=0).tolist(), points[:, :2].max(axis=0).tolist()
    return Drawing(f"{room.room.name}, seen from the {corner}", tuple(items), x0, y0, x1, y1, pictorial=True)


def _kept(job: Job, room: RoomLayout, made: MadeJob, gone: set[str]) -> Iterable[Solid]:
    """What is seen: without the walls that stand between, what is on them, and what hangs from the ceiling."""
    cells = frozenset(p.cell for p in room.placed if p.wall_id in gone)
    runs = {run.run.id for run in room.runs if run.wall.id in gone}
    columns = [column_points(room.room, c) for c in room.room.columns if c.wall in gone]
    for solid in solids_in(job, room, made, hidden=False, without=cells):
        kind, name = solid.source.kind, solid.source.id
        if (kind is Kind.WALL and name in gone) or kind in (Kind.SOFFIT, Kind.ROOF_WINDOW):
            continue
        if (kind is Kind.RUN and name in runs) or (kind is Kind.CELL and name in cells):
            continue
        if kind is Kind.MOLDING and (solid.name.rpartition(" ")[2] in gone or _round(columns, solid)):
            continue
        if wall_of(room.room, solid.source) in gone and kind is not Kind.ISLAND:
            continue
        yield solid


def _round(columns: Iterable[Sequence[Point]], solid: Solid) -> bool:
    """Whether something begins at a column's side."""
    x, y, _ = solid.frame.origin
    for points in columns:
        xs, ys = [p[0] for p in points], [p[1] for p in points]
        if min(xs) - 1.0 <= x <= max(xs) + 1.0 and min(ys) - 1.0 <= y <= max(ys) + 1.0:
            return True
    return False


def _way(room: RoomLayout, towards: tuple[float, float]) -> Way:
    xs, ys = [p[0] for p in room.points], [p[1] for p in room.points]
    middle = ((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2, LEVEL)
    size = math.hypot(max(xs) - min(xs), max(ys) - min(ys))
    # A little off the diagonal, so that the two sides differ.
    turn = math.atan2(towards[1], towards[0]) + math.radians(9.0)
    rise = math.radians(RAISED)
    back: Vec = (math.cos(turn) * math.cos(rise), math.sin(turn) * math.cos(rise), math.sin(rise))
    right: Vec = (-math.sin(turn), math.cos(turn), 0.0)
    return Way(middle, right, cross(back, right), eye=FAR * size)


def _shades(corners: Floats) -> list[float]:
    """How light each face is, by the way that it looks in the view."""
    normal = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    normal += np.cross(corners[:, 2] - corners[:, 0], corners[:, 3] - corners[:, 0])
    size = np.linalg.norm(normal, axis=1)
    size[size < 1e-9] = 1.0
    up, side = normal[:, 1] / size, normal[:, 0] / size
    return [SHADES[0] if u > 0.6 else SHADES[1] if s < 0 else SHADES[2] for u, s in zip(up, side, strict=True)]


def darker(color: str, share: float) -> str:
    """A color as dark as a share of its light."""
    parts = (int(color[i : i + 2], 16) for i in (1, 3, 5))
    return "#" + "".join(f"{round(part * share):02X}" for part in parts)
