"""Drawings written as DXF and read back by another library: places, angles and heights of what is written."""

from __future__ import annotations

import math
from pathlib import Path
from typing import Any

import ezdxf
import pytest

from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.primitives import PEN_MM, Drawing, Layer, Line, Pen, Shape, Text
from tall_plank.drawing.sheets import Block, Sheet, View, lay_out
from tall_plank.files.dxf import write_dxf
from tall_plank.job import Job
from tall_plank.workings import Workings


@pytest.mark.parametrize("scale", [5.0, 20.0, 50.0])
def test_a_text_is_as_high_as_on_paper_times_the_scale(scale: float, tmp_path: Path) -> None:
    texts = [
        Text(5000.0, 50.0, "level", 2.2, Layer.DIMENSION, rise=0.9),
        Text(-4000.0, 10.0, "upright", 3.5, Layer.DIMENSION, angle=90.0, rise=0.9),
        Text(0.0, 0.0, "slanted", 5.0, Layer.DIMENSION, angle=30.0, align="left", rise=-2.0),
    ]
    path = tmp_path / "x.dxf"
    drawing = Drawing("x", tuple(texts), 0.0, 0.0, 1.0, 1.0)
    write_dxf(Sheet((View(drawing, scale, 0.0, 0.0),), "A3", Block("x")), path)
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


@pytest.fixture
def wall(job: Job, tmp_path: Path) -> tuple[Sheet, Any]:
    """A wall's sheet, and what is read back of it."""
    w = Workings(job)
    room = w.layout.rooms[0]
    sheet = lay_out(elevation(job, room, room.wall("A"), w.made), Block("Wall A"))
    write_dxf(sheet, tmp_path / "a.dxf")
    return sheet, ezdxf.readfile(tmp_path / "a.dxf")


def test_lines_stay_at_full_size_in_millimetres(wall: tuple[Sheet, Any]) -> None:
    sheet, document = wall
    assert document.units == ezdxf.units.MM
    drawn = sheet.views[0].shown.drawn
    lines = [i for i in drawn if isinstance(i, Line)]
    read = document.modelspace().query("LINE")
    for item, line in zip(lines, read, strict=False):
        assert (line.dxf.start.x, line.dxf.start.y) == pytest.approx((item.x1, item.y1))
        assert line.dxf.layer == f"{item.layer.value}-{item.pen.value}".upper()
        assert line.dxf.lineweight == round(PEN_MM[item.pen] * 100)
    outlines = [i for i in drawn if isinstance(i, Shape) and i.pen is not Pen.NONE]
    assert len(document.modelspace().query("LWPOLYLINE")) == len(outlines)


def test_dimensions_are_dimensions_that_measure_what_they_say(wall: tuple[Sheet, Any]) -> None:
    sheet, document = wall
    figures = [f for f in sheet.views[0].shown.figures if f.text is not None]
    read = document.modelspace().query("DIMENSION")
    assert len(read) == len(figures) > 8
    for figure, found in zip(figures, read, strict=True):
        assert found.dxf.text == figure.text.text
        assert found.get_measurement() == pytest.approx(abs(figure.dim.b - figure.dim.a))
        (text,) = [e for e in found.virtual_entities() if e.dxftype() == "MTEXT"]
        assert text.dxf.char_height == pytest.approx(figure.text.size * sheet.scale)


def test_broken_lines_are_as_long_on_paper_as_they_should_be(wall: tuple[Sheet, Any]) -> None:
    """Strokes of 12 and gaps of 3 widths of a narrow line of 0.18 mm (ISO 128-2, from memory): 2.2 and 0.6 mm."""
    sheet, document = wall
    broken = [e for e in document.modelspace() if str(e.dxf.get("linetype")).startswith("PLANK-")]
    assert {e.dxf.linetype for e in broken} == {"PLANK-MOVING"}
    for name, wanted in (("DASHED", [2.2, 0.6]), ("ABOVE", [4.4, 1.2]), ("CHAIN", [4.4, 0.6, 0.1, 0.6])):
        tags = document.linetypes.get(f"PLANK-{name}").pattern_tags.tags
        assert [abs(t.value) for t in tags if t.code == 49] == pytest.approx(wanted)
    for e in broken:
        # The pattern is mm of paper; the scale of each line makes it that in mm of the real thing.
        assert e.dxf.ltscale * document.header["$LTSCALE"] == pytest.approx(sheet.scale)
    assert document.header["$PSLTSCALE"] == 0


def test_the_sheet_stands_in_paper_space_with_a_window_on_every_view(wall: tuple[Sheet, Any]) -> None:
    sheet, document = wall
    layout = document.layout("Layout1")
    windows = [v for v in layout.query("VIEWPORT") if v.dxf.id > 1]
    assert len(windows) == len(sheet.views) == 1
    assert windows[0].dxf.view_height / windows[0].dxf.height == pytest.approx(sheet.scale)
    assert (layout.dxf.paper_width, layout.dxf.paper_height) == pytest.approx(sheet.size)
    words = {t.dxf.text for t in layout.query("TEXT")}
    assert {"Wall A", "Title", "Scale", sheet.scales} <= words
    frame = max((list(p.get_points("xy")) for p in layout.query("LWPOLYLINE")), key=lambda p: p[1][0] - p[0][0])
    assert (frame[0], frame[2]) == ((20.0, 10.0), (sheet.size[0] - 10.0, sheet.size[1] - 10.0))
