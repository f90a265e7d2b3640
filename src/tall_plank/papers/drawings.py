"""The drawings of a job on sheets: plan and elevations, cutting plans, bars."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence

import msgspec

from tall_plank.drawing.bar import PITCH, BarPieceShown, BarShown, bar_drawing
from tall_plank.drawing.detail import detail_drawing
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.part import part_drawing
from tall_plank.drawing.plan import plan as room_plan
from tall_plank.drawing.primitives import Arc, Dim, Drawing, Line, Pen, Shape, Text
from tall_plank.drawing.roomsection import section_drawing
from tall_plank.drawing.sheets import SCALES, Block, Sheet, in_black, lay_out, room_of, share
from tall_plank.drawing.shopmarks import NOTE
from tall_plank.drawing.shows import FOR_CLIENT, FOR_SHOP, Shows, on_paper
from tall_plank.drawing.things.detail import detail_name
from tall_plank.drawing.things.section import section_name
from tall_plank.drawing.things.service import SERVICE_LETTERS
from tall_plank.drawing.veneer import NOTE as VENEER_NOTE
from tall_plank.job.sheetset import WALL
from tall_plank.measure import DisplayUnit, PlankError, format_length
from tall_plank.setout import RoomLayout
from tall_plank.shop.lengths import thing_of
from tall_plank.workings import Workings


def room_drawings(w: Workings, room_id: str, shows: Shows = FOR_CLIENT) -> list[tuple[str, Drawing]]:
    """The plan and the elevations of one room, by file name; walls and faces with nothing on them are left out."""
    room, shows = w.layout.room(room_id), on_paper(shows)
    found = [("plan", room_plan(w.job, room, w.made, chains=True, shows=shows))]
    for wall in room.lines:
        if wall.id in busy_walls(room):
            drawing = elevation(w.job, room, wall, w.made, shows=shows)
            drawing = msgspec.structs.replace(drawing, key=f"{room_id}:{WALL}{wall.id}")
            found.append((f"elevation-{wall.mark}", drawing))
    for section in room.room.sections:
        name = section_name(room.room, section)
        drawing = section_drawing(w.job, room, w.made, section)
        drawing = msgspec.structs.replace(drawing, key=f"{room_id}:{section.id}")
        found.append((f"section-{name[0]}", drawing))
    for detail in room.room.details:
        if room.has_line(detail.wall):
            drawing = detail_drawing(w.job, room, room.wall(detail.wall), w.made, detail, shows)
            drawing = msgspec.structs.replace(drawing, key=f"{room_id}:{detail.id}")
            found.append((f"detail-{detail_name(room.room, detail)}", drawing))
    number = next(i for i, r in enumerate(w.job.rooms, 1) if r.id == room_id)
    return [(name, msgspec.structs.replace(d, mark=f"{number}{d.mark}")) for name, d in found]


CLIENT, SHOP = "Client drawing", "Shop drawing"
"""Kinds of sheets."""

UNITS = {
    DisplayUnit.MM: "mm", DisplayUnit.CM: "cm", DisplayUnit.INCH: "inches, decimal",
    DisplayUnit.FRACTION_16: "inches in 1/16", DisplayUnit.FRACTION_32: "inches in 1/32",
    DisplayUnit.FEET: "feet and inches",
}  # fmt: skip
"""What lengths are told in, in words."""


def busy_walls(room: RoomLayout) -> frozenset[str]:
    """Walls and faces that have something to be built or set out from: units, openings, columns, services, moldings,
    wall fields, slopes with what is in them."""
    r = room.room
    found = {p.wall_id for p in room.placed}
    found |= {thing.wall for things in (r.openings, r.columns, r.services, r.slopes) for thing in things if thing.wall}
    found |= {piece.wall_id for piece in room.moldings if piece.kind != "skirting"}
    found |= {s.wall for s in r.slopes for w in r.roof_windows if w.slope == s.id}
    found |= {wall.id for wall in room.walls if wall.profile} | {f.wall_id for f in room.fields}
    return frozenset(found)


def block_of(
    w: Workings, title: str, mark: str, *, kind: str = CLIENT, number: int = 1, of: int = 1, date: str = ""
) -> Block:
    """The title block of a sheet.

    Parameters
    ----------
    mark : what its number ends with; it stays the same as long as the sheet is about the same thing
    """
    job = w.job
    whole = "-".join(t for t in (job.number, f"S{mark}" if kind == SHOP else mark) if t)
    return Block(
        title,
        owner=job.papers.firm,
        job=job.name,
        client=job.client,
        kind=kind,
        number=whole,
        sheet=f"{number} of {of}",
        creator=job.papers.creator,
        approved=job.papers.approver,
        date=date,
        units=UNITS[job.display],
    )


def with_logo(w: Workings, sheet: Sheet) -> Sheet:
    """A sheet with the shop's mark, where it has one."""
    logo = next((p for p in w.job.pictures if p.name == w.job.papers.logo), None)
    if logo is None:
        return sheet
    return msgspec.structs.replace(sheet, logo=logo.data, logo_ratio=logo.wide / logo.high)


