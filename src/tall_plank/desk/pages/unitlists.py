"""The page of parts by unit: a unit's picture above, the list of its parts below."""

from __future__ import annotations

from PyQt6.QtWidgets import QComboBox, QLabel, QPushButton, QVBoxLayout, QWidget

from tall_plank.desk.look.rows import WrappingRow
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.views.canvas import Canvas, Placed
from tall_plank.desk.views.tables import TablePane
from tall_plank.drawing.unit import unit_drawing
from tall_plank.papers.partlists import unit_list, units_with_parts

PICTURE = 210
"""px of height for the picture of a unit."""


class UnitListPage(QWidget):
    """One unit at a time; the one that is selected in the job comes first."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.setObjectName("pane")
        self.document = document
        self._seen: tuple[str, ...] = ()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        line = WrappingRow()
        line.setContentsMargins(18, 12, 14, 2)
        line.setSpacing(6)
        title = QLabel(tr("Parts by unit"))
        title.setObjectName("specTitle")
        line.addWidget(title)
        line.addStretch(1)
        self.before = QPushButton(tr("Before"))
        self.before.clicked.connect(lambda: self.step(-1))
        self.unit = QComboBox()
        self.unit.setAccessibleName(tr("Unit"))
        self.unit.setMinimumContentsLength(26)
        self.unit.activated.connect(lambda _: self._show())
        self.next = QPushButton(tr("Next"))
        self.next.clicked.connect(lambda: self.step(1))
        for widget in (self.before, self.unit, self.next):
            line.addWidget(widget)
        column.addLayout(line)
        self.picture = Canvas()
        self.picture.margin = (60.0, 16.0, 40.0, 40.0)
        self.picture.setFixedHeight(PICTURE)
        self.picture.setAccessibleName(tr("Unit"))
        column.addWidget(self.picture)
        self.pane = TablePane()
        column.addWidget(self.pane, 1)

    def refresh(self) -> None:
        """Show the job as it is now; a unit that was selected since is shown."""
        w = self.document.workings
        numbers = units_with_parts(w)
        chosen = self.unit.currentData()
        selected = tuple(p.number for p in w.layout.placed if p.cell in self.document.cells)
        if selected and selected != self._seen:
            chosen = selected[0]
        self._seen = selected
        names = {p.number: w.job.template(p.template).name for p, _ in w.made.units}
        told = [(f"{n} · {names[n]}" if n in names else tr("Worktops, plinths and panels"), n) for n in numbers]
        if [(self.unit.itemText(i), self.unit.itemData(i)) for i in range(self.unit.count())] != told:
            self.unit.clear()
            for name, number in told:
                self.unit.addItem(name, number)
        self.unit.setCurrentIndex(max(0, self.unit.findData(chosen)) if told else -1)
        self._show()

    def step(self, by: int) -> None:
        """The unit before or after this one; round at the ends."""
        if self.unit.count():
            self.unit.setCurrentIndex((self.unit.currentIndex() + by) % self.unit.count())
            self._show()

    def _show(self) -> None:
        w = self.document.workings
        number = str(self.unit.currentData() or "")
        found = next(((p, u) for p, u in w.made.units if number and p.number == number), None)
        if found is None:
            self.picture.set_placed([])
        else:
            self.picture.fitted = True
            self.picture.set_placed([Placed(0.0, 0.0, unit_drawing(*found, w.job.stock, w.job.display))])
        self.picture.setVisible(found is not None)
        self.pane.show_table(unit_list(w, number), w.job.display)
