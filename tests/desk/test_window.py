"""Pieces of the window, driven by clicks, keys and drags."""

from __future__ import annotations

import json
import shutil
from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QGuiApplication
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from conftest import cell_of, dead_pid
from desk.conftest import cell, choose, drag, move, placed, spec, strip_point, type_into
from tall_plank.desk import dialogs
from tall_plank.desk.menus import TITLES
from tall_plank.desk.window import Window
from tall_plank.drawing.dimensions import offset
from tall_plank.files.plankfile import write_plank
from tall_plank.files.userdata import Autosave
from tall_plank.job import Job
from tall_plank.job.start import new_job
from tall_plank.stock.library import DATA

LEFT, CTRL = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ControlModifier
NONE = Qt.KeyboardModifier.NoModifier


# --- the strip by mouse


def test_a_click_selects_in_every_view(window: Window) -> None:
    QTest.mouseClick(window.strip, LEFT, NONE, strip_point(window, "A2"))
    chosen = (f"cell:{cell(window, 'A2')}",)
    assert window.document.selection == chosen
    assert window.plan.highlight == chosen
    assert window.spec.title.text().startswith("A2")


def test_ctrl_adds_and_takes_away(window: Window) -> None:
    QTest.mouseClick(window.strip, LEFT, NONE, strip_point(window, "A2"))
    QTest.mouseClick(window.strip, LEFT, CTRL, strip_point(window, "A3"))
    assert len(window.document.cells) == 2
    QTest.mouseClick(window.strip, LEFT, CTRL, strip_point(window, "A2"))
    assert window.document.cells == (cell(window, "A3"),)


def test_a_drag_along_the_run_changes_the_order_in_one_step(window: Window) -> None:
    before = len(window.document.history.names)
    drag(window.strip, strip_point(window, "A2"), strip_point(window, "A5", 0.9))
    order = [p.number for p in window.document.room.runs[0].cells]
    assert order == ["A1", "A3", "A4", "A5", "A2", "A6"]
    assert len(window.document.history.names) == before + 1
    window.commands.run("undo")
    assert [p.number for p in window.document.room.runs[0].cells][1] == "A2"


def test_escape_gives_a_drag_up(window: Window) -> None:
    job = window.document.job
    drag(window.strip, strip_point(window, "A2"), strip_point(window, "A5"), release=False)
    assert window.document.job != job
    QTest.keyClick(window.strip, Qt.Key.Key_Escape)
    QTest.mouseRelease(window.strip, LEFT, NONE, strip_point(window, "A5"))
    assert window.document.job == job
    assert not window.document.history.can_undo


def test_the_grip_resizes_and_snaps_to_a_seam_of_the_other_run(window: Window) -> None:
    QTest.mouseClick(window.strip, LEFT, NONE, strip_point(window, "A2"))
    p = placed(window, "A2")
    start = window.strip.to_px(p.right, p.bottom + p.height / 2).toPoint()
    # the hung pair ends at 900: 4 px short of it snaps
    end = window.strip.to_px(900.0, p.bottom + p.height / 2).toPoint() + QPoint(-3, 0)
    drag(window.strip, start, end, release=False)
    assert "A7" in window.strip._snap
    QTest.mouseRelease(window.strip, LEFT, NONE, end)
    assert placed(window, "A2").right == 900
    assert window.document.history.undo_name == "Resize A2"


def test_a_window_of_the_mouse_selects_what_lies_inside(window: Window) -> None:
    top = window.strip.to_px(-20.0, 2200.0).toPoint()
    bottom = window.strip.to_px(2700.0, 1380.0).toPoint()
    drag(window.strip, top, bottom)
    assert {window.document.job.find_cell(c)[2].number for c in window.document.cells} == {"A7", "A8"}


def test_an_opening_is_dragged_along_its_wall(window: Window) -> None:
    window.show_stage("room")
    window.place_on_wall("window", "C", 200.0)
    (opening,) = window.document.room.room.openings
    x = window.strip.wall_x("C")
    start = window.strip.to_px(x + 300, 1500).toPoint()
    drag(window.strip, start, start + QPoint(round(500 * window.strip.scale), 0))
    moved = window.document.room.room.openings[0]
    assert moved.x.mm == pytest.approx(opening.x.mm + 500, abs=12)


