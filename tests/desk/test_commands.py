"""Commands: menus, keys, find, clipboard, undo."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QGuiApplication
from PyQt6.QtTest import QTest

from desk.conftest import cell, placed
from tall_plank.desk.app import dialogs
from tall_plank.desk.app.application import open_window
from tall_plank.desk.app.menus import TITLES
from tall_plank.desk.app.window import Window
from tall_plank.job import Kind
from tall_plank.job.start import new_job


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
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    assert window.commands.actions["delete"].isEnabled()


def test_find_a_command_by_part_of_its_name(window: Window) -> None:
    window.commands.run("find")
    QTest.keyClicks(window.bar.find_box, "Stage: Shop")
    QTest.keyClick(window.bar.find_box, Qt.Key.Key_Return)
    assert window.stage == "shop"


def test_the_keys_of_tools_work_from_the_strip(window: Window) -> None:
    window.strip.setFocus()
    window.document.select((Kind.CELL.of(cell(window, "A5")),))
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
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("delete")
    assert "delete a unit" in window.commands.actions["undo"].text().lower()
    window.commands.run("undo")
    assert placed(window, "A2").width == 600
    window.commands.run("redo")
    assert "A2" not in {p.number for p in window.document.room.placed}
    assert window.document.selection == ()


def test_selecting_alike_and_by_level(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A8")),))
    window.commands.run("select_alike")
    assert {window.document.job.find_cell(c)[2].number for c in window.document.cells} == {"A8", "A9"}
    window.commands.run("select_level")
    assert len(window.document.cells) == 4
    window.commands.run("select_none")
    assert window.document.selection == ()


def test_copy_and_paste_between_two_windows(window: Window, qtbot, folders) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")), Kind.CELL.of(cell(window, "A7"))))
    window.commands.run("copy")
    other = open_window(new_job("Other"), folders)
    other.model._failed = "left out"
    other.document.select((Kind.WALL.of("B"),))
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
    window.document.select((Kind.CELL.of(cell(window, "A5")),))
    window.commands.run("duplicate")
    assert [p.number for p in window.document.room.runs[0].cells][5] == "A11"
    window.commands.run("cut")
    assert "A11" not in {p.number for p in window.document.room.placed}
