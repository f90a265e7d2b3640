"""The plan of a room from above: x to the right, y up (north), as the room's own frame."""

from __future__ import annotations

import math

from tall_plank.drawing.primitives import Arc, Dim, Drawing, Item, Layer, Line, Pen, Shape, Text, rectangle
from tall_plank.job import Body, Job, Level, Opening
from tall_plank.making import MadeJob
from tall_plank.measure import format_length
from tall_plank.setout import Placed, RoomLayout, Wall


def plan(job: Job, room: RoomLayout, made: MadeJob, *, dims: bool = True) -> Drawing:
    """Walls, openings with their swing, base units under their worktop, hung units dashed, name and sizes."""
    w, d = room.room.outline.width.mm, room.room.outline.depth.mm
    t = room.room.wall_thickness.mm
    items: list[Item] = [
        Shape(rectangle(-t, -t, w + 2 * t, d + 2 * t), Pen.WIDE, Layer.WALL, "", "masonry"),
        Shape(rectangle(0.0, 0.0, w, d), Pen.WIDE, Layer.WALL, f"room:{room.room.id}", "floor"),
    ]
    for opening in room.room.openings:
        items += _opening(room.wall(opening.wall), opening, t)
    for p in room.placed:
        if p.level is Level.BASE and p.is_solid:
            items += _base_unit(job, room, p, made)
    for top in room.worktops:
        wall = room.wall(top.wall)
        source = f"run:{top.run}"
        corners = _on_wall(wall, top.x, -top.depth, top.length, top.depth)
        items.append(Shape(corners, Pen.MEDIUM, Layer.TRIM, source))
        for cut in top.cutouts:
            sink = _on_wall(wall, top.x + cut.x, -cut.back - cut.depth, cut.width, cut.depth)
            items.append(Shape(sink, Pen.NARROW, Layer.APPLIANCE, f"cell:{cut.cell}", "basin"))
    for p in room.placed:
        if p.level is Level.HUNG and p.is_solid:
            wall = room.wall(p.wall)
            outline = _on_wall(wall, p.x, -p.depth, p.width, p.depth)
            items.append(Shape(outline, Pen.DASHED, Layer.HUNG, f"cell:{p.cell}"))
    size = f"{format_length(w, job.display)} × {format_length(d, job.display)}"
    x, y = _free_middle(room)
    source = f"room:{room.room.id}"
    items.append(Text(x, y, room.room.name, 3.2, Layer.LABEL, source, bold=True, rise=1.2))
    items.append(Text(x, y, size, 2.2, Layer.LABEL, source, quiet=True, rise=-3.6))
    for wall in room.walls:
        fx, fy, _ = wall.frame.out((wall.length * 0.96, t / 2, 0.0))
        items.append(Text(fx, fy, wall.id, 2.2, Layer.LABEL, f"wall:{wall.id}", bold=True, rise=-1.1))
    if dims:
        items.append(Dim(0.0, w, d + t, 1, "x", format_length(w, job.display), source, "width"))
        items.append(Dim(0.0, d, -t, -1, "y", format_length(d, job.display), source, "depth"))
    return Drawing(f"Plan of {room.room.name}", tuple(items), -t, -t, w + t, d + t)


def _free_middle(room: RoomLayout) -> tuple[float, float]:
    """The middle of the floor that no base unit stands on."""
    w, d = room.room.outline.width.mm, room.room.outline.depth.mm
    deep = {wall.id: 0.0 for wall in room.walls}
    for top in room.worktops:
        deep[top.wall] = max(deep[top.wall], top.depth)
    return (deep["D"] + w - deep["B"]) / 2, (deep["C"] + d - deep["A"]) / 2


def _on_wall(wall: Wall, x: float, y: float, w: float, h: float) -> tuple[tuple[float, float], ...]:
    """A rectangle given in the wall's floor frame, in the room's plan."""
    return tuple(wall.frame.out((px, py, 0.0))[:2] for px, py in rectangle(x, y, w, h))


def _base_unit(job: Job, room: RoomLayout, p: Placed, made: MadeJob) -> list[Item]:
    wall, source = room.wall(p.wall), f"cell:{p.cell}"
    unit = made.of(p.cell)
    front = unit.spec.made.front_thickness if unit is not None else 0.0
    fill = "appliance" if p.body is Body.APPLIANCE else "unit"
    items: list[Item] = [
        Shape(_on_wall(wall, p.x, -p.depth, p.width, p.depth), Pen.NARROW, Layer.CARCASS, source, fill)
    ]
    if unit is not None and unit.fronts:
        finish = job.stock.finish(unit.spec.front)
        color = finish.color if finish else "#CCCCCC"
        face = _on_wall(wall, p.x, -p.depth - front, p.width, front)
        items.append(Shape(face, Pen.NARROW, Layer.FRONT, source, color))
    if p.body is not Body.FILLER:
        x, y, _ = wall.frame.out((p.x + p.width / 2, -p.depth * 0.72, 0.0))
        items.append(Text(x, y, p.number, 2.0, Layer.LABEL, source, quiet=True))
    return items


def _opening(wall: Wall, o: Opening, t: float) -> list[Item]:
    source = f"opening:{o.id}"
    x, w = o.x.mm, o.width.mm
    items: list[Item] = [Shape(_on_wall(wall, x, 0.0, w, t), Pen.MEDIUM, Layer.OPENING, source, "opening")]

    def line(x1: float, y1: float, x2: float, y2: float) -> Line:
        a, b = wall.frame.out((x1, y1, 0.0)), wall.frame.out((x2, y2, 0.0))
        return Line(a[0], a[1], b[0], b[1], Pen.NARROW, Layer.OPENING, source)

    if o.kind == "window":
        items += [line(x, t * 0.4, x + w, t * 0.4), line(x, t * 0.6, x + w, t * 0.6)]
        return items
    hinge = x if o.hand == "left" else x + w
    far = x + w if o.hand == "left" else x
    items.append(line(hinge, 0.0, hinge, -w))
    cx, cy, _ = wall.frame.out((hinge, 0.0, 0.0))
    # The leaf swings into the room from closed (towards `far`) to open (square to the wall).
    closed = wall.frame.turn((1.0 if far > hinge else -1.0, 0.0, 0.0))
    opened = wall.frame.turn((0.0, -1.0, 0.0))
    a, b = _degrees(closed), _degrees(opened)
    start, end = (a, b) if (b - a) % 360 <= 180 else (b, a)
    items.append(Arc(cx, cy, w, start, end, Pen.NARROW, Layer.OPENING, source))
    return items


def _degrees(v: tuple[float, float, float]) -> float:
    return math.degrees(math.atan2(v[1], v[0])) % 360
