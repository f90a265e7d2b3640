"""The page of the simulated machine: a program on its board, its path, the wood that is left, what would go wrong."""

from __future__ import annotations

from html import escape
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QImage, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import (
    QComboBox,
    QHBoxLayout,
    QLabel,
    QListWidget,
    QListWidgetItem,
    QMenu,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from tall_plank.desk.look import asking
from tall_plank.desk.look.rows import WrappingRow
from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.tasks import InThread
from tall_plank.edits import cutting
from tall_plank.files.machinefiles import read_program
from tall_plank.files.machines import file_of
from tall_plank.formats.writing import write_atomic
from tall_plank.measure import PlankError
from tall_plank.shop.machine.model import SHIPPED
from tall_plank.shop.simulator import Run, run_program

if TYPE_CHECKING:
    from tall_plank.shop.machine.programs import Program

WOOD, DEEP, THROUGH = (226, 205, 160), (176, 140, 84), (92, 84, 70)
"""Untouched wood, the deepest pocket, cut right through: sRGB."""


def wood_image(heights: np.ndarray, thickness: float) -> QImage:
    """The wood that is left as a picture, a pixel a cell, y up."""
    share = np.clip(1.0 - heights / thickness, 0.0, 1.0)[..., None]
    colors = np.array(WOOD) * (1 - share) + np.array(DEEP) * share
    colors = np.where(heights[..., None] <= 0.01, np.array(THROUGH), colors)
    rows = np.ascontiguousarray(np.flip(colors.transpose(1, 0, 2), axis=0).astype(np.uint8))
    high, wide, _ = rows.shape
    return QImage(rows.tobytes(), wide, high, 3 * wide, QImage.Format.Format_RGB888).copy()


class PathView(QWidget):
    """The board from above: wood, path, the place of the chosen fault."""

    def __init__(self) -> None:
        super().__init__()
        self.result: Run | None = None
        self.size_mm = (1.0, 1.0, 1.0)
        self.line = 0
        self._image: QImage | None = None
        self.setMinimumHeight(160)

    def show_run(self, run: Run | None, size: tuple[float, float, float]) -> None:
        self.result, self.size_mm, self.line = run, size, 0
        self._image = wood_image(run.heights, size[2]) if run is not None and run.heights.size else None
        self.update()

    def mark(self, line: int) -> None:
        """Show where a line of the program is."""
        self.line = line
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), Theme.color("sheet"))
        if self.result is None:
            painter.setPen(Theme.color("quiet"))
            painter.setFont(font(13))
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, tr("Running on the simulated machine …"))
            return
        long, wide, _ = self.size_mm
        scale = min((self.width() - 36) / long, (self.height() - 24) / wide)
        left, foot = (self.width() - long * scale) / 2, (self.height() + wide * scale) / 2
        place = QRectF(left, foot - wide * scale, long * scale, wide * scale)

        def at(x: float, y: float) -> QPointF:
            return QPointF(left + x * scale, foot - y * scale)

        if self._image is not None:
            painter.drawImage(place, self._image)
        painter.setPen(QPen(Theme.color("ink"), 1.2))
        painter.drawRect(place)
        cut, rapid = QColor(Theme.color("spruce")), QColor(Theme.color("brass"))
        rapid.setAlphaF(0.55)
        pens = {False: QPen(cut, 1.0), True: QPen(rapid, 0.8, Qt.PenStyle.DashLine)}
        for move in self.result.moves:
            if move.start[:2] != move.end[:2]:
                painter.setPen(pens[move.rapid])
                painter.drawLine(at(*move.start[:2]), at(*move.end[:2]))
        here = [m for m in self.result.moves if m.line == self.line]
        if here:
            painter.setPen(QPen(Theme.color("oxide"), 2.4))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            for move in here:
                painter.drawLine(at(*move.start[:2]), at(*move.end[:2]))
            painter.drawEllipse(at(*here[-1].end[:2]), 9.0, 9.0)


