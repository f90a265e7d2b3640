"""Moldings along units and own profiles in the real window."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from desk.conftest import cell, choose, spec, strip_point
from desk.conftest import type_into as type_over
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.desk.pages.profile import ProfileDialog
from tall_plank.job import Kind

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier
SECTION = (
    '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" viewBox="0 0 100 100">'
    '<path d="M12 90 L18 84 V70 A60 60 0 0 1 18 26 V14 L12 0 L0 10 V80 Z"/></svg>'
)


def put(w: Window, name: str) -> None:
    w.shelf.search.setFocus()
    QTest.keyClicks(w.shelf.search, name)
    QTest.keyClick(w.shelf.search, Qt.Key.Key_Return)
    w.shelf.search.clear()


def test_a_cornice_along_all_hung_units_then_along_the_chosen_ones(window: Window) -> None:
    w = window
    w.show_stage("units")
    w.document.select(())
    put(w, "unit cornice")
    (one,) = w.document.room.room.moldings
    assert one.kind == "unit cornice" and one.cells == () and not one.by_others
    assert w.document.selection == (Kind.MOLDING.of(one.id),), "it is selected"
    assert len(w.document.room.unit_moldings) == 5
    w.commands.run("undo")
    assert w.document.room.unit_moldings == ()
    # Two units by mouse, then the command of the Room menu.
    for number in ("A7", "A8"):
        more = Qt.KeyboardModifier.ControlModifier if number == "A8" else NONE
        QTest.mouseClick(w.strip, LEFT, more, strip_point(w, number))
    assert w.document.cells == (cell(w, "A7"), cell(w, "A8"))
    w.commands.run("place_light_rail")
    (rail,) = w.document.room.room.moldings
    assert rail.cells == (cell(w, "A7"), cell(w, "A8"))
    type_over(spec(w, "cells"), "A7")
    assert w.document.room.room.moldings[0].cells == (cell(w, "A7"),)
    type_over(spec(w, "cells"), "Q1")
    assert w.document.room.room.moldings[0].cells == (cell(w, "A7"),), "the last good ones are kept"
    type_over(spec(w, "out"), "-5")
    assert {round(p.start[1], 2) for p in w.document.room.unit_moldings} & {2400 - 330 + 5}


def test_a_cornice_where_nothing_hangs_is_refused_in_words(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("units")
    put(w, "unit cornice")
    assert w.document.room.room.moldings == ()
    assert "No unit of the room takes a unit cornice" in w.message.text.text()


def test_a_profile_is_read_seen_turned_and_taken(window: Window, tmp_path: Path, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    w = window
    path = tmp_path / "harbor cornice.svg"
    path.write_text(SECTION, encoding="utf-8")
    monkeypatch.setattr(asking, "ask_read", lambda *_: path)
    seen: list[tuple[str, str]] = []

    def fill() -> None:
        dialog = QApplication.activeModalWidget()
        assert isinstance(dialog, ProfileDialog)
        try:
            work(dialog)
        finally:
            dialog.reject()

    def work(dialog: ProfileDialog) -> None:
        assert dialog.name.text() == "harbor cornice" and dialog.code.text() == "HARBOR-CORNICE"
        assert dialog.high.text() == "90"
        QTest.mouseClick(dialog.turn, LEFT)
        seen.append(("turned", dialog.high.text()))
        for _ in range(3):
            QTest.mouseClick(dialog.turn, LEFT)
        QTest.mouseClick(dialog.flip, LEFT)
        QTest.mouseClick(dialog.flip, LEFT)
        dialog.use.setCurrentText("unit cornice")
        type_over(dialog.spring, "99", enter=False)
        dialog.accept()
        seen.append(("spring", dialog.error.text()))
        assert dialog.isVisible() and dialog.focusWidget() is dialog.spring
        type_over(dialog.spring, "40", enter=False)
        type_over(dialog.price, "6.5")  # Enter takes it

    QTimer.singleShot(0, fill)
    w.commands.run("read_profile")
    assert seen[0] == ("turned", "18") and "80°" in seen[1][1]
    profile = w.document.job.stock.profile("HARBOR-CORNICE")
    assert profile is not None and profile.spring == 40 and profile.uses == ("unit cornice",)
    assert w.stock_page is not None and w.stock_page.isVisible()
    assert w.stock_page.chosen() is not None and w.stock_page.chosen().code == "HARBOR-CORNICE"  # type: ignore[union-attr]
    w.stock_page.close()
    w.document.select(())
    w.commands.run("place_unit_cornice")
    choose(w, "profile", "HARBOR-CORNICE")
    assert {p.profile for p in w.document.room.unit_moldings} == {"HARBOR-CORNICE"}
    for _ in range(3):
        w.commands.run("undo")
    assert w.document.job.stock.profile("HARBOR-CORNICE") is None


@pytest.mark.parametrize("text", ["", "<svg/>", "no drawing"])
def test_a_drawing_without_a_section_is_told(window: Window, tmp_path: Path, monkeypatch, text: str) -> None:  # type: ignore[no-untyped-def]
    path = tmp_path / "empty.svg"
    path.write_text(text, encoding="utf-8")
    monkeypatch.setattr(asking, "ask_read", lambda *_: path)
    window.commands.run("read_profile")
    assert "empty.svg" in window.message.text.text() or "SVG" in window.message.text.text()
