"""Setting-out against arithmetic of the trade, plane geometry and a general-purpose geometry library.

Sources: common practice for the sums a designer does by hand; geometry for mitres; Shapely (a general-purpose
library) for areas, offsets and overlaps; EN 1116 / ISO 3055 co-ordinating sizes from memory, as editable defaults.
"""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Point, Polygon

from conftest import with_run
from tall_plank.edits import jobs, outline
from tall_plank.job import Level
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.measure import outlines as ol
from tall_plank.setout import set_out
from tall_plank.setout.rooms import corners_of
from tall_plank.setout.things.molding import long_length, mitre
from tall_plank.setout.tops import arc_points

# --- common-practice sums


def test_a_24_inch_shelf_between_three_quarter_gables_needs_25_and_a_half() -> None:
    """Common practice: clear width and two gables; the second gable starts at 24 3/4 inches."""
    from tall_plank.edits import units

    job = jobs.set_display(new_job(), DisplayUnit.FRACTION_16).job
    job = with_run(job, "A", Level.BASE, 'open 20"')
    cell = job.cells()[0].id
    job = units.set_own(job, (cell,), "carcass_thickness", '3/4"').job
    from tall_plank.edits import runs

    job = runs.set_width(job, (cell,), 'clear 24"').job
    placed = set_out(job).placed[0]
    assert placed.width == pytest.approx(25.5 * 25.4)
    from tall_plank.making.bayset import Rect
    from tall_plank.making.builder import Builder
    from tall_plank.making.job import spec_of
    from tall_plank.making.shell import clear_of_carcass

    clear: Rect = clear_of_carcass(Builder(spec_of(job, placed), job.stock))
    assert clear.width == pytest.approx(24 * 25.4)
    assert clear.x1 == pytest.approx(24.75 * 25.4)


def test_what_is_left_is_the_line_less_the_sum_of_its_units() -> None:
    """Common practice: the sum that designers check most."""
    job = with_run(new_job(), "A", Level.BASE, "filler 50, drawers 600, sink 900, dishwasher 600, door 450")
    run = set_out(job).rooms[0].runs[0]
    assert run.left == pytest.approx(3600 - (50 + 600 + 900 + 600 + 450))


def test_hung_and_base_seams_line_up_to_a_thousandth() -> None:
    from tall_plank.edits import placing

    job = with_run(new_job(), "A", Level.BASE, "pair share, pair share, pair share, pair share")
    job = with_run(job, "A", Level.HUNG, "pair 900, pair 900, pair 900, pair 900")
    hung = tuple(c.id for c in job.rooms[0].runs[1].cells)
    job = placing.align_seams(job, hung).job
    base, upper = set_out(job).rooms[0].runs
    assert [p.right for p in base.cells] == pytest.approx([p.right for p in upper.cells], abs=1e-3)


# --- co-ordinating sizes


def test_widths_offered_step_by_50_and_depths_are_about_600() -> None:
    """EN 1116:2004 / ISO 3055:1985 (from memory): widths n x 100, steps of 50 allowed; depth 600."""
    for template in shipped_templates():
        if template.body == "carcass" and template.group in ("Base", "Hung", "Tall"):
            assert template.width % 50 == 0, template.code
    job = with_run(new_job(), "A", Level.BASE, "pair 900, tall 600")
    front = max(p.depth for p in set_out(job).placed) + 19
    assert abs(front - 580) <= 5


def test_housings_give_the_opening_that_appliances_ask_for() -> None:
    """Common practice: a built-in oven of 595 stands in a clear opening 560 wide, 590 high and 550 deep at least."""
    from tall_plank.workings import Workings

    job = with_run(new_job(), "A", Level.BASE, "oven housing 600, fridge housing 600")
    w = Workings(job)
    for _, made in w.made.units:
        assert made.parts and not made.problems
    narrow = with_run(new_job(), "A", Level.BASE, "oven housing 596")
    (problem, *_) = Workings(narrow).made.units[0][1].problems or (None,)
    assert problem is None  # 596 - 36 = 560: just enough


# --- mitres


@pytest.mark.parametrize(
    ("corner", "saw"), [(60, 60), (90, 45), (108, 36), (120, 30), (135, 22.5), (144, 18), (150, 15)]
)
def test_mitres_of_regular_corners(corner: float, saw: float) -> None:
    """Saw angle from square is 180/n for a regular n-gon (geometry)."""
    assert mitre(corner) == pytest.approx(saw)
    assert mitre(360 - corner) == pytest.approx(-saw)


@given(st.floats(30, 330), st.floats(5, 120))
def test_mitred_pieces_meet_over_their_whole_section(angle: float, depth: float) -> None:
    """Both pieces swept along their walls end in one and the same plane: that which halves the corner."""
    a = math.radians(mitre(angle))
    turn = math.radians(180.0 - angle)
    # The back corner at the origin; the first wall arrives along +x, the room to its right (negative y).
    front = np.array([-depth * math.tan(a), -depth])
    ahead = np.array([math.cos(-turn), math.sin(-turn)])
    right = np.array([ahead[1], -ahead[0]])
    other = ahead * depth * math.tan(a) + right * depth
    assert front == pytest.approx(other, abs=1e-6 * depth * (1 + abs(math.tan(a))))


