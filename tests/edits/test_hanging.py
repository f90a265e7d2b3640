"""What hangs on a wall: free where it is put, several rows, heights of its own, copies above one another."""

from __future__ import annotations

import json
import math
from collections.abc import Callable

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.edits import Change, hanging, outline, placing, rooms, runs, units
from tall_plank.edits.clipboard import copy_cells, paste
from tall_plank.edits.library import place_saved, save_cells, save_run
from tall_plank.edits.runtext import run_text, type_run
from tall_plank.edits.things.service import add_service
from tall_plank.files.plankfile import job_bytes, job_from_bytes
from tall_plank.job import Body, Job, Level, Template
from tall_plank.job.start import new_job
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.setout import Placed, set_out
from tall_plank.setout.clear import clear_of
from tall_plank.workings import Workings

ROOM = (3600.0, 2500.0)
"""mm along wall A, and from floor to ceiling, of a new job."""


def the(job: Job, cell: str) -> Placed:
    found = set_out(job).find(cell)
    assert found is not None
    return found


def hung(job: Job, code: str = "floating", x: float = 400.0, low: float = 1300.0) -> tuple[Job, str]:
    change = hanging.hang(job, "r1", "A", code, x, low)
    return change.job, change.made[0]


def kinds() -> list[Template]:
    return [t for t in new_job().templates if t.body is not Body.GAP and not t.corner and t.gables]


@pytest.mark.parametrize("template", kinds(), ids=lambda t: t.code)
def test_every_kind_hangs_where_it_is_put(template: Template) -> None:
    job, cell = hung(new_job(), template.code, 500.0, 200.0)
    p = the(job, cell)
    assert (p.x, p.level) == (500.0, Level.HUNG)
    assert p.bottom == pytest.approx(min(200.0, max(0.0, 2500.0 - p.height)))
    made = Workings(job).made.of(cell)
    assert made is not None
    # It hangs: neither legs nor a plinth, and a closed top where it is a box without a sink in it.
    assert not [i for i in made.items if i.code.startswith("LG-")]
    assert not set_out(job).rooms[0].plinths
    if template.body is Body.CARCASS and template.top == "rails" and not template.sink and not made.faulty:
        assert [part for part in made.parts if part.name == "top"], [p.what for p in made.problems]
    again = job_from_bytes(job_bytes(job), "job")
    assert set_out(again) == set_out(job)


@pytest.mark.parametrize("code", [t.code for t in new_job().templates if t.corner or not t.gables])
def test_what_fills_a_corner_or_needs_panels_does_not_hang_free(code: str) -> None:
    with pytest.raises(PlankError, match="does not hang by itself"):
        hung(new_job(), code)


def test_a_wall_that_is_not_there_is_named() -> None:
    for edit in (lambda j: hanging.hang(j, "r1", "Q", "floating", 0, 0), lambda j: hanging.add_row(j, "r1", "Q")):
        with pytest.raises(PlankError, match="There is no wall Q"):
            edit(new_job())


@given(st.floats(-9e3, 9e3), st.floats(-9e3, 9e3), st.sampled_from(["floating", "wall-box", "hung-pair", "drawers"]))
def test_by_hand_it_stays_on_the_wall_and_under_the_ceiling(x: float, low: float, code: str) -> None:
    job, cell = hung(new_job(), code)
    run = job.find_cell(cell)[1].id
    p = the(hanging.move_free(job, run, x, low, "A").job, cell)
    assert p.x >= -1e-6 and p.right <= ROOM[0] + 1e-6
    assert p.bottom >= -1e-6 and p.top <= ROOM[1] + 1e-6


def test_dragged_over_a_fold_it_hangs_on_the_next_wall_with_its_number() -> None:
    job, cell = hung(new_job())
    run = job.find_cell(cell)[1].id
    moved = hanging.move_free(job, run, 100.0, 900.0, "B").job
    p = the(moved, cell)
    assert (p.wall_id, p.x, p.bottom, p.number) == ("B", 100.0, 900.0, "A1")


SIDES = ("left", "right", "below", "above")


