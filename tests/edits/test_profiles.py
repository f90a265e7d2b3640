"""Own profiles in the job's stock."""

from __future__ import annotations

from decimal import Decimal

import msgspec
import pytest

from tall_plank.edits.profiles import add_profile
from tall_plank.edits.things.molding import add_molding, set_molding
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.job import Job
from tall_plank.measure import PlankError
from tall_plank.setout import set_out
from tall_plank.stock import Profile

OWN = Profile(
    "own-70", " Our cornice ", ("cornice",), ((12.0, 0.0), (18.0, 6.0, 0.1), (18.0, 64.0), (12.0, 70.0), (0.0, 60.0), (0.0, 10.0)),
    2400.0, "harbor-white", spring=45.0,
)  # fmt: skip


def test_it_is_offered_priced_and_survives_save_and_open(empty_job: Job, tmp_path) -> None:  # type: ignore[no-untyped-def]
    job = add_profile(empty_job, OWN, "6,40").job
    job = add_molding(job, "r1", "cornice").job
    job = set_molding(job, job.rooms[0].moldings[0].id, "profile", "OWN-70").job
    write_plank(job, tmp_path / "own.plank")
    again = read_plank(tmp_path / "own.plank")
    assert again == job
    profile = again.stock.profile("OWN-70")
    assert profile is not None and profile.name == "Our cornice" and profile.spring == 45.0
    assert next(r.price for r in again.price_book().rows if r.code == "OWN-70") == Decimal("6.40")
    assert {p.profile for p in set_out(again).rooms[0].moldings} == {"OWN-70"}
    # Set at its spring angle it is lower than it is wide on its back, and it stands out further.
    assert profile.height < 70.0 and profile.depth > 18.0


@pytest.mark.parametrize(
    ("more", "price", "where"),
    [
        ({"name": " "}, "", "name"), ({"code": "a b"}, "", "code"), ({"code": ""}, "", "code"),
        ({"code": "mp-skirt-95"}, "", "code"), ({"uses": ()}, "", "uses"), ({"uses": ("hat",)}, "", "uses"),
        ({"length": 20.0}, "", "length"), ({}, "free", "price"), ({}, "-1", "price"), ({}, "nan", "price"),
        ({"points": ((0.0, 0.0), (10.0, 10.0), (10.0, 0.0), (0.0, 10.0))}, "", "profile OWN-70"),
        ({"points": ((0.0, 0.0), (10.0, 0.0, 3.0), (10.0, 10.0))}, "", "profile OWN-70"),
    ],
)  # fmt: skip
def test_what_no_profile_may_have_is_told_at_its_place(
    empty_job: Job, more: dict[str, object], price: str, where: str
) -> None:
    with pytest.raises(PlankError) as error:
        add_profile(empty_job, msgspec.structs.replace(OWN, **more), price)
    assert error.value.where == where
