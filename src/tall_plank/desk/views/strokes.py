"""Drawings turned into strokes for the screen: paths by pen and fill, painted at the line widths of paper."""

from __future__ import annotations

from dataclasses import dataclass

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import (
    QBrush,
    QColor,
    QFontMetrics,
    QPainter,
    QPainterPath,
    QPen,
    QPolygonF,
)

from tall_plank.desk.look.theme import TONES_DARK, Theme, font
from tall_plank.drawing.primitives import INK, TONES, Arc, Drawing, Layer, Line, Pen, Shape
from tall_plank.measure.remembered import KeptBy, remembered

DASH_PX = {
    Pen.DASHED: [6.0, 3.0], Pen.ABOVE: [11.0, 4.0], Pen.MOVING: [12.0, 3.0, 1.5, 3.0, 1.5, 3.0],
    Pen.CHAIN: [12.0, 3.0, 1.5, 3.0],
}  # fmt: skip
"""Strokes and gaps of broken lines on screen, in widths of their line."""


GRAIN_STEP = 16.0
"""mm between the closest lines of the grain."""


_shapes: KeptBy[int, tuple[Shape, Stroke]] = KeptBy("desk.views.canvas.shapes", 30_000)
"""By the identity of the shape, which is kept: what did not change in a drawing is the same object in the next."""


@dataclass
class Stroke:
    """Alike items, drawn with one pen and brush: a filled polygon, or lines in one path."""

    pen: Pen
    fill: str
    grain: str
    dark: bool
    """Whether it lies on a finish, and so is drawn in dark ink in either variant."""
    polygon: QPolygonF | None
    path: QPainterPath | None


def tone(fill: str) -> QColor:
    """The color of a fill: a finish, or a tone of the variant in force."""
    if fill in TONES:
        return QColor((TONES_DARK if Theme.dark else TONES)[fill])
    return QColor(fill)


def line_color(pen: Pen, dark: bool) -> QColor:
    color = QColor(Theme.colors.ink if Theme.dark and not dark else INK)
    if pen in (Pen.NARROW, Pen.DASHED, Pen.ABOVE, Pen.MOVING):
        color.setAlphaF(0.62 if pen is Pen.NARROW else 0.42)
    return color


def _shape_stroke(item: Shape) -> Stroke:
    kept = _shapes.get(id(item))
    if kept is not None and kept[0] is item:
        return kept[1]
    polygon = QPolygonF([QPointF(x, y) for x, y in item.points])
    dark = item.fill.startswith("#") or (not item.fill and (item.over or item.layer is Layer.FRONT))
    return _shapes.put(id(item), (item, Stroke(item.pen, item.fill, item.grain, dark, polygon, None)))[1]


def strokes_of(drawing: Drawing) -> list[Stroke]:
    """The display list of a drawing: neighbouring lines of one look in one path."""
    found: list[Stroke] = []

    def path(item: Line | Arc) -> QPainterPath:
        last = found[-1] if found else None
        dark = item.layer is Layer.FRONT or (isinstance(item, Line) and item.over)
        if last is None or last.path is None or (last.pen, last.dark) != (item.pen, dark):
            last = Stroke(item.pen, "", "", dark, None, QPainterPath())
            found.append(last)
        assert last.path is not None
        return last.path

    for item in drawing.items:
        match item:
            case Line():
                into = path(item)
                into.moveTo(item.x1, item.y1)
                into.lineTo(item.x2, item.y2)
            case Shape():
                found.append(_shape_stroke(item))
            case Arc():
                into = path(item)
                box = QRectF(item.x - item.radius, item.y - item.radius, 2 * item.radius, 2 * item.radius)
                # Qt turns angles clockwise in y-up coordinates.
                into.arcMoveTo(box, -item.start)
                into.arcTo(box, -item.start, -item.sweep)
            case _:
                pass
    return found


def paint_strokes(painter: QPainter, strokes: list[Stroke], widths: dict[Pen, float], *, cosmetic: bool) -> None:
    """Replay a display list in the painter's world coordinates."""
    pens: dict[tuple[Pen, bool], QPen] = {}
    brushes: dict[str, QBrush] = {"": QBrush(Qt.BrushStyle.NoBrush)}
    shown = abs(painter.worldTransform().m11())
    look: tuple[Pen, bool, str] | None = None
    for s in strokes:
        if look != (s.pen, s.dark, s.fill):
            look = (s.pen, s.dark, s.fill)
            pen = pens.get(look[:2])
            if pen is None:
                pen = pens[look[:2]] = _pen_of(s, widths[s.pen], cosmetic=cosmetic)
            painter.setPen(pen)
            if s.fill not in brushes:
                brushes[s.fill] = QBrush(tone(s.fill))
            painter.setBrush(brushes[s.fill])
        if s.polygon is not None:
            painter.drawPolygon(s.polygon)
            # Grain closer than a few pixels would only be a grey veil.
            if s.grain and (not cosmetic or shown * GRAIN_STEP > 2.5):
                _paint_grain(painter, s)
        elif s.path is not None:
            painter.drawPath(s.path)


def _pen_of(s: Stroke, width: float, *, cosmetic: bool) -> QPen:
    if s.pen is Pen.NONE:
        return QPen(Qt.PenStyle.NoPen)
    pen = QPen(line_color(s.pen, s.dark), width)
    pen.setCosmetic(cosmetic)
    pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
    if s.pen in DASH_PX:
        pen.setDashPattern(DASH_PX[s.pen])
    return pen


@remembered(4096)
def advance(text: str, pixels: int, bold: bool) -> int:
    """Width of a text on screen, px."""
    return QFontMetrics(font(pixels, bold=bold)).horizontalAdvance(text)


def _paint_grain(painter: QPainter, s: Stroke) -> None:
    """Light wood grain: thin lines along it, unevenly spaced but the same every time."""
    assert s.polygon is not None
    box = s.polygon.boundingRect()
    color = QColor(tone(s.fill)).darker(118)
    color.setAlphaF(0.55)
    pen = QPen(color, 0.6)
    pen.setCosmetic(True)
    painter.save()
    painter.setClipRect(box, Qt.ClipOperation.IntersectClip)
    painter.setPen(pen)
    across = box.width() if s.grain == "y" else box.height()
    at, i = 9.0, 0
    while at < across:
        if s.grain == "y":
            painter.drawLine(QPointF(box.x() + at, box.top()), QPointF(box.x() + at, box.bottom()))
        else:
            painter.drawLine(QPointF(box.left(), box.y() + at), QPointF(box.right(), box.y() + at))
        i += 1
        at += GRAIN_STEP + 11.0 * ((i * 7) % 5) / 2
    painter.restore()
