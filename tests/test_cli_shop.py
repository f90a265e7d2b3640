"""The headless verbs of the shop: plain lists in, JSON out, rows that are wrong named and the rest planned."""

from __future__ import annotations

import csv
import json
from pathlib import Path

import msgspec
import pytest
from click.testing import CliRunner, Result

from conftest import with_run
from tall_plank.cli import main
from tall_plank.demo import demo_job
from tall_plank.files.plankfile import write_plank
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job

PARTS = "part,length_mm,width_mm,qty,material,grain,note\ndoor,716,597,4,ply,length,x\nshelf,564,540,6,ply,none,\n"
BOARDS = "board,material,length_mm,width_mm,price,qty\nSHEET,ply,2500,1250,60,\n"


def run(*args: object) -> Result:
    return CliRunner().invoke(main, [str(a) for a in args])


def lists(tmp_path: Path, parts: str = PARTS, boards: str = BOARDS) -> tuple[Path, Path, Path]:
    (tmp_path / "p.csv").write_text(parts)
    (tmp_path / "b.csv").write_text(boards)
    return tmp_path / "p.csv", tmp_path / "b.csv", tmp_path / "plan.json"


def nested(tmp_path: Path, *more: object, parts: str = PARTS, boards: str = BOARDS) -> tuple[Result, dict]:  # type: ignore[type-arg]
    p, b, out = lists(tmp_path, parts, boards)
    result = run("nest", "--parts", p, "--boards", b, "--out", out, "--effort", "2", *more)
    return result, json.loads(out.read_text()) if out.exists() else {}


def test_plain_lists_give_a_plan(tmp_path: Path) -> None:
    result, plan = nested(tmp_path)
    assert result.exit_code == 0, result.output
    placed = [p["part"] for b in plan["boards"] for p in b["placements"]]
    assert sorted(placed) == ["door"] * 4 + ["shelf"] * 6
    area = sum(p["length_mm"] * p["width_mm"] for b in plan["boards"] for p in b["placements"])
    assert plan["yield"] == pytest.approx(area / sum(b["length_mm"] * b["width_mm"] for b in plan["boards"]), abs=1e-6)
    assert {"board", "length_mm", "width_mm", "placements"} <= set(plan["boards"][0])
    assert {"part", "x", "y", "length_mm", "width_mm", "turned", "angle"} == set(plan["boards"][0]["placements"][0])
    assert plan["unplaced"] == []
    again = nested(tmp_path)[1]
    assert again["boards"] == plan["boards"]


def test_rows_that_are_wrong_are_named_and_the_rest_is_planned(tmp_path: Path) -> None:
    parts = PARTS + "side,long,300,1,ply,none,\n,720,300,1,ply,none,\nback,-5,300,1,ply,none,\nlid,400,300,1.5,ply,,\n"
    parts += "top,400,300,1,ply,cross,\nlid2,400,300,1,ply,,\n"
    result, plan = nested(tmp_path, parts=parts)
    assert result.exit_code == 1
    for told in ("row 4: length_mm “long” is no number", "row 5: part is empty", "row 6: length_mm -5 is out of range",
                 "row 7: qty 1.5 is no whole number", "row 8: grain “cross”"):  # fmt: skip
        assert told in result.output
    assert "lid2" in {p["part"] for b in plan["boards"] for p in b["placements"]}


def test_what_fits_nowhere_is_named_and_ends_with_1(tmp_path: Path) -> None:
    result, plan = nested(tmp_path, parts=PARTS + "long,3000,300,2,ply,none,\noak,300,300,1,oak,none,\n")
    assert result.exit_code == 1
    assert {(u["part"], u["qty"]) for u in plan["unplaced"]} == {("long", 2), ("oak", 1)}
    assert "long (2): 3000 x 300 is larger than every board" in result.output


@pytest.mark.parametrize("rules", [("--mode", "router"), ("--turns", "2"), ("--kerf", "0"), ("--first-cut", "across")])
def test_rules_are_taken(tmp_path: Path, rules: tuple[str, str]) -> None:
    result, plan = nested(tmp_path, *rules)
    assert result.exit_code == 0
    assert sum(len(b["placements"]) for b in plan["boards"]) == 10


