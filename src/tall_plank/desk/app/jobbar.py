"""The job bar: where you are, the stages, find-a-command."""

from __future__ import annotations

from PyQt6.QtCore import QModelIndex, QPoint, Qt, pyqtSignal
from PyQt6.QtGui import QFocusEvent, QKeyEvent, QStandardItem, QStandardItemModel
from PyQt6.QtWidgets import QButtonGroup, QCompleter, QFrame, QHBoxLayout, QLabel, QMenu, QPushButton

from tall_plank.desk.app.commands import Command, Commands
from tall_plank.desk.app.synonyms import SYNONYMS
from tall_plank.desk.look.boxes import TextBox, dress_words
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.job import Kind

STAGES = ("room", "units", "paneling", "finish", "shop", "offer")


WORDS = Qt.ItemDataRole.UserRole + 1
"""What of a command is looked in: its title, and other words for it."""

MISSING = {
    "edit": "select a unit first", "arrange": "select units first", "bays": "select a unit and a bay first",
    "select": "there is none", "room": "select it on the plan first", "job": "there is nothing to do it with",
    "view": "select a unit first",
}  # fmt: skip
"""Menu -> what is missing where a command of it does not apply and does not say so itself."""


class FindBox(TextBox):
    """Type part of a command's name, or another word for it; Enter does it. What does not apply now is shown with the
    reason."""

    def __init__(self, commands: Commands) -> None:
        super().__init__()
        self.commands = commands
        self.setPlaceholderText(tr("Find a command…"))
        self.setAccessibleName(tr("Find a command"))
        self.setFixedWidth(190)
        self._model = QStandardItemModel()
        completer = QCompleter(self._model, self)
        completer.setFilterMode(Qt.MatchFlag.MatchContains)
        completer.setCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        completer.setCompletionRole(WORDS)
        completer.setMaxVisibleItems(12)
        completer.activated[QModelIndex].connect(lambda index: self._do(str(index.data(NAME) or "")))
        dress_words(completer)
        popup = completer.popup()
        if popup is not None:
            popup.setMinimumWidth(380)
        self.setCompleter(completer)
        self.returnPressed.connect(self._first)
        self.textEdited.connect(self._fill)
        self.textEdited.connect(self._say_none)
        self.none = QLabel(self)
        self.none.setObjectName("boxError")
        self.none.setAutoFillBackground(True)
        self.none.hide()

    @staticmethod
    def label(text: str, keys: tuple[str, ...]) -> str:
        return f"{text}   ({keys[0]})" if keys else text

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        super().focusInEvent(event)
        self._fill()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        super().focusOutEvent(event)
        self.none.hide()

    def _fill(self, text: str = "") -> None:
        """Every command, those that apply now first, and of these the ones that a text means most."""
        self._model.clear()
        wanted = text.strip().lower()
        found = [(not c.when(), _rank(c, wanted), c.title, c) for c in self.commands.all.values()]
        for off, _, _, command in sorted(found, key=lambda row: row[:3]):
            label = self.label(command.title, command.keys)
            item = QStandardItem(f"{label} · {self.reason(command)}" if off else label)
            item.setData(f"{command.title} {SYNONYMS.get(command.name, '')}", WORDS)
            item.setData(command.name, NAME)
            item.setEnabled(not off)
            self._model.appendRow(item)

    @staticmethod
    def reason(command: Command) -> str:
        """Why a command does not apply now."""
        return command.why or tr(MISSING.get(command.menu.split("/")[0], "not now"))

    def matching(self, text: str) -> list[Command]:
        """Commands that a text finds: by their titles first, then by other words for them; those that apply first."""
        wanted = text.strip().lower()
        if not wanted:
            return []
        titled = [c for c in self.commands.all.values() if wanted in c.title.lower()]
        named = [c for c in self.commands.all.values() if wanted in SYNONYMS.get(c.name, "") and c not in titled]
        titled.sort(key=lambda c: (not c.when(), _rank(c, wanted), c.title))
        return titled + sorted(named, key=lambda c: not c.when())

    def _say_none(self, text: str) -> None:
        """Nothing found is said below the box."""
        window = self.window()
        if not text.strip() or self.matching(text) or window is None:
            self.none.hide()
            return
        self.none.setParent(window)
        self.none.setText(f"{tr('Nothing is called')} “{text.strip()[:30]}”.")
        self.none.adjustSize()
        at = self.mapTo(window, QPoint(0, self.height() + 3))
        self.none.move(min(at.x(), window.width() - self.none.width() - 4), at.y())
        self.none.show()
        self.none.raise_()

    def _do(self, name: str) -> None:
        # The completer writes its choice into the box after this call, so it is cleared on the next turn.
        self.clear()
        command = self.commands.all.get(name)
        if command is not None and command.when():
            # The keys go to the work first, so that a command may send them on.
            self.clearFocus()
            self.hand_back()
            self.commands.run(name)

    def _first(self) -> None:
        found = self.matching(self.text())
        if found and found[0].when():
            self._do(found[0].name)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        if event.key() == Qt.Key.Key_Escape:
            self.clear()
            self.none.hide()
            self.clearFocus()
            self.hand_back()
        else:
            super().keyPressEvent(event)


