"""A simple cutting plan: strips across the board, edge-to-edge cuts only. Valid, not the best.

Each board is first cut into strips along its length, each strip into pieces, and a piece narrower than its strip
is cut to width last: three turns of a saw that cuts from edge to edge.
"""

from __future__ import annotations

from dataclasses import dataclass, field

import msgspec

from tall_plank.job.cutting import Cutting, KeptPlan, LaidBoard, LaidPart, share_used, worth_keeping
from tall_plank.making import MadeJob
from tall_plank.measure.remembered import remembered
from tall_plank.shop.nesting.cuts import Sawn, sawn
from tall_plank.shop.nesting.kept import by_stock
from tall_plank.shop.nesting.request import NestPlan
from tall_plank.stock import Board, Stock
from tall_plank.stock.models import SAW_TRIM


class Piece(msgspec.Struct, frozen=True):
    """A piece to cut: cut sizes in mm; with grain it may not be turned."""

    part: str
    length: float
    width: float
    grain: bool


class Plan(msgspec.Struct, frozen=True):
    """The cutting plan of a job as it is shown and printed.

    Attributes
    ----------
    boards : each with its own name as material
    unplaced : parts larger than their board
    kerf, trim : mm
    """

    boards: tuple[LaidBoard, ...]
    unplaced: tuple[str, ...]
    kerf: float
    trim: float

    @property
    def new(self) -> int:
        """Boards that are no offcuts."""
        return sum(not b.rack for b in self.boards)

    @property
    def used(self) -> float:
        """Yield: area of the parts over the full area of the boards."""
        return share_used(self.boards)


KERF, TRIM = 3.2, SAW_TRIM  # mm


def plan_from(found: NestPlan, stock: Stock, kerf: float, trim: float) -> Plan:
    """A plan that was searched for, to be shown and printed. `kerf`, `trim`: mm."""
    return Plan(_named(by_stock(found.boards), stock), tuple(u.part for u in found.unplaced), kerf, trim)


def plan_kept(plan: KeptPlan, stock: Stock, kerf: float, trim: float) -> Plan:
    """A plan that was kept in the job. `kerf`, `trim`: mm."""
    return Plan(_named(plan.boards, stock), (), kerf, trim)


def _named(boards: tuple[LaidBoard, ...], stock: Stock) -> tuple[LaidBoard, ...]:
    """Each with the name of its own board, where the stock has it: what was searched for bears the make's."""
    names = {b.code: b.name for b in stock.boards}
    return tuple(msgspec.structs.replace(b, material=names.get(b.board, b.material)) for b in boards)


def cuts_of(b: LaidBoard, plan: Plan, saw: Cutting) -> Sawn | None:
    """How a board is sawn, once it is trimmed; None where edge-to-edge cuts do not part it."""
    area = (plan.trim, plan.trim, b.length - plan.trim, b.width - plan.trim)
    boxes = tuple((p.x, p.y, p.x + p.length, p.y + p.width) for p in b.parts)
    return sawn(boxes, area, plan.kerf, saw.first_cut, saw.turns)


def offcuts_of(b: LaidBoard, plan: Plan, saw: Cutting) -> tuple[tuple[float, float, float, float], ...]:
    """What is left of a board and worth keeping: (x, y, length, width), mm; as its plan says, or as it is sawn."""
    if b.offcuts or saw.mode != "saw":
        return b.offcuts
    found = cuts_of(b, plan, saw)
    boxes = [(x0, y0, x1 - x0, y1 - y0) for x0, y0, x1, y1 in (found.left if found else ())]
    return tuple(o for o in boxes if worth_keeping(o[2], o[3], saw.keep_length, saw.keep_width))


@dataclass
class _Strip:
    y: float
    height: float
    x: float
    placed: list[LaidPart] = field(default_factory=list)


@dataclass
class _Open:
    strips: list[_Strip] = field(default_factory=list)
    y: float = 0.0


def cut_plan(made: MadeJob, stock: Stock, kerf: float = KERF, trim: float = TRIM) -> Plan:
    """Plans for every material of the job; the same job gives the same plan. `kerf`, `trim`: mm."""
    by_board: dict[str, list[Piece]] = {}
    for item in made.parts():
        p = item.part
        piece = Piece(item.number, p.cut_length, p.cut_width, p.grain == "length")
        by_board.setdefault(p.board, []).append(piece)
    boards: list[LaidBoard] = []
    unplaced: list[str] = []
    for code in sorted(by_board):
        board = stock.board_by_code(code)
        assert board is not None  # parts are cut from stock only
        if not board.planned:
            continue
        # A material whose pieces did not change keeps its plan.
        done, left = plan_board(board, tuple(by_board[code]), kerf, trim)
        boards += done
        unplaced += left
    return Plan(tuple(boards), tuple(unplaced), kerf, trim)


@remembered(128)
def plan_board(
    board: Board, pieces: tuple[Piece, ...], kerf: float, trim: float
) -> tuple[tuple[LaidBoard, ...], tuple[str, ...]]:
    """Place pieces on as many boards of one kind as needed: widest first, first strip that takes it. `kerf`,
    `trim`: mm."""
    length, width = board.length - 2 * trim, board.width - 2 * trim
    todo: list[tuple[float, float, str, bool]] = []
    unplaced: list[str] = []
    for piece in pieces:
        turned = not piece.grain and (piece.width > piece.length or piece.width > width)
        turned = turned and piece.width <= length and piece.length <= width
        long, wide = (piece.width, piece.length) if turned else (piece.length, piece.width)
        if long > length + 1e-9 or wide > width + 1e-9:
            unplaced.append(piece.part)
        else:
            todo.append((wide, long, piece.part, turned))
    todo.sort(key=lambda t: (-t[0], -t[1], t[2]))
    opened: list[_Open] = []
    for wide, long, part, turned in todo:
        if not any(_put(o, wide, long, part, turned, length, width, kerf, trim) for o in opened):
            opened.append(_Open())
            _put(opened[-1], wide, long, part, turned, length, width, kerf, trim)
    boards = tuple(
        LaidBoard(board.code, board.name, board.length, board.width, tuple(p for s in o.strips for p in s.placed))
        for o in opened
    )
    return boards, tuple(unplaced)


def _put(
    o: _Open, wide: float, long: float, part: str, turned: bool, length: float, width: float, kerf: float, trim: float
) -> bool:
    for strip in o.strips:
        if wide <= strip.height + 1e-9 and strip.x + long <= length + 1e-9:
            strip.placed.append(LaidPart(part, trim + strip.x, trim + strip.y, long, wide, turned))
            strip.x += long + kerf
            return True
    if o.y + wide > width + 1e-9:
        return False
    strip = _Strip(o.y, wide, long + kerf, [LaidPart(part, trim, trim + o.y, long, wide, turned)])
    o.strips.append(strip)
    o.y += wide + kerf
    return True
