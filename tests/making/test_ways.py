"""How fronts open: what they pass on their way, what stands in it, and the room that bought things take."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of, made_alone, with_run
from tall_plank.edits import bays, units
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making import MadeUnit, Part
from tall_plank.making.faceplane import FacePlane
from tall_plank.making.parts import Bore
from tall_plank.making.proof.paths import kept_shut
from tall_plank.making.proof.taken import Taken, standing_in
from tall_plank.making.ways import Thing, Way, outline_of
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.frames import NEG_X, X, Y, Z

FACE = FacePlane(0.0, -560.0)


def door(far: bool = False, handle: bool = True, projection: float = 32.0) -> Way:
    """600 x 700 x 19, its handle 40 from the free edge."""
    at = 40.0 if far else 560.0
    grip = (at, 500.0, at, 660.0) if handle else None
    return Way("door 1", "door", FACE, 0.0, 0.0, 600.0, 700.0, 19.0, "turns", far, grip, projection)


def box(u0: float, u1: float, q0: float, q1: float, z0: float = 0.0, z1: float = 700.0) -> Thing:
    return ((u0, q0), (u1, q0), (u1, q1), (u0, q1)), z0, z1


@pytest.mark.parametrize("far", [False, True])
def test_a_door_opens_as_far_as_its_edge_meets_what_stands_before_it(far: bool) -> None:
    """A wall parallel to the front at distance d: the outer arris of a door of width w meets it at asin(d / w)
    (geometry)."""
    for d in (100.0, 300.0, 590.0):
        met = door(far, handle=False).meets([box(-500.0, 1100.0, 19.0 + d, 2000.0)])
        assert met is not None and not met.handle
        assert met.at == pytest.approx(math.degrees(math.asin(d / 600.0)), abs=5.0)
    assert door(far, handle=False).meets([box(-500.0, 1100.0, 19.0 + 602.0, 2000.0)]) is None


@pytest.mark.parametrize("far", [False, True])
def test_opened_square_a_handle_needs_what_it_stands_out(far: bool) -> None:
    """A wall square to the front, beside its hinges: the door itself keeps clear, its handle stands out 32."""
    for gap in (0.0, 20.0, 31.0):
        met = door(far).meets([box(600.0 + gap, 900.0, 0.0, 2000.0) if far else box(-300.0, -gap, 0.0, 2000.0)])
        assert met is not None and met.handle and met.at >= 80.0
    assert door(far).meets([box(633.0, 900.0, 0.0, 2000.0) if far else box(-300.0, -33.0, 0.0, 2000.0)]) is None
    assert door(far, handle=False).meets([box(600.0, 900.0, 0.0, 2000.0), box(-300.0, 0.0, 0.0, 2000.0)]) is None


def test_what_ends_before_the_handle_or_stands_above_lets_it_pass() -> None:
    assert door().meets([box(-300.0, 0.0, 0.0, 500.0)]) is None
    assert door().meets([box(-300.0, 0.0, 0.0, 2000.0, 700.0, 900.0)]) is None
    assert (
        door().meets([box(-300.0, 0.0, 0.0, 2000.0, 0.0, 490.0)]) is not None
    )  # the door's own height, not the grip's


def test_a_flap_rises_and_a_drop_front_falls() -> None:
    flap = Way("flap 1", "flap", FACE, 0.0, 0.0, 800.0, 400.0, 19.0, "tilts", True)
    drop = Way("drop front 1", "drop front", FACE, 0.0, 0.0, 800.0, 400.0, 19.0, "tilts")
    shelf_above = box(100.0, 700.0, 100.0, 500.0, 380.0, 400.0)
    shelf_below = box(100.0, 700.0, 100.0, 500.0, 0.0, 18.0)
    higher = box(100.0, 700.0, 0.0, 500.0, 400.5, 600.0)
    beside = box(800.5, 1200.0, 0.0, 500.0)
    assert flap.meets([shelf_above]) is not None and drop.meets([shelf_below]) is not None
    assert flap.meets([higher, beside]) is None and drop.meets([beside]) is None
    met = flap.meets([box(0.0, 800.0, 219.0, 900.0, 0.0, 10.0)])
    # Its lower edge swings on a circle of 400: at 200 before the face it is 30 degrees open, then 54 mm higher.
    assert met is None
    met = flap.meets([box(0.0, 800.0, 219.0, 900.0, 0.0, 100.0)])
    assert met is not None and 25.0 <= met.at <= 30.0


def test_a_drawer_comes_out_to_what_stands_before_it() -> None:
    drawer = Way(
        "drawer front 1", "drawer", FACE, 0.0, 0.0, 600.0, 200.0, 19.0, "slides", False, (200.0, 100.0, 400.0, 100.0),
        30.0, 500.0,
    )  # fmt: skip
    met = drawer.meets([box(0.0, 100.0, 319.0, 900.0)])
    assert met is not None and met.at == pytest.approx(300.0, abs=0.6) and not met.handle
    met = drawer.meets([box(300.0, 310.0, 319.0, 900.0)])
    assert met is not None and met.at == pytest.approx(270.0, abs=0.6) and met.handle
    assert drawer.meets([box(600.0, 700.0, 0.0, 900.0), box(0.0, 600.0, 550.0, 900.0)]) is None


@given(
    st.floats(200, 900), st.floats(12, 30), st.floats(-400, 1200), st.floats(40, 900), st.floats(0, 1), st.booleans()
)
def test_a_post_stops_a_door_just_where_the_door_passes(
    width: float, thick: float, u: float, q: float, size: float, far: bool
) -> None:
    """Worked out at the post's own angle and distance from the hinge."""
    way = Way("door 1", "door", FACE, 0.0, 0.0, width, 700.0, thick, "turns", far)
    half = 2.0 + 8.0 * size
    post = box(u - half, u + half, q - half, q + half)
    pivot = width if far else 0.0
    along = pivot - u if far else u - pivot
    corners = [(along + a, q - thick + b) for a in (-half, half) for b in (-half, half)]
    met = way.meets([post])
    inside = min(math.hypot(*c) for c in corners) < width - 2.0 and min(c[0] for c in corners) > 2.0
    outside = min(math.hypot(max(0.0, abs(along) - half), max(0.0, abs(q - thick) - half)), 1e9) > width + 3.0
    if inside and min(c[1] for c in corners) > 2.0:
        assert met is not None
        angle = math.degrees(math.atan2(q - thick, along))
        assert met.at <= angle + 1.0
    if outside or max(c[0] for c in corners) < -thick - 2.0:
        assert met is None


