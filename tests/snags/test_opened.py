"""Fronts that do not open for what stands before or beside them."""

from __future__ import annotations

import math
import re

import pytest

from conftest import cell_of, with_run
from tall_plank.edits import bays, rooms, units
from tall_plank.edits.things.column import add_column, set_column
from tall_plank.edits.things.island import add_island, set_island
from tall_plank.edits.things.opening import add_opening, set_opening
from tall_plank.edits.things.slope import add_slope, set_slope
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.workings import Workings


def beside_tall(width: int, gap: int = 600) -> Job:
    job = with_run(new_job(), "A", Level.BASE, "tall 600, drawers 600, drawers 900")
    return with_run(job, "A", Level.HUNG, f"gap {gap}, door {width}, pair 600")


def told(job: Job) -> list[tuple[str, str]]:
    """But for the tall unit's own door, which stands at the wall."""
    return [(s.where.label, s.what) for s in Workings(job).snags if s.rule == "opened" and s.where.label != "A1"]


def test_a_narrow_hung_doors_handle_hits_the_tall_unit_beside_it() -> None:
    """Opened square a door of 247 has its handle 207 from the hinge; the tall unit's front stands 230 further out."""
    ((number, what),) = told(beside_tall(250))
    assert number == "A4"
    assert "its handle meets A1; it needs 37 mm there and has 1.5 mm" in what


@pytest.mark.parametrize(("width", "gap"), [(300, 600), (600, 600), (250, 640)])
def test_a_handle_that_clears_the_tall_unit_is_no_snag(width: int, gap: int) -> None:
    """Past the tall unit's front, or with a filler's width between."""
    assert told(beside_tall(width, gap)) == []


def test_the_remedies_help() -> None:
    job = beside_tall(250)
    cell = cell_of(job, "A4")
    assert told(units.set_hand(job, (cell,), "right").job) == []
    assert told(bays.set_front(job, ((cell, ()),), "flap").job) == []
    (snag,) = [s for s in Workings(job).snags if s.rule == "opened" and s.where.label == "A4"]
    assert snag.weight == "mind" and "hinge it at the other side" in snag.remedy


def test_units_of_one_depth_never_hinder_each_others_doors() -> None:
    assert told(with_run(new_job(), "A", Level.BASE, "drawers 300, door 250, door 300, pair 600")) == []


# --- what stands before them


def found(job: Job) -> dict[str, tuple[str, str]]:
    return {s.where.label: (s.what, s.weight) for s in Workings(job).snags if s.rule == "opened"}


def with_island(text: str, y: str, kinds: str = "pair share, pair share") -> Job:
    """A run on wall A and an island whose fronts look at it, in a room 4000 deep; the further up its y, the nearer."""
    job = rooms.set_room_length(new_job(), "r1", "depth", "4000mm").job
    change = add_island(with_run(job, "A", Level.BASE, text), "r1")
    job, island = change.job, change.made[0]
    for key, value in (("angle", "180"), ("x", "3000mm"), ("y", y), ("length", "2500mm"), ("seating", "0mm")):
        job = set_island(job, island, key, value).job
    return with_run(job, "K1", Level.BASE, kinds)


def distance(job: Job) -> float:
    """mm from the fronts on wall A to the fronts of the island."""
    units_made = Workings(job).made.units
    fronts = {p.wall_id: p.frame.floor(0.0, -p.depth - 19.0)[1] for p, _ in units_made}
    return fronts["A"] - fronts["K1"]


@pytest.mark.parametrize(("y", "weight"), [("2100mm", ""), ("2350mm", "mind"), ("2500mm", "mind"), ("2700mm", "wrong")])
def test_a_door_before_an_island_opens_as_far_as_the_gap_lets_it(y: str, weight: str) -> None:
    """The outer arris of a door of 597 meets a handle that stands 32 out of a front d before it at asin((d - 32) / 597)
    at the latest (geometry)."""
    job = with_island("gap 1200, door 600, gap 500", y)
    told_of, d = found(job).get("A1"), distance(job)
    if not weight:
        assert told_of is None and d > 597 + 32
        return
    assert told_of is not None and told_of[1] == weight
    said = float(re.search(r"opens (\d+)°", told_of[0]).group(1))  # type: ignore[union-attr]
    least, most = (math.degrees(math.asin((d - out) / 597.0)) for out in (32.0 + 37.0, 0.0))
    assert least - 5.5 <= said <= most + 0.5


