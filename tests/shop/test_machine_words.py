"""The same work in the words of any machine: whatever its file says, the simulated machine leaves the same wood."""

from __future__ import annotations

import itertools
import math
import re
from pathlib import Path

import msgspec
import numpy as np
import pytest
from hypothesis import Phase, given, settings
from hypothesis import strategies as st

from shop.test_machine import MACHINE, plain_part
from tall_plank.job.cutting import LaidPart
from tall_plank.making import Bore, Cutout, Groove, Part
from tall_plank.measure import PlankError
from tall_plank.shop.machine.frame import Frame
from tall_plank.shop.machine.model import SHIPPED, Clamp, Machine, load_machine
from tall_plank.shop.machine.programs import Program, program_of
from tall_plank.shop.machine.setup import part_setup, stop_edges
from tall_plank.shop.machine.work import work_on
from tall_plank.shop.simulator import run_program

SIZE = (700.0, 420.0, 18.0)


def notched() -> Part:
    """A part with holes, a groove, an opening and an inner corner."""
    part = plain_part(length=500.0, width=300.0, cut_length=500.0, cut_width=300.0)
    return msgspec.structs.replace(
        part,
        outline=((0.0, 0.0), (500.0, 0.0), (500.0, 180.0), (380.0, 180.0), (380.0, 300.0), (0.0, 300.0)),
        operations=(
            Bore("A", 40.0, 30.0, 5.0, 13.0, "shelf pin"),
            Bore("A", 90.0, 30.0, 8.0, 18.0, "through", through=True),
            Groove("A", 0.0, 270.0, 380.0, 270.0, 9.2, 8.0, "back"),
            Cutout(120.0, 80.0, 160.0, 90.0, 10.0),
        ),
    )


def made_on(machine: Machine) -> Program:
    part = notched()
    works = [work_on("A1", part, LaidPart("A1", 30.0, 40.0, 500.0, 300.0, False))]
    return program_of("b", SIZE, works, machine)


USUAL = run_program(made_on(MACHINE).text, MACHINE, SIZE, made_on(MACHINE).parts)

OPTIONS = {
    "units": ("mm", "inch"), "long_side": ("x", "y"), "z_zero": ("spoil board", "top"), "x_to": ("right", "left"),
    "zero": ("front left", "front right", "back left", "back right", "middle"), "y_to": ("back", "front"),
    "length_offsets": (False, True), "spindle_wait": (0.0, 2.5), "header": ((), ("G64", "G54")),
    "footer": ((), ("M9",)), "arcs": ("arcs", "chords"), "comments": ("brackets", "semicolon", "none"),
    "hold": ("tabs", "skin"), "inner_corners": ("round", "free"), "percent": (False, True), "ending": ("M2", "M30"),
    "lead": (0.0, 8.0),
}  # fmt: skip


@given(st.fixed_dictionaries({k: st.sampled_from(v) for k, v in OPTIONS.items()}))
def test_every_machine_leaves_the_same_wood(options: dict[str, object]) -> None:
    machine = msgspec.structs.replace(MACHINE, **options)
    program = made_on(machine)
    run = run_program(program.text, machine, SIZE, program.parts)
    assert run.faults == [], (options, run.faults[:3])
    apart = np.abs(run.heights - USUAL.heights) > 0.05
    # Where a small part is held differs, and what falls out of its opening; and an inner corner that is cut free.
    apart[20:560, 30:350] &= np.zeros_like(apart[20:560, 30:350]) | (options["inner_corners"] == "free")
    kept = np.zeros_like(apart)
    kept[31:529, 41:339] = True
    kept[150 - 1 : 310 + 1, 120 - 1 : 210 + 1] = False
    if options["inner_corners"] == "free":
        kept[400:430, 205:235] = False
    assert not (apart & kept).any(), options
    untouched = USUAL.heights == SIZE[2]
    assert ((run.heights == SIZE[2]) == untouched)[kept].all()


