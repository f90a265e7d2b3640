"""The page of a set of drawings: its sheets one at a time, laid out beside the window, anew when the job changes; put
into order, and composed by hand."""

from __future__ import annotations

from datetime import date
from pathlib import Path
from typing import NamedTuple

import msgspec
from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QKeySequence, QShortcut
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QLineEdit, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from tall_plank.desk.look import asking
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.tasks import InThread
from tall_plank.desk.pages.composing import Composing
from tall_plank.desk.pages.sheetorder import SheetOrder
from tall_plank.desk.views.composing import ComposedView
from tall_plank.drawing.primitives import Drawing
from tall_plank.drawing.sheets import Sheet
from tall_plank.edits import sheetsets
from tall_plank.edits.change import Change
from tall_plank.job import Job
from tall_plank.job.sheetset import SetKind
from tall_plank.papers.drawings import Tell
from tall_plank.papers.issuing import issue_set, issues_of, sign_issue, with_revisions
from tall_plank.papers.setcontent import Content, set_content, shows_of
from tall_plank.papers.sets import Laid, finished, laid_out
from tall_plank.workings import Workings


class LaidOut(NamedTuple):
    """A set as it was laid out: what stands in it, all of its sheets with those that are left out, and what is given
    out."""

    content: Content
    every: list[Laid]
    sheets: list[Sheet]


