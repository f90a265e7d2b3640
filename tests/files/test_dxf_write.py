"""Drawings written as DXF and read back by another library: places, angles and heights of what is written."""

from __future__ import annotations

import math
from pathlib import Path

import ezdxf
import pytest

from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.primitives import Drawing, Layer, Line, Pen, Shape, Text
from tall_plank.files.dxf import write_dxf
from tall_plank.job import Job
from tall_plank.workings import Workings


@pytest.mark.parametrize("scale", [5.0, 20.0, 50.0])
def test_a_text_is_as_high_as_on_paper_times_the_scale(scale: float, tmp_path: Path) -> None:
    texts = [
        Text(100.0, 50.0, "level", 2.2, Layer.DIMENSION, rise=0.9),
        Text(-40.0, 10.0, "upright", 3.5, Layer.DIMENSION, angle=90.0, rise=0.9),
        Text(0.0, 0.0, "slanted", 5.0, Layer.DIMENSION, angle=30.0, align="left", rise=-2.0),
    ]
    path = tmp_path / "x.dxf"
    write_dxf(Drawing("x", tuple(texts), 0.0, 0.0, 1.0, 1.0), path, scale)
    found = {t.dxf.text: t for t in ezdxf.readfile(path).modelspace().query("TEXT")}
    assert len(found) == 3
    for text in texts:
        back = found[text.text]
        assert back.dxf.height == pytest.approx(text.size * scale)
        assert back.dxf.rotation == pytest.approx(text.angle)
        a = math.radians(text.angle)
        place = back.dxf.insert if text.align == "left" else back.dxf.align_point
        # Lifted square to its own line, in mm of paper.
        wanted = (text.x - text.rise * scale * math.sin(a), text.y + text.rise * scale * math.cos(a))
        assert (place.x, place.y) == pytest.approx(wanted)


def test_lines_and_outlines_stay_at_full_size_in_millimetres(job: Job, tmp_path: Path) -> None:
    w = Workings(job)
    room = w.layout.rooms[0]
    drawing = elevation(job, room, room.wall("A"), w.made)
    path = tmp_path / "a.dxf"
    write_dxf(drawing, path, 20.0)
    document = ezdxf.readfile(path)
    assert document.units == ezdxf.units.MM
    space = document.modelspace()
    outlines = [s for s in drawing.items if isinstance(s, Shape) and s.pen is not Pen.NONE]
    polylines = list(space.query("LWPOLYLINE"))
    assert len(polylines) == len(outlines)
    for shape, line in zip(outlines, polylines, strict=True):
        assert [(x, y) for x, y in line.get_points("xy")] == [pytest.approx(p) for p in shape.points]
        assert line.closed and line.dxf.layer == shape.layer.value.upper()
    lines = [i for i in drawing.items if isinstance(i, Line)]
    first = list(space.query("LINE"))[: len(lines)]
    for item, line in zip(lines, first, strict=True):
        assert (line.dxf.start.x, line.dxf.start.y) == pytest.approx((item.x1, item.y1))
