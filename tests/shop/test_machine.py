"""Work on boards and programs: every operation is somewhere, in its place, and the simulated machine finds no fault."""

from __future__ import annotations

import math
import re
from pathlib import Path

import msgspec
import pytest

from conftest import with_run
from tall_plank.edits import cutting, units
from tall_plank.files.machinefiles import (
    outlines_document,
    read_outlines,
    write_board_dxf,
    write_program,
)
from tall_plank.job import Job, Level
from tall_plank.job.cutting import LaidPart
from tall_plank.job.start import new_job
from tall_plank.making import Bore, Cutout, Part
from tall_plank.making.parts import Edges
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.outlines import bounds
from tall_plank.shop.boards import plan_from
from tall_plank.shop.machine.job import machine_files
from tall_plank.shop.machine.model import Clamp, load_machine, shipped_machine
from tall_plank.shop.machine.programs import program_of
from tall_plank.shop.machine.work import side_up, work_on
from tall_plank.shop.nesting.job import request_of
from tall_plank.shop.nesting.kept import rules_of
from tall_plank.shop.nesting.nest import nest
from tall_plank.shop.simulator import run_program
from tall_plank.stock import shipped_stock
from tall_plank.workings import Workings

MACHINE, STOCK = shipped_machine(), shipped_stock()


def routed(job: Job) -> Workings:
    """A job planned for the router, its plan kept."""
    for key, text in (("mode", "router"), ("gap", "12mm"), ("trim", "15mm")):
        job = cutting.set_cutting(job, key, text).job
    w = Workings(job)
    rules = msgspec.structs.replace(rules_of(job.cutting, 12.0), effort=1, seconds=0.0)
    plan = nest(request_of(w.made, job.stock, job.price_book(), rules))
    w.__dict__["plan"] = plan_from(plan, job.stock, 12.0, 15.0)
    return w


def small() -> Job:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, sink 900, door 450")
    job = with_run(job, "A", Level.HUNG, "pair 900, open 600")
    return units.set_own(job, (job.cells()[2].id,), "front_style", "grooved").job


def test_the_simulated_machine_finds_no_fault_in_any_program() -> None:
    w = routed(small())
    files = machine_files({i.number: i.part for i in w.made.parts()}, w.job.stock, w.plan, MACHINE, routed=True)
    assert len(files.programs) == len(w.plan.boards)
    for program in (*files.programs, *files.second):
        run = run_program(program.text, MACHINE, program.size, program.parts)
        assert run.faults == [], (program.name, run.faults[:2])
        assert run.seconds > 0 or not program.parts


def test_no_operation_is_dropped() -> None:
    """Each operation of each part is done from above, on the second side, or is on the list of handwork."""
    w = routed(small())
    parts = {i.number: i.part for i in w.made.parts()}
    for board in w.plan.boards:
        for p in board.parts:
            part = parts[p.part]
            first = work_on(p.part, part, p)
            second = work_on(p.part, part, p, second=True)
            done = sum(
                len(x) for work in (first, second) for x in (work.holes, work.slots, work.pockets, work.openings)
            )
            by_hand = [x for x in first.left if x.why != "other face"]
            assert done + len(by_hand) == len(part.operations), part.name
            assert len([x for x in first.left if x.why == "other face"]) == done - sum(
                len(x) for x in (first.holes, first.slots, first.pockets, first.openings)
            )


