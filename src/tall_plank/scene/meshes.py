"""Parts as boxes, one mesh a material. Room frame, mm, z up. Holes are cut only where they are looked at."""

from __future__ import annotations

import math
from functools import lru_cache

import msgspec

from tall_plank.job import Job, Opening, RoofWindow, Room
from tall_plank.making import FrontBox, MadeJob, MadeUnit, Part
from tall_plank.making.builder import FittedBox
from tall_plank.making.feet import LEG, seen_legs
from tall_plank.making.sliding import LEAF, MadeSliding
from tall_plank.measure import Frame
from tall_plank.measure.frames import Vec
from tall_plank.measure.outlines import Points as Points2
from tall_plank.scene.handles import handle_solids
from tall_plank.scene.opening import drawer_of, front_of, opened
from tall_plank.scene.solids import Box, Prism, Scene, Solid, meshes_of
from tall_plank.setout import Layout, Placed, RoomLayout, Wall
from tall_plank.setout.rooms import column_frame, column_height, roof_window_frame, soffit_points
from tall_plank.stock import Stock


def solid_of(frame: Frame, part: Part, color: str, source: str, name: str) -> list[Solid]:
    """A part as it stands: a box, a prism of its outline, or strips where it is bent."""
    if part.bend:
        return [_bent(frame, part, color, source, name)]
    if part.outline:
        return [Prism(frame, part.outline, part.thickness, color, source, name)]
    return [Box(frame, (part.length, part.width, part.thickness), color, source, name)]


def _bent(frame: Frame, part: Part, color: str, source: str, name: str) -> Prism:
    """A bent part: the section of its arc, as high as the part. Its frame stands at the foot of its chord."""
    upright = abs(frame.x[2]) > 0.5
    arc, high = (part.width, part.length) if upright else (part.length, part.width)
    radius = abs(part.bend)
    half = arc / radius / 2
    chord = 2 * radius * math.sin(half)
    sign = 1.0 if part.bend > 0 else -1.0
    along = frame.y if upright else frame.x
    steps = 16
    outer, inner = [], []
    for i in range(steps + 1):
        t = -half + 2 * half * i / steps
        u = chord / 2 + radius * math.sin(t)
        out = sign * radius * (math.cos(t) - math.cos(half))
        outer.append((u, out))
        inner.append((u, out - part.thickness))
    # x along the face, y out of it (to the right of its way), z up.
    out_of = (along[1], -along[0], 0.0)
    origin = frame.origin if upright else (frame.origin[0], frame.origin[1], frame.origin[2] - high)
    points = tuple(outer) + tuple(reversed(inner))
    # x, y and up are left-handed here, so the section is mirrored: y counts into the unit.
    plan = tuple((u, -o) for u, o in points)
    return Prism(Frame(origin, along, (-out_of[0], -out_of[1], 0.0)), plan, high, color, source, name)


@lru_cache(maxsize=512)
def part_boxes(stock: Stock, placed: Placed, unit: MadeUnit, hidden: bool, fronts: str = "closed") -> tuple[Solid, ...]:
    """The parts of a unit as solids; without hidden ones a closed unit shows its outside only.

    Parameters
    ----------
    fronts : closed, open (doors turned, drawers pulled) or off
    """
    found: list[Solid] = []
    closing = [f for f in unit.fronts if f.kind not in ("machine", "filler")]
    seen_in = hidden or fronts != "closed" or not closing or _open_somewhere(unit)
    moves = opened(unit) if fronts == "open" else {}
    source = f"cell:{placed.cell}"
    for part in unit.parts:
        if not seen_in and part.role in ("shelf", "drawer", "drawer bottom", "packer"):
            continue
        front = front_of(unit, part)
        if front is not None and fronts == "off":
            continue
        frame = part.frame
        move = moves.get(front.name if front is not None else drawer_of(part))
        if move is not None:
            frame = move.then(frame)
        color = board_color(stock, part.board)
        found += solid_of(placed.frame.then(frame), part, color, source, f"{placed.number} {part.name}")
    for front in unit.fronts:
        if front.kind == "machine":
            found += _machine(placed, unit, front)
        elif front.handle is not None and unit.parts and fronts != "off":
            found += handle_solids(stock, placed, unit, front, moves.get(front.name))
    if seen_in:
        for fitted in unit.fitted:
            found += fitted_solids(placed, unit, fitted)
    return tuple(found)