def test_a_kind_dropped_between_two_units_stands_between_them(window: Window) -> None:
    window.place_on_wall("door", "A", placed(window, "A3").x + 10)
    order = [p.number for p in window.document.room.runs[0].cells]
    assert order[:4] == ["A1", "A2", "A11", "A3"]
    window.place_on_wall("hung-open", "B", 100.0)
    assert any(r.run.wall == "B" for r in window.document.room.runs)


def test_zoom_keeps_the_point_under_the_pointer(window: Window) -> None:
    about = QPointF(300.0, 200.0)
    before = window.strip.to_mm(about)
    window.strip.zoom(1.7, about)
    assert window.strip.to_mm(about) == pytest.approx(before)
    window.strip.fit()
    assert window.strip.fitted


# --- typing on the drawing


def test_a_clear_distance_is_clicked_and_typed(window: Window) -> None:
    window.document.select((f"cell:{cell(window, 'A7')}",))
    dim = next(d for d in window.strip.extra_dims if d.key == "right")
    at = window.strip.to_px((dim.a + dim.b) / 2, offset(dim, window.strip.paper_scale)).toPoint()
    QTest.mouseClick(window.strip, LEFT, NONE, at)
    assert window.strip.box.isVisible()
    assert window.strip.box.text() == "900"
    type_into(window.strip.box, "700")
    assert placed(window, "A7").x == 200
    assert not window.strip.box.isVisible()


def test_a_wrong_distance_says_why_at_its_place_and_changes_nothing(window: Window) -> None:
    job = window.document.job
    window.document.select((f"cell:{cell(window, 'A7')}",))
    window.commands.run("type_clear_right")
    type_into(window.strip.box, "6 parsecs")
    assert window.strip.box.isVisible()
    assert "parsecs" in window.strip.box._error.text()
    assert window.document.job is job
    QTest.keyClick(window.strip.box, Qt.Key.Key_Escape)
    assert not window.strip.box.isVisible()


def test_the_rooms_dimension_is_typed_in_the_plan(window: Window) -> None:
    dim = next(d for d in window.plan.dims() if d.key == "width")
    at = window.plan.to_px((dim.a + dim.b) / 2, offset(dim, window.plan.paper_scale)).toPoint()
    QTest.mouseClick(window.plan, LEFT, NONE, at)
    type_into(window.plan.box, "3m + 700")
    assert window.document.room.room.outline.width.mm == 3700
    assert placed(window, "A6").width == 1000  # an open unit takes at most that; 100 are left
    assert window.document.room.runs[0].left == pytest.approx(100)


def test_units_are_picked_and_dragged_in_the_plan(window: Window) -> None:
    p = placed(window, "A2")
    x, y, _ = p.frame.out((p.width / 2, -p.depth / 2, 0))
    q = placed(window, "A5")
    x2, y2, _ = q.frame.out((q.width * 0.9, -q.depth / 2, 0))
    drag(window.plan, window.plan.to_px(x, y).toPoint(), window.plan.to_px(x2, y2).toPoint())
    assert [p.number for p in window.document.room.runs[0].cells][4] == "A2"


# --- run lines


def test_cells_line_up_with_the_strip_and_show_what_is_left(window: Window) -> None:
    boxes = {b.cell: b for b in window.lines.boxes() if b.cell}
    p = placed(window, "A3")
    assert boxes[p.cell].rect.x() == pytest.approx(window.strip.to_px(p.x, 0).x())
    ends = [b for b in window.lines.boxes() if not b.cell]
    assert {(b.text, b.tone) for b in ends} == {("0", "moss"), ("200 left", "quiet")}


def test_tab_walks_along_typing(window: Window) -> None:
    window.document.select((f"cell:{cell(window, 'A2')}",))
    window.commands.run("type_width")
    QTest.keyClicks(window.lines.box, "500")
    QTest.keyClick(window.lines.box, Qt.Key.Key_Tab)
    assert window.document.cells == (cell(window, "A3"),)
    QTest.keyClicks(window.lines.box, "80cm")
    QTest.keyClick(window.lines.box, Qt.Key.Key_Return)
    assert (placed(window, "A2").width, placed(window, "A3").width) == (500, 800)


