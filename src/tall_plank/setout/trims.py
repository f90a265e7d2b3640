"""Trims of a run: the worktop over its base units and the plinth under them."""

from __future__ import annotations

from collections.abc import Iterable

import msgspec

from tall_plank.job import Job, Level
from tall_plank.job.inherit import construction_of, finish_of
from tall_plank.job.scheme import Role
from tall_plank.setout.runs import Placed, RunLayout


class Cutout(msgspec.Struct, frozen=True, cache_hash=True):
    """A hole right through a worktop: from the worktop's left end and its rear edge, mm."""

    x: float
    back: float
    width: float
    depth: float
    cell: str
    appliance: str


class Worktop(msgspec.Struct, frozen=True, cache_hash=True):
    """A worktop over neighbouring base units.

    Attributes
    ----------
    x, length : along the wall, overhangs at open ends included, mm
    depth : from the wall to its front edge, mm
    bottom, thickness : mm
    open_left, open_right : whether the end is free, and so banded
    """

    room: str
    wall: str
    run: str
    x: float
    length: float
    depth: float
    bottom: float
    thickness: float
    finish: str
    open_left: bool
    open_right: bool
    cutouts: tuple[Cutout, ...] = ()


class Plinth(msgspec.Struct, frozen=True, cache_hash=True):
    """A plinth under neighbouring base units; `front` is how far its face stands from the wall, mm."""

    room: str
    wall: str
    run: str
    x: float
    length: float
    front: float
    height: float
    thickness: float
    finish: str


SINK_EDGE = 20.0
"""mm that a set-in sink rests on the worktop at each side: its cut-out is smaller by this (common practice)."""

SINK_FROM_FRONT = 60.0
"""mm of worktop kept in front of a sink's cut-out (common practice: 50 to 70)."""


def stretches(job: Job, run: RunLayout) -> Iterable[tuple[Placed, ...]]:
    """Neighbouring cells that worktop and plinth run over without a break."""
    group: list[Placed] = []
    for placed in run.cells:
        if job.template(placed.template).trims and placed.width > 0:
            group.append(placed)
        elif group:
            yield tuple(group)
            group = []
    if group:
        yield tuple(group)


def trims_of(job: Job, run: RunLayout) -> tuple[tuple[Worktop, ...], tuple[Plinth, ...]]:
    """Worktops and plinths of one run; a hung run has none."""
    if run.run.level is not Level.BASE:
        return (), ()
    worktops, plinths = [], []
    for group in stretches(job, run):
        first, last = job.unit(group[0].unit), job.unit(group[-1].unit)
        made = construction_of(job, first)
        x, end = group[0].x, group[-1].right
        open_left, open_right = x > 0.5, end < run.wall.length - 0.5
        front = max(p.depth + construction_of(job, job.unit(p.unit)).front_thickness for p in group)
        # A wall end leaves no room for an overhang; an open end gets it, but never past the wall.
        left = min(made.worktop_side, x) if open_left else 0.0
        right = min(construction_of(job, last).worktop_side, run.wall.length - end) if open_right else 0.0
        depth = front + made.worktop_front
        top = max(p.top for p in group)
        cutouts = tuple(cutout for p in group if (cutout := _sink_cutout(job, p, x - left, depth)) is not None)
        worktops.append(
            Worktop(
                room=group[0].room,
                wall=run.wall.id,
                run=run.run.id,
                x=x - left,
                length=end - x + left + right,
                depth=depth,
                bottom=top,
                thickness=job.value("worktop"),
                finish=finish_of(job, first, Role.WORKTOP),
                open_left=open_left,
                open_right=open_right,
                cutouts=cutouts,
            )
        )
        height = min(p.bottom for p in group)
        if height > 0:
            plinths.append(
                Plinth(
                    room=group[0].room,
                    wall=run.wall.id,
                    run=run.run.id,
                    x=x,
                    length=end - x,
                    front=min(p.depth for p in group) - made.plinth_setback + made.front_thickness,
                    height=height,
                    thickness=made.plinth_thickness,
                    finish=finish_of(job, first, Role.PLINTH),
                )
            )
    return tuple(worktops), tuple(plinths)


def _sink_cutout(job: Job, placed: Placed, start: float, depth: float) -> Cutout | None:
    template = job.template(placed.template)
    sink = job.stock.appliance(template.appliance) if template.sink else None
    if sink is None:
        return None
    width, deep = sink.width - 2 * SINK_EDGE, sink.depth - 2 * SINK_EDGE
    x = placed.x + placed.width / 2 - start - width / 2
    return Cutout(x, depth - SINK_FROM_FRONT - deep, width, deep, placed.cell, sink.code)
