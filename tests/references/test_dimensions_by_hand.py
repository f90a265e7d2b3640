"""Dimensions by hand against the places of what they hold on to: after any edits each says the distance between its
two things, worked out from the job by another way, or is named as broken."""

from __future__ import annotations

import itertools
import random
from pathlib import Path

import pytest

from conftest import cell_of, with_run
from tall_plank.demo import demo_job
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.placing import place
from tall_plank.drawing.plan import plan
from tall_plank.drawing.primitives import Dim, Drawing, Text
from tall_plank.edits import rooms, runs
from tall_plank.edits.outline import type_outline
from tall_plank.edits.things.dimension import add_between, delete_dimension, length_of, move_dimension, set_dimension
from tall_plank.edits.things.opening import add_opening, set_opening
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.job import Job, Kind, Level, Source
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.setout import set_out
from tall_plank.setout.anchors import corners_in, measured
from tall_plank.workings import Workings


def furnished() -> Job:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900, door 450")
    job = with_run(job, "A", Level.HUNG, "pair 900, door 450")
    return add_opening(job, "r1", "A", "window", 2600.0).job


def side(job: Job, source: Source, role: str) -> float:
    """Where a side of a thing lies along wall A or up, mm, from the job itself."""
    room = set_out(job).rooms[0]
    if source.kind is Kind.CELL:
        p = next(p for p in room.placed if p.cell == source.id)
        return {"left": p.x, "right": p.x + p.width, "underside": p.bottom, "top": p.bottom + p.height,
                "center": p.x + p.width / 2}[role]  # fmt: skip
    o = next(o for o in room.room.openings if o.id == source.id)
    return {"left": o.x.mm, "right": o.x.mm + o.width.mm, "underside": o.sill.mm, "top": o.sill.mm + o.height.mm,
            "center": o.x.mm + o.width.mm / 2}[role]  # fmt: skip


def drawn(job: Job) -> Drawing:
    w = Workings(job)
    room = w.layout.rooms[0]
    return elevation(job, room, room.wall("A"), w.made)


def check(job: Job) -> tuple[int, int]:
    """How many dimensions hold, and how many are broken; each is drawn, and each broken one is a snag."""
    room = job.rooms[0]
    items = drawn(job).items
    named = [s for s in Workings(job).snags if s.rule == "dimension"]
    held = broken = 0
    for d in room.dimensions:
        source = Kind.DIMENSION.of(d.id)
        mine = [i for i in items if isinstance(i, Dim | Text) and i.source == source]
        assert len(mine) == 1
        try:
            ends = [side(job, Source.parse(x.to), x.role) for x in (d.a, d.b)]  # type: ignore[arg-type]
        except StopIteration:
            broken += 1
            assert isinstance(mine[0], Text) and "broken" in mine[0].text and length_of(job, d.id) is None
            continue
        held += 1
        assert isinstance(mine[0], Dim)
        assert length_of(job, d.id) == pytest.approx(abs(ends[1] - ends[0]))
        assert mine[0].b - mine[0].a == pytest.approx(abs(ends[1] - ends[0]))
    assert len(named) == broken
    return held, broken


def random_edit(job: Job, rng: random.Random) -> Job:
    room = job.rooms[0]
    cells = [c for run in room.runs for c in run.cells]
    pick = rng.random()
    if pick < 0.45 and cells:
        return runs.set_width(job, (rng.choice(cells).id,), str(rng.choice([300, 450, 500, 600, 750, 900]))).job
    if pick < 0.6 and room.openings:
        key = rng.choice(["left", "width", "sill", "height"])
        return set_opening(job, room.openings[0].id, key, str(rng.choice([600, 800, 1000, 1200]))).job
    if pick < 0.7 and len(cells) > 2:
        return runs.delete_cells(job, (rng.choice(cells).id,)).job
    if pick < 0.8:
        return rooms.set_room_length(job, room.id, "width", str(rng.choice([3600, 4000, 4200]))).job
    if pick < 0.9 and room.dimensions:
        return move_dimension(job, rng.choice(room.dimensions).id, rng.uniform(-40, 40)).job
    if room.dimensions:
        return set_dimension(
            job, rng.choice(room.dimensions).id, rng.choice(["from", "to"]), rng.choice(["left", "right", "center"])
        ).job
    return job


