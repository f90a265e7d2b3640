"""What is bought beside what is priced: boards as planned, shares of them, packs; the difference is told."""

from __future__ import annotations

from decimal import Decimal
from pathlib import Path

import msgspec
import pytest

from conftest import with_run
from tall_plank.edits.jobs import set_percent, set_priced_by
from tall_plank.edits.stocklist import take_list
from tall_plank.files.stocklist import read_stock_list
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.papers import schedules
from tall_plank.papers.shoplists import orders
from tall_plank.shop.boards import offcuts_of
from tall_plank.stock import PriceRow
from tall_plank.workings import Workings


def kitchen() -> Job:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, sink 900, corner 900, door 450")
    return with_run(job, "A", Level.HUNG, "pair 900, open 600")


def priced(job: Job, by: str) -> Workings:
    return Workings(set_priced_by(job, "boards", by).job)


def test_planned_boards_cost_what_is_ordered() -> None:
    w = priced(kitchen(), "planned")
    bought = {o.code: (o.qty, o.amount) for o in w.orders if o.group in ("Boards", "Bars") and o.code in _boards(w)}
    costs: dict[str, list[tuple[Decimal, Decimal]]] = {}
    for c in w.costs.lines:
        if c.group == "Boards":
            costs.setdefault(c.code, []).append((c.qty, c.amount))
    # Every board and blank that is ordered stands in the price with the same amount; glass goes by its area.
    ordered = sum((amount or Decimal(0) for _, amount in bought.values()), Decimal(0))
    paid = sum((a for rows in costs.values() for _, a in rows), Decimal(0))
    assert ordered == paid > 0


def _boards(w: Workings) -> set[str]:
    return {b.code for b in w.job.stock.boards}


def test_by_hand_one_board_and_what_is_left_of_it() -> None:
    """One base unit: its carcass takes a part of a board of 18 mm, 2500 x 1250 at 24.50 a square metre: 76.56 whole."""
    job = with_run(new_job(), "A", Level.BASE, "open 600")
    whole, shares = priced(job, "planned"), priced(job, "shares")
    (line,) = [c for c in whole.costs.lines if c.code == "BP18"]
    assert (line.qty, line.per, line.price, line.amount) == (Decimal(1), "board", Decimal("76.56"), Decimal("76.56"))
    lines = [c for c in shares.costs.lines if c.code == "BP18"]
    (board,) = [b for b in shares.plan.boards if b.board == "BP18"]
    left = sum(x * y for _, _, x, y in offcuts_of(board, shares.plan, job.cutting)) * 1e-6
    assert left > 0 and lines[1].amount == (-Decimal(f"{left:.4f}") * Decimal("24.50")).quantize(Decimal("0.01"))
    assert lines[0].amount == Decimal("76.56")
    # Each is told on the price sheet, in its words.
    assert "less what goes to the rack" in schedules.price(shares).note
    assert "as they are planned, whole" in schedules.price(whole).note


@pytest.mark.parametrize("by", ["area", "planned", "shares"])
def test_the_difference_stands_beside_the_price(by: str) -> None:
    w = priced(kitchen(), by)
    totals = {str(row[1]): row[-1] for row in schedules.price(w).totals}
    bought = sum((o.amount or Decimal(0) for o in w.orders), Decimal(0))
    assert totals["Bought for this job (see the orders)"] == bought == w.bought.bought
    materials = sum((c.amount for c in w.costs.lines if c.group not in ("Labor", "Delivery")), Decimal(0))
    assert totals["More than is priced"] == bought - materials
    assert w.bought.kept == w.price.profit - w.price.discount - (bought - materials)


