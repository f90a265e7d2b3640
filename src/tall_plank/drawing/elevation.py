"""Elevations: a wall seen from inside the room, x from its left end, y up from the floor."""

from __future__ import annotations

from functools import lru_cache
from itertools import pairwise

from tall_plank.drawing.primitives import Dim, Drawing, Item, Layer, Line, Pen, Shape, Text, rectangle
from tall_plank.job import Body, Job, Level
from tall_plank.making import MadeJob, MadeUnit
from tall_plank.measure import format_length
from tall_plank.setout import Placed, RoomLayout, Wall
from tall_plank.stock import Stock


def elevation(
    job: Job, room: RoomLayout, wall: Wall, made: MadeJob, *, dims: bool = True, labels: bool = True
) -> Drawing:
    """The elevation of one wall with its units, trims, openings and automatic dimensions."""
    items: list[Item] = [
        Shape(rectangle(0.0, 0.0, wall.length, wall.height), Pen.MEDIUM, Layer.WALL, f"wall:{wall.id}", "wall")
    ]
    for opening in room.room.openings:
        if opening.wall == wall.id:
            items += _opening(
                opening.kind,
                opening.x.mm,
                opening.sill.mm,
                opening.width.mm,
                opening.height.mm,
                opening.hand,
                f"opening:{opening.id}",
            )
    placed = [p for p in room.placed if p.wall == wall.id]
    for plinth in room.plinths:
        if plinth.wall == wall.id:
            color = _color(job.stock, plinth.finish)
            points = rectangle(plinth.x, 0.0, plinth.length, plinth.height)
            items.append(Shape(points, Pen.NARROW, Layer.TRIM, f"run:{plinth.run}", color))
    for p in placed:
        unit = made.of(p.cell)
        if unit is not None and p.is_solid:
            items += unit_front(p, unit, job.stock, labels=labels)
    for top in room.worktops:
        if top.wall == wall.id:
            color = _color(job.stock, top.finish)
            points = rectangle(top.x, top.bottom, top.length, top.thickness)
            items.append(Shape(points, Pen.MEDIUM, Layer.TRIM, f"run:{top.run}", color))
    items.append(Line(-150.0, 0.0, wall.length + 150.0, 0.0, Pen.WIDE, Layer.WALL))
    if dims:
        items += elevation_dims(job, room, wall, placed)
    return Drawing(f"Wall {wall.id} {wall.name}", tuple(items), 0.0, 0.0, wall.length, wall.height)


def _color(stock: Stock, code: str) -> str:
    finish = stock.finish(code)
    return finish.color if finish else "#CCCCCC"


def _grain(stock: Stock, code: str, upright: bool) -> str:
    finish = stock.finish(code)
    if finish is None or finish.grain == "none":
        return ""
    return "y" if upright else "x"


def _opening(kind: str, x: float, z: float, w: float, h: float, hand: str, source: str) -> list[Item]:
    items: list[Item] = [Shape(rectangle(x, z, w, h), Pen.MEDIUM, Layer.OPENING, source, "opening")]
    edge = 45.0
    top = h - edge if kind == "door" else h - 2 * edge
    base = z if kind == "door" else z + edge
    fill = "door" if kind == "door" else "glass"
    items.append(Shape(rectangle(x + edge, base, w - 2 * edge, top), Pen.NARROW, Layer.OPENING, source, fill))
    if kind == "window":
        items.append(Line(x + w / 2, z + edge, x + w / 2, z + h - edge, Pen.NARROW, Layer.OPENING, source))
        # Glass by two thin strokes.
        for shift in (0.0, 40.0):
            gx, gz = x + edge + 40 + shift, z + edge + 60
            items.append(Line(gx, gz, gx + 70, gz + 110, Pen.NARROW, Layer.OPENING, source))
    else:
        hx = x + w - edge - 70 if hand == "left" else x + edge + 70
        items.append(Line(hx - 35, z + 1000, hx + 35, z + 1000, Pen.MEDIUM, Layer.OPENING, source))
    return items


def unit_front(p: Placed, unit: MadeUnit, stock: Stock, *, labels: bool = True) -> list[Item]:
    """A unit as it is seen from the front, in its wall's coordinates."""
    source = f"cell:{p.cell}"
    items = [_moved(item, p.x, p.bottom, source) for item in _front_items(unit, stock)]
    if not unit.parts and unit.problems:
        items.append(Line(p.x, p.bottom, p.right, p.top, Pen.NARROW, Layer.LABEL, source))
        items.append(Line(p.x, p.top, p.right, p.bottom, Pen.NARROW, Layer.LABEL, source))
    if labels and p.body is not Body.FILLER:
        items.append(Text(p.x + p.width / 2, p.bottom, p.number, 2.0, Layer.LABEL, source, rise=-3.4, backed=True))
    return items


def _moved(item: Item, dx: float, dy: float, source: str) -> Item:
    match item:
        case Line():
            return Line(item.x1 + dx, item.y1 + dy, item.x2 + dx, item.y2 + dy, item.pen, item.layer, source)
        case Shape():
            points = tuple((x + dx, y + dy) for x, y in item.points)
            return Shape(points, item.pen, item.layer, source, item.fill, item.grain)
        case _:
            return item


