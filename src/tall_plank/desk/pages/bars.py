"""The page of bars: every bar with the pieces that are cut from it, and whether no plan needs less."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent, QWheelEvent
from PyQt6.QtWidgets import QComboBox, QFrame, QHBoxLayout, QLabel, QScrollArea, QVBoxLayout, QWidget

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.views.canvas import PAPER_PX, Canvas, Placed
from tall_plank.drawing.bar import PITCH, BarShown, bar_drawing
from tall_plank.papers.drawings import bar_kinds, bars_shown
from tall_plank.papers.schedules import bars as bars_table

MOST_COLUMNS = 2


class BarsView(Canvas):
    """Bars in as few columns as show them at a size that reads; where there are more, it is higher than what scrolls
    it."""

    margin = (22.0, 14.0, 26.0, 12.0)

    def __init__(self) -> None:
        super().__init__()
        self.bars: list[BarShown] = []
        self.scroller = QScrollArea()
        self.scroller.setWidgetResizable(True)
        self.scroller.setFrameShape(QFrame.Shape.NoFrame)
        self.scroller.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.scroller.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.scroller.setWidget(self)

    def show_bars(self, bars: list[BarShown]) -> None:
        if bars != self.bars:
            self.bars = bars
            self._lay()

    def _lay(self) -> None:
        self.fitted = True
        if not self.bars:
            self.set_placed([])
            return
        left, top, right, bottom = self.margin
        seen = self.scroller.viewport()
        assert seen is not None
        wide, high = max(100.0, self.width() - left - right), max(100.0, seen.height() - top - bottom)
        rows = max(1, int(high / (PITCH * PAPER_PX)))
        columns = min(MOST_COLUMNS, -(-len(self.bars) // rows))
        rows = -(-len(self.bars) // columns)
        self.setMinimumHeight(int(rows * PITCH * PAPER_PX + top + bottom) if rows * PITCH * PAPER_PX > high else 0)
        longest = max(b.length for b in self.bars)
        gap = longest * 0.06
        scale = PAPER_PX * (longest * columns + gap * (columns - 1)) / wide
        placed = []
        for c in range(columns):
            drawing = bar_drawing("Bars", self.bars[c * rows : (c + 1) * rows], scale)
            placed.append(Placed(c * (longest + gap), rows * PITCH * scale - drawing.height, drawing))
        self.set_placed(placed)

    def resizeEvent(self, event: object) -> None:
        self._lay()
        super().resizeEvent(event)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Scrolls; with Ctrl it zooms as in other views."""
        assert event is not None
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            super().wheelEvent(event)
        else:
            event.ignore()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        bar = self.scroller.verticalScrollBar()
        assert bar is not None
        line, page, whole = int(PITCH * PAPER_PX), bar.pageStep(), bar.maximum()
        by = {
            Qt.Key.Key_Down: line, Qt.Key.Key_Up: -line, Qt.Key.Key_PageDown: page, Qt.Key.Key_PageUp: -page,
            Qt.Key.Key_Home: -whole, Qt.Key.Key_End: whole,
        }  # fmt: skip
        step = by.get(Qt.Key(event.key()))
        if step is None:
            super().keyPressEvent(event)
        else:
            bar.setValue(bar.value() + step)


class BarsPage(QWidget):
    """Figures above, the bars below."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.setObjectName("pane")
        self.document = document
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        line = QHBoxLayout()
        line.setContentsMargins(18, 12, 14, 2)
        title = QLabel(tr("Bars"))
        title.setObjectName("specTitle")
        self.kind = QComboBox()
        self.kind.setAccessibleName(tr("What is cut"))
        self.kind.activated.connect(lambda _: self.refresh())
        line.addWidget(title)
        line.addStretch(1)
        line.addWidget(self.kind)
        column.addLayout(line)
        self.figures = QLabel()
        self.figures.setObjectName("specSub")
        self.figures.setContentsMargins(18, 0, 14, 6)
        column.addWidget(self.figures)
        self.view = BarsView()
        self.view.setAccessibleName(tr("Bars"))
        column.addWidget(self.view.scroller, 1)
        self.note = QLabel()
        self.note.setObjectName("specNote")
        self.note.setWordWrap(True)
        self.note.setContentsMargins(18, 2, 14, 8)
        column.addWidget(self.note)

    def refresh(self) -> None:
        """Show the bars of the job as it is now."""
        w = self.document.workings
        kinds = bar_kinds(w)
        chosen = str(self.kind.currentData() or "")
        if [self.kind.itemData(i) for i in range(self.kind.count())] != ["", *kinds]:
            self.kind.clear()
            self.kind.addItem(tr("Everything"), "")
            for kind in kinds:
                self.kind.addItem(tr(kind.capitalize()), kind)
            self.kind.setCurrentIndex(max(0, self.kind.findData(chosen)))
        table = bars_table(w)
        self.figures.setText(tr(table.subtitle))
        self.note.setText(tr(table.note))
        self.view.show_bars(bars_shown(w, str(self.kind.currentData() or "")))
