"""The run solver: rules, ranges, held cells, and what is short."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of, with_run
from tall_plank.edits import outline, placing, runs
from tall_plank.edits.runtext import run_text, type_run
from tall_plank.edits.things.opening import add_opening, move_opening
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.measure.shareout import Member, Rule
from tall_plank.setout import set_out
from tall_plank.setout.runs import solve


def fixed(*sizes: float) -> list[Member]:
    return [Member(Rule.FIXED, size=s) for s in sizes]


def test_cells_before_a_held_one_stand_against_it() -> None:
    solved = solve(0, 3000, fixed(600, 900, 600), [(None, None), (1200, 2100), (None, None)])
    assert solved.places == ((600, 600), (1200, 900), (2100, 600))
    assert solved.free == ((0, 600), (2700, 300))
    assert solved.shorts == ()


def test_a_held_cell_without_room_before_it_is_pushed_and_named() -> None:
    solved = solve(0, 3000, fixed(600, 900, 600), [(None, None), (500, 1400), (None, None)])
    assert solved.shorts == ((1, 100),)
    assert solved.places == ((0, 600), (600, 900), (1500, 600))


def test_what_is_pushed_takes_from_what_is_left_further_on() -> None:
    solved = solve(0, 2000, fixed(700, 600, 500), [(None, None), (500, None), (1300, None)])
    # 200 short before the second; 200 are left after it, so the third stands where it is held
    assert solved.places[2] == (1300, 500)
    assert solved.shorts == ((1, 200),)


def test_a_right_side_held_gives_the_width() -> None:
    solved = solve(0, 3000, [*fixed(500), Member(Rule.REST, least=100, most=1500)], [(None, None), (None, 1700)])
    assert solved.places == ((0, 500), (500, 1200))


LINE = st.floats(500, 9000)
CELL = st.one_of(
    st.floats(50, 1500).map(lambda s: Member(Rule.FIXED, size=s)),
    st.tuples(st.floats(50, 400), st.floats(0, 900)).map(lambda t: Member(Rule.SHARE, least=t[0], most=t[0] + t[1])),
    st.floats(50, 400).map(lambda s: Member(Rule.REST, least=s)),
)


@given(LINE, st.floats(0, 400), st.lists(st.tuples(CELL, st.one_of(st.none(), st.floats(0, 9000))), max_size=9))
def test_widths_and_what_is_left_sum_to_the_line_and_what_is_short(
    length: float, start: float, cells: list[tuple[Member, float | None]]
) -> None:
    members = [m for m, _ in cells]
    pins: list[tuple[float | None, float | None]] = []
    for member, pin in cells:
        both = pin is not None and member.rule is Rule.FIXED
        pins.append((pin, pin + member.size) if both else (pin, None))  # type: ignore[operator]
    solved = solve(start, start + length, members, pins)
    used = sum(w for _, w in solved.places) + sum(w for _, w in solved.free)
    missing = sum(mm for _, mm in solved.shorts)
    # What pushes into a stretch takes from what that one leaves.
    assert used - missing <= length + 0.01
    for (a, w), (b, _) in zip(solved.places, solved.places[1:], strict=False):
        assert b >= a + w - 0.01
    for m, (_, w) in zip(members, solved.places, strict=True):
        if m.rule is not Rule.FIXED:
            assert w >= m.least - 0.001


@given(LINE, st.lists(CELL, min_size=1, max_size=9))
def test_without_held_cells_the_sum_is_exact(length: float, members: list[Member]) -> None:
    solved = solve(0.0, length, members, [(None, None)] * len(members))
    total = sum(w for _, w in solved.places) + sum(w for _, w in solved.free)
    assert total - sum(mm for _, mm in solved.shorts) == pytest.approx(length, abs=0.005)


# --- rules by text


def widths(job: Job, run: int = 0) -> list[float]:
    return [p.width for p in set_out(job).rooms[0].runs[run].cells]


def test_a_clear_width_makes_the_unit_wider_by_its_gables() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door clear 564, pair rest")
    assert widths(job)[0] == 600
    run = job.rooms[0].runs[0]
    assert run_text(job, run).startswith("door clear 564,")


def test_a_range_takes_its_share_within_it() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 300 to 400, pair share, pair share, pair share")
    assert widths(job)[0] == 400
    assert widths(job)[1] == pytest.approx(3200 / 3)
    assert "door 300 to 400" in run_text(job, job.rooms[0].runs[0])
    cells = tuple(c.id for c in job.cells())
    job = runs.set_width(job, cells[1:2], "900 to 1000").job
    assert widths(job)[1] == 1000


@pytest.mark.parametrize("text", ["door 600 to 300", "door 10 to 300", "door clear", "door clear x", "door 300 to"])
def test_wrong_rules_are_refused(text: str) -> None:
    change = runs.add_run(new_job(), "r1", "A", Level.BASE)
    with pytest.raises(PlankError):
        type_run(change.job, change.made[0], text)


def test_kinds_of_two_words_are_read_longest_first() -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawer pair 900, drawers 600, tall filler 50, fridge housing 600")
    assert [p.template for p in set_out(job).placed] == ["drawer-pair", "drawers", "tall-filler", "fridge-housing"]


# --- held by something


def test_a_sink_stays_centred_on_its_window() -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, sink 900, dishwasher 600")
    change = add_opening(job, "r1", "A", "window", 1500.0)
    job = placing.hold(change.job, cell_of(change.job, "A2"), "centre", Kind.OPENING.of(change.made[0])).job
    places = [(p.x, p.width) for p in set_out(job).placed]
    assert places == [(950, 600), (1550, 900), (2450, 600)]
    job = move_opening(job, change.made[0], 1800.0).job
    assert [(p.x) for p in set_out(job).placed] == [1250, 1850, 2750]
    job = outline.set_wall_length(job, "r1", "A", "4000").job
    assert set_out(job).placed[1].x == 1850


def test_hung_units_keep_to_the_seams_of_base_units() -> None:
    job = with_run(new_job(), "A", Level.BASE, "filler 50, drawers 600, pair 900, door 450")
    job = with_run(job, "A", Level.HUNG, "pair 500, pair 800, door 400")
    hung = tuple(cell_of(job, n) for n in ("A5", "A6", "A7"))
    job = placing.align_seams(job, hung).job
    base, upper = set_out(job).rooms[0].runs
    assert [(p.x, p.right) for p in upper.cells] == [(p.x, p.right) for p in base.cells[1:]]
    job = runs.set_width(job, (cell_of(job, "A2"),), "700").job
    base, upper = set_out(job).rooms[0].runs
    assert [(p.x, p.right) for p in upper.cells] == [(p.x, p.right) for p in base.cells[1:]]
    job = placing.let_go(job, hung).job
    assert set_out(job).rooms[0].runs[1].cells[0].x == 0


def test_units_cannot_hold_one_another_in_a_circle() -> None:
    job = with_run(with_run(new_job(), "A", Level.BASE, "drawers 600"), "A", Level.HUNG, "pair 600")
    job = placing.hold(job, cell_of(job, "A2"), "span", Kind.CELL.of(cell_of(job, "A1"))).job
    with pytest.raises(PlankError, match="circle"):
        placing.hold(job, cell_of(job, "A1"), "span", Kind.CELL.of(cell_of(job, "A2")))
    with pytest.raises(PlankError, match="itself"):
        placing.hold(job, cell_of(job, "A1"), "left", Kind.CELL.of(cell_of(job, "A1")))
    with pytest.raises(PlankError, match="not on this unit's wall"):
        placing.hold(job, cell_of(job, "A1"), "centre", Kind.OPENING.of("o99"))


def test_a_held_cell_that_is_short_is_named_in_the_snag() -> None:
    from tall_plank.workings import Workings

    job = with_run(new_job(), "A", Level.BASE, "filler 50, drawers 900, sink 900")
    change = add_opening(job, "r1", "A", "window", 100.0)
    job = placing.hold(change.job, cell_of(change.job, "A3"), "centre", Kind.OPENING.of(change.made[0])).job
    (snag,) = (s for s in Workings(job).snags if s.rule == "run length")
    # window centre 600, the sink's left side at 150: 950 of units have 150
    assert "800 mm short before A3" in snag.what


def test_typed_moves_in_a_run_with_held_cells_hold_the_unit() -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, sink 900, door 450")
    job = placing.hold(job, cell_of(job, "A2"), "left", None, "1000").job
    assert [p.x for p in set_out(job).placed] == [400, 1000, 1900]
    job = placing.move_by(job, (cell_of(job, "A2"),), "150").job
    assert [p.x for p in set_out(job).placed] == [550, 1150, 2050]
    with pytest.raises(PlankError, match="short"):
        placing.move_by(job, (cell_of(job, "A2"),), "-900")
