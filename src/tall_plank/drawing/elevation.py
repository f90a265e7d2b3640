"""Elevations: a wall seen from inside the room, x from its left end, y up from the floor."""

from __future__ import annotations

from functools import lru_cache
from itertools import pairwise

import msgspec

from tall_plank.drawing.handles import handle_items
from tall_plank.drawing.inside import inside_items, seen_box
from tall_plank.drawing.plan import SERVICE_LETTERS
from tall_plank.drawing.primitives import Arc, Dim, Drawing, Item, Layer, Line, Pen, Shape, Text, rectangle
from tall_plank.drawing.shopmarks import edging_marks, shop_marks
from tall_plank.drawing.sliding import sliding_items
from tall_plank.job import Body, Job, Level, Rectangle, Room
from tall_plank.job.uses import starting_values
from tall_plank.making import FrontBox, MadeJob, MadeUnit, Part
from tall_plank.making.feet import LEG, seen_legs
from tall_plank.making.labels import label_of
from tall_plank.making.parts import Groove
from tall_plank.measure import format_length
from tall_plank.setout import Placed, RoomLayout, TrimBoard, Wall, Worktop
from tall_plank.setout.rooms import column_height, roof_window_corners, soffit_points
from tall_plank.stock import Stock


def elevation(
    job: Job,
    room: RoomLayout,
    wall: Wall,
    made: MadeJob,
    *,
    dims: bool = True,
    labels: bool = True,
    fronts: bool = True,
    shop: bool = False,
) -> Drawing:
    """The elevation of a wall, or of an island's face, with its units, trims, openings and automatic dimensions.
    Without fronts the inside of the units is seen; for the shop, edging and joints are."""
    source = f"wall:{wall.id}"
    height = seen_height(room, wall)
    items: list[Item] = []
    if wall.island:
        items.append(Shape(rectangle(0.0, 0.0, wall.length, height), Pen.NONE, Layer.WALL, source, "wall"))
    else:
        items += _slope(room, wall)
        items.append(Shape(_wall_outline(wall), Pen.MEDIUM, Layer.WALL, source, "wall"))
        items += _on_the_wall(room.room, wall)
        items += _moldings(room, wall, job.stock)
    by_cell = {p.cell: m for r in made.rooms for p, m in r.units if p.room == room.room.id}
    hidden = {c.id for run in room.room.runs for c in run.cells if c.hidden}
    for side, neighbour in neighbours(room, wall):
        items += _beside(room, wall, side, neighbour, by_cell, job.stock, hidden)
    placed = [p for p in room.placed if p.wall == wall.id]
    for board in room.boards:
        if board.kind in BEHIND_UNITS and board.wall == wall.id:
            items.append(_board(job.stock, board))
    runs = {run.id: run for run in room.room.runs}
    for p in placed:
        unit = by_cell.get(p.cell)
        if unit is not None and p.is_solid and p.cell not in hidden:
            for x in sorted({x for x, _ in seen_legs(runs[p.run], p, unit.spec.made)}):
                leg = rectangle(p.x + x, 0.0, LEG, p.bottom)
                items.append(Shape(leg, Pen.NARROW, Layer.CARCASS, f"cell:{p.cell}", "ink"))
            label = marked_label(job, room.room, p)
            items += unit_front(p, unit, job.stock, labels=labels, label=label, fronts=fronts, shop=shop)
    for board in room.boards:
        if board.kind not in BEHIND_UNITS and board.wall == wall.id:
            items.append(_board(job.stock, board))
    for top in room.worktops:
        if top.wall == wall.id:
            items.append(_top(job.stock, top, top.x))
    if fronts:
        for doors in made.sliding:
            if doors.wall == wall.id and doors.room == room.room.id:
                items += sliding_items(doors, job.stock)
    if shop:
        items += _edged_trims(room, wall, made)
    items += _island_ends(job, room, wall)
    items += _overhead(room.room, wall)
    items += _services(room.room, wall)
    items.append(Line(-150.0, 0.0, wall.length + 150.0, 0.0, Pen.WIDE, Layer.WALL))
    if dims:
        items += elevation_dims(job, room, wall, placed)
    title = f"Wall {wall.id} {wall.name}" if not wall.island else wall.heading
    return Drawing(title, tuple(items), 0.0, 0.0, wall.length, height)


