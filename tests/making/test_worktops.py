"""Worktops as boards: what is cut out of them lies where it was set out, seen from the front edge."""

from __future__ import annotations

import contextlib

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.edits import outline, runs, tops, units
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.making import Part
from tall_plank.making.parts import Cutout
from tall_plank.measure import PlankError
from tall_plank.workings import Workings


def top_of(job: Job) -> Part:
    return next(i.part for i in Workings(job).made.parts() if i.part.role == "worktop")


def test_a_sink_is_cut_out_at_the_front_and_not_at_the_wall() -> None:
    """60 mm of board stay before it; a sink of 540 x 440 rests with 20 mm of rim all round (common practice)."""
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, sink 900, door rest")
    part = top_of(job)
    (cut,) = [op for op in part.operations if isinstance(op, Cutout)]
    assert (cut.length, cut.width) == (500.0, 400.0)
    assert cut.y == pytest.approx(60.0)
    assert part.width - cut.y - cut.width > 100.0
    assert cut.x + cut.length / 2 == pytest.approx(600.0 + 450.0)
    # L1, from which y runs, is the front edge: it is the one that is banded along the room.
    assert part.edges.l1 and not part.edges.l2


def test_a_cut_out_by_hand_is_measured_from_the_wall() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 600, pair rest")
    source = Kind.RUN.of(job.rooms[0].runs[0].id)
    job = tops.add_cut(job, source, "1000 200 400 300").job
    part = top_of(job)
    (cut,) = [op for op in part.operations if isinstance(op, Cutout)]
    assert (cut.x, cut.length, cut.width) == (800.0, 400.0, 300.0)
    assert cut.y + cut.width / 2 == pytest.approx(part.width - 200.0)


@pytest.mark.parametrize("first", range(300, 901, 50))
@pytest.mark.parametrize("thing", ["dishwasher 600", "sink 900", "hob 900"])
def test_a_joint_in_length_stays_clear_of_what_stands_below_and_in_it(first: int, thing: str) -> None:
    """100 to 300 mm from a cut-out and from a dishwasher, whose steam finds the joint (common practice); it was 5 mm."""
    job = outline.type_outline(new_job(), "r1", "9000mm, 3000mm, rest, rest").job
    job = with_run(
        job, "A", Level.BASE, f"pair 1200, pair 900, drawers {first}, {thing}, pair 1000, pair 1200, pair 900"
    )
    pieces = list(Workings(job).layout.rooms[0].worktops)
    joints = [t.x + t.length for t in pieces[:-1]]
    assert joints
    (placed,) = [p for p in Workings(job).layout.rooms[0].placed if p.template == thing.split()[0]]
    told = any("no place for a joint" in note for t in pieces for note in t.dropped)
    for at in joints:
        if thing.startswith("dishwasher"):
            clear = max(placed.x - at, at - placed.right)
        else:
            (cut,) = [(t.x + c.x, t.x + c.x + c.width) for t in pieces for c in t.cutouts]
            clear = max(cut[0] - at, at - cut[1])
        assert clear >= 150.0 - 1e-6 or told, (at, placed.x, placed.right)


@pytest.mark.parametrize(
    ("text", "code"),
    [("hob 900", "AP-HOB80"), ("hob 786", "AP-HOB80"), ("hob 785", "AP-HOB60"), ("hob 600", "AP-HOB60")],
)
def test_a_hob_goes_between_the_gables_of_its_unit(text: str, code: str) -> None:
    """A hob of 800 in a unit of 600 was cut 750 wide into a top of 610."""
    job = with_run(new_job(), "A", Level.BASE, text)
    w = Workings(job)
    (top,) = w.layout.rooms[0].worktops
    (cut,) = top.cutouts
    (placed,) = w.layout.rooms[0].placed
    assert cut.appliance == code
    assert top.x + cut.x >= placed.x + 18.0 - 1e-6 and top.x + cut.x + cut.width <= placed.right - 18.0 + 1e-6
    made = w.made.of(placed.cell)
    assert made is not None and made.parts and [a.code for a in made.appliances] == [code]


@pytest.mark.parametrize(("kind", "width", "need"), [("hob", "500", "560"), ("sink", "500", "500")])
def test_what_does_not_go_between_the_gables_is_refused_and_not_cut(kind: str, width: str, need: str) -> None:
    job = with_run(new_job(), "A", Level.BASE, f"{kind} 900, drawers 600")
    cell = job.cells()[0].id
    kinds = tuple(msgspec.structs.replace(t, least=300.0) if t.code == kind else t for t in job.templates)
    job = msgspec.structs.replace(job, templates=kinds)  # a job of before, whose kinds may be as narrow
    job = runs.set_width(job, (cell,), width).job
    w = Workings(job)
    made = w.made.of(cell)
    assert made is not None and not made.parts
    assert any(f"is let in {need} mm wide; between the gables are" in s.what for s in w.snags if s.where.cell == cell)
    assert not [c for t in w.layout.rooms[0].worktops for c in t.cutouts]


@pytest.mark.parametrize(("text", "least"), [("hob 550", "600"), ("sink 500", "540")])
def test_a_width_in_which_nothing_can_be_let_in_is_refused_where_it_is_typed(text: str, least: str) -> None:
    with pytest.raises(PlankError, match=r"too small|too narrow|least"):
        with_run(new_job(), "A", Level.BASE, text)
    assert with_run(new_job(), "A", Level.BASE, f"{text.split()[0]} {least}")


@given(
    st.sampled_from(["sink", "hob", "vanity"]),
    st.sampled_from([s.code for s in new_job().standards]),
    st.floats(300.0, 1300.0).map(lambda mm: round(mm, 1)),
    st.sampled_from(["none", "frame"]),
    st.sampled_from(["full", "half", "inset"]),
    st.sampled_from(["", "drawers 450, ", "filler 60, "]),
)
def test_what_is_let_in_lies_between_gables_at_any_width_or_nothing_is_cut(
    kind: str, standard: str, width: float, frame: str, overlay: str, before: str
) -> None:
    job = msgspec.structs.replace(new_job(), standard=standard)
    kinds = tuple(msgspec.structs.replace(t, least=250.0, most=1400.0) if t.code == kind else t for t in job.templates)
    job = msgspec.structs.replace(job, templates=kinds)
    job = with_run(job, "A", Level.BASE, f"{before}{kind} {width}mm")
    cell = job.cells()[-1].id
    for key, value in (("face_frame", frame), ("overlay", overlay)):
        with contextlib.suppress(PlankError):
            job = units.set_own(job, (cell,), key, value).job
    w = Workings(job)
    made, placed = w.made.of(cell), w.layout.find(cell)
    assert made is not None and placed is not None
    thick = made.spec.made.carcass_thickness
    cuts = [(t.x + c.x, t.x + c.x + c.width) for t in w.layout.rooms[0].worktops for c in t.cutouts if c.cell == cell]
    said = any("between the gables are" in p.what for p in made.problems)
    assert len(cuts) == (0 if said else 1)
    for x0, x1 in cuts:
        assert x0 >= placed.x + thick - 1e-6 and x1 <= placed.right - thick + 1e-6
    if said:
        assert not made.parts