@given(st.sampled_from(SIDES), st.integers(0, 700), st.sampled_from(["floating", "wall-box", "hung-door"]))
def test_a_clear_distance_typed_on_any_side_is_had(side: str, mm: int, code: str) -> None:
    """In combination with everything beside it: base units with a worktop, a hung run, another thing that hangs free."""
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900, sink 900")
    job = with_run(job, "A", Level.HUNG, "gap 2400, door 400, door 400")
    job, _ = hung(job, "floating", 100.0, 2200.0)
    job, cell = hung(job, code, 900.0, 1300.0)
    try:
        moved = runs.set_clear(job, cell, side, str(mm)).job
    except PlankError:
        return
    layout = set_out(moved).rooms[0]
    found = clear_of(layout, the(moved, cell))
    before = clear_of(set_out(job).rooms[0], the(job, cell))
    names = (getattr(found, f"{side}_to"), getattr(before, f"{side}_to"))
    if names[0] == names[1]:
        # The neighbor is the same: the distance is what was typed. Another one may come between while it moves.
        assert getattr(found, side) == pytest.approx(mm, abs=1e-6)
    others = [p for p in set_out(moved).placed if p.cell != cell]
    assert [(p.x, p.bottom) for p in others] == [(p.x, p.bottom) for p in set_out(job).placed if p.cell != cell]


def test_beyond_the_wall_the_floor_or_the_ceiling_is_refused() -> None:
    job, cell = hung(new_job(), "floating", 400.0, 1300.0)
    for side, text, says in (
        ("left", "3000", "to the right"),
        ("right", "3000", "to the left"),
        ("below", "2490", "through the ceiling"),
        ("above", "2490", "through the floor"),
        ("left", "-5", "."),
        ("left", "five", "."),
    ):
        with pytest.raises(PlankError, match=says):
            runs.set_clear(job, cell, side, text)


def test_shelves_at_a_pitch_and_the_middle_one_shifted() -> None:
    job, first = hung(new_job(), "floating", 400.0, 1000.0)
    change = hanging.repeat_up(job, first, 2, "350")
    job = runs.set_clear(change.job, change.made[0], "left", "550").job
    assert [(p.x, p.bottom) for p in set_out(job).placed] == [(400, 1000), (550, 1350), (400, 1700)]
    assert [p.number for p in set_out(job).placed] == ["A1", "A2", "A3"]
    assert not Workings(job).made.of(first).problems  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("count", "pitch", "says"),
    [(0, "300", "not possible"), (3, "20", "overlap itself"), (9, "300", "space for 4"), (1, "x", ".")],
)
def test_copies_upwards_that_do_not_fit_are_refused(count: int, pitch: str, says: str) -> None:
    job, first = hung(new_job(), "floating", 400.0, 1000.0)
    with pytest.raises(PlankError, match=says):
        hanging.repeat_up(job, first, count, pitch)
    base = with_run(new_job(), "A", Level.BASE, "drawers 600")
    with pytest.raises(PlankError, match="Only what hangs"):
        hanging.repeat_up(base, base.cells()[0].id, 1, "300")


def test_a_stack_of_boxes_stands_without_a_clash_and_one_pushed_into_another_is_told() -> None:
    job, first = hung(new_job(), "wall-box", 0.0, 0.0)
    change = hanging.repeat_up(job, first, 3, "")
    job = change.job
    assert [p.bottom for p in set_out(job).placed] == [0.0, 400.0, 800.0, 1200.0]
    assert not [u.problems for _, u in Workings(job).made.units if u.problems]
    pushed = hanging.set_bottom(job, (change.made[0],), "390").job
    told = [p.what for _, u in Workings(pushed).made.units for p in u.problems]
    assert any("take the same space" in what for what in told), told


def test_a_hood_at_a_height_of_its_own_over_the_hob() -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, hob 900, drawers 600")
    job = with_run(job, "A", Level.HUNG, "door 600, hood 900, door 600")
    hood = next(c for c in job.cells() if c.number == "A5")
    after = hanging.set_bottom(job, (hood.id,), "1550").job
    before = {p.number: (p.x, p.bottom) for p in set_out(job).placed}
    now = {p.number: (p.x, p.bottom) for p in set_out(after).placed}
    assert now == before | {"A5": (600.0, 1550.0)}
    # The run goes up and down without it; a distance typed below moves it alone.
    run = after.find_cell(hood.id)[1].id
    lifted = runs.lift_run(after, run, 50.0).job
    assert the(lifted, hood.id).bottom == 1550.0 and lifted.find_run(run)[1].bottom is not None
    clear = runs.set_clear(after, hood.id, "above", "300").job
    assert the(clear, hood.id).top == pytest.approx(2200.0)
    assert the(clear, job.cells()[3].id).bottom == before["A4"][1]
    back = hanging.set_bottom(after, (hood.id,), "").job
    assert set_out(back) == set_out(job)


