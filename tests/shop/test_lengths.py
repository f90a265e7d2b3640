"""What a job has cut from bars: counted again from its parts and items; worktops lie on blanks and on no board."""

from __future__ import annotations

import itertools
from collections import Counter
from decimal import Decimal
from types import SimpleNamespace

import msgspec
import pytest

from conftest import with_run
from shop.bars_check import check_bars
from tall_plank.assets import text_width
from tall_plank.demo import demo_job
from tall_plank.drawing.bar import bar_drawing
from tall_plank.drawing.primitives import Text
from tall_plank.edits import cutting, standards, units
from tall_plank.job import Job, Kind, Level, Role
from tall_plank.job.start import new_job
from tall_plank.making import Item, MadeJob
from tall_plank.measure import PlankError
from tall_plank.papers import schedules, shoplists
from tall_plank.papers.drawings import bar_kinds, bar_sheets, bars_shown
from tall_plank.papers.labels import labels_of
from tall_plank.shop.bars import BarPlan
from tall_plank.shop.hardware import hardware_rows
from tall_plank.shop.lengths import KERF, bars_of, blanks_of, joined, pieces_of, worktops_of
from tall_plank.stock import Board, shipped_stock
from tall_plank.stock.library import check_stock
from tall_plank.workings import Workings


def with_moldings(job: Job) -> Job:
    """The moldings of every room made by the shop."""
    rooms = []
    for room in job.rooms:
        own = tuple(msgspec.structs.replace(m, by_others=False) for m in room.moldings)
        rooms.append(msgspec.structs.replace(room, moldings=own))
    return msgspec.structs.replace(job, rooms=tuple(rooms))


@pytest.fixture(scope="module")
def oak() -> Workings:
    """The demo's job with worktops of solid oak, lippings of 6 mm on its carcasses, and its moldings by the shop."""
    job = units.set_scheme_finish(demo_job(), Role.WORKTOP, "keel-oak").job
    return Workings(with_moldings(standards.set_value(job, job.standard, "edging_carcass", "6").job))


def on_bars(w: Workings, code: str) -> list[tuple[str, float]]:
    return sorted((name, round(mm, 3)) for b in w.bars.bars if b.profile == code for name, mm in b.pieces)


def test_bars_hold_everything_once(oak: Workings) -> None:
    job = oak.job
    book = job.price_book()
    thin, tops = pieces_of(oak.made, job.stock), worktops_of(oak.made, job.stock)
    codes = {p.profile for p in tops}
    assert codes == {"KO40", "KO40W"}
    plan = oak.bars
    part = BarPlan(tuple(b for b in plan.bars if b.profile not in codes), (), True, 0.0)
    check_bars(thin, bars_of(job.stock, book), part, KERF, 0.0)
    part = BarPlan(tuple(b for b in plan.bars if b.profile in codes), (), True, 0.0)
    check_bars(tops, blanks_of(job.stock, book), part, job.cutting.kerf, job.cutting.trim)
    assert plan.unplaced == () and plan.proven
    assert set(bar_kinds(oak)) == {"worktops", "rails", "tracks", "frames of leaves", "edging strips", "moldings"}


def test_rails_and_tracks_are_as_long_as_they_are_built_in(oak: Workings) -> None:
    wanted: Counter[str] = Counter()
    for _, unit in oak.made.units:
        for item in unit.items:
            if item.code == "RL-25":
                wanted[f"{item.length:.3f}"] += item.qty
    assert wanted
    assert Counter(f"{mm:.3f}" for _, mm in on_bars(oak, "RL-25")) == wanted
    for code in ("RL-25", "SP-28", "ST-2T", "ST-2B"):
        bought = next(h for h in oak.hardware if h.code == code)
        pieces = on_bars(oak, code)
        assert len(pieces) == bought.qty
        assert sum(mm for _, mm in pieces) == pytest.approx(bought.metres * 1000, abs=0.1)


def test_a_fitting_that_is_needed_twice_is_cut_twice(oak: Workings) -> None:
    """Items say how many, not only which."""
    (room, *rest) = oak.made.rooms
    placed, unit = room.units[0]
    more = (*unit.items, Item("RL-25", 3, "three rails", 500.0))
    changed = (placed, msgspec.structs.replace(unit, items=more))
    made = MadeJob((msgspec.structs.replace(room, units=(changed, *room.units[1:])), *rest))
    pieces = [p for p in pieces_of(made, oak.job.stock) if p.piece == placed.number and p.profile == "RL-25"]
    assert sum(p.qty for p in pieces if p.length == 500.0) == 3


