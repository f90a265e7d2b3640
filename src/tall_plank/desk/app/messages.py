"""The one way to tell the user something: a line that floats above the tally and moves nothing."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QLabel, QPushButton, QToolButton, QWidget

from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import restyle

NOTE_MS, WRONG_MS = 5000, 12000


class MessageLine(QFrame):
    """A message with a level; notes fade by themselves, questions stay until answered."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setObjectName("message")
        row = QHBoxLayout(self)
        row.setContentsMargins(14, 6, 8, 6)
        self.mark = QLabel()
        self.text = QLabel()
        self.text.setWordWrap(True)
        self.text.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.buttons = QHBoxLayout()
        self.close_button = QToolButton()
        self.close_button.setObjectName("revert")
        self.close_button.setText("✕")
        self.close_button.setAccessibleName(tr("Close the message"))
        self.close_button.clicked.connect(self.close_message)
        row.addWidget(self.mark)
        row.addWidget(self.text, 1)
        row.addLayout(self.buttons)
        row.addWidget(self.close_button)
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self.hide)
        self._question: object | None = None
        self.hide()

    def tell(self, text: str, level: str = "note") -> None:
        """Show a message; an empty one takes the last away, unless a question is open."""
        if self._question is not None:
            return
        self._clear()
        if not text:
            self.hide()
            return
        self._show(text, level)
        self._timer.start(NOTE_MS if level == "note" else WRONG_MS)

    def dismiss(self) -> None:
        """The work went on: what was told is over, a question stays."""
        if self._question is None:
            self.hide()

    def close_message(self) -> None:
        """The cross: the message goes; a question stays without an answer, and others may be told again."""
        self._question = None
        self._clear()
        self.hide()

    def ask(self, text: str, answers: Mapping[str, Callable[[], object]]) -> object:
        """A question that waits beside the work; each answer is a button. Gives back what `go_on` and `answered`
        know the question by."""
        self._clear()
        self._question = object()
        for label, answer in answers.items():
            button = QPushButton(label)
            button.clicked.connect(lambda _=False, answer=answer: self._answer(answer))
            self.buttons.addWidget(button)
        self._show(text, "note")
        return self._question

    def go_on(self, question: object, text: str) -> None:
        """Other words for a question that is still on screen."""
        if question is self._question:
            self.text.setText(text)

    def answered(self, question: object) -> None:
        """A question has no more sense: it goes, where it is still on screen."""
        if question is self._question:
            self.close_message()

    def _answer(self, answer: Callable[[], object]) -> None:
        self.close_message()
        answer()

    def _clear(self) -> None:
        self._timer.stop()
        while self.buttons.count():
            item = self.buttons.takeAt(0)
            widget = item.widget() if item else None
            if widget is not None:
                widget.deleteLater()

    def _show(self, text: str, level: str) -> None:
        self.mark.setText("!" if level == "wrong" else "")
        self.text.setText(text)
        self.setProperty("level", level)
        restyle(self)
        for label in (self.mark, self.text):
            restyle(label)
        self.place()
        self.show()
        self.raise_()

    def place(self) -> None:
        """Along the foot of the parent."""
        parent = self.parentWidget()
        if parent is None:
            return
        width = parent.width()
        height = max(34, self.heightForWidth(width) if self.hasHeightForWidth() else self.sizeHint().height())
        self.setGeometry(0, parent.height() - height, width, height)
