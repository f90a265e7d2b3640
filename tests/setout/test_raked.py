"""Bands that rise along a stair: what lies in them, their parts, what stands in their way."""

from __future__ import annotations

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from tall_plank.drawing.things.wall_field import outline_on_wall
from tall_plank.edits import rooms
from tall_plank.edits.things.opening import add_opening
from tall_plank.edits.things.service import add_service
from tall_plank.edits.things.wall_field import add_field, set_count, set_field
from tall_plank.edits.treatments import cover_zone, set_zone, split_zone
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.job import Job, Kind
from tall_plank.job.start import new_job
from tall_plank.making import Part
from tall_plank.making.paneling.battens import battens_behind
from tall_plank.measure import PlankError
from tall_plank.measure.regions import Region, box_path
from tall_plank.setout import set_out
from tall_plank.setout.frames import MoldingFrame
from tall_plank.setout.paneling.fields import FieldLaid
from tall_plank.setout.paneling.raked import joined
from tall_plank.workings import Workings


def stair(width: float = 4200.0, tall: float = 4400.0, **zone: str) -> Job:
    job = rooms.set_room_length(new_job("Stair"), "r1", "width", f"{width}mm").job
    job = rooms.set_room_length(job, "r1", "height", f"{tall}mm").job
    job = add_field(job, "r1", "A", "raked panels").job
    for key, text in zone.items():
        job = set_zone(job, job.treatments[0].id, (), key, text).job
    return job


def panels(job: Job, **zone: str) -> Job:
    for key, text in zone.items():
        job = set_zone(job, job.treatments[0].id, (0,), key, text).job
    return job


def laid(job: Job) -> FieldLaid:
    return set_out(job).rooms[0].fields[0]


def parts(job: Job, *roles: str) -> list[Part]:
    source = Kind.WALL_FIELD.of(job.rooms[0].fields[0].id)
    made = (t.part for t in Workings(job).made.trims if t.source == source and t.part is not None)
    return [p for p in made if p.role in roles or not roles]


def on_wall(part: Part) -> Polygon:
    return Polygon(outline_on_wall(part))


def test_panels_are_divided_along_the_wall_as_on_a_level_one() -> None:
    job = stair()
    (zone,) = laid(job).zones
    (s,) = zone.stretches
    assert s.grid is not None and s.grid.count == 6 and s.rake == pytest.approx(math.tan(math.radians(35)))
    assert math.fsum((*s.grid.stiles, *s.grid.panels)) == pytest.approx(4200.0, abs=1e-9)
    # Plumb, the rails of 80 take 80 / cos 35° each.
    rails = 900.0 - s.grid.height
    assert rails == pytest.approx(2 * 80 / math.cos(math.radians(35)), abs=0.51)
    assert zone.area == pytest.approx(4200 * 900, abs=1e-3)
    own = set_count(job, job.rooms[0].fields[0].id, (0,), 0, "5").job
    assert laid(own).zones[0].stretches[0].grid.count == 5  # type: ignore[union-attr]


def test_stiles_are_plumb_rails_run_along_the_rake_and_are_cut_plumb() -> None:
    job = stair()
    rake = math.radians(35)
    stiles, rails = parts(job, "wall stile"), parts(job, "wall rail")
    assert len(stiles) == 7 and len(rails) == 4, "two rails in two lengths each"
    for stile in stiles:
        x0, _, x1, _ = on_wall(stile).bounds
        assert x1 - x0 == pytest.approx(stile.width, abs=1e-6) and stile.frame.x == (0.0, 0.0, 1.0)
    for rail in rails:
        assert rail.frame.x == pytest.approx((math.cos(rake), 0.0, math.sin(rake)), abs=1e-9)
        run = 4200 - 2 * 80.5
        # Long points: half of the run along the rake, and what the plumb cut takes of its width.
        assert rail.length == pytest.approx(run / 2 / math.cos(rake) + rail.width * math.tan(rake), abs=1e-3)
        x0, _, x1, _ = on_wall(rail).bounds
        assert x1 - x0 == pytest.approx(run / 2, abs=1e-6), "both ends are plumb"
    assert len({(p.length, p.width, p.outline) for p in stiles}) == 2, "alike ones are alike to the last digit"


