"""What stands on the floor as a view of solids from above, with hidden lines worked out.

A unit is one closed body as high as it is, with its fronts and handles before it: what is in it is left out, and so is
what hangs above and the worktops, which the plan draws as outlines over the units.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from tall_plank.drawing.colors import color_of, is_light
from tall_plank.drawing.fills import painted
from tall_plank.drawing.primitives import Item, Layer, Line, Pen, Shape
from tall_plank.drawing.seen import Way, see
from tall_plank.drawing.trims import PLAN_BOARDS
from tall_plank.drawing.unitplan import body_plan
from tall_plank.job import Body, Job, Kind, Level
from tall_plank.making import MadeJob, MadeUnit
from tall_plank.making.faceplane import FacePlane
from tall_plank.measure import Frame
from tall_plank.measure.remembered import remembered
from tall_plank.setout import Placed, RoomLayout
from tall_plank.solids.handles import handle_solids
from tall_plank.solids.opening import front_of
from tall_plank.solids.parts import board_color, solid_of
from tall_plank.solids.solids import Box, Prism, Solid
from tall_plank.stock import Stock

FROM_ABOVE = Way((0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0))
"""The plan's own way: the room's x to the right, its y up."""

CURVED = ("bow", "hollow", "rounded")
"""Shapes of units whose fronts stand in no plane."""

BODY, BOARD = "body", "board"
"""What the names of solids of the view end with, besides fronts and handles."""


class FloorView(NamedTuple):
    """What is seen from above: fills without lines, those below first; lines, hidden ones left out."""

    fills: tuple[Item, ...]
    lines: tuple[Item, ...]


@remembered(64)
def floor_view(job: Job, room: RoomLayout, made: MadeJob) -> FloorView:
    """What stands on the floor of a room, from above."""
    seen = see(list(_standing(job, room, made)), FROM_ABOVE)
    fills: list[Item] = []
    for piece in painted(seen.looked.corners, seen.looked.face_of):
        solid = seen.solids[int(seen.looked.face_of[piece.face])]
        fills.append(Shape(piece.outline, Pen.NONE, _layer(solid), solid.source, solid.color))
    lines: list[Item] = [
        Line(
            x1,
            y1,
            x2,
            y2,
            Pen.NARROW,
            _layer(seen.solids[n]),
            seen.solids[n].source,
            over=is_light(seen.solids[n].color),
        )
        for (x1, y1, x2, y2), n in zip(seen.lines.tolist(), seen.line_of.tolist(), strict=True)
    ]
    return FloorView(tuple(fills), tuple(lines))


def _layer(solid: Solid) -> Layer:
    match solid.name.rpartition(" ")[2]:
        case "handle":
            return Layer.HANDLE
        case "front":
            return Layer.FRONT
        case "board":
            return Layer.TRIM
        case _:
            return Layer.CARCASS


def _standing(job: Job, room: RoomLayout, made: MadeJob) -> Iterator[Solid]:
    by_cell = {p.cell: m for p, m in made.units if p.room == room.room.id}
    hidden = {c.id for run in room.room.runs for c in run.cells if c.hidden}
    for p in room.placed:
        if p.level is not Level.HUNG and p.is_solid and p.cell not in hidden:
            yield from unit_from_above(job.stock, p, by_cell.get(p.cell))
    lines = {room.wall(board.wall_id).frame for board in room.boards}
    for trim in made.trims:
        if trim.room == room.room.id and trim.parent in lines and trim.kind in PLAN_BOARDS and trim.part is not None:
            source = trim.source or Kind.RUN.of(trim.run)
            yield from solid_of(trim.parent.then(trim.part.frame), trim.part, "unit", source, f"{trim.number} {BOARD}")


@remembered(1024)
def unit_from_above(stock: Stock, p: Placed, unit: MadeUnit | None) -> tuple[Solid, ...]:
    """A unit as one body with its fronts and handles; a kind of one's own by its parts."""
    source = Kind.CELL.of(p.cell)
    if unit is not None and unit.spec.body is Body.PARTS and unit.shown:
        return tuple(
            s
            for part in unit.shown
            for s in solid_of(
                p.frame.then(part.frame), part, board_color(stock, part.board), source, f"{p.number} part"
            )
        )
    fill = "appliance" if p.body is Body.APPLIANCE else "unit"
    found: list[Solid] = [
        Prism(p.frame, body_plan(stock, unit, p.plan, p.width), p.height, fill, source, f"{p.number} {BODY}")
    ]
    if unit is None or p.body is Body.PANEL:
        return tuple(found)
    color, name = color_of(stock, unit.spec.front), f"{p.number} front"
    t = unit.spec.made.front_thickness
    for f in unit.fronts:
        if f.kind == "machine":
            continue
        if f.handle is not None and unit.shown:
            found += handle_solids(stock, p, unit, f)
        if unit.spec.shape in CURVED:
            continue
        face = f.face or FacePlane(0.0, -unit.spec.depth - unit.spec.made.front_out)
        # Behind the face at the left end: x along it, y out of the front's back, z up.
        own = Frame(face.point(f.x, 0.0, f.z), (face.ux, face.uy, 0.0), (-face.uy, face.ux, 0.0))
        found.append(Box(p.frame.then(own.then(Frame((0.0, -t, 0.0)))), (f.width, t, f.height), color, source, name))
    if unit.spec.shape in CURVED:
        for part in unit.shown:
            if front_of(unit, part) is not None:
                found += solid_of(p.frame.then(part.frame), part, board_color(stock, part.board), source, name)
    return tuple(found)
