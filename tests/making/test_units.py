"""How units are made: sizes from the construction rules, holes, fittings, problems."""

from __future__ import annotations

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of, with_run
from tall_plank.edits import bays, standards, units
from tall_plank.job import Bay, Front, Job, Level, Split
from tall_plank.job.start import new_job
from tall_plank.making import Bore, Groove, MadeUnit, Part, make_job, make_unit, spec_of
from tall_plank.making.parts import cut_size
from tall_plank.measure import Length
from tall_plank.measure.frames import box_corners
from tall_plank.setout import set_out
from tall_plank.stock import shipped_stock

ALL = "door 450, pair 900, drawers 600, sink 900, dishwasher 600, open 150"


def made(text: str, level: Level = Level.BASE, **own: str) -> MadeUnit:
    """One unit made from a run's text, with own values."""
    job = with_run(new_job(), "A", level, text)
    for key, value in own.items():
        job = units.set_own(job, (job.cells()[0].id,), key, value).job
    return make_job(job, set_out(job)).units[0][1]


def part(unit: MadeUnit, name: str) -> Part:
    return next(p for p in unit.parts if p.name == name)


def test_every_kind_of_the_first_slice_is_made_without_a_problem() -> None:
    for level, text in ((Level.BASE, ALL), (Level.HUNG, "door 450, pair 900, open 600, filler 50")):
        for style in ("slab", "framed"):
            job = with_run(new_job(), "A", level, text)
            job = standards.set_in_force(job, "front_style", style).job
            for placed, unit in make_job(job, set_out(job)).units:
                assert unit.problems == (), (placed.number, style)
                assert unit.parts


def test_a_drawer_front_too_low_for_a_frame_is_a_slab() -> None:
    unit = made("drawers 600", front_style="framed")
    assert [f.style for f in unit.fronts] == ["slab", "framed", "framed"]


def test_fronts_keep_their_gaps() -> None:
    unit = made("drawers 600")
    first, second, third = unit.fronts
    assert first.x == 1.5
    assert first.width == 597
    assert first.z + first.height == 730 - 3
    assert first.z - (second.z + second.height) == pytest.approx(3)
    assert third.z == pytest.approx(0)
    assert second.height == pytest.approx(third.height)


def test_a_pair_shares_its_width_with_the_gap_between() -> None:
    left, right = made("pair 900").fronts
    assert (left.hand, right.hand) == ("left", "right")
    assert left.width == right.width == (900 - 3 - 3) / 2
    assert right.x - (left.x + left.width) == pytest.approx(3)


def test_a_hinge_cup_stands_at_the_height_of_its_plate() -> None:
    unit = made("door 450")
    door, gable = part(unit, "door 1"), part(unit, "left gable")
    cups = [door.frame.at(o.x, o.y, 0)[2] for o in door.operations if isinstance(o, Bore) and o.diameter == 35]
    plates = [
        gable.frame.at(o.x, o.y, 0)[2] for o in gable.operations if isinstance(o, Bore) and o.use == "hinge plate"
    ]
    assert len(cups) == 2
    assert len(plates) == 4
    for cup in cups:
        for hole in (cup - 16, cup + 16):
            assert min(abs(z - hole) for z in plates) < 1e-6


def test_a_left_hung_door_has_its_plates_on_the_left_gable_only() -> None:
    unit = made("door 450")
    uses = {
        name: {o.use for o in part(unit, name).operations if isinstance(o, Bore)}
        for name in ("left gable", "right gable")
    }
    assert "hinge plate" in uses["left gable"]
    assert "hinge plate" not in uses["right gable"]


def test_plate_holes_fall_on_the_shelf_rows() -> None:
    gable = part(made("door 450"), "left gable")
    front = [o for o in gable.operations if isinstance(o, Bore) and abs(o.y - 37) < 1e-6]
    xs = sorted(o.x for o in front)
    for a, b in zip(xs, xs[1:], strict=False):
        assert (b - a) % 32 == pytest.approx(0, abs=1e-6) or (b - a) % 32 == pytest.approx(32, abs=1e-6)


def test_handles_are_drilled_through_the_front_that_takes_one() -> None:
    unit = made("dishwasher 600")
    (front,) = unit.parts
    holes = [o for o in front.operations if isinstance(o, Bore)]
    assert len(holes) == 2
    assert all(o.through and o.diameter == 5 for o in holes)
    assert abs(holes[0].y - holes[1].y) == 192 or abs(holes[0].x - holes[1].x) == 192
    bare = made("dishwasher 600", handle="none")
    assert not bare.parts[0].operations


