"""Run lines and runs typed as text."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from desk.conftest import cell, choose_display, drag, placed, spec, type_into
from tall_plank.desk.app.window import Window
from tall_plank.desk.views.runlines import shortened
from tall_plank.edits import rooms
from tall_plank.job import Kind
from tall_plank.measure import DisplayUnit, format_length

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier


def test_cells_line_up_with_the_strip_and_show_what_is_left(window: Window) -> None:
    boxes = {b.cell: b for b in window.lines.boxes() if b.cell}
    p = placed(window, "A3")
    assert boxes[p.cell].rect.x() == pytest.approx(window.strip.to_px(p.x, 0).x())
    ends = [b for b in window.lines.boxes() if not b.cell]
    assert {(b.text, b.tone) for b in ends} == {("0", "moss"), ("200 left", "quiet")}


def test_tab_walks_along_typing(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("type_width")
    QTest.keyClicks(window.lines.box, "500")
    QTest.keyClick(window.lines.box, Qt.Key.Key_Tab)
    assert window.document.cells == (cell(window, "A3"),)
    QTest.keyClicks(window.lines.box, "80cm")
    QTest.keyClick(window.lines.box, Qt.Key.Key_Return)
    assert (placed(window, "A2").width, placed(window, "A3").width) == (500, 800)


def test_share_and_rest_are_widths_too(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A5")),))
    window.commands.run("type_width")
    type_into(window.lines.box, "share")
    assert spec(window, "rule").text() == "share"
    window.commands.run("rest")
    assert spec(window, "rule").text() == "rest"


def test_text_in_a_width_says_what_is_wrong(window: Window) -> None:
    job = window.document.job
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("type_width")
    for text in ("wide", "20", "90000", "600/0", ""):
        type_into(window.lines.box, text)
        assert window.lines.box.isVisible(), text
        assert window.lines.box._error.text(), text
    assert window.document.job is job


def test_a_box_left_as_it_was_changes_nothing(window: Window) -> None:
    choose_display(window, "in")
    job = window.document.job
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("type_width")
    QTest.keyClick(window.lines.box, Qt.Key.Key_Return)
    assert window.document.job is job


def test_a_run_longer_than_its_wall_is_red_and_a_snag(window: Window) -> None:
    window.commands.run("type_base")
    type_into(window.run_text.box, "pair 1200, pair 1200, pair 1200, door 450")
    end = next(b for b in window.lines.boxes() if not b.cell and b.run == window.document.room.runs[0].run.id)
    assert (end.text, end.tone) == ("short 450", "oxide")
    rules = [s.rule for s in window.document.workings.snags if s.weight == "wrong"]
    assert rules == ["run length"]


def test_a_wrong_run_text_keeps_the_text_and_names_the_piece(window: Window) -> None:
    job = window.document.job
    window.commands.run("type_base")
    type_into(window.run_text.box, "door 600, sofa 900")
    assert window.run_text.isVisible()
    assert "sofa" in window.run_text.note.text()
    assert window.run_text.box.selectedText() == "sofa 900"
    assert window.document.job is job
    QTest.keyClick(window.run_text.box, Qt.Key.Key_Escape)
    assert not window.run_text.isVisible()


def test_enter_on_a_wrong_width_keeps_what_was_typed(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("type_width")
    type_into(window.lines.box, "2 parsecs")
    assert window.lines.box.text() == "2 parsecs"
    error = window.lines.box._error
    assert error.isVisible()
    assert window.rect().contains(error.geometry())
    # said once, at its place
    assert not window.message.isVisible()


def test_cells_are_sized_and_ordered_by_mouse_on_the_run_line(window: Window) -> None:
    boxes = {b.cell: b.rect for b in window.lines.boxes() if b.cell}
    rect = boxes[cell(window, "A2")]
    start = QPointF(rect.right() - 1, rect.center().y()).toPoint()
    drag(window.lines, start, start + QPoint(round(100 * window.strip.scale), 0))
    assert placed(window, "A2").width == pytest.approx(700, abs=1.6 / window.strip.scale)
    assert window.document.history.undo_name == "Resize A2"
    boxes = {b.cell: b.rect for b in window.lines.boxes() if b.cell}
    end = boxes[cell(window, "A5")]
    drag(
        window.lines, boxes[cell(window, "A2")].center().toPoint(), QPointF(end.right() - 8, end.center().y()).toPoint()
    )
    assert [p.number for p in window.document.room.runs[0].cells] == ["A1", "A3", "A4", "A5", "A2", "A6"]
    assert not window.lines.box.isVisible()


def test_a_second_click_on_a_cell_types_its_width(window: Window) -> None:
    rect = next(b.rect for b in window.lines.boxes() if b.cell == cell(window, "A3"))
    QTest.mouseClick(window.lines, LEFT, NONE, rect.center().toPoint())
    assert not window.lines.box.isVisible()
    QTest.mouseClick(window.lines, LEFT, NONE, rect.center().toPoint())
    assert window.lines.box.isVisible()
    type_into(window.lines.box, "850")
    assert placed(window, "A3").width == 850


def test_any_digit_on_a_run_line_starts_a_width_though_some_are_keys_of_views(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.lines.setFocus()
    for digit in "450":
        QTest.keyClick(QApplication.focusWidget(), digit)
    QTest.keyClick(QApplication.focusWidget(), Qt.Key.Key_Return)
    assert placed(window, "A2").width == 450
    assert window.view_shown == "all"
    window.strip.setFocus()
    QTest.keyClick(window.strip, "1")
    assert window.view_shown == "strip"


def test_the_names_of_the_shelf_are_taken_too_and_words_are_completed(window: Window) -> None:
    window.commands.run("type_base")
    box = window.run_text.box
    type_into(box, "Pair of doors 900, slanted end left 300, pull-out 300")
    assert [p.template for p in window.document.room.runs[0].cells] == ["pair", "end-left", "pullout"]
    window.commands.run("type_base")
    box.clear()
    QTest.keyClicks(box, "door 600, 2 x pul")
    popup = box.menu.popup()
    assert popup.isVisible()
    QTest.keyClick(popup, Qt.Key.Key_Down)
    QTest.keyClick(popup, Qt.Key.Key_Return)
    assert box.text() == "door 600, 2 x pull-out " and not popup.isVisible()
    QTest.keyClicks(box, "300")
    QTest.keyClick(box, Qt.Key.Key_Return)
    assert [p.template for p in window.document.room.runs[0].cells] == ["door", "pullout", "pullout"]


def test_the_remainder_counts_what_will_stand_at_the_ends(empty_window: Window) -> None:
    w = empty_window
    w.document.do(lambda job: rooms.set_room_length(job, "r1", "width", "3040"))
    w.commands.run("type_base")
    QTest.keyClicks(w.run_text.box, "4 x door share")
    told = w.run_text.note.text()
    assert "650 mm for what is shared" in told and "440 mm left" in told
    assert "Door stops at 650" in told and "door 200 to 800" in told
    w.run_text.box.clear()
    QTest.keyClicks(w.run_text.box, "4 x door 200 to 800")
    assert "760 mm for what is shared, 0 mm left" in w.run_text.note.text()
    QTest.keyClick(w.run_text.box, Qt.Key.Key_Return)
    assert [p.width for p in w.document.room.runs[0].cells] == [760.0] * 4
    # A run round the corner: what the text says before the run is there is what the run then says.
    w.document.select((Kind.WALL.of("B"),))
    w.commands.run("type_base")
    QTest.keyClicks(w.run_text.box, "door 600")
    told = w.run_text.note.text()
    QTest.keyClick(w.run_text.box, Qt.Key.Key_Return)
    run = next(r for r in w.document.room.runs if r.wall.id == "B")
    assert f"{run.left:g} mm left" in told


@pytest.mark.parametrize("unit", list(DisplayUnit))
@pytest.mark.parametrize("mm", [12.0, 50.0, 300.0, 601.3, 2400.0])
def test_no_cell_of_a_run_line_goes_blank(window: Window, unit: DisplayUnit, mm: float) -> None:
    text = format_length(mm, unit)
    for room in (2.0, 8.0, 14.0, 22.0, 40.0, 200.0):
        shown, size = shortened(text, mm, unit, room, bold=True)
        assert shown.strip() and size >= 8
        assert shown in (text, "…") or (shown.startswith("~") and abs(float(shown[1:]) - mm / unit.factor) <= 0.5)
    assert shortened(text, mm, unit, 500.0, bold=False) == (text, 13)
