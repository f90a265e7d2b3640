"""What the sides of a wall field may lie at: edges of openings, columns, moldings, guide lines, units; and what stands
before a wall, so that nothing of a field is there."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from tall_plank.job import Kind, Room, Run, Source
from tall_plank.job.standard import Construction
from tall_plank.job.things.sliding import LEAF
from tall_plank.job.things.table import THINGS, thing_in
from tall_plank.job.things.wall_field import Limit
from tall_plank.measure import PlankError
from tall_plank.measure.frames import FloorPoints
from tall_plank.setout.frames import Casing
from tall_plank.setout.rooms import soffit_points
from tall_plank.setout.runs import Placed
from tall_plank.setout.things.column import column_height, column_points
from tall_plank.setout.things.molding import MoldingPiece
from tall_plank.setout.things.table import span_of
from tall_plank.setout.trims import TrimBoard
from tall_plank.setout.wall import Wall
from tall_plank.setout.worktop import Worktop

Box = tuple[float, float, float, float]
"""x0, z0, x1, z1 on a wall, mm."""

Standing = tuple[FloorPoints, float, float]
"""What something takes of the floor, and its lower and upper edge, mm."""

BEFORE = 60.0
"""mm from a wall within which something stands against it."""


def place_of(room: Room, wall: Wall, moldings: Sequence[MoldingPiece], placed: Sequence[Placed], limit: Limit) -> float:
    """Where the mark of a limit lies: mm from the wall's left end, or above the floor.

    Raises
    ------
    PlankError where the mark is gone, or does not lie on this wall
    """
    source = Source.parse(limit.to)
    upright = limit.edge in ("left", "right")
    found: tuple[float, float] | None = None
    if source is not None and source.kind is Kind.CELL:
        cell = next((p for p in placed if p.cell == source.id and p.wall_id == wall.id), None)
        if cell is not None:
            found = (cell.x, cell.right) if upright else (cell.bottom, cell.top)
    elif source is not None and source.kind in THINGS and thing_in(room, source) is not None:
        found = span_of(room, wall, source) if upright else _level(room, wall, moldings, source)
    if found is None:
        word = THINGS[source.kind].word if source is not None and source.kind in THINGS else "unit"
        raise PlankError(f"The {word} that it reaches to is gone.", "limit", "Choose another mark, or the wall's end.")
    return found[0] if limit.edge in ("left", "bottom") else found[1]


def _level(room: Room, wall: Wall, moldings: Sequence[MoldingPiece], source: Source) -> tuple[float, float] | None:
    """Lower and upper edge of a thing above the floor, mm."""
    thing: Any = thing_in(room, source)
    if source.kind is Kind.MOLDING:
        piece = next((m for m in moldings if m.molding == source.id), None)
        return (piece.low, piece.low + piece.height) if piece is not None else None
    if source.kind is Kind.OPENING and thing.wall == wall.id:
        return (thing.sill.mm, thing.sill.mm + thing.height.mm)
    if source.kind is Kind.GUIDE and thing.axis == "z":
        return (thing.at.mm, thing.at.mm)
    if source.kind is Kind.COLUMN:
        return (0.0, column_height(room, thing))
    if source.kind is Kind.SOFFIT:
        return (room.height.mm - thing.drop.mm, room.height.mm)
    return None


def standing_before(
    room: Room,
    wall: Wall,
    placed: Sequence[Placed],
    tops: Sequence[Worktop],
    boards: Sequence[TrimBoard],
    lines: Sequence[Wall],
    made: Construction,
    runs: Sequence[Run],
    returns: Sequence[Standing],
) -> list[Box]:
    """What stands against a wall: units down to the floor that they stand on with their fronts, worktops, boards,
    sliding doors, columns, soffits, moldings along units where they go back to it.

    Parameters
    ----------
    returns : the moldings along units
    """
    frames = {line.id: line.frame for line in lines}
    shapes: list[Standing] = list(returns)
    for p in placed:
        if p.is_solid:
            low = 0.0 if p.level != "hung" else p.bottom
            plan = ((x, y - made.reach if y < 0.0 else y) for x, y in p.plan)
            shapes.append((tuple(p.frame.floor(x, y) for x, y in plan), low, p.top))
    for doors in (d for run in runs for d in run.sliding):
        cells = {ref.cell for ref in doors.bays}
        behind = [p for p in placed if p.cell in cells]
        if behind:
            x0, x1 = min(p.x for p in behind), max(p.right for p in behind)
            out = max(p.depth for p in behind) + made.slide_standoff + made.slide_line + LEAF
            frame = frames[behind[0].wall_id]
            corners = ((x0, -out), (x1, -out), (x1, 0.0), (x0, 0.0))
            high = max(p.top for p in behind) + made.slide_above
            shapes.append((tuple(frame.floor(x, y) for x, y in corners), 0.0, high))
    for top in tops:
        points = tuple(frames[top.wall_id].floor(x, -out) for x, out in top.points)
        shapes.append((points, top.bottom, top.bottom + top.thickness))
    for board in boards:
        low3, high3 = board.box()
        corners = ((low3[0], low3[1]), (high3[0], low3[1]), (high3[0], high3[1]), (low3[0], high3[1]))
        shapes.append((tuple(frames[board.wall_id].floor(x, y) for x, y in corners), low3[2], high3[2]))
    for column in (c for c in room.columns if c.id != wall.column):
        shapes.append((column_points(room, column), 0.0, column_height(room, column)))
    for soffit in room.soffits:
        shapes.append((soffit_points(soffit), room.height.mm - soffit.drop.mm, room.height.mm))
    found: list[Box] = []
    for points, low, high in shapes:
        near = [wall.frame.from_floor(p) for p in points]
        if max(y for _, y in near) > -BEFORE and min(y for _, y in near) < 1.0:
            x0, x1 = min(x for x, _ in near), max(x for x, _ in near)
            if x1 > 0.01 and x0 < wall.length - 0.01:
                found.append((x0, low, x1, high))
    return found


def in_openings(room: Room, wall: Wall, casings: Sequence[Casing]) -> list[Box]:
    """The openings of a wall, niches too, with their casings."""
    cased = {c.opening: c.box for c in casings}
    plain = {
        o.id: (o.x.mm, o.sill.mm, o.x.mm + o.width.mm, o.sill.mm + o.height.mm)
        for o in room.openings
        if o.wall == wall.id
    }
    return [cased.get(name, box) for name, box in plain.items()]
