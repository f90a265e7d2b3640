"""Dimensions of an elevation: units below and above, openings, the overall length, heights at the left."""

from __future__ import annotations

from itertools import pairwise

from tall_plank.drawing.heights import height_dims, level_words
from tall_plank.drawing.primitives import Dim, Item, Layer, Text
from tall_plank.job import Job, Kind, Level, Opening, Rectangle, Source
from tall_plank.making import MadeJob
from tall_plank.measure import format_chain, format_length
from tall_plank.setout import Placed, RoomLayout, Wall


def island_height(room: RoomLayout, face: Wall) -> float:
    """How high the elevation of an island's face is drawn, mm: as high as what stands there."""
    tops = [p.top for p in room.placed if p.wall_id[:1] == face.id[:1]]
    tops += [w.bottom + w.thickness for w in room.worktops if w.wall_id[:1] == face.id[:1]]
    return max(tops, default=EMPTY)


EMPTY = 900.0
"""mm that an island is drawn high that nothing stands on yet; no figure says so."""


def seen_height(room: RoomLayout, wall: Wall) -> float:
    """How high the elevation of a wall or face is drawn, mm: with the slope that starts on it."""
    if wall.island:
        return island_height(room, wall)
    return room.room.height.mm if any(s.wall == wall.id for s in room.room.slopes) else wall.height


def elevation_dims(
    job: Job, room: RoomLayout, wall: Wall, placed: list[Placed], made: MadeJob, *, spread: bool = False
) -> list[Item]:
    """Units below and above, openings, services, the overall length, and heights at the left, or spread at the end of
    the wall that they are nearer to."""
    dims: list[Item] = []
    base = [p for p in placed if p.level is not Level.HUNG and p.width > 0]
    chains = [(-1, base)]
    chains += [(i, row) for i, row in enumerate(hung_rows(room, wall, placed), 1)]
    for row, cells in chains:
        if job.papers.chains == "fronts":
            dims += _fronts(job, wall, row, cells, made)
        elif job.papers.chains == "worktops" and row < 0 and (tops := _tops(room, wall)):
            dims += _chain(job, tops, row, "worktop edges")
        else:
            dims += _units(job, room, wall, row, cells)
    below = -2 if base else -1
    openings = sorted((o for o in room.room.openings if o.wall == wall.id), key=lambda o: o.x.mm)
    if openings:
        dims += _openings(job, wall, below, openings)
    services = sorted({s.x.mm for s in room.room.services if s.wall == wall.id})
    if services:
        row = below - 1 if openings else below
        marks = [0.0, *(x for x in services if NEAR < x < wall.length - NEAR), wall.length]
        dims += _chain(job, marks, row, "services")
        below = row if openings else below - 1
    for marks in _panels(room, wall):
        if openings:
            below -= 1
        dims += _chain(job, marks, below, "panels")
        below = below if openings else below - 1
    total = below - 1 if openings else below
    source, key = length_key(room, wall)
    dims.append(Dim(0.0, wall.length, 0.0, total, "x", format_length(wall.length, job.display), source, key))
    heights = height_dims(job, room, wall, placed, made, spread=spread)
    return [*dims, *heights, *(levels(job, room, wall) if spread else ())]


def _units(job: Job, room: RoomLayout, wall: Wall, row: int, cells: list[Placed]) -> list[Item]:
    """Units of one row with the gaps between them, from end to end of the wall."""
    where = 0.0 if row < 0 else wall.height
    steps: list[tuple[float, float, Source | None, str]] = []
    at = 0.0
    for p in sorted(cells, key=lambda p: p.x):
        if p.x - at > NEAR:
            steps.append((at, p.x, Kind.CELL.of(p.cell), "left"))
        steps.append((p.x, p.right, Kind.CELL.of(p.cell), "width"))
        at = max(at, p.right)
    if cells and wall.length - at > NEAR:
        rest = next((r for r in room.runs if r.run.id == cells[-1].run), None)
        typed = rest is not None and not rest.run.free and abs(rest.left - (wall.length - at)) < NEAR
        steps.append((at, wall.length, Kind.RUN.of(cells[-1].run) if typed else None, "left" if typed else ""))
    return _named(job, steps, where, row, "carcass")


def _fronts(job: Job, wall: Wall, row: int, cells: list[Placed], made: MadeJob) -> list[Item]:
    """The fronts of one row of units with the gaps between them, from end to end of the wall; a unit without fronts by
    its carcass. Nothing is typed over them: what is decided is the carcass."""
    marks = {0.0, wall.length} if cells else set()
    for p in cells:
        unit = made.of(p.cell)
        fronts = [f for f in unit.fronts if f.face is None] if unit is not None else []
        spans = [(f.x, f.x + f.width) for f in fronts] or [(0.0, p.width)]
        marks |= {p.x + x for span in spans for x in span}
    kept = sorted(m for m in marks if -NEAR < m < wall.length + NEAR)
    kept = [m for i, m in enumerate(kept) if i == 0 or m - kept[i - 1] > NEAR]
    steps: list[tuple[float, float, Source | None, str]] = [(a, b, None, "") for a, b in pairwise(kept)]
    return _named(job, steps, 0.0 if row < 0 else wall.height, row, "fronts")


