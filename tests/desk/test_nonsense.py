"""Nonsense keys, clicks, drags and wheels on the real window: no defect in the log, nothing stuck, and what is left can be
saved and read again. `NONSENSE=20x1000` has 20 seeds of 1,000 steps."""

from __future__ import annotations

import os
import random
from collections.abc import Iterator
from pathlib import Path

import pytest
from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt
from PyQt6.QtGui import QDrag, QMouseEvent, QWheelEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QDialog, QMenu, QMenuBar, QMessageBox, QWidget

from desk.conftest import opened
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.files.plankfile import job_bytes, job_from_bytes
from tall_plank.files.userdata import UserFolders
from tall_plank.job import Job

SEEDS, STEPS = (int(n) for n in os.environ.get("NONSENSE", "3x120").split("x"))
NONE, SHIFT, CTRL, ALT = (
    Qt.KeyboardModifier.NoModifier,
    Qt.KeyboardModifier.ShiftModifier,
    Qt.KeyboardModifier.ControlModifier,
    Qt.KeyboardModifier.AltModifier,
)
KEYS = [
    *(Qt.Key(k) for k in range(Qt.Key.Key_A, Qt.Key.Key_Z + 1)), *(Qt.Key(k) for k in range(Qt.Key.Key_0, Qt.Key.Key_9 + 1)),
    Qt.Key.Key_Return, Qt.Key.Key_Escape, Qt.Key.Key_Tab, Qt.Key.Key_Backspace, Qt.Key.Key_Delete, Qt.Key.Key_Left,
    Qt.Key.Key_Right, Qt.Key.Key_Up, Qt.Key.Key_Down, Qt.Key.Key_F2, Qt.Key.Key_F6, Qt.Key.Key_Space, Qt.Key.Key_Period,
    Qt.Key.Key_Comma, Qt.Key.Key_Equal, Qt.Key.Key_PageUp, Qt.Key.Key_PageDown, Qt.Key.Key_BracketLeft, Qt.Key.Key_Question,
]  # fmt: skip
LEAVES = {(CTRL, Qt.Key.Key_W), (CTRL, Qt.Key.Key_Q), (CTRL | SHIFT, Qt.Key.Key_N), (CTRL, Qt.Key.Key_P)}
"""Keys that close the window, open another, or print."""


@pytest.fixture
def harmless(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    """Questions are answered by nobody, files go nowhere."""
    for name in ("ask_open", "ask_read", "ask_folder"):
        monkeypatch.setattr(asking, name, lambda *_: None)
    monkeypatch.setattr(asking, "ask_read_many", lambda *_: [])
    monkeypatch.setattr(asking, "ask_save", lambda *_: None)
    monkeypatch.setattr(asking, "ask_unsaved", lambda *_: "cancel")
    monkeypatch.setattr(QDialog, "exec", lambda self: 0)
    monkeypatch.setattr(QMessageBox, "exec", lambda self: 0)
    monkeypatch.setattr(QMenu, "exec", lambda *_: None)
    monkeypatch.setattr(QDrag, "exec", lambda *_: Qt.DropAction.IgnoreAction)


@pytest.fixture
def tried(qtbot, job: Job, folders: UserFolders) -> Iterator[Window]:
    yield from opened(qtbot, job, folders)


def somewhere(r: random.Random, window: Window) -> tuple[QWidget, QPoint]:
    """A point of a widget that is seen, menus left out."""
    seen = [w for w in window.findChildren(QWidget) if w.isVisible() and w.width() > 4 and w.height() > 4]
    seen = [w for w in seen if not isinstance(w, QMenuBar | QMenu) and w.window() is window]
    widget = r.choice([window.strip, window.plan, window.lines, *seen]) if r.random() < 0.5 else r.choice(seen)
    if not widget.isVisible():
        widget = window.center.main_view()
    return widget, QPoint(r.randrange(max(1, widget.width())), r.randrange(max(1, widget.height())))


def step(r: random.Random, window: Window) -> str:
    """One thing that nobody would do on purpose."""
    pick = r.random()
    if pick < 0.55:
        held = r.choice((NONE, NONE, NONE, SHIFT, CTRL, ALT, CTRL | SHIFT))
        key = r.choice(KEYS)
        if (held, key) in LEAVES:
            return ""
        QTest.keyClick(QApplication.focusWidget() or window, key, held)
        return f"{held} {key}"
    widget, at = somewhere(r, window)
    button = r.choice((Qt.MouseButton.LeftButton, Qt.MouseButton.LeftButton, Qt.MouseButton.MiddleButton))
    held = r.choice((NONE, NONE, CTRL, SHIFT, ALT))
    if pick < 0.75:
        QTest.mouseClick(widget, button, held, at)
    elif pick < 0.8:
        QTest.mouseDClick(widget, button, held, at)
    elif pick < 0.95:
        QTest.mousePress(widget, button, held, at)
        for _ in range(r.randint(1, 4)):
            at = at + QPoint(r.randint(-200, 200), r.randint(-120, 120))
            move = QMouseEvent(QEvent.Type.MouseMove, QPointF(at), QPointF(at), Qt.MouseButton.NoButton, button, held)
            QApplication.sendEvent(widget, move)
            if r.random() < 0.2:
                QTest.keyClick(QApplication.focusWidget() or window, r.choice(KEYS[:40]))
        QTest.mouseRelease(widget, button, held, at)
    else:
        turn = QPoint(0, r.choice((-120, 120, 480)))
        wheel = QWheelEvent(
            QPointF(at), QPointF(at), QPoint(), turn, Qt.MouseButton.NoButton, held, Qt.ScrollPhase.NoScrollPhase, False
        )
        QApplication.sendEvent(widget, wheel)
    return f"{type(widget).__name__} {at.x()}, {at.y()}"


@pytest.mark.parametrize("seed", range(SEEDS))
def test_nonsense_breaks_nothing(tried: Window, harmless: None, seed: int) -> None:
    r = random.Random(seed)
    for _ in range(STEPS):
        step(r, tried)
        popup = QApplication.activePopupWidget()
        if popup is not None and r.random() < 0.7:
            popup.close()
        for window in QApplication.topLevelWidgets():
            if isinstance(window, QDialog) and window.isVisible() and r.random() < 0.3:
                window.reject()
    # Nothing is stuck: no drag is on, the job can be saved, read, and undone to its beginning.
    for _ in range(5):
        popup = QApplication.activePopupWidget()
        if popup is not None:
            popup.close()
    doc = tried.document
    assert doc.drag_from is None
    assert job_bytes(job_from_bytes(job_bytes(doc.job), "again")) == job_bytes(doc.job)
    while doc.history.can_undo:
        doc.undo()
    tried.commands.run("select_none")
    assert doc.selection == ()
