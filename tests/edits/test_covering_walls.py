"""Edits of wall fields and treatments: one step each, what is typed badly is named with what is taken, links."""

from __future__ import annotations

import pytest

from tall_plank.edits import treatments as tr
from tall_plank.edits.things import wall_field as wf
from tall_plank.files.plankfile import job_bytes, job_from_bytes
from tall_plank.job import Job
from tall_plank.job.start import new_job
from tall_plank.job.treatment import Arched, Bands, Boards, Panels, Parted, Slats, zone_at
from tall_plank.measure import PlankError
from tall_plank.setout import set_out


def covered(start: str = "equal panels", wall: str = "A") -> Job:
    return wf.add_field(new_job("Fields"), "r1", wall, start).job


def ids(job: Job) -> tuple[str, str]:
    one = job.rooms[0].fields[0]
    return one.id, one.treatment


def zone(job: Job, *path: int):  # type: ignore[no-untyped-def]
    return zone_at(job.treatment(ids(job)[1]).zone, path)


def test_walls_share_one_treatment_until_one_parts_from_it() -> None:
    job = covered("dado")
    fid, tid = ids(job)
    job = wf.repeat_on(job, fid, ("B", "C")).job
    assert wf.sharing(job, tid) == 3
    job = wf.part_from(job, job.rooms[0].fields[1].id).job
    own = job.rooms[0].fields[1].treatment
    assert own != tid and wf.sharing(job, tid) == 2
    job = tr.set_band(job, own, (), 0, "1200mm").job
    heights = [f.zones[0].stretches[0].z1 for f in set_out(job).rooms[0].fields]
    assert heights == pytest.approx([900.0, 1200.0, 900.0])
    back = wf.set_field(job, job.rooms[0].fields[1].id, "treatment", tid).job
    assert [t.id for t in back.treatments] == [tid], "a treatment that nobody has is gone"


def test_what_is_covered_already_is_told_and_the_rest_is_done() -> None:
    job = covered("dado")
    fid, _ = ids(job)
    job = wf.add_field(job, "r1", "B", "slats").job
    change = wf.repeat_on(job, fid, ("A", "B", "C"))
    assert [f.wall for f in change.job.rooms[0].fields] == ["A", "B", "C"]
    assert change.skipped == ("wall B is covered already",)
    with pytest.raises(PlankError, match="No other wall is free"):
        wf.repeat_on(change.job, fid, ("A", "B", "C"))


def test_a_wall_is_covered_where_it_is_free() -> None:
    job = covered()
    fid, _ = ids(job)
    with pytest.raises(PlankError, match="covered already"):
        wf.add_field(job, "r1", "A", "slats")
    job = wf.set_field(job, fid, "right", "1000mm").job
    job = wf.add_field(job, "r1", "A", "slats", 3000.0).job
    fields = set_out(job).rooms[0].fields
    assert [(f.x0, f.x1) for f in fields] == [(0.0, 2600.0), (2600.0, 3600.0)]


def test_zones_are_split_and_joined() -> None:
    job = covered("flat boards")
    _, tid = ids(job)
    job = tr.split_zone(job, tid, (), "up", "900mm share").job
    assert isinstance(zone(job), Bands) and zone(job).bands[0].size.mm == 900.0
    job = tr.split_zone(job, tid, (1,), "arch").job
    assert isinstance(zone(job, 1), Arched) and isinstance(zone(job, 1, 1), Boards)
    job = tr.cover_zone(job, tid, (1, 0), "slats").job
    job = tr.split_zone(job, tid, (1, 0), "line").job
    assert isinstance(zone(job, 1, 0), Parted) and isinstance(zone(job, 1, 0, 0), Slats)
    job = tr.join_zone(job, tid, (1,)).job
    assert isinstance(zone(job, 1), Boards)
    job = tr.join_zone(job, tid, ()).job
    assert isinstance(zone(job), Boards)
    with pytest.raises(PlankError, match="one zone"):
        tr.join_zone(job, tid, ())


def test_zones_lie_six_deep_at_most() -> None:
    job = covered("flat boards")
    _, tid = ids(job)
    path: tuple[int, ...] = ()
    for _ in range(tr.DEEPEST_ZONE):
        job = tr.split_zone(job, tid, path, "along").job
        path = (*path, 0)
    with pytest.raises(PlankError, match="too many zones"):
        tr.split_zone(job, tid, path, "along")


