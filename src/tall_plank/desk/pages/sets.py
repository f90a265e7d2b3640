"""The page of a set of drawings: its sheets one at a time, laid out beside the window, anew when the job changes."""

from __future__ import annotations

from datetime import date
from pathlib import Path

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QKeySequence, QShortcut
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QLineEdit, QPushButton, QVBoxLayout, QWidget

from tall_plank.desk.look import asking
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.tasks import InThread
from tall_plank.desk.views.sheet import SheetView
from tall_plank.drawing.sheets import Sheet
from tall_plank.edits.change import Change
from tall_plank.job import Job
from tall_plank.papers.issuing import issue_set, issues_of, sign_issue, with_revisions
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
        row.setSpacing(8)
        self.give_out = QPushButton(tr("Issue"))
        self.give_out.setToolTip(tr("Freeze this set in the job with the next letter; what changes later has a cloud"))
        self.give_out.clicked.connect(self._issue)
        self.issued = QComboBox()
        self.issued.setAccessibleName(tr("Issued sets"))
        self.issued.activated.connect(self._save_issued)
        for widget in (self.back, self.on, self.names, self.told, self.stop):
            row.addWidget(widget)
        row.addStretch(1)
        self.signer = QLineEdit()
        self.signer.setPlaceholderText(tr("approved by"))
        self.signer.setAccessibleName(tr("Approved by"))
        self.signer.setMaximumWidth(150)
        self.signer.returnPressed.connect(self._sign)
        row.addWidget(self.signer)
        row.addWidget(self.issued)
        row.addWidget(self.give_out)
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
        job = self.document.job
        self.task = InThread(lambda tell: with_revisions(job, kind, set_sheets(works, kind, today, tell)))
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
        number = self.sheets[before].block.number if 0 <= before < len(self.sheets) else ""
        # The same sheet is looked at, also where others have come before it.
        before = next((i for i, s in enumerate(sheets) if s.block.number == number), before)
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
        for widget in (self.names, self.back, self.on, self.give_out):
            widget.setEnabled(not busy and bool(self.sheets))
        self._fill_issued()

    # --- issuing

    def _issue(self) -> None:
        """Freeze the set in the job, beside the window; undone like any other step."""
        works, kind, today = self.document.patient(), self.kind, date.today().isoformat()
        self.close_view()
        self.task = InThread(lambda tell: issue_set(works, kind, today, "", tell))
        self.task.told.connect(self._tell)
        self.task.ended.connect(lambda change: self._issued(works.job, change))
        self.task.failed.connect(self._not_issued)
        self._busy(True)
        self.task.start()

    def _issued(self, job: Job, change: object) -> None:
        assert isinstance(change, Change)
        self.task = None
        self._busy(False)
        if self.document.job is job:
            self.document.do(lambda _: change)
        else:
            self._not_issued(tr("The job has changed meanwhile; issue it again."))

    def _not_issued(self, words: str) -> None:
        self.task = None
        self._busy(False)
        self.told.setText(words)
        self.laid_out.emit()

    def _sign(self) -> None:
        """The name that was typed signs the last issue; the keys go back to the sheet."""
        name, today = self.signer.text(), date.today().isoformat()
        error = self.document.do(lambda job: sign_issue(job, self.kind, name, today), at_place=True)
        if error is not None:
            self.told.setText(str(error))
            return
        self.signer.clear()
        self.view.setFocus()

    def _fill_issued(self) -> None:
        issues = issues_of(self.document.job, self.kind)
        # Who approves is asked where something is out that nobody has signed.
        self.signer.setVisible(bool(issues) and not issues[-1].signed_by)
        self.issued.clear()
        self.issued.addItem(tr("Issued sets"))
        for i in issues:
            signed = f" · {tr('approved by')} {i.signed_by}, {i.signed_on}" if i.signed_by else ""
            self.issued.addItem(f"{i.letter} · {i.date} · {len(i.sheets)} {tr('sheets')}{signed}")
        self.issued.setVisible(bool(issues))

    def _save_issued(self, at: int) -> None:
        """Save what was issued as it was, as PDF."""
        issues = issues_of(self.document.job, self.kind)
        self.issued.setCurrentIndex(0)
        if not 1 <= at <= len(issues):
            return
        issue = issues[at - 1]
        start = (self.document.path.parent if self.document.path else Path.home()) / issue.name
        path = asking.ask_save(self, tr("Save what was issued"), start, "PDF (*.pdf)")
        if path is not None:
            try:
                path.write_bytes(issue.data)
            except OSError as error:
                self.told.setText(f"{tr('The file cannot be written')} ({error.strerror}).")

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
