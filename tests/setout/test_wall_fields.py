"""Wall fields set out: between their marks, round corners, about openings and units, in zones."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.edits import outline
from tall_plank.edits.rooms import set_room_length
from tall_plank.edits.things.guide import add_guide
from tall_plank.edits.things.molding import add_molding, set_molding
from tall_plank.edits.things.opening import add_opening, move_opening
from tall_plank.edits.things.slope import add_slope
from tall_plank.edits.things.table import delete_thing
from tall_plank.edits.things.wall_field import add_field, marks_of, repeat_on, set_count, set_field
from tall_plank.edits.treatments import cover_zone, set_band, set_zone, split_zone
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.measure import paths as pa
from tall_plank.setout import set_out
from tall_plank.setout.paneling.fields import FieldLaid
from tall_plank.setout.paneling.slats import fitted_strips


def covered(start: str, wall: str = "A", job: Job | None = None) -> Job:
    return add_field(job or new_job("Fields"), "r1", wall, start).job


def laid(job: Job, number: int = 0) -> FieldLaid:
    return set_out(job).rooms[0].fields[number]


def treatment(job: Job, number: int = 0) -> str:
    return job.rooms[0].fields[number].treatment


def widths(field: FieldLaid) -> list[tuple[int, float]]:
    return [(s.grid.count, min(s.grid.panels)) for z in field.zones for s in z.stretches if s.grid is not None]


def test_a_field_takes_its_wall_from_the_skirting_to_the_ceiling() -> None:
    job = add_molding(new_job("Fields"), "r1", "skirting").job
    field = laid(covered("equal panels", job=job))
    assert (field.x0, field.x1, field.z0, field.z1) == pytest.approx((0.0, 3600.0, 95.0, 2500.0))
    job = set_molding(covered("equal panels", job=job), job.rooms[0].moldings[0].id, "height", "150mm").job
    assert laid(job).z0 == pytest.approx(150.0), "it follows its mark"


def test_panels_stiles_and_the_rest_make_the_field() -> None:
    job = covered("equal panels")
    for step in ("0", "0.5mm", "1mm", "10mm", '1/4"'):
        job = set_zone(job, treatment(job), (), "step", step).job
        for rest in ("ends", "evenly", "last", "panel"):
            field = laid(set_zone(job, treatment(job), (), "rest", rest).job)
            grid = field.zones[0].stretches[0].grid
            assert grid is not None
            assert math.fsum((*grid.stiles, *grid.panels)) == pytest.approx(field.width, abs=1e-9)


def test_one_wall_runs_through_an_inside_corner_and_the_next_is_shorter() -> None:
    """Battens 18, board 9, frame 9: the face stands 36 off the wall."""
    job = covered("equal panels")
    first = job.rooms[0].fields[0].id
    job = repeat_on(job, first, ("B", "C", "D")).job
    fields = set_out(job).rooms[0].fields
    assert {f.stands_off for f in fields} == {36.0}
    ends = [mm for f in fields for mm in (f.x0, f.x1)]
    assert ends == pytest.approx([36.0, 3600.0, 36.0, 2400.0, 36.0, 3600.0, 36.0, 2400.0])


def test_at_an_outside_corner_the_left_wall_laps_over_the_right_one() -> None:
    job = outline.type_outline(new_job("Fields"), "r1", "4000mm, 4000mm, 2000mm, 1500mm corner 270, rest, rest").job
    ids = job.rooms[0].wall_ids()
    wall = next(w for w in set_out(job).rooms[0].walls if w.after == pytest.approx(270.0))
    after = ids[(ids.index(wall.id) + 1) % len(ids)]
    job = covered("equal panels", after, covered("equal panels", wall.id, job))
    one, other = set_out(job).rooms[0].fields
    assert one.x1 == pytest.approx(wall.length + other.stands_off) and other.x0 == pytest.approx(0.0)


def test_each_stretch_between_openings_has_its_own_count() -> None:
    job = set_room_length(new_job("Fields"), "r1", "width", "6000mm").job
    job = add_opening(job, "r1", "A", "door", 1000.0).job
    job = add_opening(job, "r1", "A", "window", 3500.0).job
    job = covered("equal panels", job=job)
    job = set_field(job, job.rooms[0].fields[0].id, "clear", "70mm").job
    field = laid(job)
    stretches = field.zones[0].stretches
    assert [(s.x0, s.x1, s.z0, s.z1) for s in stretches] == [
        pytest.approx(box)
        for box in (
            (0.0, 930.0, 0.0, 2500.0), (930.0, 1908.0, 2110.0, 2500.0), (1908.0, 3430.0, 0.0, 2500.0),
            (3430.0, 4570.0, 0.0, 980.0), (3430.0, 4570.0, 2220.0, 2500.0), (4570.0, 6000.0, 0.0, 2500.0),
        )
    ]  # fmt: skip
    assert all(s.grid is not None and s.grid.count >= 1 for s in stretches)
    fid = job.rooms[0].fields[0].id
    job = set_count(job, fid, (), 2, "3").job
    assert [s.grid.count for s in laid(job).zones[0].stretches if s.grid is not None][2] == 3
    assert laid(set_count(job, fid, (), 2, "").job) == field


def test_units_and_worktops_leave_no_panel_behind_them() -> None:
    job = with_run(new_job("Fields"), "A", Level.BASE, "drawers 600, door 600")
    job = covered("equal panels", job=job)
    field = laid(job)
    assert field.blocks and not field.faults
    room = set_out(job).rooms[0]
    for p in room.placed:
        for s in field.zones[0].stretches:
            wide = min(s.x1, p.right) - max(s.x0, p.x)
            high = min(s.z1, p.top) - max(s.z0, p.bottom)
            assert wide < 0.01 or high < 0.01


def test_a_side_follows_its_mark_and_stays_where_it_was_when_the_mark_goes() -> None:
    job = add_opening(new_job("Fields"), "r1", "A", "door", 2000.0).job
    door = job.rooms[0].openings[0].id
    job = covered("equal panels", job=job)
    fid = job.rooms[0].fields[0].id
    codes = [code for code, _ in marks_of(job, "r1", fid, "right")]
    assert f"opening:{door} left" in codes
    job = set_field(job, fid, "right_to", f"opening:{door} left").job
    assert laid(job).x1 == pytest.approx(2000.0)
    job = move_opening(job, door, 2300.0).job
    assert laid(job).x1 == pytest.approx(2300.0)
    gone = delete_thing(job, Kind.OPENING.of(door)).job
    field = laid(gone)
    assert field.x1 == pytest.approx(2300.0) and field.zones, "the last good state is kept"
    assert [f.what for f in field.faults] == ["The opening that it reaches to is gone."]
    mended = set_field(gone, fid, "right_to", "").job
    assert laid(mended).x1 == pytest.approx(3600.0) and not laid(mended).faults


def test_a_side_at_a_unit_stays_when_the_unit_goes() -> None:
    from tall_plank.edits import runs

    job = with_run(new_job("Fields"), "A", Level.BASE, "drawers 600, door 600")
    job = covered("equal panels", job=job)
    fid, cell = job.rooms[0].fields[0].id, job.cells()[1].id
    job = set_field(job, fid, "left_to", f"cell:{cell} right").job
    at = laid(job).x0
    gone = runs.delete_cells(job, (cell,)).job
    assert laid(gone).x0 == pytest.approx(at) and "gone" in laid(gone).faults[0].what


def test_a_guide_line_is_a_mark() -> None:
    job = add_guide(new_job("Fields"), "r1", "z", "", 1000.0).job
    job = covered("slats", job=job)
    fid = job.rooms[0].fields[0].id
    job = set_field(job, fid, "top_to", f"guide:{job.rooms[0].guides[0].id} top").job
    assert laid(job).z1 == pytest.approx(1000.0)


def test_fields_that_lie_over_one_another_are_told() -> None:
    job = covered("equal panels")
    first = job.rooms[0].fields[0].id
    job = set_field(job, first, "right", "1800mm").job
    job = covered("slats", job=job)
    assert not laid(job, 1).faults and laid(job, 1).x0 == pytest.approx(1800.0)
    job = set_field(job, first, "right", "1000mm").job
    assert not laid(job, 0).faults and "lies over the wall field A1 by 800" in laid(job, 1).faults[0].what
    assert not laid(job, 1).zones, "what cannot be there is not made"


def test_a_field_without_room_is_told() -> None:
    job = covered("equal panels")
    fid = job.rooms[0].fields[0].id
    job = set_field(job, fid, "left", "3590mm").job
    assert "no room" in laid(job).faults[0].what
    job = set_field(job, fid, "left", "3450mm").job
    assert "find no room in 150 x 2500" in laid(job).faults[0].what


@pytest.mark.parametrize(
    ("key", "text", "what"),
    [("width", "4000mm", "out of its zone"), ("height", "300mm", "rises by 450"), ("rise", "700mm", "half the span")],
)
def test_an_arch_that_cannot_be_is_told(key: str, text: str, what: str) -> None:
    job = covered("arch in slats")
    job = set_zone(job, treatment(job), (), "kind", "segmental" if key == "rise" else "round").job
    job = set_zone(job, treatment(job), (), key, text).job
    assert what in laid(job).faults[0].what


ZONES = st.lists(
    st.tuples(
        st.sampled_from(("up", "along", "arch", "line")),
        st.integers(0, 5),
        st.sampled_from(("panels", "slats", "boards", "bare")),
    ),
    min_size=0,
    max_size=4,
)


@given(ZONES, st.sampled_from(("", "door", "window")), st.booleans(), st.booleans())
def test_zones_make_their_field(splits: list[tuple[str, int, str]], opening: str, sloped: bool, mirrored: bool) -> None:
    """Flat boards everywhere: the areas of all zones sum to what is free of the field, whatever it is split into."""
    from tall_plank.job.treatment import Arched, Bare, children_of, zone_at, zones_of

    job = new_job("Fields")
    if opening:
        job = add_opening(job, "r1", "A", opening, 700.0).job
    if sloped:
        job = add_slope(job, "r1", "B").job
    job = covered("flat boards", job=job)
    tid = treatment(job)
    for how, which, _ in splits:
        leaves = [p for p, z in zones_of(job.treatment(tid).zone) if not children_of(z) and len(p) < 4]
        job = split_zone(job, tid, leaves[which % len(leaves)], how, "" if how != "up" else "1:2").job
    for path, zone in reversed(list(zones_of(job.treatment(tid).zone))):
        if isinstance(zone, Arched):
            for key, size in (("width", "60mm"), ("height", "90mm")):
                job = set_zone(job, tid, path, key, size).job
    for path, zone in list(zones_of(job.treatment(tid).zone)):
        around = zone_at(job.treatment(tid).zone, path[:-1])
        if isinstance(zone, Bare) and not (isinstance(around, Arched) and path[-1] == 2):
            job = cover_zone(job, tid, path, "boards").job
    if mirrored:
        job = set_field(job, job.rooms[0].fields[0].id, "mirrored", "yes").job
    field = laid(job)
    if any("bands need" in f.what or "out of its zone" in f.what for f in field.faults):
        return
    free = {r.bounds for z in field.zones for r in z.regions}
    assert free
    if not any("no room left" in f.what for f in field.faults):
        assert math.fsum(z.area for z in field.zones) == pytest.approx(field.area, abs=1.0)
    for z in field.zones:
        for r in z.regions:
            x0, z0, x1, z1 = r.bounds
            assert x0 > field.x0 - 1e-6 and x1 < field.x1 + 1e-6 and z0 > field.z0 - 1e-6 and z1 < field.z1 + 1e-6


@given(
    st.integers(800, 5000),
    st.lists(st.tuples(st.integers(5, 80), st.integers(0, 40)), min_size=1, max_size=3),
    st.sampled_from(("fitted", "left", "centered")),
    st.sampled_from((0, 0, 15, -30, 45)),
    st.booleans(),
)
def test_every_slat_lies_in_its_field(
    width: int, steps: list[tuple[int, int]], start: str, angle: int, arched: bool
) -> None:
    job = set_room_length(new_job("Fields"), "r1", "width", f"{width}mm").job
    job = covered("arch in slats" if arched else "slats", job=job)
    tid = treatment(job)
    if arched:
        job = set_zone(job, tid, (), "width", "500mm").job
    path = (1,) if arched else ()
    text = "; ".join(f"{w}mm gap {g}mm" for w, g in steps)
    job = set_zone(job, tid, path, "pattern", text).job
    for key, value in (("start", start), ("angle", str(angle)), ("least", "1mm")):
        job = set_zone(job, tid, path, key, value).job
    field = laid(job)
    found = next((z for z in field.zones if z.path == path), None)
    if found is None:
        assert field.faults, "nothing is dropped without a word"
        return
    for slat in found.slats:
        for x, z, _ in slat.shape.outer:
            assert any(r.inside(x, z) or pa.distance(r.outer, x, z) < 1e-3 for r in found.regions)
    if start == "fitted" and not angle and not arched:
        assert found.slats[0].shape.bounds[0] == pytest.approx(field.x0, abs=1e-6)
        assert found.slats[-1].shape.bounds[2] == pytest.approx(field.x1, abs=1e-6)


@given(st.integers(200, 6000), st.integers(5, 60), st.integers(3, 40))
def test_fitted_slats_are_symmetric_and_as_near_as_can_be(width: int, slat: int, gap: int) -> None:
    from tall_plank.measure import PlankError

    try:
        strips = fitted_strips(float(width), ((float(slat), float(gap)),))
    except PlankError:
        return
    turned = [(width - b, width - a) for a, b in reversed(strips.spans)]
    for one, other in zip(strips.spans, turned, strict=True):
        assert one == pytest.approx(other, abs=0.001)
    if len(strips.spans) < 2:
        return
    own = strips.fitted * gap
    n = len(strips.spans)
    for count in (n - 1, n + 1):
        if count >= 2 and width > count * slat:
            other_gap = (width - count * slat) / (count - 1)
            assert abs(math.log(own / gap)) <= abs(math.log(other_gap / gap)) + 1e-9


def test_the_dado_is_one_for_all_walls() -> None:
    job = set_room_length(new_job("Fields"), "r1", "width", "4800mm").job
    job = covered("dado", job=job)
    job = repeat_on(job, job.rooms[0].fields[0].id, ("B", "C", "D")).job
    before = set_out(job).rooms[0].fields
    assert [widths(f)[0][0] for f in before] == [7, 4, 7, 4] or len({widths(f)[0][0] for f in before}) > 1
    job = set_band(job, treatment(job), (), 0, "1100mm").job
    after = set_out(job).rooms[0].fields
    assert all(f.zones[0].stretches[0].z1 == pytest.approx(1100.0) for f in after)
    assert [widths(f)[0] for f in after] == [widths(f)[0] for f in before]


def test_a_mirrored_field_is_the_other_way_round() -> None:
    job = add_opening(new_job("Fields"), "r1", "A", "door", 300.0).job
    job = covered("equal panels", job=job)
    tid, fid = treatment(job), job.rooms[0].fields[0].id
    job = set_zone(set_zone(job, tid, (), "step", "10mm").job, tid, (), "rest", "last").job
    plain = laid(job).zones[0].stretches
    turned = laid(set_field(job, fid, "mirrored", "yes").job).zones[0].stretches
    assert sorted((s.x0, s.x1) for s in plain) == [pytest.approx(p) for p in sorted((s.x0, s.x1) for s in turned)]
    widest = max(plain, key=lambda s: s.x1 - s.x0)
    other = max(turned, key=lambda s: s.x1 - s.x0)
    assert widest.grid is not None and other.grid is not None
    assert widest.grid.stiles[-1] > widest.grid.stiles[0]
    assert other.grid.stiles == pytest.approx(widest.grid.stiles[::-1]), "the wide end stile is at the left now"


@given(st.integers(40, 140), st.sampled_from(("equal panels", "slats", "flat boards")))
def test_fields_round_any_inside_corner_leave_one_another_room(angle: int, start: str) -> None:
    """Square ends in corners of any angle: no piece stands in another, nor in a wall."""
    from tall_plank.workings import Workings

    text = (
        f"3000mm corner {angle}, 2500mm corner {180 - angle}, rest, rest"
        if angle != 90
        else "3000mm, 2500mm, rest, rest"
    )
    job = outline.type_outline(new_job("Fields"), "r1", text).job
    job = covered(start, job=job)
    job = repeat_on(job, job.rooms[0].fields[0].id, ("B", "C", "D")).job
    w = Workings(job)
    assert not [t.problem for t in w.made.trims if t.problem is not None]
    room = w.layout.rooms[0]
    assert len(room.fields) == 4
    for trim in w.made.trims:
        assert trim.part is not None
        for u in (0.0, trim.part.length):
            for v in (0.0, trim.part.width):
                for z in (0.0, trim.part.thickness):
                    x, y, _ = trim.parent.at(*trim.part.frame.at(u, v, z))
                    for wall in room.walls:
                        assert wall.frame.into((x, y, 0.0))[1] < 0.1, "inside the room"  # type: ignore[arg-type]


def test_what_stands_before_the_fronts_of_units_keeps_a_field_away() -> None:
    """Sliding doors stand before the units of the next wall: the field ends before them."""
    from tall_plank.demo import demo_job
    from tall_plank.workings import Workings

    job = demo_job()
    loft = next(r for r in job.rooms if r.name == "Sleeping loft")
    made = Workings(job).made
    assert not [t.problem for t in made.trims if t.problem is not None and t.room == loft.id]


def test_nothing_is_covered_behind_the_plinth_of_units() -> None:
    job = with_run(new_job("Fields"), "A", Level.BASE, "drawers 600, door 600")
    zone = laid(covered("flat boards", job=job)).zones[0]
    placed = set_out(job).rooms[0].placed
    assert placed[0].bottom > 50.0
    assert not any(r.inside(p.x + p.width / 2, 30.0) for r in zone.regions for p in placed)
