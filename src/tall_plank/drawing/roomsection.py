"""A room cut open along a section line: what is cut is hatched, what lies behind is seen; depths, heights, levels."""

from __future__ import annotations

import math
from itertools import pairwise

from tall_plank.drawing.cutview import Board, cut_view
from tall_plank.drawing.heights import Standing, columns
from tall_plank.drawing.primitives import Dim, Drawing, Item, Layer, Line, Pen, Shape, Text
from tall_plank.drawing.seen import Way
from tall_plank.drawing.things.section import section_name
from tall_plank.job import Job, Kind, Source
from tall_plank.job.things.section import Section
from tall_plank.making import MadeJob
from tall_plank.measure import format_chain, format_length
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import FloorPoint
from tall_plank.setout import RoomLayout
from tall_plank.solids.room import solids_in

STRUCTURE = (Kind.WALL, Kind.COLUMN, Kind.SOFFIT, Kind.ROOM)
"""What is there before anything is built."""

HIGH = 950.0
"""mm; what begins above it has its depths told above the drawing."""


def section_way(section: Section) -> tuple[Way, float]:
    """How a section is looked at, its left end at x = 0, and its length, mm."""
    ax, ay, bx, by = section.x1.mm, section.y1.mm, section.x2.mm, section.y2.mm
    size = math.hypot(bx - ax, by - ay) or 1.0
    dx, dy = (bx - ax) / size, (by - ay) / size
    if section.looks == "left":
        return Way((ax, ay, 0.0), (dx, dy, 0.0), (0.0, 0.0, 1.0)), size
    return Way((bx, by, 0.0), (-dx, -dy, 0.0), (0.0, 0.0, 1.0)), size


def boards_in(room: RoomLayout, made: MadeJob) -> list[Board]:
    """Every part of a room where it stands; bent ones are left to their solids."""
    hidden = {c.id for run in room.room.runs for c in run.cells if c.hidden}
    found = [
        Board(p.frame.then(part.frame), part, Kind.CELL.of(p.cell))
        for p, unit in made.units
        if p.room == room.room.id and p.cell not in hidden
        for part in unit.shown
        if not part.bend
    ]
    for trim in made.trims:
        if trim.part is not None and trim.room == room.room.id and trim.kind != "sliding leaf":
            source = trim.source or Kind.RUN.of(trim.run)
            found.append(Board(trim.parent.then(trim.part.frame), trim.part, source))
    return found


def section_drawing(job: Job, room: RoomLayout, made: MadeJob, section: Section) -> Drawing:
    """What a section line shows of its room; x from the line's left end, y from the floor."""
    way, length = section_way(section)
    solids = solids_in(job, room, made, hidden=True)
    items = cut_view(boards_in(room, made), solids, way, job.stock)
    height = room.room.height.mm
    items += _ceiling(room, section, length)
    items.append(Line(-150.0, 0.0, length + 150.0, 0.0, Pen.WIDE, Layer.WALL))
    items += _figures(job, room, made, items, length, height)
    name = section_name(room.room, section)
    return Drawing(f"{room.room.name}, section {name}", tuple(items), 0.0, 0.0, length, height, f"X{name[0]}")


def _ceiling(room: RoomLayout, section: Section, length: float) -> list[Item]:
    """The ceiling along a section, flat or sloping down to walls."""
    way, _ = section_way(section)
    high = room.room.height.mm
    slopes = [(room.wall(s.wall), s) for s in room.room.slopes]

    def over(x: float) -> float:
        at = FloorPoint((way.origin[0] + way.right[0] * x, way.origin[1] + way.right[1] * x))
        found = high
        for wall, slope in slopes:
            away = -wall.frame.from_floor(at)[1]
            if 0.0 <= away < slope.run.mm:
                found = min(found, slope.low.mm + (high - slope.low.mm) * away / slope.run.mm)
        return found

    steps = 400 if slopes else 1
    points = [(length * i / steps, over(length * i / steps)) for i in range(steps + 1)]
    kept = [points[0], *ol.cleaned(points)[1:-1], points[-1]] if slopes else points
    return [Line(*a, *b, Pen.WIDE, Layer.WALL) for a, b in pairwise(kept)]


def _figures(job: Job, room: RoomLayout, made: MadeJob, items: list[Item], length: float, height: float) -> list[Item]:
    """Heights in columns at the left, depths below and above, levels of worktops and soffits."""
    things = _cut_things(room, made, items)
    found: list[Item] = []
    row = 0
    # Outside the walls that are cut.
    xs = [p[0] for i in items if isinstance(i, Shape) and i.layer is Layer.CUT for p in i.points]
    left = min([0.0, *xs])
    for column in columns(things, length, height):
        row -= 1
        texts = format_chain([b - a for a, b in pairwise(column.marks)], job.display)
        for i, ((a, b), text) in enumerate(zip(pairwise(column.marks), texts, strict=True)):
            name = ", ".join(column.names) if i == len(texts) - 1 else ""
            found.append(Dim(a, b, left, row, "y", text, name=name))
    found.append(Dim(0.0, height, left, row - 1, "y", format_length(height, job.display)))
    for high, base, way in ((False, 0.0, -1), (True, height, 1)):
        there = [t for t in things if (t.bottom >= HIGH) == high]
        marks = sorted({0.0, length, *(v for t in there for v in (t.low, t.high) if 0.5 < v < length - 0.5)})
        marks = [m for i, m in enumerate(marks) if i == 0 or m - marks[i - 1] > 0.5]
        if len(marks) > 2:
            texts = format_chain([b - a for a, b in pairwise(marks)], job.display)
            found += [Dim(a, b, base, way, "x", t) for (a, b), t in zip(pairwise(marks), texts, strict=True)]
    found.append(Dim(0.0, length, 0.0, -2, "x", format_length(length, job.display)))
    for t in things:
        if t.name == "worktop":
            words = f"▽ +{format_length(t.top, job.display)}"
            found.append(Text((t.low + t.high) / 2, t.top, words, 1.8, Layer.LABEL, rise=1.2))
    return found


def _cut_things(room: RoomLayout, made: MadeJob, items: list[Item]) -> list[Standing]:
    """Units and worktops that are cut, each as one box about what is cut of it."""
    numbers = {Kind.CELL.of(p.cell): p.number for p in room.placed}
    tops = {t.source for t in made.trims if t.kind == "worktop"}
    boxes: dict[Source | str, list[float]] = {}
    for item in items:
        if not isinstance(item, Shape) or item.layer is not Layer.CUT or item.source is None:
            continue
        if item.source.kind in STRUCTURE:
            continue
        xs, ys = [p[0] for p in item.points], [p[1] for p in item.points]
        is_top = item.source in tops and item.hatch in ("worktop", "timber")
        key: Source | str = "worktop" + str(item.source) if is_top else item.source
        if not is_top and item.source not in numbers:
            continue
        box = boxes.setdefault(key, [math.inf, math.inf, -math.inf, -math.inf])
        boxes[key] = [min(box[0], *xs), min(box[1], *ys), max(box[2], *xs), max(box[3], *ys)]
    return [
        Standing(b[0], b[2], b[1], b[3], numbers.get(key, "") if isinstance(key, Source) else "worktop")
        for key, b in boxes.items()
    ]