def _open_somewhere(unit: MadeUnit) -> bool:
    """Whether a bay stands open, so that the inside is seen."""
    covered = [f.path for f in unit.fronts if f.kind not in ("machine", "filler")]
    return any(all(bay[0][: len(c)] != c for c in covered) for bay in unit.bays)


def board_color(stock: Stock, code: str) -> str:
    board = stock.board_by_code(code)
    finish = stock.finish(board.finish) if board else None
    return finish.color if finish else "#CCCCCC"


STEEL, GLASS_BLACK = "#B9BDBF", "#3B4146"


def _machine(placed: Placed, unit: MadeUnit, f: FrontBox) -> list[Solid]:
    """An appliance in its bay or space: a box with a darker window."""
    depth = placed.depth - 40.0
    source, name = f"cell:{placed.cell}", f"{placed.number} appliance"
    body = Frame((f.x + 2, -placed.depth - 15.0, f.z + 2))
    found: list[Solid] = [Box(placed.frame.then(body), (f.width - 4, depth, f.height - 4), STEEL, source, name)]
    head = min(90.0, f.height * 0.2)
    if f.width > 200 and f.height > head + 150:
        glass = Frame((f.x + 45, -placed.depth - 18.0, f.z + 45))
        size = (f.width - 90, 3.0, f.height - head - 90)
        found.append(Box(placed.frame.then(glass), size, GLASS_BLACK, source, name))
    return found


def sliding_solids(stock: Stock, wall: Wall, doors: MadeSliding, *, opened: bool) -> list[Solid]:
    """The leaves with their frames and fillings; opened, they stand one behind another at the left."""
    found: list[Solid] = []
    for i, leaf in enumerate(doors.leaves):
        shift = (doors.leaves[0].x - leaf.x) if opened and i % 2 else 0.0
        if opened and not i % 2 and i:
            shift = doors.leaves[i - 1].x + doors.leaves[i - 1].width / 3 - leaf.x
        line = wall.frame.then(Frame((shift, 0.0, 0.0)))
        y = -(doors.out - leaf.line * doors.pitch)
        f, w, h = doors.frame, leaf.width, doors.leaf_height

        def bar(x: float, z: float, size: Vec, line: Frame = line, y: float = y) -> Box:
            return Box(line.then(Frame((x, y, z))), size, "#8F9496", doors.source, "leaf frame")

        found += [
            bar(leaf.x, doors.leaf_z, (f, LEAF, h)), bar(leaf.x + w - f, doors.leaf_z, (f, LEAF, h)),
            bar(leaf.x + f, doors.leaf_z, (w - 2 * f, LEAF, f)),
            bar(leaf.x + f, doors.leaf_z + h - f, (w - 2 * f, LEAF, f)),
        ]  # fmt: skip
        for band in leaf.bands[:-1]:
            found.append(bar(leaf.x + f, band.z - f, (w - 2 * f, LEAF, f)))
        for index, part in doors.parts:
            if index == i:
                color = board_color(stock, part.board)
                found += solid_of(line.then(part.frame), part, color, doors.source, part.name)
    for index, part in doors.parts:
        if index < 0:
            found += solid_of(
                wall.frame.then(part.frame), part, board_color(stock, part.board), doors.source, part.name
            )
    top = doors.leaf_z + doors.leaf_height
    for z, high in ((doors.leaf_z - 10.0, 8.0), (top + 4.0, 26.0)):
        deep = doors.pitch + LEAF
        frame = wall.frame.then(Frame((doors.x, -doors.out, z)))
        found.append(Box(frame, (doors.width, deep, high), "#8F9496", doors.source, "track"))
    return found


