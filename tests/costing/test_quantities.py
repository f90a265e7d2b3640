"""What goes into a job and what it costs, counted again from its parts one by one, in exact decimals."""

from __future__ import annotations

from collections import Counter
from decimal import ROUND_HALF_UP, Decimal

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of, with_run
from tall_plank.costing.cost import GROUPS, CostLine, Costs, job_quantities, unit_quantities
from tall_plank.costing.money import cents, quantity, shown
from tall_plank.costing.orders import order_lines
from tall_plank.demo import demo_job
from tall_plank.edits import standards
from tall_plank.job import Body, Job, Level
from tall_plank.job.start import new_job
from tall_plank.making import Cutout, Groove, Item, MadeJob, Part
from tall_plank.making.parts import Rebate
from tall_plank.measure import DisplayUnit
from tall_plank.papers import schedules
from tall_plank.papers.tables import text_of
from tall_plank.stock import PriceBook, PriceRow
from tall_plank.stock.models import LaborRow
from tall_plank.workings import Workings


@pytest.fixture(scope="module")
def demo() -> Workings:
    return Workings(demo_job())


def with_book(job: Job, **changes: object) -> Job:
    book = msgspec.structs.replace(job.price_book(), **changes)
    return msgspec.structs.replace(job, stock=msgspec.structs.replace(job.stock, prices=(book,)))


def priced(job: Job, code: str, price: str, per: str = "each") -> Job:
    rows = tuple(r for r in job.price_book().rows if r.code != code)
    return with_book(job, rows=(*rows, PriceRow(code, Decimal(price), per)))  # type: ignore[arg-type]


def line(job: Job | Workings, code: str) -> CostLine:
    costs = (Workings(job) if isinstance(job, Job) else job).costs
    (found,) = [c for c in costs.lines if c.code == code]
    return found


def glazed() -> Job:
    job = standards.set_in_force(new_job(), "front_style", "glazed").job
    return with_run(job, "A", Level.HUNG, "pair 900, door 450")


# --- boards and panes


def test_panes_are_bought_cut_to_size_and_carry_no_waste() -> None:
    """Boards do: what is left of them is paid for; glass comes by the pane (common practice)."""
    w = Workings(glazed())
    panes = [p for _, unit in w.made.units for p in unit.parts if p.role == "glass"]
    assert len(panes) == 3
    area = sum(p.cut_length * p.cut_width for p in panes) / 1e6
    assert float(line(w, panes[0].board).qty) == pytest.approx(area, abs=1e-4)
    carcass = [i.part for i in w.made.parts() if i.part.board == "BP18"]
    net = sum(p.cut_length * p.cut_width for p in carcass) / 1e6
    assert float(line(w, "BP18").qty) == pytest.approx(net * 1.15, rel=1e-4)


@pytest.mark.parametrize("waste", [0, 7, 25])
def test_the_waste_of_the_book_is_on_every_board_and_on_no_pane(demo: Workings, waste: int) -> None:
    job = with_book(demo.job, board_waste_percent=Decimal(waste))
    areas: dict[str, float] = {}
    for item in demo.made.parts():
        areas[item.part.board] = areas.get(item.part.board, 0.0) + item.part.cut_length * item.part.cut_width * 1e-6
    found = {c.code: c for c in Workings(job).costs.lines if c.group == "Boards"}
    assert set(found) == set(areas)
    for code, area in areas.items():
        board = job.stock.board_by_code(code)
        assert board is not None
        wanted = area if board.cut_to_size else area * (100 + waste) / 100
        assert float(found[code].qty) == pytest.approx(wanted, abs=2e-3), code


