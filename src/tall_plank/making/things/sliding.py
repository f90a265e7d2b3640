"""Sliding doors of a room: their leaves as parts, their tracks, what an offer says of them."""

from __future__ import annotations

from tall_plank.job.inherit import construction_of
from tall_plank.making.made import MadeTrim, OfferedThing
from tall_plank.making.sliding import MadeSliding, make_sliding
from tall_plank.making.things.common import RoomMaking, ThingMaking
from tall_plank.stock import Stock

LETTER = "G"


def make_doors(making: RoomMaking) -> None:
    """Every set of a room."""
    by_cell = {placed.cell: (placed, made) for placed, made in making.units}
    basis = making.basis
    for laid in making.room.runs:
        for doors in laid.run.sliding:
            if doors.first.cell not in by_cell:
                continue
            standard = construction_of(basis, basis.unit(making.unit_of(doors.first.cell)))
            made = make_sliding(doors, laid.run, by_cell, standard, basis.stock)
            if made is not None:
                making.sliding.append(made)
                _trims(making, made)
                if made.leaves:
                    making.offered.append(_offered(made, basis.stock))


def _trims(making: RoomMaking, doors: MadeSliding) -> None:
    """Its parts, each with its number; the first one brings what is bought for the set."""
    line = making.room.wall(doors.wall_id)
    name = making.line_name(line)
    label = f"{making.prefix}{name} sliding doors"

    def trim(number: str, **more: object) -> MadeTrim:
        return MadeTrim(
            label,
            number,
            making.room.room.id,
            doors.run,
            line.frame,
            source=doors.source,
            kind="sliding leaf",
            bought_for=label,
            **more,  # type: ignore[arg-type]
        )

    for i, (_, part) in enumerate(doors.parts):
        making.trims.append(trim(making.number(name, LETTER), part=part, items=doors.items if i == 0 else ()))
    for problem in doors.problems:
        making.trims.append(trim(f"{making.prefix}{name}{LETTER}", part=None, problem=problem))


def _offered(doors: MadeSliding, stock: Stock) -> OfferedThing:
    codes = dict.fromkeys(band.finish for leaf in doors.leaves for band in leaf.bands)
    names = [f.name if (f := stock.finish(code)) else code for code in codes]
    what = f"sliding doors, {len(doors.leaves)} leaves in {' and '.join(names)}"
    return OfferedThing(f"{doors.wall_id}{LETTER}", what, (doors.width, doors.height))


SLIDING = ThingMaking(make=make_doors)
