"""Cutting plans: valid whatever is asked, the same again, matched fronts together, offcuts first, what does not fit named."""

from __future__ import annotations

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from shop.plan_check import check_plan, least_turns
from tall_plank.demo import demo_job
from tall_plank.job.cutting import LaidBoard, LaidPart
from tall_plank.shop.boards import cut_plan
from tall_plank.shop.nesting import (
    NestBoard,
    NestPart,
    NestPlan,
    NestRules,
    Request,
    leftover,
    router,
    search,
)
from tall_plank.shop.nesting.cuts import sawn
from tall_plank.shop.nesting.job import request_of
from tall_plank.shop.nesting.nest import nest
from tall_plank.workings import Workings

BOARD = NestBoard("SHEET", "ply", 2500.0, 1250.0, 60.0)


def some_parts(n: int = 24) -> tuple[NestPart, ...]:
    sizes = ((720.0, 560.0), (564.0, 560.0), (597.0, 140.0), (864.0, 330.0), (2090.0, 560.0), (330.0, 97.5))
    return tuple(
        NestPart(f"P{i}", *sizes[i % 6], qty=1 + i % 3, material="ply", grain="length" if i % 4 else "none")
        for i in range(n)
    )


def ask(
    parts: tuple[NestPart, ...] | None = None, boards: tuple[NestBoard, ...] = (BOARD,), **rules
) -> tuple[Request, NestPlan]:  # type: ignore[no-untyped-def]
    request = Request(parts or some_parts(), boards, NestRules(**{"seconds": 0.0, "effort": 3, **rules}))
    return request, nest(request)


PART = st.builds(
    NestPart,
    part=st.uuids().map(str),
    length=st.floats(20.0, 2600.0).map(lambda x: round(x, 1)),
    width=st.floats(20.0, 1400.0).map(lambda x: round(x, 1)),
    qty=st.integers(0, 4),
    material=st.sampled_from(["ply", "white"]),
    grain=st.sampled_from(["none", "length"]),
    match=st.sampled_from(["", "", "", "row"]),
)
BOARDS = st.lists(
    st.builds(
        NestBoard,
        board=st.sampled_from(["A", "B", "C", "D"]),
        material=st.sampled_from(["ply", "white"]),
        length=st.sampled_from([2500.0, 2800.0, 1000.0, 640.5]),
        width=st.sampled_from([1250.0, 2070.0, 400.0]),
        price=st.sampled_from([0.0, 40.0, 75.5]),
        qty=st.sampled_from([None, None, 1, 3]),
        offcut=st.booleans(),
    ),
    min_size=1,
    max_size=4,
    unique_by=lambda b: (b.material, b.board),
)
RULES = st.builds(
    NestRules,
    kerf=st.sampled_from([0.0, 3.2, 4.4]),
    trim=st.sampled_from([0.0, 10.0, 15.0]),
    turns=st.sampled_from([0, 2, 3, 4]),
    first_cut=st.sampled_from(["either", "along", "across"]),
    effort=st.sampled_from([1, 2]),
    seconds=st.just(0.0),
    seed=st.integers(1, 1000),
)


@given(st.lists(PART, max_size=14), BOARDS, RULES)
def test_any_list_gives_a_valid_plan(parts: list[NestPart], boards: list[NestBoard], rules: NestRules) -> None:
    request = Request(tuple(parts), tuple(boards), rules)
    plan = nest(request)
    check_plan(request, plan)
    assert plan.bound <= len(plan.boards) or plan.unplaced


@pytest.mark.parametrize("turns", [0, 3, 2])
@pytest.mark.parametrize("first_cut", ["either", "along", "across"])
def test_turns_and_first_cut_are_kept(turns: int, first_cut: str) -> None:
    request, plan = ask(turns=turns, first_cut=first_cut)
    check_plan(request, plan)
    assert not plan.unplaced
    for board in plan.boards:
        boxes = tuple((p.x, p.y, p.x + p.length, p.y + p.width) for p in board.parts)
        found = sawn(boxes, (10.0, 10.0, 2490.0, 1240.0), 3.2, first_cut, turns)
        assert found is not None
        assert turns == 0 or found.turns <= turns


