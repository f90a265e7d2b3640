"""What boards cost as they are planned: whole boards, or the shares of them that do not go to the rack."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from decimal import Decimal

from tall_plank.costing.cost import BoardsBought
from tall_plank.costing.money import cents, quantity
from tall_plank.job.cutting import Cutting
from tall_plank.shop.bars import BarPlan
from tall_plank.shop.boards import Plan, offcuts_of
from tall_plank.shop.nesting.job import makes
from tall_plank.stock import Board, PriceBook, Stock

Row = tuple[str, Decimal, str, Decimal]


def planned_boards(
    codes: Iterable[str],
    plan: Plan,
    bars: BarPlan,
    stock: Stock,
    book: PriceBook,
    saw: Cutting,
    *,
    shares: bool,
) -> dict[str, BoardsBought]:
    """Lines for the boards of some codes, each make under the first of its codes.

    Parameters
    ----------
    codes : of the boards that parts are cut from
    shares : whether what is left and goes to the rack is taken off, and what comes from it is put on
    """
    groups = makes(stock)
    found: dict[str, BoardsBought] = {}
    done: set[str] = set()
    for code in codes:
        board = stock.board_by_code(code)
        if board is None:
            continue
        if code in done:  # it stands with the first of its make
            found[code] = BoardsBought(())
            continue
        make = groups.get(code, ())
        rows = _blanks(board, bars, book) if board.blank else []
        rows += [row for b in make for row in _boards(b, plan, book, saw, shares=shares)]
        if rows or any(b.board == m.code for b in plan.boards for m in make):
            done |= {b.code for b in make}
            found[code] = BoardsBought(tuple(rows))
    return found


def _area_price(board: Board, book: PriceBook) -> Decimal | None:
    row = next((r for r in book.rows if r.code == board.code), None)
    if row is None:
        return None
    return row.price if row.per != "sheet" else cents(row.price / _area(board))


def _board_price(board: Board, book: PriceBook) -> Decimal | None:
    row = next((r for r in book.rows if r.code == board.code), None)
    if row is None:
        return None
    return row.price if row.per == "sheet" else cents(row.price * _area(board))


def _area(board: Board) -> Decimal:
    return quantity(board.length * board.width * 1e-6, 6)


def _boards(board: Board, plan: Plan, book: PriceBook, saw: Cutting, *, shares: bool) -> list[Row]:
    mine = [b for b in plan.boards if b.board == board.code]
    price, by_area = _board_price(board, book), _area_price(board, book)
    if not mine or price is None or by_area is None:
        return []
    new = sum(not b.rack for b in mine)
    rows: list[Row] = [(board.name, Decimal(new), "board", price)] if new else []
    if not shares:
        return rows
    used = sum(b.length * b.width for b in mine if b.rack) * 1e-6
    left = sum(long * wide for b in mine for _, _, long, wide in offcuts_of(b, plan, saw)) * 1e-6
    rows += [(f"{board.name}, offcuts from the rack", quantity(used), "m2", by_area)] if used else []
    rows += [(f"{board.name}, offcuts to the rack", -quantity(left), "m2", by_area)] if left else []
    return rows


def _blanks(board: Board, bars: BarPlan, book: PriceBook) -> list[Row]:
    """Worktop blanks as their plan cuts them."""
    if all(r.code != board.code for r in book.rows):
        return []
    counts = Counter((bar.length, bar.price) for bar in bars.bars if bar.profile == board.code)
    return [
        (f"{board.name}, {length:g} long", Decimal(count), "blank", cents(Decimal(str(price))))
        for (length, price), count in sorted(counts.items())
    ]