def sheet_of(w: Workings, drawing: Drawing, number: int, of: int, date: str = "", *, shop: bool = False) -> Sheet:
    """A drawing on the job's paper with its title block; for the shop it says so, and what its marks mean."""
    kind = SHOP if shop else CLIENT
    block = block_of(w, drawing.title, drawing.mark, kind=kind, number=number, of=of, date=date)
    notes = notes_of([drawing], w.job.display, shop=shop)
    sheet = with_logo(w, lay_out(drawing, block, w.job.papers.drawings, notes))
    return in_black(sheet) if w.job.papers.ink == "black" else sheet


BROKEN = {
    Pen.DASHED: "dashed: hidden behind", Pen.ABOVE: "long strokes: above",
    Pen.MOVING: "strokes and two dots: how it moves",
}  # fmt: skip
"""What broken lines mean."""


VENEER = re.compile(r"[→←↑↓] V\d+\.\d+")


def notes_of(drawings: Sequence[Drawing], display: DisplayUnit, *, shop: bool = False) -> tuple[str, ...]:
    """What the marks on drawings mean, as far as they are on them, and what lengths are told in."""
    items = [i for d in drawings for i in d.items]
    texts = [i.text for i in items if isinstance(i, Text)]
    words = [*texts, *(i.text for i in items if isinstance(i, Dim))]
    pens = {i.pen for i in items if isinstance(i, Line | Shape | Arc)}
    notes = [f"Lengths in {UNITS[display]}."]
    if any(t.startswith("~") for t in words):
        notes[0] += " ~ is rounded; figures of a chain add up to the whole."
    if any("×" in i.text for i in items if isinstance(i, Dim)):
        notes[0] += " 4 × 32: so many equal steps."
    broken = [words for pen, words in BROKEN.items() if pen in pens]
    if broken:
        notes.append(f"{'; '.join(broken)}.".capitalize())
    if any(t.endswith("*") for t in texts):
        notes.append("* differs from its kind and the shop standard.")
    if any(VENEER.fullmatch(t) for t in texts):
        notes.append(VENEER_NOTE)
    marks = [f"{letter} {word}" for word, letter in SERVICE_LETTERS.items() if letter in texts]
    if marks:
        notes.append(f"Services: {', '.join(marks)}.")
    if shop:
        notes.append(NOTE)
    return tuple(notes)


def job_sheets(w: Workings, date: str = "", *, shop: bool = False) -> list[Sheet]:
    """Every plan and elevation of the job, for the client or with edging and joints for the shop, what fills no sheet
    beside others of its room; for the shop every worktop and its legs besides, as boards."""
    found: list[Sheet] = []
    for room in w.layout.rooms:
        found += share(
            [d for _, d in room_drawings(w, room.room.id, FOR_SHOP if shop else FOR_CLIENT)], w.job.papers.drawings
        )
    if shop:
        found += [lay_out(d, paper=w.job.papers.drawings) for d in top_drawings(w)]
    return [titled(w, sheet, i, len(found), date, shop=shop) for i, sheet in enumerate(found, 1)]


