"""Making the whole job: every placed unit and every trim, with the numbers of their parts."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import lru_cache

import msgspec

from tall_plank.job import Construction, Job, Service, Template, Unit
from tall_plank.job.inherit import construction_of, finish_of
from tall_plank.job.scheme import Role
from tall_plank.making.builder import UnitSpec
from tall_plank.making.parts import Item, Part, Problem
from tall_plank.making.sliding import MadeSliding, make_sliding
from tall_plank.making.trims import trim_part, worktop_part
from tall_plank.making.unit import MadeUnit, make_unit
from tall_plank.measure import Frame, Length, PlankError
from tall_plank.measure.frames import Vec
from tall_plank.setout import Layout, MoldingPiece, Placed, RoomLayout, RunLayout


class NumberedPart(msgspec.Struct, frozen=True):
    """A part with its number, the same on list, plan, label and drawing; `frame` is in the room."""

    number: str
    unit: str
    cell: str
    part: Part
    parent: Frame


class MadeTrim(msgspec.Struct, frozen=True, cache_hash=True):
    """A board of a trim made; `label` such as `A worktop`; `wall` the line's frame in the room.

    Attributes
    ----------
    source : what it belongs to: `run:n2` or `island:i4`
    items : what is bought for it: joint bolts
    """

    label: str
    number: str
    room: str
    run: str
    wall: Frame
    part: Part | None
    problem: Problem | None = None
    source: str = ""
    kind: str = ""
    items: tuple[Item, ...] = ()


class MadeMolding(msgspec.Struct, frozen=True, cache_hash=True):
    """A piece of molding cut from a bar; by others it is drawn only."""

    number: str
    room: str
    piece: MoldingPiece
    by_others: bool


class MadeRoom(msgspec.Struct, frozen=True, cache_hash=True):
    """Everything of one room."""

    units: tuple[tuple[Placed, MadeUnit], ...]
    trims: tuple[MadeTrim, ...]
    moldings: tuple[MadeMolding, ...] = ()
    sliding: tuple[MadeSliding, ...] = ()


class MadeJob(msgspec.Struct, frozen=True):
    """Every placed unit with what it is made of, and the trims."""

    rooms: tuple[MadeRoom, ...]

    @property
    def units(self) -> tuple[tuple[Placed, MadeUnit], ...]:
        return tuple(u for room in self.rooms for u in room.units)

    @property
    def trims(self) -> tuple[MadeTrim, ...]:
        return tuple(t for room in self.rooms for t in room.trims)

    @property
    def moldings(self) -> tuple[MadeMolding, ...]:
        return tuple(m for room in self.rooms for m in room.moldings)

    @property
    def sliding(self) -> tuple[MadeSliding, ...]:
        return tuple(s for room in self.rooms for s in room.sliding)

    def of(self, cell: str) -> MadeUnit | None:
        for room in self.rooms:
            found = _by_cell(room).get(cell)
            if found is not None:
                return found
        return None

    def parts(self) -> Iterator[NumberedPart]:
        """Every part of the job with its number."""
        for placed, made in self.units:
            for i, part in enumerate(made.parts, 1):
                yield NumberedPart(f"{placed.number}.{i}", placed.number, placed.cell, part, placed.frame)
        for trim in self.trims:
            if trim.part is not None:
                yield NumberedPart(trim.number, trim.label, "", trim.part, trim.wall)


@lru_cache(maxsize=128)
def _by_cell(room: MadeRoom) -> dict[str, MadeUnit]:
    return {placed.cell: made for placed, made in room.units}


PIPED = ("water", "waste", "power", "gas", "vent")
"""Service points that come out of the wall behind a unit."""


def _behind(services: tuple[Service, ...], placed: Placed) -> tuple[tuple[str, float, float], ...]:
    """Service points on the wall behind a unit, in the unit's frame: kind, x, z."""
    return tuple(
        (s.kind, round(s.x.mm - placed.x, 3), round(s.height.mm - placed.bottom, 3))
        for s in services
        if s.wall == placed.wall
        and s.kind in PIPED
        and placed.x < s.x.mm < placed.right
        and placed.bottom < s.height.mm < placed.top
    )


def spec_of(job: Job, placed: Placed, room: RoomLayout | None = None) -> UnitSpec:
    """What a placed unit is made from; with its room, also what it stands on and what comes out of the wall."""
    if room is None:
        return _spec_in(job, placed, "plinth", ())
    feet = next((r.run.feet for r in room.runs if r.run.id == placed.run), "plinth")
    return _spec_in(job, placed, feet, room.room.services)


