"""Edits called with any arguments refuse in plain words, or make a job that saves, loads equal and computes."""

from __future__ import annotations

import math
import random

import msgspec
import pytest

from conftest import with_run
from edits.anyhow import EDITS, NAMES, Chance, keeps, one_edit
from tall_plank.edits.change import Change
from tall_plank.edits.outline import move_wall
from tall_plank.edits.runs import insert_unit
from tall_plank.edits.things.common import added
from tall_plank.edits.things.opening import add_opening
from tall_plank.edits.things.wall_field import add_field
from tall_plank.edits.units import set_own
from tall_plank.edits.values import set_value
from tall_plank.files.plankfile import job_bytes, job_from_bytes
from tall_plank.job import Job, Kind, Level, Slope
from tall_plank.job.start import new_job
from tall_plank.measure import Length, PlankError


def begun() -> Job:
    job = with_run(new_job(), "A", Level.BASE, "door 600, drawers 900, sink 900")
    return add_field(job, "r1", "B", "dado").job


@pytest.mark.parametrize("name", NAMES)
def test_an_edit_refuses_what_makes_no_sense(name: str) -> None:
    r, job = random.Random(name), begun()
    for _ in range(8):
        try:
            change = EDITS[name](**Chance(r, job, wild=0.3).arguments(EDITS[name]))
        except PlankError as error:
            assert str(error).strip()
        else:
            assert job_bytes(job_from_bytes(job_bytes(change.job), "again")) == job_bytes(change.job)


@pytest.mark.parametrize("seed", range(6))
def test_states_after_many_edits_are_kept_and_computed(seed: int) -> None:
    r, job = random.Random(seed), begun()
    for step in range(40):
        _, _, new, refused = one_edit(r, job, wild=0.05)
        assert (new is None) == (refused is not None)
        if new is not None:
            job = new if len(new.cells()) < 20 else begun()
            assert step % 4 or keeps(job) == ""


@pytest.mark.parametrize(("low", "run"), [(5000.0, 1500.0), (-3.0, 1500.0), (1500.0, math.nan), (1500.0, 0.0)])
def test_a_slope_put_in_by_the_general_call_is_refused_too(low: float, run: float) -> None:
    with pytest.raises(PlankError):
        added(begun(), "r1", Kind.SLOPE, Slope("l9", "A", Length.of(low), Length.of(run)), "Slope the ceiling")


def test_nothing_that_does_not_load_can_be_a_change() -> None:
    job = begun()
    for wrong in (
        msgspec.structs.replace(job, rooms=()),
        msgspec.structs.replace(job, name="half a \ud800 sign"),
        msgspec.structs.replace(job, name=5),
        msgspec.structs.replace(job, book="nowhere"),
        msgspec.structs.replace(job, units=job.units[:1]),
    ):
        with pytest.raises(PlankError) as told:
            Change(wrong, "Break it")
        assert told.value.remedy


def test_a_named_value_beyond_sense_gives_no_unit_of_fifty_metres() -> None:
    with pytest.raises(PlankError, match="unit A1"):
        set_value(begun(), "base_height", "50000")
    with pytest.raises(PlankError, match="too large"):
        set_value(begun(), "a_distance", "500m")
    assert set_value(begun(), "a_distance", "50m").job.named_values()["a_distance"] == 50_000.0


@pytest.mark.parametrize("text", ["min(600,500)", "max(1,5)", "min(600)", "min(18mm)"])
def test_a_function_of_one_value_says_what_a_comma_means(text: str) -> None:
    cell = begun().cells()[0].id
    with pytest.raises(PlankError) as told:
        set_own(begun(), (cell,), "height", text)
    assert "semicolon" in told.value.remedy
    assert ("comma" in told.value.what) == ("," in text)


def test_two_values_parted_by_a_semicolon_are_read() -> None:
    cell = begun().cells()[0]
    new = set_own(begun(), (cell.id,), "height", "min(600,5; 720)").job
    assert new.unit(cell.unit).own_value("height").mm == 600.5


@pytest.mark.parametrize("place", [math.nan, math.inf, -math.inf, 1e12])
def test_nothing_is_dragged_to_nowhere(place: float) -> None:
    for edit in (lambda: move_wall(begun(), "r1", "A", place), lambda: add_opening(begun(), "r1", "A", "door", place)):
        with pytest.raises(PlankError, match="out of reach"):
            edit()


def test_a_wall_or_a_kind_that_is_not_there_is_named() -> None:
    with pytest.raises(PlankError, match="no wall"):
        add_opening(begun(), "r1", "Q", "door")
    with pytest.raises(PlankError, match="no opening"):
        add_opening(begun(), "r1", "A", "hatch")
    with pytest.raises(PlankError):
        insert_unit(begun(), "r1", "Q", "door")
