from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st
from PyQt6.QtGui import QGuiApplication

from desk.conftest import cell
from tall_plank.desk.tableview import LEAST, SHORT, column_widths
from tall_plank.desk.window import Window
from tall_plank.edits import runs


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
