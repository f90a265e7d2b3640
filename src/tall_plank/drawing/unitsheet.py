"""The sheet of a unit for the shop: its front, its inside with the clear sizes of its bays, a section from front to
rear, a section level through it, and what is bought for it."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

import msgspec

from tall_plank.drawing.cutview import Board, cut_view
from tall_plank.drawing.primitives import Dim, Drawing, Item, Layer, Line, Pen, Text
from tall_plank.drawing.seen import Way
from tall_plank.drawing.sheets import SCALES
from tall_plank.drawing.shopmarks import shop_marks
from tall_plank.drawing.shows import Shows
from tall_plank.drawing.unit import moved_by
from tall_plank.drawing.unitfront import unit_front
from tall_plank.job import Body, Kind
from tall_plank.making import MadeUnit
from tall_plank.measure import DisplayUnit, Frame, format_chain, format_length
from tall_plank.measure.frames import RoomPoint
from tall_plank.setout import Placed
from tall_plank.solids.unit import part_boxes
from tall_plank.stock import Stock

HIGHEST = 112.0
"""mm of paper that a unit is drawn high or wide at the most, so that its views share a sheet."""


def usual_scale(p: Placed) -> float:
    """The standard scale at which the views of a unit share a sheet."""
    size = max(p.height, p.width * 1.2)
    return float(next((s for s in SCALES if size / s <= HIGHEST), SCALES[-1]))


def unit_views(p: Placed, unit: MadeUnit, stock: Stock, display: DisplayUnit) -> list[Drawing]:
    """Front, inside, the two sections, and its list; mm from the unit's left lower rear corner, all at one scale."""
    scale = usual_scale(p)
    alone = msgspec.structs.replace(p, frame=Frame(RoomPoint((0.0, 0.0, 0.0))))
    views = [_front(p, unit, stock, display)]
    if unit.spec.body is Body.CARCASS and unit.spec.corner not in ("l", "diagonal") and unit.shown:
        views.append(_inside(p, unit, stock, display))
        views.append(_upright(alone, unit, stock, display))
        views.append(_level(alone, unit, stock, display))
    views.append(_list(p, unit, stock, scale))
    return [msgspec.structs.replace(v, scale=scale, mark=p.number) for v in views]


def _front(p: Placed, unit: MadeUnit, stock: Stock, display: DisplayUnit) -> Drawing:
    items: list[Item] = [moved_by(i, -p.x, -p.bottom) for i in unit_front(p, unit, stock, shows=Shows(labels=False))]
    items += _whole(p.width, p.height, display, "carcass")
    xs = sorted({0.0, p.width, *(x for f in unit.fronts if f.face is None for x in (f.x, f.x + f.width))})
    zs = sorted({0.0, p.height, *(z for f in unit.fronts if f.face is None for z in (f.z, f.z + f.height))})
    if len(xs) > 2:
        items += _chain(xs, p.height, 1, "x", display, "fronts")
    if len(zs) > 2:
        items += _chain(zs, p.width, 1, "y", display, "fronts")
    # Where handles are fixed, outside the chains of the fronts.
    handles = [f.handle for f in unit.fronts if f.handle is not None and f.face is None]
    for k, (whole, base, way) in enumerate(((p.width, p.height, "x"), (p.height, p.width, "y"))):
        marks = sorted({0.0, whole, *(h[k + i] for h in handles for i in (0, 2))})
        if len(marks) > 2:
            items += _chain(marks, base, 2, way, display, "handles")
    return Drawing(f"{p.number} front", tuple(items), 0.0, 0.0, p.width, p.height)


def _inside(p: Placed, unit: MadeUnit, stock: Stock, display: DisplayUnit) -> Drawing:
    """Without its fronts: joints with their counts, and the clear sizes of every bay."""
    shown = unit_front(p, unit, stock, shows=Shows(labels=False, fronts=False))
    items: list[Item] = [moved_by(i, -p.x, -p.bottom) for i in shown]
    items += [i for i in shop_marks(unit, closed=False) if not isinstance(i, Line) or i.pen is Pen.CHAIN]
    for _, x, z, width, height in unit.bays:
        words = f"{format_length(width, display)} × {format_length(height, display)}"
        items.append(Text(x + width / 2, z + height / 2, words, 1.8, Layer.LABEL, backed=True, rise=-0.9))
    xs = sorted({0.0, p.width, *(v for _, x, _, w, _ in unit.bays for v in (x, x + w))})
    zs = sorted({0.0, p.height, *(v for _, _, z, _, h in unit.bays for v in (z, z + h))})
    items += _chain(xs, 0.0, -1, "x", display, "clear bays")
    items += _chain(zs, 0.0, -1, "y", display, "clear bays")
    return Drawing(f"{p.number} inside", tuple(items), 0.0, 0.0, p.width, p.height)


def cut_at(unit: MadeUnit) -> float:
    """Where a section from front to rear goes: through the middle of the widest bay, mm from the left."""
    if not unit.bays:
        return unit.spec.width / 2
    _, x, _, width, _ = max(unit.bays, key=lambda bay: bay[3])
    # Beside the middle, where the edge between two doors, a divider or a row of holes may stand.
    return x + width * 0.37


