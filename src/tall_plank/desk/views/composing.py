"""A sheet whose views are taken by the mouse: picked, dragged, made larger and smaller, taken off."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen

from tall_plank.desk.look.theme import Theme
from tall_plank.desk.views.canvas import DRAGGED
from tall_plank.desk.views.sheet import SheetView
from tall_plank.drawing.sheets import Sheet, moved_view
from tall_plank.papers.ownpages import box_on

STEPS: dict[int, tuple[float, float]] = {
    Qt.Key.Key_Left: (-1.0, 0.0), Qt.Key.Key_Right: (1.0, 0.0), Qt.Key.Key_Up: (0.0, 1.0), Qt.Key.Key_Down: (0.0, -1.0),
}  # fmt: skip
"""mm of paper; with Shift ten times as far."""

OWN_KEYS = (*STEPS, Qt.Key.Key_Delete, Qt.Key.Key_Backspace, Qt.Key.Key_Tab, Qt.Key.Key_Escape)

SNAP = 2.0
"""mm of paper within which an edge or a middle of a view goes to that of another one, or of the sheet."""


class ComposedView(SheetView):
    """A sheet on which views can be put where they are wanted."""

    view_picked = pyqtSignal(int)
    """Number of the view that was pressed; -1: none."""
    view_moved = pyqtSignal(int, float, float)
    """Number of a view, and how far it was moved, mm of paper."""
    view_stepped = pyqtSignal(int, int)
    """Number of a view, and how many scales larger it is wanted."""
    view_dropped = pyqtSignal(int)
    """Number of a view that is taken off."""

    def __init__(self) -> None:
        super().__init__()
        self.chosen = -1
        self.composed = False
        """Whether the sheet is one of the designer's own pages."""
        self._from: QPointF | None = None
        self._by = (0.0, 0.0)
        self._lines: tuple[float | None, float | None] = (None, None)

    def show_sheet(self, sheet: Sheet) -> None:
        if self.sheet is None or sheet.block.number != self.sheet.block.number:
            self.choose(-1)
        super().show_sheet(sheet)
        if self.chosen >= len(sheet.views):
            self.choose(-1)

    def choose(self, at: int) -> None:
        """Take hold of a view."""
        self._from, self._by, self._lines = None, (0.0, 0.0), (None, None)
        if at != self.chosen:
            self.chosen = at
            self.view_picked.emit(at)
        self.update()

    def view_at(self, p: QPointF) -> int:
        """Number of the view under a point; the smallest of several; -1: none."""
        x, y = self.to_mm(p)
        boxes = [] if self.sheet is None else [box_on(v) for v in self.sheet.views]
        under = [
            ((x1 - x0) * (y1 - y0), i)
            for i, (x0, y0, x1, y1) in enumerate(boxes)
            if x0 - 2 <= x <= x1 + 2 and y0 - 2 <= y <= y1 + 2
        ]
        return min(under)[1] if under else -1

    # --- mouse and keys

    def event(self, event: QEvent | None) -> bool:
        """Its keys are its own while a view is held, though some are commands elsewhere."""
        if (
            isinstance(event, QKeyEvent)
            and event.type() == QEvent.Type.ShortcutOverride
            and self.chosen >= 0
            and (event.key() in OWN_KEYS or event.text() in ("+", "-"))
        ):
            event.accept()
            return True
        return super().event(event)

    def pressed(self, event: QMouseEvent) -> None:
        at = self.view_at(event.position())
        self.choose(at)
        self._from = event.position() if at >= 0 else None

    def moved(self, event: QMouseEvent) -> None:
        if self._from is None or not event.buttons() & Qt.MouseButton.LeftButton:
            over = self.view_at(event.position()) >= 0
            self.setCursor(Qt.CursorShape.SizeAllCursor if over else Qt.CursorShape.ArrowCursor)
            return
        by = event.position() - self._from
        if by.manhattanLength() < DRAGGED:
            return
        free = bool(event.modifiers() & Qt.KeyboardModifier.AltModifier)
        self._by, self._lines = self._snapped(by.x() / self.scale, -by.y() / self.scale, free=free)
        self.update()

    def _snapped(
        self, dx: float, dy: float, *, free: bool
    ) -> tuple[tuple[float, float], tuple[float | None, float | None]]:
        """Where edges and middles of other views, or of the sheet, take a dragged one, and the lines there."""
        assert self.sheet is not None
        if free:
            return (dx, dy), (None, None)
        x0, y0, x1, y1 = box_on(self.sheet.views[self.chosen])
        others = [box_on(v) for i, v in enumerate(self.sheet.views) if i != self.chosen]
        wide, high = self.sheet.size
        found = []
        for by, low, high_edge, marks in (
            (dx, x0, x1, [wide / 2, *(m for b in others for m in (b[0], (b[0] + b[2]) / 2, b[2]))]),
            (dy, y0, y1, [high / 2, *(m for b in others for m in (b[1], (b[1] + b[3]) / 2, b[3]))]),
        ):
            own = (low, (low + high_edge) / 2, high_edge)
            near = min(((abs(m - o - by), m - o, m) for m in marks for o in own), default=(9e9, 0.0, 0.0))
            found.append((near[1], near[2]) if near[0] <= SNAP else (by, None))
        return (found[0][0], found[1][0]), (found[0][1], found[1][1])

    def released(self, event: QMouseEvent) -> None:
        by, self._from = self._by, None
        self._lines = (None, None)
        if by != (0.0, 0.0):
            # The view stays where it was let go until the page is laid out anew.
            self._keep(by)
            self.view_moved.emit(self.chosen, *by)
        self._by = (0.0, 0.0)

    def _keep(self, by: tuple[float, float]) -> None:
        assert self.sheet is not None
        self.show_sheet(moved_view(self.sheet, self.chosen, *by))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        key = event.key()
        held = event.modifiers() & ~Qt.KeyboardModifier.KeypadModifier
        if key == Qt.Key.Key_Tab and self.sheet is not None and self.sheet.views and not held:
            self.choose((self.chosen + 1) % len(self.sheet.views))
        elif self.chosen < 0 or held & ~Qt.KeyboardModifier.ShiftModifier:
            super().keyPressEvent(event)
        elif key in STEPS:
            far = 10.0 if held & Qt.KeyboardModifier.ShiftModifier else 1.0
            by = (STEPS[key][0] * far, STEPS[key][1] * far)
            self._keep(by)
            self.view_moved.emit(self.chosen, *by)
        elif key in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self.view_dropped.emit(self.chosen)
        elif event.text() in ("+", "-"):
            self.view_stepped.emit(self.chosen, 1 if event.text() == "+" else -1)
        elif key == Qt.Key.Key_Escape:
            self.choose(-1)
        else:
            super().keyPressEvent(event)

    def focusNextPrevChild(self, forwards: bool) -> bool:
        """Tab goes from view to view as long as there are any."""
        if forwards and self.sheet is not None and self.sheet.views:
            return False
        return super().focusNextPrevChild(forwards)

    # --- painting

    def paint_over(self, painter: QPainter) -> None:
        super().paint_over(painter)
        if self.sheet is None or not 0 <= self.chosen < len(self.sheet.views):
            return
        x0, y0, x1, y1 = box_on(self.sheet.views[self.chosen])
        dx, dy = self._by
        box = QRectF(self.to_px(x0 + dx, y1 + dy), self.to_px(x1 + dx, y0 + dy)).normalized()
        painter.setPen(QPen(Theme.color("spruce"), 1.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(box.adjusted(-3, -3, 3, 3))
        painter.setPen(QPen(Theme.color("brass"), 1.0, Qt.PenStyle.DashLine))
        wide, high = self.sheet.size
        if self._lines[0] is not None:
            painter.drawLine(self.to_px(self._lines[0], 0.0), self.to_px(self._lines[0], high))
        if self._lines[1] is not None:
            painter.drawLine(self.to_px(0.0, self._lines[1]), self.to_px(wide, self._lines[1]))
