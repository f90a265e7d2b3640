"""Replaying drawings: where things are on screen and what is under a point."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PyQt6.QtCore import QPointF, QRectF

from tall_plank.desk.views.canvas import Canvas, Placed
from tall_plank.desk.views.strokes import strokes_of
from tall_plank.drawing.dimensions import offset
from tall_plank.drawing.primitives import Arc, Dim, Drawing, Layer, Line, Pen, Shape, Text, rectangle
from tall_plank.job import Kind

BACK = Shape(rectangle(0, 0, 1000, 800), Pen.MEDIUM, Layer.WALL, Kind.WALL.of("A"), "wall")
UNIT = Shape(rectangle(100, 100, 300, 400), Pen.MEDIUM, Layer.FRONT, Kind.CELL.of("u1"), "#AABBCC")
OTHER = Shape(rectangle(500, 100, 300, 400), Pen.MEDIUM, Layer.FRONT, Kind.CELL.of("u2"), "#AABBCC")
DIM = Dim(100, 400, 0.0, -1, "x", "300", Kind.CELL.of("u1"), "width")
DRAWING = Drawing("d", (BACK, UNIT, OTHER, DIM, Text(250, 300, "A1", 2.2, Layer.LABEL)), 0, 0, 1000, 800)


@pytest.fixture
def canvas(qtbot) -> Canvas:
    made = Canvas()
    qtbot.addWidget(made)
    made.resize(700, 500)
    made.set_placed([Placed(0.0, 0.0, DRAWING), Placed(1200.0, 0.0, DRAWING)])
    return made


def test_fitting_shows_everything_inside_the_margins(canvas: Canvas) -> None:
    left, top, right, bottom = canvas.margin
    room = QRectF(left, top, 700 - left - right, 500 - top - bottom).adjusted(-1, -1, 1, 1)
    for x, y in ((0, 0), (2200, 0), (0, 800), (2200, 800)):
        assert room.contains(canvas.to_px(x, y))


@given(st.floats(-5000, 5000), st.floats(-5000, 5000))
def test_pixels_and_millimetres_undo_each_other(x: float, y: float) -> None:
    canvas = Canvas.__new__(Canvas)
    canvas.scale, canvas.origin = 0.137, QPointF(31.0, 402.0)
    assert Canvas.to_mm(canvas, Canvas.to_px(canvas, x, y)) == pytest.approx((x, y), abs=1e-6)


def test_the_topmost_thing_under_a_point_is_found(canvas: Canvas) -> None:
    assert canvas.source_at(canvas.to_px(250, 300)) == Kind.CELL.of("u1")
    assert canvas.source_at(canvas.to_px(450, 300)) == Kind.WALL.of("A")
    assert canvas.source_at(canvas.to_px(1200 + 600, 300)) == Kind.CELL.of("u2")
    assert canvas.source_at(canvas.to_px(1100, 300)) is None


def test_only_what_lies_wholly_inside_is_windowed(canvas: Canvas) -> None:
    rect = QRectF(canvas.to_px(50, 600), canvas.to_px(450, 50))
    canvas.set_placed([Placed(0.0, 0.0, DRAWING)])
    canvas.fit()
    rect = QRectF(canvas.to_px(50, 600), canvas.to_px(450, 50))
    assert canvas.sources_in(rect) == (Kind.CELL.of("u1"),)
    wide = QRectF(canvas.to_px(50, 600), canvas.to_px(820, 50))
    assert set(canvas.sources_in(wide)) == {Kind.CELL.of("u1"), Kind.CELL.of("u2")}


def test_a_dimension_is_found_on_its_line_wherever_its_drawing_stands(canvas: Canvas) -> None:
    for dx in (0.0, 1200.0):
        at = offset(DIM, canvas.paper_scale)
        dim = canvas.dim_at(canvas.to_px(250 + dx, at))
        assert dim is not None
        assert dim.a == 100 + dx
    assert canvas.dim_at(canvas.to_px(250, 300)) is None


def test_a_dimension_that_cannot_be_typed_is_not_found(canvas: Canvas) -> None:
    bare = Dim(100, 400, 0.0, -1, "x", "300")
    canvas.set_placed([Placed(0.0, 0.0, Drawing("d", (BACK, bare), 0, 0, 1000, 800))])
    assert canvas.dim_at(canvas.to_px(250, offset(bare, canvas.paper_scale))) is None


def test_a_drawing_that_did_not_change_keeps_its_display_list(canvas: Canvas) -> None:
    before = canvas._strokes[id(DRAWING)][1]
    other = Drawing("o", (BACK,), 0, 0, 1000, 800)
    canvas.set_placed([Placed(0.0, 0.0, DRAWING), Placed(1200.0, 0.0, other)])
    assert canvas._strokes[id(DRAWING)][1] is before
    assert set(canvas._strokes) == {id(DRAWING), id(other)}


def test_lines_of_one_look_share_a_path() -> None:
    lines = tuple(Line(0, i, 10, i, Pen.NARROW, Layer.WALL) for i in range(50))
    arc = Arc(0, 0, 10, 0, 90, Pen.NARROW, Layer.WALL)
    assert len(strokes_of(Drawing("d", (*lines, arc), 0, 0, 1, 1))) == 1
    mixed = (*lines, Line(0, 0, 1, 1, Pen.WIDE, Layer.WALL), UNIT, *lines)
    assert len(strokes_of(Drawing("d", mixed, 0, 0, 1, 1))) == 4


def test_panning_and_zooming_let_go_of_the_fit(canvas: Canvas) -> None:
    assert canvas.fitted
    before = canvas.to_px(0, 0)
    canvas.pan(10.0, 5.0)
    assert canvas.to_px(0, 0) == before + QPointF(10, 5)
    assert not canvas.fitted
    for _ in range(60):
        canvas.zoom(1.5)
    assert canvas.scale <= 4.0
    for _ in range(90):
        canvas.zoom(0.5)
    assert canvas.scale >= 0.01


def test_what_is_out_of_sight_is_not_painted(canvas: Canvas) -> None:
    canvas.pan(-5000.0, 0.0)
    assert not any(canvas._in_view(p) for p in canvas.placed)
    assert not canvas.grab().isNull()
