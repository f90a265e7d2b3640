"""A unit as it is seen from the front: carcass, open bays, fronts, hinge marks, handles."""

from __future__ import annotations

import msgspec

from tall_plank.drawing.colors import color_of, grain_of
from tall_plank.drawing.handles import handle_items
from tall_plank.drawing.inside import inside_items, inside_signs, seen_box
from tall_plank.drawing.primitives import Arc, Item, Layer, Line, Pen, Shape, Text, rectangle
from tall_plank.drawing.shopmarks import shop_marks
from tall_plank.drawing.shows import FOR_CLIENT, Shows
from tall_plank.job import Body, Kind, Source
from tall_plank.making import FrontBox, MadeUnit, Part
from tall_plank.making.parts import Groove
from tall_plank.measure.remembered import remembered
from tall_plank.setout import Placed
from tall_plank.stock import Stock


@remembered(1024)
def unit_front(
    p: Placed,
    unit: MadeUnit,
    stock: Stock,
    *,
    label: str = "",
    shows: Shows = FOR_CLIENT,
) -> tuple[Item, ...]:
    """A unit as it is seen from the front, in its wall's coordinates."""
    source = Kind.CELL.of(p.cell)
    items = [_moved(item, p.x, p.bottom, source) for item in _front_items(unit, stock, shows.fronts)]
    return (*items, *_marks(p, unit, label, shows))


@remembered(1024)
def unit_signs(
    p: Placed,
    unit: MadeUnit,
    stock: Stock,
    *,
    label: str = "",
    shows: Shows = FOR_CLIENT,
) -> tuple[Item, ...]:
    """What is drawn of a unit from the front besides what its solids show: how fronts move, what is worked into their
    faces, glass, fittings in open bays, marks and label."""
    source = Kind.CELL.of(p.cell)
    items: list[Item] = []
    if unit.spec.body is Body.CARCASS and unit.spec.shape == "straight" and unit.spec.corner not in ("l", "diagonal"):
        items += inside_signs(unit, _closed(unit, shows.fronts))
    for f in unit.fronts:
        if f.kind == "machine":
            items += _machine_head(f)
        elif f.face is None and (shows.fronts or f.kind == "filler" or unit.spec.body is not Body.CARCASS):
            items += _face_signs(f, unit)
            items += _moves(f)
    return (*(_moved(item, p.x, p.bottom, source) for item in items), *_marks(p, unit, label, shows))


def _marks(p: Placed, unit: MadeUnit, label: str, shows: Shows) -> list[Item]:
    """Marks for the shop, faults, the label."""
    source = Kind.CELL.of(p.cell)
    items: list[Item] = []
    if shows.making and unit.spec.shape == "straight" and unit.spec.corner not in ("l", "diagonal"):
        marks = shop_marks(unit, closed=shows.fronts, counts=False, edging=shows.edging, joints=shows.joints)
        items += [_moved(item, p.x, p.bottom, source) for item in marks]
    if not unit.parts and unit.problems:
        items.append(Line(p.x, p.bottom, p.right, p.top, Pen.NARROW, Layer.LABEL, source))
        items.append(Line(p.x, p.top, p.right, p.bottom, Pen.NARROW, Layer.LABEL, source))
        items += [_moved(item, p.x, p.bottom, source) for item in _fault_places(unit)]
    if shows.labels and p.body not in (Body.FILLER, Body.PANEL):
        items.append(
            Text(p.x + p.width / 2, p.bottom, label or p.number, 2.0, Layer.LABEL, source, rise=-3.4, backed=True)
        )
    return items


def _closed(unit: MadeUnit, fronts: bool) -> frozenset[tuple[int, ...]]:
    """Paths of bays that something closes."""
    closed = {f.path for f in unit.fronts if f.kind == "machine"}
    if fronts:
        closed |= {f.path for f in unit.fronts if f.kind != "filler"}
    return frozenset(closed)


LEAST_SEEN = 24.0
"""mm; the place of a fault is drawn no smaller."""


