"""Things that stand in one another: units and units, columns, soffits, a sloped ceiling; worktop decisions that no
longer fit. Intended contacts are silent: what only touches is no clash. Source: geometry."""

from __future__ import annotations

from tall_plank.job import Snag, Where
from tall_plank.measure import format_length
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import FloorPoint, FloorPoints
from tall_plank.measure.remembered import remembered
from tall_plank.setout import Placed, RoomLayout
from tall_plank.setout.rooms import ceiling_at
from tall_plank.setout.things.column import column_height, column_points
from tall_plank.snags.checked import Checked

TOUCH = 0.5
"""mm; what overlaps by less only touches."""


def find(checked: Checked) -> list[Snag]:
    found: list[Snag] = []
    for room in checked.layout.rooms:
        for p, what, remedy in _clashes(room):
            found.append(Snag("clash", what, remedy, Where(p.room, p.wall_id, p.run, p.cell, p.number)))
        for p, over in _too_high(room):
            shown = format_length(over, checked.job.display, mark=True)
            what = f"It reaches {shown} above the ceiling."
            where = Where(p.room, p.wall_id, p.run, p.cell, p.number)
            found.append(Snag("ceiling", what, "Lower it or make it less high.", where))
        for top in room.worktops:
            for note in top.dropped:
                where = Where(top.room, top.wall_id, top.run, "", f"{top.wall_id} worktop")
                found.append(Snag("worktop", f"Left aside: {note}.", "Change or delete it.", where, "mind"))
    return found


def _plan_of(p: Placed) -> FloorPoints:
    return tuple(p.frame.floor(x, y) for x, y in p.plan)


@remembered(64)
def _clashes(room: RoomLayout) -> tuple[tuple[Placed, str, str], ...]:
    """Units that overlap one another or a column, each pair once; neighbours of one run never do."""
    solid = [(p, _plan_of(p)) for p in room.placed if p.is_solid and p.width > 0]
    boxes = [ol.bounds(points) for _, points in solid]
    found: list[tuple[Placed, str, str]] = []
    for i, (a, pa) in enumerate(solid):
        for k in range(i + 1, len(solid)):
            b, pb = solid[k]
            if a.run == b.run or min(a.top, b.top) - max(a.bottom, b.bottom) <= TOUCH:
                continue
            if not _boxes_meet(boxes[i], boxes[k]) or not ol.overlap(pa, pb, TOUCH):
                continue
            found.append((b, f"It stands in {a.number or 'a filler'}.", "Move one of them."))
        if room.wall(a.wall_id).island and not all(ol.inside(room.points, *_inside(a, corner)) for corner in pa):
            found.append((a, "It stands in a wall or outside the room.", "Move the island."))
        for column in room.room.columns:
            if column_height(room.room, column) <= a.bottom + TOUCH:
                continue
            points = column_points(room.room, column)
            if _boxes_meet(boxes[i], ol.bounds(points)) and ol.overlap(pa, points, TOUCH):
                remedy = f"Put a gap there, held by the {column.kind}, or make it less deep."
                found.append((a, f"It stands in the {column.kind}.", remedy))
    return tuple(found)


def _boxes_meet(a: tuple[float, float, float, float], b: tuple[float, float, float, float]) -> bool:
    return min(a[2], b[2]) - max(a[0], b[0]) > TOUCH and min(a[3], b[3]) - max(a[1], b[1]) > TOUCH


@remembered(64)
def _too_high(room: RoomLayout) -> tuple[tuple[Placed, float], ...]:
    """Units that reach above the ceiling over any corner of theirs, and by how much."""
    found = []
    for p in room.placed:
        if not p.is_solid:
            continue
        low = min(ceiling_at(room.room, _inside(p, corner)) for corner in _plan_of(p))
        if p.top > low + 0.001:
            found.append((p, p.top - low))
    return tuple(found)


def _inside(p: Placed, corner: FloorPoint) -> FloorPoint:
    """A corner of a unit drawn a hair towards its middle, so that what only touches does not count."""
    mx, my = p.frame.floor(p.width / 2, -p.depth / 2)
    x, y = corner
    return FloorPoint((x + (mx - x) * 0.002, y + (my - y) * 0.002))
