from __future__ import annotations

from pathlib import Path

import ezdxf
import pytest

from tall_plank.edits import outline
from tall_plank.files.dxf_read import read_outlines
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.measure import outlines as ol
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
    points = found.with_length(0, 5400.0)
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