@pytest.mark.parametrize("text", ["-10", "4100", "high", "1e9"])
def test_a_height_that_makes_no_sense_is_refused(text: str) -> None:
    job, cell = hung(new_job())
    with pytest.raises(PlankError):
        hanging.set_bottom(job, (cell,), text)


def test_several_hung_rows_stand_on_one_wall() -> None:
    job = with_run(new_job(), "A", Level.HUNG, "door 600, door 600")
    change = hanging.add_row(job, "r1", "A")
    row = change.made[0]
    job = type_run(change.job, row, "2 x flap 600").job
    lower, upper = set_out(job).rooms[0].runs
    assert {p.top for p in lower.cells} == {p.bottom for p in upper.cells}
    # New hung units go into the run of the selected one, else into the first.
    second = runs.insert_unit(job, "r1", "A", "hung-door", after=upper.cells[0].cell)
    assert second.job.find_cell(second.made[0])[1].id == row
    first = runs.insert_unit(job, "r1", "A", "hung-door")
    assert first.job.find_cell(first.made[0])[1].id == lower.run.id
    with pytest.raises(PlankError, match="no space for another row"):
        hanging.add_row(runs.set_run_length(job, row, "bottom", "2450").job, "r1", "A")


def test_a_row_above_tall_units_begins_on_top_of_them() -> None:
    job = with_run(new_job(), "A", Level.BASE, "3 x wardrobe share")
    change = hanging.add_row(job, "r1", "A")
    job = type_run(change.job, change.made[0], "3 x flap share").job
    tall, boxes = set_out(job).rooms[0].runs
    assert [(p.x, p.bottom) for p in boxes.cells] == [(p.x, p.top) for p in tall.cells]


def test_rows_of_two_walls_meet_in_the_corner_only_where_they_are_at_one_height() -> None:
    job = with_run(new_job(), "A", Level.HUNG, "gap share, door 500")
    job = with_run(job, "B", Level.HUNG, "door 500")
    assert set_out(job).rooms[0].runs[1].x > 300.0
    high = runs.set_run_length(job, job.rooms[0].runs[1].id, "bottom", "0").job
    assert set_out(high).rooms[0].runs[1].x == 0.0


def test_a_unit_taken_out_of_its_run_leaves_the_others_where_they_are() -> None:
    job = with_run(new_job(), "A", Level.HUNG, "door 500, pair share, door 500")
    middle = job.cells()[1].id
    change = hanging.free_of(job, (middle,))
    before, after = set_out(job), set_out(change.job)
    for number in ("A1", "A2", "A3"):
        one = next(p for p in before.placed if p.number == number)
        other = next(p for p in after.placed if p.number == number)
        assert (one.x, one.bottom, one.width) == (other.x, other.bottom, other.width)
    back = hanging.into_run(change.job, (middle,))
    assert len(back.job.rooms[0].runs) == 1
    with pytest.raises(PlankError, match="hangs by itself already"):
        hanging.free_of(change.job, (middle,))
    with pytest.raises(PlankError, match="stands in a run"):
        hanging.into_run(job, (middle,))


def test_a_locked_one_does_not_move() -> None:
    job, cell = hung(new_job())
    job = placing.set_flag(job, (cell,), "locked", True).job
    run = job.find_cell(cell)[1].id
    for edit in (
        lambda: hanging.move_free(job, run, 0.0, 0.0),
        lambda: runs.set_clear(job, cell, "left", "10"),
        lambda: hanging.set_bottom(job, (cell,), "10"),
        lambda: hanging.into_run(job, (cell,)),
    ):
        with pytest.raises(PlankError, match="locked"):
            edit()


def test_it_goes_with_its_last_unit() -> None:
    job, cell = hung(new_job())
    assert not runs.delete_cells(job, (cell,)).job.rooms[0].runs
    run = job.find_cell(cell)[1].id
    assert not runs.delete_run(job, run).job.rooms[0].runs
    assert not type_run(job, run, "").job.rooms[0].runs


