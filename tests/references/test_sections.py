"""Sections against manifold3d: its solid of a part with everything machined into it, cut by the same plane."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kept.results import every_kind
from tall_plank.drawing.section import Plane, area_of, part_cut
from tall_plank.making.parts import Part
from tall_plank.making.solids import machined
from tall_plank.workings import Workings

PARTS = [item.part for item in Workings(every_kind()).made.parts() if not item.part.bend]
WORKED = [p for p in PARTS if len(p.operations) > 2]


def cut_elsewhere(part: Part, plane: Plane) -> float:
    """mm² of manifold3d's section: the solid turned so that the plane is its floor, and sliced there."""
    rows = np.array([plane.right, plane.up, plane.towards])
    at = -rows @ np.array(plane.origin)
    return float(machined(part).transform(np.column_stack([rows, at])).slice(0.0).area())


def planes(part: Part, share: tuple[float, float, float], turn: float) -> dict[str, Plane]:
    at = (part.length * share[0], part.width * share[1], part.thickness * share[2])
    c, s = np.cos(turn), np.sin(turn)
    return {
        "across": Plane(at, (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)),
        "along": Plane(at, (1.0, 0.0, 0.0), (0.0, 0.0, 1.0)),
        "flat": Plane(at, (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)),
        "slanted": Plane(at, (float(c), float(s), 0.0), (float(-s * 0.6), float(c * 0.6), 0.8)),
    }


@pytest.mark.parametrize("way", ["across", "along", "flat", "slanted"])
@settings(max_examples=40)
@given(st.integers(0, 10_000), st.tuples(*[st.floats(0.02, 0.98)] * 3), st.floats(0.1, 1.4))
def test_what_is_cut_has_the_area_that_another_library_finds(
    way: str, number: int, share: tuple[float, float, float], turn: float
) -> None:
    part = WORKED[number % len(WORKED)]
    plane = planes(part, share, turn)[way]
    mine, other = area_of(part_cut(part, plane)), cut_elsewhere(part, plane)
    # Slanted holes are cut square here; corners of cut-outs are round here and square there.
    slack = sum(op.depth * op.diameter for op in part.operations if getattr(op, "slant", 0.0))
    slack += sum(4 * op.radius**2 for op in part.operations if getattr(op, "radius", 0.0))
    slack += sum(2 * op.radius * part.thickness for op in part.operations if getattr(op, "radius", 0.0))
    assert mine == pytest.approx(other, rel=1e-5, abs=0.5 + slack), (part.name, plane)


def test_a_plane_beside_a_part_cuts_nothing_of_it() -> None:
    part = WORKED[0]
    assert part_cut(part, Plane((part.length + 1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))) == ()


def test_a_groove_and_a_hole_are_missing_where_the_plane_goes_through_them() -> None:
    """By hand: a gable of 560 by 18 cut across its length shows 560 x 18 less the groove of the back."""
    gable = next(p for p in PARTS if p.name == "left gable" and any("back" in str(op) for op in p.operations))
    groove = next(op for op in gable.operations if getattr(op, "over", "") == "back")
    free = next(
        x for x in np.linspace(60, gable.length - 60, 400)
        if all(abs(getattr(op, "x", -99.0) - x) > getattr(op, "diameter", 0.0) for op in gable.operations)
    )  # fmt: skip
    plane = Plane((float(free), 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
    wanted = gable.width * gable.thickness - groove.width * groove.depth
    assert area_of(part_cut(gable, plane)) == pytest.approx(wanted)
