"""Work on a part: it lies in the wood, leaves some, and meets no other; against solids built here anew."""

from __future__ import annotations

import itertools
import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from manifold3d import Manifold

from tall_plank.making import Part
from tall_plank.making.parts import Bore, Cutout, Groove, Rebate
from tall_plank.making.proof import faults_of
from tall_plank.making.proof.work import amiss_in
from tall_plank.measure import Frame
from tall_plank.measure.frames import X, Y

LENGTH, WIDTH, THICK = 400.0, 300.0, 18.0
SIZE = (LENGTH, WIDTH, THICK)


def board(*operations: Any, **more: Any) -> Part:
    return Part("board", "B", "board", *SIZE, "none", Frame((0.0, 0.0, 0.0), X, Y), operations=operations, **more)


def words(*operations: Any, **more: Any) -> list[str]:
    return [a.what for a in amiss_in(board(*operations, **more))]


# --- an independent check: solids


def box(low: tuple[float, float, float], high: tuple[float, float, float]) -> Any:
    return Manifold.cube(tuple(b - a for a, b in zip(low, high, strict=True))).translate(low)


def taken(op: Any, more: float) -> Any:
    """What an operation takes out of the board, `more` mm deeper than it is."""
    match op:
        case Bore():
            deep = (THICK if op.through else op.depth) + more
            rod = Manifold.cylinder(deep, op.diameter / 2, op.diameter / 2, 96)
            match op.face:
                case "A":
                    return rod.translate((op.x, op.y, THICK - deep))
                case "B":
                    return rod.translate((op.x, op.y, 0.0))
                case "L1":
                    return rod.rotate((-90.0, 0.0, 0.0)).translate((op.x, 0.0, op.y))
                case "L2":
                    return rod.rotate((90.0, 0.0, 0.0)).translate((op.x, WIDTH, op.y))
                case "W1":
                    return rod.rotate((0.0, 90.0, 0.0)).translate((0.0, op.x, op.y))
            return rod.rotate((0.0, -90.0, 0.0)).translate((LENGTH, op.x, op.y))
        case Groove():
            half = op.width / 2
            deep = op.depth + more
            if op.y1 == op.y2:
                u, v = sorted((op.x1, op.x2)), (op.y1 - half, op.y1 + half)
            else:
                u, v = (op.x1 - half, op.x1 + half), sorted((op.y1, op.y2))
            match op.face:
                case "A":
                    return box((u[0], v[0], THICK - deep), (u[1], v[1], THICK))
                case "B":
                    return box((u[0], v[0], 0.0), (u[1], v[1], deep))
                case "L1":
                    return box((u[0], 0.0, v[0]), (u[1], deep, v[1]))
            return box((u[0], WIDTH - deep, v[0]), (u[1], WIDTH, v[1]))
    raise AssertionError(op)


def overlap(one: Any, other: Any) -> bool:
    """Whether two operations meet; between both faces 2 mm of wood have to stay."""
    faces = {one.face, other.face}
    if isinstance(one, Groove) and isinstance(other, Groove) and len(faces) == 1:
        return False
    through = getattr(one, "through", False) or getattr(other, "through", False)
    wall = 1.0 if faces == {"A", "B"} and not through else 0.0
    common = taken(one, wall) ^ taken(other, wall)
    if common.volume() < 1.0:
        return False
    x0, y0, z0, x1, y1, z1 = common.bounding_box()
    return bool(min(x1 - x0, y1 - y0, z1 - z0) > 0.1)


def near(one: Any, other: Any) -> bool:
    """Whether they meet or miss by so little that the facets of round holes decide."""
    grown = [overlap(_resized(one, d), _resized(other, d)) for d in (-0.15, 0.15)]
    return grown[0] != grown[1]


def _resized(op: Any, by: float) -> Any:
    if isinstance(op, Bore):
        return Bore(op.face, op.x, op.y, op.diameter + by, op.depth + by, op.use, op.through)
    return Groove(op.face, op.x1, op.y1, op.x2, op.y2, op.width + by, op.depth + by, op.over)


grid = st.integers


@st.composite
def an_operation(draw: st.DrawFn, number: int) -> Any:
    """Something that lies in the board by itself, anywhere and on any face."""
    face = draw(st.sampled_from(["A", "B", "L1", "L2", "W1", "W2"]))
    use = f"use {number}"
    if face in ("A", "B"):
        deep = draw(st.sampled_from([8.0, 12.0, 14.0]))
        x, y = float(draw(grid(40, 70))), float(draw(grid(40, 70)))
        if draw(st.booleans()):
            return Bore(face, x, y, draw(st.sampled_from([5.0, 8.0, 35.0])), deep, use, draw(st.booleans()))
        if draw(st.booleans()):
            return Groove(face, 0.0, y, LENGTH, y, 9.0, deep, use)
        return Groove(face, x, 0.0, x, WIDTH, 9.0, deep, use)
    deep = draw(st.sampled_from([20.0, 45.0, 60.0]))
    u, v = float(draw(grid(40, 70))), float(draw(grid(6, 12)))
    if face in ("L1", "L2") and draw(st.booleans()):
        return Groove(face, 0.0, v, LENGTH, v, 4.0, min(deep, 20.0), use)
    return Bore(face, u, v, 8.0, deep, use)


