"""The tally: the running figures of the job; each opens its schedule."""

from __future__ import annotations

import time
from dataclasses import replace

from PyQt6.QtCore import Qt, QTimer, pyqtSignal
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QPushButton

from tall_plank.costing.money import shown
from tall_plank.desk.look.texts import counted, tr
from tall_plank.desk.look.theme import Theme
from tall_plank.desk.model.document import Document
from tall_plank.measure import format_measure
from tall_plank.workings import Tally as Figures

FIGURES = ("units", "parts", "boards", "edging", "fittings", "price", "snags")
SCHEDULES = {
    "units": "units", "parts": "cut-list", "boards": "boards", "edging": "edging", "fittings": "hardware",
    "price": "price", "snags": "snags",
}  # fmt: skip


SLOW = 0.03
"""s; figures that took longer than this wait for a pause."""

PAUSE = 90
"""ms without a change, after which slow figures are worked out."""


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
        self._last: Figures | None = None
        self._took = 0.0
        self._changed_at = 0.0
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.timeout.connect(self.catch_up)
        self.figures: dict[str, QPushButton] = {}
        for name in FIGURES:
            if name == "price":
                row.addStretch(1)
            button = QPushButton("–")
            button.setObjectName("tallyFigure")
            button.setCursor(Qt.CursorShape.PointingHandCursor)
            button.setToolTip(tr("Open the schedule"))
            button.clicked.connect(lambda _=False, name=name: self.opened.emit(SCHEDULES[name]))
            self.figures[name] = button
            row.addWidget(button)

    def refresh(self) -> None:
        """Pull the figures once the views have painted. During a drag, while a key is held, and where the last time
        took long, units, parts and price are told at once, all others keep their last figures with a mark and follow
        when it is quiet."""
        doc = self.document
        now = time.perf_counter()
        quickly, self._changed_at = now - self._changed_at < PAUSE / 1000, now
        if self._last is not None and (doc.drag_from is not None or self._took > SLOW or quickly):
            quick = doc.workings.quick
            kept = replace(self._last, units=quick.units, parts=quick.parts, price=quick.price, currency=quick.currency)
            self._show(kept, "≈ ")
            self._later.start(PAUSE)
        else:
            # The window comes up without them.
            self._later.start(0 if self._last is not None else PAUSE)

    def catch_up(self) -> None:
        """Work every figure out now."""
        self._later.stop()
        start = time.perf_counter()
        self._last = self.document.workings.tally
        self._took = time.perf_counter() - start
        self._show(self._last, "")

    def _show(self, tally: Figures, mark: str) -> None:
        texts = {
            "units": counted(tally.units, "unit", "units"),
            "parts": counted(tally.parts, "part", "parts"),
            "boards": f"{mark}{counted(tally.boards, 'board', 'boards')}, {tally.used * 100:.0f} % {tr('used')}",
            "edging": f"{mark}{format_measure(tally.edging_m, 'm', self.document.job.display)} {tr('edging')}",
            "fittings": f"{mark}{counted(tally.fittings, 'fitting', 'fittings')}",
            "price": f"{shown(tally.price.net)} {tally.currency} {tr('before tax')}",
            "snags": f"{mark}{counted(tally.snags, 'snag', 'snags')}",
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
