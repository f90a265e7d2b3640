from __future__ import annotations

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from tall_plank.edits import outline, rooms
from tall_plank.edits.change import Change
from tall_plank.edits.things.column import add_column, move_column, set_column
from tall_plank.edits.things.molding import add_molding, set_molding
from tall_plank.edits.things.opening import add_opening
from tall_plank.edits.things.service import add_service, set_service
from tall_plank.edits.things.slope import add_slope, set_slope
from tall_plank.edits.things.soffit import add_soffit, add_soffit_over, move_soffit, set_soffit
from tall_plank.edits.things.table import delete_thing
from tall_plank.job import Job, Kind
from tall_plank.job.room import Side, Sides
from tall_plank.job.start import new_job
from tall_plank.measure import Length, PlankError
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import FloorPoint
from tall_plank.setout import set_out, walls_of
from tall_plank.setout.rooms import ceiling_at, corners_of, sides_from

L_TEXT = "6000, 4800, 3600, 1800 corner 270, rest, rest"


def l_room() -> Job:
    return outline.type_outline(new_job(), "r1", L_TEXT).job


def lengths(job: Job) -> dict[str, float]:
    return {w.id: round(w.length, 6) for w in walls_of(job.rooms[0])}


def test_an_outline_is_typed_and_two_walls_close_it() -> None:
    assert lengths(l_room()) == {"A": 6000, "B": 4800, "C": 3600, "D": 1800, "E": 2400, "F": 3000}


def test_walls_look_into_the_room_and_say_where_they_stand() -> None:
    walls = {w.id: w for w in walls_of(l_room().rooms[0])}
    assert [w.name for w in walls.values()] == ["north", "east", "south", "west", "south", "west"]
    for wall in walls.values():
        middle = wall.frame.at(wall.length / 2, -10.0, 0.0)
        assert ol.inside(corners_of(l_room().rooms[0].outline), middle[0], middle[1])


def test_typing_a_wall_lets_those_take_the_difference_that_close_the_room() -> None:
    job = outline.set_wall_length(l_room(), "r1", "A", "6200").job
    assert lengths(job) == {"A": 6200, "B": 4800, "C": 3600, "D": 1800, "E": 2600, "F": 3000}
    # E took what was left; typed now, another wall alongside takes it
    job = outline.set_wall_length(job, "r1", "E", "2500").job
    assert lengths(job)["E"] == 2500
    assert all(abs(w.before - 90) < 1e-9 or abs(w.before - 270) < 1e-9 for w in walls_of(job.rooms[0]))


def test_a_named_value_in_a_wall_sets_the_room_out_again() -> None:
    from tall_plank.edits import values

    job = values.set_value(new_job(), "bay", "1800").job
    job = outline.type_outline(job, "r1", "6000, 4800, 3600, bay corner 270, rest, rest").job
    job = values.set_value(job, "bay", "2000").job
    assert lengths(job)["D"] == 2000
    assert lengths(job)["F"] == 2800


@pytest.mark.parametrize(
    ("text", "where", "what"),
    [
        ("6000, 4800", "outline", "three walls"),
        ("6000, sofa, 3000, 2000", "wall B", "sofa"),
        ("6000, 4800, 5000, 4800", "wall C", "do not close"),
        ("6000, 4800 corner 0, 6000, 4800", "wall B", "makes no corner"),
        ("6000, 4800 corner bent, 6000, 4800", "wall B", "no angle"),
        ("rest, rest, rest, 4000", "outline", "Only two walls"),
        ("6000, 4800, 3600, 6800 corner 270, rest, rest", "wall F", "too short"),
        (", ".join(["100"] * 22), "outline", "20 walls"),
    ],
)
def test_a_wrong_outline_is_refused_at_its_place(text: str, where: str, what: str) -> None:
    job = new_job()
    with pytest.raises(PlankError) as caught:
        outline.type_outline(job, "r1", text)
    assert where in caught.value.where
    assert what in str(caught.value)
    assert caught.value.remedy


def test_crossing_walls_are_refused() -> None:
    with pytest.raises(PlankError, match="cross"):
        outline.draw_outline(new_job(), "r1", ((0.0, 0.0), (3000.0, 3000.0), (3000.0, 0.0), (0.0, 3000.0)))
    with pytest.raises(PlankError, match="no length"):
        outline.draw_outline(new_job(), "r1", ((0.0, 0.0), (3000.0, 0.0), (3000.0, 4.0), (3000.0, 3000.0)))
    for few in ((), ((0.0, 0.0), (3000.0, 0.0))):
        with pytest.raises(PlankError, match="three corners"):
            outline.draw_outline(new_job(), "r1", few)


