"""A room as solids: floor, walls and what belongs to them, units, trims, what else stands there. Model view, drawings
and files look at these and at nothing else."""

from __future__ import annotations

import msgspec

from tall_plank.job import Job, Kind, Room
from tall_plank.job.choices import FrontsSeen
from tall_plank.making import MadeJob
from tall_plank.measure import Frame
from tall_plank.measure.frames import FloorPoints, RoomPoint
from tall_plank.measure.remembered import remembered
from tall_plank.setout import RoomLayout, Wall
from tall_plank.setout.paneling.values import shows_behind
from tall_plank.solids.parts import board_color, solid_of
from tall_plank.solids.solids import Box, Prism, Solid
from tall_plank.solids.things.common import FLOOR, Stage
from tall_plank.solids.things.table import SOLIDS
from tall_plank.solids.unit import leg_solids, part_boxes


@remembered(32)
def shell_solids(room: Room, walls: tuple[Wall, ...], points: FloorPoints) -> tuple[Solid, ...]:
    """Floor, walls, and what belongs to them."""
    found: list[Solid] = [
        Prism(Frame(RoomPoint((0.0, 0.0, -20.0))), points, 20.0, FLOOR, Kind.ROOM.of(room.id), "floor")
    ]
    layout = RoomLayout(room, walls, (), (), (), points=points)
    for thing in SOLIDS.values():
        found += thing.shell(layout) if thing.shell is not None else []
    return tuple(found)


def solids_in(
    job: Job,
    room: RoomLayout,
    made: MadeJob,
    *,
    hidden: bool = True,
    fronts: FrontsSeen = "closed",
    without: frozenset[str] = frozenset(),
) -> list[Solid]:
    """Every solid of a room with its floor and walls. Units hidden by the designer, and cells to do without, are left
    out.

    Parameters
    ----------
    hidden : whether closed units have what is in them
    """
    bare = msgspec.structs.replace(room.room, runs=(), islands=(), moldings=(), services=(), fields=(), name="", use="")
    solids: list[Solid] = list(shell_solids(bare, room.walls, room.points))
    put_away = {c.id for run in room.room.runs for c in run.cells if c.hidden} | without
    for placed, unit in made.units:
        if placed.room == room.room.id and placed.cell not in put_away:
            solids += part_boxes(job.stock, placed, unit, hidden, fronts)
            solids += leg_solids(placed, unit)
            if not unit.shown and placed.is_solid and not unit.fronts:
                frame = placed.frame.then(Frame((0.0, -placed.depth, 0.0)))
                size = (placed.width, placed.depth, placed.height)
                solids.append(Box(frame, size, "#C9C3B6", Kind.CELL.of(placed.cell), f"{placed.number} not made"))
    stage = Stage(job, room, made, fronts)
    solids += _trim_solids(stage, hidden)
    for thing in SOLIDS.values():
        solids += thing.dress(stage) if thing.dress is not None else []
    return solids


def _trim_solids(stage: Stage, hidden: bool) -> list[Solid]:
    """The boards that dress runs and islands and cover walls; leaves of sliding doors are drawn where they stand.

    Parameters
    ----------
    hidden : whether battens that nobody sees are among them
    """
    found: list[Solid] = []
    closed = {
        Kind.WALL_FIELD.of(f.field.id)
        for f in stage.room.fields
        if not hidden and not any(shows_behind(z.cover, f.made) for z in f.zones)
    }
    for trim in stage.made.trims:
        if trim.part is None or trim.room != stage.room.room.id or trim.kind == "sliding leaf":
            continue
        part = trim.part
        if part.role == "batten" and trim.source in closed:
            continue
        color = board_color(stage.job.stock, part.board)
        source = trim.source or Kind.RUN.of(trim.run)
        found += solid_of(trim.parent.then(part.frame), part, color, source, f"{trim.number} {part.name}")
    return found
