"""A simple cutting plan: strips across the board, edge-to-edge cuts only. Valid, not the best.

Each board is first cut into strips along its length, each strip into pieces, and a piece narrower than its strip
is cut to width last: three turns of a saw that cuts from edge to edge.
"""

from __future__ import annotations

from dataclasses import dataclass, field

import msgspec

from tall_plank.job.cutting import Cutting, KeptPlan
from tall_plank.making import MadeJob
from tall_plank.measure.remembered import remembered
from tall_plank.shop.nesting.cuts import Sawn, sawn
from tall_plank.shop.nesting.job import board_and_rack
from tall_plank.shop.nesting.request import NestPlan
from tall_plank.stock import Board, Stock
from tall_plank.stock.models import SAW_TRIM


class Piece(msgspec.Struct, frozen=True):
    """A piece to cut: cut sizes in mm; with grain it may not be turned."""

    part: str
    length: float
    width: float
    grain: bool


class Placement(msgspec.Struct, frozen=True):
    """A piece on a board: x along the board's length, y its width, from a corner of the untrimmed board, mm."""

    part: str
    x: float
    y: float
    length: float
    width: float
    turned: bool
    angle: float = 0.0
    """Degrees that it is turned by; 0 with `turned`: a quarter."""


class CutBoard(msgspec.Struct, frozen=True):
    """One board with its pieces."""

    board: str
    name: str
    length: float
    width: float
    placements: tuple[Placement, ...]
    offcuts: tuple[tuple[float, float, float, float], ...] = ()
    """x, y, length, width of what is left and worth keeping, mm."""
    rack: int = 0
    """Number of the offcut that it is; 0: a new board."""

    @property
    def title(self) -> str:
        """Its material, and which offcut it is."""
        return f"{self.name}, offcut {self.rack}" if self.rack else self.name

    @property
    def used(self) -> float:
        """Share of the full area that parts take."""
        return sum(p.length * p.width for p in self.placements) / (self.length * self.width)


class Plan(msgspec.Struct, frozen=True):
    """Cutting plans of a job. `unplaced` are parts larger than their board."""

    boards: tuple[CutBoard, ...]
    unplaced: tuple[str, ...]
    kerf: float
    trim: float

    @property
    def new(self) -> int:
        """Boards that are no offcuts."""
        return sum(not b.rack for b in self.boards)

    @property
    def used(self) -> float:
        area = sum(b.length * b.width for b in self.boards)
        return sum(b.used * b.length * b.width for b in self.boards) / area if area else 0.0


KERF, TRIM = 3.2, SAW_TRIM  # mm


def plan_from(found: NestPlan, stock: Stock, kerf: float, trim: float) -> Plan:
    """A plan that was searched for, to be shown and printed. `kerf`, `trim`: mm."""
    return Plan(
        tuple(
            CutBoard(
                code,
                _name(stock, code, b.material),
                b.length,
                b.width,
                tuple(Placement(p.part, p.x, p.y, p.length, p.width, p.turned, p.angle) for p in b.placements),
                tuple((o.x, o.y, o.length, o.width) for o in b.offcuts),
                rack,
            )
            for b in found.boards
            for code, rack in (board_and_rack(b.board),)
        ),
        tuple(u.part for u in found.unplaced),
        kerf,
        trim,
    )


def plan_kept(plan: KeptPlan, stock: Stock, kerf: float, trim: float) -> Plan:
    """A plan that was kept in the job. `kerf`, `trim`: mm."""
    return Plan(
        tuple(
            CutBoard(
                b.board,
                _name(stock, b.board, b.material),
                b.length,
                b.width,
                tuple(Placement(p.part, p.x, p.y, p.length, p.width, p.turned, p.angle) for p in b.parts),
                b.offcuts,
                b.rack,
            )
            for b in plan.boards
        ),
        (),
        kerf,
        trim,
    )


def cuts_of(b: CutBoard, plan: Plan, saw: Cutting) -> Sawn | None:
    """How a board is sawn, once it is trimmed; None where edge-to-edge cuts do not part it."""
    area = (plan.trim, plan.trim, b.length - plan.trim, b.width - plan.trim)
    boxes = tuple((p.x, p.y, p.x + p.length, p.y + p.width) for p in b.placements)
    return sawn(boxes, area, plan.kerf, saw.first_cut, saw.turns)


def _name(stock: Stock, code: str, material: str) -> str:
    board = stock.board_by_code(code)
    return board.name if board is not None else material


@dataclass
class _Strip:
    y: float
    height: float
    x: float
    placed: list[Placement] = field(default_factory=list)


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
    boards: list[CutBoard] = []
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
) -> tuple[tuple[CutBoard, ...], tuple[str, ...]]:
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
        CutBoard(board.code, board.name, board.length, board.width, tuple(p for s in o.strips for p in s.placed))
        for o in opened
    )
    return boards, tuple(unplaced)


def _put(
    o: _Open, wide: float, long: float, part: str, turned: bool, length: float, width: float, kerf: float, trim: float
) -> bool:
    for strip in o.strips:
        if wide <= strip.height + 1e-9 and strip.x + long <= length + 1e-9:
            strip.placed.append(Placement(part, trim + strip.x, trim + strip.y, long, wide, turned))
            strip.x += long + kerf
            return True
    if o.y + wide > width + 1e-9:
        return False
    strip = _Strip(o.y, wide, long + kerf, [Placement(part, trim, trim + o.y, long, wide, turned)])
    o.strips.append(strip)
    o.y += wide + kerf
    return True
