"""What is painted over the wall strip: headings, the first step, what a drag snapped to, the bay worked on, grips."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from tall_plank.desk.look.texts import counted, tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.model.document import Document
from tall_plank.desk.views.frieze import Frieze
from tall_plank.drawing.frontdims import seen_height
from tall_plank.edits.things.sliding import covering, told_replaced
from tall_plank.measure import PlankError, format_length, told_in


def paint_first_step(painter: QPainter, strip: Frieze) -> None:
    """What to do first in an empty room, on the wall that is worked on."""
    hint = tr("Nothing stands here yet. Press R to type a run, or drag a unit from the left onto a wall.")
    if strip.stage == "room":
        hint = tr(
            "Type the room's size on the sheet at the right, or draw its outline (O). "
            "Put doors and windows on a wall from the left. Then go to Units (Alt+2)."
        )
    elif strip.stage == "paneling":
        hint = tr("Choose a treatment at the left; Enter puts it on this wall, or drag it onto another one.")
    elif strip.stage == "finish":
        hint = tr("There is nothing to finish yet. Units (Alt+2) come first.")
    wall = strip.document.room.wall(strip.current_wall())
    left = strip.to_px(strip.wall_x(wall.id), 0.0).x()
    right = left + wall.length * strip.scale
    left, right = max(left, 8.0) + 16, min(right, strip.width() - 8.0) - 16
    if right - left < 140:
        left, right = 24.0, strip.width() - 24.0
    painter.setFont(font(13))
    painter.setPen(Theme.color("quiet"))
    foot = strip.to_px(0.0, 0.0).y() - 14
    flags = int(Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignBottom | Qt.TextFlag.TextWordWrap)
    space = QRectF(left, foot - 90, right - left, 90)
    ground = Theme.color("sheet")
    ground.setAlphaF(0.85)
    painter.fillRect(painter.boundingRect(space, flags, hint).adjusted(-8, -4, 8, 4), ground)
    painter.drawText(space, flags, hint)


def paint_snap(painter: QPainter, strip: Frieze, name: str, x: float, z: float | None) -> None:
    """The line that a drag snapped to, with its name."""
    painter.setPen(QPen(Theme.color("brass"), 1.0, Qt.PenStyle.DashLine))
    p = strip.to_px(x, z or 0.0)
    if z is None:
        painter.drawLine(QPointF(p.x(), 20.0), QPointF(p.x(), strip.height() - 4.0))
        at = QPointF(p.x() + 5, 32.0)
    else:
        painter.drawLine(QPointF(4.0, p.y()), QPointF(strip.width() - 4.0, p.y()))
        at = QPointF(max(70.0, p.x() + 8), p.y() - 5)
    painter.setFont(font(11))
    painter.drawText(at, name)


def paint_bay(painter: QPainter, strip: Frieze) -> None:
    """The bay that is worked on."""
    placed, path = strip.one_placed(), strip.document.bay
    box = strip.document.bay_box(path) if path is not None else None
    if placed is None or box is None:
        return
    x, z, r = strip.wall_x(placed.wall_id) + placed.x, placed.bottom, box.clear
    rect = QRectF(strip.to_px(x + r.x0, z + r.z1), strip.to_px(x + r.x1, z + r.z0))
    color = Theme.color("brass")
    painter.setPen(QPen(color, 2.0))
    color.setAlphaF(0.14)
    painter.setBrush(color)
    painter.drawRect(rect)


def paint_chosen(painter: QPainter, strip: Frieze) -> None:
    """The bays that are chosen, the opening of sliding doors before them, and what these would replace."""
    doc = strip.document
    for ref in doc.chosen:
        box, placed = doc.box_of(ref), doc.workings.layout.find(ref.cell)
        if box is None or placed is None or placed.room != doc.room_id:
            continue
        x, z, r = strip.wall_x(placed.wall_id) + placed.x, placed.bottom, box.clear
        color = Theme.color("spruce")
        painter.setPen(QPen(color, 2.0))
        color.setAlphaF(0.14)
        painter.setBrush(color)
        painter.drawRect(QRectF(strip.to_px(x + r.x0, z + r.z1), strip.to_px(x + r.x1, z + r.z0)))
    if len(doc.chosen) < 2:
        return
    try:
        over = covering(doc.job, doc.chosen)
    except PlankError as error:
        _told_at_head(painter, strip, told_in(str(error), doc.job.display), "oxide")
        return
    x = strip.wall_x(over.wall_id)
    rect = QRectF(strip.to_px(x + over.x0, over.z1), strip.to_px(x + over.x1, over.z0))
    painter.setPen(QPen(Theme.color("spruce"), 1.6, Qt.PenStyle.DashLine))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawRect(rect)
    unit = doc.job.display
    size = f"{format_length(over.x1 - over.x0, unit)} × {format_length(over.z1 - over.z0, unit)}"
    told = f"{counted(len(doc.chosen), 'bay', 'bays')}, {size}, {counted(over.leaves, 'leaf', 'leaves')}"
    replaced = told_replaced(doc.job, over.replaced)
    if replaced:
        told += f" · {tr('they would replace')} {replaced}"
    _told_at_head(painter, strip, told + f" · {tr('Shift+L puts sliding doors, Escape lets go')}", "spruce")


def _told_at_head(painter: QPainter, strip: Frieze, text: str, role: str) -> None:
    """A line over the strip's foot, so that it covers neither names nor what is off."""
    painter.setFont(font(12, bold=True))
    wide = min(painter.fontMetrics().horizontalAdvance(text) + 18.0, strip.width() - 12.0)
    rect = QRectF(6.0, strip.height() - 27.0, wide, 22.0)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(Theme.color("paper"))
    painter.drawRoundedRect(rect, 4.0, 4.0)
    painter.setPen(Theme.color(role))
    shown = painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, int(wide - 14.0))
    painter.drawText(rect, Qt.AlignmentFlag.AlignCenter, shown)