@pytest.mark.parametrize("effort", [1, 3])
@pytest.mark.parametrize("first", [True, False])
def test_the_offcut_that_is_filled_is_taken_and_no_other_opened(effort: int, first: bool) -> None:
    """Four pieces that a small offcut holds: a large one, free of charge too, stays whole, whichever is listed first."""
    parts = tuple(NestPart(f"p{i}", 480.0, 380.0) for i in range(4))
    small = NestBoard("b rack 2", "", 1000.0, 800.0, qty=1, offcut=True)
    large = NestBoard("b rack 1", "", 2700.0, 2000.0, qty=1, offcut=True)
    boards = (NestBoard("b", "", 2800.0, 2070.0, 100.0), *((small, large) if first else (large, small)))
    request = Request(parts, boards, NestRules(trim=0.0, effort=effort, seconds=0.0))
    plan = nest(request)
    check_plan(request, plan)
    assert [(b.board, len(b.parts)) for b in plan.boards] == [("b rack 2", 4)]


def test_a_quick_look_is_never_worse_than_strips_cut_by_hand() -> None:
    """The plan that a job shows before a search: strips, widest first. No search may end with more boards."""
    job = demo_job()
    w = Workings(job)
    for turns in (3, 0):
        rules = NestRules(kerf=3.2, trim=10.0, turns=turns, effort=1, seconds=0.0)
        plan = nest(request_of(w.made, job.stock, job.price_book(), rules))
        assert len(plan.boards) <= len(cut_plan(w.made, job.stock, 3.2, 10.0).boards)


def test_what_is_left_comes_together_on_one_board() -> None:
    """Twelve pieces of a quarter of a board less a kerf, and three of an eighth: four boards, the last one nearly free."""
    parts = tuple(NestPart(f"q{i}", 1196.8, 596.8) for i in range(12))
    parts += tuple(NestPart(f"e{i}", 596.8, 596.8) for i in range(3))
    board = NestBoard("b", "", 2400.0, 1200.0)
    plan = nest(Request(parts, (board,), NestRules(kerf=3.2, trim=0.0, effort=3, seconds=0.0)))
    check_plan(Request(parts, (board,), NestRules(kerf=3.2, trim=0.0, effort=3, seconds=0.0)), plan)
    assert len(plan.boards) == 4
    least = min(plan.boards, key=lambda b: b.used)
    assert least.used == pytest.approx(0.375, abs=0.01)  # three eighths, however they come about
    # Half of that board is left in one piece.
    assert max(o[2] * o[3] for o in least.offcuts) >= 2400.0 * 1200.0 * 0.49


def test_gathering_leaves_larger_pieces(monkeypatch: pytest.MonkeyPatch) -> None:
    """With as many boards, a search that gathers what is left leaves no smaller piece, and on some lists a larger one."""
    gained = 0.0
    for seed in (0, 2, 4, 6):
        r = random.Random(seed)
        sizes = [
            (r.choice([720, 560, 330, 900, 450, 1300]), r.choice([560, 330, 300, 597, 140, 96])) for _ in range(60)
        ]
        parts = tuple(NestPart(f"p{i}", float(a), float(b)) for i, (a, b) in enumerate(sizes))
        request = Request(parts, (NestBoard("b", "", 2800.0, 2070.0),), NestRules(effort=3, seconds=0.0))
        left = []
        for share in (0.0, leftover.GATHER):
            with monkeypatch.context() as m:
                m.setattr(leftover, "GATHER", share)
                plan = nest(request)
            check_plan(request, plan)
            left.append((len(plan.boards), max(o[2] * o[3] for b in plan.boards for o in b.offcuts)))
        assert left[0][0] == left[1][0]
        gained += left[1][1] - left[0][1]
    assert gained > 500_000  # mm2: half a square metre on the four lists


def test_the_same_question_has_the_same_answer_and_another_seed_is_valid_too() -> None:
    request, plan = ask()
    assert nest(request).boards == plan.boards
    other, again = ask(seed=2)
    check_plan(other, again)
    assert len(again.boards) == len(plan.boards)


def test_more_effort_never_costs_more_boards() -> None:
    counts = [len(ask(effort=e)[1].boards) for e in (1, 2, 3, 5)]
    assert counts == sorted(counts, reverse=True)


def test_better_plans_are_told_on_the_way_and_a_stop_keeps_the_best() -> None:
    parts = some_parts(60)
    told: list[NestPlan] = []
    request = Request(parts, (BOARD,), NestRules(effort=9, seconds=0.0))
    plan = nest(request, told.append, lambda: len(told) >= 1)
    assert len(told) <= 2, "the search went on after the stop"
    assert not plan.done
    assert told and not told[0].done
    for step in told:
        check_plan(request, step)
    costs = [len(p.boards) for p in told]
    assert costs == sorted(costs, reverse=True)
    assert len(plan.boards) <= costs[-1]


