"""Dimensions of a plan: chains outwards from every wall (openings, services, units, the wall itself), the room,
columns, what stands free."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import Literal, NamedTuple

from tall_plank.drawing.primitives import Dim, Item, Layer, Text
from tall_plank.job import Job, Kind, Level, Rectangle
from tall_plank.measure import format_chain, format_length
from tall_plank.setout import RoomLayout, Wall
from tall_plank.setout.clear import aisles_of
from tall_plank.setout.things.column import column_points

NEAR = 0.5
"""mm; what is nearer stands in one place."""


class _Side(NamedTuple):
    """Where the chains of a wall stand: along which axis, from where they count (mm), on which side."""

    along: Literal["x", "y"]
    base: float
    way: int


def plan_dims(job: Job, room: RoomLayout, *, chains: bool) -> list[Item]:
    """The sides of a room, and over all.

    Parameters
    ----------
    chains : what stands along every wall and free in the room too
    """
    items: list[Item] = []
    most: dict[tuple[str, int], int] = {}
    w, d = room.size
    whole = {"x": False, "y": False}
    for wall in room.walls:
        side = _side_of(room, wall)
        if side is None:
            items.append(_beside(job, wall))
            continue
        row = 0
        for marks, name in _chains(room, wall) if chains else ():
            row += 1
            items += _chain(job, wall, side, row, marks, name)
        size = w if side.along == "x" else d
        if not isinstance(room.room.outline, Rectangle):
            row += 1
            items.append(_length(job, wall, side, row))
            whole[side.along] = whole[side.along] or abs(wall.length - size) < NEAR
        most[side.along, side.way] = max(most.get((side.along, side.way), 0), row)
    items += _overall(job, room, most, whole)
    if chains:
        items += _free(job, room)
    return items


def _side_of(room: RoomLayout, wall: Wall) -> _Side | None:
    """Outside the room, on the side of a level or an upright wall; None for a slanted one."""
    w, d = room.size
    t = max(wall.thickness for wall in room.walls)
    (x0, y0), (x1, y1) = wall.start, wall.end
    if abs(y0 - y1) < NEAR:
        return _Side("x", d + t, 1) if wall.frame.y[1] > 0 else _Side("x", -t, -1)
    if abs(x0 - x1) < NEAR:
        return _Side("y", w + t, 1) if wall.frame.y[0] > 0 else _Side("y", -t, -1)
    return None


def _chains(room: RoomLayout, wall: Wall) -> list[tuple[list[float], str]]:
    """Marks along a wall with what they are of, the nearest chain first."""
    found: list[tuple[list[float], str]] = []

    def add(marks: Sequence[float], name: str) -> None:
        inner = sorted({round(m, 2) for m in marks if NEAR < m < wall.length - NEAR})
        if inner:
            found.append(([0.0, *inner, wall.length], name))

    r = room.room
    openings = [o for o in r.openings if o.wall == wall.id]
    add([m for o in openings for m in (o.x.mm, o.x.mm + o.width.mm)], "openings")
    add([s.x.mm for s in r.services if s.wall == wall.id], "services")
    fixed = [wall.frame.from_floor(p)[0] for c in r.columns if c.wall == wall.id for p in column_points(r, c)]
    add(fixed, "columns")
    mine = [p for p in room.placed if p.wall_id == wall.id and p.width > 0]
    for hung, name in ((False, "units"), (True, "hung units")):
        row = [p for p in mine if (p.level is Level.HUNG) == hung]
        add([m for p in row for m in (p.x, p.right)], name)
    return found


def _chain(job: Job, wall: Wall, side: _Side, row: int, marks: Sequence[float], name: str) -> list[Item]:
    """A chain along a wall, from its marks in the wall to the room's axis."""
    axis = 0 if side.along == "x" else 1
    places = [wall.frame.floor(m, 0.0)[axis] for m in marks]
    texts = format_chain([b - a for a, b in pairwise(marks)], job.display)
    found = [(min(a, b), max(a, b), text) for (a, b), text in zip(pairwise(places), texts, strict=True)]
    last = max(found)[1]
    return [
        Dim(a, b, side.base, side.way * row, side.along, text, name=name if b == last else "") for a, b, text in found
    ]


def _length(job: Job, wall: Wall, side: _Side, row: int) -> Dim:
    axis = 0 if side.along == "x" else 1
    text = format_length(wall.length, job.display)
    source = Kind.WALL.of(wall.id)
    return Dim(wall.start[axis], wall.end[axis], side.base, side.way * row, side.along, text, source, "length")