@pytest.mark.parametrize("waste", [0, 12])
def test_edging_is_as_long_as_the_banded_edges_with_its_waste(demo: Workings, waste: int) -> None:
    job = with_book(demo.job, edging_waste_percent=Decimal(waste))
    metres: dict[str, float] = {}
    for item in demo.made.parts():
        p = item.part
        sides = {"l1": p.edges.l1, "l2": p.edges.l2, "w1": p.edges.w1, "w2": p.edges.w2}
        # What is joined to another piece of worktop is banded in part: its length has a test of its own.
        if not p.outline and p.role != "worktop":
            for name, code in sides.items():
                if code:
                    metres[code] = metres.get(code, 0.0) + (p.length if name[0] == "l" else p.width) / 1000
    w = Workings(job)

    def own(part: Part) -> bool:
        return bool(part.outline) or part.role == "worktop"

    for code in metres:
        shaped = sum(mm / 1000 for i in demo.made.parts() if own(i.part) for _, c, mm in i.part.banded if c == code)
        wanted = (metres[code] + shaped) * (100 + waste) / 100
        assert float(line(w, code).qty) == pytest.approx(wanted, abs=5e-3), code


# --- fittings, each and by the metre


def rails(qty_each: int) -> Job:
    """Two wardrobes with a rail in each bay."""
    return with_run(new_job(), "A", Level.TALL, ", ".join(["wardrobe 1000"] * qty_each))


@pytest.mark.parametrize("count", [1, 3])
def test_what_is_cut_to_length_costs_its_length_times_its_number(count: int) -> None:
    job = priced(rails(count), "RL-25", "10", "m")
    w = Workings(job)
    items = [i for _, unit in w.made.units for i in unit.items if i.code == "RL-25"]
    metres = sum(i.length * i.qty for i in items) / 1000
    assert len(items) == count and metres > 0.9 * count
    assert float(line(w, "RL-25").qty) == pytest.approx(metres * 1.1, rel=1e-3)
    assert line(w, "RL-25").per == "m"


def test_three_of_a_length_in_one_line_are_counted_three_times(demo: Workings) -> None:
    more = Item("RL-25", 3, "three rails", 500.0)
    _, unit = demo.made.units[0]
    before, after = (
        dict(unit_quantities(u).lengths) for u in (unit, msgspec.structs.replace(unit, items=(*unit.items, more)))
    )
    assert after["RL-25"] == pytest.approx(before.get("RL-25", 0.0) + 1.5)
    room = next(r for r in demo.made.rooms if r.trims)
    trim = msgspec.structs.replace(room.trims[0], items=(*room.trims[0].items, more))
    changed = msgspec.structs.replace(room, trims=(trim, *room.trims[1:]))
    made = MadeJob(tuple(changed if r is room else r for r in demo.made.rooms))
    lengths = [dict(job_quantities(m).lengths)["RL-25"] for m in (demo.made, made)]
    assert lengths[1] - lengths[0] == pytest.approx(1.5)
    items = [dict(job_quantities(m).items)["RL-25"] for m in (demo.made, made)]
    assert items[1] - items[0] == 3


def test_lengths_are_those_of_all_things_cut_to_length_and_of_the_moldings(demo: Workings) -> None:
    whole = dict(job_quantities(demo.made).lengths)
    for code, metres in whole.items():
        items = [i for _, u in demo.made.units for i in u.items if i.code == code]
        items += [i for t in demo.made.trims for i in t.items if i.code == code]
        pieces = [p.length for p in demo.made.lengths if p.profile == code and not p.by_others]
        assert metres == pytest.approx((sum(i.length * i.qty for i in items) + sum(pieces)) / 1000), code


def test_a_rail_that_is_priced_each_costs_its_number_and_not_its_length() -> None:
    job = priced(rails(2), "RL-25", "10", "each")
    assert (line(job, "RL-25").qty, line(job, "RL-25").per) == (Decimal(2), "each")


def test_fittings_are_as_many_as_units_and_trims_ask_for(demo: Workings) -> None:
    wanted: Counter[str] = Counter()
    for _, unit in demo.made.units:
        for item in unit.items:
            wanted[item.code] += item.qty
    for trim in demo.made.trims:
        for item in trim.items:
            wanted[item.code] += item.qty
    assert dict(job_quantities(demo.made).items) == dict(wanted)
    for c in demo.costs.lines:
        if c.group in ("Fittings", "Appliances") and c.per == "each":
            assert c.qty == wanted[c.code], c.code


# --- labor


