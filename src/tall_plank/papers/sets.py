"""Sets of sheets: for the client who signs, the site that is set out, the shop that builds, those who install. A set is
laid out by itself, anew whenever the job changes; its sheets keep their numbers."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import msgspec

from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.plan import plan
from tall_plank.drawing.primitives import Drawing
from tall_plank.drawing.sheets import Sheet, in_black, share
from tall_plank.drawing.tabledrawing import BLANK, in_pieces, table_drawing
from tall_plank.drawing.workflow import workflow
from tall_plank.job import Body, Job, Level, Room
from tall_plank.measure import format_length, format_measure
from tall_plank.measure.frames import FloorPoint
from tall_plank.papers.assembly import assembly_sheets
from tall_plank.papers.drawings import (
    Tell,
    block_of,
    busy_walls,
    go_on,
    notes_of,
    quietly,
    room_drawings,
)
from tall_plank.papers.partsheets import part_sheets
from tall_plank.papers.unitsheets import unit_sheets
from tall_plank.setout import Placed, RoomLayout
from tall_plank.setout.rooms import ceiling_at
from tall_plank.workings import Workings

KINDS = {
    "client": "Client drawing", "site": "Site drawing", "shop": "Shop drawing", "installer": "Installer's drawing",
}  # fmt: skip
"""Sets, and what the block of their sheets says."""

LETTERS = {"client": "C", "site": "S", "shop": "W", "installer": "I"}
"""What the numbers of a set's sheets begin with (W: the workshop)."""

ROWS = 34
"""Rows of a table on one sheet."""

Lengths = Callable[[float], str]


def set_sheets(w: Workings, kind: str, date: str = "", tell: Tell = quietly) -> list[Sheet]:
    """Every sheet of a set, its index first.

    Raises
    ------
    KeyError for another kind of set, StoppedError where `tell` says so
    """
    make = {"client": client_sheets, "site": site_sheets, "shop": shop_sheets, "installer": installer_sheets}[kind]
    bare = make(w, tell)
    paper = w.job.papers.drawings
    numbers = _numbers(bare, w, kind)
    rows = [[n, _title(s), s.scales or "–"] for n, s in zip(numbers, bare, strict=True)]
    heads = ("Number", "Title", "Scale")
    index = [table_drawing(f"Index, {KINDS[kind].lower()}s", heads, piece, "0") for piece in in_pieces(rows, ROWS)]
    front = share(index, paper)
    found = [*front, *bare]
    marks = [*(f"{LETTERS[kind]}0.{i}" for i in range(len(front))), *numbers]
    made = []
    for i, (sheet, mark) in enumerate(zip(found, marks, strict=True), 1):
        title = sheet.title if sheet.block.owner else _title(sheet)
        block = block_of(w, title, mark, number=i, of=len(found), date=date)
        block = msgspec.structs.replace(block, kind=KINDS[kind], units=sheet.block.units or block.units)
        notes = sheet.notes
        if not notes and not all(v.drawing.is_words for v in sheet.views):
            notes = notes_of([v.drawing for v in sheet.views], w.job.display, shop=kind == "shop")
        whole = msgspec.structs.replace(sheet, block=block, notes=notes)
        made.append(in_black(whole) if w.job.papers.ink == "black" else whole)
    return made


def _numbers(sheets: Sequence[Sheet], w: Workings, kind: str) -> list[str]:
    """A number for each sheet that follows from what is on it, not from its place."""
    seen: dict[str, int] = {}
    found = []
    for sheet in sheets:
        own = sheet.block.number.split("-")[-1].lstrip("S") if sheet.block.owner or sheet.block.number else ""
        mark = own or sheet.views[0].drawing.mark
        seen[mark] = seen.get(mark, 0) + 1
        found.append(f"{LETTERS[kind]}{mark}" + (f".{seen[mark]}" if seen[mark] > 1 else ""))
    return found


def _title(sheet: Sheet) -> str:
    if sheet.block.title:
        return sheet.block.title
    titles = [v.drawing.title for v in sheet.views if not v.drawing.is_words]
    titles = titles or [v.drawing.title for v in sheet.views]
    first = titles[0]
    place = first.split(", ")[0] + ", "
    return ", ".join(dict.fromkeys([first, *(t.removeprefix(place) for t in titles[1:] if t != first)]))


def _room_number(job: Job, room: Room) -> int:
    return next(i for i, r in enumerate(job.rooms, 1) if r.id == room.id)


