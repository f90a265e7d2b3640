"""Every kind of file says its kind and number; every one that was ever written is read; steps keep their own data."""

from __future__ import annotations

import json
import re
import shutil
import sqlite3
import zipfile
from pathlib import Path

import pytest

from tall_plank.demo import demo_job
from tall_plank.edits.clipboard import copy_cells, paste, read_clip
from tall_plank.edits.library import place_saved, read_saved, save_run
from tall_plank.files.plankfile import job_bytes, json_schema, read_plank, write_plank
from tall_plank.files.rack import Rack
from tall_plank.files.standards import read_standard, standard_toml
from tall_plank.formats.envelope import Format, brought_up
from tall_plank.formats.table import CLIPBOARD, FORMATS, JOB, LIBRARY, MACHINE, RACK, STANDARD
from tall_plank.job import Job
from tall_plank.job.standard import LENGTH_KEYS
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.shop.machine.model import load_machine
from tall_plank.workings import Workings

DATA = Path(__file__).parent / "data"
DOCS = Path(__file__).parents[2] / "docs"
WORDS = {JOB: "job", LIBRARY: "library", CLIPBOARD: "clipboard", STANDARD: "standard", MACHINE: "machine", RACK: "rack"}
"""Kind -> the first word of its kept files."""


@pytest.mark.parametrize("kind", FORMATS, ids=lambda f: f.kind)
def test_a_file_of_every_number_is_kept(kind: Format) -> None:
    numbers = {int(m[1]) for p in DATA.iterdir() if (m := re.match(rf"{WORDS[kind]}-(\d+)", p.name))}
    before = set(range(1, kind.number)) if kind.number > 1 else {1}
    assert before <= numbers <= {*before, kind.number}


def test_steps_documents_and_schema_end_in_the_same_number() -> None:
    text = (DOCS / "file-format.md").read_text(encoding="utf-8")
    for kind in FORMATS:
        assert f"| `{kind.kind}` | {kind.number} |" in text, f"{kind.word}: docs/file-format.md names another number"
    assert json.loads(job_bytes(new_job()))["format"] == JOB.number
    assert f"Format {JOB.number} (from {JOB.number - 1})" in text
    assert (DOCS / "job.schema.json").read_bytes().strip() == json_schema().strip()


@pytest.mark.parametrize("path", sorted(DATA.glob("job-*.plank")), ids=lambda p: p.name)
def test_a_kept_job_is_read_made_and_written_again(path: Path, tmp_path: Path) -> None:
    job = read_plank(path)
    works = Workings(job)
    assert not [s for s in works.snags if s.rule == "making" and "The stock has no" in s.what]
    assert all(h.name != h.code for h in works.hardware), "nothing is ordered without a name"
    write_plank(job, tmp_path / "again.plank")
    assert read_plank(tmp_path / "again.plank") == job


