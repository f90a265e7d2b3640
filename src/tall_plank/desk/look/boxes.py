"""Boxes for text."""

from __future__ import annotations

from PyQt6.QtGui import QDragEnterEvent
from PyQt6.QtWidgets import QLineEdit


class TextBox(QLineEdit):
    """A box for a line of text. A file that is dropped on it is for the window, which opens it."""

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        data = event.mimeData() if event is not None else None
        if event is not None and data is not None and data.hasUrls():
            event.ignore()
        else:
            super().dragEnterEvent(event)
