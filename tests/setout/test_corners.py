"""Corners: who takes it, where the other starts, fillers, worktops, plinths."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of, with_run
from tall_plank.edits import bays, outline, runs, tops, units
from tall_plank.edits.things.slope import add_slope, set_slope
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.making.feet import seen_legs
from tall_plank.measure import PlankError
from tall_plank.measure import outlines as ol
from tall_plank.setout import RoomLayout, set_out
from tall_plank.setout.corners import fronts_meet
from tall_plank.workings import Workings

FRONT, HANDLE, PLAY = 19.0, 32.0, 5.0


def corner_job(north: str, east: str) -> Job:
    return with_run(with_run(new_job(), "A", Level.BASE, north), "B", Level.BASE, east)


def room(job: Job) -> RoomLayout:
    return set_out(job).rooms[0]


def test_the_second_run_starts_clear_of_the_first_ones_fronts() -> None:
    job = corner_job("door 600, pair rest, blind 1100", "drawers 600, pair rest")
    east = room(job).runs[1]
    # depth, front, then the handle and some play: drawers pull out past it
    assert east.x == pytest.approx(560 + FRONT + HANDLE + PLAY)
    assert east.start_corner is not None
    assert east.start_corner.filler == HANDLE + PLAY


def test_a_door_hinged_at_the_corner_needs_room_for_its_own_handle_too() -> None:
    job = corner_job("pair rest, blind 1100", "door 600, drawers rest")
    hinged = room(job).runs[1].x
    job = units.set_hand(job, (cell_of(job, "B1"),), "right").job
    assert hinged - room(job).runs[1].x == HANDLE


HANDLES = {"HD-BAR-192": 32.0, "HD-CUP-96": 24.0, "HD-EDGE-160": 20.0, "HD-KNOB": 28.0, "none": 0.0}
"""Handles of the shipped stock and how far each stands out, mm."""


@given(
    whole=st.sampled_from(list(HANDLES)),
    drawers=st.sampled_from([*HANDLES, "same"]),
    own=st.sampled_from(["", *HANDLES]),
    drawer=st.integers(0, 2),
)
def test_the_filler_clears_the_handles_that_the_neighbour_really_carries(
    whole: str, drawers: str, own: str, drawer: int
) -> None:
    """Of the unit, of its drawers by the standard, of one drawer alone; as the made fronts carry them."""
    job = corner_job("door 600, pair rest, blind 1100", "drawers 600, pair rest")
    b1 = cell_of(job, "B1")
    job = units.set_own(job, (b1,), "handle", whole).job
    job = units.set_own(job, (b1,), "handle_drawer", drawers).job
    job = bays.set_front_value(job, ((b1, (drawer,)),), "handle", own).job
    made = Workings(job).made.of(b1)
    assert made is not None
    carried = [HANDLES[f.pull] for f in made.fronts if f.pull]
    placed = room(job).runs[0].cells[-1]
    assert placed.filler == pytest.approx(max(carried, default=0.0) + PLAY)


def test_the_blind_unit_shows_its_front_up_to_the_neighbours() -> None:
    job = corner_job("pair rest, blind 1100", "drawers 600, pair rest")
    placed = room(job).runs[0].cells[-1]
    # The neighbour stands 579 out of its wall, and its handles 32 more.
    assert placed.corner == "right"
    assert placed.filler == HANDLE + PLAY
    assert placed.blind == pytest.approx(579 + 37)
    made = Workings(job).made.of(placed.cell)
    assert made is not None and not made.problems
    (door,) = [f for f in made.fronts if f.kind == "door"]
    assert door.x + door.width == pytest.approx(1100 - placed.blind - 3)
    names = {p.name for p in made.parts}
    assert {"corner filler", "blind panel"} <= names


def test_a_corner_too_tight_for_its_unit_is_a_snag_and_makes_no_parts() -> None:
    job = corner_job("pair rest, blind 800", "drawers 600, pair rest")
    made = Workings(job).made.of(room(job).runs[0].cells[-1].cell)
    assert made is not None and made.parts == ()
    assert any("front" in s.what and "least" in s.what for s in Workings(job).snags)


def test_a_corner_unit_stands_in_its_corner_and_what_is_left_lies_before_it() -> None:
    job = corner_job("drawers 600, pair 900, corner 900", "drawers 600")
    run = room(job).runs[0]
    assert [(p.x, p.width) for p in run.cells] == [(0, 600), (600, 900), (2700, 900)]
    assert run.free == ((1500, 1200),)
    job = runs.set_run_length(job, run.run.id, "end", "100").job
    assert room(job).runs[0].cells[-1].x == 1500


def test_an_l_unit_takes_its_leg_of_the_next_wall() -> None:
    job = corner_job("pair rest, corner 900", "drawers 600, pair rest")
    assert room(job).runs[1].x == 900
    job = units.set_own(job, (room(job).runs[0].cells[-1].cell,), "corner_leg", "1000").job
    assert room(job).runs[1].x == 1000


def test_a_corner_unit_on_the_left_end_takes_the_end_of_the_wall_before() -> None:
    job = with_run(
        with_run(new_job(), "B", Level.BASE, "corner 900, pair rest"), "A", Level.BASE, "drawers rest, pair 900"
    )
    north = next(r for r in room(job).runs if r.wall.id == "A")
    assert north.end == 3600 - 900
    made = Workings(job).made.of(next(r for r in room(job).runs if r.wall.id == "B").cells[0].cell)
    assert made is not None and made.parts and not made.problems


def test_the_first_run_keeps_the_corner_and_hung_runs_have_corners_of_their_own() -> None:
    job = with_run(new_job(), "B", Level.BASE, "drawers 600")
    job = with_run(job, "A", Level.BASE, "drawers 600, pair rest, drawers 600")
    assert room(job).runs[0].x == 0
    assert room(job).runs[1].end == pytest.approx(3600 - 579 - 37)
    job = with_run(job, "A", Level.HUNG, "pair rest")
    assert room(job).runs[2].end == 3600


def test_a_typed_start_is_kept_whatever_stands_in_the_corner() -> None:
    job = corner_job("pair rest, blind 1100", "drawers 600")
    job = runs.set_run_length(job, room(job).runs[1].run.id, "start", "800").job
    assert room(job).runs[1].x == 800
    job = runs.set_run_length(job, room(job).runs[1].run.id, "start", "").job
    assert room(job).runs[1].x == pytest.approx(616)


def test_fronts_covered_by_the_next_wall_are_a_snag() -> None:
    job = corner_job("drawers 600, pair 900, pair rest, drawers 900", "drawers 600")
    found = [s for s in Workings(job).snags if s.rule == "corner" and s.weight == "wrong"]
    assert len(found) == 1 and "579 mm of its front" in found[0].what


def test_a_corner_unit_needs_a_square_corner() -> None:
    job = outline.type_outline(new_job(), "r1", "3600 corner 120, 2400, rest, rest").job
    job = with_run(job, "A", Level.BASE, "pair rest, corner 900")
    assert any("needs a square corner; this one has 120°" in s.what for s in Workings(job).snags)
    apart = with_run(new_job(), "A", Level.BASE, "pair 900, corner 900")
    apart = runs.set_run_length(apart, apart.rooms[0].runs[0].id, "end", "300").job
    assert any("from its corner" in s.what for s in Workings(apart).snags)


# --- corners that are not square


@given(st.floats(40, 175), st.floats(300, 700), st.floats(300, 700), st.floats(200, 900))
def test_rows_round_any_corner_never_stand_in_one_another(angle: float, one: float, two: float, width: float) -> None:
    """Both rows as boxes on the plan, each begun where it may begin at the earliest; their fronts meet in a point."""
    from shapely.geometry import Polygon

    a = math.radians(angle)
    blunt = angle > 90
    first = fronts_meet(two, one, angle) if blunt else fronts_meet(0.0, one, angle)
    second = fronts_meet(one, two, angle)
    if min(first, second) <= 0.0 and blunt:
        return  # a row so shallow that the other one's front line passes it
    along, inward = (math.cos(a), math.sin(a)), (math.sin(a), -math.cos(a))
    # The first wall lies along the x axis with the room above it; the second leaves the corner at the angle.
    row_one = Polygon([(first, 0.0), (first + width, 0.0), (first + width, one), (first, one)])
    row_two = Polygon(
        [
            (along[0] * x + inward[0] * y, along[1] * x + inward[1] * y)
            for x, y in ((second, 0.0), (second + width, 0.0), (second + width, two), (second, two))
        ]
    )
    assert row_one.intersection(row_two).area < 1e-3 * width
    corner = Polygon([(0.0, 0.0), (9e3, 0.0), (9e3 + 9e3 * along[0], 9e3 * along[1]), (9e3 * along[0], 9e3 * along[1])])
    assert row_one.difference(corner.buffer(1e-3)).area < 1.0
    assert row_two.difference(corner.buffer(1e-3)).area < 1.0
    if blunt:
        meet_one, meet_two = (first, one), (along[0] * second + inward[0] * two, along[1] * second + inward[1] * two)
        assert meet_one == pytest.approx(meet_two, abs=1e-6)


def test_runs_round_a_blunt_corner_keep_clear_and_their_worktops_meet() -> None:
    job = outline.type_outline(new_job(), "r1", "3600 corner 135, 2500, rest, rest").job
    job = with_run(job, "A", Level.BASE, "drawers 600, pair rest")
    job = with_run(job, "B", Level.BASE, "drawers 600, pair 900")
    found = room(job)
    east = found.runs[1]
    # Both end where their front lines meet: 579 tan(22.5) from the corner; the second has its filler too.
    meet = 579 * math.tan(math.radians(22.5))
    assert found.runs[0].end == pytest.approx(3600 - meet)
    assert east.x == pytest.approx(meet + 37)
    assert not [x for x in Workings(job).snags if x.rule in ("clash", "corner") and x.weight == "wrong"]
    first, second = found.worktops
    shapes = []
    for top in (first, second):
        frame = found.wall(top.wall_id).frame
        shapes.append(tuple(frame.floor(x, -out) for x, out in top.points))
    from shapely.geometry import Polygon

    a, b = (Polygon(s) for s in shapes)
    assert a.intersection(b).area < 1.0
    assert a.touches(b) or a.distance(b) < 0.01
    floor = Polygon(found.points)
    assert a.difference(floor.buffer(0.01)).area < 1.0
    assert b.difference(floor.buffer(0.01)).area < 1.0


# --- worktops


def tops_of(job: Job):  # type: ignore[no-untyped-def]
    return room(job).worktops


def test_the_run_in_the_corner_goes_through_and_the_other_butts() -> None:
    job = corner_job("drawers 600, pair 900, pair rest, corner 900", "drawers 600, pair 800")
    north, east = tops_of(job)
    assert (north.x, north.length, north.depth) == (0, 3600, 599)
    assert east.x == pytest.approx(599)
    assert east.joints == ("butt", "")
    assert east.bolts == 3
    bolts = [t for t in Workings(job).made.trims if t.items]
    assert [i.code for t in bolts for i in t.items] == ["JB-150"]


def test_a_mitre_cuts_both_tops_from_the_corner_of_the_room() -> None:
    job = corner_job("drawers 600, pair 900, pair rest, corner 900", "drawers 600, pair 800")
    job = tops.set_top(job, Kind.RUN.of(room(job).runs[0].run.id), "joint", "mitre").job
    north, east = tops_of(job)
    assert {(round(x), round(o)) for x, o in north.points} == {(0, 0), (3600, 0), (3001, 599), (0, 599)}
    assert {(round(x), round(o)) for x, o in east.points} == {(0, 0), (2310, 0), (2310, 599), (599, 599)}


def test_the_slanted_corner_units_top_follows_its_front() -> None:
    job = corner_job("drawers 600, pair 900, pair rest, slant corner 900", "drawers 600, pair 800")
    north, east = tops_of(job)
    # It reaches to where its slant meets the other top's front edge, a little past the unit's leg: there they are joined.
    assert len(north.points) == 6
    reach = max(o for _, o in north.points)
    assert east.x == pytest.approx(reach) and 900 < reach < 920
    # The edge stands over the slanted front by its overhang and the front's thickness, measured square to it.
    slanted = [
        (a, b)
        for a, b in zip(north.points, (*north.points[1:], north.points[0]), strict=True)
        if abs(a[0] - b[0]) > 50 and abs(a[1] - b[1]) > 50
    ]
    ((p, q),) = slanted
    a, b = (3600 - 900, 560), (3600 - 560, 900)
    size = math.dist(a, b)
    away = abs((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])) / size
    assert away == pytest.approx(20 + 19)
    assert abs(ol.area(north.points)) < 3600 * 900
    assert (q[0] - p[0]) * (q[1] - p[1]) != 0


def test_a_top_longer_than_the_stock_is_jointed_clear_of_sink_and_dishwasher() -> None:
    from tall_plank.edits import rooms

    job = rooms.set_room_length(new_job(), "r1", "width", "5200").job
    job = with_run(job, "A", Level.BASE, "drawers 900, pair 900, sink 900, dishwasher 600, pair rest, drawers 900")
    pieces = tops_of(job)
    assert len(pieces) == 2
    assert sum(t.length for t in pieces) == pytest.approx(5200)
    joint = pieces[1].x
    for p in room(job).placed:
        if p.template == "dishwasher":
            assert not p.x < joint < p.right
    (cut,) = [(t.x + c.x, t.x + c.x + c.width) for t in pieces for c in t.cutouts]
    assert joint <= cut[0] - 149.9 or joint >= cut[1] + 149.9
    assert pieces[0].bolts == 3


def test_own_joints_own_cut_outs_and_own_corners_stay_through_setting_out() -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900, pair 900")
    source = Kind.RUN.of(job.rooms[0].runs[0].id)
    job = tops.set_top(job, source, "joints", "1000").job
    job = tops.add_cut(job, source, "500 300 35 35").job
    assert [round(t.length) for t in tops_of(job)] == [1000, 1410]
    assert sum(len(t.cutouts) for t in tops_of(job)) == 1
    job = runs.set_width(job, (cell_of(job, "A1"),), "700").job
    assert [round(t.length) for t in tops_of(job)] == [1000, 1510]
    shaped = tops.set_outline(job, source, "0 0; 2400 0; 2400 620; 1200 700 0.2; 0 620").job
    assert max(o for t in tops_of(shaped) for _, o in t.points) > 700
    job = tops.set_outline(shaped, source, "").job
    # The units no longer reach so far: what does not fit is named, not lost.
    job = runs.delete_cells(job, (cell_of(job, "A2"), cell_of(job, "A3"))).job
    assert job.rooms[0].runs[0].top.joints[0].mm == 1000
    notes = [s.what for s in Workings(job).snags if s.rule == "worktop"]
    assert any("joint at 1000 mm lies off" in note for note in notes)


@pytest.mark.parametrize(
    ("key", "text"),
    [
        ("thickness", "400"),
        ("joint", "glue"),
        ("overhang_front", "9000"),
        ("outline", "0 0; 100 0"),
        ("outline", "0 0; 1000 600; 1000 0; 0 600"),
        ("outline", "0 0; 1000 0 9; 1000 600; 0 600"),
        ("outline", "a b; c d; e f"),
        ("colour", "red"),
    ],
)
def test_wrong_worktop_values_are_refused(key: str, text: str) -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600")
    with pytest.raises(PlankError):
        tops.set_top(job, Kind.RUN.of(job.rooms[0].runs[0].id), key, text)


def test_upstands_splashback_and_waterfall_become_boards() -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900")
    source = Kind.RUN.of(job.rooms[0].runs[0].id)
    for key, text in (
        ("upstand_back", "yes"),
        ("upstand_left", "yes"),
        ("splashback", "500"),
        ("waterfall_right", "yes"),
    ):
        job = tops.set_top(job, source, key, text).job
    kinds = {b.kind: b for b in room(job).boards}
    assert kinds["splashback"].width == 500
    leg = kinds["waterfall leg"]
    assert (leg.length, leg.width, leg.thickness) == (870, 599, 40)
    # It stands beside the units, a filler between; the worktop reaches over it.
    assert leg.box()[0][0] == pytest.approx(1500 + 20)
    assert kinds["waterfall filler"].width == pytest.approx(20)
    (top,) = tops_of(job)
    assert top.x + top.length == pytest.approx(1560)
    made = {t.kind: t.part for t in Workings(job).made.trims}
    assert made["waterfall leg"] is not None and made["waterfall leg"].material == "Slip slate 40"
    back = kinds["upstand"]
    assert back.width == 60


def test_plinths_meet_in_the_corner_without_overlap() -> None:
    from shapely.geometry import box

    job = corner_job("drawers 600, pair 900, pair rest, corner 900", "drawers 600, pair 800")
    found = room(job)
    shapes = []
    for board in found.plinths:
        low, high = board.box()
        frame = found.wall(board.wall_id).frame
        a, b = frame.at(*low), frame.at(*high)
        shapes.append(box(min(a[0], b[0]), min(a[1], b[1]), max(a[0], b[0]), max(a[1], b[1])))
    for i, one in enumerate(shapes):
        for other in shapes[i + 1 :]:
            assert one.intersection(other).area < 0.1
    assert min(one.distance(other) for one in shapes[:1] for other in shapes[1:]) < 0.01


def test_legs_instead_of_a_plinth() -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600")
    run = job.rooms[0].runs[0].id
    assert room(job).plinths
    job = runs.set_run_choice(job, run, "feet", "legs").job
    assert not room(job).plinths
    placed = room(job).placed[0]
    made = Workings(job).made.units[0][1].spec.made
    legs = seen_legs(placed, made)
    assert legs == ((60, -500), (60, -100), (500, -500), (500, -100))
    wide = runs.set_width(job, (placed.cell,), "1000").job
    # Above 900 the rule asks for six: a pair stands in the middle.
    assert len(seen_legs(room(wide).placed[0], made)) == 6
    job = runs.set_run_choice(job, run, "feet", "plinth").job
    job = runs.set_run_choice(job, run, "plinth_returns", "no").job
    assert not [b for b in room(job).boards if b.kind == "plinth return"]
    with pytest.raises(PlankError):
        runs.set_run_choice(job, run, "feet", "wheels")


def test_a_filler_closes_the_run_to_a_sloped_ceiling() -> None:

    job = with_run(new_job(), "B", Level.HUNG, "pair rest, pair 900")
    run = job.rooms[0].runs[0].id
    job = runs.set_run_choice(job, run, "to_ceiling", "yes").job
    (strip,) = [b for b in room(job).boards if b.kind == "ceiling filler"]
    assert (strip.length, strip.width) == (pytest.approx(2100), pytest.approx(2500 - 1400 - 720))
    change = add_slope(job, "r1", "C")
    job = set_slope(change.job, change.made[0], "low", "2300").job
    job = set_slope(job, change.made[0], "run", "800").job
    (strip,) = [b for b in room(job).boards if b.kind == "ceiling filler"]
    assert strip.outline and strip.width == pytest.approx(380)
    assert abs(ol.area(strip.outline)) < 2100 * 380


@pytest.mark.parametrize("angle", [90, 120, 75])
def test_tops_with_a_masons_mitre_fill_the_corner_without_overlap(angle: int) -> None:
    """Whatever the joint, the two tops cover the same ground and nothing twice."""
    from shapely.geometry import Polygon
    from shapely.ops import unary_union

    job = new_job()
    if angle != 90:
        job = outline.type_outline(job, "r1", f"3600 corner {angle}, 3000, rest, rest").job
    job = with_run(job, "A", Level.BASE, "drawers 600, door 600, door rest")
    job = with_run(job, "B", Level.BASE, "drawers 600, door rest")
    covered = {}
    for joint in ("butt", "mitre", "masons mitre"):
        for run in job.rooms[0].runs:
            job = tops.set_top(job, Kind.RUN.of(run.id), "joint", joint).job
        room = set_out(job).rooms[0]
        shapes = []
        for top in room.worktops:
            frame = room.wall(top.wall_id).frame
            shapes.append(Polygon([frame.floor(x, -out) for x, out in top.points]))
        assert all(s.is_valid for s in shapes)
        covered[joint] = unary_union(shapes).area
        assert sum(s.area for s in shapes) == pytest.approx(covered[joint], abs=1.0)
    assert covered["masons mitre"] == pytest.approx(covered["butt"], rel=1e-6)
    through, other = (next(t for t in room.worktops if t.wall_id == wall) for wall in "AB")
    # The mitre starts where the front edges meet and is cut in 30 mm; the rest of the joint is straight.
    assert any(abs(out - (through.depth - 30.0)) < 1e-6 for _, out in through.points)
    assert other.joints[0] == "masons mitre" and other.bolts >= 2


def test_a_masons_mitre_at_a_square_corner_by_hand() -> None:
    # Common practice: front edges mitred at 45 degrees, so 30 in is 30 along; then parallel to the through top's edge.
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, door 600, door rest")
    job = with_run(job, "B", Level.BASE, "drawers 600, door rest")
    for run in job.rooms[0].runs:
        job = tops.set_top(job, Kind.RUN.of(run.id), "joint", "masons mitre").job
    room = set_out(job).rooms[0]
    other = next(t for t in room.worktops if t.wall_id == "B")
    d = other.depth
    corner = {(round(x, 3), round(out, 3)) for x, out in other.points}
    assert {(d, d), (d - 30.0, d - 30.0), (d - 30.0, 0.0)} <= corner
