"""Edits of what a room has besides walls and runs: columns, slopes, soffits, service points, moldings, its use."""

from __future__ import annotations

import math
from typing import Any

import msgspec

from tall_plank.edits.change import Change, new_ids, with_room
from tall_plank.edits.outline import corner
from tall_plank.edits.rooms import check_room, read
from tall_plank.job import Column, Job, RoofWindow, Room, RoomMolding, Service, Slope, Soffit
from tall_plank.job.uses import USES
from tall_plank.measure import Length, PlankError
from tall_plank.measure import outlines as ol
from tall_plank.setout.rooms import soffit_points, walls_of

PARTS = {
    "column": "columns", "slope": "slopes", "soffit": "soffits", "service": "services", "molding": "moldings",
    "roof window": "roof_windows", "guide": "guides", "underlay": "underlays",
}  # fmt: skip
WORDS = {"guide": "guide line", "underlay": "plan image"}
SERVICES = ("water", "waste", "power", "gas", "vent")
MOLDINGS = {
    "skirting": ("MP-SKIRT-95", None), "dado rail": ("MP-RAIL-63", 900.0), "picture rail": ("MP-PICT-45", 2100.0),
    "cornice": ("MP-COVE-70", None),
}  # fmt: skip
"""Starting profile and height (to the top edge) of each kind of molding."""


def find(job: Job, kind: str, thing_id: str) -> tuple[Room, Any]:
    """A column, slope, soffit, service point, molding, roof window, guide line or plan image, with its room.

    Raises
    ------
    PlankError where it is no longer there
    """
    for room in job.rooms:
        for thing in getattr(room, PARTS[kind]):
            if thing.id == thing_id:
                return room, thing
    raise PlankError(f"The {kind} is no longer there.", thing_id, "Select another one.")


def added(job: Job, room_id: str, kind: str, thing: Any, name: str) -> Change:
    room = job.room(room_id)
    new = msgspec.structs.replace(room, **{PARTS[kind]: (*getattr(room, PARTS[kind]), thing)})
    check_room(job, new)
    _check(new, kind, thing)
    return Change(with_room(job, new), name, made=(thing.id,))


def replaced(job: Job, room: Room, kind: str, thing: Any, name: str) -> Change:
    rows = tuple(thing if t.id == thing.id else t for t in getattr(room, PARTS[kind]))
    new = msgspec.structs.replace(room, **{PARTS[kind]: rows})
    _check(new, kind, thing)
    check_room(job, new)
    return Change(with_room(job, new), name)


def _check(room: Room, kind: str, thing: Any) -> None:
    if kind == "soffit":
        points = soffit_points(thing)
        if ol.crossing(points) is not None or abs(ol.area(points)) < 100.0:
            raise PlankError("The soffit's outline crosses itself or has no area.", "soffit", "Move a corner.")
        if thing.drop.mm >= room.height.mm - 200.0:
            raise PlankError("The soffit would come down to the floor.", "soffit", "Type a smaller depth.")
    if kind == "slope" and thing.low.mm >= room.height.mm:
        raise PlankError("The slope would start above the ceiling.", "slope", "Type a lower height at the wall.")


def delete(job: Job, kind: str, thing_id: str) -> Change:
    """Take something of a room away. Cells that it held stand free again; a slope takes its roof windows along."""
    room, thing = find(job, kind, thing_id)
    rows = tuple(t for t in getattr(room, PARTS[kind]) if t.id != thing_id)
    source = f"{kind}:{thing_id}"
    runs = tuple(
        msgspec.structs.replace(
            run,
            cells=tuple(
                msgspec.structs.replace(c, anchor=None) if c.anchor is not None and c.anchor.to == source else c
                for c in run.cells
            ),
        )
        for run in room.runs
    )
    new = msgspec.structs.replace(room, **{PARTS[kind]: rows, "runs": runs})
    if kind == "slope":
        left = tuple(w for w in new.roof_windows if w.slope != thing_id)
        new = msgspec.structs.replace(new, roof_windows=left)
    if kind == "underlay":
        used = {u.image for r in job.rooms for u in r.underlays if u.id != thing_id}
        used |= job.stock.pictures()
        job = msgspec.structs.replace(job, pictures=tuple(p for p in job.pictures if p.name in used))
    word = WORDS.get(kind, getattr(thing, "kind", kind))
    return Change(with_room(job, new), f"Delete the {word}")


