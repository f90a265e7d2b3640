"""Drawer boxes: where their runners are screwed on, behind fronts of every kind."""

from __future__ import annotations

import itertools

import pytest

from conftest import cell_of, with_run
from tall_plank.edits import bays, standards
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making import MadeUnit
from tall_plank.making.drawers import INNER_SETBACK
from tall_plank.making.parts import Bore
from tall_plank.workings import Workings


def made(job: Job) -> MadeUnit:
    found = Workings(job).made.of(cell_of(job, "A1"))
    assert found is not None and found.problems == ()
    return found


def from_front(job: Job, unit: MadeUnit) -> set[float]:
    """How far behind the front edge of the carcass the runners are screwed on, mm."""
    depth = unit.spec.depth
    return {
        round(p.frame.at(op.x, op.y, 0.0)[1] + depth, 3)
        for p in unit.parts
        for op in p.operations
        if isinstance(op, Bore) and op.use == "runner"
    }


def of_runners(job: Job, unit: MadeUnit, back: float) -> set[float]:
    codes = {i.code for i in unit.items}
    (runner,) = [f for f in job.stock.fittings if f.kind == "runner" and f.code in codes]
    return {round(hole.dx + back, 3) for hole in runner.holes}


@pytest.mark.parametrize("overlay", ["full", "half", "inset"])
def test_runners_start_at_the_front_edge_or_behind_a_front_that_is_set_in(overlay: str) -> None:
    job = standards.set_in_force(new_job(), "overlay", overlay).job
    job = with_run(job, "A", Level.BASE, "drawers 600")
    unit = made(job)
    back = unit.spec.made.front_thickness if overlay == "inset" else 0.0
    assert from_front(job, unit) == of_runners(job, unit, back)


@pytest.mark.parametrize(("overlay", "kind"), list(itertools.product(["full", "inset"], ["door", "pair"])))
def test_inner_drawers_stand_back_once(overlay: str, kind: str) -> None:
    """Behind a door the runners begin 15 mm behind the edge, or behind the back of a door that is set in."""
    job = standards.set_in_force(new_job(), "overlay", overlay).job
    job = with_run(job, "A", Level.BASE, f"{kind} 600")
    cell = cell_of(job, "A1")
    job = bays.set_shelves(job, cell, (), "0").job
    job = bays.split_bay(job, cell, (), "300 share", "rows", "nothing").job
    job = bays.set_front(job, ((cell, (0,)), (cell, (1,))), "inner").job
    unit = made(job)
    assert len(unit.drawers) == 2
    back = INNER_SETBACK + (unit.spec.made.front_thickness if overlay == "inset" else 0.0)
    assert from_front(job, unit) == of_runners(job, unit, back)
    sides = [p for p in unit.parts if p.name.endswith("left side")]
    assert {round(p.frame.origin[1] + unit.spec.depth, 3) for p in sides} == {back}
