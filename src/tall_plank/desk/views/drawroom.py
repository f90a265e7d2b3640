"""Drawing a room's outline in the plan: click its corners, or type each length in the direction of the pointer."""

from __future__ import annotations

import math
from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.measure import DisplayUnit, format_length
from tall_plank.measure import outlines as ol
from tall_plank.measure.outlines import Point

ANGLE_STEP = 15.0
"""Degrees; the pointer's direction snaps to whole steps when it is near one."""

NEAR_ANGLE = 4.0  # degrees
STEP = 10.0  # mm; drawn lengths are whole steps
NEAR = 9.0  # px; the first corner closes the room from here


class OutlineTool:
    """The corners drawn so far and the next one under the pointer."""

    def __init__(self) -> None:
        self.points: list[Point] = []
        self.pointer: Point | None = None
        self.snap = ""

    @property
    def begun(self) -> bool:
        return bool(self.points)

    def aim(self, x: float, y: float, scale: float, *, free: bool = False) -> Point:
        """Where the next corner would be: along a whole angle and on a whole length, in line with the first corner
        where it is near. `scale` is px per mm."""
        self.snap = ""
        if not self.points:
            found = (round(x / STEP) * STEP, round(y / STEP) * STEP)
            self.pointer = found
            return found
        ax, ay = self.points[-1]
        if len(self.points) > 2 and math.dist((x, y), self.points[0]) * scale < NEAR:
            self.snap, self.pointer = tr("closes the room"), self.points[0]
            return self.points[0]
        length, angle = math.hypot(x - ax, y - ay), math.degrees(math.atan2(y - ay, x - ax))
        step = round(angle / ANGLE_STEP) * ANGLE_STEP
        if not free and abs(step - angle) <= NEAR_ANGLE:
            angle = step
            length *= math.cos(math.radians(angle - step))
        length = round(length / STEP) * STEP
        ux, uy = math.cos(math.radians(angle)), math.sin(math.radians(angle))
        found = (ax + length * ux, ay + length * uy)
        if len(self.points) > 1 and not free:
            found = self._in_line(found, (ux, uy), scale)
        self.pointer = (round(found[0], 6), round(found[1], 6))
        return self.pointer

    def _in_line(self, p: Point, way: Point, scale: float) -> Point:
        """Moved along its direction to stand square over or beside the first corner, where that is near."""
        fx, fy = self.points[0]
        ax, ay = self.points[-1]
        for k, target in ((0, fx), (1, fy)):
            if abs(p[k] - target) * scale < NEAR and abs(way[k]) > 0.5:
                t = (target - (ax, ay)[k]) / way[k]
                self.snap = tr("in line with the first corner")
                return (ax + t * way[0], ay + t * way[1])
        return p

    def press(self) -> bool:
        """Set the corner under the pointer; True where that closes the room."""
        if self.pointer is None:
            return False
        if len(self.points) > 2 and math.dist(self.pointer, self.points[0]) < 1.0:
            return True
        if not self.points or math.dist(self.pointer, self.points[-1]) >= STEP:
            self.points.append(self.pointer)
        return False

    def put_length(self, mm: float) -> None:
        """Set the next corner so far from the last one, in the direction of the pointer (east where there is none)."""
        ax, ay = self.points[-1]
        px, py = self.pointer or (ax + 1.0, ay)
        size = math.hypot(px - ax, py - ay)
        ux, uy = ((px - ax) / size, (py - ay) / size) if size > 1e-6 else (1.0, 0.0)
        self.points.append((round(ax + ux * mm, 6), round(ay + uy * mm, 6)))
        self.pointer = None

    def step_back(self) -> None:
        """Take the last corner back."""
        if self.points:
            self.points.pop()

    def paint(self, painter: QPainter, to_px: Callable[[float, float], QPointF], display: DisplayUnit) -> None:
        """The walls drawn so far with their lengths, and the one under the pointer."""
        spruce, brass = Theme.color("spruce"), Theme.color("brass")
        corners = [*self.points, *([self.pointer] if self.pointer is not None and self.points else [])]
        px = [to_px(*p) for p in corners]
        if len(corners) > 2:
            ground = Theme.color("spruce")
            ground.setAlphaF(0.07)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(ground)
            painter.drawPolygon(QPolygonF(px))
        for i in range(len(corners) - 1):
            last = i == len(self.points) - 1
            painter.setPen(
                QPen(brass if last else spruce, 2.0, Qt.PenStyle.DashLine if last else Qt.PenStyle.SolidLine)
            )
            painter.drawLine(px[i], px[i + 1])
            text = format_length(math.dist(corners[i], corners[i + 1]), display)
            middle = (px[i] + px[i + 1]) / 2
            painter.setFont(font(12, bold=last))
            width = painter.fontMetrics().horizontalAdvance(text) + 8
            painter.fillRect(QRectF(middle.x() - width / 2, middle.y() - 9, width, 18), Theme.color("sheet"))
            painter.drawText(QPointF(middle.x() - width / 2 + 4, middle.y() + 5), text)
        painter.setPen(QPen(spruce, 1.5))
        painter.setBrush(Theme.color("sheet"))
        for p in px[: len(self.points)]:
            painter.drawRect(QRectF(p.x() - 3.5, p.y() - 3.5, 7, 7))
        if self.snap and px:
            painter.setPen(brass)
            painter.setFont(font(11))
            painter.drawText(px[-1] + QPointF(10, -8), self.snap)

    @property
    def crosses(self) -> bool:
        """Whether the corners set so far make walls that cross."""
        return len(self.points) > 2 and ol.crossing(self.points) is not None
