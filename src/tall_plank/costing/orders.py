"""What a job has to buy, by supplier: whole boards, rolls by the metre, bars, fittings, panes, appliances; in whole
packs and least quantities where these are sold so.

Not the price of the job, unless that is asked to go by it: that goes by what is used with its waste.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping
from decimal import Decimal

import msgspec

from tall_plank.costing.money import cents, quantity
from tall_plank.job.cutting import Cutting
from tall_plank.shop.bars import BarPlan
from tall_plank.shop.boards import Plan
from tall_plank.shop.cutlist import CutRow
from tall_plank.shop.edging import EdgingRow
from tall_plank.shop.hardware import HardwareRow
from tall_plank.shop.lengths import thing_of
from tall_plank.stock import Board, PriceBook, PriceRow, Stock


class OrderLine(msgspec.Struct, frozen=True):
    """One thing to buy. `qty` in `per`; `price` and `amount` None where the book has none for it."""

    supplier: str
    group: str
    code: str
    name: str
    qty: Decimal
    per: str
    price: Decimal | None
    amount: Decimal | None


class Bought(msgspec.Struct, frozen=True):
    """What is bought for a job, what its price holds for that, and what it is to earn: profit less discount."""

    bought: Decimal
    priced: Decimal
    profit: Decimal

    @property
    def over(self) -> Decimal:
        """What is bought and not priced."""
        return self.bought - self.priced

    @property
    def kept(self) -> Decimal:
        """What is left of the profit."""
        return self.profit - self.over


def order_lines(
    plan: Plan,
    bought: tuple[CutRow, ...],
    edging: tuple[EdgingRow, ...],
    bars: BarPlan,
    hardware: tuple[HardwareRow, ...],
    stock: Stock,
    book: PriceBook,
    saw: Cutting,
) -> tuple[OrderLine, ...]:
    """Order lines by supplier, then boards, edging, bars, fittings, panes, appliances.

    Boards come from the cutting plan, offcuts from the rack left out; edging is rounded up to whole metres; what is
    cut to length and priced by the metre is ordered in tenths of a metre, rounded up.
    """
    prices = {row.code: (row.price, row.per) for row in book.rows}
    rows = {row.code: row for row in book.rows}
    lines = [
        *_boards(plan, stock, prices),
        *(_in_packs(line, rows) for line in _edging(edging, stock, prices)),
        *_bars(bars, stock, saw, prices),
        *(_in_packs(line, rows) for line in _fittings(hardware, stock, prices)),
        *_panes(bought, stock, prices),
    ]
    return tuple(sorted(lines, key=lambda o: (o.supplier == "no supplier", o.supplier)))


Prices = Mapping[str, tuple[Decimal, str]]
"""Code -> price, and of what."""


def _line(supplier: str, group: str, code: str, name: str, qty: Decimal, per: str, price: Decimal | None) -> OrderLine:
    amount = None if price is None else cents(qty * price)
    return OrderLine(supplier or "no supplier", group, code, name, qty, per, price, amount)


def _in_packs(line: OrderLine, rows: Mapping[str, PriceRow]) -> OrderLine:
    """A line with what has to be bought for it."""
    row = rows.get(line.code)
    qty = line.qty if row is None else row.bought(line.qty)
    if qty == line.qty:
        return line
    return _line(line.supplier, line.group, line.code, line.name, qty, line.per, line.price)


def total_of(lines: Iterable[OrderLine]) -> Decimal:
    """What some lines cost; what has no price counts nothing."""
    return sum((line.amount for line in lines if line.amount is not None), Decimal(0))


def _area(board: Board) -> Decimal:
    """Of a whole board, m2."""
    return quantity(board.length * board.width * 1e-6, 6)


def _boards(plan: Plan, stock: Stock, prices: Prices) -> Iterator[OrderLine]:
    """Whole boards of a cutting plan; what is priced by the square metre costs its area."""
    counts: dict[str, int] = {}
    for b in plan.boards:
        if not b.rack:
            counts[b.board] = counts.get(b.board, 0) + 1
    for code, count in counts.items():
        board = stock.board_by_code(code)
        assert board is not None  # plans are made from stock only
        price, per = prices.get(code, (None, ""))
        if price is not None and per == "m2":
            price = cents(price * _area(board))
        yield _line(board.supplier, "Boards", code, board.name, Decimal(count), "board", price)


def _edging(edging: tuple[EdgingRow, ...], stock: Stock, prices: Prices) -> Iterator[OrderLine]:
    """Whole metres of edging; strips are bars."""
    for e in edging:
        stocked = stock.edging_by_code(e.code)
        if stocked is None or not stocked.strips:
            metres = Decimal(math.ceil(e.order_m - 1e-9))
            yield _line(e.supplier, "Edging", e.code, e.name, metres, "m", prices.get(e.code, (None,))[0])


def _bars(bars: BarPlan, stock: Stock, saw: Cutting, prices: Prices) -> Iterator[OrderLine]:
    """Bars of a plan by thing and length."""
    whole: dict[tuple[str, float], int] = {}
    cost: dict[tuple[str, float], float] = {}
    for bar in bars.bars:
        whole[bar.profile, bar.length] = whole.get((bar.profile, bar.length), 0) + 1
        cost[bar.profile, bar.length] = bar.price
    for (code, mm), count in whole.items():
        thing = thing_of(stock, code, saw)
        price = cents(Decimal(str(cost[code, mm]))) if code in prices else None
        yield _line(thing.supplier, "Bars", code, f"{thing.name}, {mm:g} long", Decimal(count), "bar", price)


def _fittings(hardware: tuple[HardwareRow, ...], stock: Stock, prices: Prices) -> Iterator[OrderLine]:
    """Fittings and appliances; appliances without a price are by others, what is cut from bars is ordered so."""
    for h in hardware:
        price, per = prices.get(h.code, (None, ""))
        stocked = stock.fitting(h.code)
        if (h.appliance and price is None) or (h.metres and stocked is not None and stocked.bars):
            continue
        by_metre = per == "m" and h.metres > 0
        qty = Decimal(math.ceil(h.metres * 10 - 1e-6)) / 10 if by_metre else Decimal(h.qty)
        group = "Appliances" if h.appliance else "Fittings"
        yield _line(h.supplier, group, h.code, h.name, qty, "m" if by_metre else "each", price)


def _panes(bought: tuple[CutRow, ...], stock: Stock, prices: Prices) -> Iterator[OrderLine]:
    """Areas of what is bought cut to size."""
    areas: dict[str, float] = {}
    for row in bought:
        areas[row.board] = areas.get(row.board, 0.0) + row.qty * row.length * row.width * 1e-6
    for code, area in areas.items():
        board = stock.board_by_code(code)
        assert board is not None
        price, per = prices.get(code, (None, ""))
        if price is not None and per == "sheet":
            price = cents(price / _area(board))
        yield _line(board.supplier, "Panes", code, board.name, quantity(area, 3), "m2", price)
