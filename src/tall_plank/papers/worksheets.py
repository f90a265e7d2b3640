"""Work sheets of the saw: each layout on its page with its board, its cuts as they are set, its offcuts; and the cuts
of a whole plan as one list."""

from __future__ import annotations

from tall_plank.drawing.board import CutMark, board_drawing
from tall_plank.drawing.primitives import Drawing
from tall_plank.job.cutting import Cutting, LaidBoard
from tall_plank.measure import DisplayUnit, format_length
from tall_plank.papers.tables import Column, Table, Value
from tall_plank.shop.boards import Plan, offcuts_of
from tall_plank.shop.sawsteps import Pack, SawStep, offcut_mark, packs_of, saw_steps
from tall_plank.stock import Stock

ORDERS = {
    "beam": "A turn is done on all its pieces before the next.",
    "panel": "Each strip is cut up as soon as it is off the board.",
}
"""Kind of saw -> the order of its cuts, in words."""

STEP_COLUMNS = (
    Column("step", "Cut", "count", wide=0.5),
    Column("turn", "Turn", "count", wide=0.5),
    Column("hand", "In hand", wide=1.0),
    Column("runs", "Runs", wide=0.8),
    Column("measure", "Stop", "length", wide=0.9),
    Column("falls", "Falls", wide=2.0),
    Column("long", "Length", "length", wide=0.9),
    Column("wide", "Width", "length", wide=0.9),
    Column("rest", "Then left", wide=1.6),
)


def cut_marks(number: int, b: LaidBoard, plan: Plan, saw: Cutting) -> tuple[CutMark, ...]:
    """The cuts of a board in their order, as its sheet has them; none where it is for the router."""
    steps = saw_steps(number, b, plan, saw) if saw.mode == "saw" else None
    marks = []
    for step in steps or ():
        x0, y0, x1, y1 = step.cut.piece
        at = step.cut.at + plan.kerf / 2
        place = (x0, at, x1 - x0) if step.along else (at, y0, y1 - y0)
        marks.append(CutMark(step.number, step.turn, step.along, *place))
    return tuple(marks)


def work_sheets(
    plan: Plan, saw: Cutting, stock: Stock, display: DisplayUnit
) -> tuple[list[Table], list[Drawing | None]]:
    """A page for each layout of a plan: its board drawn with its cuts, and a row for each cut."""
    tables: list[Table] = []
    pictures: list[Drawing | None] = []
    for pack in packs_of(plan, saw, stock):
        number = pack.boards[0]
        b = plan.boards[number - 1]
        pieces = tuple((p.part, p.x, p.y, p.length, p.width) for p in b.parts)
        scale = max(b.length / 160.0, b.width / 100.0)
        marks = cut_marks(number, b, plan, saw)
        left = offcuts_of(b, plan, saw)
        offcuts = tuple(offcut_mark(number, i) for i in range(len(left)))
        pictures.append(board_drawing(b.title, b.length, b.width, pieces, scale, left, marks, offcuts, display))
        tables.append(_sheet(pack, plan, saw, display))
    return tables, pictures


