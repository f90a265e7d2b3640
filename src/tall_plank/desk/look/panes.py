"""Panes side by side: resized by dragging the line between them, closed by a double click on it or by dragging it to
the side."""

from __future__ import annotations

import base64
import binascii

from PyQt6.QtCore import QByteArray, QEvent, Qt, pyqtSignal
from PyQt6.QtGui import QEnterEvent, QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QSplitter, QSplitterHandle, QWidget

from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme

GRAB = 7
"""px that a line between panes can be taken by."""


class Divider(QSplitterHandle):
    """A thin line that is easily taken; the pointer over it makes it stand out."""

    def __init__(self, orientation: Qt.Orientation, parent: Panes) -> None:
        super().__init__(orientation, parent)
        self._over = False
        self.setToolTip(tr("Drag to resize; a double click closes or opens"))

    def enterEvent(self, event: QEnterEvent | None) -> None:
        self._over = True
        self.update()
        super().enterEvent(event)

    def leaveEvent(self, event: QEvent | None) -> None:
        self._over = False
        self.update()
        super().leaveEvent(event)

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        panes = self.splitter()
        assert isinstance(panes, Panes)
        panes.divider_clicked(self)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), Theme.color("paper"))
        wide = 3 if self._over else 1
        rect, color = self.rect(), Theme.color("spruce" if self._over else "rule")
        if self.orientation() is Qt.Orientation.Horizontal:
            painter.fillRect(rect.center().x() - wide // 2, 0, wide, rect.height(), color)
        else:
            painter.fillRect(0, rect.center().y() - wide // 2, rect.width(), wide, color)
        painter.end()


class Panes(QSplitter):
    """Widgets beside or over one another with a share of the space each.

    Some of them can be closed by hand; they open again as wide as they were.
    """

    shared = pyqtSignal()
    """The space is shared anew."""

    def __init__(self, orientation: Qt.Orientation) -> None:
        super().__init__(orientation)
        self.setHandleWidth(GRAB)
        self.setChildrenCollapsible(False)
        self._closing: list[QWidget] = []
        self._wide: dict[int, int] = {}
        self.splitterMoved.connect(lambda *_: self.shared.emit())

    def createHandle(self) -> QSplitterHandle:
        return Divider(self.orientation(), self)

    def let_close(self, pane: QWidget, wide: int) -> None:
        """Let a pane be closed by hand; it starts so wide, px."""
        self._closing.append(pane)
        at = self.indexOf(pane)
        self.setCollapsible(at, True)
        self._wide[at] = wide

    def is_open(self, pane: QWidget) -> bool:
        """Whether a pane has any space."""
        return self.sizes()[self.indexOf(pane)] > 0

    def open_pane(self, pane: QWidget, on: bool) -> None:
        """Open or close a pane; its neighbors take or give the space."""
        at, sizes = self.indexOf(pane), self.sizes()
        if on is (sizes[at] > 0):
            return
        beside = max((i for i in range(len(sizes)) if i != at), key=lambda i: sizes[i])
        if not on:
            self._wide[at] = sizes[at]
        wide = self._wide.get(at, 200)
        sizes[beside] += -wide if on else sizes[at]
        sizes[at] = wide if on else 0
        self.setSizes(sizes)
        self.shared.emit()

    def divider_clicked(self, divider: QSplitterHandle) -> None:
        """A double click on a line closes or opens what is beside it and can be closed."""
        i = next(n for n in range(1, self.count()) if self.handle(n) is divider)
        for at in (i - 1, i):
            pane = self.widget(at)
            if pane is not None and pane in self._closing:
                self.open_pane(pane, not self.is_open(pane))
                return

    def resize_pane(self, pane: QWidget, by: int) -> None:
        """Make a pane so much wider or narrower, px."""
        at, sizes = self.indexOf(pane), self.sizes()
        beside = max((i for i in range(len(sizes)) if i != at), key=lambda i: sizes[i])
        least = pane.minimumSizeHint() if pane.minimumSize().isEmpty() else pane.minimumSize()
        low = least.width() if self.orientation() is Qt.Orientation.Horizontal else least.height()
        by = max(by, low - sizes[at])
        sizes[at] += by
        sizes[beside] -= by
        self.setSizes(sizes)

    def kept(self) -> str:
        """How the space is shared, as text."""
        return base64.b64encode(bytes(self.saveState().data())).decode()

    def take_up(self, kept: object) -> None:
        """Share the space as it was kept; nonsense is left aside."""
        if not isinstance(kept, str):
            return
        try:
            before = self.saveState()
            if not self.restoreState(QByteArray(base64.b64decode(kept, validate=True))):
                self.restoreState(before)
        except (binascii.Error, ValueError):
            return
        self.setHandleWidth(GRAB)
        self.shared.emit()
