"""Boxes for text, and the one rule of their keys.

The first press on a box takes all of its text, to be typed over. Enter applies and hands the keys back to the work;
Escape gives the old text back, and once more the work. Tab goes to the next box. Undo takes back what is being typed,
and where nothing is, the job's last step.
"""

from __future__ import annotations

from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtGui import QDragEnterEvent, QFocusEvent, QKeyEvent, QKeySequence, QMouseEvent
from PyQt6.QtWidgets import QCompleter, QLineEdit, QStyledItemDelegate, QTableWidget, QWidget

OF_THE_JOB = (QKeySequence.StandardKey.Undo, QKeySequence.StandardKey.Redo)


class TextBox(QLineEdit):
    """A box for a line of text. A file that is dropped on it is for the window, which opens it."""

    _first_press = False

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        super().focusInEvent(event)
        self._first_press = event is not None and event.reason() == Qt.FocusReason.MouseFocusReason

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        super().mouseReleaseEvent(event)
        # Whoever drags over a part of the text wants that part.
        if self._first_press and not self.hasSelectedText():
            self.selectAll()
        self._first_press = False

    def event(self, event: QEvent | None) -> bool:
        """Undo and redo are the job's where nothing is being typed here."""
        if (
            isinstance(event, QKeyEvent)
            and event.type() == QEvent.Type.ShortcutOverride
            and not self.isModified()
            and any(event.matches(key) for key in OF_THE_JOB)
        ):
            event.ignore()
            return False
        return super().event(event)

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        data = event.mimeData() if event is not None else None
        if event is not None and data is not None and data.hasUrls():
            event.ignore()
        else:
            super().dragEnterEvent(event)

    def hand_back(self, window: QWidget | None = None) -> None:
        """Hand the keys back to the work: the view that is worked on, where there is one.

        Parameters
        ----------
        window : whose work it is; None: that of this box
        """
        window = window or self.window()
        hand = getattr(window, "hand_keys_back", None)
        if hand is not None:
            hand()


class TypedTable(QTableWidget):
    """A table whose values are typed: a sign that is typed on one starts it, though some are keys of views."""

    def event(self, event: QEvent | None) -> bool:
        item = self.currentItem()
        if (
            isinstance(event, QKeyEvent)
            and event.type() == QEvent.Type.ShortcutOverride
            and plain_typing(event).isprintable()
            and plain_typing(event)
            and item is not None
            and item.flags() & Qt.ItemFlag.ItemIsEditable
        ):
            event.accept()
            return True
        return super().event(event)


def dress_words(completer: QCompleter) -> None:
    """Let the list of a completer look like the program's menus."""
    popup = completer.popup()
    if popup is not None:
        popup.setObjectName("words")
        popup.setItemDelegate(QStyledItemDelegate(popup))


def plain_typing(event: QKeyEvent) -> str:
    """The text that a key types by itself; nothing where it goes with Ctrl, Alt or the like."""
    held = Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier | Qt.KeyboardModifier.MetaModifier
    return "" if event.modifiers() & held else event.text()
