"""How programs are set up: said in each, drawn on its page; and nothing is lost between programs and the hand."""

from __future__ import annotations

import re

import msgspec
import pytest

from conftest import numbers_counted, with_run
from shop.machine_check import counted, outlines
from shop.test_machine import MACHINE, routed, small
from tall_plank.demo import demo_job
from tall_plank.drawing.primitives import Shape, Text
from tall_plank.job import Level
from tall_plank.job.start import new_job
from tall_plank.papers.labels import labels_of
from tall_plank.papers.machinesheets import hand_tables, setup_tables
from tall_plank.shop.machine.job import machine_files
from tall_plank.shop.machine.model import Machine
from tall_plank.shop.simulator import run_program
from tall_plank.workings import Workings


def corner() -> Workings:
    job = with_run(new_job(), "A", Level.BASE, "corner 900, drawers 600")
    return Workings(job)


@pytest.mark.parametrize(
    "make", [lambda: Workings(small()), lambda: routed(small()), corner, lambda: Workings(demo_job())]
)
@pytest.mark.parametrize(
    "machine",
    [
        MACHINE,
        msgspec.structs.replace(MACHINE, bed_length=700.0),
        msgspec.structs.replace(MACHINE, bed_length=150.0, bed_width=150.0),
        msgspec.structs.replace(MACHINE, tools=tuple(t for t in MACHINE.tools if t.kind == "drill")),
        msgspec.structs.replace(MACHINE, tools=MACHINE.tools[-1:]),
        msgspec.structs.replace(MACHINE, inner_corners="free", hold="skin", long_side="y"),
    ],
    ids=["shipped", "short bed", "bed smaller than every part", "drills only", "one mill", "other words"],
)
def test_every_operation_is_in_a_program_on_a_second_side_or_left_for_the_hand(make, machine: Machine) -> None:  # type: ignore[no-untyped-def]
    w = make()
    w.__dict__["router"] = machine
    files = w.machine_files
    parts = {i.number: i.part for i in w.made.parts()}
    planned = {p.part for b in w.plan.boards for p in b.parts} | {i.number for i in w.blank_parts}
    parts = {n: p for n, p in parts.items() if n in planned}
    wanted, found = counted(files, parts)
    assert wanted == found
    is_routed = w.job.cutting.mode == "router"
    blanks = {i.number for i in w.blank_parts}
    boards = {n: p for n, p in parts.items() if n not in blanks}
    must, told = outlines(files, boards, routed=is_routed)
    assert must <= told
    # Whatever is left has a place, and no program is empty.
    assert all(re.search(r"\d|along|outline", x.what) for x in files.left)
    assert all(p.does for p in (*files.programs, *files.second))
    tables, pictures = hand_tables(parts, files.left, w.job.display)
    listed = [n for t in tables for n in t.subtitle.split(" · ")[0].split(", ")]
    assert numbers_counted(listed) == numbers_counted({x.part for x in files.left if x.part in parts})
    assert len(pictures) == len(tables)


def test_each_program_says_how_it_is_set_up() -> None:
    w = Workings(small())
    files = w.machine_files
    parts = {i.number: i.part for i in w.made.parts()}
    assert files.second
    for program in (*files.programs, *files.second):
        said = [x[1:-1] for x in program.text.splitlines() if x.startswith("(")]
        setup = program.setup
        assert setup is not None
        (work,) = setup.works
        part = parts[work.part]
        assert any(work.part in x and part.name in x and part.material in x for x in said)
        assert any(MACHINE.name in x for x in said)
        assert f"{part.cut_length:.1f} x {part.cut_width:.1f} x {part.thickness:g} mm" in "\n".join(said)
        # A part lies with its length along X. Turned over about its length it keeps W1 at X0; L1 and L2 change places.
        lies = f"face {work.up} up; end W1 at X0, edge {'L1' if work.up == 'A' else 'L2'} at Y0"
        assert any(lies in x for x in said)
        for tool in setup.tools:
            assert any(x.startswith(f"T{tool.number} ") and f"{tool.length:g}" in x for x in said)
        taken = {int(x[1:].split()[0]) for x in program.text.splitlines() if x.startswith("T")}
        assert taken == {t.number for t in setup.tools}
        assert all(re.fullmatch(r"[ -'*-~]*", x) for x in said), "no brackets in brackets, plain characters"
    by_name = {p.name: p for p in (*files.programs, *files.second)}
    for program in files.second:
        number = program.name.removesuffix("-second")
        assert "Second side: turned over about its length" in program.text
        first = by_name.get(number)
        if first is not None:
            assert f"program {program.name}, end W1 at X0, edge" in first.text


