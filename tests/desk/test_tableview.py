from __future__ import annotations

from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QGuiApplication

from desk.conftest import cell
from tall_plank.desk.app.listings import SHOP_LISTS
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.desk.views.tables import LEAST, SHORT, TablePane, column_widths
from tall_plank.edits import runs
from tall_plank.job import Kind
from tall_plank.papers import schedules
from tall_plank.papers.tables import groups_of
from tall_plank.papers.write_pdf import write_tables
from tall_plank.shop.cutlist import natural


def test_short_texts_and_figures_keep_their_width_and_long_ones_give_way() -> None:
    wanted = [80, 300, 60, 40, 700]
    assert column_widths(wanted, [False, False, True, False, False], [1, 1, 1, 1, 1], 600) == [80, 210, 60, 40, 210]


def test_what_one_does_not_need_goes_to_the_others() -> None:
    assert column_widths([120, 900], [False, False], [1, 1], 500) == [120, 380]


COLUMNS = st.lists(st.tuples(st.integers(20, 900), st.booleans(), st.integers(1, 5)), min_size=1, max_size=9)


@given(COLUMNS, st.integers(300, 1600))
def test_no_column_is_cut_while_there_is_room(columns: list[tuple[int, bool, int]], room: int) -> None:
    wanted, numbers, weights = ([c[k] for c in columns] for k in range(3))
    widths = column_widths(wanted, numbers, [float(w) for w in weights], room)
    if sum(wanted) <= room:
        assert all(w >= need for w, need in zip(widths, wanted, strict=True))
        assert sum(widths) <= room
    for width, need, number in zip(widths, wanted, numbers, strict=True):
        assert width >= need if number or need <= SHORT else width >= min(need, LEAST)


def test_columns_are_chosen_and_stay_chosen(window: Window, qtbot) -> None:
    window.open_schedule("cut-list")
    pane = window.table
    pane.group_by("")
    keys = [c.key for c in pane._shown[0].columns]
    actions = dict(zip(keys, pane.columns_menu.actions(), strict=True))
    for key in ("parts", "edges"):
        actions[key].trigger()
        assert pane.view.isColumnHidden(keys.index(key))
    pane.view.selectRow(0)
    assert pane.copy_text()
    clipboard = QGuiApplication.clipboard()
    assert len(clipboard.text().split("\t")) == len(keys) - 2
    window.open_schedule("orders")
    assert not pane.view.isColumnHidden(0)
    window.open_schedule("cut-list")
    assert pane.view.isColumnHidden(keys.index("edges"))
    # A change of the job shows the same columns.
    window.document.do(lambda job: runs.set_width(job, (cell(window, "A2"),), "610"))
    assert pane.view.isColumnHidden(keys.index("edges")) and not pane.view.isColumnHidden(1)
    for action in list(pane.columns_menu.actions()):
        if action.isChecked():
            action.trigger()
    assert sum(not pane.view.isColumnHidden(i) for i in range(len(keys))) == 1
    pane.columns_menu.actions()[0].trigger()
    assert not pane.view.isColumnHidden(0)


def test_orders_fronts_and_drawer_boxes_are_shop_lists(window: Window) -> None:
    for code in ("orders", "fronts", "drawers"):
        window.open_schedule(code)
        assert window.table.rows.rowCount() > 0, code


def shown_rows(pane: TablePane) -> list[list[str]]:
    return [
        [pane.rows.index(r, c).data() or "" for c in range(pane.rows.columnCount())]
        for r in range(pane.rows.rowCount())
    ]


def test_rows_are_grouped_with_their_sums_and_sorted_within(window: Window, qtbot) -> None:
    window.open_schedule("cut-list")
    pane = window.table
    table = pane._shown[0]
    keys = [c.key for c in table.columns]
    name, qty, material, weight = (keys.index(k) for k in ("name", "qty", "material", "weight"))
    assert pane.grouping.currentText() == "By material" and pane.view.isColumnHidden(material)
    materials = sorted({row[material] for row in table.rows}, key=natural)
    heads = [r for r in shown_rows(pane) if r[0] in materials]
    assert [r[0] for r in heads] == materials
    for head in heads:
        mine = [row for row in table.rows if row[material] == head[0]]
        assert int(head[qty]) == sum(row[qty] for row in mine)
        assert float(head[weight].replace(",", "")) == pytest.approx(sum(row[weight] for row in mine), abs=0.006)
    # A click on the head of a column sorts within the groups, whichever way.
    for order in (Qt.SortOrder.AscendingOrder, Qt.SortOrder.DescendingOrder):
        pane.view.sortByColumn(qty, order)
        rows = shown_rows(pane)
        assert [r[0] for r in rows if r[0] in materials] == materials
        assert rows[-1][0] == "Total"
        at = 0
        for head in materials:
            counts = []
            at = next(i for i, r in enumerate(rows) if r[0] == head)
            for r in rows[at + 1 :]:
                if r[0] in (*materials, "Total"):
                    break
                counts.append(int(r[qty]))
            assert counts == sorted(counts, reverse=order is Qt.SortOrder.DescendingOrder) and counts
    # By keys, another group; a head without rows left is filtered away.
    pane.grouping.setCurrentIndex(pane.grouping.findData("name"))
    pane.grouping.activated.emit(pane.grouping.currentIndex())
    assert pane.group == "name" and pane.view.isColumnHidden(name) and not pane.view.isColumnHidden(material)
    pane.filter.setText(str(table.rows[0][name]))
    left = [r[0] for r in shown_rows(pane)]
    assert left[0] == table.rows[0][name] and left[-1] == "Total"
    assert len(left) < len(table.rows)
    pane.filter.clear()
    # The head moves on when its column is put away, and the choice stays with its list.
    pane.columns_menu.actions()[keys.index("parts")].trigger()
    names = sorted({str(row[name]) for row in table.rows}, key=natural)
    assert next(r[keys.index("material")] for r in shown_rows(pane)) == names[0]
    window.open_schedule("hardware")
    assert pane.group == ""
    window.open_schedule("cut-list")
    assert pane.group == "name"


