"""Dimensions of an elevation: units below and above, openings, the overall length, heights at the left."""

from __future__ import annotations

from itertools import pairwise

from tall_plank.drawing.primitives import Dim, Item
from tall_plank.job import Job, Kind, Level, Rectangle, Source
from tall_plank.measure import format_length
from tall_plank.setout import Placed, RoomLayout, Wall


def island_height(room: RoomLayout, face: Wall) -> float:
    """How high the elevation of an island's face is drawn, mm: somewhat above what stands there."""
    tops = [p.top for p in room.placed if p.wall_id[:1] == face.id[:1]]
    tops += [w.bottom + w.thickness for w in room.worktops if w.wall_id[:1] == face.id[:1]]
    return max([900.0, *tops])


def seen_height(room: RoomLayout, wall: Wall) -> float:
    """How high the elevation of a wall or face is drawn, mm: with the slope that starts on it."""
    if wall.island:
        return island_height(room, wall)
    return room.room.height.mm if any(s.wall == wall.id for s in room.room.slopes) else wall.height


def elevation_dims(job: Job, room: RoomLayout, wall: Wall, placed: list[Placed]) -> list[Item]:
    """Units below and above, openings, the overall length, and heights at the left."""
    unit = job.display
    dims: list[Item] = []

    def text(mm: float) -> str:
        return format_length(mm, unit)

    base = [p for p in placed if p.level is not Level.HUNG and p.width > 0]
    chains = [(-1, base)]
    chains += [(i, row) for i, row in enumerate(hung_rows(room, wall, placed), 1)]
    for row, cells in chains:
        where = 0.0 if row < 0 else wall.height
        at_x = 0.0
        for p in sorted(cells, key=lambda p: p.x):
            if p.x - at_x > 0.5:
                dims.append(Dim(at_x, p.x, where, row, "x", text(p.x - at_x), Kind.CELL.of(p.cell), "left"))
            dims.append(Dim(p.x, p.right, where, row, "x", text(p.width), Kind.CELL.of(p.cell), "width"))
            at_x = max(at_x, p.right)
        if cells and wall.length - at_x > 0.5:
            rest = next((r for r in room.runs if r.run.id == cells[-1].run), None)
            typed = rest is not None and not rest.run.free and abs(rest.left - (wall.length - at_x)) < 0.5
            of = Kind.RUN.of(cells[-1].run) if typed else None
            dims.append(Dim(at_x, wall.length, where, row, "x", text(wall.length - at_x), of, "left" if typed else ""))
    below = -2 if base else -1
    at = 0.0
    openings = sorted((o for o in room.room.openings if o.wall == wall.id), key=lambda o: o.x.mm)
    for opening in openings:
        x, w = opening.x.mm, opening.width.mm
        if x - at > 0.5:
            dims.append(Dim(at, x, 0.0, below, "x", text(x - at), Kind.OPENING.of(opening.id), "left"))
        dims.append(Dim(x, x + w, 0.0, below, "x", text(w), Kind.OPENING.of(opening.id), "width"))
        at = x + w
    if openings and wall.length - at > 0.5:
        last = Kind.OPENING.of(openings[-1].id)
        dims.append(Dim(at, wall.length, 0.0, below, "x", text(wall.length - at), last, "right"))
    total = below - 1 if openings else below
    source, key = length_key(room, wall)
    dims.append(Dim(0.0, wall.length, 0.0, total, "x", text(wall.length), source, key))
    ceiling = island_height(room, wall) if wall.island else wall.height
    heights = {0.0, ceiling}
    for p in placed:
        if p.is_solid:
            heights |= {round(p.bottom, 3), round(p.top, 3)}
    for top in room.worktops:
        if top.wall_id == wall.id or (wall.island and top.wall_id[:1] == wall.id[:1]):
            heights.add(round(top.bottom + top.thickness, 3))
    marks = sorted(heights)
    steps = list(pairwise(marks)) if len(marks) > 2 else []
    for low, high in steps:
        dims.append(Dim(low, high, 0.0, -1, "y", text(high - low)))
    if not wall.island:
        key = "height" if not wall.profile else ""
        dims.append(
            Dim(0.0, wall.height, 0.0, -2 if steps else -1, "y", text(wall.height), Kind.ROOM.of(room.room.id), key)
        )
    return dims


def hung_rows(room: RoomLayout, wall: Wall, placed: list[Placed]) -> list[list[Placed]]:
    """What hangs on a wall in chains of which each holds things that lie beside one another: every hung run by itself,
    the lowest first, and what hangs free as far as it fits into one line."""
    free = {r.run.id for r in room.runs if r.run.free}
    hung = [p for p in placed if p.level is Level.HUNG and p.width > 0]
    rows: list[list[Placed]] = []
    for run in sorted(
        {p.run for p in hung if p.run not in free}, key=lambda r: min(p.bottom for p in hung if p.run == r)
    ):
        rows.append([p for p in hung if p.run == run])
    lines: list[list[Placed]] = []
    for p in sorted((p for p in hung if p.run in free), key=lambda p: (p.bottom, p.x)):
        line = next((at for at in lines if all(p.x >= q.right - 0.5 or p.right <= q.x + 0.5 for q in at)), None)
        if line is None:
            lines.append([p])
        else:
            line.append(p)
    return rows + lines


def length_key(room: RoomLayout, wall: Wall) -> tuple[Source, str]:
    """What typing over a line's length sets: the source and the key of its dimension."""
    if wall.island:
        return Kind.ISLAND.of(wall.island), "length"
    if isinstance(room.room.outline, Rectangle):
        return Kind.ROOM.of(room.room.id), "width" if wall.id in "AC" else "depth"
    return Kind.WALL.of(wall.id), "length"
