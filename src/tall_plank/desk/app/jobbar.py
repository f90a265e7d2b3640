"""The job bar: where you are, the stages, find-a-command."""

from __future__ import annotations

from PyQt6.QtCore import QStringListModel, Qt, pyqtSignal
from PyQt6.QtGui import QFocusEvent, QKeyEvent
from PyQt6.QtWidgets import QButtonGroup, QCompleter, QFrame, QHBoxLayout, QLabel, QMenu, QPushButton

from tall_plank.desk.app.commands import Commands
from tall_plank.desk.look.boxes import TextBox, dress_words
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.job import Kind

STAGES = ("room", "units", "finish", "shop", "offer")


class FindBox(TextBox):
    """Type part of a command's name, Enter does it."""

    def __init__(self, commands: Commands) -> None:
        super().__init__()
        self.commands = commands
        self.setPlaceholderText(tr("Find a command…"))
        self.setFixedWidth(190)
        self._model = QStringListModel()
        completer = QCompleter(self._model, self)
        completer.setFilterMode(Qt.MatchFlag.MatchContains)
        completer.setCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        completer.setMaxVisibleItems(12)
        completer.activated.connect(self._do)
        dress_words(completer)
        self.setCompleter(completer)
        self.returnPressed.connect(self._first)

    @staticmethod
    def label(text: str, keys: tuple[str, ...]) -> str:
        name = text.replace("&", "").replace("…", "")
        return f"{name}   ({keys[0]})" if keys else name

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        super().focusInEvent(event)
        self._model.setStringList(sorted(self.names()))

    def names(self) -> dict[str, str]:
        """Label -> name of every command that applies now."""
        return {self.label(c.text, c.keys): c.name for c in self.commands.all.values() if c.when()}

    def _do(self, label: str) -> None:
        name = self.names().get(label)
        # The completer writes its choice into the box after this call, so it is cleared on the next turn.
        self.clear()
        if name is not None:
            self.clearFocus()
            self.commands.run(name)

    def _first(self) -> None:
        wanted = self.text().strip().lower()
        found = next((label for label in sorted(self.names()) if wanted and wanted in label.lower()), None)
        if found is not None:
            self._do(found)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        if event.key() == Qt.Key.Key_Escape:
            self.clear()
            self.clearFocus()
        else:
            super().keyPressEvent(event)


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
