"""Wall fields on the faces of columns and chimney breasts: what meets at their corners, whatever stands beside them."""

from __future__ import annotations

import itertools

import msgspec
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon, box

from conftest import with_run
from tall_plank.edits.rooms import set_room_length
from tall_plank.edits.things.column import add_column, delete_column, set_column
from tall_plank.edits.things.molding import add_molding
from tall_plank.edits.things.slope import add_slope
from tall_plank.edits.things.wall_field import add_field, cover_column, repeat_on, set_field
from tall_plank.edits.treatments import cover_zone, set_hold, set_zone
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making.parts import Groove
from tall_plank.measure import PlankError
from tall_plank.measure.frames import FloorPoint
from tall_plank.setout import set_out
from tall_plank.setout.clear import nearest_line
from tall_plank.setout.paneling.fields import FieldLaid
from tall_plank.solids.parts import grooved_section
from tall_plank.solids.room import solids_in
from tall_plank.solids.solids import Prism
from tall_plank.workings import Workings


def breast(x: float = 1600.0, kind: str = "chimney breast") -> tuple[Job, str]:
    job = set_room_length(new_job("Breast"), "r1", "width", "4800mm").job
    job = add_column(job, "r1", "A", kind, x).job
    return job, job.rooms[0].columns[0].id


def laid(job: Job) -> dict[str, FieldLaid]:
    return {f.wall_id.rpartition("-")[2]: f for f in set_out(job).rooms[0].fields}


def test_its_sides_run_from_the_wall_to_the_front_and_lap_over_its_edge() -> None:
    """A breast of 1200 x 350; battens 18, board 9 and slats 18 stand 45 off it, panels on the wall 36."""
    job, column = breast()
    job = cover_column(job, "r1", column, "slats").job
    found = laid(job)
    assert [(round(f.x0, 3), round(f.x1, 3)) for f in (found["left"], found["front"], found["right"])] == [
        (0, 395), (0, 1245), (0, 350),
    ]  # fmt: skip
    assert len(job.treatments) == 1, "they share one treatment"
    job = add_field(job, "r1", "A", "equal panels").job
    found = laid(job)
    assert found["left"].x0 == pytest.approx(36.0), "the wall runs through"
    spans = [(s.x0, s.x1) for z in found["A"].zones for s in z.stretches]
    assert spans == [(0.0, 1600.0), (2845.0, 4800.0)], "the breast's right side runs through"


def test_a_free_column_laps_all_round() -> None:
    job, column = breast(kind="column")
    job = set_column(job, column, "wall", "").job
    for key, text in (("x", "1000mm"), ("y", "900mm"), ("width", "400mm"), ("depth", "300mm")):
        job = set_column(job, column, key, text).job
    job = cover_column(job, "r1", column, "flat boards").job
    found = laid(job)
    assert [f.field.name for f in found.values()] == ["c1l1", "c1f1", "c1r1", "c1b1"]
    off = found["front"].stands_off
    assert [f.width for f in found.values()] == pytest.approx([300 + off, 400 + off, 300 + off, 400 + off])


def test_in_the_corner_of_the_room_its_front_meets_the_next_wall() -> None:
    job, column = breast(0.0)
    job = add_field(job, "r1", "D", "equal panels").job
    job = cover_column(job, "r1", column, "slats").job
    found = laid(job)
    assert set(found) == {"D", "front", "right"}
    assert found["front"].x0 == pytest.approx(36.0)
    assert max(s.x1 for z in found["D"].zones for s in z.stretches) == pytest.approx(2400.0 - 350.0)
    job, column = breast(3600.0)
    job = cover_column(add_field(job, "r1", "B", "equal panels").job, "r1", column, "slats").job
    found = laid(job)
    assert found["front"].x1 == pytest.approx(1200.0), "it runs through"
    assert min(s.x0 for z in found["B"].zones for s in z.stretches) == pytest.approx(350.0 + 45.0)


