"""Pictures of rooms: perspective keeps what is straight and what stands before what; every spot has the color of what is
nearest there."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.drawing.fills import seen_faces
from tall_plank.drawing.primitives import Line, Shape
from tall_plank.drawing.roomview import CORNERS, room_view, stands_between, views_of
from tall_plank.drawing.seen import Way, in_perspective, look, order_of
from tall_plank.drawing.sheets import caption_of, lay_out
from tall_plank.edits.things.island import add_island
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.measure import Frame
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import RoomPoint
from tall_plank.papers.sets import set_sheets
from tall_plank.solids.solids import Box
from tall_plank.workings import Workings


def furnished() -> Job:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900, door 450")
    return with_run(job, "C", Level.HUNG, "pair 900, door 450")


@settings(max_examples=80)
@given(st.lists(st.floats(-2000, 2000), min_size=6, max_size=6), st.floats(0.05, 0.95), st.floats(5000, 20000))
def test_a_straight_line_stays_straight_and_the_nearer_point_stays_nearer(v: list[float], t: float, eye: float) -> None:
    a, b = np.array(v[:3]), np.array(v[3:])
    p, q, m = in_perspective(np.array([a, b, a + (b - a) * t]), eye)
    # The point between lies on the line between the two.
    cross = np.cross(q - p, m - p)
    assert np.abs(cross).max() < 1e-6 * (1 + np.abs(q - p).max() ** 2)
    assert (p[2] < q[2]) == (a[2] < b[2]) or abs(a[2] - b[2]) < 1e-6
    # By similar triangles: twice as far from the eye, half as large.
    far = in_perspective(np.array([[100.0, 50.0, -eye]]), eye)[0]
    assert (far[0], far[1]) == (pytest.approx(50.0), pytest.approx(25.0))


@settings(max_examples=40, deadline=None)
@given(st.data())
def test_every_spot_is_painted_in_the_color_of_the_nearest_face_there(data: st.DataObject) -> None:
    """Against casting a ray at each box (the slab method, common practice)."""
    boxes = []
    for n in range(data.draw(st.integers(1, 5))):
        x, y, z = (data.draw(st.integers(0, 12)) * 100.0 for _ in range(3))
        w, d, h = (data.draw(st.integers(1, 4)) * 100.0 for _ in range(3))
        boxes.append(Box(Frame(RoomPoint((x, y + 37.0 * n, z))), (w, d, h), "#FFFFFF", Kind.CELL.of(str(n))))
    assume(not any(_overlap(a, b) for i, a in enumerate(boxes) for b in boxes[:i]))  # nothing stands in another
    turn = math.radians(data.draw(st.integers(-60, 60)) + 0.3)
    back = (math.sin(turn) * 0.8, -math.cos(turn) * 0.8, 0.6)
    right = (math.cos(turn), math.sin(turn), 0.0)
    up = tuple(np.cross(back, right).tolist())
    eye = data.draw(st.sampled_from([0.0, 6000.0]))
    way = Way((600.0, 600.0, 400.0), right, up, eye=eye)  # type: ignore[arg-type]
    order = order_of(boxes)
    looked = look(order, way)
    pieces = seen_faces(looked.corners, looked.face_of)
    for _ in range(25):
        u, v = data.draw(st.floats(-900, 900)), data.draw(st.floats(-900, 900))
        painted = [int(looked.face_of[p.face]) for p in pieces if ol.inside(p.outline, u, v)]
        start, ray = _ray(way, u, v)
        hits = [(t, n) for n, b in enumerate(order) if (t := _hit(b, start, ray)) is not None]  # type: ignore[arg-type]
        edges = [_edge(p.outline, u, v) for p in pieces]
        if min(edges, default=9.0) < 0.5:
            continue  # on an outline either is right
        assert bool(painted) == bool(hits)
        if hits:
            near = min(hits)[0]
            assert painted[-1] in [n for t, n in hits if t < near + 0.01]


def _overlap(a: Box, b: Box) -> bool:
    p, q = np.array(a.frame.origin), np.array(b.frame.origin)
    return bool((p < q + b.size).all() and (q < p + a.size).all())


def _ray(way: Way, u: float, v: float) -> tuple[np.ndarray, np.ndarray]:  # type: ignore[type-arg]
    right, up, back = np.array(way.right), np.array(way.up), np.array(way.towards)
    spot = np.array(way.origin) + right * u + up * v
    if not way.eye:
        return spot + back * 1e5, -back
    eye = np.array(way.origin) + back * way.eye
    return eye, (spot - eye) / np.linalg.norm(spot - eye)


def _hit(box: Box, start: np.ndarray, ray: np.ndarray) -> float | None:  # type: ignore[type-arg]
    low = np.array(box.frame.origin)
    high = low + np.array(box.size)
    with np.errstate(divide="ignore"):
        a, b = (low - start) / ray, (high - start) / ray
    enter, leave = np.minimum(a, b).max(), np.maximum(a, b).min()
    return float(enter) if leave > enter + 1e-6 and leave > 0 else None


def _edge(outline: tuple[tuple[float, float], ...], u: float, v: float) -> float:
    found = 9e9
    for (ax, ay), (bx, by) in zip(outline, (*outline[1:], outline[0]), strict=True):
        dx, dy = bx - ax, by - ay
        t = min(1.0, max(0.0, ((u - ax) * dx + (v - ay) * dy) / (dx * dx + dy * dy + 1e-12)))
        found = min(found, math.hypot(u - ax - dx * t, v - ay - dy * t))
    return found


def test_a_room_is_seen_from_as_many_corners_as_show_every_wall() -> None:
    w = Workings(furnished())
    room = w.layout.rooms[0]
    corners = views_of(room)
    assert len(corners) == 2  # units on walls that face each other
    towards = {name: (x, y) for name, x, y in CORNERS}
    for wall_id in ("A", "C"):
        assert any(not stands_between(room.wall(wall_id), towards[c]) for c in corners)
    one = Workings(with_run(new_job(), "B", Level.BASE, "pair 900")).layout.rooms[0]
    assert len(views_of(one)) == 1 and not stands_between(one.wall("B"), towards[views_of(one)[0]])


def test_all_that_is_on_the_seen_walls_is_in_the_picture_and_nothing_of_the_others() -> None:
    job = add_island(furnished(), "r1").job
    w = Workings(job)
    room = w.layout.rooms[0]
    towards = {name: (x, y) for name, x, y in CORNERS}
    for corner in views_of(room):
        drawing = room_view(w.job, room, w.made, corner)
        there = {i.source.id for i in drawing.items if isinstance(i, Shape) and i.source and i.source.kind is Kind.CELL}
        wanted = {
            p.cell for p in room.placed
            if p.is_solid and not (room.wall(p.wall_id).island == "" and stands_between(room.wall(p.wall_id), towards[corner]))
        }  # fmt: skip
        assert there == wanted
        trims = {i.source.id for i in drawing.items if isinstance(i, Shape) and i.source and i.source.kind is Kind.RUN}
        seen = {r.run.id for r in room.runs if r.wall.island or not stands_between(r.wall, towards[corner])}
        assert trims <= seen and (trims or corner != views_of(room)[0])
        assert any(isinstance(i, Line) for i in drawing.items)
        # A picture has no scale, on no sheet.
        sheet = lay_out(drawing)
        assert sheet.scales == "" and "1:" not in caption_of(drawing, sheet.scale)


def test_pictures_stand_in_the_clients_set_and_follow_the_job() -> None:
    w = Workings(furnished())
    keys = {v.drawing.key for s in set_sheets(w, "client") for v in s.views}
    assert {"r1:V1", "r1:V2"} <= keys
    empty = {v.drawing.key for s in set_sheets(Workings(new_job()), "client") for v in s.views}
    assert not any(":V" in k for k in empty)


def square(x: float, y: float, size: float, z: float) -> list[list[float]]:
    return [[x, y, z], [x + size, y, z], [x + size, y + size, z], [x, y + size, z]]


def test_what_lies_before_is_cut_out_of_what_lies_behind_however_close_they_are() -> None:
    large, small = square(0, 0, 100, 0.0), square(30, 30, 20, 5.0)
    groups = np.array([0, 1])
    before = seen_faces(np.array([large, small]), groups)
    assert [p.face for p in before] == [0, 1]  # the small one is painted last, into the hole
    behind = seen_faces(np.array([large, square(30, 30, 20, -5.0)]), groups)
    assert [p.face for p in behind] == [0]
    half = seen_faces(np.array([large, square(60, 30, 80, 0.5)]), groups)
    areas = {p.face: abs(ol.area(p.outline)) for p in half}
    assert areas == {0: pytest.approx(100 * 100 - 40 * 70), 1: pytest.approx(80 * 80)}
    # Faces that are painted alike are one where they touch.
    one = seen_faces(np.array([square(0, 0, 10, 0.0), square(10, 0, 10, 0.0)]), np.array([7, 7]))
    assert len(one) == 1 and abs(ol.area(one[0].outline)) == pytest.approx(200.0)
