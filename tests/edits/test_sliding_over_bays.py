"""Sliding doors over chosen bays of several units: what they replace is named and comes back, all else stays."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.edits import bays, hanging, runs
from tall_plank.edits.runtext import type_run
from tall_plank.edits.things.sliding import add_sliding_over, covering, delete_sliding, told_replaced
from tall_plank.edits.units import set_own
from tall_plank.files.plankfile import job_bytes, job_from_bytes
from tall_plank.job import Bay, Body, Job, Level
from tall_plank.job.bays import INSIDE
from tall_plank.job.start import new_job
from tall_plank.job.things.sliding import BayRef
from tall_plank.measure import PlankError
from tall_plank.setout import set_out
from tall_plank.workings import Workings


def wardrobes() -> Job:
    """Three wardrobes wall to wall with a row of flaps above them, behind one line."""
    job = with_run(new_job(), "A", Level.BASE, "3 x wardrobe share")
    change = hanging.add_row(job, "r1", "A")
    job = type_run(change.job, change.made[0], "3 x flap share").job
    boxes = tuple(c.id for c in job.cells()[3:])
    job = set_own(job, boxes, "height", "300").job
    return set_own(job, boxes, "depth", "560").job


def cells(job: Job) -> list[str]:
    return [c.id for c in job.cells()]


def closed(job: Job) -> dict[str, list[str]]:
    """Number of each unit -> the kinds of its fronts, from the top."""

    def walk(bay: Bay) -> list[str]:
        own = [bay.front.kind] if bay.front is not None else []
        return own + [kind for child in bay.children for kind in walk(child)]

    return {c.number: walk(job.unit(c.unit).bay) for c in job.cells()}


def test_what_stands_beside_the_opening_may_be_anything() -> None:
    job = with_run(new_job(), "A", Level.BASE, "wardrobe 1200, wardrobe 1200, dishwasher")
    one, two, washer = cells(job)
    assert job.template_of(job.find_cell(washer)[2]).body is not Body.CARCASS
    change = add_sliding_over(job, (BayRef(one, ()), BayRef(two, ())))
    assert closed(change.job)["A1"] == closed(change.job)["A2"] == []


def test_over_the_lower_bays_the_top_bays_and_flaps_keep_their_fronts() -> None:
    job = wardrobes()
    lower = tuple(BayRef(c, (1,)) for c in cells(job)[:3])
    change = add_sliding_over(job, lower)
    assert change.told == (
        "The sliding doors replace the pair of doors of A1, A2, A3: these come back when the doors go."
    )
    assert closed(change.job) == {
        "A1": ["pair"], "A2": ["pair"], "A3": ["pair"], "A4": ["flap"], "A5": ["flap"], "A6": ["flap"],
    }  # fmt: skip
    (made,) = Workings(change.job).made.sliding
    assert not made.problems and len(made.leaves) == 3
    assert made.z == pytest.approx(100.0, abs=3.0) and made.z + made.height < 1900.0
    back = delete_sliding(change.job, change.made[0]).job
    assert closed(back) == closed(job)


def test_top_boxes_of_another_row_lie_behind_the_same_leaves() -> None:
    job = wardrobes()
    change = add_sliding_over(job, tuple(BayRef(c) for c in cells(job)))
    assert set().union(*closed(change.job).values()) == set()
    (made,) = Workings(change.job).made.sliding
    assert not made.problems
    # From the underside of the wardrobes to the top of the boxes, wall to wall but for the gaps at the ends.
    assert (made.z, made.z + made.height) == pytest.approx((100.0, 2490.0), abs=4.0)
    assert made.width == pytest.approx(3600.0, abs=4.0)
    assert closed(delete_sliding(change.job, change.made[0]).job) == closed(job)
    again = job_from_bytes(job_bytes(change.job), "again")
    assert closed(delete_sliding(again, change.made[0]).job) == closed(job)


def test_what_was_closed_by_hand_meanwhile_stays_and_a_divided_bay_gets_no_front_back() -> None:
    job = wardrobes()
    first, second, third = cells(job)[:3]
    change = add_sliding_over(job, tuple(BayRef(c, (1,)) for c in (first, second, third)))
    job = bays.set_front(change.job, ((first, (1,)),), "fixed").job
    job = runs.delete_cells(job, (third,)).job
    # With one of its units the set went; the others have their doors again, but what was closed by hand stays.
    assert not job.rooms[0].runs[0].sliding
    assert closed(job)["A1"] == ["pair", "fixed"] and closed(job)["A2"] == ["pair", "pair"]


def test_a_front_that_is_only_partly_covered_is_refused_with_its_unit() -> None:
    job = with_run(new_job(), "A", Level.BASE, "wardrobe 1000, locker 600, wardrobe 1000")
    first, _, last = cells(job)
    with pytest.raises(PlankError, match="A2 reaches past the doors"):
        add_sliding_over(job, (BayRef(first, (1,)), BayRef(last, (1,))))
    whole = add_sliding_over(job, tuple(BayRef(c) for c in cells(job)))
    assert whole.made


def test_what_has_no_bays_or_stands_on_another_wall_is_refused() -> None:
    job = with_run(new_job(), "A", Level.BASE, "wardrobe 1000, tall filler 50, wardrobe 1000")
    job = with_run(job, "B", Level.BASE, "wardrobe 900")
    first, filler, last, other = cells(job)
    for refs, says in (
        ((BayRef(first), BayRef(last)), "stands between them"),
        ((BayRef(first), BayRef(filler)), "before units with bays"),
        ((BayRef(first), BayRef(other)), "several walls"),
        ((BayRef(first), BayRef(last, (7,))), "not set out"),
        ((), "No bay is chosen"),
    ):
        with pytest.raises(PlankError, match=says):
            add_sliding_over(job, refs)


@given(st.sets(st.tuples(st.integers(0, 5), st.sampled_from([(), (0,), (1,)])), min_size=1, max_size=5))
def test_any_choice_of_bays_covers_its_box_and_gives_everything_back(chosen: set[tuple[int, tuple[int, ...]]]) -> None:
    job = wardrobes()
    ids = cells(job)
    refs = tuple(BayRef(ids[i], path) for i, path in sorted(chosen) if i < 3 or path == ())
    try:
        over = covering(job, refs)
    except PlankError:
        with pytest.raises(PlankError):
            add_sliding_over(job, refs)
        return
    change = add_sliding_over(job, refs)
    made, layout = Workings(job).made, set_out(job)
    for cell in ids:
        placed, unit = layout.find(cell), made.of(cell)
        assert placed is not None and unit is not None and unit.set is not None
        now = change.job.unit(change.job.find_cell(cell)[2].unit).bay
        for box in unit.set.boxes:
            if box.bay.front is None or box.bay.front.kind in INSIDE:
                continue
            low, high = placed.bottom + box.zone.z0, placed.bottom + box.zone.z1
            left, right = placed.x + box.zone.x0, placed.x + box.zone.x1
            middle = ((left + right) / 2, (low + high) / 2)
            covered = over.x0 < middle[0] < over.x1 and over.z0 < middle[1] < over.z1
            assert (now.at(box.path).front is None) is covered
    assert len(over.replaced) == sum(map(len, closed(job).values())) - sum(map(len, closed(change.job).values()))
    assert bool(told_replaced(job, over.replaced)) is bool(over.replaced)
    assert closed(delete_sliding(change.job, change.made[0]).job) == closed(job)