def set_use(job: Job, room_id: str, use: str) -> Change:
    """Say what a room is for; it decides which kinds the shelf offers first."""
    if use not in USES:
        raise PlankError(f"“{use}” is no use of a room.", "use", f"Known: {', '.join(u for u in USES if u)}.")
    return Change(with_room(job, msgspec.structs.replace(job.room(room_id), use=use)), "Set the room's use")


def add_column(job: Job, room_id: str, wall: str, kind: str, x: float | None = None) -> Change:
    """Stand a chimney breast (1200 x 350) or a column (300 x 300) against a wall, in its middle or at x."""
    room = job.room(room_id)
    length = next(w.length for w in walls_of(room) if w.id == wall)
    width, depth = (1200.0, 350.0) if kind == "chimney breast" else (300.0, 300.0)
    width = min(width, length)
    at = (length - width) / 2 if x is None else min(max(0.0, x), length - width)
    job, (new_id,) = new_ids(job, "m")
    column = Column(new_id, kind, wall, Length.of(at), Length.of(width), Length.of(depth))  # type: ignore[arg-type]
    return added(job, room_id, "column", column, f"Add a {kind}")


def set_column(job: Job, column_id: str, key: str, text: str) -> Change:
    """Set x, y, width, depth, height or wall (empty: free standing) of a column."""
    room, column = find(job, "column", column_id)
    if key == "wall":
        if text and text not in room.wall_ids():
            raise PlankError(f"There is no wall {text}.", column.kind, "Choose another wall.")
        new = msgspec.structs.replace(column, wall=text)
    elif key == "height":
        new = msgspec.structs.replace(column, height=read(job, text, least=50.0) if text.strip() else None)
    elif key in ("x", "y", "width", "depth"):
        least = 20.0 if key in ("width", "depth") else 0.0
        new = msgspec.structs.replace(column, **{key: read(job, text, least=least)})
    else:
        raise PlankError(f"A column has no {key}.", "column", "Choose x, y, width, depth, height or wall.")
    return replaced(job, room, "column", new, f"Set the {column.kind}'s {key}")


def move_column(job: Job, column_id: str, x: float, y: float = 0.0) -> Change:
    """Drag a column along its wall, held to its ends; a free one anywhere on the floor."""
    room, column = find(job, "column", column_id)
    if column.wall:
        length = next(w.length for w in walls_of(room) if w.id == column.wall)
        at = min(max(0.0, x), max(0.0, length - column.width.mm))
        new = msgspec.structs.replace(column, x=Length.of(round(at)))
    else:
        new = msgspec.structs.replace(column, x=Length.of(round(x)), y=Length.of(round(y)))
    return replaced(job, room, "column", new, f"Move the {column.kind}")


def add_slope(job: Job, room_id: str, wall: str) -> Change:
    """Let the ceiling slope down to a wall: two thirds of the height there, the whole height 1500 from it."""
    room = job.room(room_id)
    if any(s.wall == wall for s in room.slopes):
        raise PlankError(f"The ceiling slopes to wall {wall} already.", f"wall {wall}", "Change that slope.")
    job, (new_id,) = new_ids(job, "l")
    slope = Slope(new_id, wall, Length.of(round(room.height.mm * 2 / 3)), Length.of(1500.0))
    return added(job, room_id, "slope", slope, "Slope the ceiling")


def set_slope(job: Job, slope_id: str, key: str, text: str) -> Change:
    """Set the height at the wall (low) or the distance at which the whole height is reached (run)."""
    room, slope = find(job, "slope", slope_id)
    if key not in ("low", "run"):
        raise PlankError(f"A slope has no {key}.", "slope", "Choose low or run.")
    new = msgspec.structs.replace(slope, **{key: read(job, text, least=100.0, most=20_000.0)})
    return replaced(job, room, "slope", new, "Set the slope")