def _fault_places(unit: MadeUnit) -> list[Item]:
    """Where a unit cannot be put together, seen from the front."""
    items: list[Item] = []
    for problem in unit.problems:
        if problem.place is None:
            continue
        (x0, _, z0), (x1, _, z1) = problem.place
        wide, high = max(x1 - x0, LEAST_SEEN), max(z1 - z0, LEAST_SEEN)
        box = rectangle((x0 + x1 - wide) / 2, (z0 + z1 - high) / 2, wide, high)
        items.append(Shape(box, Pen.WIDE, Layer.LABEL, None, "fault"))
    return items


def _moved(item: Item, dx: float, dy: float, source: Source) -> Item:
    match item:
        case Line():
            return Line(item.x1 + dx, item.y1 + dy, item.x2 + dx, item.y2 + dy, item.pen, item.layer, source, item.over)
        case Shape():
            points = tuple((x + dx, y + dy) for x, y in item.points)
            return Shape(points, item.pen, item.layer, source, item.fill, item.grain, item.over)
        case Arc():
            return msgspec.structs.replace(item, x=item.x + dx, y=item.y + dy, source=source)
        case Text():
            return msgspec.structs.replace(item, x=item.x + dx, y=item.y + dy, source=source)
        case _:
            return item


@remembered(1024)
def _front_items(unit: MadeUnit, stock: Stock, fronts: bool = True) -> tuple[Item, ...]:
    """The front of a unit in its own coordinates: carcass, open bays, fronts, hinge marks, handles."""
    spec = unit.spec
    items: list[Item] = []
    w, h = spec.width, spec.height
    carcass, front = color_of(stock, spec.carcass), color_of(stock, spec.front)
    if spec.body is Body.CARCASS:
        grain = grain_of(stock, spec.carcass, True)
        closed = _closed(unit, fronts)
        # Closed by fronts, the carcass shows as a line between them only.
        shown_grain = "" if closed else grain
        # A corner unit's other leg stands out of this wall: its side is no front.
        color = "unit" if spec.corner in ("l", "diagonal") else carcass
        items.append(Shape(rectangle(0, 0, w, h), Pen.MEDIUM, Layer.CARCASS, None, color, shown_grain))  # type: ignore[arg-type]
        if spec.shape == "straight" and spec.corner not in ("l", "diagonal"):
            items += inside_items(unit, stock, closed)
    elif spec.body is Body.PARTS:
        items += _own_parts(unit, stock)
    elif spec.body is Body.APPLIANCE:
        items.append(Shape(rectangle(0, 0, w, h), Pen.NARROW, Layer.APPLIANCE, None, "inside"))
    for part in unit.shown:
        if part.role == "face frame":
            items.append(_frame_member(part, front))
        elif part.role == "cover" and spec.body is Body.CARCASS and spec.shape == "straight":
            items += _beyond(part, w, h, carcass)
    upright = spec.made.front_grain == "vertical"
    for f in unit.fronts:
        grain = grain_of(stock, spec.front, upright)
        if not fronts and f.kind not in ("machine", "filler") and spec.body is Body.CARCASS:
            continue
        if f.kind == "machine":
            items += _machine(f)
            continue
        if f.face is not None:
            items += _slanted(f, front)
            continue
        items.append(Shape(rectangle(f.x, f.z, f.width, f.height), Pen.MEDIUM, Layer.FRONT, None, front, grain))  # type: ignore[arg-type]
        items += _worked_face(f, unit, stock)
        items += _moves(f)
        if f.handle is not None:
            items += handle_items(stock.fitting(f.pull), f.handle)
    return tuple(items)


