"""Rows of dimensions of an elevation: what stands where, and that no two rows share a line."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.drawing.dimensions import expand, offset
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.placing import FIRST_ROW, ROW
from tall_plank.drawing.primitives import Dim, Line
from tall_plank.edits.papers import set_papers
from tall_plank.edits.things.opening import add_opening
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.workings import Workings


def dims(job: Job, wall: str = "A") -> list[Dim]:
    w = Workings(job)
    room = w.layout.rooms[0]
    return [i for i in elevation(job, room, room.wall(wall), w.made).items if isinstance(i, Dim)]


def lying(job: Job) -> dict[int, list[Dim]]:
    rows: dict[int, list[Dim]] = {}
    for dim in dims(job):
        if dim.along == "x":
            rows.setdefault(dim.row, []).append(dim)
    return rows


def a_job(base: bool, hung: bool, openings: int) -> Job:
    job = new_job()
    for n in range(openings):
        job = add_opening(job, "r1", "A", "window", 300.0 + 1600.0 * n).job
    job = with_run(job, "A", Level.BASE, "drawers 600, pair 900") if base else job
    return with_run(job, "A", Level.HUNG, "pair 900") if hung else job


@pytest.mark.parametrize("openings", [0, 1, 2])
@pytest.mark.parametrize("hung", [False, True])
@pytest.mark.parametrize("base", [False, True])
def test_units_openings_and_the_whole_have_a_row_each(base: bool, hung: bool, openings: int) -> None:
    """Below the floor from the wall outwards: units, openings, the whole; above: hung units (common practice)."""
    rows = lying(a_job(base, hung, openings))
    wanted: dict[int, set[Kind | None]] = {}
    below = 0
    if base:
        below -= 1
        wanted[below] = {Kind.CELL, Kind.RUN}
    if openings:
        below -= 1
        wanted[below] = {Kind.OPENING}
    wanted[below - 1] = {Kind.ROOM}
    if hung:
        wanted[1] = {Kind.CELL, Kind.RUN}
    assert {row: {d.source.kind if d.source else None for d in found} for row, found in rows.items()} == wanted
    for row, found in rows.items():
        assert sum(d.b - d.a for d in found) == pytest.approx(3600.0), row
    (whole,) = rows[below - 1]
    assert (whole.a, whole.b, whole.text, whole.key) == (0.0, 3600.0, "3600", "width")
    assert (
        len([d for d in rows.get(below, []) if d.source and d.source.kind is Kind.OPENING])
        == 2 * openings + bool(openings)
        or base
    )


@given(st.integers(1, 6), st.booleans(), st.sampled_from(["x", "y"]), st.floats(5.0, 50.0))
def test_rows_stand_one_outside_the_other(row: int, before: bool, along: str, scale: float) -> None:
    """The first 6 mm of paper from what it measures, each next one 6 mm further, on its own side."""
    sign = -1 if before else 1
    at = [offset(Dim(0.0, 900.0, 100.0, sign * r, along, "900"), scale) for r in (row, row + 1)]  # type: ignore[arg-type]
    assert (at[0] - 100.0) * sign == pytest.approx((FIRST_ROW + ROW * (row - 1)) * scale)
    assert (at[1] - at[0]) * sign == pytest.approx(ROW * scale)
    lines = [i for i in expand([Dim(0.0, 900.0, 100.0, sign * row, along, "900")], scale) if isinstance(i, Line)]  # type: ignore[arg-type]
    # The dimension line itself runs from end to end at that distance; extension lines start outside the thing.
    main = lines[0]
    ends = (main.x1, main.x2, main.y1) if along == "x" else (main.y1, main.y2, main.x1)
    assert ends == pytest.approx((0.0, 900.0, at[0]))
    for line in lines[1:3]:
        start, end = (line.y1, line.y2) if along == "x" else (line.x1, line.x2)
        assert (start - 100.0) * sign > 0 and (end - at[0]) * sign > 0


def test_chains_of_units_measure_to_what_the_job_says_and_name_it() -> None:
    """By hand: doors of a pair of 900 with gaps of 3 are 447 each, 1.5 from either side."""
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900")
    by_carcass = [d for d in dims(job) if d.along == "x" and d.row == -1]
    assert by_carcass[-1].name == "carcass"
    job = set_papers(job, "chains", "fronts").job
    by_front = [d for d in dims(job) if d.along == "x" and d.row == -1]
    assert by_front[-1].name == "fronts"
    assert [d.text for d in by_front].count("447") == 2 and "3" in {d.text for d in by_front}
    assert sum(d.b - d.a for d in by_front) == pytest.approx(3600.0)
    with pytest.raises(PlankError, match="not offered"):
        set_papers(job, "chains", "the moon")
