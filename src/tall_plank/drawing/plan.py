"""The plan of a room from above: x to the right, y up (north), as the room's own frame."""

from __future__ import annotations

import math
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from tall_plank.drawing.primitives import Arc, Dim, Drawing, Item, Layer, Line, Pen, Shape, Text
from tall_plank.drawing.shopmarks import shop_marks
from tall_plank.drawing.sliding import leaves_from_above
from tall_plank.job import Body, Job, Level, Opening, Rectangle, Room, Service
from tall_plank.making import MadeJob, MadeUnit
from tall_plank.making.appliances import clear_front
from tall_plank.making.labels import label_of
from tall_plank.measure import Frame, format_length
from tall_plank.measure import outlines as ol
from tall_plank.measure.outlines import Points
from tall_plank.setout import Placed, RoomLayout, TrimBoard, Wall, Worktop
from tall_plank.setout.clear import floor_before
from tall_plank.setout.moldings import MoldingPiece
from tall_plank.setout.rooms import column_points, roof_window_corners, soffit_points
from tall_plank.stock import Stock

SERVICE_LETTERS = {"water": "W", "waste": "D", "power": "P", "gas": "G", "vent": "V"}
"""Letter in the mark of a service point (waste: drain)."""


def plan(job: Job, room: RoomLayout, made: MadeJob, *, dims: bool = True, shop: bool = False) -> Drawing:
    """Walls, openings with their swing, columns, soffits, base units under their worktops, hung units dashed,
    islands, service points, name, use and sizes; for the shop, edging and joints."""
    items: list[Item] = list(_shell(room.room, room.walls, room.points))
    by_cell = {p.cell: m for r in made.rooms for p, m in r.units if p.room == room.room.id}
    hidden = {c.id for run in room.room.runs for c in run.cells if c.hidden}
    for p in room.placed:
        if p.level is not Level.HUNG and p.is_solid and p.cell not in hidden:
            unit = by_cell.get(p.cell)
            items += _floor_unit(job.stock, p, unit, label_of(job, room.room, p))
            if shop and unit is not None and unit.spec.corner not in ("l", "diagonal"):
                items += [_moved(item, p.frame, f"cell:{p.cell}") for item in shop_marks(unit, "top")]
            deep = clear_front(unit, job.stock) if unit is not None else 0.0
            if deep > 0:
                items.append(Shape(floor_before(p, deep), Pen.DASHED, Layer.APPLIANCE))
    items += _empty_islands(job, room)
    for board in room.boards:
        if board.kind in PLAN_BOARDS:
            items += _board(board, room.wall(board.wall))
    for top in room.worktops:
        items += _worktop(room.wall(top.wall), top)
    for doors in made.sliding:
        if doors.room == room.room.id:
            frame = room.wall(doors.wall).frame
            for leaf in leaves_from_above(doors):
                points = tuple(frame.out((x, y, 0.0))[:2] for x, y in leaf)
                items.append(Shape(points, Pen.NARROW, Layer.FRONT, doors.source, "unit"))
    for p in room.placed:
        if p.level is Level.HUNG and p.is_solid and p.cell not in hidden:
            items.append(Shape(_outline(p), Pen.DASHED, Layer.HUNG, f"cell:{p.cell}"))
    items += _overhead(room.room, room.moldings)
    for service in room.room.services:
        items += _service(room, service)
    items += _words(job, room)
    if dims:
        items += _dims(job, room)
    t = max(w.thickness for w in room.walls)
    w, d = room.size
    return Drawing(f"Plan of {room.room.name}", tuple(items), -t, -t, w + t, d + t)


def _empty_islands(job: Job, room: RoomLayout) -> list[Item]:
    """An island that nothing stands on yet, dashed, as deep as base units are: so that it is seen and taken hold of."""
    taken = {p.wall for p in room.placed}
    items: list[Item] = []
    for face in room.faces[::2]:
        if not any(f.id in taken for f in room.faces if f.island == face.island):
            depth = job.value("base_depth")
            points = _on_wall(face, 0.0, -depth, face.length, depth)
            items.append(Shape(points, Pen.DASHED, Layer.CARCASS, f"island:{face.island}", ""))
    return items


