"""What making needs without being asked for: the stock fills roles, and a stock that lacks one says so."""

from __future__ import annotations

from typing import get_args

import msgspec
import pytest

from conftest import cell_of, with_run
from tall_plank.edits import bays, fittings, units
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making import MadeUnit
from tall_plank.stock import shipped_stock
from tall_plank.stock.models import FittingRole
from tall_plank.workings import Workings

ROLES = [role for role in get_args(FittingRole) if role]


def wardrobe(job: Job) -> Job:
    job = with_run(job, "A", Level.BASE, "wardrobe 1200")
    cell = cell_of(job, "A1")
    job = bays.join_bay(job, cell, ()).job
    return bays.set_front(job, ((cell, ()),), "none").job


def with_rail(job: Job) -> Job:
    job = wardrobe(job)
    bay = job.units[0].bay
    return job if bay.fittings else fittings.add_fitting(job, cell_of(job, "A1"), (), "RL-25").job


def fronted(kind: str, text: str) -> Job:
    job = with_run(new_job(), "A", Level.BASE, text)
    cell = cell_of(job, "A1")
    return bays.set_front(bays.set_shelves(job, cell, (), "0").job, ((cell, ()),), kind).job


def glazed() -> Job:
    job = with_run(new_job(), "A", Level.BASE, "door 600")
    return units.set_own(job, (cell_of(job, "A1"),), "front_style", "glazed").job


NEEDS = {
    "rail socket": lambda: with_rail(new_job()),
    "rail bracket": lambda: with_rail(new_job()),
    "bifold set": lambda: fronted("bifold", "pair 800"),
    "pocket set": lambda: fronted("pocket", "door 450"),
    "glazing bead": glazed,
    "grille": lambda: with_run(new_job(), "A", Level.BASE, "fridge housing 600"),
}
"""Role -> a job whose first unit needs it."""


def unit_of(job: Job) -> MadeUnit:
    made = Workings(job).made.of(cell_of(job, "A1"))
    assert made is not None
    return made


def test_every_role_is_filled_once_by_the_shipped_stock() -> None:
    assert set(NEEDS) == set(ROLES)
    for role in ROLES:
        assert sum(f.role == role for f in shipped_stock().fittings) == 1


@pytest.mark.parametrize("role", ROLES)
def test_whatever_fills_a_role_is_bought_under_its_own_name(role: FittingRole) -> None:
    job = NEEDS[role]()
    fittings = tuple(
        msgspec.structs.replace(f, code="OWN-1", name="Our own") if f.role == role else f for f in job.stock.fittings
    )
    job = msgspec.structs.replace(job, stock=msgspec.structs.replace(job.stock, fittings=fittings))
    unit = unit_of(job)
    assert not unit.problems and "OWN-1" in {i.code for i in unit.items}
    assert {h.name for h in Workings(job).hardware if h.code == "OWN-1"} == {"Our own"}


@pytest.mark.parametrize("role", ROLES)
def test_a_stock_that_lacks_it_is_a_snag(role: FittingRole) -> None:
    job = NEEDS[role]()
    fittings = tuple(f for f in job.stock.fittings if f.role != role)
    job = msgspec.structs.replace(job, stock=msgspec.structs.replace(job.stock, fittings=fittings))
    snags = [s for s in Workings(job).snags if role in s.what]
    assert snags and all(s.weight == "wrong" and role in s.remedy for s in snags)
    assert all(h.name != h.code for h in Workings(job).hardware), "nothing is ordered without a name"
