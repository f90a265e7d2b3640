"""Heights on an elevation: a chain for every column of things that stand over one another, named by them; the wall's
own heights at its ends and kinks; the pitch of a slope."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

from tall_plank.drawing.primitives import Dim, Item, Layer, Text
from tall_plank.job import Job, Kind
from tall_plank.making import MadeJob, MadeUnit
from tall_plank.measure import format_chain, format_length
from tall_plank.measure.remembered import remembered
from tall_plank.setout import Placed, RoomLayout, Wall
from tall_plank.setout.rooms import soffit_points

NARROW = 40.0
"""mm; what stands over one another for less than this is no column of its own."""

NEAR = 0.5
"""mm; heights that are nearer are one."""


class Standing(NamedTuple):
    """Something with a height, seen on a wall: its span along it, its heights, mm, and its name."""

    low: float
    high: float
    bottom: float
    top: float
    name: str


class Column(NamedTuple):
    """Things over one another: their heights in order, mm, their names from the floor up, and where along the wall the
    middle of the first such column is, mm."""

    marks: tuple[float, ...]
    names: tuple[str, ...]
    middle: float


def seen_top(p: Placed, unit: MadeUnit | None) -> float:
    """Height of a unit's highest board, mm: a seat or a cover may lie on its carcass."""
    return p.top if unit is None else max(p.top, p.bottom + _cover_top(unit))


@remembered(1024)
def _cover_top(unit: MadeUnit) -> float:
    """Upper edge of what covers a unit, mm above its lower edge; 0 where nothing does."""
    corners = [
        part.frame.at(u, v, w)[2]
        for part in unit.shown
        if part.role == "cover"
        for u in (0.0, part.length)
        for v in (0.0, part.width)
        for w in (0.0, part.thickness)
    ]
    return max(corners, default=0.0)


def standing(room: RoomLayout, wall: Wall, placed: Sequence[Placed], made: MadeJob) -> list[Standing]:
    """Units, worktops, openings and soffits of a line."""
    found = [
        Standing(p.x, p.right, p.bottom, seen_top(p, made.of(p.cell)), p.number)
        for p in placed
        if p.is_solid and p.width
    ]
    for top in room.worktops:
        if top.wall_id == wall.id:
            found.append(Standing(top.x, top.x + top.length, top.bottom, top.bottom + top.thickness, "worktop"))
        elif wall.island and top.wall_id[:1] == wall.id[:1]:  # seen from the other side
            low = wall.length - top.x - top.length
            found.append(Standing(low, low + top.length, top.bottom, top.bottom + top.thickness, "worktop"))
    if wall.island:
        return found
    for o in room.room.openings:
        if o.wall == wall.id:
            found.append(Standing(o.x.mm, o.x.mm + o.width.mm, o.sill.mm, o.sill.mm + o.height.mm, o.kind))
    for laid in (f for f in room.fields if f.wall_id == wall.id):
        for zone in laid.zones:
            for s in zone.stretches:
                if s.rake:
                    continue  # it has no height of its own
                found.append(Standing(s.x0, s.x1, s.z0, s.z1, "panels"))
                if s.grid is not None and s.grid.bottom_edges:
                    # Panels between their rails.
                    for low in s.grid.bottom_edges:
                        found.append(Standing(s.x0, s.x1, low, low + s.grid.height, ""))
            if not zone.stretches:
                boxes = [r.bounds for r in zone.regions]
                word = "slats" if zone.slats else "boards"
                found += [Standing(x0, x1, z0, z1, word) for x0, z0, x1, z1 in boxes]
    for soffit in room.room.soffits:
        at = [wall.frame.from_floor(corner) for corner in soffit_points(soffit)]
        if max(y for _, y in at) > -1.0:
            height = room.room.height.mm
            xs = [x for x, _ in at]
            found.append(
                Standing(max(0.0, min(xs)), min(wall.length, max(xs)), height - soffit.drop.mm, height, "soffit")
            )
    return found


