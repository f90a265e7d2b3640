"""Verbs given what makes no sense, or more than can be done: a plain line, an exit code, nothing written."""

from __future__ import annotations

import os
from pathlib import Path

import pytest
from click.testing import CliRunner, Result

from tall_plank import cli
from tall_plank.cli import main
from tall_plank.files.plankfile import write_plank
from tall_plank.job.start import new_job
from tall_plank.shop.simulator import LONGEST_ARC, run_program


@pytest.fixture(autouse=True)
def a_home_of_its_own(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    for key in ("CONFIG", "STATE", "DATA"):
        monkeypatch.setenv(f"XDG_{key}_HOME", str(tmp_path / "home" / key))


def told(*words: str) -> Result:
    result = CliRunner().invoke(main, words)
    assert result.exception is None or isinstance(result.exception, SystemExit), result.exception
    return result


def written(folder: Path, name: str, text: str) -> str:
    (folder / name).write_text(text)
    return str(folder / name)


@pytest.mark.parametrize("kerf", ["nan", "inf", "-inf", "-1", "1e9", "x"])
def test_a_kerf_that_is_none_is_wrong_use(tmp_path: Path, kerf: str) -> None:
    pieces = written(tmp_path, "p.csv", "piece,length_mm,qty,profile\nA,900,2,P\n")
    stock = written(tmp_path, "s.csv", "profile,length_mm,price\nP,3000,10\n")
    out = tmp_path / "out.json"
    result = told("bars", "--pieces", pieces, "--stock", stock, "--out", str(out), "--kerf", kerf)
    assert result.exit_code == 2 and not out.exists()
    assert "range" in result.output or "no number" in result.output


@pytest.mark.parametrize("given", [("--seed", "-5"), ("--seed", "9" * 30), ("--seconds", "nan"), ("--effort", "12")])
def test_options_of_a_search_have_limits(tmp_path: Path, given: tuple[str, str]) -> None:
    parts = written(tmp_path, "p.csv", "part,length_mm,width_mm,qty,material\nA,900,300,2,M\n")
    boards = written(tmp_path, "b.csv", "board,material,length_mm,width_mm\nX,M,2800,2070\n")
    out = tmp_path / "out.json"
    assert told("nest", "--parts", parts, "--boards", boards, "--out", str(out), *given).exit_code == 2
    assert not out.exists()


def test_more_parts_than_can_be_laid_out_are_refused_before_work_starts(tmp_path: Path) -> None:
    rows = "A,900,300,100000,M\nB,800,300,100000,M\n"
    parts = written(tmp_path, "p.csv", f"part,length_mm,width_mm,qty,material\n{rows}")
    boards = written(tmp_path, "b.csv", "board,material,length_mm,width_mm\nX,M,2800,2070\n")
    result = told("nest", "--parts", parts, "--boards", boards, "--out", str(tmp_path / "o.json"), "--seconds", "1")
    assert result.exit_code == 1 and "200,000 parts are too many" in result.output
    pieces = written(tmp_path, "q.csv", "piece,length_mm,qty,profile\nA,900,100000,P\n")
    stock = written(tmp_path, "s.csv", "profile,length_mm,price\nP,3000,10\n")
    result = told("bars", "--pieces", pieces, "--stock", stock, "--out", str(tmp_path / "o.json"))
    assert result.exit_code == 1 and "100,000 pieces are too many" in result.output


@pytest.mark.parametrize(
    ("row", "said"),
    [
        ("A,1e-9,300,1,M,", "no number"), ("A,0.0000001,300,1,M,", "out of range"), ("A,nan,300,1,M,", "no number"),
        ("A,500,300,1,M,0 0; nan 0; 0 5", "no point"), ("A,500,300,1,M,0 0; 5000 0; 0 3000", "larger than 500 x 300"),
        ("A,500,300,1,M,0 0; 500 300; 500 0; 0 300", "crosses itself"), ("A,500,300,100001,M,", "no whole number"),
    ],
)  # fmt: skip
def test_rows_of_a_list_that_make_no_sense_are_named(tmp_path: Path, row: str, said: str) -> None:
    text = f"part,length_mm,width_mm,qty,material,outline\n{row}\nB,500,300,1,M,\n"
    parts = written(tmp_path, "p.csv", text)
    boards = written(tmp_path, "b.csv", "board,material,length_mm,width_mm\nX,M,2800,2070\n")
    out = tmp_path / "out.json"
    result = told("nest", "--parts", parts, "--boards", boards, "--out", str(out), "--effort", "1")
    assert result.exit_code == 1 and "row 2" in result.output and said in result.output
    assert out.exists()  # the rest is planned


@pytest.mark.parametrize("board", ["nan,1,1", "1e-9,1,1", "1e9,1,1", "600,400", "inf,inf,inf", "a,b,c", "-600,400,19"])
def test_a_board_that_is_none_is_wrong_use(tmp_path: Path, board: str) -> None:
    program = written(tmp_path, "p.ngc", "G21 G90\nM2\n")
    assert told("check-program", program, "--board", board).exit_code == 2


def test_an_arc_of_a_kilometre_and_a_place_on_the_moon_end_the_program() -> None:
    from tall_plank.shop.machine.model import shipped_machine

    head = "G21 G90 G17\nT1 M6\nS18000 M3\nG1 X0 Y0 Z10 F3000\n"
    for line, said in (
        (f"G2 X0 Y0 I{LONGEST_ARC} J0 F4000", "m long"),
        ("G1 X9e9 F4000", "not known"),
        ("G1 X99999999 F1", "reach"),
    ):
        run = run_program(f"{head}{line}\nM2\n", shipped_machine(), (600.0, 400.0, 19.0))
        assert any(said in f.what for f in run.faults), run.faults
        assert len(run.moves) <= 2


def test_a_defect_is_one_line_and_a_trace_in_the_log(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    write_plank(new_job(), tmp_path / "a.plank")

    def broken(_: Path) -> None:
        raise ZeroDivisionError("a defect")

    monkeypatch.setattr(cli, "load", broken)
    result = told("tally", str(tmp_path / "a.plank"))
    assert result.exit_code == 3
    assert "has a fault (ZeroDivisionError)" in result.output and "Traceback" not in result.output
    log = tmp_path / "home" / "STATE" / "tall-plank" / "log.txt"
    assert str(log) in result.output and "a defect" in log.read_text()


def test_a_home_that_cannot_be_written_stops_no_verb(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    write_plank(new_job(), tmp_path / "a.plank")
    for key in ("CONFIG", "STATE", "DATA"):
        monkeypatch.setenv(f"XDG_{key}_HOME", "/proc/nowhere")
    assert told("tally", str(tmp_path / "a.plank")).exit_code == 0
    assert told("parts", str(tmp_path / "a.plank"), "--out", str(tmp_path / "p.csv")).exit_code == 0
    assert told("parts", str(tmp_path / "a.plank"), "--out", "/proc/nowhere/p.csv").exit_code == 1


def test_a_window_without_a_display_is_told_in_a_line(monkeypatch: pytest.MonkeyPatch) -> None:
    for key in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM"):
        monkeypatch.delenv(key, raising=False)
    result = told()
    assert result.exit_code == 1 and "no display" in result.output
    assert os.environ.get("DISPLAY") is None
