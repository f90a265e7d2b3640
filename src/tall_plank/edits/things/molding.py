"""Edits of moldings round the room and along units."""

from __future__ import annotations

from collections.abc import Callable

import msgspec

from tall_plank.edits.change import Change, new_ids
from tall_plank.edits.rooms import read, read_in
from tall_plank.edits.things.common import Spot, ThingEdits, added, deleted, replaced
from tall_plank.job import Job, Kind, Room, RoomMolding
from tall_plank.job.things.molding import ALONG_UNITS
from tall_plank.job.things.table import find_thing
from tall_plank.measure import Length, PlankError
from tall_plank.setout import set_out
from tall_plank.setout.unitmoldings import chosen_units
from tall_plank.stock import Profile

MOLDINGS = {
    "skirting": ("MP-SKIRT-95", None), "dado rail": ("MP-RAIL-63", 900.0), "picture rail": ("MP-PICT-45", 2100.0),
    "cornice": ("MP-COVE-70", None), "unit cornice": ("MP-CORN-60", None), "light rail": ("MP-LIGHT-36", None),
    "shelf edge": ("MP-EDGE-24", None),
}  # fmt: skip
"""Starting profile and height (to the top edge) of each kind of molding."""


def profiles_for(job: Job, kind: str) -> tuple[Profile, ...]:
    """The profiles of the stock that a kind of molding may have; a cornice of the room can stand on units too."""
    uses = {kind, "cornice"} if kind == "unit cornice" else {kind}
    return tuple(p for p in job.stock.profiles if uses.intersection(p.uses))


def add_molding(job: Job, room_id: str, kind: str, cells: tuple[str, ...] = ()) -> Change:
    """Run a molding round the whole room, where it starts as one by others, or along units, where the shop makes it.

    Parameters
    ----------
    cells : the units that a molding along units runs along; empty: all that it suits

    Raises
    ------
    PlankError “… is no molding.”, “The stock has no profile for a ….”, “No unit here takes a ….”
    """
    if kind not in MOLDINGS:
        raise PlankError(f"“{kind}” is no molding.", "molding", f"Known: {', '.join(MOLDINGS)}.")
    code, height = MOLDINGS[kind]
    if job.stock.profile(code) is None:
        code = next((p.code for p in profiles_for(job, kind)), "")
    if not code:
        remedy = "Use Job ▸ Take new kinds from the library, or read a profile from a drawing."
        raise PlankError(f"The stock has no profile for a {kind}.", "molding", remedy)
    job, (new_id,) = new_ids(job, "d")
    length = Length.of(height) if height is not None else None
    if kind not in ALONG_UNITS:
        return added(job, room_id, Kind.MOLDING, RoomMolding(new_id, kind, code, length), f"Add a {kind}")  # type: ignore[arg-type]
    here = {c.id for run in job.room(room_id).runs for c in run.cells}
    mine = tuple(c for c in cells if c in here)
    molding = RoomMolding(new_id, kind, code, length, by_others=False, cells=mine)
    if not chosen_units(molding, set_out(job).room(room_id).placed):
        what = "Nothing that is chosen" if mine else "No unit of the room"
        raise PlankError(f"{what} takes a {kind}.", "molding", "Choose units, or hang some first.")
    return added(job, room_id, Kind.MOLDING, molding, f"Add a {kind}")


def set_molding(job: Job, molding_id: str, key: str, text: str) -> Change:
    """Set profile, height (empty: on the floor or under the ceiling, on or under its units), edge, walls (letters),
    cells (numbers of units), out (empty: as its kind has it) or by_others.

    Raises
    ------
    PlankError “… is no profile of a ….”, “There is no wall ….”, “There is no unit ….”, “A molding has no ….”
    """
    room, molding = find_thing(job, Kind.MOLDING, molding_id)
    if key == "profile":
        profile = job.stock.profile(text)
        if profile is None or profile not in profiles_for(job, molding.kind):
            raise PlankError(f"“{text}” is no profile of a {molding.kind}.", "profile", "Choose one from the list.")
        new = msgspec.structs.replace(molding, profile=text)
    elif key == "height":
        most = room.height.mm
        new = msgspec.structs.replace(molding, height=read(job, text, least=0.0, most=most) if text.strip() else None)
    elif key == "edge":
        new = msgspec.structs.replace(molding, edge="bottom" if text == "bottom" else "top")
    elif key == "walls":
        letters = tuple(text.upper().replace(",", " ").split())
        if len(letters) == 1 and letters[0] not in room.wall_ids():
            letters = tuple(letters[0])
        unknown = [w for w in letters if w not in room.wall_ids()]
        if unknown:
            raise PlankError(f"There is no wall {unknown[0]}.", "walls", f"Known: {' '.join(room.wall_ids())}.")
        new = msgspec.structs.replace(molding, walls=letters)
    elif key == "cells":
        new = msgspec.structs.replace(molding, cells=_cells_of(job, room, text))
    elif key == "out":
        new = msgspec.structs.replace(molding, out=read_in(job, text, RoomMolding, "out") if text.strip() else None)
    elif key == "by_others":
        new = msgspec.structs.replace(molding, by_others=text == "yes")
    else:
        known = "profile, height, edge, walls, cells, out or by_others"
        raise PlankError(f"A molding has no {key}.", "molding", f"Choose {known}.")
    return replaced(job, room, Kind.MOLDING, new, f"Set the {molding.kind}")


def _cells_of(job: Job, room: Room, text: str) -> tuple[str, ...]:
    """Units by their numbers, apart by blanks or commas; empty: all."""
    wanted = text.upper().replace(",", " ").split()
    here = {c.number.upper(): c.id for run in room.runs for c in run.cells if c.number}
    unknown = [number for number in wanted if number not in here]
    if unknown:
        raise PlankError(f"There is no unit {unknown[0][:12]} in this room.", "cells", "Write the numbers of units.")
    return tuple(dict.fromkeys(here[number] for number in wanted))


def delete_molding(job: Job, thing_id: str) -> Change:
    """Take a molding away."""
    return deleted(job, Kind.MOLDING, thing_id)


def _adder(kind: str) -> Callable[[Job, Spot], Change]:
    return lambda job, spot: add_molding(job, spot.room, kind, spot.cells)


MOLDING = ThingEdits(
    add={kind: _adder(kind) for kind in MOLDINGS},
    set=set_molding,
    delete=delete_molding,
)
