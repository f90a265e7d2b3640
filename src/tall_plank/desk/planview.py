"""The plan in the window: select units, drag them along their run, type over the room's dimensions."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRect, Qt
from PyQt6.QtGui import QMouseEvent

from tall_plank.desk.canvas import Canvas, Placed
from tall_plank.desk.document import Document
from tall_plank.desk.inplace import InPlaceBox
from tall_plank.desk.texts import tr
from tall_plank.drawing.dimensions import offset
from tall_plank.drawing.plan import plan
from tall_plank.drawing.primitives import Dim
from tall_plank.edits import rooms, runs
from tall_plank.setout import set_out


class PlanView(Canvas):
    """The room from above."""

    margin = (52.0, 46.0, 18.0, 16.0)

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.box = InPlaceBox(self)
        self._press: QPointF | None = None
        self._target = ""
        self._dragging = False
        self.dim_clicked.connect(self.type_dim)
        self.setAccessibleName(tr("Plan"))

    def refresh(self) -> None:
        doc = self.document
        self.set_placed([Placed(0.0, 0.0, plan(doc.job, doc.room, doc.workings.made))])
        self.refresh_selection()

    def refresh_selection(self) -> None:
        self.highlight = self.document.selection
        self.update()

    def type_dim(self, dim: Dim) -> None:
        at = offset(dim, self.paper_scale)
        middle = (dim.a + dim.b) / 2
        p = self.to_px(middle, at) if dim.along == "x" else self.to_px(at, middle)
        rect = QRect(int(p.x()) - 40, int(p.y()) - 22, 80, 26)
        room = dim.source.split(":")[1]
        self.box.ask(
            rect,
            dim.text.lstrip("~"),
            lambda text: self.document.do(lambda job: rooms.set_room_length(job, room, dim.key, text), at_place=True),
        )

    def pressed(self, event: QMouseEvent) -> None:
        source = self.source_at(event.position())
        add = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        # The unit on the floor comes first; a second click takes what hangs above it.
        below = self._cell_under(event.position())
        if below and (source.startswith("run:") or below not in self.document.selection):
            source = below
        self.document.select((source,) if source else (), add=add)
        if source.partition(":")[0] in ("cell", "opening"):
            self._press, self._target = event.position(), source

    def _cell_under(self, p: QPointF) -> str:
        """The unit below a worktop."""
        x, y = self.to_mm(p)
        for placed in self.document.room.placed:
            px, py, _ = placed.frame.into((x, y, placed.bottom))
            if placed.level == "base" and 0 <= px <= placed.width and -placed.depth <= py <= 0 and placed.is_solid:
                return f"cell:{placed.cell}"
        return ""

    def moved(self, event: QMouseEvent) -> None:
        if self._press is None or not event.buttons() & Qt.MouseButton.LeftButton:
            super().moved(event)
            return
        doc = self.document
        if not self._dragging:
            if (event.position() - self._press).manhattanLength() < 4:
                return
            self._dragging = True
            doc.begin_drag(tr("Move"))
        origin = doc.drag_from
        if origin is None:
            return
        x, y = self.to_mm(event.position())
        kind, _, name = self._target.partition(":")
        if kind == "cell":
            _, run, _ = origin.find_cell(name)
            layout = set_out(origin).run(run.id)
            if layout is None:
                return
            along, _, _ = layout.wall.frame.into((x, y, 0.0))
            index = sum(p.x + p.width / 2 < along for p in layout.cells if p.cell != name)
            doc.drag(lambda job: runs.move_cell(job, name, index))
        else:
            _, opening = rooms.find_opening(origin, name)
            wall = doc.room.wall(opening.wall)
            x0, y0 = self.to_mm(self._press)
            by = wall.frame.into((x, y, 0.0))[0] - wall.frame.into((x0, y0, 0.0))[0]
            doc.drag(lambda job: rooms.move_opening(job, name, opening.x.mm + by))

    def released(self, event: QMouseEvent) -> None:
        if self._dragging:
            self.document.end_drag()
        self._press, self._dragging = None, False
