"""The page of a set of drawings: its sheets one at a time, laid out beside the window, anew when the job changes."""

from __future__ import annotations

from datetime import date

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QKeySequence, QShortcut
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.tasks import InThread
from tall_plank.desk.views.sheet import SheetView
from tall_plank.drawing.sheets import Sheet
from tall_plank.job import Job
from tall_plank.papers.sets import set_sheets


class SetPage(QWidget):
    """One set: leafed through by the list, the buttons, or page up and down."""

    laid_out = pyqtSignal()
    """The sheets are there, or why they are not is told."""

    def __init__(self, document: Document, kind: str) -> None:
        super().__init__()
        self.document, self.kind = document, kind
        self.sheets: list[Sheet] = []
        self.task: InThread | None = None
        self._of: Job | None = None
        self.view = SheetView()
        self.names = QComboBox()
        self.names.setAccessibleName(tr("Sheets"))
        self.names.setMinimumWidth(320)
        self.names.currentIndexChanged.connect(self._show)
        self.back = self._button("‹", tr("Sheet before"), lambda: self._leaf(-1))
        self.on = self._button("›", tr("Next sheet"), lambda: self._leaf(1))
        self.told = QLabel()
        self.told.setObjectName("quiet")
        self.stop = QPushButton(tr("Stop"))
        self.stop.clicked.connect(self._stop)
        row = QHBoxLayout()
        row.setContentsMargins(12, 8, 12, 4)
        for widget in (self.back, self.on, self.names, self.told, self.stop):
            row.addWidget(widget)
        row.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addLayout(row)
        column.addWidget(self.view, 1)
        for keys, by in ((Qt.Key.Key_PageUp, -1), (Qt.Key.Key_PageDown, 1)):
            shortcut = QShortcut(QKeySequence(keys), self)
            shortcut.setContext(Qt.ShortcutContext.WidgetWithChildrenShortcut)
            shortcut.activated.connect(lambda by=by: self._leaf(by))
        self._busy(False)

    def _button(self, text: str, name: str, press) -> QPushButton:  # type: ignore[no-untyped-def]
        button = QPushButton(text)
        button.setAccessibleName(name)
        button.setToolTip(name)
        button.setFixedWidth(34)
        button.clicked.connect(press)
        return button

    # --- the set

    def refresh(self) -> None:
        """Lay the set out where the job is another than it was."""
        if self._of is self.document.job:
            return
        self.close_view()
        self._of = self.document.job
        works, kind, today = self.document.workings, self.kind, date.today().isoformat()
        self.task = InThread(lambda tell: set_sheets(works, kind, today, tell))
        self.task.told.connect(self._tell)
        self.task.ended.connect(self._done)
        self.task.failed.connect(self._failed)
        self._busy(True)
        self.task.start()

    def _tell(self, name: str) -> None:
        self.told.setText(f"{tr('Drawing')} {name} …")

    def _done(self, sheets: object) -> None:
        assert isinstance(sheets, list)
        self.task = None
        before = self.names.currentIndex()
        self.sheets = sheets
        self.names.blockSignals(True)
        self.names.clear()
        self.names.addItems([f"{s.block.number}  {s.title}" for s in sheets])
        self.names.setCurrentIndex(min(max(0, before), len(sheets) - 1))
        self.names.blockSignals(False)
        self._busy(False)
        self._show(self.names.currentIndex())
        self.laid_out.emit()

    def _failed(self, words: str) -> None:
        self.task = None
        self._of = None
        self._busy(False)
        self.told.setText(words)
        self.laid_out.emit()

    def _stop(self) -> None:
        if self.task is not None:
            self.task.stop()

    def close_view(self) -> None:
        """The window closes, or the job has changed: what still runs ends with the unit that it is at."""
        if self.task is not None:
            self.task.forget()
            self.task.wait()
            self.task = None

    def _busy(self, busy: bool) -> None:
        self.stop.setVisible(busy)
        for widget in (self.names, self.back, self.on):
            widget.setEnabled(not busy and bool(self.sheets))

    # --- leafing

    def _leaf(self, by: int) -> None:
        at = self.names.currentIndex() + by
        if 0 <= at < len(self.sheets):
            self.names.setCurrentIndex(at)

    def _show(self, at: int) -> None:
        if not 0 <= at < len(self.sheets):
            return
        sheet = self.sheets[at]
        self.view.show_sheet(sheet)
        self.told.setText(f"{at + 1} {tr('of')} {len(self.sheets)} · {sheet.paper} · {sheet.scales or tr('no scale')}")
