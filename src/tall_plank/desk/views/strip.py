"""The wall strip: every wall of the room unfolded side by side at one scale. Placing, sizing and ordering by hand."""

from __future__ import annotations

import msgspec
from PyQt6.QtCore import QPointF, QRect, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen

from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.model.bays import Slide, bay_at, board_at, one_unit, typed_path
from tall_plank.desk.model.document import Document
from tall_plank.desk.things.handling import Hand
from tall_plank.desk.things.table import HANDLING
from tall_plank.desk.views.canvas import Canvas, Placed
from tall_plank.desk.views.dropping import TakesDrops
from tall_plank.desk.views.guidelines import GuideLine, guide_at, on_strip, paint_guides
from tall_plank.desk.views.inplace import InPlaceBox
from tall_plank.desk.views.snapping import level_marks, nearest, place_name, snap_box, upright_marks
from tall_plank.drawing.dimensions import offset
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.frontdims import elevation_dims, seen_height
from tall_plank.drawing.primitives import Dim
from tall_plank.edits import bays, outline, placing, rooms, runs
from tall_plank.edits.things.table import EDITS
from tall_plank.job import Kind, Source, Split
from tall_plank.job.things.table import THINGS, wall_of
from tall_plank.making import MadeUnit
from tall_plank.measure import PlankError, format_length
from tall_plank.setout import Placed as PlacedUnit
from tall_plank.setout import Wall, set_out
from tall_plank.setout.clear import clear_of
from tall_plank.setout.layout import neighbours

FOLD = 220.0
"""mm shown between two walls of the frieze, so that their ends can be told apart."""

FOLD_WITH_DIMS = 1100.0

GRIP = 7.0  # px
START_DRAG = 4.0  # px


def _other_face(wall: Wall) -> tuple[str, ...]:
    """Both faces of the island that a face belongs to."""
    return (f"{wall.id[:-1]}1", f"{wall.id[:-1]}2") if wall.island else ()


