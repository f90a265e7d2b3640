"""The model view draws, follows the job and picks. Needs EGL, which the set-up installs."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt
from PyQt6.QtGui import QMouseEvent, QPainter
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from desk.conftest import cell, drag, placed, spec, type_into
from tall_plank.desk.app.application import make_app, open_window
from tall_plank.desk.app.window import Window
from tall_plank.edits import fittings
from tall_plank.job import Job, Kind, Level


@pytest.fixture
def seen(qtbot, job: Job, folders):  # type: ignore[no-untyped-def]
    make_app()
    window = open_window(job, folders)
    window.resize(1280, 800)
    with qtbot.waitSignal(window.model.drawn, timeout=30_000):
        window.show()
    yield window
    window.document.history.mark_saved()
    window.close()
    window.deleteLater()
    QTest.qWait(0)


def colors(window: Window) -> set[int]:
    image = window.model._image
    assert image is not None
    return {image.pixel(x, y) for x in range(0, image.width(), 9) for y in range(0, image.height(), 9)}


def test_the_model_is_drawn_and_follows_the_job(seen: Window, qtbot) -> None:
    assert len(colors(seen)) > 8
    before = seen.model._image.copy()  # type: ignore[union-attr]
    seen.document.select((Kind.CELL.of(cell(seen, "A2")),))
    with qtbot.waitSignal(seen.model.drawn, timeout=10_000):
        type_into(spec(seen, "width"), "1000")
    assert seen.model._image != before


def test_a_click_on_the_model_picks_a_unit(seen: Window) -> None:
    sources = {
        seen.model.source_at(QPointF(x, y))
        for x in range(20, seen.model.width(), 12)
        for y in range(20, seen.model.height(), 12)
    }
    units = {s for s in sources if s is not None and s.kind is Kind.CELL}
    assert len(units) >= 5
    assert any(s is not None and s.kind is Kind.ROOM for s in sources)


def test_fit_and_zoom_draw_again(seen: Window, qtbot) -> None:
    seen.model.zoom(2.0)
    seen.model.render_now()
    near = seen.model.distance
    seen.model.fit()
    seen.model.render_now()
    assert seen.model.distance > near


def test_the_drawn_picture_shows_in_grab(seen: Window) -> None:
    image = seen.model.grab().toImage()
    found = {image.pixel(x, y) for x in range(0, image.width(), 9) for y in range(0, image.height(), 9)}
    assert len(found) > 8


def screen(window: Window, number: str, dx: float = 0.5) -> QPointF:
    """Where the middle of a unit's front is drawn."""
    p = placed(window, number)
    return window.model.on_screen(p.frame.at(p.width * dx, -p.depth - 19.0, p.height / 2))


def test_places_go_to_the_screen_and_back(seen: Window) -> None:
    at = seen.model.on_screen((1800.0, 900.0, 0.0))
    assert seen.model.on_floor(at) == pytest.approx((1800.0, 900.0), abs=0.5)
    p = placed(seen, "A3")
    wall = seen.document.room.wall("A")
    front = seen.model.on_screen(wall.frame.at(p.x + 100.0, -560.0, 400.0))
    assert seen.model.along(front, wall, 560.0) == pytest.approx(p.x + 100.0, abs=0.5)


def test_a_selected_unit_is_dragged_along_its_run_in_the_model(seen: Window) -> None:
    seen.document.select((Kind.CELL.of(cell(seen, "A2")),))
    seen.model.render_now()
    start, end = screen(seen, "A2").toPoint(), screen(seen, "A5", 0.8).toPoint()
    assert seen.model.source_at(QPointF(start)) == Kind.CELL.of(cell(seen, "A2"))
    drag(seen.model, start, end)
    assert [p.number for p in seen.document.room.runs[0].cells] == ["A1", "A3", "A4", "A5", "A2", "A6"]
    seen.commands.run("undo")
    assert seen.document.history.can_undo is False


def test_a_drag_on_what_is_not_selected_turns_the_view(seen: Window) -> None:
    seen.document.select(())
    before, job = seen.model.turn, seen.document.job
    start = screen(seen, "A2").toPoint()
    drag(seen.model, start, start + QPointF(40.0, 0.0).toPoint())
    assert seen.model.turn != before and seen.document.job is job


def test_a_kind_is_dropped_on_a_wall_of_the_model(seen: Window) -> None:
    wall = seen.document.room.wall("D")  # the eye stands to the south-east, so it looks through B
    seen.model.drop("drawers", seen.model.on_screen(wall.frame.at(1200.0, 0.0, 1500.0)))
    assert [p.template for p in seen.document.room.placed if p.wall_id == "D"] == ["drawers"]


