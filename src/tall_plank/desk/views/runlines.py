"""Run lines: a ruler of cells under the strip, one line a level; type in a cell to size its unit."""

from __future__ import annotations

from dataclasses import dataclass

from PyQt6.QtCore import QEvent, QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget

from tall_plank.desk.look.boxes import plain_typing
from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.model.document import Document
from tall_plank.desk.views.inplace import InPlaceBox
from tall_plank.desk.views.strip import Strip
from tall_plank.desk.views.strokes import advance
from tall_plank.edits import runs
from tall_plank.job import Kind, Level
from tall_plank.measure import DisplayUnit, PlankError, format_length
from tall_plank.measure.shareout import Rule
from tall_plank.setout import RunLayout
from tall_plank.setout.corners import bottom_of

ROW = 25


@dataclass(frozen=True)
class CellBox:
    """A cell on screen."""

    cell: str
    run: str
    rect: QRectF
    text: str
    rule: Rule | None
    """None for the last cell of a run, which shows what is left."""
    solid: bool
    tone: str = ""
    held: bool = False
    """Whether an anchor holds it."""
    locked: bool = False
    width: float = 0.0
    """mm"""


def shortened(text: str, mm: float, unit: DisplayUnit, room: float, *, bold: bool) -> tuple[str, int]:
    """A width as it fits into a cell: whole, in smaller letters, or rounded to the whole unit and marked so; and the
    size of its letters. A cell never goes blank.

    Parameters
    ----------
    room : px
    """
    for size in (13, 11, 9):
        if advance(text, size, bold) < room:
            return text, size
    rough = f"~{mm / unit.factor:.0f}"
    size = next((s for s in (11, 9) if advance(rough, s, bold) < room), 8)
    return (rough if advance(rough, size, bold) < room else "…"), size


MOST_HUNG = 3
"""Hung lines that are shown at once."""


@dataclass(frozen=True)
class Lane:
    """A line of rulers: the runs of one level, or the hung rows that lie beside one another."""

    level: Level
    name: str
    runs: tuple[RunLayout, ...]


def _meets(one: RunLayout, other: RunLayout) -> bool:
    """Whether two hung rows of a wall cannot share a line: a run takes its whole wall, a free row its own length."""
    if one.wall.id != other.wall.id:
        return False
    if not (one.run.free and other.run.free):
        return True
    return one.x < other.end - 0.5 and other.x < one.end - 0.5