def test_labor_counts_parts_holes_grooves_and_what_is_put_together(demo: Workings) -> None:
    parts = [i.part for i in demo.made.parts()]
    units = [u for _, u in demo.made.units if u.parts]
    q = job_quantities(demo.made)
    assert q.done("cut_part") == len(parts)
    assert q.done("drill_hole") == sum(p.holes for p in parts)
    grooves = [op for p in parts for op in p.operations if isinstance(op, Groove)]
    assert q.done("groove_metre") == pytest.approx(sum(abs(g.x2 - g.x1) + abs(g.y2 - g.y1) for g in grooves) / 1000)
    assert q.done("fit_front") == sum(len(u.fronts) for u in units)
    assert q.done("assemble_unit") == sum(u.spec.body is Body.CARCASS for u in units)
    assert q.done("install_unit") == sum(u.spec.body is not Body.FILLER for u in units)
    amounts = {c.code: c.times for c in demo.costs.lines if c.group == "Labor"}
    assert amounts["cut_part"] == len(parts) and amounts["drill_hole"] == q.done("drill_hole")
    assert amounts["install_unit"] == q.done("install_unit") > amounts["assemble_unit"] - 1
    assert float(amounts["band_metre"]) == pytest.approx(sum(m for _, m in q.edging), abs=1e-3)


def test_an_hour_of_minutes_costs_the_rate_of_an_hour() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 600, door 600")
    book = job.price_book()
    labor = tuple(LaborRow(r.work, Decimal(30)) if r.work == "assemble_unit" else r for r in book.labor)
    job = with_book(job, labor=labor, labor_rate=Decimal("41.00"))
    assert (line(job, "assemble_unit").qty, line(job, "assemble_unit").amount) == (Decimal(1), Decimal("41.00"))
    assert line(job, "assemble_unit").times == 2


def test_work_that_the_book_has_no_minutes_for_costs_nothing(job: Job) -> None:
    book = job.price_book()
    less = with_book(job, labor=tuple(r for r in book.labor if r.work != "drill_hole"))
    assert not [c for c in Workings(less).costs.lines if c.code == "drill_hole"]
    assert Workings(less).costs.total == Workings(job).costs.total - line(job, "drill_hole").amount


# --- the whole


def test_delivery_is_once_and_only_where_there_is_something_to_deliver(job: Job, empty_job: Job) -> None:
    dear = with_book(job, delivery=Decimal("123.45"))
    assert line(dear, "delivery").amount == Decimal("123.45")
    assert Workings(with_book(job, delivery=Decimal(0))).costs.group("Delivery") == 0
    assert Workings(with_book(empty_job, delivery=Decimal("123.45"))).costs.total == 0


def test_groups_come_in_their_order_and_add_up(demo: Workings) -> None:
    costs: Costs = demo.costs
    places = [GROUPS.index(c.group) for c in costs.lines]
    assert places == sorted(places)
    assert sum((costs.group(name) for name in GROUPS), Decimal(0)) == costs.total
    assert costs.total == sum((c.amount for c in costs.lines), Decimal(0))


@given(st.decimals("0.01", "999.99", places=2), st.sampled_from(["BP18", "HG-110", "E-BP-1", "RN-500"]))
def test_a_line_is_its_quantity_times_its_price_to_the_cent(price: Decimal, code: str) -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, door 450")
    per = next(r.per for r in job.price_book().rows if r.code == code)
    found = line(priced(job, code, str(price), per if per != "sheet" else "m2"), code)
    exact = (found.qty * price).quantize(Decimal("0.01"), ROUND_HALF_UP)
    assert found.price == price and found.amount == exact


def test_a_unit_costs_by_itself_what_its_own_parts_and_labor_cost() -> None:
    one = with_run(new_job(), "A", Level.HUNG, "pair 900")
    two = with_run(new_job(), "A", Level.HUNG, "pair 900, pair 900")
    cost = dict(Workings(one).costs.by_cell)[cell_of(one, "A1")]
    assert dict(Workings(two).costs.by_cell)[cell_of(two, "A2")] == cost
    assert cost == Workings(one).costs.total - Workings(one).costs.group("Delivery")


