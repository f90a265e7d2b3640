"""What stands in each kind of set: for the client who signs, the site that is set out, the shop that builds, those who
install."""

from __future__ import annotations

from collections.abc import Callable

import msgspec

from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.fieldrod import field_rods
from tall_plank.drawing.plan import plan
from tall_plank.drawing.primitives import Drawing
from tall_plank.drawing.rod import rod_drawing
from tall_plank.drawing.roomview import room_view, views_of
from tall_plank.drawing.sheets import Sheet
from tall_plank.drawing.shows import FOR_CLIENT, FOR_SHOP, Shows, exactly, on_paper
from tall_plank.drawing.tabledrawing import BLANK, table_drawing
from tall_plank.drawing.workflow import workflow
from tall_plank.job import Body, Job, Level, Room
from tall_plank.job.sheetset import WALL, SetKind
from tall_plank.making import MadeTrim
from tall_plank.measure import format_length, format_measure
from tall_plank.measure.frames import FloorPoint
from tall_plank.papers.assembly import assembly_sheets
from tall_plank.papers.drawings import Tell, busy_walls, go_on, room_drawings
from tall_plank.papers.partsheets import part_sheets
from tall_plank.papers.unitsheets import unit_sheets
from tall_plank.setout import Placed, RoomLayout
from tall_plank.setout.rooms import ceiling_at
from tall_plank.workings import Workings

Lengths = Callable[[float], str]

Content = list[tuple[Drawing, ...] | Sheet]
"""Drawings that may share sheets, and sheets that are as they are."""

USUAL: dict[SetKind, Shows] = {
    "client": FOR_CLIENT, "site": FOR_CLIENT, "shop": FOR_SHOP, "installer": FOR_CLIENT,
}  # fmt: skip
"""What the views of a set are drawn with where nothing else was decided."""


def shows_of(job: Job, kind: SetKind) -> tuple[Shows, bool]:
    """What the views of a set are drawn with, and whether in the colors of finishes."""
    own = dict(job.sheet_set(kind).shows)
    color = own.pop("color", job.papers.ink != "black")
    named = {("dims" if key == "dimensions" else key): on for key, on in own.items()}
    return msgspec.structs.replace(USUAL[kind], **named), color


def set_content(w: Workings, kind: SetKind, tell: Tell) -> Content:
    """What stands in a set, in its usual order.

    Raises
    ------
    KeyError for another kind of set, StoppedError where `tell` says so
    """
    make = {"client": _client, "site": _site, "shop": _shop, "installer": _installer}[kind]
    return make(w, shows_of(w.job, kind)[0], tell)


def _room_number(job: Job, room: Room) -> int:
    return next(i for i, r in enumerate(job.rooms, 1) if r.id == room.id)


def _marked(drawing: Drawing, mark: str) -> Drawing:
    return msgspec.structs.replace(drawing, mark=mark)


def _keyed(room: Room, number: int, drawings: list[Drawing]) -> tuple[Drawing, ...]:
    """Drawings of a room with keys that stay when rooms are added or taken away."""
    return tuple(
        d if d.key else msgspec.structs.replace(d, key=f"{room.id}:{d.mark.removeprefix(str(number))}")
        for d in drawings
    )


# --- for the client


def _client(w: Workings, shows: Shows, tell: Tell) -> Content:
    """Plan, pictures and elevations of each room, what it is finished in, its worktops, and room for a signature."""
    found: Content = []
    for room in w.layout.rooms:
        go_on(tell, room.room.name)
        n = _room_number(w.job, room.room)
        every = room_drawings(w, room.room.id, shows)
        drawings = [d for name, d in every if not name.startswith(("section", "detail"))]
        drawings[0] = msgspec.structs.replace(drawings[0], items=(*drawings[0].items, *workflow(w.job, room, w.made)))
        tables = [t for t in (finishes_table(w, room, f"{n}F"), worktops_table(w, room, f"{n}T")) if t is not None]
        pictures = _pictures(w, room, n) if room.placed or room.fields else []
        found.append(_keyed(room.room, n, [drawings[0], *pictures, *drawings[1:], *tables]))
    sign = table_drawing(
        "Approval", ("What", "Name", "Date", "Signature"),
        [["These drawings are what was agreed.", BLANK, BLANK, BLANK]], "A",
    )  # fmt: skip
    return [*found, (msgspec.structs.replace(sign, key="approval"),)]


def _pictures(w: Workings, room: RoomLayout, number: int) -> list[Drawing]:
    """A room as it is seen from as many corners as show every wall."""
    corners = views_of(room)
    return [_marked(room_view(w.job, room, w.made, c), f"{number}V{i}") for i, c in enumerate(corners, 1)]