def _moves(f: FrontBox) -> list[Item]:
    """How a front moves."""
    items: list[Item] = []
    if f.kind in ("door", "pocket", "bifold"):
        # Hinge side: two dashed lines that meet at the middle of the hinged edge (drawing practice).
        hx = f.x if f.hand == "left" else f.x + f.width
        ox = f.x + f.width if f.hand == "left" else f.x
        for z in (f.z, f.z + f.height):
            items.append(Line(ox, z, hx, f.z + f.height / 2, Pen.MOVING, Layer.FRONT))
    if f.kind in ("flap", "drop"):
        # The same marks, meeting at the edge that the front turns about.
        hz, oz = (f.z + f.height, f.z) if f.kind == "flap" else (f.z, f.z + f.height)
        for x in (f.x, f.x + f.width):
            items.append(Line(x, oz, f.x + f.width / 2, hz, Pen.MOVING, Layer.FRONT))
    if f.kind == "pullout":
        middle, high = f.x + f.width / 2, f.z + f.height * 0.5
        items.append(Line(middle, high - 60, middle, high + 60, Pen.MOVING, Layer.FRONT))
        items.append(Line(middle - 40, high, middle + 40, high, Pen.MOVING, Layer.FRONT))
    return items


def _own_parts(unit: MadeUnit, stock: Stock) -> list[Item]:
    """The parts of a kind of one's own as they are seen, those at the rear first; fronts are drawn over them."""
    items: list[Item] = []
    seen = [p for p in unit.shown if not any(f.owns(p.name) for f in unit.fronts) and not p.role.startswith("drawer")]
    for part in sorted(
        seen,
        key=lambda p: (
            -min(p.frame.at(u, v, w)[1] for u in (0, p.length) for v in (0, p.width) for w in (0, p.thickness))
        ),
    ):
        board = stock.board_by_code(part.board)
        color = color_of(stock, board.finish) if board else "#CCCCCC"
        items.append(Shape(rectangle(*seen_box(part)), Pen.NARROW, Layer.CARCASS, None, color))
    return items


def _worked_face(f: FrontBox, unit: MadeUnit, stock: Stock) -> list[Item]:
    """What a front that is no plain slab shows: its members, panel, glass, bars and louvers, or its grooves."""
    items: list[Item] = []
    if f.style in ("slab", "machine"):
        return items
    order = {"glass": 0, "front panel": 0, "louver": 1, "front frame": 2, "front bar": 2}
    pieces = [p for p in unit.shown if f.owns(p.name)]
    # Stiles last: the rails' tongues are hidden in them.
    for part in sorted(pieces, key=lambda p: (order.get(p.role, 0), p.name.endswith("stile"))):
        board = stock.board_by_code(part.board)
        color = color_of(stock, board.finish) if board else "#CCCCCC"
        items += _grooves(part)
        if part.role == "front":
            continue
        outline = part.outline or rectangle(0.0, 0.0, part.length, part.width)
        seen = [part.frame.at(x, y, 0.0) for x, y in outline]
        items.append(Shape(tuple((x, z) for x, _, z in seen), Pen.NARROW, Layer.FRONT, None, color))
        if f.style == "raised" and part.role == "front panel":
            items.append(Shape(_field(part, unit), Pen.NARROW, Layer.FRONT, None, color))
        if part.role == "glass":
            items += _strokes(part)
    return items


def _face_signs(f: FrontBox, unit: MadeUnit) -> list[Item]:
    """What is worked into a front's face, and the strokes on its glass."""
    items: list[Item] = []
    if f.style in ("slab", "machine"):
        return items
    for part in unit.shown:
        if f.owns(part.name):
            items += _grooves(part)
            if f.style == "raised" and part.role == "front panel":
                items.append(Shape(_field(part, unit), Pen.NARROW, Layer.FRONT))
            if part.role == "glass":
                items += _strokes(part)
    return items


def _grooves(part: Part) -> list[Item]:
    """Grooves of a front's face."""
    items: list[Item] = []
    for op in part.operations:
        if isinstance(op, Groove) and op.face == "B":
            a, b = part.frame.at(op.x1, op.y1, 0.0), part.frame.at(op.x2, op.y2, 0.0)
            items.append(Line(a[0], a[2], b[0], b[2], Pen.NARROW, Layer.FRONT))
    return items


