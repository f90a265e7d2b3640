"""Rooms cut open along a line: what is cut, what is seen behind it, what is told of it; section lines as things."""

from __future__ import annotations

import msgspec
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.demo import demo_job
from tall_plank.drawing.plan import plan
from tall_plank.drawing.plandims import plan_dims
from tall_plank.drawing.primitives import Dim, Drawing, Layer, Line, Shape, Text
from tall_plank.drawing.roomsection import section_drawing
from tall_plank.edits.rooms import set_room_length
from tall_plank.edits.things.opening import add_opening
from tall_plank.edits.things.section import add_section, delete_section, move_section, set_section, turn_section
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.measure import Length, PlankError
from tall_plank.measure import outlines as ol
from tall_plank.papers.drawings import job_sheets, room_drawings
from tall_plank.setout.rooms import corners_of
from tall_plank.setout.things.section import cuts_room
from tall_plank.workings import Workings


def furnished() -> Job:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900, door 450")
    return with_run(job, "A", Level.HUNG, "pair 900, door 450")


def drawn(job: Job, number: int = 0) -> Drawing:
    w = Workings(job)
    room = w.layout.rooms[0]
    return section_drawing(job, room, w.made, room.room.sections[number])


def cuts(drawing: Drawing, kind: Kind) -> list[Shape]:
    return [
        i for i in drawing.items if isinstance(i, Shape) and i.layer is Layer.CUT and i.source and i.source.kind is kind
    ]


def test_a_section_through_units_cuts_their_boards_and_no_other() -> None:
    job = add_section(furnished(), "r1", "y", 300.0).job  # through the drawers
    w = Workings(job)
    room = w.layout.rooms[0]
    cut = {i.source.id for i in cuts(drawn(job), Kind.CELL)}  # type: ignore[union-attr]
    p = next(p for p in room.placed if p.x < 300.0 < p.right and p.level is Level.BASE)
    hung = next(p for p in room.placed if p.x < 300.0 < p.right and p.level is Level.HUNG)
    assert cut == {p.cell, hung.cell}
    # By hand: the bottom is a rectangle of its depth by 18, its groove of the back taken off.
    unit = w.made.of(p.cell)
    assert unit is not None
    bottom = next(part for part in unit.parts if part.name == "bottom")
    grooves = sum(op.width * op.depth for op in bottom.operations if getattr(op, "over", ""))
    areas = [abs(ol.area(i.points)) for i in cuts(drawn(job), Kind.CELL)]
    assert any(a == pytest.approx(bottom.width * bottom.thickness - grooves, abs=1.0) for a in areas)


def test_walls_are_cut_and_hatched_as_thick_as_they_are() -> None:
    job = add_section(new_job(), "r1", "y", 1000.0).job
    shapes = cuts(drawn(job), Kind.WALL)
    w = Workings(job)
    t = w.layout.rooms[0].walls[0].thickness
    assert len(shapes) == 2 and {s.hatch for s in shapes} == {"masonry"}
    for shape in shapes:
        x0, y0, x1, y1 = ol.bounds(shape.points)
        assert (x1 - x0, y1 - y0) == pytest.approx((t, 2500.0))


def test_looking_the_other_way_mirrors_what_is_cut() -> None:
    job = add_section(furnished(), "r1", "y", 300.0).job
    section = job.rooms[0].sections[0]
    length = drawn(job).x1
    there = sorted(tuple(round(v) for v in ol.bounds(s.points)) for s in cuts(drawn(job), Kind.CELL))
    back = drawn(turn_section(job, section.id).job)
    mirrored = sorted(
        (round(length - x1), y0, round(length - x0), y1)
        for x0, y0, x1, y1 in (tuple(round(v) for v in ol.bounds(s.points)) for s in cuts(back, Kind.CELL))
    )
    assert mirrored == there


@settings(max_examples=12)
@given(st.floats(60, 3500), st.sampled_from(["x", "y"]))
def test_heights_and_depths_of_a_section_add_up_wherever_it_runs(at: float, axis: str) -> None:
    job = add_section(furnished(), "r1", axis, at if axis == "y" else min(at, 2300.0)).job
    drawing = drawn(job)
    rows: dict[tuple[str, float, int], list[Dim]] = {}
    for d in drawing.items:
        if isinstance(d, Dim):
            rows.setdefault((d.along, d.base, d.row), []).append(d)
    for (along, _, _), dims in rows.items():
        whole = drawing.x1 if along == "x" else drawing.y1
        assert sum(d.b - d.a for d in dims) == pytest.approx(whole)
    # Nothing is seen through what is cut, or before the plane.
    for line in (i for i in drawing.items if isinstance(i, Line) and i.layer is Layer.CARCASS):
        assert min(line.x1, line.x2) >= -400.0 and max(line.x1, line.x2) <= drawing.x1 + 400.0


