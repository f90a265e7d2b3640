"""Edits of wall fields: where they lie, which treatment they have, their own counts, the same on other walls."""

from __future__ import annotations

from collections.abc import Callable

import msgspec

from tall_plank.edits.change import Change, new_ids, with_room, without_unused_treatments
from tall_plank.edits.rooms import read_in
from tall_plank.edits.things.common import Spot, ThingEdits, added, deleted, replaced
from tall_plank.job import Job, Kind, Room, Source
from tall_plank.job.things.table import THINGS, find_thing
from tall_plank.job.things.wall_field import Limit, OwnCount, WallField
from tall_plank.job.treatment import (
    Arched,
    Bands,
    Bare,
    Boards,
    Modules,
    Panels,
    Raked,
    Slats,
    Treatment,
    Zone,
    ZoneBand,
    ZonePath,
    zone_at,
)
from tall_plank.measure import Length, PlankError
from tall_plank.measure.limits import limits_of
from tall_plank.measure.numbers import read_number
from tall_plank.setout import set_out
from tall_plank.setout.paneling.marks import place_of
from tall_plank.setout.rooms import find_wall

STARTS: dict[str, tuple[str, Callable[[], Zone]]] = {
    "equal panels": ("Equal panels", lambda: Panels()),
    "dado": ("Dado", lambda: Bands((ZoneBand(Panels(), Length("900mm", 900.0)), ZoneBand(Bare())))),
    "slats": ("Slats", lambda: Slats()),
    "flat boards": ("Flat boards", lambda: Boards()),
    "modules": ("Modules", lambda: Modules()),
    "raked panels": ("Raked panels", lambda: Raked(Panels())),
    "arch in slats": ("Arch in slats", lambda: Arched(inner=Boards(), outer=Slats())),
}
"""What the shelf offers: the name of its treatment, and how it starts."""

SIDES = ("left", "right", "bottom", "top")
LEAST_FREE = 100.0
"""mm; a narrower stretch takes no new field."""


def add_field(job: Job, room_id: str, wall_id: str, start: str, x: float | None = None) -> Change:
    """Cover what is free of a wall, or the free stretch about x, from its skirting up, with a new treatment. `x`: mm.

    Raises
    ------
    PlankError “… covers no wall.”, “Wall … is covered already.”
    """
    if start not in STARTS:
        raise PlankError(f"“{start[:20]}” covers no wall.", "shelf", f"Known: {', '.join(STARTS)}.")
    name, zone = STARTS[start]
    job, (treatment_id,) = new_ids(job, "t")
    job = msgspec.structs.replace(job, treatments=(*job.treatments, Treatment(treatment_id, name, zone())))
    return _added(job, job.room(room_id), wall_id, treatment_id, x, f"Cover wall {wall_id} with {start}")


def _added(job: Job, room: Room, wall_id: str, treatment_id: str, x: float | None, step: str) -> Change:
    left, right = _free_stretch(job, room, wall_id, x)
    job, (field_id,) = new_ids(job, "f")
    count = sum(f.wall == wall_id for f in room.fields)
    one = WallField(field_id, f"{wall_id}{count + 1}", wall_id, treatment_id, left, right, *_levels(job, room, wall_id))
    return added(job, room.id, Kind.WALL_FIELD, one, step)


def _free_stretch(job: Job, room: Room, wall_id: str, x: float | None) -> tuple[Limit, Limit]:
    """Left and right limit of a new field: between those that are there."""
    wall = find_wall(room, wall_id)
    laid = next(r for r in set_out(job).rooms if r.room.id == room.id)
    taken = sorted((f.x0, f.x1) for f in laid.fields if f.wall_id == wall_id)
    free, at = [], 0.0
    for a, b in (*taken, (wall.length, wall.length)):
        if a - at >= LEAST_FREE:
            free.append((at, a))
        at = max(at, b)
    if not free:
        raise PlankError(
            f"Wall {wall_id} is covered already.", f"wall {wall_id}", "Choose another wall, or narrow a field."
        )
    here = [s for s in free if x is not None and s[0] <= x <= s[1]]
    a, b = here[0] if here else max(free, key=lambda s: s[1] - s[0])
    right = wall.length - b
    return (
        Limit(off=Length.of(round(a, 3))) if a > 0.01 else Limit(),
        Limit(off=Length.of(round(right, 3))) if right > 0.01 else Limit(),
    )


