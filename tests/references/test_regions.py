"""Regions of lines and arcs against dense polylines in Shapely (a general-purpose geometry library), and against sums."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from tall_plank.measure import paths as pa
from tall_plank.measure.arches import Arch, arched
from tall_plank.measure.regions import Region, box_path, within, without

KINDS: tuple[Arch, ...] = ("round", "segmental", "elliptical", "pointed")
ARCHES = st.tuples(
    st.sampled_from(KINDS), st.integers(-400, 2600), st.integers(-300, 900), st.integers(200, 1500), st.integers(1, 10)
)


def arch(kind: Arch, x: float, z: float, width: float, share: int) -> pa.Path:
    rise = width / 2 * share / 10 if kind != "pointed" else width / 2 * (1 + share / 10)
    return arched(kind, x, z, x + width, z + width + rise, rise)


def dense(path: pa.Path) -> Polygon:
    return Polygon(pa.chords(path, 1e-4))


def area(regions: list[Region]) -> float:
    return math.fsum(r.area for r in regions)


def sound(region: Region) -> bool:
    return pa.crossing(region.outer) is None and pa.area(region.outer) > 0


@given(ARCHES, st.integers(100, 3000), st.integers(50, 2500))
def test_what_is_taken_out_and_what_is_left_make_the_whole(
    one: tuple[Arch, int, int, int, int], w: int, h: int
) -> None:
    """Areas by a polyline within 0.0001 mm of every arc: its own area is off by length x 0.0001 mm at the most."""
    shape, box = arch(*one), Region(box_path(0.0, 0.0, float(w), float(h)))
    inside, outside = within(box, [shape])[0], without(box, [shape])
    assert area(inside) + area(outside) == pytest.approx(w * h, abs=0.05)
    wanted = dense(shape).intersection(Polygon(pa.chords(box.outer)))
    assert area(inside) == pytest.approx(wanted.area, abs=2e-4 * (wanted.length + 1.0) + 0.02)
    assert all(sound(r) for r in (*inside, *outside))


@given(ARCHES, ARCHES)
def test_two_arches_cut_each_other(
    one: tuple[Arch, int, int, int, int], other: tuple[Arch, int, int, int, int]
) -> None:
    a, b = arch(*one), arch(*other)
    both, rest = within(Region(a), [b])[0], without(Region(a), [b])
    assert area(both) + area(rest) == pytest.approx(pa.area(a), abs=0.1)
    wanted = dense(a).intersection(dense(b))
    assert area(both) == pytest.approx(wanted.area, abs=3e-4 * (wanted.length + 1.0) + 0.05)


@given(ARCHES, st.lists(st.integers(1, 60), min_size=1, max_size=12))
def test_strips_lie_in_their_region_and_make_it(one: tuple[Arch, int, int, int, int], widths: list[int]) -> None:
    shape = Region(arch(*one))
    x0, z0, x1, z1 = shape.bounds
    strips, at = [], x0
    while at < x1:
        width = float(widths[len(strips) % len(widths)]) * 10.0
        strips.append(box_path(at, z0 - 5.0, at + width, z1 + 5.0))
        at += width
    pieces = [p for found in within(shape, strips) for p in found]
    assert area(pieces) == pytest.approx(shape.area, abs=0.02 * len(strips))
    for piece in pieces:
        for x, z, _ in piece.outer:
            assert shape.inside(x, z) or pa.distance(shape.outer, x, z) < 1e-4


def test_an_arc_stays_one_arc_with_its_radius() -> None:
    """A round arch of radius 450 taken out of a wall leaves one arc of radius 450, and slats end on it."""
    wall = Region(box_path(0.0, 0.0, 4000.0, 2400.0))
    (left,) = without(wall, [arched("round", 1500.0, 0.0, 2400.0, 2100.0)])
    arcs = [s for s in pa.sides_of(left.outer) if s.bulge]
    assert [s.radius for s in arcs] == pytest.approx([450.0])
    assert left.area == pytest.approx(4000 * 2400 - 900 * 1650 - math.pi * 450**2 / 2, abs=1e-6)
    slat = within(left, [box_path(1504.0, -1.0, 1514.0, 2500.0)])[0][0]
    foot = sorted(z for x, z, _ in slat.outer if z < 2399.0)
    # On the circle about (1950, 1650): z = 1650 + sqrt(450² - (x - 1950)²).
    assert foot == pytest.approx([1650 + math.sqrt(450**2 - (x - 1950) ** 2) for x in (1504.0, 1514.0)], abs=1e-9)


def test_a_hole_stays_a_hole() -> None:
    (left,) = without(
        Region(box_path(0.0, 0.0, 4000.0, 2400.0)), [arched("elliptical", 1500.0, 300.0, 2500.0, 1800.0, 300.0)]
    )
    assert len(left.holes) == 1 and left.area == pytest.approx(
        4000 * 2400 - 1000 * 1200 - math.pi * 500 * 300 / 2, abs=15.0
    )  # the ellipse by arcs within 0.01 mm


@given(ARCHES, st.floats(0.05, 0.95))
def test_what_is_cut_along_one_arc_from_both_sides_fits(one: tuple[Arch, int, int, int, int], share: float) -> None:
    """The straight sides that boards are drawn by: those inside an arch and those around it, in two pieces, neither
    overlap by more than a sliver nor leave a gap wider than twice 0.1 mm."""
    shape = arch(*one)
    x0, z0, x1, z1 = pa.bounds(shape)
    around = without(Region(box_path(x0 - 100.0, z0, x1 + 100.0, z1 + 100.0)), [shape])
    cut = x0 + (x1 - x0) * share
    halves = [box_path(x0 - 200.0, z0 - 1.0, cut, z1 + 200.0), box_path(cut, z0 - 1.0, x1 + 200.0, z1 + 200.0)]
    inner = Polygon(pa.fitting_chords(shape))
    for piece in (p for r in around for found in within(r, halves) for p in found):
        shared = inner.intersection(Polygon(pa.fitting_chords(piece.outer)))
        assert shared.buffer(-0.051).is_empty, "thinner than a tenth of a millimetre"