def test_matched_fronts_lie_side_by_side_in_their_order() -> None:
    fronts = tuple(
        NestPart(f"F{i}", 716.0, w, 1, "ply", "length", match="row") for i, w in enumerate((397.0, 597.0, 147.0))
    )
    request, plan = ask((*fronts, *some_parts(6)))
    check_plan(request, plan)
    (board,) = [b for b in plan.boards if any(p.part == "F0" for p in b.parts)]
    row = [next(p for p in board.parts if p.part == f"F{i}") for i in range(3)]
    assert len({p.x for p in row}) == 1
    for a, b in zip(row, row[1:], strict=False):
        assert b.y == pytest.approx(a.y + a.width + 3.2)


def test_a_row_wider_than_any_board_is_divided() -> None:
    fronts = tuple(NestPart(f"F{i}", 716.0, 597.0, 1, "ply", "length", match="row") for i in range(4))
    request, plan = ask(fronts)
    check_plan(request, plan)
    assert not plan.unplaced
    assert len(plan.boards) == 2 or all(len(b.parts) >= 2 for b in plan.boards)


@pytest.mark.parametrize("mode", ["saw", "router"])
def test_seconds_are_those_of_the_search_and_not_of_compiling(mode: str, monkeypatch: pytest.MonkeyPatch) -> None:
    """On a clock that only compiling moves, by more than the search may take, the search goes to its end."""
    now = [0.0]

    class Clock:
        @staticmethod
        def perf_counter() -> float:
            return now[0]

    monkeypatch.setattr(search, "time", Clock)
    monkeypatch.setattr(router, "time", Clock)
    compiled = search.compile_search

    def slowly() -> None:
        if not now[0]:
            now[0] += 100.0
        compiled()

    monkeypatch.setattr(search, "compile_search", slowly)
    parts = tuple(NestPart(f"p{i}", 700.0, 400.0 + i, 1, "ply") for i in range(12))
    plan = nest(Request(parts, (BOARD,), NestRules(mode=mode, effort=2, seconds=10.0)))  # type: ignore[arg-type]
    assert now[0] == 100.0
    assert plan.done


def test_the_tiny_search_goes_through_the_whole_loop(monkeypatch: pytest.MonkeyPatch) -> None:
    called = []
    improve = search.kernel.improve
    monkeypatch.setattr(search.kernel, "improve", lambda *a: (called.append(1), improve(*a))[1])
    monkeypatch.setattr(search, "_compiled", False)
    search.compile_search()
    assert called


def test_offcuts_are_taken_before_new_boards_and_the_cheaper_board_first() -> None:
    rest = NestBoard("REST", "ply", 1200.0, 700.0, 0.0, 1, True)
    dear = NestBoard("DEAR", "ply", 2800.0, 1250.0, 200.0)
    parts = (NestPart("door", 716.0, 597.0, 1, "ply", "length"),)
    assert [b.board for b in ask(parts, (dear, BOARD, rest))[1].boards] == ["REST"]
    assert [b.board for b in ask(parts, (dear, BOARD))[1].boards] == ["SHEET"]
    many = (NestPart("door", 716.0, 597.0, 9, "ply", "length"),)
    plan = ask(many, (BOARD, rest))[1]
    assert sorted(b.board for b in plan.boards) == ["REST", "SHEET", "SHEET"]


def test_what_is_left_of_the_emptiest_board_is_one_large_piece() -> None:
    request, plan = ask((NestPart("a", 500.0, 400.0, 3, "ply"),))
    (board,) = plan.boards
    x, y, length, width = board.offcuts[0]
    taken = 3 * 500.0 * 400.0
    assert length * width > 0.75 * (2480.0 * 1230.0 - taken)
    for p in board.parts:
        apart_x = max(x - p.x - p.length, p.x - x - length)
        apart_y = max(y - p.y - p.width, p.y - y - width)
        assert max(apart_x, apart_y) >= request.rules.kerf - 1e-3


