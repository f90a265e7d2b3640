"""What stands in a room, as upright things seen from above: units with their fronts and handles, boards, walls,
columns, and where doors of the room swing."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from tall_plank.job import Body, Kind
from tall_plank.making import MadeUnit
from tall_plank.making.faceplane import FacePlane
from tall_plank.making.made import MadeRoom, MadeTrim
from tall_plank.making.opening import ways_of
from tall_plank.making.ways import Thing, Way, outline_of
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import FloorPoints, RoomFrame
from tall_plank.measure.remembered import remembered
from tall_plank.setout import Placed, RoomLayout
from tall_plank.setout.things.column import column_height, column_points
from tall_plank.setout.things.opening import swing_points
from tall_plank.stock import Stock


class Standing(NamedTuple):
    """Something that stands in the room.

    Attributes
    ----------
    name : what it is called in a snag
    cell : of its unit; empty for what is none
    points : its outline in the room's plan, mm
    bottom, top : mm above the floor
    swings : it is not there always: where a door of the room opens
    """

    name: str
    cell: str
    points: FloorPoints
    bottom: float
    top: float
    swings: bool = False


Bounds = NDArray[np.float64]
"""(n, 6): least x, y, z and greatest x, y, z of upright boxes in the room, mm."""

WALL = 40.0
"""mm behind its face that a wall is taken for solid."""


def bounds_of(things: tuple[Standing, ...]) -> Bounds:
    """The upright boxes about some things."""
    rows = []
    for t in things:
        x0, y0, x1, y1 = ol.bounds(t.points)
        rows.append((x0, y0, t.bottom, x1, y1, t.top))
    return np.array(rows).reshape(-1, 6)


@remembered(64)
def standing_in_room(room: RoomLayout, made: MadeRoom, stock: Stock) -> tuple[tuple[Standing, ...], Bounds]:
    """Everything that stands in a room, with the boxes about it."""
    found: list[Standing] = []
    boxes: list[Bounds] = []
    for placed, unit in made.units:
        things, box = _unit(placed, unit, stock)
        found += things
        boxes.append(box)
    for trim in made.trims:
        # Leaves slide aside for what lies behind them.
        if trim.part is not None and (trim.source is None or trim.source.kind is not Kind.SLIDING):
            things, box = _trim(trim)
            found += things
            boxes.append(box)
    things, box = _shell(room)
    return (*found, *things), np.concatenate([*boxes, box])


@remembered(2048)
def unit_ways(made: MadeUnit, stock: Stock) -> tuple[Way, ...]:
    """How the fronts and the inner drawers of a unit open."""
    plain = FacePlane(0.0, -made.spec.depth - made.spec.made.front_out)
    boxes: dict[str, Thing] = {}
    for drawer in made.drawers:
        parts = [outline_of(p) for p in made.parts if p.name.startswith(drawer.name + " ") and p.role == "drawer"]
        places = [plain.into(x, y) for points, _, _ in parts for x, y in points]
        if places:
            boxes[drawer.name] = (tuple(places), min(low for _, low, _ in parts), max(high for _, _, high in parts))
    return ways_of(made.spec, made.fronts, made.drawers, boxes, stock)


@remembered(2048)
def _unit(placed: Placed, made: MadeUnit, stock: Stock) -> tuple[tuple[Standing, ...], Bounds]:
    """A unit: its carcass, its fronts, its handles."""
    if not placed.is_solid or placed.width <= 0.0:
        return (), np.zeros((0, 6))
    name = placed.number or ("a panel" if placed.body is Body.PANEL else "a filler")
    things = [outline_of(p) for p in made.parts if not p.bend] if placed.body is Body.PARTS else [_body(placed, made)]
    spec = made.spec
    plain = FacePlane(0.0, -spec.depth - spec.made.front_out)
    for front in made.fronts:
        face, t = front.face or plain, spec.made.front_thickness
        corners = ((front.x, 0.0), (front.x + front.width, 0.0), (front.x + front.width, t), (front.x, t))
        outline = tuple(face.point(u, out, 0.0)[:2] for u, out in corners)
        things.append((outline, front.z, front.z + front.height))
    things += [body for way in unit_ways(made, stock) if (body := way.handle_body()) is not None]
    found = tuple(_in_room(name, placed.cell, placed.frame, thing) for thing in things)
    return found, bounds_of(found)


def _body(placed: Placed, made: MadeUnit) -> Thing:
    """A carcass as its plan says, slanted where its front is."""
    points = placed.plan
    if made.spec.shape.startswith("angled"):
        face = next((f.face for f in made.fronts if f.face is not None), None)
        if face is not None:
            along = placed.width / face.ux
            a, b = face.point(0.0, 0.0, 0.0)[:2], face.point(along, 0.0, 0.0)[:2]
            points = ((0.0, 0.0), a, b, (placed.width, 0.0))
    return points, 0.0, placed.height


@remembered(512)
def _trim(trim: MadeTrim) -> tuple[tuple[Standing, ...], Bounds]:
    """A board by itself."""
    assert trim.part is not None
    found = (_in_room(trim.label, "", trim.parent, outline_of(trim.part)),)
    return found, bounds_of(found)


@remembered(64)
def _shell(room: RoomLayout) -> tuple[tuple[Standing, ...], Bounds]:
    """Walls, columns, and where doors of the room swing."""
    found: list[Standing] = []
    for wall in room.walls:
        corners = ((0.0, 0.0), (wall.length, 0.0), (wall.length, WALL), (0.0, WALL))
        points = tuple(wall.frame.floor(x, y) for x, y in corners)
        found.append(Standing(wall.title, "", points, 0.0, wall.height))
    for column in room.room.columns:
        found.append(
            Standing(f"the {column.kind}", "", column_points(room.room, column), 0.0, column_height(room.room, column))
        )
    for opening in room.room.openings:
        points = swing_points(room.wall(opening.wall), opening)
        if points:
            low, wall = opening.sill.mm, room.wall(opening.wall)
            name = f"the swing of the door in {wall.title}"
            found.append(Standing(name, "", points, low, low + opening.height.mm, swings=True))
    things = tuple(found)
    return things, bounds_of(things)


def _in_room(name: str, cell: str, frame: RoomFrame, thing: Thing) -> Standing:
    points, low, high = thing
    z = frame.origin[2]
    return Standing(name, cell, tuple(frame.floor(x, y) for x, y in points), z + low, z + high)
