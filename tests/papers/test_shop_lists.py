"""Orders by supplier, fronts and drawer boxes, counted again from the parts."""

from __future__ import annotations

import math
from collections import Counter
from decimal import ROUND_HALF_UP, Decimal

import msgspec
import pytest

from tall_plank.costing.orders import OrderLine, order_lines
from tall_plank.demo import demo_job
from tall_plank.job import Job
from tall_plank.papers import shoplists
from tall_plank.workings import Workings


@pytest.fixture(scope="module")
def demo() -> Workings:
    return Workings(demo_job())


def lines(w: Workings) -> dict[str, OrderLine]:
    book = w.job.price_book()
    found = order_lines(w.plan, w.bought_rows, w.edging, w.bars, w.hardware, w.job.stock, book, w.job.cutting)
    rest = [o for o in found if o.group != "Bars"]  # bars of one thing may have several lengths
    assert len({o.code for o in rest}) == len(rest)
    assert not {o.code for o in rest} & {o.code for o in found if o.group == "Bars"}
    return {o.code: o for o in rest}


def test_whole_boards_are_bought_as_the_plan_needs_them(demo: Workings) -> None:
    orders = lines(demo)
    for code in {b.board for b in demo.plan.boards}:
        board = demo.job.stock.board_by_code(code)
        price = next(r for r in demo.job.price_book().rows if r.code == code)
        assert board is not None
        assert orders[code].qty == sum(b.board == code for b in demo.plan.boards)
        assert orders[code].supplier == board.supplier
        if price.per == "m2":
            exact = price.price * Decimal(str(board.length)) * Decimal(str(board.width)) / 1_000_000
            one = exact.quantize(Decimal("0.01"), ROUND_HALF_UP)
            assert orders[code].amount == one * orders[code].qty
    assert sum(o.qty for o in orders.values() if o.group == "Boards") == demo.tally.boards


def test_an_offcut_of_the_rack_is_not_bought(demo: Workings) -> None:
    counts = Counter(b.board for b in demo.plan.boards)
    i, first = next((i, b) for i, b in enumerate(demo.plan.boards) if counts[b.board] > 1)
    with_rack = msgspec.structs.replace(first, rack=7)
    plan = msgspec.structs.replace(demo.plan, boards=(*demo.plan.boards[:i], with_rack, *demo.plan.boards[i + 1 :]))
    w = demo
    found = order_lines(
        plan, w.bought_rows, w.edging, w.bars, w.hardware, w.job.stock, w.job.price_book(), w.job.cutting
    )
    assert next(o for o in found if o.code == first.board).qty == lines(w)[first.board].qty - 1


def test_every_fitting_and_edging_is_bought_once_and_in_full(demo: Workings) -> None:
    orders = lines(demo)
    cut = {b.profile for b in demo.bars.bars}
    for row in demo.edging:
        assert row.order_m <= orders[row.code].qty < row.order_m + 1
    others = set(demo.costs.by_others)
    for h in demo.hardware:
        if h.code in others or h.code in cut:
            assert h.code not in orders
        elif orders[h.code].per == "m":
            assert h.metres <= orders[h.code].qty < h.metres + 0.1 + 1e-9
        else:
            price = next((r for r in demo.job.price_book().rows if r.code == h.code), None)
            pack = int(price.pack) if price is not None and price.pack else 1
            assert h.qty <= orders[h.code].qty < h.qty + pack and orders[h.code].qty % pack == 0
    panes = sum(float(o.qty) for o in orders.values() if o.group == "Panes")
    assert panes == pytest.approx(sum(r.qty * r.length * r.width * 1e-6 for r in demo.bought_rows), abs=0.002)


def test_the_totals_are_those_of_the_lines(demo: Workings) -> None:
    table = shoplists.orders(demo)
    amount = [c.key for c in table.columns].index("amount")
    by: dict[object, Decimal] = {}
    for row in table.rows:
        by[row[0]] = by.get(row[0], Decimal(0)) + (row[amount] or Decimal(0))  # type: ignore[operator]
    told = {row[0]: row[amount] for row in table.totals}
    assert told.pop("All") == sum(by.values())
    assert told == by
    assert [r[0] for r in table.rows] == sorted(r[0] for r in table.rows)  # type: ignore[type-var]


