"""A profile of a molding from a drawing: its section as it lies, and what the stock has to know of it."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TypeVar

from PyQt6.QtCore import QSize
from PyQt6.QtWidgets import (
    QComboBox,
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from tall_plank.desk.look import asking
from tall_plank.desk.look.boxes import TextBox
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.views.shelfpictures import picture
from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, Shape
from tall_plank.edits.profiles import LARGEST, USES, add_profile, laid_section
from tall_plank.edits.rooms import read, read_in
from tall_plank.edits.things.island import read_degrees
from tall_plank.files.closed_outlines import Found
from tall_plank.files.sections import read_section
from tall_plank.measure import PlankError, format_length
from tall_plank.measure.limits import limits_of
from tall_plank.measure.paths import bounds
from tall_plank.stock import Profile

T = TypeVar("T")
PICTURE = QSize(250, 250)
BAR = 2400.0
"""mm of a bar, until another length is typed (common practice)."""


class ProfileDialog(QDialog):
    """What was read is shown as it will be set on a wall; nothing is in the job before it is accepted."""

    def __init__(self, parent: QWidget, document: Document, found: Found, name: str) -> None:
        super().__init__(parent)
        self.document = document
        self.found = found
        self.turns, self.mirror = 0, False
        self.added = ""
        self.setWindowTitle(tr("A profile from a drawing"))
        self.picture = QLabel()
        self.picture.setFixedSize(PICTURE)
        self.size_told = QLabel()
        self.size_told.setObjectName("specSub")
        self.name, self.code = TextBox(name), TextBox(_code_of(name))
        self.use, self.finish = QComboBox(), QComboBox()
        self.use.addItems([tr(use) for use in USES])
        for finish in document.job.stock.finishes:
            self.finish.addItem(finish.name, finish.code)
        usual = next((p.finish for p in document.job.stock.profiles), "")
        self.finish.setCurrentIndex(max(0, self.finish.findData(usual)))
        display = document.job.display
        self.high, self.bar = TextBox(), TextBox(format_length(BAR, display))
        self.spring, self.price = TextBox("0"), TextBox()
        self.error = QLabel()
        self.error.setObjectName("specError")
        self.error.setWordWrap(True)
        self._lay_out()
        self.turn.clicked.connect(self._turned)
        self.flip.clicked.connect(self._flipped)
        self.high.textChanged.connect(self._show)
        self.spring.textChanged.connect(self._show)
        self._show_height()
        self.name.setFocus()
        self.name.selectAll()

    # --- building

    def _lay_out(self) -> None:
        form = QFormLayout()
        currency = self.document.job.price_book().currency
        for words, box in (
            (tr("Name"), self.name), (tr("Code"), self.code), (tr("For"), self.use), (tr("Height"), self.high),
            (tr("Spring angle, °"), self.spring), (tr("Length of a bar"), self.bar), (tr("Finish"), self.finish),
            (f"{tr('Price of a meter')}, {currency}", self.price),
        ):  # fmt: skip
            box.setAccessibleName(words)
            form.addRow(words, box)
        self.high.setToolTip(tr("Of the section as it lies on its back; another height makes all of it larger"))
        self.spring.setToolTip(tr("From the wall to its back; 0: its back lies on the wall"))
        self.turn, self.flip = QPushButton(tr("&Turn")), QPushButton(tr("&Mirror"))
        for button in (self.turn, self.flip):
            button.setAutoDefault(False)
        beside = QHBoxLayout()
        beside.addWidget(self.turn)
        beside.addWidget(self.flip)
        left = QVBoxLayout()
        left.addWidget(self.picture)
        left.addWidget(self.size_told)
        left.addLayout(beside)
        left.addStretch(1)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        across = QHBoxLayout()
        across.setSpacing(18)
        across.addLayout(left)
        across.addLayout(form, 1)
        column = QVBoxLayout(self)
        column.setContentsMargins(18, 14, 18, 12)
        column.addLayout(across)
        column.addWidget(self.error)
        column.addWidget(buttons)
        self.setMinimumWidth(640)

    # --- content

    def _turned(self) -> None:
        self.turns = (self.turns + 1) % 4
        self._show_height()

    def _flipped(self) -> None:
        self.mirror = not self.mirror
        self._show_height()

    def _show_height(self) -> None:
        """The height of the section as it was drawn, in the way that it is turned now."""
        path = self.found.path
        x0, y0, x1, y1 = bounds(path)
        high = x1 - x0 if self.turns % 2 else y1 - y0
        self.high.setText(format_length(min(high, LARGEST), self.document.job.display))
        self._show()

    def _profile(self) -> Profile:
        """What is typed, as a profile.

        Raises
        ------
        PlankError, `where` the box that is wrong
        """
        job = self.document.job
        high = _at("height", lambda: read(job, self.high.text(), least=1.0, most=LARGEST)).mm
        spring = _at("spring", lambda: read_degrees(self.spring.text() or "0"))
        span = limits_of(Profile, "spring")
        if not span.least <= spring <= span.most:
            raise PlankError(f"A spring angle is from {span.least:g}° to {span.most:g}°.", "spring", "Type another.")
        bar = _at("length", lambda: read_in(job, self.bar.text(), Profile, "length")).mm
        path = laid_section(self.found.path, turns=self.turns, mirror=self.mirror, height=high)
        points = tuple((x, y, b) if b else (x, y) for x, y, b in path)
        use = USES[self.use.currentIndex()]
        finish = str(self.finish.currentData() or "")
        return Profile(self.code.text(), self.name.text(), (use,), points, bar, finish, spring=spring)

    def _show(self) -> None:
        """The section as it is set: its wall at the left."""
        try:
            profile = self._profile()
        except PlankError:
            return
        display = self.document.job.display
        wide, high = format_length(profile.depth, display), format_length(profile.height, display)
        self.size_told.setText(f"{wide} {tr('deep')}, {high} {tr('high')}")
        edge = 0.15 * max(profile.height, profile.depth)
        items: list[Item] = [
            Shape(profile.section, Pen.MEDIUM, Layer.TRIM, None, "unit"),
            Line(0.0, -edge, 0.0, profile.height + edge, Pen.WIDE, Layer.WALL),
        ]
        drawing = Drawing("", tuple(items), 0.0, -edge, profile.depth, profile.height + edge)
        self.picture.setPixmap(picture(drawing, PICTURE, most=8.0))

    def accept(self) -> None:
        try:
            profile = self._profile()
        except PlankError as error:
            self._told(error)
            return
        wrong = self.document.do(lambda job: add_profile(job, profile, self.price.text()), at_place=True)
        if wrong is not None:
            self._told(wrong)
            return
        self.added = profile.code.strip().upper()
        super().accept()

    def _told(self, error: PlankError) -> None:
        """Say what is wrong, at its box."""
        self.error.setText(f"{error.what} {error.remedy}".strip())
        boxes: dict[str, TextBox | QComboBox] = {
            "name": self.name, "code": self.code, "height": self.high, "spring": self.spring, "length": self.bar,
            "price": self.price, "uses": self.use,
        }  # fmt: skip
        box = boxes.get(error.where)
        if box is not None:
            box.setFocus()
            if isinstance(box, TextBox):
                box.selectAll()


def _at(where: str, work: Callable[[], T]) -> T:
    """What a box holds; what is wrong with it is wrong at the box."""
    try:
        return work()
    except PlankError as error:
        raise PlankError(error.what, where, error.remedy) from None


def _code_of(name: str) -> str:
    """A code from a file's name."""
    kept = "".join(c if c.isalnum() else "-" for c in name.upper())
    return "-".join(part for part in kept.split("-") if part)[:40]


def read_profile(parent: QWidget, document: Document) -> str:
    """Ask for a drawing and what its section is; the code of the profile, empty where none was added.

    Raises
    ------
    PlankError where the drawing holds no section
    """
    start = document.path.parent if document.path else Path.home()
    path = asking.ask_read(parent, tr("Read a profile"), start, "DXF, SVG (*.dxf *.svg)")
    if path is None:
        return ""
    dialog = ProfileDialog(parent, document, read_section(path), path.stem)
    dialog.exec()
    return dialog.added
