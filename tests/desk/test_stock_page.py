"""The page of stock in the window: found, shortlisted, used, read in; handles chosen by how they look."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.conftest import cell, spec, type_into
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.desk.pages.stock import StockPage
from tall_plank.job import Kind


def page_of(window: Window) -> StockPage:
    window.commands.run("stock")
    page = window.stock_page
    assert isinstance(page, StockPage)
    return page


def codes(page: StockPage) -> list[str]:
    return [e.code for e in page.model.rows]


def test_typing_finds_things_and_the_chosen_one_is_told(window: Window) -> None:
    page = page_of(window)
    type_into(page.search, "cup bronze", enter=False)
    assert codes(page) == ["HD-CUP-96"]
    assert page.name.text() == "Cup pull 96, bronze"
    assert "96 centers" in page.facts.text()
    assert "6.75 EUR" in page.facts.text()
    type_into(page.search, "nothing such", enter=False)
    assert codes(page) == []
    assert page.name.text() == "Nothing found"
    assert not page.use_units.isVisible()


def test_a_handle_is_put_on_selected_units_and_in_the_whole_job(window: Window) -> None:
    doc = window.document
    page = page_of(window)
    page.show_group("Handles")
    page.table.selectRow(codes(page).index("HD-BOW-128"))
    assert not page.use_units.isEnabled()
    doc.select((Kind.CELL.of(cell(window, "A2")),))
    QTest.mouseClick(page.use_units, Qt.MouseButton.LeftButton)
    pulls = {f.pull for f in doc.workings.made.of(doc.cells[0]).fronts}  # type: ignore[union-attr]
    assert pulls == {"HD-BOW-128"}
    page.table.selectRow(codes(page).index("HD-CUP-96"))
    QTest.mouseClick(page.use_job, Qt.MouseButton.LeftButton)
    assert doc.job.active_standard().values()["handle"] == "HD-CUP-96"
    window.commands.run("undo")
    window.commands.run("undo")
    assert doc.job.unit(doc.job.find_cell(doc.cells[0])[2].unit).own_value("handle") is None


def test_style_and_finish_narrow_the_handles(window: Window) -> None:
    page = page_of(window)
    page.show_group("Handles")
    page.style_box.setCurrentIndex(page.style_box.findData("bow"))
    page.style_box.activated.emit(page.style_box.currentIndex())
    assert set(codes(page)) == {"HD-BOW-128", "HD-BOW-160"}
    page.finish_box.setCurrentIndex(page.finish_box.findText("Brass"))
    page.finish_box.activated.emit(page.finish_box.currentIndex())
    assert codes(page) == []  # the knob's brass is another color than the bow's
    page.finish_box.setCurrentIndex(page.finish_box.findData("#B08A3E"))
    page.finish_box.activated.emit(page.finish_box.currentIndex())
    assert codes(page) == ["HD-BOW-160"]


def test_the_space_key_shortlists_and_what_is_shortlisted_comes_first(window: Window) -> None:
    doc = window.document
    page = page_of(window)
    page.show_group("Handles")
    page.table.selectRow(codes(page).index("HD-KNOB"))
    page.table.setFocus()
    QTest.keyClick(page.table, Qt.Key.Key_Space)
    assert doc.job.shortlist == ("HD-KNOB",)
    assert codes(page)[0] == "HD-KNOB"
    page.show_group("*")
    assert codes(page) == ["HD-KNOB"]
    doc.select((Kind.CELL.of(cell(window, "A2")),))
    assert window.spec.line("handle").row.choices[0][0] == "HD-KNOB"
    QTest.mouseClick(page.star, Qt.MouseButton.LeftButton)
    assert doc.job.shortlist == ()


def test_a_list_is_read_in_one_step_and_a_bad_one_is_told_there(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    doc = window.document
    page = page_of(window)
    path = tmp_path / "list.csv"
    monkeypatch.setattr(asking, "ask_read", lambda *_: path)
    path.write_text("code,name,kind,length_mm,price\nK1,Net knob,handle,dear,3\n")
    before = doc.job
    QTest.mouseClick(page.read, Qt.MouseButton.LeftButton)
    assert "row 2, length_mm" in page.error.text()
    assert doc.job is before
    path.write_text("code,name,kind,length_mm,price\nK1,Net knob,handle,31,3\n")
    QTest.mouseClick(page.read, Qt.MouseButton.LeftButton)
    assert page.error.text() == ""
    type_into(page.search, "net knob", enter=False)
    assert codes(page) == ["K1"]
    assert len(doc.history.names) == 1
    window.commands.run("undo")
    assert doc.job == before
    assert codes(page) == []


def test_the_menu_of_handles_shows_pictures_and_leads_to_the_page(window: Window, qtbot) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    menu = spec(window, "handle").menu()
    menu.aboutToShow.emit()
    shown = {a.data(): a for a in menu.actions() if a.data()}
    assert not shown["HD-BOW-128"].icon().isNull()
    assert shown["HD-BOW-128"].text() == "Bow pull 128, steel  ·  140 x 30"
    assert shown["none"].icon().isNull()
    with qtbot.waitSignal(window.spec.browse):
        menu.actions()[-1].trigger()
    assert window.stock_page is not None
    assert window.stock_page.group() == "Handles"


def test_what_was_asked_and_what_is_made_stand_on_the_sheet(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    row = window.spec.line("forced0").row
    assert row.label == "Depth of drawer 1"
    assert row.text == "535.8 → 500"
    assert "runners 500 long" in row.source
