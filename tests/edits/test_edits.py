from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import BASE_TEXT, cell_of, with_run
from tall_plank.edits import bays, jobs, placing, rooms, runs, units, values
from tall_plank.edits.clipboard import copy_cells, paste
from tall_plank.edits.runtext import RunTextError, read_run_text, run_text, type_run
from tall_plank.edits.things.opening import add_opening, delete_opening, move_opening, set_opening
from tall_plank.job import Job, Level, Role
from tall_plank.job.inherit import construction_of, sourced
from tall_plank.job.start import new_job
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.measure.shareout import Rule
from tall_plank.setout import set_out
from tall_plank.workings import Workings


def placed(job: Job, number: str):  # type: ignore[no-untyped-def]
    return next(p for p in set_out(job).placed if p.number == number)


# --- runs as text


def test_a_typed_run_reads_back_as_its_text(job: Job) -> None:
    run = job.rooms[0].runs[0]
    assert run_text(job, run) == BASE_TEXT


def test_typing_a_run_again_keeps_numbers_and_own_values(job: Job) -> None:
    job = units.set_own(job, (cell_of(job, "A3"),), "height", "700").job
    run = job.rooms[0].runs[0]
    job = type_run(job, run.id, "drawers 500, door 300, sink 1000, open rest").job
    sink = placed(job, "A3")
    assert (sink.template, sink.width, sink.height) == ("sink", 1000, 700)
    assert len(job.units) == len(job.cells())


def test_times_and_brackets_and_names_in_a_run() -> None:
    pieces = read_run_text(new_job(), Level.BASE, "2 x door (900-100)/2, pair worktop*20, gap")
    assert [p.template.code for p in pieces] == ["door", "door", "pair", "gap"]
    assert pieces[0].width.length.mm == 400  # type: ignore[union-attr]
    assert pieces[2].width.length.mm == 800  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("text", "position", "word"),
    [
        ("door 600, sofa 900", 9, "sofa"),
        ("door 600,, pair", 9, "between two commas"),
        ("600", 0, "600"),
        ("door 600, drawers 60q0", 20, "not expected"),
        ("door 20", 5, "too small"),
        ("pair 5m", 5, "too large"),
        ("999 x door 300", 0, "at most"),
    ],
)
def test_a_wrong_run_names_the_place_and_changes_nothing(text: str, position: int, word: str) -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 600")
    with pytest.raises(RunTextError) as caught:
        type_run(job, job.rooms[0].runs[0].id, text)
    assert word in str(caught.value)
    assert caught.value.position == position
    assert caught.value.remedy


def test_a_width_rule_stays_a_rule_in_the_text() -> None:
    job = with_run(new_job(), "A", Level.BASE, "pair worktop*20, door 450")
    assert run_text(job, job.rooms[0].runs[0]) == "pair worktop*20, door 450"
    job = values.set_value(job, "worktop", "30").job
    assert placed(job, "A1").width == 600


@given(st.sampled_from(list(DisplayUnit)), st.lists(st.integers(200, 600), min_size=1, max_size=5))
def test_a_run_goes_through_its_text_in_any_display_without_changing(unit: DisplayUnit, widths: list[int]) -> None:
    job = with_run(new_job(), "A", Level.BASE, ", ".join(f"door {w}mm" for w in widths))
    job = jobs.set_display(job, unit).job
    run = job.rooms[0].runs[0]
    again = type_run(job, run.id, run_text(job, run)).job
    old = [p.width for p in set_out(job).placed]
    assert [p.width for p in set_out(again).placed] == pytest.approx(old, abs=1e-4)


# --- adding, ordering, sizing, deleting


def test_a_unit_is_put_after_the_selected_one_and_keeps_to_what_is_left() -> None:
    job = with_run(new_job(), "A", Level.BASE, "pair 1200, pair 1200, door 650")
    change = runs.insert_unit(job, "r1", "A", "pair", after=cell_of(job, "A1"))
    cells = set_out(change.job).rooms[0].runs[0].cells
    assert cells[1].cell == change.made[0]
    assert cells[1].width == 550


