"""Several jobs in one plan: every part once under its job's number, its papers, what cannot be cut together."""

from __future__ import annotations

import csv
import json
from pathlib import Path

import msgspec
import pytest

from conftest import with_run
from tall_plank.edits import cutting
from tall_plank.files.plankfile import write_plank
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.shop.nesting import NestBoard, NestPlan
from tall_plank.shop.nesting.nest import nest
from tall_plank.together import Together, read_jobs
from tall_plank.workings import Workings


def job_of(name: str, number: str, text: str) -> Job:
    job = with_run(new_job(name), "A", Level.BASE, text)
    job = cutting.set_cutting(job, "effort", "1").job
    return msgspec.structs.replace(job, number=number)


def two(first: str = "14", second: str = "15") -> Together:
    return Together(
        [
            Workings(job_of("Lamp Row", first, "drawers 600, sink 900")),
            Workings(job_of("Rope Yard", second, "door 450, pair 800")),
        ]
    )


@pytest.fixture(scope="module")
def planned() -> tuple[Together, NestPlan]:
    together = two()
    return together, nest(together.request())


def test_every_part_of_every_job_lies_on_one_plan(planned: tuple[Together, NestPlan]) -> None:
    together, plan = planned
    wanted = sorted(f"{w.job.number}/{p.part}" for w in together.jobs for b in w.plan.boards for p in b.parts)
    assert sorted(p.part for b in plan.boards for p in b.parts) == wanted
    assert any(len({p.part.split("/")[0] for p in b.parts}) == 2 for b in plan.boards)
    apart = sum(len(w.plan.boards) for w in together.jobs)
    assert len(plan.boards) <= apart


def test_a_label_says_its_own_jobs_number(planned: tuple[Together, NestPlan]) -> None:
    together, found = planned
    labels = together.labels(together.plan(found))
    assert {label.job for label in labels} == {"Lamp Row", "Rope Yard"}
    places = {p.part: p for b in found.boards for p in b.parts}
    assert len(labels) == len(places)
    for label in labels:
        number = "14" if label.job == "Lamp Row" else "15"
        place = places.pop(f"{number}/{label.part}")
        assert label.code == f"{number} {label.part}"
        assert label.place is not None and label.place.boxes[label.place.mine] == (
            place.x,
            place.y,
            place.length,
            place.width,
        )


def test_the_papers_of_a_plan_are_written(planned: tuple[Together, NestPlan], tmp_path: Path) -> None:
    together, found = planned
    done = together.write(found, tmp_path / "out")
    written = {p for p in (tmp_path / "out").rglob("*") if p.is_file()}
    papers = {p for p in written if not p.name.startswith(".")}
    assert set(done) == {p for p in papers if p.parent.name != "machine" or p.suffix == ".ngc"}
    # Parts from the saw have their programs, second sides and handwork, each under its own job's number.
    names = {p.stem for p in done if p.suffix == ".ngc"}
    assert {n.split("-")[0] for n in names} == {"14", "15"} and any(n.endswith("-second") for n in names)
    assert {"setup.pdf", "handwork.pdf"} <= {p.name for p in done}
    assert sum(p.suffix == ".dxf" for p in done) == len(found.boards)
    assert json.loads((tmp_path / "out" / "plan.json").read_text())["boards"][0]["placements"]
    rows = list(csv.reader((tmp_path / "out" / "boards.csv").open(encoding="utf-8-sig")))
    assert len(rows) == 1 + len(found.boards)
    assert (tmp_path / "out" / "cutting-plans.pdf").read_bytes().count(b"/Type /Page\n") == len(found.boards)
    told: list[str] = []
    few = together.write(found, tmp_path / "few", lambda name: told.append(name) or len(told) < 3)  # type: ignore[func-returns-value]
    assert len(few) == 2
    (tmp_path / "file").write_text("")
    with pytest.raises(PlankError, match="cannot be written"):
        together.write(found, tmp_path / "file" / "below")


def test_routed_boards_get_their_programs(tmp_path: Path) -> None:
    together = two()
    routed = cutting.set_cutting(together.jobs[0].job, "mode", "router").job
    together = Together([Workings(routed), together.jobs[1]])
    found = nest(together.request())
    done = together.write(found, tmp_path / "out")
    programs = [p for p in done if p.suffix == ".ngc"]
    assert sum(p.stem.startswith("board-") for p in programs) == len(found.boards)
    assert any(p.stem.endswith("-second") for p in programs)


def test_jobs_without_their_own_numbers_go_by_their_names() -> None:
    assert two("", "15").names == ("Lamp Row", "15 Rope Yard")
    assert two("14", "14").names == ("14 Lamp Row", "14 Rope Yard")
    assert two().names == ("14", "15")


def test_what_cannot_be_cut_together_is_named() -> None:
    same = job_of("Lamp Row", "14", "door 450")
    with pytest.raises(PlankError, match="Two jobs are called 14 Lamp Row"):
        Together([Workings(same), Workings(same)]).request()
    other = job_of("Rope Yard", "15", "door 450")
    boards = tuple(msgspec.structs.replace(b, length=b.length - 100) for b in other.stock.boards)
    other = msgspec.structs.replace(other, stock=msgspec.structs.replace(other.stock, boards=boards))
    with pytest.raises(PlankError, match="not so in another job"):
        Together([Workings(same), Workings(other)]).request()


def test_offcuts_of_their_makes_are_cut_first() -> None:
    together = two()
    stock = together.stock
    ply = next(b for b in stock.boards if b.code == "BP18")
    mine = NestBoard("BP18 rack 4", ply.name, 2400.0, 1200.0, qty=1, offcut=True)
    none = NestBoard("SL18 rack 5", "a make that no part has", 2400.0, 1200.0, qty=1, offcut=True)
    request = together.request((mine, none))
    assert [b.board for b in request.boards if b.offcut] == ["BP18 rack 4"]
    plan = nest(request)
    assert "BP18 rack 4" in {b.board for b in plan.boards}
    assert {b.rack for b in together.plan(plan).boards} == {0, 4}


def test_a_job_that_is_gone_is_named(tmp_path: Path) -> None:
    path = tmp_path / "gone.plank"
    with pytest.raises(PlankError, match=r"gone\.plank"):
        read_jobs([path])
    write_plank(job_of("Lamp Row", "14", "door 450"), path)
    assert read_jobs([path])[0].job.name == "Lamp Row"
