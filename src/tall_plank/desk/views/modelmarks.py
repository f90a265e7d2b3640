"""What is painted over the picture of the model: clear distances of the selected unit, the bay that is worked on."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.model.document import Document
from tall_plank.making import MadeUnit
from tall_plank.measure import format_length
from tall_plank.setout import Placed
from tall_plank.setout.clear import clear_of

OnScreen = Callable[[tuple[float, float, float]], QPointF]
"""Where a point of the room is drawn."""


def paint_selected(painter: QPainter, doc: Document, on_screen: OnScreen) -> None:
    """Clear distances of the selected unit to its neighbours, as in the other views; or the bay worked on."""
    if len(doc.cells) != 1:
        return
    placed = doc.workings.layout.find(doc.cells[0])
    if placed is None or placed.room != doc.room_id or not placed.is_solid:
        return
    if doc.bay is not None:
        _paint_bay(painter, doc, on_screen, placed)
        return
    clear = clear_of(doc.room, placed)
    w, h, y = placed.width, placed.height, -placed.depth - 20.0
    lines = (
        (clear.left, (0.0, y, h / 2), (-clear.left, y, h / 2)),
        (clear.right, (w, y, h / 2), (w + clear.right, y, h / 2)),
        (clear.below if placed.level == "hung" else 0.0, (w / 2, y, 0.0), (w / 2, y, -clear.below)),
        (clear.above if placed.level == "hung" else 0.0, (w / 2, y, h), (w / 2, y, h + clear.above)),
    )
    color = Theme.color("brass")
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setFont(font(12))
    for mm, start, end in lines:
        if mm < 0.5:
            continue
        a, b = on_screen(placed.frame.at(*start)), on_screen(placed.frame.at(*end))
        painter.setPen(QPen(color, 1.4))
        painter.drawLine(a, b)
        text = format_length(mm, doc.job.display)
        middle = (a + b) / 2
        width = painter.fontMetrics().horizontalAdvance(text) + 6
        painter.fillRect(QRectF(middle.x() - width / 2, middle.y() - 8, width, 16), Theme.color("model"))
        painter.drawText(QPointF(middle.x() - width / 2 + 3, middle.y() + 5), text)


def paint_faults(painter: QPainter, doc: Document, on_screen: OnScreen) -> None:
    """Where units of the room cannot be put together."""
    for placed, unit in doc.workings.made.units:
        if placed.room == doc.room_id and not unit.parts:
            paint_places(painter, unit, lambda p, f=placed.frame: on_screen(f.at(*p)))  # type: ignore[misc]


def paint_places(painter: QPainter, unit: MadeUnit, on_screen: OnScreen) -> None:
    """The boxes about the faults of a unit, over whatever stands before them.

    Parameters
    ----------
    on_screen : where a point of the unit is drawn
    """
    color, fill = Theme.color("oxide"), Theme.color("oxide")
    fill.setAlphaF(0.22)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    for problem in unit.problems:
        if problem.place is None:
            continue
        low, high = problem.place
        corners = [
            on_screen((x, y, z)) for x in (low[0], high[0]) for y in (low[1], high[1]) for z in (low[2], high[2])
        ]
        xs, ys = [c.x() for c in corners], [c.y() for c in corners]
        area = QRectF(min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)).adjusted(-5, -5, 5, 5)
        painter.setPen(QPen(color, 2.0))
        painter.setBrush(fill)
        painter.drawRoundedRect(area, 3, 3)
    painter.setBrush(Qt.BrushStyle.NoBrush)


def _paint_bay(painter: QPainter, doc: Document, on_screen: OnScreen, placed: Placed) -> None:
    """The bay that is worked on, with its clear width and height."""
    box = doc.bay_box(doc.bay or ())
    if box is None:
        return
    r, y = box.clear, -placed.depth
    corners = [(r.x0, y, r.z0), (r.x1, y, r.z0), (r.x1, y, r.z1), (r.x0, y, r.z1)]
    points = [on_screen(placed.frame.at(*c)) for c in corners]
    color = Theme.color("brass")
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(QPen(color, 2.0))
    fill = Theme.color("brass")
    fill.setAlphaF(0.14)
    painter.setBrush(fill)
    painter.drawPolygon(QPolygonF(points))
    painter.setFont(font(12))
    middle = points[0] + (points[2] - points[0]) / 2
    display = doc.job.display
    text = f"{format_length(r.width, display)} × {format_length(r.height, display)}"
    width = painter.fontMetrics().horizontalAdvance(text) + 8
    painter.fillRect(QRectF(middle.x() - width / 2, middle.y() - 9, width, 18), Theme.color("model"))
    painter.drawText(QPointF(middle.x() - width / 2 + 4, middle.y() + 5), text)