NAME = Qt.ItemDataRole.UserRole + 2
"""Name of a command in the list."""


def _rank(command: Command, wanted: str) -> int:
    """How well a text means a command: its own name, its beginning, one of its words, or a part of one."""
    name = command.text.replace("&", "").rstrip("…").lower()
    if not wanted or name == wanted:
        return 0
    if name.startswith(wanted):
        return 1
    return 2 if any(word.startswith(wanted) for word in command.title.lower().split()) else 3


class JobBar(QFrame):
    """The line at the head of the window."""

    stage_chosen = pyqtSignal(str)

    def __init__(self, document: Document, commands: Commands) -> None:
        super().__init__()
        self.setObjectName("jobBar")
        self.document, self.commands = document, commands
        self.setFixedHeight(44)
        row = QHBoxLayout(self)
        row.setContentsMargins(12, 0, 12, 0)
        row.setSpacing(0)
        self.name = QPushButton()
        self.name.setObjectName("jobName")
        self.name.setToolTip(tr("The job and its room"))
        self.room = QPushButton()
        self.room.setObjectName("roomName")
        self.name.clicked.connect(lambda: self.document.select((Kind.ROOM.of(self.document.room_id),)))
        self.rooms = QMenu(self.room)
        self.rooms.aboutToShow.connect(lambda: self.fill_rooms())
        self.room.setMenu(self.rooms)
        self.room.setToolTip(tr("Rooms of the job"))
        row.addWidget(self.name)
        mark = QLabel("▸")
        mark.setObjectName("specSub")
        row.addWidget(mark)
        row.addWidget(self.room)
        row.addSpacing(34)
        self.stages: dict[str, QPushButton] = {}
        group = QButtonGroup(self)
        group.setExclusive(True)
        for stage in STAGES:
            button = QPushButton(tr(stage.capitalize()))
            button.setObjectName("stage")
            button.setCheckable(True)
            button.clicked.connect(lambda _=False, stage=stage: self.stage_chosen.emit(stage))
            group.addButton(button)
            self.stages[stage] = button
            row.addWidget(button)
        row.addStretch(1)
        self.find_box = FindBox(commands)
        row.addWidget(self.find_box)

    def fill_rooms(self) -> None:
        """Every room of the job, then what can be done with them."""
        self.rooms.clear()
        for room in self.document.job.rooms:
            action = self.rooms.addAction(room.name)
            assert action is not None
            action.setCheckable(True)
            action.setChecked(room.id == self.document.room_id)
            action.triggered.connect(lambda _=False, rid=room.id: self.document.show_room(rid))
        self.rooms.addSeparator()
        for name in ("add_room", "delete_room"):
            self.rooms.addAction(self.commands.actions[name])

    def refresh(self) -> None:
        self.name.setText(self.document.job.name)
        self.room.setText(self.document.room.room.name)

    def show_stage(self, stage: str) -> None:
        self.stages[stage].setChecked(True)
