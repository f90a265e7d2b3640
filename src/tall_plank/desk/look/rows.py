"""A row of boxes and buttons that goes on in a second line where the window is narrow."""

from __future__ import annotations

from PyQt6.QtCore import QRect, QSize, Qt
from PyQt6.QtWidgets import QLayout, QLayoutItem, QSizePolicy, QSpacerItem, QWidget, QWidgetItem

SPACE = 6


class WrappingRow(QLayout):
    """Items from left to right, the next line where there is no room for one. What is left of a line goes to those that
    were added with a stretch."""

    def __init__(self) -> None:
        super().__init__()
        self._items: list[tuple[QLayoutItem, int]] = []
        self.setSpacing(SPACE)

    # --- filling, as a plain row is filled

    def addWidget(self, widget: QWidget | None, stretch: int = 0) -> None:
        assert widget is not None
        self.addChildWidget(widget)
        self._items.append((QWidgetItem(widget), stretch))
        self.invalidate()

    def addStretch(self, stretch: int = 1) -> None:
        """Room that takes what is left of its line."""
        self._items.append((QSpacerItem(0, 0, QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Minimum), stretch))

    def addSpacing(self, px: int) -> None:
        """A little room."""
        self._items.append((QSpacerItem(px, 0), 0))

    def addItem(self, item: QLayoutItem | None) -> None:
        assert item is not None
        self._items.append((item, 0))

    # --- what a layout has to answer

    def count(self) -> int:
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        return self._items[index][0] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        return self._items.pop(index)[0] if 0 <= index < len(self._items) else None

    def expandingDirections(self) -> Qt.Orientation:
        return Qt.Orientation.Horizontal

    def hasHeightForWidth(self) -> bool:
        return True

    def heightForWidth(self, width: int) -> int:
        return self._laid(QRect(0, 0, width, 0), place=False)

    def sizeHint(self) -> QSize:
        m = self.contentsMargins()
        shown = [i.sizeHint() for i, _ in self._items if not i.isEmpty() or i.spacerItem() is not None]
        wide = sum(s.width() for s in shown) + self.spacing() * max(0, len(shown) - 1)
        high = max((s.height() for s in shown), default=0)
        return QSize(wide + m.left() + m.right(), high + m.top() + m.bottom())

    def minimumSize(self) -> QSize:
        m = self.contentsMargins()
        shown = [i.minimumSize() for i, _ in self._items if not i.isEmpty()]
        wide = max((s.width() for s in shown), default=0)
        high = max((s.height() for s in shown), default=0)
        return QSize(wide + m.left() + m.right(), high + m.top() + m.bottom())

    def setGeometry(self, rect: QRect) -> None:
        super().setGeometry(rect)
        self._laid(rect, place=True)

    # --- lines

    def _laid(self, rect: QRect, *, place: bool) -> int:
        """Lay the items out in lines; the height that they take."""
        m = self.contentsMargins()
        inner = rect.adjusted(m.left(), m.top(), -m.right(), -m.bottom())
        y = inner.y()
        for line in self._lines(inner.width()):
            high = max((self._size(i).height() for i, _ in line), default=0)
            if place:
                self._place(line, inner.x(), y, inner.width(), high)
            y += high + self.spacing()
        return y - self.spacing() - rect.y() + m.bottom() if y > inner.y() else m.top() + m.bottom()

    @staticmethod
    def _size(item: QLayoutItem) -> QSize:
        return item.sizeHint().expandedTo(item.minimumSize())

    def _lines(self, width: int) -> list[list[tuple[QLayoutItem, int]]]:
        lines: list[list[tuple[QLayoutItem, int]]] = [[]]
        used = 0
        for item, stretch in self._items:
            spacer = item.spacerItem() is not None
            if item.isEmpty() and not spacer:
                continue  # hidden
            least = item.minimumSize().width() if stretch and not spacer else self._size(item).width()
            if lines[-1] and not spacer and used + self.spacing() + least > width:
                lines.append([])
                used = 0
            used += least + (self.spacing() if lines[-1] else 0)
            lines[-1].append((item, stretch))
        return [line for line in lines if line]

    def _place(self, line: list[tuple[QLayoutItem, int]], x: int, y: int, width: int, high: int) -> None:
        fixed = [self._size(i).width() if not s else i.minimumSize().width() for i, s in line]
        left = max(0, width - sum(fixed) - self.spacing() * (len(line) - 1))
        shares = sum(s for _, s in line)
        for (item, stretch), wide in zip(line, fixed, strict=True):
            wide += left * stretch // shares if shares and stretch else 0
            wide = min(wide, width)
            own = min(self._size(item).height(), high)
            item.setGeometry(QRect(x, y + (high - own) // 2, wide, own))
            x += wide + self.spacing()
