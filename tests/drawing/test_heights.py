"""Heights on elevations: of what stands over one another, of slopes; what stands before a wall and belongs to others."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.heights import Standing, columns
from tall_plank.drawing.primitives import Dim, Drawing, Layer, Shape, Text
from tall_plank.edits import outline
from tall_plank.edits.things.column import add_column, set_column
from tall_plank.edits.things.island import add_island
from tall_plank.edits.things.opening import add_opening
from tall_plank.edits.things.service import add_service
from tall_plank.edits.things.slope import add_slope, set_slope
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.papers.drawings import room_drawings
from tall_plank.workings import Workings


def drawn(job: Job, wall: str = "A") -> Drawing:
    w = Workings(job)
    room = w.layout.rooms[0]
    return elevation(job, room, room.wall(wall), w.made)


def heights(drawing: Drawing) -> dict[int, list[tuple[float, float]]]:
    rows: dict[int, list[tuple[float, float]]] = {}
    for d in drawing.items:
        if isinstance(d, Dim) and d.along == "y":
            rows.setdefault(d.row, []).append((round(d.a, 1), round(d.b, 1)))
    return rows


@settings(max_examples=60)
@given(st.lists(st.tuples(st.integers(0, 20), st.integers(1, 8), st.integers(0, 15), st.integers(1, 8)), max_size=8))
def test_every_step_of_a_column_is_a_height_of_what_stands_there(boxes: list[tuple[int, int, int, int]]) -> None:
    """Whatever stands where: no figure runs between things that do not stand over one another, and none is left out."""
    things = [
        Standing(100.0 * x, 100.0 * (x + w), 100.0 * z, 100.0 * (z + h), str(n)) for n, (x, w, z, h) in enumerate(boxes)
    ]
    found = columns(things, 3000.0, 2500.0)
    for column in found:
        over = [t for t in things if t.name in column.names]
        low, high = max(t.low for t in over), min(t.high for t in over)
        assert low < high, "they stand over one another somewhere"
        assert set(column.marks) == {0.0, 2500.0, *(v for t in over for v in (t.bottom, t.top))}
    told = {v for column in found for v in column.marks}
    for t in things:
        if t.low < 3000.0:
            assert {t.bottom, t.top} <= told


def test_a_hung_unit_beside_a_tall_one_has_a_column_of_its_own() -> None:
    job = with_run(new_job(), "A", Level.BASE, "tall 600, drawers 600")
    job = with_run(job, "A", Level.HUNG, "gap 1600, pair 900")
    rows = heights(drawn(job))
    tops = [sorted({v for pair in pairs for v in pair}) for row, pairs in sorted(rows.items()) if row < 0]
    assert [0.0, 1400.0, 2120.0, 2500.0] in tops  # what hangs, beyond the drawers
    tall = next(marks for marks in tops if len(marks) == 4 and 1400.0 not in marks)
    assert tall[0] == 0.0 and tall[-1] == 2500.0


def test_sills_and_heads_stand_in_a_column() -> None:
    job = add_opening(new_job(), "r1", "A", "window", 900.0).job
    window = job.rooms[0].openings[0]
    rows = heights(drawn(job))
    assert [(0.0, window.sill.mm), (window.sill.mm, window.sill.mm + window.height.mm), (window.sill.mm + window.height.mm, 2500.0)] in [
        sorted(pairs) for pairs in rows.values()
    ]  # fmt: skip


def test_a_sloping_wall_is_as_high_at_each_end_as_it_says() -> None:
    """By hand: a slope from 1600 at wall D over 1500 to 2500: wall A is 1600 high at its left end, 2500 at its right;
    its pitch is atan(900 / 1500) = 30.96 degrees."""
    job = add_slope(new_job(), "r1", "D").job
    slope = job.rooms[0].slopes[0].id
    for key, text in (("low", "1600"), ("run", "1500")):
        job = set_slope(job, slope, key, text).job
    drawing = drawn(job)
    rows = heights(drawing)
    assert (0.0, 1600.0) in rows[-1] and (0.0, 2500.0) in rows[1]
    texts = {i.text for i in drawing.items if isinstance(i, Text)}
    assert {"31°", "▽ +2500"} <= texts
    assert [d.text for d in drawing.items if isinstance(d, Dim) and d.along == "x" and d.row == 4] == ["1500", "2100"]


@pytest.mark.parametrize(("low_a", "low_d"), [("1600", "1200"), ("1200", "1600"), ("1400", "1400")])
def test_two_slopes_of_different_lows_meet_inside_the_room(low_a: str, low_d: str) -> None:
    job = add_slope(add_slope(new_job(), "r1", "A").job, "r1", "D").job
    for slope, low in zip(job.rooms[0].slopes, (low_a, low_d), strict=True):
        for key, text in (("low", low), ("run", "1500")):
            job = set_slope(job, slope.id, key, text).job
    (ceiling,) = [i for i in drawn(job, "A").items if isinstance(i, Shape) and i.fill == "ceiling"]
    a, d = float(low_a), float(low_d)
    for x, z in ceiling.points:
        assert 0.0 <= x <= 3600.0 and a - 0.1 <= z <= 2500.1
        # Nothing of it lies over the other slope.
        assert z <= d + (2500.0 - d) * min(x, 1500.0) / 1500.0 + 0.1
    # The hip ends where both reach the ceiling.
    assert any(x == pytest.approx(1500.0) and z == pytest.approx(2500.0) for x, z in ceiling.points)


def test_an_island_is_as_high_as_what_stands_on_it() -> None:
    job = add_island(new_job(), "r1").job
    face = next(r for r in job.rooms[0].runs if r.wall.startswith("K")) if job.rooms[0].runs else None
    from tall_plank.edits import runs, runtext

    made = runs.add_run(job, "r1", "K1", Level.BASE) if face is None else None
    run = made.made[0] if made is not None else face.id  # type: ignore[union-attr]
    job = runtext.type_run(made.job if made is not None else job, run, "drawers 600, pair 900").job
    w = Workings(job)
    room = w.layout.rooms[0]
    tops = [t.bottom + t.thickness for t in room.worktops]
    assert tops
    drawing = elevation(job, room, room.wall("K1"), w.made)
    assert drawing.y1 == pytest.approx(max(tops))
    marks = {v for pairs in heights(drawing).values() for pair in pairs for v in pair}
    assert max(marks) == pytest.approx(max(tops)) and 900.0 not in marks - {max(tops)}


def test_a_column_of_the_next_wall_shows_close_to_the_corner_and_not_far_from_it() -> None:
    for at, there in (("100mm", True), ("1500mm", False)):
        made = add_column(new_job(), "r1", "B", "column")
        job = made.job
        column = job.rooms[0].columns[0].id
        job = set_column(job, column, "x", at).job
        shapes = [i for i in drawn(job, "A").items if isinstance(i, Shape) and i.source == Kind.COLUMN.of(column)]
        assert bool(shapes) is there
        if there:
            depth = job.rooms[0].columns[0].depth.mm
            assert min(x for x, _ in shapes[0].points) == pytest.approx(3600.0 - depth)


def test_a_neighbor_at_135_degrees_shows_as_wide_as_it_is_seen() -> None:
    job = outline.type_outline(new_job(), "r1", "4000 corner 135, 2000, rest, rest").job
    job = with_run(job, "B", Level.BASE, "drawers 600, door 450")
    w = Workings(job)
    p = w.layout.placed[0]
    shapes = [
        i for i in drawn(job, "A").items
        if isinstance(i, Shape) and i.source == Kind.CELL.of(p.cell) and i.layer is Layer.CARCASS
    ]  # fmt: skip
    assert shapes
    wall = w.layout.rooms[0].wall("A")
    xs = [wall.frame.from_floor(p.frame.floor(x, y))[0] for x, y in p.plan]
    assert min(x for x, _ in shapes[0].points) == pytest.approx(min(xs), abs=20.0)
    assert max(x for x, _ in shapes[0].points) <= 4000.0 + 1e-6


def test_walls_with_a_slope_a_column_or_a_service_have_an_elevation() -> None:
    job = add_slope(new_job(), "r1", "D").job
    job = add_column(job, "r1", "C", "column").job
    job = add_service(job, "r1", "B", "power").job
    names = {name for name, _ in room_drawings(Workings(job), "r1")}
    assert {"elevation-A", "elevation-B", "elevation-C", "elevation-D"} <= names


def test_the_seat_of_a_bench_is_drawn_and_its_height_told() -> None:
    from tall_plank.demo import demo_job

    w = Workings(demo_job())
    room = next(r for r in w.layout.rooms if r.room.name == "Boot room")
    p = next(p for p in room.placed if p.number == "2A3")
    unit = w.made.of(p.cell)
    assert unit is not None
    cover = next(part for part in unit.shown if part.role == "cover")
    drawing = elevation(w.job, room, room.wall("A"), w.made)
    top = p.bottom + cover.frame.at(0.0, 0.0, 0.0)[2] + cover.thickness
    tops = {round(v, 1) for pairs in heights(drawing).values() for pair in pairs for v in pair}
    assert any(abs(v - top) < 20.0 and v > p.top for v in tops)
    high = max(
        y for i in drawing.items if isinstance(i, Shape) and i.source == Kind.CELL.of(p.cell) for _, y in i.points
    )
    assert high > p.top + 10.0