@pytest.mark.parametrize(
    ("amount", "rounded"),
    [("0.005", "0.01"), ("0.015", "0.02"), ("2.675", "2.68"), ("-0.005", "-0.01"), ("1.0049", "1.00")],
)
def test_half_a_cent_goes_up(amount: str, rounded: str) -> None:
    assert cents(Decimal(amount)) == Decimal(rounded)


def test_quantities_and_amounts_as_they_are_written() -> None:
    assert quantity(1.23456) == Decimal("1.2346") and quantity(2.0, 2) == Decimal("2.00")
    assert shown(Decimal("1234567.895")) == "1,234,567.90"


def test_the_price_book_of_the_job_is_the_one_that_counts(job: Job) -> None:
    book: PriceBook = job.price_book()
    twice = with_book(job, rows=tuple(PriceRow(r.code, r.price * 2, r.per) for r in book.rows))
    for name in ("Boards", "Edging", "Fittings"):
        once, more = Workings(job).costs, Workings(twice).costs
        cent = Decimal("0.01") * len(once.lines)
        assert abs(more.group(name) - 2 * once.group(name)) <= cent and once.group(name) > 0
    assert Workings(twice).costs.group("Labor") == Workings(job).costs.group("Labor")


@pytest.mark.parametrize(("needed", "ordered"), [(12.0, 12), (12.001, 13), (0.2, 1), (11.999, 12)])
def test_edging_is_ordered_in_whole_metres_and_never_one_too_many(needed: float, ordered: int) -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 600")
    w = Workings(job)
    rows = tuple(msgspec.structs.replace(e, order_m=needed) for e in w.edging)
    saw, book = job.cutting, job.price_book()
    found = order_lines(w.plan, (), rows, w.bars, (), job.stock, book, saw)
    lines = [o for o in found if o.group == "Edging"]
    assert lines and {o.qty for o in lines} == {Decimal(ordered)} and {o.per for o in lines} == {"m"}


def test_all_work_on_parts_is_counted(demo: Workings) -> None:
    """Each kind of work by its own rule, over all parts of the demo: rebates, cut-outs, shapes, bends."""
    parts = [i.part for i in demo.made.parts()]
    q = job_quantities(demo.made)
    ops = [(p, op) for p in parts for op in p.operations]
    assert q.done("cut_out") == sum(isinstance(op, Cutout) for _, op in ops) > 0
    rebates = sum(p.length if op.edge[0] == "L" else p.width for p, op in ops if isinstance(op, Rebate))
    assert q.done("rebate_metre") == pytest.approx(rebates / 1000) and rebates > 0
    assert q.done("bend_part") == sum(p.bend != 0 for p in parts)
    joints = [t for t in demo.made.trims if any(i.code.startswith("JB-") for i in t.items)]
    assert q.done("worktop_joint") == len(joints) > 0


def test_a_bow_is_shaped_and_its_front_bent_and_veneered() -> None:
    job = with_run(new_job(), "A", Level.BASE, "bow 600")
    w = Workings(job)
    q = job_quantities(w.made)
    bent = [i.part for i in w.made.parts() if i.part.bend]
    assert q.done("bend_part") == len(bent) > 0
    assert q.done("veneer_m2") == pytest.approx(2e-6 * sum(p.length * p.width for p in bent))
    assert q.done("shape_metre") > 0
    assert {"bend_part", "veneer_m2", "shape_metre"} <= {c.code for c in w.costs.lines}


@given(st.decimals("0.01", "250.00", places=2), st.decimals("0", "120", places=2))
def test_lines_multiply_out_as_they_are_told_at_every_rate(rate: Decimal, minutes: Decimal) -> None:
    """What stands on the price sheet, quantity and price to their last place, multiplies to the amount."""
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, sink 900")
    book = job.price_book()
    labor = tuple(LaborRow(r.work, minutes) for r in book.labor)
    table = schedules.price(Workings(with_book(job, labor=labor, labor_rate=rate)))
    for row in table.rows:
        qty, price, amount = (
            Decimal(text_of(row[i], table.columns[i], DisplayUnit.MM).replace(",", "")) for i in (2, 4, 5)
        )
        assert (qty * price).quantize(Decimal("0.01"), ROUND_HALF_UP) == amount, row
