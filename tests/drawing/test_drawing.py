from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of
from tall_plank.assets import text_width
from tall_plank.drawing.dimensions import SIZE, expand
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.plan import plan
from tall_plank.drawing.primitives import Arc, Dim, Layer, Line, Shape, Text
from tall_plank.drawing.unit import unit_drawing
from tall_plank.edits import units
from tall_plank.edits.things.opening import add_opening, set_opening
from tall_plank.job import Job, Kind
from tall_plank.measure.outlines import bounds
from tall_plank.workings import Workings


def wall_a(job: Job):  # type: ignore[no-untyped-def]
    w = Workings(job)
    room = w.layout.rooms[0]
    return elevation(job, room, room.wall("A"), w.made)


def test_width_dimensions_sum_to_the_wall(job: Job) -> None:
    dims = [i for i in wall_a(job).items if isinstance(i, Dim)]
    row = [d for d in dims if d.along == "x" and d.row == -1]
    assert sum(d.b - d.a for d in row) == 3600
    upright = [d for d in dims if d.along == "y" and d.row == -1]
    assert sum(d.b - d.a for d in upright) == 2500
    assert [d.text for d in row] == ["50", "600", "900", "600", "450", "1000"]


def test_every_typed_dimension_knows_what_it_sets(job: Job) -> None:
    for dim in (i for i in wall_a(job).items if isinstance(i, Dim)):
        if dim.key:
            assert dim.source is not None and dim.source.kind in (Kind.CELL, Kind.RUN, Kind.OPENING, Kind.ROOM)


def test_the_drawing_names_every_unit_once(job: Job) -> None:
    texts = [i.text for i in wall_a(job).items if isinstance(i, Text)]
    assert sorted(texts) == sorted(["A2", "A3", "A4", "A5", "A6", "A7", "A8", "A9", "A10"])


def test_a_unit_that_cannot_be_made_is_crossed_out(job: Job) -> None:
    cell = cell_of(job, "A2")
    bad = units.set_own(job, (cell,), "depth", "150").job
    lines = [
        i
        for i in wall_a(bad).items
        if isinstance(i, Line) and i.source == Kind.CELL.of(cell) and i.layer is Layer.LABEL
    ]
    assert len(lines) == 2


def test_hinge_marks_meet_at_the_hinged_side(job: Job) -> None:
    cell = cell_of(job, "A5")
    for hand in ("left", "right"):
        drawn = wall_a(units.set_hand(job, (cell,), hand).job)
        door = next(
            i for i in drawn.items if isinstance(i, Shape) and i.source == Kind.CELL.of(cell) and i.layer is Layer.FRONT
        )
        xs = [p[0] for p in door.points]
        marks = [
            i for i in drawn.items if isinstance(i, Line) and i.source == Kind.CELL.of(cell) and i.layer is Layer.FRONT
        ]
        edge = min(xs) if hand == "left" else max(xs)
        assert len(marks) == 2
        assert all(abs(m.x2 - edge) < 1e-6 for m in marks)


def test_a_door_swings_into_the_room(job: Job) -> None:
    for wall in "ABCD":
        for hand in ("left", "right"):
            change = add_opening(job, "r1", wall, "door")
            changed = set_opening(change.job, change.made[0], "hand", hand).job
            w = Workings(changed)
            drawing = plan(changed, w.layout.rooms[0], w.made)
            (arc,) = (i for i in drawing.items if isinstance(i, Arc))
            assert (arc.end - arc.start) % 360 == 90
            leaf = next(i for i in drawing.items if isinstance(i, Line) and i.source == arc.source)
            assert 0 <= leaf.x2 <= 3600
            assert 0 <= leaf.y2 <= 2400


def test_the_plan_dashes_what_hangs_above(job: Job) -> None:
    w = Workings(job)
    drawing = plan(job, w.layout.rooms[0], w.made)
    hung = [i for i in drawing.items if isinstance(i, Shape) and i.layer is Layer.HUNG]
    assert len(hung) == 4
    assert all(i.pen == "above" for i in hung)


@given(
    st.lists(st.integers(2, 900), min_size=1, max_size=14),
    st.floats(2, 60),
    st.sampled_from([-1, 1]),
    st.sampled_from(["x", "y"]),
)
def test_texts_of_a_chain_never_overlap(sizes: list[int], scale: float, row: int, along: str) -> None:
    dims, at = [], 0.0
    for size in sizes:
        dims.append(Dim(at, at + size, 0.0, row, along, str(size)))  # type: ignore[arg-type]
        at += size
    boxes = []
    for item in expand(dims, scale):
        if isinstance(item, Text):
            long, tall = text_width(item.text, item.size) * scale, item.size * scale
            x, y = item.x, item.y
            rise = item.rise * scale
            if item.angle:
                boxes.append((x - rise - tall, y - long / 2, x - rise, y + long / 2))
            else:
                left = {"middle": x - long / 2, "left": x, "right": x - long}[item.align]
                boxes.append((left, y + rise, left + long, y + rise + tall))
    for i, a in enumerate(boxes):
        for b in boxes[i + 1 :]:
            apart = a[2] <= b[0] + 1e-6 or b[2] <= a[0] + 1e-6 or a[3] <= b[1] + 1e-6 or b[3] <= a[1] + 1e-6
            assert apart, (a, b)


def test_text_width_grows_with_the_text() -> None:
    assert text_width("1200", SIZE) > text_width("120", SIZE) > text_width("12", SIZE)
    assert abs(text_width("0", 1.0) - text_width("1", 1.0)) < 0.2


def test_chains_of_two_walls_side_by_side_do_not_silence_each_other() -> None:
    chains = [
        Dim(a, b, base, -1, "y", f"{b - a:g}") for base in (0.0, 5000.0) for a, b in ((0.0, 870.0), (870.0, 1400.0))
    ]
    texts = [i.text for i in expand(chains, 20.0) if isinstance(i, Text)]
    assert sorted(texts) == ["530", "530", "870", "870"]


def test_a_unit_is_drawn_closed_and_open_side_by_side(job: Job) -> None:
    w = Workings(job)
    for placed, unit in w.made.units:
        if not unit.fronts:
            continue
        drawing = unit_drawing(placed, unit, job.stock, job.display)
        gap = max(placed.width * 0.35, 250.0)
        assert (drawing.x0, drawing.y0) == (0.0, 0.0)
        assert (drawing.width, drawing.height) == (2 * placed.width + gap, placed.height)
        shapes = [bounds(i.points) for i in drawing.items if isinstance(i, Shape)]
        left = [b for b in shapes if b[0] < placed.width + gap / 2]
        right = [b for b in shapes if b[0] >= placed.width + gap / 2]
        for found, start in ((left, 0.0), (right, placed.width + gap)):
            assert min(b[0] for b in found) == pytest.approx(start, abs=4.0), placed.number
            assert max(b[2] for b in found) == pytest.approx(start + placed.width, abs=4.0), placed.number
            assert min(b[1] for b in found) >= -placed.bottom - 1.0
            assert max(b[3] for b in found) == pytest.approx(placed.height, abs=4.0), placed.number
        dims = [(d.a, d.b, d.along) for d in drawing.items if isinstance(d, Dim)]
        assert dims == [(0.0, placed.width, "x"), (0.0, placed.height, "y")]
