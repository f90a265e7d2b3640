"""A widget that replays drawings: one display list, pan and zoom about the pointer, its own hit test."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPolygonF,
    QWheelEvent,
)
from PyQt6.QtWidgets import QWidget

from tall_plank.assets import em_of
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.views.strokes import Stroke, advance, paint_strokes, strokes_of
from tall_plank.drawing.dimensions import expand
from tall_plank.drawing.primitives import Dim, Drawing, Line, Pen, Shape, Text
from tall_plank.job import Kind, Source

PAPER_PX = 3.6
"""Pixels on screen for a millimetre of paper: what sets the size of texts and rows of dimensions."""

DRAGGED = 5
"""px that a dimension's line is moved at the least; less is a click."""

PEN_PX = {
    Pen.WIDE: 2.0, Pen.MEDIUM: 1.2, Pen.NARROW: 0.8, Pen.DASHED: 0.8, Pen.ABOVE: 0.8, Pen.MOVING: 0.8,
    Pen.CHAIN: 0.8, Pen.NONE: 0.0,
}  # fmt: skip


@dataclass(frozen=True)
class Placed:
    """A drawing at a place on the canvas, mm."""

    dx: float
    dy: float
    drawing: Drawing


class Canvas(QWidget):
    """Base of strip, plan, sheet and board views. World: mm, y up."""

    picked = pyqtSignal(object, object)
    """Source under a click (empty: nothing) and the keyboard modifiers."""
    view_changed = pyqtSignal()
    dim_clicked = pyqtSignal(object)
    dim_moved = pyqtSignal(object, float)
    """A dimension by hand and where its line was dragged to, mm of paper from its base."""
    note_clicked = pyqtSignal(object)
    note_moved = pyqtSignal(object, float, float)
    """A note's source and where its words were dragged to, mm of paper from what it is about."""

    margin = (44.0, 26.0, 30.0, 30.0)  # px left, top, right, bottom when fitted

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("pane")
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.placed: list[Placed] = []
        self.extra_dims: list[Dim] = []
        self.highlight: tuple[Source, ...] = ()
        self.scale = 0.1  # px per mm
        self.origin = QPointF(0.0, 0.0)  # px of world (0, 0)
        self.fitted = True
        self.held = False
        """During a drag the view stays where it is, whatever grows."""
        self._strokes: dict[int, tuple[Drawing, list[Stroke]]] = {}
        self._pan_from: QPointF | None = None
        self._dim_from: tuple[Dim, QPointF] | None = None
        self._note_from: tuple[Text, QPointF] | None = None

    # --- content

    def set_placed(self, placed: list[Placed]) -> None:
        """Show drawings; the view stays where it is unless it was fitted."""
        if placed == self.placed:
            return
        self.placed = placed
        # A drawing that is the same object keeps its display list.
        kept = self._strokes
        self._strokes = {}
        for p in placed:
            found = kept.get(id(p.drawing))
            self._strokes[id(p.drawing)] = found or (p.drawing, strokes_of(p.drawing))
        if self.fitted and not self.held:
            self.fit()
        self.update()

    def restyle(self) -> None:
        """The variant changed."""
        self.update()

    def extent(self) -> QRectF:
        """World rectangle of all drawings, mm (y up: its top is the lowest y)."""
        rect = QRectF()
        for p in self.placed:
            d = p.drawing
            rect = rect.united(QRectF(d.x0 + p.dx, d.y0 + p.dy, d.width, d.height))
        return rect

    # --- view

    def to_px(self, x: float, y: float) -> QPointF:
        return QPointF(self.origin.x() + x * self.scale, self.origin.y() - y * self.scale)

    def to_mm(self, p: QPointF) -> tuple[float, float]:
        return ((p.x() - self.origin.x()) / self.scale, (self.origin.y() - p.y()) / self.scale)

    def fit(self) -> None:
        """Show everything."""
        rect = self.extent()
        left, top, right, bottom = self.margin
        if rect.isEmpty() or self.width() < left + right + 10 or self.height() < top + bottom + 10:
            return
        w, h = self.width() - left - right, self.height() - top - bottom
        self.scale = min(w / rect.width(), h / rect.height())
        self.origin = QPointF(
            left + (w - rect.width() * self.scale) / 2 - rect.x() * self.scale,
            top + (h - rect.height() * self.scale) / 2 + (rect.y() + rect.height()) * self.scale,
        )
        self.fitted = True
        self.view_changed.emit()
        self.update()

    def zoom(self, factor: float, about: QPointF | None = None) -> None:
        """Zoom; the point under the pointer stays."""
        about = about or QPointF(self.width() / 2, self.height() / 2)
        scale = min(max(self.scale * factor, 0.01), 4.0)
        factor = scale / self.scale
        self.origin = about + (self.origin - about) * factor
        self.scale = scale
        self.fitted = False
        self.view_changed.emit()
        self.update()

    def pan(self, dx: float, dy: float) -> None:
        self.origin += QPointF(dx, dy)
        self.fitted = False
        self.view_changed.emit()
        self.update()

    def resizeEvent(self, event: object) -> None:
        if self.fitted:
            self.fit()
        else:
            self.view_changed.emit()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        assert event is not None
        delta = event.angleDelta()
        if event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            self.pan(delta.y() / 2 or delta.x() / 2, 0.0)
        else:
            self.zoom(1.0015 ** delta.y(), event.position())
        event.accept()

    # --- painting

    @property
    def paper_scale(self) -> float:
        """Real mm per mm of paper at this zoom."""
        return PAPER_PX / self.scale

    def dims(self) -> list[Dim]:
        """Every dimension, moved to its drawing's place."""
        found = list(self.extra_dims)
        for p in self.placed:
            for item in p.drawing.items:
                if isinstance(item, Dim):
                    shift, across = (p.dx, p.dy) if item.along == "x" else (p.dy, p.dx)
                    found.append(
                        Dim(
                            item.a + shift,
                            item.b + shift,
                            item.base + across,
                            item.row,
                            item.along,
                            item.text,
                            item.source,
                            item.key,
                            item.attention,
                            away=item.away,
                        )
                    )
        return found

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), self.background())
        painter.save()
        painter.translate(self.origin)
        painter.scale(self.scale, -self.scale)
        for p in self.placed:
            if self._in_view(p):
                painter.save()
                painter.translate(p.dx, p.dy)
                paint_strokes(painter, self._strokes[id(p.drawing)][1], PEN_PX, cosmetic=True)
                painter.restore()
        self._paint_highlight(painter)
        painter.restore()
        self._paint_texts(painter)
        self._paint_dims(painter)
        self.paint_over(painter)
        painter.end()

    def _in_view(self, p: Placed) -> bool:
        """Whether any of a drawing can be seen."""
        d = p.drawing
        low, high = self.to_px(d.x0 + p.dx, d.y1 + p.dy), self.to_px(d.x1 + p.dx, d.y0 + p.dy)
        return QRectF(low, high).adjusted(-60, -60, 60, 60).intersects(QRectF(self.rect()))

    def background(self) -> QColor:
        return Theme.color("sheet")

    def paint_over(self, painter: QPainter) -> None:
        """What a view adds above its drawings, in pixels."""

    def _paint_highlight(self, painter: QPainter) -> None:
        if not self.highlight:
            return
        wanted = {s for s in self.highlight if s.kind not in (Kind.WALL, Kind.ROOM)}
        pen = QPen(Theme.color("spruce"), 2.2)
        pen.setCosmetic(True)
        fill = Theme.color("spruce")
        fill.setAlphaF(0.16)
        painter.setPen(pen)
        painter.setBrush(fill)
        for p in self.placed:
            boxes: dict[Source, QRectF] = {}
            turned: list[QPolygonF] = []
            shapes = [i for i in p.drawing.items if isinstance(i, Shape) and i.source in wanted]
            counts = Counter(item.source for item in shapes)
            for item in shapes:
                assert item.source is not None
                polygon = QPolygonF([QPointF(x + p.dx, y + p.dy) for x, y in item.points])
                # Of what has many pieces one box is shown about all of them.
                if counts[item.source] > MANY or (len(item.points) == 4 and _is_level(item.points)):
                    boxes[item.source] = boxes.get(item.source, QRectF()).united(polygon.boundingRect())
                else:
                    turned.append(polygon)
            for box in boxes.values():
                painter.drawRect(box)
            for polygon in turned:
                painter.drawPolygon(polygon)

    def _paint_texts(self, painter: QPainter) -> None:
        for p in self.placed:
            if not self._in_view(p):
                continue
            for item in p.drawing.items:
                if isinstance(item, Text):
                    color = Theme.color("quiet" if item.quiet else "ink")
                    self.draw_text(painter, item, p.dx, p.dy, color)

    def draw_text(self, painter: QPainter, item: Text, dx: float, dy: float, color: QColor) -> None:
        """A text whose size is that of paper, never smaller than can be read."""
        at = self.to_px(item.x + dx, item.y + dy)
        if item.shift != (0.0, 0.0):  # put aside by hand, on a leader
            put = at + QPointF(item.shift[0] * PAPER_PX, -item.shift[1] * PAPER_PX)
            painter.setPen(QPen(color, 0.8))
            painter.drawLine(at, put + QPointF(0.0, -item.size * PAPER_PX / 2))
            at = put
        if not (-300 < at.x() < self.width() + 300 and -60 < at.y() < self.height() + 60):
            return
        pixels = min(max(10, round(em_of(item.size) * PAPER_PX)), 22)
        width = advance(item.text, pixels, item.bold)
        if item.within and width > item.within * self.scale:
            return
        painter.setFont(font(pixels, bold=item.bold))
        shift = {"left": 0.0, "middle": -width / 2, "right": -float(width)}[item.align]
        if item.angle:
            painter.save()
            painter.translate(at)
            painter.rotate(-item.angle)
            at = QPointF(0.0, 0.0)
        x, y = at.x() + shift, at.y() - item.rise * PAPER_PX
        if item.backed:
            ground = Theme.color("sheet")
            ground.setAlphaF(0.82)
            cap = item.size * PAPER_PX
            box = QRectF(x - 3, y - cap - 2.5, width + 6, cap + 5)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(ground)
            painter.drawRoundedRect(box, 3, 3)
        painter.setPen(color)
        painter.drawText(QPointF(x, y), item.text)
        if item.angle:
            painter.restore()

    def _paint_dims(self, painter: QPainter) -> None:
        every = self.dims()
        for group, role in ((False, "quiet"), (True, "brass")):
            dims = [d for d in every if d.attention == group]
            color = Theme.color(role)
            pen = QPen(color, 1.0)
            for item in expand(dims, self.paper_scale):
                if isinstance(item, Line):
                    painter.setPen(pen)
                    painter.drawLine(self.to_px(item.x1, item.y1), self.to_px(item.x2, item.y2))
                else:
                    self.draw_text(painter, item, 0.0, 0.0, color)

    # --- hit test

    def source_at(self, p: QPointF) -> Source | None:
        """Source of the topmost shape under a point of the widget; None where there is none."""
        x, y = self.to_mm(p)
        for placed in reversed(self.placed):
            px, py = x - placed.dx, y - placed.dy
            for item in reversed(placed.drawing.items):
                if isinstance(item, Shape) and item.source and _inside(item.points, px, py):
                    return item.source
        return None

    def sources_in(self, rect: QRectF) -> tuple[Source, ...]:
        """Cells that lie wholly inside a rectangle of the widget."""
        x0, y1 = self.to_mm(rect.topLeft())
        x1, y0 = self.to_mm(rect.bottomRight())
        found: dict[Source, None] = {}
        for p in self.placed:
            # A unit in a corner is drawn on both walls: being wholly inside on one of them is enough.
            whole: dict[Source, bool] = {}
            for item in p.drawing.items:
                if isinstance(item, Shape) and item.source is not None and item.source.kind is Kind.CELL:
                    inside = all(x0 <= x + p.dx <= x1 and y0 <= y + p.dy <= y1 for x, y in item.points)
                    whole[item.source] = whole.get(item.source, True) and inside
            found |= dict.fromkeys(source for source, inside in whole.items() if inside)
        return tuple(found)

    def dim_at(self, p: QPointF) -> Dim | None:
        """The typed dimension whose text or line is under a point."""
        from tall_plank.drawing.dimensions import offset

        x, y = self.to_mm(p)
        near = 9.0 / self.scale
        for dim in sorted(self.dims(), key=lambda d: not d.attention):
            if not dim.key:
                continue
            at = offset(dim, self.paper_scale)
            u, v = (x, y) if dim.along == "x" else (y, x)
            low, high = sorted((dim.a, dim.b))
            pad = max(0.0, (26.0 / self.scale - (high - low)) / 2)
            if abs(v - at) <= near and low - pad <= u <= high + pad:
                return dim
        return None

    # --- mouse

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if event.button() == Qt.MouseButton.MiddleButton:
            self._pan_from = event.position()
            self.setCursor(Qt.CursorShape.ClosedHandCursor)
        elif event.button() == Qt.MouseButton.LeftButton:
            # A grip is small and drawn on top: it goes before a dimension that runs through it.
            dim = None if self.grip_at(event.position()) else self.dim_at(event.position())
            note = self.note_at(event.position())
            if note is not None:
                self._note_from = (note, event.position())
            elif dim is not None and dim.away:
                self._dim_from = (dim, event.position())
            elif dim is not None:
                self.dim_clicked.emit(dim)
            else:
                self.pressed(event)

    def grip_at(self, p: QPointF) -> bool:
        """Whether the mark of something that can be dragged is under a point."""
        return False

    def pressed(self, event: QMouseEvent) -> None:
        """A left press that hit no dimension."""
        self.picked.emit(self.source_at(event.position()), event.modifiers())

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self._pan_from is not None:
            delta = event.position() - self._pan_from
            self._pan_from = event.position()
            self.pan(delta.x(), delta.y())
        elif self._dim_from is None and self._note_from is None:
            self.moved(event)

    def moved(self, event: QMouseEvent) -> None:
        """The pointer moved without panning."""
        hit = self.dim_at(event.position())
        self.setCursor(Qt.CursorShape.PointingHandCursor if hit else Qt.CursorShape.ArrowCursor)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if event.button() == Qt.MouseButton.MiddleButton:
            self._pan_from = None
            self.unsetCursor()
        elif event.button() == Qt.MouseButton.LeftButton and self._note_from is not None:
            self._note_dropped(event.position())
        elif event.button() == Qt.MouseButton.LeftButton and self._dim_from is not None:
            dim, pressed = self._dim_from
            self._dim_from = None
            if (event.position() - pressed).manhattanLength() < DRAGGED:
                self.dim_clicked.emit(dim)
                return
            x, y = self.to_mm(event.position())
            self.dim_moved.emit(dim, ((y if dim.along == "x" else x) - dim.base) / self.paper_scale)
        elif event.button() == Qt.MouseButton.LeftButton:
            self.released(event)

    def note_at(self, p: QPointF) -> Text | None:
        """The note whose words are under a point."""
        for placed in self.placed:
            for item in placed.drawing.items:
                if isinstance(item, Text) and item.shift != (0.0, 0.0):
                    pixels = min(max(10, round(em_of(item.size) * PAPER_PX)), 22)
                    at = self.to_px(item.x + placed.dx, item.y + placed.dy)
                    at += QPointF(item.shift[0] * PAPER_PX, -item.shift[1] * PAPER_PX)
                    high = item.size * PAPER_PX
                    box = QRectF(at.x() - 3, at.y() - high - 3, advance(item.text, pixels, item.bold) + 6, high + 6)
                    if box.contains(p):
                        return item
        return None

    def _note_dropped(self, p: QPointF) -> None:
        """A note was clicked, or dragged to a point."""
        assert self._note_from is not None
        note, pressed = self._note_from
        self._note_from = None
        by = p - pressed
        if by.manhattanLength() < DRAGGED:
            self.note_clicked.emit(note.source)
        else:
            right, up = note.shift[0] + by.x() / PAPER_PX, note.shift[1] - by.y() / PAPER_PX
            self.note_moved.emit(note.source, right, up)

    def released(self, event: QMouseEvent) -> None:
        """The left button came up."""


MANY = 12
"""Shapes of one thing that are outlined one by one at most."""


def _is_level(points: tuple[tuple[float, float], ...]) -> bool:
    """Whether every side of an outline runs level or upright."""
    return all(
        abs(a[0] - b[0]) < 0.5 or abs(a[1] - b[1]) < 0.5 for a, b in zip(points, (*points[1:], points[0]), strict=True)
    )


def _inside(points: tuple[tuple[float, float], ...], x: float, y: float) -> bool:
    """Even-odd rule."""
    inside = False
    j = len(points) - 1
    for i in range(len(points)):
        (xi, yi), (xj, yj) = points[i], points[j]
        if (yi > y) != (yj > y) and x < (xj - xi) * (y - yi) / (yj - yi) + xi:
            inside = not inside
        j = i
    return inside
