from __future__ import annotations

import math
from pathlib import Path

import ezdxf
import pytest

from tall_plank.edits import outline
from tall_plank.files.dxf_read import read_outlines
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.measure import outlines as ol
from tall_plank.measure.paths import sides_of
from tall_plank.setout import walls_of

FLOOR = [(0, 0), (5400, 0), (5400, 4200), (2000, 4200), (2000, 2600), (0, 2600)]


def drawing(path: Path, unit: int, factor: float, *, lines: bool = False) -> Path:
    document = ezdxf.new("R2010")
    document.header["$INSUNITS"] = unit
    space = document.modelspace()
    points = [(x * factor, y * factor) for x, y in FLOOR]
    if lines:
        for i, p in enumerate(points):
            # Some the other way round, as people draw them.
            a, b = (p, points[(i + 1) % len(points)]) if i % 2 else (points[(i + 1) % len(points)], p)
            space.add_line(a, b, {"layer": "walls"})
    else:
        space.add_lwpolyline(points, close=True, dxfattribs={"layer": "walls"})
        space.add_lwpolyline([(0, 0), (1, 0), (1, 1)], close=True)
    document.saveas(path)
    return path


@pytest.mark.parametrize(("unit", "factor"), [(4, 1.0), (5, 0.1), (6, 0.001), (1, 1 / 25.4)])
@pytest.mark.parametrize("lines", [False, True])
def test_the_floor_comes_in_millimetres_whatever_the_drawings_unit(
    tmp_path: Path, unit: int, factor: float, lines: bool
) -> None:
    """$INSUNITS by the DXF reference, written by a general-purpose library."""
    found = read_outlines(drawing(tmp_path / "f.dxf", unit, factor, lines=lines))[0]
    assert found.scaled and found.layer == "walls"
    assert found.area == pytest.approx(abs(ol.area(FLOOR)), rel=1e-6)
    job = outline.draw_outline(new_job(), "r1", found.points).job
    assert sorted(round(w.length) for w in walls_of(job.rooms[0])) == [1600, 2000, 2600, 3400, 4200, 5400]


def test_a_drawing_without_a_unit_is_scaled_by_one_known_length(tmp_path: Path) -> None:
    found = read_outlines(drawing(tmp_path / "f.dxf", 0, 0.01))[0]
    assert not found.scaled
    points = found.with_length(0, 5400.0).points
    assert abs(ol.area(points)) == pytest.approx(abs(ol.area(FLOOR)), rel=1e-6)


def test_files_that_hold_no_floor_say_so(tmp_path: Path) -> None:
    text = tmp_path / "a.dxf"
    text.write_text("hello")
    empty = tmp_path / "b.dxf"
    document = ezdxf.new("R2010")
    document.modelspace().add_line((0, 0), (100, 0))
    document.saveas(empty)
    crossed = tmp_path / "c.dxf"
    document = ezdxf.new("R2010")
    document.modelspace().add_lwpolyline([(0, 0), (100, 100), (100, 0), (0, 100)], close=True)
    document.saveas(crossed)
    for path in (text, empty, crossed, tmp_path / "none.dxf"):
        with pytest.raises(PlankError) as caught:
            read_outlines(path)
        assert caught.value.remedy


def test_old_polylines_are_read_with_their_unit_like_new_ones(tmp_path: Path) -> None:
    document = ezdxf.new("R2000")
    document.header["$INSUNITS"] = 5
    document.modelspace().add_polyline2d([(x / 10, y / 10) for x, y in FLOOR], close=True)
    document.saveas(tmp_path / "old.dxf")
    (found,) = read_outlines(tmp_path / "old.dxf")
    assert found.scaled
    assert sorted((round(x, 6), round(y, 6)) for x, y in found.points) == sorted(FLOOR)
    assert found.area == pytest.approx(abs(ol.area(FLOOR)), rel=1e-9)


APSE = 4000.0 * 3000.0 + math.pi * 1500.0**2 / 2
"""mm2 of a room 4000 x 3000 with half a circle of 1500 mm radius at its east side: 3.53 m2 of it."""


def with_apse(path: Path, how: str, unit: int = 4) -> Path:
    """The same room as a polyline with a bulge, an old polyline, or single lines and an arc."""
    document = ezdxf.new("R2010")
    document.header["$INSUNITS"] = unit
    space = document.modelspace()
    corners = [(0, 0, 0), (4000, 0, 1.0), (4000, 3000, 0), (0, 3000, 0)]
    if how == "polyline":
        space.add_lwpolyline(corners, format="xyb", close=True)
    elif how == "old":
        space.add_polyline2d(corners, format="xyb", close=True)
    else:
        space.add_line((0, 0), (4000, 0))
        space.add_arc((4000, 1500), 1500, 270 if how == "single" else -90, 90)
        space.add_line((0, 3000), (4000, 3000))
        space.add_line((0, 3000), (0, 0))
    document.saveas(path)
    return path


@pytest.mark.parametrize("how", ["polyline", "old", "single", "single from below"])
def test_a_half_round_is_read_as_an_arc_and_nothing_of_the_room_is_lost(tmp_path: Path, how: str) -> None:
    (found,) = read_outlines(with_apse(tmp_path / "a.dxf", how))
    assert found.area == pytest.approx(APSE, rel=1e-9)
    assert found.arcs == 1
    (arc,) = [s for s in sides_of(found.path) if s.bulge]
    assert arc.radius == pytest.approx(1500.0)
    # Its walls are straight, as many as a room may have.
    assert found.within == 10.0
    assert APSE - abs(ol.area(found.points)) < math.pi * 1500.0 * 10.0
    job = outline.draw_outline(new_job(), "r1", found.points).job
    assert len(walls_of(job.rooms[0])) == len(found.points)


def test_a_bent_room_without_a_unit_is_scaled_by_its_first_straight_side(tmp_path: Path) -> None:
    (found,) = read_outlines(with_apse(tmp_path / "a.dxf", "polyline", unit=0))
    assert not found.scaled
    first = next(iter(sides_of(found.path)))
    assert not first.bulge
    known = found.with_length(0, first.length / 2)
    assert known.area == pytest.approx(found.area / 4)
    # The scaled room has its own pieces.
    assert abs(ol.area(known.points)) == pytest.approx(known.area, rel=0.01)


def test_a_circle_is_an_outline_and_a_stroke_there_and_back_is_none(tmp_path: Path) -> None:
    document = ezdxf.new("R2010")
    document.header["$INSUNITS"] = 6
    document.modelspace().add_circle((3, 3), 2.0)
    document.modelspace().add_lwpolyline([(0, 0, 0.0), (5, 0, 0.0)], format="xyb", close=True)
    document.saveas(tmp_path / "c.dxf")
    (found,) = read_outlines(tmp_path / "c.dxf")
    assert found.area == pytest.approx(math.pi * 2000.0**2)
    assert found.arcs == 2