# --- inside a unit


def part(name: str, size: tuple[float, float, float], frame: Frame, role: str = "carcass") -> Part:  # type: ignore[type-arg]
    return Part(name, "B", "board", *size, "none", frame, role=role)  # type: ignore[arg-type]


def test_two_doors_in_a_corner_open_one_after_the_other_or_not_at_all() -> None:
    """Each one's handle stands before the other: with a handle on one of them, that one opens first."""
    leg = FacePlane(600.0, -560.0, 0.0, -1.0, "leg")
    parts = (
        part("door 1", (700.0, 578.0, 19.0), Frame((0.0, -579.0, 0.0), Z, X), "front"),
        part("door 2", (700.0, 500.0, 19.0), Frame((581.0, -582.0, 0.0), Z, (0.0, -1.0, 0.0)), "front"),
    )
    one = Way("door 1", "door", FACE, 0.0, 0.0, 578.0, 700.0, 19.0, "turns")
    two = Way("door 2", "door", leg, 22.0, 0.0, 500.0, 700.0, 19.0, "turns", True)
    grip = {"handle": (540.0, 300.0, 540.0, 460.0), "projection": 35.0}
    grip_two = {"handle": (60.0, 300.0, 60.0, 460.0), "projection": 35.0}

    def ways(*which: int) -> list[Way]:
        import msgspec

        return [
            msgspec.structs.replace(one, **grip) if 1 in which else one,
            msgspec.structs.replace(two, **grip_two) if 2 in which else two,
        ]

    assert list(kept_shut(parts, ways())) == []
    assert list(kept_shut(parts, ways(1))) == []
    assert list(kept_shut(parts, ways(2))) == []
    both = list(kept_shut(parts, ways(1, 2)))
    assert {s.way.name for s in both} <= {"door 1", "door 2"}