def test_nothing_is_shared_out_in_it() -> None:
    job, cell = hung(new_job())
    run = job.find_cell(cell)[1]
    with pytest.raises(PlankError, match="nothing to share out"):
        runs.set_width(job, (cell,), "share")
    with pytest.raises(PlankError, match="nothing to share out"):
        type_run(job, run.id, "floating share")
    typed = type_run(job, run.id, "floating 700, drawers 500").job
    assert [p.width for p in set_out(typed).placed] == [700.0, 500.0]
    assert run_text(typed, typed.find_run(run.id)[1]) == "floating 700, drawers 500"
    for key, text in (("end", "20"), ("start", ""), ("bottom", "")):
        with pytest.raises(PlankError, match="its own place"):
            runs.set_run_length(job, run.id, key, text)
    assert the(runs.set_run_length(job, run.id, "start", "1 m").job, cell).x == 1000.0


def test_copied_kept_and_mirrored_it_hangs_free_again() -> None:
    job, cell = hung(new_job(), "floating", 500.0, 1200.0)
    text = copy_cells(job, (cell,))
    pasted = paste(job, text, "r1", "A").job
    # Where it was something hangs: the copy comes above.
    assert [(p.x, p.bottom) for p in set_out(pasted).placed] == [(500.0, 1200.0), (500.0, 1254.0)]
    other = paste(job, text, "r1", "C").job
    assert [(p.x, p.bottom) for p in set_out(other).placed][-1] == (500.0, 1200.0)
    assert json.loads(text)["units"][0]["hung_at"] == [500.0, 1200.0]
    for saved in (save_cells(job, (cell,), "One"), save_run(job, job.find_cell(cell)[1].id, "One")):
        placed = place_saved(new_job(), saved, "r1", "B").job
        (p,) = set_out(placed).placed
        assert (p.wall_id, p.x, p.bottom) == ("B", 500.0, 1200.0)
        assert placed.rooms[0].runs[0].free
    turned = placing.mirror_run(job, job.find_cell(cell)[1].id).job
    assert the(turned, cell).right == pytest.approx(ROOM[0] - 500.0)


def test_held_by_a_window_it_hangs_in_its_middle_until_it_is_moved() -> None:
    from tall_plank.edits.things.common import Spot
    from tall_plank.edits.things.table import add_thing
    from tall_plank.job import Kind

    job = add_thing(new_job(), "window", Spot("r1", "A", 1500.0)).job
    window = job.rooms[0].openings[0]
    job, cell = hung(job, "floating", 0.0, 2300.0)
    job = placing.hold(job, cell, "centre", Kind.OPENING.of(window.id)).job
    p = the(job, cell)
    assert p.x + p.width / 2 == pytest.approx(window.x.mm + window.width.mm / 2)
    moved = hanging.move_free(job, job.find_cell(cell)[1].id, 100.0, 2300.0).job
    assert the(moved, cell).x == 100.0 and moved.find_cell(cell)[2].anchor is None


def test_a_kind_that_hangs_free_is_put_above_what_is_selected() -> None:
    change = hanging.put(new_job(), "r1", "A", "media")
    low = change.made[0]
    shelf = hanging.put(change.job, "r1", "A", "floating", after=low)
    p, below = the(shelf.job, shelf.made[0]), the(shelf.job, low)
    assert (p.x, p.bottom) == (below.x, below.top + hanging.ABOVE)
    # Again, and it comes above the first instead of into it.
    again = hanging.put(shelf.job, "r1", "A", "floating", after=low)
    assert the(again.job, again.made[0]).bottom == pytest.approx(p.top)
    alone = hanging.put(new_job(), "r1", "A", "floating")
    p = the(alone.job, alone.made[0])
    assert (p.x + p.width / 2, p.bottom) == (1800.0, 1400.0)


@given(st.floats(-500, 4500), st.floats(-500, 3500), st.sampled_from([t.code for t in new_job().templates]))
def test_wherever_something_is_dropped_it_stands_or_is_refused(x: float, z: float, code: str) -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600")
    job = with_run(job, "A", Level.HUNG, "door 400")
    change = hanging.drop(job, "r1", "A", code, x, z)
    p = the(change.job, change.made[0])
    template = change.job.template(code)
    run = change.job.find_cell(change.made[0])[1]
    if run.free:
        assert template.level is Level.HUNG
    elif template.level is Level.HUNG and template.body is not Body.GAP and not template.corner:
        assert 1400.0 - 150.0 <= z <= 2120.0 + 150.0
    assert p.wall_id == "A"