def test_both_kinds_of_frames_agree_on_every_place() -> None:
    """Corners of a board in the numbers of each machine, by hand: a right-handed frame stays one."""
    for zero, x_to, y_to, tall in itertools.product(OPTIONS["zero"], ("right", "left"), ("back", "front"), ("x", "y")):
        machine = msgspec.structs.replace(MACHINE, zero=zero, x_to=x_to, y_to=y_to, long_side=tall)
        frame = Frame(machine, (600.0, 300.0, 18.0))
        seen = (300.0, 600.0) if tall == "y" else (600.0, 300.0)
        corners = [frame.out(*p) for p in ((0.0, 0.0), (600.0, 0.0), (600.0, 300.0), (0.0, 300.0))]
        wide = max(x for x, _ in corners) - min(x for x, _ in corners)
        deep = max(y for _, y in corners) - min(y for _, y in corners)
        assert (wide, deep) == seen
        signed = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(corners, (*corners[1:], corners[0]), strict=True)) / 2
        assert signed == pytest.approx(-180000.0 if frame.mirrored else 180000.0)
        assert frame.out(*frame.zero) == pytest.approx((0.0, 0.0))
        # Edges at the stops lie at X 0 and Y 0.
        for axis, edge in enumerate(frame.stops):
            if edge is None:
                assert zero == "middle"
                continue
            at = 0.0 if edge[1] == "least" else (600.0 if edge[0] == "u" else 300.0)
            for other in (10.0, 200.0):
                place = frame.out(at, other) if edge[0] == "u" else frame.out(other, at)
                assert place[axis] == pytest.approx(0.0)


def test_edges_at_the_stops_by_hand() -> None:
    """Turned over about its length, a part keeps its ends where they were and changes L1 and L2."""
    assert stop_edges(MACHINE, "A") == ("W1", "L1")
    assert stop_edges(MACHINE, "B") == ("W1", "L2")
    right = msgspec.structs.replace(MACHINE, zero="back right")
    assert stop_edges(right, "A") == ("W2", "L2")
    assert stop_edges(right, "B") == ("W2", "L1")
    # Its length to the back, W1 in front, L1 lies on the right: a quarter turn to the left.
    tall = msgspec.structs.replace(MACHINE, long_side="y")
    assert stop_edges(tall, "A") == ("L2", "W1")
    assert stop_edges(msgspec.structs.replace(tall, zero="front right"), "A") == ("L1", "W1")
    assert stop_edges(msgspec.structs.replace(MACHINE, zero="middle"), "A") == ("", "")


def test_a_machine_says_what_its_file_asks_for() -> None:
    machine = msgspec.structs.replace(
        MACHINE, units="inch", length_offsets=True, spindle_wait=3.0, header=("G54",), footer=("M9",), z_zero="top",
        comments="semicolon",
    )  # fmt: skip
    part = notched()
    work = work_on("A1", part, LaidPart("A1", 0.0, 0.0, 500.0, 300.0, False))
    setup = part_setup("A1", "Lamp Row", machine, part, work)
    lines = program_of("A1", (500.0, 300.0, 18.0), [work], machine, outlines=False, setup=setup).text.splitlines()
    assert lines[lines.index("G54") + 1].startswith("G20 ")
    assert lines[-2:] == ["M9", "M2"]
    changes = [i for i, x in enumerate(lines) if re.fullmatch(r"T\d+ M6", x)]
    assert changes
    for i in changes:
        number = lines[i].split()[0][1:]
        assert lines[i + 1] == f"G43 H{number}" and lines[i + 2].endswith("M3") and lines[i + 3] == "G4 P3"
    assert "G49" in lines
    assert lines[0].startswith("; ") and not any("(" in x for x in lines)
    # A hole 13 deep goes to -13 mm from the top, in inches.
    assert any(f"Z{-13 / 25.4:.5f}" in x for x in lines)
    assert any("Z0 at the top" in x for x in lines)


def test_an_inner_corner_is_told_or_cut_free() -> None:
    told = made_on(MACHINE)
    corners = [x for x in told.refused if x.why == "corner"]
    assert [x.what for x in corners] == ["inner corner at 380.0, 180.0 is round, R6"]
    free = msgspec.structs.replace(MACHINE, inner_corners="free")
    program = made_on(free)
    assert program.refused == ()
    run = run_program(program.text, free, SIZE, program.parts, cell=0.5)
    assert run.faults == []
    # The corner itself, at 410, 220 on the board: wood stays there under a round mill, and none under one that runs in.
    at = (int(411.0 / 0.5), int(221.0 / 0.5))
    assert run.heights[at] < 0.01
    usual = run_program(told.text, MACHINE, SIZE, told.parts, cell=0.5)
    assert usual.heights[at] == 18.0