def test_a_board_before_a_door_keeps_it_shut() -> None:
    front = part("door 1", (700.0, 600.0, 19.0), Frame((0.0, -579.0, 0.0), Z, X), "front")
    post = part("post", (700.0, 40.0, 18.0), Frame((300.0, -700.0, 0.0), Z, X))
    (shut,) = kept_shut((front, post), [door()])
    assert shut.part == 1 and shut.degrees < 30.0
    assert list(kept_shut((front,), [door()])) == []


def test_a_lying_board_is_seen_from_above_by_its_outline() -> None:
    board = Part(
        "bottom", "B", "board", 500.0, 400.0, 18.0, "none", Frame((10.0, -400.0, 5.0), X, Y),
        outline=((0.0, 0.0), (500.0, 0.0), (0.0, 400.0)),
    )  # fmt: skip
    assert outline_of(board) == (((10.0, -400.0), (510.0, -400.0), (10.0, 0.0)), 5.0, 23.0)
    upright = part("gable", (700.0, 500.0, 18.0), Frame((0.0, -500.0, 0.0), Z, Y))
    points, low, high = outline_of(upright)
    assert (low, high) == (0.0, 700.0)
    assert {(round(x), round(y)) for x, y in points} == {(0, -500), (-18, -500), (-18, 0), (0, 0)}
    assert outline_of(part("back", (700.0, 500.0, 8.0), Frame((500.0, -10.0, 0.0), Z, NEG_X)))[1:] == (0.0, 700.0)


def test_a_part_in_the_room_of_something_bought_is_told() -> None:
    shelf = part("shelf", (500.0, 300.0, 18.0), Frame((18.0, -400.0, 300.0), X, Y))
    stay = Taken("a stay", (18.0, -400.0, 310.0), (33.0, -300.0, 400.0))
    (shared,) = standing_in((shelf,), [stay])
    assert shared.size == pytest.approx((15.0, 100.0, 8.0))
    assert list(standing_in((shelf,), [Taken("a stay", (18.0, -400.0, 318.0), (33.0, -300.0, 400.0))])) == []


# --- kinds


def one(text: str, level: Level = Level.BASE) -> tuple[Job, str]:
    job = with_run(new_job(), "A", level, text)
    return job, cell_of(job, "A1")


def wrong(made: MadeUnit) -> list[str]:
    return [p.what for p in made.problems if p.weight == "wrong"]


def test_a_pocket_door_slides_in_between_top_and_bottom() -> None:
    """It was as high as an overlay door, and its plates were screwed to the gable that it slides along."""
    job, cell = one("door 450")
    job = bays.set_front(bays.set_shelves(job, cell, (), "0").job, ((cell, ()),), "pocket").job
    made = made_alone(job, cell)
    leaf = next(p for p in made.parts if p.name == "door 1")
    clear = made.set.boxes[0].clear  # type: ignore[union-attr]
    gap = made.spec.made.gap_inset
    assert sorted((leaf.length, leaf.width)) == pytest.approx(sorted((clear.height - 2 * gap, clear.width - 2 * gap)))
    drilled = {op.use for p in made.parts for op in p.operations if isinstance(op, Bore)}
    assert "hinge" in drilled and "hinge plate" not in drilled
    assert leaf.fixed and not any(i.code == made.spec.made.plate for i in made.items)


def test_a_shelf_where_a_pocket_door_slides_in_is_refused() -> None:
    job, cell = one("door 450")
    made = made_alone(bays.set_front(job, ((cell, ()),), "pocket").job, cell)
    assert not made.parts and "stands in the pocket door slid in" in wrong(made)[0]


def test_a_shelf_in_a_flaps_stay_is_refused() -> None:
    job, cell = one("flap 800", Level.HUNG)
    made = made_alone(bays.set_shelves(job, cell, (), "1").job, cell)
    assert made.parts
    low = units.set_own(bays.set_shelves(job, cell, (), "0").job, (cell,), "height", "230mm").job
    assert made_alone(low, cell).parts
    with pytest.raises(PlankError, match="stands in a stay of the flap front"):
        bays.split_bay(low, cell, (), "3", "rows", "shelf")


def test_a_pull_out_needs_its_depth() -> None:
    job, cell = one("pullout 300")
    assert made_alone(job, cell).parts
    made = made_alone(units.set_own(job, (cell,), "depth", "400").job, cell)
    assert not made.parts
    assert "500 mm deep; here are" in wrong(made)[0]