def test_every_hole_of_a_program_is_drilled_once_at_its_depth() -> None:
    w = routed(small())
    parts = {i.number: i.part for i in w.made.parts()}
    board = w.plan.boards[0]
    thick = w.job.stock.board_by_code(board.board).thickness  # type: ignore[union-attr]
    works = [work_on(p.part, parts[p.part], p) for p in board.parts]
    program = program_of("b", (board.length, board.width, thick), works, MACHINE)
    wanted = sorted(
        (round(h.x, 2), round(h.y, 2), round(-MACHINE.into_spoil if h.through else thick - h.depth, 2))
        for work in works
        for h in work.holes
        if MACHINE.drill(h.diameter, h.depth) is not None
    )
    found, at, drilling = [], (0.0, 0.0), False
    for line in program.text.splitlines():
        if line.startswith("T"):
            drilling = any(t.number == int(line[1:].split()[0]) and t.kind == "drill" for t in MACHINE.tools)
        place = re.match(r"G0 X(\S+) Y(\S+)", line)
        if place:
            at = (float(place[1]), float(place[2]))
        down = re.match(r"G1 Z(\S+) F", line)
        if down and drilling:
            found.append((round(at[0], 2), round(at[1], 2), round(float(down[1]), 2)))
    assert len(found) == len(wanted)
    for one, other in zip(sorted(found), wanted, strict=True):
        assert one == pytest.approx(other, abs=0.011)


def plain_part(**more) -> Part:  # type: ignore[no-untyped-def]
    values = {"name": "p", "board": "BP18", "material": "m", "length": 600.0, "width": 300.0, "thickness": 18.0, "grain": "length",
              "frame": Frame(), "cut_length": 600.0, "cut_width": 300.0, **more}  # fmt: skip
    return Part(**values)


@pytest.mark.parametrize(
    ("angle", "turned", "place"),
    [
        (0.0, False, (150.0, 230.0)),
        (90.0, True, (370.0, 250.0)),
        (180.0, False, (650.0, 470.0)),
        (270.0, True, (130.0, 750.0)),
    ],
)
def test_a_hole_turns_with_its_part(angle: float, turned: bool, place: tuple[float, float]) -> None:
    """A hole 50 along and 30 up on a part 600 x 300 whose least corner lies at 100, 200."""
    part = plain_part(operations=(Bore("A", 50.0, 30.0, 5.0, 13.0, "pin"),))
    size = (300.0, 600.0) if turned else (600.0, 300.0)
    work = work_on("A1", part, LaidPart("A1", 100.0, 200.0, *size, turned, angle))
    assert (work.holes[0].x, work.holes[0].y) == pytest.approx(place)
    assert bounds(work.outline) == pytest.approx((100.0, 200.0, 100.0 + size[0], 200.0 + size[1]))


def test_a_part_with_more_on_its_back_lies_face_down_and_is_mirrored() -> None:
    holes = (
        Bore("B", 50.0, 30.0, 35.0, 12.5, "hinge"),
        Bore("B", 550.0, 30.0, 35.0, 12.5, "hinge"),
        Bore("A", 300.0, 100.0, 5.0, 13.0, "x"),
    )
    part = plain_part(operations=holes)
    assert side_up(part) == "B"
    work = work_on("A1", part, LaidPart("A1", 0.0, 0.0, 600.0, 300.0, False))
    assert [(h.x, h.y) for h in work.holes] == [(50.0, 270.0), (550.0, 270.0)]
    assert [x.why for x in work.left] == ["other face"]
    other = work_on("A1", part, LaidPart("A1", 0.0, 0.0, 600.0, 300.0, False), second=True)
    assert [(h.x, h.y) for h in other.holes] == [(300.0, 100.0)]


def test_operations_move_with_the_edging_that_is_still_to_come() -> None:
    """1 mm edging with 0.5 mm pre-milling: the cut part is 0.5 mm smaller at each banded edge, and x starts there."""
    edging = next(e for e in STOCK.edgings if e.thickness == 1.0)
    part = plain_part(
        edges=Edges(edging.code, "", edging.code, edging.code),
        cut_length=599.0,
        cut_width=299.5,
        cut_origin=(0.5, 0.5),
        operations=(Bore("A", 50.0, 30.0, 5.0, 13.0, "pin"),),
    )
    work = work_on("A1", part, LaidPart("A1", 0.0, 0.0, 599.0, 299.5, False))
    assert (work.holes[0].x, work.holes[0].y) == pytest.approx((49.5, 29.5))