def _tops(room: RoomLayout, wall: Wall) -> list[float]:
    """Where worktops begin, meet and end along a wall, from end to end of it, mm; empty where there is none."""
    found = [v for t in room.worktops if t.wall_id == wall.id for v in (t.x, t.x + t.length)]
    marks = sorted({0.0, wall.length, *(v for v in found if 0.0 < v < wall.length)}) if found else []
    return [m for i, m in enumerate(marks) if i == 0 or m - marks[i - 1] > NEAR]


def levels(job: Job, room: RoomLayout, wall: Wall) -> list[Item]:
    """The upper edges of worktops as levels from the finished floor, each height once."""
    items: list[Item] = []
    for top in sorted((t for t in room.worktops if t.wall_id == wall.id), key=lambda t: t.x):
        high = top.bottom + top.thickness
        if all(abs(i.y - high) > NEAR for i in items if isinstance(i, Text)):
            at = top.x + top.length * 0.62
            items.append(Text(at, high, level_words(job, high), 1.8, Layer.DIMENSION, rise=1.2))
    return items


def _openings(job: Job, wall: Wall, row: int, openings: list[Opening]) -> list[Item]:
    """Openings with the wall between them."""
    steps: list[tuple[float, float, Source | None, str]] = []
    at = 0.0
    for o in openings:
        x, w, source = o.x.mm, o.width.mm, Kind.OPENING.of(o.id)
        if x - at > NEAR:
            steps.append((at, x, source, "left"))
        steps.append((x, x + w, source, "width"))
        at = x + w
    if wall.length - at > NEAR:
        steps.append((at, wall.length, Kind.OPENING.of(openings[-1].id), "right"))
    return _named(job, steps, 0.0, row, "openings")


def _panels(room: RoomLayout, wall: Wall) -> list[list[float]]:
    """From end to end of a wall where stiles and panels begin and end, other covers as wholes: a list for each level of
    its fields, from below, each different one once; mm."""
    levels: dict[float, set[float]] = {}
    for laid in (f for f in room.fields if f.wall_id == wall.id):
        for zone in laid.zones:
            for s in zone.stretches:
                if s.grid is not None:
                    # Of a raking band all stretches have one line.
                    marks = levels.setdefault(round(s.line.at(0.0), 1), set())
                    lefts = [s.x0 + x for x in s.grid.left_edges]
                    marks |= {s.x0, s.x1, *lefts, *(x + w for x, w in zip(lefts, s.grid.panels, strict=True))}
            if not zone.stretches:
                for region in zone.regions:
                    x0, z0, x1, _ = region.bounds
                    levels.setdefault(round(z0, 1), set()).update((x0, x1))
    found: list[list[float]] = []
    for _, marks in sorted(levels.items()):
        kept = sorted({0.0, wall.length, *(m for m in marks if NEAR < m < wall.length - NEAR)})
        row = [m for i, m in enumerate(kept) if i == 0 or m - kept[i - 1] > NEAR]
        if row not in found and len(found) < MOST_LEVELS:
            found.append(row)
    return found


MOST_LEVELS = 3
"""Chains of panels under an elevation at the most."""


def _chain(job: Job, marks: list[float], row: int, name: str) -> list[Item]:
    """A chain from mark to mark that nothing is typed over."""
    return _named(job, [(a, b, None, "") for a, b in pairwise(marks)], 0.0, row, name)


def _named(
    job: Job, steps: list[tuple[float, float, Source | None, str]], base: float, row: int, name: str
) -> list[Item]:
    """Dimensions that add up; what they measure to is written at the end."""
    texts = format_chain([b - a for a, b, _, _ in steps], job.display)
    last = len(steps) - 1
    return [
        Dim(a, b, base, row, "x", text, source, key, name=name if i == last else "")
        for i, ((a, b, source, key), text) in enumerate(zip(steps, texts, strict=True))
    ]


NEAR = 0.5
"""mm; a narrower gap is none."""


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
    if wall.column:
        front = wall.id.rpartition("-")[2] in ("front", "back")
        return Kind.COLUMN.of(wall.column), "width" if front else "depth"
    if isinstance(room.room.outline, Rectangle):
        return Kind.ROOM.of(room.room.id), "width" if wall.id in "AC" else "depth"
    return Kind.WALL.of(wall.id), "length"