def _beside(job: Job, wall: Wall) -> Text:
    """The length of a slanted wall, along it and outside."""
    mx, my = wall.frame.floor(wall.length / 2, wall.thickness + 60.0)
    turn = math.degrees(math.atan2(wall.frame.x[1], wall.frame.x[0]))
    # Read from below or from the right; the text stands on the outer side of the wall.
    upside = turn > 90.0 or turn <= -90.0
    angle = turn - 180.0 if turn > 90.0 else turn + 180.0 if turn <= -90.0 else turn
    text = format_length(wall.length, job.display)
    source = Kind.WALL.of(wall.id)
    return Text(mx, my, text, 2.2, Layer.DIMENSION, source, angle=angle, rise=-3.2 if upside else 0.8)


def _overall(job: Job, room: RoomLayout, most: dict[tuple[str, int], int], whole: dict[str, bool]) -> list[Item]:
    """Width and depth of the room, outside all other chains."""
    w, d = room.size
    t = max(wall.thickness for wall in room.walls)
    source = Kind.ROOM.of(room.room.id)
    wide, deep = format_length(w, job.display), format_length(d, job.display)
    if isinstance(room.room.outline, Rectangle):
        return [
            Dim(0.0, w, d + t, most.get(("x", 1), 0) + 1, "x", wide, source, "width"),
            Dim(0.0, d, -t, -most.get(("y", -1), 0) - 1, "y", deep, source, "depth"),
        ]
    items: list[Item] = []
    if not whole["x"]:
        items.append(Dim(0.0, w, d + t, most.get(("x", 1), 0) + 1, "x", wide, source))
    if not whole["y"]:
        items.append(Dim(0.0, d, -t, -most.get(("y", -1), 0) - 1, "y", deep, source))
    return items


def _free(job: Job, room: RoomLayout) -> list[Item]:
    """Walkways round islands, how far columns stand out, corners that are not square."""
    items: list[Item] = []
    for island in room.room.islands:
        line = next((f for f in room.faces if f.island == island.id), None)
        if line is not None:
            items += _aisles(job, room, line)
    for column in room.room.columns:
        points = column_points(room.room, column)
        xs, ys = [p[0] for p in points], [p[1] for p in points]
        if column.wall:
            wall = room.wall(column.wall)
            along = _side_of(room, wall)
            if along is not None and along.along == "x":
                items.append(Dim(min(ys), max(ys), max(xs), 1, "y", format_length(column.depth.mm, job.display)))
            elif along is not None:
                items.append(Dim(min(xs), max(xs), min(ys), -1, "x", format_length(column.depth.mm, job.display)))
    for wall in room.walls:
        if abs(wall.after - 90.0) > 0.05 and abs(wall.after - 270.0) > 0.05:
            x, y = wall.end
            words = f"{wall.after:.1f}".rstrip("0").rstrip(".") + "°"
            items.append(Text(x, y, words, 1.8, Layer.DIMENSION, Kind.WALL.of(wall.id), rise=-4.0))
    return items


def _aisles(job: Job, room: RoomLayout, line: Wall) -> list[Item]:
    island = room.room.island(line.island)
    own = [w for w in room.worktops if w.source == Kind.ISLAND.of(line.island)]
    points = [(x, -out) for top in own for x, out in top.points]
    if island is None or not points:
        return []
    x0, x1 = min(p[0] for p in points), max(p[0] for p in points)
    y0, y1 = min(p[1] for p in points), max(p[1] for p in points)
    items: list[Item] = []
    for side, mm, _ in aisles_of(room, island):
        # Beside the middle, where the names of the faces stand.
        at_x, at_y = x0 + (x1 - x0) * 0.3, y0 + (y1 - y0) * 0.3
        ends = {
            "Front": ((at_x, y0), (at_x, y0 - mm)), "Back": ((at_x, y1), (at_x, y1 + mm)),
            "Left": ((x0, at_y), (x0 - mm, at_y)), "Right": ((x1, at_y), (x1 + mm, at_y)),
        }[side]  # fmt: skip
        (ax, ay), (bx, by) = (line.frame.floor(*p) for p in ends)
        text = format_length(mm, job.display)
        if abs(ay - by) < NEAR:
            items.append(Dim(min(ax, bx), max(ax, bx), ay, 1, "x", text))
        elif abs(ax - bx) < NEAR:
            items.append(Dim(min(ay, by), max(ay, by), ax, 1, "y", text))
    return items
