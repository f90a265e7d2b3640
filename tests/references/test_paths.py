"""Paths of lines and arcs against dense polylines in Shapely, a general-purpose library, and against closed formulas."""

from __future__ import annotations

import math

import pytest
import shapely
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from tall_plank.measure import PlankError
from tall_plank.measure.arches import (
    Arch,
    arch_rise,
    arched,
    bulge_of_rise,
    ellipse,
    rise_of_radius,
)
from tall_plank.measure.pathcuts import border, cut
from tall_plank.measure.paths import (
    Path,
    arc_chords,
    arcs_in,
    area,
    around,
    bounds,
    chords,
    crossing,
    distance,
    inside,
    length,
    mirrored,
    path_of,
    rotated,
    shifted,
    sides_of,
    turned_round,
)

DENSE = 1e-4
"""mm by which the polylines leave the arcs."""


def dense(path: Path) -> shapely.Polygon:
    return shapely.Polygon(chords(path, DENSE))


@st.composite
def paths(draw: st.DrawFn) -> Path:
    """Simple, counter-clockwise: a star about 0, 0 whose sides bend out or in."""
    n = draw(st.integers(3, 7))
    corners = []
    for i in range(n):
        angle = 2 * math.pi * (i + draw(st.floats(-0.3, 0.3))) / n
        radius = draw(st.floats(200.0, 900.0))
        bulge = draw(st.sampled_from([0.0, 0.0, 0.1, 0.25, 0.4, -0.1, -0.2]))
        corners.append((radius * math.cos(angle), radius * math.sin(angle), bulge))
    path = tuple(corners)
    assume(crossing(path) is None)
    assume(area(path) > 1000.0)
    assume(dense(path).is_valid)
    return path


@given(paths())
def test_area_length_and_bounds(path: Path) -> None:
    plain = dense(path)
    assert area(path) == pytest.approx(plain.area, rel=3e-6)
    assert length(path) == pytest.approx(plain.length, rel=3e-6)
    assert bounds(path) == pytest.approx(plain.bounds, abs=2 * DENSE)
    assert area(turned_round(path)) == pytest.approx(-area(path))
    for moved in (mirrored(path, 120.0), rotated(path, 33.0, (5.0, 6.0)), shifted(path, 10.0, -7.0)):
        assert area(moved) == pytest.approx(area(path))
        assert length(moved) == pytest.approx(length(path))


@given(paths(), st.lists(st.tuples(st.floats(-900, 900), st.floats(-900, 900)), min_size=10, max_size=10))
def test_what_is_inside_and_how_far_off(path: Path, spots: list[tuple[float, float]]) -> None:
    plain = dense(path)
    for x, y in spots:
        away = plain.exterior.distance(shapely.Point(x, y))
        assert distance(path, x, y) == pytest.approx(away, abs=1e-3)
        if away > 1e-3:
            assert inside(path, x, y) == plain.contains(shapely.Point(x, y))


@given(paths(), st.floats(-700, 700), st.floats(0, 2 * math.pi))
def test_what_a_line_leaves(path: Path, off: float, angle: float) -> None:
    """Against the polygon cut by a very large one."""
    ux, uy = math.cos(angle), math.sin(angle)
    a = (-uy * off, ux * off)
    b = (a[0] + ux * 100.0, a[1] + uy * 100.0)
    far = 1e5
    half = shapely.Polygon([
        (a[0] - ux * far, a[1] - uy * far), (a[0] + ux * far, a[1] + uy * far),
        (a[0] + ux * far - uy * far, a[1] + uy * far + ux * far), (a[0] - ux * far - uy * far, a[1] - uy * far + ux * far),
    ])  # fmt: skip
    expected = dense(path).intersection(half)
    found = cut(path, a, b)
    assert sum(area(p) for p in found) == pytest.approx(expected.area, abs=0.5)
    other = cut(path, b, a)
    assert sum(area(p) for p in (*found, *other)) == pytest.approx(area(path), abs=1e-4)
    for piece in found:
        assert area(piece) > 0
        if area(piece) > 1.0:
            assert crossing(piece) is None
            # Nothing that was cut off is left, and every corner was on the path or on the line.
            for x, y, _ in piece:
                assert ux * (y - a[1]) - uy * (x - a[0]) > -1e-4
                assert min(distance(path, x, y), abs(ux * (y - a[1]) - uy * (x - a[0]))) < 1e-4


@given(paths(), st.floats(-60.0, 60.0))
@settings(max_examples=60)
def test_a_border_runs_at_its_distance(path: Path, away: float) -> None:
    """Every place of it lies at the distance from the path; only mitred corners lie further off."""
    assume(abs(away) > 0.5)
    try:
        run = border(path, away)
    except PlankError as error:
        assert "border" in str(error).lower() or error.remedy
        return
    assert crossing(run) is None
    assert (area(run) < area(path)) == (away > 0)
    for side in sides_of(run):
        for share in (0.25, 0.5, 0.75):
            x, y = side.at(share)
            assert distance(path, x, y) > abs(away) - 1e-6
            assert inside(path, x, y) == (away > 0)
    # Sides of the path that are left have theirs exactly at the distance.
    near = [
        abs(distance(path, *side.at(0.5)) - abs(away)) < 1e-6
        for side in sides_of(run)
    ]  # fmt: skip
    assert sum(near) >= 1