def test_share_and_rest_are_widths_too(window: Window) -> None:
    window.document.select((f"cell:{cell(window, 'A5')}",))
    window.commands.run("type_width")
    type_into(window.lines.box, "share")
    assert spec(window, "rule").text() == "share"
    window.commands.run("rest")
    assert spec(window, "rule").text() == "rest"


def test_text_in_a_width_says_what_is_wrong(window: Window) -> None:
    job = window.document.job
    window.document.select((f"cell:{cell(window, 'A2')}",))
    window.commands.run("type_width")
    for text in ("wide", "20", "90000", "600/0", ""):
        type_into(window.lines.box, text)
        assert window.lines.box.isVisible(), text
        assert window.lines.box._error.text(), text
    assert window.document.job is job


def test_a_box_left_as_it_was_changes_nothing(window: Window) -> None:
    choose_display(window, "in")
    job = window.document.job
    window.document.select((f"cell:{cell(window, 'A2')}",))
    window.commands.run("type_width")
    QTest.keyClick(window.lines.box, Qt.Key.Key_Return)
    assert window.document.job is job


def choose_display(window: Window, code: str) -> None:
    window.document.select(())
    window.show_stage("room")
    choose(window, "display", code)
    window.show_stage("units")


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
    assert window.run_text.box.cursorPosition() == 9
    assert window.document.job is job
    QTest.keyClick(window.run_text.box, Qt.Key.Key_Escape)
    assert not window.run_text.isVisible()


# --- spec sheet


def test_own_values_are_boxed_and_given_back_with_a_click(window: Window) -> None:
    window.document.select((f"cell:{cell(window, 'A2')}",))
    assert spec(window, "height").property("origin") == "inherited"
    assert "base_height" in spec(window, "height").toolTip()
    type_into(spec(window, "height"), "700")
    line = window.spec.line("height")
    assert line.value.property("origin") == "own"
    assert line.revert.isVisible()
    QTest.mouseClick(line.revert, LEFT)
    assert spec(window, "height").property("origin") == "inherited"
    assert spec(window, "height").text() == "730"


def test_many_selected_show_various_and_are_set_together(window: Window) -> None:
    window.commands.run("select_base")
    assert spec(window, "width").text() == "various"
    assert spec(window, "height").text() == "730"
    type_into(spec(window, "height"), "720")
    assert {p.height for p in window.document.room.runs[0].cells} == {720}
    type_into(spec(window, "width"), "450")
    assert "A1" in window.message.text.text()  # the filler is skipped, and said


def test_leaving_a_various_value_changes_nothing(window: Window) -> None:
    window.commands.run("select_base")
    job = window.document.job
    spec(window, "width").setFocus()
    assert spec(window, "width").text() == ""
    spec(window, "depth").setFocus()
    assert spec(window, "width").text() == "various"
    assert window.document.job is job


def test_a_wrong_value_is_named_at_its_line(window: Window) -> None:
    job = window.document.job
    window.document.select((f"cell:{cell(window, 'A2')}",))
    for key, text in (("height", "tall"), ("depth", "1"), ("drawers", "many"), ("bay1", "-5")):
        type_into(spec(window, key), text)
        line = window.spec.line(key)
        assert line.error.isVisible(), key
        assert line.value.property("wrong"), key
        QTest.keyClick(line.value, Qt.Key.Key_Escape)
        assert not line.error.isVisible()
    assert window.document.job is job


def test_choices_are_picked_from_their_menu(window: Window) -> None:
    window.document.select((f"cell:{cell(window, 'A5')}",))
    choose(window, "hand", "right")
    choose(window, "front_style", "framed")
    choose(window, "handle", "none")
    unit = window.document.workings.made.of(cell(window, "A5"))
    assert unit.fronts[0].hand == "right"  # type: ignore[union-attr]
    assert unit.fronts[0].style == "framed"  # type: ignore[union-attr]
    assert unit.fronts[0].handle is None  # type: ignore[union-attr]
    choose(window, "kind", "drawers")
    assert placed(window, "A5").template == "drawers"


