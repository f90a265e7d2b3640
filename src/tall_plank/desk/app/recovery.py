"""Work that earlier programs left behind: one is asked for in the message line, several stand in a list."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QDialog,
    QHBoxLayout,
    QHeaderView,
    QLabel,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from tall_plank.desk.look.texts import tr
from tall_plank.files.userdata import Recovered


def about(found: Recovered) -> tuple[str, str, str, str]:
    """What is told of a piece of work: its name, its file, when it was kept, how large it is."""
    file = Path(found.file).name or tr("no file yet")
    return found.job.name, file, found.kept, f"{found.size / 1000:.0f} kB"


class RecoveryList(QDialog):
    """Pieces of work, the newest first; each is taken up, let go, or left where it is."""

    def __init__(self, parent: QWidget, found: list[Recovered], take: Callable[[Recovered], bool]) -> None:
        """
        Parameters
        ----------
        take : opens a piece of work; False where that was given up
        """
        super().__init__(parent)
        self.setWindowTitle(tr("Work that was not saved"))
        self.found, self._take = list(found), take
        note = QLabel(
            tr("These were open when their programs ended. What is taken up is open and not saved yet; the rest waits.")
        )
        note.setObjectName("specNote")
        note.setWordWrap(True)
        self.table = QTableWidget(0, 4)
        self.table.setHorizontalHeaderLabels([tr("Job"), tr("File"), tr("Kept"), tr("Size")])
        self.table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.table.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.table.setTabKeyNavigation(False)
        self.table.setShowGrid(False)
        self.table.setAccessibleName(tr("Work that was not saved"))
        rows, heads = self.table.verticalHeader(), self.table.horizontalHeader()
        assert rows is not None and heads is not None
        rows.hide()
        heads.setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        heads.setSectionResizeMode(1, QHeaderView.ResizeMode.Stretch)
        for column in (2, 3):
            heads.setSectionResizeMode(column, QHeaderView.ResizeMode.ResizeToContents)
        heads.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        self.table.itemDoubleClicked.connect(lambda _: self.take_up())
        self.take_button, self.drop_button = QPushButton(tr("Take it &up")), QPushButton(tr("&Let it go"))
        later = QPushButton(tr("Leave &them"))
        self.take_button.setDefault(True)
        self.take_button.clicked.connect(self.take_up)
        self.drop_button.clicked.connect(self.let_go)
        later.clicked.connect(self.reject)
        buttons = QHBoxLayout()
        for button in (self.take_button, self.drop_button):
            buttons.addWidget(button)
        buttons.addStretch(1)
        buttons.addWidget(later)
        column_of = QVBoxLayout(self)
        column_of.addWidget(note)
        column_of.addWidget(self.table, 1)
        column_of.addLayout(buttons)
        self.resize(680, 320)
        self._fill(0)

    def _fill(self, row: int) -> None:
        self.table.setRowCount(len(self.found))
        for i, piece in enumerate(self.found):
            for column, text in enumerate(about(piece)):
                self.table.setItem(i, column, QTableWidgetItem(text))
        self.table.selectRow(min(row, len(self.found) - 1))
        self.table.setFocus()

    def chosen(self) -> int:
        """The row that is chosen."""
        return max(0, self.table.currentRow())

    def take_up(self) -> None:
        """Open the chosen piece; it leaves the list once its program keeps it itself."""
        piece = self.found[self.chosen()]
        if self._take(piece):
            self.accept()

    def let_go(self) -> None:
        """Throw the chosen piece away."""
        row = self.chosen()
        self.found.pop(row).let_go()
        if not self.found:
            self.reject()
            return
        self._fill(row)