def finishes_table(w: Workings, room: RoomLayout, mark: str) -> Drawing | None:
    """What carcasses, fronts, worktops and trims of a room are finished in, and where."""
    where: dict[tuple[str, str], list[str]] = {}
    for p, unit in w.made.units:
        if p.room == room.room.id and unit.shown:
            where.setdefault(("Fronts", unit.spec.front), []).append(p.number)
            where.setdefault(("Carcasses", unit.spec.carcass), []).append(p.number)
    for trim in w.made.trims:
        board = w.job.stock.board_by_code(trim.part.board) if trim.part is not None else None
        if trim.kind == "wall field" and trim.room == room.room.id and board is not None and _is_seen(trim):
            where.setdefault(("Paneled walls", board.finish), []).append(trim.number.partition(".")[0])
    for top in room.worktops:
        where.setdefault(("Worktops", top.finish), []).append(room.wall(top.wall_id).title.split(",")[0])
    rows = []
    for (what, code), numbers in sorted(where.items()):
        finish = w.job.stock.finish(code)
        rows.append([what, finish.name if finish else code or "–", ", ".join(dict.fromkeys(numbers))])
    return table_drawing(f"{room.room.name}, finishes", ("What", "Finish", "Where"), rows, mark) if rows else None


def _is_seen(trim: MadeTrim) -> bool:
    """Whether a piece of a wall field is seen: battens are not."""
    return trim.part is not None and trim.part.role != "batten"


def worktops_table(w: Workings, room: RoomLayout, mark: str) -> Drawing | None:
    """Worktops with their sizes, the overhang before the fronts, their joints and cut-outs."""
    show = _lengths(w)
    rows = []
    for trim in w.made.trims:
        if trim.kind != "worktop" or trim.part is None or trim.room != room.room.id:
            continue
        part = trim.part
        top = next((t for t in room.worktops if t.source == trim.source), None)
        deep = max(
            (p.depth + u.spec.made.reach for p, u in w.made.units if top and p.wall_id == top.wall_id), default=0.0
        )
        over = show(top.depth - deep) if top is not None and deep else "–"
        bolts = sum(item.qty for item in trim.items)
        cuts = sum(type(op).__name__ == "Cutout" for op in part.operations)
        rows.append(
            [trim.number, f"{show(part.length)} × {show(part.width)} × {show(part.thickness)}", over,
             f"{bolts} bolts" if bolts else "none", str(cuts)]
        )  # fmt: skip
    heads = ("Worktop", "Size", "Overhang", "Joints", "Cut-outs")
    return table_drawing(f"{room.room.name}, worktops", heads, rows, mark) if rows else None


# --- for the site


def _site(w: Workings, shows: Shows, tell: Tell) -> Content:
    """Setting out from one datum, services, ceiling and levels to be measured, what is hung on which line."""
    found: Content = []
    for room in w.layout.rooms:
        go_on(tell, room.room.name)
        n = _room_number(w.job, room.room)
        tables = [setting_out_table(w, room, f"{n}O"), levels_table(w, room, f"{n}L")]
        tables += [t for t in (fixing_table(w, room, f"{n}H"), others_table(w, room, f"{n}B")) if t is not None]
        found.append(_keyed(room.room, n, [_marked(setting_out(w, room, shows), f"{n}P"), *tables]))
    return found


def setting_out(w: Workings, room: RoomLayout, shows: Shows = FOR_CLIENT) -> Drawing:
    """The plan of a room without what is built in it."""
    bare_room = msgspec.structs.replace(room.room, runs=(), islands=(), sections=(), use="")
    bare = RoomLayout(bare_room, room.walls, (), (), (), points=room.points)
    drawing = plan(w.job, bare, w.made, chains=True, shows=exactly(shows))
    return msgspec.structs.replace(drawing, title=f"{room.room.name}, setting out")


def setting_out_table(w: Workings, room: RoomLayout, mark: str) -> Drawing:
    """Everything on the walls from one datum a wall, with room for what was measured."""
    show = _lengths(w)
    rows = []
    for wall in room.walls:
        rows.append([wall.id, "length", "0", show(wall.length), "0", show(wall.height), BLANK])
        for o in sorted((o for o in room.room.openings if o.wall == wall.id), key=lambda o: o.x.mm):
            ends = (show(o.x.mm), show(o.x.mm + o.width.mm))
            rows.append([wall.id, o.kind, *ends, show(o.sill.mm), show(o.sill.mm + o.height.mm), BLANK])
        for c in (c for c in room.room.columns if c.wall == wall.id):
            rows.append([wall.id, c.kind, show(c.x.mm), show(c.x.mm + c.width.mm), "0", "–", BLANK])
        for s in sorted((s for s in room.room.services if s.wall == wall.id), key=lambda s: s.x.mm):
            rows.append([wall.id, s.kind, show(s.x.mm), "–", show(s.height.mm), "–", BLANK])
    heads = ("Wall", "What", "From", "To", "Lower edge", "Upper edge", "Measured")
    title = f"{room.room.name}, from the left end of each wall and the finished floor"
    return table_drawing(title, heads, rows, mark)


