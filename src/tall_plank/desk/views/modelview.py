"""The model by hand: orbit, pan, zoom, select, drag units and things, drop from the shelf."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, Qt, pyqtSignal
from PyQt6.QtGui import (
    QKeyEvent,
    QMouseEvent,
    QWheelEvent,
)

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.bays import Slide, bay_at, board_at, one_unit
from tall_plank.desk.model.document import Document
from tall_plank.desk.things.table import HANDLING
from tall_plank.desk.views.dropping import TakesDrops
from tall_plank.desk.views.modelpicture import ModelPicture
from tall_plank.edits import hanging
from tall_plank.edits.things.island import move_island
from tall_plank.edits.things.table import EDITS
from tall_plank.job import Job, Kind, Source
from tall_plank.job.things.table import THINGS, find_thing
from tall_plank.making import MadeUnit
from tall_plank.measure.frames import FloorPoint, room_point
from tall_plank.setout import Placed, set_out
from tall_plank.setout.clear import nearest_line


class ModelView(TakesDrops, ModelPicture):
    """The room in three dimensions, worked on by mouse and keys."""

    place_wanted = pyqtSignal(str, str, float, object)
    """Something dropped in the model: its code, the line and where along it, the place on the floor."""
    size_wanted = pyqtSignal()
    """A double click on a unit: its width is to be typed."""

    def __init__(self, document: Document) -> None:
        super().__init__(document)
        self._from: QPointF | None = None
        self._moved = False
        self._drag: Source | None = None
        self._grab: tuple[float, float] = (0.0, 0.0)
        self._slide: Slide | None = None
        self.setAcceptDrops(True)

    # --- mouse

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        self._from, self._moved, self._drag = event.position(), False, None
        if event.button() != Qt.MouseButton.LeftButton or event.modifiers():
            return
        source = self.source_at(event.position())
        # What is selected already is moved; anything else turns the view.
        if source is not None and source in self.document.selection and self._takes_hold(source):
            self._drag = source
            place = self._in_unit(event.position())
            if place is not None and (self.document.bay is not None or self.document.fronts != "closed"):
                reach = self.distance / max(200, self.height()) * 4.0
                board = board_at(place[1], place[2], place[3], reach)
                if board is not None:
                    self._slide = Slide(self.document, place[0].cell, board, place[2], place[3])

    def _takes_hold(self, source: Source) -> bool:
        """Whether something selected may be dragged here."""
        if source.kind in (Kind.CELL, Kind.ISLAND):
            return True
        return source.kind in HANDLING and HANDLING[source.kind].in_model

    def _in_unit(self, p: QPointF) -> tuple[Placed, MadeUnit, float, float] | None:
        """The one selected unit, and the place on its front that is seen under a point."""
        found, sight = one_unit(self.document), self.ray(p)
        if found is None or sight is None:
            return None
        placed, made = found
        start = placed.frame.into(room_point(sight[0]))
        end = placed.frame.into(room_point(sight[0] + sight[1]))
        way = end[1] - start[1]
        if abs(way) < 1e-9:
            return None
        t = (-placed.depth - start[1]) / way
        x, z = (start[i] + t * (end[i] - start[i]) for i in (0, 2))
        return placed, made, x, z

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self._from is None:
            return
        delta = event.position() - self._from
        if not self._moved and delta.manhattanLength() < 4:
            return
        if self._drag:
            self._drag_to(event.position())
            return
        self._moved = True
        self._whole = None
        self._from = event.position()
        pan = event.buttons() & Qt.MouseButton.MiddleButton or event.modifiers() & Qt.KeyboardModifier.ShiftModifier
        if pan and self.center is not None:
            step = self.distance / max(200, self.height()) * 0.6
            a = math.radians(self.turn)
            dx, dy = delta.x() * step, delta.y() * step
            x, y, z = self.center
            self.center = (x + math.sin(a) * dx, y - math.cos(a) * dx, z + dy)
        else:
            self.turn -= delta.x() * 0.4
            self.tilt = min(max(self.tilt + delta.y() * 0.3, -5.0), 89.0)
        self._timer.start()

    def _drag_to(self, p: QPointF) -> None:
        """Move what is held: a unit along its run, an opening along its wall, an island over the floor."""
        doc, held = self.document, self._drag
        assert self._from is not None and held is not None
        if not self._moved:
            self._moved = True
            doc.begin_drag(tr("Move"))
        origin = doc.drag_from
        if origin is None:
            return
        if self._slide is not None:
            place = self._in_unit(p)
            if place is not None:
                self._slide.to(place[2], place[3])
        elif held.kind is Kind.CELL:
            _, run, _ = origin.find_cell(held.id)
            layout = set_out(origin).run(run.id)
            placed = set_out(origin).find(held.id)
            if layout is None or placed is None:
                return
            start, at = (self.along(where, layout.wall, placed.depth) for where in (self._from, p))
            if start is not None and at is not None:
                doc.drag(lambda job: hanging.move_along(job, held.id, at, at - start))
        elif held.kind is Kind.ISLAND:
            a, b = self.on_floor(self._from, 870.0), self.on_floor(p, 870.0)
            if a is not None and b is not None:
                dx, dy = round((b[0] - a[0]) / 10.0) * 10.0, round((b[1] - a[1]) / 10.0) * 10.0
                doc.drag(lambda job: move_island(job, held.id, dx, dy))
        else:
            self._slide_along(origin, held, self._from, p)

    def _slide_along(self, origin: Job, held: Source, start: QPointF, p: QPointF) -> None:
        """A thing follows the pointer along its wall."""
        room, thing = find_thing(origin, held.kind, held.id)
        noun, slide = THINGS[held.kind], EDITS[held.kind].slide
        wall = self.document.room.wall(noun.wall(room, thing))
        a, b = self.along(start, wall, 0.0), self.along(p, wall, 0.0)
        if slide is not None and noun.extent is not None and a is not None and b is not None:
            x = noun.extent(thing)[0] + b - a
            self.document.drag(lambda job: slide(job, held.id, x))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self._drag and self._moved:
            self.document.end_drag()
        elif self._from is not None and not self._moved and event.button() == Qt.MouseButton.LeftButton:
            source = self.source_at(event.position())
            add = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
            place = self._in_unit(event.position())
            if place is not None and self.document.selection == (source,) and not add:
                self.document.select_bay(bay_at(place[1], place[2], place[3]))
            else:
                self.document.select((source,) if source is not None else (), add=add)
        self._from, self._drag, self._slide = None, None, None

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        source = self.source_at(event.position())
        if source is not None and source.kind is Kind.CELL:
            self.size_wanted.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        if event.key() == Qt.Key.Key_Escape and self._drag and self._moved:
            self.document.end_drag(keep=False)
            self._from, self._drag, self._slide = None, None, None
        elif event.key() == Qt.Key.Key_Escape and self.document.bay is not None:
            self.document.select_bay(self.document.bay[:-1] or None)
        else:
            super().keyPressEvent(event)

    # --- drop from the shelf

    def dropped(self, code: str, at: QPointF) -> None:
        self.drop(code, at)

    def drop(self, code: str, p: QPointF) -> None:
        """Put something from the shelf where it was dropped: on the wall or island that is seen there, else on the
        line nearest to that place of the floor."""
        source = self.source_at(p)
        place = self.on_floor(p) or FloorPoint((0.0, 0.0))
        if source is not None and source.kind is Kind.WALL:
            wall = self.document.room.wall(source.id)
            at = self.along(p, wall, 0.0)
            self.place_wanted.emit(code, source.id, min(max(0.0, at or 0.0), wall.length), place)
            return
        line, at = nearest_line(self.document.room, place)
        self.place_wanted.emit(code, line, at, place)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        assert event is not None
        self.zoom(1.0012 ** event.angleDelta().y())