def _spec_in(job: Job, placed: Placed, feet: str, services: tuple[Service, ...]) -> UnitSpec:
    unit = job.unit(placed.unit)
    sizes = (placed.width, placed.height, placed.depth, placed.leg, placed.blind, placed.filler)
    return _spec(
        unit,
        job.template(placed.template),
        construction_of(job, unit),
        (finish_of(job, unit, Role.FRONT), finish_of(job, unit, Role.CARCASS), finish_of(job, unit, Role.DRAWER)),
        placed.level.value,
        tuple(round(mm, 6) for mm in sizes),
        placed.corner,
        feet,
        _behind(services, placed),
        round(placed.bottom, 3) if placed.level != "hung" else 0.0,
    )


@lru_cache(maxsize=4096)
def _spec(
    unit: Unit,
    template: Template,
    made: Construction,
    finishes: tuple[str, str, str],
    level: str,
    sizes: tuple[float, ...],
    corner_side: str,
    feet: str,
    pipes: tuple[tuple[str, float, float], ...],
    off_floor: float,
) -> UnitSpec:
    width, height, depth, leg, blind, filler = sizes
    return UnitSpec(
        template=template.code,
        level=level,
        body=template.body,
        top=template.top,
        sink=template.sink,
        appliance=template.appliance,
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


def make_one(job: Job, layout: Layout, cell: str) -> MadeUnit | None:
    """One placed unit made by itself, as in the whole job; None where there is no such cell."""
    placed = layout.find(cell)
    if placed is None:
        return None
    return make_unit(spec_of(job, placed, layout.room(placed.room)), job.stock)


def make_job(job: Job, layout: Layout) -> MadeJob:
    """Make everything that is placed. Units alike are made once; a room that did not change is kept."""
    return MadeJob(
        tuple(
            _made_room(
                layout_of_room,
                msgspec.structs.replace(
                    job,
                    name="",
                    number="",
                    client="",
                    site="",
                    rooms=(),
                    labels=(),
                    book="",
                    next_id=0,
                    values=job.values,
                    units=_used(job, layout_of_room),
                    pricing=_NO_PRICING,
                    pictures=(),
                    inserts=(),
                    shortlist=(),
                    cutting=_NO_CUTTING,
                    kept_plan=None,
                ),
                i,
            )
            for i, layout_of_room in enumerate(layout.rooms)
        )
    )


_NO_PRICING, _NO_CUTTING = Job(name="").pricing, Job(name="").cutting


def _used(job: Job, room: RoomLayout) -> tuple[Unit, ...]:
    used = {p.unit for p in room.placed}
    return tuple(u for u in job.units if u.id in used)


@lru_cache(maxsize=64)
def _made_room(room: RoomLayout, job: Job, place: int) -> MadeRoom:
    basis = msgspec.structs.replace(job, units=())
    units = tuple(
        pair
        for laid in room.runs
        for pair in _made_run(basis, tuple(job.unit(p.unit) for p in laid.cells), laid, room.room.services)
    )
    prefix = "" if place == 0 else str(place + 1)
    trims: list[MadeTrim] = []
    counts: dict[str, int] = {}

    def number(wall: str, kind: str) -> str:
        letter = f"{prefix}{wall}{TRIM_LETTERS[kind]}"
        counts[letter] = counts.get(letter, 0) + 1
        return f"{letter}.{counts[letter]}"

    for top in room.worktops:
        made = construction_of(job, job.unit(_unit_of(room, top.cell)))
        line = room.wall(top.wall)
        name = line.id[0] if line.island else line.id
        items = (Item(made.joint_bolt, top.bolts, f"{top.bolts} bolts in a worktop joint"),) if top.bolts else ()
        trims.append(
            _made_trim(
                f"{prefix}{name} worktop",
                number(name, "worktop"),
                room,
                top.run,
                line.frame,
                top.source,
                "worktop",
                items,
                lambda t=top, m=made: worktop_part(t, m, job.stock),  # type: ignore[misc]
            )
        )
    lent = _lent(room, units)
    for board in room.boards:
        made = construction_of(job, job.unit(_unit_of(room, board.cell)))
        line = room.wall(board.wall)
        name = line.id[0] if line.island else line.id
        run = next((p.run for p in room.placed if p.cell == board.cell), "")
        holes = lent.get(line.island, ()) if board.kind in ("end panel", "dividing panel") else ()
        trims.append(
            _made_trim(
                f"{prefix}{name} {board.kind}",
                number(name, board.kind),
                room,
                run,
                line.frame,
                board.source,
                board.kind,
                (),
                lambda t=board, m=made, h=holes: trim_part(t, m, job.stock, h),  # type: ignore[misc]
            )
        )
    by_others = {m.id: m.by_others for m in room.room.moldings}
    moldings = tuple(
        MadeMolding(number(p.wall or "0", p.kind), room.room.id, p, by_others[p.molding]) for p in room.moldings
    )
    sliding = _sliding(room, job, units)
    for doors in sliding:
        line = room.wall(doors.wall)
        name = line.id[0] if line.island else line.id
        label = f"{prefix}{name} sliding doors"
        for i, (_, part) in enumerate(doors.parts):
            first = doors.items if i == 0 else ()
            trims.append(
                MadeTrim(
                    label,
                    number(name, "sliding leaf"),
                    room.room.id,
                    doors.run,
                    line.frame,
                    part,
                    None,
                    doors.source,
                    "sliding leaf",
                    first,
                )
            )
        for problem in doors.problems:
            trims.append(
                MadeTrim(
                    label,
                    f"{prefix}{name}G",
                    room.room.id,
                    doors.run,
                    line.frame,
                    None,
                    problem,
                    doors.source,
                    "sliding leaf",
                )
            )
    return MadeRoom(units, tuple(trims), moldings, sliding)


@lru_cache(maxsize=256)
def _made_run(
    basis: Job, units: tuple[Unit, ...], laid: RunLayout, services: tuple[Service, ...]
) -> tuple[tuple[Placed, MadeUnit], ...]:
    """The units of a run made; kept while nothing that they are made from changes.

    Parameters
    ----------
    basis : the job without rooms and units
    units : those of its cells
    """
    job = msgspec.structs.replace(basis, units=units)
    return tuple((p, make_unit(_spec_in(job, p, laid.run.feet, services), job.stock)) for p in laid.cells)


def _sliding(room: RoomLayout, job: Job, units: tuple[tuple[Placed, MadeUnit], ...]) -> tuple[MadeSliding, ...]:
    by_cell = {placed.cell: (placed, made) for placed, made in units}
    found = []
    for layout in room.runs:
        for doors in layout.run.sliding:
            if doors.first.cell not in by_cell:
                continue
            standard = construction_of(job, job.unit(_unit_of(room, doors.first.cell)))
            made = make_sliding(doors, layout.run, by_cell, standard, job.stock)
            if made is not None:
                found.append(made)
    return tuple(found)


TRIM_LETTERS = {
    "worktop": "W", "plinth": "P", "plinth return": "P", "corner filler": "F", "ceiling filler": "F",
    "waterfall filler": "F", "end panel": "E", "back panel": "B", "dividing panel": "D", "waterfall leg": "L",
    "upstand": "U", "sliding leaf": "G", "splashback": "S", "skirting": "M", "dado rail": "M",
    "picture rail": "M", "cornice": "M",
}  # fmt: skip
"""Letter of each kind of trim in its number, after the wall's: AW.1 is the first worktop on wall A."""


def _unit_of(room: RoomLayout, cell: str) -> str:
    return next(p.unit for p in room.placed if p.cell == cell)


def _lent(
    room: RoomLayout, units: tuple[tuple[Placed, MadeUnit], ...]
) -> dict[str, tuple[tuple[Vec, float, float, str], ...]]:
    """Island -> holes that its units without gables ask of the panels beside them, in the frame of its first face."""
    found: dict[str, list[tuple[Vec, float, float, str]]] = {}
    for placed, made in units:
        island = room.wall(placed.wall).island
        if not made.lent or not island:
            continue
        first = next(w for w in room.faces if w.island == island)
        for _, bores in made.lent:
            for point, diameter, depth, use in bores:
                place = first.frame.into(placed.frame.out(point))
                found.setdefault(island, []).append((place, diameter, depth, use))
    return {key: tuple(rows) for key, rows in found.items()}


def _made_trim(
    label: str,
    number: str,
    room: RoomLayout,
    run: str,
    frame: Frame,
    source: str,
    kind: str,
    items: tuple[Item, ...],
    make: Callable[[], Part],
) -> MadeTrim:
    """A trim with its number, or the problem that stops it."""
    try:
        part, problem = make(), None
    except PlankError as error:
        part, problem = None, Problem(error.what, error.remedy)
    return MadeTrim(label, number, room.room.id, run, frame, part, problem, source, kind, items if part else ())
