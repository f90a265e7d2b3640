"""The real window, offscreen or on a virtual display, with folders of its own."""

from __future__ import annotations

import logging
from collections.abc import Iterator

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QWidget

from tall_plank.desk.app.application import make_app, open_window
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import theme
from tall_plank.edits import rooms, runs, runtext
from tall_plank.edits.things.island import add_island
from tall_plank.files.userdata import UserFolders
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.setout import walls_of


@pytest.fixture(scope="session")
def qapp_cls() -> type:
    from PyQt6.QtWidgets import QApplication

    return QApplication


@pytest.fixture(autouse=True)
def no_unexpected_log(caplog: pytest.LogCaptureFixture) -> Iterator[None]:
    """A defect that the window swallowed fails the test."""
    yield
    wrong = [r for r in caplog.get_records("call") if r.name == "tall_plank" and r.levelno >= logging.ERROR]
    assert not wrong, wrong[0].getMessage() + (str(wrong[0].exc_info) if wrong[0].exc_info else "")


@pytest.fixture
def window(qtbot, job: Job, folders: UserFolders) -> Iterator[Window]:
    """A window with one wall of units, without the model (its own tests draw it)."""
    yield from opened(qtbot, job, folders)


@pytest.fixture
def empty_window(qtbot, empty_job: Job, folders: UserFolders) -> Iterator[Window]:
    yield from opened(qtbot, empty_job, folders)


def opened(qtbot, job: Job, folders: UserFolders) -> Iterator[Window]:
    app = make_app()
    theme.apply(app, dark=False)
    window = open_window(job, folders)
    window.model._failed = "left out of this test"
    window.resize(1280, 800)
    window.show()
    qtbot.waitExposed(window)
    window.activateWindow()
    yield window
    window.document.history.mark_saved()
    window.close()
    window.deleteLater()
    QTest.qWait(0)


def cell(window: Window, number: str) -> str:
    return next(c.id for c in window.document.job.cells() if c.number == number)


def placed(window: Window, number: str):  # type: ignore[no-untyped-def]
    return next(p for p in window.document.workings.layout.placed if p.number == number)


def strip_point(window: Window, number: str, dx: float = 0.5, dz: float = 0.5) -> QPoint:
    """A point of the strip on a unit, by its share of width and height."""
    p = placed(window, number)
    x = window.strip.wall_x(p.wall_id) + p.x + p.width * dx
    return window.strip.to_px(x, p.bottom + p.height * dz).toPoint()


def drag(widget: QWidget, start: QPoint, end: QPoint, steps: int = 6, *, release: bool = True) -> None:
    """A real drag: press, moves, release."""
    QTest.mousePress(widget, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start)
    for i in range(1, steps + 1):
        at = QPointF(start) + (QPointF(end) - QPointF(start)) * (i / steps)
        move(widget, at.toPoint())
    if release:
        QTest.mouseRelease(widget, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, end)


def move(widget: QWidget, at: QPoint) -> None:
    """A move with the left button held, which QTest.mouseMove cannot say."""
    from PyQt6.QtCore import QEvent
    from PyQt6.QtGui import QMouseEvent
    from PyQt6.QtWidgets import QApplication

    event = QMouseEvent(
        QEvent.Type.MouseMove,
        QPointF(at),
        QPointF(widget.mapToGlobal(at)),
        Qt.MouseButton.NoButton,
        Qt.MouseButton.LeftButton,
        Qt.KeyboardModifier.NoModifier,
    )
    QApplication.sendEvent(widget, event)


def spec(window: Window, key: str):  # type: ignore[no-untyped-def]
    """The value widget of a decision on the spec sheet."""
    return window.spec.line(key).value


def type_into(widget: QWidget, text: str, *, enter: bool = True) -> None:
    """Focus a box, type over it, Enter."""
    widget.setFocus()
    widget.selectAll()  # type: ignore[attr-defined]
    QTest.keyClicks(widget, text)
    if enter:
        QTest.keyClick(widget, Qt.Key.Key_Return)


def choose(window: Window, key: str, code: str) -> None:
    """Pick from the menu of a decision."""
    menu = spec(window, key).menu()
    action = next(a for a in menu.actions() if a.data() == code)
    action.trigger()


def choose_display(window: Window, code: str) -> None:
    window.document.select(())
    window.show_stage("room")
    choose(window, "display", code)
    window.show_stage("units")


def lengths(w: Window) -> dict[str, float]:
    return {x.id: round(x.length, 3) for x in walls_of(w.document.room.room)}


def at(w: Window, x: float, y: float) -> QPoint:
    return w.plan.to_px(x, y).toPoint()


def pick(w: Window, source: str) -> None:
    w.document.select((source,))


@pytest.fixture
def island_window(qtbot, folders: UserFolders) -> Iterator[Window]:
    """A large room with an island of two units and a run on the north wall."""
    job = rooms.set_room_length(new_job("Island"), "r1", "width", "5400").job
    job = rooms.set_room_length(job, "r1", "depth", "4200").job
    job = add_island(job, "r1", (2700.0, 2000.0)).job
    for wall, text in (("A", "drawers 600, pair 900, pair rest, drawers 600"), ("K1", "drawers share, pair share")):
        change = runs.add_run(job, "r1", wall, Level.BASE)
        job = runtext.type_run(change.job, change.made[0], text).job
    yield from opened(qtbot, job, folders)