def test_small_parts_are_held_by_a_skin_that_goes_last() -> None:
    machine = msgspec.structs.replace(MACHINE, hold="skin", tabs_below=1e6)
    part = plain_part(length=200.0, width=150.0, cut_length=200.0, cut_width=150.0)
    works = [work_on(f"A{i}", part, LaidPart(f"A{i}", 20.0 + 240 * i, 30.0, 200.0, 150.0, False)) for i in range(2)]
    program = program_of("b", (540.0, 220.0, 18.0), works, machine)
    run = run_program(program.text, machine, program.size, program.parts)
    assert run.faults == []
    through = [m for m in run.moves if m.end[2] <= 0 and not m.rapid]
    skinned = [m for m in run.moves if abs(m.end[2] - machine.skin) < 1e-6 and not m.rapid]
    # Both parts hang on their skin before the first is cut through.
    assert max(m.line for m in skinned) < min(m.line for m in through)
    assert run.heights[20 - 4, 100] <= 0.0


def test_what_lies_in_an_opening_is_cut_before_it() -> None:
    part = plain_part(length=500.0, width=300.0, cut_length=500.0, cut_width=300.0)
    outer = msgspec.structs.replace(part, operations=(Cutout(100.0, 50.0, 300.0, 200.0, 10.0),))
    inner = plain_part(length=200.0, width=120.0, cut_length=200.0, cut_width=120.0)
    works = [
        work_on("A1", outer, LaidPart("A1", 40.0, 40.0, 500.0, 300.0, False)),
        work_on("A2", inner, LaidPart("A2", 190.0, 130.0, 200.0, 120.0, False)),
    ]
    program = program_of("b", (600.0, 400.0, 18.0), works, MACHINE)
    assert program.refused == ()
    run = run_program(program.text, MACHINE, program.size, program.parts)
    assert run.faults == []
    low = [m for m in run.moves if m.end[2] <= 0 and not m.rapid]
    own = [m.line for m in low if 180 < m.end[0] < 400 and 120 < m.end[1] < 260]
    opening = [m.line for m in low if abs(m.end[0] - 146.0) < 0.1]
    assert max(own) < min(opening)


@pytest.mark.parametrize(
    ("change", "what"),
    [
        ("outline_tool = 3", "outline_tool: tool 3 is a drill"),
        ("outline_tool = 99", "outline_tool: there is no tool 99"),
        ("outline_tool = 9", "outline_tool: tool 9 is thinner"),
        ("spindle_wait = -1", "spindle_wait"),
        ("chord = 4", "chord"),
        ('hold = "skin"\nskin = 9', "skin"),
        ("safe_height = 200", "safe_height"),
        ('header = ["Größe"]', "header"),
        ('units = "yard"', "units"),
        ('zero = "left"', "zero"),
        ("margin = -3", "margin"),
        ("tab_width = 0", "tab_width"),
    ],
)
def test_a_machine_file_that_contradicts_itself_is_named(tmp_path: Path, change: str, what: str) -> None:
    key = change.split(" ")[0]
    text = "\n".join(x for x in SHIPPED.read_text().splitlines() if not x.startswith(f"{key} "))
    path = tmp_path / "mine.toml"
    path.write_text(text.replace('name = "Quay router"', f'name = "Quay router"\n{change}'))
    with pytest.raises(PlankError, match=r"mine\.toml") as error:
        load_machine(path)
    assert what in str(error.value)


