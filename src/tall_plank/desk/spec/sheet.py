"""The spec sheet: the selected thing as a readable sheet, a line per decision."""

from __future__ import annotations

from dataclasses import dataclass

from PyQt6.QtCore import QSize, Qt, pyqtSignal
from PyQt6.QtGui import QAction, QFocusEvent, QIcon, QKeyEvent
from PyQt6.QtWidgets import (
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QMenu,
    QProxyStyle,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QStyle,
    QStyleOption,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from tall_plank.desk.look.boxes import TextBox
from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, restyle
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Row, Sheet
from tall_plank.desk.spec.sheets import sheet_for
from tall_plank.desk.views.stockpictures import stock_picture
from tall_plank.measure import PlankError, format_length
from tall_plank.stock.catalog import entries


class WideIcons(QProxyStyle):
    """A menu's style with room for pictures."""

    SIZE = QSize(46, 30)

    def __init__(self, parent: QWidget) -> None:
        super().__init__("Fusion")
        self.setParent(parent)

    def pixelMetric(
        self, metric: QStyle.PixelMetric, option: QStyleOption | None = None, widget: QWidget | None = None
    ) -> int:
        if metric == QStyle.PixelMetric.PM_SmallIconSize:
            return self.SIZE.width()
        return super().pixelMetric(metric, option, widget)


class ValueBox(TextBox):
    """A typed value. Enter or leaving applies it; a wrong one keeps the text, says why, and changes nothing."""

    def __init__(self, line: SpecLine) -> None:
        super().__init__()
        self.line = line
        self.setObjectName("specValue")
        self.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.setAccessibleName(line.row.label)
        self.returnPressed.connect(self._enter)

    def apply(self) -> bool:
        """Make what is typed so; False where it does not do."""
        row = self.line.row
        error = None
        if row.apply is not None and self.text() != row.text:
            error = self.line.sheet.document.do(lambda job: row.apply(job, self.text()), at_place=True)  # type: ignore[misc]
        self.line.show_error(error)
        return error is None

    def _enter(self) -> None:
        # What is applied may take this very box away for another one.
        window = self.window()
        if self.apply():
            self.setModified(False)
            self.hand_back(window)

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        super().focusInEvent(event)
        if self.text() == tr("various") or self.text().startswith("~"):
            self.clear()
        self.selectAll()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        super().focusOutEvent(event)
        if event is not None and event.reason() in (
            Qt.FocusReason.PopupFocusReason,
            Qt.FocusReason.ActiveWindowFocusReason,
        ):
            return
        if self.line.sheet.replacing:
            # What it was typed for is no longer there: it must not reach what comes in its place.
            return
        if not self.isModified() or (not self.text() and self.line.row.text == tr("various")):
            self.setText(self.line.row.text)
            return
        self.apply()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        if event.key() == Qt.Key.Key_Escape and (self.isModified() or self.text() != self.line.row.text):
            self.setText(self.line.row.text)
            self.setModified(False)
            self.line.show_error(None)
        else:
            super().keyPressEvent(event)


TARGET = 24
"""px; the least size of what is pressed (WCAG 2.2, 2.5.8)."""


class SpecLine(QWidget):
    """A label and its value; a message below it where what was typed does not do."""

    def __init__(self, sheet: SpecSheet, row: Row) -> None:
        super().__init__()
        self.sheet, self.row = sheet, row
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(4)
        grid.setVerticalSpacing(0)
        self.label = QLabel(row.label)
        self.label.setObjectName("specLabel")
        # A long name goes on in a second line, so that the arrows at the right stay in sight.
        self.label.setWordWrap(len(row.label) > 22 or (row.text == "" and row.apply is None))
        grid.addWidget(self.label, 0, 0)
        self.value: ValueBox | QPushButton | QLabel
        if row.choices:
            self.value = self._chooser(row)
        elif row.apply is not None:
            self.value = ValueBox(self)
        else:
            self.value = QLabel()
            self.value.setAlignment(Qt.AlignmentFlag.AlignRight)
            self.value.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
            self.value.setContentsMargins(0, 2, 9, 2)
        wide = row.key.startswith("job_") or row.key in ("outline", "corners", "top_outline", "label", "anchor")
        self.value.setMinimumWidth(150 if wide else 64)
        self.value.setMinimumHeight(TARGET)
        grid.addWidget(self.value, 0, 1)
        self.revert = QToolButton()
        self.revert.setObjectName("revert")
        self.revert.setText("↺")
        self.revert.setToolTip(tr("Inherit again"))
        self.revert.setAccessibleName(tr("Inherit again") + " " + row.label)
        self.revert.clicked.connect(self._revert)
        self.revert.setFixedSize(TARGET, TARGET)
        policy = self.revert.sizePolicy()
        policy.setRetainSizeWhenHidden(True)
        self.revert.setSizePolicy(policy)
        grid.addWidget(self.revert, 0, 2)
        self.error = QLabel()
        self.error.setObjectName("specError")
        self.error.setWordWrap(True)
        self.error.hide()
        grid.addWidget(self.error, 1, 0, 1, 3)
        grid.setColumnStretch(0, 1)
        self.pull(row)

    def _chooser(self, row: Row) -> QPushButton:
        button = QPushButton()
        button.setObjectName("specValue")
        button.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        button.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
        button.setAccessibleName(row.label)
        menu = QMenu(button)
        for code, label in row.choices:
            action = QAction(label, menu)
            action.setData(code)
            menu.addAction(action)
        if row.stock:
            menu.setStyle(WideIcons(menu))
            menu.aboutToShow.connect(lambda: self._picture(menu))
            menu.addSeparator()
            more = QAction(tr("See them all with sizes and prices…"), menu)
            more.triggered.connect(lambda: self.sheet.browse.emit(row.stock))
            menu.addAction(more)
        menu.triggered.connect(lambda action: self._choose(action.data()) if action.data() is not None else None)
        button.setMenu(menu)
        return button

    def _picture(self, menu: QMenu) -> None:
        """Show the choices as they look, with their sizes, when the menu opens."""
        job = self.sheet.document.job
        found = {e.code: e for e in entries(job.stock, job.price_book())}
        for action in menu.actions():
            entry = found.get(action.data() or "")
            if entry is not None:
                action.setIcon(QIcon(stock_picture(job, entry, WideIcons.SIZE, dark=Theme.dark)))
                size = " x ".join(format_length(mm, job.display) for word, mm in entry.sizes if word in ("long", "out"))
                action.setText(f"{entry.name}  ·  {size}" if size else entry.name)

    def _choose(self, code: str) -> None:
        row = self.row
        if row.apply is not None:
            self.show_error(self.sheet.document.do(lambda job: row.apply(job, code), at_place=True))  # type: ignore[misc]

    def _revert(self) -> None:
        if self.row.revert is not None:
            self.show_error(self.sheet.document.do(self.row.revert, at_place=True))

    def pull(self, row: Row) -> None:
        """Show a row; what is being typed is left alone."""
        changed = row != self.row or not self.value.text()
        self.row = row
        self.revert.setVisible(row.revert is not None)
        if not changed:
            return
        self.label.setText(row.label)
        typing = isinstance(self.value, ValueBox) and self.value.hasFocus() and self.value.isModified()
        if not typing:
            self.value.setText(row.text)
            if isinstance(self.value, ValueBox):
                self.value.setCursorPosition(0)
        self.value.setToolTip(row.source)
        self.value.setAccessibleName(row.label)
        origin = {"own": tr("own value"), "inherited": tr("inherited"), "various": tr("various")}.get(row.origin, "")
        self.value.setAccessibleDescription(", ".join(t for t in (origin, row.source) if t))
        if self.value.property("origin") != row.origin:
            self.value.setProperty("origin", row.origin)
            restyle(self.value)
        if isinstance(self.value, QPushButton):
            # Room for the words upright and with a border, however they stand now.
            wide = self.value.fontMetrics().horizontalAdvance(row.text) + 30
            self.value.setMinimumWidth(min(200, max(64, wide)))
        self.show_error(None)

    def forget(self) -> None:
        """Show the row as it is: what was typed and not taken is gone."""
        if isinstance(self.value, ValueBox):
            self.value.setText(self.row.text)
            self.value.setCursorPosition(0)
        self.show_error(None)

    def show_error(self, error: PlankError | None) -> None:
        wrong = error is not None
        self.error.setVisible(wrong)
        if error is not None:
            self.error.setText(f"{error.what} {error.remedy}".strip())
            self.value.setAccessibleDescription(self.error.text())
        elif isinstance(self.value, ValueBox):
            self.value.setModified(False)
        if bool(self.value.property("wrong")) != wrong:
            self.value.setProperty("wrong", wrong)
            restyle(self.value)


KEPT = 8
"""Sheets whose lines are kept."""


@dataclass
class Body:
    """The lines of a sheet as they are on screen, with their heads."""

    widget: QWidget
    lines: dict[str, SpecLine]
    title: QLabel
    subtitle: QLabel


class SpecSheet(QFrame):
    """The right-hand sheet. Lines are kept while the same decisions are shown, so nothing jumps."""

    browse = pyqtSignal(str)
    """A heading of the stock page is asked for."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.setObjectName("spec")
        self.document = document
        self.stage = "units"
        self.setMinimumWidth(236)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        self.scroller = QScrollArea()
        self.scroller.setWidgetResizable(True)
        self.scroller.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.scroller.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        outer.addWidget(self.scroller)
        self.lines: dict[str, SpecLine] = {}
        self._shape: object = None
        self._kept: dict[object, Body] = {}
        """Lines that were shown lately, by what they are of: they come back at once."""
        self.replacing = False
        """Whether the lines are being taken away for others."""
        self.title = QLabel()
        self.subtitle = QLabel()

    def refresh(self) -> None:
        """Pull the selection."""
        sheet = sheet_for(self.document, self.stage)
        shape = tuple((g.name, tuple((r.key, r.choices, r.apply is None) for r in g.rows)) for g in sheet.groups)
        if shape != self._shape:
            self._shape = shape
            self._build(sheet)
        self.title.setText(sheet.title)
        self.subtitle.setText(sheet.subtitle)
        for group in sheet.groups:
            for row in group.rows:
                self.lines[f"{group.name}/{row.key}"].pull(row)

    def line(self, key: str) -> SpecLine:
        """The line of a decision, by its key."""
        return next(line for name, line in self.lines.items() if name.endswith("/" + key))

    def _build(self, sheet: Sheet) -> None:
        focused = next((name for name, line in self.lines.items() if line.value.hasFocus()), "")
        # The line whose change leads here is still at work, so the old ones are not gone yet.
        self.replacing = True
        old = self.scroller.takeWidget()
        if old is not None:
            old.hide()
            old.setParent(self)
        self.replacing = False
        body = self._kept.pop(self._shape, None) or self._made(sheet)
        self._kept[self._shape] = body
        while len(self._kept) > KEPT:
            self._kept.pop(next(iter(self._kept))).widget.deleteLater()
        for line in body.lines.values():
            line.forget()
        self.lines, self.title, self.subtitle = body.lines, body.title, body.subtitle
        self.scroller.setWidget(body.widget)
        body.widget.show()
        if focused in self.lines:
            self.lines[focused].value.setFocus()

    def _made(self, sheet: Sheet) -> Body:
        """The lines of a sheet."""
        body = QWidget()
        body.setObjectName("specBody")
        column = QVBoxLayout(body)
        column.setContentsMargins(16, 14, 6, 16)
        column.setSpacing(3)
        title, subtitle = QLabel(), QLabel()
        title.setObjectName("specTitle")
        title.setWordWrap(True)
        subtitle.setObjectName("specSub")
        subtitle.setWordWrap(True)
        column.addWidget(title)
        column.addWidget(subtitle)
        lines: dict[str, SpecLine] = {}
        for group in sheet.groups:
            head = QLabel(group.name.upper())
            head.setObjectName("specGroup")
            holder = QHBoxLayout()
            holder.setContentsMargins(0, 0, 10, 3)
            holder.addWidget(head)
            column.addLayout(holder)
            for row in group.rows:
                line = SpecLine(self, row)
                lines[f"{group.name}/{row.key}"] = line
                column.addWidget(line)
        column.addStretch(1)
        return Body(body, lines, title, subtitle)