def setup_text(program: Program) -> str:
    """How a program is set up, a paragraph a fact; none where it is a file of unknown origin."""
    setup = program.setup
    if setup is None:
        return ""
    tools = [f"T{t.number} {t.name}, {tr('cuts')} {t.length:g} {tr('deep')}" for t in setup.tools]
    lines = [*setup.lines[1:], *tools, f"{tr('about')} {setup.seconds / 60:.1f} {tr('minutes')}"]
    return "".join(f"<p style='margin:0 0 5px 0'>{escape(line)}</p>" for line in lines)


class MachinePage(QWidget):
    """A program at a time: the job's, or any from a file."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.setObjectName("pane")
        self.document = document
        self._task: InThread | None = None
        self._old: list[InThread] = []
        self.program: Program | None = None
        column = QVBoxLayout(self)
        column.setContentsMargins(18, 12, 14, 8)
        head = WrappingRow()
        title = QLabel(tr("Machine"))
        title.setObjectName("specTitle")
        self.figures = QLabel()
        self.figures.setObjectName("specSub")
        self.figures.setMinimumWidth(60)
        self.choice = QComboBox()
        self.choice.setAccessibleName(tr("Program"))
        self.choice.setMinimumContentsLength(16)
        self.choice.activated.connect(self._chosen)
        self.open = QPushButton(tr("Check a program…"))
        self.open.clicked.connect(self.open_file)
        head.addWidget(title)
        head.addSpacing(10)
        head.addWidget(self.figures, 1)
        head.addWidget(self.choice)
        head.addWidget(self.open)
        self.machines = QComboBox()
        self.machines.setAccessibleName(tr("Machine"))
        self.machines.setMinimumContentsLength(14)
        self.machines.activated.connect(self._machine_chosen)
        head.addWidget(self.machines)
        self.tools = QPushButton(tr("The shop's machines"))
        menu = QMenu(self.tools)
        menu.addAction(tr("Add one from a file…"), self.read_machine)
        menu.addAction(tr("Write this one as a file…"), self.write_machine)
        self.give_up = menu.addAction(tr("Give this one up"), self.remove_machine)
        self.tools.setMenu(menu)
        head.addWidget(self.tools)
        column.addLayout(head)
        self.view = PathView()
        middle = QHBoxLayout()
        middle.addWidget(self.view, 1)
        self.setup = QLabel()
        self.setup.setObjectName("setup")
        self.setup.setAccessibleName(tr("Set-up"))
        self.setup.setWordWrap(True)
        self.setup.setFixedWidth(250)
        self.setup.setContentsMargins(12, 4, 0, 0)
        self.setup.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.setup.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        middle.addWidget(self.setup)
        column.addLayout(middle, 1)
        self.faults = QListWidget()
        self.faults.setObjectName("listing")
        self.faults.setAccessibleName(tr("What goes wrong"))
        self.faults.setFixedHeight(120)
        self.faults.currentItemChanged.connect(
            lambda item, _: self.view.mark(item.data(Qt.ItemDataRole.UserRole) or 0 if item else 0)
        )
        column.addWidget(self.faults)
        self._shown: tuple[object, object] | None = None

    def refresh(self) -> None:
        """Offer the job's programs; the one that was looked at is run again where it has changed."""
        shown = (self.document.job, self.document.machines)
        if self._shown is not None and all(a is b for a, b in zip(self._shown, shown, strict=True)):
            return
        self._shown = shown
        router = self.document.workings.router
        self.machines.clear()
        for m in self.document.machines:
            self.machines.addItem(m.name, m.name)
        self.machines.setCurrentIndex(self.machines.findData(router.name))
        if self.give_up is not None:
            self.give_up.setEnabled(file_of(self.document.folders, router.name) != SHIPPED)
        files = self.document.workings.machine_files
        name = str(self.choice.currentData() or "")
        self._programs = {p.name: p for p in (*files.programs, *files.second)}
        self.choice.clear()
        for p in self._programs.values():
            self.choice.addItem(p.name, p.name)
        self.choice.setCurrentIndex(max(0, self.choice.findData(name)))
        self._chosen()

    def _chosen(self, *_: object) -> None:
        program = self._programs.get(str(self.choice.currentData() or ""))
        if program is None:
            self.figures.setText(tr("The machine has nothing to do in this job."))
            self.view.show_run(None, (1.0, 1.0, 1.0))
            self.setup.setText("")
            return
        self.run(program)

    def run(self, program: Program) -> None:
        """Run a program beside the window."""
        self.program = program
        self.setup.setText(setup_text(program))
        self.figures.setText(program.name)
        self.faults.clear()
        self.view.show_run(None, program.size)
        if self._task is not None:
            self._task.forget()
            self._old.append(self._task)  # it ends by itself
        self._old = [t for t in self._old if t.busy]
        machine = self.document.workings.router
        self._task = InThread(lambda _: run_program(program.text, machine, program.size, program.parts))
        self._task.ended.connect(self._ran)
        self._task.failed.connect(self.figures.setText)
        self._task.start()

    def _machine_chosen(self, *_: object) -> None:
        name = str(self.machines.currentData() or "")
        if name != self.document.workings.router.name:
            self.document.do(lambda job: cutting.set_cutting(job, "machine", name))

    def read_machine(self) -> None:
        """Add a machine of the shop's own from a file, and write this job's programs for it."""
        path = asking.ask_read(self, tr("Add a machine from a file"), Path.home(), "TOML (*.toml)")
        if path is None:
            return
        try:
            machine = self.document.add_machine(path)
        except (OSError, PlankError) as error:
            self.document.told.emit(str(error), "wrong")
            return
        if self.document.workings.router.name != machine.name:
            self.document.do(lambda job: cutting.set_cutting(job, "machine", machine.name))
        self.document.told.emit(f"{tr('Programs are written for')} {machine.name}.", "note")

    def write_machine(self) -> None:
        """Write the machine in use, to be changed with any editor and added again."""
        path = asking.ask_save(self, tr("Write the machine"), Path.home() / "machine.toml", "TOML (*.toml)")
        if path is None:
            return
        try:
            write_atomic(path, file_of(self.document.folders, self.document.workings.router.name).read_bytes())
        except (OSError, PlankError) as error:
            self.document.told.emit(str(error), "wrong")

    def remove_machine(self) -> None:
        """Give the machine in use up, where it is one of the shop's own."""
        name = self.document.workings.router.name
        if self.document.remove_machine(name):
            now = self.document.workings.router.name
            self.document.told.emit(f"{tr('Programs are written for')} {now}.", "note")

    def open_file(self) -> None:
        """Run any program on the board of the program that is shown."""
        path = asking.ask_read(self, tr("Check a program"), Path.home(), "RS-274 (*.ngc *.nc *.tap)")
        if path is None or self.program is None:
            return
        try:
            text = read_program(path)
        except PlankError as error:
            self.figures.setText(str(error))
            return
        from tall_plank.shop.machine.programs import Program

        p = self.program
        self.run(Program(path.name, text, p.size, p.parts, ()))

    def _ran(self, run: Run) -> None:
        assert self.program is not None
        self.view.show_run(run, self.program.size)
        minutes = f"{run.seconds / 60:.1f} {tr('minutes')}"
        size = " x ".join(f"{x:g}" for x in self.program.size)
        wrong = f"{len(run.faults)} {tr('faults')}" if run.faults else tr("no faults")
        self.figures.setText(f"{self.program.name} · {size} · {len(run.moves)} {tr('moves')} · {minutes} · {wrong}")
        for fault in run.faults:
            item = QListWidgetItem(f"{tr('line')} {fault.line}: {fault.what}")
            item.setData(Qt.ItemDataRole.UserRole, fault.line)
            item.setForeground(Theme.color("oxide"))
            self.faults.addItem(item)
        for left in self.program.refused:
            self.faults.addItem(f"{left.part}: {left.what} — {left.why}")
        if self.document.machine_fault:
            self.faults.insertItem(0, f"{tr('A machine cannot be used')}: {self.document.machine_fault}")
        if not self.faults.count():
            self.faults.addItem(tr("The machine does all of it; nothing goes wrong."))

    def close_page(self) -> None:
        """The window closes: wait for what still runs."""
        for task in (*self._old, *([self._task] if self._task is not None else [])):
            task.wait()