def test_a_drawn_outline_starts_at_the_north_whichever_way_it_was_drawn() -> None:
    points = ((0.0, 0.0), (4000.0, 0.0), (4000.0, 3000.0), (1500.0, 3000.0), (1500.0, 1800.0), (0.0, 1800.0))
    for drawn in (points, points[::-1], points[2:] + points[:2]):
        job = outline.draw_outline(new_job(), "r1", drawn).job
        assert lengths(job)["A"] == 2500
        assert walls_of(job.rooms[0])[0].name == "north"
        assert abs(ol.area(corners_of(job.rooms[0].outline))) == pytest.approx(4000 * 3000 - 1500 * 1200)


def test_the_outline_as_text_makes_itself_again() -> None:
    job = l_room()
    again = outline.type_outline(job, "r1", outline.outline_text(job, job.rooms[0])).job
    assert lengths(again) == lengths(job)


def test_an_angled_wall_keeps_its_angle_when_another_is_typed() -> None:
    job = outline.type_outline(new_job(), "r1", "4000 corner 135, 1500 corner 135, 2000, rest, rest").job
    walls = {w.id: w for w in walls_of(job.rooms[0])}
    assert walls["A"].after == pytest.approx(135)
    job = outline.set_wall_length(job, "r1", "A", "4500").job
    assert {w.id: w for w in walls_of(job.rooms[0])}["B"].length == pytest.approx(1500)
    assert walls_of(job.rooms[0])[0].after == pytest.approx(135)


def test_a_corner_is_added_dragged_and_taken_away() -> None:
    job = new_job()
    job = outline.add_corner(job, "r1", "A", 2000.0).job
    assert [w.id for w in walls_of(job.rooms[0])] == ["A", "E", "B", "C", "D"]
    job = outline.move_corner(job, "r1", 1, 2000.0, 2000.0).job
    assert lengths(job)["A"] == pytest.approx(math.hypot(2000, 400))
    job = outline.delete_corner(job, "r1", "A").job
    assert lengths(job) == pytest.approx({"A": 3600, "B": 2400, "C": 3600, "D": 2400})


def test_an_opening_right_of_a_new_corner_goes_with_its_wall() -> None:
    change = add_opening(new_job(), "r1", "A", "window", 2400.0)
    job = outline.add_corner(change.job, "r1", "A", 2000.0).job
    (opening,) = job.rooms[0].openings
    assert (opening.wall, opening.x.mm) == ("E", 400)


def test_moving_a_wall_keeps_a_rectangle_one() -> None:
    job = outline.move_wall(new_job(), "r1", "B", 400.0).job
    assert lengths(job) == {"A": 4000, "B": 2400, "C": 4000, "D": 2400}
    with pytest.raises(PlankError):
        outline.move_wall(l_room(), "r1", "C", -9000.0)


def test_an_opening_that_would_leave_its_wall_stops_the_change() -> None:
    change = add_opening(l_room(), "r1", "E", "arch", 1300.0)
    with pytest.raises(PlankError, match="arch in wall E would no longer fit"):
        outline.set_wall_length(change.job, "r1", "A", "5000")


def test_walls_have_their_own_thickness_and_height() -> None:
    job = outline.set_wall_own(l_room(), "r1", "C", "thickness", "300").job
    job = outline.set_wall_own(job, "r1", "C", "height", "1200").job
    wall = {w.id: w for w in walls_of(job.rooms[0])}["C"]
    assert (wall.thickness, wall.height) == (300, 1200)
    job = outline.set_wall_own(job, "r1", "C", "thickness", "").job
    job = outline.set_wall_own(job, "r1", "C", "height", "").job
    assert job.rooms[0].walls == ()


# --- ceiling


def slope(job: Job, wall: str, low: str, run: str) -> Job:
    change = add_slope(job, "r1", wall)
    job = set_slope(change.job, change.made[0], "low", low).job
    return set_slope(job, change.made[0], "run", run).job


def test_a_sloped_ceiling_cuts_the_walls_beside_it() -> None:
    job = slope(new_job(), "C", "1500", "1000")
    walls = {w.id: w for w in walls_of(job.rooms[0])}
    assert walls["C"].height == 1500
    assert walls["B"].profile == ((0.0, 2500.0), (1400.0, 2500.0), (2400.0, 1500.0))
    assert walls["B"].height_at(1900.0) == pytest.approx(2000)
    assert ceiling_at(job.rooms[0], FloorPoint((1000.0, 500.0))) == pytest.approx(2000)


