"""Money is finite and inside sense, in files and boxes alike."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from conftest import with_run
from tall_plank.edits.jobs import set_percent
from tall_plank.files.plankfile import job_bytes, job_from_bytes
from tall_plank.job import Level
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.measure.limits import LIMITS
from tall_plank.stock.library import DATA, load_stock
from tall_plank.workings import Workings

PERCENT = LIMITS["Pricing"]
WRONG = ["NaN", "sNaN", "Infinity", "-Infinity", "-1", "1E+50", "-0.01"]


def spoiled(path: tuple[object, ...], value: str) -> bytes:
    """A job file with one value put in by another hand."""
    document = json.loads(job_bytes(with_run(new_job(), "A", Level.BASE, "door 600")))
    at = document["job"]
    for step in path[:-1]:
        at = at[step]
    assert path[-1] in at or isinstance(path[-1], int)
    at[path[-1]] = value
    return json.dumps(document).encode()


BOOK = ("stock", "prices", 0)
PLACES = [
    *((*BOOK, key) for key in ("labor_rate", "delivery", "board_waste_percent", "edging_waste_percent")),
    (*BOOK, "rows", 2, "price"), (*BOOK, "rows", 2, "pack"), (*BOOK, "rows", 2, "least_qty"),
    (*BOOK, "labor", 1, "minutes"),
    *(("pricing", key) for key in PERCENT),
]  # fmt: skip


@pytest.mark.parametrize("value", WRONG)
@pytest.mark.parametrize("path", PLACES, ids=lambda p: str(p[-1]))
def test_a_job_file_with_impossible_money_is_refused_at_its_place(path: tuple[object, ...], value: str) -> None:
    with pytest.raises(PlankError) as error:
        job_from_bytes(spoiled(path, value), "job.plank")
    assert str(path[-1]) in str(error.value) or "damaged" in str(error.value)


@pytest.mark.parametrize("key", PERCENT)
@pytest.mark.parametrize("text", ["nan", "inf", "-1", "1e50", "100000", "", "lots"])
def test_a_typed_percentage_is_refused(key: str, text: str) -> None:
    with pytest.raises(PlankError):
        set_percent(new_job(), key, text)


def test_at_the_limits_there_is_a_price() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 600")
    for key, span in PERCENT.items():
        job = set_percent(job, key, str(span.most)).job
    net = Workings(job).price.net
    assert net.is_finite()
    again = job_from_bytes(job_bytes(job), "job.plank")
    assert Workings(again).price.net == net


@pytest.mark.parametrize("value", ["NaN", "-2", "1E+50"])
@pytest.mark.parametrize("key", ["labor_rate", "board_waste_percent"])
def test_a_stock_file_with_impossible_money_names_its_row(tmp_path: Path, key: str, value: str) -> None:
    import shutil

    shutil.copytree(DATA, tmp_path / "stock")
    (book,) = (tmp_path / "stock" / "prices").glob("*.toml")
    lines = [f'{key} = "{value}"' if x.startswith(f"{key} ") else x for x in book.read_text().splitlines()]
    book.write_text("\n".join(lines))
    with pytest.raises(PlankError) as error:
        load_stock(tmp_path / "stock")
    assert key in str(error.value)
