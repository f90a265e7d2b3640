"""Edits of soffits."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change, new_ids
from tall_plank.edits.outline import corner
from tall_plank.edits.rooms import read, read_in
from tall_plank.edits.things.common import ThingEdits, added, deleted, replaced
from tall_plank.job import Corner, Job, Kind, Soffit
from tall_plank.job.things.table import find_thing
from tall_plank.measure import Length, PlankError
from tall_plank.measure.lengths import exact_text
from tall_plank.measure.limits import check_reach
from tall_plank.setout.rooms import find_wall


def add_soffit(job: Job, room_id: str, wall_id: str, depth: float = 400.0, drop: float = 250.0) -> Change:
    """Box the ceiling down along a wall, from end to end. `depth`, `drop`: mm."""
    check_reach(depth, drop)
    room = job.room(room_id)
    at = find_wall(room, wall_id)
    corners = tuple(
        corner(*at.frame.floor(x, y)) for x, y in ((0.0, 0.0), (at.length, 0.0), (at.length, -depth), (0.0, -depth))
    )
    job, (new_id,) = new_ids(job, "f")
    return added(job, room_id, Kind.SOFFIT, Soffit(new_id, corners, Length.of(drop)), "Add a soffit")


def add_soffit_over(job: Job, run_id: str) -> Change:
    """Let a soffit stand on the units of a run, its face set in by 20 mm: it follows them from now on.

    Raises
    ------
    PlankError where the run has no units or a soffit stands on it already
    """
    room, run = job.find_run(run_id)
    if any(s.over == run_id for s in room.soffits):
        raise PlankError("A soffit stands on this run already.", "soffit", "Change that one.")
    if not run.cells:
        raise PlankError("The run has no units to stand on.", "soffit", "Add units first.")
    job, (new_id,) = new_ids(job, "f")
    # Corners and drop are found anew whenever the run is set out; these stand in where the run is gone.
    corners = (corner(0.0, 0.0), corner(100.0, 0.0), corner(100.0, 100.0))
    soffit = Soffit(new_id, corners, Length.of(100.0), run_id, Length.of(20.0))
    return added(job, room.id, Kind.SOFFIT, soffit, "Stand a soffit on the units")


def set_soffit(job: Job, soffit_id: str, key: str, text: str) -> Change:
    """Set a soffit's depth below the ceiling (drop), or its outline by corners: `0 0; 2400 0; 2400 600; 0 600`.

    Raises
    ------
    PlankError “A soffit has no ….”
    """
    room, soffit = find_thing(job, Kind.SOFFIT, soffit_id)
    if key == "drop" and not soffit.over:
        new = msgspec.structs.replace(soffit, drop=read_in(job, text, Soffit, key))
    elif key == "reveal":
        new = msgspec.structs.replace(soffit, reveal=read_in(job, text, Soffit, key))
    elif key == "corners" and not soffit.over:
        new = msgspec.structs.replace(soffit, corners=tuple(_read_corners(job, text)))
    else:
        raise PlankError(f"A soffit has no {key}.", "soffit", "Choose drop or corners.")
    return replaced(job, room, Kind.SOFFIT, new, "Set the soffit")


def _read_corners(job: Job, text: str):  # type: ignore[no-untyped-def]

    pieces = [p.split() for p in text.split(";") if p.strip()]
    if len(pieces) < 3 or any(len(p) != 2 for p in pieces):
        raise PlankError("An outline needs three corners or more.", "corners", "Write x y; x y; x y.")
    return [Corner(read(job, x), read(job, y)) for x, y in pieces]


def corners_text(job: Job, soffit: Soffit) -> str:
    """A soffit's outline as the text that makes it again."""

    def word(length: Length) -> str:
        return exact_text(length, job.display, spaces=False)

    return "; ".join(f"{word(c.x)} {word(c.y)}" for c in soffit.corners)


def move_soffit(job: Job, soffit_id: str, dx: float, dy: float) -> Change:
    """Drag a soffit across the ceiling; one that stands on units stays there. `dx`, `dy`: mm.

    Raises
    ------
    PlankError “It stands on its units.”
    """
    check_reach(dx, dy)
    room, soffit = find_thing(job, Kind.SOFFIT, soffit_id)
    if soffit.over:
        raise PlankError("It stands on its units.", "soffit", "Move those.")
    corners = tuple(corner(round(c.x.mm + dx), round(c.y.mm + dy)) for c in soffit.corners)
    return replaced(job, room, Kind.SOFFIT, msgspec.structs.replace(soffit, corners=corners), "Move the soffit")


def delete_soffit(job: Job, thing_id: str) -> Change:
    """Take a soffit away."""
    return deleted(job, Kind.SOFFIT, thing_id)


SOFFIT = ThingEdits(
    add={
        "soffit": lambda job, spot: add_soffit(job, spot.room, spot.wall_id),
    },
    set=set_soffit,
    delete=delete_soffit,
    shift=move_soffit,
)