PLAN_BOARDS = ("corner filler", "waterfall filler", "end panel", "back panel", "dividing panel", "waterfall leg")


@lru_cache(maxsize=64)
def _shell(room: Room, walls: tuple[Wall, ...], points: Points) -> tuple[Item, ...]:
    """Walls, floor, openings and columns: what does not change while units are moved."""
    # Sides of an outline run clockwise; outwards is to the left.
    outer = ol.offset(points, [w.thickness for w in walls])
    items: list[Item] = [
        Shape(outer, Pen.WIDE, Layer.WALL, "", "masonry"),
        Shape(points, Pen.WIDE, Layer.WALL, f"room:{room.id}", "floor"),
    ]
    by_id = {w.id: w for w in walls}
    for wall in walls:
        strip = _on_wall(wall, 0.0, 0.0, wall.length, wall.thickness)
        items.append(Shape(strip, Pen.NONE, Layer.WALL, f"wall:{wall.id}", ""))
    for opening in room.openings:
        if opening.wall in by_id:
            items += _opening(by_id[opening.wall], opening)
    for column in room.columns:
        items.append(Shape(column_points(room, column), Pen.WIDE, Layer.WALL, f"column:{column.id}", "masonry"))
    for wall in walls:
        at = max(wall.length / 2, min(wall.length * 0.96, wall.length - 260.0))
        fx, fy, _ = wall.frame.out((at, wall.thickness / 2, 0.0))
        items.append(Text(fx, fy, wall.id, 2.2, Layer.LABEL, f"wall:{wall.id}", bold=True, rise=-1.1))
    return tuple(items)


def _overhead(room: Room, moldings: tuple[MoldingPiece, ...]) -> list[Item]:
    """What lies above the plan's cut: soffits, slopes, cornices; and moldings below it as a thin line."""
    items: list[Item] = []
    for soffit in room.soffits:
        points = soffit_points(soffit)
        items.append(Shape(points, Pen.DASHED, Layer.HUNG, f"soffit:{soffit.id}"))
        x0, _, x1, y1 = ol.bounds(points)
        items.append(
            Text(
                (x0 + x1) / 2,
                y1,
                "soffit",
                1.8,
                Layer.LABEL,
                f"soffit:{soffit.id}",
                quiet=True,
                rise=-3.0,
                within=500.0,
            )
        )
    for window in room.roof_windows:
        points = tuple(c[:2] for c in roof_window_corners(room, window))
        source = f"roof window:{window.id}"
        items.append(Shape(points, Pen.DASHED, Layer.HUNG, source))
        (ax, ay), (bx, by), (cx, cy), (dx, dy) = points
        items += [Line(ax, ay, cx, cy, Pen.DASHED, Layer.HUNG), Line(bx, by, dx, dy, Pen.DASHED, Layer.HUNG)]
    for piece in moldings:
        if piece.kind != "cornice":
            items.append(Line(*piece.start, *piece.end, Pen.NARROW, Layer.TRIM, f"molding:{piece.molding}"))
    return items


def _free_middle(room: RoomLayout) -> tuple[float, float, float]:
    """The place on the floor with most room for two short lines of text, on a coarse grid, and its width, mm."""
    return _most_room(room.points, tuple(_taken(room)))


def _taken(room: RoomLayout) -> list[tuple[float, float, float, float]]:
    """Boxes on the floor where no text shall stand: units, worktops, columns, and where doors swing."""
    shapes = [_outline(p) for p in room.placed if p.is_solid and p.level is not Level.HUNG]
    shapes += [column_points(room.room, c) for c in room.room.columns]
    for top in room.worktops:
        frame = room.wall(top.wall).frame
        shapes.append(tuple(frame.out((x, -out, 0.0))[:2] for x, out in top.points))
    for o in room.room.openings:
        if o.kind == "door" and o.swing == "in":
            shapes.append(_on_wall(room.wall(o.wall), o.x.mm, -o.width.mm, o.width.mm, o.width.mm))
    shapes += [tuple(c[:2] for c in roof_window_corners(room.room, w)) for w in room.room.roof_windows]
    for face in room.faces:
        fx, fy, _ = face.frame.out((face.length / 2, -_face_depth(room, face) - 200.0, 0.0))
        shapes.append(((fx - 300.0, fy - 150.0), (fx + 300.0, fy + 150.0)))
        # Where the aisles are measured while it is selected.
        ax, ay, _ = face.frame.out((face.length / 2, -_face_depth(room, face) - 1200.0, 0.0))
        shapes.append(((ax - 60.0, ay - 900.0), (ax + 60.0, ay + 900.0)))
    boxes = [ol.bounds(s) for s in shapes]
    return [(round(a), round(b), round(c), round(d)) for a, b, c, d in boxes]