@pytest.mark.parametrize("path", sorted(DATA.glob("job-*.plank")), ids=lambda p: p.name)
def test_no_step_reads_what_ships_today(path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """A shipped price, board or value that changes tomorrow changes no job of yesterday."""
    before = read_plank(path)
    from tall_plank.job import shipped, start
    from tall_plank.stock import library

    def none(*_: object) -> object:
        raise AssertionError("a step asked for what ships today")

    for module, name in (
        (shipped, "shipped_standard"),
        (shipped, "shipped_standards"),
        (library, "shipped_stock"),
        (start, "shipped_stock"),
        (start, "shipped_standard"),
    ):
        monkeypatch.setattr(module, name, none)
    assert read_plank(path) == before


@pytest.mark.parametrize("path", sorted(DATA.glob("library-*.json")), ids=lambda p: p.name)
def test_a_kept_library_entry_is_placed(path: Path, job: Job) -> None:
    saved = read_saved(path.read_text(encoding="utf-8"))
    change = place_saved(job, path.read_text(encoding="utf-8"), "r1", "C", None, "")
    assert len(change.job.cells()) == len(job.cells()) + sum(len(r.run.cells) for r in saved.runs)
    assert Workings(change.job).made is not None


@pytest.mark.parametrize("path", sorted(DATA.glob("clipboard-*.json")), ids=lambda p: p.name)
def test_what_was_once_copied_is_pasted(path: Path, job: Job) -> None:
    text = path.read_text(encoding="utf-8")
    change = paste(job, text, "r1", "C")
    assert len(change.made) == len(read_clip(text).units) > 0
    assert Workings(change.job).made is not None


@pytest.mark.parametrize("path", sorted(DATA.glob("standard-*.toml")), ids=lambda p: p.name)
def test_a_shops_own_standard_is_never_locked_out(path: Path, tmp_path: Path) -> None:
    standard = read_standard(path)
    assert standard.code == "slip-cam"
    again = tmp_path / "again.toml"
    again.write_text(standard_toml(standard), encoding="utf-8")
    assert read_standard(again).values() == standard.values()
    # What the file said stays; only what it lacked was added.
    said = re.findall(r'^(\w+) = "([^"]*)"', path.read_text(encoding="utf-8"), flags=re.M)
    for key, text in said:
        if key in LENGTH_KEYS:
            assert standard.values()[key].text == text, key  # type: ignore[union-attr]


@pytest.mark.parametrize("path", sorted(DATA.glob("machine-*.toml")), ids=lambda p: p.name)
def test_a_kept_machine_is_read(path: Path) -> None:
    assert load_machine(path).tools


def test_a_kept_rack_is_read_and_gets_its_number(tmp_path: Path) -> None:
    path = tmp_path / "rack.sqlite"
    shutil.copy(DATA / "rack-1.sqlite", path)
    assert [(p.board, p.length, p.width) for p in Rack(path).pieces()] == [("BP18", 800.0, 400.0)] * 2
    with sqlite3.connect(path) as db:
        assert db.execute("PRAGMA user_version").fetchone() == (RACK.number,)
        db.execute(f"PRAGMA user_version = {RACK.number + 1}")
    with pytest.raises(PlankError, match="newer Tall Plank"):
        Rack(path).pieces()


def newer(kind: Format) -> dict[str, object]:
    return {"kind": kind.kind, "format": kind.number + 1}


@pytest.mark.parametrize("kind", FORMATS, ids=lambda f: f.kind)
def test_a_newer_foreign_or_numberless_file_is_named(kind: Format) -> None:
    for raw, says in (
        (newer(kind), "newer Tall Plank"),
        ({"kind": "tall-ship", "format": 1}, "This is no"),
        ({"kind": kind.kind, "format": "one"}, "no format number"),
        ({"kind": kind.kind, "format": True}, "no format number"),
        ({"kind": kind.kind, "format": 0}, "no format number"),
    ):
        with pytest.raises(PlankError, match=says):
            brought_up(dict(raw), kind, "a file")


def test_a_newer_file_is_refused_by_every_reader(job: Job, tmp_path: Path) -> None:
    run = job.rooms[0].runs[0]
    for text, kind, read in (
        (save_run(job, run.id, "Run"), LIBRARY, read_saved),
        (copy_cells(job, (run.cells[1].id,)), CLIPBOARD, read_clip),
    ):
        assert read(text) is not None
        with pytest.raises(PlankError, match="newer Tall Plank"):
            read(json.dumps({**json.loads(text), "format": kind.number + 1}))
    path = tmp_path / "s.toml"
    text = standard_toml(job.active_standard())
    path.write_text(text.replace(f"format = {STANDARD.number}", f"format = {STANDARD.number + 1}"), encoding="utf-8")
    with pytest.raises(PlankError, match="newer Tall Plank"):
        read_standard(path)


def test_a_standard_of_today_has_to_be_whole(tmp_path: Path) -> None:
    """Only files without a number are completed."""
    path = tmp_path / "s.toml"
    lines = standard_toml(new_job().active_standard()).splitlines()
    path.write_text("\n".join(line for line in lines if not line.startswith("gap_side")), encoding="utf-8")
    with pytest.raises(PlankError, match="gap_side"):
        read_standard(path)


def test_the_job_of_the_demo_says_its_kind(tmp_path: Path) -> None:
    write_plank(demo_job(), tmp_path / "demo.plank")
    with zipfile.ZipFile(tmp_path / "demo.plank") as archive:
        raw = json.loads(archive.read("job.json"))
    assert (raw["kind"], raw["format"]) == (JOB.kind, JOB.number)