def marked_label(job: Job, room: Room, p: Placed) -> str:
    """A unit's label, with a star where it departs from its kind and the shop standard."""
    template = job.template(p.template)
    own = set(job.unit(p.unit).own) - set(template.own) - set(starting_values(room.use, template))
    return label_of(job, room, p) + ("*" if own else "")


BEHIND_UNITS = ("plinth", "plinth return", "splashback", "dividing panel", "back panel")


def seen_height(room: RoomLayout, wall: Wall) -> float:
    """How high the elevation of a wall or face is drawn, mm: with the slope that starts on it."""
    if wall.island:
        return island_height(room, wall)
    return room.room.height.mm if any(s.wall == wall.id for s in room.room.slopes) else wall.height


def _slope(room: RoomLayout, wall: Wall) -> list[Item]:
    """The sloped ceiling that starts on this wall, seen square to the wall, with its roof windows. Where the ceiling
    slopes down to the next wall as well, the two meet in a hip."""
    slope = next((s for s in room.room.slopes if s.wall == wall.id), None)
    if slope is None:
        return []
    low, high = slope.low.mm, room.room.height.mm
    cuts = {"left": 0.0, "right": 0.0}
    for side, neighbour in neighbours(room, wall):
        other = next((s for s in room.room.slopes if s.wall == neighbour.id), None)
        if other is not None:
            cuts[side] = min(other.run.mm, wall.length / 2)
    points = ((0.0, low), (wall.length, low), (wall.length - cuts["right"], high), (cuts["left"], high))
    items: list[Item] = [Shape(points, Pen.NARROW, Layer.WALL, f"wall:{wall.id}", "ceiling")]
    for window in room.room.roof_windows:
        if window.slope != slope.id:
            continue
        source = f"roof window:{window.id}"
        corners = [wall.frame.into(c) for c in roof_window_corners(room.room, window)]
        (x0, _, z0), (x1, _, z1) = corners[0], corners[2]
        edge = min(45.0, (x1 - x0) / 4, (z1 - z0) / 4)
        items.append(Shape(rectangle(x0, z0, x1 - x0, z1 - z0), Pen.MEDIUM, Layer.OPENING, source, "opening"))
        inner = rectangle(x0 + edge, z0 + edge, x1 - x0 - 2 * edge, z1 - z0 - 2 * edge)
        items.append(Shape(inner, Pen.NARROW, Layer.OPENING, source, "glass"))
        for shift in (0.0, 40.0):
            gx, gz = x0 + 2 * edge + shift, z0 + 2 * edge
            items.append(Line(gx, gz, gx + 60, gz + 90, Pen.NARROW, Layer.OPENING, source))
    return items


def island_height(room: RoomLayout, face: Wall) -> float:
    """How high the elevation of an island's face is drawn, mm: somewhat above what stands there."""
    tops = [p.top for p in room.placed if p.wall[:1] == face.id[:1]]
    tops += [w.bottom + w.thickness for w in room.worktops if w.wall[:1] == face.id[:1]]
    return max([900.0, *tops])


def _wall_outline(wall: Wall) -> tuple[tuple[float, float], ...]:
    if not wall.profile:
        return rectangle(0.0, 0.0, wall.length, wall.height)
    return ((0.0, 0.0), (wall.length, 0.0), *reversed(wall.profile))


def _on_the_wall(room: Room, wall: Wall) -> list[Item]:
    """Openings and columns of a wall."""
    items: list[Item] = []
    for o in room.openings:
        if o.wall == wall.id:
            items += _opening(o.kind, o.x.mm, o.sill.mm, o.width.mm, o.height.mm, o.hand, f"opening:{o.id}")
    for column in room.columns:
        if column.wall == wall.id:
            high = min(column_height(room, column), wall.height)
            points = rectangle(column.x.mm, 0.0, column.width.mm, high)
            items.append(Shape(points, Pen.MEDIUM, Layer.WALL, f"column:{column.id}", "column"))
    return items


