"""What is kept of a set-out room between edits never differs from setting it out anew."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.edits import placing, runs, tops, units
from tall_plank.edits.things.island import add_island
from tall_plank.edits.things.service import add_service
from tall_plank.edits.things.soffit import add_soffit_over
from tall_plank.edits.things.wall_field import STARTS, add_field, set_field
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.making import job as making_job
from tall_plank.making import make_job
from tall_plank.making.things import wall_field
from tall_plank.measure import PlankError
from tall_plank.setout import layout, set_out
from tall_plank.setout.paneling import fields


def cornered() -> Job:
    """Two runs round a corner, a hung run, an island, a soffit over units: all that depends on one another."""
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, sink 900, door 450, corner 900")
    job = with_run(job, "B", Level.BASE, "door 500, pair 800")
    job = with_run(job, "A", Level.HUNG, "pair 900, door share, open 300")
    job = add_island(job, "r1", (1800.0, 1200.0), 1800.0).job
    job = add_soffit_over(job, job.runs()[2][1].id).job
    return with_run(job, "K1", Level.BASE, "drawers 600, door share")


START = cornered()

STEP = st.tuples(st.integers(0, 11), st.integers(0, 9), st.integers(300, 1000))


def step(job: Job, which: int, what: int, mm: int) -> Job:
    cells = job.cells()
    cell = cells[which % len(cells)].id
    run = job.find_cell(cell)[1].id
    other = cells[(which + 3) % len(cells)].id
    edits = (
        lambda: runs.set_width(job, (cell,), str(mm)),
        lambda: units.set_own(job, (cell,), "depth", str(mm)),
        lambda: units.set_own(job, (cell,), "height", str(mm)),
        lambda: placing.hold(job, cell, "centre", Kind.CELL.of(other)),
        lambda: tops.set_top(job, Kind.RUN.of(run), "overhang_front", str(mm // 10)),
        lambda: tops.set_top(job, Kind.RUN.of(run), "joint", ("butt", "mitre", "masons mitre")[mm % 3]),
        lambda: runs.set_run_length(job, run, "bottom", str(mm)),
        lambda: add_service(job, "r1", "AB"[mm % 2], "water"),
        lambda: add_field(job, "r1", "ABCD"[mm % 4], list(STARTS)[which % len(STARTS)]),
        lambda: (
            set_field(job, job.rooms[0].fields[0].id, "bottom", str(mm))
            if job.rooms[0].fields
            else add_field(job, "r1", "C", "dado")
        ),
    )
    try:
        return edits[what]().job
    except PlankError:
        return job


def forget() -> None:
    for kept in (
        set_out, layout._plain_room, layout._with_fields, layout._free_run, layout._dressed, making_job._made_room,
        making_job._made_run, fields._laid, wall_field.field_parts,
    ):  # fmt: skip
        kept.cache_clear()


@given(st.lists(STEP, min_size=1, max_size=6))
def test_a_room_set_out_step_by_step_is_as_if_set_out_anew(steps: list[tuple[int, int, int]]) -> None:
    job = START
    for one in steps:
        job = step(job, *one)
        kept = set_out(job)
        made = make_job(job, kept)
    forget()
    assert set_out(job) == kept
    assert make_job(job, set_out(job)) == made


def test_runs_that_nothing_touched_are_the_same_objects() -> None:
    before = set_out(START).rooms[0].runs
    hung = START.runs()[2][1].cells[0].id
    after = set_out(runs.set_width(START, (hung,), "850").job).rooms[0].runs
    same = [a is b for a, b in zip(before, after, strict=True)]
    assert same == [True, True, False, True]
