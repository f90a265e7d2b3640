"""The words that standards choose from are those of their types, and none else is taken."""

from __future__ import annotations

from pathlib import Path
from typing import get_args, get_type_hints

import msgspec
import pytest

import tall_plank
from tall_plank.edits import units
from tall_plank.edits.clipboard import fitted
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.job import Job
from tall_plank.job.shipped import shipped_standards
from tall_plank.job.standard import CHOICE_KEYS, CHOICES, Construction, construction_from
from tall_plank.job.template import load_template
from tall_plank.job.unit import Own
from tall_plank.measure import PlankError

SHIPPED = Path(tall_plank.__file__).parent / "job/data/templates"


@pytest.mark.parametrize(
    "key", [k for k, hint in get_type_hints(Construction).items() if get_args(hint) and k in CHOICES]
)
def test_every_word_of_a_choice_has_a_name(key: str) -> None:
    assert set(CHOICES[key]) == set(get_args(get_type_hints(Construction)[key]))
    assert key in CHOICE_KEYS


def test_a_word_that_is_none_of_them_is_refused() -> None:
    made = construction_from(shipped_standards()[0])
    with pytest.raises(msgspec.ValidationError):
        msgspec.convert({**msgspec.structs.asdict(made), "overlay": "beside"}, Construction)


def test_a_job_file_with_a_word_that_is_none_of_them_is_refused(job: Job, tmp_path: Path) -> None:
    """By a message; not by a defect when the unit is made."""
    bent = units.set_own(job, (job.cells()[1].id,), "overlay", "inset").job
    unit = next(u for u in bent.units if u.own)
    wrong = msgspec.structs.replace(unit, own=(Own("overlay", "beside"),))
    whole = msgspec.structs.replace(bent, units=tuple(wrong if u.id == unit.id else u for u in bent.units))
    path = tmp_path / "x.plank"
    write_plank(whole, path)
    with pytest.raises(PlankError, match="“beside” is no choice of overlay"):
        read_plank(path)


def test_pasted_units_inherit_what_is_no_word_of_a_choice(job: Job) -> None:
    unit = msgspec.structs.replace(job.units[0], own=(Own("overlay", "beside"), Own("hinges", "3")))
    fit, lost = fitted(job, unit)
    assert [o.key for o in fit.own] == ["hinges"] and lost == ["overlay beside: not known"]


@pytest.mark.parametrize(
    ("line", "told"), [('overlay = "beside"', "Known: full, half, inset"), ('hinges = "9"', "Known: auto, 2")]
)
def test_a_kind_of_ones_own_is_told_its_words(line: str, told: str, tmp_path: Path) -> None:
    text = (SHIPPED / "10-door.toml").read_text()
    path = tmp_path / "mine.toml"
    path.write_text(f"{text}\nown = {{ {line} }}\n")
    with pytest.raises(PlankError) as caught:
        load_template(path)
    assert told in str(caught.value)
    path.write_text(f'{text}\nown = {{ hinges = "3" }}\n')
    assert load_template(path).own == (Own("hinges", "3"),)