def test_borders_of_arches_and_boxes_by_hand() -> None:
    box = path_of([(0.0, 0.0), (600.0, 0.0), (600.0, 400.0), (0.0, 400.0)])
    assert area(border(box, 20.0)) == pytest.approx(560.0 * 360.0)
    assert area(border(box, -20.0)) == pytest.approx(640.0 * 440.0)
    # A round head of 900 with a border of 50: the arc keeps its center, its radius is 400.
    head = arched("round", 0.0, 0.0, 900.0, 2000.0)
    inner = border(head, 50.0)
    (arc,) = [s for s in sides_of(inner) if s.bulge]
    assert arc.radius == pytest.approx(400.0)
    assert arc.center == pytest.approx((450.0, 1550.0))
    assert area(inner) == pytest.approx(800.0 * 1500.0 + math.pi * 400.0**2 / 2)
    # A segmental one: center below the springing, mitred with the sides.
    low = arched("segmental", 0.0, 0.0, 900.0, 2000.0, 150.0)
    (outer,) = [s for s in sides_of(low) if s.bulge]
    (run,) = [s for s in sides_of(border(low, 50.0)) if s.bulge]
    assert outer.radius == pytest.approx((450.0**2 + 150.0**2) / 300.0)
    assert run.radius == pytest.approx(outer.radius - 50.0)
    assert run.center == pytest.approx(outer.center)
    with pytest.raises(PlankError, match="no room"):
        border(box, 200.0)


@pytest.mark.parametrize("kind", ["round", "segmental", "elliptical", "pointed"])
@pytest.mark.parametrize("away", [20.0, 50.0, -20.0, -50.0])
def test_every_arch_has_borders_at_both_sides(kind: Arch, away: float) -> None:
    """Of 20 and 50 mm (common practice): sides and the top of the head lie that far off."""
    path = arched(kind, 0.0, 0.0, 900.0, 2100.0, {"pointed": 600.0}.get(kind, 300.0))
    run = border(path, away)
    x0, y0, x1, y1 = bounds(run)
    assert (x0, y0, x1) == pytest.approx((away, away, 900.0 - away), abs=1e-6)
    if kind != "pointed":
        assert y1 == pytest.approx(2100.0 - away, abs=0.011)
    else:
        assert (y1 < 2100.0) == (away > 0)
    for side in sides_of(run):
        assert distance(path, *side.at(0.5)) == pytest.approx(abs(away), abs=1e-6)


def test_a_border_beyond_the_least_radius_of_an_ellipse_is_named() -> None:
    """By hand: half axes 300 and 200: the least radius is 200 squared over 300, 133.3 mm."""
    oval = ellipse(300.0, 200.0)
    assert area(border(oval, 100.0)) > 0
    with pytest.raises(PlankError, match=r"least radius is 13[34]"):
        border(oval, 150.0)


@given(st.floats(40.0, 3000.0), st.floats(40.0, 3000.0))
def test_ellipses_run_within_a_hundredth(a: float, b: float) -> None:
    """Against the ellipse's own equation at dense places, its area pi a b, tangents that touch."""
    assume(1 / 20 < a / b < 20)
    path = ellipse(a, b)
    sides = list(sides_of(path))
    for side in sides:
        for i in range(9):
            x, y = side.at(i / 8)
            # The nearest place of the ellipse, by steps of its parameter.
            t = math.atan2(y / b, x / a)
            for _ in range(8):
                ex, ey = a * math.cos(t), b * math.sin(t)
                dx, dy = -a * math.sin(t), b * math.cos(t)
                step = ((x - ex) * dx + (y - ey) * dy) / (dx * dx + dy * dy)
                t += step
            assert math.hypot(x - a * math.cos(t), y - b * math.sin(t)) < 0.01
    for before, after in zip(sides, (*sides[1:], sides[0]), strict=True):
        (ux, uy), (vx, vy) = before.way(1.0), after.way(0.0)
        assert abs(ux * vy - uy * vx) < 1e-6
    assert area(path) == pytest.approx(math.pi * a * b, rel=2e-4)


