"""Hidden lines against brute force: every line is walked in small steps, and at each point every face is asked."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.drawing.hidden import NEAR, faces_of, seen_pieces
from tall_plank.drawing.primitives import Arc, Layer, Line, Pen, Shape, rectangle
from tall_plank.drawing.strokes import seen_items

STEPS = 4000


def scene(seed: int) -> tuple[np.ndarray, np.ndarray, np.ndarray]:  # type: ignore[type-arg]
    """Lines and tilted quadrangles at random: (N, 3) starts, (N, 3) ends, (M, 4, 3) corners."""
    rng = np.random.default_rng(seed)
    middle = rng.uniform(-400, 400, (12, 3))
    u, v = rng.uniform(-200, 200, (12, 3)), rng.uniform(-200, 200, (12, 3))
    corners = np.stack([middle - u - v, middle + u - v, middle + u + v, middle - u + v], axis=1)
    return rng.uniform(-500, 500, (15, 3)), rng.uniform(-500, 500, (15, 3)), corners


def behind(points: np.ndarray, corners: np.ndarray, slack: float) -> np.ndarray:  # type: ignore[type-arg]
    """(P,) bools: whether a face lies before each point, its outline drawn in by `slack` mm."""
    hidden = np.zeros(len(points), dtype=bool)
    for face in corners:
        o, u, v = face[0], face[1] - face[0], face[3] - face[0]
        det = u[0] * v[1] - u[1] * v[0]
        if abs(det) < 1.0:
            continue
        dx, dy = points[:, 0] - o[0], points[:, 1] - o[1]
        s, t = (dx * v[1] - dy * v[0]) / det, (u[0] * dy - u[1] * dx) / det
        z = o[2] + s * u[2] + t * v[2]
        inside = np.minimum(np.minimum(s, 1 - s) * np.hypot(*u[:2]), np.minimum(t, 1 - t) * np.hypot(*v[:2]))
        skew = abs(det) / (np.hypot(*u[:2]) * np.hypot(*v[:2]))
        hidden |= (inside * skew > slack) & (z > points[:, 2] + NEAR + slack)
    return hidden


@pytest.mark.parametrize("seed", range(40))
def test_the_same_pieces_are_seen_as_by_walking_along(seed: int) -> None:
    starts, ends, corners = scene(seed)
    found = seen_pieces(starts, ends, faces_of(corners))
    t = (np.arange(STEPS) + 0.5) / STEPS
    for n in range(len(starts)):
        points = starts[n] + t[:, None] * (ends[n] - starts[n])
        surely, perhaps = behind(points, corners, 0.01), behind(points, corners, -0.01)
        mine = np.zeros(STEPS, dtype=bool)
        for line, start, end in zip(found.line, found.start, found.end, strict=True):
            if line == n:
                mine |= (t > start) & (t < end)
        assert not (mine & surely).any()
        # Pieces of less than two thousandths of a millimetre are left out.
        assert (mine | perhaps).mean() > 1 - 2 / STEPS


def test_a_line_on_the_outline_in_front_is_hidden_and_one_in_the_plane_is_not() -> None:
    face = faces_of(np.array([[[0, 0, 5], [10, 0, 5], [10, 10, 5], [0, 10, 5]]], dtype=float))
    starts = np.array([[0, 0, 0], [0, 5, 5], [0, 5, 5.0005], [0, 5, 4.99], [-5, 10, 0]], dtype=float)
    ends = np.array([[10, 0, 0], [10, 5, 5], [10, 5, 5.0005], [10, 5, 4.99], [15, 10, 0]], dtype=float)
    found = seen_pieces(starts, ends, face)
    assert found.line.tolist() == [1, 2, 4, 4]
    assert found.end[2] == pytest.approx(0.25, abs=1e-4)


@given(st.integers(0, 10_000))
def test_what_fills_cover_is_not_drawn(seed: int) -> None:
    """Against a picture of small squares: painted in order, a square on a line shows the line only where no later fill
    covers it."""
    rng = np.random.default_rng(seed)
    items = []
    for _ in range(8):
        x, y, w, h = rng.uniform(0, 300), rng.uniform(0, 300), rng.uniform(20, 200), rng.uniform(20, 200)
        items.append(
            Shape(rectangle(x, y, w, h), Pen.NARROW, Layer.CARCASS, None, "unit" if rng.random() < 0.7 else "")
        )
        items.append(Line(*rng.uniform(0, 400, 4), Pen.MEDIUM, Layer.FRONT))
    seen = [i for i in seen_items(items) if isinstance(i, Line) and i.layer is Layer.FRONT]
    length = sum(float(np.hypot(i.x2 - i.x1, i.y2 - i.y1)) for i in seen)
    wanted = 0.0
    t = (np.arange(2000) + 0.5) / 2000
    for n, item in enumerate(items):
        if isinstance(item, Line):
            x, y = item.x1 + t * (item.x2 - item.x1), item.y1 + t * (item.y2 - item.y1)
            covered = np.zeros(len(t), dtype=bool)
            for later in items[n + 1 :]:
                if isinstance(later, Shape) and later.fill:
                    (x0, y0), (x1, y1) = later.points[0], later.points[2]
                    covered |= (x > x0) & (x < x1) & (y > y0) & (y < y1)
            wanted += float((~covered).mean() * np.hypot(item.x2 - item.x1, item.y2 - item.y1))
    assert length == pytest.approx(wanted, abs=8 * 8 * 0.6)


def test_arcs_keep_their_radius_where_they_are_cut() -> None:
    arc = Arc(0.0, 0.0, 100.0, 0.0, 360.0, Pen.NARROW, Layer.OPENING)
    cover = Shape(rectangle(0.0, -200.0, 300.0, 400.0), Pen.NONE, Layer.WALL, None, "wall")
    pieces = [i for i in seen_items([arc, cover]) if isinstance(i, Arc)]
    assert len(pieces) == 1
    (piece,) = pieces
    assert (piece.radius, piece.x, piece.y) == (100.0, 0.0, 0.0)
    assert (piece.start, piece.end) == pytest.approx((90.0, 270.0), abs=0.05)


def test_of_two_lines_in_one_place_the_wider_is_drawn_once() -> None:
    thin = Line(0.0, 0.0, 100.0, 0.0, Pen.NARROW, Layer.CARCASS)
    wide = Line(140.0, 0.0, 40.0, 0.0, Pen.WIDE, Layer.WALL)
    hidden = Line(-20.0, 0.0, 200.0, 0.0, Pen.DASHED, Layer.HUNG)
    found = [(i.pen, min(i.x1, i.x2), max(i.x1, i.x2)) for i in seen_items([thin, wide, hidden]) if isinstance(i, Line)]
    assert sorted(found) == [
        ("dashed", -20.0, 0.0), ("dashed", 140.0, 200.0), ("narrow", 0.0, 40.0), ("wide", 40.0, 140.0),
    ]  # fmt: skip
