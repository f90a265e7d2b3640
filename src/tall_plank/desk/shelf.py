"""The picking shelf: what can be placed or chosen at a stage, as pictures made from the real templates."""

from __future__ import annotations

from dataclasses import dataclass

from PyQt6.QtCore import QMimeData, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QDrag, QIcon, QKeyEvent, QPainter, QPixmap
from PyQt6.QtWidgets import QAbstractItemView, QFrame, QHBoxLayout, QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout

from tall_plank.desk.canvas import PEN_PX, paint_strokes, strokes_of
from tall_plank.desk.document import Document
from tall_plank.desk.strip import TEMPLATE_MIME
from tall_plank.desk.texts import tr
from tall_plank.desk.theme import Theme, font
from tall_plank.drawing.elevation import unit_front
from tall_plank.drawing.primitives import Drawing, Layer, Line, Pen, Shape, rectangle
from tall_plank.job import Body, Job, Template, Unit
from tall_plank.job.inherit import construction_of, finish_of
from tall_plank.job.scheme import Role
from tall_plank.making.unit import UnitSpec, make_unit
from tall_plank.measure import Frame, Length
from tall_plank.measure.lengths import evaluate_text
from tall_plank.setout import Placed as PlacedUnit

PICTURE = QSize(52, 56)


@dataclass(frozen=True)
class Entry:
    """Something on the shelf."""

    code: str
    label: str
    group: str
    icon: QIcon


def template_drawing(job: Job, template: Template) -> Drawing:
    """A template as a unit of its starting size, seen from the front."""
    unit = Unit("shelf", template.code, template.bay, template.own)
    named = job.named_values()
    own = {o.key: o.value.mm for o in template.own if isinstance(o.value, Length)}
    w = template.width
    h = own.get("height", evaluate_text(template.height, named))
    d = own.get("depth", evaluate_text(template.depth, named))
    spec = UnitSpec(
        template=template.code, level=template.level.value, body=template.body, top=template.top, sink=template.sink,
        appliance=template.appliance, bay=template.bay, width=w, height=h, depth=d, made=construction_of(job, unit),
        front=finish_of(job, unit, Role.FRONT), carcass=finish_of(job, unit, Role.CARCASS),
        drawer=finish_of(job, unit, Role.DRAWER), corner=template.corner,
        corner_side="right" if template.corner else "", leg=min(w, 900.0) if template.corner else 0.0,
        blind=w * 0.45 if template.corner == "blind" else 0.0, filler=40.0 if template.corner == "blind" else 0.0,
        shape=template.shape, gables=template.gables, bottom=template.bottom, back=template.back,
        cover=template.cover, vent=template.vent, fittings=template.fittings,
    )  # fmt: skip
    placed = PlacedUnit(
        "", "", "", "", "", "", template.level, template.code, template.body, 0.0, 0.0, w, h, d, Frame()
    )
    items = list(unit_front(placed, make_unit(spec, job.stock), job.stock, labels=False))
    if template.body is Body.GAP:
        items.append(Shape(rectangle(0, 0, w, h), Pen.DASHED, Layer.CARCASS))
    if template.sink:
        items.append(Shape(rectangle(w * 0.2, h, w * 0.6, 50), Pen.MEDIUM, Layer.APPLIANCE, "", "basin"))
        items.append(Line(w * 0.5, h + 50, w * 0.5, h + 190, Pen.MEDIUM, Layer.APPLIANCE))
        items.append(Line(w * 0.5, h + 190, w * 0.64, h + 190, Pen.MEDIUM, Layer.APPLIANCE))
    return Drawing(template.name, tuple(items), 0.0, 0.0, w, h + (190.0 if template.sink else 0.0))


def picture(drawing: Drawing, size: QSize = PICTURE, ratio: float = 2.0) -> QPixmap:
    """A small picture of a drawing."""
    pixmap = QPixmap(size * ratio)
    pixmap.setDevicePixelRatio(ratio)
    pixmap.fill(QColor(0, 0, 0, 0))
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    scale = min((size.width() - 6) / max(drawing.width, 1), (size.height() - 6) / max(drawing.height, 1), 0.07)
    painter.translate((size.width() - drawing.width * scale) / 2, (size.height() + drawing.height * scale) / 2)
    painter.scale(scale, -scale)
    paint_strokes(painter, strokes_of(drawing), PEN_PX, cosmetic=True)
    painter.end()
    return pixmap


def swatch(color: str, grain: bool) -> QPixmap:
    """A finish as a small board."""
    drawing = Drawing(
        "",
        (Shape(rectangle(0, 0, 420, 300), Pen.NARROW, Layer.FRONT, "", color, "x" if grain else ""),),
        0,
        0,
        420,
        300,
    )
    return picture(drawing, QSize(46, 34))


def opening_drawing(kind: str) -> Drawing:
    """A door or window for the shelf."""
    if kind == "door":
        items = (
            Shape(rectangle(0, 0, 400, 760), Pen.MEDIUM, Layer.OPENING, "", "opening"),
            Shape(rectangle(36, 0, 328, 724), Pen.NARROW, Layer.OPENING, "", "door"),
            Line(290, 360, 335, 360, Pen.MEDIUM, Layer.OPENING),
        )
        return Drawing(kind, items, 0, 0, 400, 760)
    items = (
        Shape(rectangle(0, 0, 700, 560), Pen.MEDIUM, Layer.OPENING, "", "opening"),
        Shape(rectangle(36, 36, 628, 488), Pen.NARROW, Layer.OPENING, "", "glass"),
        Line(350, 36, 350, 524, Pen.NARROW, Layer.OPENING),
    )
    return Drawing(kind, items, 0, 0, 700, 560)


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
        self.setFixedWidth(150)
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 10, 0, 4)
        column.setSpacing(8)
        self.search = QLineEdit()
        self.search.setPlaceholderText(tr("Search"))
        self.search.setClearButtonEnabled(True)
        self.search.textChanged.connect(self._filter)
        self.search.returnPressed.connect(self._use_first)
        self.list = ShelfList()
        self.list.used.connect(self.used)
        held = QHBoxLayout()
        held.setContentsMargins(0, 0, 8, 0)
        held.addWidget(self.search)
        column.addLayout(held)
        column.addWidget(self.list)
        self._key: object = None
        self._entries: list[Entry] = []

    def refresh(self) -> None:
        """Pull what can be used at this stage; pictures are made again only where they would differ."""
        job = self.document.job
        style = job.active_standard().values()
        key = (self.stage, job.templates, job.schemes, job.stock, style["front_style"], style["handle"], Theme.dark)
        if key == self._key:
            return
        self._key = key
        self._entries = {"room": self._openings, "finish": self._finishes}.get(self.stage, self._templates)()
        self._fill()

    def _templates(self) -> list[Entry]:
        job = self.document.job
        return [Entry(t.code, tr(t.name), tr(t.group), QIcon(picture(template_drawing(job, t)))) for t in job.templates]

    def _openings(self) -> list[Entry]:
        return [
            Entry(kind, tr(kind.capitalize()), tr("Openings"), QIcon(picture(opening_drawing(kind))))
            for kind in ("door", "window")
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

    def _filter(self) -> None:
        self._fill()

    def _use_first(self) -> None:
        for i in range(self.list.count()):
            item = self.list.item(i)
            if item is not None and item.data(Qt.ItemDataRole.UserRole):
                self.list.setCurrentItem(item)
                self.used.emit(item.data(Qt.ItemDataRole.UserRole))
                return