@lru_cache(maxsize=64)
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


@lru_cache(maxsize=64)
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


def _words(job: Job, room: RoomLayout) -> list[Item]:
    """The room's name, its use and its inside dimensions; the names of island faces."""
    w, d = room.size
    x, y, wide = _free_middle(room)
    source = f"room:{room.room.id}"
    size = f"{format_length(w, job.display)} × {format_length(d, job.display)}"
    if not isinstance(room.room.outline, Rectangle):
        size += f" · {abs(ol.area(room.points)) / 1e6:.1f} m²"
    use = room.room.use
    name = f"{room.room.name} · {use}" if use and use not in room.room.name.lower() else room.room.name
    items: list[Item] = [
        Text(x, y, name, 2.8, Layer.LABEL, source, bold=True, rise=1.2),
        Text(x, y, size, 2.2, Layer.LABEL, source, quiet=True, rise=-3.6, within=wide),
    ]
    for face in room.faces:
        if any(p.wall == face.id for p in room.placed) or face.id.endswith("1"):
            fx, fy, _ = face.frame.out((face.length / 2, -_face_depth(room, face) - 230.0, 0.0))
            name = f"{face.id[0]} {face.name.rsplit(', ', 1)[-1]}"
            items.append(Text(fx, fy, name, 2.0, Layer.LABEL, f"wall:{face.id}", bold=True, rise=-1.0))
    return items


def _face_depth(room: RoomLayout, face: Wall) -> float:
    return max((p.depth + 20.0 for p in room.placed if p.wall == face.id), default=0.0)


def _dims(job: Job, room: RoomLayout) -> list[Item]:
    """Overall width and depth; every wall of a room that is no rectangle."""
    w, d = room.size
    t = max(wall.thickness for wall in room.walls)
    source = f"room:{room.room.id}"

    def text(mm: float) -> str:
        return format_length(mm, job.display)

    if isinstance(room.room.outline, Rectangle):
        return [
            Dim(0.0, w, d + t, 1, "x", text(w), source, "width"),
            Dim(0.0, d, -t, -1, "y", text(d), source, "depth"),
        ]
    items: list[Item] = []
    whole = {"x": False, "y": False}
    for wall in room.walls:
        (x0, y0), (x1, y1) = wall.start, wall.end
        key = f"wall:{wall.id}"
        if abs(y0 - y1) < 0.5:
            up = wall.frame.y[1] > 0
            items.append(Dim(x0, x1, (d + t) if up else -t, 1 if up else -1, "x", text(wall.length), source, key))
            whole["x"] = whole["x"] or abs(wall.length - w) < 0.5
        elif abs(x0 - x1) < 0.5:
            right = wall.frame.y[0] > 0
            items.append(Dim(y0, y1, (w + t) if right else -t, 1 if right else -1, "y", text(wall.length), source, key))
            whole["y"] = whole["y"] or abs(wall.length - d) < 0.5
        else:
            mx, my, _ = wall.frame.out((wall.length / 2, wall.thickness + 60.0, 0.0))
            turn = math.degrees(math.atan2(wall.frame.x[1], wall.frame.x[0]))
            # Read from below or from the right; the text stands on the outer side of the wall.
            upside = turn > 90.0 or turn <= -90.0
            angle = turn - 180.0 if turn > 90.0 else turn + 180.0 if turn <= -90.0 else turn
            rise = -3.2 if upside else 0.8
            items.append(
                Text(mx, my, text(wall.length), 2.2, Layer.DIMENSION, f"wall:{wall.id}", angle=angle, rise=rise)
            )
    if not whole["x"]:
        items.append(Dim(0.0, w, d + t, 2, "x", text(w), source))
    if not whole["y"]:
        items.append(Dim(0.0, d, -t, -2, "y", text(d), source))
    return items


