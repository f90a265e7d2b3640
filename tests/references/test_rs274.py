"""Programs against the description of RS-274/NGC (Kramer, Proctor, Messina: The NIST RS274NGC Interpreter, NISTIR 6556,
2000; from memory)."""

from __future__ import annotations

import math

import msgspec
import pytest

from shop.test_machine_words import made_on
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


# --- programs as a general-purpose parser reads them


def parsed(text: str) -> list[tuple[str, float, dict[str, float]]]:
    """Every word with its letters, as a general-purpose reader of G-code gives them."""
    from gcodeparser import parse_gcode_lines

    return [(line.command[0], line.command[1], dict(line.params)) for line in parse_gcode_lines(text)]


@pytest.mark.parametrize(
    ("units", "zero", "offsets", "arcs"),
    [
        ("mm", "front left", False, "arcs"), ("inch", "back right", True, "arcs"),
        ("mm", "middle", True, "chords"), ("inch", "front right", False, "chords"),
    ],
)  # fmt: skip
def test_programs_in_the_words_of_the_description(units: str, zero: str, offsets: bool, arcs: str) -> None:
    """NISTIR 6556: one word of a modal group a line; arcs by I and J whose two radii differ by 0.002 mm or 0.0002 inch
    at most; G43 with the H of the tool that was changed in; the end is M2."""
    machine = msgspec.structs.replace(MACHINE, units=units, zero=zero, length_offsets=offsets, arcs=arcs)
    program = made_on(machine)
    words = parsed(program.text)
    assert ("G", 20 if units == "inch" else 21) in {(a, b) for a, b, _ in words}
    assert (words[-1][0], words[-1][1]) == ("M", 2)
    at = {"X": 0.0, "Y": 0.0}
    tool = None
    seen = 0
    near = 0.0002 if units == "inch" else 0.002
    for letter, number, params in words:
        if letter == "T":
            tool = number
        if (letter, number) == ("G", 43):
            assert params == {"H": tool}
        if letter == "G" and number in (2, 3):
            middle = (at["X"] + params["I"], at["Y"] + params["J"])
            radii = math.dist(middle, (at["X"], at["Y"])), math.dist(middle, (params["X"], params["Y"]))
            assert abs(radii[0] - radii[1]) <= near
            seen += 1
        at |= {k: v for k, v in params.items() if k in at}
    assert (seen > 0) == (arcs == "arcs")
    assert ("G", 43) in {(a, b) for a, b, _ in words} or not offsets
    # In inches the same places as in millimetres.
    other = msgspec.structs.replace(machine, units="mm" if units == "inch" else "inch")
    factor = 25.4 if units == "inch" else 1 / 25.4
    places = [(p.get("X"), p.get("Y"), p.get("Z")) for a, b, p in words if a == "G" and b in (0, 1, 2, 3)]
    again = [
        (p.get("X"), p.get("Y"), p.get("Z"))
        for a, b, p in parsed(made_on(other).text)
        if a == "G" and b in (0, 1, 2, 3)
    ]
    assert len(places) == len(again) > 20
    for one, two in zip(places, again, strict=True):
        for v, w in zip(one, two, strict=True):
            assert (v is None) == (w is None)
            assert v is None or v * factor == pytest.approx(w, abs=0.002)
