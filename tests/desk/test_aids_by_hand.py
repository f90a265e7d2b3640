"""Guide lines, lifted runs, roof windows, plan images and shaped worktops in the real window."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from desk.conftest import at, cell, choose, drag, pick, placed, spec, strip_point, type_into
from tall_plank.desk.app.window import Window
from tall_plank.desk.views.plancorners import own_corners
from tall_plank.edits import tops
from tall_plank.edits.things.guide import add_guide
from tall_plank.edits.things.opening import add_opening
from tall_plank.job import Kind
from tall_plank.measure import outlines as ol

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier
CTRL = Qt.KeyboardModifier.ControlModifier


def test_a_guide_line_is_set_dragged_typed_and_deleted_in_the_strip(window: Window) -> None:
    w = window
    QTest.keyClick(w, Qt.Key.Key_Z)
    (guide,) = w.document.room.room.guides
    assert guide.axis == "z"
    start = w.strip.to_px(900.0, guide.at.mm).toPoint()
    drag(w.strip, start, w.strip.to_px(900.0, 300.0).toPoint())
    assert w.document.room.room.guides[0].at.mm == pytest.approx(300, abs=1 / w.strip.scale)
    assert w.document.selection == (Kind.GUIDE.of(guide.id),)
    dim = next(d for d in w.strip.extra_dims if d.source == Kind.GUIDE.of(guide.id))
    w.strip.type_dim(dim)
    type_into(w.strip.box, "1.2m")
    assert w.document.room.room.guides[0].at.mm == 1200
    # The same in the spec sheet; nonsense is told there and changes nothing.
    type_into(spec(w, "at"), "9999")
    assert w.document.room.room.guides[0].at.mm == 1200
    assert w.spec.line("at").error.isVisible()
    w.commands.run("delete")
    assert w.document.room.room.guides == ()


def test_a_unit_dragged_wider_snaps_to_a_guide_line_and_names_it(window: Window) -> None:
    w = window
    w.document.do(lambda job: add_guide(job, "r1", "x", "A", 777.0))
    pick(w, Kind.CELL.of(cell(w, "A2")))
    p = placed(w, "A2")
    x = w.strip.wall_x("A")
    start = w.strip.to_px(x + p.right, p.bottom + p.height / 2).toPoint()
    drag(w.strip, start, w.strip.to_px(x + 775.0, p.bottom + p.height / 2).toPoint(), release=False)
    assert w.strip._snap == "guide line"
    QTest.mouseRelease(w.strip, LEFT, NONE, start)
    assert placed(w, "A2").right == 777


def test_a_hung_run_is_lifted_by_one_of_its_units_and_snaps_to_the_head_of_a_window(window: Window) -> None:
    w = window
    w.document.do(lambda job: add_opening(job, "r1", "A", "door", 2700.0))
    (door,) = w.document.room.room.openings
    before = placed(w, "A7")
    start = strip_point(w, "A7")
    by = door.height.mm - before.top + 12.0 / 10
    end = w.strip.to_px(0.0, before.bottom + before.height / 2 + by).toPoint()
    drag(w.strip, start, QPoint(start.x(), end.y()))
    after = placed(w, "A7")
    assert after.top == pytest.approx(door.height.mm)
    assert after.x == before.x
    assert w.document.history.undo_name.startswith("Move the run")
    w.commands.run("undo")
    assert placed(w, "A7").bottom == before.bottom


def test_a_door_is_dragged_until_its_side_meets_a_guide_line(empty_window: Window) -> None:
    w = empty_window
    w.document.do(lambda job: add_opening(job, "r1", "A", "door", 300.0))
    w.document.do(lambda job: add_guide(job, "r1", "x", "A", 2000.0))
    (door,) = w.document.room.room.openings
    x = w.strip.wall_x("A")
    start = w.strip.to_px(x + 500.0, 1000.0).toPoint()
    right = 2000.0 - door.width.mm
    drag(w.strip, start, w.strip.to_px(x + 500.0 + right - 300.0 + 4.0, 1000.0).toPoint())
    assert w.document.room.room.openings[0].x.mm == pytest.approx(right)


def test_a_roof_window_is_placed_from_the_menu_and_dragged(empty_window: Window) -> None:
    w = empty_window
    pick(w, Kind.WALL.of("C"))
    w.commands.run("place_roof_window")
    assert "slopes" in w.message.text.text()
    w.commands.run("place_slope")
    w.commands.run("place_roof_window")
    (found,) = w.document.room.room.roof_windows
    assert w.document.selection == (Kind.ROOF_WINDOW.of(found.id),)
    x = w.strip.wall_x("C") + found.x.mm + found.width.mm / 2
    middle = w.strip.to_px(x, found.sill.mm + 120.0).toPoint()
    drag(w.strip, middle, QPoint(middle.x() - 60, middle.y()))
    moved = w.document.room.room.roof_windows[0]
    assert moved.x.mm == pytest.approx(found.x.mm - 60 / w.strip.scale, abs=8 / w.strip.scale)
    type_into(spec(w, "sill"), "500")
    assert w.document.room.room.roof_windows[0] == moved
    assert "below the slope" in w.spec.line("sill").error.text()
    w.commands.run("delete")
    assert w.document.room.room.roof_windows == ()


def test_a_plan_image_is_scaled_by_two_clicks_and_a_length_and_traced(
    empty_window: Window, tmp_path: Path, monkeypatch
) -> None:  # type: ignore[no-untyped-def]
    from PIL import Image

    path = tmp_path / "plan.png"
    Image.new("RGB", (800, 600), "white").save(path)
    monkeypatch.setattr("tall_plank.desk.look.asking.ask_read", lambda *_: path)
    w = empty_window
    w.show_view("plan")
    w.commands.run("read_underlay")
    (under,) = w.document.room.room.underlays
    assert w.plan.ruler is not None
    for x in (0.0, 1200.0):
        QTest.mouseClick(w.plan, LEFT, NONE, at(w, x, 600.0))
    assert w.plan.box.isVisible()
    type_into(w.plan.box, "nonsense")
    assert w.plan.ruler is not None  # told at the place; the points stay
    type_into(w.plan.box, "2400")
    assert w.plan.ruler is None
    scaled = w.document.room.room.underlays[0]
    assert scaled.width.mm == pytest.approx(2 * under.width.mm, rel=0.01)
    choose(w, "shown", "no")
    assert not w.document.room.room.underlays[0].shown
    # A file that is no image is told, and nothing changes.
    path.write_text("hello")
    w.commands.run("read_underlay")
    assert len(w.document.room.room.underlays) == 1
    assert "image" in w.message.text.text()


def test_a_worktop_is_shaped_by_dragging_its_corners(island_window: Window) -> None:
    w = island_window
    w.show_view("plan")
    (island,) = w.document.room.room.islands
    source = Kind.ISLAND.of(island.id)
    w.document.do(lambda job: tops.follow_corners(job, source))
    pick(w, source)
    before = w.document.room.room.islands[0].top.outline
    _, line, corners = own_corners(w.document)
    # A corner is pulled 300 out along the line; near its neighbour's place it stays square to it.
    i = max(range(4), key=lambda i: before[i].x.mm - before[i].out.mm)
    start = w.plan.to_px(*corners[i])
    to = line.frame.at(before[i].x.mm + 300.0, -before[i].out.mm + 4.0, 0.0)
    drag(w.plan, start.toPoint(), w.plan.to_px(to[0], to[1]).toPoint())
    after = w.document.room.room.islands[0].top.outline
    assert after[i].x.mm == pytest.approx(before[i].x.mm + 300.0, abs=12)
    assert after[i].out.mm == before[i].out.mm
    assert sum(a != b for a, b in zip(after, before, strict=True)) == 1
    # A double click on a side puts a corner there.
    a, b = corners[(i + 1) % 4], corners[(i + 2) % 4]
    middle = w.plan.to_px((a[0] + b[0]) / 2, (a[1] + b[1]) / 2).toPoint()
    QTest.mouseDClick(w.plan, LEFT, NONE, middle)
    assert len(w.document.room.room.islands[0].top.outline) == 5
    # Dragged across the outline it would cross itself: refused, and the drag leaves the last good place.
    _, line, corners = own_corners(w.document)
    far = line.frame.at(before[i].x.mm - 4000.0, -before[i].out.mm + 3000.0, 0.0)
    drag(w.plan, w.plan.to_px(*corners[i]).toPoint(), w.plan.to_px(far[0], far[1]).toPoint(), steps=1)
    shape = [(c.x.mm, c.out.mm) for c in w.document.room.room.islands[0].top.outline]
    assert ol.crossing(shape) is None


def test_a_detail_is_marked_from_the_menu_dragged_and_set(window: Window) -> None:
    w = window
    w.commands.actions["detail_level"].trigger()
    (detail,) = w.document.room.room.details
    assert detail.cut == "level" and w.document.selection == (Kind.DETAIL.of(detail.id),)
    start = w.strip.to_px(detail.x.mm + 120.0, detail.z.mm + 120.0).toPoint()
    drag(w.strip, start, w.strip.to_px(detail.x.mm + 420.0, detail.z.mm + 320.0).toPoint())
    moved = w.document.room.room.details[0]
    assert moved.x.mm == pytest.approx(detail.x.mm + 300, abs=2 / w.strip.scale)
    assert moved.z.mm == pytest.approx(detail.z.mm + 200, abs=2 / w.strip.scale)
    type_into(spec(w, "size"), "5")
    assert w.document.room.room.details[0].size.mm == detail.size.mm
    type_into(spec(w, "size"), "240")
    assert w.document.room.room.details[0].size.mm == 240
    w.commands.run("delete")
    assert not w.document.room.room.details
    w.document.undo()
    assert w.document.room.room.details[0].size.mm == 240
