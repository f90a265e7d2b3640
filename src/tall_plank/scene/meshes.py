"""Parts as boxes, one mesh a material. Room frame, mm, z up. Holes are cut only where they are looked at."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from tall_plank.job import Job, Opening
from tall_plank.making import MadeJob, MadeUnit
from tall_plank.measure import Frame
from tall_plank.measure.frames import Vec
from tall_plank.setout import Layout, Placed, RoomLayout, Wall
from tall_plank.stock import Stock

Points = NDArray[np.float64]

# Corners of a unit box and its six faces, each seen from outside counter-clockwise.
CORNERS = np.array([(x, y, z) for z in (0, 1) for y in (0, 1) for x in (0, 1)], dtype=np.float64)
FACES = np.array([(0, 2, 3, 1), (4, 5, 7, 6), (0, 1, 5, 4), (2, 6, 7, 3), (0, 4, 6, 2), (1, 3, 7, 5)], dtype=np.int64)


@dataclass(frozen=True)
class Box:
    """A box in the room: frame, size along its axes (mm), color, and the id of what it belongs to."""

    frame: Frame
    size: Vec
    color: str
    source: str
    name: str = ""


@dataclass(frozen=True)
class Mesh:
    """Boxes of one color.

    Attributes
    ----------
    points : (8 n, 3) array, mm
    quads : (6 n, 4) array of point indices, counter-clockwise seen from outside
    sources : id of what each box belongs to; quad i belongs to box i // 6
    """

    color: str
    points: Points
    quads: NDArray[np.int64]
    sources: tuple[str, ...]
    names: tuple[str, ...]


@dataclass(frozen=True)
class Scene:
    """Meshes by color, and the extent of the room's floor."""

    meshes: tuple[Mesh, ...]
    low: Vec
    high: Vec


def mesh_of(color: str, boxes: list[Box]) -> Mesh:
    """One mesh of many boxes."""
    axes = np.array([(b.frame.x, b.frame.y, b.frame.z) for b in boxes], dtype=np.float64)
    origins = np.array([b.frame.origin for b in boxes], dtype=np.float64)
    sizes = np.array([b.size for b in boxes], dtype=np.float64)
    corners = CORNERS[None, :, :] * sizes[:, None, :]
    points = np.einsum("bck,bkj->bcj", corners, axes) + origins[:, None, :]
    quads = (FACES[None, :, :] + 8 * np.arange(len(boxes))[:, None, None]).reshape(-1, 4)
    return Mesh(color, points.reshape(-1, 3), quads, tuple(b.source for b in boxes), tuple(b.name for b in boxes))


def meshes_of(boxes: Iterable[Box]) -> tuple[Mesh, ...]:
    """Boxes gathered by color."""
    by_color: dict[str, list[Box]] = {}
    for box in boxes:
        by_color.setdefault(box.color, []).append(box)
    return tuple(mesh_of(color, group) for color, group in sorted(by_color.items()))


@lru_cache(maxsize=1024)
def part_boxes(stock: Stock, placed: Placed, unit: MadeUnit, hidden: bool) -> tuple[Box, ...]:
    """The parts of a unit as boxes; without hidden ones a closed unit shows its outside only."""
    boxes: list[Box] = []
    closed = bool(unit.fronts)
    for part in unit.parts:
        inside = part.role in ("shelf", "drawer", "drawer bottom")
        if not hidden and closed and inside:
            continue
        board = stock.board_by_code(part.board)
        finish = stock.finish(board.finish) if board else None
        color = finish.color if finish else "#CCCCCC"
        frame = placed.frame.then(part.frame)
        size = (part.length, part.width, part.thickness)
        boxes.append(Box(frame, size, color, f"cell:{placed.cell}", f"{placed.number} {part.name}"))
    for front in unit.fronts:
        if front.handle is not None and unit.parts:
            boxes += _handle(stock, placed, unit, front.handle)
    return tuple(boxes)


