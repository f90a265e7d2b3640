"""What a placed unit is made from: its sizes, its kind, how it is built, what it stands on and what is behind it."""

from __future__ import annotations

import msgspec

from tall_plank.job import Basis, Construction, Level, Service, Template, Unit
from tall_plank.job.choices import EitherSide, Feet
from tall_plank.job.inherit import construction_of, finish_of
from tall_plank.job.scheme import Role
from tall_plank.making.builder import UnitSpec
from tall_plank.measure import Length
from tall_plank.measure.remembered import remembered
from tall_plank.setout import Placed, RoomLayout
from tall_plank.setout.topcuts import LET_IN, appliance_of, between_gables

PIPED = ("water", "waste", "power", "gas", "vent")
"""Service points that come out of the wall behind a unit."""


def _behind(services: tuple[Service, ...], placed: Placed) -> tuple[tuple[str, float, float], ...]:
    """Service points on the wall behind a unit, in the unit's frame: kind, x, z."""
    return tuple(
        (s.kind, round(s.x.mm - placed.x, 3), round(s.height.mm - placed.bottom, 3))
        for s in services
        if s.wall == placed.wall_id
        and s.kind in PIPED
        and placed.x < s.x.mm < placed.right
        and placed.bottom < s.height.mm < placed.top
    )


def spec_of(basis: Basis, placed: Placed, room: RoomLayout | None = None) -> UnitSpec:
    """What a placed unit is made from; with its room, also what it stands on and what comes out of the wall."""
    if room is None:
        return spec_in(basis, msgspec.structs.replace(placed, feet="plinth"), ())
    return spec_in(basis, placed, room.room.services)


def spec_in(basis: Basis, placed: Placed, services: tuple[Service, ...]) -> UnitSpec:
    """What a unit before these service points is made from."""
    unit = basis.unit(placed.unit)
    sizes = (placed.width, placed.height, placed.depth, placed.leg, placed.blind, placed.filler)
    return _spec(
        unit,
        basis.template(placed.template),
        construction_of(basis, unit),
        (finish_of(basis, unit, Role.FRONT), finish_of(basis, unit, Role.CARCASS), finish_of(basis, unit, Role.DRAWER)),
        placed.level,
        tuple(round(mm, 6) for mm in sizes),
        placed.corner,
        placed.feet,
        _behind(services, placed),
        round(placed.bottom, 3) if placed.level != "hung" else 0.0,
        *_appliance(basis, unit, basis.template(placed.template), placed.width),
    )


def spec_alone(basis: Basis, unit: Unit, template: Template, size: tuple[float, float, float]) -> UnitSpec:
    """What a unit that stands nowhere yet is made from, to be shown: on its plinth, a corner unit in a right corner
    with a second leg as long as it is wide. `size`: width, height, depth, mm."""
    width = size[0]
    cornered, blind = template.corner in ("l", "diagonal"), template.corner == "blind"
    return _spec(
        unit,
        template,
        construction_of(basis, unit),
        (finish_of(basis, unit, Role.FRONT), finish_of(basis, unit, Role.CARCASS), finish_of(basis, unit, Role.DRAWER)),
        template.level,
        (*size, width if cornered else 0.0, width * 0.45 if blind else 0.0, 40.0 if blind else 0.0),
        "right" if template.corner else "",
        "plinth",
        (),
        0.0,
        *_appliance(basis, unit, template, width),
    )


def _appliance(basis: Basis, unit: Unit, template: Template, width: float) -> tuple[str, bool]:
    """Code of what stands in a unit or is let in over it (empty where there is nothing), and whether it is let in: then
    the rails stand. `width`: mm."""
    clear = between_gables(template, construction_of(basis, unit), width)
    found = appliance_of(basis.stock, template, clear)
    if found is None:
        return template.appliance, template.sink
    return found.code, template.sink or found.kind in LET_IN


@remembered(4096)
def _spec(
    unit: Unit,
    template: Template,
    made: Construction,
    finishes: tuple[str, str, str],
    level: Level,
    sizes: tuple[float, ...],
    corner_side: EitherSide,
    feet: Feet,
    pipes: tuple[tuple[str, float, float], ...],
    off_floor: float,
    appliance: str,
    lets_in: bool,
) -> UnitSpec:
    width, height, depth, leg, blind, filler = sizes
    return UnitSpec(
        template=template.code,
        level=level,
        body=template.body,
        # What hangs has no worktop over it: its top is closed.
        top="full" if level == "hung" and template.top == "rails" and not template.sink else template.top,
        lets_in=lets_in,
        appliance=appliance,
        bay=unit.bay,
        width=width,
        height=height,
        depth=depth,
        made=made,
        front=finishes[0],
        carcass=finishes[1],
        drawer=finishes[2],
        corner=template.corner,
        corner_side=corner_side,
        leg=leg,
        blind=blind,
        filler=filler,
        shape=template.shape,
        gables=template.gables,
        bottom=template.bottom,
        back=template.back,
        cover=template.cover,
        vent=template.vent,
        fittings=template.fittings,
        feet=feet,
        pipes=pipes,
        off_floor=off_floor if made.gable_foot == "floor" else 0.0,
        parameters=template.parameters,
        build=template.build,
        own=tuple(
            (o.key.removeprefix("parameter."), o.value.mm if isinstance(o.value, Length) else float(o.value))
            for o in unit.own
            if o.key.startswith("parameter.")
        ),
    )