def add_roof_window(job: Job, room_id: str, wall: str, x: float | None = None) -> Change:
    """A roof window of 780 x 980, or as large as fits, in the slope over a wall, in its middle or at x.

    Raises
    ------
    PlankError where no ceiling slopes to this wall
    """
    room = job.room(room_id)
    slope = next((s for s in room.slopes if s.wall == wall), None)
    if slope is None:
        raise PlankError(f"No ceiling slopes down to wall {wall}.", "roof window", "Slope the ceiling there first.")
    length = next(w.length for w in walls_of(room) if w.id == wall)
    rise = room.height.mm - slope.low.mm
    pitch = math.hypot(rise, slope.run.mm)
    width, high = min(780.0, length), min(980.0, pitch * 0.8)
    sill = slope.low.mm + (pitch - high) / 2 * rise / pitch
    at = (length - width) / 2 if x is None else min(max(0.0, x), length - width)
    job, (new_id,) = new_ids(job, "y")
    whole = [Length.of(v) for v in (math.floor(at), math.floor(width), math.ceil(sill), math.floor(high) - 2.0)]
    window = RoofWindow(new_id, slope.id, whole[0], whole[1], whole[2], whole[3])
    return added(job, room_id, "roof window", window, "Add a roof window")


def set_roof_window(job: Job, window_id: str, key: str, text: str) -> Change:
    """Set x, width, sill (its lower edge above the floor) or length (up the slope) of a roof window."""
    room, window = find(job, "roof window", window_id)
    if key not in ("x", "width", "sill", "length"):
        raise PlankError(f"A roof window has no {key}.", "roof window", "Choose x, width, sill or length.")
    least = 100.0 if key in ("width", "length") else 0.0
    new = msgspec.structs.replace(window, **{key: read(job, text, least=least)})
    return replaced(job, room, "roof window", new, f"Set the roof window's {key}")


def move_roof_window(job: Job, window_id: str, x: float) -> Change:
    """Drag a roof window along its slope, held to the ends of the wall."""
    room, window = find(job, "roof window", window_id)
    slope = next(s for s in room.slopes if s.id == window.slope)
    length = next(w.length for w in walls_of(room) if w.id == slope.wall)
    at = min(max(0.0, x), max(0.0, length - window.width.mm))
    new = msgspec.structs.replace(window, x=Length.of(float(round(at))))
    return replaced(job, room, "roof window", new, "Move the roof window")


def add_soffit(job: Job, room_id: str, wall: str, depth: float = 400.0, drop: float = 250.0) -> Change:
    """Box the ceiling down along a wall, from end to end."""
    room = job.room(room_id)
    at = next(w for w in walls_of(room) if w.id == wall)
    corners = tuple(
        corner(*at.frame.out((x, y, 0.0))[:2])
        for x, y in ((0.0, 0.0), (at.length, 0.0), (at.length, -depth), (0.0, -depth))
    )
    job, (new_id,) = new_ids(job, "f")
    return added(job, room_id, "soffit", Soffit(new_id, corners, Length.of(drop)), "Add a soffit")


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
    return added(job, room.id, "soffit", soffit, "Stand a soffit on the units")


def set_soffit(job: Job, soffit_id: str, key: str, text: str) -> Change:
    """Set a soffit's depth below the ceiling (drop), or its outline by corners: `0 0; 2400 0; 2400 600; 0 600`."""
    room, soffit = find(job, "soffit", soffit_id)
    if key == "drop" and not soffit.over:
        new = msgspec.structs.replace(soffit, drop=read(job, text, least=10.0))
    elif key == "reveal":
        new = msgspec.structs.replace(soffit, reveal=read(job, text, least=-300.0, most=300.0))
    elif key == "corners" and not soffit.over:
        new = msgspec.structs.replace(soffit, corners=tuple(_read_corners(job, text)))
    else:
        raise PlankError(f"A soffit has no {key}.", "soffit", "Choose drop or corners.")
    return replaced(job, room, "soffit", new, "Set the soffit")


def _read_corners(job: Job, text: str):  # type: ignore[no-untyped-def]
    from tall_plank.job import Corner

    pieces = [p.split() for p in text.split(";") if p.strip()]
    if len(pieces) < 3 or any(len(p) != 2 for p in pieces):
        raise PlankError("An outline needs three corners or more.", "corners", "Write x y; x y; x y.")
    return [Corner(read(job, x), read(job, y)) for x, y in pieces]


