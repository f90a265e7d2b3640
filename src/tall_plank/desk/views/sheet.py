"""Pages as they will print: sheets and boards, one at a time."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QColor, QPainter, QPen

from tall_plank.assets import em_of
from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.views.canvas import Canvas, Placed
from tall_plank.desk.views.strokes import paint_strokes, strokes_of
from tall_plank.drawing.dimensions import expand
from tall_plank.drawing.primitives import INK, PEN_MM, QUIET, Dim, Drawing, Line, Text
from tall_plank.drawing.sheets import POINT, Sheet, frame_of


def paint_sheet(painter: QPainter, sheet: Sheet, px_per_mm: float) -> None:
    """Paint a sheet at the painter's origin (upper left of the paper): to screen or printer alike."""
    width, height = sheet.size
    dark, Theme.dark = Theme.dark, False  # paper is white in either variant
    try:
        painter.save()
        painter.scale(px_per_mm, px_per_mm)
        painter.fillRect(QRectF(0, 0, width, height), QColor("#FFFFFF"))
        painter.save()
        painter.translate(sheet.x, height - sheet.y)
        painter.scale(1 / sheet.scale, -1 / sheet.scale)
        strokes = strokes_of(sheet.drawing)
        paint_strokes(painter, strokes, {pen: w * sheet.scale for pen, w in PEN_MM.items()}, cosmetic=False)
        painter.restore()

        def at(x: float, y: float) -> QPointF:
            return QPointF(sheet.x + x / sheet.scale, height - sheet.y - y / sheet.scale)

        dims = [i for i in sheet.drawing.items if isinstance(i, Dim)]
        texts = [i for i in sheet.drawing.items if isinstance(i, Text)]
        painter.setPen(QPen(QColor(INK), 0.18))
        for item in (*texts, *expand(dims, sheet.scale)):
            if isinstance(item, Line):
                painter.drawLine(at(item.x1, item.y1), at(item.x2, item.y2))
            else:
                color = QUIET if item.quiet else INK
                _text(
                    painter,
                    at(item.x, item.y),
                    item.text,
                    em_of(item.size),
                    color,
                    item.angle,
                    item.align,
                    item.bold,
                    item.rise,
                    item.backed,
                )
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
    backed: bool = False,
) -> None:
    """A text of a height in mm: the face is set large and scaled down, since fonts come in whole pixels."""
    big = 40
    painter.save()
    painter.translate(at)
    painter.rotate(-angle)
    painter.translate(0.0, -rise)
    painter.scale(em / big, em / big)
    painter.setFont(font(big, bold=bold))
    width = painter.fontMetrics().horizontalAdvance(text)
    shift = {"left": 0.0, "middle": -width / 2, "right": -float(width)}[align]
    if backed:
        cap = big * 0.66
        painter.fillRect(QRectF(shift - 8, -cap - 8, width + 16, cap + 16), QColor(255, 255, 255, 210))
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