def test_a_list_may_ask_for_pieces_end_to_end(tmp_path: Path) -> None:
    head = "part,length_mm,width_mm,qty,material,grain,match,match_way\n"
    rows = "low,300,500,1,ply,length,stack,end\nhigh,200,500,1,ply,length,stack,END\n"
    result, plan = nested(tmp_path, parts=head + rows)
    assert result.exit_code == 0
    by = {p["part"]: p for p in plan["boards"][0]["placements"]}
    assert by["high"]["y"] == by["low"]["y"]
    assert by["high"]["x"] == pytest.approx(by["low"]["x"] + 300.0 + 3.2)
    result, _ = nested(tmp_path, parts=head + rows + "odd,300,500,1,ply,length,stack,up\n")
    assert result.exit_code == 1 and "row 4: match_way “up” is neither side nor end" in result.output


def test_an_outline_is_read_and_a_bad_one_named(tmp_path: Path) -> None:
    head = "part,length_mm,width_mm,qty,material,grain,outline\n"
    result, plan = nested(tmp_path, "--mode", "router", parts=head + "w,800,400,1,ply,none,0 0; 800 0; 0 400\n")
    assert result.exit_code == 0
    assert plan["boards"][0]["placements"][0]["length_mm"] in (800.0, 400.0)
    assert "is no point" in nested(tmp_path, parts=head + "w,800,400,1,ply,none,0 0; 8\n")[0].output


@pytest.mark.parametrize(
    ("parts", "boards", "told"),
    [
        ("part,width_mm,qty,material\n", BOARDS, "no column “length_mm”"),
        (PARTS, "board,material,length_mm\nS,ply,2500\n", "no column “width_mm”"),
        ("", BOARDS, "no column"),
    ],
)
def test_a_list_without_its_columns_is_refused(tmp_path: Path, parts: str, boards: str, told: str) -> None:
    result, plan = nested(tmp_path, parts=parts, boards=boards)
    assert result.exit_code == 1
    assert told in result.output
    assert plan == {}


def test_wrong_use_ends_with_2(tmp_path: Path) -> None:
    p, b, out = lists(tmp_path)
    assert run("nest", "--parts", p, "--out", out).exit_code == 2
    assert run("nest", "--parts", p, "--boards", b, "--out", out, "--kerf", "wide").exit_code == 2
    assert run("nest", "--parts", p, "--boards", b, "--out", out, "--effort", "12").exit_code == 2
    assert run("bars", "--out", out).exit_code == 2


def test_ten_thousand_rows_are_planned_within_their_seconds(tmp_path: Path) -> None:
    rows = [f"P{i},{300 + i % 400},{150 + i % 300},1,ply,none," for i in range(10_000)]
    result, plan = nested(tmp_path, "--seconds", "3", parts=PARTS + "\n".join(rows) + "\n")
    assert result.exit_code == 0, result.output
    assert sum(len(b["placements"]) for b in plan["boards"]) == 10_010


def test_lengths_are_cut_from_bars(tmp_path: Path) -> None:
    (tmp_path / "p.csv").write_text("piece,length_mm,qty,profile\npost,1100,4,rail\nlong,9000,1,rail\nodd,x,1,rail\n")
    (tmp_path / "s.csv").write_text("profile,length_mm,price\nrail,2400,\nrail,4800,\n")
    out = tmp_path / "bars.json"
    result = run("bars", "--pieces", tmp_path / "p.csv", "--stock", tmp_path / "s.csv", "--out", out)
    assert result.exit_code == 1
    plan = json.loads(out.read_text())
    assert plan["proven"] is True
    assert sum(b["length_mm"] for b in plan["bars"]) == 4800
    assert [p["length_mm"] for b in plan["bars"] for p in b["pieces"]] == [1100.0] * 4
    assert plan["unplaced"][0]["piece"] == "long"
    assert "row 4: length_mm “x” is no number" in result.output