def test_named_values_are_set_and_added_in_the_room_stage(window: Window) -> None:
    window.show_stage("room")
    window.document.select(())
    type_into(spec(window, "value_plinth"), "150")
    assert placed(window, "A2").bottom == 150
    type_into(spec(window, "value_new"), "eye_line = 1500")
    assert window.document.job.value("eye_line") == 1500
    for text in ("1500", "mm = 3", "a = a", "plinth2 = zzz"):
        type_into(spec(window, "value_new"), text)
        assert window.spec.line("value_new").error.isVisible(), text
    type_into(spec(window, "value_plinth"), "hung_bottom")
    assert "circle" in window.spec.line("value_plinth").error.text()


def test_the_standard_and_the_price_are_edited_in_their_stages(window: Window) -> None:
    window.show_stage("shop")
    type_into(spec(window, "gap_between"), "4")
    first, second, *_ = window.document.workings.made.of(cell(window, "A2")).fronts  # type: ignore[union-attr]
    assert first.z - second.z - second.height == pytest.approx(4)
    window.show_stage("offer")
    before = window.document.workings.price.net
    type_into(spec(window, "margin"), "30")
    assert window.document.workings.price.net > before
    type_into(spec(window, "margin"), "110")
    assert window.spec.line("margin").error.isVisible()


# --- commands


def test_every_command_stands_in_a_menu_and_has_a_text(window: Window) -> None:
    in_menus = {action for menu in window.menus.values() for action in menu.actions()}
    for name, command in window.commands.all.items():
        assert command.text, name
        assert command.menu in TITLES, name
        assert window.commands.actions[name] in in_menus, name


def test_no_two_commands_share_a_key(window: Window) -> None:
    keys = [key for command in window.commands.all.values() for key in command.keys]
    assert len(keys) == len(set(keys))


def test_commands_that_do_not_apply_are_grey(window: Window) -> None:
    window.document.select(())
    assert not window.commands.actions["delete"].isEnabled()
    window.commands.run("delete")
    window.document.select((f"cell:{cell(window, 'A2')}",))
    assert window.commands.actions["delete"].isEnabled()


def test_find_a_command_by_part_of_its_name(window: Window) -> None:
    window.commands.run("find")
    QTest.keyClicks(window.bar.find, "Stage: Shop")
    QTest.keyClick(window.bar.find, Qt.Key.Key_Return)
    assert window.stage == "shop"


def test_the_keys_of_tools_work_from_the_strip(window: Window) -> None:
    window.strip.setFocus()
    window.document.select((f"cell:{cell(window, 'A5')}",))
    QTest.keyClick(window.strip, Qt.Key.Key_M)
    assert window.document.workings.made.of(cell(window, "A5")).fronts[0].hand == "right"  # type: ignore[union-attr]
    QTest.keyClick(window.strip, Qt.Key.Key_Left, Qt.KeyboardModifier.AltModifier)
    assert [p.number for p in window.document.room.runs[0].cells][3] == "A5"
    QTest.keyClick(window.strip, Qt.Key.Key_Right)
    assert window.document.cells == (cell(window, "A4"),)
    QTest.keyClick(window.strip, Qt.Key.Key_2)
    assert window.plan.isVisible()
    assert not window.strip.isVisible()


def test_the_key_sheet_lists_every_key(window: Window, qtbot) -> None:
    sheet = dialogs.KeySheet(window, window.commands, TITLES)
    from PyQt6.QtWidgets import QLabel

    shown = " ".join(label.text() for label in sheet.findChildren(QLabel))
    for command in window.commands.all.values():
        for key in command.keys:
            assert key in shown
    sheet.reject()


def test_undo_names_its_step_and_redo_does_it_again(window: Window) -> None:
    window.document.select((f"cell:{cell(window, 'A2')}",))
    window.commands.run("delete")
    assert "delete a unit" in window.commands.actions["undo"].text().lower()
    window.commands.run("undo")
    assert placed(window, "A2").width == 600
    window.commands.run("redo")
    assert "A2" not in {p.number for p in window.document.room.placed}
    assert window.document.selection == ()


def test_selecting_alike_and_by_level(window: Window) -> None:
    window.document.select((f"cell:{cell(window, 'A8')}",))
    window.commands.run("select_alike")
    assert {window.document.job.find_cell(c)[2].number for c in window.document.cells} == {"A8", "A9"}
    window.commands.run("select_level")
    assert len(window.document.cells) == 4
    window.commands.run("select_none")
    assert window.document.selection == ()


