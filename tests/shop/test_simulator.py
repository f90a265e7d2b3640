"""The simulated machine: each thing that can go wrong is found, and nothing where nothing is wrong."""

from __future__ import annotations

import msgspec
import pytest

from tall_plank.shop.machine.model import Clamp, shipped_machine
from tall_plank.shop.simulator import run_program

MACHINE = shipped_machine()
BOARD = (400.0, 300.0, 18.0)
PART = [("door", [(50, 50), (350, 50), (350, 250), (50, 250)], [[(150, 120), (200, 120), (200, 160), (150, 160)]])]
START = "G21 G90 G17\nG0 Z40\nT11 M6\nS18000 M3\n"


def faults(body: str, **more) -> list[tuple[int, str]]:  # type: ignore[no-untyped-def]
    machine = msgspec.structs.replace(MACHINE, clamps=more.pop("clamps", ()))
    run = run_program(START + body + "\nG0 Z40\nM5\nM2\n", machine, BOARD, more.pop("parts", PART))
    return [(f.line, f.kind) for f in run.faults]


def test_a_good_program_has_no_fault_and_takes_its_time() -> None:
    body = "G0 X44 Y44\nG0 Z20\nG1 Z-0.4 F2000\nG1 X356 F6000\nG1 Y256\nG1 X44\nG1 Y44"
    run = run_program(START + body + "\nG0 Z40\nM5\nM2\n", MACHINE, BOARD, PART)
    assert run.faults == []
    cut = 2 * (312 + 212) / 6000 * 60
    assert cut + MACHINE.tool_change_seconds < run.seconds < cut + MACHINE.tool_change_seconds + 3
    assert float(run.heights[200, 44]) < 0
    assert float(run.heights[200, 150]) == 18.0


@pytest.mark.parametrize(
    ("body", "line", "kind"),
    [
        ("G0 X44 Y44\nG0 Z20\nG1 Z-3 F2000", 7, "depth"),
        ("G0 X44 Y44\nG0 Z10", 6, "rapid"),
        ("G0 X44 Y44\nG1 Z-0.4 F2000\nG0 X300", 7, "rapid"),
        ("G0 X44 Y44\nG1 Z-0.4 F2000\nG1 Y60\nG1 X100", 8, "part"),
        ("G0 X100 Y60\nG1 Z2 F2000\nG1 X120", 0, ""),  # a pocket with 2 mm left below it
        ("G0 X5000 Y44", 5, "travel"),
        ("G0 Z500", 5, "travel"),
        ("T77 M6\nS9000 M3\nG0 X44 Y44\nG1 Z5 F900", 5, "tool"),
        ("M5\nG0 X44 Y44\nG1 Z10 F900", 7, "spindle"),
        ("T3 M6\nS6000 M3\nG0 X44 Y44\nG1 Z5 F900\nG1 X60", 9, "tool"),
        ("T10 M6\nS9000 M3\nG0 X44 Y44\nG1 Z-0.4 F900\nG1 Z0 F900", 0, ""),
        ("T9 M6\nS9000 M3\nG0 X44 Y44\nG1 Z-0.4 F900", 8, "depth"),
    ],
)
def test_what_goes_wrong_is_told_at_its_line(body: str, line: int, kind: str) -> None:
    found = faults(body)
    if line:
        assert (line, kind) in found
    else:
        assert found == []


def test_a_tool_shorter_than_the_cut_is_told() -> None:
    short = msgspec.structs.replace(
        MACHINE, tools=tuple(msgspec.structs.replace(t, length=10.0) for t in MACHINE.tools)
    )
    run = run_program(START + "G0 X20 Y20\nG1 Z2 F900\nG0 Z40\nM2\n", short, BOARD)
    assert [f.kind for f in run.faults] == ["depth"]


def test_a_clamp_is_met_only_below_its_height() -> None:
    clamps = (Clamp(380.0, 0.0, 40.0, 40.0, 30.0),)
    assert faults("G0 X390 Y10\nG0 Z29", clamps=clamps, parts=())[0] == (6, "clamp")
    assert faults("G0 X390 Y10\nG0 Z31", clamps=clamps, parts=()) == []


def test_an_opening_may_be_cut_out_of_a_part() -> None:
    inside = "G0 X175 Y140\nG0 Z20\nG1 Z-0.4 F900\nG1 X190 F2000"
    assert faults(inside) == []
    assert (8, "part") in faults(inside.replace("X190", "X215"))


@pytest.mark.parametrize(
    ("line", "what"),
    [
        ("G1 X10 Q5", "letter Q is not known"),
        ("G0 G1 X10", "of one group"),
        ("M3 M5", "of one group"),
        ("G38.2 Z5", "not known here"),
        ("G1 X10 X20 F100", "two X words"),
        ("G1 X1O", "is no word"),
        ("(a comment (in another)) G0 X1", "a comment"),
        ("G18", "only G17"),
        ("M4", "backwards"),
        ("G2 X10 Y0 F500", "neither I, J nor R"),
        ("G2 X0 Y0 R10 F500", "ends where it starts"),
        ("G2 X10 Y0 I3 J0 F500", "radii of an arc differ"),
        ("G2 X100 Y0 R10 F500", "does not reach"),
        ("G0 X" + "1" * 260, "longer than 256"),
        ("T1.5", "whole number"),
        ("X10", "axes without a motion"),
    ],
)
def test_words_that_are_none_of_the_language_end_the_program(line: str, what: str) -> None:
    run = run_program("G21 G90\n" + line + "\nG0 Z10\nM2\n", MACHINE, BOARD)
    assert run.faults[0].line == 2 and run.faults[0].kind == "language"
    assert what in run.faults[0].what
    assert not [m for m in run.moves if m.line == 3]


def test_a_cut_without_a_feed_and_a_program_without_an_end_are_told() -> None:
    assert "without a feed" in run_program("G1 X10\nM2\n", MACHINE, BOARD).faults[0].what
    assert "M2 or M30" in run_program("G0 X10\n", MACHINE, BOARD).faults[0].what
    assert run_program("%\nG0 X10\n%\n", MACHINE, BOARD).faults == []
    # Nothing after the end is run.
    assert run_program("G0 X10\nM30\nG0 X9000\n", MACHINE, BOARD).faults == []


def test_inches_and_steps_from_where_it_stands() -> None:
    run = run_program("G20 G91\nG0 X1 Y2\nG0 X1\nM2\n", MACHINE, BOARD)
    assert run.moves[-1].end[:2] == pytest.approx((50.8, 50.8))


def test_case_blanks_and_comments_do_not_matter() -> None:
    run = run_program("g21 g90 (set up)\nN10 g 0 x 1 0 y - 5\nm2\n", MACHINE, BOARD)
    assert run.faults == []
    assert run.moves[-1].end[:2] == (10.0, -5.0)


def test_a_pocket_leaves_the_wood_below_it() -> None:
    body = "G0 X100 Y100\nG0 Z20\nG1 Z10 F900\nG1 X200 F4000\nG1 Y110\nG1 X100"
    run = run_program(START + body + "\nG0 Z40\nM2\n", MACHINE, BOARD)
    assert run.faults == []
    assert float(run.heights[150, 105]) == 10.0
    assert float(run.heights[150, 125]) == 18.0
