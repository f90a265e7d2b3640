"""What hangs in a unit from the worktop over it: sinks and hobs are boxes with depth."""

from __future__ import annotations

import msgspec
import pytest

from conftest import with_run
from tall_plank.edits import bays, tops
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.workings import Workings

STANDARDS = [s.code for s in new_job().standards]


def of(text: str, standard: str = "quay-dowelled") -> Job:
    return with_run(msgspec.structs.replace(new_job(), standard=standard), "A", Level.BASE, text)


@pytest.mark.parametrize("standard", STANDARDS)
@pytest.mark.parametrize("width", range(600, 1201, 75))
def test_a_hob_hangs_between_standing_rails(standard: str, width: int) -> None:
    """At 900 it reached into both flat rails."""
    w = Workings(of(f"hob {width}", standard))
    ((_, made),) = w.made.units
    assert made.parts, [p.what for p in made.problems]
    (top,) = w.layout.rooms[0].worktops
    (cut,) = top.cutouts
    front, rear = -(top.rear + cut.back + cut.depth), -(top.rear + cut.back)
    for name in ("front rail", "rear rail"):
        (rail,) = [p for p in made.parts if p.name == name]
        ys = [rail.frame.at(0.0, 0.0, z)[1] for z in (0.0, rail.thickness)]
        assert max(ys) <= front + 2.0 + 1e-6 or min(ys) >= rear - 2.0 - 1e-6, (name, ys, front, rear)


@pytest.mark.parametrize("standard", STANDARDS)
def test_a_shelf_under_a_bowl_leaves_it_its_depth_or_the_unit_is_refused(standard: str) -> None:
    made_at, refused = [], []
    for count in range(7):
        job = of("sink 900", standard)
        cell = job.cells()[0].id
        try:
            job = bays.set_shelves(job, cell, (), str(count)).job
        except PlankError as error:  # refused where it is typed, with what to do
            assert error.remedy
            refused.append(count)
            continue
        w = Workings(job)
        ((placed, made),) = w.made.units
        bowl = 870.0 - 200.0 - placed.bottom  # a bowl 200 deep in a worktop whose face is 870 above the floor
        if made.parts:
            shelves = [p.frame.origin[2] + p.thickness for p in made.parts if p.role == "shelf"]
            assert all(z <= bowl + 0.06 for z in shelves)
            made_at.append(count)
        else:
            told = [p.what for p in made.problems]
            assert any("stands where the sink" in t or "here is room for" in t for t in told), told
            assert all(p.place is None or p.parts for p in made.problems)
            refused.append(count)
    assert made_at and refused


def test_a_cut_out_by_hand_asks_for_nothing_below() -> None:
    job = of("door 600, pair rest")
    source = Kind.RUN.of(job.rooms[0].runs[0].id)
    job = tops.add_cut(job, source, "1000 200 400 300").job
    assert all(m.parts for _, m in Workings(job).made.units)


def test_another_unit_under_the_same_bowl_is_asked_too() -> None:
    """A neighbour's gable where a wide bowl reaches over it: told at the neighbour."""
    job = of("door 300, sink 600, door 300")
    wide = tuple(
        msgspec.structs.replace(a, width=540.0, cut_width=700.0, cut_depth=400.0) if a.kind == "sink" else a
        for a in job.stock.appliances
    )
    job = msgspec.structs.replace(job, stock=msgspec.structs.replace(job.stock, appliances=wide))
    w = Workings(job)
    # Too wide to go between the gables: its unit says so, nothing is cut, and nobody else is asked.
    told = [[p.what for p in m.problems] for _, m in w.made.units]
    assert not told[0] and not told[2]
    assert any("let in 700 mm wide" in t for t in told[1])
