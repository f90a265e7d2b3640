"""The wall strip: every wall of the room unfolded side by side at one scale. Placing, sizing and ordering by hand."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen

from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme
from tall_plank.desk.model.bays import Slide, bay_at, board_at, one_unit
from tall_plank.desk.model.document import Document
from tall_plank.desk.things.handling import Hand
from tall_plank.desk.things.table import HANDLING
from tall_plank.desk.views.dropping import TakesDrops
from tall_plank.desk.views.frieze import Frieze
from tall_plank.desk.views.guidelines import guide_at, paint_guides
from tall_plank.desk.views.inplace import InPlaceBox
from tall_plank.desk.views.overdims import ask_for_dim, move_hand_dim, move_hand_note
from tall_plank.desk.views.snapping import level_marks, nearest, place_name, snap_box, upright_marks
from tall_plank.desk.views.stripdims import strip_dims
from tall_plank.desk.views.stripmarks import (
    paint_bay,
    paint_chosen,
    paint_first_step,
    paint_grip,
    paint_headings,
    paint_seen_otherwise,
    paint_snap,
)
from tall_plank.desk.views.zonegrips import ZoneDrag, chosen_field, new_line, paint_zone_grips
from tall_plank.desk.views.zonegrips import grip_at as zone_grip_at
from tall_plank.drawing.frontdims import elevation_dims
from tall_plank.drawing.primitives import Dim
from tall_plank.edits import hanging, placing, runs
from tall_plank.job import Kind, Source
from tall_plank.job.things.sliding import BayRef
from tall_plank.making import MadeUnit
from tall_plank.setout import Placed as PlacedUnit
from tall_plank.setout import set_out

GRIP = 7.0  # px
START_DRAG = 4.0  # px


class Strip(TakesDrops, Frieze):
    """The walls of a room side by side, worked on by mouse and keys."""

    place_wanted = pyqtSignal(str, str, float, float)
    """A kind dropped on a wall: its code (or door, window), wall, mm from the left end and above the floor."""
    step_asked = pyqtSignal(int)
    level_asked = pyqtSignal(int)

    def __init__(self, document: Document) -> None:
        super().__init__(document)
        self.box = InPlaceBox(self)
        self.setAcceptDrops(True)
        self._press: QPointF | None = None
        self._drag = ""
        self._target = ""
        self._held: Source | None = None
        self._grab = self._grab_y = 0.0
        self._band: QRectF | None = None
        self._snap = ""
        self._snap_x = 0.0
        self._snap_z: float | None = None
        self._snap_up: tuple[str, float] | None = None
        """What a free drag snapped to in height, beside what it snapped to along the wall."""
        self._alone = False
        """Whether a unit of a run is dragged up or down by itself."""
        self._slide: Slide | None = None
        self._zone: ZoneDrag | None = None
        self.draws_line = False
        self.snapped_to_mark = False
        self._again = False
        self.dim_clicked.connect(self.type_dim)
        self.dim_moved.connect(lambda dim, mm: move_hand_dim(self.document, dim, mm))
        self.note_clicked.connect(lambda source: self.document.select((source,)))
        self.note_moved.connect(lambda source, right, up: move_hand_note(self.document, source, right, up))
        self.setAccessibleName(tr("Wall strip"))

    def sizeHint(self) -> QSize:
        return QSize(800, 380)

    # --- content

    def refresh_selection(self) -> None:
        self.highlight = self.document.selection
        self.extra_dims = strip_dims(self)
        if not self.dims_shown:
            # Heights of the wall that is worked on always stand at its left: of its first column, and its own.
            wall = self.current_wall()
            room = self.document.room
            placed = [p for p in room.placed if p.wall_id == wall]
            dims = elevation_dims(self.document.job, room, room.wall(wall), placed, self.document.workings.made)
            for dim in dims:
                whole = isinstance(dim, Dim) and dim.source is not None
                if isinstance(dim, Dim) and dim.along == "y" and dim.row < 0 and (dim.row == -1 or whole):
                    left = self.wall_x(wall)
                    row = max(dim.row, -2)
                    self.extra_dims.append(Dim(dim.a, dim.b, dim.base + left, row, "y", dim.text, dim.source, dim.key))
        self.update()

    def type_dim(self, dim: Dim) -> None:
        """Open a box over a dimension; what is typed moves or sizes the thing it measures."""
        ask_for_dim(self, self.box, self.document, dim)

    # --- mouse

    def grip_at(self, p: QPointF) -> bool:
        """The square at the right side of the one selected unit."""
        placed = self.one_placed()
        middle = self.to_px(0, placed.bottom + placed.height / 2).y() if placed is not None else 0.0
        return bool(self._grip_at(p)) and abs(p.y() - middle) <= GRIP

    def _grip_at(self, p: QPointF) -> str:
        placed = self.one_placed()
        if placed is None or not placed.is_solid:
            return ""
        x = self.wall_x(placed.wall_id)
        right = self.to_px(x + placed.right, placed.bottom + placed.height / 2)
        top, bottom = self.to_px(0, placed.top).y(), self.to_px(0, placed.bottom).y()
        return "width" if abs(p.x() - right.x()) <= GRIP and top <= p.y() <= bottom else ""

    def _in_unit(self, p: QPointF) -> tuple[PlacedUnit, MadeUnit, float, float] | None:
        """The one selected unit, and the place on its front under a point; None where the point is not on it."""
        found = one_unit(self.document)
        if found is None:
            return None
        placed, made = found
        x, y = self.to_mm(p)
        x, z = x - self.wall_x(placed.wall_id) - placed.x, y - placed.bottom
        return (placed, made, x, z) if 0 <= x <= placed.width and 0 <= z <= placed.height else None

    def pressed(self, event: QMouseEvent) -> None:
        p = event.position()
        self._press = p
        self._drag = ""
        if self._takes_zone(p):
            return
        add = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        grip = self._grip_at(p)
        if grip:
            self._drag, self._target = "width?", self.document.cells[0]
            return
        if add and self._chooses_bay(p):
            return
        if not event.modifiers():
            self.document.let_go_of_bays()
        place = self._in_unit(p)
        if place is not None and not event.modifiers():
            board = board_at(place[1], place[2], place[3], GRIP / 1.6 / self.scale)
            if board is not None and (self.document.bay is not None or self.document.fronts != "closed"):
                self._slide = Slide(self.document, place[0].cell, board, place[2], place[3])
                self._drag, self._target = "board?", place[0].cell
                return
        line = guide_at(self, self.guide_lines(), p)
        source = line.source if line is not None else self.source_at(p)
        kind = source.kind if source is not None else None
        if kind is Kind.ISLAND and source is not None:
            # Of an island's faces that one is worked on which was pressed.
            face, _ = self.wall_at(self.to_mm(p)[0])
            if self._of_island(face, source):
                self.document.worked_on[self.document.room_id] = face
        self._again = self.document.selection == (source,) and kind is Kind.CELL
        if source is not None and (kind is Kind.CELL or self._takes_hold(source)):
            if add or source not in self.document.selection:
                chosen: tuple[Source, ...] = (source,)
                if kind is Kind.CELL and not event.modifiers() & Qt.KeyboardModifier.AltModifier:
                    chosen = tuple(Kind.CELL.of(c) for c in placing.grouped(self.document.job, source.id))
                self.document.select(chosen, add=add)
            self._drag, self._target = ("cell?" if kind is Kind.CELL else "thing?"), source.id
            self._held = source
            self._grab, self._grab_y = self.to_mm(p)
        elif kind is Kind.SLIDING and source is not None:
            self.document.select((source,), add=add)
        else:
            if not add:
                self.document.select((source,) if source is not None else ())
            self._drag = "band?"

    def draw_line(self) -> None:
        """The next press and drag draw a line across a zone of the chosen wall field."""
        self.draws_line = True
        self.setCursor(Qt.CursorShape.CrossCursor)
        self.document.told.emit(tr("Press where the line begins, and drag to where it ends."), "note")
        self.setFocus()

    def _takes_zone(self, p: QPointF) -> bool:
        """Whether a press takes hold of a grip of the chosen wall field, or begins a line across it."""
        if self.draws_line:
            self.draws_line = False
            x, z = self.to_mm(p)
            wall, along = self.wall_at(x)
            laid = chosen_field(self.document)
            self._zone = new_line(self, along, z) if laid is not None and laid.wall_id == wall else None
            if self._zone is None:
                self.document.told.emit(tr("No covered part of the chosen wall field is there."), "wrong")
                return True
        else:
            self._zone = zone_grip_at(self, p)
        self._drag = "zone?" if self._zone is not None else ""
        return self._zone is not None

    def _chooses_bay(self, p: QPointF) -> bool:
        """Choose the bay under a point besides others, where a bay is worked on or some are chosen already."""
        doc = self.document
        source = self.source_at(p)
        if source is None or source.kind is not Kind.CELL or not (doc.chosen or doc.bay is not None):
            return False
        placed, made = doc.workings.layout.find(source.id), doc.workings.made.of(source.id)
        if placed is None or made is None or made.set is None:
            return False
        x, z = self.to_mm(p)
        path = bay_at(made, x - self.wall_x(placed.wall_id) - placed.x, z - placed.bottom)
        doc.choose_bay(BayRef(source.id, path))
        return True

    def _takes_hold(self, source: Source) -> bool:
        """Whether a press on a placed thing may begin to drag it."""
        return source.kind in HANDLING and HANDLING[source.kind].pick_on_strip

    def moved(self, event: QMouseEvent) -> None:
        p = event.position()
        if self._press is None or not event.buttons() & Qt.MouseButton.LeftButton:
            place = self._in_unit(p)
            board = None
            if place is not None and (self.document.bay is not None or self.document.fronts != "closed"):
                board = board_at(place[1], place[2], place[3], GRIP / 1.6 / self.scale)
            if self.draws_line:
                self.setCursor(Qt.CursorShape.CrossCursor)
            elif zone_grip_at(self, p) is not None:
                self.setCursor(Qt.CursorShape.SizeAllCursor)
            elif self.grip_at(p) or (self._grip_at(p) and self.dim_at(p) is None):
                self.setCursor(Qt.CursorShape.SizeHorCursor)
            elif self.dim_at(p) is not None:
                super().moved(event)
            elif board is not None:
                upright = board.kind == "divider"
                self.setCursor(Qt.CursorShape.SplitHCursor if upright else Qt.CursorShape.SplitVCursor)
            elif self.source_at(p) in self.document.selection:
                self.setCursor(Qt.CursorShape.OpenHandCursor)
            else:
                super().moved(event)
            return
        if self._drag.endswith("?"):
            if (p - self._press).manhattanLength() < START_DRAG:
                return
            self._drag = self._drag[:-1]
            if self._drag == "cell":
                self._drag = self._cell_drag(p, event.modifiers())
            if self._drag != "band":
                self.held = True
                self.document.begin_drag(tr("Resize") if self._drag == "width" else tr("Move"))
        x, y = self.to_mm(p)
        if self._drag == "band":
            self._band = QRectF(self._press, p).normalized()
            self.update()
        elif self._drag == "width":
            self.drag_width_to(self._target, x)
        elif self._drag == "cell":
            self.drag_cell_to(self._target, x)
        elif self._drag == "zone" and self._zone is not None:
            laid = chosen_field(self.document)
            if laid is not None:
                self._snap_x, self._snap_z = x, y
                self._zone.to(self, x - self.wall_x(laid.wall_id), y)
        elif self._drag == "thing":
            self._drag_thing(x, y)
        elif self._drag == "level":
            self._drag_level(self._target, y)
        elif self._drag == "free":
            self._drag_free(self._target, x, y)
        elif self._drag == "board" and self._slide is not None:
            placed = self.document.workings.layout.find(self._target)
            if placed is not None:
                self._slide.to(x - self.wall_x(placed.wall_id) - placed.x, y - placed.bottom)
                self._snap, self._snap_x, self._snap_z = self._slide.words(), x, y

    def _drag_thing(self, x: float, y: float) -> None:
        """A placed thing follows the pointer as its kind does."""
        origin, held = self.document.drag_from, self._held
        on_strip = HANDLING[held.kind].on_strip if held is not None else None
        if origin is None or held is None or on_strip is None:
            return
        wall = self._wall_of(held) or self.current_wall()
        by = (x - self._grab, y - self._grab_y)
        self._snap_x, self._snap_z = x, None
        on_strip(Hand(self.document, origin, held, wall, by, (x - self.wall_x(wall), y), self.scale, self))

    # What a thing that is dragged asks of the strip.

    def snapped_box(self, wall_id: str, x: float, width: float, leave: Source) -> float:
        """The left side of something dragged along a wall, snapped; the snap and the distance are named."""
        left, mark = snap_box(x, width, upright_marks(self.document.room, wall_id, leave=leave), self.scale)
        left = round(left, 6) if mark is not None else float(round(left))
        self.tell_snap(place_name(left, self.document.job.display, mark))
        self._snap_x, self._snap_z = (mark.at if mark is not None else left) + self.wall_x(wall_id), None
        return left

    def snapped_upright(self, wall_id: str, x: float, leave: Source) -> float:
        """A line dragged along a wall, snapped."""
        mark = nearest(x, upright_marks(self.document.room, wall_id, leave=leave), self.scale)
        self.snapped_to_mark = mark is not None
        at = mark.at if mark is not None else x
        self.tell_snap(place_name(round(at), self.document.job.display, mark))
        return at

    def snapped_level(self, wall_id: str, z: float, leave: Source) -> float:
        """A level line dragged up or down, snapped."""
        mark = nearest(z, level_marks(self.document.room, wall_id, leave=leave), self.scale)
        self.snapped_to_mark = mark is not None
        at = mark.at if mark is not None else z
        self.tell_snap(place_name(round(at), self.document.job.display, mark))
        self._snap_z = at
        return at

    def tell_snap(self, text: str) -> None:
        self._snap = text

    def _drag_level(self, cell: str, y: float) -> None:
        """Bring a hung run up or down by one of its units, its top or its underside snapped to what is beside it."""
        origin = self.document.drag_from
        if origin is None:
            return
        _, run, _ = origin.find_cell(cell)
        placed = set_out(origin).find(cell)
        if placed is None:
            return
        low, mark = snap_box(
            placed.bottom + y - self._grab_y,
            placed.height,
            level_marks(self.document.room, run.wall, run.id),
            self.scale,
        )
        low = low if mark is not None else float(round(low / 5.0) * 5)
        self._snap = place_name(low, self.document.job.display, mark)
        self._snap_x, self._snap_z = 0.0, (mark.at if mark is not None else low)
        if self._alone:
            self.document.drag(lambda job: hanging.lift_cell(job, cell, low))
        else:
            self.document.drag(lambda job: runs.lift_run(job, run.id, low - placed.bottom))

    def _drag_free(self, cell: str, x: float, y: float) -> None:
        """Bring what hangs free along its wall and up or down, or onto the wall under the pointer, its sides snapped to
        what stands there."""
        origin = self.document.drag_from
        if origin is None:
            return
        _, run, _ = origin.find_cell(cell)
        before = set_out(origin)
        placed, laid = before.find(cell), before.run(run.id)
        wall, along = self.wall_at(x)
        if placed is None or laid is None:
            return
        line = self.document.room.wall(wall)
        if line.is_face:
            wall, along = run.wall, x - self.wall_x(run.wall)
            line = self.document.room.wall(wall)
        room, unit = self.document.room, self.document.job.display
        grabbed = self._grab - self.wall_x(run.wall) - placed.x
        left, mark = snap_box(along - grabbed, placed.width, upright_marks(room, wall, run.id), self.scale)
        left = left if mark is not None else float(round(left))
        low, over = snap_box(
            placed.bottom + y - self._grab_y, placed.height, level_marks(room, wall, run.id), self.scale
        )
        low = low if over is not None else float(round(low / 5.0) * 5)
        self._snap = place_name(left, unit, mark)
        self._snap_x, self._snap_z = self.wall_x(wall) + (mark.at if mark is not None else left), None
        self._snap_up = (place_name(low, unit, over), over.at if over is not None else low)
        start = left - (placed.x - laid.x)
        self.document.drag(lambda job: hanging.move_free(job, run.id, start, low, wall, f"Move {placed.number}"))

    def _cell_drag(self, p: QPointF, modifiers: Qt.KeyboardModifier) -> str:
        """What a drag that begins on a unit does: free where it hangs so, up or down with a hung run, or with Alt the
        unit alone; else its place in the run."""
        assert self._press is not None
        _, run, cell = self.document.job.find_cell(self._target)
        way = p - self._press
        if run.free:
            return "free"
        self._alone = cell.bottom is not None or bool(modifiers & Qt.KeyboardModifier.AltModifier)
        return "level" if run.level == "hung" and abs(way.y()) > 1.5 * abs(way.x()) else "cell"

    def drag_width_to(self, cell: str, x: float) -> None:
        """Bring a unit's right side to a frieze coordinate, mm; part of a drag."""
        placed = self.document.workings.layout.find(cell)
        if placed is None:
            return
        left = self.wall_x(placed.wall_id)
        edge = self._snapped(x - left, placed)
        self.document.drag(lambda job: runs.drag_width(job, cell, edge - placed.x))

    def _snapped(self, x: float, moving: PlacedUnit) -> float:
        """Snap to what stands on the wall besides the unit's own run, within a few pixels; the snap is named."""
        mark = nearest(x, upright_marks(self.document.room, moving.wall_id, moving.run), self.scale)
        if mark is None:
            self._snap = ""
            return x
        self._snap, self._snap_x, self._snap_z = mark.name, mark.at + self.wall_x(moving.wall_id), None
        return mark.at

    def drag_cell_to(self, cell: str, x: float) -> None:
        """Put a unit where a frieze coordinate (mm) lies among its neighbours' middles; part of a drag."""
        doc = self.document
        origin = doc.drag_from
        if origin is None:
            return
        _, run, _ = origin.find_cell(cell)
        layout = set_out(origin).run(run.id)
        if layout is None:
            return
        at = x - self.wall_x(run.wall)
        index = sum(p.x + p.width / 2 < at for p in layout.cells if p.cell != cell)
        doc.drag(lambda job: runs.move_cell(job, cell, index))

    def released(self, event: QMouseEvent) -> None:
        if self._drag == "band" and self._band is not None:
            add = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
            self.document.select(self.sources_in(self._band), add=add)
        elif self._drag and not self._drag.endswith("?"):
            self.document.end_drag()
        elif self._drag == "cell?" and not event.modifiers():
            place = self._in_unit(event.position())
            if place is not None and self._again:
                # A click on the selected unit goes into its bays.
                self.document.select_bay(bay_at(place[1], place[2], place[3]))
            else:
                # A click without a drag on one of many selects it alone, or its group.
                chosen = placing.grouped(self.document.job, self._target)
                self.document.select(tuple(Kind.CELL.of(c) for c in chosen))
        self._let_go()

    def _let_go(self) -> None:
        """Nothing is pressed or dragged any more."""
        self.held = False
        self._press, self._drag, self._band, self._snap, self._slide = None, "", None, "", None
        self._zone = None
        self._snap_up = None
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        if event.key() == Qt.Key.Key_Escape and self.draws_line:
            self.draws_line = False
            self.unsetCursor()
        elif event.key() == Qt.Key.Key_Escape and self._drag:
            self.document.end_drag(keep=False)
            self._let_go()
        elif event.key() == Qt.Key.Key_Escape and self.document.chosen:
            self.document.let_go_of_bays()
        elif event.key() == Qt.Key.Key_Escape and self.document.bay is not None:
            self.document.select_bay(self.document.bay[:-1] or None)
        elif event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right) and not event.modifiers():
            self.step_asked.emit(1 if event.key() == Qt.Key.Key_Right else -1)
        elif event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down) and not event.modifiers():
            self.level_asked.emit(1 if event.key() == Qt.Key.Key_Up else -1)
        else:
            super().keyPressEvent(event)

    # --- drop from the shelf

    def dropped(self, code: str, at: QPointF) -> None:
        x, z = self.to_mm(at)
        wall, x = self.wall_at(x)
        self.place_wanted.emit(code, wall, x, z)

    # --- painting

    def paint_over(self, painter: QPainter) -> None:
        paint_headings(painter, self)
        paint_seen_otherwise(painter, self)
        paint_grip(painter, self)
        paint_zone_grips(painter, self)
        paint_bay(painter, self)
        paint_chosen(painter, self)
        if self._band is not None:
            color = Theme.color("spruce")
            painter.setPen(QPen(color, 1.0, Qt.PenStyle.DashLine))
            color.setAlphaF(0.10)
            painter.setBrush(color)
            painter.drawRect(self._band)
        paint_guides(painter, self, self.guide_lines(), self.document.selection)
        if self._snap:
            paint_snap(painter, self, self._snap, self._snap_x, self._snap_z)
        if self._snap_up is not None:
            paint_snap(painter, self, self._snap_up[0], self._snap_x, self._snap_up[1])
        if not any(p.is_solid for p in self.document.room.placed) and not self.document.room.fields:
            paint_first_step(painter, self)
