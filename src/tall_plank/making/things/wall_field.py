"""Wall fields of a room: their parts, each with its number, their moldings, what is bought for them."""

from __future__ import annotations

from collections import Counter

import msgspec

from tall_plank.job import Kind, Role, Source
from tall_plank.job.treatment import Boards, Modules, Panels, Slats
from tall_plank.making.made import MadeField, MadeLength, MadeTrim, OfferedThing
from tall_plank.making.paneling.battens import make_battens
from tall_plank.making.paneling.modules import make_modules
from tall_plank.making.paneling.panels import make_panels
from tall_plank.making.paneling.shop import FieldShop
from tall_plank.making.paneling.slats import make_boards, make_slats
from tall_plank.making.parts import Item, Part, Problem
from tall_plank.making.proof import faults_in
from tall_plank.making.things.common import RoomMaking, ThingMaking
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.remembered import remembered
from tall_plank.setout.frames import MoldingFrame
from tall_plank.setout.paneling.fields import FieldLaid
from tall_plank.setout.things.molding import long_length
from tall_plank.stock import Stock

LETTER = "N"


class FieldParts(msgspec.Struct, frozen=True, cache_hash=True):
    """What a field is made of."""

    parts: tuple[Part, ...]
    items: tuple[Item, ...]
    moldings: tuple[MoldingFrame, ...]
    problems: tuple[Problem, ...]


@remembered(256)
def field_parts(laid: FieldLaid, stock: Stock, finish: str, carcass: str) -> FieldParts:
    """A field made; kept while nothing that it is made from changes."""
    shop = FieldShop(laid, stock, finish, carcass)
    for fault in laid.faults:
        shop.problems.append(Problem(fault.what, fault.remedy))
    moldings: list[MoldingFrame] = [*laid.rails]
    for zone in laid.zones:
        before = len(shop.pieces)
        try:
            match zone.cover:
                case Panels():
                    moldings += make_panels(shop, zone, zone.cover)
                case Slats():
                    make_slats(shop, zone, zone.cover)
                case Boards():
                    make_boards(shop, zone, zone.cover)
                case Modules():
                    make_modules(shop, zone, zone.cover)
        except PlankError as error:
            del shop.pieces[before:]
            shop.wrong(error)
    try:
        make_battens(shop)
    except PlankError as error:
        shop.wrong(error)
    sound: list[Part] = []
    for part in shop.pieces:
        faults = faults_in(part)
        if faults:
            shop.problems += [f for f in faults[:1] if f not in shop.problems]
        else:
            sound.append(part)
    return FieldParts(tuple(sound), tuple(shop.items), tuple(moldings), tuple(shop.problems))


def make_fields(making: RoomMaking) -> None:
    """Every wall field of a room."""
    stock = making.basis.stock
    scheme = making.basis.active_scheme()
    finish, carcass = scheme.finish(Role.FRONT) or "", scheme.finish(Role.CARCASS) or ""
    for laid in making.room.fields:
        made = field_parts(laid, stock, finish, carcass)
        source = Kind.WALL_FIELD.of(laid.field.id)
        _trims(making, laid, made, source)
        number = f"{making.prefix}{making.line_name(making.room.wall(laid.wall_id))}{LETTER}{laid.number}"
        label = f"{number} {laid.field.name}"
        room = making.room.room.id
        making.fields.append(MadeField(source, room, laid.wall_id, number, label, made.moldings, made.problems))
        if made.parts:
            what = f"wall field {laid.field.name}, {laid.treatment.name}"
            making.offered.append(OfferedThing(number, what, (laid.width, laid.height)))


def _trims(making: RoomMaking, laid: FieldLaid, made: FieldParts, source: Source) -> None:
    line = making.room.wall(laid.wall_id)
    name = making.line_name(line)
    letter = f"{LETTER}{laid.number}"
    label = f"{making.prefix}{name}{letter} {laid.field.name}"

    def trim(number: str, part: Part, **more: object) -> MadeTrim:
        return MadeTrim(
            label,
            number,
            making.room.room.id,
            "",
            line.frame,
            part,
            source=source,
            kind="wall field",
            bought_for=label,
            **more,  # type: ignore[arg-type]
        )

    for i, (part, number) in enumerate(zip(made.parts, _numbers(making, name, letter, made.parts), strict=True)):
        making.trims.append(trim(number, part, items=made.items if i == 0 else ()))
    for m in made.moldings:
        profile = making.basis.stock.profile(m.profile)
        for _, outer, left, right in m.pieces():
            number = making.number(name, f"{letter}M")
            room = making.room.room.id
            length = long_length(outer, profile.height, left, right) if profile is not None else outer
            making.lengths.append(
                MadeLength(number, room, m.what, m.profile, round(length, 6), left, right, False, 90.0)
            )


def _numbers(making: RoomMaking, name: str, letter: str, parts: tuple[Part, ...]) -> list[str]:
    """The number of every piece: wall, field, piece; alike ones share it and are counted after a dash. What is clipped
    is like no other and counts from the left."""
    keys = [msgspec.structs.replace(p, frame=HERE) for p in parts]
    counts = Counter(keys)
    numbers: dict[Part, str] = {}
    so_far: Counter[Part] = Counter()
    found = []
    for key in keys:
        if key not in numbers:
            numbers[key] = making.number(name, letter)
        so_far[key] += 1
        found.append(numbers[key] if counts[key] == 1 else f"{numbers[key]}-{so_far[key]}")
    return found


HERE = Frame((0.0, 0.0, 0.0))
"""A frame in which pieces are compared."""

WALL_FIELD = ThingMaking(make=make_fields)
