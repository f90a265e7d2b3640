"""Details: cropped exactly, measured where their middle lines run, named, told where they are wrong."""

from __future__ import annotations

import math

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.drawing.cropped import clipped, cropped
from tall_plank.drawing.detail import detail_drawing, middle_of
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.primitives import Arc, Dim, Drawing, Layer, Line, Pen, Shape, Text
from tall_plank.drawing.shown import shown
from tall_plank.drawing.words import box_of
from tall_plank.edits.things.detail import add_detail, delete_detail, move_detail, set_detail
from tall_plank.edits.things.island import add_island, delete_island
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError, format_chain
from tall_plank.papers.sets import set_sheets
from tall_plank.workings import Workings


def furnished() -> Job:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900, door 450")
    return with_run(job, "A", Level.HUNG, "pair 900, door 450")


def drawn(job: Job, number: int = 0) -> Drawing:
    w = Workings(job)
    room = w.layout.rooms[0]
    detail = room.room.details[number]
    return detail_drawing(job, room, room.wall(detail.wall), w.made, detail)


def figures(drawing: Drawing, along: str) -> list[str]:
    return [i.text for i in drawing.items if isinstance(i, Dim) and i.along == along and i.row == -1]


def test_two_gables_side_by_side_are_measured_through_both_of_them() -> None:
    job = furnished()
    room = Workings(job).layout.rooms[0]
    first = min((p for p in room.placed if p.level is Level.BASE), key=lambda p: p.x)
    job = add_detail(job, "r1", "A", first.right, first.bottom + 40.0, "level").job
    job = set_detail(job, job.rooms[0].details[0].id, "away", "300").job
    # Between the fronts and the drawers: gable and gable, 18 each.
    chain = figures(drawn(job), "x")
    assert chain.count("18") >= 2 and "18" in chain[len(chain) // 2 - 1 : len(chain) // 2 + 2]
    names = [i.text for i in drawn(job).items if isinstance(i, Text)]
    assert any(t.startswith("right gable, ") for t in names) and any(t.startswith("left gable, ") for t in names)


def test_a_worktop_and_its_front_are_cut_where_they_stand() -> None:
    job = add_detail(furnished(), "r1", "A").job
    detail = job.rooms[0].details[0]
    w = Workings(job)
    top = w.layout.rooms[0].worktops[0]
    cut = [i for i in drawn(job).items if isinstance(i, Shape) and i.layer is Layer.CUT and i.hatch == "worktop"]
    ys = [y for s in cut for _, y in s.points]
    assert min(ys) == pytest.approx(top.bottom) and max(ys) == pytest.approx(top.bottom + top.thickness)
    xs = [x for s in cut for x, _ in s.points]
    # The wall is at the right: the worktop's front edge is as far from it as the worktop is deep.
    assert min(xs) == pytest.approx(-top.depth)
    assert detail.z.mm == pytest.approx(top.bottom, abs=1.0)


@settings(max_examples=15, deadline=None)
@given(
    x=st.floats(0.0, 2000.0), z=st.floats(0.0, 2300.0), away=st.floats(0.0, 650.0), size=st.floats(20.0, 900.0),
    cut=st.sampled_from(["seen", "upright", "level"]), scale=st.sampled_from(["1:1", "1:2", "1:5", "1:10"]),
)  # fmt: skip
def test_whatever_is_drawn_large_lies_in_its_window_and_its_figures_add_up(  # type: ignore[no-untyped-def]
    x, z, away, size, cut, scale
) -> None:
    job = add_detail(furnished(), "r1", "A", x, z, cut).job
    detail_id = job.rooms[0].details[0].id
    try:
        for key, value in (("scale", "1:10"), ("size", f"{size:.1f}"), ("away", f"{away:.1f}"), ("scale", scale)):
            job = set_detail(job, detail_id, key, value).job
    except PlankError as error:
        assert "mm of paper" in str(error)  # too large for its scale, told
    drawing = drawn(job)
    detail = job.rooms[0].details[0]
    u, v = middle_of(detail)
    half = detail.size.mm / 2 + 1e-6
    for item in drawing.items:
        if isinstance(item, Line | Shape):
            points = item.points if isinstance(item, Shape) else ((item.x1, item.y1), (item.x2, item.y2))
            assert all(abs(p - u) <= half and abs(q - v) <= half for p, q in points)
    for along in "xy":
        dims = [i for i in drawing.items if isinstance(i, Dim) and i.along == along and i.row == -1]
        assert all(a.b == pytest.approx(b.a) for a, b in zip(dims, dims[1:], strict=False))
        assert [d.text for d in dims] == format_chain([d.b - d.a for d in dims], job.display)
    # No name lies over another.
    texts = [box_of(i, drawing.scale) for i in shown(drawing, drawing.scale).texts]
    for i, a in enumerate(texts):
        for b in texts[:i]:
            assert a[2] <= b[0] or b[2] <= a[0] or a[3] <= b[1] + 1e-6 or b[3] <= a[1] + 1e-6


@settings(max_examples=60, deadline=None)
@given(st.lists(st.floats(-100, 100), min_size=8, max_size=8))
def test_lines_are_clipped_as_a_general_library_clips_them(v: list[float]) -> None:
    box = (min(v[0], v[2]), min(v[1], v[3]), max(v[0], v[2]) + 1.0, max(v[1], v[3]) + 1.0)
    found = clipped((v[4], v[5]), (v[6], v[7]), box)
    wanted = shapely.intersection(shapely.LineString([(v[4], v[5]), (v[6], v[7])]), shapely.box(*box))
    length = 0.0 if found is None else math.dist(*found)
    assert length == pytest.approx(wanted.length, abs=1e-6)


def test_shapes_and_arcs_keep_what_lies_in_the_window_and_no_side_of_it() -> None:
    box = (0.0, 0.0, 10.0, 10.0)
    ring = ((-5.0, 2.0), (15.0, 2.0), (15.0, 8.0), (-5.0, 8.0))
    hole = ((4.0, 4.0), (4.0, 6.0), (12.0, 6.0), (12.0, 4.0))
    items = cropped([Shape(ring, Pen.WIDE, Layer.CUT, hatch="ply", holes=(hole,))], box)
    fills = [i for i in items if isinstance(i, Shape)]
    lines = [i for i in items if isinstance(i, Line)]
    area = sum(shapely.Polygon(f.points, f.holes).area for f in fills)
    assert area == pytest.approx(10 * 6 - 6 * 2) and all(f.pen is Pen.NONE for f in fills)
    # Two long sides, and the hole's three sides: nothing at x = 0 or x = 10.
    assert sum(math.dist((i.x1, i.y1), (i.x2, i.y2)) for i in lines) == pytest.approx(20.0 + 6.0 * 2 + 2.0)
    arcs = [i for i in cropped([Arc(0.0, 0.0, 5.0, 0.0, 360.0, Pen.NARROW, Layer.FRONT)], box) if isinstance(i, Arc)]
    assert sum(a.sweep for a in arcs) == pytest.approx(90.0) and all(a.radius == 5.0 for a in arcs)


def test_a_detail_has_its_mark_on_the_wall_and_a_number_that_is_that_of_its_drawing() -> None:
    job = add_detail(furnished(), "r1", "A").job
    job = add_detail(job, "r1", "A", 1200.0, 300.0, "level").job
    w = Workings(job)
    room = w.layout.rooms[0]
    words = {i.text.strip() for i in elevation(job, room, room.wall("A"), w.made).items if isinstance(i, Text)}
    assert {"a", "b", "Da", "Db"} <= words
    assert drawn(job, 1).mark == "Db"
    assert any("detail b" in s.title for s in set_sheets(w, "shop"))
    # The first one goes: the second is renamed with its mark and its sheet.
    job = delete_detail(job, job.rooms[0].details[0].id).job
    assert drawn(job).mark == "Da" and "detail a" in drawn(job).title


@pytest.mark.parametrize(
    ("key", "text", "words"),
    [
        ("size", "5", "20"), ("size", "1e9", ""), ("scale", "1:3", "no scale"), ("cut", "slanted", "no way to cut"),
        ("wall", "Q", "no wall"), ("x", "left", "left"), ("depth", "3", "no depth"), ("scale", "1:1", ""),
    ],
)  # fmt: skip
def test_what_is_wrong_is_told_and_changes_nothing(key: str, text: str, words: str) -> None:
    job = add_detail(furnished(), "r1", "A").job
    detail_id = job.rooms[0].details[0].id
    job = set_detail(job, detail_id, "size", "500").job if key == "scale" else job
    with pytest.raises(PlankError) as told:
        set_detail(job, detail_id, key, text)
    assert words in str(told.value) and told.value.remedy


def test_a_detail_whose_face_is_gone_is_kept_and_named(tmp_path) -> None:  # type: ignore[no-untyped-def]
    job = add_island(furnished(), "r1").job
    island = job.rooms[0].islands[0]
    job = add_detail(job, "r1", f"{island.letter}1", 100.0, 400.0, "seen").job
    assert "island" in drawn(job).title
    job = delete_island(job, island.id).job
    assert [s.rule for s in Workings(job).snags if s.rule == "detail"] == ["detail"]
    set_sheets(Workings(job), "shop")
    write_plank(job, tmp_path / "j.plank")
    assert read_plank(tmp_path / "j.plank").rooms == job.rooms
    back = set_detail(job, job.rooms[0].details[0].id, "wall", "A").job
    assert not [s for s in Workings(back).snags if s.rule == "detail"]


def test_a_detail_is_moved_and_survives_in_inches() -> None:
    from tall_plank.edits.jobs import set_display
    from tall_plank.measure import DisplayUnit

    job = add_detail(furnished(), "r1", "A").job
    job = set_display(job, DisplayUnit.FRACTION_16).job
    job = move_detail(job, job.rooms[0].details[0].id, 500.0, 300.0).job
    detail = job.rooms[0].details[0]
    assert (detail.x.mm, detail.z.mm) == (500.0, 300.0)
    job = set_detail(job, detail.id, "size", "10 1/2").job
    assert job.rooms[0].details[0].size.mm == pytest.approx(266.7)