def test_what_no_tool_can_do_is_refused_by_name() -> None:
    part = plain_part(
        operations=(Bore("A", 50.0, 30.0, 2.0, 13.0, "pilot"), Bore("A", 90.0, 30.0, 5.0, 60.0, "deep")), thickness=80.0
    )
    work = work_on("A1", part, LaidPart("A1", 20.0, 20.0, 600.0, 300.0, False))
    program = program_of("b", (700.0, 400.0, 80.0), [work], MACHINE)
    told = {x.what for x in program.refused}
    assert told == {"pilot: hole of 2, 13 deep at 50.0, 30.0", "deep: hole of 5, 60 deep at 90.0, 30.0", "its outline"}
    big = program_of("b", (4000.0, 400.0, 18.0), [], MACHINE)
    assert "the bed is" in big.refused[0].why
    assert run_program(big.text, MACHINE, (4000.0, 400.0, 18.0)).faults == []


def test_parts_too_near_for_the_mill_are_refused() -> None:
    works = [
        work_on(str(i), plain_part(), LaidPart(str(i), 20.0 + i * 603.0, 20.0, 600.0, 300.0, False)) for i in range(2)
    ]
    program = program_of("b", (1300.0, 400.0, 18.0), works, MACHINE)
    assert {x.why for x in program.refused} == {"the next part lies 3.0 mm away"}


def test_small_parts_keep_tabs_and_large_ones_do_not() -> None:
    for size, tabs in (((200.0, 100.0), True), ((600.0, 300.0), False)):
        part = plain_part(length=size[0], width=size[1], cut_length=size[0], cut_width=size[1])
        work = work_on("A1", part, LaidPart("A1", 40.0, 40.0, *size, False))
        program = program_of("b", (800.0, 500.0, 18.0), [work], MACHINE)
        run = run_program(program.text, MACHINE, program.size, program.parts)
        assert run.faults == []
        middle = int(40.0 + size[1] / 2), 34
        ring = run.heights[(40 - 6) : int(40 + size[0] + 6), 34]
        assert middle and bool((abs(ring - MACHINE.tab_height) < 0.01).any()) is tabs
        assert bool((ring < 0.01).any())


def plunges(text: str) -> list[tuple[float, float]]:
    """Where a tool goes straight down into wood: X and Y of every move that has a Z, no X and no rapid."""
    x = y = 0.0
    found = []
    for line in text.splitlines():
        words = dict(re.findall(r"([A-Z])(-?[\d.]+)", line))
        x, y = float(words.get("X", x)), float(words.get("Y", y))
        if line.startswith("G1") and "Z" in words and "X" not in words:
            found.append((x, y))
    return found


def test_a_mill_swings_into_an_outline_from_the_waste() -> None:
    from shapely import Point, Polygon

    part = plain_part(length=400.0, width=300.0, cut_length=400.0, cut_width=300.0)
    cut = msgspec.structs.replace(part, operations=(Cutout(100.0, 80.0, 200.0, 120.0, 10.0),))
    work = work_on("A1", cut, LaidPart("A1", 60.0, 60.0, 400.0, 300.0, False))
    program = program_of("b", (800.0, 500.0, 18.0), [work], MACHINE)
    run = run_program(program.text, MACHINE, program.size, program.parts)
    assert run.faults == []
    arcs = [line for line in program.text.splitlines() if line.startswith("G3")]
    passes = 3  # 18 + 0.4 in steps of 9 at most
    # In and out, around the part and in its opening; and the corners of the opening but in its last pass, with tabs.
    assert len(arcs) == 2 * passes * 2 + 4 * (passes - 1)
    outline = Polygon(work.outline, [[(160, 140), (360, 140), (360, 260), (160, 260)]])
    for place in plunges(program.text):
        # Where the mill plunges it does not touch what stays.
        assert outline.distance(Point(place)) > 6.0 + MACHINE.lead / 2
    # Every arc ends where the next straight cut is tangent to it, so the edge shows no mark.
    without = run_program(
        program_of("b", (800.0, 500.0, 18.0), [work], msgspec.structs.replace(MACHINE, lead=0.0)).text,
        MACHINE,
        program.size,
        program.parts,
    )
    assert without.faults == []
    # Both leave the same part; what falls out of its opening is waste.
    apart = abs(run.heights[60:460, 60:360] - without.heights[60:460, 60:360])
    apart[100:300, 80:200] = 0.0
    assert apart.max() < 0.01


