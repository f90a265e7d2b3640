"""The preview of what is printed: its pages on the paper that is chosen, and a way to the printer."""

from __future__ import annotations

import math
from collections.abc import Callable

from PyQt6.QtCore import QMarginsF, Qt
from PyQt6.QtGui import QImage, QPageLayout, QPageSize
from PyQt6.QtPrintSupport import QPrintDialog, QPrinter, QPrintPreviewWidget
from PyQt6.QtWidgets import QComboBox, QDialog, QHBoxLayout, QLabel, QPushButton, QSpinBox, QVBoxLayout, QWidget

from tall_plank.desk.look.texts import tr

PAPERS = ("A4", "A3", "A5", "A6", "Letter", "Tabloid")
"""Sizes that pages are printed on; Tabloid is 11 x 17 inches."""

WAYS = {"across": QPageLayout.Orientation.Landscape, "upright": QPageLayout.Orientation.Portrait}


def fitting_paper(page: QImage, per_mm: float) -> str:
    """The paper of a page that is no drawing: the smallest that holds it. `per_mm`: its pixels a mm."""
    sides = sorted((page.width() / per_mm, page.height() / per_mm))

    def area(name: str) -> float:
        size = QPageSize.size(_id(name), QPageSize.Unit.Millimeter)
        fits = all(have >= need - 1.0 for have, need in zip(sorted((size.width(), size.height())), sides, strict=True))
        return size.width() * size.height() if fits else math.inf

    return min(PAPERS, key=area)


def _id(name: str) -> QPageSize.PageSizeId:
    found: QPageSize.PageSizeId = getattr(QPageSize.PageSizeId, name)
    return found


class Preview(QDialog):
    """Pages as they will come out of the printer."""

    def __init__(
        self,
        parent: QWidget,
        printer: QPrinter,
        title: str,
        paper: str,
        wide: bool,
        paint: Callable[[QPrinter, int], object],
        a_page: int = 0,
    ) -> None:
        """`paint`: puts it on a printer's pages; it is told how many labels of the first sheet are used up.
        `a_page`: labels on a sheet; 0 where it is no labels."""
        super().__init__(parent)
        self.setWindowTitle(f"{tr('Print')}: {title}")
        self.printer = printer
        printer.setFullPage(True)
        self.used = QSpinBox(self)
        self.used.hide()
        self.used.setRange(0, max(0, a_page - 1))
        self.used.setPrefix(f"{tr('Used up')}: ")
        self.used.setAccessibleName(tr("Labels of the first sheet that are used up"))
        self.used.setToolTip(tr("Labels of the first sheet that are used up"))
        self.used.valueChanged.connect(lambda: self.view.updatePreview())
        self.view = QPrintPreviewWidget(printer, self)
        self.view.setAccessibleName(tr("Pages"))
        self.view.paintRequested.connect(lambda to: paint(to, self.used.value()))
        self.view.previewChanged.connect(self._tell)
        self.paper, self.way = QComboBox(), QComboBox()
        self.paper.setAccessibleName(tr("Paper"))
        self.way.setAccessibleName(tr("How the paper lies"))
        self.paper.addItems(PAPERS)
        self.paper.setCurrentText(paper if paper in PAPERS else "A4")
        for code in WAYS:
            self.way.addItem(tr(code), code)
        self.way.setCurrentIndex(0 if wide else 1)
        for box in (self.paper, self.way):
            box.currentIndexChanged.connect(self._lay)
        self.page = QLabel()
        row = QHBoxLayout()
        row.setSpacing(8)
        row.addWidget(self.paper)
        row.addWidget(self.way)
        if a_page > 1:
            row.addWidget(self.used)
            self.used.show()
        row.addSpacing(12)
        acts: tuple[tuple[str, Callable[[], object]], ...] = (
            (tr("Whole page"), self.view.fitInView),
            (tr("Page width"), self.view.fitToWidth),
            (tr("Larger"), self.view.zoomIn),
            (tr("Smaller"), self.view.zoomOut),
        )
        for words, act in acts:
            row.addWidget(self._button(words, act))
        row.addSpacing(12)
        self.back = self._button(tr("Page before"), lambda: self._turn(-1))
        self.on = self._button(tr("Next page"), lambda: self._turn(1))
        for widget in (self.back, self.page, self.on):
            row.addWidget(widget)
        row.addStretch(1)
        close = self._button(tr("Close"), self.reject)
        self.go = self._button(tr("Print…"), self._print)
        self.go.setDefault(True)
        row.addWidget(close)
        row.addWidget(self.go)
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 12, 12, 12)
        column.addLayout(row)
        column.addWidget(self.view, 1)
        self.setWindowFlag(Qt.WindowType.WindowContextHelpButtonHint, False)
        self._lay()

    def _button(self, words: str, act: Callable[[], object]) -> QPushButton:
        button = QPushButton(words)
        button.setAutoDefault(False)
        button.clicked.connect(lambda: act())
        return button

    def _lay(self) -> None:
        """Take up the paper that is chosen."""
        size = QPageSize(_id(self.paper.currentText()))
        self.printer.setPageLayout(QPageLayout(size, WAYS[self.way.currentData()], QMarginsF(0, 0, 0, 0)))
        self.view.updatePreview()

    def _turn(self, by: int) -> None:
        self.view.setCurrentPage(min(max(1, self.view.currentPage() + by), max(1, self.view.pageCount())))
        self._tell()

    def _tell(self) -> None:
        at, of = self.view.currentPage(), self.view.pageCount()
        self.page.setText(f"{at} / {of}")
        self.back.setEnabled(at > 1)
        self.on.setEnabled(at < of)

    def _print(self) -> None:
        if QPrintDialog(self.printer, self).exec():
            self.view.print()
            self.accept()
