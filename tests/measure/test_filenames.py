"""Nothing that a job says becomes a path."""

from __future__ import annotations

import re
from pathlib import Path

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.measure.filenames import file_name, file_names
from tall_plank.package import write_package
from tall_plank.papers.labelprinter import LabelPrinter
from tall_plank.papers.labels import labels_of
from tall_plank.workings import Workings

HOSTILE = [
    "../../x",
    "/etc/passwd",
    "..",
    ".",
    "",
    "a/b",
    "a\\b",
    "con",
    "NUL.txt",
    "x" * 500,
    "ä" * 300,
    "\x00\n",
    " . ",
    "~root",
]


@pytest.mark.parametrize("text", HOSTILE)
def test_a_name_stays_in_its_folder(text: str) -> None:
    name = file_name(text)
    assert name and Path(name).name == name and name not in (".", "..")
    assert not name.startswith(".") and len(name.encode()) <= 255
    assert not re.search(r"[/\\\x00-\x1f]", name)


@given(st.text(max_size=200))
def test_any_text_becomes_a_name(text: str) -> None:
    name = file_name(text)
    assert name and Path(name).name == name and (Path("/a") / name).parent == Path("/a")
    assert file_name(name) == name


@given(st.lists(st.text(max_size=6), max_size=12))
def test_names_of_their_own(texts: list[str]) -> None:
    names = file_names(texts)
    assert set(names) == set(texts)
    assert len({n.lower() for n in names.values()}) == len(set(texts))


def numbered(job: Job, numbers: list[str]) -> Job:
    """The job as a file could say it: its units with any numbers."""
    room = job.rooms[0]
    left = list(numbers)
    runs = tuple(
        msgspec.structs.replace(
            run, cells=tuple(msgspec.structs.replace(c, number=left.pop(0) if left else c.number) for c in run.cells)
        )
        for run in room.runs
    )
    return msgspec.structs.replace(job, rooms=(msgspec.structs.replace(room, runs=runs), *job.rooms[1:]))


def test_a_package_writes_nothing_outside_its_folder(tmp_path: Path) -> None:
    job = numbered(with_run(new_job(), "A", Level.BASE, "door 450, door 450, open 300"), ["../../x", "a/b", "a-b"])
    w = Workings(job)
    folder = tmp_path / "deep" / "er" / "all"
    done = write_package(w, folder)
    assert all(p.resolve().is_relative_to(folder) for p in done)
    assert {p for p in tmp_path.rglob("*") if p.is_file() and not p.is_relative_to(folder)} == set()
    # Units whose numbers come to one name keep a file each.
    programs = {p.name for p in done if p.suffix == ".ngc"}
    files = w.machine_files
    assert len(programs) == len(files.programs) + len(files.second)
    printed = LabelPrinter(tmp_path / "printer").print_labels(labels_of(w))
    assert all(p.parent == tmp_path / "printer" for p in printed)


def test_names_that_differ_by_their_case_are_two_files() -> None:
    """A folder on another system may not tell a and A apart."""
    assert list(file_names(["a", "A", "a/b", "A-b"]).values()) == ["a", "A (2)", "a-b", "A-b (2)"]
