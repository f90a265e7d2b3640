"""Ways about the window by key: back from every box, from unit to unit, from pane to pane; what to do first."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from desk.conftest import cell, spec, type_into
from tall_plank.desk.app.window import Window
from tall_plank.desk.views.modelmesh import VIEW_ANGLE, whole_in_view
from tall_plank.edits import runs, runtext
from tall_plank.edits.things.island import add_island
from tall_plank.job import Kind, Level

ESCAPE = Qt.Key.Key_Escape


def number(window: Window) -> str:
    (chosen,) = window.document.cells
    return window.document.job.find_cell(chosen)[2].number


def test_escape_takes_back_what_was_typed_and_then_leads_to_the_drawing(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    box = spec(window, "width")
    box.setFocus()
    QTest.keyClicks(box, "999")
    QTest.keyClick(box, ESCAPE)
    assert box.text() == "600"
    assert QApplication.focusWidget() is box
    QTest.keyClick(box, ESCAPE)
    assert window.strip.hasFocus()
    # From the drawing it selects nothing.
    QTest.keyClick(window.strip, ESCAPE)
    assert window.document.selection == ()


def test_escape_clears_the_search_and_another_stage_forgets_it(window: Window) -> None:
    search = window.shelf.search
    type_into(search, "drawers", enter=False)
    QTest.keyClick(search, ESCAPE)
    assert search.text() == "" and search.hasFocus()
    QTest.keyClick(search, ESCAPE)
    assert window.strip.hasFocus()
    type_into(search, "drawers", enter=False)
    window.show_stage("room")
    assert search.text() == ""
    assert window.shelf.list.count() > 10


def test_arrows_go_up_to_the_hung_run_and_on_round_the_corner(window: Window) -> None:
    doc = window.document
    change = runs.add_run(doc.job, "r1", "B", Level.BASE)
    doc.do(lambda _: runtext.type_run(change.job, change.made[0], "drawers 500"))
    doc.select((Kind.CELL.of(cell(window, "A2")),))
    keys = window.strip
    QTest.keyClick(keys, Qt.Key.Key_Up)
    assert number(window) == "A7"
    QTest.keyClick(keys, Qt.Key.Key_Down)
    assert number(window) in ("A2", "A3")
    doc.select((Kind.CELL.of(cell(window, "A6")),))
    QTest.keyClick(keys, Qt.Key.Key_Right)
    assert number(window) == "B1"
    QTest.keyClick(keys, Qt.Key.Key_Left)
    assert number(window) == "A6"
    # With a wall selected, its own units come first.
    doc.select((Kind.WALL.of("B"),))
    QTest.keyClick(keys, Qt.Key.Key_Right)
    assert number(window) == "B1"


def test_the_panes_follow_one_another_by_key(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.strip.setFocus()
    seen = []
    for _ in range(5):
        window.commands.run("next_pane")
        seen.append(QApplication.focusWidget())
    first = next(line.value for line in window.spec.lines.values() if line.row.apply is not None)
    assert seen == [window.plan, window.model, first, window.shelf.search, window.strip]
    window.commands.run("previous_pane")
    assert window.shelf.search.hasFocus()


def test_a_message_of_the_last_thing_goes_with_the_next(window: Window) -> None:
    window.message.tell("Something is wrong.", "wrong")
    window.document.select((Kind.CELL.of(cell(window, "A3")),))
    assert not window.message.isVisible()
    window.message.ask("Take it up?", {"Yes": lambda: None})
    window.document.select(())
    window.show_stage("shop")
    assert window.message.isVisible()


def test_another_stage_gives_the_keys_to_what_it_shows(window: Window) -> None:
    window.strip.setFocus()
    window.show_stage("shop")
    assert window.table.view.hasFocus()
    window.show_stage("units")
    assert window.strip.hasFocus()


def test_an_empty_run_line_tells_its_words(window: Window) -> None:
    window.run_text.open_for("C", Level.HUNG)
    assert "pair" in window.run_text.note.text()
    assert "dishwasher" not in window.run_text.note.text()
    window.run_text.open_for("C", Level.BASE)
    assert "dishwasher" in window.run_text.note.text()
    QTest.keyClicks(window.run_text.box, "door 600")
    assert "1 cell," in window.run_text.note.text()


def test_an_island_with_nothing_on_it_is_seen_in_the_plan(empty_window: Window) -> None:
    doc = empty_window.document
    doc.do(lambda job: add_island(job, "r1", (1800.0, 1200.0), 1500.0))
    island = Kind.ISLAND.of(doc.room.room.islands[0].id)
    line = doc.room.faces[0]
    x, y = line.frame.floor(line.length * 0.25, -200.0)
    assert empty_window.plan.source_at(empty_window.plan.to_px(x, y)) == island
    assert [p.drawing.title for p in empty_window.strip.placed][-2:] == [
        "Room, island K, front",
        "Room, island K, back",
    ]


def test_the_sheet_of_a_tall_run_says_nothing_of_worktops(empty_window: Window) -> None:
    doc = empty_window.document
    for wall, text, told in (("A", "wardrobe 900, wardrobe 900", False), ("B", "drawers 600", True)):
        change = runs.add_run(doc.job, "r1", wall, Level.BASE)
        doc.do(lambda _, c=change, t=text: runtext.type_run(c.job, c.made[0], t))
        doc.select((Kind.RUN.of(change.made[0]),))
        assert any(name.startswith("Worktop/") for name in empty_window.spec.lines) is told


SIDE = st.floats(500.0, 20000.0)


@given(SIDE, SIDE, st.floats(1000.0, 5000.0), st.floats(-180.0, 180.0), st.floats(0.0, 80.0), st.floats(0.5, 3.0))
def test_a_room_is_fitted_so_that_nothing_is_cut_off(
    w: float, d: float, h: float, turn: float, tilt: float, shape: float
) -> None:
    """Checked with the projection written out anew: eye, direction, angle of view."""
    import numpy as np

    center, distance = whole_in_view((0.0, 0.0, 0.0), (w, d, h), turn, tilt, shape)
    a, b = np.radians(turn), np.radians(tilt)
    eye = np.array(center) + distance * np.array([np.cos(a) * np.cos(b), np.sin(a) * np.cos(b), np.sin(b)])
    ahead = (np.array(center) - eye) / distance
    right = np.cross(ahead, [0.0, 0.0, 1.0])
    right /= np.linalg.norm(right)
    up = np.cross(right, ahead)
    half = np.tan(np.radians(VIEW_ANGLE / 2))
    largest = 0.0
    for corner in ((x, y, z) for x in (0, w) for y in (0, d) for z in (0, h)):
        v = np.array(corner) - eye
        deep = v @ ahead
        assert deep > 0
        across, upward = abs(v @ right) / deep / half / shape, abs(v @ up) / deep / half
        largest = max(largest, across, upward)
        assert across <= 1.0 and upward <= 1.0
    assert largest == pytest.approx(0.93, abs=0.08)


def test_the_model_stays_whole_while_the_room_grows_and_as_it_is_once_turned(window: Window) -> None:
    from tall_plank.edits.rooms import set_room_length

    model = window.model
    model._failed = ""
    model.render_now()
    before = model.distance
    window.document.do(lambda job: set_room_length(job, "r1", "width", "9000"))
    model.render_now()
    assert model.distance > before * 1.3
    model.zoom(2.0)
    near = model.distance
    window.document.do(lambda job: set_room_length(job, "r1", "width", "5000"))
    model.render_now()
    assert model.distance == near
    model.fit()
    model.render_now()
    assert model.distance != near