def levels_table(w: Workings, room: RoomLayout, mark: str) -> Drawing:
    """Floor to ceiling in every corner and the level of the floor there, with room for what was measured."""
    show = _lengths(w)
    inner = [(wall.id, wall.start) for wall in room.walls]
    rows = []
    mx, my = sum(p[0] for _, p in inner) / len(inner), sum(p[1] for _, p in inner) / len(inner)
    for name, (x, y) in inner:
        # A little inside the corner, where it can be measured.
        at = FloorPoint((x + (mx - x) * 0.02, y + (my - y) * 0.02))
        high = ceiling_at(room.room, at)
        rows.append([f"corner at the left of {name}", show(high), BLANK, BLANK])
    heads = ("Where", "Floor to ceiling", "Measured", "Floor, from datum")
    return table_drawing(f"{room.room.name}, levels", heads, rows, mark)


def fixing_table(w: Workings, room: RoomLayout, mark: str) -> Drawing | None:
    """What hangs: where its fixing line runs, and what it carries."""
    show = _lengths(w)
    rows = []
    for p, unit in w.made.units:
        if p.room == room.room.id and p.level is Level.HUNG and p.is_solid and unit.parts:
            weight = format_measure(unit.weight, "kg", w.job.display)
            rows.append([p.number, p.wall_id, show(p.x), show(p.right), show(p.bottom), show(p.top), weight])
    heads = ("Unit", "Wall", "From", "To", "Underside", "Upper edge", "Empty weight")
    title = f"{room.room.name}, what hangs on the walls"
    return table_drawing(title, heads, rows, mark) if rows else None


def others_table(w: Workings, room: RoomLayout, mark: str) -> Drawing | None:
    """Services to be made ready by others."""
    show = _lengths(w)
    rows = [
        [s.kind, s.wall or "floor", show(s.x.mm), show(s.height.mm) if s.wall else show(s.y.mm)]
        for s in room.room.services
    ]
    heads = ("By others", "Wall", "From the left", "Height")
    return table_drawing(f"{room.room.name}, services by others", heads, rows, mark) if rows else None


# --- for the shop


def _shop(w: Workings, shows: Shows, tell: Tell) -> Content:
    """Plans, elevations and sections with edging and joints; unit sheets, assembly, parts: worktops too."""
    found: Content = []
    for room in w.layout.rooms:
        go_on(tell, room.room.name)
        n = _room_number(w.job, room.room)
        drawings = [d for _, d in room_drawings(w, room.room.id, shows)]
        rods = (rod_drawing(w.job, room, wall, w.made) for wall in room.lines)
        drawings += [_marked(rod, f"{n}{rod.mark}") for rod in rods if rod is not None]
        for laid in room.fields:
            drawings += [_marked(rod, f"{n}{rod.mark}") for rod in field_rods(w.job, room, laid, w.made)]
        found.append(_keyed(room.room, n, drawings))
    found += unit_sheets(w, tell=tell)
    found += assembly_sheets(w, tell=tell)
    return [*found, *part_sheets(w, tell=tell)]


# --- for those who install


def _installer(w: Workings, shows: Shows, tell: Tell) -> Content:
    """A numbered key plan with what hangs, elevations with heights, the order of units with their scribes."""
    found: Content = []
    for room in w.layout.rooms:
        go_on(tell, room.room.name)
        n = _room_number(w.job, room.room)
        drawings = [_marked(plan(w.job, room, w.made, chains=True, shows=exactly(shows)), f"{n}P")]
        busy = busy_walls(room)
        for wall in room.lines:
            if wall.id in busy:
                drawing = _marked(elevation(w.job, room, wall, w.made, shows=on_paper(shows)), f"{n}{wall.mark}")
                drawings.append(msgspec.structs.replace(drawing, key=f"{room.room.id}:{WALL}{wall.id}"))
        order = order_table(w, room, f"{n}U")
        found.append(_keyed(room.room, n, [*drawings, *([order] if order is not None else [])]))
    return found


def in_order(room: RoomLayout) -> list[Placed]:
    """Units in the order in which they are set: what stands before what hangs, run by run, from a corner on."""
    found: list[Placed] = []
    for hung in (False, True):
        for run in room.runs:
            cells = [p for p in run.cells if p.is_solid and (p.level is Level.HUNG) == hung]
            # From the corner unit, else from the tall end, else from the left.
            first = next((i for i, p in enumerate(cells) if p.leg > p.depth), None)
            found += cells if first is None or first == 0 else cells[first::-1] + cells[first + 1 :]
    return found


def order_table(w: Workings, room: RoomLayout, mark: str) -> Drawing | None:
    """The order of units, where each stands, what it weighs, and fillers that are scribed."""
    show = _lengths(w)
    weights = {p.cell: u.weight for p, u in w.made.units}
    rows = []
    for i, p in enumerate(in_order(room), 1):
        name = w.job.template(p.template).name
        words = f"{name}, scribed to the wall" if p.body is Body.FILLER else name
        weight = format_measure(weights.get(p.cell, 0.0), "kg", w.job.display) if weights.get(p.cell) else "–"
        rows.append([str(i), p.number or "–", words, p.wall_id, show(p.x), show(p.bottom), weight])
    heads = ("Order", "Unit", "What", "Wall", "From the left", "Underside", "Weight")
    return table_drawing(f"{room.room.name}, order of units", heads, rows, mark) if rows else None


def _lengths(w: Workings) -> Lengths:
    return lambda mm: format_length(mm, w.job.display)
