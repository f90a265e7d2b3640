"""The plan in the window: select and drag units, islands, walls, corners and what stands in the room; type over
dimensions; draw an outline; drop things from the shelf where they shall stand."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QPointF, QRect, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen

from tall_plank.desk.look.boxes import plain_typing
from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.model.document import Document
from tall_plank.desk.things.handling import Hand
from tall_plank.desk.things.table import HANDLING
from tall_plank.desk.views.canvas import Canvas, Placed
from tall_plank.desk.views.drawroom import OutlineTool
from tall_plank.desk.views.dropping import TakesDrops
from tall_plank.desk.views.guidelines import guide_at, on_plan, paint_guides
from tall_plank.desk.views.inplace import InPlaceBox
from tall_plank.desk.views.overdims import ask_for_dim, move_hand_dim, move_hand_note
from tall_plank.desk.views.plancorners import own_corners, side_near
from tall_plank.desk.views.plandims import plan_dims
from tall_plank.desk.views.settling import Settling
from tall_plank.desk.views.underlay import Ruler, paint_underlay, underlay_at
from tall_plank.drawing.plan import plan
from tall_plank.drawing.primitives import Dim
from tall_plank.drawing.shows import exactly
from tall_plank.edits import hanging, outline, placing, rooms, tops
from tall_plank.edits.things.island import move_island
from tall_plank.edits.things.underlay import scale_underlay
from tall_plank.job import Job, Kind, Side, Source
from tall_plank.measure import PlankError
from tall_plank.measure.frames import FloorPoint
from tall_plank.setout import set_out
from tall_plank.setout.clear import nearest_line

GRIP = 7.0  # px
START_DRAG = 4.0  # px


class PlanView(TakesDrops, Canvas):
    """The room from above."""

    margin = (56.0, 48.0, 46.0, 44.0)
    tool: OutlineTool | None = None
    ruler: Ruler | None = None
    place_wanted = pyqtSignal(str, str, float, object)
    """Something dropped in the room: its code, the nearest line and where along it, and the place on the floor."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.box = InPlaceBox(self)
        self.setAcceptDrops(True)
        self._press: QPointF | None = None
        self._target: Source | None = None
        self._grip: tuple[str, int] | None = None
        """A corner of the room or of a worktop that is held: "corner" or "top", and its index."""
        self._dragging = False
        self._snap = ""
        self._exact = False
        self.settling = Settling(self, self._settle, lambda: document.drag_from is not None)
        self.dim_clicked.connect(self.type_dim)
        self.dim_moved.connect(lambda dim, mm: move_hand_dim(self.document, dim, mm))
        self.note_clicked.connect(lambda source: self.document.select((source,)))
        self.note_moved.connect(lambda source, right, up: move_hand_note(self.document, source, right, up))
        self.setAccessibleName(tr("Plan"))

    # --- content

    def refresh(self) -> None:
        self._draw(exact=False)
        self.refresh_selection()
        self.settling.wait()

    def _draw(self, *, exact: bool) -> None:
        doc = self.document
        shows = doc.shows(fronts=True)
        drawing = plan(doc.job, doc.room, doc.workings.made, shows=exactly(shows) if exact else shows)
        self._exact = exact
        self.set_placed([Placed(0.0, 0.0, drawing)])

    def _settle(self) -> bool:
        """Work out the hidden lines of what was painted."""
        if self._exact:
            return False
        self._draw(exact=True)
        return True

    def refresh_selection(self) -> None:
        self.highlight = self.document.selection
        self.extra_dims = plan_dims(self.document, self.paper_scale)
        self.update()

    def type_dim(self, dim: Dim) -> None:
        """Open a box over a dimension; what is typed moves or sizes the thing it measures."""
        ask_for_dim(self, self.box, self.document, dim)

    # --- the scale of a plan image

    def measure_underlay(self, underlay_id: str) -> None:
        """Pick two points on a plan image; then the length between them is typed."""
        self.ruler = Ruler(underlay_id)
        self.setCursor(Qt.CursorShape.CrossCursor)
        self.setFocus()
        self.update()

    def _ask_known(self) -> None:
        ruler = self.ruler
        assert ruler is not None
        a, b = ruler.points
        p = (self.to_px(*a) + self.to_px(*b)) / 2

        def put(text: str) -> PlankError | None:
            error = self.document.do(lambda job: scale_underlay(job, ruler.underlay, a, b, text), at_place=True)
            if error is None:
                self.leave_tool()
            return error

        self.box.ask(QRect(int(p.x()) - 50, int(p.y()) - 34, 100, 26), "", put)

    # --- drawing an outline

    def draw_outline(self) -> None:
        """Start to draw the room's outline; the old one stays until the new one is closed."""
        self.tool = OutlineTool()
        self.setCursor(Qt.CursorShape.CrossCursor)
        self.setFocus()
        self.update()

    def _close_outline(self) -> None:
        tool = self.tool
        if tool is None:
            return
        points = tuple(tool.points)
        error = self.document.do(lambda job: outline.draw_outline(job, self.document.room_id, points))
        if error is None:
            self.leave_tool()
            self.fit()

    def leave_tool(self) -> None:
        self.tool = self.ruler = None
        self.unsetCursor()
        self.update()

    def _type_length(self, typed: str) -> None:
        """A length typed while drawing: the next corner, that far in the direction of the pointer."""
        tool = self.tool
        if tool is None or not tool.begun:
            return
        p = self.to_px(*(tool.pointer or tool.points[-1]))
        rect = QRect(int(p.x()) + 12, int(p.y()) + 12, 90, 26)

        def put(text: str) -> PlankError | None:
            try:
                length = rooms.read_in(self.document.job, text, Side, "length")
            except PlankError as error:
                return error
            tool.put_length(length.mm)
            self.update()
            return None

        self.box.ask(rect, "", put, typed=typed)

    def event(self, event: QEvent | None) -> bool:
        """While a room is drawn, digits and signs are lengths, not the keys of views."""
        if (
            self.tool is not None
            and event is not None
            and event.type() == QEvent.Type.ShortcutOverride
            and isinstance(event, QKeyEvent)
            and (plain_typing(event)[:1] in "0123456789(" or event.key() in (Qt.Key.Key_Backspace, Qt.Key.Key_Escape))
            and event.text()
        ):
            event.accept()
            return True
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        key = event.key()
        if self.tool is not None:
            if key == Qt.Key.Key_Escape:
                self.leave_tool()
            elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
                self._close_outline()
            elif key == Qt.Key.Key_Backspace:
                self.tool.step_back()
                self.update()
            elif key in ARROWS and self.tool.begun:
                ax, ay = self.tool.points[-1]
                dx, dy = ARROWS[key]
                self.tool.pointer = (ax + dx * 1000.0, ay + dy * 1000.0)
                self.update()
            elif plain_typing(event) and plain_typing(event) in "0123456789(":
                self._type_length(event.text())
            else:
                super().keyPressEvent(event)
            return
        if key == Qt.Key.Key_Escape and self.ruler is not None:
            self.leave_tool()
        elif key == Qt.Key.Key_Escape and self._dragging:
            self.document.end_drag(keep=False)
            self._leave_drag()
        elif key in ARROWS and self.document.ids(Kind.ISLAND):
            step = 10.0 if not event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 100.0
            dx, dy = ARROWS[key]
            island = self.document.ids(Kind.ISLAND)[0]
            self.document.do(lambda job: move_island(job, island, dx * step, dy * step))
        else:
            super().keyPressEvent(event)

    # --- mouse

    def pressed(self, event: QMouseEvent) -> None:
        p = event.position()
        if self.tool is not None:
            self.tool.aim(
                *self.to_mm(p), self.scale, free=bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
            )
            if self.tool.press():
                self._close_outline()
            self.update()
            return
        if self.ruler is not None:
            if self.ruler.press(*self.to_mm(p)):
                self._ask_known()
            self.update()
            return
        corner, grip = self.corner_at(p), self.top_corner_at(p)
        if corner is not None or grip is not None:
            self._press, self._target = p, None
            self._grip = ("corner", corner) if corner is not None else ("top", grip or 0)
            return
        self._grip = None
        source = self._pressed_on(p)
        add = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        chosen: tuple[Source, ...] = (source,) if source is not None else ()
        if source is not None and source.kind is Kind.CELL and not event.modifiers() & Qt.KeyboardModifier.AltModifier:
            chosen = tuple(Kind.CELL.of(c) for c in placing.grouped(self.document.job, source.id))
        self.document.select(chosen, add=add)
        if source is not None and self._takes_hold(source):
            self._press, self._target = p, source

    def _pressed_on(self, p: QPointF) -> Source | None:
        """What a press means: a guide line or a section line, the unit on the floor before what hangs above it, else
        what is seen, else a plan image."""
        line = guide_at(self, on_plan(self.document.room), p)
        source = line.source if line is not None else self.source_at(p)
        # The unit on the floor comes first; a second click takes what hangs above it.
        on_line = line is not None or (source is not None and source.kind is Kind.SECTION)
        below = self._cell_under(p) if not on_line else None
        covered = source is not None and source.kind in (Kind.RUN, Kind.ISLAND, Kind.SOFFIT)
        if below is not None and (covered or below not in self.document.selection):
            source = below
        if source is None:
            found = underlay_at(self.document.job, self.document.room.room.underlays, *self.to_mm(p))
            source = Kind.UNDERLAY.of(found) if found else None
        return source

    def _takes_hold(self, source: Source) -> bool:
        """Whether a press on something may begin to drag it."""
        if source.kind in (Kind.CELL, Kind.WALL):
            return True
        return source.kind in HANDLING and HANDLING[source.kind].on_plan is not None

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """A double click closes the outline that is drawn, or puts a corner into a wall or a worktop's own outline."""
        assert event is not None
        if self.tool is not None:
            self._close_outline()
            return
        if (own := own_corners(self.document)) is not None:
            side = side_near(self, event.position(), own[2])
            if side is not None:
                self.document.do(lambda job: tops.add_corner(job, own[0], side))
                return
        source = self.source_at(event.position())
        if source is not None and source.kind is Kind.WALL and not self.document.room.wall(source.id).is_face:
            at = self.document.room.wall(source.id).frame.from_floor(self.floor_at(event.position()))[0]
            self.document.do(lambda job: outline.add_corner(job, self.document.room_id, source.id, at))

    def floor_at(self, p: QPointF) -> FloorPoint:
        """The place of the floor under a point of the widget, mm."""
        return FloorPoint(self.to_mm(p))

    def grip_at(self, p: QPointF) -> bool:
        return self.tool is None and (self.corner_at(p) is not None or self.top_corner_at(p) is not None)

    def corner_at(self, p: QPointF) -> int | None:
        """Index of the corner of the floor under a point, where a wall or the room is selected."""
        if not any(s.kind in (Kind.ROOM, Kind.WALL) for s in self.document.selection):
            return None
        for i, (x, y) in enumerate(self.document.room.points):
            px = self.to_px(x, y)
            if abs(px.x() - p.x()) <= GRIP and abs(px.y() - p.y()) <= GRIP:
                return i
        return None

    def _cell_under(self, p: QPointF) -> Source | None:
        """The unit below a worktop."""
        at = self.floor_at(p)
        for placed in self.document.room.placed:
            px, py = placed.frame.from_floor(at)
            if placed.level != "hung" and 0 <= px <= placed.width and -placed.depth <= py <= 0 and placed.is_solid:
                return Kind.CELL.of(placed.cell)
        return None

    def moved(self, event: QMouseEvent) -> None:
        p = event.position()
        if self.tool is not None:
            free = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
            self.tool.aim(*self.to_mm(p), self.scale, free=free)
            self.update()
            return
        if self.ruler is not None:
            self.ruler.pointer = self.to_mm(p)
            self.update()
            return
        if self._press is None or not event.buttons() & Qt.MouseButton.LeftButton:
            if self.grip_at(p):
                self.setCursor(Qt.CursorShape.SizeAllCursor)
            elif self.dim_at(p) is None and self._pressed_on(p) in self.document.selection:
                self.setCursor(Qt.CursorShape.OpenHandCursor)
            else:
                super().moved(event)
            return
        doc = self.document
        if not self._dragging:
            if (p - self._press).manhattanLength() < START_DRAG:
                return
            self._dragging = self.held = True
            doc.begin_drag(tr("Move"))
        if doc.drag_from is not None:
            self.drag_to(*self.to_mm(self._press), *self.to_mm(p))

    def drag_to(self, x0: float, y0: float, x: float, y: float) -> None:
        """Part of a drag of the target, from where it was pressed to where the pointer is (mm)."""
        doc, held = self.document, self._target
        origin = doc.drag_from
        assert origin is not None
        dx, dy = x - x0, y - y0
        if self._grip is not None:
            self._drag_grip(origin, *self._grip, dx, dy)
        elif held is None:
            return
        elif held.kind is Kind.CELL:
            _, run, _ = origin.find_cell(held.id)
            layout = set_out(origin).run(run.id)
            if layout is None:
                return
            began, _ = layout.wall.frame.from_floor(FloorPoint((x0, y0)))
            along, _ = layout.wall.frame.from_floor(FloorPoint((x, y)))
            doc.drag(lambda job: hanging.move_along(job, held.id, along, along - began))
        elif held.kind is Kind.WALL:
            wall = set_out(origin).room(doc.room_id).wall(held.id)
            if not wall.is_face:
                out = -(dx * wall.out_of[0] + dy * wall.out_of[1])
                out = round(out / 10.0) * 10.0
                doc.drag(lambda job: outline.move_wall(job, doc.room_id, held.id, out))
        elif (on_floor := HANDLING[held.kind].on_plan) is not None:
            on_floor(Hand(doc, origin, held, "", (dx, dy), (x, y), self.scale, self))

    def _drag_grip(self, origin: Job, grip: str, index: int, dx: float, dy: float) -> None:
        """A corner of the room, or of a worktop's own outline, follows the pointer."""
        if grip == "top":
            self._drag_top_corner(origin, index, dx, dy)
            return
        rid = self.document.room_id
        px, py = set_out(origin).room(rid).points[index]
        tx, ty = self._snapped_corner(origin, index, px + dx, py + dy)
        self.document.drag(lambda job: outline.move_corner(job, rid, index, tx, ty))

    # What a thing that is dragged asks of a view; on the plan only lines and islands snap.

    def snapped_box(self, wall_id: str, x: float, width: float, leave: Source) -> float:
        return x

    def snapped_upright(self, wall_id: str, x: float, leave: Source) -> float:
        return x

    def snapped_level(self, wall_id: str, z: float, leave: Source) -> float:
        return z

    def tell_snap(self, text: str) -> None:
        self._snap = text

    def top_corner_at(self, p: QPointF) -> int | None:
        """Index of the corner of the selected worktop's own outline under a point."""
        found = own_corners(self.document)
        for i, (x, y) in enumerate(found[2] if found else []):
            px = self.to_px(x, y)
            if abs(px.x() - p.x()) <= GRIP and abs(px.y() - p.y()) <= GRIP:
                return i
        return None

    def _drag_top_corner(self, origin: Job, index: int, dx: float, dy: float) -> None:
        """A corner of a worktop follows the pointer: in line with its neighbours where it is near, else on whole
        centimetres from its line."""
        found = own_corners(self.document)
        if found is None:
            return
        source, line, _ = found
        own = tops.top_of(origin, source).outline
        ox, oy, _ = line.frame.origin
        move = line.frame.from_floor(FloorPoint((ox + dx, oy + dy)))
        at = [own[index].x.mm + move[0], own[index].out.mm - move[1]]
        self._snap = ""
        for k in (0, 1):
            near = (own[index - 1], own[(index + 1) % len(own)])
            marks = [(c.x.mm, c.out.mm)[k] for c in near]
            square = [m for m in marks if abs(m - at[k]) * self.scale < 7.0]
            at[k] = square[0] if square else round(at[k] / 10.0) * 10.0
            self._snap = tr("square") if square else self._snap
        self.document.drag(lambda job: tops.move_corner(job, source, index, at[0], at[1]))

    def _guides_along(self, k: int) -> list[float]:
        """Places of the plan's own guide lines along x (0) or y (1), mm."""
        return [g.at.mm for g in self.document.room.room.guides if not g.wall and g.axis == "xy"[k]]

    def _snapped_corner(self, origin: Job, index: int, x: float, y: float) -> tuple[float, float]:
        """A dragged corner stands square over or beside its neighbours where it is near; else on whole centimetres."""
        points = set_out(origin).room(self.document.room_id).points
        self._snap = ""
        found = [round(x / 10.0) * 10.0, round(y / 10.0) * 10.0]
        for k in (0, 1):
            for other in (points[index - 1], points[(index + 1) % len(points)]):
                if abs((x, y)[k] - other[k]) * self.scale < 8.0:
                    found[k], self._snap = other[k], tr("square")
            for at in self._guides_along(k):
                if abs((x, y)[k] - at) * self.scale < 8.0:
                    found[k], self._snap = at, tr("guide line")
        return found[0], found[1]

    def released(self, event: QMouseEvent) -> None:
        if self._dragging:
            self.document.end_drag()
        self._leave_drag()

    def _leave_drag(self) -> None:
        self._press, self._dragging, self._snap, self.held = None, False, "", False
        self._grip = None
        if self.fitted:
            self.fit()
        self.update()

    # --- drop from the shelf

    def dropped(self, code: str, at: QPointF) -> None:
        self.drop(code, *self.to_mm(at))

    def drop(self, code: str, x: float, y: float) -> None:
        """Put something from the shelf where it was dropped: on the nearest line, or on the floor."""
        line, at = nearest_line(self.document.room, FloorPoint((x, y)))
        self.place_wanted.emit(code, line, at, (x, y))

    # --- painting

    def _paint_hint(self, painter: QPainter, hint: str, color: str = "brass") -> None:
        """What to do next with a tool, at the top of the plan."""
        painter.setFont(font(12))
        width = painter.fontMetrics().horizontalAdvance(hint) + 16
        ground = QRectF((self.width() - width) / 2, 6, width, 22)
        painter.fillRect(ground, Theme.color("sheet"))
        painter.setPen(Theme.color(color))
        painter.drawText(ground, Qt.AlignmentFlag.AlignCenter, hint)

    def _paint_underlays(self, painter: QPainter) -> None:
        for under in self.document.room.room.underlays:
            chosen = Kind.UNDERLAY.of(under.id) in self.document.selection
            paint_underlay(painter, self, self.document.job, under, selected=chosen)

    def paint_over(self, painter: QPainter) -> None:
        if self.tool is not None:
            veil = Theme.color("sheet")
            veil.setAlphaF(0.72)
            painter.fillRect(self.rect(), veil)
            self._paint_underlays(painter)
            self.tool.paint(painter, self.to_px, self.document.job.display)
            hint = tr("Click the corners in order, or point and type a length. Enter closes the room, Escape gives up.")
            if self.tool.crosses:
                hint = tr("Two walls cross. Backspace takes the last corner back.")
            self._paint_hint(painter, hint, "oxide" if self.tool.crosses else "brass")
            return
        self._paint_underlays(painter)
        if self.ruler is not None:
            self.ruler.paint(painter, self)
            self._paint_hint(
                painter, tr("Click the two ends of a length that you know, then type it. Escape gives up.")
            )
        if any(s.kind in (Kind.ROOM, Kind.WALL) for s in self.document.selection):
            painter.setPen(QPen(Theme.color("spruce"), 1.4))
            painter.setBrush(Theme.color("sheet"))
            for x, y in self.document.room.points:
                p = self.to_px(x, y)
                painter.drawRect(QRectF(p.x() - 4, p.y() - 4, 8, 8))
        if (own := own_corners(self.document)) is not None:
            painter.setPen(QPen(Theme.color("spruce"), 1.4))
            painter.setBrush(Theme.color("sheet"))
            for x, y in own[2]:
                p = self.to_px(x, y)
                painter.drawRect(QRectF(p.x() - 4, p.y() - 4, 8, 8))
        for source in self.document.ids(Kind.WALL):
            if self.document.room.has_line(source):
                wall = self.document.room.wall(source)
                painter.setPen(QPen(Theme.color("spruce"), 3.0))
                painter.drawLine(self.to_px(*wall.start), self.to_px(*wall.end))
        paint_guides(painter, self, on_plan(self.document.room), self.document.selection)
        if self._snap and self._dragging:
            painter.setFont(font(11))
            painter.setPen(Theme.color("brass"))
            painter.drawText(QPointF(self.width() / 2 - 50, 34), self._snap)


ARROWS: dict[int, tuple[float, float]] = {
    Qt.Key.Key_Left: (-1.0, 0.0), Qt.Key.Key_Right: (1.0, 0.0), Qt.Key.Key_Up: (0.0, 1.0), Qt.Key.Key_Down: (0.0, -1.0),
}  # fmt: skip
