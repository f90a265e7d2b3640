"""Programs against the description of RS-274/NGC (Kramer, Proctor, Messina: The NIST RS274NGC Interpreter, NISTIR 6556,
2000; from memory)."""

from __future__ import annotations

import math

import pytest

from tall_plank.shop.machine.model import shipped_machine
from tall_plank.shop.simulator import run_program, words_of

MACHINE = shipped_machine()


def test_an_arc_by_its_radius_turns_about_the_middle_that_the_description_gives() -> None:
    """G2 X10 Y0 R10 from 0, 0 turns about (5, -8.660254); R below 0 is the arc of more than 180 degrees."""
    for radius, center, sweep in ((10.0, (5.0, -8.660254), math.pi / 3), (-10.0, (5.0, 8.660254), 5 * math.pi / 3)):
        run = run_program(f"G21 G90\nG0 X0 Y0 Z50\nG2 X10 Y0 R{radius:g} F600\nM2\n", MACHINE, (50.0, 50.0, 18.0))
        assert run.faults == []
        arc = [m for m in run.moves if m.line == 3]
        for move in arc:
            assert math.dist(move.end[:2], center) == pytest.approx(10.0, abs=1e-6)
        assert sum(m.length for m in arc) == pytest.approx(10.0 * sweep, rel=0.01)


def test_full_circles_by_their_centre_go_all_round() -> None:
    run = run_program("G21 G90\nG0 X10 Y0 Z50\nG3 X10 Y0 I-10 J0 F600\nM2\n", MACHINE, (50.0, 50.0, 18.0))
    assert sum(m.length for m in run.moves if m.line == 3) == pytest.approx(2 * math.pi * 10.0, rel=0.01)


def test_words_of_a_line_as_the_description_reads_them() -> None:
    assert words_of("n0020 g0 x +0. 12 34y 7(comment)") == [("N", 20.0), ("G", 0.0), ("X", 0.1234), ("Y", 7.0)]
    assert words_of("g1 x.5 y-.25") == [("G", 1.0), ("X", 0.5), ("Y", -0.25)]


def test_radii_of_an_arc_may_differ_by_two_thousandths_of_a_millimetre() -> None:
    for off, wrong in ((0.001, False), (0.02, True)):
        run = run_program(f"G21 G90\nG0 X0 Y0 Z50\nG2 X{20 + off:g} Y0 I10 J0 F600\nM2\n", MACHINE, (50.0, 50.0, 18.0))
        assert bool(run.faults) is wrong
