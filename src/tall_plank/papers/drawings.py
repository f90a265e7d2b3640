"""The drawings of a job on sheets: plan and elevations, cutting plans, bars."""

from __future__ import annotations

import msgspec

from tall_plank.drawing.bar import PITCH, BarPieceShown, BarShown, bar_drawing
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.part import part_drawing
from tall_plank.drawing.plan import plan as room_plan
from tall_plank.drawing.primitives import Drawing
from tall_plank.drawing.sheets import PAPER, SCALES, Sheet, lay_out
from tall_plank.drawing.shopmarks import NOTE
from tall_plank.measure import format_length
from tall_plank.shop.lengths import thing_of
from tall_plank.workings import Workings


def room_drawings(w: Workings, room_id: str, *, shop: bool = False) -> list[tuple[str, Drawing]]:
    """The plan and the elevations of one room, by file name, for the client or for the shop; walls and faces with
    nothing on them are left out."""
    room = w.layout.room(room_id)
    found = [("plan", room_plan(w.job, room, w.made, shop=shop))]
    for wall in room.lines:
        busy = any(p.wall_id == wall.id for p in room.placed) or any(o.wall == wall.id for o in room.room.openings)
        if busy:
            found.append((f"elevation-{wall.id}", elevation(w.job, room, wall, w.made, shop=shop)))
    return found


def sheet_of(w: Workings, drawing: Drawing, number: int, of: int, date: str = "", *, shop: bool = False) -> Sheet:
    """A drawing on the job's paper with its title block; for the shop it says so, and what its marks mean."""
    job, client = w.title, w.job.client
    sheet = lay_out(drawing, (), w.job.papers.drawings)
    block = (
        ("Job", job),
        ("Client", client or "–"),
        ("Drawing", drawing.title),
        ("Sheet", f"{number} of {of}{', for the shop' if shop else ''}"),
        ("Scale", f"1:{sheet.scale:g}"),
        ("Date", date or "–"),
    )
    return Sheet(sheet.drawing, sheet.paper, sheet.scale, sheet.x, sheet.y, block, NOTE if shop else "")


def job_sheets(w: Workings, date: str = "", *, shop: bool = False) -> list[Sheet]:
    """Every plan and elevation of the job, for the client or with edging and joints for the shop; for the shop every
    worktop and its legs besides, as boards."""
    drawings = [d for room in w.layout.rooms for _, d in room_drawings(w, room.room.id, shop=shop)]
    if shop:
        drawings += top_drawings(w)
    return [sheet_of(w, d, i, len(drawings), date, shop=shop) for i, d in enumerate(drawings, 1)]


TOP_ROLES = ("worktop", "waterfall leg")


def top_drawings(w: Workings) -> list[Drawing]:
    """Every worktop and waterfall leg as a board: its outline, cut-outs, banded and slanted edges, each with its
    figures."""
    tops = [item for item in w.made.parts() if not item.cell and item.part.role in TOP_ROLES]
    paper = w.job.papers.drawings
    return [_with_legend(part_drawing(item.number, item.part, w.job.display), paper) for item in tops]


LEGEND = 86.0
"""mm on paper that the legend of a part takes beside it."""


def _with_legend(drawing: Drawing, paper: str) -> Drawing:
    """The drawing with room for its legend, whose letters are as large at any scale."""
    wide = drawing
    for _ in range(3):
        wide = msgspec.structs.replace(drawing, x1=drawing.x1 + LEGEND * lay_out(wide, (), paper).scale)
    return wide


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
    most = min(BARS_A_SHEET, int((PAPER[w.job.papers.drawings][1] - 70.0) / PITCH))
    groups = [bars[i : i + most] for i in range(0, len(bars), most)]
    sheets = []
    for number, group in enumerate(groups, 1):
        longest = max(b.length for b in group)
        # Room within its frame and margins.
        wide, high = (a - b for a, b in zip(PAPER[w.job.papers.drawings], (56.0, 70.0), strict=True))
        scale = next((s for s in SCALES if longest / s <= wide and PITCH * len(group) <= high), SCALES[-1])
        sheets.append(sheet_of(w, bar_drawing("Bars", group, float(scale)), number, len(groups), date))
    return sheets