def test_two_slopes_make_a_vault_with_a_ridge() -> None:
    job = slope(slope(new_job(), "A", "1500", "2000"), "C", "1500", "2000")
    profile = {w.id: w for w in walls_of(job.rooms[0])}["B"].profile
    assert profile[0] == (0.0, 1500.0)
    assert profile[-1] == (2400.0, 1500.0)
    # each plane rises 1000 over 2000, so they meet half way at 1500 + 600
    assert (1200.0, 2100.0) in [(round(x, 6), round(z, 6)) for x, z in profile]


def test_a_soffit_lowers_the_ceiling_where_it_is() -> None:
    job = add_soffit(new_job(), "r1", "A", 400.0, 300.0).job
    assert ceiling_at(job.rooms[0], FloorPoint((1000.0, 2300.0))) == 2200
    assert ceiling_at(job.rooms[0], FloorPoint((1000.0, 1900.0))) == 2500


def test_a_soffit_stands_on_the_units_of_a_run_and_is_notched_round_taller_ones() -> None:
    from conftest import with_run
    from tall_plank.edits import units, values
    from tall_plank.job import Level

    job = with_run(new_job(), "A", Level.HUNG, "pair 900, door 450, gap 600, pair 900")
    change = add_soffit_over(job, job.rooms[0].runs[0].id)
    job = change.job
    found = set_out(job).rooms[0].room.soffits
    # The gap breaks it: two pieces, set in 20 behind the fronts, from the units' tops to the ceiling.
    assert [round(s.drop.mm) for s in found] == [2500 - 2120] * 2
    boxes = [ol.bounds([(c.x.mm, c.y.mm) for c in s.corners]) for s in found]
    assert boxes == [pytest.approx((0, 2400 - 329, 1350, 2400)), pytest.approx((1950, 2400 - 329, 2850, 2400))]
    job = units.set_own(job, (job.cells()[1].id,), "height", "900").job
    found = set_out(job).rooms[0].room.soffits
    assert [round(s.corners[0].x.mm) for s in found] == [0, 1950]
    assert round(found[0].corners[1].x.mm) == 900
    # What hangs follows the ceiling's and the units' heights.
    job = rooms.set_room_length(job, "r1", "height", "2600").job
    assert round(set_out(job).rooms[0].room.soffits[0].drop.mm) == 480
    job = values.set_value(job, "hung_height", "800").job
    assert round(set_out(job).rooms[0].room.soffits[0].drop.mm) == 400
    with pytest.raises(PlankError, match="stands on its units"):
        move_soffit(job, change.made[0], 100.0, 0.0)
    with pytest.raises(PlankError, match="already"):
        add_soffit_over(job, job.rooms[0].runs[0].id)
    from tall_plank.edits import runs

    assert runs.delete_run(job, job.rooms[0].runs[0].id).job.rooms[0].soffits == ()


# --- columns, services


def test_a_run_started_on_a_wall_with_a_breast_leaves_it_out() -> None:
    from tall_plank.edits import runs
    from tall_plank.job import Level

    change = add_column(new_job(), "r1", "A", "chimney breast")
    job = runs.add_run(change.job, "r1", "A", Level.BASE).job
    (gap,) = set_out(job).placed
    assert (gap.x, gap.width) == (1200, 1200)
    job = move_column(job, change.made[0], 600.0).job
    (gap,) = set_out(job).placed
    assert (gap.x, gap.width) == (600, 1200)
    job = delete_thing(job, Kind.COLUMN.of(change.made[0])).job
    assert job.rooms[0].runs[0].cells[0].anchor is None


@pytest.mark.parametrize(
    ("edit", "what"),
    [
        (lambda j, m: set_column(j, m, "x", "9000"), "past the end"),
        (lambda j, m: set_column(j, m, "wall", "Q"), "no wall Q"),
        (lambda j, m: set_column(j, m, "width", "0"), "too small"),
        (lambda j, m: set_column(j, m, "colour", "1"), "no colour"),
    ],
)
def test_wrong_values_of_a_column_are_refused(edit, what: str) -> None:  # type: ignore[no-untyped-def]
    change = add_column(new_job(), "r1", "A", "column")
    with pytest.raises(PlankError, match=what):
        edit(change.job, change.made[0])


