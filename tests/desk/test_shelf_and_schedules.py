"""The shelf, the tally and its schedules, pages as they print, the look."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QGuiApplication
from PyQt6.QtTest import QTest

from conftest import cell_of
from desk.conftest import cell, choose_display, move, placed, spec, strip_point, type_into
from tall_plank.desk.app.window import Window
from tall_plank.job import Kind

LEFT = Qt.MouseButton.LeftButton


def test_the_shelf_is_searched_and_enter_places_the_first(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A5")),))
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
    assert window.center.currentWidget() is window.plans
    assert window.boards.plan == window.document.workings.plan


def test_schedules_sort_filter_and_copy_as_text(window: Window) -> None:
    window.open_schedule("cut-list")
    window.table.group_by("")
    rows = window.table.rows
    everything = rows.rowCount()
    QTest.keyClicks(window.table.filter, "gable")
    assert 0 < rows.rowCount() < everything
    window.table.filter.clear()
    window.table.view.sortByColumn(4, Qt.SortOrder.AscendingOrder)
    lengths = [float(rows.index(r, 4).data()) for r in range(everything - 1)]
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
        assert {"Cost", "Tax 20 %", "Price before tax", "Price with tax", "More than is priced"} <= set(labels[-8:])


def test_a_row_takes_the_user_to_its_unit(window: Window) -> None:
    window.open_schedule("units")
    window.table.view.activated.emit(window.table.rows.index(1, 0))
    assert window.stage == "units"
    assert len(window.document.cells) == 1


def test_the_offer_lists_the_price_and_the_sets_of_drawings(window: Window) -> None:
    window.show_stage("offer")
    items = [window.lists.item(i).text() for i in range(window.lists.count())]  # type: ignore[union-attr]
    assert items == ["Price", "Estimate", "Client's set", "Site set", "Shop set", "Installer's set"]


def test_night_and_paper(window: Window) -> None:
    window.commands.run("look")
    light = window.strip.grab().toImage().pixelColor(5, 5).lightness()
    window.commands.run("look")
    assert light < 80 < window.strip.grab().toImage().pixelColor(5, 5).lightness()


def test_inches_show_everywhere_and_change_no_size(window: Window) -> None:
    old = window.document.workings.layout.placed
    choose_display(window, "in/16")
    assert window.document.workings.layout.placed == old
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    assert spec(window, "width").text() == "~23 5/8"
    window.commands.run("type_width")
    type_into(window.lines.box, '23 5/8"')
    assert placed(window, "A2").width == pytest.approx(600.075)
    assert spec(window, "width").text() == "23 5/8"


def test_nothing_jumps_when_values_change(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
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
