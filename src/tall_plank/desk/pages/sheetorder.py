"""The sheets of a set as a list at the left of its page: dragged into another order, left out, taken in again."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QAbstractItemView, QListWidget, QListWidgetItem

from tall_plank.desk.look.texts import tr
from tall_plank.edits import sheetsets

if TYPE_CHECKING:
    from tall_plank.desk.pages.sets import SetPage

KEY = Qt.ItemDataRole.UserRole


class SheetOrder(QListWidget):
    """Its sheets, those that are left out without a tick. Alt and up or down moves one; Space leaves it out."""

    def __init__(self, page: SetPage) -> None:
        super().__init__()
        self.page = page
        self.setObjectName("listing")
        self.setAccessibleName(tr("Order of sheets"))
        self.setFixedWidth(230)
        self.setTextElideMode(Qt.TextElideMode.ElideRight)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setVisible(False)
        self.setDragDropMode(QAbstractItemView.DragDropMode.InternalMove)
        self.setDefaultDropAction(Qt.DropAction.MoveAction)
        model = self.model()
        assert model is not None
        model.rowsMoved.connect(self._ordered)
        self.itemChanged.connect(self._ticked)
        self.currentItemChanged.connect(self._looked)

    def fill(self) -> None:
        """Show the set as it is laid out."""
        at = self.currentRow()
        laid = self.page.laid
        out = self.page.document.job.sheet_set(self.page.kind).without
        self.blockSignals(True)
        self.clear()
        for i, sheet in enumerate(self.page.every):
            item = QListWidgetItem(f"{sheet.number}  {sheet.title}")
            item.setData(KEY, sheet.key)
            item.setToolTip(sheet.title)
            item.setFlags(
                Qt.ItemFlag.ItemIsEnabled
                | Qt.ItemFlag.ItemIsSelectable
                | Qt.ItemFlag.ItemIsDragEnabled
                | Qt.ItemFlag.ItemIsUserCheckable
            )
            item.setCheckState(Qt.CheckState.Unchecked if sheet.key in out else Qt.CheckState.Checked)
            self.addItem(item)
            if laid is not None and laid.key == sheet.key:
                at = i
        self.setCurrentRow(min(at, self.count() - 1))
        self.blockSignals(False)

    def keys(self) -> list[str]:
        """Keys of the sheets in the order of the list."""
        items = [self.item(i) for i in range(self.count())]
        return [str(item.data(KEY)) for item in items if item is not None]

    def _ordered(self, *_: object) -> None:
        keys = self.keys()
        self.page.document.do(lambda job: sheetsets.order_sheets(job, self.page.kind, keys))

    def _ticked(self, item: QListWidgetItem) -> None:
        out = item.checkState() != Qt.CheckState.Checked
        own = self.page.document.job.sheet_set(self.page.kind)
        keys = next((s.keys(own) for s in self.page.every if s.key == item.data(KEY)), ())
        self.page.document.do(lambda job: sheetsets.leave_out(job, self.page.kind, keys, out=out))

    def _looked(self, item: QListWidgetItem | None) -> None:
        """Show the sheet that was chosen."""
        if item is None:
            return
        found = next((s for s in self.page.every if s.key == item.data(KEY)), None)
        if found is not None:
            self.page.show_number(found.number)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        by = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(event.key())  # type: ignore[call-overload]
        if by is not None and event.modifiers() & Qt.KeyboardModifier.AltModifier:
            self.page.step(by)
        else:
            super().keyPressEvent(event)
