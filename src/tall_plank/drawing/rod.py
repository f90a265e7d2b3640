"""Rods: what stands along a wall, and how high, as running figures from one end, to be laid onto a stick or a floor
(common practice)."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from tall_plank.drawing.heights import columns, standing
from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, Shape, Text, rectangle
from tall_plank.drawing.sheets import SCALES
from tall_plank.job import Job, Kind, Level
from tall_plank.making import MadeJob
from tall_plank.measure import format_length
from tall_plank.setout import RoomLayout, Wall

LONGEST = 372.0
"""mm of paper that a rod is long at the most."""

BAND = 9.0
"""mm of paper; height of one row of a rod."""

LEAN = 3.0
"""mm of paper from one figure to the next at the least."""

LEADER = 5.0
"""mm of paper from a rod to its figures."""

SIZE = 1.8


class Row(NamedTuple):
    """One row of a rod: its name, what stands in it (from, to, name), and marks beside those, mm."""

    name: str
    spans: tuple[tuple[float, float, str], ...]


def wall_rows(room: RoomLayout, wall: Wall, made: MadeJob) -> list[Row]:
    """Carcasses and fronts of what stands and of what hangs, worktops and openings along a wall."""
    found: list[Row] = []
    for hung, word in ((False, "units"), (True, "hung units")):
        units = sorted(
            (p for p in room.placed if p.wall_id == wall.id and (p.level is Level.HUNG) == hung and p.width > 0),
            key=lambda p: p.x,
        )
        if not units:
            continue
        found.append(Row(f"{word}, carcass", tuple((p.x, p.right, p.number) for p in units)))
        spans = []
        for p in units:
            unit = made.of(p.cell)
            flat = {(p.x + f.x, p.x + f.x + f.width) for f in unit.fronts if f.face is None} if unit else set()
            spans += [(a, b, "") for a, b in sorted(flat)]
        if spans:
            found.append(Row(f"{word}, fronts", tuple(spans)))
    tops = sorted((t.x, t.x + t.length) for t in room.worktops if t.wall_id == wall.id)
    if tops:
        found.append(Row("worktops", tuple((a, b, "") for a, b in tops)))
    openings = sorted((o.x.mm, o.x.mm + o.width.mm, o.kind) for o in room.room.openings if o.wall == wall.id)
    if openings:
        found.append(Row("openings", tuple(openings)))
    return found


def height_rows(job: Job, room: RoomLayout, wall: Wall, made: MadeJob) -> list[Row]:
    """A row for every different column of things that stand over one another, from the floor up."""
    placed = [p for p in room.placed if p.wall_id == wall.id]
    things = standing(room, wall, placed, made)
    rows = []
    for column in columns(things, wall.length):
        marks = [m for m in column.marks if m > 0.5]
        if marks:
            spans = [(a, b, "") for a, b in zip((0.0, *marks[:-1]), marks, strict=True)]
            rows.append(Row(f"heights: {', '.join(column.names)}", tuple(spans)))
    return rows


def rod_drawing(job: Job, room: RoomLayout, wall: Wall, made: MadeJob) -> Drawing | None:
    """The rod of a wall or an island's face; None where nothing stands there."""
    rows = wall_rows(room, wall, made)
    if not any(row.spans for row in rows):
        return None
    upright = height_rows(job, room, wall, made)
    longest = max(wall.length, *(row.spans[-1][1] for row in upright)) if upright else wall.length
    scale = float(next((s for s in SCALES if longest / s <= LONGEST), SCALES[-1]))
    items: list[Item] = []
    y = 0.0
    for row in (*rows, *upright):
        ends = wall.length if row in rows else row.spans[-1][1]
        y = rod_row(job, items, row, y, scale, ends, Kind.WALL.of(wall.id) if not wall.is_face else None)
    words = f"island {wall.id}" if wall.island else wall.title
    title = f"{room.room.name}, rod of {words}, running from its left end and from the floor"
    return Drawing(title, tuple(items), 0.0, y, longest, 0.0, f"R{wall.mark}", scale)


def rod_row(job: Job, items: list[Item], row: Row, top: float, scale: float, length: float, source) -> float:  # type: ignore[no-untyped-def]
    """A row from `top` down; where the next one begins. `top`, `length`: mm of the real thing; `scale`: of it a mm of
    paper."""
    marks = sorted({0.0, round(length, 2), *(round(v, 2) for a, b, _ in row.spans for v in (a, b))})
    texts = [format_length(m, job.display) for m in marks]
    places = spread([m / scale for m in marks], LEAN)
    high = max(len(t) for t in texts) * SIZE * 0.62
    name = top - 3.4 * scale
    band = name - 2.0 * scale
    foot = band - BAND * scale
    items.append(Text(0.0, name, row.name, SIZE, Layer.LABEL, align="left", bold=True))
    items.append(Shape(rectangle(0.0, foot, length, BAND * scale), Pen.MEDIUM, Layer.CARCASS, source))
    for a, b, words in row.spans:
        for m in (a, b):
            if 0.5 < m < length - 0.5:
                items.append(Line(m, foot, m, band, Pen.NARROW, Layer.CARCASS, source))
        if words:
            items.append(Text((a + b) / 2, (band + foot) / 2, words, SIZE, Layer.LABEL, rise=-0.9, within=b - a))
    for mark, text, place in zip(marks, texts, places, strict=True):
        low = foot - LEADER * scale
        items.append(Line(mark, foot, place * scale, low, Pen.NARROW, Layer.DIMENSION))
        at = (place * scale, low - (high + 1.0) * scale)
        items.append(Text(*at, text, SIZE, Layer.DIMENSION, align="left", angle=90.0, rise=-0.9))
    return foot - (LEADER + high + 3.0) * scale


def spread(places: Sequence[float], apart: float) -> list[float]:
    """Places in order, moved as little as keeps each so far from the next; what crowds stands about its middle."""
    groups: list[list[float]] = []  # sum of wishes, count
    for place in places:
        groups.append([place, 1.0])
        while len(groups) > 1:
            (a, n), (b, m) = groups[-2], groups[-1]
            # Each group stands about the middle of what its members wish for.
            end = a / n + (n - 1) / 2 * apart
            begin = b / m - (m - 1) / 2 * apart
            if begin - end >= apart - 1e-9:
                break
            groups[-2:] = [[a + b, n + m]]
    found: list[float] = []
    for total, count in groups:
        first = total / count - (count - 1) / 2 * apart
        found += [first + k * apart for k in range(int(count))]
    return found