def _sheet(pack: Pack, plan: Plan, saw: Cutting, display: DisplayUnit) -> Table:
    number = pack.boards[0]
    b = plan.boards[number - 1]
    steps = saw_steps(number, b, plan, saw) if saw.mode == "saw" else None
    names = _names(pack, plan)

    def mm(value: float) -> str:
        return format_length(value, display)

    size = f"{mm(b.length)} × {mm(b.width)}"
    inner = f"{mm(b.length - 2 * plan.trim)} × {mm(b.width - 2 * plan.trim)}"
    said = f"{b.title}, {size}, {b.used * 100:.0f} % used"
    if saw.mode == "saw":
        said += f"; kerf {mm(plan.kerf)}; trimmed by {mm(plan.trim)} on all four sides to {inner}"
    if len(pack.boards) > 1:
        said += f"; {_packs_said(pack)}"
    offcuts = "; ".join(
        f"{offcut_mark(number, i)} {mm(long)} × {mm(wide)}"
        for i, (_, _, long, wide) in enumerate(offcuts_of(b, plan, saw))
    )
    note = [ORDERS[saw.sawn_on] if steps else "For the router: see its program.", "Each measure is from the stop."]
    rack = "To the rack" if len(pack.boards) == 1 else "To the rack, from each board"
    note += [f"{rack}: {offcuts}."] if offcuts else []
    title = f"Board {number}" if len(pack.boards) == 1 else f"Boards {', '.join(map(str, pack.boards))}"
    rows = tuple(_row(s, names, display) for s in steps or ())
    if steps is not None and not steps:
        rows = ((None, None, "board", "", None, _falls(b.parts[0].part, names), b.length, b.width, "whole board"),)
    if steps is None:
        columns = (
            Column("part", "Part", wide=1.0),
            Column("x", "From the end", "length"),
            Column("y", "From the edge", "length"),
            Column("long", "Length", "length"),
            Column("wide", "Width", "length"),
        )
        rows = tuple((p.part, p.x, p.y, p.length, p.width) for p in b.parts)
        return Table(title, said, columns, rows, note=note[0])
    return Table(title, said, STEP_COLUMNS, rows, note=" ".join(note))


def _packs_said(pack: Pack) -> str:
    boards, packs = len(pack.boards), pack.packs
    if packs == 1:
        return f"{boards} boards in one pack"
    rest = boards - pack.at_once * (packs - 1)
    last = "" if rest == pack.at_once else f", the last of {rest}"
    return f"{boards} boards in {packs} packs of {pack.at_once}{last}" if pack.at_once > 1 else f"{boards} boards alike"


def _names(pack: Pack, plan: Plan) -> dict[str, str]:
    """A part of the first board -> the parts that fall with it from all boards of the pack."""
    rows = [
        [p.part for p in sorted(plan.boards[n - 1].parts, key=lambda p: (round(p.x, 1), round(p.y, 1)))]
        for n in pack.boards
    ]
    return {same[0]: ", ".join(same) for same in zip(*rows, strict=True)}


def _falls(name: str, names: dict[str, str]) -> str:
    return names.get(name, name)


def _row(s: SawStep, names: dict[str, str], display: DisplayUnit) -> tuple[Value, ...]:
    rest = ""
    if s.last:
        rest = f"{_falls(s.rest, names)} {format_length(s.rest_size, display)}" if s.rest else "nothing left"
    way = "along" if s.along else "across"
    return (s.number, s.turn, s.hand, way, s.measure, _falls(s.falls, names), *s.fallen, rest)


def saw_cuts_of(plan: Plan, saw: Cutting, stock: Stock, display: DisplayUnit) -> Table:
    """The cuts of a plan, layout by layout in the order in which they are set."""
    columns = (
        Column("board", "Boards", wide=0.8, groups=True),
        Column("name", "Material", wide=1.6, groups=True),
        Column("packs", "Packs", "count", wide=0.5),
        *STEP_COLUMNS,
    )
    rows: list[tuple[Value, ...]] = []
    turns = cuts = 0
    for pack in packs_of(plan, saw, stock):
        b = plan.boards[pack.boards[0] - 1]
        numbers = ", ".join(map(str, pack.boards))
        steps = saw_steps(pack.boards[0], b, plan, saw) if saw.mode == "saw" else None
        if steps is None:
            rows.append((numbers, b.title, pack.packs, None, None, "", "for the router", None, "", None, None, ""))
            continue
        turns = max(turns, *(s.turn for s in steps), 0)
        cuts += len(steps) * pack.packs
        names = _names(pack, plan)
        rows += [(numbers, b.title, pack.packs, *_row(s, names, display)) for s in steps]
    note = f"Each board is trimmed on four sides first. {ORDERS[saw.sawn_on]} Measures are from the stop."
    return Table("Saw cuts", f"{cuts} cuts in at most {turns} turns", columns, tuple(rows), note=note)