def test_the_first_unit_on_a_wall_starts_its_run() -> None:
    change = runs.insert_unit(new_job(), "r1", "B", "hung-door")
    run = change.job.rooms[0].runs[0]
    assert (run.wall, run.level) == ("B", Level.HUNG)


def test_a_second_run_of_a_level_on_a_wall_is_refused(job: Job) -> None:
    with pytest.raises(PlankError, match="already"):
        runs.add_run(job, "r1", "A", Level.BASE)


def test_deleting_frees_the_unit_and_the_others_close_up(job: Job) -> None:
    job = runs.delete_cells(job, (cell_of(job, "A2"),)).job
    assert placed(job, "A3").x == 50
    assert len(job.units) == len(job.cells())


def test_moving_past_the_ends_stops_there(job: Job) -> None:
    moved = runs.shift_cell(job, cell_of(job, "A2"), 99).job
    assert set_out(moved).rooms[0].runs[0].cells[-1].number == "A2"
    assert runs.shift_cell(job, cell_of(job, "A1"), -5).job == job


def test_one_width_for_many_says_what_it_skipped(job: Job) -> None:
    cells = tuple(cell_of(job, n) for n in ("A1", "A2", "A5"))
    change = runs.set_width(job, cells, "500")
    assert placed(change.job, "A2").width == placed(change.job, "A5").width == 500
    assert len(change.skipped) == 1
    assert "A1" in change.skipped[0]


@pytest.mark.parametrize("text", ["nothing", "", "5000", "-3", "10"])
def test_a_width_that_fits_nobody_is_refused(job: Job, text: str) -> None:
    with pytest.raises(PlankError):
        runs.set_width(job, (cell_of(job, "A2"),), text)


def test_a_dragged_width_keeps_to_what_the_run_has() -> None:
    job = with_run(new_job(), "A", Level.BASE, "pair 1200, pair 1200, pair 700")
    wide = runs.drag_width(job, cell_of(job, "A3"), 1190.4).job
    assert placed(wide, "A3").width == 1190
    full = runs.drag_width(wide, cell_of(job, "A3"), 5000).job
    assert placed(full, "A3").width == 1200


def test_numbers_do_not_move_when_units_do(job: Job) -> None:
    moved = runs.move_cell(job, cell_of(job, "A4"), 0).job
    assert set_out(moved).rooms[0].runs[0].cells[0].number == "A4"
    added = runs.insert_unit(moved, "r1", "A", "door").job
    assert max(int(c.number[1:]) for c in added.cells() if c.number) == 11


# --- clear distances


def test_a_typed_clear_distance_moves_the_unit_there() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 600, pair 900")
    moved = runs.set_clear(job, cell_of(job, "A2"), "left", "25cm").job
    assert placed(moved, "A2").x == 850
    closer = runs.set_clear(moved, cell_of(job, "A2"), "left", "100").job
    assert placed(closer, "A2").x == 700
    back = runs.set_clear(closer, cell_of(job, "A2"), "left", "0").job
    assert placed(back, "A2").x == 600
    assert len(back.cells()) == 2
    right = runs.set_clear(job, cell_of(job, "A2"), "right", "300").job
    assert placed(right, "A2").right == 3300
    assert placed(right, "A1").x == 0


def test_a_clear_distance_between_two_gaps_leaves_the_neighbours_alone() -> None:
    job = with_run(new_job(), "A", Level.HUNG, "door 400, gap 500, door 400, gap 500, door 400")
    moved = runs.set_clear(job, cell_of(job, "A2"), "left", "200").job
    assert placed(moved, "A2").x == 600
    assert placed(moved, "A3").x == placed(job, "A3").x


def test_a_hung_run_moves_to_its_distance_above_the_worktop(job: Job) -> None:
    moved = runs.set_clear(job, cell_of(job, "A7"), "below", "600").job
    assert placed(moved, "A7").bottom == 870 + 600
    top = runs.set_clear(job, cell_of(job, "A7"), "above", "0").job
    assert placed(top, "A7").top == pytest.approx(2500)