def test_a_free_row_without_a_place_does_not_load() -> None:
    job, cell = hung(new_job())
    run = job.find_cell(cell)[1]
    for wrong in ({"start": None}, {"bottom": None}, {"level": Level.BASE}):
        room = msgspec.structs.replace(job.rooms[0], runs=(msgspec.structs.replace(run, **wrong),))
        with pytest.raises(PlankError, match="has no place"):
            job_from_bytes(job_bytes(msgspec.structs.replace(job, rooms=(room,))), "job")


def test_in_inches_too() -> None:
    from tall_plank.edits.jobs import set_display
    from tall_plank.measure import DisplayUnit

    job = set_display(new_job(), DisplayUnit("in/16")).job
    job, cell = hung(job)
    job = runs.set_clear(job, cell, "left", "20 1/4").job
    assert the(job, cell).x == pytest.approx(20.25 * 25.4)
    job = hanging.set_bottom(job, (cell,), "54").job
    assert the(job, cell).bottom == pytest.approx(54 * 25.4)


def test_past_the_end_of_its_wall_it_is_a_snag() -> None:
    job, cell = hung(new_job(), "floating", 2700.0, 1300.0)
    short = rooms.set_room_length(job, "r1", "width", "2400").job
    told = [(s.what, s.where.cell, s.weight) for s in Workings(short).snags if s.rule == "run length"]
    assert told == [("It reaches 1200 mm past the right end of wall A.", cell, "wrong")]
    assert not [s for s in Workings(job).snags if s.rule == "run length"]


def test_a_row_of_two_moves_once_by_a_typed_distance() -> None:
    job, cell = hung(new_job(), "floating", 500.0, 1300.0)
    job = type_run(job, job.find_cell(cell)[1].id, "floating 600, floating 500").job
    moved = placing.move_by(job, tuple(c.id for c in job.cells()), "100").job
    assert [p.x for p in set_out(moved).placed] == [600.0, 1200.0]


@pytest.mark.parametrize("x", [math.nan, math.inf, -math.inf, 1e12])
def test_a_place_that_is_nowhere_is_refused(x: float) -> None:
    job, cell = hung(new_job(), "floating", 500.0, 1300.0)
    run = job.find_cell(cell)[1].id
    steps: tuple[Callable[[], Change], ...] = (
        lambda: hanging.hang(job, "r1", "A", "floating", x, 0.0),
        lambda: hanging.hang(job, "r1", "A", "floating", 0.0, x),
        lambda: hanging.drop(job, "r1", "A", "floating", x, 900.0),
        lambda: hanging.drop(job, "r1", "A", "floating", 900.0, x),
        lambda: hanging.move_free(job, run, x, 100.0),
        lambda: hanging.move_free(job, run, 100.0, x),
        lambda: hanging.move_along(job, cell, 900.0, x),
        lambda: hanging.lift_cell(job, cell, x),
    )
    for step in steps:
        with pytest.raises(PlankError, match="out of reach"):
            step()


def test_what_stands_beyond_a_new_corner_goes_to_its_wall() -> None:
    job, _ = hung(new_job(), "floating", 500.0, 1300.0)
    job, _ = hung(job, "floating", 2500.0, 1300.0)
    job = add_service(job, "r1", "A", "power", 3000.0).job
    before = {(round(p.x), p.number) for p in set_out(job).placed}
    job = outline.add_corner(job, "r1", "A", 1200.0).job
    assert {(p.wall_id, round(p.x)) for p in set_out(job).placed} == {("A", 500), ("E", 1300)}
    assert [(s.wall, s.x.mm) for s in job.rooms[0].services] == [("E", 1800.0)]
    assert {(round(p.x) + (1200 if p.wall_id == "E" else 0), p.number) for p in set_out(job).placed} == before


@pytest.mark.parametrize(("pitch", "most"), [("400", 2), ("382", 3), ("383", 2), ("", 21)])
def test_as_many_copies_as_the_ceiling_leaves_space_for(pitch: str, most: int) -> None:
    job, cell = hung(new_job(), "floating", 500.0, 1300.0)
    assert the(job, cell).top == ROOM[1] - 1146.0
    with pytest.raises(PlankError, match=f"space for {most} of them"):
        hanging.repeat_up(job, cell, most + 1, pitch)
    made = hanging.repeat_up(job, cell, most, pitch)
    assert the(made.job, made.made[-1]).top <= ROOM[1] + 1e-6


