"""Corners of a worktop's own outline on the plan, and its sides."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF

from tall_plank.desk.model.document import Document
from tall_plank.desk.views.canvas import Canvas
from tall_plank.edits import tops
from tall_plank.job import Kind, Source
from tall_plank.setout import Wall

GRIP = 7.0  # px


def own_corners(doc: Document) -> tuple[Source, Wall, list[tuple[float, float]]] | None:
    """The worktop whose own corners are shown: its source, its line, its corners in the room."""
    for source in doc.selection:
        if source.kind not in (Kind.RUN, Kind.ISLAND):
            continue
        found = next((t for t in doc.room.worktops if t.source == source), None)
        top = tops.top_of(doc.job, source)
        if found is not None and top.outline:
            line = doc.room.wall(found.wall_id)
            return source, line, [line.frame.floor(c.x.mm, -c.out.mm) for c in top.outline]
    return None


def side_near(canvas: Canvas, p: QPointF, corners: list[tuple[float, float]]) -> int | None:
    """Index of the side of an outline near a point, clear of its corners."""
    for i, a in enumerate(corners):
        pa, pb = canvas.to_px(*a), canvas.to_px(*corners[(i + 1) % len(corners)])
        way, to = pb - pa, p - pa
        length = math.hypot(way.x(), way.y()) or 1.0
        along = (to.x() * way.x() + to.y() * way.y()) / length
        away = abs(to.x() * way.y() - to.y() * way.x()) / length
        if away <= GRIP and 2 * GRIP < along < length - 2 * GRIP:
            return i
    return None