@pytest.mark.parametrize(("side", "text"), [("left", "2000"), ("right", "3100"), ("left", "-5"), ("below", "100")])
def test_a_distance_that_cannot_be_had_is_refused(side: str, text: str) -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 600, pair 900, pair 900")
    with pytest.raises(PlankError) as caught:
        runs.set_clear(job, cell_of(job, "A2"), side, text)
    assert caught.value.remedy


# --- own and inherited


def test_own_values_win_and_are_given_back(job: Job) -> None:
    cell = cell_of(job, "A2")
    unit_id = job.find_cell(cell)[2].unit
    own = units.set_own(job, (cell,), "gap_between", "4").job
    assert construction_of(own, own.unit(unit_id)).gap_between == 4
    found = sourced(own, own.unit(unit_id), "gap_between")
    assert (found.own, found.source) == (True, "own")
    back = units.inherit_again(own, (cell,), "gap_between").job
    assert back == job
    assert sourced(back, back.unit(unit_id), "gap_between").source == "standard Quay dowelled"
    assert sourced(back, back.unit(unit_id), "height").source == "named value base_height"
    assert sourced(back, back.unit(unit_id), "finish_front").source == "scheme First scheme"


def test_a_scheme_finish_reaches_all_but_the_units_with_their_own(job: Job) -> None:
    job = units.set_own(job, (cell_of(job, "A2"),), "finish_front", "storm-oak").job
    job = units.set_scheme_finish(job, Role.FRONT, "boat-blue").job
    made = Workings(job).made
    assert made.of(cell_of(job, "A2")).spec.front == "storm-oak"  # type: ignore[union-attr]
    assert made.of(cell_of(job, "A3")).spec.front == "boat-blue"  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("key", "text"),
    [
        ("height", "tall"),
        ("height", "10"),
        ("height", "9m"),
        ("finish_front", "gold"),
        ("handle", "HG-110"),
        ("front_style", "wavy"),
        ("wheels", "4"),
        ("gap_side", "-1"),
    ],
)
def test_own_values_that_do_not_fit_are_refused(job: Job, key: str, text: str) -> None:
    with pytest.raises(PlankError):
        units.set_own(job, (cell_of(job, "A2"),), key, text)


def test_a_kind_keeps_place_width_and_number(job: Job) -> None:
    old = placed(job, "A5")
    new = placed(units.set_kind(job, (cell_of(job, "A5"),), "drawers").job, "A5")
    assert (new.x, new.width, new.template) == (old.x, old.width, "drawers")
    change = units.set_kind(job, (cell_of(job, "A7"), cell_of(job, "A5")), "open")
    assert "A7" in change.skipped[0]


def test_mirroring_twice_gives_the_same_job(job: Job) -> None:
    cells = tuple(c.id for c in job.cells())
    once = units.mirror(job, cells).job
    assert once != job
    assert units.mirror(once, cells).job == job


def test_shelves_drawers_and_hands(job: Job) -> None:
    door = cell_of(job, "A5")
    assert job.find_cell(door)
    more = units.set_shelves(job, (door, cell_of(job, "A2")), "3")
    assert "A2" in more.skipped[0]
    made = Workings(more.job).made.of(door)
    assert sum(p.role == "shelf" for p in made.parts) == 3  # type: ignore[union-attr]
    right = units.set_hand(job, (door,), "right").job
    assert Workings(right).made.of(door).fronts[0].hand == "right"  # type: ignore[union-attr]
    # Of doors one above another all turn; of doors beside one another none.
    tall = with_run(new_job(), "A", Level.TALL, "fridge housing 600")
    tall = units.set_hand(tall, (cell_of(tall, "A1"),), "right").job
    hung = [f.hand for f in Workings(tall).made.of(cell_of(tall, "A1")).fronts if f.kind == "door"]  # type: ignore[union-attr]
    assert hung == ["right", "right"]
    assert units.set_hand(job, (cell_of(job, "A2"),), "right").skipped == ("A2: it has no single door",)
    five = units.set_drawers(job, (cell_of(job, "A2"),), "4").job
    assert len(Workings(five).made.of(cell_of(job, "A2")).fronts) == 4  # type: ignore[union-attr]
    for text in ("", "x", "0", "99"):
        with pytest.raises(PlankError):
            units.set_drawers(job, (cell_of(job, "A2"),), text)
        if text != "0":
            with pytest.raises(PlankError):
                units.set_shelves(job, (door,), text)


