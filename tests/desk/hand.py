"""A hand at the real window: clicks, drags and keys, counted, and how long the window took over each."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass, field
from itertools import pairwise

from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt, QTimer
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QMenu, QPushButton, QWidget

from tall_plank.desk.app.window import Window
from tall_plank.desk.views.canvas import Canvas
from tall_plank.drawing.dimensions import offset
from tall_plank.drawing.primitives import Dim
from tall_plank.setout import Placed

LEFT, NONE = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
CONTROL, SHIFT, ALT = (
    Qt.KeyboardModifier.ControlModifier,
    Qt.KeyboardModifier.ShiftModifier,
    Qt.KeyboardModifier.AltModifier,
)


@dataclass
class Hand:
    """What a designer does with mouse and keys, and what it cost.

    Attributes
    ----------
    clicks : presses of a mouse button; a drag is one
    keys : pressed, modifiers not counted by themselves
    slow : (seconds, what) of every step: the longest while in which the window could not have answered
    """

    window: Window
    clicks: int = 0
    keys: int = 0
    slow: list[tuple[float, str]] = field(default_factory=list)

    def _timed(self, what: str, act: Callable[[], None]) -> None:
        """Do something and let the window follow; noted is the longest while in which it could not have answered: the
        doing itself, or what came between two beats of the event loop."""
        beats: list[float] = []
        beat = QTimer()
        beat.timeout.connect(lambda: beats.append(time.perf_counter()))
        beat.start(0)
        beats.append(time.perf_counter())
        act()
        beats.append(time.perf_counter())
        QApplication.processEvents()
        beats.append(time.perf_counter())
        beat.stop()
        self.slow.append((max(b - a for a, b in pairwise(beats)), what))

    @property
    def slowest(self) -> tuple[float, str]:
        """Seconds of the slowest step, and which it was."""
        return max(self.slow, default=(0.0, ""))

    # --- keys

    def _focus(self) -> QWidget:
        popup = QApplication.activePopupWidget()
        found = popup if isinstance(popup, QMenu) else QApplication.focusWidget()
        return found or self.window

    def key(self, key: Qt.Key, modifiers: Qt.KeyboardModifier = NONE, times: int = 1) -> None:
        """Press a key where the keys go."""
        for _ in range(times):
            self.keys += 1
            self._timed(f"key {key.name} {modifiers.name or ''}", lambda: QTest.keyClick(self._focus(), key, modifiers))

    def enter(self) -> None:
        self.key(Qt.Key.Key_Return)

    def type(self, text: str) -> None:
        """Type a text where the keys go."""
        for char in text:
            self.keys += 1
            self._timed(f"“{char}” of {text}", lambda c=char: QTest.keyClicks(self._focus(), c))  # type: ignore[misc]

    def command(self, words: str) -> None:
        """Find a command by its words and do it: Ctrl+K, words, Enter."""
        self.key(Qt.Key.Key_K, CONTROL)
        self.type(words)
        self.enter()

    # --- mouse

    def press(self, widget: QWidget, at: QPoint, modifiers: Qt.KeyboardModifier = NONE, what: str = "") -> None:
        """A click at a point of a widget."""
        self.clicks += 1
        self._timed(f"click {what or type(widget).__name__}", lambda: QTest.mouseClick(widget, LEFT, modifiers, at))

    def click(self, widget: QWidget, modifiers: Qt.KeyboardModifier = NONE) -> None:
        """A click in the middle of a widget."""
        self.press(widget, widget.rect().center(), modifiers, widget.accessibleName() or type(widget).__name__)

    def placed(self, number: str) -> Placed:
        """A unit by its number."""
        return next(p for p in self.window.document.workings.layout.placed if p.number == number)

    def on_strip(self, number: str, dx: float = 0.5, dz: float = 0.5) -> QPoint:
        """A point of the strip on a unit, by its share of width and height."""
        p, strip = self.placed(number), self.window.strip
        x = strip.wall_x(p.wall_id) + p.x + p.width * dx
        return strip.to_px(x, p.bottom + p.height * dz).toPoint()

    def unit(self, number: str, modifiers: Qt.KeyboardModifier = NONE, dx: float = 0.5, dz: float = 0.5) -> None:
        """Click on a unit in the strip."""
        self.press(self.window.strip, self.on_strip(number, dx, dz), modifiers, number)

    def dim(self, key: str, text: str) -> None:
        """Click on a dimension of what is selected in the strip, and type over it."""
        strip = self.window.strip
        self._over(strip, next(d for d in strip.extra_dims if d.key == key), text)

    def plan_dim(self, key: str, text: str) -> None:
        """Click on a dimension of the plan, and type over it."""
        plan = self.window.plan
        self._over(plan, next(d for d in plan.dims() if d.key == key), text)

    def _over(self, view: Canvas, dim: Dim, text: str) -> None:
        at, middle = offset(dim, view.paper_scale), (dim.a + dim.b) / 2
        point = view.to_px(middle, at) if dim.along == "x" else view.to_px(at, middle)
        self.press(view, point.toPoint(), NONE, f"dimension {dim.key}")
        self.type(text)
        self.enter()

    def drag(self, widget: QWidget, start: QPoint, end: QPoint, steps: int = 8) -> None:
        """Press, move, let go."""
        self.clicks += 1
        self._timed("press", lambda: QTest.mousePress(widget, LEFT, NONE, start))
        for i in range(1, steps + 1):
            at = (QPointF(start) + (QPointF(end) - QPointF(start)) * (i / steps)).toPoint()
            self._timed("drag", lambda p=at: move(widget, p))  # type: ignore[misc]
        self._timed("let go", lambda: QTest.mouseRelease(widget, LEFT, NONE, end))

    # --- the sheet and the shelf

    def value(self, key: str, text: str) -> None:
        """Click on a value of the sheet, type over it, Enter."""
        line = self.window.spec.line(key)
        self.window.spec.scroller.ensureWidgetVisible(line)
        self.click(line.value)
        self.type(text)
        self.enter()

    def choice(self, key: str, code: str) -> None:
        """Click on a choice of the sheet, and on one of its menu."""
        line = self.window.spec.line(key)
        self.window.spec.scroller.ensureWidgetVisible(line)
        assert isinstance(line.value, QPushButton)
        menu = line.value.menu()
        assert menu is not None
        action = next(a for a in menu.actions() if a.data() == code)
        self.clicks += 2

        def choose() -> None:
            menu.popup(line.mapToGlobal(line.rect().center()))
            QTest.mouseClick(menu, LEFT, NONE, menu.actionGeometry(action).center())

        self._timed(f"choose {code}", choose)

    def shelf(self, words: str) -> None:
        """Search on the shelf and place the first thing found: a click, its words, Enter."""
        self.click(self.window.shelf.search)
        self.type(words)
        self.enter()


def move(widget: QWidget, at: QPoint) -> None:
    """A move with the left button held."""
    event = QMouseEvent(
        QEvent.Type.MouseMove, QPointF(at), QPointF(widget.mapToGlobal(at)), Qt.MouseButton.NoButton, LEFT, NONE
    )
    QApplication.sendEvent(widget, event)