@given(
    st.floats(-50, 50).map(lambda a: round(a, 1)), st.integers(300, 1200), st.integers(1500, 5000),
    st.sampled_from(["planted", "raised", "molded"]), st.integers(1, 2), st.booleans(), st.integers(-300, 400),
)  # fmt: skip
def test_pieces_of_any_rake_lie_in_their_band_and_beside_one_another(
    angle: float, high: int, width: int, style: str, rows: int, mirrored: bool, start: int
) -> None:
    assume(abs(angle) >= 1.0)
    tall = width * math.tan(math.radians(abs(angle))) + high + 800
    assume(1500 <= tall < 11_000)
    job = panels(
        stair(width, tall, angle=f"{angle}", height=f"{high}mm", start=f"{start}mm"), style=style, rows=str(rows)
    )
    if mirrored:
        job = set_field(job, job.rooms[0].fields[0].id, "mirrored", "yes").job
    field = laid(job)
    stretches = [s for z in field.zones for s in z.stretches if s.grid is not None]
    if not stretches:
        assert field.faults, "what cannot be laid is told"
        return
    for s in stretches:
        assert s.grid is not None
        assert math.fsum((*s.grid.stiles, *s.grid.panels)) == pytest.approx(s.x1 - s.x0, abs=1e-6)
        rises = (s.rake > 0) is ((angle > 0) is not mirrored)
        assert rises
    bands = [Polygon(s.line.quad((s.x0, 0.0, s.x1, s.z1 - s.z0))) for s in stretches]
    whole = sum(b.area for b in bands)
    wall = Polygon([(0, 0), (width, 0), (width, tall), (0, tall)])
    assert all(b.difference(wall).area < 1.0 for b in bands)
    made = parts(job)
    for role in ({"wall board"}, {"wall stile", "wall rail"}, {"wall panel"}):
        shapes = [on_wall(p) for p in made if p.role in role]
        for i, shape in enumerate(shapes):
            assert shape.is_valid
            # A hair wider: sides that nearly lie on one another are no exact matter for the reference.
            assert min(shape.difference(b.buffer(0.01)).area for b in bands) < 0.5
            assert all(shape.intersection(other).area < 0.5 for other in shapes[i + 1 :])
        if role == {"wall board"}:
            assert sum(s.area for s in shapes) == pytest.approx(whole, rel=1e-6)
    frame = sum(on_wall(p).area for p in made if p.role in ("wall stile", "wall rail"))
    if style == "planted" and not field.faults:
        openings = sum(
            s.grid.height * math.fsum(s.grid.panels) * len(s.grid.bottom_edges) for s in stretches if s.grid is not None
        )
        assert frame + openings == pytest.approx(whole, rel=1e-6)


@given(st.floats(5, 50), st.integers(300, 900))
def test_a_mirrored_rake_is_the_other_one_to_the_last_digit(angle: float, high: int) -> None:
    job = panels(stair(3000.0, 6000.0, angle=f"{angle}", height=f"{high}mm"), molding="MP-BEAD-14")
    turned = set_field(job, job.rooms[0].fields[0].id, "mirrored", "yes").job
    here = sorted(tuple(round(v, 3) for v in on_wall(p).bounds) for p in parts(job))
    there = sorted(
        (round(3000 - b[2], 3), round(b[1], 3), round(3000 - b[0], 3), round(b[3], 3))
        for b in (on_wall(p).bounds for p in parts(turned))
    )
    assert len(here) == len(there)
    for a, b in zip(here, there, strict=True):
        assert a == pytest.approx(b, abs=2e-3)


