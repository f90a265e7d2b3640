"""A second package in the same folder leaves no program of a part that is no more, and touches nothing of others."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from conftest import with_run
from tall_plank.files.record import RECORD, earlier, note, of_others, recorded, take_away
from tall_plank.job import Level
from tall_plank.job.start import new_job
from tall_plank.package import write_package
from tall_plank.workings import Workings


def files(folder: Path) -> set[str]:
    return {str(p.relative_to(folder)) for p in folder.rglob("*") if p.is_file()}


def test_a_second_package_takes_the_first_ones_rest_away(tmp_path: Path) -> None:
    many = Workings(with_run(new_job(), "A", Level.BASE, "drawers 600, door 450"))
    few = Workings(with_run(new_job(), "A", Level.BASE, "door 450"))
    write_package(many, tmp_path)
    before = files(tmp_path)
    (tmp_path / "router" / "programs" / "own.ngc").write_text("mine")
    (tmp_path / "notes.txt").write_text("mine")
    changed = next(n for n in sorted(before) if n.startswith("router/programs/A1.") and n.endswith(".ngc"))
    (tmp_path / changed).write_text("changed at the machine")
    write_package(few, tmp_path)
    alone = tmp_path.parent / "alone"
    write_package(few, alone)
    # Only what this job has, what others laid there, and what somebody changed.
    assert files(tmp_path) == files(alone) | {"router/programs/own.ngc", "notes.txt", changed}
    assert before - files(tmp_path), "the first one had more"


def test_a_package_that_was_stopped_takes_nothing_away(tmp_path: Path) -> None:
    w = Workings(with_run(new_job(), "A", Level.BASE, "drawers 600"))
    write_package(w, tmp_path)
    before = files(tmp_path)
    told: list[str] = []
    write_package(w, tmp_path, lambda name: told.append(name) or len(told) < 4)  # type: ignore[func-returns-value]
    assert files(tmp_path) == before
    # And the record still knows all of it.
    assert set(earlier(tmp_path, w.title)) == before - {RECORD}


@pytest.mark.parametrize(
    "text",
    [
        "",
        "no json",
        "[]",
        '{"files": 3}',
        '{"files": {"a": 1}}',
        '{"files": {"a": {"b": 1}}}',
        '{"files": {"a": {"../x": [1, 2], "/etc/x": [1, 2]}}',
    ],
)
def test_a_record_that_cannot_be_read_or_leaves_its_folder_is_none(tmp_path: Path, text: str) -> None:
    (tmp_path / RECORD).write_text(text)
    assert earlier(tmp_path, "a") == {}


def test_nothing_outside_the_folder_is_taken_away(tmp_path: Path) -> None:
    folder, other = tmp_path / "in", tmp_path / "out.txt"
    folder.mkdir()
    other.write_text("x")
    (folder / "link").symlink_to(other)
    inside = folder / "deep" / "er" / "a.txt"
    inside.parent.mkdir(parents=True)
    inside.write_text("a")
    note(folder, "a", ["link", "deep/er/a.txt", "never.txt"], {})
    known = json.loads((folder / RECORD).read_text())["files"]["a"]
    assert set(known) == {"link", "deep/er/a.txt"}
    assert take_away(folder, earlier(folder, "a"), []) == ["link"]
    assert other.read_text() == "x" and not (folder / "deep").exists()


def test_what_another_job_wrote_into_the_folder_stays(tmp_path: Path) -> None:
    (tmp_path / "one.txt").write_text("1")
    note(tmp_path, "job 1", ["one.txt"], {})
    (tmp_path / "two.txt").write_text("2")
    recorded(tmp_path, "job 2", [tmp_path / "two.txt"], earlier(tmp_path, "job 2"), whole=True)
    assert (tmp_path / "one.txt").exists()
    recorded(tmp_path, "job 1", [], earlier(tmp_path, "job 1"), whole=True)
    assert not (tmp_path / "one.txt").exists() and (tmp_path / "two.txt").exists()
    assert set(earlier(tmp_path, "job 2")) == {"two.txt"}


def test_what_an_older_program_noted_without_a_job_is_taken_up_by_the_next_one(tmp_path: Path) -> None:
    for name in ("old.ngc", "kept.csv"):
        (tmp_path / name).write_text(name)
    states = {n: ((tmp_path / n).stat().st_size, (tmp_path / n).stat().st_mtime_ns) for n in ("old.ngc", "kept.csv")}
    (tmp_path / RECORD).write_text(json.dumps({"files": states}))
    assert set(earlier(tmp_path, "job")) == {"old.ngc", "kept.csv"}
    recorded(tmp_path, "job", [tmp_path / "kept.csv"], earlier(tmp_path, "job"), whole=True)
    assert not (tmp_path / "old.ngc").exists()
    assert set(earlier(tmp_path, "job")) == {"kept.csv"} and earlier(tmp_path, "another") == {}


def test_what_lies_there_under_another_name_of_a_job_is_told(tmp_path: Path) -> None:
    job = with_run(new_job("Before"), "A", Level.BASE, "drawers 600, door 450")
    write_package(Workings(job), tmp_path)
    assert of_others(tmp_path, "Before") == ""
    again = Workings(with_run(new_job("After"), "A", Level.BASE, "door 450"))
    write_package(again, tmp_path)
    # Its lists are written over; the programs of what is no more are named, not taken away.
    told = of_others(tmp_path, again.title)
    left = len(earlier(tmp_path, "Before"))
    assert left > 0 and f"{left} files" in told and "Before" in told
    for name in earlier(tmp_path, "Before"):
        (tmp_path / name).unlink()
    assert of_others(tmp_path, again.title) == ""
