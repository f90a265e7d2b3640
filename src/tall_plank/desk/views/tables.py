"""A schedule on screen: sorts by a click on its head, filters as you type, copies as text."""

from __future__ import annotations

from decimal import Decimal

import msgspec
from PyQt6.QtCore import QModelIndex, QSortFilterProxyModel, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QGuiApplication, QKeySequence, QStandardItem, QStandardItemModel
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QComboBox,
    QHBoxLayout,
    QHeaderView,
    QLabel,
    QMenu,
    QPushButton,
    QTableView,
    QVBoxLayout,
    QWidget,
)

from tall_plank.desk.look.boxes import TextBox
from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.measure import DisplayUnit
from tall_plank.papers.tables import Group, Table, Value, arranged, groups_of, head_of, text_of

SORT = Qt.ItemDataRole.UserRole + 1
KEY = Qt.ItemDataRole.UserRole + 2
CLOSING = Qt.ItemDataRole.UserRole + 3
GROUP = Qt.ItemDataRole.UserRole + 4
"""Place of a row's group."""
HEAD = Qt.ItemDataRole.UserRole + 5
"""Name of the group that a row is the head of; empty where it is none."""
ROW = Qt.ItemDataRole.UserRole + 6
"""Place of a row in its table."""


class _Rows(QSortFilterProxyModel):
    """Closing rows stay last and are never filtered away; rows are sorted within their groups, which stay in their
    order and go where none of their rows is left."""

    members: dict[int, list[int]]
    """Place of a group -> its rows in the source."""

    def lessThan(self, left: QModelIndex, right: QModelIndex) -> bool:
        model = self.sourceModel()
        assert model is not None
        ascending = self.sortOrder() == Qt.SortOrder.AscendingOrder
        a, b = model.data(left, CLOSING), model.data(right, CLOSING)
        if a != b:
            return bool(b) if ascending else bool(a)
        a, b = model.data(left, GROUP) or 0, model.data(right, GROUP) or 0
        if a != b:
            return bool(a < b) if ascending else bool(a > b)
        a, b = model.data(left, HEAD), model.data(right, HEAD)
        if a != b:
            return bool(a) if ascending else bool(b)
        x, y = model.data(left, SORT), model.data(right, SORT)
        if isinstance(x, int | float) and isinstance(y, int | float):
            return bool(x < y)
        return str(x) < str(y)

    def filterAcceptsRow(self, row: int, parent: QModelIndex) -> bool:
        model = self.sourceModel()
        assert model is not None
        first = model.index(row, 0)
        if model.data(first, HEAD):
            return any(super(_Rows, self).filterAcceptsRow(r, parent) for r in self.members[model.data(first, GROUP)])
        return bool(model.data(first, CLOSING)) or super().filterAcceptsRow(row, parent)


SHORT = 96
"""px; a column of short texts keeps the width that it needs."""

LEAST = 92
"""px of a column whose texts are cut off."""


