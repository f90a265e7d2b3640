"""What all tests share: hypothesis profiles, a small job, folders of their own."""

from __future__ import annotations

import os
from collections import Counter
from collections.abc import Iterable
from pathlib import Path

import pytest
from hypothesis import HealthCheck, settings

from tall_plank.edits import runs, runtext
from tall_plank.files.userdata import Autosave, UserFolders
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making import MadeUnit
from tall_plank.making.job import make_one
from tall_plank.setout import set_out

settings.register_profile(
    "repeat", derandomize=True, deadline=None, max_examples=60, suppress_health_check=[HealthCheck.too_slow]
)
settings.register_profile("search", deadline=None, max_examples=600, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile(os.environ.get("HYPOTHESIS_PROFILE", "repeat"))

BASE_TEXT = "filler 50, drawers 600, sink 900, dishwasher 600, door 450, open rest"
HUNG_TEXT = "pair 900, gap 900, door share, door share, open 300"


def with_run(job: Job, wall: str, level: Level, text: str) -> Job:
    """The job with a typed run on a wall."""
    change = runs.add_run(job, "r1", wall, level)
    return runtext.type_run(change.job, change.made[0], text).job


def made_alone(job: Job, cell: str) -> MadeUnit:
    """A placed unit made by itself, whatever stands beside it."""
    made = make_one(job, set_out(job), cell)
    assert made is not None
    return made


def cell_of(job: Job, number: str) -> str:
    """Id of the cell with a unit number."""
    return next(c.id for c in job.cells() if c.number == number)


@pytest.fixture
def empty_job() -> Job:
    return new_job("Test job")


@pytest.fixture
def job() -> Job:
    """One wall of 3600 with a base run and a hung run."""
    return with_run(with_run(new_job("Test job"), "A", Level.BASE, BASE_TEXT), "A", Level.HUNG, HUNG_TEXT)


@pytest.fixture
def folders(tmp_path: Path) -> UserFolders:
    return UserFolders(tmp_path / "config", tmp_path / "state")


def killed(autosave: Autosave) -> None:
    """As the end of its program leaves it: the system lets the lock go, its files lie there."""
    handle = autosave._lock._handle
    assert handle is not None
    os.close(handle)
    autosave._lock._handle = None


def numbers_counted(told: Iterable[str]) -> Counter[str]:
    """How often each number of a part stands on a list, on which alike pieces of a wall field are told as 5 x 4AN1.3."""
    counts: Counter[str] = Counter()
    for number in told:
        many, sign, head = number.partition(" x ")
        counts[head if sign else number.partition("-")[0]] += int(many) if sign else 1
    return counts
