from __future__ import annotations

import pytest

from conftest import cell_of, with_run
from tall_plank.edits import rooms, runs, units, values
from tall_plank.edits.things.column import add_column, set_column
from tall_plank.edits.things.island import add_island, set_island
from tall_plank.edits.things.opening import add_opening, set_opening
from tall_plank.job import Job, Level, Snag
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.workings import Workings


def snags_of(job: Job) -> list[Snag]:
    """But for what is bought beyond what is priced, which a few units cannot help: boards are bought whole."""
    return [s for s in Workings(job).snags if s.rule != "bought"]


def rules(job: Job) -> list[str]:
    return [s.rule for s in snags_of(job)]


def test_a_sound_job_has_no_snags_but_a_door_at_the_wall(job: Job) -> None:
    snag, points = snags_of(job)
    assert (snag.rule, snag.weight, snag.where.label) == ("opened", "mind", "A7")
    # Sink and dishwasher have no water yet.
    assert (points.rule, points.weight) == ("service", "mind")
    # The handle stands out 32 mm, and 5 mm are kept clear of it.
    assert "needs 37 mm" in snag.what
    apart = with_run(new_job(), "A", Level.BASE, "filler 37, pair 900")
    assert rules(apart) == []
    # The door stands 1.5 mm inside its unit.
    tight = with_run(new_job(), "A", Level.BASE, "filler 34, pair 900")
    assert rules(tight) == ["opened"]


def test_a_run_longer_than_its_wall() -> None:
    job = with_run(new_job(), "A", Level.HUNG, "pair 1200, pair 1200, pair 1200, door 450")
    (snag,) = (s for s in Workings(job).snags if s.weight == "wrong")
    assert snag.rule == "run length"
    assert "450 mm short" in snag.what
    assert snag.where.wall_id == "A"
    assert snag.remedy


def test_a_unit_that_cannot_be_made_is_named_with_its_place(job: Job) -> None:
    cell = next(c.id for c in job.cells() if c.number == "A2")
    snags = Workings(units.set_own(job, (cell,), "depth", "150").job).snags
    assert snags[0].where.cell == cell
    assert snags[0].where.label == "A2"


def test_units_across_an_opening_or_through_the_ceiling(job: Job) -> None:
    change = add_opening(job, "r1", "A", "window", 1000.0)
    low = set_opening(change.job, change.made[0], "sill", "800").job
    assert rules(low).count("opening") >= 2
    lower = rooms.set_room_length(job, "r1", "height", "2100").job
    assert "ceiling" in rules(lower)


def test_a_gap_before_a_window_is_no_snag() -> None:
    job = with_run(new_job(), "A", Level.HUNG, "filler 50, pair 900, gap 1150, pair 900")
    change = add_opening(job, "r1", "A", "window", 1000.0)
    assert rules(change.job) == []


def test_a_gable_longer_than_its_board() -> None:
    # With nothing hung above, which it would stand in.
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, door 500, sink 900, drawers 300, door 450, open 300")
    high = rooms.set_room_length(job, "r1", "height", "3200").job
    high = units.set_own(high, (cell_of(high, "A6"),), "height", "2600").job
    found = [s for s in Workings(high).snags if s.rule == "board size"]
    assert {s.where.label for s in found} == {"A6"}
    assert "gable" in found[0].what


def test_a_worktop_without_a_board_of_its_thickness(job: Job) -> None:
    thin = values.set_value(job, "worktop", "39").job
    assert any("39 mm board" in s.what for s in Workings(thin).snags)
    assert not any(t.part for t in Workings(thin).made.trims if "worktop" in t.label)


def test_a_run_without_room_for_its_start_is_refused(job: Job) -> None:
    with pytest.raises(PlankError, match="no length"):
        runs.set_run_length(job, job.rooms[0].runs[0].id, "start", "3600")


def test_an_island_that_stands_in_a_wall_is_named() -> None:
    job = new_job()
    change = add_island(job, "r1")
    job = with_run(change.job, "K1", Level.BASE, "pair 900")
    assert not [s for s in Workings(job).snags if s.rule == "clash"]
    (snag,) = [s for s in Workings(set_island(job, change.made[0], "y", "-200").job).snags if s.rule == "clash"]
    assert "wall" in snag.what and snag.where.label == "K1"


@pytest.mark.parametrize(
    ("x", "y", "meets"),
    [
        ("1000", "1000", False),
        ("1000", "2300", True),
        ("2700", "1300", True),
        ("2300", "1300", False),
        ("2700", "890", False),
    ],
)
def test_an_island_among_columns_is_told_only_where_it_stands_in_one(x: str, y: str, meets: bool) -> None:
    job = new_job()
    for place in (("1300", "2000"), ("3300", "900")):
        column = add_column(job, "r1", "A", "column")
        job = column.job
        for key, text in (("wall", ""), ("x", place[0]), ("y", place[1])):
            job = set_column(job, column.made[0], key, text).job
    change = add_island(job, "r1")
    job = with_run(change.job, "K1", Level.BASE, "pair 900")
    job = set_island(set_island(job, change.made[0], "x", x).job, change.made[0], "y", y).job
    told = [s for s in Workings(job).snags if s.rule == "clash" and "column" in s.what]
    assert bool(told) is meets


@pytest.mark.parametrize(("height", "told"), [("2100", True), ("2119.9", True), ("2120", False), ("2121", False)])
def test_a_unit_as_high_as_the_room_is_not_too_high(height: str, told: bool) -> None:
    # A hung unit of 720 with its lower edge at 1400 reaches 2120.
    job = with_run(new_job(), "A", Level.HUNG, "filler 37, pair 900")
    placed = Workings(job).layout.rooms[0].placed[-1]
    assert placed.top == pytest.approx(2120.0), placed.top
    lower = rooms.set_room_length(job, "r1", "height", height).job
    assert ("ceiling" in rules(lower)) is told
