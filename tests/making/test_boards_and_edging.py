"""Thick and thin boards, edging that is wide enough, frames of boards whose edges stay raw, doors over thick gables."""

from __future__ import annotations

import msgspec
import pytest

from conftest import made_alone, with_run
from tall_plank.edits import bays, runs, standards, units
from tall_plank.edits.things.sliding import add_sliding
from tall_plank.job import Body, Job, Level
from tall_plank.job.scheme import Role
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.job.things.sliding import BayRef
from tall_plank.making.parts import Bore
from tall_plank.making.screws import screw_for
from tall_plank.workings import Workings

STANDARDS = [s.code for s in new_job().standards]


def in_thickness(job: Job, thickness: float, edging: float = 40.0) -> Job:
    """The job with carcasses of another thickness, its boards stocked and edging so wide beside the usual."""
    boards = [msgspec.structs.replace(b, code=f"{b.code}-{thickness:g}", thickness=thickness)
              for b in job.stock.boards if b.thickness == 18.0 and thickness != 18.0]  # fmt: skip
    wide = [msgspec.structs.replace(e, code=f"{e.code}-W", width=edging) for e in job.stock.edgings if e.width < edging]
    stock = msgspec.structs.replace(job.stock, boards=(*job.stock.boards, *boards), edgings=(*job.stock.edgings, *wide))
    return standards.set_in_force(msgspec.structs.replace(job, stock=stock), "carcass_thickness", f"{thickness:g}").job


@pytest.mark.parametrize("thickness", [15.0, 19.0, 22.0, 25.0, 30.0])
@pytest.mark.parametrize("joint", ["cam", "dowel"])
def test_every_kind_is_made_in_every_thickness_or_says_why(thickness: float, joint: str) -> None:
    """In 25 and 30 legs stood on the cams of every legged unit."""
    job = in_thickness(new_job(), thickness)
    made = 0
    for kind in (t for t in shipped_templates() if t.body is Body.CARCASS):
        one = runs.insert_unit(job, "r1", "A", kind.code).job
        cell = one.cells()[-1].id
        unit = made_alone(units.set_own(one, (cell,), "joint", joint).job, cell)
        told = [p.what for p in unit.problems if p.weight == "wrong"]
        known = ("needs an opening", "has no clear space", "covers", "has no room for it")
        assert all(any(word in t for word in known) for t in told), (kind.code, told)
        made += bool(unit.parts)
        if unit.parts and any(i.code == "LG-100" for i in unit.items) and kind.shape == "straight":
            bottom = next((p for p in unit.parts if p.name == "bottom"), None)
            if bottom is not None:
                plates = [op for op in bottom.operations if isinstance(op, Bore) and op.use == "leg plate"]
                assert len(plates) % 4 == 0
    assert made > 20


def test_a_door_over_a_thick_gable_says_what_hinges_cover() -> None:
    job = in_thickness(with_run(new_job(), "A", Level.BASE, "door 600"), 25.0)
    cell = job.cells()[0].id
    made = made_alone(job, cell)
    assert not made.parts
    assert (
        made.problems[0].what.startswith("A door covers 23.5 mm of its upright") and "half" in made.problems[0].remedy
    )
    half = made_alone(units.set_own(job, (cell,), "overlay", "half").job, cell)
    assert half.parts


def test_edging_is_wide_enough_to_be_trimmed_flush() -> None:
    """Tape of 23 was put on boards of 25 and 30."""
    job = in_thickness(with_run(new_job(), "A", Level.BASE, "open 600"), 25.0, edging=30.0)
    cell = job.cells()[0].id
    made = made_alone(job, cell)
    gable = next(p for p in made.parts if p.name == "left gable")
    shelf = next((p for p in made.parts if p.role == "shelf"), None)
    assert gable.edges.l1 == "E-BP-1-W"
    assert shelf is not None and shelf.thickness == 18.0 and shelf.edges.l1 == "E-BP-1"
    # Without the wide one it is told, with both figures.
    few = tuple(e for e in job.stock.edgings if not e.code.endswith("-W"))
    bare = made_alone(msgspec.structs.replace(job, stock=msgspec.structs.replace(job.stock, edgings=few)), cell)
    assert not bare.parts
    assert bare.problems[0].what == "The 1 mm edging for Birch ply 18 is 23 mm wide; 26 mm are needed."