def test_without_room_a_mill_goes_down_on_the_outline() -> None:
    part = plain_part(length=200.0, width=150.0, cut_length=200.0, cut_width=150.0)
    places = [
        LaidPart(f"A{i}{j}", 15.0 + i * 212.0, 15.0 + j * 162.0, 200.0, 150.0, False)
        for i in range(3)
        for j in range(3)
    ]
    works = [work_on(p.part, part, p) for p in places]
    program = program_of("b", (667.0, 519.0, 18.0), works, MACHINE)
    assert run_program(program.text, MACHINE, program.size, program.parts).faults == []
    # Those at the upper and the right side have waste beside them on the bed, the others have none.
    assert program.text.count("G3") == 5 * 3 * 2
    clamps = (Clamp(654.0, 0.0, 13.0, 519.0, 30.0), Clamp(0.0, 504.0, 667.0, 15.0, 30.0))
    tight = msgspec.structs.replace(MACHINE, clamps=clamps)
    program = program_of("b", (667.0, 519.0, 18.0), works, tight)
    assert "G3" not in program.text


def test_a_program_of_a_part_from_the_saw_has_no_outline() -> None:
    w = Workings(small())
    files = w.machine_files
    for program in files.programs:
        run = run_program(program.text, MACHINE, program.size, program.parts)
        assert run.faults == [], program.name
        assert float(run.heights.min()) > -1.0


def test_files_are_read_back(tmp_path: Path) -> None:
    import ezdxf

    w = routed(small())
    program = w.machine_files.programs[0]
    write_program(program, tmp_path / "b.ngc")
    assert (tmp_path / "b.ngc").read_text() == program.text
    parts = read_outlines(tmp_path / "b.json")
    assert [name for name, _, _ in parts] == [p["part"] for p in outlines_document(program)["parts"]]
    parts_of = {i.number: i.part for i in w.made.parts()}
    board = w.plan.boards[0]
    works = [work_on(p.part, parts_of[p.part], p) for p in board.parts]
    write_board_dxf(parts_of, board, tmp_path / "b.dxf")
    document = ezdxf.readfile(tmp_path / "b.dxf")
    outlines = [e for e in document.modelspace() if e.dxf.layer == "OUTLINE"]
    assert len(outlines) == len(board.parts)
    for e, p in zip(outlines, board.parts, strict=True):
        xs, ys = ([c[k] for c in e.get_points()] for k in (0, 1))
        assert (min(xs), min(ys)) == pytest.approx((p.x, p.y), abs=0.01)
        assert (max(xs), max(ys)) == pytest.approx((p.x + p.length, p.y + p.width), abs=0.01)
    assert len([e for e in document.modelspace() if e.dxf.layer == "BOARD"]) == 1
    assert document.header["$INSUNITS"] == 4
    circles = [e for e in document.modelspace() if e.dxftype() == "CIRCLE"]
    assert len(circles) == sum(len(x.holes) for x in works)
    assert all(re.fullmatch(r"HOLE_[AB]_D[\d_]+_(Z[\d_]+|THROUGH)", c.dxf.layer) for c in circles)


@pytest.mark.parametrize(
    ("old", "new", "what"),
    [
        ("bed_length = 3100", "bed_length = 0", "out of range"),
        ("number = 2,", "number = 1,", "Two tools have one number"),
        ('kind = "mill", diameter = 4', 'kind = "saw", diameter = 4', "Invalid enum value"),
        ("step_down = 9", "step_down = -9", "out of range"),
        ("lead = 8", "lead = -8", "out of range"),
        ("lead = 8", 'lead = "wide"', "Expected `float`"),
        ("diameter = 35", "diameter = 0", "out of range"),
        ("travel = 160", "", "missing required field"),
    ],
)
def test_a_wrong_machine_file_is_named(tmp_path: Path, old: str, new: str, what: str) -> None:
    from tall_plank.shop.machine.model import SHIPPED

    text = SHIPPED.read_text()
    assert old in text
    path = tmp_path / "machine.toml"
    path.write_text(text.replace(old, new, 1))
    with pytest.raises(PlankError, match=what):
        load_machine(path)


