"""Solids seen along a direction: what a viewer that remembers sees is what one who looks for the first time sees."""

from __future__ import annotations

import dataclasses

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tall_plank.demo import demo_job
from tall_plank.drawing.seen import Seen, Standpoint, Way, see
from tall_plank.job import Kind
from tall_plank.measure import Frame
from tall_plank.measure.frames import RoomPoint
from tall_plank.solids.room import solids_in
from tall_plank.solids.solids import Box, Solid
from tall_plank.workings import Workings

FRONT = Way((0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 0.0, 1.0))
"""Seen from where y is least."""


def box(name: str, x: float, y: float, z: float, w: float, d: float, h: float) -> Box:
    return Box(Frame(RoomPoint((x, y, z))), (w, d, h), "#FFFFFF", Kind.CELL.of(name), name)


def length_of(seen: Seen) -> float:
    return float(np.hypot(seen.lines[:, 2] - seen.lines[:, 0], seen.lines[:, 3] - seen.lines[:, 1]).sum())


def rounded(seen: Seen) -> list[tuple[float, ...]]:
    """Lines with their ends in order."""
    flipped = np.where(
        (seen.lines[:, :1] > seen.lines[:, 2:3]) | ((seen.lines[:, :1] == seen.lines[:, 2:3]) & (seen.lines[:, 1:2] > seen.lines[:, 3:])),
        seen.lines[:, [2, 3, 0, 1]], seen.lines,
    )  # fmt: skip
    return sorted(tuple(row) for row in flipped.round(2).tolist())


def test_a_box_shows_its_face_and_a_box_behind_it_what_stands_out() -> None:
    near, far = box("n", 0, 0, 0, 600, 500, 700), box("f", 300, 600, 100, 600, 500, 700)
    assert length_of(see([near], FRONT)) == pytest.approx(2 * (600 + 700))
    # Behind: from x 300 to 900 and z 100 to 800, of which 300 by 600 are hidden; the hidden corner's two sides too.
    assert length_of(see([near, far], FRONT)) == pytest.approx(2 * 1300 + 2 * 1300 - 300 - 600, abs=0.02)


def test_boxes_that_meet_share_one_line_and_nothing_stands_through() -> None:
    a, b = box("a", 0, 0, 0, 600, 500, 700), box("b", 600, 0, 0, 400, 500, 700)
    seen = see([a, b], FRONT)
    assert length_of(seen) == pytest.approx(2 * 1300 + 2 * 1100)  # twice at x = 600, drawn once on paper
    taken = see([a, b, box("c", -100, -300, -100, 2000, 10, 2000)], FRONT)
    assert length_of(taken) == pytest.approx(2 * 4000)


def test_what_lies_beyond_the_limits_is_left_out() -> None:
    near, far = box("n", 0, -100, 0, 600, 50, 700), box("f", 0, 100, 0, 300, 50, 300)
    assert length_of(see([near, far], FRONT._replace(near=40.0))) == pytest.approx(1200)
    assert length_of(see([near, far], FRONT._replace(far=-90.0))) == pytest.approx(2600)


@settings(max_examples=25)
@given(st.lists(st.tuples(st.integers(0, 9), st.integers(0, 12), st.integers(0, 12), st.integers(0, 3)), max_size=8))
def test_looking_again_after_changes_sees_the_same(changes: list[tuple[int, int, int, int]]) -> None:
    things: dict[int, list[Solid]] = {
        n: [box(str(n), 90.0 * n, 20.0 * (n % 4), 0, 130, 60, 200 + 20 * n), box(str(n), 90.0 * n, -30, 50, 60, 10, 60)]
        for n in range(10)
    }
    stand = Standpoint(FRONT)
    stand.see([s for group in things.values() for s in group])
    for n, x, z, kind in changes:
        if kind == 3:
            things.pop(n, None)
        else:
            things[n] = [box(str(n), 80.0 * x, 25.0 * kind - 40, 30.0 * z, 150, 60, 180)]
        solids = [s for group in things.values() for s in group]
        if not solids:
            continue
        assert rounded(stand.see(solids)) == rounded(see(solids, FRONT))


def test_a_whole_room_is_seen_the_same_after_a_unit_changes() -> None:
    w = Workings(demo_job())
    room = w.layout.rooms[0]
    wall = room.wall("A")
    way = Way(wall.frame.origin, wall.frame.x, (0.0, 0.0, 1.0), near=1500.0, far=-1.0)
    solids = solids_in(w.job, room, w.made, hidden=False)
    stand = Standpoint(way)
    assert rounded(stand.see(solids)) == rounded(see(solids, way))
    cell = next(p.cell for p in room.placed if p.number == "A4")
    less = [s for s in solids if s.source.id != cell]
    assert rounded(stand.see(less)) == rounded(see(less, way))
    pale = [dataclasses.replace(s, color="#FFFFFF") for s in solids]
    assert len(stand.see(pale).lines) == len(see(solids, way).lines)
