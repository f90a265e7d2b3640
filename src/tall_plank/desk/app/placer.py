"""Putting what the shelf offers into the room: kinds of units, things of the room, finishes, what was kept."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.views.shelf import Shelf
from tall_plank.desk.views.strip import Strip
from tall_plank.edits import hanging, units
from tall_plank.edits.library import place_saved
from tall_plank.edits.things.common import Spot
from tall_plank.edits.things.table import add_thing
from tall_plank.files.library import kept
from tall_plank.job import Kind, Role
from tall_plank.job.things.table import THINGS


class Placer:
    """Makes the step that a drop, an Enter or a command of the shelf means at a stage."""

    def __init__(self, document: Document, strip: Strip, shelf: Shelf) -> None:
        self.document, self.strip, self.shelf = document, strip, shelf
        self.stage = "units"

    def use(self, code: str) -> None:
        """Enter or double click on the shelf: put it after the selection, or set the finish."""
        wall = self.strip.current_wall()
        after = self.document.cells[-1] if self.document.cells else ""
        self.place(code, wall, after=after)

    def place(
        self,
        code: str,
        wall_id: str,
        x: float | None = None,
        *,
        after: str = "",
        at: tuple[float, float] | None = None,
        z: float | None = None,
    ) -> None:
        """Put something of the shelf on a line: a finish, a thing of the room, something saved, or a kind of unit.

        Parameters
        ----------
        x : mm along the line where it was dropped; without it, it goes after a cell or to the end
        at : place on the floor where it was dropped on the plan
        z : mm above the floor where it was dropped
        """
        doc = self.document
        kind, _, name = code.partition(":")
        if self.stage == "finish" and kind not in ("room", "saved"):
            self.set_finish(Role(kind), name)
        elif kind == "room":
            self.in_room(name, wall_id, x, at)
        elif code in ("door", "window") and self.stage == "room":
            self.in_room(code, wall_id, x)
        elif kind == "saved":
            self.place_saved(name, wall_id, after, at)
        elif x is None:
            doc.do(lambda job: hanging.put(job, doc.room_id, wall_id, code, after=after))
        else:
            # On the plan a drop says no height: then it is that of the run.
            height = z if z is not None else doc.job.value("hung_bottom")
            doc.do(lambda job: hanging.drop(job, doc.room_id, wall_id, code, x, height))

    def place_saved(self, name: str, wall_id: str, after: str, at: tuple[float, float] | None) -> None:
        """Place something of the library."""
        found = next((k for k in kept(self.document.folders)[0] if k.path.name == name), None)
        if found is None:
            self.document.told.emit(tr("It is no longer in the library."), "wrong")
            self.shelf.library_changed()
            return
        text, room = found.text, self.document.room_id
        self.document.do(lambda job: place_saved(job, text, room, wall_id, at, after))

    def set_finish(self, role: Role, finish: str) -> None:
        """For the selected units, or the whole job where none is selected or the role belongs to no unit."""
        doc = self.document
        if doc.cells and role in (Role.FRONT, Role.CARCASS):
            doc.do(lambda job: units.set_own(job, doc.cells, f"finish_{role.value}", finish))
        else:
            doc.do(lambda job: units.set_scheme_finish(job, role, finish))

    def in_room(
        self, name: str, wall_id: str = "", x: float | None = None, at: tuple[float, float] | None = None
    ) -> None:
        """Put something of the Room stage on a wall (the one worked on, or a given one) or on the floor."""
        doc = self.document
        line = wall_id or self.strip.current_wall()
        things = tuple(s for s in doc.selection if s.kind in THINGS)
        face = doc.room.wall(line)
        if face.is_face:
            # What goes on no face goes on the first wall; what covers a face of a column covers the column.
            line, x = doc.room.walls[0].id, None
            things = (Kind.COLUMN.of(face.column),) if face.column else ()
        spot = Spot(doc.room_id, line, x, at, doc.cells, things)
        doc.do(lambda job: add_thing(job, name, spot))
