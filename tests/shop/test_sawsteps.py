"""Work sheets of the saw: a board sawn by the figures of its sheet alone gives its parts; packs; equal layouts."""

from __future__ import annotations

from collections import Counter

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from shop.test_nesting import BOARD, PART, RULES
from shop.test_worker import planned
from tall_plank.edits import cutting
from tall_plank.job import Job, Level
from tall_plank.job.cutting import Cutting, LaidBoard, LaidPart
from tall_plank.job.start import new_job
from tall_plank.measure import DisplayUnit
from tall_plank.papers.labels import labels_of
from tall_plank.papers.tables import Table
from tall_plank.papers.worksheets import STEP_COLUMNS, saw_cuts_of, work_sheets
from tall_plank.shop.boards import Plan
from tall_plank.shop.nesting import NestBoard, NestPart, NestPlan, NestRules, Request
from tall_plank.shop.nesting.alike import laid_alike
from tall_plank.shop.nesting.kept import kept
from tall_plank.shop.nesting.nest import nest
from tall_plank.shop.nesting.search import nest_sawn
from tall_plank.shop.sawsteps import falling, layout_of, packs_of, saw_steps
from tall_plank.stock import shipped_stock
from tall_plank.workings import Workings

STOCK = shipped_stock()


def sawn_by_hand(b: LaidBoard, table: Table, kerf: float, trim: float) -> dict[str, tuple[float, float]]:
    """Who saws with nothing but the sheet: takes the named piece, sets the stop, cuts, names what falls and what is
    left. Returns the sizes of all that there is in the end."""
    col = {c.key: i for i, c in enumerate(table.columns)}
    pieces = {"board": (b.length - 2 * trim, b.width - 2 * trim)}
    for row in table.rows:
        hand, measure = str(row[col["hand"]]), row[col["measure"]]
        if measure is None:
            (only,) = (p.part for p in b.parts)
            return {only: pieces["board"]}
        assert isinstance(measure, float)
        long, wide = pieces.pop(hand)
        along = row[col["runs"]] == "along"
        off = (long, measure) if along else (measure, wide)
        assert off == pytest.approx((row[col["long"]], row[col["wide"]]), abs=0.01)
        name = str(row[col["falls"]])
        assert name == "waste" or name not in pieces
        pieces[name] = off
        left = (wide if along else long) - measure - kerf
        rest = str(row[col["rest"]])
        if not rest:
            pieces[hand] = (long, left) if along else (left, wide)
        elif rest != "nothing left":
            what, said = rest.rsplit(" ", 1)
            assert float(said) == pytest.approx(left, abs=0.06)
            pieces[what] = (long, left) if along else (left, wide)
    return pieces


@given(st.lists(PART, min_size=1, max_size=14), RULES, st.sampled_from(("beam", "panel")))
def test_the_figures_of_a_sheet_alone_give_the_parts(parts: list[NestPart], rules: NestRules, kind: str) -> None:
    request = Request(tuple(parts), (BOARD, NestBoard("W", "white", 2800.0, 2070.0)), rules)
    boards = nest(request).boards
    # Parts of one name cannot be told apart on a sheet: each has its own in a job.
    names = iter(f"P{i}" for i in range(10_000))
    boards = tuple(
        msgspec.structs.replace(b, parts=tuple(msgspec.structs.replace(p, part=next(names)) for p in b.parts))
        for b in boards
    )
    saw = Cutting(kerf=rules.kerf, trim=rules.trim, first_cut=rules.first_cut, turns=rules.turns, sawn_on=kind)  # type: ignore[arg-type]
    plan = Plan(boards, (), rules.kerf, rules.trim)
    tables, pictures = work_sheets(plan, saw, STOCK, new_job().display)
    assert len(tables) == len(pictures) == len(boards)
    for number, (b, table) in enumerate(zip(boards, tables, strict=True), 1):
        found = sawn_by_hand(b, table, rules.kerf, rules.trim)
        for p in b.parts:
            assert found[p.part] == pytest.approx((p.length, p.width), abs=0.02)
        steps = saw_steps(number, b, plan, saw)
        assert steps is not None
        if kind == "beam":
            turns = [s.turn for s in steps]
            assert turns == sorted(turns)
        off = falling(number, b, plan, saw)
        assert sorted(off) == sorted(p.part for p in b.parts)


def test_a_panel_saw_cuts_a_strip_up_before_the_next() -> None:
    places = (LaidPart("a", 10.0, 10.0, 700.0, 600.0), LaidPart("b", 713.2, 10.0, 700.0, 600.0),
              LaidPart("c", 10.0, 613.2, 900.0, 300.0))  # fmt: skip
    board = LaidBoard("BP18", "ply", 2500.0, 1250.0, places)
    plan = Plan((board,), (), 3.2, 10.0)
    by_kind = {
        kind: [(s.hand, s.turn, round(s.measure, 1), s.falls) for s in saw_steps(1, board, plan, saw) or ()]
        for kind in ("beam", "panel")
        for saw in (Cutting(first_cut="along", sawn_on=kind),)  # type: ignore[arg-type]
    }
    assert by_kind["beam"] == [
        ("board", 1, 600.0, "strip 1"), ("board", 1, 300.0, "strip 2"),
        ("strip 1", 2, 700.0, "a"), ("strip 1", 2, 700.0, "b"), ("strip 2", 2, 900.0, "c"),
    ]  # fmt: skip
    assert by_kind["panel"] == [
        ("board", 1, 600.0, "strip 1"), ("strip 1", 2, 700.0, "a"), ("strip 1", 2, 700.0, "b"),
        ("board", 1, 300.0, "strip 2"), ("strip 2", 2, 900.0, "c"),
    ]  # fmt: skip