def test_a_double_click_in_the_model_types_the_width(seen: Window) -> None:
    seen.document.select((Kind.CELL.of(cell(seen, "A2")),))
    seen.model.render_now()
    QTest.mouseDClick(
        seen.model, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, screen(seen, "A2").toPoint()
    )
    assert seen.lines.box.isVisible()
    type_into(seen.lines.box, "700")
    assert placed(seen, "A2").width == 700


def test_a_shelf_is_slid_in_the_model_and_a_bay_picked(seen: Window) -> None:
    from conftest import with_run
    from tall_plank.edits import bays
    from tall_plank.job import Level
    from tall_plank.job.start import new_job

    job = with_run(new_job(), "A", Level.BASE, "wardrobe 1000")
    at = next(c.id for c in job.cells())
    job = fittings.remove_fitting(bays.join_bay(job, at, ()).job, at, (), 0).job
    job = bays.split_bay(job, at, (), "3", "rows", "shelf").job
    seen.load(job, None)
    seen.show_view("model")
    doc, model = seen.document, seen.model
    doc.show_fronts("off")
    doc.select((Kind.CELL.of(at),))
    model.fit()
    model.render_now()
    p = doc.room.placed[0]

    def on_front(x: float, z: float) -> QPointF:
        return model.on_screen(p.frame.at(x, -p.depth, z))

    board = doc.workings.made.of(at).set.boards[0].clear  # type: ignore[union-attr]
    before = doc.bay_box((0,)).clear.height  # type: ignore[union-attr]
    steps = len(doc.history.names)
    drag(model, on_front(500, board.z0 + 9).toPoint(), on_front(500, board.z0 - 191).toPoint())
    after = doc.bay_box((0,)).clear.height  # type: ignore[union-attr]
    assert after == pytest.approx(before + 200, abs=25)
    assert len(doc.history.names) == steps + 1
    model.render_now()
    QTest.mouseClick(model, Qt.MouseButton.LeftButton, pos=on_front(500, 200).toPoint())
    assert doc.bay == (2,)


def test_machining_of_the_selected_unit_is_drawn_in_the_room(seen: Window) -> None:
    seen.document.select((Kind.CELL.of(cell(seen, "A2")),))
    seen.model.render_now()
    before = sum(len(mesh.quads) for mesh, _ in seen.model._meshes.values())
    seen.commands.run("for_shop")
    seen.model.render_now()
    assert sum(len(mesh.quads) for mesh, _ in seen.model._meshes.values()) > before + 500
    seen.commands.run("for_shop")
    seen.model.render_now()
    assert sum(len(mesh.quads) for mesh, _ in seen.model._meshes.values()) == before


@pytest.mark.parametrize("with_shift", [True, False])
def test_a_unit_by_itself_is_shifted_by_hand(seen: Window, with_shift: bool) -> None:
    """Its view grows from the model's; a name of its own must not hide one of the model's."""
    seen.document.select((Kind.CELL.of(cell(seen, "A2")),))
    seen.commands.run("look_into")
    model = seen.unit_page.model
    model.render_now()
    before, turn = model.center, model.turn
    assert before is not None
    middle = model.rect().center()
    button = Qt.MouseButton.LeftButton if with_shift else Qt.MouseButton.MiddleButton
    keys = Qt.KeyboardModifier.ShiftModifier if with_shift else Qt.KeyboardModifier.NoModifier
    for kind, at in (
        (QEvent.Type.MouseButtonPress, middle),
        (QEvent.Type.MouseMove, middle + QPoint(30, 10)),
        (QEvent.Type.MouseMove, middle + QPoint(60, 20)),
    ):
        QApplication.sendEvent(
            model, QMouseEvent(kind, QPointF(at), QPointF(model.mapToGlobal(at)), button, button, keys)
        )
    assert model.center is not None and model.center != before and model.turn == turn


def test_over_the_picture_of_one_unit_stand_its_sizes_and_no_distances(
    seen: Window, qtbot, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Width, height and depth beside a unit in one piece; distances to its neighbours and its bays in the room only."""
    hung = next(p for p in seen.document.room.placed if p.level is Level.HUNG and p.is_solid)
    seen.document.select((Kind.CELL.of(hung.cell),))
    written: list[str] = []
    draw = QPainter.drawText

    def noted(painter: QPainter, *args: object) -> object:
        written.append(str(args[-1]))
        return draw(painter, *args)

    monkeypatch.setattr(QPainter, "drawText", noted)
    seen.model.grab()
    assert f"{2500 - hung.top:g}" in written
    seen.commands.run("look_into")
    page = seen.unit_page
    with qtbot.waitSignal(page.model.drawn, timeout=30_000):
        page.model.refresh()
    written.clear()
    page.model.grab()
    unit = seen.document.workings.made.of(seen.document.cells[0])
    assert unit is not None
    whole = {f"{mm:g}" for mm in (unit.spec.width, unit.spec.height, unit.spec.depth)}
    assert page.model.apart <= 0.01 and set(written) == whole