class Strip(TakesDrops, Canvas):
    """The frieze of walls."""

    margin = (62.0, 34.0, 24.0, 12.0)
    place_wanted = pyqtSignal(str, str, float)
    """A kind dropped on a wall at x mm: its code (or door, window), wall, x."""
    step_asked = pyqtSignal(int)
    level_asked = pyqtSignal(int)

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.box = InPlaceBox(self)
        self.setAcceptDrops(True)
        self.dims_shown = False
        self._press: QPointF | None = None
        self._drag = ""
        self._target = ""
        self._held: Source | None = None
        self._grab = self._grab_y = 0.0
        self._band: QRectF | None = None
        self.stage = "units"
        self._snap = ""
        self._snap_x = 0.0
        self._snap_z: float | None = None
        self._slide: Slide | None = None
        self._again = False
        self._drawn: dict[str, tuple[object, object]] = {}
        self.dim_clicked.connect(self.type_dim)
        self.setAccessibleName(tr("Wall strip"))

    def sizeHint(self) -> QSize:
        return QSize(800, 380)

    # --- content

    @property
    def fold(self) -> float:
        """mm between two walls: room for their heights where dimensions are shown."""
        return FOLD_WITH_DIMS if self.dims_shown else FOLD

    def fit(self) -> None:
        """As high as the pane allows, from the wall that is worked on; narrow friezes show whole."""
        rect = self.extent()
        left, top, right, bottom = self.margin
        w, h = self.width() - left - right, self.height() - top - bottom
        if rect.isEmpty() or w < 50 or h < 50:
            return
        wall = self.current_wall()
        longest = max(x.length for x in self.document.room.lines)
        self.scale = min(h / rect.height(), w / longest)
        start = min(self.wall_x(wall), max(0.0, rect.width() - w / self.scale))
        y = top + (h - rect.height() * self.scale) / 2 + (rect.y() + rect.height()) * self.scale
        self.origin = QPointF(left - start * self.scale, y)
        self.fitted = True
        self.view_changed.emit()
        self.update()

    def show_selection(self) -> None:
        """Bring the wall that is worked on into the pane where it is out of sight."""
        wall = self.current_wall()
        left = self.to_px(self.wall_x(wall), 0.0).x()
        right = left + self.document.room.wall(wall).length * self.scale
        if left < 0 or right > self.width() + 2:
            if self.fitted:
                self.fit()
            else:
                self.pan(self.margin[0] - left, 0.0)

    def refresh(self) -> None:
        """Pull the job; walls whose units did not change keep their drawing."""
        doc = self.document
        room, made = doc.room, doc.workings.made
        placed = []
        x = 0.0
        bare = msgspec.structs.replace(room.room, runs=(), moldings=())
        own = {w.id: {w.id, *_other_face(w)} for w in room.lines}
        units = {p.cell: m for r in made.rooms for p, m in r.units if p.room == doc.room_id}
        labels: dict[str, list[object]] = {w.id: [] for w in room.lines}
        for run in room.room.runs:
            if run.wall in labels:
                labels[run.wall].append(run.feet)
                labels[run.wall] += [(c.label, c.hidden, bool(doc.job.unit(c.unit).own)) for c in run.cells]
        for line in labels.values():
            line.append(doc.job.labels)
        for wall in room.lines:
            key = (
                wall, doc.room_id, doc.job.display, doc.job.stock,
                tuple((p, units.get(p.cell)) for p in room.placed if p.wall in own[wall.id]),
                tuple(t for t in room.worktops if t.wall in own[wall.id]),
                tuple(b for b in room.boards if b.wall in own[wall.id]),
                self._ends(wall, units),
                tuple(m for m in room.moldings if m.wall == wall.id),
                tuple(d for d in made.sliding if d.wall == wall.id and d.room == doc.room_id),
                bare, labels[wall.id], self.dims_shown, doc.fronts == "closed", doc.shop,
            )  # fmt: skip
            kept = self._drawn.get(wall.id)
            if kept is None or kept[0] != key:
                drawn = elevation(
                    doc.job, room, wall, made, dims=self.dims_shown, fronts=doc.fronts == "closed", shop=doc.shop
                )
                kept = (key, drawn)
                self._drawn[wall.id] = kept
            placed.append(Placed(x, 0.0, kept[1]))  # type: ignore[arg-type]
            x += wall.length + self.fold
        self.set_placed(placed)
        self.refresh_selection()

    def _ends(self, wall: Wall, units: dict[str, MadeUnit]) -> tuple[object, ...]:
        """What of the next walls shows on this one: their outermost units and worktops."""
        room = self.document.room
        found: list[object] = []
        for side, neighbour in neighbours(room, wall):
            for run in room.runs:
                if run.wall is neighbour and run.cells:
                    p = run.cells[-1] if side == "left" else run.cells[0]
                    found.append((p, units.get(p.cell)))
            tops = [t for t in room.worktops if t.wall == neighbour.id]
            if tops:
                t = max(tops, key=lambda t: t.x + t.length) if side == "left" else min(tops, key=lambda t: t.x)
                found.append(t)
        return tuple(found)

    def refresh_selection(self) -> None:
        self.highlight = self.document.selection
        self.extra_dims = self._clear_dims()
        if not self.dims_shown:
            # The heights of the wall that is worked on always stand at its left.
            wall = self.current_wall()
            room = self.document.room
            placed = [p for p in room.placed if p.wall == wall]
            for dim in elevation_dims(self.document.job, room, room.wall(wall), placed):
                if isinstance(dim, Dim) and dim.along == "y":
                    left = self.wall_x(wall)
                    self.extra_dims.append(
                        Dim(dim.a, dim.b, dim.base + left, dim.row, "y", dim.text, dim.source, dim.key)
                    )
        self.update()

    def current_wall(self) -> str:
        """The wall of the selection, else the first."""
        for source in self.document.selection:
            wall = self._wall_of(source)
            if wall and self.document.room.has_line(wall):
                return wall
        return self.document.room.walls[0].id

    def _wall_of(self, source: Source) -> str:
        """The wall or face that something stands on; empty where it is on none of this room."""
        doc = self.document
        match source.kind:
            case Kind.WALL:
                return source.id
            case Kind.ISLAND:
                return next((f.id for f in doc.room.faces if f.island == source.id), "")
            case Kind.SLIDING:
                return next((d.wall for d in doc.workings.made.sliding if d.source == source), "")
            case Kind.CELL:
                found = doc.workings.layout.find(source.id)
                return found.wall if found is not None and found.room == doc.room_id else ""
            case Kind.RUN:
                run = doc.workings.layout.run(source.id)
                return run.wall.id if run is not None else ""
        return wall_of(doc.room.room, source) if source.kind in THINGS else ""

    def wall_x(self, wall: str) -> float:
        """mm of a wall's left end in the frieze."""
        x = 0.0
        for w in self.document.room.lines:
            if w.id == wall:
                return x
            x += w.length + self.fold
        return 0.0

    def wall_at(self, x: float) -> tuple[str, float]:
        """The wall under a frieze coordinate and the distance from its left end."""
        at = 0.0
        walls = self.document.room.lines
        for wall in walls:
            if x < at + wall.length + self.fold / 2 or wall is walls[-1]:
                return wall.id, x - at
            at += wall.length + self.fold
        return walls[0].id, x

    def guide_lines(self) -> list[GuideLine]:
        room = self.document.room
        return on_strip(room, {w.id: self.wall_x(w.id) for w in room.lines}) if room.room.guides else []

    def one_placed(self) -> PlacedUnit | None:
        cells = self.document.cells
        if len(cells) != 1:
            return None
        found = self.document.workings.layout.find(cells[0])
        return found if found is not None and found.room == self.document.room_id else None

    def _guide_dims(self) -> list[Dim]:
        """How far a selected guide line lies from the wall's left end, or from the floor."""
        found = []
        drop = 6.0 * self.paper_scale
        for line in self.guide_lines():
            if line.source in self.document.selection:
                at = line.guide.at.mm
                text = format_length(at, self.document.job.display, mark=True)
                if line.guide.axis == "z":
                    x = self.wall_x(self.current_wall()) + 300.0 - drop
                    found.append(Dim(0.0, at, x, 1, "y", text, line.source, "at", True))
                else:
                    found.append(Dim(line.x1 - at, line.x1, 300.0 - drop, 1, "x", text, line.source, "at", True))
        return found

    def _clear_dims(self) -> list[Dim]:
        if self.document.ids(Kind.GUIDE):
            return self._guide_dims()
        placed = self.one_placed()
        if placed is None or not placed.is_solid:
            return []
        if self.document.bay is not None:
            return self._bay_dims(placed)
        clear = clear_of(self.document.room, placed)
        x = self.wall_x(placed.wall)
        display = self.document.job.display
        middle_x = x + placed.x + placed.width / 4
        # The row offset is taken back, so that the line runs through the middle of the unit.
        drop = 6.0 * self.paper_scale
        middle_y = placed.bottom + placed.height * 0.5 - drop
        source = Kind.CELL.of(placed.cell)

        def text(mm: float) -> str:
            return format_length(mm, display, mark=True)

        dims = []
        left, right = x + placed.x, x + placed.right
        if clear.left > 0.5:
            dims.append(Dim(left - clear.left, left, middle_y, 1, "x", text(clear.left), source, "left", True))
        if clear.right > 0.5:
            dims.append(Dim(right, right + clear.right, middle_y, 1, "x", text(clear.right), source, "right", True))
        if placed.level == "hung":
            side = middle_x - drop
            low, high = placed.bottom, placed.top
            if clear.below > 0.5:
                dims.append(Dim(low - clear.below, low, side, 1, "y", text(clear.below), source, "below", True))
            if clear.above > 0.5:
                dims.append(Dim(high, high + clear.above, side, 1, "y", text(clear.above), source, "above", True))
        return dims

    def _bay_dims(self, placed: PlacedUnit) -> list[Dim]:
        """Clear width and height of the bay that is worked on; what it is typed in stands out."""
        box = self.document.bay_box(self.document.bay or ())
        if box is None:
            return []
        root = self.document.job.unit(self.document.job.find_cell(placed.cell)[2].unit).bay
        r, display = box.clear, self.document.job.display
        x, z = self.wall_x(placed.wall) + placed.x, placed.bottom
        drop = 6.0 * self.paper_scale
        found = []
        for along, low, high, base, split in (
            ("x", x + r.x0, x + r.x1, z + r.z0 + (r.z1 - r.z0) * 0.1 - drop, Split.COLUMNS),
            ("y", z + r.z0, z + r.z1, x + r.x0 + (r.x1 - r.x0) * 0.72 - drop, Split.ROWS),
        ):
            path = typed_path(root, box.path, split)
            key = "size" if path is not None else ""
            name = Kind.BAY.of(".".join(map(str, path))) if path is not None else ""
            text = format_length(high - low, display, mark=True)
            found.append(Dim(low, high, base, 1, along, text, name, key, True))  # type: ignore[arg-type]
        return found

    # --- typing over dimensions

    def type_dim(self, dim: Dim) -> None:
        """Open a box over a dimension; what is typed moves or sizes the thing it measures."""
        at = offset(dim, self.paper_scale)
        middle = (dim.a + dim.b) / 2
        p = self.to_px(middle, at) if dim.along == "x" else self.to_px(at, middle)
        rect = QRect(int(p.x()) - 40, int(p.y()) - 26, 80, 26)
        shown = dim.text.split(" ")[0] if dim.text.endswith(" mm") else dim.text
        self.box.ask(rect, shown.lstrip("~"), lambda text: self._commit_dim(dim, text))

    def _commit_dim(self, dim: Dim, text: str) -> PlankError | None:
        doc, source = self.document, dim.source
        assert source is not None
        if source.kind is Kind.CELL and dim.key == "width":
            return doc.do(lambda job: runs.set_width(job, (source.id,), text), at_place=True)
        if source.kind is Kind.CELL:
            return doc.do(lambda job: runs.set_clear(job, source.id, dim.key, text), at_place=True)
        if source.kind is Kind.BAY:
            path = tuple(int(i) for i in source.id.split("."))
            cell = doc.cells[0]
            return doc.do(lambda job: bays.set_size(job, cell, path, text), at_place=True)
        if source.kind is Kind.WALL:
            return doc.do(lambda job: outline.set_wall_length(job, doc.room_id, source.id, text), at_place=True)
        if source.kind is Kind.ROOM:
            return doc.do(lambda job: rooms.set_room_length(job, source.id, dim.key, text), at_place=True)
        return doc.do(lambda job: EDITS[source.kind].set(job, source.id, dim.key, text), at_place=True)

    # --- mouse

    def _grip_at(self, p: QPointF) -> str:
        placed = self.one_placed()
        if placed is None or not placed.is_solid:
            return ""
        x = self.wall_x(placed.wall)
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
        x, z = x - self.wall_x(placed.wall) - placed.x, y - placed.bottom
        return (placed, made, x, z) if 0 <= x <= placed.width and 0 <= z <= placed.height else None

    def pressed(self, event: QMouseEvent) -> None:
        p = event.position()
        self._press = p
        self._drag = ""
        grip = self._grip_at(p)
        if grip:
            self._drag, self._target = "width?", self.document.cells[0]
            return
        place = self._in_unit(p)
        if place is not None and not event.modifiers():
            board = board_at(place[1], place[2], place[3], GRIP / 1.6 / self.scale)
            if board is not None and (self.document.bay is not None or self.document.fronts != "closed"):
                self._slide = Slide(self.document, place[0].cell, board, place[2], place[3])
                self._drag, self._target = "board?", place[0].cell
                return
        line = guide_at(self, self.guide_lines(), p)
        source = line.source if line is not None else self.source_at(p)
        add = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        kind = source.kind if source is not None else None
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
            if self._grip_at(p):
                self.setCursor(Qt.CursorShape.SizeHorCursor)
            elif board is not None:
                upright = board.kind == "divider"
                self.setCursor(Qt.CursorShape.SplitHCursor if upright else Qt.CursorShape.SplitVCursor)
            else:
                super().moved(event)
            return
        if self._drag.endswith("?"):
            if (p - self._press).manhattanLength() < START_DRAG:
                return
            self._drag = self._drag[:-1]
            if self._drag == "cell" and self._lifts(p):
                self._drag = "level"
            if self._drag != "band":
                self.document.begin_drag(tr("Resize") if self._drag == "width" else tr("Move"))
        x, y = self.to_mm(p)
        if self._drag == "band":
            self._band = QRectF(self._press, p).normalized()
            self.update()
        elif self._drag == "width":
            self.drag_width_to(self._target, x)
        elif self._drag == "cell":
            self.drag_cell_to(self._target, x)
        elif self._drag == "thing":
            self._drag_thing(x, y)
        elif self._drag == "level":
            self._drag_level(self._target, y)
        elif self._drag == "board" and self._slide is not None:
            placed = self.document.workings.layout.find(self._target)
            if placed is not None:
                self._slide.to(x - self.wall_x(placed.wall) - placed.x, y - placed.bottom)
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

    def snapped_box(self, wall: str, x: float, width: float, leave: Source) -> float:
        """The left side of something dragged along a wall, snapped; the snap and the distance are named."""
        left, mark = snap_box(x, width, upright_marks(self.document.room, wall, leave=leave), self.scale)
        left = round(left, 6) if mark is not None else float(round(left))
        self.tell_snap(place_name(left, self.document.job.display, mark))
        self._snap_x, self._snap_z = (mark.at if mark is not None else left) + self.wall_x(wall), None
        return left

    def snapped_upright(self, wall: str, x: float, leave: Source) -> float:
        """A line dragged along a wall, snapped."""
        mark = nearest(x, upright_marks(self.document.room, wall, leave=leave), self.scale)
        at = mark.at if mark is not None else x
        self.tell_snap(place_name(round(at), self.document.job.display, mark))
        return at

    def snapped_level(self, wall: str, z: float, leave: Source) -> float:
        """A level line dragged up or down, snapped."""
        mark = nearest(z, level_marks(self.document.room, wall, leave=leave), self.scale)
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
        self.document.drag(lambda job: runs.lift_run(job, run.id, low - placed.bottom))

    def _lifts(self, p: QPointF) -> bool:
        """Whether a drag that begins goes up or down with a unit of a hung run."""
        assert self._press is not None
        _, run, _ = self.document.job.find_cell(self._target)
        way = p - self._press
        return run.level == "hung" and abs(way.y()) > 1.5 * abs(way.x())

    def drag_width_to(self, cell: str, x: float) -> None:
        """Bring a unit's right side to a frieze coordinate, mm; part of a drag."""
        placed = self.document.workings.layout.find(cell)
        if placed is None:
            return
        left = self.wall_x(placed.wall)
        edge = self._snapped(x - left, placed)
        self.document.drag(lambda job: runs.drag_width(job, cell, edge - placed.x))

    def _snapped(self, x: float, moving: PlacedUnit) -> float:
        """Snap to what stands on the wall besides the unit's own run, within a few pixels; the snap is named."""
        mark = nearest(x, upright_marks(self.document.room, moving.wall, moving.run), self.scale)
        if mark is None:
            self._snap = ""
            return x
        self._snap, self._snap_x, self._snap_z = mark.name, mark.at + self.wall_x(moving.wall), None
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
        self._press, self._drag, self._band, self._snap, self._slide = None, "", None, "", None
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        if event.key() == Qt.Key.Key_Escape and self._drag:
            self.document.end_drag(keep=False)
            self._press, self._drag, self._band, self._snap, self._slide = None, "", None, "", None
            self.update()
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
        wall, x = self.wall_at(self.to_mm(at)[0])
        self.place_wanted.emit(code, wall, x)

    # --- painting

    def paint_over(self, painter: QPainter) -> None:
        walls = self.document.room.lines
        at = 0.0
        current = self.current_wall()
        for i, wall in enumerate(walls):
            top = self.to_px(at, seen_height(self.document.room, wall))
            painter.setFont(font(13, bold=True))
            painter.setPen(Theme.color("spruce" if wall.id == current else "ink"))
            y = max(16.0, top.y() - (46.0 if self.dims_shown else 12.0))
            name = tr(wall.heading) if wall.island else f"{wall.id} {tr(wall.name)}"
            painter.drawText(QPointF(top.x() + 2, y), name)
            width = painter.fontMetrics().horizontalAdvance(name + "  ")
            painter.setFont(font(12))
            painter.setPen(Theme.color("quiet"))
            painter.drawText(QPointF(top.x() + 2 + width, y), format_length(wall.length, self.document.job.display))
            if i + 1 < len(walls):
                # The fold between two walls.
                x = self.to_px(at + wall.length + self.fold / 2, 0.0).x()
                pen = QPen(Theme.color("rule"), 1.0, Qt.PenStyle.DashDotLine)
                painter.setPen(pen)
                painter.drawLine(QPointF(x, top.y() - 10), QPointF(x, self.to_px(0, 0).y() + 6))
            at += wall.length + self.fold
        self._paint_grips(painter)
        self._paint_bay(painter)
        if self._band is not None:
            color = Theme.color("spruce")
            painter.setPen(QPen(color, 1.0, Qt.PenStyle.DashLine))
            color.setAlphaF(0.10)
            painter.setBrush(color)
            painter.drawRect(self._band)
        paint_guides(painter, self, self.guide_lines(), self.document.selection)
        if self._snap:
            self._paint_snap(painter)
        if not any(p.is_solid for p in self.document.room.placed):
            self._paint_first_step(painter)

    def _paint_first_step(self, painter: QPainter) -> None:
        """What to do first in an empty room, on the wall that is worked on."""
        hint = tr("Nothing stands here yet. Press R to type a run, or drag a unit from the left onto a wall.")
        if self.stage == "room":
            hint = tr(
                "Type the room's size on the sheet at the right, or draw its outline (O). "
                "Put doors and windows on a wall from the left. Then go to Units (Alt+2)."
            )
        elif self.stage == "finish":
            hint = tr("There is nothing to finish yet. Units (Alt+2) come first.")
        wall = self.document.room.wall(self.current_wall())
        left = self.to_px(self.wall_x(wall.id), 0.0).x()
        right = left + wall.length * self.scale
        left, right = max(left, 8.0) + 16, min(right, self.width() - 8.0) - 16
        if right - left < 140:
            left, right = 24.0, self.width() - 24.0
        painter.setFont(font(13))
        painter.setPen(Theme.color("quiet"))
        foot = self.to_px(0.0, 0.0).y() - 14
        flags = int(Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignBottom | Qt.TextFlag.TextWordWrap)
        space = QRectF(left, foot - 90, right - left, 90)
        ground = Theme.color("sheet")
        ground.setAlphaF(0.85)
        painter.fillRect(painter.boundingRect(space, flags, hint).adjusted(-8, -4, 8, 4), ground)
        painter.drawText(space, flags, hint)

    def _paint_snap(self, painter: QPainter) -> None:
        """The line that a drag snapped to, with its name."""
        painter.setPen(QPen(Theme.color("brass"), 1.0, Qt.PenStyle.DashLine))
        p = self.to_px(self._snap_x, self._snap_z or 0.0)
        if self._snap_z is None:
            painter.drawLine(QPointF(p.x(), 20.0), QPointF(p.x(), self.height() - 4.0))
            at = QPointF(p.x() + 5, 32.0)
        else:
            painter.drawLine(QPointF(4.0, p.y()), QPointF(self.width() - 4.0, p.y()))
            at = QPointF(max(70.0, p.x() + 8), p.y() - 5)
        painter.setFont(font(11))
        painter.drawText(at, self._snap)

    def _paint_bay(self, painter: QPainter) -> None:
        """The bay that is worked on."""
        placed, path = self.one_placed(), self.document.bay
        box = self.document.bay_box(path) if path is not None else None
        if placed is None or box is None:
            return
        x, z, r = self.wall_x(placed.wall) + placed.x, placed.bottom, box.clear
        rect = QRectF(self.to_px(x + r.x0, z + r.z1), self.to_px(x + r.x1, z + r.z0))
        color = Theme.color("brass")
        painter.setPen(QPen(color, 2.0))
        color.setAlphaF(0.14)
        painter.setBrush(color)
        painter.drawRect(rect)

    def _paint_grips(self, painter: QPainter) -> None:
        placed = self.one_placed()
        if placed is None or not placed.is_solid:
            return
        x = self.wall_x(placed.wall)
        p = self.to_px(x + placed.right, placed.bottom + placed.height / 2)
        painter.setPen(QPen(Theme.color("spruce"), 1.4))
        painter.setBrush(Theme.color("sheet"))
        painter.drawRect(QRectF(p.x() - 3.5, p.y() - 3.5, 7, 7))
