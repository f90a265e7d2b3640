"""Hinges, dowels, screws, cut-outs and joints against what the trade publishes or holds; values from memory say so."""

from __future__ import annotations

import math

import msgspec
import pytest

from conftest import made_alone, with_run
from tall_plank.edits import outline, standards, units
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making import MadeUnit
from tall_plank.making.parts import Bore
from tall_plank.workings import Workings

STANDARDS = [s.code for s in new_job().standards]


def unit(text: str, standard: str = "quay-dowelled", **values: str) -> tuple[Job, MadeUnit]:
    job = with_run(msgspec.structs.replace(new_job(), standard=standard), "A", Level.BASE, text)
    cell = job.cells()[0].id
    for key, value in values.items():
        job = units.set_own(job, (cell,), key, value).job
    return job, made_alone(job, cell)


def holes(made: MadeUnit, use: str) -> list[tuple[str, Bore, tuple[float, float, float]]]:
    return [(p.name, op, p.place(op.face, op.x, op.y)) for p in made.parts for op in p.operations
            if isinstance(op, Bore) and op.use == use]  # fmt: skip


# --- cup hinges


def test_a_cup_is_35_wide_with_its_dowels_45_apart_and_9_5_behind() -> None:
    """Common practice, the same in the data sheets of all makers: cup 35, at most 13 deep, fixing 45/9.5."""
    _, made = unit("door 600")
    drilled = holes(made, "hinge")
    cups = [(op, at) for _, op, at in drilled if op.diameter == 35.0]
    assert len(cups) >= 2 and all(11.0 <= op.depth <= 13.0 for op, _ in cups)
    for _, (x, _, z) in cups:
        beside = [at for _, op, at in drilled if op.diameter == 8.0 and abs(at[2] - z) < 30.0]
        assert len(beside) == 2
        assert abs(beside[0][2] - beside[1][2]) == pytest.approx(45.0)
        assert {round(abs(at[0] - x), 6) for at in beside} == {9.5}