def test_the_plan_marks_a_section_with_its_number_and_its_sheet() -> None:
    job = add_section(add_section(furnished(), "r1", "y", 300.0).job, "r1", "x").job
    w = Workings(job)
    items = plan(job, w.layout.rooms[0], w.made).items
    words = [i.text for i in items if isinstance(i, Text)]
    assert words.count("1") == words.count("2") == 2 and words.count("X1") == 2
    assert [name for name, _ in room_drawings(w, "r1") if name.startswith("section")] == ["section-1", "section-2"]
    numbers = [s.block.number for s in job_sheets(w) for v in s.views if "section" in v.drawing.title]
    assert all("X" in n or "P" in n for n in numbers)
    # Renamed when the first goes.
    less = delete_section(job, job.rooms[0].sections[0].id).job
    titles = [d.title for name, d in room_drawings(Workings(less), "r1") if name.startswith("section")]
    assert titles == ["Room, section 1-1"]


@pytest.mark.parametrize(
    ("key", "text", "words"),
    [
        ("x1", "9000", "beside the room"), ("x1", "so", "not a length"), ("looks", "up", "no side"), ("z", "1", "has no z"),
        ("y2", "1e9", ""),
    ],
)  # fmt: skip
def test_what_is_wrong_is_told_and_changes_nothing(key: str, text: str, words: str) -> None:
    job = add_section(new_job(), "r1", "y", 1000.0).job
    section = job.rooms[0].sections[0]
    if key == "x1" and text == "9000":
        job = set_section(job, section.id, "x2", "3000").job
        with pytest.raises(PlankError, match=words):
            move_section(job, section.id, 9000.0, 0.0)
        return
    with pytest.raises(PlankError):
        set_section(job, section.id, key, text)
    with pytest.raises(PlankError, match="beside the room"):
        add_section(job, "r1", "x", 20_000.0)


def test_a_slanted_section_survives_save_and_open(tmp_path) -> None:  # type: ignore[no-untyped-def]
    job = add_section(furnished(), "r1", "y", 300.0).job
    job = set_section(job, job.rooms[0].sections[0].id, "x2", "1200").job
    write_plank(job, tmp_path / "s.plank")
    back = read_plank(tmp_path / "s.plank")
    assert back.rooms[0].sections == job.rooms[0].sections
    drawing = drawn(back)
    assert drawing.x1 == pytest.approx((900.0**2 + 2400.0**2) ** 0.5)
    assert cuts(drawing, Kind.CELL)


def test_a_line_that_a_smaller_room_leaves_outside_is_kept_drawn_and_named() -> None:
    job = add_section(furnished(), "r1", "y", 2500.0).job
    assert not [s for s in Workings(job).snags if s.rule == "section"]
    job = set_room_length(job, "r1", "width", "2400").job
    (snag,) = [s for s in Workings(job).snags if s.rule == "section"]
    assert "Section 1-1 lies beside the room" in snag.what
    assert drawn(job) and len(job.rooms[0].sections) == 1


def test_a_line_in_the_corner_that_an_outline_leaves_out_is_refused() -> None:
    """Within the bounds of an L and yet beside it."""
    job = add_section(demo_job(), "r1", "x").job
    corners = corners_of(job.rooms[0].outline)
    (section,) = job.rooms[0].sections
    x0, y0, x1, y1 = ol.bounds(corners)
    out = [(x, y) for x in (x0 + 300, x1 - 300) for y in (y0 + 300, y1 - 300) if not ol.inside(corners, x, y)]
    (x, y) = out[0]
    short = msgspec.structs.replace(
        section, x1=Length.of(x - 100), y1=Length.of(y), x2=Length.of(x + 100), y2=Length.of(y)
    )
    assert not cuts_room(job.rooms[0], short) and cuts_room(job.rooms[0], section)


def test_a_line_that_begins_beside_the_room_and_ends_in_it_cuts_it() -> None:
    job = add_section(furnished(), "r1", "x").job
    (section,) = job.rooms[0].sections
    long = msgspec.structs.replace(section, x1=Length.of(-3000.0), x2=Length.of(500.0))
    assert cuts_room(job.rooms[0], long)


def test_the_plan_has_both_sides_of_an_opening_at_the_right_end_of_its_wall() -> None:
    job = add_opening(furnished(), "r1", "A", "window", 2600.0).job
    w = Workings(job)
    opening = w.layout.rooms[0].room.openings[0]
    ends = {round(v) for i in plan_dims(job, w.layout.rooms[0], chains=True) if isinstance(i, Dim) for v in (i.a, i.b)}
    assert {round(opening.x.mm), round(opening.x.mm + opening.width.mm)} <= ends
