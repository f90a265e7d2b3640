"""The inside of a unit as it is seen from the front with nothing before it: bays, boards, drawers, fittings."""

from __future__ import annotations

from tall_plank.drawing.primitives import Arc, Item, Layer, Line, Pen, Shape, rectangle
from tall_plank.making import MadeUnit, Part
from tall_plank.making.builder import FittedBox
from tall_plank.stock import Stock

STEEL = "#B9BDBF"


def inside_items(unit: MadeUnit, stock: Stock, covered: frozenset[tuple[int, ...]]) -> list[Item]:
    """What stands in the bays that nothing covers, in the unit's own coordinates.

    Parameters
    ----------
    covered : paths of bays with a front before them; whatever lies in those is left out
    """

    def seen(path: tuple[int, ...]) -> bool:
        return not any(path[: len(c)] == c for c in covered)

    finish, within = stock.finish(unit.spec.carcass), stock.finish(unit.spec.drawer)
    color = finish.color if finish else "#CCCCCC"
    drawer = within.color if within else "#DDD6C8"
    items: list[Item] = []
    open_bays = [bay for bay in unit.bays if seen(bay[0])]
    for _path, x, z, width, height in open_bays:
        items.append(Shape(rectangle(x, z, width, height), Pen.NARROW, Layer.CARCASS, None, "inside"))
    for part in unit.shown:
        if part.role in ("shelf", "drawer"):
            x, z, width, height = seen_box(part)
            middle = (x + width / 2, z + height / 2)
            if not any(_within(middle, bay) for bay in open_bays):
                continue
            if part.role == "shelf":
                items.append(Shape(rectangle(x, z, width, height), Pen.NARROW, Layer.CARCASS, None, color))
            elif part.name.endswith("front"):
                items.append(Shape(rectangle(x, z, width, height), Pen.NARROW, Layer.CARCASS, None, drawer))
                items.append(_notch(part))
    for fitted in unit.fitted:
        if seen(fitted.path):
            items += fitted_items(fitted)
    return items


def inside_signs(unit: MadeUnit, covered: frozenset[tuple[int, ...]]) -> list[Item]:
    """What the solids of a unit do not show of its open bays: how fittings look, the grips of drawers."""

    def seen(path: tuple[int, ...]) -> bool:
        return not any(path[: len(c)] == c for c in covered)

    open_bays = [bay for bay in unit.bays if seen(bay[0])]
    items: list[Item] = []
    for part in unit.shown:
        if part.role == "drawer" and part.name.endswith("front"):
            x, z, width, height = seen_box(part)
            if any(_within((x + width / 2, z + height / 2), bay) for bay in open_bays):
                items.append(_notch(part))
    for fitted in unit.fitted:
        if seen(fitted.path):
            items += fitted_items(fitted)
    return items


def _notch(part: Part) -> Shape:
    """The grip of a drawer behind its front."""
    x, z, width, height = seen_box(part)
    grip = min(140.0, width * 0.4)
    notch = rectangle(x + (width - grip) / 2, z + height - 18.0, grip, 18.0)
    return Shape(notch, Pen.NARROW, Layer.CARCASS, None, "inside")


def _within(point: tuple[float, float], bay: tuple[tuple[int, ...], float, float, float, float]) -> bool:
    _, x, z, width, height = bay
    return x <= point[0] <= x + width and z <= point[1] <= z + height


def seen_box(part: Part) -> tuple[float, float, float, float]:
    """A part of a unit as it is seen from the front: x, z, width, height, mm."""
    corners = [
        part.frame.at(u, v, w) for u in (0.0, part.length) for v in (0.0, part.width) for w in (0.0, part.thickness)
    ]
    xs, zs = [c[0] for c in corners], [c[2] for c in corners]
    return min(xs), min(zs), max(xs) - min(xs), max(zs) - min(zs)


def fitted_items(f: FittedBox) -> list[Item]:
    """A fitting by what it is: a rail with two hangers, a basket, a tray, and so on."""
    x0, x1, z0, z1 = f.x, f.x + f.width, f.z, f.z + f.height
    layer = Layer.HANDLE
    if f.kind == "rail":
        middle = (z0 + z1) / 2
        items: list[Item] = [Shape(rectangle(x0, middle - 12.0, f.width, 24.0), Pen.NARROW, layer, None, STEEL)]
        count = max(2, int(f.width // 260))
        for i in range(count):
            x = x0 + f.width * (i + 0.5) / count
            reach = min(140.0, f.width / count * 0.4)
            items += [
                Line(x, middle - 12, x, middle - 60, Pen.NARROW, layer),
                Line(x, middle - 60, x - reach, middle - 130, Pen.NARROW, layer),
                Line(x, middle - 60, x + reach, middle - 130, Pen.NARROW, layer),
                Line(x - reach, middle - 130, x + reach, middle - 130, Pen.NARROW, layer),
            ]
        return items
    if f.kind == "light":
        return [Shape(rectangle(x0, z0, f.width, f.height), Pen.NARROW, layer, None, "glass")]
    if f.kind == "shoes":
        items = [
            Line(x0, z0 + 10, x1, z0 + 10, Pen.MEDIUM, layer),
            Line(x0, z0 + 70, x1, z0 + 70, Pen.MEDIUM, layer),
        ]
        pair = 105.0
        for i in range(int((f.width - 20) // (2 * pair))):
            for side in (0.0, 88.0):
                x = x0 + 20 + i * 2 * pair + side
                items.append(Shape(rectangle(x, z0 + 14, 78.0, 40.0), Pen.NARROW, layer, None, "inside"))
        return items
    if f.kind == "rack":
        items = [Shape(rectangle(x0, z1 - 24, f.width, 24.0), Pen.NARROW, layer, None, STEEL)]
        step = 60.0
        for i in range(1, max(2, int(f.width // step))):
            items.append(Line(x0 + i * step, z1 - 24, x0 + i * step, z0, Pen.NARROW, layer))
        return items
    items = [Shape(rectangle(x0, z0, f.width, f.height), Pen.NARROW, layer, None, "inside")]
    if f.kind in ("basket", "drainer"):
        step = 45.0
        for i in range(1, int(f.width // step) + 1):
            if x0 + i * step < x1 - 8:
                items.append(Line(x0 + i * step, z0, x0 + i * step, z1, Pen.NARROW, layer))
        for share in (0.33, 0.66):
            z = z0 + f.height * share
            items.append(Line(x0, z, x1, z, Pen.NARROW, layer))
    elif f.kind == "tray":
        for i in range(1, 5):
            x = x0 + f.width * i / 5
            items.append(Line(x, z0, x, z1 - 8, Pen.NARROW, layer))
    elif f.kind == "bin":
        items.append(Line(x0 + f.width / 2, z0, x0 + f.width / 2, z1, Pen.NARROW, layer))
        items.append(Arc(x0 + f.width / 2, z1, 30.0, 180.0, 360.0, Pen.NARROW, layer))
    return items