def fitted_solids(placed: Placed, unit: MadeUnit, f: FittedBox) -> list[Solid]:
    """A fitting as a plain body in its place: a rail as a bar, a basket as its rims, the others as boxes."""
    source, name = f"cell:{placed.cell}", f"{placed.number} {f.kind}"
    y0 = -unit.spec.depth + f.front

    def box(x: float, y: float, z: float, size: Vec, color: str = STEEL) -> Box:
        return Box(placed.frame.then(Frame((x, y, z))), size, color, source, name)

    if f.kind == "rail":
        return [box(f.x, y0 + f.depth / 2 - 7, f.z + f.height / 2 - 12, (f.width, 15.0, 25.0))]
    if f.kind in ("light", "tray", "bin", "bed", "drainer"):
        return [box(f.x, y0, f.z, (f.width, f.depth, f.height))]
    if f.kind == "bracket":
        return []
    bar = 8.0
    found: list[Solid] = []
    for z in (f.z, f.z + f.height - bar):
        found += [
            box(f.x, y0, z, (f.width, bar, bar)), box(f.x, y0 + f.depth - bar, z, (f.width, bar, bar)),
            box(f.x, y0, z, (bar, f.depth, bar)), box(f.x + f.width - bar, y0, z, (bar, f.depth, bar)),
        ]  # fmt: skip
    found += [box(x, y0, f.z, (bar, bar, f.height)) for x in (f.x, f.x + f.width - bar)]
    count = max(2, int(f.width // 90))
    for i in range(1, count):
        found.append(box(f.x + f.width * i / count, y0, f.z, (3.0, f.depth, 3.0)))
    return found


def _trim_solids(job: Job, room: RoomLayout, made: MadeJob, fronts: str) -> list[Solid]:
    found: list[Solid] = []
    for doors in made.sliding:
        if doors.room == room.room.id and fronts != "off":
            found += sliding_solids(job.stock, room.wall(doors.wall), doors, opened=fronts == "open")
    for trim in made.trims:
        if trim.part is None or trim.room != room.room.id or trim.kind == "sliding leaf":
            continue
        part = trim.part
        color = board_color(job.stock, part.board)
        frame = trim.wall.then(part.frame)
        found += solid_of(frame, part, color, trim.source or f"run:{trim.run}", f"{trim.number} {part.name}")
    return found


WALL, FLOOR, GLASS, JOINERY, SOFFIT = "#EFEBE2", "#D9C7A3", "#CFE0E8", "#E4DED2", "#E7E2D6"


def _wall_solids(wall: Wall, openings: list[Opening]) -> list[Solid]:
    """A wall with its openings left open: pieces beside, below and above each, under the slope of the ceiling."""
    found: list[Solid] = []
    t, source = wall.thickness, f"wall:{wall.id}"

    def piece(x0: float, x1: float, z0: float, z1: float | None) -> None:
        if x1 - x0 <= 0.01:
            return
        if z1 is None and wall.profile:
            marks = [x0, *(x for x, _ in wall.profile if x0 < x < x1), x1]
            top = [(x, wall.height_at(x)) for x in reversed(marks)]
            points = ((x0, z0), (x1, z0), *top)
            # x along the wall, y up: z then looks into the room, so it starts at the wall's far side.
            frame = wall.frame.then(Frame((0.0, t, 0.0), (1.0, 0.0, 0.0), (0.0, 0.0, 1.0)))
            found.append(Prism(frame, points, t, WALL, source, "wall"))
            return
        high = wall.height if z1 is None else z1
        if high - z0 > 0.01:
            found.append(Box(wall.frame.then(Frame((x0, 0.0, z0))), (x1 - x0, t, high - z0), WALL, source, "wall"))

    at = 0.0
    for o in sorted(openings, key=lambda o: o.x.mm):
        x, w, sill, top = o.x.mm, o.width.mm, o.sill.mm, o.sill.mm + o.height.mm
        piece(at, x, 0.0, None)
        piece(x, x + w, 0.0, sill)
        piece(x, x + w, top, None)
        if o.kind == "niche":
            deep = min(o.depth.mm, t)
            place = wall.frame.then(Frame((x, deep, sill)))
            found.append(Box(place, (w, max(1.0, t - deep), o.height.mm), WALL, f"opening:{o.id}", o.kind))
        elif o.kind != "arch":
            pane = GLASS if o.kind == "window" else JOINERY
            place = wall.frame.then(Frame((x, o.reveal.mm or t * 0.45, sill)))
            found.append(Box(place, (w, t * 0.1, o.height.mm), pane, f"opening:{o.id}", o.kind))
        at = x + w
    piece(at, wall.length, 0.0, None)
    return found


def _roof_window(room: Room, window: RoofWindow) -> list[Solid]:
    """A frame of four bars and a pane, in the plane of the slope; the slope itself is left open to look in."""
    frame, w, h = roof_window_frame(room, window), window.width.mm, window.length.mm
    source, bar, thick = f"roof window:{window.id}", 60.0, 80.0
    bars = ((0.0, 0.0, w, bar), (0.0, h - bar, w, bar), (0.0, bar, bar, h - 2 * bar), (w - bar, bar, bar, h - 2 * bar))
    found: list[Solid] = [
        Box(frame.then(Frame((x, y, 0.0))), (dx, dy, thick), JOINERY, source, "roof window") for x, y, dx, dy in bars
    ]
    found.append(Box(frame.then(Frame((bar, bar, 30.0))), (w - 2 * bar, h - 2 * bar, 20.0), GLASS, source, "pane"))
    return found


@lru_cache(maxsize=32)
def room_solids(room: Room, walls: tuple[Wall, ...], points: Points2) -> tuple[Solid, ...]:
    """Floor, walls, columns and soffits."""
    found: list[Solid] = [Prism(Frame((0.0, 0.0, -20.0)), points, 20.0, FLOOR, f"room:{room.id}", "floor")]
    for wall in walls:
        found += _wall_solids(wall, [o for o in room.openings if o.wall == wall.id])
    for column in room.columns:
        size = (column.width.mm, column.depth.mm, column_height(room, column))
        found.append(Box(column_frame(room, column), size, WALL, f"column:{column.id}", column.kind))
    for soffit in room.soffits:
        low = room.height.mm - soffit.drop.mm
        frame = Frame((0.0, 0.0, low))
        found.append(Prism(frame, soffit_points(soffit), soffit.drop.mm, SOFFIT, f"soffit:{soffit.id}", "soffit"))
    for window in room.roof_windows:
        found += _roof_window(room, window)
    return tuple(found)


def _molding_solids(job: Job, room: RoomLayout) -> list[Solid]:
    """Moldings with their sections and mitres."""
    found: list[Solid] = []
    for piece in room.moldings:
        profile = job.stock.profile(piece.profile)
        if profile is None:
            continue
        length = math.dist(piece.start, piece.end)
        ux, uy = (piece.end[0] - piece.start[0]) / length, (piece.end[1] - piece.start[1]) / length
        # Section: x out of the wall (to the right of the way), y up; z runs back along the piece.
        frame = Frame((piece.end[0], piece.end[1], piece.low), (uy, -ux, 0.0), (0.0, 0.0, 1.0))
        finish = job.stock.finish(profile.finish)
        color = finish.color if finish else "#EDEAE2"
        # At an inner corner the back is the longer side: the face draws in.
        skew = (math.tan(math.radians(piece.right)), -math.tan(math.radians(piece.left)))
        found.append(Prism(frame, profile.points, length, color, f"molding:{piece.molding}", piece.kind, skew))
    return found


def build_scene(
    job: Job,
    layout: Layout,
    made: MadeJob,
    room_id: str,
    *,
    hidden: bool = True,
    fronts: str = "closed",
    without: frozenset[str] = frozenset(),
) -> Scene:
    """Every part of a room with its floor and walls. Units hidden by the designer, and cells to do without, are left
    out."""
    room = layout.room(room_id)
    bare = msgspec.structs.replace(room.room, runs=(), islands=(), moldings=(), services=(), name="", use="")
    solids: list[Solid] = list(room_solids(bare, room.walls, room.points))
    runs = {run.id: run for run in room.room.runs}
    put_away = {c.id for run in room.room.runs for c in run.cells if c.hidden} | without
    for placed, unit in made.units:
        if placed.room == room_id and placed.cell not in put_away:
            solids += part_boxes(job.stock, placed, unit, hidden, fronts)
            for x, y in seen_legs(runs[placed.run], placed, unit.spec.made):
                foot = placed.frame.then(Frame((x, y, -placed.bottom)))
                solids.append(Box(foot, (LEG, LEG, placed.bottom), "#3A3A38", f"cell:{placed.cell}", "leg"))
            if not unit.parts and placed.is_solid and not unit.fronts:
                frame = placed.frame.then(Frame((0.0, -placed.depth, 0.0)))
                size = (placed.width, placed.depth, placed.height)
                solids.append(Box(frame, size, "#C9C3B6", f"cell:{placed.cell}", f"{placed.number} not made"))
    solids += _trim_solids(job, room, made, fronts)
    solids += _molding_solids(job, room)
    w, d = room.size
    return Scene(meshes_of(solids), (0.0, 0.0, 0.0), (w, d, room.room.height.mm))


def visible_scene(
    job: Job, layout: Layout, made: MadeJob, room_id: str, fronts: str = "closed", without: frozenset[str] = frozenset()
) -> Scene:
    """What can be seen with the fronts as they are: the light scene of the model view."""
    return build_scene(job, layout, made, room_id, hidden=False, fronts=fronts, without=without)