def _marked(drawing: Drawing, mark: str) -> Drawing:
    return msgspec.structs.replace(drawing, mark=mark)


# --- for the client


def client_sheets(w: Workings, tell: Tell = quietly) -> list[Sheet]:
    """Plan and elevations of each room, what it is finished in, its worktops, and room for a signature."""
    paper = w.job.papers.drawings
    found: list[Sheet] = []
    for room in w.layout.rooms:
        go_on(tell, room.room.name)
        n = _room_number(w.job, room.room)
        drawings = [d for name, d in room_drawings(w, room.room.id) if not name.startswith("section")]
        drawings[0] = msgspec.structs.replace(drawings[0], items=(*drawings[0].items, *workflow(w.job, room, w.made)))
        tables = [t for t in (finishes_table(w, room, f"{n}F"), worktops_table(w, room, f"{n}T")) if t is not None]
        found += share([*drawings, *tables], paper)
    sign = table_drawing(
        "Approval", ("What", "Name", "Date", "Signature"),
        [["These drawings are what was agreed.", BLANK, BLANK, BLANK]], "A",
    )  # fmt: skip
    return [*found, *share([sign], paper)]


def finishes_table(w: Workings, room: RoomLayout, mark: str) -> Drawing | None:
    """What carcasses, fronts, worktops and trims of a room are finished in, and where."""
    where: dict[tuple[str, str], list[str]] = {}
    for p, unit in w.made.units:
        if p.room == room.room.id and unit.shown:
            where.setdefault(("Fronts", unit.spec.front), []).append(p.number)
            where.setdefault(("Carcasses", unit.spec.carcass), []).append(p.number)
    for top in room.worktops:
        where.setdefault(("Worktops", top.finish), []).append(room.wall(top.wall_id).title.split(",")[0])
    rows = []
    for (what, code), numbers in sorted(where.items()):
        finish = w.job.stock.finish(code)
        rows.append([what, finish.name if finish else code or "–", ", ".join(dict.fromkeys(numbers))])
    return table_drawing(f"{room.room.name}, finishes", ("What", "Finish", "Where"), rows, mark) if rows else None


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


def site_sheets(w: Workings, tell: Tell = quietly) -> list[Sheet]:
    """Setting out from one datum, services, ceiling and levels to be measured, what is hung on which line."""
    found: list[Sheet] = []
    for room in w.layout.rooms:
        go_on(tell, room.room.name)
        n = _room_number(w.job, room.room)
        tables = [setting_out_table(w, room, f"{n}O"), levels_table(w, room, f"{n}L")]
        tables += [t for t in (fixing_table(w, room, f"{n}H"), others_table(w, room, f"{n}B")) if t is not None]
        found += share([_marked(setting_out(w, room), f"{n}P"), *tables], w.job.papers.drawings)
    return found


def setting_out(w: Workings, room: RoomLayout) -> Drawing:
    """The plan of a room without what is built in it."""
    bare_room = msgspec.structs.replace(room.room, runs=(), islands=(), sections=(), use="")
    bare = RoomLayout(bare_room, room.walls, (), (), (), points=room.points)
    drawing = plan(w.job, bare, w.made, chains=True)
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


def shop_sheets(w: Workings, tell: Tell = quietly) -> list[Sheet]:
    """Plans, elevations and sections with edging and joints; unit sheets, assembly, parts: worktops too."""
    found: list[Sheet] = []
    for room in w.layout.rooms:
        go_on(tell, room.room.name)
        found += share([d for _, d in room_drawings(w, room.room.id, shop=True)], w.job.papers.drawings)
    found += unit_sheets(w, tell=tell)
    found += assembly_sheets(w, tell=tell)
    return [*found, *part_sheets(w, tell=tell)]


# --- for those who install


def installer_sheets(w: Workings, tell: Tell = quietly) -> list[Sheet]:
    """A numbered key plan with what hangs, elevations with heights, the order of units with their scribes."""
    found: list[Sheet] = []
    for room in w.layout.rooms:
        go_on(tell, room.room.name)
        n = _room_number(w.job, room.room)
        drawings = [_marked(plan(w.job, room, w.made, chains=True), f"{n}P")]
        busy = busy_walls(room)
        for wall in room.lines:
            if wall.id in busy:
                drawings.append(_marked(elevation(w.job, room, wall, w.made), f"{n}{wall.id}"))
        order = order_table(w, room, f"{n}U")
        found += share([*drawings, *([order] if order is not None else [])], w.job.papers.drawings)
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
