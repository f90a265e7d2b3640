"""Fronts that the next wall's units cover, and corner units without a corner. Source: geometry."""

from __future__ import annotations

import math

from tall_plank.job import Body, Job, Snag, Where
from tall_plank.job.choices import LEFT, RIGHT, Side
from tall_plank.measure import format_length
from tall_plank.setout import Placed, RoomLayout, RunLayout
from tall_plank.setout.corners import SQUARE, end_cell, front_depth, fronts_of
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    found: list[Snag] = []
    for room in checked.layout.rooms:
        for run in room.runs:
            for p in run.cells:
                found += _corner_unit(checked.job, room, run, p)
            for side in (LEFT, RIGHT):
                found += _covered(checked.job, run, side)
    return found


def covered_cells(checked: Checked) -> frozenset[str]:
    """The units whose fronts the next wall's units stand before."""
    runs = (run for room in checked.layout.rooms for run in room.runs)
    return frozenset(s.where.cell for run in runs for side in (LEFT, RIGHT) for s in _covered(checked.job, run, side))


def _where(run: RunLayout, p: Placed) -> Where:
    return Where(p.room, run.wall.id, run.run.id, p.cell, p.number)


def _corner_unit(job: Job, room: RoomLayout, run: RunLayout, p: Placed) -> list[Snag]:
    """A corner unit has to stand at the end of its wall, in a square corner."""
    if not job.template(p.template).corner:
        return []
    left = p.corner == "left"
    near = p.x if left else run.wall.length - p.right
    angle = run.wall.before if left else run.wall.after
    if run.wall.island:
        return [Snag("corner", "A corner unit stands on an island.", "Choose another kind.", _where(run, p))]
    if abs(angle - 90.0) > SQUARE:
        what = f"It needs a square corner; this one has {angle:g}°."
        return [Snag("corner", what, "Choose another kind: a filler closes this corner.", _where(run, p))]
    if p.leg and near > 0.5:
        what = f"It stands {format_length(near, job.display, mark=True)} from its corner."
        return [
            Snag("corner", what, "Let another unit take what is left, so that it reaches the corner.", _where(run, p))
        ]
    neighbour = room.walls[(room.walls.index(run.wall) + (-1 if left else 1)) % len(room.walls)]
    if p.leg > neighbour.length + 0.5:
        what = f"Its leg is longer than wall {neighbour.id}."
        return [Snag("corner", what, "Shorten its other leg.", _where(run, p))]
    return []


def _covered(job: Job, run: RunLayout, side: Side) -> list[Snag]:
    """A unit that runs into a corner without being made for it: the next run stands before its front."""
    corner = run.start_corner if side == "left" else run.end_corner
    cell = end_cell(job, run.run, side)
    if corner is None or not corner.holds or not corner.other or cell is None:
        return []
    p = run.cells[0] if side == "left" else run.cells[-1]
    template = job.template(p.template)
    if template.corner or not fronts_of(job.unit(p.unit).bay) or template.body is Body.FILLER:
        return []
    near = p.x if side == "left" else run.wall.length - p.right
    # How far the outer edge of its front lies from the other wall.
    a = math.radians(corner.angle)
    away = near * math.sin(a) - front_depth(job, job.unit(p.unit)) * math.cos(a)
    over = (corner.other_depth - away) / math.sin(a)
    if over <= 0.5:
        return []
    shown = format_length(over, job.display, mark=True)
    remedy = "Make it a corner unit, or end the run before the corner."
    return [Snag("corner", f"The next wall's units cover {shown} of its front.", remedy, _where(run, p))]