def test_its_cover_goes_with_it_and_says_when_a_side_is_gone() -> None:
    job, column = breast()
    job = cover_column(job, "r1", column, "slats").job
    with pytest.raises(PlankError, match="covered already"):
        cover_column(job, "r1", column, "slats")
    against = set_column(job, column, "x", "0mm").job
    assert any("stands against a wall" in s.what for s in Workings(against).snags)
    assert not any(t.number.startswith("c1l") for t in Workings(against).made.trims)
    gone = delete_column(job, column).job
    assert gone.rooms[0].fields == () and gone.treatments == ()


def test_a_wall_and_a_column_share_a_treatment() -> None:
    job, column = breast()
    job = add_field(job, "r1", "A", "slats").job
    faces = tuple(f"{column}-{face}" for face in ("left", "front", "right"))
    job = repeat_on(job, job.rooms[0].fields[0].id, faces).job
    assert len(job.treatments) == 1 and len(job.rooms[0].fields) == 4
    with pytest.raises(PlankError, match="no wall"):
        repeat_on(job, job.rooms[0].fields[0].id, (f"{column}-back",))


def test_it_begins_over_the_skirting_and_ends_under_a_slope() -> None:
    job, column = breast()
    job = add_molding(job, "r1", "skirting").job
    job = add_slope(job, "r1", "A").job
    job = cover_column(job, "r1", column, "flat boards").job
    found = laid(job)
    assert {f.z0 for f in found.values()} == {95.0}
    room = set_out(job).rooms[0]
    for face in room.sides:
        field = found[face.id.rpartition("-")[2]]
        for zone in field.zones:
            for region in zone.regions:
                for x, z, _ in region.outer:
                    assert z <= face.height_at(min(max(x, 0.0), face.length)) + 1e-6


HOLDS = st.sampled_from(["battens", "glue", "screws"])
STARTS_OF = st.sampled_from(["equal panels", "slats", "flat boards", "modules"])


@settings(max_examples=40)
@given(
    st.integers(0, 3600), st.integers(150, 1200), st.integers(120, 700), STARTS_OF, STARTS_OF, HOLDS, HOLDS,
    st.booleans(), st.sets(st.sampled_from("ABD"), min_size=1), st.booleans(),
)  # fmt: skip
def test_what_covers_a_breast_and_the_walls_beside_it_share_no_space(
    x: int, width: int, depth: int, on_it: str, beside: str, hold: str, other_hold: str, first: bool, walls: set[str],
    units: bool,
) -> None:  # fmt: skip
    job, column = breast()
    try:
        job = set_column(job, column, "width", f"{width}mm").job
        job = set_column(job, column, "depth", f"{depth}mm").job
        job = set_column(job, column, "x", f"{min(x, 4800 - width)}mm").job
        if units:
            job = with_run(job, "A", Level.BASE, "door 400, door 500")
        for cover_first in (first, not first):
            if cover_first:
                job = cover_column(job, "r1", column, on_it).job
                job = set_hold(job, job.treatments[-1].id, "hold", hold).job
            else:
                for wall in sorted(walls):
                    job = add_field(job, "r1", wall, beside).job
                    job = set_hold(job, job.treatments[-1].id, "hold", other_hold).job
    except PlankError:
        return
    room = set_out(job).rooms[0]
    taken = []
    for field in room.fields:
        frame = room.wall(field.wall_id).frame
        for zone in field.zones:
            for region in zone.regions:
                a, z0, b, z1 = region.bounds
                corners = ((a, 0.0), (b, 0.0), (b, -field.stands_off), (a, -field.stands_off))
                taken.append((field.field.id, Polygon([frame.floor(u, v) for u, v in corners]), z0, z1))
    floor = box(0.0, 0.0, 4800.0, 2400.0)
    for who, shape, z0, z1 in taken:
        if z1 - z0 > 1.0:
            assert shape.difference(floor).area < 1.0, who
    for (one, a, z0, z1), (two, b, y0, y1) in itertools.combinations(taken, 2):
        if one != two and min(z1, y1) - max(z0, y0) > 0.5:
            assert a.intersection(b).area < 1.0


