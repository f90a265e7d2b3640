"""A room: outline, walls, ceiling, openings, columns, soffits, services, moldings, islands, and the runs in it."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.run import Run, Top
from tall_plank.measure import Length

ZERO = Length("0mm", 0.0)


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


class Slope(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A ceiling that slopes down to a wall: `low` at the wall, the room's height at `run` from it."""

    id: str
    wall: str
    low: Length
    run: Length


class RoofWindow(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A window in a sloped ceiling.

    Attributes
    ----------
    slope : id of the slope that it lies in
    x : of its left side from the left end of the slope's wall, seen from inside
    sill : height of its lower edge above the floor
    length : up the slope, along its pitch
    """

    id: str
    slope: str
    x: Length
    width: Length
    sill: Length
    length: Length


class Guide(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A line of the designer's own to set things out by; drawn on screen, on no paper.

    Attributes
    ----------
    axis : z level at a height, through every wall; x upright on a wall, or across the plan; y across the plan
    at : from the wall's left end, the floor, or the plan's west or south side
    wall : of an upright line on a wall; empty: on the plan
    """

    id: str
    axis: Literal["x", "y", "z"]
    at: Length
    wall: str = ""


class Underlay(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """An image of a plan under the drawing, to trace over.

    Attributes
    ----------
    image : name of the picture among the job's images
    x, y : the room's place of its lower left corner
    width : what the image's width stands for
    turn : degrees counter-clockwise about its lower left corner
    """

    id: str
    image: str
    x: Length
    y: Length
    width: Length
    turn: float = 0.0
    shown: bool = True


class Corner(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A point on the floor, in the room's frame."""

    x: Length
    y: Length


class Soffit(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A boxed-down piece of ceiling: its outline, and how far it comes down below the ceiling.

    Attributes
    ----------
    over : id of a run that it stands on; outline and drop then follow its units, notched round taller ones
    reveal : how far its face is set in behind the fronts of those units
    """

    id: str
    corners: tuple[Corner, ...]
    drop: Length
    over: str = ""
    reveal: Length = ZERO


class Column(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A pier or chimney breast against a wall, or a column that stands free.

    Attributes
    ----------
    wall : the wall it stands against; empty: it stands free
    x : from the wall's left end to its left side, or the room's x of its left lower corner
    y : the room's y of that corner where it stands free
    width, depth : along the wall and out of it (along x and y where it stands free)
    height : None reaches the ceiling
    """

    id: str
    kind: Literal["column", "chimney breast"]
    wall: str
    x: Length
    width: Length
    depth: Length
    y: Length = ZERO
    height: Length | None = None


OpeningKind = Literal["door", "window", "arch", "niche"]


class Opening(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A door, window, open passage or niche in a wall.

    Attributes
    ----------
    x : of its left side from the wall's left end, seen from inside
    sill : height of its underside above the floor (0 for a door)
    hand : side of the hinges seen from inside the room
    swing : whether a door opens into the room or out of it
    reveal : from the wall's face back to the frame
    depth : how far a niche goes into the wall
    """

    id: str
    wall: str
    kind: OpeningKind
    x: Length
    width: Length
    height: Length
    sill: Length
    hand: Literal["left", "right"] = "left"
    swing: Literal["in", "out"] = "in"
    reveal: Length = ZERO
    depth: Length = ZERO


ServiceKind = Literal["water", "waste", "power", "gas", "vent"]


class Service(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A service point on a wall (x from its left end), or on the floor (wall empty: x and y in the room)."""

    id: str
    kind: ServiceKind
    wall: str
    x: Length
    height: Length
    y: Length = ZERO


MoldingKind = Literal["skirting", "dado rail", "picture rail", "cornice"]


class RoomMolding(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A molding round the room.

    Attributes
    ----------
    profile : code of its profile in the stock
    height : off the floor, to the edge that `edge` names; None: a skirting stands on the floor, a cornice under the
        ceiling
    walls : letters of the walls it runs on; empty: all
    by_others : drawn, but in no list and no price
    """

    id: str
    kind: MoldingKind
    profile: str
    height: Length | None = None
    edge: Literal["top", "bottom"] = "top"
    walls: tuple[str, ...] = ()
    by_others: bool = True


EndKind = Literal["open", "panel", "waterfall"]


class Island(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A free line with two faces, or a peninsula.

    Attributes
    ----------
    letter : its faces are this letter with 1 and 2
    x, y : the left end of its line, seen from face 1, in the room's frame
    angle : where the line runs, degrees counter-clockwise from east
    wall : a peninsula's wall: the line then starts at `x` along that wall and runs square into the room
    length : of the whole island, panels at its ends included
    gap : clear space between the backs of both faces
    left, right : what closes each end, seen from face 1
    back : whether a face without units is closed by a panel
    spine : a dividing panel between the two faces
    seating : how far the worktop reaches past the back face for people to sit at
    """

    id: str
    letter: str
    x: Length
    y: Length
    length: Length
    angle: float = 0.0
    wall: str = ""
    gap: Length = ZERO
    left: EndKind = "panel"
    right: EndKind = "panel"
    back: bool = True
    spine: bool = False
    seating: Length = ZERO
    top: Top = Top()


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

    def wall_ids(self) -> tuple[str, ...]:
        """Letters of the walls, clockwise."""
        return ("A", "B", "C", "D") if isinstance(self.outline, Rectangle) else tuple(s.id for s in self.outline.sides)

    def island(self, island_id: str) -> Island | None:
        return next((i for i in self.islands if i.id == island_id), None)

    def island_of(self, face: str) -> Island | None:
        """The island that a face (such as K2) belongs to."""
        return next((i for i in self.islands if face in (f"{i.letter}1", f"{i.letter}2")), None)