def test_its_time_is_that_of_the_simulated_machine() -> None:
    for program in Workings(small()).machine_files.programs[:12]:
        run = run_program(program.text, MACHINE, program.size, program.parts)
        assert program.setup is not None
        assert program.setup.seconds == pytest.approx(run.seconds, rel=0.05, abs=1.0)


def test_a_page_for_each_program_drawn_as_it_lies() -> None:
    w = Workings(small())
    files = w.machine_files
    programs = (*files.programs, *files.second)
    tables, pictures = setup_tables(programs)
    assert [t.title for t in tables] == [f"{p.name}.ngc" for p in programs]
    for program, picture in zip(programs, pictures, strict=True):
        assert program.setup is not None
        stock = next(x for x in picture.items if isinstance(x, Shape))
        assert max(x for x, _ in stock.points) == pytest.approx(program.size[0])
        words = {x.text for x in picture.items if isinstance(x, Text)}
        assert {program.setup.at_x0, program.setup.at_y0, "X", "Y"} <= words


@pytest.mark.parametrize("routed_boards", [False, True])
@pytest.mark.parametrize("zero", ["front left", "back right", "middle"])
@pytest.mark.parametrize("bed", [(3100.0, 2150.0), (620.0, 2150.0)])
def test_a_label_shows_the_corner_that_goes_to_the_stops(
    routed_boards: bool, zero: str, bed: tuple[float, float]
) -> None:
    """The label says what the part's own set-up says: its first side from the saw, its second from a routed board."""
    w = routed(small()) if routed_boards else Workings(small())
    w.__dict__["router"] = msgspec.structs.replace(MACHINE, zero=zero, bed_length=bed[0], bed_width=bed[1], margin=25.0)
    files = w.machine_files
    own = {
        p.setup.works[0].part: p.setup
        for p in (files.second if routed_boards else files.programs)
        if p.setup is not None and len(p.setup.works) == 1
    }
    seen = 0
    for label in labels_of(w):
        if label.place is not None and label.place.word == "bar":
            continue
        setup = own.get(label.part)
        if setup is None:
            # No program of its own: no side to set up, or all of its work is left for the hand.
            assert not routed_boards or label.stop == "" or any(x.part == label.part for x in files.left)
            continue
        if zero == "middle":
            assert label.stop == ""
            continue
        names = {setup.at_x0.split()[-1], setup.at_y0.split()[-1]}
        assert label.stop.startswith(f"{setup.works[0].up} up, ") and set(label.stop.split(", ")[1].split()) == names
        seen += 1
    assert seen or zero == "middle"


def test_a_board_that_is_too_large_for_the_bed_is_told_work_by_work() -> None:
    w = routed(small())
    short = msgspec.structs.replace(MACHINE, bed_length=900.0)
    files = machine_files({i.number: i.part for i in w.made.parts()}, w.job.stock, w.plan, short, routed=True)
    assert not files.programs
    cut = {x.part for x in files.left if x.what == "its outline"}
    assert cut == {p.part for b in w.plan.boards for p in b.parts}
    assert all("the bed is 900" in x.why for x in files.left if x.what == "its outline")


def test_a_part_too_long_for_the_bed_lies_across_it() -> None:
    w = Workings(small())
    parts = {i.number: i.part for i in w.made.parts()}
    longest = max(p.cut_length for p in parts.values())
    narrow = msgspec.structs.replace(MACHINE, bed_length=620.0, bed_width=longest + 1.0, margin=25.0)
    w.__dict__["router"] = narrow
    files = w.machine_files
    usual = {p.name for p in Workings(small()).machine_files.programs}
    assert {p.name for p in files.programs} == usual
    turned = [p for p in files.programs if p.setup is not None and "across" in p.setup.face]
    assert turned
    for program in turned:
        assert program.setup is not None
        (work,) = program.setup.works
        part = parts[work.part]
        assert program.size[:2] == (part.cut_width, part.cut_length)
        assert program.setup.at_y0 == "end W1"
        assert program.setup.at_x0 == ("edge L2" if work.up == "A" else "edge L1")
        run = run_program(program.text, narrow, program.size, program.parts)
        assert run.faults == []
        # A hole's place by hand: a quarter turn to the left takes x, y to width less y, x.
        dx, dy = part.cut_origin
        for hole in work.holes:
            x, y = (float(v) for v in hole.at.split(", "))
            across = part.cut_width - (y - dy) if work.up == "A" else y - dy
            assert (hole.x, hole.y) == pytest.approx((across, x - dx), abs=0.06)