def test_a_typed_front_height_takes_from_the_others(job: Job) -> None:
    cell = cell_of(job, "A2")
    changed = bays.set_size(job, cell, (1,), "200").job
    heights = [f.height for f in Workings(changed).made.of(cell).fronts]  # type: ignore[union-attr]
    assert heights[:2] == pytest.approx([140, 200])
    assert sum(heights) + 6 == pytest.approx(730 - 3)
    # Where all would be typed, the one before gives way.
    last = bays.set_size(changed, cell, (2,), "200").job
    heights = [f.height for f in Workings(last).made.of(cell).fronts]  # type: ignore[union-attr]
    assert heights[0] == pytest.approx(140) and heights[2] == pytest.approx(200)
    assert sum(heights) + 6 == pytest.approx(730 - 3)


def test_linked_copies_change_together(job: Job) -> None:
    a, b = cell_of(job, "A8"), cell_of(job, "A9")
    linked = placing.link(job, (a, b)).job
    changed = units.set_own(linked, (a,), "height", "600").job
    assert placed(changed, "A8").height == placed(changed, "A9").height == 600


# --- named values


def test_a_named_value_resets_everything_that_uses_it(job: Job) -> None:
    lower = values.set_value(job, "plinth", "150").job
    assert placed(lower, "A2").bottom == 150
    assert lower.value("hung_bottom") == 1450


def test_a_circle_of_values_is_refused_and_changes_nothing(job: Job) -> None:
    with pytest.raises(PlankError, match="circle"):
        values.set_value(job, "plinth", "hung_bottom - 5")
    with pytest.raises(PlankError, match="itself"):
        values.set_value(job, "plinth", "plinth + 1")


def test_a_value_in_use_cannot_be_deleted(job: Job) -> None:
    for name in ("plinth", "base_height"):
        with pytest.raises(PlankError, match="used by"):
            values.delete_value(job, name)
    more = values.set_value(job, "eye_line", "1500").job
    assert values.delete_value(more, "eye_line").job == job
    used = runs.set_width(more, (cell_of(job, "A2"),), "eye_line/2.5").job
    with pytest.raises(PlankError, match="a length"):
        values.delete_value(used, "eye_line")


# --- rooms


def test_openings_stay_in_their_wall_and_apart(job: Job) -> None:
    change = add_opening(job, "r1", "A", "window")
    window = change.made[0]
    job = change.job
    for key, text in (("x", "2700"), ("width", "4000"), ("height", "3m"), ("sill", "-1"), ("x", "left")):
        with pytest.raises(PlankError):
            set_opening(job, window, key, text)
    assert move_opening(job, window, 9999).job.rooms[0].openings[0].x.mm == 2600
    with pytest.raises(PlankError, match="overlaps"):
        add_opening(job, "r1", "A", "door")
    with pytest.raises(PlankError, match="no longer fit"):
        rooms.set_room_length(job, "r1", "width", "1200")
    assert not delete_opening(job, window).job.rooms[0].openings


@pytest.mark.parametrize(
    ("key", "text"), [("width", "10"), ("depth", "much"), ("height", "99m"), ("wall_thickness", "0"), ("colour", "5")]
)
def test_impossible_rooms_are_refused(job: Job, key: str, text: str) -> None:
    with pytest.raises(PlankError):
        rooms.set_room_length(job, "r1", key, text)


def test_names_may_not_be_empty(job: Job) -> None:
    with pytest.raises(PlankError):
        rooms.rename_room(job, "r1", "  ")
    with pytest.raises(PlankError):
        jobs.set_text(job, "name", "")