def test_a_difference_that_eats_the_profit_is_a_snag() -> None:
    job = with_run(new_job(), "A", Level.BASE, "open 300")
    told = [s for s in Workings(job).snags if "more than is priced" in s.what]
    assert len(told) == 1 and told[0].weight == "mind"
    b = Workings(job).bought
    assert f"{b.kept:,.2f} stay" in told[0].what
    quiet = set_percent(job, "bought_over", "1000").job
    assert not [s for s in Workings(quiet).snags if "more than is priced" in s.what]
    planned = set_priced_by(set_priced_by(job, "boards", "planned").job, "packs", "yes").job
    assert not [s for s in Workings(planned).snags if "more than is priced" in s.what]


@pytest.mark.parametrize(
    ("qty", "pack", "least", "bought"),
    [("7", "0", "0", "7"), ("7", "5", "0", "10"), ("10", "5", "0", "10"), ("7", "0", "20", "20"), ("7", "5", "12", "15"),
     ("0", "5", "12", "0"), ("30.2", "25", "0", "50")],
)  # fmt: skip
def test_whole_packs_and_the_least_that_is_sold(qty: str, pack: str, least: str, bought: str) -> None:
    row = PriceRow("X", Decimal(1), "each", Decimal(pack), Decimal(least))
    assert row.bought(Decimal(qty)) == Decimal(bought)


def test_packs_are_ordered_and_where_chosen_priced() -> None:
    job = kitchen()
    w = Workings(job)
    pins = next(h for h in w.hardware if h.code == "DW-8")
    order = next(o for o in w.orders if o.code == "DW-8")
    assert order.qty % 500 == 0 and order.qty >= pins.qty
    used = next(c for c in w.costs.lines if c.code == "DW-8")
    assert used.qty == pins.qty
    packed = Workings(set_priced_by(job, "packs", "yes").job)
    assert next(c for c in packed.costs.lines if c.code == "DW-8").qty == order.qty
    assert any(row[2] == "DW-8" and row[4] == order.qty for row in orders(packed).rows)
    assert "Whole packs are priced" in schedules.price(packed).note


def test_packs_come_in_with_a_list_and_a_wrong_one_is_named(tmp_path: Path) -> None:
    path = tmp_path / "packs.csv"
    path.write_text("code,price,per,pack,least\nHG-110,2.85,each,50,100\nPIN-5,,,250,\n")
    job = take_list(new_job(), read_stock_list(path)).job
    rows = {r.code: r for r in job.price_book().rows}
    assert (rows["HG-110"].pack, rows["HG-110"].least_qty) == (50, 100)
    assert (rows["PIN-5"].pack, rows["PIN-5"].price) == (250, Decimal("0.06"))
    # A price alone leaves the pack as it was.
    path.write_text("code,price\nHG-110,3.10\n")
    again = take_list(job, read_stock_list(path)).job
    row = next(r for r in again.price_book().rows if r.code == "HG-110")
    assert (row.price, row.pack) == (Decimal("3.10"), 50)
    for text, where in (("HG-110,1.00,lots\n", "row 2, pack"), ("HG-110,1.00,-5\n", "row 2, pack")):
        path.write_text(f"code,price,pack\n{text}")
        with pytest.raises(PlankError) as error:
            read_stock_list(path)
        assert where in str(error.value)
    path.write_text("code,kind,name,pack,per,like\nHG-X,hinge,Some hinge,10,,HG-110\n")
    with pytest.raises(PlankError, match="a pack and no price"):
        take_list(job, read_stock_list(path))


def test_rack_offcuts_are_not_bought() -> None:
    job = with_run(new_job(), "A", Level.BASE, "open 600")
    w = priced(job, "planned")
    plan = msgspec.structs.replace(
        w.plan, boards=tuple(msgspec.structs.replace(b, rack=7) if b.board == "BP18" else b for b in w.plan.boards)
    )
    w.__dict__["plan"] = plan
    assert not [c for c in w.costs.lines if c.code == "BP18"]
    shares = priced(job, "shares")
    shares.__dict__["plan"] = plan
    lines = [c for c in shares.costs.lines if c.code == "BP18"]
    assert lines and "from the rack" in lines[0].label and lines[0].amount > 0