def test_copy_and_paste_between_two_windows(window: Window, qtbot, folders) -> None:
    window.document.select((f"cell:{cell(window, 'A2')}", f"cell:{cell(window, 'A7')}"))
    window.commands.run("copy")
    other = Window(new_job("Other"), folders)
    other.model._failed = "left out"
    other.document.select(("wall:B",))
    other.commands.run("paste")
    assert [p.number for p in other.document.room.placed] == ["B1", "B2"]
    clipboard = QGuiApplication.clipboard()
    assert clipboard is not None
    clipboard.setText("something else")
    other.commands.run("paste")
    assert "no units" in other.message.text.text()
    other.document.history.mark_saved()
    other.close()


def test_duplicate_and_cut(window: Window) -> None:
    window.document.select((f"cell:{cell(window, 'A5')}",))
    window.commands.run("duplicate")
    assert [p.number for p in window.document.room.runs[0].cells][5] == "A11"
    window.commands.run("cut")
    assert "A11" not in {p.number for p in window.document.room.placed}


# --- shelf, schedules


def test_the_shelf_is_searched_and_enter_places_the_first(window: Window) -> None:
    window.document.select((f"cell:{cell(window, 'A5')}",))
    QTest.keyClicks(window.shelf.search, "drawer")
    QTest.keyClick(window.shelf.search, Qt.Key.Key_Return)
    cells = window.document.room.runs[0].cells
    assert cells[5].template == "drawers"
    assert window.document.cells == (cells[5].cell,)


def test_every_figure_of_the_tally_opens_its_schedule(window: Window) -> None:
    for name, title in (("parts", "Cut list"), ("edging", "Edging"), ("fittings", "Hardware schedule"), ("price", "Price"),
                        ("snags", "Snags"), ("units", "Units")):  # fmt: skip
        QTest.mouseClick(window.tally.figures[name], LEFT)
        assert window.table.title.text() == title
    QTest.mouseClick(window.tally.figures["boards"], LEFT)
    assert window.center.currentWidget() is window.boards
    assert window.boards.plan == window.document.workings.plan


def test_schedules_sort_filter_and_copy_as_text(window: Window) -> None:
    window.open_schedule("cut-list")
    rows = window.table.rows
    everything = rows.rowCount()
    QTest.keyClicks(window.table.filter, "gable")
    assert 0 < rows.rowCount() < everything
    window.table.filter.clear()
    window.table.view.sortByColumn(4, Qt.SortOrder.AscendingOrder)
    lengths = [float(rows.index(r, 4).data()) for r in range(everything)]
    assert lengths == sorted(lengths)
    window.table.view.selectRow(0)
    assert window.table.copy_text()
    clipboard = QGuiApplication.clipboard()
    assert clipboard is not None
    assert clipboard.text().count("\t") == rows.columnCount() - 1


def test_closing_rows_of_the_price_stay_last(window: Window) -> None:
    window.open_schedule("price")
    rows = window.table.rows
    for order in (Qt.SortOrder.AscendingOrder, Qt.SortOrder.DescendingOrder):
        window.table.view.sortByColumn(5, order)
        labels = [rows.index(r, 1).data() for r in range(rows.rowCount())]
        assert "Price before tax" in labels[-6:]
        assert "Cost" in labels[-6:]


def test_a_row_takes_the_user_to_its_unit(window: Window) -> None:
    window.open_schedule("units")
    window.table.view.activated.emit(window.table.rows.index(1, 0))
    assert window.stage == "units"
    assert len(window.document.cells) == 1


def test_pages_show_as_they_will_print(window: Window) -> None:
    window.show_stage("offer")
    items = [window.lists.item(i).text() for i in range(window.lists.count())]  # type: ignore[union-attr]
    assert items == ["Price", "Estimate", "Plan of Room", "Wall A north"]
    window.lists.setCurrentRow(3)
    assert window.sheet.sheet is not None
    assert window.sheet.sheet.drawing.title == "Wall A north"
    assert not window.sheet.grab().isNull()


# --- look and display


def test_night_and_paper(window: Window) -> None:
    window.commands.run("look")
    light = window.strip.grab().toImage().pixelColor(5, 5).lightness()
    window.commands.run("look")
    assert light < 80 < window.strip.grab().toImage().pixelColor(5, 5).lightness()


