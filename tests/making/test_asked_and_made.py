"""Runners by depth and load (MK4), and sizes that a step or a stock size changes, asked beside made (MK7)."""

from __future__ import annotations

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.edits import outline, units
from tall_plank.job import Kind, Level
from tall_plank.job.start import new_job
from tall_plank.making import MadeUnit, make_job
from tall_plank.making.drawers import runner_for
from tall_plank.measure import PlankError
from tall_plank.setout import set_out
from tall_plank.setout.pieces import in_pieces
from tall_plank.snags.strength import heavy_drawer
from tall_plank.stock import shipped_stock

STOCK = shipped_stock()


def made(text: str, level: Level = Level.BASE, **own: str) -> MadeUnit:
    job = with_run(new_job(), "A", level, text)
    for key, value in own.items():
        job = units.set_own(job, (job.cells()[0].id,), key, value).job
    return make_job(job, set_out(job)).units[0][1]


@pytest.mark.parametrize(
    ("load", "code"), [(10, "RN-500"), (45, "RN-500"), (45.1, "RN-500H"), (68, "RN-500H"), (90, "RN-500H")]
)
def test_of_the_longest_runners_the_weakest_that_carries_the_load(load: float, code: str) -> None:
    runner = runner_for(STOCK, 540.0, lambda _: load)
    assert runner is not None
    assert runner.code == code


def test_a_shorter_depth_comes_before_the_load() -> None:
    runner = runner_for(STOCK, 480.0, lambda _: 60.0)
    assert runner is not None
    assert runner.code == "RN-450H"
    assert runner_for(STOCK, 200.0) is None


def test_a_wide_drawer_gets_heavy_runners_and_says_why() -> None:
    narrow, wide = made("drawers 600"), made("drawers 1200")
    assert {d.runner for d in narrow.drawers} == {"RN-500"}
    assert {d.runner for d in wide.drawers} == {"RN-500H"}
    why = next(i.why for i in wide.items if i.code == "RN-500H")
    assert "of 68 kg when full" in why
    # The heavy ones carry it, so nothing is wrong; with the light ones by hand there is a snag.
    assert heavy_drawer(wide, STOCK) is None
    light = made("drawers 1200", runner="RN-500")
    assert {d.runner for d in light.drawers} == {"RN-500"}
    told = heavy_drawer(light, STOCK)
    assert told is not None
    assert "carries 45 kg" in told[0]


def test_the_load_is_box_front_and_what_it_holds() -> None:
    """By hand: 73.2 kg/m2 over the bottom's inside, and the weights of the parts that the unit made."""
    unit = made("drawers 900")
    for i, drawer in enumerate(unit.drawers):
        parts = [p for p in unit.parts if p.name.startswith(drawer.name + " ")]
        box = sum(p.weight for p in parts if p.role.startswith("drawer"))
        front = sum(p.weight for p in unit.parts if unit.fronts[i].owns(p.name))
        inner = next(p for p in parts if p.name.endswith("front")).length * (500 - 2 * unit.spec.made.drawer_thickness)
        expected = box + front + 73.2 * inner * 1e-6
        # The bottom's tongues are left out of the estimate: a few grams.
        assert drawer.load == pytest.approx(expected, abs=0.4)
        assert drawer.load < expected + 0.01


def test_a_runner_by_hand_that_is_too_long_is_refused_with_its_depth() -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600")
    cell = job.cells()[0].id
    job = units.set_own(job, (cell,), "depth", "480").job
    job = units.set_own(job, (cell,), "runner", "RN-500").job
    unit = make_job(job, set_out(job)).units[0][1]
    assert unit.parts == ()
    assert "needs 503 mm of depth" in unit.problems[0].what
    with pytest.raises(PlankError, match="not offered"):
        units.set_own(job, (cell,), "runner", "HG-110")


def test_a_drawer_says_how_deep_it_could_be_and_is() -> None:
    unit = made("drawers 600")
    assert [(f.what, round(f.asked, 1), f.made) for f in unit.forced if "drawer" in f.what] == [
        (f"depth of drawer {i}", 535.8, 500.0) for i in (1, 2, 3)
    ]


def test_a_shelf_moves_to_the_nearest_hole_and_says_from_where() -> None:
    unit = made("open 600", Level.HUNG)
    shelves = [f for f in unit.forced if "shelf" in f.what]
    assert shelves
    for forced, part in zip(shelves, [p for p in unit.parts if p.role == "shelf"], strict=True):
        assert forced.made == pytest.approx(part.frame.origin[2])
        assert abs(forced.made - forced.asked) <= 16.0 + unit.spec.made.pin_diameter / 2


def test_the_end_hinges_say_their_distance_on_the_grid() -> None:
    unit = made("door 450")
    hinges = [f for f in unit.forced if "hinge" in f.what]
    assert [f.asked for f in hinges] == [100.0, 100.0]
    assert all(abs(f.made - 100.0) <= 16.0 for f in hinges)
    assert all("holes 32 apart" in f.why for f in hinges)


def test_what_comes_out_as_asked_is_not_told() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 450")
    cell = job.cells()[0].id
    forced = next(f for f in make_job(job, set_out(job)).units[0][1].forced if "lower" in f.what)
    job = units.set_own(job, (cell,), "hinge_from_end", f"{forced.made}mm").job
    again = make_job(job, set_out(job)).units[0][1]
    assert not [f for f in again.forced if "lower" in f.what]


@given(width=st.integers(3000, 9000))
def test_pieces_of_a_worktop_add_up_to_what_was_asked(width: int) -> None:
    job = outline.type_outline(new_job(), "r1", f"{width}mm, 4000mm, rest, rest").job
    job = with_run(job, "A", Level.BASE, "drawers 900, 3 x door 600, open rest")
    room = set_out(job).rooms[0]
    (_, run) = job.runs()[0]
    found = in_pieces(room, Kind.RUN.of(run.id))
    tops = [w for w in room.worktops if w.source == Kind.RUN.of(run.id)]
    if len(tops) == 1:
        assert not [f for f in found if f[0] == "worktop"]
    else:
        ((_, asked, lengths),) = [f for f in found if f[0] == "worktop"]
        assert sum(lengths) == pytest.approx(asked, abs=1e-6)
        longest = max(b.usable_length for b in job.stock.boards if b.finish == tops[0].finish)
        assert asked > longest >= max(lengths) - 1e-6


def test_every_drawer_names_a_runner_of_the_stock_that_is_among_its_items() -> None:
    unit = made("drawers 600")
    counted = {i.code: 0 for i in unit.items}
    for drawer in unit.drawers:
        counted[drawer.runner] += 1
    assert {code: n for code, n in counted.items() if n} == {
        i.code: sum(j.qty for j in unit.items if j.code == i.code) for i in unit.items if i.code.startswith("RN")
    }
    assert msgspec.structs.asdict(unit.drawers[0])["path"] == (0,)


def test_shelves_are_asked_for_with_equal_clear_heights() -> None:
    unit = made("open 600", Level.HUNG)
    (_, _, low, _, high) = unit.bays[0]
    shelves = [p for p in unit.parts if p.role == "shelf"]
    thick, count = unit.spec.made.shelf_thickness, len(shelves)
    clear = (high - count * thick) / (count + 1)
    asked = {f.what: f.asked for f in unit.forced if f.what.startswith("height of shelf")}
    assert asked
    for what, mm in asked.items():
        i = int(what.rsplit(" ", 1)[1])
        assert mm == pytest.approx(low + i * clear + (i - 1) * thick)
