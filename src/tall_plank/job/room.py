"""A room: its outline, walls and ceiling, what is placed in it (a kind each in `things/`), and its runs."""

from __future__ import annotations

import msgspec

from tall_plank.job.run import Run
from tall_plank.job.things.column import FACES, Column, face_id
from tall_plank.job.things.detail import Detail
from tall_plank.job.things.dimension import Dimension
from tall_plank.job.things.guide import Guide
from tall_plank.job.things.island import Island
from tall_plank.job.things.molding import RoomMolding
from tall_plank.job.things.note import Note
from tall_plank.job.things.opening import Opening
from tall_plank.job.things.roof_window import RoofWindow
from tall_plank.job.things.section import Section
from tall_plank.job.things.service import Service
from tall_plank.job.things.slope import Slope
from tall_plank.job.things.soffit import Soffit
from tall_plank.job.things.underlay import Underlay
from tall_plank.job.things.wall_field import WallField
from tall_plank.measure import Length


class Rectangle(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True, tag="rectangle"):
    """A rectangular floor: `width` along x (walls A and C), `depth` along y (walls B and D), inside dimensions."""

    width: Length
    depth: Length


class Side(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A wall of an outline.

    Attributes
    ----------
    id : the wall's letter; it stays the same when corners are added elsewhere
    length : inside length; two sides of an outline have none and take what closes it
    angle : degrees inside the room at the side's end: 90 a square corner, 270 an outer one
    """

    id: str
    length: Length | None
    angle: float = 90.0


class Sides(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True, tag="sides"):
    """An outline of straight sides, clockwise seen from above.

    The angle of the last side follows from the others. `heading` is where the first side runs, in degrees
    counter-clockwise from east. The outline lies so that its least x and y are 0.
    """

    sides: tuple[Side, ...]
    heading: float = 0.0


class WallOwn(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """What one wall has of its own; what is None is the room's."""

    wall: str
    thickness: Length | None = None
    height: Length | None = None


class Room(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """One room with its runs. Walls are lettered clockwise from the north: A, B, C, D."""

    id: str
    name: str
    outline: Rectangle | Sides
    height: Length
    wall_thickness: Length
    openings: tuple[Opening, ...] = ()
    runs: tuple[Run, ...] = ()
    use: str = ""
    walls: tuple[WallOwn, ...] = ()
    slopes: tuple[Slope, ...] = ()
    soffits: tuple[Soffit, ...] = ()
    columns: tuple[Column, ...] = ()
    services: tuple[Service, ...] = ()
    moldings: tuple[RoomMolding, ...] = ()
    islands: tuple[Island, ...] = ()
    roof_windows: tuple[RoofWindow, ...] = ()
    guides: tuple[Guide, ...] = ()
    underlays: tuple[Underlay, ...] = ()
    details: tuple[Detail, ...] = ()
    sections: tuple[Section, ...] = ()
    dimensions: tuple[Dimension, ...] = ()
    notes: tuple[Note, ...] = ()
    fields: tuple[WallField, ...] = ()

    def wall_ids(self) -> tuple[str, ...]:
        """Letters of the walls, clockwise."""
        return ("A", "B", "C", "D") if isinstance(self.outline, Rectangle) else tuple(s.id for s in self.outline.sides)

    def line_ids(self) -> tuple[str, ...]:
        """Letters of the walls and names of the faces of islands."""
        return (*self.wall_ids(), *(f"{i.letter}{n}" for i in self.islands for n in (1, 2)))

    def surface_ids(self) -> tuple[str, ...]:
        """What a wall field may lie on: walls, faces of islands and of columns."""
        return (*self.line_ids(), *(face_id(c, face) for c in self.columns for face in FACES))

    def island(self, island_id: str) -> Island | None:
        return next((i for i in self.islands if i.id == island_id), None)

    def island_of(self, face: str) -> Island | None:
        """The island that a face (such as K2) belongs to."""
        return next((i for i in self.islands if face in (f"{i.letter}1", f"{i.letter}2")), None)
