"""Elevations say what the scene of solids says: each is drawn its own way from the same parts, and the lines of boards
and fronts that a viewer of the solids sees are on the drawing."""

from __future__ import annotations

import re

import numpy as np
import pytest
from numpy.typing import NDArray

from kept.results import every_kind
from tall_plank.demo import demo_job
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.primitives import Drawing, Line, Shape
from tall_plank.drawing.seen import Way, see
from tall_plank.drawing.shown import shown
from tall_plank.drawing.shows import Shows
from tall_plank.job import Job, Kind
from tall_plank.setout import RoomLayout, Wall
from tall_plank.solids.room import solids_in
from tall_plank.workings import Workings

Floats = NDArray[np.float64]

BOARDS = re.compile(
    r"\S+ (?:.* )?(gable|top|bottom|stile|(?:top|bottom|middle|front|rear) rail|drawer front \d+|door \d+|plinth)$"
)
"""Boards and fronts by their names; what appliances and fittings look like is drawn as signs."""

REVEAL = 90.0
"""mm of a board's own edge that may show in the gap beside a front and is not drawn."""


def lines_of(drawing: Drawing) -> Floats:
    found: list[tuple[float, float, float, float]] = []
    for item in shown(drawing, 20.0).drawn:
        if isinstance(item, Line):
            found.append((item.x1, item.y1, item.x2, item.y2))
        elif isinstance(item, Shape):
            points = item.points
            found += [(*a, *b) for a, b in zip(points, (*points[1:], points[0]), strict=True)]
    return np.array(found)


def not_drawn(line: Floats, drawn: Floats) -> float:
    """mm of a line that no drawn line lies on, within a mm."""
    a, b = line[:2], line[2:]
    length = float(np.hypot(*(b - a)))
    way = (b - a) / length
    across = np.array([-way[1], way[0]])
    near = (np.abs((drawn[:, :2] - a) @ across) < 1.0) & (np.abs((drawn[:, 2:] - a) @ across) < 1.0)
    starts, ends = (drawn[near, :2] - a) @ way, (drawn[near, 2:] - a) @ way
    spans = sorted(zip(np.minimum(starts, ends) - 1.0, np.maximum(starts, ends) + 1.0, strict=True))
    left, at = 0.0, 0.0
    for low, high in spans:
        left += max(0.0, min(low, length) - at)
        at = max(at, min(high, length))
    return left + max(0.0, length - at)


def lines_lost(job: Job, w: Workings, room: RoomLayout, wall: Wall) -> tuple[float, dict[str, float]]:
    """mm of lines of boards and fronts that are seen of straight units on a wall, and what of them is not drawn, by
    board."""
    cells = {
        p.cell for p in room.placed if p.wall_id == wall.id and p.is_solid and not p.corner and p.shape == "straight"
    }
    solids = [
        s for s in solids_in(job, room, w.made, hidden=False) if s.source.kind is Kind.CELL and s.source.id in cells
    ]
    if not solids:
        return 0.0, {}
    seen = see(solids, Way(wall.frame.at(0.0, 0.0, 0.0), wall.frame.x, (0.0, 0.0, 1.0)))
    drawn = lines_of(elevation(job, room, wall, w.made, shows=Shows(dims=False, labels=False, worktops=False)))
    whole, lost = 0.0, {}
    for line, n in zip(seen.lines, seen.line_of, strict=True):
        name, length = seen.solids[int(n)].name, float(np.hypot(line[2] - line[0], line[3] - line[1]))
        if length > 30.0 and BOARDS.match(name):
            whole += length
            missing = not_drawn(line, drawn)
            if missing > 5.0:
                lost[name] = lost.get(name, 0.0) + missing
    return whole, lost


@pytest.mark.parametrize("job", [demo_job(), every_kind()], ids=["demo", "every kind"])
def test_what_is_seen_of_boards_and_fronts_is_on_the_elevation(job: Job) -> None:
    w = Workings(job)
    total = 0.0
    for room in w.layout.rooms:
        for wall in room.lines:
            whole, lost = lines_lost(job, w, room, wall)
            total += whole
            assert {k: round(v) for k, v in lost.items() if v > REVEAL} == {}, (room.room.name, wall.id)
    assert total > 100_000.0  # there was something to compare


def test_a_front_that_is_drawn_where_it_is_not_would_be_found() -> None:
    job = demo_job()
    w = Workings(job)
    room = w.layout.rooms[0]
    wall = room.wall("A")
    drawing = elevation(job, room, wall, w.made, shows=Shows(dims=False, labels=False))
    drawn = lines_of(drawing) + np.array([0.0, 12.0, 0.0, 12.0])
    solids = [s for s in solids_in(job, room, w.made, hidden=False) if s.source.kind is Kind.CELL]
    seen = see(solids, Way(wall.frame.at(0.0, 0.0, 0.0), wall.frame.x, (0.0, 0.0, 1.0)))
    assert sum(not_drawn(line, drawn) for line in seen.lines[:60] if np.hypot(*(line[2:] - line[:2])) > 30) > 3000.0
