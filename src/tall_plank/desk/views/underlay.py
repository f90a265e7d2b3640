"""The plan image under the room: painted into the plan, found under the pointer, scaled by one known length."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter, QPen, QPixmap

from tall_plank.desk.look.theme import Theme
from tall_plank.desk.views.canvas import Canvas
from tall_plank.job import Job, Picture, Underlay
from tall_plank.measure.outlines import Point
from tall_plank.measure.remembered import KeptBy

_pixmaps: KeptBy[str, tuple[bytes, QPixmap]] = KeptBy("desk.views.underlay", 5)


def _pixmap(picture: Picture) -> QPixmap:
    """The picture ready to be painted; the last few are kept."""
    kept = _pixmaps.get(picture.name)
    if kept is None or kept[0] is not picture.data:
        pixmap = QPixmap()
        pixmap.loadFromData(picture.data)
        kept = _pixmaps.put(picture.name, (picture.data, pixmap))
    return kept[1]


def picture_of(job: Job, underlay: Underlay) -> Picture | None:
    return next((p for p in job.pictures if p.name == underlay.image), None)


def paint_underlay(painter: QPainter, canvas: Canvas, job: Job, underlay: Underlay, *, selected: bool) -> None:
    """Its ink over the drawing: on paper white counts as clear."""
    picture = picture_of(job, underlay)
    if picture is None or not underlay.shown:
        return
    pixmap = _pixmap(picture)
    if pixmap.isNull():
        return
    scale = underlay.width.mm / picture.wide * canvas.scale
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
    painter.translate(canvas.to_px(underlay.x.mm, underlay.y.mm))
    painter.rotate(-underlay.turn)
    painter.scale(scale, scale)
    painter.translate(0.0, -picture.high)
    if not Theme.dark:
        painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_Multiply)
    painter.setOpacity(0.35 if Theme.dark else 0.6)
    painter.drawPixmap(0, 0, pixmap)
    painter.setOpacity(1.0)
    painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_SourceOver)
    if selected:
        pen = QPen(Theme.color("spruce"), 1.6)
        pen.setCosmetic(True)
        painter.setPen(pen)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(0, 0, picture.wide, picture.high)
    painter.restore()


def underlay_at(job: Job, underlays: tuple[Underlay, ...], x: float, y: float) -> str:
    """Id of the plan image over a place of the room, mm; empty where there is none."""
    for underlay in reversed(underlays):
        picture = picture_of(job, underlay)
        if picture is None or not underlay.shown:
            continue
        a = math.radians(-underlay.turn)
        dx, dy = x - underlay.x.mm, y - underlay.y.mm
        u, v = dx * math.cos(a) - dy * math.sin(a), dx * math.sin(a) + dy * math.cos(a)
        if 0 <= u <= underlay.width.mm and 0 <= v <= underlay.width.mm * picture.high / picture.wide:
            return underlay.id
    return ""


class Ruler:
    """Two points picked on a plan image, the length between them to be typed."""

    def __init__(self, underlay_id: str) -> None:
        self.underlay = underlay_id
        self.points: list[Point] = []
        self.pointer: Point | None = None

    def press(self, x: float, y: float) -> bool:
        """Pick a point; True where it was the second."""
        if len(self.points) < 2:
            self.points.append((x, y))
        return len(self.points) == 2

    def paint(self, painter: QPainter, canvas: Canvas) -> None:
        ends = [*self.points, *([self.pointer] if self.pointer is not None and len(self.points) == 1 else [])]
        px = [canvas.to_px(*p) for p in ends]
        painter.setPen(QPen(Theme.color("brass"), 1.6))
        if len(px) == 2:
            painter.drawLine(px[0], px[1])
        for p in px:
            painter.drawLine(p + QPointF(-5, -5), p + QPointF(5, 5))
            painter.drawLine(p + QPointF(-5, 5), p + QPointF(5, -5))
