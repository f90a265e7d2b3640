"""Wall fields set out: where each lies between its marks, how far its face stands off the wall, how it meets the next
wall, and its zones.

A field is fixing, then board, then face. At an inside corner the wall at the left runs through and the one at the right
is shorter by its build-up; at an outside corner the wall at the left laps over the edge of the one at the right (common
practice).
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import msgspec

from tall_plank.job import Basis, Room, Run
from tall_plank.job.standard import Construction, construction_from
from tall_plank.job.things.wall_field import WallField
from tall_plank.job.treatment import Raked, Treatment, ZonePath, zones_of
from tall_plank.measure import PlankError, told
from tall_plank.measure.paths import path_of
from tall_plank.measure.regions import Region, box_path, within, without
from tall_plank.measure.remembered import remembered
from tall_plank.setout.columnfaces import Joined, joined_columns, joined_walls
from tall_plank.setout.frames import Casing, MoldingFrame
from tall_plank.setout.paneling.grid import Outlet
from tall_plank.setout.paneling.laid import Fault, ZoneLaid
from tall_plank.setout.paneling.marks import Box, in_openings, place_of, standing_before
from tall_plank.setout.paneling.mirrored import mirrored_rail, mirrored_region, mirrored_zone
from tall_plank.setout.paneling.values import fixing_of, standoff
from tall_plank.setout.paneling.zones import Laying
from tall_plank.setout.runs import Placed
from tall_plank.setout.things.molding import MoldingPiece, plan_of
from tall_plank.setout.trims import TrimBoard
from tall_plank.setout.wall import Wall
from tall_plank.setout.worktop import Worktop

LEAST_FIELD = 20.0
"""mm; a field that is narrower or lower is none."""

OUTLET = 70.0
"""mm; width and height of what is cut out for a power point (common practice: boxes of 68)."""


class FieldLaid(msgspec.Struct, frozen=True, cache_hash=True):
    """A wall field where it lies; mm from the wall's left end and above the floor.

    Attributes
    ----------
    number : on its wall, from 1 in the order of the room
    made : the construction values of the standard in force
    fixing : from the wall to the back of its boards
    stands_off : from the wall to its foremost face
    scribes : added to the cut size at the left, right, lower and upper edge, in no sum
    blocks : what stands before it or opens the wall there, with what is kept clear
    rails : moldings along its raking bands
    boxes : the upright rectangle that each zone is laid in, as the treatment has it before it is mirrored; of halves
        the left one
    """

    field: WallField
    number: int
    wall_id: str
    treatment: Treatment
    made: Construction
    x0: float
    z0: float
    x1: float
    z1: float
    fixing: float
    stands_off: float
    scribes: tuple[float, float, float, float] = (0.0, 0.0, 0.0, 0.0)
    zones: tuple[ZoneLaid, ...] = ()
    faults: tuple[Fault, ...] = ()
    outlets: tuple[Outlet, ...] = ()
    blocks: tuple[Box, ...] = ()
    area: float = 0.0
    rails: tuple[MoldingFrame, ...] = ()
    boxes: tuple[tuple[ZonePath, Box], ...] = ()

    @property
    def width(self) -> float:
        return self.x1 - self.x0

    @property
    def height(self) -> float:
        return self.z1 - self.z0


def fields_of(
    basis: Basis,
    room: Room,
    treatments: tuple[Treatment, ...],
    walls: tuple[Wall, ...],
    lines: tuple[Wall, ...],
    moldings: tuple[MoldingPiece, ...],
    along_units: tuple[MoldingPiece, ...],
    placed: tuple[Placed, ...],
    tops: Sequence[Worktop],
    boards: Sequence[TrimBoard],
    runs: Sequence[Run],
    casings: Sequence[Casing],
) -> tuple[FieldLaid, ...]:
    """Every wall field of a room.

    Parameters
    ----------
    lines : walls and faces of islands
    moldings, along_units : those of the room, and those along its units
    """
    deep = {p.code: p.depth for p in basis.stock.profiles}
    returns = [(plan_of(m, deep[m.profile]), m.low, m.low + m.height) for m in along_units]
    made = construction_from(basis.active_standard())
    by_id = {t.id: t for t in treatments}
    joins = {j.line.id: j for j in (*joined_walls(walls), *joined_columns(room))}
    reach = _reaches(room, joins, by_id, made, moldings, placed)
    counts: dict[str, int] = {}
    found: list[FieldLaid] = []
    blocks: dict[str, tuple[Box, ...]] = {}
    for one in room.fields:
        join, treatment = joins.get(one.wall), by_id.get(one.treatment)
        if join is None or treatment is None:
            continue
        wall = join.line
        counts[wall.id] = counts.get(wall.id, 0) + 1
        if wall.id not in blocks:
            standing = standing_before(room, wall, placed, tops, boards, lines, made, runs, returns)
            run_through = _run_through(joins, wall, reach)
            blocks[wall.id] = (*in_openings(room, wall, casings), *standing, *run_through)
        marks = _marks(room, wall, moldings, placed, one)
        own = standoff(treatment, made)
        turns = (_turn(join, reach, "left", own), _turn(join, reach, "right", own))
        outlets = tuple(
            Outlet(
                f"power point {told(s.x.mm)} from the left",
                s.x.mm - OUTLET / 2,
                s.x.mm + OUTLET / 2,
                s.height.mm - OUTLET / 2,
                s.height.mm + OUTLET / 2,
            )
            for s in room.services
            if s.wall == wall.id and s.kind == "power"
        )
        profiles = _profiles_of(treatment, basis)
        laid = _laid(one, counts[wall.id], wall, treatment, made, marks, turns, blocks[wall.id], outlets, profiles)
        if join.hidden:
            fault = Fault(
                (), f"The side {wall.name} stands against a wall.", "Move what stands there, or delete the field."
            )
            laid = msgspec.structs.replace(laid, zones=(), rails=(), faults=(fault,))
        found.append(laid)
    return _apart(found)


Marks = tuple[float | str, float | str, float | str, float | str]
"""Where the left, right, lower and upper limit lie, mm; or why that cannot be told."""


def _marks(room: Room, wall: Wall, moldings: Sequence[MoldingPiece], placed: Sequence[Placed], one: WallField) -> Marks:
    ends = (0.0, wall.length, 0.0, wall.height)
    found: list[float | str] = []
    for limit, end in zip((one.left, one.right, one.bottom, one.top), ends, strict=True):
        if not limit.to:
            found.append(end)
            continue
        try:
            found.append(place_of(room, wall, moldings, placed, limit))
        except PlankError as error:
            found.append(error.what)
    return found[0], found[1], found[2], found[3]


Reach = tuple[float, float, float, float, float]
"""From where to where a field reaches along its line, and between which heights, and how far it stands off, mm."""


def _reaches(
    room: Room,
    joins: dict[str, Joined],
    by_id: dict[str, Treatment],
    made: Construction,
    moldings: Sequence[MoldingPiece],
    placed: Sequence[Placed],
) -> dict[str, list[Reach]]:
    """What the fields of every line would take before they give way to one another at corners."""
    found: dict[str, list[Reach]] = {}
    for one in room.fields:
        join, treatment = joins.get(one.wall), by_id.get(one.treatment)
        if join is None or treatment is None or join.hidden:
            continue
        wall = join.line
        marks = _marks(room, wall, moldings, placed, one)
        ends = (0.0, wall.length, 0.0, wall.height)
        limits = (one.left, one.right, one.bottom, one.top)
        x0, x1, z0, z1 = (
            (end if isinstance(mark, str) else mark) + way * limit.off.mm
            for mark, end, way, limit in zip(marks, ends, (1.0, -1.0, 1.0, -1.0), limits, strict=True)
        )
        found.setdefault(wall.id, []).append((x0, x1, z0, z1, standoff(treatment, made)))
    return found


def _turn(join: Joined, reach: dict[str, list[Reach]], side: str, own: float) -> float:
    """By how much a field is shorter at a corner (above 0) or laps past it (below 0), mm along its line. Ends are
    square: in a corner sharper than 90° the foremost edge meets what is there first.

    Parameters
    ----------
    own : mm that it stands off its line
    """
    line = join.line
    other, angle = (join.left, line.before) if side == "left" else (join.right, line.after)
    corner, away = other.frame.from_floor(line.start if side == "left" else line.end)
    near = corner - 1.0 if side == "left" else corner + 1.0
    off = max((r[4] for r in reach.get(other.id, ()) if r[0] <= near <= r[1]), default=0.0)
    square = abs(math.sin(math.radians(angle)))
    if square < 0.1:
        return 0.0
    if angle < 180.0:
        # What ends before it reaches the other line gives way by so much less.
        off = max(0.0, off + round(away, 6))
        lean = math.cos(math.radians(angle))
        sharp = own * lean if lean > 1e-9 else 0.0
        return ((off if side == "left" else 0.0) + sharp) / square
    return -off / square if side == "right" else 0.0


def _run_through(joins: dict[str, Joined], wall: Wall, reach: dict[str, list[Reach]]) -> list[Box]:
    """What faces of columns take of a wall that they run through to at their right end."""
    found: list[Box] = []
    out = max((r[4] for r in reach.get(wall.id, ())), default=0.0)
    for join in joins.values():
        line = join.line
        if not line.column or join.hidden or join.right.id != wall.id or line.after > 180.0:
            continue
        corner, away = wall.frame.from_floor(line.end)
        if -away < out:
            mine = (r for r in reach.get(line.id, ()) if r[1] > line.length - 1.0)
            found += [(corner - 1.0, z0, corner + off, z1) for _, _, z0, z1, off in mine]
    return found


@remembered(256)
def _laid(
    one: WallField,
    number: int,
    wall: Wall,
    treatment: Treatment,
    made: Construction,
    marks: Marks,
    turns: tuple[float, float],
    blocks: tuple[Box, ...],
    outlets: tuple[Outlet, ...],
    profiles: tuple[tuple[str, float], ...],
) -> FieldLaid:
    """A field laid; kept while nothing that it is laid from changes."""
    limits = (one.left, one.right, one.bottom, one.top)
    faults = [Fault((), what, "Choose another mark, or the wall's end.") for what in marks if isinstance(what, str)]
    ends = (0.0, wall.length, 0.0, wall.height)
    at = [
        mark if not isinstance(mark, str) else limit.kept.mm if limit.kept is not None else end
        for mark, end, limit in zip(marks, ends, limits, strict=True)
    ]
    way = (1.0, -1.0, 1.0, -1.0)
    turned = (turns[0], turns[1], 0.0, 0.0)
    for k, limit in enumerate(limits):
        gap = made.wall_gap if limit.meets == "gap" else 0.0
        inwards = limit.off.mm
        if not limit.to:
            inwards = max(inwards, turned[k]) if turned[k] > 0 else inwards + (turned[k] if inwards < 1.0 else 0.0)
        at[k] += way[k] * (inwards + gap)
    x0, x1, z0, z1 = at
    cut = [made.scribe if limit.meets == "scribe" else 0.0 for limit in limits]
    scribes = (cut[0], cut[1], cut[2], cut[3])
    laid = FieldLaid(
        one, number, wall.id, treatment, made, x0, z0, x1, z1,
        fixing_of(treatment, made), standoff(treatment, made), scribes, outlets=outlets,
    )  # fmt: skip
    if x1 - x0 < LEAST_FIELD or z1 - z0 < LEAST_FIELD:
        what = f"There is no room for the wall field: {told(max(0.0, x1 - x0))} x {told(max(0.0, z1 - z0))} mm."
        faults.append(Fault((), what, "Move one of its limits."))
        return msgspec.structs.replace(laid, faults=tuple(faults))
    clear = one.clear.mm
    near = tuple((b[0] - clear, b[1] - clear if b[1] > 0 else 0.0, b[2] + clear, b[3] + clear) for b in blocks)
    near = tuple(b for b in near if b[0] < x1 and b[2] > x0 and b[1] < z1 and b[3] > z0)
    seen = near
    if one.mirrored:
        seen = tuple((x0 + x1 - b[2], b[1], x0 + x1 - b[0], b[3]) for b in near)
        turned_outlets = tuple(msgspec.structs.replace(o, low=x0 + x1 - o.high, high=x0 + x1 - o.low) for o in outlets)
    else:
        turned_outlets = outlets
    whole = _wall_region(wall, (x0, z0, x1, z1))
    if one.mirrored:
        whole = [mirrored_region(r, x0 + x1) for r in whole]
    free = [piece for r in whole for piece in without(r, [box_path(*b) for b in seen])]
    laying = Laying(made, one, seen, turned_outlets, dict(profiles), x0)
    laying.lay(treatment.zone, (), (x0, z0, x1, z1), free)
    zones = tuple(mirrored_zone(z, x0 + x1) for z in laying.zones) if one.mirrored else tuple(laying.zones)
    area = math.fsum(r.area for r in free)
    rails = tuple(msgspec.structs.replace(r, back=laid.fixing) for r in laying.rails)
    rails = tuple(mirrored_rail(r, x0 + x1) for r in rails) if one.mirrored else rails
    boxes = tuple(laying.boxes.items())
    return msgspec.structs.replace(
        laid,
        zones=zones,
        faults=(*faults, *laying.faults),
        blocks=near,
        area=area,
        rails=rails,
        boxes=boxes,
    )


def _profiles_of(treatment: Treatment, basis: Basis) -> tuple[tuple[str, float], ...]:
    """Code and height of the profiles that run along its raking bands, mm."""
    codes = {code for _, zone in zones_of(treatment.zone) if isinstance(zone, Raked) for code in (zone.foot, zone.cap)}
    return tuple((p.code, p.height) for p in basis.stock.profiles if p.code in codes) if codes else ()


def _wall_region(wall: Wall, box: Box) -> list[Region]:
    """What of a box lies under the wall's upper edge; it may lap past the wall's ends."""
    if not wall.profile:
        return [Region(box_path(*box))]
    low = min(0.0, box[1]) - 1.0
    left, right = min(0.0, box[0]), max(wall.length, box[2])
    top = [(right, wall.profile[-1][1]), *((x, z) for x, z in reversed(wall.profile)), (left, wall.profile[0][1])]
    return within(Region(path_of(((left, low), (right, low), *_apart_points(top)))), [box_path(*box)])[0]


def _apart_points(points: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    found: list[tuple[float, float]] = []
    for p in points:
        if not found or math.dist(found[-1], p) > 1e-6:
            found.append(p)
    return found


def _apart(fields: list[FieldLaid]) -> tuple[FieldLaid, ...]:
    """Fields that lie over one another say so; the later one covers nothing."""
    done: list[FieldLaid] = []
    for laid in fields:
        over = next(
            (
                d
                for d in done
                if d.wall_id == laid.wall_id
                and d.zones
                and min(d.x1, laid.x1) - max(d.x0, laid.x0) > 0.1
                and min(d.z1, laid.z1) - max(d.z0, laid.z0) > 0.1
            ),
            None,
        )
        if over is not None and laid.zones:
            wide = min(over.x1, laid.x1) - max(over.x0, laid.x0)
            high = min(over.z1, laid.z1) - max(over.z0, laid.z0)
            fault = Fault(
                (),
                f"It lies over the wall field {over.field.name} by {told(wide)} x {told(high)} mm.",
                "Move a limit of one of them.",
            )
            laid = msgspec.structs.replace(laid, zones=(), faults=(*laid.faults, fault))
        done.append(laid)
    return tuple(done)