def test_clamps_are_where_the_machine_says() -> None:
    """A clamp in the way of a lead keeps the mill away from it on every machine, and a program that meets it is told."""
    for zero, tall in itertools.product(("front left", "back right"), ("x", "y")):
        machine = msgspec.structs.replace(MACHINE, zero=zero, long_side=tall)
        frame = Frame(machine, SIZE)
        x, y = frame.out(350.0, 210.0)
        held = msgspec.structs.replace(machine, clamps=(Clamp(x - 10, y - 10, 20.0, 20.0, 60.0),))
        run = run_program(made_on(machine).text, held, SIZE)
        assert not run.faults or all(f.kind == "clamp" for f in run.faults)
        x, y = frame.out(70.0, 70.0)
        held = msgspec.structs.replace(machine, clamps=(Clamp(x - 10, y - 10, 20.0, 20.0, 60.0),))
        assert any(f.kind == "clamp" for f in run_program(made_on(machine).text, held, SIZE).faults)


@settings(max_examples=20, phases=(Phase.explicit, Phase.generate))
@given(
    st.floats(15.0, 120.0), st.floats(15.0, 120.0), st.floats(12.0, 40.0), st.sampled_from((0.0, 8.0)),
    st.sampled_from((12.0, 25.0)),
)  # fmt: skip
def test_what_lies_in_an_opening_is_left_whole(
    stile: float, rail: float, gap: float, lead: float, radius: float
) -> None:
    """A frame of any width about a part: the frame's own area may be smaller than the part's, the way between them as
    narrow as the mill, and a wider mill at hand. Nothing cuts into it."""
    long, wide = 420.0 + 2 * stile, 260.0 + 2 * rail
    part = plain_part(length=long, width=wide, cut_length=long, cut_width=wide)
    outer = msgspec.structs.replace(part, operations=(Cutout(stile, rail, 420.0, 260.0, radius),))
    size = (420.0 - 2 * gap, 260.0 - 2 * gap)
    inner = plain_part(length=size[0], width=size[1], cut_length=size[0], cut_width=size[1])
    works = [
        work_on("A1", outer, LaidPart("A1", 20.0, 20.0, long, wide, False)),
        work_on("A2", inner, LaidPart("A2", 20.0 + stile + gap, 20.0 + rail + gap, *size, False)),
    ]
    broad = msgspec.structs.replace(MACHINE.tools[-1], number=12, name="Mill 20", diameter=20.0)
    machine = msgspec.structs.replace(MACHINE, lead=lead, tools=(*MACHINE.tools, broad), outline_tool=11)
    program = program_of("b", (long + 40.0, wide + 40.0, 18.0), works, machine)
    run = run_program(program.text, machine, program.size, program.parts, cell=2.0)
    assert run.faults == []
    # In its rounded corners the opening comes nearer to the part: where no mill has room there, it is left and told.
    clear = radius - math.hypot(radius - gap, radius - gap) if gap < radius else gap
    left = [x for x in program.refused if x.why != "corner"]
    assert bool(left) == (clear < 8.0 - 0.02) or abs(clear - 8.0) < 0.05, (clear, left)
    if left:
        return


def test_a_narrow_frame_waits_for_what_lies_in_it() -> None:
    """Its own area is less than that of the part inside, which is cut first all the same."""
    part = plain_part(length=450.0, width=290.0, cut_length=450.0, cut_width=290.0)
    outer = msgspec.structs.replace(part, operations=(Cutout(15.0, 15.0, 420.0, 260.0, 12.0),))
    inner = plain_part(length=360.0, width=200.0, cut_length=360.0, cut_width=200.0)
    works = [
        work_on("A1", outer, LaidPart("A1", 20.0, 20.0, 450.0, 290.0, False)),
        work_on("A2", inner, LaidPart("A2", 65.0, 65.0, 360.0, 200.0, False)),
    ]
    plain = msgspec.structs.replace(MACHINE, lead=0.0)
    program = program_of("b", (500.0, 340.0, 18.0), works, plain)
    run = run_program(program.text, plain, program.size, program.parts)
    assert run.faults == []
    first = next(m for m in run.moves if m.end[2] < 18.0 and not m.rapid)
    # The way round the part inside is 59 to 431 and 59 to 271; the opening's 41 to 449 and 41 to 289.
    assert min(abs(first.end[0] - x) for x in (59.0, 431.0)) < 1e-3 or (
        min(abs(first.end[1] - y) for y in (59.0, 271.0)) < 1e-3
    )