def _services(room: Room, wall: Wall) -> list[Item]:
    """Marks of the service points of a wall, over what stands before them."""
    items: list[Item] = []
    for service in room.services:
        if service.wall == wall.id:
            source = f"service:{service.id}"
            points = rectangle(service.x.mm - 40.0, service.height.mm - 40.0, 80.0, 80.0)
            items.append(Shape(points, Pen.NARROW, Layer.APPLIANCE, source, "floor"))
            letter = SERVICE_LETTERS[service.kind]
            items.append(
                Text(service.x.mm, service.height.mm, letter, 1.8, Layer.LABEL, source, rise=-0.9, within=80.0)
            )
    return items


def _moldings(room: RoomLayout, wall: Wall, stock: Stock) -> list[Item]:
    items: list[Item] = []
    for piece in room.moldings:
        profile = stock.profile(piece.profile)
        if piece.wall != wall.id or profile is None:
            continue
        x0 = wall.frame.into((*piece.start, 0.0))[0]
        x1 = wall.frame.into((*piece.end, 0.0))[0]
        source = f"molding:{piece.molding}"
        points = rectangle(min(x0, x1), piece.low, abs(x1 - x0), profile.height)
        items.append(Shape(points, Pen.NARROW, Layer.TRIM, source, _color(stock, profile.finish)))
        for y in sorted({round(y, 1) for _, y in profile.points})[1:-1]:
            items.append(Line(min(x0, x1), piece.low + y, max(x0, x1), piece.low + y, Pen.NARROW, Layer.TRIM, source))
    return items


def neighbours(room: RoomLayout, wall: Wall) -> list[tuple[str, Wall]]:
    """The walls that meet this one at its left and right end."""
    if wall.island:
        return []
    i = room.walls.index(wall)
    return [("left", room.walls[i - 1]), ("right", room.walls[(i + 1) % len(room.walls)])]


def _beside(
    room: RoomLayout,
    wall: Wall,
    side: str,
    neighbour: Wall,
    by_cell: dict[str, MadeUnit],
    stock: Stock,
    hidden: set[str],
) -> list[Item]:
    """What stands in the corner on the next wall: the side of its last unit, or a corner unit's other leg."""
    items: list[Item] = []
    own_angle = wall.before if side == "left" else wall.after
    if own_angle >= 180.0:
        return items
    for run in room.runs:
        if run.wall.id != neighbour.id or not run.cells:
            continue
        p = run.cells[-1] if side == "left" else run.cells[0]
        near = neighbour.length - p.right if side == "left" else p.x
        unit = by_cell.get(p.cell)
        if not p.is_solid or unit is None or p.cell in hidden or near > 5.0:
            continue
        if p.leg > p.depth and p.corner == ("right" if side == "left" else "left"):
            items += _leg_front(wall, side, p, unit, stock)
            continue
        # Its side is cut by the corner: drawn as a plain board in front of this wall.
        deep = p.depth + (unit.spec.made.reach if unit.fronts else 0.0)
        x = 0.0 if side == "left" else wall.length - deep
        points = rectangle(x, p.bottom, deep, p.height)
        items.append(Shape(points, Pen.NARROW, Layer.CARCASS, f"cell:{p.cell}", "unit"))
    for top in room.worktops:
        if top.wall == neighbour.id:
            near = neighbour.length - top.x - top.length if side == "left" else top.x
            if near < 5.0:
                x = 0.0 if side == "left" else wall.length - top.depth
                points = rectangle(x, top.bottom, top.depth, top.thickness)
                items.append(Shape(points, Pen.NARROW, Layer.TRIM, top.source, _color(stock, top.finish)))
    return items


