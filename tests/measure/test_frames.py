"""The conventions of frames, row by row. Coordinates in mm."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.job import Room
from tall_plank.job.room import Rectangle
from tall_plank.measure import Frame, Length
from tall_plank.measure.frames import NEG_X, NEG_Z, RoomPoint, X, Y, Z, box_corners, wall_frame
from tall_plank.setout import walls_of

ROOM = Room("r", "R", Rectangle(Length("4m", 4000.0), Length("3m", 3000.0)), Length("", 2500.0), Length("", 150.0))

# wall, its left end seen from inside, direction to the right, direction into the wall
WALLS = [
    ("A", (0, 3000, 0), (1, 0, 0), (0, 1, 0)),
    ("B", (4000, 3000, 0), (0, -1, 0), (1, 0, 0)),
    ("C", (4000, 0, 0), (-1, 0, 0), (0, -1, 0)),
    ("D", (0, 0, 0), (0, 1, 0), (-1, 0, 0)),
]


@pytest.mark.parametrize(("name", "origin", "right", "into"), WALLS)
def test_walls_run_clockwise_with_x_to_the_right_seen_from_inside(name, origin, right, into) -> None:
    wall = next(w for w in walls_of(ROOM) if w.id == name)
    assert wall.frame.origin == pytest.approx(origin)
    assert wall.frame.x == pytest.approx(right)
    assert wall.frame.y == pytest.approx(into)
    assert wall.frame.z == pytest.approx((0, 0, 1))


def test_part_frames_of_gables_put_l1_at_the_front_on_both() -> None:
    # left gable: x down, y from the front to the wall; face A (z = thickness) looks into the unit
    left = Frame((0.0, -560.0, 720.0), NEG_Z, Y)
    assert left.z == (1.0, 0.0, 0.0)
    right = Frame((600.0, -560.0, 0.0), Z, Y)
    assert right.z == (-1.0, 0.0, 0.0)
    for gable in (left, right):
        assert gable.at(0.0, 0.0, 0.0)[1] == -560.0


def test_a_top_looks_down_and_a_bottom_looks_up() -> None:
    assert Frame((0, 0, 0), X, Y).z == (0, 0, 1)
    assert Frame((0, 0, 0), NEG_X, Y).z == (0, 0, -1)


@given(st.floats(0, 2 * math.pi), st.tuples(*[st.floats(-5000, 5000)] * 3), st.tuples(*[st.floats(-5000, 5000)] * 3))
def test_into_undoes_at(angle: float, origin: tuple, point: tuple) -> None:
    frame = Frame(origin, (math.cos(angle), math.sin(angle), 0.0), (-math.sin(angle), math.cos(angle), 0.0))
    assert frame.into(frame.at(*point)) == pytest.approx(point, abs=1e-6)


def test_frames_inside_frames() -> None:
    wall = wall_frame((4000.0, 0.0), (0.0, 0.0))
    unit = wall.then(Frame((100.0, 0.0, 120.0)))
    assert unit.at(0.0, -560.0, 0.0) == pytest.approx((3900.0, 560.0, 120.0))


def test_a_wall_of_no_length_has_a_frame_all_the_same() -> None:
    assert wall_frame((1.0, 1.0), (1.0, 1.0)).origin == (1.0, 1.0, 0.0)


def test_box_corners_are_the_least_and_greatest() -> None:
    low, high = box_corners(Frame((10.0, 0.0, 0.0), NEG_X, Y), (5.0, 6.0, 7.0))
    assert low == (5.0, 0.0, -7.0)
    assert high == (10.0, 6.0, 0.0)


@given(st.floats(0, 2 * math.pi), st.tuples(*[st.floats(-5000, 5000)] * 2), st.tuples(*[st.floats(-5000, 5000)] * 2))
def test_the_floor_is_the_room_without_its_height(
    angle: float, origin: tuple[float, float], p: tuple[float, float]
) -> None:
    c, s = math.cos(angle), math.sin(angle)
    frame = Frame(RoomPoint((*origin, 0.0)), (c, s, 0.0), (-s, c, 0.0))
    at = frame.floor(*p)
    assert (*at, 0.0) == pytest.approx(frame.at(*p), abs=1e-6)
    # By hand: x along (c, s), y square to it on the left (rotation in a plane).
    assert at == pytest.approx((origin[0] + p[0] * c - p[1] * s, origin[1] + p[0] * s + p[1] * c), abs=1e-6)
    assert frame.from_floor(at) == pytest.approx(p, abs=1e-6)