def test_every_schedule_can_be_grouped_by_all_that_it_offers(window: Window, tmp_path: Path) -> None:
    pane = window.table
    seen = 0
    for code in schedules.ALL:
        window.lists.chosen["shop"] = code
        window.show_stage("shop")
        if not pane.isVisible():
            continue
        for i in range(pane.grouping.count()):
            key = pane.grouping.itemData(i)
            pane.group_by(key)
            assert pane.group == key
            table = pane._shown[0]
            groups = groups_of(table, key)
            heads = sum(bool(g.head) for g in groups)
            assert pane.rows.rowCount() == len(table.rows) + len(table.totals) + heads
            write_tables([pane.as_shown(table)], tmp_path / "t.pdf", "job")
            seen += 1
    assert seen > 20
    window.open_schedule("areas")
    pane.group_by("thickness")
    assert "Thick 18" in [r[0] for r in shown_rows(pane)]


def test_a_schedule_is_exported_as_it_is_arranged(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    window.open_schedule("cut-list")
    pane = window.table
    table = pane._shown[0]
    keys = [c.key for c in table.columns]
    pane.group_by("grain")
    pane.view.sortByColumn(keys.index("length"), Qt.SortOrder.AscendingOrder)
    pane.filter.setText("gable")
    made = pane.as_shown(table)
    assert sorted(made.rows, key=str) == sorted(table.rows, key=str)  # nothing is left out
    assert made.group == "grain"
    top = [row for row in made.rows if "gable" in str(row[1])]
    assert list(made.rows[: len(top)]) == top
    pairs = dict(zip(table.rows, table.keys, strict=True))
    assert all(pairs[row] == key for row, key in zip(made.rows, made.keys, strict=True))
    path = tmp_path / "cut.csv"
    monkeypatch.setattr(asking, "ask_save", lambda *_: path)
    window.commands.run("export_schedule")
    first = path.read_text(encoding="utf-8-sig").splitlines()[1]
    assert first.split(",")[0].strip('"') == str(top[0][0]).split(",")[0]


def test_parts_by_unit_show_the_unit_and_its_parts(window: Window, qtbot) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.lists.chosen["shop"] = "by-unit"
    window.show_stage("shop")
    page = window.unit_lists
    assert page.unit.currentData() == "A2" and page.picture.placed
    w = window.document.workings
    unit = w.made.of(cell(window, "A2"))
    listed = {n for row in page.pane._shown[0].rows for n in row[0].split(", ")}
    assert listed == {f"A2.{i}" for i in range(1, len(unit.parts) + 1)}
    for item in unit.items:
        thing = w.job.stock.fitting(item.code) or w.job.stock.appliance(item.code)
        assert thing.name in page.pane.note.text()
    # The units that are selected are not what is copied here.
    window.commands.run("select_all")
    window.commands.run("copy")
    clipboard = QGuiApplication.clipboard()
    assert clipboard is not None
    assert len(clipboard.text().splitlines()) == page.pane.rows.rowCount()
    assert clipboard.text().startswith("A2.1\t")
    qtbot.mouseClick(page.next, Qt.MouseButton.LeftButton)
    assert page.unit.currentData() == "A3"
    # Groups and columns that are chosen for one unit hold for all.
    page.pane.group_by("material")
    page.before.setFocus()
    qtbot.keyClick(page.before, Qt.Key.Key_Space)
    assert page.unit.currentData() == "A2" and page.pane.group == "material"
    page.pane.group_by("")
    # Round to what belongs to no unit.
    qtbot.mouseClick(page.before, Qt.MouseButton.LeftButton)
    qtbot.mouseClick(page.before, Qt.MouseButton.LeftButton)
    assert page.unit.currentData() == "" and not page.picture.isVisible()
    numbers = {n for row in page.pane._shown[0].rows for n in row[0].split(", ")}
    assert numbers == {t.number for t in w.made.trims if t.part is not None}
    # It follows the job.
    page.unit.setCurrentIndex(page.unit.findData("A2"))
    page._show()
    before = page.picture.placed
    window.document.do(lambda job: runs.set_width(job, (cell(window, "A2"),), "610"))
    assert page.unit.currentData() == "A2" and page.picture.placed != before


@pytest.mark.parametrize("code", [code for code, _ in SHOP_LISTS])
def test_every_page_of_the_shop_exports_something(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, code: str
) -> None:
    window.open_schedule(code)
    path = tmp_path / "list.csv"
    monkeypatch.setattr(asking, "ask_save", lambda *_: path)
    window.commands.run("export_schedule")
    assert path.read_text(encoding="utf-8-sig").strip(), window.message.text.text()
