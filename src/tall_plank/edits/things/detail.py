"""Edits of details: places that are drawn large."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change, new_ids
from tall_plank.edits.rooms import read
from tall_plank.edits.things.common import Spot, ThingEdits, added, deleted, replaced
from tall_plank.job import Body, Job, Kind, Level
from tall_plank.job.things.detail import Detail
from tall_plank.job.things.table import find_thing
from tall_plank.measure import Length, PlankError
from tall_plank.measure.limits import check_reach
from tall_plank.setout import RoomLayout, set_out

SCALES = {"1:1": 1, "1:2": 2, "1:5": 5, "1:10": 10}
CUTS = {"upright": "cut upright", "level": "cut level", "seen": "seen from before it"}

SMALLEST, LARGEST = 20.0, 2000.0
"""mm; side of what is drawn."""

PAPER = 380.0
"""mm of paper; a detail is drawn no larger: it stands on a sheet with others."""

OVER = 60.0
"""mm over and under a unit that a detail is still about it: its worktop, its plinth."""

USUAL = 300.0
"""mm; side of a new one at 1:5."""


def front_at(room: RoomLayout, wall_id: str, x: float, z: float) -> float:
    """How far what stands at a place reaches into the room, mm: the front of a unit, the wall itself elsewhere."""
    on_wall = (p for p in room.placed if p.wall_id == wall_id and p.x <= x <= p.right)
    return max((p.depth for p in on_wall if p.bottom - OVER <= z <= p.top + OVER), default=0.0)


def add_detail(
    job: Job, room_id: str, wall_id: str, x: float | None = None, z: float | None = None, cut: str = "upright"
) -> Change:
    """Mark a detail on a wall or an island's face: at x and z, else where worktop and fronts meet in the middle of its
    first unit. `x`, `z`: mm.

    Raises
    ------
    PlankError where there is no such wall or way of cutting
    """
    check_reach(x, z)
    job.room(room_id)  # told where there is none
    if cut not in CUTS:
        raise PlankError(f"“{cut[:20]}” is no way to cut.", "detail", f"Choose {', '.join(CUTS)}.")
    room = set_out(job).room(room_id)
    if not room.has_line(wall_id):
        raise PlankError(f"There is no wall {wall_id[:10]}.", "detail", "Choose another wall.")
    wall = room.wall(wall_id)
    units = [p for p in room.placed if p.wall_id == wall_id and p.is_solid]
    # Before all others one that a worktop lies on.
    first = min(units, key=lambda p: (p.level is not Level.BASE, p.body is Body.FILLER, p.x), default=None)
    if x is None:
        x = (first.x + first.right) / 2 if first is not None else wall.length / 2
    if z is None and first is not None:
        z = (first.bottom + first.top) / 2 if cut == "level" else first.top
    z = 100.0 if z is None else z
    x, z = min(max(0.0, x), wall.length), min(max(0.0, z), wall.height)
    away = front_at(room, wall_id, x, z)
    job, (new_id,) = new_ids(job, "y")
    new = Detail(new_id, wall_id, Length.of(round(x)), Length.of(round(z)), Length.of(away), Length.of(USUAL), cut)  # type: ignore[arg-type]
    return added(job, room_id, Kind.DETAIL, new, "Mark a detail")


def set_detail(job: Job, detail_id: str, key: str, text: str) -> Change:
    """Set where a detail is (wall, x, z, away), how large (size), how it is cut, or its scale.

    Raises
    ------
    PlankError where the text is none of these, or it would not stand on a sheet
    """
    room, detail = find_thing(job, Kind.DETAIL, detail_id)
    if key == "wall":
        if text not in room.line_ids():
            raise PlankError(f"There is no wall {text[:10]}.", "detail", "Choose another wall.")
        new = msgspec.structs.replace(detail, wall=text)
    elif key == "cut":
        if text not in CUTS:
            raise PlankError(f"“{text[:20]}” is no way to cut.", key, f"Choose {', '.join(CUTS)}.")
        new = msgspec.structs.replace(detail, cut=text)
    elif key == "scale":
        if text not in SCALES:
            raise PlankError(f"“{text[:20]}” is no scale of details.", key, f"Choose {', '.join(SCALES)}.")
        new = msgspec.structs.replace(detail, scale=SCALES[text])
    elif key in ("x", "z", "away"):
        new = msgspec.structs.replace(detail, **{key: read(job, text, least=0.0)})
    elif key == "size":
        new = msgspec.structs.replace(detail, size=read(job, text, least=SMALLEST, most=LARGEST))
    else:
        raise PlankError(f"A detail has no {key[:20]}.", "detail", "Choose wall, x, z, away, size, cut or scale.")
    wide = new.size.mm / new.scale
    if wide > PAPER:
        least = next((name for name, s in SCALES.items() if new.size.mm / s <= PAPER), "a smaller window")
        what = f"At 1:{new.scale} a window of {new.size.mm:g} mm takes {wide:.0f} mm of paper."
        raise PlankError(what, key, f"{PAPER:g} mm is the most: choose {least}.")
    return replaced(job, room, Kind.DETAIL, new, "Set the detail")


def move_detail(job: Job, detail_id: str, x: float, z: float) -> Change:
    """Drag a detail over its wall. `x`, `z`: mm of its middle."""
    check_reach(x, z)
    room, detail = find_thing(job, Kind.DETAIL, detail_id)
    new = msgspec.structs.replace(detail, x=Length.of(max(0.0, round(x))), z=Length.of(max(0.0, round(z))))
    return replaced(job, room, Kind.DETAIL, new, "Move the detail")


def _slide(job: Job, detail_id: str, x: float) -> Change:
    """Along its wall. `x`: mm of its middle."""
    check_reach(x)
    room, detail = find_thing(job, Kind.DETAIL, detail_id)
    length = next((w.length for w in set_out(job).room(room.id).lines if w.id == detail.wall), None)
    x = max(0.0, x) if length is None else min(max(0.0, x), length)
    return move_detail(job, detail_id, x, detail.z.mm)


def delete_detail(job: Job, detail_id: str) -> Change:
    """Take a detail away, with its drawing."""
    return deleted(job, Kind.DETAIL, detail_id)


def _added(job: Job, spot: Spot, cut: str) -> Change:
    return add_detail(job, spot.room, spot.wall_id, spot.x, None, cut)


DETAIL = ThingEdits(
    add={
        "detail upright": lambda job, spot: _added(job, spot, "upright"),
        "detail level": lambda job, spot: _added(job, spot, "level"),
        "detail seen": lambda job, spot: _added(job, spot, "seen"),
    },
    set=set_detail,
    delete=delete_detail,
    slide=_slide,
)
