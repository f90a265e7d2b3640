"""Boxes and keys, one rule everywhere: the first press takes all, Enter hands the keys back, undo is the job's."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QEvent, QPointF, Qt
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from desk.conftest import cell, placed, spec, strip_point
from tall_plank.desk.app.window import Window
from tall_plank.edits import runtext
from tall_plank.edits.runs import add_run
from tall_plank.job import Kind, Level

LEFT, CTRL, ALT = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.AltModifier
NONE = Qt.KeyboardModifier.NoModifier


@pytest.fixture
def on_width(window: Window) -> Window:
    """A window with a unit selected, the keys on the strip."""
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.strip.setFocus()
    return window


def focus() -> object:
    return QApplication.focusWidget()


def test_one_click_on_a_value_takes_all_of_it_to_be_typed_over(on_width: Window) -> None:
    w = on_width
    box = spec(w, "width")
    QTest.mouseClick(box, LEFT)
    assert box.selectedText() == box.text()
    QTest.keyClicks(box, "555")
    QTest.keyClick(box, Qt.Key.Key_Return)
    assert placed(w, "A2").width == 555
    # A second press sets the caret, as in any text.
    QTest.mouseClick(spec(w, "width"), LEFT)
    QTest.mouseClick(spec(w, "width"), LEFT)
    assert not spec(w, "width").hasSelectedText()


def test_enter_hands_the_keys_back_so_that_the_next_one_is_a_command(on_width: Window) -> None:
    w = on_width
    QTest.mouseClick(spec(w, "width"), LEFT)
    QTest.keyClicks(spec(w, "width"), "500")
    QTest.keyClick(spec(w, "width"), Qt.Key.Key_Return)
    assert focus() is w.strip and spec(w, "width").text() == "500"
    QTest.keyClick(focus(), Qt.Key.Key_Right)
    assert w.document.cells == (cell(w, "A3"),)


def test_enter_on_what_does_not_do_keeps_the_keys_in_the_box(on_width: Window) -> None:
    w = on_width
    before = w.document.job
    QTest.mouseClick(spec(w, "width"), LEFT)
    QTest.keyClicks(spec(w, "width"), "nonsense")
    QTest.keyClick(spec(w, "width"), Qt.Key.Key_Return)
    assert focus() is spec(w, "width") and w.document.job is before
    QTest.keyClick(spec(w, "width"), Qt.Key.Key_Escape)
    assert spec(w, "width").text() != "nonsense" and focus() is spec(w, "width")
    QTest.keyClick(spec(w, "width"), Qt.Key.Key_Escape)
    assert focus() is w.strip


def test_undo_after_enter_takes_the_step_back_and_nothing_is_applied_anew(on_width: Window) -> None:
    w = on_width
    before = w.document.job
    QTest.mouseClick(spec(w, "width"), LEFT)
    QTest.keyClicks(spec(w, "width"), "555")
    QTest.keyClick(spec(w, "width"), Qt.Key.Key_Return)
    QTest.keyClick(focus(), Qt.Key.Key_Z, CTRL)
    assert w.document.job == before
    QTest.mouseClick(spec(w, "width"), LEFT)  # in a box in which nothing is typed it is the job's too
    QTest.keyClick(spec(w, "width"), Qt.Key.Key_Y, CTRL)
    assert placed(w, "A2").width == 555
    QTest.keyClick(focus(), Qt.Key.Key_Z, CTRL)
    assert w.document.job == before
    w.strip.setFocus()
    assert w.document.job == before and not w.document.history.can_undo


def test_what_is_being_typed_is_taken_back_first(on_width: Window) -> None:
    w = on_width
    w.document.select((Kind.CELL.of(cell(w, "A2")),))
    box = spec(w, "width")
    old = box.text()
    QTest.mouseClick(box, LEFT)
    QTest.keyClicks(box, "7")
    QTest.keyClick(box, Qt.Key.Key_Z, CTRL)
    assert box.text() == old and w.document.history.names == ()


def test_tab_applies_and_goes_to_the_next_value_with_all_of_it_taken(on_width: Window) -> None:
    w = on_width
    QTest.mouseClick(spec(w, "width"), LEFT)
    QTest.keyClicks(spec(w, "width"), "510")
    QTest.keyClick(spec(w, "width"), Qt.Key.Key_Tab)
    assert placed(w, "A2").width == 510
    assert focus() is not spec(w, "width") and focus() is not None and w.spec.isAncestorOf(focus())


@pytest.mark.parametrize("held", [ALT, CTRL])
def test_a_digit_with_a_modifier_types_no_width(on_width: Window, held: Qt.KeyboardModifier) -> None:
    w = on_width
    w.lines.setFocus()
    QTest.keyClick(w.lines, Qt.Key.Key_3, held)
    assert not w.lines.box.isVisible()
    w.show_stage("units")  # with Alt a digit leads to another stage, with Ctrl it selects
    w.document.select((Kind.CELL.of(cell(w, "A2")),))
    w.lines.setFocus()
    QTest.keyClick(w.lines, Qt.Key.Key_3)
    assert w.lines.box.isVisible() and w.lines.box.text() == "3"


def test_tab_at_the_end_of_a_run_goes_to_the_next_run(on_width: Window) -> None:
    w = on_width
    w.document.do(lambda job: add_run(job, "r1", "B", Level.BASE), select_new=False)
    run = next(r for _, r in w.document.job.runs() if r.wall == "B")
    w.document.do(lambda job: runtext.type_run(job, run.id, "door 450"), select_new=False)
    last = [c.id for c in next(r for _, r in w.document.job.runs() if r.wall == "A").cells][-1]
    w.document.select((Kind.CELL.of(last),))
    w.lines.type_cell(last)
    QTest.keyClick(w.lines.box, Qt.Key.Key_Tab)
    assert w.document.cells == (cell(w, "B1"),) and w.lines.box.isVisible()


def test_the_square_of_a_unit_beside_a_gap_is_dragged_though_a_dimension_runs_through_it(window: Window) -> None:
    run = window.document.job.runs()[0][1].id
    window.document.do(lambda job: runtext.type_run(job, run, "door 600, gap 400, door 600"), select_new=False)
    number = window.document.job.cells()[0].number
    window.document.select((Kind.CELL.of(cell(window, number)),))
    at = strip_point(window, number, 1.0, 0.5)
    typed = []
    window.strip.dim_clicked.connect(typed.append)
    # Wherever a dimension may run: one through the square itself.
    window.strip.dim_at = lambda p: object()  # type: ignore[method-assign]
    QTest.mouseMove(window.strip, at)
    QTest.mousePress(window.strip, LEFT, NONE, at)
    to = QPointF(strip_point(window, number, 1.1, 0.5))
    move = QMouseEvent(QEvent.Type.MouseMove, to, LEFT, LEFT, NONE)
    QApplication.sendEvent(window.strip, move)
    QTest.mouseRelease(window.strip, LEFT, NONE, to.toPoint())
    assert not typed and placed(window, number).width > 640


def test_what_is_off_or_hidden_is_said_and_not_carried_into_another_job(window: Window, tmp_path) -> None:
    from tall_plank.desk.views.stripmarks import seen_otherwise
    from tall_plank.files.plankfile import write_plank
    from tall_plank.job.start import new_job

    doc = window.document
    assert seen_otherwise(doc) == ()
    before = window.strip.grab().toImage()
    window.commands.run("fronts_off")
    doc.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("hide")
    doc.show_for_shop(True)
    assert seen_otherwise(doc) == ("fronts off", "1 unit hidden", "drawn for the shop")
    assert window.strip.grab().toImage() != before
    window.document.history.mark_saved()
    write_plank(new_job("Other"), tmp_path / "other.plank")
    assert window.open_path(tmp_path / "other.plank")
    assert seen_otherwise(doc) == () and doc.fronts == "closed"


def test_escape_never_leaves_the_wall_or_the_face_that_is_worked_on(window: Window) -> None:
    from tall_plank.edits.things.island import add_island

    strip, doc = window.strip, window.document
    doc.do(lambda job: add_island(job, "r1"), select_new=False)
    for wall in ("C", "K2", "B"):
        doc.select((Kind.WALL.of(wall),))
        strip.setFocus()
        assert strip.current_wall() == wall
        QTest.keyClick(strip, Qt.Key.Key_Escape)
        assert doc.selection == () and strip.current_wall() == wall
    # A wall that is gone is left; another job begins at its first.
    window.commands.run("undo")
    assert strip.current_wall() == "B"