def test_a_job_is_planned_from_its_own_stock(tmp_path: Path) -> None:
    path, out = tmp_path / "demo.plank", tmp_path / "plan.json"
    write_plank(demo_job(), path)
    result = run("nest", path, "--out", out, "--effort", "2")
    assert result.exit_code == 0, result.output
    plan = json.loads(out.read_text())
    tally = json.loads(run("tally", path, "--json").output)
    placed = [p["part"] for b in plan["boards"] for p in b["placements"]]
    assert len(placed) == len(set(placed))
    assert len(plan["boards"]) <= tally["boards"]
    # The list of parts that the verb writes can be planned too.
    parts = tmp_path / "parts.csv"
    run("parts", path, "--cut", "--out", parts)
    boards = {(b["board"], b["material"], b["length_mm"], b["width_mm"]) for b in plan["boards"]}
    (tmp_path / "b.csv").write_text(
        "board,material,length_mm,width_mm\n" + "".join(f"{a},{m},{x},{y}\n" for a, m, x, y in boards)
    )
    result = run("nest", "--parts", parts, "--boards", tmp_path / "b.csv", "--out", out, "--effort", "1")
    assert "no board of" in result.output or result.exit_code == 0
    assert run("bars", path, "--out", out).exit_code == 0


def test_several_jobs_are_planned_together(tmp_path: Path, job: Job) -> None:
    """Two jobs on the same boards need no more of them than each alone; each part is named by its job."""
    paths, alone = [], 0
    for name in ("Quay", "Loft"):
        path, out = tmp_path / f"{name}.plank", tmp_path / "plan.json"
        write_plank(msgspec.structs.replace(job, name=name, number=""), path)
        paths.append(path)
        assert run("nest", path, "--out", out, "--effort", "2").exit_code == 0
        alone += len(json.loads(out.read_text())["boards"])
    result = run("nest", *paths, "--out", out, "--effort", "2")
    assert result.exit_code == 0, result.output
    plan = json.loads(out.read_text())
    placed = [p["part"] for b in plan["boards"] for p in b["placements"]]
    assert len(placed) == len(set(placed))
    assert sum(p.startswith("Quay/") for p in placed) == sum(p.startswith("Loft/") for p in placed) == len(placed) / 2
    assert len(plan["boards"]) < alone
    assert any(len({p["part"].split("/")[0] for p in b["placements"]}) == 2 for b in plan["boards"])


def test_jobs_that_do_not_go_together_are_refused(tmp_path: Path, job: Job) -> None:
    path, other, out = tmp_path / "a.plank", tmp_path / "b.plank", tmp_path / "plan.json"
    write_plank(job, path)
    write_plank(job, other)
    result = run("nest", path, other, "--out", out)
    assert result.exit_code == 1 and "Two jobs are called" in result.output
    boards = tuple(msgspec.structs.replace(b, length=b.length + 300) for b in job.stock.boards)
    stock = msgspec.structs.replace(job.stock, boards=boards)
    write_plank(msgspec.structs.replace(job, name="Loft", stock=stock), other)
    result = run("nest", path, other, "--out", out)
    assert result.exit_code == 1 and "Take the same board into both jobs" in result.output
    assert not out.exists()


def test_a_program_is_checked_on_the_simulated_machine(tmp_path: Path) -> None:
    (tmp_path / "good.ngc").write_text("G21 G90\nG0 Z40\nT11 M6\nS18000 M3\nG0 X44 Y44\nG1 Z10 F900\nG0 Z40\nM2\n")
    (tmp_path / "bad.ngc").write_text(
        "G21 G90\nG0 Z40\nT11 M6\nS18000 M3\nG0 X44 Y44\nG1 Z-0.4 F900\nG1 X200 Y200\nM2\n"
    )
    (tmp_path / "o.json").write_text(
        '{"parts": [{"part": "door", "outline": [[60, 60], [300, 60], [300, 250], [60, 250]]}]}'
    )
    good = run("check-program", tmp_path / "good.ngc", "--board", "400,300,18", "--json")
    assert good.exit_code == 0
    assert json.loads(good.output)["faults"] == []
    bad = run("check-program", tmp_path / "bad.ngc", "--parts", tmp_path / "o.json", "--board", "400,300,18")
    assert bad.exit_code == 1
    assert "line 7: part: cuts into the finished part door" in bad.output
    assert run("check-program", tmp_path / "good.ngc", "--board", "400,300").exit_code == 2
    (tmp_path / "o.json").write_text('{"parts": [{"part": "door", "outline": [[60, 60], [300]]}]}')
    told = run("check-program", tmp_path / "good.ngc", "--parts", tmp_path / "o.json", "--board", "400,300,18")
    assert told.exit_code == 1 and "no pair of numbers" in told.output


