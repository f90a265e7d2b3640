from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of, with_run
from tall_plank.edits import rooms, runs, units
from tall_plank.edits.runtext import type_run
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.setout import set_out
from tall_plank.setout.clear import clear_of


def widths(job: Job, run: int = 0) -> list[float]:
    return [p.width for p in set_out(job).rooms[0].runs[run].cells]


def test_units_butt_and_the_last_takes_what_is_left(job: Job) -> None:
    run = set_out(job).rooms[0].runs[0]
    assert [p.width for p in run.cells] == [50, 600, 900, 600, 450, 1000]
    for a, b in zip(run.cells, run.cells[1:], strict=False):
        assert b.x == pytest.approx(a.right)
    assert run.left == 0


def test_the_run_sets_out_again_when_the_wall_changes(job: Job) -> None:
    job = rooms.set_room_length(job, "r1", "width", "3500").job
    assert widths(job)[-1] == 900


def test_a_run_longer_than_its_wall_is_short_by_the_difference() -> None:
    job = with_run(new_job(), "A", Level.BASE, "pair 1200, pair 1200, pair 1200, door 200")
    run = set_out(job).rooms[0].runs[0]
    assert run.short == pytest.approx(200)
    assert [p.width for p in run.cells] == [1200, 1200, 1200, 200]


def test_start_and_end_keep_free(job: Job) -> None:
    run_id = job.rooms[0].runs[0].id
    job = runs.set_run_length(job, run_id, "start", "100").job
    job = runs.set_run_length(job, run_id, "end", "20cm").job
    run = set_out(job).rooms[0].runs[0]
    assert run.cells[0].x == 100
    assert run.cells[-1].right == pytest.approx(3400)


def test_base_units_stand_on_the_plinth_and_hung_ones_hang_at_their_value(job: Job) -> None:
    base, hung = set_out(job).rooms[0].runs
    assert base.cells[1].bottom == 100
    assert hung.cells[0].bottom == 1400


def test_units_of_the_east_wall_look_into_the_room() -> None:
    job = with_run(new_job(), "B", Level.BASE, "door 600")
    placed = set_out(job).placed[0]
    # The wall stands at x = 3600; the unit's front (y = -depth) is 560 into the room.
    assert placed.frame.at(0.0, -560.0, 0.0) == pytest.approx((3040, 2400, 100))


def test_clear_distances_of_a_hung_unit(job: Job) -> None:
    layout = set_out(job).rooms[0]
    first = next(p for p in layout.placed if p.cell == cell_of(job, "A7"))
    clear = clear_of(layout, first)
    assert (clear.left, clear.left_to) == (0, "wall")
    assert (clear.right, clear.right_to) == (900, "A8")
    assert (clear.below, clear.below_to) == (530, "worktop")
    assert (clear.above, clear.above_to) == (2500 - 2120, "ceiling")


def test_the_trims_run_over_everything_but_gaps() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 600, dishwasher 600, gap 700, drawers 600")
    room = set_out(job).rooms[0]
    first, second = room.worktops
    assert (first.x, first.length) == (0, 1210)  # an overhang of 10 at the open end only
    assert (second.x, second.length) == (1890, 620)
    assert (first.open_left, first.open_right) == (False, True)
    assert first.depth == 560 + 19 + 20
    assert first.bottom == 830
    assert [p.length for p in room.plinths] == [1200, 600]
    assert room.plinths[0].box()[0][1] == -(560 + 19 - 50)
    # Both open ends are returned to the wall, behind the face.
    returns = [b for b in room.boards if b.kind == "plinth return"]
    assert [(b.box()[0][0], b.length) for b in returns] == [(1182, 529 - 18), (1900, 511), (2482, 511)]


def test_an_overhang_never_runs_into_the_wall() -> None:
    job = with_run(new_job(), "A", Level.BASE, "gap 4, pair 1200, pair 1200, pair 1190")
    top = set_out(job).rooms[0].worktops[0]
    assert top.x == pytest.approx(0)
    assert top.x + top.length == pytest.approx(3600)


def test_the_sink_cuts_its_worktop_in_the_middle_of_its_unit(job: Job) -> None:
    top = set_out(job).rooms[0].worktops[0]
    (cut,) = top.cutouts
    assert cut.x + cut.width / 2 == pytest.approx(650 + 450)
    assert cut.width == 500
    assert top.depth - cut.back - cut.depth == pytest.approx(60)


def test_an_own_depth_moves_the_worktop(job: Job) -> None:
    deeper = units.set_own(job, (cell_of(job, "A2"),), "depth", "600").job
    assert set_out(deeper).rooms[0].worktops[0].depth == 600 + 19 + 20


KINDS = st.sampled_from(["door", "pair", "drawers", "sink", "dishwasher", "open", "filler", "gap"])
WIDTHS = st.one_of(st.just("share"), st.just("rest"), st.integers(100, 200).map(str), st.just(""))


@given(st.lists(st.tuples(KINDS, WIDTHS), max_size=9), st.integers(800, 6000))
def test_any_typed_run_fills_its_wall_or_says_exactly_what_is_short(cells: list[tuple[str, str]], wall: int) -> None:
    job = rooms.set_room_length(new_job(), "r1", "width", str(wall)).job
    change = runs.add_run(job, "r1", "A", Level.BASE)
    parts = []
    for kind, width in cells:
        template = next(t for t in job.templates if t.level is Level.BASE and kind in t.words)
        fits = not width.isdigit() or template.least <= float(width) <= template.most
        parts.append(f"{kind} {width if fits else ''}")
    job = type_run(change.job, change.made[0], ", ".join(parts)).job
    run = set_out(job).rooms[0].runs[0]
    total = sum(p.width for p in run.cells)
    assert total + run.left - run.short == pytest.approx(wall, abs=1e-6)
    assert run.left == 0 or run.short == 0
    if run.short == 0 and run.cells:
        assert run.cells[-1].right <= wall + 1e-6
