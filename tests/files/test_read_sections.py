"""Sections of moldings out of DXF and SVG drawings."""

from __future__ import annotations

import math
from pathlib import Path

import ezdxf
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.edits.profiles import laid_section
from tall_plank.files.sections import read_section
from tall_plank.files.svg_read import read_svg_outlines
from tall_plank.measure import PlankError
from tall_plank.measure.paths import area, bounds, sides_of

HEAD = '<svg xmlns="http://www.w3.org/2000/svg" width="{w}" viewBox="0 0 100 100">'


def drawn(folder: Path, inside: str, wide: str = "100mm") -> Path:
    path = folder / "section.svg"
    path.write_text(HEAD.format(w=wide) + inside + "</svg>", encoding="utf-8")
    return path


def test_a_path_with_an_arc_of_a_circle_keeps_it(tmp_path: Path) -> None:
    # A quarter round of 10: square at the lower left, its arc at the upper right.
    found = read_section(drawn(tmp_path, '<path d="M10 20 V10 A10 10 0 0 1 20 20 Z"/>'))
    path = laid_section(found.path)
    assert area(path) == pytest.approx(math.pi * 100 / 4, abs=1e-4)
    assert sum(1 for s in sides_of(path) if s.bulge) == 1
    assert next(s.radius for s in sides_of(path) if s.bulge) == pytest.approx(10.0, abs=1e-3)
    assert found.scaled


@pytest.mark.parametrize(
    ("inside", "expected"),
    [
        ('<rect x="5" y="5" width="18" height="36"/>', 18 * 36),
        ('<rect x="5" y="5" width="18" height="36" rx="4"/>', 18 * 36 - (4 - math.pi) * 16),
        ('<circle cx="50" cy="50" r="7"/>', math.pi * 49),
        ('<ellipse cx="50" cy="50" rx="20" ry="8"/>', math.pi * 160),
        ('<polygon points="0,0 20,0 20,30"/>', 300),
        ('<g transform="translate(3 4) scale(2)"><rect width="5" height="6"/></g>', 120),
        ('<g transform="scale(2 1)"><circle r="5" cx="20" cy="20"/></g>', math.pi * 50),
        ('<path d="m10 10h20v30h-20z"/>', 600),
        ('<path d="M0 0 C0 10 20 10 20 0 Z"/>', 120),
        ('<line x1="0" y1="0" x2="9" y2="0"/><line x1="9" y1="8" x2="9" y2="0"/><line x1="9" y1="8" x2="0" y2="0"/>', 36),
        ('<defs><rect width="90" height="90"/></defs><rect width="5" height="6"/>', 30),
    ],
)  # fmt: skip
def test_every_kind_of_shape_has_its_area(tmp_path: Path, inside: str, expected: float) -> None:
    (found, *_) = read_svg_outlines(drawn(tmp_path, inside))
    assert found.area == pytest.approx(
        expected, rel=3e-3 if any(word in inside for word in ("ellipse", "C0", "2 1")) else 1e-5
    )


def test_the_drawings_unit_counts_and_a_pixel_says_nothing(tmp_path: Path) -> None:
    box = '<rect width="10" height="20"/>'
    assert bounds(read_section(drawn(tmp_path, box, "10cm")).path)[2:] == pytest.approx((10.0, 0.0))
    assert read_section(drawn(tmp_path, box, "4in")).area == pytest.approx(200 * 1.016**2)
    loose = read_section(drawn(tmp_path, box, "100px"))
    assert not loose.scaled
    assert bounds(laid_section(loose.path, height=60.0)) == pytest.approx((0.0, 0.0, 30.0, 60.0))


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("", "no SVG"), ("hello", "no SVG"), ("<html/>", "no SVG"), (HEAD.format(w="1mm") + "</svg>", "no closed outline"),
        ('<!DOCTYPE svg [<!ENTITY a "b">]><svg/>', "entities"),
        (HEAD.format(w="1mm") + '<path d="M0 0 L"/></svg>', ""),
        (HEAD.format(w="1mm") + '<path d="M0 0 L10 10 L10 0 L0 10 Z"/></svg>', "no closed outline"),
        (HEAD.format(w="1mm") + '<path d="L5 5 9 9"/></svg>', ""),
        (HEAD.format(w="1mm") + '<rect width="1e400" height="5"/></svg>', ""),
        (HEAD.format(w="1mm") + f'<polygon points="{"1,1 2,2 " * 30000}"/></svg>', "too many"),
    ],
)  # fmt: skip
def test_what_is_no_section_is_told(tmp_path: Path, text: str, said: str) -> None:
    path = tmp_path / "wrong.svg"
    path.write_text(text, encoding="utf-8")
    with pytest.raises(PlankError) as error:
        read_section(path)
    assert said in str(error.value)


def test_another_kind_of_file_is_refused(tmp_path: Path) -> None:
    with pytest.raises(PlankError, match="from DXF or SVG"):
        read_section(tmp_path / "section.png")


def test_a_small_dxf_section_of_lines_and_arcs_keeps_its_corners(tmp_path: Path) -> None:
    document = ezdxf.new()
    document.header["$INSUNITS"] = 4
    space = document.modelspace()
    # Steps of half a millimeter, which walls would not have.
    points = [(0, 0), (7, 0), (7, 5), (6.5, 5), (6.5, 8)]
    for a, b in zip(points, points[1:], strict=False):
        space.add_line(a, b)
    space.add_arc((3.25, 8), 3.25, 0, 180)
    space.add_line((0, 8), (0, 0))
    path = tmp_path / "bead.dxf"
    document.saveas(path)
    laid = laid_section(read_section(path).path)
    assert area(laid) == pytest.approx(7 * 5 + 6.5 * 3 + math.pi * 3.25**2 / 2, abs=1e-3)
    assert bounds(laid) == pytest.approx((0.0, 0.0, 7.0, 11.25), abs=1e-4)


@given(st.integers(0, 7), st.booleans(), st.floats(5.0, 300.0))
def test_a_section_lies_at_its_corner_however_it_is_turned(turns: int, mirror: bool, height: float) -> None:
    path = ((3.0, 4.0, 0.0), (23.0, 4.0, 0.3), (23.0, 14.0, 0.0), (8.0, 44.0, -0.1), (3.0, 40.0, 0.0))
    try:
        laid = laid_section(path, turns=turns, mirror=mirror, height=height)
    except PlankError as error:
        assert "larger than" in error.what
        return
    x0, y0, x1, y1 = bounds(laid)
    assert (x0, y0, y1) == pytest.approx((0.0, 0.0, height), abs=2e-3)
    assert area(laid) > 0
    size = bounds(path)
    wide = (size[2] - size[0], size[3] - size[1])
    scale = height / (wide[0] if turns % 2 else wide[1])
    assert area(laid) == pytest.approx(abs(area(path)) * scale**2, rel=1e-3)
    assert x1 == pytest.approx((wide[1] if turns % 2 else wide[0]) * scale, rel=1e-3)