@pytest.mark.parametrize("kind", ["round", "segmental", "elliptical", "pointed"])
@given(st.floats(100.0, 2400.0), st.floats(0.05, 2.0))
def test_arches_stand_in_their_box(kind: Arch, width: float, share: float) -> None:
    rise = share * width / 2
    try:
        high = arch_rise(kind, width, rise)
    except PlankError as error:
        assert error.remedy
        return
    path = arched(kind, 0.0, 0.0, width, 3000.0, rise)
    assert bounds(path) == pytest.approx((0.0, 0.0, width, 3000.0), abs=0.02)
    assert crossing(path) is None
    assert area(mirrored(path, width / 2)) == pytest.approx(area(path))
    for x in (width * 0.1, width * 0.25, width * 0.4):
        assert distance(path, x, 3000.0) == pytest.approx(distance(path, width - x, 3000.0), abs=1e-6)
    if kind == "round":
        assert area(path) == pytest.approx(width * (3000.0 - high) + math.pi * width**2 / 8)
    if kind == "elliptical":
        assert area(path) == pytest.approx(width * (3000.0 - high) + math.pi * width * high / 4, rel=1e-4)


def test_arcs_by_rise_and_radius() -> None:
    """Handbook geometry (a circle's segment): chord 900, rise 150 has the radius 750; back again."""
    assert rise_of_radius(900.0, 750.0) == pytest.approx(150.0)
    assert bulge_of_rise(900.0, 150.0) == pytest.approx(math.tan(math.asin(450.0 / 750.0) / 2))
    for kind, rise in (("segmental", 460.0), ("pointed", 440.0), ("segmental", 0.0)):
        with pytest.raises(PlankError):
            arch_rise(kind, 900.0, rise)  # type: ignore[arg-type]
    with pytest.raises(PlankError, match="does not span"):
        rise_of_radius(900.0, 440.0)
    with pytest.raises(PlankError, match="its panel by"):
        arched("round", 0.0, 0.0, 900.0, 400.0)


@given(paths(), st.sampled_from([0.1, 1.0]))
def test_chords_keep_within_and_what_is_laid_on_a_board_reaches_round_it(path: Path, within: float) -> None:
    plain = dense(path)
    screen = shapely.Polygon(chords(path, within))
    assert plain.exterior.hausdorff_distance(screen.exterior) < within + 1e-3
    laid = shapely.Polygon(around(path, within))
    if laid.is_valid:
        assert plain.difference(laid).area < 0.01
        assert laid.area - plain.area < length(path) * within * 1.5


def test_a_path_that_crosses_itself_is_told() -> None:
    assert crossing(path_of([(0.0, 0.0), (100.0, 100.0), (100.0, 0.0), (0.0, 100.0)])) is not None
    # An arc that bulges in as far as the other side.
    assert crossing(((0.0, 0.0, -1.0), (200.0, 0.0, 0.0), (200.0, 80.0, 0.0), (0.0, 80.0, 0.0))) is not None
    assert crossing(((0.0, 0.0, -1.0), (200.0, 0.0, 0.0), (200.0, 180.0, 0.0), (0.0, 180.0, 0.0))) is None


@given(
    st.floats(20.0, 2000.0), st.floats(-1.2, 1.2), st.floats(0, 6.28), st.integers(0, 3)
)  # fmt: skip
def test_an_arc_drawn_by_chords_is_found_again(size: float, bulge: float, angle: float, first: int) -> None:
    """A bar with one bent end, turned anyhow and begun at any corner: the arc with its radius and center."""
    assume(abs(bulge) > 0.02)
    path = rotated(((0.0, 0.0, 0.0), (3000.0, 0.0, bulge), (3000.0, size, 0.0), (0.0, size, 0.0)), math.degrees(angle))
    assume(crossing(path) is None)
    (arc,) = [s for s in sides_of(path) if s.bulge]
    points: list[tuple[float, float]] = []
    for side in sides_of(path):
        points += [side.a, *arc_chords(side.a, side.b, side.bulge)]
    n = len(points) * first // 4
    found = arcs_in((*points[n:], *points[:n]))
    assert area(found) == pytest.approx(area(path), rel=1e-7)
    arcs = [s for s in sides_of(found) if s.bulge]
    # Begun in the middle of the arc it comes in one piece all the same.
    assert len(arcs) == 1
    assert arcs[0].radius == pytest.approx(arc.radius, rel=1e-6)
    assert arcs[0].center == pytest.approx(arc.center, rel=1e-6, abs=1e-3)


def test_what_is_no_arc_stays_straight() -> None:
    hexagon = [(100 * math.cos(math.radians(60 * i)), 100 * math.sin(math.radians(60 * i))) for i in range(6)]
    for points in (hexagon, [(0.0, 0.0), (600.0, 0.0), (600.0, 300.0), (0.0, 300.0)],
                   [(0.0, 0.0), (500.0, 0.0), (500.0, 100.0), (480.0, 180.0), (440.0, 240.0), (0.0, 240.0)]):  # fmt: skip
        assert arcs_in(points) == path_of(points)


def test_a_circle_by_chords_is_two_arcs() -> None:
    ring = [(50 + 40 * math.cos(2 * math.pi * i / 48), 40 * math.sin(2 * math.pi * i / 48)) for i in range(48)]
    found = arcs_in(ring)
    assert len(found) == 2
    assert area(found) == pytest.approx(math.pi * 1600.0)
