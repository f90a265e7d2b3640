"""The cutting plans side by side."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter

from tall_plank.desk.canvas import Canvas, Placed
from tall_plank.desk.texts import tr
from tall_plank.desk.theme import Theme, font
from tall_plank.drawing.board import board_drawing
from tall_plank.shop.boards import Plan

GAP = 330.0  # mm between boards on screen


class BoardsView(Canvas):
    """Every board of the plan, in as many columns as fill the view best."""

    margin = (22.0, 40.0, 22.0, 16.0)

    def __init__(self) -> None:
        super().__init__()
        self.plan: Plan | None = None
        self._heads: list[tuple[float, float, float, str, str]] = []

    def show_plan(self, plan: Plan) -> None:
        if plan is self.plan:
            return
        self.plan = plan
        self._lay()

    def _columns(self, plan: Plan) -> int:
        """The number of columns at which boards come out largest."""
        w = max(b.length for b in plan.boards) + GAP
        h = max(b.width for b in plan.boards) + GAP
        count = len(plan.boards)

        def size(columns: int) -> float:
            rows = -(-count // columns)
            return min(self.width() / (columns * w), self.height() / (rows * h))

        return max(range(1, count + 1), key=size)

    def _lay(self) -> None:
        plan = self.plan
        self._heads = []
        if plan is None or not plan.boards:
            self.set_placed([])
            return
        columns = self._columns(plan)
        w = max(b.length for b in plan.boards) + GAP
        h = max(b.width for b in plan.boards) + GAP
        scale = max(w * columns / max(self.width(), 1), h * -(-len(plan.boards) // columns) / max(self.height(), 1))
        placed = []
        for i, b in enumerate(plan.boards):
            x, y = (i % columns) * w, -(i // columns) * h
            pieces = tuple((p.part, p.x, p.y, p.length, p.width) for p in b.placements)
            placed.append(Placed(x, y, board_drawing(b.name, b.length, b.width, pieces, scale * 4.3)))
            self._heads.append((x, y + b.width, b.length, f"{i + 1} · {b.name}", f"{b.used * 100:.0f} %"))
        self.set_placed(placed)

    def resizeEvent(self, event: object) -> None:
        self._lay()
        super().resizeEvent(event)

    def paint_over(self, painter: QPainter) -> None:
        painter.setFont(font(12, bold=True))
        for x, y, length, name, used in self._heads:
            left, right = self.to_px(x, y), self.to_px(x + length, y)
            room = right.x() - left.x()
            painter.setPen(Theme.color("ink"))
            metrics = painter.fontMetrics()
            used_width = metrics.horizontalAdvance(used)
            short = metrics.elidedText(name, Qt.TextElideMode.ElideRight, int(max(20, room - used_width - 6)))
            painter.drawText(QPointF(left.x(), left.y() - 5), short)
            painter.setPen(Theme.color("quiet"))
            painter.drawText(QPointF(right.x() - used_width, right.y() - 5), used)
        if not self._heads:
            painter.setPen(Theme.color("quiet"))
            painter.drawText(QPointF(30, 40), tr("There is nothing to cut yet."))