@pytest.mark.parametrize(
    ("finish", "raw"), [("storm-oak", True), ("harbor-white", True), ("sea-sage", False), ("strand-ash", False)]
)
def test_framed_fronts_of_a_board_with_raw_edges_say_so(finish: str, raw: bool) -> None:
    """Stiles and rails of veneered board had no edging, and no word was said."""
    job = with_run(new_job(), "A", Level.BASE, "door 600")
    cell = job.cells()[0].id
    job = units.set_own(units.set_scheme_finish(job, Role.FRONT, finish).job, (cell,), "front_style", "framed").job
    made = made_alone(job, cell)
    assert made.parts, [p.what for p in made.problems]
    told = [p for p in made.problems if "show raw edges" in p.what]
    assert bool(told) is raw and all(p.weight == "mind" and p.remedy for p in told)
    pieces = {p.name.removeprefix("door 1 "): p for p in made.parts if p.role == "front frame"}
    banded = {name: {edge for edge, _, _ in p.banded} for name, p in pieces.items()}
    outer = {"left stile": {"L1", "W1", "W2"}, "right stile": {"L2", "W1", "W2"}, "top rail": {"L1"},
             "bottom rail": {"L2"}}  # fmt: skip
    assert banded == (outer if raw else {name: set() for name in outer})
    # The outer edges are those at the front's own border.
    xs = [
        p.frame.at(0.0, 0.0 if name == "left stile" else p.width, 0.0)[0]
        for name, p in pieces.items()
        if "stile" in name
    ]
    everything = [p.frame.at(u, v, 0.0)[0] for p in pieces.values() for u in (0.0, p.length) for v in (0.0, p.width)]
    assert (min(xs), max(xs)) == pytest.approx((min(everything), max(everything)))


def test_two_doors_on_a_mullion_have_room_for_both_their_screws() -> None:
    """Pilots of 20 from both edges of a mullion of 36 met."""
    job = with_run(msgspec.structs.replace(new_job(), standard="chandler-frame"), "A", Level.BASE, "pair 900")
    cell = job.cells()[0].id
    job = bays.split_bay(bays.set_front(bays.set_shelves(job, cell, (), "0").job, ((cell, ()),), "none").job, cell, (), "2",
                         "columns", "divider").job  # fmt: skip
    job = bays.set_front(job, ((cell, (0,)), (cell, (1,))), "door").job
    job = bays.set_front_value(job, ((cell, (0,)),), "hand", "right").job
    job = bays.set_front_value(job, ((cell, (1,)),), "hand", "left").job
    made = made_alone(job, cell)
    assert made.parts, [p.what for p in made.problems]
    mullion = next(p for p in made.parts if p.name.startswith("face mullion"))
    pilots = [op for op in mullion.operations if isinstance(op, Bore) and op.use == "butt hinge"]
    assert {op.face for op in pilots} == {"L1", "L2"}
    assert all(op.depth <= mullion.width / 2 - 2.0 for op in pilots)


def test_sliding_doors_do_not_go_before_a_face_frame() -> None:
    """Their sill and head ran through the stiles."""
    job = with_run(new_job(), "A", Level.BASE, "wardrobe 1000, wardrobe 1000")
    first, last = (c.id for c in job.cells())
    plain = Workings(add_sliding(job, BayRef(first), BayRef(last)).job)
    assert [m.problems for m in plain.made.sliding] == [()]
    framed = units.set_own(job, (first, last), "standard", "chandler-frame").job
    w = Workings(add_sliding(framed, BayRef(first), BayRef(last)).job)
    (doors,) = w.made.sliding
    assert doors.parts == () and any("has a face frame" in p.what and p.remedy for p in doors.problems)
    assert any("has a face frame" in s.what for s in w.snags)


@pytest.mark.parametrize(
    ("through", "into", "length", "sunk"),
    [(18, 18, 30, 0.0), (15, 19, 25, 0.0), (9, 60, 20, 0.0), (27, 18, 40, 0.0), (10.5, 15, 20, 0.5), (21, 15, 30, 1.0)],
)
def test_the_shortest_screw_that_bites_and_stays_inside(
    through: float, into: float, length: float, sunk: float
) -> None:
    """A chipboard screw of 3.5 holds with 10 mm and more of its length; 2 mm stay before its point (common practice)."""
    stock = new_job().stock
    screw = screw_for(stock, through, into)
    assert screw is not None
    fitting = stock.fitting(screw.code)
    assert fitting is not None and fitting.length == length
    assert screw.sunk == pytest.approx(sunk)
    assert 10.0 <= screw.bite <= into - 2.0
    assert screw.bite == pytest.approx(fitting.length - through + screw.sunk)


def test_no_screw_is_better_than_one_that_comes_out() -> None:
    assert screw_for(new_job().stock, 6.0, 6.0) is None