def test_legs_follow_the_width() -> None:
    assert next(i.qty for i in made("pair 900").items if i.code == "LG-100") == 4
    assert next(i.qty for i in made("pair 901").items if i.code == "LG-100") == 6


def test_hung_units_hang_and_have_no_legs() -> None:
    codes = {i.code for i in made("pair 900", Level.HUNG).items}
    assert "WH-60" in codes
    assert "LG-100" not in codes


def test_the_longest_runner_that_fits_is_taken() -> None:
    assert any(i.code == "RN-500" for i in made("drawers 600").items)
    shallow = made("drawers 600", depth="480")
    # 480 less inset 15, back 9 and play 0.2 leaves 455.8: a 450 runner needs 453.
    assert any(i.code == "RN-450" for i in shallow.items)


@pytest.mark.parametrize(
    ("text", "own", "word"),
    [
        ("drawers 600", {"depth": "200"}, "No runner fits"),
        ("dishwasher 590", {}, "needs 598 mm"),
        ("door 450", {"handle_from_end": "600"}, "no room for it"),
        ("door 450", {"carcass_thickness": "17"}, "No 17 mm board"),
        ("door 450", {"front_thickness": "9", "front_style": "framed"}, "too thick for a frame"),
        ("door 450", {"edging_front": "2"}, "no 2 mm edging"),
        ("door 450", {"row_margin": "360"}, "here is room for 0"),
        ("pair 900", {"height": "2500"}, "No hinge rule"),
    ],
)
def test_what_cannot_be_made_says_why_and_reaches_no_list(text: str, own: dict[str, str], word: str) -> None:
    unit = made(text, **own)
    assert unit.parts == ()
    assert any(word in p.what for p in unit.problems), unit.problems
    assert all(p.remedy for p in unit.problems)


def test_bays_that_do_not_fill_their_unit_are_named() -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600")
    cell = job.cells()[0].id
    job = bays.set_size(job, cell, (1,), "400").job
    job = units.set_own(job, (cell,), "height", "500").job
    (unit,) = (u for _, u in make_job(job, set_out(job)).units)
    assert any("short of their sizes" in p.what for p in unit.problems)


def test_a_divider_gives_each_bay_its_own_upright_and_joints() -> None:
    bay = Bay(
        split=Split.COLUMNS,
        between="divider",
        children=(
            Bay(front=Front("door", "left"), shelves=1),
            Bay(split=Split.ROWS, between="shelf", children=(Bay(), Bay(shelves=0, size=Length("200mm", 200.0)))),
        ),
    )
    job = with_run(new_job(), "A", Level.BASE, "open 900")
    unit = msgspec.structs.replace(job.units[0], bay=bay)
    job = msgspec.structs.replace(job, units=(unit,))
    (made_unit,) = (u for _, u in make_job(job, set_out(job)).units)
    assert made_unit.problems == ()
    divider, shelf = part(made_unit, "divider 1"), part(made_unit, "fixed shelf 1")
    assert divider.length == 730 - 36
    left, right = made_unit.bays[0], made_unit.bays[1]
    assert left[3] == pytest.approx((900 - 36 - 18) / 2)
    assert shelf.length == pytest.approx(right[3])
    assert any(isinstance(o, Bore) and o.use == "shelf pin" for o in divider.operations)
    assert any(isinstance(o, Bore) and o.use == "dowel" and o.face in ("W1", "W2") for o in divider.operations)


# --- properties of any unit

CHOICES = st.tuples(
    st.sampled_from(["door", "pair", "drawers", "sink", "open"]),
    st.integers(300, 640),
    st.integers(400, 1000),
    st.integers(320, 700),
    st.sampled_from(["slab", "framed"]),
)


def any_unit(choice: tuple[str, int, int, int, str]) -> MadeUnit:
    kind, width, height, depth, style = choice
    if kind in ("pair", "sink"):
        width += 300
    return made(f"{kind} {width}", height=str(height), depth=str(depth), front_style=style)


@given(CHOICES)
def test_every_operation_lies_on_its_part(choice: tuple[str, int, int, int, str]) -> None:
    for p in any_unit(choice).parts:
        spans = {"A": (p.length, p.width), "B": (p.length, p.width), "L1": (p.length, p.thickness),
                 "L2": (p.length, p.thickness), "W1": (p.width, p.thickness), "W2": (p.width, p.thickness)}  # fmt: skip
        for op in p.operations:
            if isinstance(op, Bore):
                u, v = spans[op.face]
                assert op.diameter / 2 - 1e-6 <= op.x <= u - op.diameter / 2 + 1e-6, (p.name, op)
                assert op.diameter / 2 - 1e-6 <= op.y <= v - op.diameter / 2 + 1e-6, (p.name, op)
                if op.face in "AB" and not op.through:
                    assert op.depth <= p.thickness - 4.0, (p.name, op)
            if isinstance(op, Groove):
                assert op.depth < (p.thickness if op.face in "AB" else p.width)