def _handle(stock: Stock, placed: Placed, unit: MadeUnit, ends: tuple[float, float, float, float]) -> list[Box]:
    handle = stock.fitting(unit.spec.made.handle)
    color = handle.finish if handle and handle.finish else "#2A2A2A"
    out = handle.projection if handle else 30.0
    x1, z1, x2, z2 = ends
    y = -unit.spec.depth - unit.spec.made.front_thickness
    thick = 12.0
    lying = abs(x2 - x1) >= abs(z2 - z1)
    bar = Frame((x1 if lying else x1 - thick / 2, y - out, z1 - thick / 2 if lying else z1))
    size = (max(x2 - x1, thick), thick, thick) if lying else (thick, thick, max(z2 - z1, thick))
    boxes = [Box(placed.frame.then(bar), size, color, f"cell:{placed.cell}", f"{placed.number} handle")]
    for t in (0.06, 0.94):
        x, z = x1 + (x2 - x1) * t, z1 + (z2 - z1) * t
        post = Frame((x - 4, y - out + thick, z - 4))
        boxes.append(Box(placed.frame.then(post), (8.0, out - thick, 8.0), color, f"cell:{placed.cell}", "post"))
    return boxes


def _trim_boxes(job: Job, room: RoomLayout, made: MadeJob) -> list[Box]:
    boxes = []
    for trim in made.trims:
        if trim.part is None or trim.room != room.room.id:
            continue
        part = trim.part
        board = job.stock.board_by_code(part.board)
        finish = job.stock.finish(board.finish) if board else None
        color = finish.color if finish else "#CCCCCC"
        size = (part.length, part.width, part.thickness)
        boxes.append(Box(trim.wall.then(part.frame), size, color, f"run:{trim.run}", f"{trim.number} {part.name}"))
    return boxes


WALL, FLOOR, GLASS, JOINERY = "#EFEBE2", "#D9C7A3", "#CFE0E8", "#E4DED2"


def _wall_boxes(wall: Wall, openings: list[Opening], wall_id: str) -> list[Box]:
    """A wall with its openings left open: pieces beside, below and above each."""
    boxes: list[Box] = []
    t, h, source = wall.thickness, wall.height, f"wall:{wall_id}"

    def add(x: float, z: float, w: float, high: float, color: str = WALL, y: float = 0.0, deep: float = t) -> None:
        if w > 0.01 and high > 0.01:
            boxes.append(Box(wall.frame.then(Frame((x, y, z))), (w, deep, high), color, source, "wall"))

    at = 0.0
    for o in sorted(openings, key=lambda o: o.x.mm):
        x, w, sill, top = o.x.mm, o.width.mm, o.sill.mm, o.sill.mm + o.height.mm
        add(at, 0.0, x - at, h)
        add(x, 0.0, w, sill)
        add(x, top, w, h - top)
        pane = GLASS if o.kind == "window" else JOINERY
        place = wall.frame.then(Frame((x, t * 0.45, sill)))
        boxes.append(Box(place, (w, t * 0.1, o.height.mm), pane, f"opening:{o.id}", o.kind))
        at = x + w
    add(at, 0.0, wall.length - at, h)
    return boxes


def room_boxes(room: RoomLayout) -> list[Box]:
    """Floor and walls."""
    w, d = room.room.outline.width.mm, room.room.outline.depth.mm
    boxes = [Box(Frame((0.0, 0.0, -20.0)), (w, d, 20.0), FLOOR, f"room:{room.room.id}", "floor")]
    for wall in room.walls:
        boxes += _wall_boxes(wall, [o for o in room.room.openings if o.wall == wall.id], wall.id)
    return boxes


def build_scene(job: Job, layout: Layout, made: MadeJob, room_id: str, *, hidden: bool = True) -> Scene:
    """Every part of a room with its floor and walls."""
    room = layout.room(room_id)
    boxes = room_boxes(room)
    for placed, unit in made.units:
        if placed.room == room_id:
            boxes += part_boxes(job.stock, placed, unit, hidden)
            if not unit.parts and placed.is_solid:
                frame = placed.frame.then(Frame((0.0, -placed.depth, 0.0)))
                size = (placed.width, placed.depth, placed.height)
                boxes.append(Box(frame, size, "#C9C3B6", f"cell:{placed.cell}", f"{placed.number} not made"))
    boxes += _trim_boxes(job, room, made)
    w, d = room.room.outline.width.mm, room.room.outline.depth.mm
    return Scene(meshes_of(boxes), (0.0, 0.0, 0.0), (w, d, room.room.height.mm))


def visible_scene(job: Job, layout: Layout, made: MadeJob, room_id: str) -> Scene:
    """What can be seen with the fronts closed: the light scene of the model view."""
    return build_scene(job, layout, made, room_id, hidden=False)