@pytest.mark.parametrize("seed", range(5))
def test_after_a_hundred_random_edits_each_says_its_distance_or_is_named(seed: int) -> None:
    rng = random.Random(seed)
    job = furnished()
    sources = [Kind.CELL.of(cell_of(job, n)) for n in ("A1", "A2", "A3", "A4")]
    sources.append(Kind.OPENING.of(job.rooms[0].openings[0].id))
    for i, first in enumerate(sources):
        for second in sources[i + 1 :]:
            job = add_between(job, "r1", "A", first, second, "x").job
    assert check(job) == (10, 0)
    done = 0
    for _ in range(100):
        try:
            job = random_edit(job, rng)
        except PlankError:
            continue
        done += 1
        if done % 12 == 0:
            check(job)
    held, broken = check(job)
    assert held + broken == 10 and done > 50


def test_one_between_two_units_measures_the_gap_and_stays_where_it_was_put(tmp_path: Path) -> None:
    job = furnished()
    window = Kind.OPENING.of(job.rooms[0].openings[0].id)
    unit = Kind.CELL.of(cell_of(job, "A3"))
    job = add_between(job, "r1", "A", unit, window).job
    (d,) = job.rooms[0].dimensions
    assert length_of(job, d.id) == pytest.approx(side(job, window, "left") - side(job, unit, "right"))
    job = move_dimension(job, d.id, -33.2).job
    assert job.rooms[0].dimensions[0].offset == -33.0
    job = runs.set_width(job, (unit.id,), "600").job
    assert job.rooms[0].dimensions[0].offset == -33.0
    (dim,) = [i for i in drawn(job).items if isinstance(i, Dim) and i.source == Kind.DIMENSION.of(d.id)]
    figure = next(f for f in place([i for i in drawn(job).items if isinstance(i, Dim)], 20.0).figures if f.dim == dim)
    assert figure.at == pytest.approx(dim.base - 33.0 * 20.0)
    write_plank(job, tmp_path / "h.plank")
    assert read_plank(tmp_path / "h.plank").rooms[0].dimensions == job.rooms[0].dimensions


@pytest.mark.parametrize(
    ("view", "along", "sides"),
    [
        ("A", "x", {"left", "center", "right"}),
        ("A", "y", {"underside", "center", "top"}),
        ("", "x", {"left", "center", "right"}),
        ("", "y", {"front", "center", "rear"}),
    ],
)
def test_only_sides_along_what_it_measures_are_taken_and_each_moves_its_end(
    view: str, along: str, sides: set[str]
) -> None:
    """A side across the direction would be read as the middle without a word."""
    job = furnished()
    first, second = (Kind.CELL.of(cell_of(job, n)) for n in ("A1", "A5" if along == "y" else "A3"))
    job = add_between(job, "r1", view, first, second, along).job
    (d,) = job.rooms[0].dimensions
    lengths = set()
    for role in ("left", "right", "top", "underside", "front", "rear", "center"):
        if role in sides:
            lengths.add(round(length_of(set_dimension(job, d.id, "from", role).job, d.id) or 0.0, 3))
        else:
            with pytest.raises(PlankError, match="no side in this direction"):
                set_dimension(job, d.id, "from", role)
    assert len(lengths) == 3


def l_shaped() -> Job:
    """A room of six corners: 4000 x 3000 with 1500 x 1000 taken out of its lower left corner."""
    return type_outline(new_job("L"), "r1", "4000mm, 3000mm, 2500mm, 1000mm corner 270, 1500mm, rest").job


def test_a_corner_of_a_room_is_held_and_stays_held_when_the_room_changes() -> None:
    """By hand: the corner that stands in lies 1500 from the left side and 1000 from the lower one."""
    job = l_shaped()
    room = Source(Kind.ROOM, "r1")
    points = set_out(job).rooms[0].points
    inner = next(n for n, p in enumerate(points, 1) if p == pytest.approx((1500.0, 1000.0)))
    job = add_between(job, "r1", "", room, Kind.WALL.of("A"), "y").job
    (d,) = job.rooms[0].dimensions
    job = set_dimension(job, d.id, "from", f"corner {inner}").job
    assert length_of(job, d.id) == pytest.approx(2000.0)
    other = add_between(job, "r1", "", room, Kind.WALL.of("B"), "x").job
    e = other.rooms[0].dimensions[-1]
    other = set_dimension(other, e.id, "from", f"corner {inner}").job
    assert length_of(other, e.id) == pytest.approx(2500.0)
    (_, dim) = other.rooms[0].dimensions
    assert dim.a.side == f"corner {inner}" or dim.b.side == f"corner {inner}"