def test_an_opening_parts_it_and_what_is_beside_is_divided_by_itself() -> None:
    job = add_opening(stair(), "r1", "A", "window", 1500.0).job
    stretches = laid(job).zones[0].stretches
    assert len(stretches) == 2
    window = job.rooms[0].openings[0]
    for s in stretches:
        assert s.x1 <= window.x.mm or s.x0 >= window.x.mm + window.width.mm
        for x in (s.x0 + 1, s.x1 - 1):
            low, high = s.line.at(x), s.line.at(x) + s.z1 - s.z0
            beside = x < window.x.mm or x > window.x.mm + window.width.mm
            assert beside or high <= window.sill.mm or low >= window.sill.mm + window.height.mm


def test_foot_and_cap_run_along_it_cut_plumb_and_are_lengths() -> None:
    job = stair(foot="MP-SKIRT-95", cap="MP-RAIL-63")
    rails = laid(job).rails
    assert [r.what for r in rails] == ["raked skirting", "raked rail"] and all(r.rake == 35.0 for r in rails)
    lengths = {m.what: m for m in Workings(job).made.lengths}
    skirting = lengths["raked skirting"]
    rake = math.radians(35)
    assert skirting.length == pytest.approx(4200 / math.cos(rake) + 95 * math.tan(rake), abs=1e-3)
    assert (skirting.left, skirting.right, skirting.spring) == (35.0, -35.0, 90.0)
    (s,) = laid(job).zones[0].stretches
    assert s.z0 == pytest.approx(95 / math.cos(rake)) and s.z1 == pytest.approx(900 - 63 / math.cos(rake))
    mirrored = set_field(job, job.rooms[0].fields[0].id, "mirrored", "yes").job
    assert {r.rake for r in laid(mirrored).rails} == {-35.0}
    assert {round(r.z0, 3) for r in laid(mirrored).rails} == {round(r.z0 + 4200 * math.tan(rake), 3) for r in rails}


def test_moldings_in_its_panels_are_mitred_to_half_of_each_corner() -> None:
    job = panels(stair(angle="30"), molding="MP-BEAD-14")
    found = [m for m in Workings(job).made.lengths if m.what == "panel molding"]
    assert len(found) == 6 * 4
    # Corners of 60 and 120 degrees: mitres of 60 and 30.
    assert {(round(m.left, 6), round(m.right, 6)) for m in found} == {(60.0, 30.0), (30.0, 60.0)}


def test_slats_and_bands_in_a_rake() -> None:
    job = stair(height="1200mm")
    tid = job.treatments[0].id
    slats = cover_zone(job, tid, (0,), "slats").job
    (zone,) = laid(slats).zones
    assert zone.slats and zone.area == pytest.approx(4200 * 1200, rel=1e-6)
    banded = split_zone(job, tid, (0,), "up", "300 share").job
    low, high = laid(banded).zones
    assert [z.stretches[0].z1 - z.stretches[0].z0 for z in (low, high)] == pytest.approx([300.0, 900.0])
    assert high.stretches[0].z0 == pytest.approx(300.0)
    side = split_zone(job, tid, (0,), "along", "1400 share").job
    left, right = laid(side).zones
    assert left.stretches[0].x1 == pytest.approx(right.stretches[0].x0) == pytest.approx(1400.0)
    below = cover_zone(job, tid, (1,), "boards").job
    assert len(laid(below).zones) == 2


def test_battens_lie_behind_the_band_only() -> None:
    job = stair()
    (s,) = laid(job).zones[0].stretches
    band = Polygon(s.line.quad((s.x0, 0.0, s.x1, 900.0)))
    battens = parts(job, "batten")
    assert battens
    for batten in battens:
        x0, z0, x1, z1 = on_wall(batten).bounds
        assert Polygon([(x0, z0), (x1, z0), (x1, z1), (x0, z1)]).difference(band).area < 1.0


