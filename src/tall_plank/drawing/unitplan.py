"""A unit from above: carcass, fronts on their faces, its label."""

from __future__ import annotations

from tall_plank.drawing.primitives import Item, Layer, Line, Pen, Shape, Text
from tall_plank.job import Body, Kind, Source
from tall_plank.making import MadeUnit
from tall_plank.making.builder import Builder
from tall_plank.making.shell import front_curve
from tall_plank.measure.frames import RoomFrame
from tall_plank.measure.outlines import Points
from tall_plank.measure.remembered import remembered
from tall_plank.setout import Placed
from tall_plank.stock import Stock


@remembered(1024)
def unit_outline(p: Placed) -> Points:
    """The plan of a unit's carcass, in the room: both legs of a corner unit, a slanted end."""
    return tuple(p.frame.floor(x, y) for x, y in p.plan)


@remembered(1024)
def unit_plan(stock: Stock, p: Placed, unit: MadeUnit | None, label: str) -> tuple[Item, ...]:
    """A placed unit from above with its label, in the room."""
    items = _floor_items(stock, p.body, unit, p.plan, p.width, p.depth)
    return (*(moved(item, p.frame, Kind.CELL.of(p.cell)) for item in items), *plan_label(p, label))


@remembered(1024)
def _floor_items(
    stock: Stock, body: Body, unit: MadeUnit | None, points: Points, width: float, depth: float
) -> tuple[Item, ...]:
    """A unit from above in its own frame: carcass, fronts on their faces, doors' swing."""
    fill = "appliance" if body is Body.APPLIANCE else "unit"
    points = body_plan(stock, unit, points, width)
    items: list[Item] = [Shape(points, Pen.NARROW, Layer.CARCASS, None, fill)]
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
        items.append(Shape(shape, Pen.NARROW, Layer.FRONT, None, color))
    return tuple(items)


def body_plan(stock: Stock, unit: MadeUnit | None, points: Points, width: float) -> Points:
    """The plan of a unit's carcass in its own frame, with the front edge that its shape gives it.

    Parameters
    ----------
    points : its plan where its front is straight, mm
    """
    if unit is None or unit.spec.shape == "straight":
        return points
    b = Builder(unit.spec, stock)
    return ((0.0, 0.0), *front_curve(b, 0.0, width), (width, 0.0))


def plan_label(p: Placed, label: str) -> list[Item]:
    """The label of a unit on the plan."""
    if p.body in (Body.FILLER, Body.PANEL) or p.width < 120.0:
        return []
    x, y = p.frame.floor(p.width / 2, -p.depth * 0.72)
    return [Text(x, y, label, 2.0, Layer.LABEL, Kind.CELL.of(p.cell), quiet=True, within=max(p.width, 300.0))]


def hung_label(p: Placed, label: str) -> list[Item]:
    """The label of what hangs, close to its wall, where those of what stands under it are not."""
    if p.body in (Body.FILLER, Body.PANEL) or p.width < 120.0:
        return []
    x, y = p.frame.floor(p.width / 2, -min(90.0, p.depth * 0.3))
    return [Text(x, y, label, 1.8, Layer.HUNG, Kind.CELL.of(p.cell), quiet=True, within=max(p.width, 300.0))]


def moved(item: Item, frame: RoomFrame, source: Source) -> Item:
    """An item of a unit's own plan, in the room's."""
    match item:
        case Shape():
            points = tuple(frame.floor(x, y) for x, y in item.points)
            return Shape(points, item.pen, item.layer, source, item.fill, item.grain)
        case Line():
            a, b = frame.at(item.x1, item.y1, 0.0), frame.at(item.x2, item.y2, 0.0)
            return Line(a[0], a[1], b[0], b[1], item.pen, item.layer, source)
        case _:
            return item