def columns(things: Sequence[Standing], length: float, *ceiling: float) -> list[Column]:
    """Every different column of things, from the left; those with alike heights are one, by the names of the first.
    Where the ceiling slopes it has no height of its own."""
    ends = sorted({0.0, length, *(v for t in things for v in (t.low, t.high) if 0.0 < v < length)})
    found: dict[tuple[float, ...], Column] = {}
    for a, b in pairwise(ends):
        if b - a < NARROW:
            continue
        there = sorted((t for t in things if t.low < b - NEAR and t.high > a + NEAR), key=lambda t: t.bottom)
        if not there:
            continue
        marks = _apart(sorted({0.0, *ceiling, *(v for t in there for v in (t.bottom, t.top))}))
        names = tuple(t.name for t in there if t.name)
        found.setdefault(tuple(round(m, 1) for m in marks), Column(tuple(marks), names, (a + b) / 2))
    return list(found.values())


def _apart(marks: Sequence[float]) -> list[float]:
    return [m for i, m in enumerate(marks) if i == 0 or m - marks[i - 1] > NEAR]


def height_dims(
    job: Job, room: RoomLayout, wall: Wall, placed: Sequence[Placed], made: MadeJob, *, spread: bool = False
) -> list[Item]:
    """Chains at the left, a column each, and the wall's own height outside them; spread: those of columns in the right
    half of the wall at the right."""
    unit = job.display
    dims: list[Item] = []
    row, right_row = 0, 1 if wall.profile else 0
    ceiling = () if wall.is_face or wall.profile else (wall.height,)
    for column in columns(standing(room, wall, placed, made), wall.length, *ceiling):
        if len(column.marks) < 2 + len(ceiling):
            continue
        at_right = spread and column.middle > wall.length / 2
        if at_right:
            right_row += 1
        else:
            row -= 1
        base, place = (wall.length, right_row) if at_right else (0.0, row)
        steps = [b - a for a, b in pairwise(column.marks)]
        for i, ((a, b), text) in enumerate(zip(pairwise(column.marks), format_chain(steps, unit), strict=True)):
            name = ", ".join(column.names) if i == len(steps) - 1 else ""
            dims.append(Dim(a, b, base, place, "y", text, name=name))
    if wall.is_face:
        return dims
    room_source = Kind.ROOM.of(room.room.id)
    left, right = wall.height_at(0.0), wall.height_at(wall.length)
    key = "height" if not wall.profile else ""
    dims.append(Dim(0.0, left, 0.0, row - 1, "y", format_length(left, unit), room_source, key))
    if wall.profile:
        dims.append(Dim(0.0, right, wall.length, 1, "y", format_length(right, unit), room_source))
        dims += _kinks(job, wall)
    return dims


def _kinks(job: Job, wall: Wall) -> list[Item]:
    """The height of every kink of a wall's upper edge and the pitch of its slopes, written at them; how far along the
    wall a kink is, above it."""
    items: list[Item] = []
    inner = [(x, z) for x, z in wall.profile if 1.0 < x < wall.length - 1.0]
    for x, z in inner:
        items.append(Text(x, z, level_words(job, z), 1.8, Layer.LABEL, rise=1.2))
    if inner:
        ends = [0.0, *(x for x, _ in inner), wall.length]
        texts = format_chain([b - a for a, b in pairwise(ends)], job.display)
        for (a, b), text in zip(pairwise(ends), texts, strict=True):
            items.append(Dim(a, b, wall.height, 4, "x", text))
    for (x0, z0), (x1, z1) in pairwise(wall.profile):
        if abs(z1 - z0) > 1.0 and x1 - x0 > 1.0:
            pitch = math.degrees(math.atan2(z1 - z0, x1 - x0))
            words = f"{abs(pitch):.1f}".rstrip("0").rstrip(".") + "°"
            items.append(Text((x0 + x1) / 2, (z0 + z1) / 2, words, 1.8, Layer.LABEL, angle=pitch, rise=-3.0))
    return items


def level_words(job: Job, mm: float) -> str:
    """A height as a level from the finished floor."""
    return f"▽ +{format_length(mm, job.display)}"