@given(CHOICES)
def test_both_halves_of_every_dowel_meet(choice: tuple[str, int, int, int, str]) -> None:
    unit = any_unit(choice)
    points: dict[tuple[float, ...], int] = {}
    for p in unit.parts:
        for op in p.operations:
            if isinstance(op, Bore) and op.use == "dowel":
                local = {
                    "A": (op.x, op.y, p.thickness), "B": (op.x, op.y, 0.0), "L1": (op.x, 0.0, op.y),
                    "L2": (op.x, p.width, op.y), "W1": (0.0, op.x, op.y), "W2": (p.length, op.x, op.y),
                }[op.face]  # fmt: skip
                key = tuple(round(c, 2) + 0.0 for c in p.frame.at(*local))
                points[key] = points.get(key, 0) + 1
    assert all(count == 2 for count in points.values()), points
    dowels = sum(i.qty for i in unit.items if i.code == "DW-8")
    assert dowels == len(points)


def _tongue(p: Part) -> float:
    """How far a part reaches into the grooves of others."""
    if p.role in ("back", "drawer bottom", "front panel"):
        return 12.0
    return 10.5 if p.name.endswith("rail") and p.role == "front frame" else 0.0


@given(CHOICES)
def test_parts_do_not_run_into_one_another_but_in_their_grooves(choice: tuple[str, int, int, int, str]) -> None:
    parts = any_unit(choice).parts
    boxes = [(p, *box_corners(p.frame, (p.length, p.width, p.thickness))) for p in parts]
    for i, (a, low_a, high_a) in enumerate(boxes):
        for b, low_b, high_b in boxes[i + 1 :]:
            overlap = [min(high_a[k], high_b[k]) - max(low_a[k], low_b[k]) for k in range(3)]
            if min(overlap) > 1e-6:
                assert min(overlap) <= max(_tongue(a), _tongue(b)), (a.name, b.name, overlap)


@given(CHOICES)
def test_the_unit_stays_inside_its_outline(choice: tuple[str, int, int, int, str]) -> None:
    unit = any_unit(choice)
    spec = unit.spec
    for p in unit.parts:
        low, high = box_corners(p.frame, (p.length, p.width, p.thickness))
        assert low[0] >= -1e-6
        assert high[0] <= spec.width + 1e-6
        assert low[1] >= -spec.depth - spec.made.front_thickness - 1e-6
        assert high[1] <= 1e-6
        assert low[2] >= -1e-6
        assert high[2] <= spec.height + 1e-6


@given(
    st.floats(50, 3000),
    st.tuples(st.sampled_from([0.0, 0.4, 1.0, 2.0]), st.sampled_from([0.0, 0.4, 1.0, 2.0])),
    st.floats(0, 1),
)
def test_cut_plus_edging_less_premilling_is_finished(size: float, edging: tuple[float, float], mill: float) -> None:
    cut = cut_size(size, edging, mill)
    banded = [t for t in edging if t > 0]
    assert cut + sum(banded) - mill * len(banded) == pytest.approx(size)


def test_thin_edging_may_be_ignored() -> None:
    assert cut_size(600, (0.4, 1.0), 0.5, ignored_below=0.5) == pytest.approx(600 - 1.0 + 0.5)


def test_units_alike_are_made_once(job: Job) -> None:
    layout = set_out(job)
    twins = [p for p in layout.placed if p.number in ("A8", "A9")]
    a, b = (make_unit(spec_of(job, p), job.stock) for p in twins)
    assert a is b


def test_the_same_unit_from_another_stock_is_another(job: Job) -> None:
    spec = spec_of(job, set_out(job).placed[1])
    stock = shipped_stock()
    other = msgspec.structs.replace(stock, boards=tuple(b for b in stock.boards if b.code != "BP18"))
    assert make_unit(spec, stock).parts
    assert not make_unit(spec, other).parts


def test_part_numbers_come_from_the_unit(job: Job) -> None:
    numbers = [p.number for p in make_job(job, set_out(job)).parts()]
    assert len(numbers) == len(set(numbers))
    assert {"A2.1", "AW.1", "AP.1"} <= set(numbers)
    assert cell_of(job, "A2")


def test_a_long_plinth_comes_in_equal_pieces(job: Job) -> None:
    pieces = [t.part for t in make_job(job, set_out(job)).trims if t.label == "A plinth"]
    assert [p.length for p in pieces if p] == [1800, 1800]
