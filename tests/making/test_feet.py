"""What a unit stands on is its own decision: plinth, legs or nothing; where its legs stand, how thick, how high."""

from __future__ import annotations

import itertools

import pytest

from conftest import with_run
from tall_plank.edits import hanging, units
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making.feet import leg_count, seen_legs
from tall_plank.measure import PlankError
from tall_plank.scene import visible_scene
from tall_plank.setout import set_out
from tall_plank.workings import Workings


def three() -> Job:
    return with_run(new_job(), "A", Level.BASE, "drawers 600, pair 1000, drawers 600")


def cells(job: Job) -> tuple[str, ...]:
    return tuple(c.id for c in job.cells())


def test_one_unit_of_a_run_stands_on_legs_and_the_plinth_breaks_there() -> None:
    job = three()
    (whole,) = [b for b in set_out(job).rooms[0].boards if b.kind == "plinth"]
    after = units.set_own(job, (cells(job)[1],), "feet", "legs").job
    left, right = [b for b in set_out(after).rooms[0].boards if b.kind == "plinth"]
    assert whole.length == pytest.approx(2200.0) and (left.length, right.length) == (600.0, 600.0)
    placed = set_out(after).placed
    assert [p.feet for p in placed] == ["plinth", "legs", "plinth"]
    back = units.inherit_again(after, (cells(job)[1],), "feet").job
    assert set_out(back) == set_out(job)


def test_the_plinth_breaks_where_a_unit_stands_higher() -> None:
    job = three()
    after = hanging.set_bottom(job, (cells(job)[1],), "250").job
    boards = sorted((b for b in set_out(after).rooms[0].boards if b.kind == "plinth"), key=lambda b: b.frame.origin[0])
    assert [b.width for b in boards if b.length > 300.0] == [100.0, 250.0, 100.0]


@pytest.mark.parametrize("count", ["auto", "4", "5", "6", "8"])
@pytest.mark.parametrize("insets", list(itertools.product(("30", "90"), ("40", "200"), ("30", "120"), ("30", "60"))))
def test_legs_stand_where_they_are_set_in_to_and_are_counted(count: str, insets: tuple[str, ...]) -> None:
    job = three()
    cell = (cells(job)[1],)
    for key, text in zip(("leg_left", "leg_right", "leg_front", "leg_back"), insets, strict=True):
        job = units.set_own(job, cell, key, text).job
    for key, text in (("feet", "legs"), ("legs", count), ("leg_size", "50"), ("leg_shape", "round")):
        job = units.set_own(job, cell, key, text).job
    placed = set_out(job).placed[1]
    made = Workings(job).made.of(cell[0])
    assert made is not None
    legs = seen_legs(placed, made.spec.made)
    left, right, front, back = map(float, insets)
    assert min(x for x, _ in legs) == pytest.approx(left)
    assert max(x for x, _ in legs) + 50.0 == pytest.approx(placed.width - right)
    assert min(y for _, y in legs) == pytest.approx(-placed.depth + front)
    assert max(y for _, y in legs) + 50.0 == pytest.approx(-back)
    assert len(legs) == leg_count(placed.width, made.spec.made) == len(set(legs))
    # As many are bought as are seen, and the model shows each.
    (bought,) = [i.qty for i in made.items if i.code == made.spec.made.leg]
    assert bought == len(legs)
    assert not made.problems


def test_legs_at_the_very_edge_have_no_wood_for_their_plates_and_that_is_told() -> None:
    job = three()
    for key, text in (("feet", "legs"), ("leg_left", "0")):
        job = units.set_own(job, cells(job)[:1], key, text).job
    made = Workings(job).made.of(cells(job)[0])
    assert made is not None and not made.parts
    assert "leg plate" in made.problems[0].what


def test_round_legs_are_round_in_the_model() -> None:
    job = three()
    job = units.set_own(job, cells(job)[:1], "feet", "legs").job
    layout = set_out(job)

    def corners(shape: str) -> int:
        done = units.set_own(job, cells(job)[:1], "leg_shape", shape).job
        scene = visible_scene(done, layout, Workings(done).made, "r1")
        return sum(len(mesh.points) for mesh in scene.meshes)

    assert corners("round") > corners("square")


def test_a_unit_stands_higher_than_its_run() -> None:
    job = three()
    job = units.set_own(job, cells(job)[:1], "feet", "legs").job
    high = hanging.set_bottom(job, cells(job)[:1], "180").job
    assert [p.bottom for p in set_out(high).placed] == [180.0, 100.0, 100.0]
    # The worktop makes the step.
    tops = {(t.x, t.bottom) for t in set_out(high).rooms[0].worktops}
    assert len({bottom for _, bottom in tops}) == 2
    assert not [p.what for _, u in Workings(high).made.units for p in u.problems]


@pytest.mark.parametrize(
    ("key", "text"),
    [("feet", "wheels"), ("leg_shape", "oval"), ("leg_left", "-1"), ("leg_size", "thick"), ("legs", "3")],
)
def test_wrong_feet_are_refused(key: str, text: str) -> None:
    with pytest.raises(PlankError):
        units.set_own(three(), cells(three())[:1], key, text)