def test_edging_strips_are_longer_than_their_edges_by_what_is_trimmed(oak: Workings) -> None:
    strips = dict(on_bars(oak, "E-BP-6"))
    parts = {i.number: i.part for i in oak.made.parts()}
    row = next(r for r in oak.edging if r.code == "E-BP-6")
    assert len(strips) == row.edges
    assert sum(strips.values()) == pytest.approx(row.order_m * 1000)
    for name, mm in strips.items():
        number, _, edge = name.partition(" ")
        p = parts[number]
        if not p.outline:
            assert mm == pytest.approx((p.length if edge.startswith("L") else p.width) + 60.0)


def test_worktops_lie_on_blanks_and_on_no_board(oak: Workings) -> None:
    tops = {i.number for i in oak.blank_parts}
    assert tops == {i.number for i in oak.made.parts() if i.part.board.startswith("KO40")}
    assert not tops & {p.part for b in oak.plan.boards for p in b.parts}
    assert tops <= {n for row in oak.cut_rows for n in row.numbers}
    labels = {label.part: label for label in labels_of(oak)}
    assert tops <= set(labels)
    for number in tops:
        place = labels[number].place
        assert place is not None and place.word == "bar"
        bar = oak.bars.bars[place.board - 1]
        assert number in {name for name, _ in bar.pieces}
        x, _, long, _ = place.boxes[place.mine]
        assert oak.job.cutting.trim <= x and x + long <= bar.length - oak.job.cutting.trim + 1e-6


def test_the_holes_of_a_worktop_are_not_lost_where_boards_are_routed() -> None:
    job = cutting.set_cutting(demo_job(), "mode", "router").job
    w = Workings(job)
    cut_outs = {i.number for i in w.blank_parts if any(type(op).__name__ == "Cutout" for op in i.part.operations)}
    assert cut_outs
    files = w.machine_files
    done = {p.name for p in files.programs} | {x.part for x in files.left}
    assert cut_outs <= done


def test_what_lies_on_bars_is_ordered_by_the_bar(oak: Workings) -> None:
    table = shoplists.orders(oak)
    keys = [c.key for c in table.columns]
    rows = [dict(zip(keys, row, strict=True)) for row in table.rows]
    for code in ("RL-25", "ST-2T", "E-BP-6", "KO40", "KO40W"):
        mine = [r for r in rows if r["code"] == code]
        assert {r["group"] for r in mine} == {"Bars"}
        assert sum(r["qty"] for r in mine) == sum(b.profile == code for b in oak.bars.bars)  # type: ignore[misc]
        cost = sum((r["amount"] for r in mine), Decimal(0))  # type: ignore[misc]
        assert float(cost) == pytest.approx(sum(b.price for b in oak.bars.bars if b.profile == code), abs=0.05)


def test_a_rail_too_long_for_its_bars_is_named() -> None:
    job = demo_job()
    fittings = tuple(msgspec.structs.replace(f, bars=(1000.0,)) if f.code == "RL-25" else f for f in job.stock.fittings)
    w = Workings(msgspec.structs.replace(job, stock=msgspec.structs.replace(job.stock, fittings=fittings)))
    lost = [(u.piece, u.why) for u in w.bars.unplaced]
    assert {piece for piece, _ in lost} == {"3A1", "3A3"}
    assert all("1161 is longer than every bar (1000 can be used)" in why for _, why in lost)
    assert "3A1: " in schedules.bars(w).note
    assert "On no bar, so not ordered: 3A1" in shoplists.orders(w).note


def test_worktops_are_jointed_where_their_blanks_end() -> None:
    job = demo_job()
    boards = tuple(msgspec.structs.replace(b, length=2000.0) if b.blank else b for b in job.stock.boards)
    w = Workings(msgspec.structs.replace(job, stock=msgspec.structs.replace(job.stock, boards=boards)))
    assert w.bars.unplaced == ()
    assert len(w.blank_parts) > len(Workings(job).blank_parts)
    assert all(i.part.length <= 1980.0 for i in w.blank_parts)


@pytest.mark.parametrize(
    ("length", "longest", "lap", "pieces"),
    [
        (3660.0, 3660.0, 38.0, (3660.0,)),
        (4820.0, 3660.0, 38.0, (3660.0, 1198.0)),  # 4820 - (3660 - 38)
        (3900.0, 3660.0, 38.0, (1969.0, 1969.0)),  # 3660 and 278 would end in a short piece
        (8000.0, 3660.0, 38.0, (3660.0, 3660.0, 756.0)),
        (3000.0, 500.0, 38.0, (3000.0,)),  # no bar to join from: named as too long
    ],
)
def test_what_is_longer_than_its_bars_is_joined(
    length: float, longest: float, lap: float, pieces: tuple[float, ...]
) -> None:
    assert joined(length, longest, lap) == pytest.approx(pieces)
    if len(pieces) > 1:
        assert sum(pieces) == pytest.approx(length + lap * (len(pieces) - 1))