@pytest.mark.parametrize("x", [0.0, 90.0, 200.0, 1600.0, 3500.0, 3600.0])
@pytest.mark.parametrize("on_it", ["equal panels", "slats", "flat boards", "modules"])
def test_their_parts_share_no_space(x: float, on_it: str) -> None:
    job, column = breast(x)
    for wall in "ABD":
        job = add_field(job, "r1", wall, "equal panels").job
    job = cover_column(job, "r1", column, on_it).job
    job = with_run(job, "A", Level.HUNG, "gap 300, door 500")
    w = Workings(job)
    assert [t.problem for t in w.made.trims if t.problem is not None and t.kind == "wall field"] == []
    assert any(t.number.startswith("c1fN") for t in w.made.trims)


def test_a_field_of_a_face_can_be_set_as_any_other() -> None:
    job, column = breast()
    job = cover_column(job, "r1", column, "equal panels").job
    front = next(f for f in job.rooms[0].fields if f.wall.endswith("front"))
    job = set_field(job, front.id, "left", "100mm").job
    job = set_field(job, front.id, "mirrored", "yes").job
    assert laid(job)["front"].x0 == pytest.approx(100.0)
    assert msgspec.to_builtins(job.rooms[0].fields[1])["mirrored"]


def test_what_is_dropped_beside_a_covered_breast_goes_on_the_wall() -> None:
    """A face of the breast was nearer, and takes no units."""
    job, column = breast()
    bare = set_out(job).rooms[0]
    covered = set_out(cover_column(job, "r1", column, "slats").job).rooms[0]
    for x in range(100, 4800, 300):
        for y in range(100, 2400, 200):
            assert nearest_line(covered, FloorPoint((x, y))) == nearest_line(bare, FloorPoint((x, y)))


def test_beside_a_wall_its_front_gives_way_by_what_stands_in_its_way_only() -> None:
    """30 mm from the next wall, whose panels stand 36 off: the front begins 6 mm further in."""
    job, column = breast(30.0)
    job = add_field(job, "r1", "D", "equal panels").job
    job = cover_column(job, "r1", column, "slats").job
    assert laid(job)["front"].x0 == pytest.approx(6.0)


@pytest.mark.parametrize(("x", "faces"), [(149.0, ["front", "right"]), (150.0, ["left", "front", "right"])])
def test_a_side_nearer_than_150_to_the_next_wall_is_not_covered(x: float, faces: list[str]) -> None:
    job, column = breast(x)
    assert list(laid(cover_column(job, "r1", column, "slats").job)) == faces


def test_battens_behind_boards_are_in_no_picture_and_those_between_slats_are() -> None:
    job, column = breast()
    job = cover_column(job, "r1", column, "flat boards").job

    def battens(job: Job, hidden: bool) -> int:
        w = Workings(job)
        return sum("batten" in s.name for s in solids_in(job, w.layout.rooms[0], w.made, hidden=hidden))

    assert battens(job, False) == 0 and battens(job, True) > 0
    open_ones = cover_zone(job, job.treatments[0].id, (), "slats").job
    open_ones = set_zone(open_ones, job.treatments[0].id, (), "board", "0mm").job
    assert battens(open_ones, False) > 0


def test_grooves_are_cut_into_the_solid_of_a_board() -> None:
    job, column = breast()
    job = cover_column(job, "r1", column, "flat boards").job
    treatment = job.treatments[0].id
    for key, text in (("groove", "8mm"), ("groove_pitch", "24mm"), ("groove_depth", "5mm")):
        job = set_zone(job, treatment, (), key, text).job
    w = Workings(job)
    solids = [s for s in solids_in(job, w.layout.rooms[0], w.made) if s.name.endswith(" board")]
    assert len(solids) == 3 and all(isinstance(s, Prism) and len(s.points) > 40 for s in solids)
    board = next(t.part for t in w.made.trims if t.part is not None and t.part.role == "wall board")
    section = grooved_section(board)
    count = sum(isinstance(op, Groove) for op in board.operations)
    assert count > 10 and len(section) == 4 + 4 * count
    assert Polygon(section).area == pytest.approx(board.width * board.thickness - count * 8.0 * 5.0)