@settings(max_examples=300)
@given(an_operation(1), an_operation(2))
def test_what_meets_is_told_and_nothing_else(one: Any, other: Any) -> None:
    if near(one, other):
        return
    told = [w for w in words(one, other) if "runs into" in w]
    assert bool(told) is overlap(one, other), (one, other)


# --- by hand


@pytest.mark.parametrize(
    ("operation", "told"),
    [
        (Bore("A", 100, 100, 5, 13, "pin"), None),
        (Bore("A", 100, 100, 5, 16, "pin"), None),
        (Bore("A", 100, 100, 5, 16.5, "pin"), "a pin hole leaves 1.5 mm of wood behind it; 2 mm is the least"),
        (Bore("A", 100, 100, 5, 18, "pin", True), None),
        (Bore("B", 100, 3, 5, 13, "pin"), "a pin hole lies 0.5 mm from an edge; 1 mm is the least"),
        (Bore("B", 100, 298, 5, 13, "pin"), "a pin hole lies -0.5 mm from an edge; 1 mm is the least"),
        (Bore("L1", 100, 9, 8, 20, "dowel"), None),
        (Bore("L1", 100, 4, 8, 20, "dowel"), "a dowel hole lies 0 mm from an edge; 1 mm is the least"),
        (Bore("W2", 100, 9, 8, 399, "dowel"), "a dowel hole leaves 1 mm of wood behind it; 2 mm is the least"),
        (Groove("A", 0, 20, 400, 20, 9, 9, "back"), None),
        (Groove("A", 0, 20, 400, 20, 9, 17, "back"),
         "the groove of the back leaves 1 mm of wood behind it; 2 mm is the least"),
        (Groove("A", 0, 5, 400, 5, 9, 9, "back"),
         "the groove of the back leaves 0.5 mm of wood beside it; 1 mm is the least"),
        (Groove("L1", 0, 9, 400, 9, 9.2, 10, "panel"), None),
        (Rebate("A", "L2", 9, 9), None),
        (Rebate("A", "L2", 9, 17), "a rebate leaves 1 mm of wood behind it; 2 mm is the least"),
        (Cutout(50, 50, 100, 100, 5), None),
    ],
)  # fmt: skip
def test_work_lies_in_its_part_and_leaves_wood(operation: Any, told: str | None) -> None:
    assert words(operation) == ([] if told is None else [told])


def test_what_belongs_together_may_meet() -> None:
    cam, bolt = Bore("B", 34, 100, 15, 13, "cam"), Bore("W1", 100, 9, 8, 34, "cam dowel")
    assert words(cam, bolt) == []
    assert words(Bore("B", 34, 100, 15, 13, "stay"), bolt)
    face = Groove("B", 0, 50, 400, 50, 3, 3, "face")
    assert words(Bore("B", 100, 50, 5, 18, "handle", True), face) == []
    assert words(Bore("B", 100, 50, 5, 13, "hinge"), face)
    # Tongues of a rail: a rebate on either face leaves a tongue, at their corners nothing need stay.
    assert words(Rebate("A", "W1", 10, 5), Rebate("B", "W1", 10, 5)) == []
    assert words(Rebate("A", "W1", 10, 9), Rebate("B", "W1", 10, 8))
    assert words(Rebate("A", "W1", 10, 5), Rebate("B", "L2", 70, 14)) == []


def test_a_hole_off_the_outline_of_a_shaped_part_is_told() -> None:
    outline = ((0.0, 0.0), (LENGTH, 0.0), (LENGTH, 150.0), (0.0, WIDTH))
    assert words(Bore("A", 100, 100, 5, 13, "pin"), outline=outline) == []
    assert words(Bore("A", 390, 250, 5, 13, "pin"), outline=outline) == ["a pin hole lies off the part's outline"]


def test_a_pocket_reaches_to_the_end_it_leads_to() -> None:
    pocket = Bore("B", 38, 100, 9.5, 10.8, "pocket screw", slant=15.0)
    assert words(pocket) == []
    assert words(pocket, Bore("A", 20, 100, 10, 12, "hanger")) == [
        "a hanger hole runs into a pocket screw hole"
    ] or words(pocket, Bore("A", 20, 100, 10, 12, "hanger")) == ["a pocket screw hole runs into a hanger hole"]
    assert words(pocket, Bore("A", 60, 100, 10, 12, "hanger")) == []


def test_a_fault_names_its_part_and_shows_its_place() -> None:
    part = Part("side", "B", "board", *SIZE, "none", Frame((10.0, 20.0, 30.0), X, Y),
                operations=(Bore("A", 100, 100, 5, 18, "pin"),))  # fmt: skip
    fault, *_ = faults_of((board(), part))
    assert fault.what == "Part 2, side: a pin hole leaves 0 mm of wood behind it; 2 mm is the least."
    assert fault.place is not None
    low, high = fault.place
    for a, at, c in zip(low, (110.0, 120.0, 39.0), high, strict=True):
        assert a < at < c and math.isclose((a + c) / 2, at)


def test_each_fault_is_told_once() -> None:
    holes = [Bore("A", 50.0 + 32 * i, 100, 5, 17, "pin") for i in range(6)]
    assert len(words(*holes)) == 6
    assert len(faults_of((board(*holes),))) == 1
    pairs = list(itertools.combinations(holes, 2))
    assert not [w for pair in pairs for w in words(*pair) if "runs into" in w]
