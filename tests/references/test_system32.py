"""Hole positions of the 32 mm system. All common practice; the arithmetic is worked out by hand below."""

from __future__ import annotations

import msgspec
import pytest

from tall_plank.edits import runs, runtext, units
from tall_plank.job import Level
from tall_plank.job.inherit import construction_of
from tall_plank.job.start import new_job
from tall_plank.making import Bore, make_job
from tall_plank.making.dowels import dowel_places
from tall_plank.making.hinges import hinge_count
from tall_plank.making.pinrows import rear_row, row_heights, row_start
from tall_plank.setout import set_out
from tall_plank.stock import shipped_stock

JOB = runs.insert_unit(new_job(), "r1", "A", "door").job
MADE = construction_of(JOB, JOB.units[0])


def test_height_720_with_rows_37_from_both_ends_has_21_holes_from_40_to_680() -> None:
    holes = row_heights(720.0, 0.0, 720.0, MADE)
    assert row_start(720.0, 37.0, 32.0) == 40
    assert len(holes) == 21
    assert (holes[0], holes[-1]) == (40, 680)


def test_a_balanced_gable_has_both_end_holes_at_half_its_thickness() -> None:
    """Height = 32 n + thickness: 720 with 16 mm board gives 23 holes from 8 to 712, the same seen from either end."""
    holes = [8 + 32 * i for i in range(23)]
    assert row_start(720.0, 8.0, 32.0) == 8
    assert row_heights(720.0, 0.0, 720.0, msgspec.structs.replace(MADE, row_inset=8.0)) == pytest.approx(holes)
    assert [720 - h for h in reversed(holes)] == holes


@pytest.mark.parametrize(("depth", "steps"), [(298, 7), (330, 8), (490, 13), (522, 14), (554, 15), (586, 16)])
def test_depths_of_74_and_a_multiple_of_32_have_both_rows_at_37(depth: int, steps: int) -> None:
    assert rear_row(float(depth), 37.0, 32.0) == 37 + 32 * steps == depth - 37


def test_a_depth_of_560_has_its_rear_row_at_485_or_517_from_the_front() -> None:
    assert rear_row(560.0, 37.0, 32.0) in (485, 517)


def test_holes_of_the_front_row_of_a_real_gable_are_32_apart_and_37_in() -> None:
    job = runtext.type_run(*_started(), "open 600").job
    job = units.set_own(job, (job.cells()[0].id,), "height", "720").job
    (unit,) = (u for _, u in make_job(job, set_out(job)).units)
    gable = unit.parts[1]
    pins = [op for op in gable.operations if isinstance(op, Bore) and op.use.startswith("shelf")]
    front = sorted(op.x for op in pins if op.y == 37)
    assert front
    assert all(b - a == pytest.approx(32) for a, b in zip(front, front[1:], strict=False))
    assert all((x - 40) % 32 == pytest.approx(0) for x in front)
    assert {round(op.y, 6) for op in pins} == {37, 485}
    assert {(op.diameter, op.depth) for op in pins} == {(5, 13)}


def _started():  # type: ignore[no-untyped-def]
    change = runs.add_run(new_job(), "r1", "A", Level.BASE)
    return change.job, change.made[0]


def test_cups_and_plates() -> None:
    """35 mm cup 11.5 to 13 deep, its edge 3 to 6 from the door's edge; screws 45/9.5; plate screws 32 apart."""
    stock = shipped_stock()
    cup, *screws = stock.fitting("HG-110").holes  # type: ignore[union-attr]
    assert cup.diameter == 35
    assert 11.5 <= cup.depth <= 13
    assert 3 <= MADE.cup_from_edge - 35 / 2 <= 6
    assert {(s.dx, abs(s.dy) * 2) for s in screws} == {(9.5, 45)}
    low, high = stock.fitting("HP-32").holes  # type: ignore[union-attr]
    assert high.dy - low.dy == 32
    assert MADE.row_inset == 37


def test_runner_holes_lie_on_the_system() -> None:
    """First hole 37 from the front edge, the others a multiple of 32 behind it."""
    for runner in shipped_stock().fittings_of("runner"):
        assert runner.holes[0].dx == 37
        assert all((hole.dx - 37) % 32 == 0 for hole in runner.holes), runner.code
        assert runner.holes[-1].dx < runner.length


def test_dowels_are_8_mm_and_sit_half_the_thickness_off_the_edge() -> None:
    """A 30 mm dowel in holes of 12 and 20 mm: 2 mm of air in all for glue."""
    assert MADE.dowel_diameter == 8
    assert 30 < MADE.dowel_face_depth + MADE.dowel_end_depth <= 33
    job = runs.insert_unit(new_job(), "r1", "A", "hung-door").job
    (unit,) = (u for _, u in make_job(job, set_out(job)).units)
    bottom = next(p for p in unit.parts if p.name == "bottom")
    ends = [op for op in bottom.operations if isinstance(op, Bore) and op.face in ("W1", "W2")]
    assert ends
    assert all(op.y == pytest.approx(9) for op in ends)


def test_spacing_of_dowels() -> None:
    assert dowel_places(560.0, 50.0, 160.0, 24.2) == pytest.approx((50, 203.3333, 356.6667, 510), abs=1e-3)
    assert dowel_places(100.0, 50.0, 160.0) == (34.0, 66.0)
    assert len(dowel_places(50.0, 50.0, 160.0)) == 1


@pytest.mark.parametrize(
    ("height", "weight", "count"),
    [
        (717, 5.0, 2),
        (900, 6.0, 2),
        (717, 6.5, 3),
        (901, 5.0, 3),
        (1600, 12.0, 3),
        (2000, 17.0, 4),
        (2112, 15.6, 5),
        (2400, 23.0, None),
    ],
)
def test_hinges_by_the_larger_demand_of_height_and_weight(height: float, weight: float, count: int | None) -> None:
    """Common practice for doors 600 wide; charts differ."""
    assert hinge_count(height, weight, MADE) == count
