"""What the edits of all placed things share: where a new one goes, putting it in, in place of another, and out."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

import msgspec

from tall_plank.edits.change import Change, with_kept_limits, with_room
from tall_plank.edits.rooms import check_room
from tall_plank.job import Job, Kind, Room, Source
from tall_plank.job.things.table import THINGS, find_thing


@dataclass(frozen=True)
class Spot:
    """Where something new goes.

    Attributes
    ----------
    wall : the wall that is worked on, or that it was dropped on
    x : mm along the wall; None: its middle
    at : the place on the floor where it was dropped on the plan, mm
    cells : the units that are chosen
    things : what else is chosen
    """

    room: str
    wall_id: str
    x: float | None = None
    at: tuple[float, float] | None = None
    cells: tuple[str, ...] = ()
    things: tuple[Source, ...] = ()


@dataclass(frozen=True, kw_only=True)
class ThingEdits:
    """The edits of one kind of thing.

    Attributes
    ----------
    add : what the shelf calls each way of adding one, and the edit
    set : a decision by its key and a text
    delete : one by its id
    slide : along its wall to x mm; None: it does not slide
    shift : over the floor by dx, dy mm; None: it does not
    """

    add: Mapping[str, Callable[[Job, Spot], Change]]
    set: Callable[[Job, str, str, str], Change]
    delete: Callable[[Job, str], Change]
    slide: Callable[[Job, str, float], Change] | None = None
    shift: Callable[[Job, str, float, float], Change] | None = None


def added(job: Job, room_id: str, kind: Kind, thing: Any, name: str) -> Change:
    """A thing put into a room."""
    room, rows = job.room(room_id), THINGS[kind].rows
    new = msgspec.structs.replace(room, **{rows: (*getattr(room, rows), thing)})
    check_room(job, new)
    return Change(with_room(job, new), name, made=(thing.id,))


def replaced(job: Job, room: Room, kind: Kind, thing: Any, name: str) -> Change:
    """A thing in place of the one with its id."""
    rows = THINGS[kind].rows
    things = tuple(thing if t.id == thing.id else t for t in getattr(room, rows))
    new = msgspec.structs.replace(room, **{rows: things})
    check_room(job, new)
    return Change(with_room(job, new), name)


def deleted(job: Job, kind: Kind, thing_id: str) -> Change:
    """Take something of a room away. Cells that it held stand free again."""
    room, thing = find_thing(job, kind, thing_id)
    noun = THINGS[kind]
    held = str(kind.of(thing_id))
    runs = tuple(
        msgspec.structs.replace(
            run,
            cells=tuple(
                msgspec.structs.replace(c, anchor=None) if c.anchor is not None and c.anchor.to == held else c
                for c in run.cells
            ),
        )
        for run in room.runs
    )
    kept = with_kept_limits(job, room, frozenset({held}))
    left = tuple(t for t in getattr(kept, noun.rows) if t.id != thing_id)
    new = msgspec.structs.replace(kept, **{noun.rows: left, "runs": runs})
    return Change(with_room(job, new), f"Delete the {noun.name_of(thing)}")