@pytest.mark.parametrize(("spare", "drilled"), [(0.01, True), (-0.01, False)])
def test_a_hole_right_through_needs_a_drill_that_reaches_into_the_spoil_board(spare: float, drilled: bool) -> None:
    """A drill as long as the board is thick leaves fibres standing: it has to go as far below as the machine says."""
    deep = 18.0 + MACHINE.into_spoil
    tools = tuple(
        msgspec.structs.replace(t, length=deep + spare) if t.kind == "drill" and t.diameter == 8.0 else t
        for t in MACHINE.tools
        if t.kind == "drill"
    )
    machine = msgspec.structs.replace(MACHINE, tools=tools)
    part = plain_part(operations=(Bore("A", 100.0, 50.0, 8.0, 18.0, "hanger", through=True),))
    work = work_on("p", part, LaidPart("p", 100.0, 200.0, 600.0, 300.0, False))
    program = program_of("b", (2800.0, 2070.0, 18.0), [work], machine)
    holes = [left for left in program.refused if "hole of 8" in left.what]
    assert bool(holes) is not drilled
    if drilled:
        assert f"Z{-MACHINE.into_spoil:.2f}".rstrip("0").rstrip(".") in program.text
    # A hole that ends in the board needs no more than its own depth.
    blind = plain_part(operations=(Bore("A", 100.0, 50.0, 8.0, 12.0, "hanger"),))
    short = tuple(msgspec.structs.replace(t, length=12.0) for t in tools)
    work = work_on("p", blind, LaidPart("p", 100.0, 200.0, 600.0, 300.0, False))
    program = program_of("b", (2800.0, 2070.0, 18.0), [work], msgspec.structs.replace(machine, tools=short))
    assert not [left for left in program.refused if "hole of 8" in left.what]


def test_every_program_is_for_the_thickness_of_its_board() -> None:
    """Backs of 9 mm lie on a board of 9: its holes and outlines end there, and not where they would in one of 18."""
    w = routed(small())
    files = machine_files({i.number: i.part for i in w.made.parts()}, w.job.stock, w.plan, MACHINE, routed=True)
    thick = {b.code: b.thickness for b in w.job.stock.boards}
    assert len({thick[b.board] for b in w.plan.boards}) > 1
    for board, program in zip(w.plan.boards, files.programs, strict=True):
        assert program.size == (board.length, board.width, thick[board.board])
    parts = {i.number: i.part for i in w.made.parts()}
    for program in files.second:
        assert program.size[2] == parts[program.name.removesuffix("-second")].thickness


@pytest.mark.parametrize("size", [(200.0, 150.0), (90.0, 45.0)])
def test_a_mill_without_room_goes_down_along_its_path(size: tuple[float, float]) -> None:
    # Over 60 mm of it or the whole of a shorter side, to the depth of the pass, and back on the level.
    part = plain_part(length=size[0], width=size[1], cut_length=size[0], cut_width=size[1])
    work = work_on("A1", part, LaidPart("A1", 60.0, 60.0, *size, False))
    machine = msgspec.structs.replace(MACHINE, lead=0.0)
    program = program_of("b", (400.0, 300.0, 18.0), [work], machine)
    assert run_program(program.text, machine, program.size, program.parts).faults == []
    x = y = z = 0.0
    ramps: list[float] = []
    for line in program.text.splitlines():
        words = {k: float(v) for k, v in re.findall(r"([XYZ])(-?[\d.]+)", line)}
        at = (words.get("X", x), words.get("Y", y))
        down = words.get("Z", z) < z - 1e-6
        if line.startswith("G1") and down and at != (x, y):
            ramps.append(math.dist(at, (x, y)))
        (x, y), z = at, words.get("Z", z)
    assert ramps and all(any(abs(r - min(60.0, side)) < 0.01 for side in size) for r in ramps), ramps
