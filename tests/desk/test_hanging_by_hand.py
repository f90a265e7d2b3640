"""Hanging things on a wall by mouse and keys; choosing bays of several units; what a unit stands on."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtTest import QTest

from desk.conftest import cell, choose, drag, placed, spec, strip_point, type_into
from desk.hand import ALT, CONTROL, SHIFT, Hand
from tall_plank.desk.app.window import Window
from tall_plank.desk.views.stripmarks import seen_otherwise
from tall_plank.drawing.dimensions import offset
from tall_plank.edits import hanging
from tall_plank.edits.jobs import set_display
from tall_plank.edits.runs import insert_unit, set_width
from tall_plank.job import Kind, Level
from tall_plank.measure import DisplayUnit
from tall_plank.setout.clear import clear_of


def shelf(w: Window, x: float = 900.0, low: float = 2200.0, wall: str = "B") -> str:
    w.document.do(lambda job: hanging.hang(job, "r1", wall, "floating", x, low))
    return w.document.job.find_cell(w.document.cells[0])[2].number


def at(w: Window, wall: str, x: float, z: float) -> QPoint:
    return w.strip.to_px(w.strip.wall_x(wall) + x, z).toPoint()


def test_it_is_dragged_both_ways_and_undone_in_one_step(empty_window: Window) -> None:
    w = empty_window
    number = shelf(w, wall="A")
    before = placed(w, number)
    start = strip_point(w, number, 0.3, 0.5)
    drag(w.strip, start, start + QPoint(40, 60))
    after = placed(w, number)
    assert after.x - before.x == pytest.approx(40 / w.strip.scale, abs=25)
    assert before.bottom - after.bottom == pytest.approx(60 / w.strip.scale, abs=25)
    w.document.undo()
    assert (placed(w, number).x, placed(w, number).bottom) == (before.x, before.bottom)


def test_dragged_over_the_fold_it_hangs_on_the_next_wall(empty_window: Window) -> None:
    w = empty_window
    number = shelf(w, wall="A")
    start = strip_point(w, number, 0.5, 0.5)
    drag(w.strip, start, at(w, "B", 1200.0, 1500.0))
    assert placed(w, number).wall_id == "B"
    assert placed(w, number).number == number


def test_while_it_is_dragged_both_snaps_are_named_and_escape_gives_it_up(window: Window) -> None:
    w = window
    number = shelf(w, 300.0, 1900.0, "A")
    before = placed(w, number)
    base = next(p for p in w.document.room.placed if p.wall_id == "A" and p.level is Level.BASE and p.is_solid)
    start = strip_point(w, number, 0.5, 0.5)
    goal = at(w, "A", base.right + 450.0 + 3.0, 1500.0)
    drag(w.strip, start, goal, release=False)
    assert "right of" in w.strip._snap
    assert w.strip._snap_up is not None
    QTest.keyClick(w.strip, Qt.Key.Key_Escape)
    assert (placed(w, number).x, placed(w, number).bottom) == (before.x, before.bottom)
    assert w.strip._snap_up is None


def test_alt_and_a_drag_lift_one_unit_of_a_run_alone(window: Window) -> None:
    w = window
    hung = [p for p in w.document.room.placed if p.level is Level.HUNG and p.is_solid]
    one, others = hung[0], hung[1:]
    w.document.select((Kind.CELL.of(one.cell),))
    start = strip_point(w, one.number)
    hand = Hand(w)
    QTest.mousePress(w.strip, Qt.MouseButton.LeftButton, ALT, start)
    from PyQt6.QtCore import QEvent
    from PyQt6.QtGui import QMouseEvent
    from PyQt6.QtWidgets import QApplication

    for up in range(5, 45, 5):
        p = start - QPoint(0, up)
        event = QMouseEvent(
            QEvent.Type.MouseMove, QPointF(p), QPointF(w.strip.mapToGlobal(p)), Qt.MouseButton.NoButton,
            Qt.MouseButton.LeftButton, ALT,
        )  # fmt: skip
        QApplication.sendEvent(w.strip, event)
    QTest.mouseRelease(w.strip, Qt.MouseButton.LeftButton, ALT, start - QPoint(0, 40))
    assert placed(w, one.number).bottom > one.bottom
    assert [placed(w, p.number).bottom for p in others] == [p.bottom for p in others]
    # On its sheet the height is its own, and goes back.
    assert w.spec.line("underside").row.origin == "own"
    hand.click(w.spec.line("underside").revert)
    assert placed(w, one.number).bottom == one.bottom


@pytest.mark.parametrize("side", ["left", "right", "below", "above"])
def test_each_of_four_distances_is_typed_where_it_stands(window: Window, side: str) -> None:
    w = window
    number = shelf(w, 900.0, 1500.0, "C")
    hand = Hand(w)
    hand.unit(number)
    hand.dim(side, "333")
    found = clear_of(w.document.room, placed(w, number))
    assert getattr(found, side) == pytest.approx(333.0)
    assert w.focusWidget() is w.strip


def test_a_distance_of_nothing_can_be_typed_over(empty_window: Window) -> None:
    w = empty_window
    number = shelf(w, 0.0, 0.0, "A")
    hand = Hand(w)
    hand.unit(number)
    hand.dim("left", "120")
    hand.dim("below", "400")
    assert (placed(w, number).x, placed(w, number).bottom) == (120.0, 400.0)


def test_a_wrong_distance_says_so_at_its_place_and_changes_nothing(empty_window: Window) -> None:
    w = empty_window
    number = shelf(w, 500.0, 1000.0, "A")
    hand = Hand(w)
    hand.unit(number)
    hand.dim("left", "9999")
    assert w.strip.box.isVisible() and "to the right" in w.strip.box._error.text()
    hand.key(Qt.Key.Key_Escape)
    assert not w.strip.box.isVisible() and placed(w, number).x == 500.0


def test_dropped_high_on_a_wall_it_hangs_there_and_at_the_runs_height_in_the_run(empty_window: Window) -> None:
    w = empty_window
    for code, z, free in (("hung-door", 1700.0, False), ("hung-door", 800.0, True), ("floating", 1700.0, True)):
        w.strip.dropped(code, QPointF(at(w, "A", 1500.0, z)))
        run = w.document.job.find_cell(w.document.cells[0])[1]
        assert run.free is free, (code, z)
        p = w.document.workings.layout.find(w.document.cells[0])
        assert p is not None
        if free:
            assert p.x + p.width / 2 == pytest.approx(1500.0, abs=10)
            assert p.bottom + p.height / 2 == pytest.approx(z, abs=10)


def test_what_hangs_above_one_another_has_lines_of_its_own(empty_window: Window) -> None:
    w = empty_window
    numbers = [shelf(w, 300.0, 600.0 + 300.0 * i, "A") for i in range(5)]
    names = [lane.name for lane in w.lines.lanes()]
    # Three lines at once, where the selection is; base ones are always there.
    assert names == ["hung 5", "hung 4", "hung 3", "base"]
    w.document.select((Kind.CELL.of(cell(w, numbers[0])),))
    assert [lane.name for lane in w.lines.lanes()] == ["hung 3", "hung 2", "hung 1", "base"]
    assert [b.cell for b in w.lines.boxes() if b.cell] == [cell(w, n) for n in reversed(numbers[:3])]
    # Beside one another they share one.
    shelf(w, 1500.0, 700.0, "A")
    assert len(w.lines.lanes()) == 4
    # A width is typed in any of them, and there is no rest beside what hangs free.
    w.lines.setFocus()
    w.lines.type_cell(cell(w, numbers[0]))
    type_into(w.lines.box, "750")
    assert placed(w, numbers[0]).width == 750.0
    assert not [b for b in w.lines.boxes() if not b.cell]


def test_arrows_walk_up_and_down_and_along_what_hangs(empty_window: Window) -> None:
    w = empty_window
    low, high = shelf(w, 300.0, 600.0, "A"), shelf(w, 300.0, 1200.0, "A")
    w.document.select((Kind.CELL.of(cell(w, low)),))
    w.strip.setFocus()
    QTest.keyClick(w.strip, Qt.Key.Key_Up)
    assert w.document.cells == (cell(w, high),)
    QTest.keyClick(w.strip, Qt.Key.Key_Down)
    assert w.document.cells == (cell(w, low),)


def test_by_keys_alone_three_shelves_at_a_pitch(empty_window: Window) -> None:
    w, hand = empty_window, Hand(empty_window)
    hand.command("floating shelf")
    hand.key(Qt.Key.Key_P, SHIFT)
    hand.type("2 @ 320")
    hand.enter()
    assert [p.bottom for p in w.document.room.placed] == [1400.0, 1720.0, 2040.0]
    assert hand.clicks == 0


def test_out_of_its_run_and_back_by_keys(window: Window) -> None:
    w, hand = window, Hand(window)
    hung = next(p for p in w.document.room.placed if p.level is Level.HUNG and p.is_solid)
    hand.unit(hung.number)
    hand.key(Qt.Key.Key_Y, SHIFT)
    assert w.document.job.find_cell(hung.cell)[1].free
    assert w.spec.subtitle.text().startswith("hangs by itself")
    now = placed(w, hung.number)
    assert (now.x, now.bottom) == (hung.x, hung.bottom)
    hand.key(Qt.Key.Key_E, SHIFT)
    assert not w.document.job.find_cell(hung.cell)[1].free


def test_another_row_is_started_and_typed_by_keys(window: Window) -> None:
    w, hand = window, Hand(window)
    w.document.select((Kind.WALL.of("A"),))
    w.strip.setFocus()
    hand.key(Qt.Key.Key_A, SHIFT)
    assert w.run_text.isVisible()
    hand.type("2 x flap 600")
    hand.enter()
    rows = [r for r in w.document.room.runs if r.wall.id == "A" and r.run.level is Level.HUNG]
    assert len(rows) == 2
    assert min(p.bottom for p in rows[1].cells) >= max(p.top for p in rows[0].cells if p.is_solid) - 0.5
    # R on a unit of that row opens its text, not that of the row below.
    hand.unit(rows[1].cells[0].number)
    hand.key(Qt.Key.Key_R, SHIFT)
    assert w.run_text.box.text() == "flap 600, flap 600"


# --- bays of several units


@pytest.fixture
def wardrobes(empty_window: Window) -> Window:
    from tall_plank.edits.runs import add_run
    from tall_plank.edits.runtext import type_run

    def start(job):  # type: ignore[no-untyped-def]
        change = add_run(job, "r1", "A", Level.BASE)
        return type_run(change.job, change.made[0], "3 x wardrobe share")

    empty_window.document.do(start)
    return empty_window


def test_ctrl_click_adds_bays_of_other_units_and_says_what_doors_would_replace(wardrobes: Window) -> None:
    w, hand = wardrobes, Hand(wardrobes)
    hand.unit("A1", dz=0.3)
    hand.unit("A1", dz=0.3)
    assert w.document.bay == (1,)
    hand.unit("A2", CONTROL, dz=0.3)
    hand.unit("A3", CONTROL, dz=0.3)
    assert [(ref.cell, ref.path) for ref in w.document.chosen] == [(cell(w, n), (1,)) for n in ("A1", "A2", "A3")]
    before = w.grab().toImage()
    hand.unit("A2", CONTROL, dz=0.3)
    assert len(w.document.chosen) == 2 and w.grab().toImage() != before
    hand.unit("A2", CONTROL, dz=0.3)
    hand.key(Qt.Key.Key_L, SHIFT)
    assert w.document.chosen == ()
    assert "replace the pair of doors of A1, A2, A3" in w.message.text.text()
    assert len(w.document.workings.made.sliding) == 1
    # Deleting them brings the doors back; undo too.
    QTest.keyClick(w.strip, Qt.Key.Key_Delete)
    assert not w.document.workings.made.sliding
    job = w.document.job
    assert all(child.front is not None for u in job.units for child in u.bay.children)


def test_bays_are_chosen_by_keys_too(wardrobes: Window) -> None:
    w, hand = wardrobes, Hand(wardrobes)
    w.document.select((Kind.CELL.of(cell(w, "A1")),))
    w.strip.setFocus()
    for number in ("A1", "A2"):
        w.document.select((Kind.CELL.of(cell(w, number)),))
        hand.key(Qt.Key.Key_Q)
        hand.key(Qt.Key.Key_G, SHIFT)
    assert len(w.document.chosen) == 2
    hand.key(Qt.Key.Key_Escape)
    assert w.document.chosen == ()
    assert w.document.cells == (cell(w, "A2"),)


def test_a_plain_click_lets_go_of_chosen_bays_and_so_do_another_room_and_job(wardrobes: Window) -> None:
    w, hand = wardrobes, Hand(wardrobes)

    def choose_two() -> None:
        hand.unit("A1", dz=0.3)
        if w.document.bay is None:
            hand.unit("A1", dz=0.3)
        hand.unit("A2", CONTROL, dz=0.3)
        assert len(w.document.chosen) == 2

    choose_two()
    hand.unit("A3")
    assert w.document.chosen == ()
    choose_two()
    w.document.undo()
    assert w.document.chosen == ()  # its units are gone
    w.document.redo()
    assert not seen_otherwise(w.document)


# --- feet


def test_what_a_unit_stands_on_is_decided_on_its_own_sheet(window: Window) -> None:
    w, hand = window, Hand(window)
    base = [p for p in w.document.room.placed if p.level is Level.BASE and p.is_solid and "feet" in _keys(w, p.number)]
    one = base[0].number
    hand.unit(one)
    assert "leg_left" not in _keys(w, one)
    choose(w, "feet", "legs")
    choose(w, "leg_shape", "round")
    for key, text in (("leg_left", "45"), ("leg_front", "80"), ("leg_size", "36"), ("underside", "140")):
        type_into(spec(w, key), text)
    p = placed(w, one)
    assert (p.feet, p.bottom) == ("legs", 140.0)
    assert [x.feet for x in w.document.room.placed if x.number in [b.number for b in base[1:]]] == ["plinth"] * (
        len(base) - 1
    )
    type_into(spec(w, "leg_left"), "-3")
    assert w.spec.line("leg_left").error.isVisible()
    hand.click(w.spec.line("feet").revert)
    assert placed(w, one).feet == "plinth"


def _keys(w: Window, number: str) -> set[str]:
    w.document.select((Kind.CELL.of(cell(w, number)),))
    return {name.rpartition("/")[2] for name in w.spec.lines}


@pytest.mark.parametrize("shift", [0.0, 150.0, 300.0, 700.0])
def test_heights_of_a_shelf_do_not_cover_the_numbers_of_those_above_and_below(
    empty_window: Window, shift: float
) -> None:
    w = empty_window
    w.resize(1000, 700)
    names = [shelf(w, 100.0 + (shift if i == 1 else 0.0), 800.0 + 300.0 * i, "A") for i in range(3)]
    w.document.do(lambda job: set_width(job, tuple(c.id for c in job.cells()), "1500"))
    w.document.select((Kind.CELL.of(placed(w, names[1]).cell),))
    dims = [d for d in w.strip.dims() if d.key in ("below", "above") and d.source and d.source.kind is Kind.CELL]
    assert {d.key for d in dims} == {"below", "above"}
    for dim in dims:
        begins = w.strip.to_px(offset(dim, w.strip.paper_scale), 0.0).x()
        ends = begins + w.strip.fontMetrics().horizontalAdvance(dim.text)
        for p in (placed(w, name) for name in names):
            middle = w.strip.to_px(w.strip.wall_x("A") + p.x + p.width / 2, 0.0).x()
            assert ends < middle - 8 or begins > middle + 8


@pytest.mark.parametrize("display", list(DisplayUnit))
def test_the_example_of_a_pitch_can_be_typed_as_it_stands(empty_window: Window, display: DisplayUnit) -> None:
    w = empty_window
    w.document.do(lambda job: set_display(job, display))
    w.document.do(lambda job: insert_unit(job, "r1", "A", "door"))
    w.document.select((Kind.CELL.of(w.document.job.cells()[0].id),))
    w.commands.run("repeat")
    example = w.message.text.text().partition("“")[2].partition("”")[0]
    assert example.startswith("3 @ ")
    type_into(w.strip.box, example)
    x = sorted(p.x for p in w.document.room.placed if p.number)
    assert len(x) == 4 and 899 < x[1] - x[0] < 915
