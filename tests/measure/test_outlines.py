from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.measure import outlines as ol

L_SHAPE = ((0.0, 4.0), (6.0, 4.0), (6.0, 0.0), (2.0, 0.0), (2.0, 1.0), (0.0, 1.0))


def test_area_is_negative_clockwise() -> None:
    assert ol.area(L_SHAPE) == pytest.approx(-22.0)
    assert ol.area(L_SHAPE[::-1]) == pytest.approx(22.0)
    assert ol.area(()) == 0.0


def test_inner_and_outer_corners() -> None:
    angles = [ol.interior_angle(L_SHAPE[i - 1], L_SHAPE[i], L_SHAPE[(i + 1) % 6]) for i in range(6)]
    assert angles == pytest.approx([90, 90, 90, 90, 270, 90])


def test_crossing_names_the_two_sides() -> None:
    assert ol.crossing(L_SHAPE) is None
    bow = ((0.0, 0.0), (2.0, 2.0), (2.0, 0.0), (0.0, 2.0))
    assert ol.crossing(bow) == (0, 2)
    assert ol.crossing(((0.0, 0.0), (4.0, 0.0), (4.0, 4.0), (2.0, 0.0), (0.0, 4.0))) == (0, 2)


def test_offset_moves_every_side_by_its_own_distance() -> None:
    square = ((0.0, 0.0), (10.0, 0.0), (10.0, 10.0), (0.0, 10.0))
    assert ol.bounds(ol.offset(square, [1.0, 2.0, 3.0, 4.0])) == (-4.0, -1.0, 12.0, 13.0)
    # clockwise the same sides move out as well
    assert ol.bounds(ol.offset(square[::-1], 1.0)) == (-1.0, -1.0, 11.0, 11.0)


def test_cut_away_keeps_what_lies_to_the_left() -> None:
    square = ((0.0, 0.0), (10.0, 0.0), (10.0, 10.0), (0.0, 10.0))
    assert ol.bounds(ol.cut_away(square, (4.0, 0.0), (4.0, 1.0))) == (0.0, 0.0, 4.0, 10.0)
    assert ol.cut_away(square, (-1.0, 0.0), (-1.0, 1.0)) == ()


def test_cleaned_drops_points_that_say_nothing() -> None:
    assert len(ol.cleaned(((0, 0), (5, 0), (10, 0), (10, 10), (10, 10), (0, 10)))) == 4


@given(st.integers(3, 12), st.lists(st.floats(50.0, 2000.0), min_size=12, max_size=12))
def test_triangles_fill_any_star_shaped_outline(n: int, radii: list[float]) -> None:
    points = tuple(
        (radii[i] * math.cos(2 * math.pi * i / n), radii[i] * math.sin(2 * math.pi * i / n)) for i in range(n)
    )
    made = ol.triangles(points)
    assert len(made) == n - 2
    total = sum(ol.area([points[i] for i in t]) for t in made)
    assert total == pytest.approx(ol.area(points), rel=1e-9)
    assert all(ol.area([points[i] for i in t]) > -1e-6 for t in made)


@pytest.mark.parametrize("turn", range(0, 360, 15))
def test_sides_touch_where_an_end_lies_on_the_other_and_not_beside_it(turn: int) -> None:
    c, s = math.cos(math.radians(turn)), math.sin(math.radians(turn))

    def at(x: float, y: float) -> tuple[float, float]:
        return (c * x - s * y + 500.0, s * x + c * y - 300.0)

    a, b = at(0.0, 0.0), at(1000.0, 0.0)
    for x, y, touches in (
        (0.0, 0.0, True), (500.0, 0.0, True), (1000.0, 0.0, True), (500.0, -0.01, True), (500.0, 0.01, False),
        (-0.01, 0.0, False), (1000.01, 0.0, False), (1000.01, -0.02, False),
    ):  # fmt: skip
        assert ol.edges_touch(a, b, at(x, y), at(x, y + 400.0)) is touches, (x, y)
    # In one line: apart, end to end, one in the other.
    for x0, x1, touches in (
        (1000.01, 1400.0, False),
        (1000.0, 1400.0, True),
        (200.0, 300.0, True),
        (-9.0, -0.01, False),
    ):
        assert ol.edges_touch(a, b, at(x0, 0.0), at(x1, 0.0)) is touches, (x0, x1)