def test_inches_show_everywhere_and_change_no_size(window: Window) -> None:
    old = window.document.workings.layout.placed
    choose_display(window, "in/16")
    assert window.document.workings.layout.placed == old
    window.document.select((f"cell:{cell(window, 'A2')}",))
    assert spec(window, "width").text() == "~23 5/8"
    window.commands.run("type_width")
    type_into(window.lines.box, '23 5/8"')
    assert placed(window, "A2").width == pytest.approx(600.075)
    assert spec(window, "width").text() == "23 5/8"


# --- files and safety


def test_a_broken_file_leaves_the_job_in_place(window: Window, tmp_path: Path) -> None:
    job = window.document.job
    path = tmp_path / "x.plank"
    path.write_text("rubbish")
    assert not window.open_path(path)
    assert window.document.job is job
    assert "x.plank" in window.message.text.text()
    assert window.message.property("level") == "wrong"


def test_a_second_opening_is_read_only(window: Window, tmp_path: Path, folders, monkeypatch) -> None:
    path = tmp_path / "a.plank"
    write_plank(window.document.job, path)
    assert window.open_path(path)
    other = Window(new_job(), folders)
    other.model._failed = "left out"
    assert other.open_path(path)
    assert other.document.read_only
    assert "read-only" in other.windowTitle()
    monkeypatch.setattr(dialogs, "ask_save", lambda *a: tmp_path / "b.plank")
    other.commands.run("save")
    assert (tmp_path / "b.plank").exists()
    assert not other.document.read_only
    monkeypatch.setattr(dialogs, "ask_save", lambda *a: path)
    other.commands.run("save_as")
    assert "open in another window" in other.message.text.text()
    other.close()


def test_work_is_kept_within_seconds_and_put_away_when_saved(window: Window, qtbot, tmp_path: Path, folders) -> None:
    window._autosave_timer.setInterval(20)
    window.document.select((f"cell:{cell(window, 'A2')}",))
    window.commands.run("delete")
    assert window._autosave_timer.isActive()
    with qtbot.waitSignal(window._autosave_timer.timeout, timeout=3000):
        pass
    kept = list((folders.state / "autosave").glob("*.json"))
    assert len(kept) == 1
    window.document.save(tmp_path / "s.plank")
    assert not list((folders.state / "autosave").glob("*.json"))


def test_autosave_comes_within_five_seconds_of_an_edit(window: Window, qtbot, folders) -> None:
    assert window._autosave_timer.interval() < 5000
    window.document.select((f"cell:{cell(window, 'A2')}",))
    window.commands.run("delete")
    with qtbot.waitSignal(window._autosave_timer.timeout, timeout=5000):
        # later edits do not put the writing off
        for number in ("A3", "A4"):
            window.document.select((f"cell:{cell(window, number)}",))
            window.commands.run("delete")
    assert list((folders.state / "autosave").glob("*.json"))


def test_work_left_behind_is_offered_and_taken_up(window: Window, job: Job, folders) -> None:
    Autosave(folders).keep(job, None)
    (path,) = (folders.state / "autosave").glob("*.json")
    head, _, body = path.read_bytes().partition(b"\n")
    path.write_bytes(json.dumps({**json.loads(head), "pid": dead_pid()}).encode() + b"\n" + body)
    window.offer_recovery(Autosave.left_behind(folders))
    assert window.message.isVisible()
    from PyQt6.QtWidgets import QPushButton

    buttons = {b.text(): b for b in window.message.findChildren(QPushButton)}
    QTest.mouseClick(buttons["Take it up"], LEFT)
    assert window.document.job == job
    assert window.isWindowModified()
    assert not path.exists()


@pytest.mark.parametrize(("answer", "closes"), [("cancel", False), ("discard", True), ("save", True)])
def test_closing_with_unsaved_work_asks(window: Window, monkeypatch, tmp_path: Path, answer: str, closes: bool) -> None:
    window.document.select((f"cell:{cell(window, 'A2')}",))
    window.commands.run("delete")
    monkeypatch.setattr(dialogs, "ask_unsaved", lambda *a: answer)
    monkeypatch.setattr(dialogs, "ask_save", lambda *a: tmp_path / "c.plank")
    assert window.close() is closes
    assert (tmp_path / "c.plank").exists() is (answer == "save")