@pytest.mark.parametrize(
    ("key", "text"), [("margin", "100"), ("margin", "x"), ("tax", "-1"), ("tax", "nan"), ("luck", "3")]
)
def test_percentages_out_of_range_are_refused(job: Job, key: str, text: str) -> None:
    with pytest.raises(PlankError):
        jobs.set_percent(job, key, text)


def test_switching_display_changes_no_size(job: Job) -> None:
    inches = jobs.set_display(job, DisplayUnit.FRACTION_16).job
    assert set_out(inches).placed == set_out(job).placed


# --- clipboard


def test_units_are_pasted_into_another_job_with_what_they_need(job: Job) -> None:
    job = values.set_value(job, "eye_line", "1500").job
    job = units.set_own(job, (cell_of(job, "A2"),), "height", "eye_line/2").job
    job = runs.set_width(job, (cell_of(job, "A2"),), "eye_line/3").job
    text = copy_cells(job, (cell_of(job, "A2"), cell_of(job, "A7")))
    change = paste(new_job("Other"), text, "r1", "C")
    levels = {run.level for run in change.job.rooms[0].runs}
    assert levels == {Level.BASE, Level.HUNG}
    first = placed(change.job, "C1")
    assert (first.width, first.height) == (500, 750)
    assert "plain length" in change.skipped[0]
    assert change.job.find_cell(change.made[0])[2].width.rule is Rule.FIXED


@pytest.mark.parametrize("text", ["", "hello", "{}", '{"kind":"other","units":[]}', "[" * 5000])
def test_other_text_on_the_clipboard_is_refused(text: str) -> None:
    with pytest.raises(PlankError, match="no units"):
        paste(new_job(), text, "r1", "A")


def test_a_copy_pasted_beside_itself_is_its_own_unit(job: Job) -> None:
    cell = cell_of(job, "A2")
    change = paste(job, copy_cells(job, (cell,)), "r1", "A", after=cell)
    cells = change.job.rooms[0].runs[0].cells
    assert [c.number for c in cells][:3] == ["A1", "A2", "A11"]
    changed = units.set_own(change.job, change.made, "height", "600").job
    assert placed(changed, "A2").height == 730


def test_a_typed_distance_to_a_butting_neighbour_is_had_and_the_neighbour_stays() -> None:
    job = with_run(new_job(), "A", Level.BASE, "gap 200, door 400, door 400")
    moved = runs.set_clear(job, cell_of(job, "A1"), "right", "100").job
    assert placed(moved, "A1").x == 100
    assert placed(moved, "A2").x == 600
    closer = runs.set_clear(job, cell_of(job, "A1"), "left", "50").job
    assert placed(closer, "A1").x == 50
    assert placed(closer, "A2").x == 600


@given(
    st.lists(
        st.sampled_from(["door 300", "door 450", "gap 150", "gap 400", "pair share", "open rest"]),
        min_size=1,
        max_size=6,
    ),
    st.integers(0, 5),
    st.sampled_from(["left", "right"]),
    st.integers(0, 900),
)
def test_a_typed_clear_distance_is_had_exactly_or_refused(cells: list[str], pick: int, side: str, mm: int) -> None:
    from tall_plank.setout.clear import clear_of

    job = with_run(new_job(), "A", Level.BASE, ", ".join(cells))
    solid = [p for p in set_out(job).placed if p.is_solid]
    if not solid:
        return
    cell = solid[pick % len(solid)].cell
    try:
        moved = runs.set_clear(job, cell, side, str(mm)).job
    except PlankError as error:
        assert error.remedy
        return
    layout = set_out(moved)
    found = layout.find(cell)
    assert found is not None
    assert getattr(clear_of(layout.rooms[0], found), side) == pytest.approx(mm, abs=1e-3)
    assert layout.rooms[0].runs[0].short < 1e-3


