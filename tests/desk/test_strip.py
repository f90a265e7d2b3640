"""The strip and the drawings worked on by mouse and by typing."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtTest import QTest

from desk.conftest import cell, drag, placed, strip_point, type_into
from tall_plank.desk.app.window import Window
from tall_plank.drawing.dimensions import offset
from tall_plank.job import Kind

LEFT, CTRL = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ControlModifier
NONE = Qt.KeyboardModifier.NoModifier


def test_a_click_selects_in_every_view(window: Window) -> None:
    QTest.mouseClick(window.strip, LEFT, NONE, strip_point(window, "A2"))
    chosen = (Kind.CELL.of(cell(window, "A2")),)
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


def test_a_locked_unit_says_why_it_is_not_moved(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("lock")
    job = window.document.job
    drag(window.strip, strip_point(window, "A2"), strip_point(window, "A5", 0.9))
    assert window.document.job == job
    assert window.message.isVisible() and "A2 is locked" in window.message.text.text()
    assert window.message.property("level") == "wrong"


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


def test_a_clear_distance_is_clicked_and_typed(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A7")),))
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
    window.document.select((Kind.CELL.of(cell(window, "A7")),))
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
    x, y = p.frame.floor(p.width / 2, -p.depth / 2)
    q = placed(window, "A5")
    x2, y2 = q.frame.floor(q.width * 0.9, -q.depth / 2)
    drag(window.plan, window.plan.to_px(x, y).toPoint(), window.plan.to_px(x2, y2).toPoint())
    assert [p.number for p in window.document.room.runs[0].cells][4] == "A2"


@pytest.mark.parametrize("number", ["A7", "A9", "A10"])
def test_clear_distances_stand_between_a_unit_and_what_is_beside_it(window: Window, number: str) -> None:
    """From its own side to the next thing's, and no further than the wall."""
    p = placed(window, number)
    window.document.select((Kind.CELL.of(p.cell),))
    left = window.strip.wall_x(p.wall_id)
    found = {d.key: d for d in window.strip.extra_dims if d.attention}
    assert found
    wall = window.document.room.wall(p.wall_id)
    ends = {"left": ("b", left + p.x), "right": ("a", left + p.right), "below": ("b", p.bottom), "above": ("a", p.top)}
    for key, dim in found.items():
        side, place = ends[key]
        assert getattr(dim, side) == pytest.approx(place), key
        low, high = (left, left + wall.length) if dim.along == "x" else (0.0, wall.height)
        assert low - 1e-6 <= dim.a < dim.b <= high + 1e-6, key
    assert {"below", "above"} <= found.keys()
