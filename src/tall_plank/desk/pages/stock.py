"""The page of stock: everything that can be bought, with picture, sizes and price; searched, shortlisted, read in."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from PyQt6.QtCore import QAbstractTableModel, QModelIndex, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QIcon, QKeyEvent
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QComboBox,
    QDialog,
    QHBoxLayout,
    QHeaderView,
    QLabel,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QTableView,
    QVBoxLayout,
    QWidget,
)

from tall_plank.costing.money import shown
from tall_plank.desk.look import asking
from tall_plank.desk.look.boxes import TextBox
from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.model.document import Document
from tall_plank.desk.pages.profile import read_profile
from tall_plank.desk.views.stockpictures import stock_picture
from tall_plank.edits import standards, units
from tall_plank.edits.stocklist import ListRow, rows_that_fit, set_shortlist, take_list
from tall_plank.files.stocklist import read_stock_list
from tall_plank.job.standard import CHOICE_KEYS
from tall_plank.measure import PlankError, format_length
from tall_plank.stock.catalog import Entry, entries, search

SMALL, LARGE = QSize(76, 46), QSize(212, 150)
HEADS = ("", "Name", "Sizes", "Price", "")
SHOWN = 4
"""Faults of a list that are shown at once."""

SHORTLIST = "*"
"""The heading that holds the shortlisted things."""


class StockRows(QAbstractTableModel):
    """Entries as rows: picture, name and code, sizes, price, a star where it is shortlisted."""

    def __init__(self, page: StockPage) -> None:
        super().__init__(page)
        self.page = page
        self.rows: tuple[Entry, ...] = ()

    def show_rows(self, rows: tuple[Entry, ...]) -> None:
        self.beginResetModel()
        self.rows = rows
        self.endResetModel()

    def rowCount(self, parent: QModelIndex = QModelIndex()) -> int:
        return 0 if parent.isValid() else len(self.rows)

    def columnCount(self, parent: QModelIndex = QModelIndex()) -> int:
        return 0 if parent.isValid() else len(HEADS)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if orientation is not Qt.Orientation.Horizontal:
            return None
        if role == Qt.ItemDataRole.DisplayRole:
            return f"{tr('Price')}, {self.page.currency}" if section == 3 else tr(HEADS[section]) if section else ""
        if role == Qt.ItemDataRole.TextAlignmentRole and section == 3:
            return Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        return None

    def data(self, index: QModelIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        entry = self.rows[index.row()]
        column = index.column()
        if role == Qt.ItemDataRole.DecorationRole and column == 0:
            pixmap = stock_picture(self.page.document.job, entry, SMALL, dark=Theme.dark)
            icon = QIcon(pixmap)
            icon.addPixmap(pixmap, QIcon.Mode.Selected)  # a selected row does not tint it
            return icon
        if role == Qt.ItemDataRole.DisplayRole:
            return ("", f"{entry.name}\n{entry.code}", self.page.sizes_of(entry), price_text(entry),
                    "★" if entry.code in self.page.shortlist else "☆")[column]  # fmt: skip
        if role == Qt.ItemDataRole.TextAlignmentRole:
            right = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
            return {3: right, 4: Qt.AlignmentFlag.AlignCenter}.get(column)
        if role == Qt.ItemDataRole.ForegroundRole and column == 4:
            return Theme.color("brass" if entry.code in self.page.shortlist else "quiet")
        if role == Qt.ItemDataRole.FontRole and column == 4:
            return font(16)
        if role == Qt.ItemDataRole.ToolTipRole and column == 4:
            return tr("Shortlisted: offered first") if entry.code in self.page.shortlist else tr("Put on the shortlist")
        return None


def price_text(entry: Entry, currency: str = "") -> str:
    """A price, in its currency where one is given, with what it is for."""
    if entry.price is None:
        return tr("no price")
    per = {"each": "", "m": tr("a meter"), "m2": tr("a m²"), "sheet": tr("a sheet"), "hour": tr("an hour")}[entry.per]
    return " ".join(filter(None, (shown(entry.price), currency, per)))


class StockTable(QTableView):
    """Things as rows; the space bar shortlists."""

    starred = pyqtSignal()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() == Qt.Key.Key_Space:
            self.starred.emit()
        else:
            super().keyPressEvent(event)


class StockPage(QDialog):
    """Headings at the left, things in the middle, the chosen one at the right."""

    def __init__(self, parent: QWidget, document: Document) -> None:
        super().__init__(parent)
        self.document = document
        self.shortlist: frozenset[str] = frozenset()
        self.currency = ""
        self._all: tuple[Entry, ...] = ()
        self.setWindowTitle(tr("Stock"))
        self.resize(1080, 700)
        column = QVBoxLayout(self)
        column.setContentsMargins(18, 14, 18, 12)
        column.addLayout(self._head())
        middle = QHBoxLayout()
        middle.setSpacing(14)
        self.groups = QListWidget()
        self.groups.setObjectName("listing")
        self.groups.setFixedWidth(164)
        self.groups.setAccessibleName(tr("Kinds of stock"))
        self.groups.currentRowChanged.connect(lambda _: self._fill())
        middle.addWidget(self.groups)
        self.table = StockTable()
        self.model = StockRows(self)
        self.table.setModel(self.model)
        self._dress_table()
        middle.addWidget(self.table, 1)
        middle.addLayout(self._chosen())
        column.addLayout(middle, 1)
        self.error = QLabel()
        self.error.setObjectName("specError")
        self.error.setWordWrap(True)
        column.addWidget(self.error)
        self.others = QPushButton()
        self.others.clicked.connect(self._take_others)
        self.others.hide()
        self._waiting: tuple[ListRow, ...] = ()
        beside = QHBoxLayout()
        beside.addWidget(self.others)
        beside.addStretch(1)
        column.addLayout(beside)
        document.changed.connect(self.refresh)
        document.selected.connect(self._show_chosen)
        for button in self.findChildren(QPushButton):
            button.setAutoDefault(False)  # Enter belongs to the list
        self.refresh()
        self.groups.setCurrentRow(0)

    # --- building

    def _head(self) -> QHBoxLayout:
        line = QHBoxLayout()
        title = QLabel(tr("Stock"))
        title.setObjectName("specTitle")
        self.count = QLabel()
        self.count.setObjectName("specSub")
        self.search = TextBox()
        self.search.setAccessibleName(tr("Search the stock"))
        self.search.setPlaceholderText(tr("Find by name, code, supplier"))
        self.search.setClearButtonEnabled(True)
        self.search.setFixedWidth(230)
        self.search.textChanged.connect(lambda _: self._fill())
        self.style_box, self.finish_box = QComboBox(), QComboBox()
        for box, name in ((self.style_box, tr("Style of the handle")), (self.finish_box, tr("Finish"))):
            box.setAccessibleName(name)
            box.setMinimumContentsLength(10)
            box.activated.connect(lambda _: self._fill())
        self.read = QPushButton(tr("Read a list…"))
        self.read.setToolTip(tr("A supplier's list as CSV or XLSX: code, picture, sizes, price"))
        self.read.clicked.connect(self.read_list)
        line.addWidget(title)
        line.addSpacing(8)
        line.addWidget(self.count, 1)
        self.profile = QPushButton(tr("Read a profile…"))
        self.profile.setToolTip(tr("The section of a molding as DXF or SVG"))
        self.profile.clicked.connect(self.read_profile)
        for widget in (self.style_box, self.finish_box, self.search, self.profile, self.read):
            line.addWidget(widget)
        return line

    def _dress_table(self) -> None:
        table = self.table
        table.setShowGrid(False)
        table.setTabKeyNavigation(False)
        table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        table.setIconSize(SMALL)
        table.setWordWrap(True)
        table.setAccessibleName(tr("Things of stock"))
        table.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        rows, heads = table.verticalHeader(), table.horizontalHeader()
        assert rows is not None and heads is not None
        rows.hide()
        rows.setDefaultSectionSize(56)
        heads.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        heads.setHighlightSections(False)
        for i, width in enumerate((92, 0, 206, 104, 40)):
            if width:
                heads.setSectionResizeMode(i, QHeaderView.ResizeMode.Fixed)
                table.setColumnWidth(i, width)
        heads.setSectionResizeMode(1, QHeaderView.ResizeMode.Stretch)
        table.selectionModel().selectionChanged.connect(lambda *_: self._show_chosen())  # type: ignore[union-attr]
        table.clicked.connect(lambda index: self.toggle() if index.column() == 4 else None)
        table.activated.connect(lambda index: self.use() if index.column() != 4 else None)
        table.starred.connect(self.toggle)

    def _chosen(self) -> QVBoxLayout:
        column = QVBoxLayout()
        column.setSpacing(5)
        self.picture = QLabel()
        self.picture.setFixedSize(LARGE)
        self.name = QLabel()
        self.name.setObjectName("specTitle")
        self.facts = QLabel()
        self.facts.setObjectName("specSub")
        for label in (self.name, self.facts):
            label.setWordWrap(True)
            label.setFixedWidth(LARGE.width())
        self.use_units, self.use_job = QPushButton(), QPushButton(tr("Use in the whole job"))
        self.use_units.clicked.connect(self.use)
        self.use_job.clicked.connect(lambda: self.use(whole=True))
        self.star = QPushButton()
        self.star.clicked.connect(self.toggle)
        for label in (self.picture, self.name, self.facts):
            column.addWidget(label)
        column.addStretch(1)
        for widget in (self.use_units, self.use_job, self.star):
            column.addWidget(widget)
        return column

    # --- content

    def refresh(self) -> None:
        """Pull the job's stock; heading, search and the chosen thing stay."""
        job = self.document.job
        book = job.price_book()
        self.currency = book.currency
        self.shortlist = frozenset(job.shortlist)
        self._all = entries(job.stock, book)
        counts: dict[str, int] = {}
        for entry in self._all:
            counts[entry.group] = counts.get(entry.group, 0) + 1
        listed = sum(e.code in self.shortlist for e in self._all)
        rows = [("", tr("Everything"), len(self._all)), (SHORTLIST, tr("Shortlist"), listed)]
        rows += [(group, tr(group), n) for group, n in counts.items()]
        chosen = self.group()
        self.groups.blockSignals(True)
        self.groups.clear()
        for group, words, n in rows:
            item = QListWidgetItem(f"{words}  {n}")
            item.setData(Qt.ItemDataRole.UserRole, group)
            self.groups.addItem(item)
        self.groups.setCurrentRow(max(0, [r[0] for r in rows].index(chosen) if chosen in [r[0] for r in rows] else 0))
        self.groups.blockSignals(False)
        self._fill()

    def group(self) -> str:
        item = self.groups.currentItem()
        return str(item.data(Qt.ItemDataRole.UserRole)) if item is not None else ""

    def show_group(self, group: str) -> None:
        """Show the things of one heading."""
        for i in range(self.groups.count()):
            item = self.groups.item(i)
            if item is not None and item.data(Qt.ItemDataRole.UserRole) == group:
                self.groups.setCurrentRow(i)

    def sizes_of(self, entry: Entry) -> str:
        display = self.document.job.display
        return " · ".join(f"{format_length(mm, display)} {tr(word)}" for word, mm in entry.sizes)

    def _fill(self) -> None:
        group = self.group()
        code = self.chosen().code if self.chosen() is not None else ""  # type: ignore[union-attr]
        only = self.shortlist if group == SHORTLIST else None
        found = search(self._all, self.search.text(), "" if group == SHORTLIST else group, only)
        self._fill_boxes(group)
        style, finish = self.style_box.currentData(), self.finish_box.currentData()
        if group == "Handles":
            found = tuple(e for e in found if (not style or e.style == style) and (not finish or e.finish == finish))
        # What is shortlisted comes first.
        found = tuple(sorted(found, key=lambda e: e.code not in self.shortlist))
        self.model.show_rows(found)
        self.count.setText(f"{len(found)} {tr('of')} {len(self._all)}")
        codes = [e.code for e in found]
        if found:
            self.table.selectRow(codes.index(code) if code in codes else 0)
        self._show_chosen()

    def _fill_boxes(self, group: str) -> None:
        handles = group == "Handles"
        self.style_box.setVisible(handles)
        self.finish_box.setVisible(handles)
        if not handles:
            return
        whole = [e for e in self._all if e.group == "Handles"]
        for box, every, values in (
            (self.style_box, tr("Every style"), sorted({e.style for e in whole})),
            (self.finish_box, tr("Every finish"), sorted({e.finish for e in whole})),
        ):
            chosen = box.currentData()
            box.clear()
            box.addItem(every, "")
            for value in values:
                words = tr(value.capitalize()) if box is self.style_box else self._finish_words(value, whole)
                box.addItem(words, value)
            box.setCurrentIndex(max(0, box.findData(chosen)))

    @staticmethod
    def _finish_words(color: str, handles: list[Entry]) -> str:
        """A finish by the word that its handles' names end with."""
        name = next(e.name for e in handles if e.finish == color)
        return name.rsplit(",", 1)[-1].strip().capitalize() if "," in name else color

    def chosen(self) -> Entry | None:
        rows = self.table.selectionModel().selectedRows()  # type: ignore[union-attr]
        return self.model.rows[rows[0].row()] if rows and rows[0].row() < len(self.model.rows) else None

    def _show_chosen(self) -> None:
        entry = self.chosen()
        cells = self.document.cells
        usable = entry is not None and entry.kind in CHOICE_KEYS
        self.use_units.setVisible(usable)
        self.use_job.setVisible(usable)
        self.use_units.setEnabled(bool(cells))
        few = f"{len(cells)} {tr('selected units')}" if len(cells) != 1 else tr("selected unit")
        self.use_units.setText(f"{tr('Use on the')} {few}" if cells else tr("Use on selected units"))
        self.star.setVisible(entry is not None)
        if entry is None:
            self.picture.clear()
            self.name.setText(tr("Nothing found") if self._all else "")
            self.facts.setText(tr("Try fewer words, or another heading."))
            return
        on = entry.code in self.shortlist
        self.star.setText(tr("Take off the shortlist") if on else tr("Put on the shortlist"))
        self.picture.setPixmap(stock_picture(self.document.job, entry, LARGE, dark=Theme.dark))
        self.name.setText(entry.name)
        lines = [f"{entry.code} · {entry.supplier}" if entry.supplier else entry.code]
        lines += [f"{format_length(mm, self.document.job.display)} {tr(word)}" for word, mm in entry.sizes]
        lines.append(price_text(entry, self.currency))
        self.facts.setText("\n".join(lines))

    # --- doing

    def _told(self, error: PlankError | None) -> None:
        self.error.setText(str(error) if error is not None else "")
        self.others.hide()

    def toggle(self) -> None:
        """Put the chosen thing on the shortlist, or take it off."""
        entry = self.chosen()
        if entry is not None:
            on = entry.code not in self.shortlist
            self._told(self.document.do(lambda job: set_shortlist(job, (entry.code,), on), at_place=True))

    def use(self, *_: object, whole: bool = False) -> None:
        """Use the chosen thing: on the selected units, or by the shop standard in force in the whole job."""
        entry, cells = self.chosen(), self.document.cells
        if entry is None or entry.kind not in CHOICE_KEYS:
            return
        if whole:
            self._told(self.document.do(lambda job: standards.set_in_force(job, entry.kind, entry.code), at_place=True))
        elif cells:
            self._told(self.document.do(lambda job: units.set_own(job, cells, entry.kind, entry.code), at_place=True))

    def read_list(self) -> None:
        """Read a supplier's list into the job's stock; one step that can be undone."""
        start = self.document.path.parent if self.document.path else Path.home()
        path = asking.ask_read(self, tr("Read a list of stock"), start, "CSV, XLSX (*.csv *.xlsx)")
        if path is None:
            return
        faults: list[str] = []
        try:
            rows = read_stock_list(path, faults)
            if rows or not faults:
                rows, more = rows_that_fit(self.document.job, rows)
                faults += more
        except PlankError as error:
            self._told(error)
            return
        if not faults:
            self._told(self.document.do(lambda job: take_list(job, rows), at_place=True))
            return
        lines = [f"{len(faults)} {tr('rows cannot be taken')}:", *faults[:SHOWN]]
        if len(faults) > SHOWN:
            lines.append(f"{tr('and')} {len(faults) - SHOWN} {tr('more')}")
        self._told(PlankError("\n".join(lines)))
        if rows:
            self._waiting = rows
            self.others.setText(f"{tr('&Take the other')} {len(rows)} {tr('rows')}")
            self.others.show()
            self.others.setFocus()

    def read_profile(self) -> None:
        """Take the section of a molding from a drawing into the job's stock, and show it."""
        try:
            code = read_profile(self, self.document)
        except PlankError as error:
            self._told(error)
            return
        if code:
            self._told(None)
            self.show_group("Moldings")
            self.search.clear()
            self.show_thing(code)

    def show_thing(self, code: str) -> None:
        """Choose a thing in the list, where it is among those that are shown."""
        codes = [e.code for e in self.model.rows]
        if code in codes:
            self.table.selectRow(codes.index(code))
            self.table.setFocus()

    def _take_others(self) -> None:
        """Take the rows of the list that was read last in which nothing is wrong."""
        rows = self._waiting
        self._told(self.document.do(lambda job: take_list(job, rows), at_place=True))
        self.table.setFocus()