def corners_text(job: Job, soffit: Soffit) -> str:
    """A soffit's outline as the text that makes it again."""
    from tall_plank.measure import format_length

    def word(length: Length) -> str:
        return (length.text if length.is_rule else format_length(length.mm, job.display).lstrip("~")).replace(" ", "")

    return "; ".join(f"{word(c.x)} {word(c.y)}" for c in soffit.corners)


def move_soffit(job: Job, soffit_id: str, dx: float, dy: float) -> Change:
    """Drag a soffit across the ceiling; one that stands on units stays there."""
    room, soffit = find(job, "soffit", soffit_id)
    if soffit.over:
        raise PlankError("It stands on its units.", "soffit", "Move those.")
    corners = tuple(corner(round(c.x.mm + dx), round(c.y.mm + dy)) for c in soffit.corners)
    return replaced(job, room, "soffit", msgspec.structs.replace(soffit, corners=corners), "Move the soffit")


def add_service(job: Job, room_id: str, wall: str, kind: str, x: float | None = None) -> Change:
    """Mark a service point on a wall, in its middle or at x."""
    room = job.room(room_id)
    length = next(w.length for w in walls_of(room) if w.id == wall)
    height = {"water": 500.0, "waste": 400.0, "power": 300.0, "gas": 500.0, "vent": 2000.0}[kind]
    at = length / 2 if x is None else min(max(0.0, x), length)
    job, (new_id,) = new_ids(job, "s")
    service = Service(new_id, kind, wall, Length.of(at), Length.of(height))  # type: ignore[arg-type]
    return added(job, room_id, "service", service, f"Mark {kind}")


def set_service(job: Job, service_id: str, key: str, text: str) -> Change:
    """Set x, y, height, wall (empty: on the floor) or kind of a service point."""
    room, service = find(job, "service", service_id)
    if key == "wall":
        if text and text not in room.wall_ids():
            raise PlankError(f"There is no wall {text}.", "service point", "Choose another wall.")
        new = msgspec.structs.replace(service, wall=text)
    elif key == "kind" and text in SERVICES:
        new = msgspec.structs.replace(service, kind=text)
    elif key in ("x", "y", "height"):
        length = next((w.length for w in walls_of(room) if w.id == service.wall), None)
        most = length if key == "x" and service.wall else None
        new = msgspec.structs.replace(service, **{key: read(job, text, least=0.0, most=most)})
    else:
        raise PlankError(f"A service point has no {key}.", "service point", "Choose x, y, height, wall or kind.")
    return replaced(job, room, "service", new, f"Set the {service.kind} point")


def move_service(job: Job, service_id: str, x: float) -> Change:
    """Drag a service point along its wall."""
    room, service = find(job, "service", service_id)
    length = next((w.length for w in walls_of(room) if w.id == service.wall), 1e6)
    new = msgspec.structs.replace(service, x=Length.of(round(min(max(0.0, x), length))))
    return replaced(job, room, "service", new, f"Move the {service.kind} point")


def add_molding(job: Job, room_id: str, kind: str) -> Change:
    """Run a molding round the whole room; it starts as one by others."""
    if kind not in MOLDINGS:
        raise PlankError(f"“{kind}” is no molding.", "molding", f"Known: {', '.join(MOLDINGS)}.")
    code, height = MOLDINGS[kind]
    if job.stock.profile(code) is None:
        code = next((p.code for p in job.stock.profiles if kind in p.uses), "")
    if not code:
        raise PlankError(f"The stock has no profile for a {kind}.", "molding", "Read stock files that have one.")
    job, (new_id,) = new_ids(job, "d")
    length = Length.of(height) if height is not None else None
    return added(job, room_id, "molding", RoomMolding(new_id, kind, code, length), f"Add a {kind}")  # type: ignore[arg-type]


def set_molding(job: Job, molding_id: str, key: str, text: str) -> Change:
    """Set profile, height (empty: on the floor or under the ceiling), edge, walls (letters) or by_others."""
    room, molding = find(job, "molding", molding_id)
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
    return replaced(job, room, "molding", new, f"Set the {molding.kind}")