def _on_wall(wall: Wall, x: float, y: float, w: float, h: float) -> Points:
    """A rectangle given in the line's floor frame, in the room's plan."""
    return tuple(wall.frame.out((px, py, 0.0))[:2] for px, py in ((x, y), (x + w, y), (x + w, y + h), (x, y + h)))


@lru_cache(maxsize=1024)
def _outline(p: Placed) -> Points:
    """The plan of a unit's carcass, in the room: both legs of a corner unit, a slanted end."""
    return tuple(p.frame.out((x, y, 0.0))[:2] for x, y in p.plan)


@lru_cache(maxsize=1024)
def _floor_unit(stock: Stock, p: Placed, unit: MadeUnit | None, label: str) -> tuple[Item, ...]:
    items = _floor_items(stock, p.body, unit, p.plan, p.width, p.depth)
    return (*(_moved(item, p.frame, f"cell:{p.cell}") for item in items), *_label(p, label))


@lru_cache(maxsize=1024)
def _floor_items(
    stock: Stock, body: Body, unit: MadeUnit | None, points: Points, width: float, depth: float
) -> tuple[Item, ...]:
    """A unit from above in its own frame: carcass, fronts on their faces, doors' swing."""
    from tall_plank.making.shell import front_edge

    fill = "appliance" if body is Body.APPLIANCE else "unit"
    if unit is not None and unit.spec.shape != "straight":
        from tall_plank.making.builder import Builder

        b = Builder(unit.spec, stock)
        steps = 16
        edge = [(width * i / steps, front_edge(b, width * i / steps)) for i in range(steps + 1)]
        points = ((0.0, 0.0), *edge, (width, 0.0))
    items: list[Item] = [Shape(points, Pen.NARROW, Layer.CARCASS, "", fill)]
    if unit is None or not unit.fronts or body is Body.PANEL:
        return tuple(items)
    finish = stock.finish(unit.spec.front)
    color = finish.color if finish else "#CCCCCC"
    t = unit.spec.made.front_thickness
    seen = set()
    for f in unit.fronts:
        if f.kind == "machine":
            continue
        face = f.face
        x0, x1 = f.x, f.x + f.width
        key = (face, round(x0), round(x1))
        if key in seen or unit.spec.shape in ("bow", "hollow", "rounded"):
            continue
        seen.add(key)
        if face is None:
            y = -depth - unit.spec.made.front_out
            shape: Points = ((x0, y - t), (x1, y - t), (x1, y), (x0, y))
        else:
            shape = tuple(face.point(u, o, 0.0)[:2] for u, o in ((x0, t), (x1, t), (x1, 0.0), (x0, 0.0)))
        items.append(Shape(shape, Pen.NARROW, Layer.FRONT, "", color))
    return tuple(items)


def _label(p: Placed, label: str) -> list[Item]:
    if p.body in (Body.FILLER, Body.PANEL) or p.width < 120.0:
        return []
    x, y, _ = p.frame.out((p.width / 2, -p.depth * 0.72, 0.0))
    return [Text(x, y, label, 2.0, Layer.LABEL, f"cell:{p.cell}", quiet=True, within=max(p.width, 300.0))]


def _moved(item: Item, frame: Frame, source: str) -> Item:
    """An item of a unit's own plan, in the room's."""
    match item:
        case Shape():
            points = tuple(frame.out((x, y, 0.0))[:2] for x, y in item.points)
            return Shape(points, item.pen, item.layer, source, item.fill, item.grain)
        case Line():
            a, b = frame.out((item.x1, item.y1, 0.0)), frame.out((item.x2, item.y2, 0.0))
            return Line(a[0], a[1], b[0], b[1], item.pen, item.layer, source)
        case _:
            return item