def seen_otherwise(document: Document) -> tuple[str, ...]:
    """What of the room is not seen as it is: fronts open or off, hidden units, drawn for the shop."""
    words = {"open": tr("fronts open"), "off": tr("fronts off")}
    told = [words[document.fronts]] if document.fronts in words else []
    hidden = sum(cell.hidden for run in document.room.runs for cell in run.run.cells)
    if hidden:
        told.append(counted(hidden, "unit hidden", "units hidden"))
    if document.shop:
        told.append(tr("drawn for the shop"))
    return tuple(told)


def paint_seen_otherwise(painter: QPainter, strip: Frieze) -> None:
    """Say at the head of the strip what is off or hidden, so that nobody wonders where it went."""
    told = " · ".join(seen_otherwise(strip.document))
    if not told:
        return
    painter.setFont(font(12, bold=True))
    wide = painter.fontMetrics().horizontalAdvance(told)
    rect = QRectF(strip.width() - wide - 26.0, 5.0, wide + 18.0, 22.0)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(Theme.color("paper"))
    painter.drawRoundedRect(rect, 4.0, 4.0)
    painter.setPen(Theme.color("brass"))
    painter.drawText(rect, Qt.AlignmentFlag.AlignCenter, told)


def paint_headings(painter: QPainter, strip: Frieze) -> None:
    """The name and length of every wall over it, and the folds between them."""
    walls = strip.document.room.lines
    at = 0.0
    current = strip.current_wall()
    for i, wall in enumerate(walls):
        top = strip.to_px(at, seen_height(strip.document.room, wall))
        painter.setFont(font(13, bold=True))
        painter.setPen(Theme.color("spruce" if wall.id == current else "ink"))
        y = max(16.0, top.y() - (46.0 if strip.dims_shown else 12.0))
        name = tr(wall.heading) if wall.is_face else f"{wall.id} {tr(wall.name)}"
        free = (wall.length + strip.fold) * strip.scale if i + 1 < len(walls) else math.inf
        measure = painter.fontMetrics().horizontalAdvance
        if wall.column and measure(name) > free:
            # Narrow sides of a column tell which side they are; their front tells the column.
            name = tr(wall.name.rpartition(" ")[2])
        painter.drawText(QPointF(top.x() + 2, y), name)
        width = measure(name + "  ")
        painter.setFont(font(12))
        long = format_length(wall.length, strip.document.job.display)
        if width + painter.fontMetrics().horizontalAdvance(long) < free:
            painter.setPen(Theme.color("quiet"))
            painter.drawText(QPointF(top.x() + 2 + width, y), long)
        if i + 1 < len(walls):
            # The fold between two walls.
            x = strip.to_px(at + wall.length + strip.fold / 2, 0.0).x()
            pen = QPen(Theme.color("rule"), 1.0, Qt.PenStyle.DashDotLine)
            painter.setPen(pen)
            painter.drawLine(QPointF(x, top.y() - 10), QPointF(x, strip.to_px(0, 0).y() + 6))
        at += wall.length + strip.fold


def paint_grip(painter: QPainter, strip: Frieze) -> None:
    """The grip at the right side of the selected unit."""
    placed = strip.one_placed()
    if placed is None or not placed.is_solid:
        return
    x = strip.wall_x(placed.wall_id)
    p = strip.to_px(x + placed.right, placed.bottom + placed.height / 2)
    painter.setPen(QPen(Theme.color("spruce"), 1.4))
    painter.setBrush(Theme.color("sheet"))
    painter.drawRect(QRectF(p.x() - 3.5, p.y() - 3.5, 7, 7))
