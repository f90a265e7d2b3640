"""Fronts whose grain goes on from one to the next, marked on elevations with the way of the grain, their row and their
place in it."""

from __future__ import annotations

from tall_plank.drawing.primitives import Item, Layer, Text
from tall_plank.job import Job, Kind
from tall_plank.making import MadeJob
from tall_plank.making.matching import match_groups
from tall_plank.setout import RoomLayout, Wall

NOTE = "↑ V1.2: grain matched in row 1, second of it."
"""What the marks mean, for the foot of a sheet."""

ARROWS = {(1, 0): "→", (-1, 0): "←", (0, 1): "↑", (0, -1): "↓"}


def _places(made: MadeJob, matched: str) -> dict[str, str]:
    """Number of a front -> its row's number and its place in the row."""
    groups = match_groups(made, matched)  # type: ignore[arg-type]
    rows = {name: n for n, name in enumerate(dict.fromkeys(row for row, _, _ in groups.values()), 1)}
    return {number: f"V{rows[row]}.{place + 1}" for number, (row, place, _) in groups.items()}


def veneer_marks(job: Job, room: RoomLayout, wall: Wall, made: MadeJob) -> list[Item]:
    """A mark in the middle of every matched front that stands on a wall and looks away from it."""
    if job.cutting.matched == "no":
        return []
    places = _places(made, job.cutting.matched)
    cells = {p.cell for p in room.placed if p.wall_id == wall.id}
    items: list[Item] = []
    for numbered in made.parts():
        name, cell = places.get(numbered.number), numbered.cell
        if name is None or cell not in cells:
            continue
        part = numbered.part
        middle = part.width / 2
        (x0, y0, z0), (x1, y1, z1), (x2, y2, _), (x3, y3, _) = (
            wall.frame.into(numbered.parent.at(*part.frame.at(x, y, 0.0)))
            for x, y in ((0.0, middle), (part.length, middle), (0.0, 0.0), (0.0, part.width))
        )
        if abs(y1 - y0) > 1.0 or abs(y3 - y2) > 1.0 or abs(x3 - x2) + abs(x1 - x0) < 1.0:
            continue  # it does not look this way
        way = (round((x1 - x0) / part.length), round((z1 - z0) / part.length))
        words = f"{ARROWS.get(way, '')} {name}".strip()
        source = Kind.CELL.of(cell)
        items.append(Text((x0 + x1) / 2, (z0 + z1) / 2, words, 1.8, Layer.MAKING, source, rise=-0.9, backed=True))
    return items