def _levels(job: Job, room: Room, wall_id: str) -> tuple[Limit, Limit]:
    """Lower and upper limit of a new field: the skirting's top and the cornice's underside where there are some."""
    laid = next(r for r in set_out(job).rooms if r.room.id == room.id)
    found = []
    for kind, edge in (("skirting", "top"), ("cornice", "bottom")):
        piece = next((m for m in laid.moldings if m.wall_id == wall_id and m.kind == kind), None)
        found.append(Limit(str(Kind.MOLDING.of(piece.molding)), edge) if piece is not None else Limit())  # type: ignore[arg-type]
    return found[0], found[1]


def set_field(job: Job, field_id: str, key: str, text: str) -> Change:
    """Set the name, how far a side lies off its mark (`left` ..), the mark (`left_to`: `opening:o3 right`; empty: the
    wall's end), how it meets what is there (`left_meets`), what is kept clear, whether it is mirrored, its treatment.

    Raises
    ------
    PlankError “A wall field has no ….”, “There is no such mark.”
    """
    room, one = find_thing(job, Kind.WALL_FIELD, field_id)
    side, _, what = key.partition("_")
    if key == "name":
        if not text.strip():
            raise PlankError("A wall field needs a name.", "name", "Type one.")
        new = msgspec.structs.replace(one, name=text.strip()[:40])
    elif key in SIDES:
        limit = msgspec.structs.replace(getattr(one, key), off=read_in(job, text or "0", Limit, "off"))
        new = msgspec.structs.replace(one, **{key: limit})
    elif side in SIDES and what == "to":
        new = msgspec.structs.replace(one, **{side: _at_mark(job, room, one, side, text)})
    elif side in SIDES and what == "meets" and text in ("butt", "scribe", "gap"):
        new = msgspec.structs.replace(one, **{side: msgspec.structs.replace(getattr(one, side), meets=text)})
    elif key == "clear":
        new = msgspec.structs.replace(one, clear=read_in(job, text or "0", WallField, "clear"))
    elif key == "mirrored":
        new = msgspec.structs.replace(one, mirrored=text == "yes")
    elif key == "treatment":
        job.treatment(text)
        new = msgspec.structs.replace(one, treatment=text, counts=())
    else:
        raise PlankError(f"A wall field has no {key[:30]}.", "wall field", "Choose a decision of its sheet.")
    return _without_unused(replaced(job, room, Kind.WALL_FIELD, new, f"Set the wall field's {key.replace('_', ' ')}"))


def _at_mark(job: Job, room: Room, one: WallField, side: str, text: str) -> Limit:
    old: Limit = getattr(one, side)
    if not text.strip():
        return Limit(off=old.off, meets=old.meets)
    to, _, edge = text.rpartition(" ")
    wanted = ("left", "right") if side in ("left", "right") else ("bottom", "top")
    if Source.parse(to) is None or edge not in wanted:
        raise PlankError("There is no such mark.", side, "Choose one from the list.")
    limit = Limit(to, edge, old.off, old.meets)  # type: ignore[arg-type]
    laid = set_out(job).room(room.id)
    place_of(room, laid.wall(one.wall), laid.moldings, laid.placed, limit)
    return limit


def marks_of(job: Job, room_id: str, field_id: str, side: str) -> tuple[tuple[str, str], ...]:
    """What a side may lie at: code and words, the wall's own end first."""
    room, one = find_thing(job, Kind.WALL_FIELD, field_id)
    laid = set_out(job).room(room.id)
    upright = side in ("left", "right")
    end = {"left": "the wall's left end", "right": "the wall's right end", "bottom": "the floor", "top": "the ceiling"}
    found = [("", end[side])]
    sources: list[tuple[Source, str]] = []
    for kind in (Kind.OPENING, Kind.COLUMN, Kind.MOLDING, Kind.GUIDE, Kind.SOFFIT):
        for thing in getattr(room, THINGS[kind].rows):
            sources.append((kind.of(thing.id), THINGS[kind].name_of(thing)))
    sources += [(Kind.CELL.of(p.cell), f"unit {p.number}") for p in laid.placed if p.wall_id == one.wall and p.number]
    wall = laid.wall(one.wall)
    for source, name in sources:
        for edge in ("left", "right") if upright else ("top", "bottom"):
            limit = Limit(str(source), edge)
            try:
                at = place_of(room, wall, laid.moldings, laid.placed, limit)
            except PlankError:
                continue
            if -1.0 <= at <= (wall.length if upright else wall.height) + 1.0:
                found.append((f"{source} {edge}", f"{name} {source.id}, {edge}"))
    return tuple(found)