def test_a_drawer_comes_out_to_the_island() -> None:
    job = with_island("gap 1200, drawers 600, gap 500", "2500mm", "drawers share, drawers share")
    d = distance(job)
    (what, weight) = found(job)["A1"]
    said = float(re.search(r"comes out ([\d.]+) mm of 500 mm only", what).group(1))  # type: ignore[union-attr]
    # Its handle, 32 out, meets the other front between two handles there.
    assert said == pytest.approx(d - 32, abs=1.0) and weight == "mind"
    assert "its handle meets K" in what and "So do 2 more" in what
    assert found(job)["K1"][1] == "mind"
    assert "A1" not in found(with_island("gap 1200, drawers 600, gap 500", "2100mm", "drawers share, drawers share"))


def test_what_stands_in_itself_or_lies_behind_is_no_hindrance() -> None:
    """A run that is longer than its wall goes through the next one: that is told by its own rule."""
    job = with_run(new_job(), "A", Level.HUNG, "pair 1200, pair 1200, pair 1200, door 450")
    assert [s.rule for s in Workings(job).snags if s.weight == "wrong"] == ["run length"]


def test_every_filler_that_is_set_out_by_itself_lets_its_fronts_open() -> None:
    """Two runs that meet in a corner: whatever they begin with, the filler is as wide as handles need."""
    for first in ("drawers 600", "pair 800", "door 450", "pullout 300"):
        for second in ("drawers 600", "pair 800", "door 450", "dishwasher 600"):
            job = with_run(new_job(), "A", Level.BASE, f"filler 50, drawers 900, drawers rest, {first}, blind 1100")
            job = with_run(job, "B", Level.BASE, f"{second}, drawers 600")
            assert [s.what for s in Workings(job).snags if s.rule == "opened" and s.where.wall_id == "B"] == []


def test_a_chimney_breast_beside_a_door() -> None:
    job = with_run(new_job(), "A", Level.BASE, "filler 50, door 600, drawers 600")
    assert "A1" not in found(job) and "A2" not in found(job)
    change = add_column(job, "r1", "D", "chimney breast")
    job, column = change.job, change.made[0]
    length = next(w.length for w in Workings(job).layout.rooms[0].walls if w.id == "D")
    # On the wall at the left of wall A, its side 1000 before that: opened square the door's handle meets it.
    for key, value in (("width", "300mm"), ("depth", "40mm"), ("x", f"{length - 1300}mm")):
        job = set_column(job, column, key, value).job
    told_of = found(job)
    assert list(told_of.values()) and "chimney breast" in next(iter(told_of.values()))[0]
    cell = next(s.where.cell for s in Workings(job).snags if s.rule == "opened")
    assert found(units.set_hand(job, (cell,), "right").job) == {}


def test_a_flap_under_something_deeper_does_not_rise() -> None:
    job = with_run(new_job(), "A", Level.HUNG, "gap 600, flap 800")
    assert found(job) == {}


def test_a_door_that_swings_into_the_room_is_kept_clear() -> None:
    job = with_run(new_job(), "A", Level.BASE, "gap 300, drawers 600, door 450")
    change = add_opening(job, "r1", "D", "door")
    job, door = change.job, change.made[0]

    def at(x: float, hand: str) -> Job:
        moved = job
        for key, value in (("width", "900mm"), ("x", f"{x}mm"), ("hand", hand)):
            moved = set_opening(moved, door, key, value).job
        return moved

    close = at(800.0, "left")
    swung = [s for s in Workings(close).snags if "swing" in s.what]
    assert swung and all(s.weight == "mind" for s in swung)
    far = at(100.0, "left")
    assert [s for s in Workings(far).snags if "swing" in s.what] == []
    out = set_opening(close, door, "swing", "out").job
    assert [s for s in Workings(out).snags if "swing" in s.what] == []


def test_a_unit_where_a_door_swings_is_told() -> None:
    job = with_run(new_job(), "A", Level.BASE, "filler 50, drawers 900, drawers 600")
    change = add_opening(job, "r1", "D", "door")
    job, door = change.job, change.made[0]
    length = next(w.length for w in Workings(job).layout.rooms[0].walls if w.id == "D")
    job = set_opening(job, door, "x", f"{length - 1000}mm").job
    assert any(s.what == "It stands where the door in wall D swings." for s in Workings(job).snags)


def test_under_a_slope_a_tall_door_does_not_open() -> None:
    """The ceiling comes down to the wall opposite: a shallow room's tall door meets it on its way."""
    job = with_run(new_job(), "A", Level.TALL, "tall filler 50, tall 600")
    assert found(job) == {}
    job = rooms.set_room_length(job, "r1", "depth", "1500mm").job
    change = add_slope(job, "r1", "C")
    job = set_slope(change.job, change.made[0], "low", "1200mm").job
    job = set_slope(job, change.made[0], "run", "800mm").job
    ((what, _),) = found(job).values()
    assert "the ceiling" in what or "wall C" in what
