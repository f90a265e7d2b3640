"""Making in the window: the standards page, own values and their source, looking into a unit."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.conftest import cell, choose, spec
from tall_plank.desk import dialogs
from tall_plank.desk.standardspage import StandardsPage
from tall_plank.desk.window import Window


def page_of(window: Window) -> StandardsPage:
    window.commands.run("standards")
    page = window.standards_page
    assert page is not None
    return page


def row(page: StandardsPage, key: str) -> int:
    return page._rows.index(key)


def column(page: StandardsPage, code: str) -> int:
    return 1 + [s.code for s in page.document.job.standards].index(code)


def test_another_standard_on_five_units_in_one_step_and_back(window: Window) -> None:
    doc = window.document
    doc.select(tuple(f"cell:{cell(window, f'A{i}')}" for i in range(1, 6)))
    before = [doc.workings.made.of(c) for c in doc.cells]
    page = page_of(window)
    page.table.setCurrentCell(1, column(page, "slip-cam"))
    steps = len(doc.history.names)
    QTest.mouseClick(page.apply, Qt.MouseButton.LeftButton)
    assert len(doc.history.names) == steps + 1
    codes = {i.code for c in doc.cells for i in doc.workings.made.of(c).items}  # type: ignore[union-attr]
    cams = {doc.job.standard_by("slip-cam").values()["cam"]}
    assert cams <= codes
    window.commands.run("undo")
    assert [doc.workings.made.of(c) for c in doc.cells] == before


def test_a_value_typed_on_the_page_reaches_the_units(window: Window, qtbot) -> None:
    doc = window.document
    page = page_of(window)
    page.table.setCurrentCell(row(page, "gap_between"), column(page, doc.job.standard))
    page.table.editItem(page.table.currentItem())
    editor = page.table.findChild(type(page.search))
    assert editor is not None
    editor.selectAll()
    QTest.keyClicks(editor, "5")
    with qtbot.waitSignal(doc.changed):
        QTest.keyClick(editor, Qt.Key.Key_Return)
    assert doc.job.active_standard().values()["gap_between"].mm == pytest.approx(5.0)  # type: ignore[union-attr]


def test_an_impossible_value_is_told_below_and_changes_nothing(window: Window) -> None:
    doc = window.document
    page = page_of(window)
    before = doc.job
    page.set_value(row(page, "back_groove_depth"), column(page, doc.job.standard), "18")
    assert doc.job is before
    assert "leaves less than 2 mm" in page.error.text()
    page.set_value(row(page, "back_groove_depth"), column(page, doc.job.standard), "7")
    assert page.error.text() == ""


def test_copy_write_and_read_a_standard(window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    doc = window.document
    page = page_of(window)
    page.name.setText("Loft way")
    QTest.keyClick(page.name, Qt.Key.Key_Return)
    assert doc.job.standards[-1].name == "Loft way"
    page.set_value(row(page, "gap_side"), column(page, "loft-way"), "4")
    page.table.setCurrentCell(1, column(page, "loft-way"))
    path = tmp_path / "loft-way.toml"
    monkeypatch.setattr(dialogs, "ask_save", lambda *_: path)
    monkeypatch.setattr(dialogs, "ask_read", lambda *_: path)
    page.write_current()
    QTest.mouseClick(page.remove, Qt.MouseButton.LeftButton)
    assert all(s.code != "loft-way" for s in doc.job.standards)
    page.read_file()
    assert doc.job.standard_by("loft-way").values()["gap_side"].mm == pytest.approx(4.0)  # type: ignore[union-attr]
    path.write_text("code = 3")
    page.read_file()
    assert page.error.text()


def test_only_where_they_differ_hides_the_rest(window: Window) -> None:
    page = page_of(window)
    all_rows = page.table.rowCount()
    page.only.setChecked(True)
    assert "joint" in page._rows and 5 < page.table.rowCount() < all_rows
    page.search.setText("joint")
    assert page.table.rowCount() < all_rows / 3


def test_an_inherited_choice_shows_its_source_is_overridden_and_reverted(window: Window) -> None:
    doc = window.document
    doc.select((f"cell:{cell(window, 'A2')}",))
    assert "standard" in spec(window, "joint").toolTip()
    inherited = spec(window, "joint").text()
    choose(window, "joint", "screw")
    assert spec(window, "joint").property("origin") == "own"
    assert spec(window, "joint").text() != inherited
    QTest.mouseClick(window.spec.line("joint").revert, Qt.MouseButton.LeftButton)
    assert spec(window, "joint").text() == inherited
    assert spec(window, "joint").property("origin") == "inherited"


def test_a_unit_is_looked_into_and_a_part_shows_its_holes(window: Window) -> None:
    doc = window.document
    doc.select((f"cell:{cell(window, 'A2')}",))
    window.commands.run("look_into")
    page = window.unit_page
    page.model._failed = "left out of this test"
    unit = doc.workings.made.of(doc.cells[0])
    assert unit is not None and page.parts.rowCount() == len(unit.parts)
    page.parts.setFocus()
    page.parts.selectRow(0)
    QTest.keyClick(page.parts, Qt.Key.Key_Down)
    at = page.parts.currentRow()
    assert at == 1
    assert page.parts.item(at, 5).text() == str(unit.parts[at].holes)  # type: ignore[union-attr]
    texts = " ".join(getattr(i, "text", "") for p in page.drawing.placed for i in p.drawing.items)
    assert "hole ø" in texts and unit.parts[at].material in texts
    QTest.keyClick(page, Qt.Key.Key_Escape)
    assert window.center.currentWidget() is not page


def test_what_is_looked_into_follows_an_edit(window: Window) -> None:
    doc = window.document
    doc.select((f"cell:{cell(window, 'A2')}",))
    window.commands.run("look_into")
    page = window.unit_page
    page.model._failed = "left out of this test"
    before = page.parts.item(0, 2).text()  # type: ignore[union-attr]
    from desk.conftest import type_into

    type_into(spec(window, "height"), "650")
    assert page.parts.item(0, 2).text() != before  # type: ignore[union-attr]