def set_count(job: Job, field_id: str, path: ZonePath, stretch: int, text: str) -> Change:
    """Give a stretch of panels on this wall a count of its own; empty: again what comes nearest to the wanted width.

    Raises
    ------
    PlankError “There are no panels there.”
    """
    room, one = find_thing(job, Kind.WALL_FIELD, field_id)
    if not isinstance(zone_at(job.treatment(one.treatment).zone, path), Panels):
        raise PlankError("There are no panels there.", "panels", "Choose a zone of panels.")
    counts = tuple(c for c in one.counts if (c.path, c.stretch) != (path, stretch))
    if text.strip():
        span = limits_of(OwnCount, "count")
        try:
            count = round(read_number(text))
        except ValueError as error:
            raise PlankError(f"{error}.", "panels", f"Give {span}.") from None
        if not span.holds(count) or not limits_of(OwnCount, "stretch").holds(stretch):
            raise PlankError(f"There can be {span} panels in a row.", "panels", f"Give {span}.")
        counts = (*counts, OwnCount(path, stretch, count))
    new = msgspec.structs.replace(one, counts=counts)
    return replaced(job, room, Kind.WALL_FIELD, new, "Set the number of panels")


def repeat_on(job: Job, field_id: str, walls: tuple[str, ...]) -> Change:
    """Cover other walls of the room as this one is: they share its treatment, and keep counts of their own.

    Raises
    ------
    PlankError “No other wall is free.”
    """
    room, one = find_thing(job, Kind.WALL_FIELD, field_id)
    skipped, made = [], []
    for wall_id in dict.fromkeys(walls):
        if wall_id not in room.wall_ids():
            raise PlankError(f"There is no wall {wall_id[:20]}.", "walls", f"Known: {' '.join(room.wall_ids())}.")
        if any(f.wall == wall_id for f in job.room(room.id).fields):
            if wall_id != one.wall:
                skipped.append(f"wall {wall_id} is covered already")
            continue
        job, (new_id,) = new_ids(job, "f")
        other = WallField(
            id=new_id,
            name=f"{wall_id}1",
            wall=wall_id,
            treatment=one.treatment,
            left=Limit(meets=one.left.meets),
            right=Limit(meets=one.right.meets),
            bottom=_kept_level(one.bottom),
            top=_kept_level(one.top),
            mirrored=one.mirrored,
            clear=one.clear,
        )
        now = job.room(room.id)
        job = with_room(job, msgspec.structs.replace(now, fields=(*now.fields, other)))
        made.append(new_id)
    if not made:
        raise PlankError("No other wall is free.", "walls", "Narrow the fields that are there, or choose another wall.")
    return Change(
        job, f"Cover {'another wall' if len(made) == 1 else f'{len(made)} walls'} alike", tuple(skipped), tuple(made)
    )


def _kept_level(limit: Limit) -> Limit:
    """A lower or upper limit on another wall: moldings run round, what stands on one wall does not."""
    source = Source.parse(limit.to)
    if source is None or source.kind in (Kind.MOLDING, Kind.GUIDE):
        return limit
    return Limit(off=limit.off, meets=limit.meets)


def part_from(job: Job, field_id: str) -> Change:
    """Give a field a treatment of its own, the same as the one that it shared.

    Raises
    ------
    PlankError “No other field shares its treatment.”
    """
    room, one = find_thing(job, Kind.WALL_FIELD, field_id)
    if sharing(job, one.treatment) < 2:
        raise PlankError("No other field shares its treatment.", "treatment", "It is its own already.")
    old = job.treatment(one.treatment)
    job, (treatment_id,) = new_ids(job, "t")
    own = msgspec.structs.replace(old, id=treatment_id, name=f"{old.name}, {one.name}"[:60])
    job = msgspec.structs.replace(job, treatments=(*job.treatments, own))
    new = msgspec.structs.replace(one, treatment=treatment_id)
    return replaced(job, room, Kind.WALL_FIELD, new, "Part it from the others")


def sharing(job: Job, treatment_id: str) -> int:
    """How many fields have a treatment."""
    return sum(f.treatment == treatment_id for room in job.rooms for f in room.fields)


def delete_field(job: Job, thing_id: str) -> Change:
    """Take a field away; its treatment goes with the last field that has it."""
    return _without_unused(deleted(job, Kind.WALL_FIELD, thing_id))


def _without_unused(change: Change) -> Change:
    job = without_unused_treatments(change.job)
    return change if job is change.job else Change(job, change.name, change.skipped, change.made, change.told)


def _adder(start: str) -> Callable[[Job, Spot], Change]:
    return lambda job, spot: add_field(job, spot.room, spot.wall_id, start, spot.x)


WALL_FIELD = ThingEdits(
    add={start: _adder(start) for start in STARTS},
    set=set_field,
    delete=delete_field,
)