def test_what_has_no_price_is_named_and_still_ordered(job: Job) -> None:
    book = job.price_book()
    bare = msgspec.structs.replace(book, rows=tuple(r for r in book.rows if not r.code.startswith("HG-")))
    prices = tuple(bare if b.code == book.code else b for b in job.stock.prices)
    w = Workings(msgspec.structs.replace(job, stock=msgspec.structs.replace(job.stock, prices=prices)))
    table = shoplists.orders(w)
    assert any(str(r[2]).startswith("HG-") and r[6] is None for r in table.rows)
    assert "Without a price: HG-" in table.note


def test_fronts_are_as_large_as_their_parts_together(demo: Workings) -> None:
    table = shoplists.fronts(demo)
    units = {p.number: u for p, u in demo.made.units}
    assert len(table.rows) > 50
    for row in table.rows:
        number, name, width, height, style, frame, *_, weight = row
        own = {p.name: p for p in units[str(number)].parts if p.name == name or p.name.startswith(f"{name} ")}
        assert weight == pytest.approx(sum(p.weight for p in own.values()), abs=0.01)
        if style == "framed" and f"{name} left stile" in own:
            stile = own[f"{name} left stile"]
            assert (stile.length, stile.width) == pytest.approx((height, frame))
        elif style == "slab" and str(name) in own:
            assert sorted((own[str(name)].length, own[str(name)].width)) == pytest.approx(sorted((width, height)))


def test_drawer_boxes_leave_their_runners_room(demo: Workings) -> None:
    """A box is as wide as its runners leave it between the gables (the runner's own figure), no deeper than they are
    long."""
    table = shoplists.drawers(demo)
    units = {p.number: (p, u) for p, u in demo.made.units}
    assert len(table.rows) == sum(len(u.drawers) for _, u in demo.made.units) > 20
    for number, name, width, depth, height, side, *_ in table.rows:
        placed, unit = units[str(number)]
        gable = next(p for p in unit.parts if "gable" in p.name)
        clear = placed.width - 2 * gable.thickness
        assert 0 < clear - width < 40 or any("divider" in p.name for p in unit.parts)
        assert depth <= placed.depth and height < placed.height
        front = next(p for p in unit.parts if p.name == f"{name} front")
        assert front.length + 2 * side == pytest.approx(width)
        assert math.isclose(float(side), next(p.thickness for p in unit.parts if p.name == f"{name} right side"))


def test_panes_priced_by_the_sheet_cost_their_share_of_it(demo: Workings) -> None:
    """A price is for what its row says: the order comes to what the price comes to, its waste (none) included."""
    code = demo.bought_rows[0].board
    board = demo.job.stock.board_by_code(code)
    assert board is not None
    book = demo.job.price_book()
    rows = tuple(
        msgspec.structs.replace(r, price=Decimal(100), per="sheet") if r.code == code else r for r in book.rows
    )
    w = demo
    book = msgspec.structs.replace(book, rows=rows)
    found = order_lines(w.plan, w.bought_rows, w.edging, w.bars, w.hardware, w.job.stock, book, w.job.cutting)
    line = next(o for o in found if o.code == code)
    area = sum(r.qty * r.length * r.width for r in w.bought_rows if r.board == code)
    assert float(line.amount or 0) == pytest.approx(100 * area / (board.length * board.width), abs=0.5)


def test_what_lies_on_no_board_is_named_with_the_orders(demo: Workings) -> None:
    w = Workings(demo.job)
    w.__dict__["plan"] = msgspec.structs.replace(demo.plan, unplaced=("A5.1",))
    assert "On no board, so not ordered: A5.1" in shoplists.orders(w).note
    assert "On no board" not in shoplists.orders(demo).note
