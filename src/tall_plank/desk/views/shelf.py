"""The picking shelf: what can be placed or chosen at a stage, as pictures made from the real templates."""

from __future__ import annotations

import time
from dataclasses import dataclass

from PyQt6 import sip
from PyQt6.QtCore import QMimeData, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QDrag, QIcon, QKeyEvent
from PyQt6.QtWidgets import QAbstractItemView, QFrame, QHBoxLayout, QListWidget, QListWidgetItem, QVBoxLayout

from tall_plank.desk.look.boxes import TextBox
from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.model.document import Document
from tall_plank.desk.things.table import HEADINGS, PANELING_HEADINGS, offered_under
from tall_plank.desk.views.dropping import TEMPLATE_MIME
from tall_plank.desk.views.shelfpictures import PICTURE, picture, saved_drawing, swatch, template_drawing
from tall_plank.files.library import Kept, kept
from tall_plank.job import Template
from tall_plank.job.scheme import Role
from tall_plank.job.uses import FIRST_KINDS

GROUPS = ("Base", "Corner", "Appliances", "Hung", "Tall", "End", "Furniture", "Island")
"""Headings of the kinds in their usual order."""


@dataclass
class Entry:
    """Something on the shelf. The pictures of kinds far down the list come after the window."""

    code: str
    label: str
    group: str
    icon: QIcon
    template: Template | None = None
    """The kind whose picture is still to be made."""


AT_ONCE = 12
"""Pictures of kinds that are made before the shelf shows."""

WHILE = 0.012
"""Seconds for which further ones are made in one go, while nothing else happens."""


class ShelfList(QListWidget):
    """Pictures in two columns; drag one out, double-click or press Enter to use it."""

    used = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setViewMode(QListWidget.ViewMode.IconMode)
        self.setMovement(QListWidget.Movement.Static)
        self.setResizeMode(QListWidget.ResizeMode.Adjust)
        self.setIconSize(PICTURE)
        self.setSpacing(0)
        self.setWordWrap(True)
        self.setDragEnabled(True)
        self.setDragDropMode(QAbstractItemView.DragDropMode.DragOnly)
        self.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.itemDoubleClicked.connect(lambda item: self._use(item))

    def _use(self, item: QListWidgetItem | None) -> None:
        if item is not None and item.data(Qt.ItemDataRole.UserRole):
            self.used.emit(item.data(Qt.ItemDataRole.UserRole))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._use(self.currentItem())
        else:
            super().keyPressEvent(event)

    def startDrag(self, actions: Qt.DropAction) -> None:
        item = self.currentItem()
        code = item.data(Qt.ItemDataRole.UserRole) if item else ""
        if not item or not code:
            return
        data = QMimeData()
        data.setData(TEMPLATE_MIME, code.encode())
        drag = QDrag(self)
        drag.setMimeData(data)
        drag.setPixmap(item.icon().pixmap(PICTURE))
        drag.exec(Qt.DropAction.CopyAction)


