"""The tally: the running figures of the job; each opens its schedule."""

from __future__ import annotations

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QPushButton

from tall_plank.costing.money import shown
from tall_plank.desk.document import Document
from tall_plank.desk.texts import tr
from tall_plank.desk.theme import Theme

FIGURES = ("units", "parts", "boards", "edging", "fittings", "price", "snags")
SCHEDULES = {
    "units": "units", "parts": "cut-list", "boards": "boards", "edging": "edging", "fittings": "hardware",
    "price": "price", "snags": "snags",
}  # fmt: skip


class Tally(QFrame):
    """A line of figures at the foot of the window."""

    opened = pyqtSignal(str)

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.setObjectName("tally")
        self.document = document
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 2, 8, 2)
        row.setSpacing(4)
        self.figures: dict[str, QPushButton] = {}
        for name in FIGURES:
            if name == "price":
                row.addStretch(1)
            button = QPushButton()
            button.setObjectName("tallyFigure")
            button.setCursor(Qt.CursorShape.PointingHandCursor)
            button.setToolTip(tr("Open the schedule"))
            button.clicked.connect(lambda _=False, name=name: self.opened.emit(SCHEDULES[name]))
            self.figures[name] = button
            row.addWidget(button)

    def refresh(self) -> None:
        tally = self.document.workings.tally
        texts = {
            "units": f"{tally.units} {tr('units')}",
            "parts": f"{tally.parts} {tr('parts')}",
            "boards": f"{tally.boards} {tr('boards')}, {tally.used * 100:.0f} % {tr('used')}",
            "edging": f"{tally.edging_m:.1f} m {tr('edging')}",
            "fittings": f"{tally.fittings} {tr('fittings')}",
            "price": f"{shown(tally.price.net)} {tally.currency} {tr('before tax')}",
            "snags": f"{tally.snags} {tr('snags') if tally.snags != 1 else tr('snag')}",
        }
        for name, text in texts.items():
            if self.figures[name].text() != text:
                self.figures[name].setText(text)
        color = Theme.colors.oxide if tally.snags else Theme.colors.moss
        sheet = f"color: {color}; font-weight: 600;"
        if self.figures["snags"].styleSheet() != sheet:
            self.figures["snags"].setStyleSheet(sheet)
            self.figures["price"].setStyleSheet("font-weight: 600;")

    def restyle(self) -> None:
        self.figures["snags"].setStyleSheet("")
        self.refresh()