class RunLines(QWidget):
    """The rulers of all runs of the room, lined up with the strip above them."""

    run_text_wanted = pyqtSignal(str)
    """A double click on what is left, or on an empty line: the run's id."""

    def __init__(self, document: Document, strip: Strip) -> None:
        super().__init__()
        self.document = document
        self.strip = strip
        self.box = InPlaceBox(self)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setFixedHeight(2 * ROW + 10)
        self.setAccessibleName(tr("Run lines"))
        strip.view_changed.connect(self.update)
        self._press: QPointF | None = None
        self._drag = ""
        self._target = ""
        self._again = False
        self._again_left = ""
        """The run whose rest was pressed again, to be typed."""
        self._lowest = 0
        """The lowest hung line that is shown, of many."""

    def sizeHint(self) -> QSize:
        return QSize(800, len(self.lanes()) * ROW + 10)

    def lanes(self) -> list[Lane]:
        """The lines from the top: what hangs, the highest first, then tall units where there are any, then base ones.
        Of more hung lines than there is space for those are shown where the selection is."""
        room = self.document.room
        hung: list[list[RunLayout]] = [[]]
        rows = [r for r in room.runs if r.run.level is Level.HUNG]
        for row in sorted(rows, key=lambda r: (r.run.free, bottom_of(self.document.job, r.run))):
            lane = next((found for found in hung if not any(_meets(row, r) for r in found)), None)
            if lane is None:
                hung.append([row])
            else:
                lane.append(row)
        chosen = {self.document.job.find_cell(c)[1].id for c in self.document.cells} | set(self.document.ids(Kind.RUN))
        at = next((i for i, lane in enumerate(hung) if any(r.run.id in chosen for r in lane)), None)
        if at is not None:
            self._lowest = max(min(self._lowest, at), at - MOST_HUNG + 1)
        self._lowest = max(0, min(self._lowest, len(hung) - MOST_HUNG))
        seen = range(self._lowest, min(len(hung), self._lowest + MOST_HUNG))
        many = len(hung) > 1
        found = [
            Lane(Level.HUNG, f"{tr(Level.HUNG.value)} {i + 1}" if many else tr(Level.HUNG.value), tuple(hung[i]))
            for i in reversed(seen)
        ]
        for level in (Level.TALL, Level.BASE):
            of_level = tuple(r for r in room.runs if r.run.level is level)
            if of_level or level is Level.BASE:
                found.append(Lane(level, tr(level.value), of_level))
        return found

    def boxes(self) -> list[CellBox]:
        """Every cell of every run, where it stands on screen."""
        found = []
        doc = self.document
        display = doc.job.display
        rows = {r.run.id: (i, r) for i, lane in enumerate(self.lanes()) for r in lane.runs}
        for row, run in rows.values():
            y = 4.0 + row * ROW
            left = self.strip.wall_x(run.wall.id)

            def span(x0: float, x1: float, left: float = left, y: float = y) -> QRectF:
                a, b = self.strip.to_px(left + x0, 0).x(), self.strip.to_px(left + x1, 0).x()
                return QRectF(a, y, max(b - a, 1.0), ROW - 3.0)

            for p, cell in zip(run.cells, run.run.cells, strict=True):
                text = format_length(p.width, display)
                held, rule = cell.anchor is not None and p.cell not in run.unmet, cell.width.rule
                found.append(
                    CellBox(
                        p.cell, run.run.id, span(p.x, p.right), text, rule, p.is_solid, "", held, cell.locked, p.width
                    )
                )
            at = max([run.x, *(p.right for p in run.cells)])
            for x, width in run.free:
                if x < at - 0.5:
                    shown = format_length(width, display)
                    found.append(CellBox("", run.run.id, span(x, x + width), shown, None, False, "free"))
            if run.run.free:
                continue
            if run.short > 0.001:
                text, tone = f"{tr('short')} {format_length(run.short, display)}", "oxide"
                rect = span(at, at)
            else:
                tone = "moss" if run.left < 0.001 else "quiet"
                text = f"{format_length(run.left, display)} {tr('left')}" if run.left >= 0.001 else "0"
                rect = span(at, run.end)
            rect.setWidth(max(rect.width(), 22.0 if run.left < 0.001 and run.short <= 0.001 else 66.0))
            found.append(CellBox("", run.run.id, rect, text, None, False, tone))
        return found

    def refresh(self) -> None:
        if self.document.drag_from is None:
            # Nothing jumps while something is dragged.
            self.setFixedHeight(len(self.lanes()) * ROW + 10)
        self.update()

    # --- painting

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), Theme.color("paper"))
        selected = set(self.document.cells)
        runs_selected = set(self.document.ids(Kind.RUN))
        for box in self.boxes():
            if box.rect.right() < 0 or box.rect.left() > self.width():
                continue
            self._paint_box(painter, box, box.cell in selected or (not box.cell and box.run in runs_selected))
        painter.fillRect(QRectF(0, 0, 46, self.height()), Theme.color("paper"))
        painter.setFont(font(11))
        painter.setPen(Theme.color("quiet"))
        for i, lane in enumerate(self.lanes()):
            rect = QRectF(0, 4 + i * ROW, 42, ROW - 3)
            painter.drawText(rect, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, lane.name)
        painter.setPen(Theme.color("rule"))
        painter.drawLine(0, 0, self.width(), 0)
        painter.end()

    def _paint_box(self, painter: QPainter, box: CellBox, selected: bool) -> None:
        rect = box.rect
        if box.rule is None and box.tone == "free":
            painter.setPen(Theme.color("quiet"))
            painter.setFont(font(11))
            if advance(box.text, 11, False) < rect.width() - 3:
                painter.drawText(rect, Qt.AlignmentFlag.AlignCenter, box.text)
            return
        if box.rule is None:
            painter.setPen(Theme.color(box.tone))
            painter.setFont(font(12, bold=box.tone != "quiet"))
            text = rect.adjusted(5, 0, 40, 0)
            painter.drawText(text, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, box.text)
            return
        painter.setPen(QPen(Theme.color("spruce" if selected else "rule"), 1.6 if selected else 1.0))
        painter.setBrush(Theme.color("spruce_pale") if selected else Theme.color("sheet"))
        if not box.solid:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(Theme.color("spruce" if selected else "rule"), 1.2, Qt.PenStyle.DashLine))
        painter.drawRect(rect.adjusted(0.5, 0, -0.5, 0))
        told, size = shortened(box.text, box.width, self.document.job.display, rect.width() - 3, bold=selected)
        painter.setFont(font(size, bold=selected))
        painter.setPen(Theme.color("ink" if box.solid else "quiet"))
        lift = 0.0 if box.rule is Rule.FIXED else 2.0
        painter.drawText(rect.adjusted(-6, -lift, 6, -lift), Qt.AlignmentFlag.AlignCenter, told)
        self._paint_rule(painter, rect, box.rule)
        if box.held:
            self._paint_held(painter, rect)
        if box.locked:
            painter.setPen(QPen(Theme.color("ink"), 1.2))
            painter.drawLine(QPointF(rect.right() - 6, rect.top() + 3), QPointF(rect.right() - 3, rect.top() + 6))
            painter.drawLine(QPointF(rect.right() - 3, rect.top() + 3), QPointF(rect.right() - 6, rect.top() + 6))

    def _paint_held(self, painter: QPainter, rect: QRectF) -> None:
        """A peg at the head of a cell that something else holds in its place."""
        painter.setPen(QPen(Theme.color("brass"), 1.2))
        x, y = rect.center().x(), rect.top()
        painter.drawLine(QPointF(x, y), QPointF(x, y + 4.0))
        painter.drawLine(QPointF(x - 3.0, y), QPointF(x + 3.0, y))

    def _paint_rule(self, painter: QPainter, rect: QRectF, rule: Rule) -> None:
        """A mark along the cell's foot: none where fixed, two strokes for a share, a hooked one for what is left."""
        if rule is Rule.FIXED:
            return
        painter.setPen(QPen(Theme.color("brass"), 1.2))
        y, a, b = rect.bottom() - 2.5, rect.left() + 4.0, rect.right() - 4.0
        painter.drawLine(QPointF(a, y), QPointF(b, y))
        if rule is Rule.SHARE:
            painter.drawLine(QPointF(a, y - 3.0), QPointF(b, y - 3.0))
        else:
            painter.drawLine(QPointF(b - 3.5, y - 3.5), QPointF(b, y))

    # --- typing and picking

    def box_at(self, p: QPointF) -> CellBox | None:
        for box in self.boxes():
            if box.rect.adjusted(0, -2, 0, 2).contains(p):
                return box
        return None

    def edge_at(self, p: QPointF) -> CellBox | None:
        """The cell whose right end is under a point."""
        for box in self.boxes():
            if box.cell and abs(box.rect.right() - p.x()) <= 4.0 and box.rect.top() <= p.y() <= box.rect.bottom():
                return box
        return None

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Drag a cell's right end to size it, the cell to change its place in the run."""
        assert event is not None
        p = event.position()
        if self._press is None or not event.buttons() & Qt.MouseButton.LeftButton:
            at_edge = self.edge_at(p) is not None
            self.setCursor(Qt.CursorShape.SizeHorCursor if at_edge else Qt.CursorShape.ArrowCursor)
            return
        if self._drag.endswith("?"):
            if abs(p.x() - self._press.x()) < 4.0:
                return
            self._drag = self._drag[:-1]
            self.document.begin_drag(tr("Resize") if self._drag == "width" else tr("Move"))
        x, _ = self.strip.to_mm(p)
        if self._drag == "width":
            self.strip.drag_width_to(self._target, x)
        elif self._drag == "cell":
            self.strip.drag_cell_to(self._target, x)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._drag and not self._drag.endswith("?"):
            self.document.end_drag()
        elif self._again_left:
            self.type_left(self._again_left)
        elif self._drag == "cell?" and self._again:
            # A click on the cell that was selected already types its width.
            self.type_cell(self._target)
        self._press, self._drag, self._again, self._again_left = None, "", False, ""

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        self._press = event.position()
        edge = self.edge_at(event.position())
        if edge is not None and not event.modifiers():
            self._drag, self._target = "width?", edge.cell
            self.document.select((Kind.CELL.of(edge.cell),))
            return
        box = self.box_at(event.position())
        self._drag, self._target = ("cell?", box.cell) if box is not None and box.cell else ("", "")
        add = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        if box is None:
            self.document.select(())
        elif box.cell:
            self._again = self.document.cells == (box.cell,) and not add
            self.document.select((Kind.CELL.of(box.cell),), add=add)
        else:
            self._again_left = box.run if self.document.ids(Kind.RUN) == (box.run,) and box.tone != "free" else ""
            self.document.select((Kind.RUN.of(box.run),))

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        box = self.box_at(event.position())
        if box is not None and box.cell:
            self.type_cell(box.cell)
        elif box is not None:
            self.run_text_wanted.emit(box.run)

    def type_cell(self, cell: str, start: str | None = None) -> None:
        """Open the box over a cell's width."""
        box = next((b for b in self.boxes() if b.cell == cell), None)
        if box is None:
            return
        text = box.text.lstrip("~") if box.rule is Rule.FIXED else (box.rule.value if box.rule else "")
        rect = box.rect.toRect()
        self.box.ask(rect, text, lambda t: self._commit(cell, t), self._go_on, typed=start)

    def type_left(self, run: str) -> None:
        """Open the box over what is left of a run: its last unit takes up what is typed."""
        box = next((b for b in self.boxes() if b.run == run and not b.cell and b.tone != "free"), None)
        layout = self.document.workings.layout.run(run)
        if box is not None and layout is not None:
            text = format_length(layout.left, self.document.job.display).lstrip("~")
            edit = runs.set_left
            self.box.ask(
                box.rect.toRect(),
                text,
                lambda t: self.document.do(lambda job: edit(job, run, t), at_place=True, select_new=False),
            )

    def _commit(self, cell: str, text: str) -> PlankError | None:
        return self.document.do(lambda job: runs.set_width(job, (cell,), text), at_place=True)

    def _go_on(self, step: int) -> None:
        """Tab: on to the next cell of the run, typing."""
        if self.step(step):
            self.type_cell(self.document.cells[0])

    def step(self, by: int) -> bool:
        """Select the next or previous cell along the frieze: of the run, then of the next run on its level; False at
        the end. With nothing selected, the first of the wall that is worked on."""
        doc = self.document
        order = {line.id: i for i, line in enumerate(doc.room.lines)}
        runs = sorted((r.run for r in doc.room.runs), key=lambda r: order[r.wall])
        cells = doc.cells
        if not cells:
            wall = self.strip.current_wall()
            here = [c for r in runs if r.wall == wall for c in r.cells] or [c for r in runs for c in r.cells]
            if here:
                doc.select((Kind.CELL.of(here[0 if by > 0 else -1].id),))
            return bool(here)
        _, run, _ = doc.job.find_cell(cells[-1])
        hung = run.level is Level.HUNG
        places = [c.id for r in runs if (r.level is Level.HUNG) == hung for c in r.cells]
        at = places.index(cells[-1]) + by
        if not 0 <= at < len(places):
            return False
        doc.select((Kind.CELL.of(places[at]),))
        return True

    def step_level(self, by: int) -> bool:
        """Select the unit above (1) or below (-1) the selected one on its wall; False where there is none."""
        doc = self.document
        here = doc.workings.layout.find(doc.cells[-1]) if doc.cells else None
        if here is None:
            return self.step(1)
        others = [
            p
            for p in doc.room.placed
            if p.wall_id == here.wall_id and p.run != here.run and p.width > 0 and (p.bottom - here.bottom) * by > 0.5
        ]
        if not others:
            return False
        middle = here.x + here.width / 2
        near = min(others, key=lambda p: max(p.x - middle, middle - p.right, 0.0))
        doc.select((Kind.CELL.of(near.cell),))
        return True

    def event(self, event: QEvent | None) -> bool:
        """A digit typed on a selected cell starts its width, though some digits are keys of views."""
        if (
            event is not None
            and event.type() == QEvent.Type.ShortcutOverride
            and isinstance(event, QKeyEvent)
            and plain_typing(event)
            and plain_typing(event) in "0123456789("
            and len(self.document.cells) == 1
        ):
            event.accept()
            return True
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        cells = self.document.cells
        key = event.key()
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right) and not event.modifiers():
            self.step(1 if key == Qt.Key.Key_Right else -1)
        elif self.document.ids(Kind.RUN) and key in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_F2):
            self.type_left(self.document.ids(Kind.RUN)[0])
        elif len(cells) == 1 and key in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_F2):
            self.type_cell(cells[0])
        elif len(cells) == 1 and plain_typing(event) and plain_typing(event) in "0123456789(":
            self.type_cell(cells[0], event.text())
        else:
            super().keyPressEvent(event)