@pytest.mark.parametrize(
    ("parts", "boards", "rules", "why"),
    [
        ((NestPart("long", 3000.0, 400.0, 2, "ply"),), (BOARD,), {}, "larger than every board"),
        ((NestPart("wide", 1000.0, 1300.0, 1, "ply", "length"),), (BOARD,), {}, "larger than every board"),
        ((NestPart("oak", 300.0, 300.0, 1, "oak"),), (BOARD,), {}, "no board of “oak”"),
        ((NestPart("a", 300.0, 300.0, 1, "ply"),), (BOARD,), {"trim": 700.0}, "the trims leave nothing"),
        (
            (NestPart("a", 2000.0, 1000.0, 3, "ply"),),
            (NestBoard("S", "ply", 2500.0, 1250.0, 1.0, 2),),
            {},
            "no board is left",
        ),
    ],
)
def test_what_lies_on_no_board_is_named_and_the_rest_is_planned(parts, boards, rules, why: str) -> None:  # type: ignore[no-untyped-def]
    request, plan = ask((*parts, NestPart("fits", 200.0, 100.0, 1, "ply")), boards, **rules)
    lost = [u for u in plan.unplaced if why in u.why]
    assert lost and lost[0].part == parts[0].part
    if "trim" not in rules:
        assert any(p.part == "fits" for b in plan.boards for p in b.parts)
    check_plan(request, plan)


def test_no_parts_and_quantities_of_none_give_an_empty_plan() -> None:
    for parts in ((), (NestPart("a", 1.0, 1.0, 0, "ply"),)):
        plan = nest(Request(parts, (BOARD,)))
        assert plan.boards == () and plan.unplaced == () and plan.used == 0.0


def test_the_cuts_of_a_board_in_their_order() -> None:
    """Two doors side by side and a strip above: a cut along the board, then two across below it and one above."""
    places = ((10.0, 10.0, 726.0, 607.0), (729.2, 10.0, 1445.2, 607.0), (10.0, 610.2, 1010.0, 750.2))
    found = sawn(places, (10.0, 10.0, 2490.0, 1240.0), 3.2, "along")
    assert found is not None
    assert [(c.turn, c.along, round(c.size, 3)) for c in found.cuts] == [
        (1, True, 597.0), (1, True, 140.0), (2, False, 716.0), (2, False, 716.0), (2, False, 1000.0),
    ]  # fmt: skip
    assert found.turns == 2
    left = sorted(round((x1 - x0) * (y1 - y0)) for x0, y0, x1, y1 in found.left)
    assert left[-1] == round(2480.0 * (1240.0 - 753.4))


def test_a_pinwheel_cannot_be_cut_from_edge_to_edge() -> None:
    pinwheel = ((0.0, 0.0, 60.0, 40.0), (60.0, 0.0, 100.0, 60.0), (40.0, 60.0, 100.0, 100.0), (0.0, 40.0, 40.0, 100.0))
    assert sawn(pinwheel, (0.0, 0.0, 100.0, 100.0), 0.0) is None
    board = LaidBoard(
        "b", "m", 100.0, 100.0, tuple(LaidPart(str(i), a, b, c - a, d - b) for i, (a, b, c, d) in enumerate(pinwheel))
    )
    assert least_turns(board, 0.0, 0.0) is None


@given(st.lists(PART, min_size=1, max_size=10), RULES)
def test_cuts_part_every_piece_and_leave_what_they_say(parts: list[NestPart], rules: NestRules) -> None:
    request = Request(tuple(parts), (BOARD, NestBoard("W", "white", 2800.0, 2070.0)), rules)
    for board in nest(request).boards:
        boxes = tuple((p.x, p.y, p.x + p.length, p.y + p.width) for p in board.parts)
        area = (rules.trim, rules.trim, board.length - rules.trim, board.width - rules.trim)
        found = sawn(boxes, area, rules.kerf, rules.first_cut)
        assert found is not None
        for x0, y0, x1, y1 in found.left:
            for a0, b0, a1, b1 in boxes:
                assert x1 <= a0 + 1e-3 or a1 <= x0 + 1e-3 or y1 <= b0 + 1e-3 or b1 <= y0 + 1e-3
        # Parts, what is left, and the kerfs make up the board: no area is lost but that of the cuts.
        taken = sum((x1 - x0) * (y1 - y0) for x0, y0, x1, y1 in (*boxes, *found.left))
        kerfs = sum(rules.kerf * (c.piece[2] - c.piece[0] if c.along else c.piece[3] - c.piece[1]) for c in found.cuts)
        whole = (area[2] - area[0]) * (area[3] - area[1])
        assert taken <= whole + 1.0
        assert taken + 2 * kerfs >= whole - 1.0
