from __future__ import annotations

from decimal import Decimal

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.costing import job_price
from tall_plank.costing.cost import job_quantities
from tall_plank.edits.jobs import set_percent
from tall_plank.job import Job, Level, Pricing
from tall_plank.job.start import new_job
from tall_plank.stock import PriceRow
from tall_plank.workings import Workings


def with_row(job: Job, row: PriceRow) -> Job:
    book = job.price_book()
    rows = tuple(row if r.code == row.code else r for r in book.rows)
    stock = msgspec.structs.replace(job.stock, prices=(msgspec.structs.replace(book, rows=rows),))
    return msgspec.structs.replace(job, stock=stock)


def test_every_line_is_quantity_times_price(job: Job) -> None:
    for line in Workings(job).costs.lines:
        assert abs(line.qty * line.price - line.amount) <= Decimal("0.005"), line


def test_boards_carry_their_waste(job: Job) -> None:
    w = Workings(job)
    net = dict(job_quantities(w.made).areas)
    line = next(c for c in w.costs.lines if c.code == "BP18")
    assert float(line.qty) == pytest.approx(net["BP18"] * 1.15, rel=1e-3)


def test_a_board_priced_by_the_sheet_costs_its_share_of_the_sheet(job: Job) -> None:
    by_area = Workings(job).costs.total
    # 2500 x 1250 is 3.125 m2: at 24.50 a square metre a sheet costs 76.5625
    by_sheet = Workings(with_row(job, PriceRow("BP18", Decimal("76.5625"), "sheet"))).costs.total
    assert by_sheet == by_area


def test_what_has_no_price_is_named_and_is_a_snag(job: Job) -> None:
    book = job.price_book()
    rows = tuple(r for r in book.rows if r.code != "HG-110")
    stock = msgspec.structs.replace(job.stock, prices=(msgspec.structs.replace(book, rows=rows),))
    w = Workings(msgspec.structs.replace(job, stock=stock))
    assert w.costs.unpriced == ("HG-110",)
    assert any(s.rule == "price" and "HG-110" in s.what for s in w.snags)


def test_an_appliance_without_a_price_is_by_others(job: Job) -> None:
    assert Workings(job).costs.by_others == ("AP-DW60",)


def test_margin_is_a_share_of_the_price_not_of_the_cost() -> None:
    price = job_price(Decimal("75.00"), Pricing(Decimal(0), Decimal(25), Decimal(0), Decimal(20)))
    assert (price.net, price.profit, price.tax, price.gross) == (100, 25, 20, 120)


def test_discount_comes_off_before_tax() -> None:
    price = job_price(Decimal("75.00"), Pricing(Decimal(0), Decimal(25), Decimal(10), Decimal(20)))
    assert (price.before_discount, price.discount, price.net, price.gross) == (100, 10, 90, 108)


@given(
    st.decimals(0, 100_000, places=2), st.integers(0, 100), st.integers(0, 80), st.integers(0, 50), st.integers(0, 30)
)
def test_the_steps_of_a_price_add_up_to_the_cent(cost: Decimal, o: int, m: int, d: int, t: int) -> None:
    p = job_price(cost, Pricing(Decimal(o), Decimal(m), Decimal(d), Decimal(t)))
    assert p.cost + p.overhead + p.profit == p.before_discount
    assert p.before_discount - p.discount == p.net
    assert p.net + p.tax == p.gross
    for value in (p.overhead, p.profit, p.discount, p.tax, p.gross):
        assert value == value.quantize(Decimal("0.01"))


def test_changed_rates_change_the_price(job: Job) -> None:
    dear = set_percent(job, "margin", "30 %").job
    assert Workings(dear).price.net > Workings(job).price.net
    assert Workings(dear).costs == Workings(job).costs


def test_units_cost_together_about_what_the_job_costs_without_trims_and_delivery() -> None:
    job = with_run(new_job(), "A", Level.HUNG, "pair 900, door 450")
    w = Workings(job)
    units = sum(amount for _, amount in w.costs.by_cell)
    assert abs(w.costs.total - w.costs.group("Delivery") - units) < Decimal("0.20")
