"""The page of shop standards: all of them side by side, a row a value; edit, compare, copy, apply, read and write."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import QAbstractItemModel, QModelIndex, Qt
from PyQt6.QtGui import QKeySequence, QShortcut
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QCheckBox,
    QComboBox,
    QDialog,
    QHBoxLayout,
    QHeaderView,
    QLabel,
    QLineEdit,
    QPushButton,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from tall_plank.desk.look import asking
from tall_plank.desk.look.boxes import TextBox, TypedTable
from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import listed
from tall_plank.edits import standards
from tall_plank.edits.choices import EDGING_FINISHES, label_of
from tall_plank.edits.units import inherit_again, set_own
from tall_plank.files.standards import read_standard, write_standard
from tall_plank.job import Body
from tall_plank.job.inherit import sourced
from tall_plank.job.standard import CHOICES, LENGTH_KEYS, PARTS
from tall_plank.measure import Length, PlankError, format_length

KEY = Qt.ItemDataRole.UserRole + 1
CODE = Qt.ItemDataRole.UserRole + 2


def words_of(key: str) -> str:
    """A key as it is read."""
    return tr(label_of(key)[:1].upper() + label_of(key)[1:])


class ValueDelegate(QStyledItemDelegate):
    """Edits a value in its cell: a list where it is a choice, else a box."""

    def __init__(self, page: StandardsPage) -> None:
        super().__init__(page)
        self.page = page

    def createEditor(self, parent: QWidget | None, option: QStyleOptionViewItem, index: QModelIndex) -> QWidget | None:
        options = self.page.choices(index.data(KEY))
        if not options:
            box = TextBox(parent)
            box.setFrame(False)
            return box
        combo = QComboBox(parent)
        for code, label in options:
            combo.addItem(label, code)

        def taken(_: int) -> None:
            self.commitData.emit(combo)
            self.closeEditor.emit(combo)

        combo.activated.connect(taken)
        return combo

    def setEditorData(self, editor: QWidget | None, index: QModelIndex) -> None:
        if isinstance(editor, QComboBox):
            editor.setCurrentIndex(max(0, editor.findData(index.data(CODE))))
        elif isinstance(editor, QLineEdit):
            editor.setText(str(index.data(Qt.ItemDataRole.DisplayRole)).lstrip("~"))
            editor.selectAll()

    def setModelData(self, editor: QWidget | None, model: QAbstractItemModel | None, index: QModelIndex) -> None:
        if isinstance(editor, QComboBox):
            self.page.set_value(index.row(), index.column(), str(editor.currentData()))
        elif isinstance(editor, QLineEdit) and editor.text() != str(index.data()).lstrip("~"):
            self.page.set_value(index.row(), index.column(), editor.text())


class StandardsPage(QDialog):
    """Standards as columns, their values as rows under the headings of their parts."""

    def __init__(self, parent: QWidget, document: Document) -> None:
        super().__init__(parent)
        self.document = document
        self.setWindowTitle(tr("Shop standards"))
        self.resize(1040, 700)
        column = QVBoxLayout(self)
        column.setContentsMargins(18, 14, 18, 12)
        head = QHBoxLayout()
        title = QLabel(tr("Shop standards"))
        title.setObjectName("specTitle")
        self.search = TextBox()
        self.search.setAccessibleName(tr("Search the values"))
        self.search.setPlaceholderText(tr("Find a value"))
        self.search.setClearButtonEnabled(True)
        self.search.setFixedWidth(200)
        self.search.textChanged.connect(self.refresh)
        self.only = QCheckBox(tr("Only where they differ"))
        self.only.toggled.connect(self.refresh)
        head.addWidget(title)
        head.addStretch(1)
        head.addWidget(self.only)
        head.addSpacing(14)
        head.addWidget(self.search)
        column.addLayout(head)
        self.table = TypedTable()
        self.table.setItemDelegate(ValueDelegate(self))
        self.table.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.table.setEditTriggers(
            QAbstractItemView.EditTrigger.DoubleClicked
            | QAbstractItemView.EditTrigger.EditKeyPressed
            | QAbstractItemView.EditTrigger.AnyKeyPressed
        )
        self.table.setShowGrid(False)
        self.table.setTabKeyNavigation(False)  # Tab leaves the table; the arrows walk in it
        rows = self.table.verticalHeader()
        assert rows is not None
        rows.hide()
        rows.setDefaultSectionSize(27)
        self.table.setAccessibleName(tr("Values of the shop standards"))
        self.table.currentCellChanged.connect(lambda *_: self._enable())
        inherit = QShortcut(QKeySequence(Qt.Key.Key_Delete), self.table)
        inherit.setContext(Qt.ShortcutContext.WidgetShortcut)
        inherit.activated.connect(self.inherit_current)
        column.addWidget(self.table, 1)
        self.error = QLabel()
        self.error.setObjectName("specError")
        self.error.setWordWrap(True)
        column.addWidget(self.error)
        column.addLayout(self._buttons())
        document.changed.connect(self.refresh)
        document.selected.connect(self.refresh)
        self._rows: list[str] = []
        self.refresh()
        self.table.setFocus()

    def _buttons(self) -> QHBoxLayout:
        line = QHBoxLayout()
        self.part = QComboBox()
        self.part.addItem(tr("The whole standard"), "")
        for part in PARTS:
            self.part.addItem(tr(part.capitalize()), part)
        self.part.setAccessibleName(tr("Part of the standard"))
        self.apply = QPushButton(tr("Apply to the selected units"))
        self.apply.clicked.connect(self.apply_to_units)
        self.follow = QPushButton(tr("Follow the job again"))
        self.follow.setToolTip(tr("The selected units give up standards of their own; single values stay"))
        self.follow.clicked.connect(
            lambda: self._told(self.document.do(lambda job: standards.follow_job(job, self.cells()), at_place=True))
        )
        self.use = QPushButton(tr("Put in force"))
        self.use.clicked.connect(
            lambda: self._told(self.document.do(lambda job: standards.use_standard(job, self.current()), at_place=True))
        )
        self.copy = QPushButton(tr("Copy"))
        self.copy.clicked.connect(self.copy_current)
        self.remove = QPushButton(tr("Delete"))
        self.remove.clicked.connect(
            lambda: self._told(
                self.document.do(lambda job: standards.delete_standard(job, self.current()), at_place=True)
            )
        )
        self.write = QPushButton(tr("Write…"))
        self.write.clicked.connect(self.write_current)
        self.read = QPushButton(tr("Read…"))
        self.read.clicked.connect(self.read_file)
        self.name = TextBox()
        self.name.setAccessibleName(tr("Name of the copy"))
        self.name.setPlaceholderText(tr("Name of the copy"))
        self.name.setFixedWidth(170)
        self.name.returnPressed.connect(self.copy_current)
        choosing: tuple[QWidget, ...] = (self.part, self.apply, self.follow)
        keeping: tuple[QWidget, ...] = (self.use, self.name, self.copy, self.remove, self.write, self.read)
        for widget in choosing:
            line.addWidget(widget)
        line.addStretch(1)
        for widget in keeping:
            line.addWidget(widget)
        # Enter in a box belongs to the box, never to a button.
        for button in self.findChildren(QPushButton):
            button.setAutoDefault(False)
        for button in (self.apply, self.follow, self.use, self.copy, self.remove, self.write, self.read):
            button.setAutoDefault(False)
        return line

    # --- content

    def refresh(self) -> None:
        """Pull the job's standards; the cell that is worked on stays."""
        job = self.document.job
        row, col = self.table.currentRow(), self.table.currentColumn()
        key = self._rows[row] if 0 <= row < len(self._rows) else ""
        differs = standards.differing(job.standards)
        wanted = self.search.text().strip().lower()
        self._rows = []
        for part, keys in PARTS.items():
            more = standards.RULES if part == "hardware" else ()
            shown = [
                k
                for k in (*keys, *more)
                if (not self.only.isChecked() or k in differs) and wanted in f"{words_of(k)} {part}".lower()
            ]
            if shown:
                self._rows += [f"#{part}", *shown]
        table = self.table
        table.blockSignals(True)
        table.setRowCount(len(self._rows))
        table.setColumnCount(len(job.standards) + 1 + self.mine)
        heads = [tr("Value"), self._selected_words()][: 1 + self.mine]
        heads += [s.name + (f" · {tr('in force')}" if s.code == job.standard else "") for s in job.standards]
        table.setHorizontalHeaderLabels(heads)
        table.clearSpans()
        for i, name in enumerate(self._rows):
            if name.startswith("#"):
                self._heading(i, name[1:])
            else:
                self._value_row(i, name, name in differs)
        header = table.horizontalHeader()
        assert header is not None
        header.setSectionResizeMode(QHeaderView.ResizeMode.Stretch)
        header.setSectionResizeMode(0, QHeaderView.ResizeMode.Fixed)
        header.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        table.setColumnWidth(0, 210)
        table.blockSignals(False)
        if key in self._rows and col >= 0:
            table.setCurrentCell(self._rows.index(key), min(col, table.columnCount() - 1))
        elif self._rows and table.currentColumn() < 1:
            codes = [s.code for s in job.standards]
            table.setCurrentCell(min(1, len(self._rows) - 1), 1 + self.mine + codes.index(job.standard))
        self._enable()

    def _heading(self, row: int, part: str) -> None:
        item = QTableWidgetItem(tr(part).upper())
        item.setFlags(Qt.ItemFlag.ItemIsEnabled)
        item.setFont(font(11, bold=True))
        item.setForeground(Theme.color("quiet"))
        self.table.setItem(row, 0, item)
        for col in range(1, self.table.columnCount()):
            blank = QTableWidgetItem("")
            blank.setFlags(Qt.ItemFlag.ItemIsEnabled)
            self.table.setItem(row, col, blank)
        self.table.setSpan(row, 0, 1, self.table.columnCount())

    def _value_row(self, row: int, key: str, differs: bool) -> None:
        job = self.document.job
        label = QTableWidgetItem(words_of(key))
        label.setFlags(Qt.ItemFlag.ItemIsEnabled)
        label.setForeground(Theme.color("quiet"))
        self.table.setItem(row, 0, label)
        labels = dict(self.choices(key))
        in_force = standards.value_text(job, job.active_standard(), key)
        if self.mine:
            self.table.setItem(row, 1, self._own_item(key, labels))
        for col, standard in enumerate(job.standards, 1 + self.mine):
            text = standards.value_text(job, standard, key)
            item = QTableWidgetItem(labels.get(text, text))
            item.setData(KEY, key)
            item.setData(CODE, text)
            item.setToolTip(text if key in standards.RULES else "")
            if differs and text != in_force:
                # What departs from the standard in force stands out, in black and white too.
                item.setFont(font(12, bold=True))
                item.setForeground(Theme.color("brass"))
            self.table.setItem(row, col, item)

    def choices(self, key: str) -> list[tuple[str, str]]:
        """Codes and words that a value is picked from; empty where it is typed."""
        if key in CHOICES:
            return [(code, tr(word)) for code, word in CHOICES[key].items()]
        if key in LENGTH_KEYS or key in standards.RULES or not key:
            return []
        stock = self.document.job.stock
        if key in EDGING_FINISHES:
            found = sorted({e.finish for e in stock.edgings})
            names = {f.code: f.name for f in stock.finishes}
            return [("same", tr("as the board")), *((code, names.get(code, code)) for code in found)]
        if key == "handle_drawer":
            handles = listed(self.document.job, "handle")
            return [("same", tr("as on doors")), ("none", tr("no handle")), *handles]
        if key == "wall_fixing":
            return [("none", tr("none")), *((f.code, f.name) for f in stock.fittings_of(key))]
        if key == "runner":
            runners = listed(self.document.job, key)
            return [("auto", tr("by depth and load")), *runners]
        if key == "glass":
            return [(f.code, f.name) for f in self.document.job.stock.finishes if "glass" in f.roles]
        fittings = list(listed(self.document.job, key))
        return [*fittings, ("none", tr("no handle"))] if key == "handle" else fittings

    def current(self) -> str:
        """Code of the standard whose column is worked on."""
        job = self.document.job
        place = self.table.currentColumn() - 1 - self.mine
        return job.standards[place].code if 0 <= place < len(job.standards) else job.standard

    @property
    def mine(self) -> int:
        """1 where a column shows what the selected units have, which is own or inherited; else 0."""
        return int(bool(self.cells()))

    def cells(self) -> tuple[str, ...]:
        """The selected units that are made of anything."""
        job = self.document.job
        return tuple(c for c in self.document.cells if job.template_of(job.find_cell(c)[2]).body is not Body.GAP)

    def _selected_words(self) -> str:
        cells = self.cells()
        if not cells:
            return ""
        number = self.document.job.find_cell(cells[0])[2].number
        return f"{tr('Unit')} {number}" if len(cells) == 1 else f"{len(cells)} {tr('units')}"

    def _own_item(self, key: str, labels: dict[str, str]) -> QTableWidgetItem:
        """What the selected units have: upright and bold where it is their own, slanted where it is inherited."""
        job = self.document.job
        if key in standards.RULES:
            item = QTableWidgetItem("")
            item.setFlags(Qt.ItemFlag.ItemIsEnabled)
            return item
        found = [sourced(job, job.unit(job.find_cell(c)[2].unit), key) for c in self.cells()]
        texts = {format_length(f.value.mm, job.display) if isinstance(f.value, Length) else f.value for f in found}
        text = texts.pop() if len(texts) == 1 else ""
        own = any(f.own for f in found)
        item = QTableWidgetItem(labels.get(text, text) if text or own else tr("various"))
        item.setData(KEY, key)
        item.setData(CODE, text)
        item.setFont(font(12, bold=own, italic=not own))
        item.setForeground(Theme.color("spruce" if own else "quiet"))
        item.setToolTip(tr("own; Delete inherits again") if own else f"{tr('from')} {found[0].source}")
        return item

    def inherit_current(self) -> None:
        """Give up the own value of the row that is worked on."""
        row = self.table.currentRow()
        if self.mine and self.table.currentColumn() == 1 and 0 <= row < len(self._rows):
            key = self._rows[row]
            if not key.startswith("#"):
                self._told(self.document.do(lambda job: inherit_again(job, self.cells(), key), at_place=True))

    def _enable(self) -> None:
        job = self.document.job
        self.use.setEnabled(self.current() != job.standard)
        self.remove.setEnabled(self.current() != job.standard)
        self.apply.setEnabled(bool(self.document.cells))
        own = (job.unit(job.find_cell(c)[2].unit).own for c in self.cells())
        self.follow.setEnabled(any(o.key.startswith("standard") for values in own for o in values))

    # --- doing

    def _told(self, error: PlankError | None) -> None:
        self.error.setText(str(error) if error is not None else "")

    def set_value(self, row: int, col: int, text: str) -> None:
        """Type a value into a cell; a wrong one is told below and changes nothing."""
        key = self._rows[row]
        if self.mine and col == 1:
            self._told(self.document.do(lambda job: set_own(job, self.cells(), key, text), at_place=True))
            return
        code = self.document.job.standards[col - 1 - self.mine].code
        self._told(self.document.do(lambda job: standards.set_value(job, code, key, text), at_place=True))

    def apply_to_units(self) -> None:
        code, part = self.current(), str(self.part.currentData())
        self._told(
            self.document.do(lambda job: standards.apply_standard(job, self.document.cells, code, part), at_place=True)
        )

    def copy_current(self) -> None:
        code, name = self.current(), self.name.text()
        error = self.document.do(lambda job: standards.copy_standard(job, code, name), at_place=True)
        self._told(error)
        if error is None:
            self.name.clear()
            self.table.setCurrentCell(max(1, self.table.currentRow()), self.table.columnCount() - 1)

    def write_current(self) -> None:
        standard = self.document.job.standard_by(self.current())
        start = (self.document.path.parent if self.document.path else Path.home()) / f"{standard.code}.toml"
        path = asking.ask_save(self, tr("Write the standard"), start, "TOML (*.toml)")
        if path is None:
            return
        try:
            write_standard(standard, path)
            self._told(None)
        except PlankError as error:
            self._told(error)

    def read_file(self) -> None:
        start = self.document.path.parent if self.document.path else Path.home()
        path = asking.ask_read(self, tr("Read a standard"), start, "TOML (*.toml)")
        if path is None:
            return
        try:
            standard = read_standard(path)
        except PlankError as error:
            self._told(error)
            return
        self._told(self.document.do(lambda job: standards.add_standard(job, standard), at_place=True))