def test_a_dragged_width_is_held_to_its_kind_and_to_the_run() -> None:
    """Not below what the kind is made from, not above what it is made to, not beyond what fixed neighbours leave."""
    fixed = with_run(new_job(), "A", Level.BASE, "pair 1200, pair 1200, door 450")
    cell = cell_of(fixed, "A3")
    template = fixed.template_of(fixed.find_cell(cell)[2])
    assert (template.least, template.most) == (200.0, 650.0)
    assert placed(runs.drag_width(fixed, cell, -40.0).job, "A3").width == template.least
    assert placed(runs.drag_width(fixed, cell, 199.4).job, "A3").width == template.least
    assert placed(runs.drag_width(fixed, cell, 9000.0).job, "A3").width == template.most
    tight = with_run(new_job(), "A", Level.BASE, "pair 1200, pair 1200, pair 700, door 450")
    # 3600 - 1200 - 1200 - 700 leave 500 for the door, though it is made up to 650.
    assert placed(runs.drag_width(tight, cell_of(tight, "A4"), 9000.0).job, "A4").width == 500.0
    # Where a neighbour gives way, only the kind holds it; the neighbour takes what is left.
    loose = with_run(new_job(), "A", Level.BASE, "pair 1200, pair 1200, pair rest, door 450")
    wide = runs.drag_width(loose, cell_of(loose, "A4"), 9000.0).job
    assert placed(wide, "A4").width == 650.0 and placed(wide, "A3").width == 550.0


@given(st.floats(-500.0, 5000.0), st.sampled_from(["A1", "A2", "A3"]))
def test_any_drag_leaves_a_run_that_can_be_built(mm: float, number: str) -> None:
    job = with_run(new_job(), "A", Level.BASE, "pair 1100, drawers 600, pair 900")
    cell = cell_of(job, number)
    template = job.template_of(job.find_cell(cell)[2])
    dragged = runs.drag_width(job, cell, mm).job
    width = placed(dragged, number).width
    assert width == round(width) and template.least <= width <= template.most
    layout = set_out(dragged).rooms[0].runs[0]
    assert sum(c.width for c in layout.cells) <= 3600.0 + 1e-6
    if template.least <= mm <= template.most and mm - placed(job, number).width <= 1000.0:
        assert width == round(mm)


def test_a_new_value_keeps_its_note_and_an_old_one_too(empty_job: Job) -> None:
    job = values.set_value(empty_job, "reach", "420", "to the tap").job
    assert [(v.length.mm, v.note) for v in job.values if v.name == "reach"] == [(420, "to the tap")]
    job = values.set_value(job, "reach", "430").job
    assert [(v.length.mm, v.note) for v in job.values if v.name == "reach"] == [(430, "to the tap")]
    job = values.set_value(job, "reach", "430", "").job
    assert [v.note for v in job.values if v.name == "reach"] == [""]


@pytest.mark.parametrize("unit", list(DisplayUnit))
def test_walls_left_as_they_are_shown_keep_their_true_lengths(unit: DisplayUnit) -> None:
    """In inches 4200 mm are shown as ~165 3/8: whoever types another wall means that one only."""
    from tall_plank.edits import outline
    from tall_plank.setout.rooms import walls_of

    job = outline.type_outline(
        new_job(), "r1", "4200mm, 3333.3mm, 1500mm corner 134.9876543, rest corner 135.0123457, rest"
    ).job
    job = jobs.set_display(job, unit).job
    words = outline.outline_text(job, job.rooms[0]).split(", ")
    assert len(words) == 5
    before = [w.length for w in walls_of(job.rooms[0])]
    # The text as it stands changes nothing at all.
    assert outline.type_outline(job, "r1", ", ".join(words)).job.rooms[0].outline == job.rooms[0].outline
    typed = outline.type_outline(job, "r1", ", ".join([*words[:2], "1450mm corner 134.9876543", *words[3:]])).job.rooms[
        0
    ]
    after = [w.length for w in walls_of(typed)]
    assert after[2] == pytest.approx(1450.0) and after[:2] == pytest.approx(before[:2], abs=1e-9)
