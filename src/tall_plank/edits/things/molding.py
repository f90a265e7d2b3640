"""Edits of moldings round the room."""

from __future__ import annotations

from collections.abc import Callable

import msgspec

from tall_plank.edits.change import Change, new_ids
from tall_plank.edits.rooms import read
from tall_plank.edits.things.common import Spot, ThingEdits, added, deleted, replaced
from tall_plank.job import Job, Kind, RoomMolding
from tall_plank.job.things.table import find_thing
from tall_plank.measure import Length, PlankError

MOLDINGS = {
    "skirting": ("MP-SKIRT-95", None), "dado rail": ("MP-RAIL-63", 900.0), "picture rail": ("MP-PICT-45", 2100.0),
    "cornice": ("MP-COVE-70", None),
}  # fmt: skip
"""Starting profile and height (to the top edge) of each kind of molding."""


def add_molding(job: Job, room_id: str, kind: str) -> Change:
    """Run a molding round the whole room; it starts as one by others.

    Raises
    ------
    PlankError “… is no molding.”, “The stock has no profile for a ….”
    """
    if kind not in MOLDINGS:
        raise PlankError(f"“{kind}” is no molding.", "molding", f"Known: {', '.join(MOLDINGS)}.")
    code, height = MOLDINGS[kind]
    if job.stock.profile(code) is None:
        code = next((p.code for p in job.stock.profiles if kind in p.uses), "")
    if not code:
        raise PlankError(f"The stock has no profile for a {kind}.", "molding", "Read stock files that have one.")
    job, (new_id,) = new_ids(job, "d")
    length = Length.of(height) if height is not None else None
    return added(job, room_id, Kind.MOLDING, RoomMolding(new_id, kind, code, length), f"Add a {kind}")  # type: ignore[arg-type]


def set_molding(job: Job, molding_id: str, key: str, text: str) -> Change:
    """Set profile, height (empty: on the floor or under the ceiling), edge, walls (letters) or by_others.

    Raises
    ------
    PlankError “… is no profile of a ….”, “There is no wall ….”, “A molding has no ….”
    """
    room, molding = find_thing(job, Kind.MOLDING, molding_id)
    if key == "profile":
        profile = job.stock.profile(text)
        if profile is None or molding.kind not in profile.uses:
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
    elif key == "by_others":
        new = msgspec.structs.replace(molding, by_others=text == "yes")
    else:
        raise PlankError(f"A molding has no {key}.", "molding", "Choose profile, height, edge, walls or by_others.")
    return replaced(job, room, Kind.MOLDING, new, f"Set the {molding.kind}")


def delete_molding(job: Job, thing_id: str) -> Change:
    """Take a molding away."""
    return deleted(job, Kind.MOLDING, thing_id)


def _adder(kind: str) -> Callable[[Job, Spot], Change]:
    return lambda job, spot: add_molding(job, spot.room, kind)


MOLDING = ThingEdits(
    add={kind: _adder(kind) for kind in MOLDINGS},
    set=set_molding,
    delete=delete_molding,
)
