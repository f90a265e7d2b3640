"""Rooms, islands and what stands in them, in the real window: by mouse alone and by typing alone."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from desk.conftest import at, cell, choose, drag, lengths, pick, placed, spec, type_into
from tall_plank.desk.app.window import Window
from tall_plank.edits import rooms
from tall_plank.edits.things.column import add_column
from tall_plank.job import Kind
from tall_plank.setout import walls_of

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier
CTRL = Qt.KeyboardModifier.ControlModifier


# --- outlines


def test_a_room_is_drawn_by_mouse_alone(empty_window: Window) -> None:
    w = empty_window
    w.show_view("plan")
    action = w.commands.actions["draw_outline"]
    action.trigger()
    assert w.plan.tool is not None
    corners = [(0, 2400), (3600, 2400), (3600, 0), (1500, 0), (1500, 1000), (0, 1000)]
    for x, y in corners:
        QTest.mouseMove(w.plan, at(w, x, y))
        QTest.mouseClick(w.plan, LEFT, NONE, at(w, x, y))
    # A click on the first corner closes the room.
    QTest.mouseClick(w.plan, LEFT, NONE, at(w, 0, 2400))
    assert w.plan.tool is None
    found = lengths(w)
    assert len(found) == 6
    assert found["A"] == pytest.approx(3600, abs=20)
    # Drawn lengths are whole centimetres, and corners square.
    assert all(abs(v / 10 - round(v / 10)) < 1e-6 for v in found.values())
    assert {round(x.after) for x in walls_of(w.document.room.room)} == {90, 270}
    assert w.document.history.undo_name == "Draw the outline"


def test_a_room_is_drawn_by_typing_each_length_in_the_direction_of_the_arrows(empty_window: Window) -> None:
    w = empty_window
    w.show_view("plan")
    w.commands.run("draw_outline")
    QTest.mouseClick(w.plan, LEFT, NONE, at(w, 0, 2400))
    steps = (
        (Qt.Key.Key_Right, "5400"),
        (Qt.Key.Key_Down, "4.2m"),
        (Qt.Key.Key_Left, "3000"),
        (Qt.Key.Key_Up, "1800"),
        (Qt.Key.Key_Left, "2400"),
    )
    for arrow, text in steps:
        QTest.keyClick(w.plan, arrow)
        QTest.keyClicks(w.plan, text[0])
        QTest.keyClicks(w.plan.box, text[1:])
        QTest.keyClick(w.plan.box, Qt.Key.Key_Return)
    QTest.keyClick(w.plan, Qt.Key.Key_Return)
    assert lengths(w) == {"A": 5400, "B": 4200, "C": 3000, "D": 1800, "E": 2400, "F": 2400}


def test_a_room_is_typed_alone(empty_window: Window) -> None:
    w = empty_window
    w.commands.run("type_outline")
    assert QApplication.focusWidget() is w.run_text.box
    job = w.document.job
    type_into(w.run_text.box, "5400, 4200, 3000, bad corner 270, rest, rest")
    assert w.document.job is job and w.run_text.isVisible()
    assert "wall D" in w.run_text.note.text()
    type_into(w.run_text.box, "5400, 4200, 3000, 1800 corner 270, rest, rest")
    assert not w.run_text.isVisible()
    assert lengths(w)["F"] == 2400
    # The same by the spec sheet.
    pick(w, Kind.ROOM.of("r1"))
    type_into(spec(w, "outline"), "4000, 3000, rest, rest")
    assert lengths(w) == {"A": 4000, "B": 3000, "C": 4000, "D": 3000}


def test_an_outline_that_crosses_is_not_closed_and_escape_gives_up(empty_window: Window) -> None:
    w = empty_window
    w.show_view("plan")
    job = w.document.job
    w.commands.run("draw_outline")
    for x, y in ((0, 2400), (3000, 200), (3000, 2400), (0, 200)):
        QTest.mouseMove(w.plan, at(w, x, y))
        QTest.mouseClick(w.plan, LEFT, CTRL, at(w, x, y))
    QTest.keyClick(w.plan, Qt.Key.Key_Return)
    assert w.plan.tool is not None and w.document.job is job
    assert "cross" in w.message.text.text()
    QTest.keyClick(w.plan, Qt.Key.Key_Backspace)
    assert len(w.plan.tool.points) == 3
    QTest.keyClick(w.plan, Qt.Key.Key_Escape)
    assert w.plan.tool is None and w.document.job is job


def test_a_corner_and_a_wall_are_dragged_in_the_plan(empty_window: Window) -> None:
    w = empty_window
    w.show_view("plan")
    pick(w, Kind.ROOM.of("r1"))
    drag(w.plan, at(w, 3600, 0), at(w, 4000, -300))
    assert lengths(w)["A"] == pytest.approx(4000, abs=25)
    assert lengths(w)["B"] == pytest.approx(2700, abs=25)
    w.commands.run("undo")
    assert lengths(w)["A"] == 3600
    pick(w, Kind.WALL.of("B"))
    drag(w.plan, at(w, 3675, 1200), at(w, 3975, 1200))
    assert lengths(w)["A"] == pytest.approx(3900, abs=25)
    assert w.document.history.undo_name == "Move wall B"


def test_a_wall_takes_a_corner_by_double_click_and_its_length_and_angle_are_typed(empty_window: Window) -> None:
    w = empty_window
    w.show_view("plan")
    QTest.mouseDClick(w.plan, LEFT, NONE, at(w, 1800, 2475))
    assert list(lengths(w)) == ["A", "E", "B", "C", "D"]
    w.commands.run("undo")
    pick(w, Kind.WALL.of("A"))
    type_into(spec(w, "angle"), "100")
    assert walls_of(w.document.room.room)[0].after == pytest.approx(100)
    type_into(spec(w, "angle"), "no")
    assert "no angle" in w.spec.line("angle").error.text()
    type_into(spec(w, "length"), "4000")
    assert lengths(w)["A"] == 4000


def test_the_walls_come_from_a_drawing(empty_window: Window, tmp_path: Path, monkeypatch) -> None:
    import ezdxf

    from tall_plank.desk.look import asking

    w = empty_window
    for unit, name in ((4, "mm.dxf"), (0, "none.dxf")):
        document = ezdxf.new("R2010")
        document.header["$INSUNITS"] = unit
        document.modelspace().add_lwpolyline([(0, 0), (4000, 0), (4000, 3000), (0, 3000)], close=True)
        document.saveas(tmp_path / name)
    monkeypatch.setattr(asking, "ask_read", lambda *a: tmp_path / "mm.dxf")
    w.commands.run("read_outline")
    assert sorted(lengths(w).values()) == [3000, 3000, 4000, 4000]
    monkeypatch.setattr(asking, "ask_read", lambda *a: tmp_path / "none.dxf")
    w.commands.run("read_outline")
    type_into(w.run_text.box, "5 m")
    assert sorted(lengths(w).values()) == [3750, 3750, 5000, 5000]
    document = ezdxf.new("R2010")
    document.header["$INSUNITS"] = 4
    bent = [(0, 0, 0.0), (4000, 0, 1.0), (4000, 3000, 0.0), (0, 3000, 0.0)]
    document.modelspace().add_lwpolyline(bent, format="xyb", close=True)
    document.saveas(tmp_path / "bent.dxf")
    monkeypatch.setattr(asking, "ask_read", lambda *a: tmp_path / "bent.dxf")
    w.commands.run("read_outline")
    assert len(w.document.room.walls) > 10
    assert "at the most by 10" in w.message.text.text()
    (tmp_path / "bad.dxf").write_text("no drawing")
    monkeypatch.setattr(asking, "ask_read", lambda *a: tmp_path / "bad.dxf")
    w.commands.run("read_outline")
    assert "no DXF" in w.message.text.text()


# --- what a room has


@pytest.mark.parametrize("kind", ["column", "chimney_breast", "soffit", "slope", "water", "skirting", "cornice"])
def test_everything_a_room_has_is_placed_selected_and_deleted(empty_window: Window, kind: str) -> None:
    w = empty_window
    w.show_stage("room")
    before = w.document.job
    w.commands.run(f"place_{kind}")
    assert w.document.selection
    assert w.document.job != before
    assert w.commands.all["delete"].when()
    w.commands.run("delete")
    assert w.document.job.rooms == before.rooms


def test_the_shelf_of_the_room_drops_a_breast_on_the_plan(empty_window: Window) -> None:
    w = empty_window
    w.show_stage("room")
    w.plan.drop("room:chimney breast", 3500.0, 1000.0)
    (breast,) = w.document.room.room.columns
    assert breast.wall == "B"
    type_into(spec(w, "width"), "1000")
    type_into(spec(w, "depth"), "5cm")
    assert (w.document.room.room.columns[0].width.mm, w.document.room.room.columns[0].depth.mm) == (1000, 50)
    type_into(spec(w, "x"), "9000")
    assert "past the end" in w.spec.line("x").error.text()


def test_a_column_is_dragged_along_its_wall_in_strip_and_plan(empty_window: Window) -> None:
    w = empty_window
    w.document.do(lambda job: add_column(job, "r1", "A", "column", 500.0))
    start = w.strip.to_px(650.0, 1200.0).toPoint()
    drag(w.strip, start, start + QPoint(60, 0))
    moved = w.document.room.room.columns[0].x.mm
    assert moved == pytest.approx(500 + 60 / w.strip.scale, abs=3)
    w.show_view("plan")
    drag(w.plan, at(w, moved + 150, 2250), at(w, moved + 450, 2250))
    assert w.document.room.room.columns[0].x.mm == pytest.approx(moved + 300, abs=20)


def test_a_molding_shows_its_pieces_and_goes_to_the_shop(empty_window: Window) -> None:
    w = empty_window
    w.commands.run("place_skirting")
    assert w.spec.line("pieces").value.text() == "4"
    assert w.spec.line("metres").value.text() == "12.00 m"
    choose(w, "by_others", "no")
    assert w.document.workings.costs.group("Lengths") > 0


# --- rooms


def test_rooms_are_added_walked_and_deleted(empty_window: Window) -> None:
    w = empty_window
    w.commands.run("add_room")
    assert w.document.room.room.name == "Room 2"
    w.commands.run("type_base")
    type_into(w.run_text.box, "drawers 600")
    assert [p.number for p in w.document.room.placed] == ["2A1"]
    w.commands.run("next_room")
    assert w.document.room_id == "r1"
    w.bar.fill_rooms()
    names = [a.text() for a in w.bar.rooms.actions()]
    assert names[:2] == ["Room", "Room 2"]
    w.bar.rooms.actions()[1].trigger()
    w.commands.run("delete_room")
    assert len(w.document.job.rooms) == 1 and not w.document.job.units
    w.commands.run("undo")
    assert len(w.document.job.rooms) == 2


# --- islands


def test_an_island_from_nothing_by_mouse(empty_window: Window) -> None:
    w = empty_window
    w.document.do(lambda job: rooms.set_room_length(job, "r1", "width", "5400"))
    w.document.do(lambda job: rooms.set_room_length(job, "r1", "depth", "4200"))
    w.plan.drop("room:island", 2700.0, 2100.0)
    assert w.document.ids(Kind.ISLAND)
    line = w.document.room.faces[0]
    middle = line.frame.at(line.length / 2, -280.0, 0.0)
    w.plan.drop("drawers", middle[0], middle[1])
    w.plan.drop("pair", middle[0] + 300, middle[1])
    assert [(p.number, p.wall_id) for p in w.document.room.placed] == [("K1", "K1"), ("K2", "K1")]
    pick(w, Kind.ISLAND.of(w.document.room.room.islands[0].id))
    type_into(spec(w, "seating"), "300")
    choose(w, "right", "waterfall")
    assert {b.kind for b in w.document.room.boards} >= {"waterfall leg", "back panel", "end panel"}
    # Both faces are elevations in the strip.
    assert [p.drawing.title for p in w.strip.placed][-2:] == ["Room, island K, front", "Room, island K, back"]


def test_an_island_is_dragged_and_its_aisle_is_typed(island_window: Window) -> None:
    w = island_window
    w.show_view("plan")
    line = w.document.room.faces[0]
    top = next(t for t in w.document.room.worktops if t.source.kind is Kind.ISLAND)
    grab = line.frame.at(line.length / 2, 8.0, 0.0)  # the worktop behind the units
    drag(w.plan, at(w, grab[0], grab[1]), at(w, grab[0] + 400, grab[1] - 300))
    assert w.document.history.undo_name == "Move island K"
    pick(w, Kind.ISLAND.of(w.document.room.room.islands[0].id))
    dim = next(d for d in w.plan.extra_dims if d.key == "back")
    w.plan.type_dim(dim)
    type_into(w.plan.box, "1100")
    found = next(t for t in w.document.room.worktops if t.source.kind is Kind.ISLAND)
    back = w.document.room.wall("K1").frame.at(0.0, -found.rear, 0.0)[1]
    assert 4200 - 599 - back == pytest.approx(1100)
    assert top.length == found.length
    w.plan.type_dim(next(d for d in w.plan.extra_dims if d.key == "back"))
    type_into(w.plan.box, "much")
    assert w.plan.box.isVisible()
    QTest.keyClick(w.plan.box, Qt.Key.Key_Escape)


def test_an_island_moves_by_arrows_and_turns(island_window: Window) -> None:
    w = island_window
    island = w.document.room.room.islands[0]
    pick(w, Kind.ISLAND.of(island.id))
    w.plan.setFocus()
    QTest.keyClick(w.plan, Qt.Key.Key_Left)
    QTest.keyClick(w.plan, Qt.Key.Key_Up, Qt.KeyboardModifier.ShiftModifier)
    moved = w.document.room.room.islands[0]
    assert (moved.x.mm - island.x.mm, moved.y.mm - island.y.mm) == (-10, 100)
    w.commands.run("turn_island")
    assert w.document.room.room.islands[0].angle == 90
    w.commands.run("copy_island")
    assert [i.letter for i in w.document.room.room.islands] == ["K", "L"]
    w.commands.run("delete")
    assert [i.letter for i in w.document.room.room.islands] == ["K"]


# --- dimensions that are typed


def test_a_wall_of_an_odd_room_is_typed_in_plan_and_strip(empty_window: Window) -> None:
    w = empty_window
    type_outline = w.commands.run
    type_outline("type_outline")
    type_into(w.run_text.box, "5400, 4200, 3000, 1800 corner 270, rest, rest")
    w.show_view("plan")
    dim = next(d for d in w.plan.dims() if d.source == Kind.WALL.of("C") and d.key == "length")
    w.plan.type_dim(dim)
    type_into(w.plan.box, "3200")
    assert lengths(w)["C"] == 3200
    w.show_view("strip")
    w.commands.run("dims")
    dim = next(d for d in w.strip.dims() if d.source == Kind.WALL.of("B") and d.key == "length")
    w.strip.type_dim(dim)
    type_into(w.strip.box, "4300")
    assert lengths(w)["B"] == 4300


def test_a_clear_distance_is_typed_in_the_plan(window: Window) -> None:
    pick(window, Kind.CELL.of(cell(window, "A8")))
    dim = next(d for d in window.plan.extra_dims if d.key == "left")
    window.plan.type_dim(dim)
    type_into(window.plan.box, "1000")
    assert placed(window, "A8").x - placed(window, "A7").right == pytest.approx(1000)