def test_own_values_come_and_go() -> None:
    job = covered()
    _, tid = ids(job)
    job = tr.set_zone(job, tid, (), "stile", "76mm").job
    assert zone(job).stile.mm == 76.0
    assert tr.set_zone(job, tid, (), "stile", "").job.treatment(tid).zone == Panels()
    job = tr.cover_zone(job, tid, (), "slats").job
    job = tr.set_zone(job, tid, (), "pattern", "10mm gap 10mm, 15mm gap 10mm, 20mm gap 12mm").job
    assert [(s.width.mm, s.gap.mm) for s in zone(job).pattern] == [(10, 10), (15, 10), (20, 12)]
    assert zone(tr.set_zone(job, tid, (), "pattern", '1 1/2" gap 3/4"').job).pattern[0].width.mm == pytest.approx(38.1)
    assert zone(tr.set_zone(job, tid, (), "pattern", "").job) == Slats()


BAD = [
    ((), "stile", "-5", "out of range|least"), ((), "stile", "wide", "wide"), ((), "target", "1", "least|range|20"),
    ((), "rows", "many", "many"), ((), "rows", "500", "range"), ((), "style", "glued", "no choice"),
    ((), "rest", "nobody", "no choice"), ((), "finish", "gold", "no finish"), ((), "molding", "MP-NONE", "no profile"),
    ((), "colour", "red", "no colour"), ((7,), "stile", "80", "no longer there"), ((), "step", "nan", "nan"),
]  # fmt: skip


@pytest.mark.parametrize(("path", "key", "text", "says"), BAD)
def test_bad_values_of_panels_are_named(path: tuple[int, ...], key: str, text: str, says: str) -> None:
    job = covered()
    before = job_bytes(job)
    with pytest.raises(PlankError, match=says) as told:
        tr.set_zone(job, ids(job)[1], path, key, text)
    assert told.value.remedy and job_bytes(job) == before


@pytest.mark.parametrize(
    ("key", "text", "says"),
    [
        ("pattern", "30", "has no gap"), ("pattern", "30 gap", ""), ("pattern", "gap 15", ""),
        ("pattern", "30 gap 15, ", None), ("pattern", "1 gap 1", "range|least|2"), ("pattern", "a gap b", ""),
        ("pattern", ", ".join(["30 gap 15"] * 21), "1 to 20"), ("angle", "steep", "steep"), ("angle", "89", "range"),
        ("least_gap", "-1", ""), ("start", "top", "no choice"),
    ],
)  # fmt: skip
def test_bad_values_of_slats_are_named(key: str, text: str, says: str | None) -> None:
    job = covered("slats")
    if says is None:
        assert tr.set_zone(job, ids(job)[1], (), key, text).job
        return
    with pytest.raises(PlankError, match=says) as told:
        tr.set_zone(job, ids(job)[1], (), key, text)
    assert told.value.what


@pytest.mark.parametrize(
    ("key", "text", "says"),
    [
        ("name", " ", "needs a name"), ("left", "far", "far"), ("left_to", "opening:o99 left", "gone"),
        ("left_to", "sea:9 left", "no such mark"), ("left_to", "opening:o1 top", "no such mark"),
        ("left_meets", "glue", "has no"), ("treatment", "t99", "no treatment"), ("clear", "2m", "range|most|1000"),
        ("middle", "1", "has no"), ("top_to", "moon", "no such mark"),
    ],
)  # fmt: skip
def test_bad_values_of_fields_are_named(key: str, text: str, says: str) -> None:
    job = covered()
    with pytest.raises(PlankError, match=says):
        wf.set_field(job, ids(job)[0], key, text)


@pytest.mark.parametrize("text", ["0", "-1", "201", "many", "nan", "1e9"])
def test_a_count_that_cannot_be_is_named(text: str) -> None:
    job = covered()
    with pytest.raises(PlankError, match=r"1 to 200|many|nan|1e9"):
        wf.set_count(job, ids(job)[0], (), 0, text)


def test_counts_that_find_no_room_are_told_with_the_most_that_do() -> None:
    job = covered()
    job = wf.set_count(job, ids(job)[0], (), 0, "60").job
    fault = set_out(job).rooms[0].fields[0].faults[0]
    assert "60 panels find no room" in fault.what and "or fewer" in fault.remedy


def test_a_job_with_all_of_it_is_kept() -> None:
    job = covered("dado")
    fid, tid = ids(job)
    job = wf.repeat_on(job, fid, ("B", "C", "D")).job
    job = tr.split_zone(job, tid, (1,), "arch").job
    job = tr.split_zone(job, tid, (1, 1), "line").job
    job = wf.set_count(job, fid, (0,), 0, "4").job
    job = wf.set_field(job, fid, "mirrored", "yes").job
    again = job_from_bytes(job_bytes(job), "job")
    assert again == job and set_out(again) == set_out(job)