def test_the_long_point_of_an_outer_mitre_is_on_the_face() -> None:
    """At 45 degrees an 18 mm deep skirting is 18 mm longer at each outer end (geometry)."""
    assert long_length(1000, 18, 45, 45) == 1000
    assert long_length(1000, 18, -45, 45) == pytest.approx(1018)
    assert long_length(1000, 18, -45, -45) == pytest.approx(1036)
    assert long_length(1000, 18, -22.5, 0) == pytest.approx(1000 + 18 * math.tan(math.radians(22.5)))


# --- outlines against Shapely


STAR = st.integers(3, 10).flatmap(
    lambda n: st.lists(st.floats(500, 4000), min_size=n, max_size=n).map(
        lambda radii: tuple(
            (r * math.cos(2 * math.pi * i / n), r * math.sin(2 * math.pi * i / n)) for i, r in enumerate(radii)
        )
    )
)


@given(STAR, st.floats(-5000, 5000), st.floats(-5000, 5000))
def test_area_and_inside_agree_with_shapely(points: tuple[tuple[float, float], ...], x: float, y: float) -> None:
    polygon = Polygon(points)
    assert abs(ol.area(points)) == pytest.approx(polygon.area, rel=1e-9)
    if polygon.exterior.distance(Point(x, y)) > 1e-3:
        assert ol.inside(points, x, y) is polygon.contains(Point(x, y))


@given(st.integers(3, 10), st.floats(500, 4000), st.floats(1, 300))
def test_offset_of_a_convex_outline_agrees_with_shapelys_mitred_buffer(n: int, radius: float, by: float) -> None:
    points = tuple((radius * math.cos(2 * math.pi * i / n), radius * math.sin(2 * math.pi * i / n)) for i in range(n))
    wanted = Polygon(points).buffer(by, join_style="mitre", mitre_limit=20.0)
    found = Polygon(ol.offset(points, by))
    assert found.area == pytest.approx(wanted.area, rel=1e-6)
    # Not by their symmetric difference: sides that lie within a rounding of one another can break the overlay.
    assert found.hausdorff_distance(wanted) < 1e-3


@given(STAR, st.floats(-3000, 3000), st.floats(0, math.pi))
def test_crossing_is_what_shapely_calls_not_valid(points, shift: float, turn: float) -> None:  # type: ignore[no-untyped-def]
    moved = list(points)
    moved[0] = (moved[0][0] + shift * math.cos(turn), moved[0][1] + shift * math.sin(turn))
    polygon = Polygon(moved)
    near = min(math.dist(moved[0], p) for p in moved[1:]) if len(moved) > 1 else 0.0
    if polygon.area < 1e3 or near < 1.0:
        return
    if (ol.crossing(moved) is None) is not polygon.is_valid:
        # Only corners that touch a side by a hair may be told differently.
        assert polygon.buffer(0.001).is_valid


def test_the_floor_of_an_l_shaped_room_has_the_area_of_its_parts() -> None:
    job = outline.type_outline(new_job(), "r1", "6000, 4800, 3600, 1800 corner 270, rest, rest").job
    points = corners_of(job.rooms[0].outline)
    assert Polygon(points).area == pytest.approx(6000 * 3000 + 3600 * 1800)
    assert abs(ol.area(points)) == pytest.approx(Polygon(points).area)


@given(
    st.lists(
        st.tuples(st.floats(800, 6000), st.sampled_from([60.0, 90.0, 108.0, 120.0, 135.0, 270.0])),
        min_size=3,
        max_size=8,
    )
)
def test_a_closed_outline_is_valid_and_has_the_lengths_that_were_typed(walls: list[tuple[float, float]]) -> None:
    text = ", ".join(f"{length:.0f} corner {angle:g}" for length, angle in walls) + ", rest, rest"
    try:
        job = outline.type_outline(new_job(), "r1", text).job
    except PlankError as error:
        assert error.remedy and error.where
        return
    points = corners_of(job.rooms[0].outline)
    assert Polygon(points).is_valid
    for i, (length, _) in enumerate(walls):
        assert math.dist(points[i], points[(i + 1) % len(points)]) == pytest.approx(round(length), abs=1e-5)


# --- arcs


@pytest.mark.parametrize(
    ("chord", "rise", "length"),
    [(1000.0, 100.0, 1026.45691), (900.0, 450.0, 1413.71669), (2400.0, 50.0, 2402.77681)],
)
def test_bowed_worktop_edges_are_circles_segments(chord: float, rise: float, length: float) -> None:
    """R = (c2/4 + h2) / 2h and the arc's length (geometry of a circle's segment); bulge = 2h/c."""
    bulge = 2 * rise / chord
    points = [(0.0, 0.0), *arc_points((0.0, 0.0), (chord, 0.0), bulge, within=1e-5), (chord, 0.0)]
    assert sum(math.dist(a, b) for a, b in zip(points, points[1:], strict=False)) == pytest.approx(length, rel=1e-6)
    assert max(abs(y) for _, y in points) == pytest.approx(rise, abs=0.01)
    # It lies to the right of the way from the first point to the second.
    assert min(y for _, y in points) == pytest.approx(-rise, abs=0.01)
