"""Cutting plans against published instances and bounds.

Classes: Berkey & Wang, J. Oper. Res. Soc. 38 (1987); Martello & Vigo, Management Science 44 (1998), without turning. The
optima of these six small instances were found by an exact solver and are given with the data.
"""

from __future__ import annotations

import json
import math
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from shop.plan_check import check_plan
from tall_plank.shop.nesting import NestBoard, NestPart, NestRules, Request
from tall_plank.shop.nesting.bounds import least_boards
from tall_plank.shop.nesting.nest import nest

INSTANCES = json.loads((Path(__file__).parent / "packing_classes_small.json").read_text())


def request_of(items: list[list[int]], side: int, effort: int = 4) -> Request:
    parts = tuple(NestPart(str(i), w, h, 1, "m", "length") for i, (w, h) in enumerate(items))
    rules = NestRules(kerf=0.0, trim=0.0, effort=effort, seconds=0.0)
    return Request(parts, (NestBoard("b", "m", float(side), float(side)),), rules)


@pytest.mark.parametrize("case", INSTANCES, ids=lambda c: f"class {c['cls']}")
def test_small_instances_of_the_random_classes_come_out_with_their_optimum(case: dict) -> None:  # type: ignore[type-arg]
    request = request_of(case["items"], case["bin"])
    plan = nest(request)
    check_plan(request, plan)
    assert case["continuous_lb"] <= plan.bound <= case["optimal_bins_no_rotation"]
    assert len(plan.boards) == case["optimal_bins_no_rotation"]


@given(st.lists(st.tuples(st.integers(1, 100), st.integers(1, 100)), min_size=1, max_size=12))
def test_the_bound_is_never_above_what_a_plan_needs_and_never_below_the_area(items: list[tuple[int, int]]) -> None:
    plan = nest(request_of([list(i) for i in items], 100, effort=2))
    area = math.ceil(sum(w * h for w, h in items) / 10_000 - 1e-9)
    assert area <= plan.bound <= len(plan.boards)


def test_four_pieces_over_half_a_board_need_four_boards() -> None:
    """Martello & Vigo (1998): pieces longer and wider than half a board cannot share one, though the area is 1.05 boards."""
    sizes = np.full(4, 51.0)
    assert least_boards(sizes, sizes, np.zeros(4, bool), (100.0, 100.0)) == 4


@pytest.mark.parametrize(("kerf", "boards"), [(0.0, 1), (3.2, 4)])
def test_a_kerf_can_cost_a_board(kerf: float, boards: int) -> None:
    """Four quarters of a board fit on it only without a kerf (common practice)."""
    parts = (NestPart("q", 1240.0, 615.0, 4, "m", "length"),)
    plan = nest(Request(parts, (NestBoard("b", "m", 2500.0, 1250.0),), NestRules(kerf=kerf, effort=2)))
    assert len(plan.boards) == boards
