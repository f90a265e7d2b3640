"""Areas, weights and joined lengths, against a general-purpose geometry library, a handbook's density and geometry."""

from __future__ import annotations

import math

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon
from shapely.geometry import box

from tall_plank.demo import demo_job
from tall_plank.making import Cutout, Part
from tall_plank.measure import Frame
from tall_plank.shop.areas import area_rows, face_area, raw_edges
from tall_plank.shop.lengths import joined
from tall_plank.workings import Workings

PLAIN = Part("p", "b", "m", 1000.0, 400.0, 18.0, "none", Frame((0.0, 0.0, 0.0)))


@given(st.lists(st.tuples(st.floats(0, 2000), st.floats(100, 900)), min_size=3, max_size=9))
def test_the_area_and_the_edges_of_an_outline_are_those_of_a_geometry_library(polar: list[tuple[float, float]]) -> None:
    """Star-shaped outlines about a middle; shapely computes their area and length in its own way."""
    turns = sorted({round(a, 3) for a, _ in polar})
    points = tuple(
        (1000 + r * math.cos(a * math.pi / 1000), 1000 + r * math.sin(a * math.pi / 1000))
        for a, (_, r) in zip(turns, polar, strict=False)
    )
    shape = Polygon(points) if len(points) > 2 else None
    if shape is None or not shape.is_valid or shape.area < 1.0:
        return
    part = msgspec.structs.replace(PLAIN, outline=points)
    assert face_area(part) == pytest.approx(shape.area, rel=1e-9)
    assert raw_edges(part) == pytest.approx(shape.length, rel=1e-9)


def test_an_opening_is_no_area() -> None:
    part = msgspec.structs.replace(PLAIN, operations=(Cutout(100.0, 50.0, 560.0, 300.0, 15.0),))
    assert face_area(part) == pytest.approx(box(0, 0, 1000, 400).difference(box(100, 50, 660, 350)).area)


def test_birch_plywood_weighs_what_the_handbook_says() -> None:
    """Handbook of Finnish Plywood: 680 kg/m3, so 18 mm weigh 12.24 kg a square metre. Notched parts weigh less than their
    rectangle, by little in this job."""
    w = Workings(demo_job())
    rows = {r.board: r for r in area_rows(w.made, w.job.stock)}
    assert rows["BP18"].weight / rows["BP18"].area == pytest.approx(680 * 0.018, rel=0.01)
    assert rows["BP9"].weight / rows["BP9"].area == pytest.approx(680 * 0.009, rel=0.01)


@given(st.floats(2500, 20_000), st.sampled_from([2440.0, 3660.0, 5400.0]), st.floats(8, 90), st.floats(0, 15))
def test_scarfed_pieces_cover_their_length(length: float, longest: float, depth: float, allowance: float) -> None:
    """A scarf at 45 degrees laps by the depth of the section (geometry: depth x tan 45); both ends are cut anew. Joints
    stand apart from the ends (common practice)."""
    lap = depth * math.tan(math.radians(45)) + 2 * allowance
    pieces = joined(length, longest, lap)
    assert all(p <= longest + 1e-6 for p in pieces)
    assert sum(pieces) - lap * (len(pieces) - 1) == pytest.approx(length)
    assert len(pieces) == 1 or min(pieces) >= 600.0
    # No joint more than it takes.
    assert len(pieces) == max(1, math.ceil((length - lap - 1e-6) / (longest - lap)))