def _leg_front(wall: Wall, side: str, p: Placed, unit: MadeUnit, stock: Stock) -> list[Item]:
    """The other leg of a corner unit, as its fronts show on this wall."""
    source = f"cell:{p.cell}"
    color = _color(stock, unit.spec.front)
    x = 0.0 if side == "left" else wall.length - p.leg
    items: list[Item] = [Shape(rectangle(x, p.bottom, p.leg, p.height), Pen.MEDIUM, Layer.CARCASS, source, "unit")]
    for f in unit.fronts:
        if f.face is None:
            continue
        points = []
        for u in (f.x, f.x + f.width):
            rx, ry, _ = p.frame.out(f.face.point(u, 0.0, 0.0))
            points.append(wall.frame.into((rx, ry, 0.0))[0])
        low, high = min(points), max(points)
        if high - low < 30.0:
            continue
        shape = rectangle(low, p.bottom + f.z, high - low, f.height)
        items.append(Shape(shape, Pen.MEDIUM, Layer.FRONT, source, color))
        if f.frame and high - low > 2 * f.frame:
            inner = rectangle(low + f.frame, p.bottom + f.z + f.frame, high - low - 2 * f.frame, f.height - 2 * f.frame)
            items.append(Shape(inner, Pen.NARROW, Layer.FRONT, source, ""))
    return items


def _board(stock: Stock, board: TrimBoard) -> Shape:
    """A board of a trim as it is seen along its line."""
    color = _color(stock, board.finish)
    pen = Pen.NARROW if board.kind != "waterfall leg" else Pen.MEDIUM
    if board.outline:
        points = []
        for x, y in board.outline:
            at = board.frame.out((x, y, 0.0))
            points.append((at[0], at[2]))
        return Shape(tuple(points), pen, Layer.TRIM, board.source, color)
    low, high = board.box()
    points2 = rectangle(low[0], low[2], high[0] - low[0], high[2] - low[2])
    return Shape(points2, pen, Layer.TRIM, board.source, color)


def _edged_trims(room: RoomLayout, wall: Wall, made: MadeJob) -> list[Item]:
    """Marks of the edged edges of end panels, plinths, worktops and the like on a line."""
    parts = [t.part for t in made.trims if t.part is not None and t.room == room.room.id and t.wall == wall.frame]
    return edging_marks(tuple(parts))


def _top(stock: Stock, top: Worktop, x: float) -> Shape:
    points = rectangle(x, top.bottom, top.length, top.thickness)
    return Shape(points, Pen.MEDIUM, Layer.TRIM, top.source, _color(stock, top.finish))


def _island_ends(job: Job, room: RoomLayout, wall: Wall) -> list[Item]:
    """On an island's second face: its worktop, and the panels that belong to the first, seen from behind."""
    if not wall.island or wall.id.endswith("1"):
        return []
    items: list[Item] = []
    first = room.wall(f"{wall.id[:-1]}1")
    for board in room.boards:
        if board.wall == first.id and board.kind in ("end panel", "waterfall leg", "back panel"):
            low, high = board.box()
            points = rectangle(wall.length - high[0], low[2], high[0] - low[0], high[2] - low[2])
            items.append(Shape(points, Pen.NARROW, Layer.TRIM, board.source, _color(job.stock, board.finish)))
    for top in room.worktops:
        if top.wall == first.id:
            items.append(_top(job.stock, top, wall.length - top.x - top.length))
    return items


def _overhead(room: Room, wall: Wall) -> list[Item]:
    """The cut of soffits that touch the wall."""
    items: list[Item] = []
    if wall.island:
        return items
    for soffit in room.soffits:
        xs = []
        for x, y in soffit_points(soffit):
            u, v, _ = wall.frame.into((x, y, 0.0))
            if v > -400.0:
                xs.append(min(max(u, 0.0), wall.length))
        if len(xs) >= 2 and max(xs) - min(xs) > 10.0:
            top = room.height.mm
            points = rectangle(min(xs), top - soffit.drop.mm, max(xs) - min(xs), soffit.drop.mm)
            items.append(Shape(points, Pen.MEDIUM, Layer.WALL, f"soffit:{soffit.id}", "column"))
    return items


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
    if kind in ("arch", "niche"):
        if kind == "niche":
            inner = rectangle(x + edge, z + edge, w - 2 * edge, h - 2 * edge)
            items.append(Shape(inner, Pen.NARROW, Layer.OPENING, source, "niche"))
        return items
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


