"""The model view: VTK drawn off screen and painted as an image. Orbit, pan, zoom, pick."""

from __future__ import annotations

import math
import os
from typing import Any

import numpy as np
from numpy.typing import NDArray
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import (
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPolygonF,
    QWheelEvent,
)
from PyQt6.QtWidgets import QWidget

from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.model.bays import Slide, bay_at, board_at, one_unit
from tall_plank.desk.model.document import Document
from tall_plank.desk.things.table import HANDLING
from tall_plank.desk.views.dropping import TakesDrops
from tall_plank.edits import runs
from tall_plank.edits.things.island import move_island
from tall_plank.edits.things.table import EDITS
from tall_plank.job import Job, Kind, Source
from tall_plank.job.things.table import THINGS, all_things, find_thing, wall_of
from tall_plank.making import MadeUnit
from tall_plank.measure import format_length
from tall_plank.measure.frames import Vec
from tall_plank.scene import Mesh, Scene, visible_scene
from tall_plank.scene.things.table import SOLIDS
from tall_plank.setout import Placed, Wall, set_out
from tall_plank.setout.clear import clear_of, nearest_line

VIEW_ANGLE = 32.0
"""Degrees that the eye takes in from top to bottom."""


NEAR = 600.0
"""mm before the eye where the picture begins at least."""


def _rgb(color: str) -> tuple[float, float, float]:
    return tuple(int(color[i : i + 2], 16) / 255 for i in (1, 3, 5))  # type: ignore[return-value]


def _shaded(mesh: Mesh, facing: float) -> Any:
    """Colors per quad, light baked in: from above, and a little from one side of where the eye stood at first.

    Parameters
    ----------
    facing : degrees from east; direction of that eye
    """
    p = mesh.points[mesh.quads]
    normal = np.cross(p[:, 1] - p[:, 0], p[:, 3] - p[:, 0])
    length = np.linalg.norm(normal, axis=1, keepdims=True)
    normal = normal / np.where(length > 0, length, 1.0)
    side = math.radians(facing + 17.0)
    light = np.array([0.55 * math.cos(side), 0.55 * math.sin(side), 0.83])
    bright = 0.86 + 0.17 * np.clip(normal @ light, -1.0, 1.0)
    rgb = np.array(_rgb(mesh.color))
    return (np.clip(bright[:, None] * rgb[None, :], 0, 1) * 255).astype(np.uint8)


FIRST_AFTER = 40
"""ms that the first picture waits, so that the window and its drawings are painted before VTK is imported."""


FILLED = 0.93
"""Share of the view that a scene fills when it is fitted."""


def whole_in_view(
    low: tuple[float, float, float], high: tuple[float, float, float], turn: float, tilt: float, shape: float
) -> tuple[tuple[float, float, float], float]:
    """Where to look at, and from how far, so that an upright box fills the view without being cut off.

    Parameters
    ----------
    low, high : corners of the box, mm
    turn, tilt : of the eye about the box, degrees
    shape : width of the view over its height
    """
    a, b = math.radians(turn), math.radians(tilt)
    ahead = np.array([-math.cos(a) * math.cos(b), -math.sin(a) * math.cos(b), -math.sin(b)])
    right = np.array([-math.sin(a), math.cos(a), 0.0])
    up = np.cross(right, ahead)
    corners = np.array([(x, y, z) for x in (low[0], high[0]) for y in (low[1], high[1]) for z in (low[2], high[2])])
    half = math.tan(math.radians(VIEW_ANGLE / 2)) * FILLED
    center, distance = (np.array(low) + np.array(high)) / 2, 0.0
    for _ in range(4):
        away = corners - center
        across, upward, deep = away @ right, away @ up, away @ ahead
        distance = float(max((np.abs(across) / (half * shape) - deep).max(), (np.abs(upward) / half - deep).max()))
        # What is nearer looks larger: the middle of what is seen comes into the middle of the view.
        for axis, off in ((right, across), (up, upward)):
            seen = off / (distance + deep)
            center = center + axis * (seen.max() + seen.min()) / 2 * distance
    return (float(center[0]), float(center[1]), float(center[2])), distance


def _vec(v: NDArray[np.float64]) -> Vec:
    return float(v[0]), float(v[1]), float(v[2])


