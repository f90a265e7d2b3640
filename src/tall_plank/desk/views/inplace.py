"""Typing a length where it stands: a small box over a view, with its message below it."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPoint, QRect, Qt
from PyQt6.QtGui import QFocusEvent, QKeyEvent
from PyQt6.QtWidgets import QLabel, QWidget

from tall_plank.desk.look.boxes import TextBox
from tall_plank.measure import PlankError

Commit = Callable[[str], PlankError | None]


class InPlaceBox(TextBox):
    """A box at a place. Enter applies and closes, Escape gives up, Tab applies and goes on."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.hide()
        self.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._error = QLabel(parent)
        self._error.setObjectName("boxError")
        self._error.setAutoFillBackground(True)
        self._error.setWordWrap(True)
        self._error.setMargin(4)
        self._error.hide()
        self._commit: Commit | None = None
        self._asked = ""
        self._next: Callable[[int], None] | None = None

    def ask(
        self,
        rect: QRect,
        text: str,
        commit: Commit,
        go_on: Callable[[int], None] | None = None,
        typed: str | None = None,
        *,
        offered: bool = False,
    ) -> None:
        """Open over a rectangle of the parent with a text to type over, or with what was typed already. A text that is
        offered does not stand yet: Enter takes it."""
        self._commit, self._next = commit, go_on
        self._asked = "" if offered else text
        parent = self.parentWidget()
        assert parent is not None
        width = max(rect.width(), 74)
        left = min(max(0, rect.center().x() - width // 2), max(0, parent.width() - width))
        self.setGeometry(QRect(QPoint(left, rect.y()), rect.size()).adjusted(0, 0, width - rect.width(), 0))
        self.setText(text if typed is None else typed)
        self._clear()
        self.show()
        self.raise_()
        self.setFocus()
        if typed is None:
            self.selectAll()

    def _clear(self) -> None:
        self._error.hide()
        self.setProperty("wrong", False)
        self._restyle()

    def _restyle(self) -> None:
        style = self.style()
        assert style is not None
        style.unpolish(self)
        style.polish(self)

    def _apply(self, step: int) -> bool:
        if self._commit is None:
            return True
        commit = self._commit
        # A text left as it stood changes nothing, not even by the rounding of what is shown.
        error = commit(self.text()) if self.text() != self._asked else None
        if error is not None:
            self._show_error(error)
            return False
        self.close_box()
        if step and self._next is not None:
            self._next(step)
        return True

    def _show_error(self, error: PlankError) -> None:
        self.setProperty("wrong", True)
        self._restyle()
        # On the window, so that a low view does not cut the message off.
        window = self.window()
        assert window is not None
        self._error.setParent(window)
        self._error.setText(str(error))
        self._error.setFixedWidth(min(320, window.width()))
        self._error.adjustSize()
        at = self.mapTo(window, QPoint(0, self.height() + 3))
        x = min(max(0, at.x()), max(0, window.width() - self._error.width()))
        above = at.y() - self.height() - 6 - self._error.height()
        self._error.move(x, at.y() if at.y() + self._error.height() <= window.height() else max(0, above))
        self._error.show()
        self._error.raise_()
        self.selectAll()

    def close_box(self) -> None:
        self._commit = None
        self._clear()
        self.hide()
        parent = self.parentWidget()
        if parent is not None:
            parent.setFocus()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        if event.key() == Qt.Key.Key_Escape:
            self.close_box()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            # Kept here: the view below would take the same key as a wish to type again.
            self._apply(0)
        else:
            super().keyPressEvent(event)

    def focusNextPrevChild(self, forward: bool) -> bool:
        self._apply(1 if forward else -1)
        return True

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        super().focusOutEvent(event)
        by_mouse = event is not None and event.reason() == Qt.FocusReason.MouseFocusReason
        # Clicking elsewhere keeps what was typed where it makes sense, and lets go of it where it does not.
        if self._commit is not None and by_mouse and not self._apply(0):
            self.close_box()
