"""Where the keys go is seen: a ring about what has them, in every window, where a widget does not show it by itself."""

from __future__ import annotations

from PyQt6 import sip
from PyQt6.QtCore import QEvent, QObject, QPoint, QRect, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QRegion
from PyQt6.QtWidgets import QApplication, QLineEdit, QMenu, QWidget

from tall_plank.desk.look.theme import Theme

RING = 2
"""px; so wide a ring of the accent stands out by 3:1 at least against paper, sheet and night (WCAG 2.2, 2.4.13)."""

HEAD, PANE = 3, 150
"""px: the line along the head of a pane, and how high a widget is that counts as one."""

MOVES = (QEvent.Type.Move, QEvent.Type.Resize, QEvent.Type.Show, QEvent.Type.Hide, QEvent.Type.ParentChange)


class Ring(QWidget):
    """The ring: nothing but its own line, so that what it goes about is neither covered nor painted again."""

    def __init__(self, window: QWidget) -> None:
        super().__init__(window)
        self.setObjectName("focusRing")
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.hide()

    def go_about(self, rect: QRect) -> None:
        """Stand about a rectangle of the window; a whole pane has a line along its head instead."""
        if rect.height() > PANE:
            self.setGeometry(QRect(rect.topLeft(), rect.topRight() + QPoint(0, HEAD - 1)))
            self.clearMask()
        else:
            self.setGeometry(rect)
            inner = self.rect().adjusted(RING, RING, -RING, -RING)
            self.setMask(QRegion(self.rect()).subtracted(QRegion(inner)))
        self.show()
        self.raise_()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), Theme.color("spruce"))
        painter.end()


class FocusSeen(QObject):
    """Follows the keys through every window of the application."""

    def __init__(self, app: QApplication) -> None:
        super().__init__(app)
        self._rings: dict[int, Ring] = {}
        self._at: QWidget | None = None
        self._watched: list[QWidget] = []
        app.focusChanged.connect(self._changed)

    def _changed(self, old: QWidget | None, new: QWidget | None) -> None:
        for watched in self._watched:
            if not sip.isdeleted(watched):
                watched.removeEventFilter(self)
        self._watched = []
        for ring in self._rings.values():
            if not sip.isdeleted(ring):
                ring.hide()
        self._at = new if new is not None and not _shows_itself(new) else None
        widget: QWidget | None = self._at
        while widget is not None and not widget.isWindow():
            widget.installEventFilter(self)
            self._watched.append(widget)
            widget = widget.parentWidget()
        self._place()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if event is not None and event.type() in MOVES:
            self._place()
        return False

    def _place(self) -> None:
        """Put the ring about what has the keys, as far as it is seen."""
        if self._at is None or sip.isdeleted(self._at):
            return
        window = self._at.window()
        if window is None or isinstance(window, QMenu):
            return
        ring = self._rings.get(id(window))
        if ring is None or sip.isdeleted(ring):
            ring = self._rings[id(window)] = Ring(window)
            window.destroyed.connect(lambda _=None, key=id(window): self._rings.pop(key, None))
        rect = QRect(self._at.mapTo(window, self._at.rect().topLeft()), self._at.size())
        # A small thing is not covered: the ring goes round it.
        around = self._at.height() < 48
        rect = (rect.adjusted(-RING, -RING, RING, RING) if around else rect).intersected(window.rect())
        if self._at.isVisible() and rect.width() > 3 * RING and rect.height() > 3 * RING:
            ring.go_about(rect)
        else:
            ring.hide()


def _shows_itself(widget: QWidget) -> bool:
    """Whether a widget shows by its own border that it has the keys."""
    return isinstance(widget, QLineEdit) or widget.objectName() == "specValue"
