"""The page of the offcut rack: what is on it, for whom it is booked, its history; put on, throw away, take back."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QComboBox, QLabel, QPushButton, QVBoxLayout, QWidget

from tall_plank.desk.look.boxes import TextBox
from tall_plank.desk.look.rows import WrappingRow
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.views.tables import KEY, TablePane
from tall_plank.edits.rooms import read
from tall_plank.files.rack import LONGEST, Rack
from tall_plank.measure import PlankError
from tall_plank.papers.tables import Column, Table, Value

COLUMNS = (
    Column("number", "No.", "count", wide=0.5),
    Column("name", "Material", wide=2.0),
    Column("length", "Length", "length"),
    Column("width", "Width", "length"),
    Column("count", "Count", "count", wide=0.6),
    Column("state", "State", wide=0.9),
    Column("job", "For", wide=1.4),
    Column("made", "Left by", wide=1.4),
    Column("since", "Since", wide=1.0),
)


class RackPage(QWidget):
    """A form above, the rack below."""

    def __init__(self, document: Document, rack: Rack) -> None:
        super().__init__()
        self.setObjectName("pane")
        self.document, self.rack = document, rack
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        self.table = TablePane()
        column.addWidget(self.table, 1)
        self.fault = QLabel()
        self.fault.setObjectName("specError")
        self.fault.setContentsMargins(18, 4, 14, 4)
        self.fault.setWordWrap(True)
        self.fault.hide()
        column.addWidget(self.fault)
        form = WrappingRow()
        form.setContentsMargins(18, 4, 14, 4)
        form.setSpacing(6)
        self.board = QComboBox()
        self.board.setAccessibleName(tr("Material"))
        self.board.setMinimumContentsLength(22)
        form.addWidget(self.board)
        self.length, self.width_box, self.count = TextBox(), TextBox(), TextBox("1")
        for box, name, wide in (
            (self.length, tr("Length"), 110),
            (self.width_box, tr("Width"), 110),
            (self.count, tr("Count"), 64),
        ):
            box.setPlaceholderText(name)
            box.setAccessibleName(name)
            box.setFixedWidth(wide)
            box.returnPressed.connect(self.put_on)
            form.addWidget(box)
        self.put = QPushButton(tr("Put on the rack"))
        self.put.clicked.connect(self.put_on)
        form.addWidget(self.put)
        hint = QLabel(tr("Without sizes: that many whole boards are there."))
        hint.setObjectName("specSub")
        hint.setMinimumWidth(60)
        form.addWidget(hint, 1)
        column.addLayout(form)
        acts = WrappingRow()
        acts.setContentsMargins(18, 2, 14, 10)
        acts.setSpacing(6)
        self.release = QPushButton(tr("Release"))
        self.release.clicked.connect(lambda: self._do(lambda: self.rack.release(self.chosen())))
        self.throw = QPushButton(tr("Throw away"))
        self.throw.clicked.connect(lambda: self._do(lambda: self.rack.throw_away(self.chosen())))
        self.back = QPushButton(tr("Take the last step back"))
        self.back.clicked.connect(lambda: self._do(self.rack.undo))
        self.past = QPushButton(tr("History"))
        self.past.setCheckable(True)
        self.past.toggled.connect(lambda _: self.refresh())
        for button in (self.release, self.throw, self.back):
            acts.addWidget(button)
        acts.addStretch(1)
        acts.addWidget(self.past)
        column.addLayout(acts)

    def refresh(self) -> None:
        """Read the rack again: another program may have changed it."""
        boards = [b for b in self.document.job.stock.boards if b.planned]
        if [self.board.itemData(i) for i in range(self.board.count())] != [b.code for b in boards]:
            at = self.board.currentData()
            self.board.clear()
            for b in boards:
                self.board.addItem(f"{b.name} · {b.code}", b.code)
            self.board.setCurrentIndex(max(0, self.board.findData(at)))
        try:
            table = self._history() if self.past.isChecked() else self._pieces()
        except PlankError as error:
            self._tell(error)
            table = Table("Offcut rack", "", COLUMNS, ())
        self.table.show_table(table, self.document.job.display)
        for button in (self.release, self.throw):
            button.setEnabled(not self.past.isChecked())

    def chosen(self) -> list[int]:
        """Numbers of the offcuts in the chosen rows.

        Raises
        ------
        PlankError where none is chosen
        """
        model = self.table.view.selectionModel()
        rows = model.selectedRows() if model is not None else []
        found = [int(i.data(KEY)) for i in rows if i.data(KEY)]
        if not found:
            raise PlankError(tr("No offcut is chosen."), "rack", tr("Choose its row first."))
        return found

    def put_on(self) -> None:
        """Put what the form says on the rack."""
        length, width = self.length.text().strip(), self.width_box.text().strip()

        def act() -> None:
            code = str(self.board.currentData() or "")
            if not self.count.text().strip().isdecimal():
                raise PlankError(f"“{self.count.text()}” {tr('is no count')}.", "count", tr("Type a whole number."))
            count = int(self.count.text())
            if not length and not width:
                self.rack.set_whole(code, count)
                return
            job = self.document.job
            sizes = [read(job, text, least=10.0, most=LONGEST).mm for text in (length, width)]
            self.rack.add(code, sizes[0], sizes[1], count)
            self.length.clear()
            self.width_box.clear()
            self.length.setFocus()

        self._do(act)

    def _do(self, act: Callable[[], object]) -> None:
        self.fault.hide()
        try:
            act()
        except PlankError as error:
            self._tell(error)
        self.refresh()

    def _tell(self, error: PlankError) -> None:
        self.fault.setText(str(error))
        self.fault.show()

    def _pieces(self) -> Table:
        names = {b.code: b.name for b in self.document.job.stock.boards}
        sizes = {b.code: (b.length, b.width) for b in self.document.job.stock.boards}
        pieces, wholes = self.rack.pieces(), self.rack.wholes()
        rows: list[tuple[Value, ...]] = [
            (p.id, names.get(p.board, p.board), p.length, p.width, 1, tr(p.state), p.job, p.made_by, p.since[:10])
            for p in pieces
        ]
        keys = [str(p.id) for p in pieces]
        for code, count in wholes.items():
            long, wide = sizes.get(code, (None, None))
            rows.append((None, names.get(code, code), long, wide, count, tr("whole boards"), "", "", ""))
            keys.append("")
        booked = sum(p.state == "booked" for p in pieces)
        said = f"{len(pieces)} {tr('offcuts')}, {booked} {tr('booked')}; {sum(wholes.values())} {tr('whole boards')}"
        empty = tr("Nothing is on the rack. Put offcuts on it below; a plan that was cut leaves its own here.")
        note = "" if rows else empty
        return Table("Offcut rack", said, COLUMNS, tuple(rows), note=note, keys=tuple(keys))

    def _history(self) -> Table:
        acts = self.rack.history()
        columns = (Column("at", "When", wide=0.8), Column("what", "What", wide=3.0), Column("undone", "", wide=0.6))
        rows = tuple((a.at, a.what, tr("taken back") if a.undone else "") for a in acts)
        return Table("History of the rack", f"{len(rows)} {tr('steps')}", columns, rows)