def _board(board: TrimBoard, wall: Wall) -> list[Item]:
    low, high = board.box()
    points = _on_wall(wall, low[0], low[1], high[0] - low[0], high[1] - low[1])
    return [Shape(points, Pen.NARROW, Layer.TRIM, board.source, "unit")]


def _worktop(wall: Wall, top: Worktop) -> list[Item]:
    points = tuple(wall.frame.out((x, -out, 0.0))[:2] for x, out in top.points)
    items: list[Item] = [Shape(points, Pen.MEDIUM, Layer.TRIM, top.source)]
    for cut in top.cutouts:
        # From the rear edge towards the front.
        y = -(top.rear + cut.back + cut.depth)
        hole = _on_wall(wall, top.x + cut.x, y, cut.width, cut.depth)
        source = f"cell:{cut.cell}" if cut.cell else top.source
        items.append(Shape(hole, Pen.NARROW, Layer.APPLIANCE, source, "basin"))
    return items


def _service(room: RoomLayout, service: Service) -> list[Item]:
    """A service point: a ring with its letter."""
    if service.wall:
        x, y, _ = room.wall(service.wall).frame.out((service.x.mm, -60.0, 0.0))
    else:
        x, y = service.x.mm, service.y.mm
    source = f"service:{service.id}"
    ring = tuple((x + 55 * math.cos(a * math.pi / 6), y + 55 * math.sin(a * math.pi / 6)) for a in range(12))
    letter = SERVICE_LETTERS[service.kind]
    return [
        Shape(ring, Pen.NARROW, Layer.APPLIANCE, source, "floor"),
        Text(x, y, letter, 1.8, Layer.LABEL, source, rise=-0.9, within=110.0),
    ]


def _opening(wall: Wall, o: Opening) -> list[Item]:
    source = f"opening:{o.id}"
    x, w, t = o.x.mm, o.width.mm, wall.thickness
    deep = min(o.depth.mm, t) if o.kind == "niche" else t
    items: list[Item] = [Shape(_on_wall(wall, x, 0.0, w, deep), Pen.MEDIUM, Layer.OPENING, source, "opening")]

    def line(x1: float, y1: float, x2: float, y2: float, pen: Pen = Pen.NARROW) -> Line:
        a, b = wall.frame.out((x1, y1, 0.0)), wall.frame.out((x2, y2, 0.0))
        return Line(a[0], a[1], b[0], b[1], pen, Layer.OPENING, source)

    if o.kind == "window":
        at = o.reveal.mm or t * 0.4
        items += [line(x, at, x + w, at), line(x, min(t, at + t * 0.2), x + w, min(t, at + t * 0.2))]
    elif o.kind == "arch":
        items += [line(x, 0.0, x + w, 0.0, Pen.DASHED), line(x, t, x + w, t, Pen.DASHED)]
    elif o.kind == "door":
        items += _swing(wall, o, line)
    return items


def _swing(wall: Wall, o: Opening, line) -> list[Item]:  # type: ignore[no-untyped-def]
    """A door's leaf standing open, and the arc of its edge."""
    x, w = o.x.mm, o.width.mm
    hinge, far = (x, x + w) if o.hand == "left" else (x + w, x)
    way = -1.0 if o.swing == "in" else 1.0
    face = 0.0 if o.swing == "in" else wall.thickness
    cx, cy, _ = wall.frame.out((hinge, face, 0.0))
    closed = wall.frame.turn((1.0 if far > hinge else -1.0, 0.0, 0.0))
    opened = wall.frame.turn((0.0, way, 0.0))
    a, b = _degrees(closed), _degrees(opened)
    start, end = (a, b) if (b - a) % 360 <= 180 else (b, a)
    return [
        line(hinge, face, hinge, face + way * w),
        Arc(cx, cy, w, start, end, Pen.NARROW, Layer.OPENING, f"opening:{o.id}"),
    ]


def _degrees(v: tuple[float, float, float]) -> float:
    return math.degrees(math.atan2(v[1], v[0])) % 360
