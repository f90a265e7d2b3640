"""Pages as they will print: sheets and boards, one at a time."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QColor, QImage, QPainter, QPen

from tall_plank.assets import em_of
from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.views.canvas import Canvas, Placed
from tall_plank.desk.views.strokes import Stroke, paint_strokes, strokes_of
from tall_plank.drawing.primitives import INK, PEN_MM, QUIET, Drawing, Text
from tall_plank.drawing.sheets import POINT, Sheet, View, frame_of, images_of
from tall_plank.drawing.shown import shown
from tall_plank.drawing.words import ground_of
from tall_plank.measure.remembered import remembered


def paint_sheet(painter: QPainter, sheet: Sheet, px_per_mm: float) -> None:
    """Paint a sheet at the painter's origin (upper left of the paper): to screen or printer alike."""
    width, height = sheet.size
    dark, Theme.dark = Theme.dark, False  # paper is white in either variant
    try:
        painter.save()
        painter.scale(px_per_mm, px_per_mm)
        painter.fillRect(QRectF(0, 0, width, height), QColor("#FFFFFF"))
        for view in sheet.views:
            _paint_view(painter, view, height)
        for x, y, wide, high, data in images_of(sheet):
            painter.drawImage(QRectF(x, height - y - high, wide, high), _image(data))
        painter.setBrush(QColor(0, 0, 0, 0))
        boxes, words = frame_of(sheet)
        for x, y, wide, high, line in boxes:
            painter.setPen(QPen(QColor(INK), line))
            painter.drawRect(QRectF(x, height - y - high, wide, high))
        for t in words:
            color, place = QUIET if t.quiet else INK, QPointF(t.x, height - t.y)
            _text(painter, place, t.text, t.points * POINT, color, 0.0, "left", t.strong)
        painter.restore()
    finally:
        Theme.dark = dark


@remembered(16)
def _image(data: bytes) -> QImage:
    return QImage.fromData(data)


def _paint_view(painter: QPainter, view: View, height: float) -> None:
    """Its fills and lines, then its texts."""
    seen = view.shown
    painter.save()
    painter.translate(view.x, height - view.y)
    painter.scale(1 / view.scale, -1 / view.scale)
    widths = {pen: w * view.scale for pen, w in PEN_MM.items()}
    paint_strokes(painter, _strokes(view.drawing, view.scale), widths, cosmetic=False)
    painter.restore()
    for item in seen.texts:
        x, y = view.at(item.x, item.y)
        _words(painter, item, QPointF(x, height - y))


@remembered(32)
def _strokes(drawing: Drawing, scale: float) -> list[Stroke]:
    """The display list of what a drawing shows at a scale."""
    return strokes_of(Drawing("", shown(drawing, scale).items, 0.0, 0.0, 0.0, 0.0))


def _words(painter: QPainter, item: Text, at: QPointF) -> None:
    color = QUIET if item.quiet else INK
    ground = QRectF()
    if item.backed:
        left, low, wide, high = ground_of(item)
        ground = QRectF(left, -low - high, wide, high)
    _text(painter, at, item.text, em_of(item.size), color, item.angle, item.align, item.bold, item.rise, ground)


def _text(
    painter: QPainter,
    at: QPointF,
    text: str,
    em: float,
    color: str,
    angle: float,
    align: str,
    bold: bool,
    rise: float = 0.0,
    ground: QRectF = QRectF(),
) -> None:
    """A text of a height in mm: the face is set large and scaled down, since fonts come in whole pixels."""
    big = 40
    painter.save()
    painter.translate(at)
    painter.rotate(-angle)
    if not ground.isEmpty():
        painter.fillRect(ground, QColor("#FFFFFF"))
    painter.translate(0.0, -rise)
    painter.scale(em / big, em / big)
    painter.setFont(font(big, bold=bold))
    width = painter.fontMetrics().horizontalAdvance(text)
    shift = {"left": 0.0, "middle": -width / 2, "right": -float(width)}[align]
    painter.setPen(QColor(color))
    painter.drawText(QPointF(shift, 0.0), text)
    painter.restore()


class SheetView(Canvas):
    """One sheet on screen, with its shadow."""

    margin = (24.0, 20.0, 24.0, 20.0)

    def __init__(self) -> None:
        super().__init__()
        self.sheet: Sheet | None = None
        self.setAccessibleName(tr("Page"))

    def show_sheet(self, sheet: Sheet) -> None:
        if sheet == self.sheet:
            return
        same = self.sheet is not None and self.sheet.size == sheet.size
        self.sheet = sheet
        w, h = sheet.size
        # An empty drawing of the paper's size serves fitting and zooming.
        self.set_placed([Placed(0.0, 0.0, Drawing("", (), 0.0, 0.0, w, h))])
        if self.fitted or not same:
            self.fit()
        self.update()

    def zoom(self, factor: float, about: QPointF | None = None) -> None:
        about = about or QPointF(self.width() / 2, self.height() / 2)
        scale = min(max(self.scale * factor, 0.5), 40.0)
        self.origin = about + (self.origin - about) * (scale / self.scale)
        self.scale, self.fitted = scale, False
        self.update()

    def background(self) -> QColor:
        return Theme.color("model")

    def paint_over(self, painter: QPainter) -> None:
        if self.sheet is None:
            return
        top_left = self.to_px(0, self.sheet.size[1])
        painter.fillRect(
            QRectF(
                top_left.x() + 3, top_left.y() + 3, self.sheet.size[0] * self.scale, self.sheet.size[1] * self.scale
            ),
            QColor(0, 0, 0, 40),
        )
        painter.save()
        painter.translate(top_left)
        paint_sheet(painter, self.sheet, self.scale)
        painter.restore()
