"""The frieze of walls: every wall of the room unfolded side by side at one scale, and which wall is worked on."""

from __future__ import annotations

import msgspec
from PyQt6.QtCore import QPointF

from tall_plank.desk.model.document import Document
from tall_plank.desk.views.canvas import Canvas, Placed
from tall_plank.desk.views.guidelines import GuideLine, on_strip
from tall_plank.desk.views.settling import Settling
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.primitives import Drawing
from tall_plank.drawing.shows import exactly
from tall_plank.drawing.things.wall_field import covered_fronts
from tall_plank.job import Kind, Source
from tall_plank.job.things.table import THINGS, wall_of
from tall_plank.making import MadeUnit
from tall_plank.setout import Placed as PlacedUnit
from tall_plank.setout import Wall
from tall_plank.setout.layout import neighbours

FOLD = 220.0
"""mm shown between two walls of the frieze, so that their ends can be told apart."""

FOLD_WITH_DIMS = 1100.0


def _other_face(wall: Wall) -> tuple[str, ...]:
    """Both faces of the island that a face belongs to."""
    return (f"{wall.id[:-1]}1", f"{wall.id[:-1]}2") if wall.island else ()


class Frieze(Canvas):
    """The walls of a room in one row, from the left."""

    margin = (62.0, 34.0, 24.0, 12.0)

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.dims_shown = False
        self.stage = "units"
        self._drawn: dict[str, tuple[object, Drawing]] = {}
        self._exact: set[str] = set()
        self.settling = Settling(self, self._settle_one, lambda: document.drag_from is not None)

    def refresh_selection(self) -> None:
        """Show what is selected."""

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
        bare = msgspec.structs.replace(room.room, runs=(), moldings=(), fields=())
        fields = tuple(t for t in made.trims if t.kind == "wall field" and t.room == doc.room_id)
        own = {w.id: {w.id, *_other_face(w)} for w in room.lines}
        units = {p.cell: m for r in made.rooms for p, m in r.units if p.room == doc.room_id}
        labels: dict[str, list[object]] = {w.id: [] for w in room.lines}
        for run in room.room.runs:
            if run.wall in labels:
                labels[run.wall] += [(c.label, c.hidden, bool(doc.job.unit(c.unit).own)) for c in run.cells]
        for line in labels.values():
            line.append(doc.job.labels)
        for wall in room.lines:
            # The covered fronts of its columns show on a wall too.
            fronts = [face for face, _, _ in covered_fronts(room, wall)]
            frames, faces = {wall.frame, *(f.frame for f in fronts)}, {wall.id, *(f.id for f in fronts)}
            key = (
                wall, doc.room_id, doc.job.display, doc.job.stock,
                tuple((p, units.get(p.cell)) for p in room.placed if p.wall_id in own[wall.id]),
                tuple(t for t in room.worktops if t.wall_id in own[wall.id]),
                tuple(b for b in room.boards if b.wall_id in own[wall.id]),
                self._ends(wall, units),
                tuple(m for m in room.all_moldings if m.wall_id == wall.id),
                tuple(d for d in made.sliding if d.wall_id == wall.id and d.room == doc.room_id),
                tuple((t.parent, t.part) for t in fields if t.parent in frames),
                tuple(f for f in made.fields if f.wall_id in faces),
                bare, labels[wall.id], self.dims_shown, doc.fronts == "closed", doc.shop,
            )  # fmt: skip
            kept = self._drawn.get(wall.id)
            if kept is None or kept[0] != key:
                drawn = elevation(doc.job, room, wall, made, shows=doc.shows(dims=self.dims_shown))
                self._drawn[wall.id] = (key, drawn)
                self._exact.discard(wall.id)
        self._place()
        self.refresh_selection()
        self.settling.wait()

    def _place(self) -> None:
        placed = []
        x = 0.0
        for wall in self.document.room.lines:
            placed.append(Placed(x, 0.0, self._drawn[wall.id][1]))
            x += wall.length + self.fold
        self.set_placed(placed)

    def _settle_one(self) -> bool:
        """Work out the hidden lines of one wall that was painted; the one that is worked on first."""
        doc = self.document
        room = doc.room
        first = self.current_wall()
        left = [wall for wall in room.lines if wall.id in self._drawn and wall.id not in self._exact]
        if not left:
            return False
        wall = next((wall for wall in left if wall.id == first), left[0])
        shows = exactly(doc.shows(dims=self.dims_shown))
        drawn = elevation(doc.job, room, wall, doc.workings.made, shows=shows)
        self._drawn[wall.id] = (self._drawn[wall.id][0], drawn)
        self._exact.add(wall.id)
        self._place()
        return True

    def _ends(self, wall: Wall, units: dict[str, MadeUnit]) -> tuple[object, ...]:
        """What of the next walls shows on this one: their outermost units and worktops."""
        room = self.document.room
        found: list[object] = []
        for side, neighbour in neighbours(room, wall):
            for run in room.runs:
                if run.wall is neighbour and run.cells:
                    p = run.cells[-1] if side == "left" else run.cells[0]
                    found.append((p, units.get(p.cell)))
            tops = [t for t in room.worktops if t.wall_id == neighbour.id]
            if tops:
                t = max(tops, key=lambda t: t.x + t.length) if side == "left" else min(tops, key=lambda t: t.x)
                found.append(t)
        return tuple(found)

    def current_wall(self) -> str:
        """The wall or face of the selection; without one that which was worked on last, else the first."""
        room, worked = self.document.room, self.document.worked_on
        for source in self.document.selection:
            wall = self._wall_of(source)
            if source.kind is Kind.ISLAND and self._of_island(worked.get(room.room.id, ""), source):
                return worked[room.room.id]
            if wall and room.has_line(wall):
                worked[room.room.id] = wall
                return wall
        last = worked.get(room.room.id, "")
        return last if room.has_line(last) else room.walls[0].id

    def _of_island(self, line: str, source: Source) -> bool:
        """Whether a line is a face of an island."""
        return any(f.id == line and f.island == source.id for f in self.document.room.faces)

    def _wall_of(self, source: Source) -> str:
        """The wall or face that something stands on; empty where it is on none of this room."""
        doc = self.document
        match source.kind:
            case Kind.WALL:
                return source.id
            case Kind.ISLAND:
                return next((f.id for f in doc.room.faces if f.island == source.id), "")
            case Kind.SLIDING:
                return next((d.wall_id for d in doc.workings.made.sliding if d.source == source), "")
            case Kind.CELL:
                found = doc.workings.layout.find(source.id)
                return found.wall_id if found is not None and found.room == doc.room_id else ""
            case Kind.RUN:
                run = doc.workings.layout.run(source.id)
                return run.wall.id if run is not None else ""
        return wall_of(doc.room.room, source) if source.kind in THINGS else ""

    def wall_x(self, wall_id: str) -> float:
        """mm of a wall's left end in the frieze."""
        x = 0.0
        for w in self.document.room.lines:
            if w.id == wall_id:
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