def test_a_scarfed_molding_covers_its_wall(oak: Workings) -> None:
    long = [m for m in oak.made.lengths if m.length > 3660.0]
    assert long
    for m in long:
        profile = oak.job.stock.profile(m.profile)
        assert profile is not None
        mine = [mm for name, mm in on_bars(oak, m.profile) if name.rpartition(" ")[0] == m.number]
        ends = sum(abs(a) > 0.01 for a in (m.left, m.right))
        assert len(mine) == 2
        assert sum(mine) == pytest.approx(m.length + 10.0 * ends + profile.depth + 20.0, abs=0.01)


def test_a_slanted_end_gets_an_allowance(oak: Workings) -> None:
    from tall_plank.shop.lengths import _slanted

    part = next(iter(oak.blank_parts)).part
    length, width = part.length, part.width
    square = msgspec.structs.replace(part, outline=((0, 0), (length, 0), (length, width), (0, width)))
    one = msgspec.structs.replace(part, outline=((0, 0), (length, 0), (length - 600, width), (0, width)))
    both = msgspec.structs.replace(part, outline=((0, 0), (length, 0), (length - 600, width), (600, width)))
    assert [_slanted(p) for p in (part, square, one, both)] == [0, 0, 1, 2]


def test_a_blank_may_be_bought_in_several_lengths() -> None:
    stock = shipped_stock()
    blank = next(b for b in stock.boards if b.code == "SL40")
    short: Board = msgspec.structs.replace(blank, code="SL40S", length=2600.0)
    both = msgspec.structs.replace(stock, boards=(*stock.boards, short))
    found = {(b.profile, b.length) for b in blanks_of(both, both.prices[0])}
    assert {("SL40", 4100.0), ("SL40", 2600.0), ("SL40S", 4100.0), ("SL40S", 2600.0)} <= found
    assert ("SL40W", 2600.0) not in found


def test_a_bar_without_length_is_no_stock() -> None:
    stock = shipped_stock()
    rail = next(f for f in stock.fittings if f.code == "RL-25")
    fittings = tuple(msgspec.structs.replace(f, bars=(0.0,)) if f is rail else f for f in stock.fittings)
    with pytest.raises(PlankError, match=r"RL-25.*out of range|out of range.*RL-25"):
        check_stock(msgspec.structs.replace(stock, fittings=fittings))


def test_bars_are_drawn_true_to_length(oak: Workings) -> None:
    shown = bars_shown(oak)
    assert len(shown) == len(oak.bars.bars)
    for bar, cut in zip(shown, oak.bars.bars, strict=True):
        end = 0.0
        for piece, (name, mm) in zip(bar.pieces, cut.pieces, strict=True):
            assert piece.name == name and piece.length == mm and piece.at >= end
            end = piece.at + piece.length
        assert end <= bar.length + 1e-6
    # Every piece is named, in its bar or under it, and no two names lie on one another.
    for scale in (10.0, 20.0):
        drawing = bar_drawing("b", shown, scale)
        named = [
            i for i in drawing.items if isinstance(i, Text) and i.source is not None and i.source.kind is Kind.PART
        ]
        assert {i.source for i in named} == {Kind.PART.of(p.name) for b in shown for p in b.pieces}
        spans: dict[float, list[tuple[float, float]]] = {}
        for i in named:
            half = text_width(i.text, i.size) * scale / 2
            spans.setdefault(round(i.y + i.rise * scale, 3), []).append((i.x - half, i.x + half))
        for row in spans.values():
            row.sort()
            assert all(b[0] >= a[1] - 1e-6 for a, b in itertools.pairwise(row))
    sheets = bar_sheets(oak)
    assert sum(len([i for i in s.drawing.items if getattr(i, "bold", False)]) for s in sheets) == len(shown)
    for sheet in sheets:
        assert sheet.drawing.width / sheet.scale < sheet.size[0]


def test_metres_of_a_thing_are_its_lengths_times_their_numbers() -> None:
    w = Workings(with_run(new_job(), "A", Level.BASE, "door 600"))
    placed, unit = next(iter(w.made.units))
    items = (Item("TR-X", 3, "three", 500.0), Item("TR-X", 2, "two", 250.0), Item("TR-X", 1, "one", 12.5))
    other = msgspec.structs.replace(unit, items=items)
    made = SimpleNamespace(units=((placed, other),), trims=())
    (row,) = hardware_rows(made, w.job.stock)  # type: ignore[arg-type]
    assert (row.code, row.qty, row.metres) == ("TR-X", 6, pytest.approx(2.0125))
    assert row.why == ("three", "two", "one") and row.units == (placed.number,)
