"""Plans for a router: outlines as they are, turned by quarters, parts in the openings of others."""

from __future__ import annotations

import itertools
import math
from collections import Counter

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon, affinity, box

from tall_plank.demo import demo_job
from tall_plank.making import Cutout
from tall_plank.measure.outlines import area
from tall_plank.shop.nesting import NestBoard, NestPart, NestPlan, NestRules, Request
from tall_plank.shop.nesting.job import part_of
from tall_plank.shop.nesting.nest import nest
from tall_plank.workings import Workings

BOARD = NestBoard("SHEET", "ply", 2500.0, 1250.0, 60.0)
WEDGE = ((0.0, 0.0), (800.0, 0.0), (800.0, 40.0), (0.0, 400.0))
L_SHAPE = ((0.0, 0.0), (900.0, 0.0), (900.0, 200.0), (200.0, 200.0), (200.0, 700.0), (0.0, 700.0))


def check(request: Request, plan: NestPlan) -> None:
    """Shapes built anew here: inside the trimmed board, a gap apart, grain kept, quantities exact."""
    rules = request.rules
    parts = {p.part: p for p in request.parts}
    found: Counter[str] = Counter()
    for board in plan.boards:
        shapes = []
        for p in board.parts:
            part = parts[p.part]
            found[p.part] += 1
            assert part.grain == "none" or p.angle in (0.0, 180.0)
            corners = part.outline or ((0, 0), (part.length, 0), (part.length, part.width), (0, part.width))
            shape = affinity.rotate(Polygon(corners, part.holes), p.angle, origin=(0, 0))
            shape = affinity.translate(shape, p.x - shape.bounds[0], p.y - shape.bounds[1])
            assert shape.bounds == pytest.approx((p.x, p.y, p.x + p.length, p.y + p.width), abs=1e-3)
            inside = box(rules.trim, rules.trim, board.length - rules.trim, board.width - rules.trim)
            assert inside.buffer(0.01).contains(shape)
            shapes.append(shape)
        for a, b in itertools.combinations(shapes, 2):
            assert a.distance(b) >= rules.kerf - 0.01
    lost: Counter[str] = Counter()
    for u in plan.unplaced:
        lost[u.part] += u.qty
    for part in request.parts:
        assert found[part.part] + lost[part.part] >= part.qty >= found[part.part]


def ask(*parts: NestPart, boards: tuple[NestBoard, ...] = (BOARD,), **rules) -> tuple[Request, NestPlan]:  # type: ignore[no-untyped-def]
    request = Request(
        parts, boards, NestRules(**{"mode": "router", "kerf": 12.0, "effort": 3, "seconds": 0.0, **rules})
    )
    plan = nest(request)
    check(request, plan)
    return request, plan


def test_a_small_part_lies_in_the_opening_of_a_large_one() -> None:
    top = NestPart(
        "top",
        2400.0,
        1200.0,
        1,
        "ply",
        "length",
        holes=(((400.0, 200.0), (1600.0, 200.0), (1600.0, 1000.0), (400.0, 1000.0)),),
    )
    _, plan = ask(top, NestPart("door", 716.0, 597.0, 1, "ply", "length"))
    assert len(plan.boards) == 1
    assert {p.part for p in plan.boards[0].parts} == {"top", "door"}


def test_wedges_lie_head_to_tail() -> None:
    """Six wedges 800 x 400 fill a board of rectangles of that size only twice over in pairs: by their boxes six need more."""
    board = NestBoard("S", "ply", 830.0, 1330.0, 10.0)
    wedge = NestPart("wedge", 800.0, 400.0, 4, "ply", "length", outline=WEDGE)
    _, plan = ask(wedge, boards=(board,), effort=5)
    boxes = nest(
        Request((NestPart("wedge", 800.0, 400.0, 4, "ply", "length"),), (board,), NestRules(kerf=12.0, effort=3))
    )
    assert len(plan.boards) == 1
    assert len(boxes.boards) == 2


def test_rectangles_lie_as_for_a_saw_and_a_turn_is_told_in_degrees() -> None:
    _, plan = ask(NestPart("slat", 1200.0, 100.0, 11, "ply"), NestPart("side", 720.0, 560.0, 4, "ply"))
    for board in plan.boards:
        for p in board.parts:
            assert p.turned is (p.angle in (90.0, 270.0))


SHAPES = st.sampled_from([(), WEDGE, L_SHAPE])


@settings(max_examples=12)
@given(
    st.lists(st.tuples(SHAPES, st.integers(1, 2), st.sampled_from(["none", "length"])), min_size=1, max_size=4),
    st.integers(1, 50),
)
def test_any_shapes_lie_apart(rows: list, seed: int) -> None:  # type: ignore[type-arg]
    parts = []
    for i, (outline, qty, grain) in enumerate(rows):
        length, width = (max(x for x, _ in outline), max(y for _, y in outline)) if outline else (300.0 + 50 * i, 200.0)
        parts.append(NestPart(f"P{i}", length, width, qty, "ply", grain, outline=outline))
    ask(*parts, effort=2, seed=seed)


def test_a_stop_keeps_a_valid_plan() -> None:
    parts = tuple(NestPart(f"L{i}", 900.0, 700.0, 2, "ply", outline=L_SHAPE) for i in range(6))
    request = Request(parts, (BOARD,), NestRules(mode="router", kerf=12.0, effort=9, seconds=0.0))
    told: list[NestPlan] = []
    plan = nest(request, told.append, lambda: len(told) >= 1)
    check(request, plan)
    assert not plan.done


def test_a_shaped_part_lies_in_its_cut_size() -> None:
    """Its outline is what is cut: less edging plus pre-milling at every edge that is banded, also at slanted and round
    ones; openings stay where they are on the finished part."""
    w = Workings(demo_job())
    seen = 0
    for item in w.made.parts():
        p, routed = item.part, part_of(item, "ply", routed=True)
        assert (routed.length, routed.width) == (p.cut_length, p.cut_width)
        dx, dy = p.cut_origin
        for (x, y), (px, py) in zip(routed.outline, p.cut_outline, strict=True):
            assert (x + dx, y + dy) == pytest.approx((px, py))
            assert -0.01 <= x <= p.cut_length + 0.01 and -0.01 <= y <= p.cut_width + 0.01
        openings = [op for op in p.operations if isinstance(op, Cutout)]
        for hole, op in zip(routed.holes, openings, strict=True):
            xs, ys = [x + dx for x, _ in hole], [y + dy for _, y in hole]
            box = (op.x, op.y, op.x + op.length, op.y + op.width)
            assert (min(xs), min(ys), max(xs), max(ys)) == pytest.approx(box)
            # Rounded as it will be: no part may lie where wood stays in a corner.
            gone = op.length * op.width - abs(area(tuple(zip(xs, ys, strict=True))))
            r = min(op.radius, op.length / 2, op.width / 2)
            exact = (4 - math.pi) * r * r if r >= 1 else 0.0
            assert exact - 1e-6 <= gone <= exact * 1.06 + 1e-6
        seen += bool(routed.outline)
    assert seen
