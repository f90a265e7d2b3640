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
from tall_plank.measure import outlines as ol
from tall_plank.measure.limits import limits_of
from tall_plank.measure.numbers import read_number
from tall_plank.setout import MoldingPiece, set_out
from tall_plank.setout.columnfaces import find_surface, joined_columns, joined_faces
from tall_plank.setout.paneling.marks import place_of
from tall_plank.setout.things.column import column_points
from tall_plank.setout.wall import Wall

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


def add_field(job: Job, room_id: str, surface: str, start: str, x: float | None = None) -> Change:
    """Cover what is free of a wall or a face of a column, or the free stretch about x, from its skirting up, with a new
    treatment. `x`: mm.

    Raises
    ------
    PlankError “… covers no wall.”, “Wall … is covered already.”
    """
    job, treatment_id = _started(job, start)
    job, new = _new_field(job, job.room(room_id), surface, treatment_id, x)
    return added(
        job, room_id, Kind.WALL_FIELD, new, f"Cover {find_surface(job.room(room_id), surface).title} with {start}"
    )


def cover_column(job: Job, room_id: str, column_id: str, start: str) -> Change:
    """Cover every face of a column that is seen and has no cover, with one new treatment.

    Raises
    ------
    PlankError “… covers no wall.”, “The … is covered already.”
    """
    room, column = find_thing(job, Kind.COLUMN, column_id)
    job, treatment_id = _started(job, start)
    made: list[str] = []
    for join in joined_faces(room, column):
        if join.hidden or join.line.length < LEAST_FREE or any(f.wall == join.line.id for f in room.fields):
            continue
        job, new = _new_field(job, job.room(room_id), join.line.id, treatment_id, None)
        job = added(job, room_id, Kind.WALL_FIELD, new, "").job
        made.append(new.id)
    if not made:
        raise PlankError(
            f"The {column.kind} is covered already.", column.kind, "Choose another one, or delete a field of it."
        )
    return Change(job, f"Cover the {column.kind} with {start}", made=tuple(made))


def _started(job: Job, start: str) -> tuple[Job, str]:
    """The job with a new treatment as the shelf offers it, and its id."""
    if start not in STARTS:
        raise PlankError(f"“{start[:20]}” covers no wall.", "shelf", f"Known: {', '.join(STARTS)}.")
    name, zone = STARTS[start]
    job, (treatment_id,) = new_ids(job, "t")
    return msgspec.structs.replace(
        job, treatments=(*job.treatments, Treatment(treatment_id, name, zone()))
    ), treatment_id


def _new_field(job: Job, room: Room, surface: str, treatment_id: str, x: float | None) -> tuple[Job, WallField]:
    left, right = _free_stretch(job, room, surface, x)
    job, (field_id,) = new_ids(job, "f")
    name = f"{find_surface(room, surface).mark}{sum(f.wall == surface for f in room.fields) + 1}"
    levels = _levels(job, room, surface)
    return job, WallField(field_id, name, surface, treatment_id, left, right, *levels)


def _free_stretch(job: Job, room: Room, wall_id: str, x: float | None) -> tuple[Limit, Limit]:
    """Left and right limit of a new field: between those that are there."""
    wall = find_surface(room, wall_id)
    laid = next(r for r in set_out(job).rooms if r.room.id == room.id)
    taken = sorted((f.x0, f.x1) for f in laid.fields if f.wall_id == wall_id)
    free, at = [], 0.0
    for a, b in (*taken, (wall.length, wall.length)):
        if a - at >= LEAST_FREE:
            free.append((at, a))
        at = max(at, b)
    if not free:
        raise PlankError(f"{wall.heading} is covered already.", wall.title, "Choose another wall, or narrow a field.")
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
    wall = find_surface(room, wall_id)
    found = []
    for kind, edge in (("skirting", "top"), ("cornice", "bottom")):
        piece = next((m for m in laid.moldings if m.kind == kind and _lies_on(wall, m)), None)
        found.append(Limit(str(Kind.MOLDING.of(piece.molding)), edge) if piece is not None else Limit())  # type: ignore[arg-type]
    return found[0], found[1]


def _lies_on(wall: Wall, piece: MoldingPiece) -> bool:
    """Whether a molding runs along a wall or a face."""
    ends = [wall.frame.from_floor(p) for p in (piece.start, piece.end)]
    return (
        all(abs(y) < 1.0 for _, y in ends) and max(x for x, _ in ends) > 1.0 and min(x for x, _ in ends) < wall.length
    )


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
    what = "face" if laid.wall(one.wall).is_face else "wall"
    end = {"left": f"the {what}'s left end", "right": f"the {what}'s right end", "bottom": "the floor"}
    end["top"] = "the ceiling" if what == "wall" else "the face's top"
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
    known = {*room.wall_ids(), *(j.line.id for j in joined_columns(room) if not j.hidden)}
    for wall_id in dict.fromkeys(walls):
        if wall_id not in known:
            raise PlankError(f"There is no wall {wall_id[:20]}.", "walls", f"Known: {' '.join(room.wall_ids())}.")
        if any(f.wall == wall_id for f in job.room(room.id).fields):
            if wall_id != one.wall:
                skipped.append(f"{find_surface(room, wall_id).title} is covered already")
            continue
        job, (new_id,) = new_ids(job, "f")
        other = WallField(
            id=new_id,
            name=f"{find_surface(room, wall_id).mark}1",
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


def _column_at(job: Job, spot: Spot) -> str:
    """The column that is chosen, or on which something was dropped; empty where there is none."""
    room = job.room(spot.room)
    for column in room.columns:
        if spot.at is not None:
            if ol.inside(column_points(room, column), *spot.at):
                return column.id
        elif spot.x is not None:
            if column.wall == spot.wall_id and column.x.mm < spot.x < column.x.mm + column.width.mm:
                return column.id
        elif Kind.COLUMN.of(column.id) in spot.things:
            return column.id
    return ""


def _adder(start: str) -> Callable[[Job, Spot], Change]:
    def add(job: Job, spot: Spot) -> Change:
        column = _column_at(job, spot)
        if column:
            return cover_column(job, spot.room, column, start)
        return add_field(job, spot.room, spot.wall_id, start, spot.x)

    return add


WALL_FIELD = ThingEdits(
    add={start: _adder(start) for start in STARTS},
    set=set_field,
    delete=delete_field,
)
