"""The picture of the model: VTK drawn off screen and painted as an image; from the screen into the room and back."""

from __future__ import annotations

import math
import os
import time
from typing import Any

import numpy as np
from PyQt6.QtCore import QPointF, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import (
    QImage,
    QPainter,
    QPaintEvent,
)
from PyQt6.QtWidgets import QWidget

from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.model.document import Document
from tall_plank.desk.things.table import HANDLING
from tall_plank.desk.views.modelmarks import paint_faults, paint_selected
from tall_plank.desk.views.modelmesh import VIEW_ANGLE, actors_of, rgb_of, whole_in_view
from tall_plank.job import Kind, Source
from tall_plank.job.things.table import all_things, wall_of
from tall_plank.measure.frames import FloorPoint, room_point
from tall_plank.scene import Mesh, Scene, visible_scene
from tall_plank.setout import Wall
from tall_plank.solids.things.table import SOLIDS

NEAR = 600.0
"""mm before the eye where the picture begins at least."""


AT_LEAST = 0.1
"""Seconds from one picture to the next while the job changes again and again; while something is dragged, none."""

FIRST_AFTER = 40
"""ms that the first picture waits, so that the window and its drawings are painted before VTK is imported."""


OUTLINED = {Kind.CELL, Kind.RUN, *(kind for kind, handling in HANDLING.items() if handling.outlined)}


class ModelPicture(QWidget):
    """The room in three dimensions. Walls between the eye and the room are left out."""

    drawn = pyqtSignal()

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
        self._room = document.room_id
        self._dirty_scene = True
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(FIRST_AFTER)
        self._timer.timeout.connect(lambda: self.render_now())
        self._drawn_at = 0.0
        """When it was drawn last, seconds of the clock that counts on; 0: not yet."""
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(160)
        self._rest.timeout.connect(self._render_fine)

    def sizeHint(self) -> QSize:
        return QSize(440, 320)

    def refresh(self) -> None:
        """The job changed: draw again as soon as the 2D views have painted. Another room is looked at as a whole."""
        if self.document.room_id != self._room:
            self._room = self.document.room_id
            self.center, self.distance = None, 0.0
        self._dirty_scene = True
        if self._drawn_at and self.document.drag_from is None:
            # A held key changes the job thirty times a second: the picture follows as fast as it can be looked at.
            since = time.perf_counter() - self._drawn_at
            self._timer.setInterval(max(0, round((AT_LEAST - since) * 1000)))
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
            if wall.frame.into(room_point(eye))[1] > 0:
                hidden.add(Kind.WALL.of(wall.id))
                hidden |= {
                    source
                    for source, _ in all_things(room)
                    if (SOLIDS[source.kind].shell is not None or SOLIDS[source.kind].on_face)
                    and wall_of(room, source) == wall.id
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
            if p.is_solid and p.wall_id in taken:
                taken[p.wall_id] += p.width * p.height
        for laid in self.document.room.fields:
            taken[laid.wall_id] = taken.get(laid.wall_id, 0.0) + laid.area
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
            actors = actors_of(mesh, self._lit_from)
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

        self._drawn_at = time.perf_counter()
        self._timer.setInterval(0)
        if self._dirty_scene:
            self._build()
        self._place_camera()
        if self._dirty_scene:
            self._build()
        self._mark_selection()
        ratio = self.devicePixelRatioF()
        w, h = int(self.width() * ratio), int(self.height() * ratio)
        self._window.SetSize(w, h)
        self._renderer.SetBackground(*rgb_of(Theme.colors.model))
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
            actor.GetProperty().SetColor(*rgb_of(Theme.colors.spruce))
            actor.GetProperty().SetLineWidth(3)
            actor.GetProperty().LightingOff()
            self._renderer.AddActor(actor)
            self._marks.append(actor)

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
            if self._renderer is not None and self._scene is not None:
                self.paint_over(painter)
        else:
            painter.setFont(font(12))
            painter.setPen(Theme.color("quiet"))
            text = tr("The model cannot be drawn on this machine.") if self._failed else tr("Drawing the model…")
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, text)
        painter.end()

    def paint_over(self, painter: QPainter) -> None:
        """What stands over the picture."""
        paint_faults(painter, self.document, self.on_screen)
        paint_selected(painter, self.document, self.on_screen)

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

    def on_floor(self, p: QPointF, height: float = 0.0) -> FloorPoint | None:
        """The place on the floor (or at a height above it) that is seen under a point of the widget, mm."""
        sight = self.ray(p)
        if sight is None or abs(sight[1][2]) < 1e-9:
            return None
        t = (height - sight[0][2]) / sight[1][2]
        if t <= 0:
            return None
        at = sight[0] + t * sight[1]
        return FloorPoint((float(at[0]), float(at[1])))

    def along(self, p: QPointF, wall: Wall, out: float) -> float | None:
        """Where along a line the sight through a point of the widget meets the upright plane `out` before it, mm."""
        sight = self.ray(p)
        if sight is None:
            return None
        normal = np.array(wall.frame.y)
        start = np.array(wall.frame.at(0.0, -out, 0.0))
        facing = float(sight[1] @ normal)
        if abs(facing) < 1e-9:
            return None
        at = sight[0] + float((start - sight[0]) @ normal) / facing * sight[1]
        return wall.frame.into(room_point(at))[0]

    def on_screen(self, point: tuple[float, float, float]) -> QPointF:
        """Where a point of the room is drawn in the widget."""
        self._renderer.SetWorldPoint(*point, 1.0)
        self._renderer.WorldToDisplay()
        x, y, _ = self._renderer.GetDisplayPoint()
        ratio = self.devicePixelRatioF()
        return QPointF(x / ratio, self.height() - y / ratio)

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