def test_the_lists_of_a_package_are_fed_to_the_saw(tmp_path: Path) -> None:
    """Its own parts in cut sizes on its own boards: all are placed again, on no more boards."""
    from tall_plank.package import write_package
    from tall_plank.workings import Workings

    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 800, sink 900, door 450")
    w = Workings(job)
    write_package(w, tmp_path / "papers")
    parts, boards, out = (
        tmp_path / "papers" / "saw" / "parts-cut.csv",
        tmp_path / "papers" / "saw" / "boards.csv",
        tmp_path / "o.json",
    )
    result = run("nest", "--parts", parts, "--boards", boards, "--out", out, "--effort", "3")
    plan = json.loads(out.read_text())
    assert "parts-cut.csv: cut sizes" in result.output and "edging" not in result.output
    placed = [p["part"] for b in plan["boards"] for p in b["placements"]]
    wanted = [i.number for i in w.made.parts()]
    on_boards = {p.part for b in w.plan.boards for p in b.parts}
    assert set(placed) == on_boards and len(placed) == len(on_boards) <= len(wanted)
    assert len(plan["boards"]) <= len(w.plan.boards)


def test_finished_sizes_for_the_saw_are_told(tmp_path: Path) -> None:
    path = tmp_path / "job.plank"
    write_plank(with_run(new_job(), "A", Level.BASE, "drawers 600"), path)
    finished, cut, boards, out = (tmp_path / n for n in ("f.csv", "c.csv", "b.csv", "o.json"))
    assert run("parts", path, "--out", finished).exit_code == 0
    assert run("parts", path, "--cut", "--out", cut).exit_code == 0
    rows = [list(csv.DictReader(p.open())) for p in (finished, cut)]
    assert {r["sizes"] for r in rows[0]} == {"finished"} and {r["sizes"] for r in rows[1]} == {"cut"}
    boards.write_text("board,material,length_mm,width_mm,price\n" + "".join(
        f"{i},{m},2800,2070,\n" for i, m in enumerate(sorted({r["material"] for r in rows[0]}))))  # fmt: skip
    told = run("nest", "--parts", finished, "--boards", boards, "--out", out, "--effort", "1")
    assert "f.csv: finished sizes" in told.output
    edged = sum(bool(r["edge_L1"] or r["edge_L2"] or r["edge_W1"] or r["edge_W2"]) for r in rows[0])
    assert f"{edged} rows have edging" in told.output and edged > 5 and told.exit_code == 0
    told = run("nest", "--parts", cut, "--boards", boards, "--out", out, "--effort", "1")
    assert "c.csv: cut sizes" in told.output and "edging" not in told.output
    plain = tmp_path / "p.csv"
    plain.write_text("part,length_mm,width_mm,qty,material\nA,600,400,1,M\n")
    boards.write_text("board,material,length_mm,width_mm\nB,M,2800,2070\n")
    told = run("nest", "--parts", plain, "--boards", boards, "--out", out)
    assert "not said whether cut or finished" in told.output and "edging" not in told.output


def test_parts_and_hardware_are_written_as_their_ending_says(tmp_path: Path) -> None:
    from openpyxl import load_workbook

    path = tmp_path / "job.plank"
    write_plank(with_run(new_job(), "A", Level.BASE, "drawers 600"), path)
    for verb in ("parts", "hardware"):
        book = tmp_path / f"{verb}.xlsx"
        assert run(verb, path, "--out", book).exit_code == 0
        assert load_workbook(book).worksheets[0].max_row > 5
        refused = run(verb, path, "--out", tmp_path / f"{verb}.txt")
        assert refused.exit_code == 1 and ".csv, .xlsx or .pdf" in refused.output
        assert not (tmp_path / f"{verb}.txt").exists()