def _field(part: Part, unit: MadeUnit) -> tuple[tuple[float, float], ...]:
    """The field of a raised panel."""
    edge = unit.spec.made.field_width + unit.spec.made.frame_groove_depth
    x, z, width, height = seen_box(part)
    return rectangle(x + edge, z + edge, width - 2 * edge, height - 2 * edge)


def _strokes(part: Part) -> list[Item]:
    """Glass, by two slanted strokes."""
    x, z, _, _ = seen_box(part)
    return [
        Line(x + 60.0 + shift, z + 80.0, x + 120.0 + shift, z + 180.0, Pen.NARROW, Layer.FRONT) for shift in (0.0, 40.0)
    ]


def _frame_member(part: Part, color: str) -> Shape:
    """A stile or rail of a face frame as it is seen from the front."""
    corners = [part.frame.at(*c) for c in ((0.0, 0.0, 0.0), (part.length, part.width, 0.0))]
    (x0, _, z0), (x1, _, z1) = corners
    points = rectangle(min(x0, x1), min(z0, z1), abs(x1 - x0), abs(z1 - z0))
    return Shape(points, Pen.NARROW, Layer.FRONT, None, color)


def _beyond(part: Part, width: float, height: float, color: str) -> list[Item]:
    """A board that stands out of the carcass: a seat on a bench, a cover over it."""
    x, z, w, h = seen_box(part)
    out = x < -0.5 or z < -0.5 or x + w > width + 0.5 or z + h > height + 0.5
    return [Shape(rectangle(x, z, w, h), Pen.MEDIUM, Layer.CARCASS, None, color)] if out else []


def _machine(f: FrontBox) -> list[Item]:
    """An appliance seen from the front: its panel above, its window below."""
    items: list[Item] = [Shape(rectangle(f.x, f.z, f.width, f.height), Pen.MEDIUM, Layer.APPLIANCE, None, "appliance")]
    items += _machine_head(f)
    head, edge = min(90.0, f.height * 0.2), 45.0
    if f.width > 4 * edge and f.height > head + 3 * edge:
        glass = rectangle(f.x + edge, f.z + edge, f.width - 2 * edge, f.height - head - 2 * edge)
        items.append(Shape(glass, Pen.NARROW, Layer.APPLIANCE, None, "basin"))
    return items


def _machine_head(f: FrontBox) -> list[Item]:
    """The lower edge of an appliance's panel."""
    z = f.z + f.height - min(90.0, f.height * 0.2)
    return [Line(f.x, z, f.x + f.width, z, Pen.NARROW, Layer.APPLIANCE)]


def _slanted(f: FrontBox, color: str) -> list[Item]:
    """A front that stands out of the plane, as it is seen square to the wall."""
    assert f.face is not None
    xs = sorted(f.face.point(u, 0.0, 0.0)[0] for u in (f.x, f.x + f.width))
    if xs[1] - xs[0] < 10.0:
        return []
    items: list[Item] = [Shape(rectangle(xs[0], f.z, xs[1] - xs[0], f.height), Pen.MEDIUM, Layer.FRONT, None, color)]
    if f.frame and xs[1] - xs[0] > 2.5 * f.frame:
        share = f.face.ux
        edge = f.frame * max(0.2, share)
        inner = rectangle(xs[0] + edge, f.z + f.frame, xs[1] - xs[0] - 2 * edge, f.height - 2 * f.frame)
        items.append(Shape(inner, Pen.NARROW, Layer.FRONT, None, ""))
    if f.handle is not None:
        hx = f.face.point(f.handle[0], 0.0, 0.0)[0]
        z0, z1 = sorted((f.handle[1], f.handle[3]))
        items.append(Shape(rectangle(hx - 5.0, z0, 10.0, max(12.0, z1 - z0)), Pen.NARROW, Layer.HANDLE, None, "ink"))
    return items