@pytest.mark.parametrize("lifted", [False, True])
def test_copies_of_a_lifted_unit_hang_above_it_at_their_pitch(lifted: bool) -> None:
    job = with_run(new_job(), "A", Level.HUNG, "door 500, pair 700")
    first, run = job.cells()[0].id, job.rooms[0].runs[0].id
    job = hanging.lift_cell(job, first, 300.0).job if lifted else runs.set_run_length(job, run, "bottom", "300").job
    job = msgspec.structs.replace(job, display=DisplayUnit.FRACTION_16)
    change = hanging.repeat_up(job, first, 1, "800mm")
    (copy,) = change.made
    assert (the(change.job, copy).x, the(change.job, copy).bottom) == (0.0, 1100.0)


def test_what_is_left_alone_of_a_free_row_keeps_its_height_and_moves() -> None:
    job, cell = hung(new_job(), "floating", 500.0, 1300.0)
    run = job.find_cell(cell)[1].id
    job = type_run(job, run, "floating 600, floating 500").job
    one, other = (c.id for c in job.cells())
    job = hanging.lift_cell(job, other, 900.0).job
    job = runs.delete_cells(job, (one,)).job
    assert the(job, other).bottom == 900.0 and job.find_cell(other)[2].bottom is None
    job = hanging.move_free(job, run, 100.0, 400.0).job
    assert (the(job, other).x, the(job, other).bottom) == (100.0, 400.0)


@pytest.mark.parametrize(("low", "row"), [(1300.0, 0), (2150.0, 1)])
def test_it_goes_into_the_row_nearest_to_its_height(low: float, row: int) -> None:
    job = with_run(new_job(), "A", Level.HUNG, "door 500")
    job = runs.set_run_length(job, job.rooms[0].runs[0].id, "bottom", "1200").job
    job = hanging.add_row(job, "r1", "A").job
    rows = [r.id for r in job.rooms[0].runs]
    change = hanging.hang(job, "r1", "A", "wall-box", 1500.0, low)
    job = hanging.into_run(change.job, change.made).job
    assert job.find_cell(change.made[0])[1].id == rows[row]


def one_step(job: Job, cell: str, kind: int, x: int, z: int) -> Change:
    run = job.find_cell(cell)[1]
    steps: tuple[Callable[[], Change], ...] = (
        lambda: hanging.free_of(job, (cell,)),
        lambda: hanging.into_run(job, (cell,)),
        lambda: hanging.move_free(job, run.id, x, z) if run.free else hanging.lift_cell(job, cell, z),
        lambda: hanging.set_bottom(job, (cell,), str(z)),
        lambda: runs.set_clear(job, cell, SIDES[z % 4], str(x)),
        lambda: units.set_own(job, (cell,), "height", str(40 + z % 900)),
        lambda: runs.set_width(job, (cell,), str(300 + x % 300)),
        lambda: rooms.set_room_length(job, "r1", "width", str(3000 + x % 900)),
        lambda: hanging.repeat_up(job, cell, 1 + x % 2, str(z) if x % 3 else "", linked=bool(x % 2)),
        lambda: hanging.add_row(job, "r1", "A"),
        lambda: outline.add_corner(job, "r1", run.wall, float(x)),
        lambda: runs.delete_cells(job, (cell,)),
    )
    return steps[kind]()


@given(st.lists(st.tuples(st.integers(0, 11), st.integers(0, 3000), st.integers(0, 2400)), max_size=8))
def test_many_steps_keep_every_unit_and_every_number(steps: list[tuple[int, int, int]]) -> None:
    job = with_run(new_job(), "A", Level.HUNG, "door 500, pair 700, door 500")
    job, _ = hung(job)
    for kind, x, z in steps:
        cells = [c.id for c in job.cells() if c.number]
        if not cells:
            break
        gone = x % len(cells) if kind == 11 else -1
        before = {job.find_cell(c)[2].number for i, c in enumerate(cells) if i != gone}
        try:
            job = one_step(job, cells[x % len(cells)], kind, x, z).job
        except PlankError:
            continue
        assert {c.number for c in job.cells() if c.number} >= before
        assert all(r.cells[0].bottom is None for r in job.rooms[0].runs if r.free and len(r.cells) == 1)
        assert job_from_bytes(job_bytes(job), "job") == job
        for p in set_out(job).placed:
            assert p.width >= 0 and p.bottom >= -1e-6
    assert Workings(job).made is not None