@lru_cache(maxsize=1024)
def unit_front(
    p: Placed,
    unit: MadeUnit,
    stock: Stock,
    *,
    labels: bool = True,
    label: str = "",
    fronts: bool = True,
    shop: bool = False,
) -> tuple[Item, ...]:
    """A unit as it is seen from the front, in its wall's coordinates."""
    source = f"cell:{p.cell}"
    items = [_moved(item, p.x, p.bottom, source) for item in _front_items(unit, stock, fronts)]
    if shop and unit.spec.shape == "straight" and unit.spec.corner not in ("l", "diagonal"):
        items += [_moved(item, p.x, p.bottom, source) for item in shop_marks(unit, closed=fronts)]
    if not unit.parts and unit.problems:
        items.append(Line(p.x, p.bottom, p.right, p.top, Pen.NARROW, Layer.LABEL, source))
        items.append(Line(p.x, p.top, p.right, p.bottom, Pen.NARROW, Layer.LABEL, source))
    if labels and p.body not in (Body.FILLER, Body.PANEL):
        items.append(
            Text(p.x + p.width / 2, p.bottom, label or p.number, 2.0, Layer.LABEL, source, rise=-3.4, backed=True)
        )
    return tuple(items)


def _moved(item: Item, dx: float, dy: float, source: str) -> Item:
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


@lru_cache(maxsize=1024)
def _front_items(unit: MadeUnit, stock: Stock, fronts: bool = True) -> tuple[Item, ...]:
    """The front of a unit in its own coordinates: carcass, open bays, fronts, hinge marks, handles."""
    spec = unit.spec
    items: list[Item] = []
    w, h = spec.width, spec.height
    carcass, front = _color(stock, spec.carcass), _color(stock, spec.front)
    if spec.body is Body.CARCASS:
        grain = _grain(stock, spec.carcass, True)
        closed = frozenset(f.path for f in unit.fronts if f.kind == "machine" or (fronts and f.kind != "filler"))
        # Closed by fronts, the carcass shows as a line between them only.
        shown_grain = "" if closed else grain
        # A corner unit's other leg stands out of this wall: its side is no front.
        color = "unit" if spec.corner in ("l", "diagonal") else carcass
        items.append(Shape(rectangle(0, 0, w, h), Pen.MEDIUM, Layer.CARCASS, "", color, shown_grain))  # type: ignore[arg-type]
        if spec.shape == "straight" and spec.corner not in ("l", "diagonal"):
            items += inside_items(unit, stock, closed)
    elif spec.body is Body.PARTS:
        items += _own_parts(unit, stock)
    elif spec.body is Body.APPLIANCE:
        items.append(Shape(rectangle(0, 0, w, h), Pen.NARROW, Layer.APPLIANCE, "", "inside"))
    for part in unit.parts:
        if part.role == "face frame":
            items.append(_frame_member(part, front))
    upright = spec.made.front_grain == "vertical"
    for f in unit.fronts:
        grain = _grain(stock, spec.front, upright)
        if not fronts and f.kind not in ("machine", "filler") and spec.body is Body.CARCASS:
            continue
        if f.kind == "machine":
            items += _machine(f)
            continue
        if f.face is not None:
            items += _slanted(f, front)
            continue
        items.append(Shape(rectangle(f.x, f.z, f.width, f.height), Pen.MEDIUM, Layer.FRONT, "", front, grain))  # type: ignore[arg-type]
        items += _worked_face(f, unit, stock)
        if f.kind in ("door", "pocket", "bifold"):
            # Hinge side: two dashed lines that meet at the middle of the hinged edge (drawing practice).
            hx = f.x if f.hand == "left" else f.x + f.width
            ox = f.x + f.width if f.hand == "left" else f.x
            for z in (f.z, f.z + f.height):
                items.append(Line(ox, z, hx, f.z + f.height / 2, Pen.DASHED, Layer.FRONT))
        if f.kind in ("flap", "drop"):
            # The same marks, meeting at the edge that the front turns about.
            hz, oz = (f.z + f.height, f.z) if f.kind == "flap" else (f.z, f.z + f.height)
            for x in (f.x, f.x + f.width):
                items.append(Line(x, oz, f.x + f.width / 2, hz, Pen.DASHED, Layer.FRONT))
        if f.kind == "pullout":
            middle, high = f.x + f.width / 2, f.z + f.height * 0.5
            items.append(Line(middle, high - 60, middle, high + 60, Pen.DASHED, Layer.FRONT))
            items.append(Line(middle - 40, high, middle + 40, high, Pen.DASHED, Layer.FRONT))
        if f.handle is not None:
            items += handle_items(stock.fitting(f.pull), f.handle)
    return tuple(items)


