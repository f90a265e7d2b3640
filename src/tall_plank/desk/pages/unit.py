"""Looking into a unit: its model together, taken apart or seen through; its parts; each part's drawing."""

from __future__ import annotations

import math
from typing import Any

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QCheckBox,
    QHeaderView,
    QLabel,
    QPushButton,
    QSizePolicy,
    QSlider,
    QSplitter,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from tall_plank.desk.look.rows import WrappingRow
from tall_plank.desk.look.texts import counted, tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.model.document import Document
from tall_plank.desk.views.canvas import Canvas, Placed
from tall_plank.desk.views.modelmarks import paint_places
from tall_plank.desk.views.modelview import ModelView
from tall_plank.drawing.part import part_drawing
from tall_plank.job import Kind, Source
from tall_plank.making import MadeUnit
from tall_plank.measure import format_length, format_measure, told_in
from tall_plank.scene import Scene
from tall_plank.scene.unitscene import unit_scene, unit_start


class UnitModel(ModelView):
    """The model of one unit. A click on a board picks its part."""

    part_picked = pyqtSignal(int)

    def __init__(self, document: Document) -> None:
        super().__init__(document)
        self.unit: MadeUnit | None = None
        self.apart = 0.0
        self.machined = True
        self.clear = False
        self.part = 0
        self.setAccessibleName(tr("Unit"))
        self.setAcceptDrops(False)

    def scene(self) -> Scene:
        assert self.unit is not None
        return unit_scene(self.unit, self.document.job.stock, apart=self.apart, machined=self.machined)

    def _facing(self) -> float:
        return self.turn

    def hidden_sources(self) -> frozenset[Source]:
        return frozenset()

    def marked(self) -> set[Source]:
        return {Kind.PART.of(str(self.part))} if self.part else set()

    def finish_actor(self, actor: Any, *, edges: bool) -> None:
        """See-through boards: holes and grooves show inside them."""
        prop = actor.GetProperty()
        prop.SetOpacity(1.0 if not self.clear or edges else 0.22)
        if self.clear and not edges:
            prop.BackfaceCullingOff()

    def show_unit(self, unit: MadeUnit | None) -> None:
        self.unit = unit
        if self._renderer is not None:
            self._forget()
        self._dirty_scene = True
        self._timer.start()

    def render_now(self, *, fine: bool = False) -> None:
        if self.unit is not None and self.unit.shown:
            super().render_now(fine=fine)

    def paint_over(self, painter: QPainter) -> None:
        """Width, height and depth beside the unit, as long as it is in one piece."""
        if self.unit is None or not self.unit.shown or self.apart > 0.01:
            return
        spec, away = self.unit.spec, 60.0
        w, h, d = spec.width, spec.height, spec.depth
        lines = (
            (w, (0.0, -d - away, 0.0), (w, -d - away, 0.0)),
            (h, (-away, -d, 0.0), (-away, -d, h)),
            (d, (w + away, -d, 0.0), (w + away, 0.0, 0.0)),
        )
        x0, y0, z0 = unit_start(self.unit)
        paint_places(painter, self.unit, lambda p: self.on_screen((p[0] - x0, p[1] - y0, p[2] - z0)))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(font(12))
        for mm, start, end in lines:
            a, b = (self.on_screen((p[0] - x0, p[1] - y0, p[2] - z0)) for p in (start, end))
            painter.setPen(QPen(Theme.color("quiet"), 1.0))
            painter.drawLine(a, b)
            for p in (a, b):
                painter.drawLine(p + QPointF(-3, 3), p + QPointF(3, -3))
            text = format_length(mm, self.document.job.display)
            wide = painter.fontMetrics().horizontalAdvance(text) + 6
            middle = (a + b) / 2
            painter.fillRect(QRectF(middle.x() - wide / 2, middle.y() - 8, wide, 16), Theme.color("model"))
            painter.setPen(Theme.color("ink"))
            painter.drawText(QPointF(middle.x() - wide / 2 + 3, middle.y() + 5), text)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        self._from, self._moved = event.position(), False

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self._from is None or event.buttons() == Qt.MouseButton.NoButton:
            return
        way: QPointF = event.position() - self._from
        if not self._moved and way.manhattanLength() < 3:
            return
        self._moved = True
        self._from = event.position()
        if event.buttons() & Qt.MouseButton.MiddleButton or event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            self._shift_eye(way)
        else:
            self.turn -= way.x() * 0.4
            self.tilt = max(-85.0, min(85.0, self.tilt + way.y() * 0.4))
        self._timer.start()

    def _shift_eye(self, way: QPointF) -> None:
        if self.center is None:
            return
        a = math.radians(self.turn)
        step = self.distance / 900.0
        x, y, z = self.center
        self.center = (x + math.sin(a) * way.x() * step, y - math.cos(a) * way.x() * step, z + way.y() * step)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self._from is not None and not self._moved:
            source = self.source_at(event.position())
            if source is not None and source.kind is Kind.PART:
                self.part_picked.emit(int(source.id))
        self._from = None

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        self.fit()


