from __future__ import annotations

import csv
import hashlib
import json
import shutil
import subprocess
from pathlib import Path

import pytest
from click.testing import CliRunner, Result

from conftest import with_run
from tall_plank.cli import main
from tall_plank.demo import demo_job
from tall_plank.files.plankfile import write_plank
from tall_plank.job import Level
from tall_plank.job.start import new_job


@pytest.fixture
def demo(tmp_path: Path) -> Path:
    write_plank(demo_job(), tmp_path / "demo.plank")
    return tmp_path / "demo.plank"


def run(*args: object) -> Result:
    return CliRunner().invoke(main, [str(a) for a in args])


def test_demo_writes_its_job(tmp_path: Path) -> None:
    result = run("demo", "--out", tmp_path / "d.plank")
    assert result.exit_code == 0
    assert json.loads(run("tally", tmp_path / "d.plank", "--json").output)["snags"] == 0


def test_measure_prints_mm_and_the_asked_unit() -> None:
    assert run("measure", '(101.25"-6*3")/5', "--to", "in").output.splitlines()[:2] == ["422.91 mm", "16.65 in"]
    wrong = run("measure", '2" * 3"')
    assert wrong.exit_code == 1
    assert "area" in wrong.stderr


def test_tally_of_several_jobs_has_a_total(demo: Path) -> None:
    document = json.loads(run("tally", demo, demo, "--json").output)
    one = document["jobs"][0]
    assert set(one) == {"units", "parts", "boards", "edging_m", "fittings", "price", "currency", "snags"}
    assert document["total"]["parts"] == 2 * one["parts"]
    assert float(document["total"]["price"]) == pytest.approx(2 * float(one["price"]))


def test_parts_come_one_a_line_with_finished_and_cut_sizes(demo: Path, tmp_path: Path) -> None:
    finished, cut = tmp_path / "p.csv", tmp_path / "c.csv"
    assert run("parts", demo, "--out", finished).exit_code == 0
    assert run("parts", demo, "--out", cut, "--cut").exit_code == 0
    rows = list(csv.DictReader(finished.open()))
    assert list(rows[0]) == ["part", "name", "unit", "material", "thickness_mm", "length_mm", "width_mm", "qty", "grain",
                             "edge_L1", "edge_L2", "edge_W1", "edge_W2", "edges_of_outline", "sizes"]  # fmt: skip
    cuts = {r["part"]: r for r in csv.DictReader(cut.open())}
    gable = next(r for r in rows if r["part"] == "A4.1")
    assert (gable["length_mm"], gable["width_mm"]) == ("730", "560")
    assert cuts["A4.1"]["width_mm"] == "559.5"
    assert len(rows) == json.loads(run("tally", demo, "--json").output)["parts"]


def test_hardware_has_the_columns_of_the_verb(demo: Path, tmp_path: Path) -> None:
    assert run("hardware", demo, "--out", tmp_path / "h.csv").exit_code == 0
    rows = list(csv.DictReader((tmp_path / "h.csv").open()))
    assert list(rows[0]) == ["code", "name", "qty", "unit_price", "supplier", "units"]


def test_snags_end_with_1(tmp_path: Path, demo: Path) -> None:
    assert run("snags", demo).exit_code == 0
    job = with_run(new_job(), "A", Level.BASE, "pair 1200, pair 1200, pair 1200, door 450")
    write_plank(job, tmp_path / "short.plank")
    result = run("snags", tmp_path / "short.plank", "--json")
    assert result.exit_code == 1
    found = json.loads(result.stdout)
    assert found[0]["rule"] == "run length"


def test_package_and_offer(demo: Path, tmp_path: Path) -> None:
    assert run("offer", demo, "--out", tmp_path / "o.pdf").exit_code == 0
    assert (tmp_path / "o.pdf").read_bytes().startswith(b"%PDF")
    assert run("package", demo, "--dir", tmp_path / "all").exit_code == 0
    names = {str(p.relative_to(tmp_path / "all")) for p in (tmp_path / "all").rglob("*.*")}
    assert {
        "contents.pdf", "saw/cut-list.csv", "lists/schedules.xlsx", "client/drawings.pdf", "saw/cutting-plans.pdf",
        "models/room1-model.glb", "router/setup.pdf", "router/handwork.pdf", "shop/labels.pdf",
    } <= names  # fmt: skip


def test_bad_files_and_wrong_use(tmp_path: Path, demo: Path) -> None:
    (tmp_path / "x.plank").write_text("no")
    result = run("tally", tmp_path / "x.plank")
    assert result.exit_code == 1
    assert "Traceback" not in result.output
    assert run("tally").exit_code == 2
    assert run("frobnicate").exit_code == 2
    assert run("offer", demo, "--out", tmp_path / "o.doc").exit_code == 1
    assert run("parts", demo, "--out", tmp_path / "no" / "folder.csv").exit_code == 1


def test_files_are_named_from_where_the_caller_of_the_checkout_stands(tmp_path: Path) -> None:
    """`plank run` with an environment that only says where it was started."""
    home, other = tmp_path / "checkout", tmp_path / "elsewhere"
    (home / ".venv" / "bin").mkdir(parents=True)
    other.mkdir()
    script = shutil.copy(Path(__file__).parents[1] / "plank", home / "plank")
    for name in ("requirements.lock", "pyproject.toml"):
        (home / name).write_text(name)
    stamp = b"".join((home / n).read_bytes() for n in ("requirements.lock", "pyproject.toml", "plank"))
    (home / ".venv" / ".stamp-run").write_text(hashlib.sha256(stamp).hexdigest())
    python = home / ".venv" / "bin" / "python"
    python.write_text('#!/bin/sh\npwd\necho "$@"\n')
    python.chmod(0o755)
    done = subprocess.run(
        [script, "run", "tally", "my job.plank"], cwd=other, capture_output=True, text=True, check=True
    )
    assert done.stdout.splitlines() == [str(other.resolve()), "-m tall_plank tally my job.plank"]