class SetPage(QWidget):
    """One set: leafed through by the list, the buttons, or page up and down."""

    laid_out = pyqtSignal()
    """The sheets are there, or why they are not is told."""

    def __init__(self, document: Document, kind: SetKind) -> None:
        super().__init__()
        self.document, self.kind = document, kind
        self.sheets: list[Sheet] = []
        self.every: list[Laid] = []
        self.drawings: dict[str, Drawing] = {}
        """What can be put on a page, by key."""
        self.task: InThread | None = None
        self._of: Job | None = None
        self._content: tuple[object, Content] | None = None
        self._hold = -1
        self._wanted = ""
        """Number of the sheet that is to be looked at when the set is laid out."""
        self.view = ComposedView()
        self.names = QComboBox()
        self.names.setAccessibleName(tr("Sheets"))
        self.names.setMinimumWidth(240)
        self.names.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.names.currentIndexChanged.connect(self._show)
        self.back = self._button("‹", tr("Sheet before"), lambda: self._leaf(-1))
        self.on = self._button("›", tr("Next sheet"), lambda: self._leaf(1))
        self.told = QLabel()
        self.told.setObjectName("quiet")
        # Long words do not make the window wider; all of them are in its tip.
        self.told.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
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
        row.addWidget(self.back)
        row.addWidget(self.on)
        row.addWidget(self.names, 2)
        row.addWidget(self.told, 3)
        row.addWidget(self.stop)
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
        self.tools = Composing(self)
        self.order = SheetOrder(self)
        column.addLayout(row)
        column.addWidget(self.tools)
        across = QHBoxLayout()
        across.setContentsMargins(0, 0, 0, 0)
        across.setSpacing(0)
        across.addWidget(self.order)
        across.addWidget(self.view, 1)
        column.addLayout(across, 1)
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
        job = self.document.job
        self._of = job
        works, kind, today = self.document.workings, self.kind, date.today().isoformat()
        # Order, own pages and what is out leave what is drawn as it is.
        drawn_from = (_drawn_from(job), shows_of(job, kind))
        kept = self._content[1] if self._content is not None and self._content[0] == drawn_from else None
        self.task = InThread(lambda tell: _lay_out(works, kind, today, kept, tell))
        self.task.told.connect(self._tell)
        self.task.ended.connect(lambda laid: self._done(laid, drawn_from))
        self.task.failed.connect(self._failed)
        if kept is None:
            self._busy(True)
        self.task.start()

    def _tell(self, name: str) -> None:
        self.told.setText(f"{tr('Drawing')} {name} …")

    def _done(self, laid: object, drawn_from: object) -> None:
        assert isinstance(laid, LaidOut)
        self.task = None
        self._content = (drawn_from, laid.content)
        self.every = laid.every
        self.drawings = {d.key: d for group in laid.content if not isinstance(group, Sheet) for d in group}
        before = self.names.currentIndex()
        number = self._wanted or (self.sheets[before].block.number if 0 <= before < len(self.sheets) else "")
        self._wanted = ""
        # The same sheet is looked at, also where others have come before it.
        before = next((i for i, s in enumerate(laid.sheets) if _is(s.block.number, number)), before)
        self.sheets = laid.sheets
        self.names.blockSignals(True)
        self.names.clear()
        self.names.addItems([f"{s.block.number}  {s.title}" for s in self.sheets])
        self.names.setCurrentIndex(min(max(0, before), len(self.sheets) - 1))
        self.names.blockSignals(False)
        self._busy(False)
        self._show(self.names.currentIndex())
        self.order.fill()
        if self._hold >= 0:
            self.view.choose(self._hold)
            self.tools.words.setFocus()
            self.tools.words.selectAll()
        self._hold = -1
        self.laid_out.emit()

    def _failed(self, words: str) -> None:
        self.task = None
        self._of = None
        self._busy(False)
        self.say(words)
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
        self.say(words)
        self.laid_out.emit()

    def _sign(self) -> None:
        """The name that was typed signs the last issue; the keys go back to the sheet."""
        name, today = self.signer.text(), date.today().isoformat()
        error = self.document.do(lambda job: sign_issue(job, self.kind, name, today), at_place=True)
        if error is not None:
            self.say(str(error))
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
        words = f"{at + 1} {tr('of')} {len(self.sheets)} · {sheet.paper} · {sheet.scales or tr('no scale')}"
        self.say(words)
        self.tools.fill()

    def say(self, words: str) -> None:
        """Tell something in the row of the sheet."""
        self.told.setText(words)
        self.told.setToolTip(words)

    @property
    def laid(self) -> Laid | None:
        """The sheet that is looked at; None: the index."""
        at = self.names.currentIndex()
        if not 0 <= at < len(self.sheets):
            return None
        number = self.sheets[at].block.number
        return next((s for s in self.every if _is(number, s.number)), None)

    def show_number(self, number: str) -> None:
        """Show a sheet by its number, where it is in the set."""
        at = next((i for i, s in enumerate(self.sheets) if _is(s.block.number, number)), -1)
        if at >= 0:
            self.names.setCurrentIndex(at)

    def look_again(self) -> None:
        """Show the sheet as it is laid out."""
        self.view.sheet = None
        self._show(self.names.currentIndex())

    def hold_next(self, at: int) -> None:
        """Take hold of a view of the sheet when it is laid out next, and of its words."""
        self._hold = at

    def look_at(self, number: str) -> None:
        """Show the sheet with a number when the set is laid out next."""
        self._wanted = number

    def step(self, by: int) -> None:
        """Move the sheet that is looked at to an earlier or a later place."""
        laid = self.laid
        if laid is None:
            return
        own = self.document.job.sheet_set(self.kind)
        keys = [s.key for s in self.every]
        seen = [k for k in keys if k not in own.without]
        at = seen.index(laid.key) + by if laid.key in seen else -1
        if 0 <= at < len(seen):
            keys.remove(laid.key)
            keys.insert(keys.index(seen[at]) + (1 if by > 0 else 0), laid.key)
            self.document.do(lambda job: sheetsets.order_sheets(job, self.kind, keys))


def _is(number: str, mark: str) -> bool:
    """Whether a sheet's whole number, with that of the job, is a number of its set."""
    return number == mark or number.endswith(f"-{mark}")


def _drawn_from(job: Job) -> Job:
    """What the drawings of a set follow from."""
    return msgspec.structs.replace(job, sheet_sets=(), issues=(), pictures=(), next_id=0)


def _lay_out(works: Workings, kind: SetKind, day: str, kept: Content | None, tell: Tell) -> LaidOut:
    content = set_content(works, kind, tell) if kept is None else kept
    every = laid_out(works, kind, content, everything=True)
    out = works.job.sheet_set(kind).without
    sheets = finished(works, kind, [s for s in every if s.key not in out], day)
    return LaidOut(content, every, with_revisions(works.job, kind, sheets))