def test_offcuts_have_their_marks_on_sheet_and_drawing() -> None:
    places = (LaidPart("a", 10.0, 10.0, 700.0, 1230.0),)
    board = LaidBoard("BP18", "ply", 2500.0, 1250.0, places, ((713.2, 10.0, 1776.8, 1230.0),))
    plan = Plan((board, board), (), 3.2, 10.0)
    tables, pictures = work_sheets(plan, Cutting(), STOCK, new_job().display)
    assert tables[1].rows[-1][-1] == "offcut 2a 1776.8"
    assert "To the rack: 2a 1776.8 × 1230" in tables[1].note
    assert pictures[1] is not None
    assert any("2a · 1777 × 1230" in getattr(i, "text", "") for i in pictures[1].items)


def eight() -> Job:
    """A job with many parts alike: the same unit eight times."""
    return with_run(new_job(), "A", Level.BASE, ", ".join(["door 450"] * 8))


def test_boards_laid_out_alike_are_sawn_in_packs() -> None:
    places = tuple(LaidPart(f"{n}", 10.0 + 703.2 * n, 10.0, 700.0, 1230.0) for n in range(3))
    boards = tuple(
        LaidBoard(
            "BP18", "ply", 2500.0, 1250.0, tuple(msgspec.structs.replace(p, part=f"{i}.{p.part}") for p in places)
        )
        for i in range(8)
    )
    other = LaidBoard("BP18", "ply", 2500.0, 1250.0, (LaidPart("x", 10.0, 10.0, 500.0, 500.0),))
    plan = Plan((*boards[:5], other, *boards[5:]), (), 3.2, 10.0)
    saw = Cutting(pack=60.0)  # three boards of 18
    packs = packs_of(plan, saw, STOCK)
    assert [(p.boards, p.at_once, p.packs) for p in packs] == [((1, 2, 3, 4, 5, 7, 8, 9), 3, 3), ((6,), 1, 1)]
    tables, _ = work_sheets(plan, saw, STOCK, new_job().display)
    assert "8 boards in 3 packs of 3, the last of 2" in tables[0].subtitle
    col = [c.key for c in STEP_COLUMNS].index("falls")
    assert tables[0].rows[0][col] == ", ".join(f"{i}.0" for i in range(8))
    # Cuts count once a pack: three across each of three packs, and two for the other board.
    table = saw_cuts_of(plan, saw, STOCK, DisplayUnit.MM)
    assert table.subtitle.startswith(f"{3 * len(tables[0].rows) + len(tables[1].rows)} cuts")
    assert saw_cuts_of(plan, Cutting(), STOCK, DisplayUnit.MM).subtitle.startswith(
        f"{8 * len(tables[0].rows) + len(tables[1].rows)} cuts"
    )
    # A pack lower than one board: one at a time.
    assert packs_of(plan, Cutting(pack=10.0), STOCK)[0].packs == 8


def test_equal_layouts_cost_no_board_and_lose_no_part() -> None:
    parts = tuple(NestPart(f"p{i}", 720.0, 560.0, 1, "m", "none") for i in range(180))
    rules = NestRules(effort=3, seconds=0.0, turns=3)
    board = NestBoard("B", "m", 2800.0, 2070.0)
    plain = nest(Request(parts, (board,), rules))
    packed = nest(Request(parts, (board,), msgspec.structs.replace(rules, pack=True)))
    assert len(packed.boards) == len(plain.boards)
    assert sorted(p.part for b in packed.boards for p in b.parts) == sorted(p.part for p in parts)
    # 180 parts of one size: so many to a board on all boards but the last.
    assert len({layout_of(b) for b in packed.boards}) <= 2 < len({layout_of(b) for b in plain.boards})


@given(st.lists(st.tuples(st.integers(20, 90), st.integers(10, 60), st.integers(5, 25)), min_size=1, max_size=4))
def test_equal_layouts_never_make_a_plan_worse(sizes: list[tuple[int, int, int]]) -> None:
    parts = tuple(
        NestPart(f"{k}-{i}", 10.0 * long, 10.0 * wide, 1, "m", "length" if k % 2 else "none")
        for k, (long, wide, n) in enumerate(sizes)
        for i in range(n)
    )
    request = Request(parts, (NestBoard("B", "m", 2800.0, 2070.0),), NestRules(effort=1, seconds=0.0, turns=3))
    plain = nest_sawn(request)
    found: NestPlan = laid_alike(plain, request, nest_sawn, lambda: False)
    assert len(found.boards) == len(plain.boards) and found.cost == plain.cost
    assert len(found.turns) == len(found.boards) and max(found.turns) <= max(3, *plain.turns)
    assert Counter(p.part for b in found.boards for p in b.parts) == Counter(p.part for p in parts)
    assert len({layout_of(b) for b in found.boards}) <= len({layout_of(b) for b in plain.boards})
    by_name = {p.part: p for p in parts}
    for b in found.boards:
        for p in b.parts:
            own = by_name[p.part]
            assert {round(p.length, 2), round(p.width, 2)} == {own.length, own.width}
            assert not (p.turned and own.grain == "length")


@pytest.mark.parametrize("kind", ["beam", "panel"])
def test_labels_come_as_the_parts_fall_also_for_kept_plans(kind: str) -> None:
    job = cutting.set_cutting(eight(), "sawn_on", kind).job
    for _ in range(2):
        w = Workings(job)
        wanted = [
            name for number, b in enumerate(w.plan.boards, 1) for name in falling(number, b, w.plan, w.job.cutting)
        ]
        labels = [x.part for x in labels_of(w)]
        assert labels[: len(wanted)] == wanted
        if w.plan_is_kept:
            return
        job = cutting.keep_plan(job, kept(*planned(job))).job
    pytest.fail("the plan was not kept")
