"""Words on a plan: the room's name, its use and its sizes, where there is most room for them."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from tall_plank.drawing.floor import face_depth
from tall_plank.drawing.primitives import Item, Layer, Text
from tall_plank.drawing.things.table import DRAWN
from tall_plank.drawing.unitplan import unit_outline
from tall_plank.job import Job, Kind, Level, Rectangle
from tall_plank.measure import format_length, format_measure
from tall_plank.measure import outlines as ol
from tall_plank.measure.outlines import Points
from tall_plank.measure.remembered import remembered
from tall_plank.setout import RoomLayout


def _free_middle(room: RoomLayout) -> tuple[float, float, float]:
    """The place on the floor with most room for two short lines of text, on a coarse grid, and its width, mm."""
    return _most_room(room.points, tuple(_taken(room)))


def _taken(room: RoomLayout) -> list[tuple[float, float, float, float]]:
    """Boxes on the floor where no text shall stand: units, worktops, and what placed things take."""
    shapes = [unit_outline(p) for p in room.placed if p.is_solid and p.level is not Level.HUNG]
    for top in room.worktops:
        frame = room.wall(top.wall_id).frame
        shapes.append(tuple(frame.floor(x, -out) for x, out in top.points))
    for drawn in DRAWN.values():
        shapes += drawn.taken(room) if drawn.taken is not None else []
    boxes = [ol.bounds(s) for s in shapes]
    return [(round(a), round(b), round(c), round(d)) for a, b, c, d in boxes]


@remembered(64)
def _most_room(points: Points, boxes: tuple[tuple[float, float, float, float], ...]) -> tuple[float, float, float]:
    """The place inside an outline, clear of boxes (x0, y0, x1, y1), with most room for a text that is wider than high,
    and the width free there; found on a grid of 19 by 19."""
    gx, gy, wide, high, inside = _grid(points)
    if boxes:
        a, b, c, d = (np.array(side)[:, None] for side in zip(*boxes, strict=True))
        across = np.maximum(0.0, np.maximum(a - gx, gx - c))
        up = np.maximum(0.0, np.maximum(b - gy, gy - d))
        wide = np.minimum(wide, np.where((b - 150.0 < gy) & (gy < d + 150.0), across, np.inf).min(axis=0))
        high = np.minimum(high, np.where((a - 1200.0 < gx) & (gx < c + 1200.0), up, np.inf).min(axis=0))
    best = int(np.argmax(np.where(inside, np.minimum(wide / 3.5, high), -1.0)))
    return (float(gx[best]), float(gy[best]), 2.0 * float(wide[best]))


@remembered(64)
def _grid(points: Points) -> tuple[NDArray[np.float64], ...]:
    """A grid over an outline: x, y, the width and the height free there, and whether each point lies inside."""
    x0, y0, x1, y1 = ol.bounds(points)
    steps = np.arange(1, 20) / 20
    gx, gy = (a.ravel() for a in np.meshgrid(x0 + (x1 - x0) * steps, y0 + (y1 - y0) * steps))
    outline = np.array(points)
    inside = np.array([ol.inside(points, float(x), float(y)) for x, y in zip(gx, gy, strict=True)])
    return gx, gy, _reach(outline, gx, gy, 0), _reach(outline, gx, gy, 1), inside


def _reach(
    outline: NDArray[np.float64], gx: NDArray[np.float64], gy: NDArray[np.float64], k: int
) -> NDArray[np.float64]:
    """Least distance along an axis (0 across, 1 up) from points to the sides of an outline (n, 2)."""
    p, q = (gx, gy) if k == 0 else (gy, gx)
    a, b = outline, np.roll(outline, -1, axis=0)
    a0, a1, b0, b1 = a[:, k, None], a[:, 1 - k, None], b[:, k, None], b[:, 1 - k, None]
    crossed = (a1 > q) != (b1 > q)
    t = (q - a1) / np.where(crossed, b1 - a1, 1.0)
    return np.where(crossed, np.abs(a0 + (b0 - a0) * t - p), np.inf).min(axis=0)  # type: ignore[no-any-return]


def plan_words(job: Job, room: RoomLayout) -> list[Item]:
    """The room's name, its use and its inside dimensions; the names of island faces."""
    w, d = room.size
    x, y, wide = _free_middle(room)
    source = Kind.ROOM.of(room.room.id)
    size = f"{format_length(w, job.display)} × {format_length(d, job.display)}"
    if not isinstance(room.room.outline, Rectangle):
        size += f" · {format_measure(abs(ol.area(room.points)) / 1e6, 'm²', job.display)}"
    use = room.room.use
    name = f"{room.room.name} · {use}" if use and use not in room.room.name.lower() else room.room.name
    items: list[Item] = [
        Text(x, y, name, 2.8, Layer.LABEL, source, bold=True, rise=1.2),
        Text(x, y, size, 2.2, Layer.LABEL, source, quiet=True, rise=-3.6, within=wide),
    ]
    for face in room.faces:
        if any(p.wall_id == face.id for p in room.placed) or face.id.endswith("1"):
            fx, fy = face.frame.floor(face.length / 2, -face_depth(room, face) - 230.0)
            name = f"{face.id[0]} {face.name.rsplit(', ', 1)[-1]}"
            items.append(Text(fx, fy, name, 2.0, Layer.LABEL, Kind.WALL.of(face.id), bold=True, rise=-1.0))
    return items