class PartView(Canvas):
    """The drawing of one part."""

    margin = (92.0, 34.0, 400.0, 66.0)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(tr("Part"))


class UnitPage(QWidget):
    """The model above, parts at its right, the chosen part's drawing below."""

    closed = pyqtSignal()

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.cell = ""
        self._shown: tuple[object, ...] = ()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addLayout(self._head())
        self.model = UnitModel(document)
        self.parts = QTableWidget()
        self.parts.setObjectName("pane")
        self.parts.setAccessibleName(tr("Parts of the unit"))
        self.parts.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.parts.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.parts.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.parts.setShowGrid(False)
        self.parts.setTabKeyNavigation(False)
        rows = self.parts.verticalHeader()
        assert rows is not None
        rows.hide()
        rows.setDefaultSectionSize(24)
        self.parts.currentCellChanged.connect(lambda row, *_: self.show_part(row + 1))
        self.drawing = PartView()
        upper = QSplitter(Qt.Orientation.Horizontal)
        upper.addWidget(self.model)
        upper.addWidget(self.parts)
        upper.setSizes([370, 500])
        split = QSplitter(Qt.Orientation.Vertical)
        split.addWidget(upper)
        split.addWidget(self.drawing)
        split.setSizes([300, 380])
        column.addWidget(split, 1)
        self.model.part_picked.connect(lambda number: self.parts.selectRow(number - 1))
        document.changed.connect(self.refresh)
        document.selected.connect(self.refresh)

    def _head(self) -> WrappingRow:
        head = WrappingRow()
        head.setContentsMargins(16, 8, 12, 8)
        self.title = QLabel()
        self.title.setObjectName("specTitle")
        self.note = QLabel()
        self.note.setObjectName("specSub")
        self.note.setMinimumWidth(60)
        self.note.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self.apart = QSlider(Qt.Orientation.Horizontal)
        self.apart.setRange(0, 150)
        self.apart.setFixedWidth(84)
        self.apart.setAccessibleName(tr("Take apart"))
        self.apart.valueChanged.connect(self._look)
        self.clear = QCheckBox(tr("See through"))
        self.clear.toggled.connect(self._look)
        self.holes = QCheckBox(tr("Machining"))
        self.holes.setChecked(True)
        self.holes.toggled.connect(self._look)
        back = QPushButton(tr("Back to the room"))
        back.clicked.connect(self.closed)
        head.addWidget(self.title)
        head.addSpacing(8)
        head.addWidget(self.note, 1)
        head.addSpacing(12)
        head.addWidget(QLabel(tr("Take apart")))
        head.addWidget(self.apart)
        head.addSpacing(10)
        head.addWidget(self.clear)
        head.addWidget(self.holes)
        head.addSpacing(10)
        head.addWidget(back)
        return head

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        if event.key() == Qt.Key.Key_Escape:
            self.closed.emit()
        else:
            super().keyPressEvent(event)

    # --- content

    def show_cell(self, cell: str) -> None:
        """Look into a unit."""
        self.cell = cell
        self._shown = ()
        self.model.fit()
        self.refresh()
        self.parts.setFocus()

    def refresh(self) -> None:
        """Pull the unit that is looked into: the selected one where one is."""
        if not self.isVisible() and self._shown:
            return
        doc = self.document
        if len(doc.cells) == 1 and doc.cells[0] != self.cell:
            self.cell = doc.cells[0]
            self.model.fit()
        unit = doc.workings.made.of(self.cell)
        placed = doc.workings.layout.find(self.cell)
        if unit is None or placed is None:
            self.closed.emit()
            return
        if self._shown and self._shown[0] is unit and self._shown[1] == doc.job.display:
            return
        self._shown = (unit, doc.job.display)
        name = doc.job.template(placed.template).name
        self.title.setText(f"{placed.number} · {name}" if placed.number else name)
        size = " × ".join(format_length(v, doc.job.display) for v in (placed.width, placed.height, placed.depth))
        problems = [told_in(f"{p.what} {p.remedy}", doc.job.display) for p in unit.problems]
        more = f" (+{len(problems) - 1})" if len(problems) > 1 else ""
        weight = format_measure(unit.weight, "kg", doc.job.display)
        whole = f"{size} · {counted(len(unit.parts), 'part', 'parts')} · {weight}"
        self.note.setText(f"{problems[0]}{more}" if problems else whole)
        self.note.setToolTip("\n".join(problems))
        self.note.setProperty("wrong", "true" if unit.faulty else "false")
        style = self.note.style()
        if style is not None:
            style.polish(self.note)
        row = max(0, self.parts.currentRow())
        if unit.faulty:  # what it is about comes first
            row = next((p.parts[0] - 1 for p in unit.problems if p.parts), row)
        self._fill(unit, placed.number)
        self.model.show_unit(unit)
        if unit.shown:
            self.parts.selectRow(min(row, len(unit.shown) - 1))
            self.show_part(min(row, len(unit.shown) - 1) + 1)
        else:
            self.drawing.set_placed([])

    def _fill(self, unit: MadeUnit, number: str) -> None:
        display = self.document.job.display
        about = {number for p in unit.problems for number in p.parts}
        table = self.parts
        table.blockSignals(True)
        heads = [tr("No."), tr("Part"), tr("Length"), tr("Width"), tr("Thick"), tr("Holes")]
        table.setColumnCount(len(heads))
        table.setHorizontalHeaderLabels(heads)
        table.setRowCount(len(unit.shown))
        for i, part in enumerate(unit.shown):
            texts = (
                f"{number}.{i + 1}", part.name, format_length(part.length, display),
                format_length(part.width, display), format_length(part.thickness, display), str(part.holes or "–"),
            )  # fmt: skip
            for k, text in enumerate(texts):
                item = QTableWidgetItem(text)
                if i + 1 in about:
                    item.setForeground(Theme.color("oxide"))
                if k > 1:
                    item.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
                table.setItem(i, k, item)
        header = table.horizontalHeader()
        assert header is not None
        header.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        header.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
        header.setSectionResizeMode(1, QHeaderView.ResizeMode.Stretch)
        table.blockSignals(False)

    def part_number(self) -> str:
        """The number of the part that is drawn; empty where there is none."""
        item = self.parts.item(self.model.part - 1, 0) if self.drawing.placed else None
        return item.text() if item is not None else ""

    def show_part(self, number: int) -> None:
        """Draw a part by its place in the unit, from 1."""
        unit = self.document.workings.made.of(self.cell)
        placed = self.document.workings.layout.find(self.cell)
        if unit is None or placed is None or not 1 <= number <= len(unit.shown):
            return
        part = unit.shown[number - 1]
        places = [p.place for p in unit.problems if p.place is not None and number in p.parts]
        middles = [tuple((a + c) / 2 for a, c in zip(low, high, strict=True)) for low, high in places]
        faults = [part.frame.into(at) for at in middles]  # type: ignore[arg-type]
        drawing = part_drawing(f"{placed.number}.{number}", part, self.document.job.display, faults)
        self.drawing.fitted = True
        self.drawing.set_placed([Placed(0.0, 0.0, drawing)])
        self.model.part = number
        self.model.refresh_selection()

    def _look(self) -> None:
        self.model.apart = self.apart.value() / 100.0
        self.model.clear = self.clear.isChecked()
        self.model.machined = self.holes.isChecked()
        self.model.fit()
        self.model.show_unit(self.model.unit)