def _own_parts(unit: MadeUnit, stock: Stock) -> list[Item]:
    """The parts of a kind of one's own as they are seen, those at the rear first; fronts are drawn over them."""
    items: list[Item] = []
    seen = [p for p in unit.parts if not any(f.owns(p.name) for f in unit.fronts) and not p.role.startswith("drawer")]
    for part in sorted(
        seen,
        key=lambda p: (
            -min(p.frame.out((u, v, w))[1] for u in (0, p.length) for v in (0, p.width) for w in (0, p.thickness))
        ),
    ):
        board = stock.board_by_code(part.board)
        color = _color(stock, board.finish) if board else "#CCCCCC"
        items.append(Shape(rectangle(*seen_box(part)), Pen.NARROW, Layer.CARCASS, "", color))
    return items


def _worked_face(f: FrontBox, unit: MadeUnit, stock: Stock) -> list[Item]:
    """What a front that is no plain slab shows: its members, panel, glass, bars and louvres, or its grooves."""
    items: list[Item] = []
    if f.style in ("slab", "machine"):
        return items
    order = {"glass": 0, "front panel": 0, "louvre": 1, "front frame": 2, "front bar": 2}
    pieces = [p for p in unit.parts if f.owns(p.name)]
    # Stiles last: the rails' tongues are hidden in them.
    for part in sorted(pieces, key=lambda p: (order.get(p.role, 0), p.name.endswith("stile"))):
        board = stock.board_by_code(part.board)
        color = _color(stock, board.finish) if board else "#CCCCCC"
        for op in part.operations:
            if isinstance(op, Groove) and op.face == "B":
                a, b = part.frame.out((op.x1, op.y1, 0.0)), part.frame.out((op.x2, op.y2, 0.0))
                items.append(Line(a[0], a[2], b[0], b[2], Pen.NARROW, Layer.FRONT))
        if part.role == "front":
            continue
        outline = part.outline or rectangle(0.0, 0.0, part.length, part.width)
        seen = [part.frame.out((x, y, 0.0)) for x, y in outline]
        items.append(Shape(tuple((x, z) for x, _, z in seen), Pen.NARROW, Layer.FRONT, "", color))
        if f.style == "raised" and part.role == "front panel":
            edge = unit.spec.made.field_width + unit.spec.made.frame_groove_depth
            xs, zs = [p[0] for p in seen], [p[2] for p in seen]
            inner = rectangle(
                min(xs) + edge, min(zs) + edge, max(xs) - min(xs) - 2 * edge, max(zs) - min(zs) - 2 * edge
            )
            items.append(Shape(inner, Pen.NARROW, Layer.FRONT, "", color))
        if part.role == "glass":
            x, z = min(p[0] for p in seen) + 60.0, min(p[2] for p in seen) + 80.0
            for shift in (0.0, 40.0):
                items.append(Line(x + shift, z, x + shift + 60.0, z + 100.0, Pen.NARROW, Layer.FRONT))
    return items


def _frame_member(part: Part, color: str) -> Shape:
    """A stile or rail of a face frame as it is seen from the front."""
    corners = [part.frame.out(c) for c in ((0.0, 0.0, 0.0), (part.length, part.width, 0.0))]
    (x0, _, z0), (x1, _, z1) = corners
    points = rectangle(min(x0, x1), min(z0, z1), abs(x1 - x0), abs(z1 - z0))
    return Shape(points, Pen.NARROW, Layer.FRONT, "", color)


def _machine(f: FrontBox) -> list[Item]:
    """An appliance seen from the front: its panel above, its window below."""
    items: list[Item] = [Shape(rectangle(f.x, f.z, f.width, f.height), Pen.MEDIUM, Layer.APPLIANCE, "", "appliance")]
    head = min(90.0, f.height * 0.2)
    items.append(Line(f.x, f.z + f.height - head, f.x + f.width, f.z + f.height - head, Pen.NARROW, Layer.APPLIANCE))
    edge = 45.0
    if f.width > 4 * edge and f.height > head + 3 * edge:
        glass = rectangle(f.x + edge, f.z + edge, f.width - 2 * edge, f.height - head - 2 * edge)
        items.append(Shape(glass, Pen.NARROW, Layer.APPLIANCE, "", "basin"))
    return items