def test_a_corner_that_is_gone_breaks_the_dimension_and_is_never_another() -> None:
    job = l_shaped()
    job = add_between(job, "r1", "", Source(Kind.ROOM, "r1"), Kind.WALL.of("A"), "y").job
    (d,) = job.rooms[0].dimensions
    job = set_dimension(job, d.id, "from", "corner 6").job
    square = type_outline(job, "r1", "4000mm, 3000mm, 4000mm, rest").job
    assert length_of(square, d.id) is None
    assert [s for s in Workings(square).snags if s.rule == "dimension"]
    (kept,) = square.rooms[0].dimensions
    assert "corner 6" in (kept.a.side, kept.b.side)


def test_every_corner_of_every_thing_measures_to_where_it_lies() -> None:
    """On the plan and on elevations: a dimension along each way from the wall's end, against the corner's own place."""
    job = furnished()
    room = set_out(job).rooms[0]
    told = 0
    for p in room.placed:
        for view, along in itertools.product(("", p.wall_id), ("x", "y")):
            source = Kind.CELL.of(p.cell)
            made = add_between(job, "r1", view, source, Kind.WALL.of(p.wall_id), along).job
            d = made.rooms[0].dimensions[-1]
            key = "from" if d.a.to == str(source) else "to"
            start, end, _ = measured(room, d) or (0.0, 0.0, 0.0)
            fixed = end if key == "from" else start
            for n, point in enumerate(corners_in(room, view, source), 1):
                held = set_dimension(made, d.id, key, f"corner {n}").job
                assert length_of(held, d.id) == pytest.approx(abs(point[0 if along == "x" else 1] - fixed))
                told += 1
            with pytest.raises(PlankError, match="no side in this direction"):
                set_dimension(made, d.id, key, f"corner {n + 1}")
    assert told > 60


def test_the_kink_of_a_slope_is_a_corner_of_its_wall() -> None:
    job = demo_job()
    for room in set_out(job).rooms:
        for wall in room.walls:
            if wall.profile:
                corners = corners_in(room, wall.id, Kind.WALL.of(wall.id))
                assert set(wall.profile) <= set(corners)
                assert (0.0, 0.0) in corners
                return
    pytest.fail("no wall with a slope")


def test_an_own_text_over_a_true_length_is_told() -> None:
    job = furnished()
    first, second = (Kind.CELL.of(cell_of(job, n)) for n in ("A1", "A3"))
    job = add_between(job, "r1", "A", first, second).job
    (d,) = job.rooms[0].dimensions
    job = set_dimension(job, d.id, "text", "as built").job
    (dim,) = [i for i in drawn(job).items if isinstance(i, Dim) and i.source == Kind.DIMENSION.of(d.id)]
    assert dim.text == "as built (is 900)"
    job = set_dimension(job, d.id, "text", "").job
    (dim,) = [i for i in drawn(job).items if isinstance(i, Dim) and i.source == Kind.DIMENSION.of(d.id)]
    assert dim.text == "900"
    assert delete_dimension(job, d.id).job.rooms[0].dimensions == ()


def test_on_the_plan_it_runs_from_a_unit_to_the_wall_across_the_room() -> None:
    """By hand: a room 2400 deep, units 560 deep on wall A: 1840 are left to wall C."""
    job = furnished()
    job = add_between(job, "r1", "", Kind.CELL.of(cell_of(job, "A2")), Kind.WALL.of("C"), "y").job
    w = Workings(job)
    room = w.layout.rooms[0]
    source = Kind.DIMENSION.of(job.rooms[0].dimensions[0].id)
    (dim,) = [i for i in plan(job, room, w.made).items if isinstance(i, Dim) and i.source == source]
    p = next(p for p in room.placed if p.number == "A2")
    assert dim.b - dim.a == pytest.approx(room.size[1] - p.depth)


@pytest.mark.parametrize(
    ("key", "text"), [("from", "up"), ("offset", "far"), ("offset", "1e9"), ("offset", "nan"), ("x", "1")]
)
def test_what_is_wrong_is_told(key: str, text: str) -> None:
    job = furnished()
    first, second = (Kind.CELL.of(cell_of(job, n)) for n in ("A1", "A3"))
    job = add_between(job, "r1", "A", first, second).job
    with pytest.raises(PlankError):
        set_dimension(job, job.rooms[0].dimensions[0].id, key, text)
    with pytest.raises(PlankError, match="not seen"):
        add_between(job, "r1", "B", first, second)
    with pytest.raises(PlankError, match="two things"):
        add_between(job, "r1", "A", first, first)