def titled(w: Workings, sheet: Sheet, number: int, of: int, date: str, *, shop: bool) -> Sheet:
    """A sheet laid out, with its title block and notes."""
    drawings = [v.drawing for v in sheet.views]
    titles = [d.title for d in drawings]
    first = titles[0]
    rest = [t.removeprefix(first.split(", ")[0] + ", ") for t in titles[1:]]
    kind = SHOP if shop else CLIENT
    block = block_of(w, ", ".join([first, *rest]), drawings[0].mark, kind=kind, number=number, of=of, date=date)
    notes = notes_of(drawings, w.job.display, shop=shop)
    whole = with_logo(w, msgspec.structs.replace(sheet, block=block, notes=notes))
    return in_black(whole) if w.job.papers.ink == "black" else whole


Tell = Callable[[str], bool]
"""Told what is being drawn; returning False stops the work."""


class StoppedError(PlankError):
    """The work was stopped before its end."""

    def __init__(self) -> None:
        super().__init__("The drawings were stopped.", "drawings", "Choose the set again.")


def go_on(tell: Tell, name: str) -> None:
    """Say what is being drawn.

    Raises
    ------
    StoppedError
    """
    if not tell(name):
        raise StoppedError


def quietly(_name: str) -> bool:
    """Nobody is told."""
    return True


TOP_ROLES = ("worktop", "waterfall leg")


def top_drawings(w: Workings) -> list[Drawing]:
    """Every worktop and waterfall leg as a board: its outline, cut-outs, banded and slanted edges, each with its
    figures."""
    tops = [item for item in w.made.parts() if not item.cell and item.part.role in TOP_ROLES]
    return [part_drawing(item.number, item.part, w.job.display) for item in tops]


BARS_A_SHEET = 14
"""Bars on one sheet."""


def bars_shown(w: Workings, kind: str = "") -> list[BarShown]:
    """Every bar that is cut, or those of one kind in words (rails, worktops), as it is drawn."""
    display = w.job.display
    angles = {m.number: (m.left, m.right) for m in w.made.lengths}
    found = []
    for number, bar in enumerate(w.bars.bars, 1):
        thing = thing_of(w.job.stock, bar.profile, w.job.cutting)
        if kind and thing.kind != kind:
            continue
        at = thing.trim
        pieces = []
        for name, mm in bar.pieces:
            pieces.append(BarPieceShown(name, at, mm, format_length(mm, display), *angles.get(name, (0.0, 0.0))))
            at += mm + thing.kerf
        head = f"{number} · {thing.name} · {format_length(bar.length, display)}"
        found.append(BarShown(head, bar.length, tuple(pieces), bar.length - at, format_length(bar.left, display)))
    return found


def bar_kinds(w: Workings) -> tuple[str, ...]:
    """Kinds of things that are cut from bars, in the order of the plan."""
    return tuple(dict.fromkeys(thing_of(w.job.stock, b.profile, w.job.cutting).kind for b in w.bars.bars))


def bar_sheets(w: Workings, date: str = "") -> list[Sheet]:
    """The bars of the job, some to a sheet."""
    bars = bars_shown(w)
    paper = w.job.papers.drawings
    room = room_of(paper)
    most = min(BARS_A_SHEET, int((room.height - 8.0) / PITCH))
    groups = [bars[i : i + most] for i in range(0, len(bars), most)]
    sheets = []
    for number, group in enumerate(groups, 1):
        longest = max(b.length for b in group)
        scale = float(next((s for s in SCALES if longest / s <= room.width - 12.0), SCALES[-1]))
        block = block_of(w, "Bars", f"B{number}", kind=SHOP, number=number, of=len(groups), date=date)
        notes = notes_of((), w.job.display)
        sheets.append(lay_out(bar_drawing("Bars", group, scale), block, paper, notes))
    return sheets
