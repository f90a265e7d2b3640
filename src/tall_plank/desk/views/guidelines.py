"""Guide lines on a canvas: where they run, which one is under the pointer, how they are painted."""

from __future__ import annotations

from dataclasses import dataclass

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter, QPen

from tall_plank.desk.look.theme import Theme
from tall_plank.desk.views.canvas import Canvas
from tall_plank.job import Guide, Kind, Source
from tall_plank.setout import RoomLayout

NEAR = 4.0  # px
BEYOND = 180.0
"""mm that a guide line runs past what it is drawn over."""


@dataclass(frozen=True)
class GuideLine:
    """A guide line as it is shown: between two places on the canvas, mm."""

    guide: Guide
    x1: float
    y1: float
    x2: float
    y2: float

    @property
    def source(self) -> Source:
        return Kind.GUIDE.of(self.guide.id)


def on_strip(room: RoomLayout, wall_x: dict[str, float]) -> list[GuideLine]:
    """Upright lines on their walls, level ones through all of them. `wall_x`: left end of each line, mm."""
    found = []
    high = room.room.height.mm
    right = max((wall_x[w.id] + w.length for w in room.lines), default=0.0)
    for guide in room.room.guides:
        at = guide.at.mm
        if guide.axis == "z":
            found.append(GuideLine(guide, -BEYOND, at, right + BEYOND, at))
        elif guide.wall in wall_x:
            x = wall_x[guide.wall] + at
            found.append(GuideLine(guide, x, -BEYOND, x, high + BEYOND))
    return found


def on_plan(room: RoomLayout) -> list[GuideLine]:
    """Lines across the plan; those on a wall as a tick that reaches into the room."""
    found = []
    w, d = room.size
    for guide in room.room.guides:
        at = guide.at.mm
        if guide.wall and room.has_line(guide.wall):
            frame = room.wall(guide.wall).frame
            (x1, y1, _), (x2, y2, _) = frame.at(at, 0.0, 0.0), frame.at(at, -700.0, 0.0)
            found.append(GuideLine(guide, x1, y1, x2, y2))
        elif guide.axis == "x":
            found.append(GuideLine(guide, at, -BEYOND, at, d + BEYOND))
        elif guide.axis == "y":
            found.append(GuideLine(guide, -BEYOND, at, w + BEYOND, at))
    return found


def guide_at(canvas: Canvas, lines: list[GuideLine], p: QPointF) -> GuideLine | None:
    """The guide line under a point of the canvas."""
    for line in lines:
        a, b = canvas.to_px(line.x1, line.y1), canvas.to_px(line.x2, line.y2)
        dx, dy = b.x() - a.x(), b.y() - a.y()
        length = max((dx * dx + dy * dy) ** 0.5, 1e-9)
        away = abs((p.x() - a.x()) * dy - (p.y() - a.y()) * dx) / length
        along = ((p.x() - a.x()) * dx + (p.y() - a.y()) * dy) / length
        if away <= NEAR and -NEAR <= along <= length + NEAR:
            return line
    return None


def paint_guides(painter: QPainter, canvas: Canvas, lines: list[GuideLine], selected: tuple[Source, ...]) -> None:
    """Long dashes in brass; a selected one is drawn through."""
    for line in lines:
        chosen = line.source in selected
        pen = QPen(Theme.color("brass"), 1.6 if chosen else 1.0)
        if not chosen:
            pen.setStyle(Qt.PenStyle.CustomDashLine)
            pen.setDashPattern([12.0, 4.0, 2.0, 4.0])
        painter.setPen(pen)
        painter.drawLine(canvas.to_px(line.x1, line.y1), canvas.to_px(line.x2, line.y2))
