"""Taking what is dragged from the shelf, alike in strip, plan and model."""

from __future__ import annotations

from abc import abstractmethod

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QDragEnterEvent, QDragMoveEvent, QDropEvent

TEMPLATE_MIME = "application/x-tall-plank-template"
"""What the shelf drags: the code of a kind, of something in a room, or of something saved."""


class TakesDrops:
    """A view that things are dropped on; it says in `dropped` what becomes of them. Stands before QWidget."""

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        if event is not None and (data := event.mimeData()) is not None and data.hasFormat(TEMPLATE_MIME):
            event.acceptProposedAction()

    def dragMoveEvent(self, event: QDragMoveEvent | None) -> None:
        if event is not None:
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        if event is not None and (data := event.mimeData()) is not None:
            self.dropped(data.data(TEMPLATE_MIME).data().decode(), event.position())
            event.acceptProposedAction()

    @abstractmethod
    def dropped(self, code: str, at: QPointF) -> None:
        """Something from the shelf was dropped at a point of the view, px."""
