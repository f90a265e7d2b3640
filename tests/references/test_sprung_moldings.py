"""Compound mitres of sprung moldings against planes turned numerically, and against a table of trade figures.

The figures for spring angles of 38, 45 and 52 degrees at corners of 90, 135, 120, 89 and 91 degrees are common practice
(tables for cornices cut flat); they were computed again here by turning the mitre's plane into the frame of the back.
"""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from numpy.typing import NDArray

from tall_plank.setout.things.molding import mitre
from tall_plank.shop.miters import flat_cut

TABLE = [
    (38, 90, 31.6190, 33.8629), (38, 135, 14.3064, 17.5512), (38, 120, 19.5679, 23.2040), (38, 89, 32.0672, 34.1976),
    (38, 91, 31.1743, 33.5266), (45, 90, 35.2644, 30.0000), (45, 135, 16.3249, 15.6999), (45, 120, 22.2077, 20.7048),
    (45, 89, 35.7372, 30.2878), (45, 91, 34.7944, 29.7105), (52, 90, 38.2385, 25.8068), (52, 135, 18.0769, 13.6272),
    (52, 120, 24.4636, 17.9285), (52, 89, 38.7256, 26.0478), (52, 91, 37.7533, 25.5642),
]  # fmt: skip


@pytest.mark.parametrize(("spring", "corner", "miter", "bevel"), TABLE)
def test_a_cornice_cut_flat_has_the_angles_of_the_table(
    spring: float, corner: float, miter: float, bevel: float
) -> None:
    cut = flat_cut(mitre(corner), spring)
    assert (cut.miter, cut.bevel) == pytest.approx((miter, bevel), abs=1e-3)
    assert cut.long == "wall edge"
    # Round an outer corner of the same turn the saw is set the other way, by as much.
    outer = flat_cut(mitre(360.0 - corner), spring)
    assert (outer.miter, outer.bevel, outer.long) == (cut.miter, cut.bevel, "outer edge")


def unit(v: NDArray[np.float64]) -> NDArray[np.float64]:
    return np.asarray(v / np.linalg.norm(v), dtype=np.float64)


def by_planes(spring: float, corner: float) -> tuple[float, float]:
    """Miter and bevel from the mitre's plane seen from the molding's own back: x along it, z out of its back."""
    s, half = math.radians(spring), math.radians(corner / 2)
    # The wall runs along x, the room lies towards -y, z is up; the back leans into the room at the top.
    along = np.array([1.0, 0.0, 0.0])
    up_back = np.array([0.0, -math.sin(s), math.cos(s)])
    out_back = np.cross(along, up_back)
    # The upright plane that halves a corner at the molding's right end.
    normal = unit(np.array([math.sin(half), math.cos(half), 0.0]))
    seen = np.array([normal @ along, normal @ up_back, normal @ out_back])
    # On the table the fence lies along x; the cut's line on the table is where the plane meets the back.
    miter = math.degrees(math.atan2(abs(seen[1]), abs(seen[0])))
    bevel = math.degrees(math.asin(abs(seen[2])))
    return miter, bevel


@given(st.floats(0.0, 80.0), st.floats(20.0, 175.0))
def test_any_spring_and_corner_agree_with_the_turned_plane(spring: float, corner: float) -> None:
    cut = flat_cut(mitre(corner), spring)
    assert (cut.miter, cut.bevel) == pytest.approx(by_planes(spring, corner), abs=2e-4)


def test_flat_on_the_wall_only_the_blade_leans_and_in_the_walls_plane_only_the_table_turns() -> None:
    skirting = flat_cut(45.0, 0.0)
    assert (skirting.miter, skirting.bevel, skirting.long) == (0.0, 45.0, "wall edge")
    casing = flat_cut(45.0, 90.0)
    assert (casing.miter, casing.bevel, casing.long) == (45.0, 0.0, "outer edge")
    assert flat_cut(0.0, 38.0).long == ""
