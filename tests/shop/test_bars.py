from __future__ import annotations

import itertools
import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from shop.bars_check import check_bars
from tall_plank.shop import bars
from tall_plank.shop.bars import BarPiece, BarStock, cut_bars
from tall_plank.shop.knapsack import fill_best

PIECES = st.lists(
    st.builds(
        BarPiece,
        piece=st.uuids().map(str),
        length=st.floats(40.0, 3200.0).map(lambda x: round(x, 1)),
        qty=st.integers(0, 6),
        profile=st.sampled_from(["cornice", "rail"]),
    ),
    max_size=7,
)
STOCK = st.lists(
    st.builds(
        BarStock,
        profile=st.sampled_from(["cornice", "rail"]),
        length=st.sampled_from([2400.0, 3000.0, 2700.5, 60.0]),
        price=st.sampled_from([0.0, 8.5, 12.0]),
    ),
    max_size=4,
    unique_by=lambda s: (s.profile, s.length),
)


@given(PIECES, STOCK, st.sampled_from([0.0, 3.0, 4.2]), st.sampled_from([0.0, 15.0]))
def test_any_list_of_lengths_is_cut_right(
    pieces: list[BarPiece], stock: list[BarStock], kerf: float, trim: float
) -> None:
    plan = cut_bars(pieces, stock, kerf, trim)
    check_bars(pieces, stock, plan, kerf, trim)
    for profile in {b.profile for b in plan.bars}:
        # No plan can do with less bar than its pieces are long.
        mine = [b for b in plan.bars if b.profile == profile]
        longest = max(s.length for s in stock if s.profile == profile)
        assert len(mine) >= math.ceil(sum(mm for b in mine for _, mm in b.pieces) / longest - 1e-9)


@given(PIECES, STOCK, st.sampled_from([0.0, 3.0, 4.2]), st.sampled_from([0.0, 15.0]))
def test_a_first_plan_is_right_too_and_never_better_than_the_least(
    pieces: list[BarPiece], stock: list[BarStock], kerf: float, trim: float
) -> None:
    bars._solved.clear()
    first = cut_bars(pieces, stock, kerf, trim, wait=False)
    check_bars(pieces, stock, first, kerf, trim)
    assert first.settled == (not first.bars)
    least = cut_bars(pieces, stock, kerf, trim)
    assert least.settled
    assert first.unplaced == least.unplaced
    assert least.bound >= first.bound - 1e-6
    if all(s.price > 0 for s in stock):
        assert first.cost >= least.cost - 1e-6
    # From then on the least is known at once.
    assert cut_bars(pieces, stock, kerf, trim, wait=False) == least


@given(
    st.lists(st.tuples(st.floats(40, 900), st.floats(0, 9), st.integers(0, 4)), min_size=1, max_size=5),
    st.floats(100, 2500),
)
def test_the_best_filling_is_the_best_of_all(rows: list[tuple[float, float, int]], room: float) -> None:
    """Every filling of a bar tried one by one."""
    rows.sort(key=lambda r: -r[1] / r[0])
    sizes, worth, need = (np.array(c) for c in zip(*rows, strict=True))
    value, counts, _ = fill_best(sizes, worth, need.astype(np.int64), room, 10**6)
    assert (counts <= need).all() and float(counts @ sizes) <= room + 1e-3
    assert float(counts @ worth) == pytest.approx(value, abs=1e-9)
    ways = itertools.product(*(range(int(n) + 1) for n in need))
    best = max(
        sum(c * w for c, w in zip(way, worth, strict=True))
        for way in ways
        if sum(c * s for c, s in zip(way, sizes, strict=True)) <= room + 1e-9
    )
    assert value >= best - 1e-9


@given(st.lists(st.integers(200, 1500), min_size=1, max_size=8))
def test_a_proven_plan_is_never_beaten_by_trying_everything(lengths: list[int]) -> None:
    """Up to eight pieces on bars of 2000: every way to group them, tried one by one."""
    plan = cut_bars([BarPiece(str(i), float(x)) for i, x in enumerate(lengths)], [BarStock("", 2000.0)], 3.0)
    assert plan.proven

    def fewest(todo: tuple[int, ...], rooms: tuple[int, ...], best: int) -> int:
        if len(rooms) >= best:
            return best
        if not todo:
            return len(rooms)
        first, rest = todo[0] + 3, todo[1:]
        for i, room in enumerate(rooms):
            if room >= first and room not in rooms[:i]:
                best = min(best, fewest(rest, (*rooms[:i], room - first, *rooms[i + 1 :]), best))
        return min(best, fewest(rest, (*rooms, 2003 - first), best))

    assert len(plan.bars) == fewest(tuple(sorted(lengths, reverse=True)), (), len(lengths) + 1)


def test_the_cheaper_lengths_are_bought() -> None:
    pieces = [BarPiece("post", 1100.0, 4)]
    plan = cut_bars(pieces, [BarStock("", 2400.0, 10.0), BarStock("", 4800.0, 19.0)])
    assert [b.length for b in plan.bars] == [4800.0]
    assert plan.cost == 19.0 and plan.proven
    dear = cut_bars(pieces, [BarStock("", 2400.0, 9.0), BarStock("", 4800.0, 19.0)])
    assert [b.length for b in dear.bars] == [2400.0, 2400.0]


@pytest.mark.parametrize(
    ("piece", "stock", "why"),
    [
        (BarPiece("long", 2500.0, 2, "rail"), BarStock("rail", 2400.0), "longer than every bar"),
        (BarPiece("odd", 100.0, 1, "dado"), BarStock("rail", 2400.0), "no bar of “dado”"),
        (BarPiece("tight", 2390.0, 1, "rail"), BarStock("rail", 2400.0), "longer than every bar"),
    ],
)
def test_what_no_bar_takes_is_named_and_the_rest_is_cut(piece: BarPiece, stock: BarStock, why: str) -> None:
    plan = cut_bars([piece, BarPiece("fits", 500.0, 1, "rail")], [stock], 3.0, 10.0)
    assert [(u.piece, u.qty) for u in plan.unplaced] == [(piece.piece, piece.qty)]
    assert why in plan.unplaced[0].why
    assert [name for b in plan.bars for name, _ in b.pieces] == ["fits"]


def test_a_long_list_is_cut_close_to_its_bound() -> None:
    pieces = [BarPiece(str(i), 300.0 + 37.3 * (i * 7 % 45), 1 + i % 4, "") for i in range(60)]
    plan = cut_bars(pieces, [BarStock("", 2700.0)], 3.0)
    check_bars(pieces, [BarStock("", 2700.0)], plan, 3.0, 0.0)
    bars = plan.bound / 2700.0
    assert len(plan.bars) - bars <= 1.0 + 1e-6


def test_the_choice_of_patterns_is_cut_short_by_branches_and_not_by_a_clock(monkeypatch: pytest.MonkeyPatch) -> None:
    """One question, one answer, on a busy machine as on a quiet one: the solver is given no seconds."""
    from scipy import optimize

    given: list[dict[str, float]] = []
    solve = optimize.milp

    def watched(*args: object, **named: Any) -> object:
        given.append(dict(named["options"]))  # the solver takes its own out
        return solve(*args, **named)

    monkeypatch.setattr(optimize, "milp", watched)
    cut_bars([BarPiece("a", 1111.5, 7), BarPiece("b", 777.25, 5)], [BarStock("", 3000.0)], kerf=3.0)
    assert given and all("time_limit" not in g and g["node_limit"] > 0 for g in given)
