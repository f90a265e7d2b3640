"""Making the whole job: every placed unit and every trim, with the numbers of their parts."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import TypeVar

import msgspec

from tall_plank.job import Construction, Job
from tall_plank.job.inherit import construction_of, finish_of
from tall_plank.job.scheme import Role
from tall_plank.making.builder import UnitSpec
from tall_plank.making.parts import Part, Problem
from tall_plank.making.trims import plinth_parts, worktop_part
from tall_plank.making.unit import MadeUnit, make_unit
from tall_plank.measure import Frame, PlankError
from tall_plank.setout import Layout, Placed, Plinth, RoomLayout, Worktop

T = TypeVar("T", Worktop, Plinth)


class NumberedPart(msgspec.Struct, frozen=True):
    """A part with its number, the same on list, plan, label and drawing; `frame` is in the room."""

    number: str
    unit: str
    cell: str
    part: Part
    parent: Frame


class MadeTrim(msgspec.Struct, frozen=True, cache_hash=True):
    """A worktop or plinth made; `label` such as `A worktop`; `wall` frame in the room."""

    label: str
    number: str
    room: str
    run: str
    wall: Frame
    part: Part | None
    problem: Problem | None = None


class MadeJob(msgspec.Struct, frozen=True):
    """Every placed unit with what it is made of, and the trims."""

    units: tuple[tuple[Placed, MadeUnit], ...]
    trims: tuple[MadeTrim, ...]

    def of(self, cell: str) -> MadeUnit | None:
        return next((made for placed, made in self.units if placed.cell == cell), None)

    def parts(self) -> Iterator[NumberedPart]:
        """Every part of the job with its number."""
        for placed, made in self.units:
            for i, part in enumerate(made.parts, 1):
                yield NumberedPart(f"{placed.number}.{i}", placed.number, placed.cell, part, placed.frame)
        for trim in self.trims:
            if trim.part is not None:
                yield NumberedPart(trim.number, trim.label, "", trim.part, trim.wall)


def spec_of(job: Job, placed: Placed) -> UnitSpec:
    """What a placed unit is made from."""
    unit, template = job.unit(placed.unit), job.template(placed.template)
    return UnitSpec(
        template=template.code,
        level=placed.level.value,
        body=template.body,
        top=template.top,
        sink=template.sink,
        appliance=template.appliance,
        bay=unit.bay,
        width=round(placed.width, 6),
        height=placed.height,
        depth=placed.depth,
        made=construction_of(job, unit),
        front=finish_of(job, unit, Role.FRONT),
        carcass=finish_of(job, unit, Role.CARCASS),
        drawer=finish_of(job, unit, Role.DRAWER),
    )


def make_job(job: Job, layout: Layout) -> MadeJob:
    """Make everything that is placed. Units alike are made once."""
    units = tuple((placed, make_unit(spec_of(job, placed), job.stock)) for placed in layout.placed)
    trims: list[MadeTrim] = []
    for room in layout.rooms:
        for top in room.worktops:
            trims += _made_trim(job, room, top, lambda t, made: (worktop_part(t, made, job.stock),), "worktop", trims)
        for plinth in room.plinths:
            trims += _made_trim(job, room, plinth, lambda t, made: plinth_parts(t, made, job.stock), "plinth", trims)
    return MadeJob(units, tuple(trims))


def _made_trim(
    job: Job,
    room: RoomLayout,
    trim: T,
    make: Callable[[T, Construction], tuple[Part, ...]],
    kind: str,
    before: list[MadeTrim],
) -> list[MadeTrim]:
    """The pieces of one trim with their numbers, or the problem that stops it."""
    letter = f"{trim.wall}{kind[0].upper()}"
    place = next(i for i, r in enumerate(job.rooms) if r.id == trim.room)
    letter = letter if place == 0 else f"{place + 1}{letter}"
    taken = sum(t.number.startswith(f"{letter}.") for t in before)
    first = next(p for p in room.placed if p.run == trim.run)
    made = construction_of(job, job.unit(first.unit))
    wall = room.wall(trim.wall).frame
    label = f"{letter[:-1]} {kind}"
    try:
        parts: tuple[Part | None, ...] = make(trim, made)
        problem = None
    except PlankError as error:
        parts, problem = (None,), Problem(error.what, error.remedy)
    return [
        MadeTrim(label, f"{letter}.{taken + i}", trim.room, trim.run, wall, part, problem)
        for i, part in enumerate(parts, 1)
    ]
