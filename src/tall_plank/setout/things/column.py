"""Columns and chimney breasts as boxes."""

from __future__ import annotations

from tall_plank.job import Column, Room
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.frames import FloorPoints, RoomFrame, RoomPoint
from tall_plank.setout.rooms import walls_of
from tall_plank.setout.things.common import ThingSetOut
from tall_plank.setout.wall import Span, Wall


def column_frame(room: Room, column: Column) -> RoomFrame:
    """The frame of a column's box: origin at its left front lower corner seen from the room, y into the wall."""
    if not column.wall:
        return Frame(RoomPoint((column.x.mm, column.y.mm, 0.0)))
    wall = next(w for w in walls_of(room) if w.id == column.wall)
    return wall.frame.then(Frame((column.x.mm, -column.depth.mm, 0.0)))


def column_points(room: Room, column: Column) -> FloorPoints:
    """Outline of a column in the room's plan."""
    frame, w, d = column_frame(room, column), column.width.mm, column.depth.mm
    return tuple(frame.floor(x, y) for x, y in ((0, 0), (w, 0), (w, d), (0, d)))


def column_height(room: Room, column: Column) -> float:
    """Height of a column, mm; one without a height of its own reaches the ceiling."""
    return column.height.mm if column.height is not None else room.height.mm


def _span(room: Room, wall: Wall, column: Column) -> Span:
    """Between the outermost corners of it, seen square to any line."""
    xs = [wall.frame.from_floor(corner)[0] for corner in column_points(room, column)]
    return min(xs), max(xs)


def _fits(room: Room, column: Column) -> None:
    length = next((w.length for w in walls_of(room) if w.id == column.wall), 0.0)
    if column.wall and column.x.mm + column.width.mm > length + 1e-6:
        raise PlankError(
            f"The {column.kind} would stand past the end of its wall.", f"wall {column.wall}", "Move it first."
        )


COLUMN = ThingSetOut(span=_span, fits=_fits)