def _boards(p: Placed, unit: MadeUnit) -> list[Board]:
    source = Kind.CELL.of(p.cell)
    return [Board(p.frame.then(part.frame), part, source) for part in unit.shown if not part.bend]


def _foremost(unit: MadeUnit) -> float:
    """How far its carcass or its fronts come to the front, mm (below 0)."""
    return min([-unit.spec.depth, *(_least(part, 1) for part in unit.shown)])


def _upright(p: Placed, unit: MadeUnit, stock: Stock, display: DisplayUnit) -> Drawing:
    """From front to rear, seen from the right: the front at the left."""
    x = cut_at(unit)
    way = Way((x, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
    items = cut_view(_boards(p, unit), part_boxes(stock, p, unit, True), way, stock)
    deep = unit.spec.depth
    front = _foremost(unit)
    zs = {0.0, p.height}
    for _, x0, z, width, height in unit.bays:
        if x0 <= x <= x0 + width:
            zs |= {z, z + height}
    items += _chain(sorted(zs), 0.0, 1, "y", display, "clear bays")
    items += [
        Dim(-deep, 0.0, 0.0, -1, "x", format_length(deep, display), name="carcass"),
        Dim(0.0, p.height, 0.0, 2, "y", format_length(p.height, display)),
    ]
    if front < -deep - 0.5:
        texts = format_chain([-deep - front, deep], display)
        items += [
            Dim(front, -deep, 0.0, -1, "x", texts[0]),
            Dim(front, 0.0, 0.0, -2, "x", format_length(-front, display)),
        ]
    return Drawing(f"{p.number} section, seen from the right", tuple(items), front, 0.0, 0.0, p.height)


def _level(p: Placed, unit: MadeUnit, stock: Stock, display: DisplayUnit) -> Drawing:
    """Level through its highest bay, seen from above: the front below."""
    bays = sorted(unit.bays, key=lambda bay: -bay[4])
    z = round(bays[0][2] + bays[0][4] * 0.43 if bays else p.height / 2)
    way = Way((0.0, 0.0, z), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0))
    items = cut_view(_boards(p, unit), part_boxes(stock, p, unit, True), way, stock)
    deep = unit.spec.depth
    front = _foremost(unit)
    xs = {0.0, p.width}
    for _, x, low, width, height in unit.bays:
        if low <= z <= low + height:
            xs |= {x, x + width}
    # Clear of the handles.
    low = min([front, *(y for i in items if isinstance(i, Line) for y in (i.y1, i.y2))])
    items += _chain(sorted(xs), low, -1, "x", display, "clear bays")
    items.append(Dim(0.0, p.width, low, -2, "x", format_length(p.width, display)))
    items.append(Dim(-deep, 0.0, 0.0, -1, "y", format_length(deep, display)))
    return Drawing(
        f"{p.number} section at {format_length(z, display)}, seen from above", tuple(items), 0.0, front, p.width, 0.0
    )


def _least(part: object, axis: int) -> float:
    from tall_plank.making import Part

    assert isinstance(part, Part)
    return min(
        part.frame.at(u, v, w)[axis]
        for u in (0.0, part.length)
        for v in (0.0, part.width)
        for w in (0.0, part.thickness)
    )


def _whole(width: float, height: float, display: DisplayUnit, name: str) -> list[Item]:
    return [
        Dim(0.0, width, 0.0, -1, "x", format_length(width, display), name=name),
        Dim(0.0, height, 0.0, -1, "y", format_length(height, display), name=name),
    ]


def _chain(places: Sequence[float], base: float, row: int, along: str, display: DisplayUnit, name: str) -> list[Item]:
    """Dimensions from place to place that add up, the last one named."""
    kept = [v for i, v in enumerate(places) if i == 0 or v - places[i - 1] > 0.05]
    texts = format_chain([b - a for a, b in pairwise(kept)], display)
    return [
        Dim(a, b, base, row, along, text, name=name if i == len(texts) - 1 else "")  # type: ignore[arg-type]
        for i, (a, b, text) in enumerate(zip(kept, kept[1:], texts, strict=False))
    ]


def _list(p: Placed, unit: MadeUnit, stock: Stock, scale: float) -> Drawing:
    """What is bought for it and what it weighs, as words."""
    lines = [f"{p.number}  {unit.weight:.1f} kg without what is bought"]
    counts: dict[str, int] = {}
    for item in unit.items:
        counts[item.code] = counts.get(item.code, 0) + item.qty
    for code, qty in counts.items():
        fitting = stock.fitting(code)
        lines.append(f"{qty} × {fitting.name if fitting else code}")
    lines += [f"{f.what}: {f.why}" for f in unit.forced]
    items = [
        Text(0.0, 0.0, line, 1.8, Layer.LABEL, align="left", rise=-3.4 * i, bold=i == 0) for i, line in enumerate(lines)
    ]
    return Drawing(f"{p.number} fittings", tuple(items), 0.0, -3.4 * len(lines) * scale, 60.0 * scale, 0.0)
