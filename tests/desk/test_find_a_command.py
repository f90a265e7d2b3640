from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.conftest import cell
from tall_plank.desk.app.window import Window
from tall_plank.job import Kind


def test_a_command_is_found_before_the_box_ever_had_the_keys(window: Window) -> None:
    find = window.bar.find_box
    find.setText("cutting no such thing")
    QTest.keyClick(find, Qt.Key.Key_Return)
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    find.setText("duplicate")
    count = len(window.document.job.cells())
    QTest.keyClick(find, Qt.Key.Key_Return)
    assert len(window.document.job.cells()) == count + 1


def test_what_no_longer_applies_is_not_done(window: Window) -> None:
    find = window.bar.find_box
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    find.setFocus()
    window.document.select(())
    count = len(window.document.job.cells())
    find.setText("duplicate")
    QTest.keyClick(find, Qt.Key.Key_Return)
    assert len(window.document.job.cells()) == count