def test_preferences_are_kept(window: Window) -> None:
    dialog = dialogs.PreferencesDialog(window, window.preferences)
    dialog.display.setCurrentIndex(dialog.display.findData("ft-in"))
    dialog.accept()
    window.document.history.mark_saved()
    window.commands.run("new")
    assert window.document.job.display == "ft-in"
    assert window.stage == "room"


def test_a_defect_in_an_edit_is_one_plain_line_and_changes_nothing(window: Window, caplog) -> None:
    job = window.document.job

    def broken(_: Job):  # type: ignore[no-untyped-def]
        raise ZeroDivisionError("a defect")

    error = window.document.do(broken)
    assert error is not None
    assert window.document.job is job
    assert "Traceback" not in window.message.text.text()
    caplog.clear()


def test_nothing_jumps_when_values_change(window: Window) -> None:
    window.document.select((f"cell:{cell(window, 'A2')}",))
    places = {k: line.geometry() for k, line in window.spec.lines.items()}
    sizes = (window.strip.geometry(), window.plan.geometry(), window.tally.geometry())
    window.commands.run("type_width")
    type_into(window.lines.box, "555")
    assert {k: line.geometry() for k, line in window.spec.lines.items()} == places
    assert (window.strip.geometry(), window.plan.geometry(), window.tally.geometry()) == sizes
    assert window.document.cells == (cell(window, "A2"),)


def test_pointer_moves_without_a_button_change_nothing(window: Window) -> None:
    job = window.document.job
    for number in ("A2", "A5"):
        QTest.mouseMove(window.strip, strip_point(window, number))
    move(window.strip, strip_point(window, "A3"))
    assert window.document.job is job
    assert cell_of(job, "A2")


def test_enter_on_a_wrong_width_keeps_what_was_typed(window: Window) -> None:
    window.document.select((f"cell:{cell(window, 'A2')}",))
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
    assert placed(window, "A2").width == pytest.approx(700, abs=12)
    assert window.document.history.undo_name == "Resize A2"
    boxes = {b.cell: b.rect for b in window.lines.boxes() if b.cell}
    end = boxes[cell(window, "A5")]
    drag(
        window.lines, boxes[cell(window, "A2")].center().toPoint(), QPointF(end.right() - 8, end.center().y()).toPoint()
    )
    assert [p.number for p in window.document.room.runs[0].cells] == ["A1", "A3", "A4", "A5", "A2", "A6"]
    assert not window.lines.box.isVisible()


def test_stock_files_are_read_in_one_step_and_a_bad_one_is_named(window: Window, tmp_path: Path, monkeypatch) -> None:
    folder = tmp_path / "stock"
    shutil.copytree(DATA, folder)
    book = folder / "prices" / "quay-2026.toml"
    book.write_text(book.read_text().replace('code = "BP18", price = "24.50"', 'code = "BP18", price = "49.00"'))
    monkeypatch.setattr(dialogs, "ask_folder", lambda *a: folder)
    before = window.document.workings.price.net
    window.commands.run("read_stock")
    assert window.document.workings.price.net > before
    window.commands.run("undo")
    assert window.document.workings.price.net == before
    job = window.document.job
    (folder / "boards.toml").write_text("board = [{ code = 'X' }]")
    window.commands.run("read_stock")
    assert "boards.toml, board 1 (X)" in window.message.text.text()
    assert window.document.job is job
    finishes = (DATA / "finishes.toml").read_text().replace("sea-sage", "moor-sage")
    (folder / "finishes.toml").write_text(finishes)
    (folder / "boards.toml").write_text((DATA / "boards.toml").read_text().replace("sea-sage", "moor-sage"))
    window.commands.run("read_stock")
    assert "no finish “sea-sage”" in window.message.text.text()
    assert window.document.workings.tally.snags > 0


def test_recent_files_stand_in_their_menu(window: Window, tmp_path: Path) -> None:
    write_plank(new_job("Before"), tmp_path / "before.plank")
    window.preferences.add_recent(tmp_path / "before.plank")
    window.recent.aboutToShow.emit()
    (action,) = window.recent.actions()
    action.trigger()
    assert window.document.job.name == "Before"