OUTLINED = {Kind.CELL, Kind.RUN, *(kind for kind, handling in HANDLING.items() if handling.outlined)}


class ModelView(TakesDrops, QWidget):
    """The room in three dimensions. Walls between the eye and the room are left out."""

    drawn = pyqtSignal()
    place_wanted = pyqtSignal(str, str, float, object)
    """Something dropped in the model: its code, the line and where along it, the place on the floor."""
    size_wanted = pyqtSignal()
    """A double click on a unit: its width is to be typed."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setObjectName("pane")
        self.setAccessibleName(tr("Model"))
        self.turn, self.tilt, self.distance = -66.0, 30.0, 0.0
        self.center: tuple[float, float, float] | None = None
        self._whole: tuple[object, ...] | None = None
        """The box and the shape of the view that it was fitted to; None where the eye was moved by hand."""
        self._image: QImage | None = None
        self._scene: Scene | None = None
        self._meshes: dict[str, tuple[Mesh, Any]] = {}
        self._hidden_walls: frozenset[Source] = frozenset()
        self._lit_from = self.turn
        self._window: Any = None
        self._renderer: Any = None
        self._failed = ""
        self._from: QPointF | None = None
        self._moved = False
        self._drag: Source | None = None
        self._grab: tuple[float, float] = (0.0, 0.0)
        self._slide: Slide | None = None
        self._room = document.room_id
        self.setAcceptDrops(True)
        self._dirty_scene = True
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(FIRST_AFTER)
        self._timer.timeout.connect(lambda: self.render_now())
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(160)
        self._rest.timeout.connect(self._render_fine)

    def sizeHint(self) -> QSize:
        return QSize(440, 320)

    # --- content

    def refresh(self) -> None:
        """The job changed: draw again as soon as the 2D views have painted. Another room is looked at as a whole."""
        if self.document.room_id != self._room:
            self._room = self.document.room_id
            self.center, self.distance = None, 0.0
        self._dirty_scene = True
        self._timer.start()

    def refresh_selection(self) -> None:
        self._dirty_scene = self._dirty_scene or self.document.shop
        self._timer.start()

    def restyle(self) -> None:
        self._timer.start()

    def _ready(self) -> bool:
        """Make the off-screen window on first use (importing VTK takes time; the window is up by then)."""
        if self._window is not None:
            return True
        self._timer.setInterval(0)
        if self._failed:
            return False
        try:
            import vtkmodules.vtkRenderingOpenGL2  # noqa: F401
            from vtkmodules.vtkRenderingCore import vtkRenderer

            os.environ.setdefault("VTK_DEFAULT_OPENGL_WINDOW", "vtkEGLRenderWindow")
            from vtkmodules.vtkRenderingOpenGL2 import vtkEGLRenderWindow

            window = vtkEGLRenderWindow()
            window.SetOffScreenRendering(1)
            window.SetShowWindow(False)
            window.SetMultiSamples(0)
            renderer = vtkRenderer()
            window.AddRenderer(renderer)
            self._window, self._renderer = window, renderer
        except Exception as error:  # no EGL on this machine: the 2D views go on
            self._failed = str(error)
            return False
        return True

    def _place_camera(self) -> None:
        scene = self._scene
        if scene is None:
            return
        if self.center is None:
            self.turn = self._facing()
            if self.turn != self._lit_from:
                self._lit_from = self.turn
                self._forget()
        frame = (scene.low, scene.high, self.width() / max(1, self.height()))
        if self.center is None or self.distance <= 0 or self._whole not in (None, frame):
            # Seen whole, it stays so while it grows, until the eye is moved by hand.
            self.center, self.distance = whole_in_view(*frame[:2], self.turn, self.tilt, frame[2])
            self._whole = frame
        a, b = math.radians(self.turn), math.radians(self.tilt)
        x, y, z = self.center
        eye = (
            x + self.distance * math.cos(a) * math.cos(b),
            y + self.distance * math.sin(a) * math.cos(b),
            z + self.distance * math.sin(b),
        )
        camera = self._renderer.GetActiveCamera()
        camera.SetPosition(*eye)
        camera.SetFocalPoint(*self.center)
        camera.SetViewUp(0, 0, 1)
        camera.SetViewAngle(VIEW_ANGLE)
        hidden: set[Source] = set()
        room = self.document.room.room
        for wall in self.document.room.walls:
            # Into the wall is y of its frame: an eye beyond the wall's face looks through it.
            if wall.frame.into(eye)[1] > 0:
                hidden.add(Kind.WALL.of(wall.id))
                hidden |= {
                    source
                    for source, _ in all_things(room)
                    if SOLIDS[source.kind].shell is not None and wall_of(room, source) == wall.id
                }
        hidden_now = frozenset(hidden)
        if hidden_now != self._hidden_walls:
            self._hidden_walls = hidden_now
            self._dirty_scene = True

    def _forget(self) -> None:
        """Drop every actor, so that all are built anew."""
        for _, actors in self._meshes.values():
            for actor in actors:
                self._renderer.RemoveActor(actor)
        self._meshes = {}
        self._dirty_scene = True

    def _facing(self) -> float:
        """Where the eye stands to face the wall with most furniture, degrees from east, a little to one side."""
        taken = {wall.id: 0.0 for wall in self.document.room.walls}
        for p in self.document.room.placed:
            if p.is_solid and p.wall in taken:
                taken[p.wall] += p.width * p.height
        wall = self.document.room.wall(max(taken, key=lambda wall: taken[wall]))
        x, y = wall.out_of
        return math.degrees(math.atan2(y, x)) + 24.0

    def scene(self) -> Scene:
        """What is shown: the room with its fronts as they are looked at; for the shop, the selected units with their
        holes and grooves, without their fronts."""
        doc = self.document
        layout, made = doc.workings.layout, doc.workings.made
        cells = frozenset(doc.cells) if doc.shop else frozenset()
        scene = visible_scene(doc.job, layout, made, doc.room_id, doc.fronts, cells)
        if not cells:
            return scene
        from dataclasses import replace

        from tall_plank.scene.unitscene import machined_in_room

        more: list[Mesh] = []
        for cell in cells:
            unit, placed = made.of(cell), layout.find(cell)
            if unit is not None and placed is not None and placed.room == doc.room_id:
                more += machined_in_room(unit, placed, doc.job.stock)
        # Several units of one color each have meshes of their own.
        named = [replace(mesh, color=mesh.color + "!" * i) for i, mesh in enumerate(more)]
        return replace(scene, meshes=(*scene.meshes, *named))

    def hidden_sources(self) -> frozenset[Source]:
        """What stands between the eye and the room."""
        return self._hidden_walls

    def marked(self) -> set[Source]:
        """Sources that are outlined."""
        return {s for s in self.document.selection if s.kind in OUTLINED}

    def finish_actor(self, actor: Any, *, edges: bool) -> None:
        """A last hand on an actor before it is shown."""

    def _build(self) -> None:
        """Actors of the scene; a color whose mesh did not change keeps its actor."""
        scene = self.scene()
        self._scene = scene
        self._place_camera()
        seen = set()
        for mesh in scene.meshes:
            mesh = mesh.without(self.hidden_sources())
            if not len(mesh.quads):
                continue
            seen.add(mesh.color)
            kept = self._meshes.get(mesh.color)
            if (
                kept is not None
                and kept[0].sources == mesh.sources
                and kept[0].points.shape == mesh.points.shape
                and len(kept[0].quads) == len(mesh.quads)
                and np.array_equal(kept[0].points, mesh.points)
            ):
                self._meshes[mesh.color] = (mesh, kept[1])
                continue
            if kept is not None:
                for actor in kept[1]:
                    self._renderer.RemoveActor(actor)
            actors = _actors(mesh, self._lit_from)
            for i, actor in enumerate(actors):
                self.finish_actor(actor, edges=i > 0)
                self._renderer.AddActor(actor)
            self._meshes[mesh.color] = (mesh, actors)
        for color in set(self._meshes) - seen:
            for actor in self._meshes.pop(color)[1]:
                self._renderer.RemoveActor(actor)
        self._dirty_scene = False

    def _render_fine(self) -> None:
        """At rest: edges smoothed."""
        self.render_now(fine=True)

    def render_now(self, *, fine: bool = False) -> None:
        """Bring the picture up to date; the light path while things move, the fine one follows at rest."""
        if self.width() < 20 or self.height() < 20 or not self.isVisible() or not self._ready():
            self.update()
            return
        from vtkmodules.util.numpy_support import vtk_to_numpy
        from vtkmodules.vtkCommonCore import vtkUnsignedCharArray

        if self._dirty_scene:
            self._build()
        self._place_camera()
        if self._dirty_scene:
            self._build()
        self._mark_selection()
        ratio = self.devicePixelRatioF()
        w, h = int(self.width() * ratio), int(self.height() * ratio)
        self._window.SetSize(w, h)
        self._renderer.SetBackground(*_rgb(Theme.colors.model))
        self._renderer.ResetCameraClippingRange()
        camera = self._renderer.GetActiveCamera()
        near, far = camera.GetClippingRange()
        # Too near a start of the depths leaves too few of them to tell edges in front from edges behind.
        camera.SetClippingRange(max(near, min(NEAR, self.distance / 4)), far)
        self._renderer.SetUseFXAA(fine)
        self._window.Render()
        if not fine:
            self._rest.start()
        pixels = vtkUnsignedCharArray()
        self._window.GetRGBACharPixelData(0, 0, w - 1, h - 1, 1, pixels)
        data = vtk_to_numpy(pixels).reshape(h, w, 4)[::-1].copy()
        image = QImage(data.tobytes(), w, h, 4 * w, QImage.Format.Format_RGBX8888).copy()
        image.setDevicePixelRatio(ratio)
        self._image = image
        self.update()
        self.drawn.emit()

    def _mark_selection(self) -> None:
        """Outlines about the selected things."""
        for actor in getattr(self, "_marks", []):
            self._renderer.RemoveActor(actor)
        self._marks = []
        wanted = self.marked()
        if not wanted:
            return
        from vtkmodules.vtkFiltersSources import vtkOutlineSource
        from vtkmodules.vtkRenderingCore import vtkActor, vtkPolyDataMapper

        boxes: dict[Source, Any] = {}
        for mesh, _ in self._meshes.values():
            for i, source in enumerate(mesh.sources):
                if source in wanted:
                    p = mesh.points[mesh.point_owner == i]
                    low, high = p.min(axis=0), p.max(axis=0)
                    if source in boxes:
                        low, high = np.minimum(boxes[source][0], low), np.maximum(boxes[source][1], high)
                    boxes[source] = (low, high)
        for low, high in boxes.values():
            outline = vtkOutlineSource()
            outline.SetBounds(low[0] - 3, high[0] + 3, low[1] - 3, high[1] + 3, low[2] - 3, high[2] + 3)
            mapper = vtkPolyDataMapper()
            mapper.SetInputConnection(outline.GetOutputPort())
            actor = vtkActor()
            actor.SetMapper(mapper)
            actor.GetProperty().SetColor(*_rgb(Theme.colors.spruce))
            actor.GetProperty().SetLineWidth(3)
            actor.GetProperty().LightingOff()
            self._renderer.AddActor(actor)
            self._marks.append(actor)

    # --- view

    def fit(self) -> None:
        """Show the whole room."""
        self.center, self.distance = None, 0.0
        self._timer.start()

    def zoom(self, factor: float, about: QPointF | None = None) -> None:
        self._whole = None
        self.distance = min(max(self.distance / factor, 300.0), 60_000.0)
        self._timer.start()

    def resizeEvent(self, event: object) -> None:
        self._timer.start()

    def showEvent(self, event: object) -> None:
        self._timer.start()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), Theme.color("model"))
        if self._image is not None:
            painter.drawImage(0, 0, self._image)
            self._paint_clear(painter)
        else:
            painter.setFont(font(12))
            painter.setPen(Theme.color("quiet"))
            text = tr("The model cannot be drawn on this machine.") if self._failed else tr("Drawing the model…")
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, text)
        painter.end()

    def _paint_clear(self, painter: QPainter) -> None:
        """Clear distances of the selected unit to its neighbours, as in the other views."""
        doc = self.document
        if len(doc.cells) != 1 or self._renderer is None or self._scene is None:
            return
        placed = doc.workings.layout.find(doc.cells[0])
        if placed is None or placed.room != doc.room_id or not placed.is_solid:
            return
        if doc.bay is not None:
            self._paint_bay(painter, placed)
            return
        clear = clear_of(doc.room, placed)
        w, h, y = placed.width, placed.height, -placed.depth - 20.0
        lines = (
            (clear.left, (0.0, y, h / 2), (-clear.left, y, h / 2)),
            (clear.right, (w, y, h / 2), (w + clear.right, y, h / 2)),
            (clear.below if placed.level == "hung" else 0.0, (w / 2, y, 0.0), (w / 2, y, -clear.below)),
            (clear.above if placed.level == "hung" else 0.0, (w / 2, y, h), (w / 2, y, h + clear.above)),
        )
        color = Theme.color("brass")
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(font(12))
        for mm, start, end in lines:
            if mm < 0.5:
                continue
            a, b = self.on_screen(placed.frame.out(start)), self.on_screen(placed.frame.out(end))
            painter.setPen(QPen(color, 1.4))
            painter.drawLine(a, b)
            text = format_length(mm, doc.job.display)
            middle = (a + b) / 2
            width = painter.fontMetrics().horizontalAdvance(text) + 6
            painter.fillRect(QRectF(middle.x() - width / 2, middle.y() - 8, width, 16), Theme.color("model"))
            painter.drawText(QPointF(middle.x() - width / 2 + 3, middle.y() + 5), text)

    def _paint_bay(self, painter: QPainter, placed: Placed) -> None:
        """The bay that is worked on, with its clear width and height."""
        box = self.document.bay_box(self.document.bay or ())
        if box is None:
            return
        r, y = box.clear, -placed.depth
        corners = [(r.x0, y, r.z0), (r.x1, y, r.z0), (r.x1, y, r.z1), (r.x0, y, r.z1)]
        points = [self.on_screen(placed.frame.out(c)) for c in corners]
        color = Theme.color("brass")
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(color, 2.0))
        fill = Theme.color("brass")
        fill.setAlphaF(0.14)
        painter.setBrush(fill)
        painter.drawPolygon(QPolygonF(points))
        painter.setFont(font(12))
        middle = points[0] + (points[2] - points[0]) / 2
        display = self.document.job.display
        text = f"{format_length(r.width, display)} × {format_length(r.height, display)}"
        width = painter.fontMetrics().horizontalAdvance(text) + 8
        painter.fillRect(QRectF(middle.x() - width / 2, middle.y() - 9, width, 18), Theme.color("model"))
        painter.drawText(QPointF(middle.x() - width / 2 + 4, middle.y() + 5), text)

    # --- from the screen into the room and back

    def ray(self, p: QPointF) -> tuple[Any, Any] | None:
        """Start and direction, in the room, of the line of sight through a point of the widget."""
        if self._renderer is None:
            return None
        ratio = self.devicePixelRatioF()
        ends = []
        for depth in (0.0, 1.0):
            self._renderer.SetDisplayPoint(p.x() * ratio, (self.height() - p.y()) * ratio, depth)
            self._renderer.DisplayToWorld()
            x, y, z, w = self._renderer.GetWorldPoint()
            ends.append(np.array([x, y, z]) / w)
        return ends[0], ends[1] - ends[0]

    def on_floor(self, p: QPointF, height: float = 0.0) -> tuple[float, float] | None:
        """The place on the floor (or at a height above it) that is seen under a point of the widget, mm."""
        sight = self.ray(p)
        if sight is None or abs(sight[1][2]) < 1e-9:
            return None
        t = (height - sight[0][2]) / sight[1][2]
        if t <= 0:
            return None
        at = sight[0] + t * sight[1]
        return float(at[0]), float(at[1])

    def along(self, p: QPointF, wall: Wall, out: float) -> float | None:
        """Where along a line the sight through a point of the widget meets the upright plane `out` before it, mm."""
        sight = self.ray(p)
        if sight is None:
            return None
        normal = np.array(wall.frame.y)
        start = np.array(wall.frame.out((0.0, -out, 0.0)))
        facing = float(sight[1] @ normal)
        if abs(facing) < 1e-9:
            return None
        at = sight[0] + float((start - sight[0]) @ normal) / facing * sight[1]
        return wall.frame.into((float(at[0]), float(at[1]), float(at[2])))[0]

    def on_screen(self, point: tuple[float, float, float]) -> QPointF:
        """Where a point of the room is drawn in the widget."""
        self._renderer.SetWorldPoint(*point, 1.0)
        self._renderer.WorldToDisplay()
        x, y, _ = self._renderer.GetDisplayPoint()
        ratio = self.devicePixelRatioF()
        return QPointF(x / ratio, self.height() - y / ratio)

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
        start = placed.frame.into(_vec(sight[0]))
        end = placed.frame.into(_vec(sight[0] + sight[1]))
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
            at = self.along(p, layout.wall, placed.depth)
            if at is not None:
                index = sum(c.x + c.width / 2 < at for c in layout.cells if c.cell != held.id)
                doc.drag(lambda job: runs.move_cell(job, held.id, index))
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
        place = self.on_floor(p) or (0.0, 0.0)
        if source is not None and source.kind is Kind.WALL:
            wall = self.document.room.wall(source.id)
            at = self.along(p, wall, 0.0)
            self.place_wanted.emit(code, source.id, min(max(0.0, at or 0.0), wall.length), place)
            return
        line, at = nearest_line(self.document.room, *place)
        self.place_wanted.emit(code, line, at, place)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        assert event is not None
        self.zoom(1.0012 ** event.angleDelta().y())

    def source_at(self, p: QPointF) -> Source | None:
        """What is seen under a point of the widget."""
        if self._window is None:
            return None
        from vtkmodules.vtkRenderingCore import vtkCellPicker

        picker = vtkCellPicker()
        picker.SetTolerance(0.0005)
        ratio = self.devicePixelRatioF()
        picker.Pick(p.x() * ratio, (self.height() - p.y()) * ratio, 0, self._renderer)
        actor = picker.GetActor()
        for mesh, actors in self._meshes.values():
            if actor is actors[0]:
                owner: int = mesh.quad_owner[picker.GetCellId()]
                return mesh.sources[owner]
        return None

    def close_view(self) -> None:
        """Let the off-screen window go."""
        if self._window is not None:
            self._window.Finalize()
            self._window = None


def _actors(mesh: Mesh, facing: float) -> list[Any]:
    """Faces with shade baked in, and their edges."""
    from vtkmodules.util.numpy_support import numpy_to_vtk, numpy_to_vtkIdTypeArray
    from vtkmodules.vtkCommonCore import vtkPoints
    from vtkmodules.vtkCommonDataModel import vtkCellArray, vtkPolyData
    from vtkmodules.vtkRenderingCore import vtkActor, vtkPolyDataMapper

    points = vtkPoints()
    points.SetData(numpy_to_vtk(mesh.points.astype(np.float32), deep=True))

    def cells(array: Any) -> Any:
        flat = np.hstack([np.full((len(array), 1), array.shape[1], dtype=np.int64), array]).reshape(-1)
        made = vtkCellArray()
        ids = numpy_to_vtkIdTypeArray(np.ascontiguousarray(flat), deep=True)
        made.ImportLegacyFormat(ids)
        return made

    faces = vtkPolyData()
    faces.SetPoints(points)
    faces.SetPolys(cells(mesh.quads))
    colors = numpy_to_vtk(_shaded(mesh, facing), deep=True)
    faces.GetCellData().SetScalars(colors)
    mapper = vtkPolyDataMapper()
    mapper.SetInputData(faces)
    mapper.SetResolveCoincidentTopologyToPolygonOffset()
    mapper.SetRelativeCoincidentTopologyPolygonOffsetParameters(1.0, 1.0)
    body = vtkActor()
    body.SetMapper(mapper)
    body.GetProperty().LightingOff()
    body.GetProperty().BackfaceCullingOn()

    outline = vtkPolyData()
    outline.SetPoints(points)
    outline.SetLines(cells(mesh.lines))
    edge_mapper = vtkPolyDataMapper()
    edge_mapper.SetInputData(outline)
    edge_mapper.SetRelativeCoincidentTopologyLineOffsetParameters(0.0, -6.0)
    edges = vtkActor()
    edges.SetMapper(edge_mapper)
    r, g, b = _rgb(mesh.color)
    edges.GetProperty().SetColor(r * 0.55, g * 0.55, b * 0.55)
    edges.GetProperty().LightingOff()
    edges.SetPickable(False)
    return [body, edges]