def test_rules_are_followed_in_treatments() -> None:
    from tall_plank.edits.values import set_value

    job = set_value(covered("dado"), "dado", "900mm").job
    _, tid = ids(job)
    job = tr.set_band(job, tid, (), 0, "dado + 50").job
    job = set_value(job, "dado", "1000mm").job
    assert set_out(job).rooms[0].fields[0].zones[0].stretches[0].z1 == pytest.approx(1050.0)


def test_a_mark_that_left_the_wall_does_not_hinder_its_deletion() -> None:
    """A door that a field reached to is put on another wall, and then taken away."""
    from tall_plank.edits.things.opening import add_opening, delete_opening, set_opening

    job = add_opening(covered(), "r1", "A", "door", 2000.0).job
    door = job.rooms[0].openings[0].id
    fid, _ = ids(job)
    job = wf.set_field(job, fid, "right_to", f"opening:{door} left").job
    job = set_opening(job, door, "x", "500mm").job
    job = set_opening(job, door, "wall", "C").job
    assert "gone" in set_out(job).rooms[0].fields[0].faults[0].what
    gone = delete_opening(job, door).job
    assert set_out(gone).rooms[0].fields[0].faults


def test_a_named_value_that_a_treatment_uses_is_not_taken_away() -> None:
    from tall_plank.edits.values import delete_value, set_value

    job = set_value(covered("dado"), "dado", "900mm").job
    job = tr.set_band(job, ids(job)[1], (), 0, "dado + 50").job
    with pytest.raises(PlankError, match="is used by a length in a room, a unit or a treatment"):
        delete_value(job, "dado")


def test_taking_a_wall_or_a_room_away_takes_its_fields_and_treatments() -> None:
    from tall_plank.edits import outline

    job = covered("slats", "B")
    drawn = outline.draw_outline(job, "r1", ((0.0, 0.0), (4000.0, 0.0), (2000.0, 3000.0))).job
    assert {f.wall for f in drawn.rooms[0].fields} <= set(drawn.rooms[0].wall_ids())
    change = outline.add_room(job, "Hall")
    room = change.made[0]
    two = wf.add_field(change.job, room, "A", "modules").job
    assert len(two.treatments) == 2
    assert [t.name for t in outline.delete_room(two, room).job.treatments] == ["Slats"]


def test_a_line_and_a_boundary_are_moved_by_hand() -> None:
    job = covered("flat boards")
    t = job.treatments[0].id
    with pytest.raises(PlankError, match="line is no longer there"):
        tr.move_line(job, t, (), True, 0.5, 0.5)
    with pytest.raises(PlankError, match="band is no longer there"):
        tr.move_band(job, t, (), 0, 100.0, 200.0)
    lined = tr.split_zone(job, t, (), "line").job
    moved = tr.move_line(tr.move_line(lined, t, (), True, 0.25, 0.0).job, t, (), False, 1.0, 0.75).job
    line = moved.treatments[0].zone
    assert isinstance(line, Parted) and (line.x1, line.y1, line.x2, line.y2) == (0.25, 0.0, 1.0, 0.75)
    for bad in (-0.1, 1.01, float("nan")):
        with pytest.raises(PlankError):
            tr.move_line(lined, t, (), True, bad, 0.5)
    bands = tr.split_zone(job, t, (), "up", "3").job
    low = tr.move_band(bands, t, (), 0, 700.0, 960.0).job.treatments[0].zone
    assert isinstance(low, Bands) and [b.size and b.size.mm for b in low.bands] == [700.0, None, None]
    own = tr.set_band(bands, t, (), 1, "800mm").job
    high = tr.move_band(own, t, (), 0, 1000.0, 650.0).job.treatments[0].zone
    assert isinstance(high, Bands) and [b.size and b.size.mm for b in high.bands] == [None, 650.0, None]
    both = tr.move_band(tr.set_band(own, t, (), 0, "900mm").job, t, (), 0, 1000.0, 700.0).job.treatments[0].zone
    assert isinstance(both, Bands) and [b.size and b.size.mm for b in both.bands] == [1000.0, 700.0, None]
    with pytest.raises(PlankError):
        tr.move_band(bands, t, (), 2, 700.0, 960.0)