def test_service_points_soffits_slopes_and_moldings_refuse_nonsense() -> None:
    job = new_job()
    made = add_service(job, "r1", "A", "water")
    with pytest.raises(PlankError):
        set_service(made.job, made.made[0], "x", "5000")
    soffit = add_soffit(job, "r1", "A")
    for text in ("0 0; 100 0", "0 0; 1000 1000; 1000 0; 0 1000", "a b; c d; e f"):
        with pytest.raises(PlankError):
            set_soffit(soffit.job, soffit.made[0], "corners", text)
    with pytest.raises(PlankError, match="floor"):
        set_soffit(soffit.job, soffit.made[0], "drop", "2400")
    sloped = add_slope(job, "r1", "A")
    with pytest.raises(PlankError):
        set_slope(sloped.job, sloped.made[0], "low", "2600")
    with pytest.raises(PlankError, match="already"):
        add_slope(sloped.job, "r1", "A")
    molding = add_molding(job, "r1", "skirting")
    for key, text in (("profile", "MP-COVE-70"), ("height", "9000"), ("walls", "Z"), ("weight", "1")):
        with pytest.raises(PlankError):
            set_molding(molding.job, molding.made[0], key, text)
    with pytest.raises(PlankError):
        rooms.set_use(job, "r1", "submarine")


# --- properties


@st.composite
def square_outlines(draw: st.DrawFn) -> tuple[tuple[float, float], ...]:
    """Outlines of a staircase along two sides of a rectangle: square corners, inner and outer ones."""
    steps = draw(st.integers(1, 4))
    xs = sorted(draw(st.lists(st.integers(300, 8000), min_size=steps + 1, max_size=steps + 1, unique=True)))
    ys = sorted(draw(st.lists(st.integers(300, 8000), min_size=steps + 1, max_size=steps + 1, unique=True)))
    assume(min(b - a for a, b in zip(xs, xs[1:], strict=False)) >= 50)
    assume(min(b - a for a, b in zip(ys, ys[1:], strict=False)) >= 50)
    points: list[tuple[float, float]] = [(0.0, 0.0), (float(xs[-1]), 0.0)]
    for k in range(steps + 1):
        x, y = float(xs[steps - k]), float(ys[k])
        points += [(x, y)]
        if k < steps:
            points += [(float(xs[steps - k - 1]), y)]
    points.append((0.0, float(ys[-1])))
    return tuple(points)


@given(square_outlines())
def test_any_outline_with_square_corners_comes_back_from_its_sides(points: tuple[tuple[float, float], ...]) -> None:
    ids = tuple("ABCDEFGHIJQRSTUVWXYZ"[: len(points)])
    sides = sides_from(points, ids)
    again = corners_of(sides)
    assert abs(ol.area(again)) == pytest.approx(abs(ol.area(points)), rel=1e-9)
    assert ol.bounds(again) == pytest.approx(ol.bounds(points), abs=1e-6)
    assert sum(s.length is None for s in sides.sides) == 2


@given(square_outlines(), st.data())
def test_typing_any_wall_gives_it_that_length_or_says_why_not(points, data) -> None:  # type: ignore[no-untyped-def]
    job = outline.draw_outline(new_job(), "r1", points).job
    wall = data.draw(st.sampled_from([w.id for w in walls_of(job.rooms[0])]))
    mm = data.draw(st.integers(100, 9000))
    angles = [round(w.after, 6) for w in walls_of(job.rooms[0])]
    try:
        change: Change = outline.set_wall_length(job, "r1", wall, f"{mm}")
    except PlankError as error:
        assert error.remedy
        return
    walls = {w.id: w for w in walls_of(change.job.rooms[0])}
    assert walls[wall].length == pytest.approx(mm, abs=1e-6)
    assert [round(w.after, 6) for w in walls.values()] == angles


@pytest.mark.parametrize(
    ("angle", "fits"),
    [(0.5, False), (1.0, True), (179.9, True), (180.0, False), (180.1, True), (359.0, True), (359.5, False)],
)
def test_corners_turn_between_1_and_359_degrees_and_never_by_none(angle: float, fits: bool) -> None:
    # Whether the outline closes is another question: each angle by itself is judged first.
    sides = Sides((
        Side("A", Length.of(3000.0), angle), Side("B", Length.of(2000.0), 90.0), Side("C", None, 90.0),
        Side("D", None, 90.0),
    ))  # fmt: skip
    try:
        corners_of(sides)
        where = ""
    except PlankError as error:
        where = error.where if "makes no corner" in error.what else ""
    assert (where == "end of wall A") is not fits