def column_widths(wanted: list[int], numbers: list[bool], weights: list[float], room: int) -> list[int]:
    """Widths of columns in a room, px: figures and short texts get what they need; long texts share what is left, none
    more than it needs while another lacks room.

    Parameters
    ----------
    wanted : what each needs to show its longest text
    numbers : whether it holds figures
    weights : shares of what is left over when everything fits
    """
    widths = list(wanted)
    over = sum(widths) - room
    if over <= 0:
        total = sum(weights) or 1.0
        return [w - int(over * weight / total) for w, weight in zip(widths, weights, strict=True)]
    long = [i for i, w in enumerate(wanted) if not numbers[i] and w > SHORT]
    left = room - sum(w for i, w in enumerate(wanted) if i not in long)
    # The narrowest first: what it does not need goes to the others.
    for n, i in enumerate(sorted(long, key=lambda i: wanted[i])):
        widths[i] = max(LEAST, min(wanted[i], left // (len(long) - n)))
        left -= widths[i]
    return widths


def _sort_of(table: Table) -> tuple[str, ...]:
    """What tables have in common that are of one sort, such as the lists of single units: their columns."""
    return tuple(c.key for c in table.columns)


class TablePane(QWidget):
    """Title, filter and table."""

    row_chosen = pyqtSignal(str)
    """Id of the cell that a chosen row speaks of."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("pane")
        column = QVBoxLayout(self)
        column.setContentsMargins(18, 14, 14, 8)
        head = QHBoxLayout()
        self.title = QLabel()
        self.title.setObjectName("specTitle")
        self.subtitle = QLabel()
        self.subtitle.setObjectName("specSub")
        self.filter = TextBox()
        self.filter.setAccessibleName(tr("Filter the rows"))
        self.filter.setPlaceholderText(tr("Filter"))
        self.filter.setClearButtonEnabled(True)
        self.filter.setFixedWidth(180)
        self.filter.textChanged.connect(self._filter)
        head.addWidget(self.title)
        head.addSpacing(10)
        head.addWidget(self.subtitle, 1)
        self.grouping = QComboBox()
        self.grouping.setAccessibleName(tr("Group the rows"))
        self.grouping.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToContents)
        self.grouping.activated.connect(lambda _: self.group_by(str(self.grouping.currentData() or "")))
        head.addWidget(self.grouping)
        head.addWidget(self.filter)
        self.columns = QPushButton(tr("Columns"))
        self.columns.setObjectName("columnsButton")
        self.columns.setToolTip(tr("Choose what is shown. Files and prints keep every column."))
        self.columns_menu = QMenu(self.columns)
        self.columns.setMenu(self.columns_menu)
        head.addWidget(self.columns)
        column.addLayout(head)
        self.view = QTableView()
        self.view.setAccessibleName(tr("Schedule"))
        self.rows = _Rows()
        self.rows.setFilterKeyColumn(-1)
        self.rows.setFilterCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        self.view.setModel(self.rows)
        self.view.setSortingEnabled(True)
        self.view.setShowGrid(False)
        self.view.setTabKeyNavigation(False)
        self.view.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.view.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.view.setWordWrap(False)
        self.view.setTextElideMode(Qt.TextElideMode.ElideRight)
        self.view.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        vertical, horizontal = self.view.verticalHeader(), self.view.horizontalHeader()
        assert vertical is not None and horizontal is not None
        vertical.hide()
        vertical.setDefaultSectionSize(26)
        horizontal.setHighlightSections(False)
        horizontal.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        self.view.activated.connect(self._activate)
        column.addWidget(self.view, 1)
        self.note = QLabel()
        self.note.setObjectName("specNote")
        self.note.setWordWrap(True)
        column.addWidget(self.note)
        self._shown: tuple[Table, DisplayUnit] | None = None
        self._hidden: dict[tuple[str, ...], set[str]] = {}
        """Sort of a table -> keys of its columns that are not shown."""
        self._grouped: dict[tuple[str, ...], str] = {}
        """Sort of a table -> key of the column that it is grouped by here."""

    @property
    def table(self) -> Table | None:
        """The table on screen."""
        return self._shown[0] if self._shown is not None else None

    @property
    def group(self) -> str:
        """Key of the column that the table on screen is grouped by; empty: by none."""
        if self._shown is None:
            return ""
        table = self._shown[0]
        return self._grouped.get(_sort_of(table), table.group)

    def group_by(self, key: str) -> None:
        """Group the rows by a column, or by none."""
        if self._shown is not None and key != self.group:
            self._grouped[_sort_of(self._shown[0])] = key
            self.restyle()

    def as_shown(self, table: Table) -> Table:
        """A table in the order and the groups of this pane, all its rows and columns, where it is the one on screen."""
        if self._shown is None or self._shown[0] != table:
            return table
        places = (self.rows.index(i, 0).data(ROW) for i in range(self.rows.rowCount()))
        shown = [int(i) for i in places if i is not None]
        filtered = set(range(len(table.rows))) - set(shown)
        return arranged(table, [*shown, *sorted(filtered)], self.group)

    def seen(self) -> Table:
        """The table as it stands on screen: its rows in their order, without those that are filtered out and without
        hidden columns."""
        assert self._shown is not None
        table = self._shown[0]
        places = (self.rows.index(i, 0).data(ROW) for i in range(self.rows.rowCount()))
        shown = arranged(table, [int(i) for i in places if i is not None], self.group)
        keep = [i for i, c in enumerate(table.columns) if c.key not in self._hidden.get(_sort_of(table), set())]

        def only(rows: tuple[tuple[Value, ...], ...]) -> tuple[tuple[Value, ...], ...]:
            return tuple(tuple(row[i] for i in keep) for row in rows)

        whole = len(shown.rows) == len(table.rows)
        return msgspec.structs.replace(
            shown,
            columns=tuple(table.columns[i] for i in keep),
            rows=only(shown.rows),
            # Sums over all rows would say something else than what stands above them.
            totals=only(table.totals) if whole else (),
        )

    def show_column(self, key: str, shown: bool) -> None:
        """Show a column of this table or leave it out; the last one stays."""
        if self._shown is None:
            return
        table = self._shown[0]
        hidden = self._hidden.setdefault(_sort_of(table), set())
        at = next(i for i, c in enumerate(table.columns) if c.key == key)
        if shown:
            hidden.discard(key)
        elif len(self._hidden_now(table) | {key}) < len(table.columns):
            hidden.add(key)
        else:
            self.columns_menu.actions()[at].setChecked(True)
            return
        self.view.setColumnHidden(at, not shown)
        self._name_heads(table)
        header = self.view.horizontalHeader()
        assert header is not None
        self._columns(table, header)

    def _choose(self, table: Table) -> None:
        """The menu of columns, and those that are hidden."""
        hidden = self._hidden.get(_sort_of(table), set())
        now = self._hidden_now(table)
        ways = [("", tr("No groups"))]
        ways += [(c.key, f"{tr('By')} {tr(c.head).lower()}") for c in table.columns if c.groups]
        self.grouping.clear()
        for key, told in ways:
            self.grouping.addItem(told, key)
        self.grouping.setCurrentIndex(max(0, self.grouping.findData(self.group)))
        self.grouping.setVisible(len(ways) > 1)
        self.columns_menu.clear()
        for i, column in enumerate(table.columns):
            self.view.setColumnHidden(i, column.key in now)
            action = self.columns_menu.addAction(tr(column.head) or column.key)
            assert action is not None
            action.setCheckable(True)
            action.setChecked(column.key not in hidden)
            action.setEnabled(column.key != self.group)
            action.toggled.connect(lambda on, key=column.key: self.show_column(key, on))

    def show_table(self, table: Table, display: DisplayUnit) -> None:
        """Show a table; sorting and filter stay where the columns stay."""
        if self._shown == (table, display):
            return
        same = self._shown is not None and self._shown[0].columns == table.columns
        self._shown = (table, display)
        self.title.setText(tr(table.title))
        self.subtitle.setText(tr(table.subtitle))
        self.note.setText(tr(table.note))
        model = QStandardItemModel()
        model.setHorizontalHeaderLabels([tr(head_of(c, display)) for c in table.columns])
        for i, column in enumerate(table.columns):
            if column.is_number:
                model.setHeaderData(
                    i,
                    Qt.Orientation.Horizontal,
                    Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
                    Qt.ItemDataRole.TextAlignmentRole,
                )
        self.rows.members = {}
        for place, group in enumerate(groups_of(table, self.group)):
            if group.head:
                name = self._head_of(table, group, display)
                model.appendRow(self._items(table, group.head, display, place, head=name))
            members = self.rows.members[place] = []
            for number in group.rows:
                members.append(model.rowCount())
                items = self._items(table, table.rows[number], display, place)
                for item in items:
                    item.setData(number, ROW)
                    if number < len(table.keys):
                        item.setData(table.keys[number], KEY)
                model.appendRow(items)
        for values in table.totals:
            items = self._items(table, values, display, 0)
            for item in items:
                item.setData(True, CLOSING)
                item.setFont(font(13, bold=True))
            model.appendRow(items)
        self.rows.setSourceModel(model)
        header = self.view.horizontalHeader()
        assert header is not None
        if not same:
            self.rows.sort(-1)
            header.setSortIndicator(-1, Qt.SortOrder.AscendingOrder)
        self._model = model
        self._choose(table)
        self._name_heads(table)
        self._columns(table, header)
        # A scroll bar that comes or goes with the new rows changes the room there is.
        QTimer.singleShot(0, lambda: self._columns(table, header) if self._model is model else None)

    def _items(
        self, table: Table, values: tuple[Value, ...], display: DisplayUnit, group: int, head: str = ""
    ) -> list[QStandardItem]:
        """One row; a head's name is put into it later."""
        items = []
        for value, column in zip(values, table.columns, strict=True):
            named = bool(head) and not column.is_number
            text = "" if named else text_of(value, column, display)
            item = QStandardItem(text)
            sort = float(value) if isinstance(value, int | float | Decimal) else text
            item.setData(sort, SORT)
            item.setData(False, CLOSING)
            item.setData(group, GROUP)
            item.setData(head, HEAD)
            if column.is_number:
                item.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
            elif len(text) > 12:
                item.setToolTip(text)
            if head:
                item.setFont(font(13, bold=True))
                item.setBackground(Theme.color("paper"))
            items.append(item)
        return items

    def _head_of(self, table: Table, group: Group, display: DisplayUnit) -> str:
        """What the head of a group is called; figures say what they are."""
        at = next(i for i, c in enumerate(table.columns) if c.key == self.group)
        column = table.columns[at]
        if not column.is_number:
            return group.name or "–"
        return f"{tr(column.head)} {text_of(group.head[at], column, display)}"

    def _name_heads(self, table: Table) -> None:
        """The heads of groups say their name in the first column on screen that holds no sums."""
        hidden = self._hidden_now(table)
        shown = [i for i, c in enumerate(table.columns) if not c.is_number]
        first = next((i for i in shown if table.columns[i].key not in hidden), None)
        for row in range(self._model.rowCount()):
            head = self._cell(row, 0).data(HEAD)
            if head:
                for i in shown:
                    self._cell(row, i).setText(head if i == first else "")

    def _cell(self, row: int, column: int) -> QStandardItem:
        item = self._model.item(row, column)
        assert item is not None
        return item

    def _hidden_now(self, table: Table) -> set[str]:
        """Columns that are not shown: those put away, and the one that the rows are grouped by."""
        hidden = self._hidden.get(_sort_of(table), set())
        group = self.group
        return hidden | {group} if group and len(hidden | {group}) < len(table.columns) else hidden

    def _columns(self, table: Table, header: QHeaderView) -> None:
        room = max(500, self.view.viewport().width() or self.width() - 40)  # type: ignore[union-attr]
        metrics, model = self.view.fontMetrics(), self._model
        wanted = []
        for i in range(len(table.columns)):
            head = metrics.horizontalAdvance(str(model.headerData(i, Qt.Orientation.Horizontal))) + 22
            texts = (self._cell(r, i).text() for r in range(model.rowCount()))
            wanted.append(max([head, *(metrics.horizontalAdvance(t) + 32 for t in texts)]))
        shown = [i for i in range(len(table.columns)) if not self.view.isColumnHidden(i)]
        numbers = [table.columns[i].is_number for i in shown]
        weights = [float(table.columns[i].wide) for i in shown]
        for i, width in zip(shown, column_widths([wanted[i] for i in shown], numbers, weights, room), strict=True):
            self.view.setColumnWidth(i, width)
        header.setStretchLastSection(True)

    def resizeEvent(self, event: object) -> None:
        if self._shown is not None:
            header = self.view.horizontalHeader()
            assert header is not None
            self._columns(self._shown[0], header)

    def restyle(self) -> None:
        shown, self._shown = self._shown, None
        if shown is not None:
            self.show_table(*shown)

    def _filter(self, text: str) -> None:
        self.rows.setFilterFixedString(text)

    def _activate(self, index) -> None:  # type: ignore[no-untyped-def]
        key = index.data(KEY)
        if key:
            self.row_chosen.emit(key)

    def copy_text(self) -> bool:
        """Put the selected rows on the clipboard as tab-parted text; False where none is selected."""
        picked = sorted({i.row() for i in self.view.selectionModel().selectedRows()})  # type: ignore[union-attr]
        if not picked:
            return False
        lines = []
        for row in picked:
            shown = (c for c in range(self.rows.columnCount()) if not self.view.isColumnHidden(c))
            cells = (self.rows.index(row, c).data() or "" for c in shown)
            lines.append("\t".join(cells))
        clipboard = QGuiApplication.clipboard()
        assert clipboard is not None
        clipboard.setText("\n".join(lines))
        return True

    def keyPressEvent(self, event) -> None:  # type: ignore[no-untyped-def]
        if event.matches(QKeySequence.StandardKey.Copy):
            self.copy_text()
        else:
            super().keyPressEvent(event)