class Shelf(QFrame):
    """Search above, pictures below."""

    used = pyqtSignal(str)

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.setObjectName("shelf")
        self.document = document
        self.stage = "units"
        self.setMinimumWidth(150)
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 10, 0, 4)
        column.setSpacing(8)
        self.search = TextBox()
        self.search.setPlaceholderText(tr("Search"))
        self.search.setClearButtonEnabled(True)
        self.search.setAccessibleName(tr("Search the shelf"))
        self.search.textChanged.connect(self._filter)
        self.search.returnPressed.connect(self._use_first)
        self.list = ShelfList()
        self.list.setAccessibleName(tr("Shelf"))
        self.list.setAccessibleDescription(tr("Enter places what is chosen after the selection."))
        self.list.used.connect(self.used)
        held = QHBoxLayout()
        held.setContentsMargins(0, 0, 8, 0)
        held.addWidget(self.search)
        column.addLayout(held)
        column.addWidget(self.list)
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.setInterval(30)
        self._later.timeout.connect(self._draw_more)
        self._key: object = None
        self._kept: tuple[Kept, ...] = ()
        self._stale = True
        self._entries: list[Entry] = []

    def library_changed(self) -> None:
        """Something was saved or taken out of the library."""
        self._stale = True
        self.refresh()

    def refresh(self) -> None:
        """Pull what can be used at this stage; pictures are made again only where they would differ."""
        job = self.document.job
        style = job.active_standard().values()
        self._kept = kept(self.document.folders)[0] if self.stage == "units" and self._stale else self._kept
        self._stale = False
        key = (
            self.stage, job.templates, job.schemes, job.stock, style["front_style"], style["handle"], Theme.dark,
            self.document.room.room.use, self._kept,
        )  # fmt: skip
        if key == self._key:
            return
        self._key = key
        self._entries = {"room": self._openings, "finish": self._finishes, "paneling": self._treatments}.get(
            self.stage, self._templates
        )()
        self._fill()

    def _templates(self) -> list[Entry]:
        """The kinds by heading, those that suit the room's use first; islands, moldings along units, what was saved."""
        job = self.document.job
        first = FIRST_KINDS.get(self.document.room.room.use, ())
        order = [*first, *GROUPS]

        def rank(template: Template) -> int:
            return order.index(template.group) if template.group in order else len(order)

        kinds = [Entry(t.code, tr(t.name), tr(t.group), QIcon(), t) for t in sorted(job.templates, key=rank)]
        for entry in kinds[:AT_ONCE]:
            self._draw(entry)
        self._later.start()
        return [*kinds, *self._room_entries(("Islands", "Unit moldings")), *self._saved()]

    def _draw(self, entry: Entry) -> None:
        if entry.template is not None:
            entry.icon = QIcon(picture(template_drawing(self.document.job, entry.template)))
            entry.template = None

    def _draw_more(self) -> None:
        """Make some of the pictures that are missing, not so many that typing would wait; go on until none is."""
        if sip.isdeleted(self.list):  # the window is gone
            return
        missing = [entry for entry in self._entries if entry.template is not None]
        start, made = time.perf_counter(), {}
        for entry in missing:
            self._draw(entry)
            made[entry.code] = entry
            if time.perf_counter() - start > WHILE:
                break
        for i in range(self.list.count()):
            item = self.list.item(i)
            drawn = made.get(item.data(Qt.ItemDataRole.UserRole)) if item is not None else None
            if item is not None and drawn is not None:
                item.setIcon(drawn.icon)
        if len(missing) > len(made):
            self._later.start()

    def close_view(self) -> None:
        """The window closes: nothing more is drawn."""
        self._later.stop()

    def _saved(self) -> list[Entry]:
        return [
            Entry(
                f"saved:{k.path.name}",
                k.saved.name,
                tr("Saved"),
                QIcon(picture(saved_drawing(self.document.job, k.saved))),
            )
            for k in self._kept
        ]

    def _openings(self) -> list[Entry]:
        return self._room_entries(HEADINGS)

    def _treatments(self) -> list[Entry]:
        return self._room_entries(PANELING_HEADINGS)

    def _room_entries(self, headings: tuple[str, ...]) -> list[Entry]:
        return [
            Entry(f"room:{o.name}", tr(o.label), tr(o.heading), QIcon(picture(o.picture())))
            for heading in headings
            for o in offered_under(heading)
        ]

    def _finishes(self) -> list[Entry]:
        job = self.document.job
        entries = []
        for role in (Role.FRONT, Role.CARCASS, Role.WORKTOP, Role.PLINTH):
            for finish in job.stock.finishes:
                if role.value in finish.roles:
                    icon = QIcon(swatch(finish.color, finish.grain == "length"))
                    entries.append(Entry(f"{role.value}:{finish.code}", finish.name, tr(role.value.capitalize()), icon))
        return entries

    def _fill(self) -> None:
        self.list.clear()
        tall = 98 if self.stage != "finish" else 92
        group = ""
        wanted = self.search.text().strip().lower()
        for entry in self._entries:
            if wanted and wanted not in f"{entry.label} {entry.group}".lower():
                continue
            if entry.group != group:
                group = entry.group
                self._head(group)
            item = QListWidgetItem(entry.icon, entry.label)
            item.setData(Qt.ItemDataRole.UserRole, entry.code)
            item.setToolTip(entry.label)
            item.setTextAlignment(Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignTop)
            item.setSizeHint(QSize(64, tall))
            longest = max((len(word) for word in entry.label.split()), default=0)
            item.setFont(font(12 if longest < 10 else 11))
            self.list.addItem(item)

    def _head(self, text: str) -> None:
        """A heading that takes a whole line."""
        item = QListWidgetItem(text)
        item.setFlags(Qt.ItemFlag.NoItemFlags)
        item.setTextAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignBottom)
        item.setFont(font(12, bold=True))
        item.setForeground(Theme.color("quiet"))
        item.setSizeHint(QSize(128, 24))
        self.list.addItem(item)

    def show_stage(self, stage: str) -> None:
        """Show what a stage offers; a search belonged to the last one."""
        if stage != self.stage:
            self.stage = stage
            self.search.blockSignals(True)
            self.search.clear()
            self.search.blockSignals(False)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Escape takes the search back first; then it is the window's."""
        if event is not None and event.key() == Qt.Key.Key_Escape and self.search.text():
            self.search.clear()
        else:
            super().keyPressEvent(event)

    def _filter(self) -> None:
        self._fill()

    def _use_first(self) -> None:
        for i in range(self.list.count()):
            item = self.list.item(i)
            if item is not None and item.data(Qt.ItemDataRole.UserRole):
                self.list.setCurrentItem(item)
                self.used.emit(item.data(Qt.ItemDataRole.UserRole))
                self.search.hand_back()
                return
