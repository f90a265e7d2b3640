"""The drawings of a job on sheets: plan and elevations, and the cutting plans."""

from __future__ import annotations

from tall_plank.drawing.board import board_drawing
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.plan import plan
from tall_plank.drawing.primitives import Drawing
from tall_plank.drawing.sheets import Sheet, lay_out
from tall_plank.drawing.shopmarks import NOTE
from tall_plank.workings import Workings


def room_drawings(w: Workings, room_id: str, *, shop: bool = False) -> list[tuple[str, Drawing]]:
    """The plan and the elevations of one room, by file name, for the client or for the shop; walls and faces with
    nothing on them are left out."""
    room = w.layout.room(room_id)
    found = [("plan", plan(w.job, room, w.made, shop=shop))]
    for wall in room.lines:
        busy = any(p.wall == wall.id for p in room.placed) or any(o.wall == wall.id for o in room.room.openings)
        if busy:
            found.append((f"elevation-{wall.id}", elevation(w.job, room, wall, w.made, shop=shop)))
    return found


def sheet_of(
    w: Workings, drawing: Drawing, number: int, of: int, date: str = "", *, shop: bool = False
) -> Sheet:  # fmt: skip
    """A drawing on A3 with the job's title block; for the shop it says so, and what its marks mean."""
    sheet = lay_out(drawing, ())
    block = (
        ("Job", f"{w.job.name} {w.job.number}".strip()),
        ("Client", w.job.client or "–"),
        ("Drawing", drawing.title),
        ("Sheet", f"{number} of {of}{', for the shop' if shop else ''}"),
        ("Scale", f"1:{sheet.scale:g}"),
        ("Date", date or "–"),
    )
    return Sheet(sheet.drawing, sheet.paper, sheet.scale, sheet.x, sheet.y, block, NOTE if shop else "")


def job_sheets(w: Workings, date: str = "", *, shop: bool = False) -> list[Sheet]:
    """Every plan and elevation of the job, for the client or with edging and joints for the shop."""
    drawings = [d for room in w.layout.rooms for _, d in room_drawings(w, room.room.id, shop=shop)]
    return [sheet_of(w, d, i, len(drawings), date, shop=shop) for i, d in enumerate(drawings, 1)]


def board_sheets(w: Workings, date: str = "") -> list[Sheet]:
    """Every board of the cutting plan."""
    boards = w.plan.boards
    sheets = []
    for i, b in enumerate(boards, 1):
        pieces = tuple((p.part, p.x, p.y, p.length, p.width) for p in b.placements)
        scale = lay_out(board_drawing(b.name, b.length, b.width, (), 1.0), ()).scale
        drawing = board_drawing(f"{b.title}, {b.used * 100:.0f} % used", b.length, b.width, pieces, scale, b.offcuts)
        sheets.append(sheet_of(w, drawing, i, len(boards), date))
    return sheets