def test_a_second_click_on_a_cell_types_its_width(window: Window) -> None:
    rect = next(b.rect for b in window.lines.boxes() if b.cell == cell(window, "A3"))
    QTest.mouseClick(window.lines, LEFT, NONE, rect.center().toPoint())
    assert not window.lines.box.isVisible()
    QTest.mouseClick(window.lines, LEFT, NONE, rect.center().toPoint())
    assert window.lines.box.isVisible()
    type_into(window.lines.box, "850")
    assert placed(window, "A3").width == 850


def test_a_named_value_is_taken_away_by_emptying_it(window: Window) -> None:
    window.show_stage("room")
    type_into(spec(window, "value_new"), "eye_line = 1500")
    box = spec(window, "value_eye_line")
    box.setFocus()
    box.selectAll()
    QTest.keyClick(box, Qt.Key.Key_Delete)
    QTest.keyClick(box, Qt.Key.Key_Return)
    assert "eye_line" not in window.document.job.named_values()
    box = spec(window, "value_plinth")
    box.setFocus()
    box.selectAll()
    QTest.keyClick(box, Qt.Key.Key_Delete)
    QTest.keyClick(box, Qt.Key.Key_Return)
    assert "used by" in window.spec.line("value_plinth").error.text()


def test_the_main_task_goes_with_the_keyboard_alone(empty_window: Window) -> None:
    w = empty_window

    def keys(text: str = "", key: Qt.Key | None = None, modifier: Qt.KeyboardModifier = NONE) -> None:
        at = QApplication.focusWidget() or w
        if text:
            QTest.keyClicks(at, text)
        if key is not None:
            QTest.keyClick(QApplication.focusWidget() or w, key, modifier)

    assert QApplication.focusWidget() is w.strip
    keys(key=Qt.Key.Key_1, modifier=Qt.KeyboardModifier.AltModifier)  # the room
    keys("s")
    for _ in range(2):
        keys(key=Qt.Key.Key_Tab)  # past the name and the use: on to the height, which stands before the width
    while QApplication.focusWidget() is not spec(w, "width"):
        keys(key=Qt.Key.Key_Tab)
    assert QApplication.focusWidget() is spec(w, "width")
    keys("4.2m", Qt.Key.Key_Return)
    assert w.document.room.room.outline.width.mm == 4200
    keys(key=Qt.Key.Key_2, modifier=Qt.KeyboardModifier.AltModifier)  # units
    w.strip.setFocus()
    keys("r")
    keys("filler 50, drawers 600, sink 900, dishwasher 600, door rest", Qt.Key.Key_Return)
    assert QApplication.focusWidget() is w.strip
    assert len(w.document.room.placed) == 5
    keys("..")  # the second unit
    assert w.document.cells == (cell(w, "A2"),)
    keys("w")
    keys("550", Qt.Key.Key_Return)
    assert placed(w, "A2").width == 550
    keys("p")
    keys("pair", Qt.Key.Key_Return)
    assert [p.template for p in w.document.room.runs[0].cells][2] == "pair"
    w.strip.setFocus()
    keys(key=Qt.Key.Key_Delete)
    keys(key=Qt.Key.Key_Z, modifier=CTRL)
    assert len(w.document.room.placed) == 6


def test_any_digit_on_a_run_line_starts_a_width_though_some_are_keys_of_views(window: Window) -> None:
    window.document.select((f"cell:{cell(window, 'A2')}",))
    window.lines.setFocus()
    for digit in "450":
        QTest.keyClick(QApplication.focusWidget(), digit)
    QTest.keyClick(QApplication.focusWidget(), Qt.Key.Key_Return)
    assert placed(window, "A2").width == 450
    assert window.view_shown == "all"
    window.strip.setFocus()
    QTest.keyClick(window.strip, "1")
    assert window.view_shown == "strip"


def test_the_shelf_draws_its_pictures_until_all_are_there(window: Window, qtbot) -> None:
    def all_drawn() -> bool:
        entries = window.shelf._entries
        return bool(entries) and all(not entry.icon.isNull() for entry in entries)

    qtbot.waitUntil(all_drawn, timeout=10_000)
    assert all(
        not item.icon().isNull()
        for i in range(window.shelf.list.count())
        if (item := window.shelf.list.item(i)) is not None and item.data(Qt.ItemDataRole.UserRole)
    )
    window.shelf.close_view()
    assert not window.shelf._later.isActive()
