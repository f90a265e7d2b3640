"""Plinths in corners of any angle: one runs behind the end of the other, which butts against it."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString, Point, Polygon

from conftest import with_run
from tall_plank.edits import outline
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.setout import RoomLayout, TrimBoard, set_out


def round_a_corner(angle: float, north: str, east: str) -> Job:
    text = f"4200 corner {angle:g}, 3400, rest, rest"
    job = outline.type_outline(new_job(), "r1", text).job
    return with_run(with_run(job, "A", Level.BASE, north), "B", Level.BASE, east)


def at_the_corner(room: RoomLayout, wall: str) -> TrimBoard:
    boards = [b for b in room.plinths if b.wall_id == wall and b.kind == "plinth"]
    return max(boards, key=lambda b: b.box()[1][0]) if wall == "A" else min(boards, key=lambda b: b.box()[0][0])


def footprint(room: RoomLayout, board: TrimBoard) -> Polygon:
    frame = room.wall(board.wall_id).frame
    (x0, y0, _), (x1, y1, _) = board.box()
    return Polygon([frame.floor(x, y) for x, y in ((x0, y0), (x1, y0), (x1, y1), (x0, y1))])


def face_line(room: RoomLayout, board: TrimBoard, behind: float = 0.0) -> LineString:
    """The line of a plinth's face, or of what lies so far behind it, in the room."""
    frame = room.wall(board.wall_id).frame
    y = board.box()[0][1] + behind
    return LineString([frame.floor(x, y) for x in (-9e4, 9e4)])


def front_corner(room: RoomLayout, board: TrimBoard) -> Point:
    """The end at the corner of its face, which looks into the room."""
    frame = room.wall(board.wall_id).frame
    (x0, y0, _), (x1, _, _) = board.box()
    return Point(frame.floor(x1 if board.wall_id == "A" else x0, y0))


ANGLES = st.one_of(st.integers(60, 150), st.sampled_from([90, 135, 120, 100]))


@given(ANGLES, st.sampled_from(["drawers 600", "door 450", "open 500"]), st.sampled_from(["drawers 600", "door 450"]))
def test_plinths_meet_in_corners_of_any_angle(angle: int, north: str, east: str) -> None:
    room = set_out(round_a_corner(float(angle), f"pair rest, {north}", f"{east}, pair rest")).rooms[0]
    first, second = at_the_corner(room, "A"), at_the_corner(room, "B")
    thick = first.thickness
    assert thick == second.thickness
    # The faces meet in a line; the first run takes the corner, so its plinth goes on behind the second's.
    meet = face_line(room, first).intersection(face_line(room, second))
    assert front_corner(room, second).distance(meet) < 1e-3
    behind = face_line(room, first).intersection(face_line(room, second, behind=thick))
    assert front_corner(room, first).distance(behind) < 1e-3
    overlap = footprint(room, first).intersection(footprint(room, second)).area
    # Square ends in a corner that is not square share the wedge of the bevel that the fitter cuts, no more.
    assert overlap <= thick * thick * abs(math.tan(math.radians(angle - 90.0))) + 1.0


def test_in_a_square_corner_they_touch_and_do_not_overlap() -> None:
    room = set_out(round_a_corner(90.0, "pair rest, drawers 600", "drawers 600, pair rest")).rooms[0]
    a, b = (footprint(room, at_the_corner(room, w)) for w in "AB")
    assert a.intersection(b).area == pytest.approx(0.0, abs=1e-6)
    assert a.distance(b) == pytest.approx(0.0, abs=1e-6)
