"""Typing a run as text: a line below the run lines, with its message beside it."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QHideEvent, QKeyEvent
from PyQt6.QtWidgets import QFrame, QGridLayout, QLabel

from tall_plank.desk.look.boxes import TextBox
from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import restyle
from tall_plank.desk.model.document import Document
from tall_plank.edits.runs import add_run
from tall_plank.edits.runtext import RunTextError, read_run_text, run_text, type_run
from tall_plank.job import Job, Level
from tall_plank.measure import PlankError, format_length
from tall_plank.measure.shareout import Rule

LineEdit = Callable[[str], PlankError | None]
"""Makes what was typed so; gives back what is wrong with it."""


class _Box(TextBox):
    left = pyqtSignal()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        if event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)


class RunTextBar(QFrame):
    """The whole run in a line: `filler 50, drawers 600, sink 900, door rest`. Enter sets it, Escape leaves."""

    closed = pyqtSignal()

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.setObjectName("runText")
        self.document = document
        self.run_id = ""
        self._where: tuple[str, Level] | None = None
        self._edit: LineEdit | None = None
        grid = QGridLayout(self)
        grid.setContentsMargins(12, 6, 12, 6)
        self.head = QLabel()
        self.box = _Box()
        self.box.setAccessibleName(tr("The run as text"))
        self.note = QLabel()
        self.note.setObjectName("specNote")
        self.note.setWordWrap(True)
        grid.addWidget(self.head, 0, 0)
        grid.addWidget(self.box, 0, 1)
        grid.addWidget(self.note, 1, 1)
        self.box.returnPressed.connect(self._apply)
        self.box.left.connect(self.hide)
        self.box.textEdited.connect(self._preview)
        self.hide()

    def ask_line(self, head: str, text: str, example: str, hint: str, edit: LineEdit) -> None:
        """Open for another text that takes a whole line: a room's walls, the corners of a worktop, a name."""
        self._where, self._edit = None, edit
        self.head.setText(head)
        self.box.setText(text)
        self.box.setPlaceholderText(example)
        self.box.setProperty("wrong", False)
        self.note.setObjectName("specNote")
        self.note.setText(hint)
        restyle(self.note)
        restyle(self.box)
        self.show()
        self.box.setFocus()
        self.box.selectAll()

    def open_for(self, wall_id: str, level: Level) -> None:
        """Open for the run of a level on a wall; it is started when the text is set."""
        self._edit = None
        job = self.document.job
        room = job.room(self.document.room_id)
        run = next((r for r in room.runs if r.wall == wall_id and r.level is level), None)
        self.run_id, self._where = (run.id if run else ""), (wall_id, level)
        self.head.setText(f"{tr(self.document.room.wall(wall_id).heading)}, {tr(level.value)}")
        self.box.setText(run_text(job, run) if run else "")
        self.box.setPlaceholderText(
            "filler 50, drawers 600, sink 900, door rest" if level is Level.BASE else "pair 900, gap 1200, door rest"
        )
        self._preview(self.box.text())
        self.show()
        self.box.setFocus()
        self.box.selectAll()

    def hideEvent(self, event: QHideEvent | None) -> None:
        super().hideEvent(event)
        self.closed.emit()

    def _preview(self, text: str) -> None:
        """Say at once what the text comes to, or where it goes wrong."""
        if self._where is None:
            return
        job = self.document.job
        self.box.setProperty("wrong", False)
        try:
            pieces = read_run_text(job, self._where[1], text)
            fixed = sum(p.width.length.mm for p in pieces if p.width.rule is Rule.FIXED and p.width.length)
            loose = sum(p.width.rule is not Rule.FIXED for p in pieces)
            wall = self.document.room.wall(self._where[0])
            left = wall.length - fixed
            if self.run_id:
                layout = self.document.workings.layout.run(self.run_id)
                left = (layout.total if layout else wall.length) - fixed
            words = format_length(abs(left), job.display, mark=True)
            tail = tr("short") if left < -0.001 else tr("for the rest") if loose else tr("left")
            if text.strip():
                self.note.setText(f"{len(pieces)} {tr('cells')}, {words} {tail}. {tr('Enter sets the run.')}")
            else:
                self.note.setText(self._words())
            self.note.setObjectName("specError" if left < -0.001 else "specNote")
        except PlankError as error:
            self.note.setText(f"{error.what} {error.remedy}")
            self.note.setObjectName("specError")
        restyle(self.note)

    def _words(self) -> str:
        """The words that a run of this level knows, and how widths are written."""
        assert self._where is not None
        level = self._where[1]
        levels = (Level.BASE, Level.TALL) if level is Level.BASE else (level,)
        known = dict.fromkeys(t.words[0] for t in self.document.job.templates if t.words and t.level in levels)
        widths = tr("Then a width: 600, share, rest, clear 500, 300 to 600. 3 x door 450 repeats.")
        return f"{tr('Words')}: {', '.join(known)}. {widths}"

    def _apply(self) -> None:
        text = self.box.text()
        if self._edit is not None:
            self._apply_line(text)
            return
        assert self._where is not None
        wall, level = self._where

        def edit(job: Job):  # type: ignore[no-untyped-def]
            run_id = self.run_id
            if not run_id:
                started = add_run(job, self.document.room_id, wall, level)
                job, run_id = started.job, started.made[0]
            return type_run(job, run_id, text)

        error = self.document.do(edit, select_new=False, at_place=True)
        if error is None:
            self.hide()
            return
        self._preview(text)
        if isinstance(error, RunTextError):
            self.box.setCursorPosition(error.position)
        self.box.setProperty("wrong", True)
        restyle(self.box)

    def _apply_line(self, text: str) -> None:
        assert self._edit is not None
        error = self._edit(text)
        if error is None:
            self.hide()
            return
        self.note.setText(str(error))
        self.note.setObjectName("specError")
        self.box.setProperty("wrong", True)
        restyle(self.note)
        restyle(self.box)