@pytest.mark.parametrize("overlay", ["full", "half", "inset"])
def test_a_plate_stands_on_the_37_line_with_holes_32_apart(overlay: str) -> None:
    """System 32 (common practice): first row 37 behind the front's back, holes 5 mm wide at 32 mm."""
    _, made = unit("door 600", overlay=overlay)
    back = min(at[1] for _, op, at in holes(made, "hinge") if op.diameter == 35.0)
    plates = holes(made, "hinge plate")
    assert {round(at[1] - back, 6) for _, _, at in plates} == {37.0}
    heights = sorted(at[2] for _, _, at in plates)
    assert [round(b - a, 6) for a, b in zip(heights[::2], heights[1::2], strict=True)] == [32.0] * (len(plates) // 2)
    assert {op.diameter for _, op, _ in plates} == {5.0}


def test_the_cups_middle_lies_20_to_23_5_from_the_fronts_edge() -> None:
    """Common practice: 3 to 6 mm of wood stay between a cup and the edge: 17.5 + 3 to 17.5 + 6."""
    for standard in STANDARDS:
        made = unit("door 600", standard)[1].spec.made
        assert 20.5 <= made.cup_from_edge <= 23.5


# --- dowels


@pytest.mark.parametrize("standard", STANDARDS)
def test_dowels_of_8_by_30_have_holes_1_to_2_mm_deeper_together(standard: str) -> None:
    """DIN 68150-1 (from memory): fluted dowels 8 x 30. Common practice: 8 is a third to half of 16 to 22 mm boards, and
    both holes are 1 to 2 mm deeper together."""
    job, made = unit("drawers 600", standard, joint="dowel")
    dowel = next(f for f in job.stock.fittings if f.code == made.spec.made.dowel)
    assert dowel.length == 30.0 and made.spec.made.dowel_diameter == 8.0
    drilled = holes(made, "dowel")
    pairs = 0
    for i, (name, op, at) in enumerate(drilled):
        for other, op2, at2 in drilled[:i]:
            if name != other and math.dist(at, at2) < 0.05:
                pairs += 1
                assert 31.0 <= op.depth + op2.depth <= 32.5
                face = next(p for p in made.parts if p.name in (name, other) and p.thickness > 0)
                assert op.diameter <= face.thickness * 0.6
    assert pairs * 2 == len(drilled) > 20


# --- screws


def test_wood_screws_are_sold_in_the_lengths_of_their_standard() -> None:
    """DIN 7997 (from memory): countersunk wood screws of 3.5 in 12, 16, 20, 25, 30, 35, 40, 45, 50; of 4 up to 70."""
    lengths = {f.length for f in new_job().stock.fittings_of("screw") if f.gauge == 3.5}
    assert lengths <= {12.0, 16.0, 20.0, 25.0, 30.0, 35.0, 40.0, 45.0, 50.0} and len(lengths) >= 6
    assert {f.length for f in new_job().stock.fittings_of("screw") if f.gauge == 4.0} <= {50.0, 55.0, 60.0, 70.0}


@pytest.mark.parametrize("thickness", ["15", "16", "18", "19"])
def test_a_carcass_screw_bites_twice_the_boards_thickness_at_most_and_15_at_least(thickness: str) -> None:
    """Common practice: a chipboard screw into an edge goes in 1.5 to 2.5 times the thickness of what it holds."""
    job = with_run(new_job(), "A", Level.BASE, "open 600")
    more = [msgspec.structs.replace(b, code=b.code + "x", thickness=float(thickness)) for b in job.stock.boards
            if b.thickness == 18.0 and thickness != "18"]  # fmt: skip
    job = msgspec.structs.replace(job, stock=msgspec.structs.replace(job.stock, boards=(*job.stock.boards, *more)))
    job = standards.set_in_force(job, "carcass_thickness", thickness).job
    screw = next(f for f in job.stock.fittings if f.code == "CS-50")
    bite = screw.length - float(thickness)
    assert bite >= 15.0 and 1.5 * float(thickness) <= bite <= 2.5 * float(thickness)


# --- worktops


def test_cut_outs_leave_50_mm_of_board_in_front() -> None:
    """Common practice, in the fitting instructions of worktop makers: 50 mm of board at least before and behind a
    cut-out, which has corners of 5 mm radius or more against cracks."""
    for text in ("hob 600", "hob 900", "sink 600", "sink 900"):
        w = Workings(with_run(new_job(), "A", Level.BASE, text))
        (top,) = w.layout.rooms[0].worktops
        (cut,) = top.cutouts
        assert top.depth - top.rear - cut.back - cut.depth >= 50.0
        assert cut.back >= 45.0
        (part,) = [t.part for t in w.made.trims if t.kind == "worktop"]
        assert part is not None
        (hole,) = [op for op in part.operations if hasattr(op, "radius")]
        assert hole.radius >= 5.0  # type: ignore[union-attr]


def test_the_usual_hob_of_60_takes_a_cut_out_of_560_by_490() -> None:
    """Common practice: 60 cm hobs of all makers are made for 560 x 490 (some 480 to 500)."""
    w = Workings(with_run(new_job(), "A", Level.BASE, "hob 600"))
    ((cut,),) = [top.cutouts for top in w.layout.rooms[0].worktops]
    assert (cut.width, cut.depth) == (560.0, 490.0)


def test_a_worktop_joint_has_three_bolts_and_stays_150_from_cut_outs() -> None:
    """Common practice: three bolts in a joint of 600; joints 100 to 300 mm from cut-outs and dishwashers."""
    job = outline.type_outline(new_job(), "r1", "9000mm, 3000mm, rest, rest").job
    job = with_run(job, "A", Level.BASE, "pair 1200, pair 900, drawers 600, hob 900, pair 1000, pair 1200, pair 900")
    pieces = Workings(job).layout.rooms[0].worktops
    assert [p.bolts for p in pieces[:-1]] == [3] * (len(pieces) - 1)
    cut = next((t.x + c.x, t.x + c.x + c.width) for t in pieces for c in t.cutouts)
    for joint in (p.x + p.length for p in pieces[:-1]):
        assert max(cut[0] - joint, joint - cut[1]) >= 100.0


def test_a_waterfall_is_mitred_at_45_degrees() -> None:
    """Geometry: two boards of one thickness that meet square are each cut at half of 90."""
    from tall_plank.edits import tops
    from tall_plank.job import Kind
    from tall_plank.making.parts import Bevel

    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900")
    job = tops.set_top(job, Kind.RUN.of(job.rooms[0].runs[0].id), "waterfall_right", "yes").job
    cuts = [op for t in Workings(job).made.trims if t.part for op in t.part.operations if isinstance(op, Bevel)]
    assert [op.angle for op in cuts] == [45.0, 45.0]
