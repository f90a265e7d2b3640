"""Typing a run as text: a line below the run lines, with its message beside it."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable

from PyQt6.QtCore import QStringListModel, Qt, pyqtSignal
from PyQt6.QtGui import QHideEvent, QKeyEvent
from PyQt6.QtWidgets import QCompleter, QFrame, QGridLayout, QLabel

from tall_plank.desk.look.boxes import TextBox, dress_words
from tall_plank.desk.look.texts import counted, tr
from tall_plank.desk.look.theme import restyle
from tall_plank.desk.model.document import Document
from tall_plank.edits import Change
from tall_plank.edits.runs import add_run, run_on
from tall_plank.edits.runtext import RunTextError, run_text, stopped_shares, type_run, words_for
from tall_plank.edits.widths import MOST_SHARE
from tall_plank.job import Job, Level
from tall_plank.job.run import levels_of
from tall_plank.measure import PlankError, format_length
from tall_plank.measure.shareout import Rule
from tall_plank.setout import set_out

LineEdit = Callable[[str], PlankError | None]
"""Makes what was typed so; gives back what is wrong with it."""


class _Box(TextBox):
    """A line of pieces parted by commas; the last word is completed from a list."""

    left = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self._words = QStringListModel()
        self.menu = QCompleter(self._words, self)
        self.menu.setCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        self.menu.setMaxVisibleItems(10)
        self.menu.setWidget(self)
        dress_words(self.menu)
        self.menu.activated.connect(self._take)
        self.textEdited.connect(self._offer)

    def know(self, words: Iterable[str]) -> None:
        """The words that are offered from now on; none: nothing is."""
        self._words.setStringList(sorted(words))

    def _begun(self) -> str:
        """The word that is being typed before the caret."""
        piece = self.text()[: self.cursorPosition()].rsplit(",", 1)[-1].lstrip()
        return re.sub(r"^\d{1,3}\s*[x×]\s+", "", piece)

    def _offer(self) -> None:
        begun = self._begun()
        popup = self.menu.popup()
        if not begun or not begun[0].isalpha() or begun.lower() in self._words.stringList():
            if popup is not None:
                popup.hide()
            return
        self.menu.setCompletionPrefix(begun)
        if self.menu.completionCount() == 0:
            if popup is not None:
                popup.hide()
            return
        rect = self.cursorRect()
        rect.setWidth(240)
        rect.setBottom(self.height() + 24)  # below the note, which tells more
        self.menu.complete(rect)

    def _take(self, word: str) -> None:
        at = self.cursorPosition()
        begun = self._begun()
        text = self.text()[: at - len(begun)] + word + " "
        self.setText(text + self.text()[at:].lstrip())
        self.setCursorPosition(len(text))
        self.textEdited.emit(self.text())

    def offers(self) -> bool:
        """Whether words are offered for what is being typed."""
        popup = self.menu.popup()
        return popup is not None and popup.isVisible()

    def _chosen(self) -> bool:
        popup = self.menu.popup()
        return popup is not None and popup.isVisible() and popup.currentIndex().isValid()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        popup = self.menu.popup()
        offered = popup is not None and popup.isVisible()
        if offered and (self._chosen() or event.key() == Qt.Key.Key_Escape) and event.key() in TAKES:
            event.ignore()  # the list's own
        elif event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)


TAKES = (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Tab, Qt.Key.Key_Escape)


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
        self.box.know(())
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

    def open_for(self, wall_id: str, level: Level, run_id: str = "") -> None:
        """Open for a run, or for that of a level on a wall; it is started when the text is set."""
        self._edit = None
        job = self.document.job
        run = job.find_run(run_id)[1] if run_id else run_on(job, self.document.room_id, wall_id, level)
        self.run_id, self._where = (run.id if run else ""), (wall_id, level)
        self.head.setText(f"{tr(self.document.room.wall(wall_id).heading)}, {tr(level.value)}")
        self.box.know(words_for(job, level, free=run is not None and run.free))
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
        self.box.setProperty("wrong", False)
        if not text.strip():
            self._say(self._words(), wrong=False)
            return
        try:
            told, short = self._comes_to(text)
            self._say(told, wrong=short)
        except PlankError as error:
            if isinstance(error, RunTextError) and self.box.offers():
                # The word is not finished yet: what it may become stands in the list.
                self._say(tr("Down and Enter take a word of the list; or type on."), wrong=False)
            else:
                self._say(f"{error.what} {error.remedy}", wrong=True)

    def _say(self, text: str, *, wrong: bool) -> None:
        self.note.setText(text)
        self.note.setObjectName("specError" if wrong else "specNote")
        restyle(self.note)

    def _comes_to(self, text: str) -> tuple[str, bool]:
        """What the run would come to: tried on the job itself, so that panels, corners and what stands at its ends
        count; and whether it is too long."""
        change = self._typed(self.document.job, text)
        job = change.job
        assert self._where is not None
        run = job.find_run(self.run_id)[1] if self.run_id else run_on(job, self.document.room_id, *self._where)
        layout = set_out(job).run(run.id) if run is not None else None
        assert layout is not None
        cells = counted(len(layout.cells), "cell", "cells")
        if layout.short > 0.001:
            return f"{cells}, {format_length(layout.short, job.display, mark=True)} {tr('short')}.", True
        words = [cells, f"{format_length(layout.left, job.display, mark=True)} {tr('left')}"]
        pairs = zip(layout.cells, layout.run.cells, strict=True)
        shares = [p.width for p, cell in pairs if cell.width.rule is not Rule.FIXED]
        if shares:
            widths = sorted({format_length(mm, job.display, mark=True) for mm in shares})
            words.insert(1, f"{' / '.join(widths[:3])} {tr('for what is shared')}")
        told = f"{', '.join(words)}. {tr('Enter sets the run.')}"
        for stopped in stopped_shares(job, layout):
            told += f" {stopped.template.name} {tr('stops at')} {format_length(stopped.most, job.display)}"
            ends = (stopped.template.least, min(stopped.most + 150.0, max(MOST_SHARE, stopped.template.most)))
            low, high = (format_length(mm, job.display).lstrip("~") for mm in ends)
            if stopped.lifts:
                told += f"; “{stopped.template.words[0]} {low} to {high}” {tr('lets it grow')}"
            told += "."
        return told, False

    def _typed(self, job: Job, text: str) -> Change:
        """The run set by a text, begun where there is none."""
        assert self._where is not None
        run_id = self.run_id
        if not run_id:
            started = add_run(job, self.document.room_id, *self._where)
            job, run_id = started.job, started.made[0]
        return type_run(job, run_id, text)

    def _words(self) -> str:
        """The words that a run of this level knows, and how widths are written."""
        assert self._where is not None
        level = self._where[1]
        free = bool(self.run_id) and self.document.job.find_run(self.run_id)[1].free
        levels = levels_of(level, free=free)
        known = dict.fromkeys(t.words[0] for t in self.document.job.templates if t.words and t.level in levels)
        widths = tr("Then a width: 600, share, rest, clear 500, 300 to 600. 3 x door 450 repeats.")
        return f"{tr('Words')}: {', '.join(known)}. {widths}"

    def _apply(self) -> None:
        text = self.box.text()
        if self._edit is not None:
            self._apply_line(text)
            return
        error = self.document.do(lambda job: self._typed(job, text), select_new=False, at_place=True)
        if error is None:
            self.hide()
            return
        self._preview(text)
        if isinstance(error, RunTextError):
            self.box.setSelection(*_piece_at(text, error.position))
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


def _piece_at(text: str, position: int) -> tuple[int, int]:
    """Where the word that an error speaks of begins, and how long it is."""
    start = position + len(text[position:]) - len(text[position:].lstrip())
    end = text.find(",", start)
    piece = text[start : end if end >= 0 else len(text)].rstrip()
    return start, max(1, len(piece))