@pytest.mark.parametrize(
    ("path", "key", "text", "said"),
    [
        ((), "angle", "75", "angle"), ((), "angle", "steep", ""), ((), "height", "10mm", ""), ((), "cap", "NONE", "no profile"),
        ((), "start", "30m", ""),
    ],
)  # fmt: skip
def test_bad_values_are_refused_at_their_place(path: tuple[int, ...], key: str, text: str, said: str) -> None:
    job = stair()
    with pytest.raises(PlankError) as error:
        set_zone(job, job.treatments[0].id, path, key, text)
    assert said in str(error.value)


def test_what_cannot_be_made_is_told_in_the_wall() -> None:
    framed = panels(stair(), style="framed")
    assert any("does not rake" in f.what for f in laid(framed).faults) and not parts(framed, "wall panel")
    high = stair(height="300mm", foot="MP-SKIRT-145", cap="MP-RAIL-63")
    assert any("leave nothing" in f.what or "no room" in f.what or "panel" in f.what for f in laid(high).faults)
    over = stair(4200.0, 2400.0)
    # It leaves the wall at its upper end: it is paneled as far as all of it lies on the wall.
    (s,) = laid(over).zones[0].stretches
    assert s.line.at(s.x1) + 900 == pytest.approx(2400.0, abs=0.2)
    at_end = add_service(stair(), "r1", "A", "power", 47.0).job
    assert Workings(at_end).made.fields[0].problems


def test_it_survives_save_and_open(tmp_path) -> None:  # type: ignore[no-untyped-def]
    job = stair(foot="MP-SKIRT-95", cap="MP-RAIL-63", angle="-33.5")
    write_plank(job, tmp_path / "stair.plank")
    assert read_plank(tmp_path / "stair.plank") == job


@given(st.floats(-55, 55), st.floats(200, 900), st.floats(200, 900), st.floats(5, 60))
def test_the_sides_of_a_raking_frame_meet_at_their_mitres(
    rake: float, wide: float, high: float, profile: float
) -> None:
    frame = MoldingFrame(100.0, 50.0, 100.0 + wide, 50.0 + high, 0.0, "P", rake=rake)
    plumb = profile / math.cos(math.radians(rake))
    assume(min(wide - 2 * profile, high - 2 * plumb) > 20)
    k = math.tan(math.radians(rake))

    def quad(x0: float, x1: float, low: float, top: float) -> Polygon:
        return Polygon([(x0, low + k * x0), (x1, low + k * x1), (x1, top + k * x1), (x0, top + k * x0)])

    foot = 50.0 - k * 100.0
    outer = quad(100.0, 100.0 + wide, foot, foot + high)
    inner = quad(100.0 + profile, 100.0 + wide - profile, foot + plumb, foot + high - plumb)
    shapes = [Polygon(frame.outline_of(side, profile)) for side, *_ in frame.pieces()]
    assert sum(s.area for s in shapes) == pytest.approx(outer.area - inner.area, rel=1e-9)
    for i, shape in enumerate(shapes):
        assert shape.is_valid and shape.difference(outer.buffer(0.01)).area < 1e-6
        assert shape.buffer(-0.01).intersection(inner).area < 1e-6
        assert all(shape.buffer(-0.01).intersection(o).area < 1e-6 for o in shapes[i + 1 :])


def test_a_batten_runs_on_behind_a_narrow_gap_and_stops_at_a_wide_one() -> None:
    strip = (0.0, 100.0, 1000.0, 145.0)
    near = [Region(box_path(0.0, 0.0, 400.0, 900.0)), Region(box_path(430.0, 0.0, 1000.0, 900.0))]
    assert battens_behind(joined(near), strip) == [pytest.approx((0.0, 1000.0))]
    far = [Region(box_path(0.0, 0.0, 400.0, 900.0)), Region(box_path(600.0, 0.0, 1000.0, 900.0))]
    assert [v for span in battens_behind(joined(far), strip) for v in span] == pytest.approx(
        [0.0, 400.0, 600.0, 1000.0]
    )
