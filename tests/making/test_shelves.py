"""Adjustable shelves on their rows of holes: even, apart, or refused with how many there is room for."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.edits import bays, units
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making.shelves import LEAST_BETWEEN, nearest_apart
from tall_plank.measure import PlankError
from tall_plank.workings import Workings


def open_unit(height: str) -> tuple[Job, str]:
    job = with_run(new_job(), "A", Level.BASE, "open 600")
    cell = job.cells()[0].id
    return units.set_own(job, (cell,), "height", height).job, cell


@given(
    st.integers(1, 12),
    st.lists(st.floats(0.0, 400.0), min_size=1, max_size=4).map(sorted),
    st.sampled_from([20.0, 58.0, 96.0]),
)
def test_holes_are_the_nearest_that_stand_apart(count: int, wanted: list[float], apart: float) -> None:
    """Against every choice there is, by brute force."""
    holes = [32.0 * i for i in range(count)]
    ways = [
        way
        for way in itertools.combinations(holes, len(wanted))
        if all(b - a >= apart for a, b in itertools.pairwise(way))
    ]
    found = nearest_apart(holes, wanted, apart)
    if not ways:
        assert found is None
        return
    assert found is not None and tuple(found) in ways
    best = min(sum(abs(h - w) for h, w in zip(way, wanted, strict=True)) for way in ways)
    assert sum(abs(h - w) for h, w in zip(found, wanted, strict=True)) == pytest.approx(best)


@pytest.mark.parametrize(
    ("height", "count", "made"), [("500", 6, False), ("600", 7, False), ("720", 6, True), ("600", 4, True)]
)
def test_shelves_never_share_their_holes(height: str, count: int, made: bool) -> None:
    """Six in 500 and seven in 600 lay two on the same holes, and nothing was said."""
    job, cell = open_unit(height)
    if not made:
        with pytest.raises(PlankError, match=f"{count} adjustable shelves: on holes 32 mm apart, .* room for"):
            bays.set_shelves(job, cell, (), str(count))
        return
    unit = Workings(bays.set_shelves(job, cell, (), str(count)).job).made.of(cell)
    assert unit is not None
    at = sorted(p.frame.origin[2] for p in unit.parts if p.role == "shelf")
    thick = unit.spec.made.shelf_thickness
    assert len(at) == count
    steps = [b - a for a, b in itertools.pairwise(at)]
    assert all(step >= thick + LEAST_BETWEEN - 1e-6 for step in steps)
    # As even as holes 32 apart allow: no two steps differ by more than two holes.
    assert max(steps) - min(steps) <= 64.0 + 1e-6, steps


def test_the_room_that_is_told_is_there() -> None:
    job, cell = open_unit("500")
    with pytest.raises(PlankError) as told:
        bays.set_shelves(job, cell, (), "12")
    most = int(told.value.what.rsplit(" ", 1)[1].rstrip("."))
    assert Workings(bays.set_shelves(job, cell, (), str(most)).job).made.of(cell).parts  # type: ignore[union-attr]
    with pytest.raises(PlankError, match="room for"):
        bays.set_shelves(job, cell, (), str(most + 1))
