"""The cutting plans side by side."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter

from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.views.canvas import PAPER_PX, Canvas, Placed
from tall_plank.drawing.board import board_drawing
from tall_plank.job.cutting import LaidBoard
from tall_plank.measure import DisplayUnit
from tall_plank.shop.boards import Plan
from tall_plank.shop.sawsteps import Pack

GAP = 300.0  # mm between boards on screen at least
HEAD = 27.0
"""px above a board for its name."""


class BoardsView(Canvas):
    """Every board of the plan, in as many columns as fill the view best."""

    margin = (22.0, 40.0, 22.0, 16.0)

    def __init__(self) -> None:
        super().__init__()
        self.plan: Plan | None = None
        self.material = ""
        self.packs: tuple[Pack, ...] = ()
        self.display = DisplayUnit.MM
        self._gap = GAP
        self._heads: list[tuple[float, float, float, str, str, bool]] = []

    def show_plan(
        self, plan: Plan, material: str = "", packs: tuple[Pack, ...] = (), display: DisplayUnit = DisplayUnit.MM
    ) -> None:
        """Show the boards of a plan, or those of one material by its name; boards that are sawn in packs once each."""
        if (
            (plan is self.plan or plan == self.plan)
            and material == self.material
            and (packs, display) == (self.packs, self.display)
        ):
            return
        self.plan, self.material, self.packs, self.display = plan, material, packs, display
        self._lay()

    @property
    def shown(self) -> list[tuple[int, LaidBoard]]:
        """The boards on screen with their numbers in the plan."""
        boards = self.plan.boards if self.plan is not None else ()
        once = {p.boards[0] for p in self.packs}
        return [
            (i, b)
            for i, b in enumerate(boards, 1)
            if (not self.material or b.material == self.material) and (not once or i in once)
        ]

    def _number(self, board: int) -> str:
        """A board's number, and how many more are sawn like it."""
        pack = next((p for p in self.packs if p.boards[0] == board), None)
        return str(board) if pack is None or len(pack.boards) == 1 else f"{board} × {len(pack.boards)}"

    def _flow(self, boards: list[LaidBoard], width: float) -> tuple[list[tuple[float, float]], float]:
        """Places (lower left corners) of the boards in rows no wider than `width`, and the whole height, mm."""
        places: list[tuple[float, float]] = []
        x = y = tall = 0.0
        row: list[int] = []

        def end_row() -> None:
            for i in row:
                places[i] = (places[i][0], -y - tall)

        for i, b in enumerate(boards):
            if row and x + b.length > width + 1:
                end_row()
                x, y, tall, row = 0.0, y + tall + self._gap, 0.0, []
            places.append((x, 0.0))
            row.append(i)
            x += b.length + GAP
            tall = max(tall, b.width)
        end_row()
        return places, y + tall

    def _lay(self) -> None:
        """Rows of the width at which the boards come out largest."""
        self._heads = []
        numbered = self.shown
        boards = [b for _, b in numbered]
        if not boards:
            self.set_placed([])
            self.update()
            return
        longest = max(b.length for b in boards)
        total = sum(b.length + GAP for b in boards)
        w, h = max(self.width() - 44, 100), max(self.height() - 60, 100)

        def size(width: float) -> float:
            return min(w / width, h / (self._flow(boards, width)[1] + self._gap))

        tries = [longest + (total - longest) * i / 60 for i in range(61)]
        self._gap = GAP
        for _ in range(3):
            # Names need their room whatever the scale; more room makes the scale smaller.
            width = max(tries, key=size)
            self._gap = max(GAP, HEAD / size(width))
        places, _ = self._flow(boards, width)
        scale = PAPER_PX / size(width)
        placed = []
        for (number, b), (x, y) in zip(numbered, places, strict=True):
            pieces = tuple((p.part, p.x, p.y, p.length, p.width) for p in b.parts)
            placed.append(
                Placed(
                    x, y, board_drawing(b.material, b.length, b.width, pieces, scale, b.offcuts, display=self.display)
                )
            )
            name = f"{tr('offcut')} {b.rack} · {b.material}" if b.rack else b.material
            self._heads.append(
                (x, y + b.width, b.length, f"{self._number(number)} · {name}", f"{b.used * 100:.0f} %", b.rack > 0)
            )
        self.fitted = True
        self.set_placed(placed)

    def resizeEvent(self, event: object) -> None:
        self._lay()
        super().resizeEvent(event)

    def paint_over(self, painter: QPainter) -> None:
        painter.setFont(font(12, bold=True))
        for x, y, length, name, used, rack in self._heads:
            left, right = self.to_px(x, y), self.to_px(x + length, y)
            room = right.x() - left.x()
            painter.setPen(Theme.color("ink"))
            metrics = painter.fontMetrics()
            used_width = metrics.horizontalAdvance(used)
            told = room > 120 or not rack  # on a small offcut its number comes first
            name_room = int(max(20, room - used_width - 6) if told else room)
            short = metrics.elidedText(name, Qt.TextElideMode.ElideRight, name_room)
            painter.drawText(QPointF(left.x(), left.y() - 5), short)
            painter.setPen(Theme.color("quiet"))
            if told:
                painter.drawText(QPointF(right.x() - used_width, right.y() - 5), used)
        if not self._heads:
            painter.setPen(Theme.color("quiet"))
            painter.drawText(QPointF(30, 40), tr("There is nothing to cut yet."))
