"""Doors that open square beside something deeper."""

from __future__ import annotations

import pytest

from conftest import cell_of, with_run
from tall_plank.edits import bays, units
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.workings import Workings


def beside_tall(width: int, gap: int = 600) -> Job:
    job = with_run(new_job(), "A", Level.BASE, "tall 600, drawers 600, drawers 900")
    return with_run(job, "A", Level.HUNG, f"gap {gap}, door {width}, pair 600")


def told(job: Job) -> list[tuple[str, str]]:
    return [(s.where.label, s.what) for s in Workings(job).snags if s.rule == "opened"]


def test_a_narrow_hung_doors_handle_hits_the_tall_unit_beside_it() -> None:
    """Opened square a door of 247 has its handle 207 from the hinge; the tall unit's front stands 230 further out."""
    ((number, what),) = told(beside_tall(250))
    assert number == "A4"
    assert "32 mm out" in what and "A1 leaves 1.5 mm" in what


@pytest.mark.parametrize(("width", "gap"), [(300, 600), (600, 600), (250, 640)])
def test_a_handle_that_clears_the_tall_unit_is_no_snag(width: int, gap: int) -> None:
    """Past the tall unit's front, or with a filler's width between."""
    assert told(beside_tall(width, gap)) == []


def test_the_remedies_help() -> None:
    job = beside_tall(250)
    cell = cell_of(job, "A4")
    assert told(units.set_hand(job, (cell,), "right").job) == []
    assert told(bays.set_front(job, ((cell, ()),), "flap").job) == []
    (snag,) = [s for s in Workings(job).snags if s.rule == "opened"]
    assert snag.weight == "mind" and "hinge it at the other side" in snag.remedy


def test_units_of_one_depth_never_hinder_each_others_doors() -> None:
    assert told(with_run(new_job(), "A", Level.BASE, "drawers 300, door 250, door 300, pair 600")) == []
