"""Fronts that a corner or a wall keeps from opening, and corner units without a corner. Source: geometry."""

from __future__ import annotations

import math

from tall_plank.job import Body, Job, Snag, Where
from tall_plank.job.choices import Side
from tall_plank.job.inherit import construction_of
from tall_plank.measure import format_length
from tall_plank.setout import Placed, RoomLayout, RunLayout
from tall_plank.setout.corners import SQUARE, end_cell, front_depth, fronts_of, handle_reach, swings_towards
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    found: list[Snag] = []
    for room in checked.layout.rooms:
        for run in room.runs:
            for p in run.cells:
                found += _corner_unit(checked.job, room, run, p)
            for side in ("left", "right"):
                found += _covered(checked.job, run, side)
                found += _at_wall(checked.job, room, run, side)
    return found


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


def _at_wall(job: Job, room: RoomLayout, run: RunLayout, side: Side) -> list[Snag]:
    """A door hinged right at a wall cannot open square: its handle meets the wall."""
    if run.wall.island or not run.cells:
        return []
    # What closes the run to the wall stands flush with the fronts: the first unit behind it is what opens.
    order = run.cells if side == "left" else run.cells[::-1]
    p = next((c for c in order if c.body not in (Body.FILLER, Body.PANEL)), None)
    corner = run.start_corner if side == "left" else run.end_corner
    if p is None or not p.is_solid or (corner is not None and corner.other):
        return []
    cell = next(c for c in run.run.cells if c.id == p.cell)
    body = job.template(p.template).body
    angle = run.wall.before if side == "left" else run.wall.after
    if body is not Body.CARCASS or job.template(p.template).corner or angle >= 180.0:
        return []
    near = p.x if side == "left" else run.wall.length - p.right
    if not swings_towards(job, cell, side):
        return []
    reach = handle_reach(job, cell, side)
    need = reach + construction_of(job, job.unit(p.unit)).corner_play
    if near >= need - 0.5 or reach == 0.0:
        return []
    what = (
        f"Its door hinged at the {side} has {format_length(near, job.display, mark=True)} to the wall; "
        f"its handle needs {format_length(need, job.display, mark=True)} to open square."
    )
    return [Snag("corner", what, "Put a filler there, or hinge it at the other side.", _where(run, p), "mind")]