@lru_cache(maxsize=2048)
def _front_items(unit: MadeUnit, stock: Stock) -> tuple[Item, ...]:
    """The front of a unit in its own coordinates: carcass, open bays, fronts, hinge marks, handles."""
    spec = unit.spec
    items: list[Item] = []
    w, h = spec.width, spec.height
    carcass, front = _color(stock, spec.carcass), _color(stock, spec.front)
    if spec.body is Body.CARCASS:
        grain = _grain(stock, spec.carcass, True)
        closed = {f.path for f in unit.fronts}
        # Closed by fronts, the carcass shows as a line between them only.
        shown_grain = "" if closed else grain
        items.append(Shape(rectangle(0, 0, w, h), Pen.MEDIUM, Layer.CARCASS, "", carcass, shown_grain))  # type: ignore[arg-type]
        for path, x, z, bw, bh in unit.bays:
            if path not in closed:
                items.append(Shape(rectangle(x, z, bw, bh), Pen.NARROW, Layer.CARCASS, "", "inside"))
        for part in unit.parts:
            if part.role == "shelf" and not unit.fronts:
                o = part.frame.origin
                points = rectangle(o[0], o[2], part.length, part.thickness)
                items.append(Shape(points, Pen.NARROW, Layer.CARCASS, "", carcass))
    elif spec.body is Body.APPLIANCE:
        items.append(Shape(rectangle(0, 0, w, h), Pen.NARROW, Layer.APPLIANCE, "", "inside"))
    upright = spec.made.front_grain == "vertical"
    for f in unit.fronts:
        grain = _grain(stock, spec.front, upright)
        items.append(Shape(rectangle(f.x, f.z, f.width, f.height), Pen.MEDIUM, Layer.FRONT, "", front, grain))  # type: ignore[arg-type]
        if f.frame:
            inner = rectangle(f.x + f.frame, f.z + f.frame, f.width - 2 * f.frame, f.height - 2 * f.frame)
            items.append(Shape(inner, Pen.NARROW, Layer.FRONT, "", ""))
        if f.kind == "door":
            # Hinge side: two dashed lines that meet at the middle of the hinged edge (drawing practice).
            hx = f.x if f.hand == "left" else f.x + f.width
            ox = f.x + f.width if f.hand == "left" else f.x
            for z in (f.z, f.z + f.height):
                items.append(Line(ox, z, hx, f.z + f.height / 2, Pen.DASHED, Layer.FRONT))
        if f.handle is not None:
            x1, z1, x2, z2 = f.handle
            half = 6.0
            if abs(x2 - x1) > abs(z2 - z1):
                points = rectangle(x1, z1 - half, x2 - x1, 2 * half)
            else:
                points = rectangle(x1 - half, z1, 2 * half, max(z2 - z1, 2 * half))
            items.append(Shape(points, Pen.NARROW, Layer.HANDLE, "", "ink"))
    return tuple(items)


def elevation_dims(job: Job, room: RoomLayout, wall: Wall, placed: list[Placed]) -> list[Item]:
    """Units below and above, openings, the overall length, and heights at the left."""
    unit = job.display
    dims: list[Item] = []

    def text(mm: float) -> str:
        return format_length(mm, unit)

    base = [p for p in placed if p.level is Level.BASE and p.width > 0]
    hung = [p for p in placed if p.level is Level.HUNG and p.width > 0]
    for row, cells in ((-1, base), (1, hung)):
        where = 0.0 if row < 0 else wall.height
        for p in cells:
            dims.append(Dim(p.x, p.right, where, row, "x", text(p.width), f"cell:{p.cell}", "width"))
        if cells:
            left = cells[-1].right
            if wall.length - left > 0.5:
                dims.append(Dim(left, wall.length, where, row, "x", text(wall.length - left)))
            if cells[0].x > 0.5:
                dims.append(Dim(0.0, cells[0].x, where, row, "x", text(cells[0].x)))
    below = -2 if base else -1
    at = 0.0
    openings = sorted((o for o in room.room.openings if o.wall == wall.id), key=lambda o: o.x.mm)
    for opening in openings:
        x, w = opening.x.mm, opening.width.mm
        if x - at > 0.5:
            dims.append(Dim(at, x, 0.0, below, "x", text(x - at), f"opening:{opening.id}", "x"))
        dims.append(Dim(x, x + w, 0.0, below, "x", text(w), f"opening:{opening.id}", "width"))
        at = x + w
    if openings and wall.length - at > 0.5:
        dims.append(Dim(at, wall.length, 0.0, below, "x", text(wall.length - at)))
    total = below - 1 if openings else below
    key = "width" if wall.id in "AC" else "depth"
    dims.append(Dim(0.0, wall.length, 0.0, total, "x", text(wall.length), f"room:{room.room.id}", key))
    heights = {0.0, wall.height}
    for p in placed:
        if p.is_solid:
            heights |= {round(p.bottom, 3), round(p.top, 3)}
    for top in room.worktops:
        if top.wall == wall.id:
            heights.add(round(top.bottom + top.thickness, 3))
    marks = sorted(heights)
    steps = list(pairwise(marks)) if len(marks) > 2 else []
    for low, high in steps:
        dims.append(Dim(low, high, 0.0, -1, "y", text(high - low)))
    dims.append(
        Dim(0.0, wall.height, 0.0, -2 if steps else -1, "y", text(wall.height), f"room:{room.room.id}", "height")
    )
    return dims