def _slanted(f: FrontBox, color: str) -> list[Item]:
    """A front that stands out of the plane, as it is seen square to the wall."""
    assert f.face is not None
    xs = sorted(f.face.point(u, 0.0, 0.0)[0] for u in (f.x, f.x + f.width))
    if xs[1] - xs[0] < 10.0:
        return []
    items: list[Item] = [Shape(rectangle(xs[0], f.z, xs[1] - xs[0], f.height), Pen.MEDIUM, Layer.FRONT, "", color)]
    if f.frame and xs[1] - xs[0] > 2.5 * f.frame:
        share = f.face.ux
        edge = f.frame * max(0.2, share)
        inner = rectangle(xs[0] + edge, f.z + f.frame, xs[1] - xs[0] - 2 * edge, f.height - 2 * f.frame)
        items.append(Shape(inner, Pen.NARROW, Layer.FRONT, "", ""))
    if f.handle is not None:
        hx = f.face.point(f.handle[0], 0.0, 0.0)[0]
        z0, z1 = sorted((f.handle[1], f.handle[3]))
        items.append(Shape(rectangle(hx - 5.0, z0, 10.0, max(12.0, z1 - z0)), Pen.NARROW, Layer.HANDLE, "", "ink"))
    return items


def elevation_dims(job: Job, room: RoomLayout, wall: Wall, placed: list[Placed]) -> list[Item]:
    """Units below and above, openings, the overall length, and heights at the left."""
    unit = job.display
    dims: list[Item] = []

    def text(mm: float) -> str:
        return format_length(mm, unit)

    base = [p for p in placed if p.level is not Level.HUNG and p.width > 0]
    hung = [p for p in placed if p.level is Level.HUNG and p.width > 0]
    for row, cells in ((-1, base), (1, hung)):
        where = 0.0 if row < 0 else wall.height
        at_x = 0.0
        for p in sorted(cells, key=lambda p: p.x):
            if p.x - at_x > 0.5:
                dims.append(Dim(at_x, p.x, where, row, "x", text(p.x - at_x), f"cell:{p.cell}", "left"))
            dims.append(Dim(p.x, p.right, where, row, "x", text(p.width), f"cell:{p.cell}", "width"))
            at_x = max(at_x, p.right)
        if cells and wall.length - at_x > 0.5:
            dims.append(Dim(at_x, wall.length, where, row, "x", text(wall.length - at_x)))
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
    source, key = length_key(room, wall)
    dims.append(Dim(0.0, wall.length, 0.0, total, "x", text(wall.length), source, key))
    ceiling = island_height(room, wall) if wall.island else wall.height
    heights = {0.0, ceiling}
    for p in placed:
        if p.is_solid:
            heights |= {round(p.bottom, 3), round(p.top, 3)}
    for top in room.worktops:
        if top.wall == wall.id or (wall.island and top.wall[:1] == wall.id[:1]):
            heights.add(round(top.bottom + top.thickness, 3))
    marks = sorted(heights)
    steps = list(pairwise(marks)) if len(marks) > 2 else []
    for low, high in steps:
        dims.append(Dim(low, high, 0.0, -1, "y", text(high - low)))
    if not wall.island:
        key = "height" if not wall.profile else ""
        dims.append(
            Dim(0.0, wall.height, 0.0, -2 if steps else -1, "y", text(wall.height), f"room:{room.room.id}", key)
        )
    return dims


def length_key(room: RoomLayout, wall: Wall) -> tuple[str, str]:
    """What typing over a line's length sets: the source and the key of its dimension."""
    if wall.island:
        return f"island:{wall.island}", "length"
    if isinstance(room.room.outline, Rectangle):
        return f"room:{room.room.id}", "width" if wall.id in "AC" else "depth"
    return f"room:{room.room.id}", f"wall:{wall.id}"
