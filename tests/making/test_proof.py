"""The proof that parts can be put together, against an independent one: solids of a general-purpose library, built
here anew from parts and operations, sharing no code with it."""

from __future__ import annotations

import contextlib
import math
from collections.abc import Sequence
from typing import Any

import msgspec
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from conftest import with_run
from making.independent import holes_meet, independent
from tall_plank.edits import bays, runs, standards, units
from tall_plank.edits.choices import CHOICES
from tall_plank.job import Body, Job, Level
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.making import Part
from tall_plank.making import unit as making
from tall_plank.making.parts import Bore, Groove
from tall_plank.making.proof import faults_of
from tall_plank.making.proof.space import shared_space
from tall_plank.making.proof.work import amiss_in
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.frames import NEG_X, NEG_Z, X, Y, Z
from tall_plank.measure.remembered import forget_all
from tall_plank.stock import Stock
from tall_plank.workings import Workings

HAIR = 0.05
KINDS = [t for t in shipped_templates() if t.body is not Body.GAP]


# --- units by chance


@st.composite
def unit_made(draw: st.DrawFn) -> tuple[str, making.UnitSpec, Stock]:
    """Any kind in any standard, with sizes, values, fronts, shelves and splits of its own."""
    template = draw(st.sampled_from(KINDS))
    job = new_job()
    job = units_in(job, draw(st.sampled_from([s.code for s in job.standards])))
    job = runs.insert_unit(job, "r1", "A", template.code).job
    cell = job.cells()[-1].id

    def attempt(edit, *given):  # type: ignore[no-untyped-def]
        nonlocal job
        with contextlib.suppress(PlankError):
            job = edit(job, *given).job

    attempt(runs.set_width, (cell,), str(draw(st.sampled_from([300, 450, 600, 800, 1000]) | st.integers(150, 1200))))
    for key, least, most in (("depth", 250, 700), ("height", 300, 1400)):
        if draw(st.booleans()):
            attempt(units.set_own, (cell,), key, str(draw(st.integers(least, most))))
    for key in draw(st.lists(st.sampled_from(sorted(CHOICES)), max_size=3, unique=True)):
        attempt(units.set_own, (cell,), key, draw(st.sampled_from(sorted(CHOICES[key]))))
    for _ in range(draw(st.integers(0, 3))):
        bay = job.unit(job.find_cell(cell)[2].unit).bay
        path = draw(st.sampled_from([(), *bay.paths()]))
        what = draw(st.sampled_from(["front", "shelves", "split"]))
        if what == "front":
            attempt(bays.set_front, ((cell, path),), draw(st.sampled_from(sorted(bays.FRONTS))))
        elif what == "shelves":
            attempt(bays.set_shelves, cell, path, str(draw(st.integers(0, 5))))
        else:
            split, between = draw(st.sampled_from([("rows", "shelf"), ("columns", "divider"), ("rows", "nothing")]))
            attempt(bays.split_bay, cell, path, str(draw(st.integers(2, 3))), split, between)
    made = Workings(job).made.of(cell)
    assert made is not None
    return f"{template.code} in {job.standard}", made.spec, job.stock


def units_in(job: Job, standard: str) -> Job:
    return msgspec.structs.replace(job, standard=standard)


@settings(max_examples=150)
@given(unit_made())
def test_the_proof_and_an_independent_one_agree_on_any_unit(found: tuple[str, making.UnitSpec, Stock]) -> None:
    name, spec, stock = found
    # Made without its proof, so that what is wrong is there to be found.
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(making, "faults_of", lambda *given: ())
        bare = making.make_unit.__wrapped__(spec, stock)  # type: ignore[attr-defined]
    mine = {(s.one, s.other) for s in shared_space(bare.parts)}
    theirs = independent(bare.parts)
    named = [(bare.parts[a].name, bare.parts[b].name) for a, b in mine ^ theirs]
    assert mine == theirs, f"{name}: {named}"
    # And what is wrong is refused, with parts to be looked at: nothing of it reaches a list.
    proved = making.make_unit(spec, stock)
    faults = [p for p in proved.problems if p.place is not None]
    assert bool(proved.parts) == bool(bare.parts and not faults) and bool(proved.faulty) == bool(faults)
    assert any("same space" in p.what for p in faults) == bool(mine)
    # Holes that meet: solids of the holes of every part agree with what is told of them.
    for part in bare.parts:
        told = any("runs into" in a.what for a in amiss_in(part))
        assert told == holes_meet(part), f"{name}: {part.name}"


# --- parts by hand


def part(name: str, size: tuple[float, float, float], frame: Any, *operations: Any, **more: Any) -> Part:
    length, width, thick = size
    return Part(name, "B", "board", length, width, thick, "none", frame, operations=operations, **more)


def test_a_tongue_in_its_groove_is_no_fault_and_one_too_deep_is() -> None:
    upright = part(
        "gable", (700.0, 500.0, 18.0), Frame((0.0, 0.0, 700.0), NEG_Z, Y), Groove("A", 0, 400, 700, 400, 8.2, 9)
    )
    # The gable lies from x = 0 to 18, face A inwards; its groove is at y 400, 9 deep.
    for reach, wide, told in ((9.0, 8.0, False), (9.5, 8.0, True), (9.0, 8.5, True), (0.0, 8.0, False)):
        back = part("back", (700.0, 300.0, wide), Frame((318.0 - reach, 400.0 + wide / 2, 0.0), Z, NEG_X))
        assert bool(shared_space((upright, back))) is told, (reach, wide)
        assert bool(independent((upright, back))) is told, (reach, wide)


def test_a_fault_names_both_parts_by_their_numbers_and_says_how_much() -> None:
    shelf = part("shelf 1", (564.0, 480.0, 18.0), Frame((18.0, -500.0, 300.0), X, Y))
    side = part("drawer 1 left side", (450.0, 200.0, 15.0), Frame((30.0, -490.0, 200.0), Y, Z))
    free = part("bottom", (564.0, 500.0, 18.0), Frame((18.0, -500.0, 0.0), X, Y))
    fault, *_ = faults_of((free, shelf, side))
    assert fault.what == "Part 2, shelf 1, and part 3, drawer 1 left side, take the same space: 15 x 450 x 18 mm."
    assert fault.weight == "wrong" and fault.remedy


def test_what_touches_shares_nothing() -> None:
    one = part("a", (600.0, 500.0, 18.0), Frame((0.0, 0.0, 0.0), X, Y))
    for at in ((600.0, 0.0, 0.0), (0.0, 500.0, 0.0), (0.0, 0.0, 18.0), (599.95, 0.0, 0.0)):
        assert shared_space((one, part("b", (600.0, 500.0, 18.0), Frame(at, X, Y)))) == ()
    (found,) = shared_space((one, part("b", (600.0, 500.0, 18.0), Frame((599.0, 100.0, 10.0), X, Y))))
    assert found.size == pytest.approx((1.0, 400.0, 8.0))


def test_parts_with_outlines_and_parts_askew_are_compared_as_they_are() -> None:
    corner = part(
        "bottom", (900.0, 900.0, 18.0), Frame((0.0, 0.0, 0.0), X, Y),
        outline=((0.0, 0.0), (900.0, 0.0), (900.0, 560.0), (560.0, 560.0), (560.0, 900.0), (0.0, 900.0)),
    )  # fmt: skip
    within = part("leg", (100.0, 100.0, 100.0), Frame((600.0, 600.0, -20.0), X, Y))
    assert shared_space((corner, within)) == ()
    on = part("leg", (100.0, 100.0, 100.0), Frame((500.0, 600.0, -20.0), X, Y))
    assert shared_space((corner, on))
    s = math.sqrt(0.5)
    slanted = Frame((600.0, 570.0, -20.0), (s, s, 0.0), (-s, s, 0.0))
    assert shared_space((corner, part("askew", (100.0, 10.0, 100.0), slanted))) == ()
    assert shared_space((corner, part("askew", (100.0, 60.0, 100.0), slanted)))


def test_no_kind_that_ships_is_refused_in_any_standard() -> None:
    for standard in [s.code for s in new_job().standards]:
        for kind in KINDS:
            job = units_in(new_job(), standard)
            job = runs.insert_unit(job, "r1", "A", kind.code).job
            made = Workings(job).made.of(job.cells()[-1].id)
            assert made is not None
            assert not [p.what for p in made.problems if "same space" in p.what], (standard, kind.code)


def test_a_unit_with_a_fault_is_on_no_paper_and_says_why(monkeypatch: pytest.MonkeyPatch) -> None:
    """Made wrong on purpose: a shelf that reaches 19 mm out of its carcass into the door."""
    job = with_run(new_job(), "A", Level.BASE, "door 600, drawers 600")
    cell = job.cells()[0].id
    wrong = making.make_shelves

    def too_deep(b: Any, box: Any) -> None:
        wrong(b, box)
        for draft in (d for d in b.drafts if d.role == "shelf" and b.spec.template == "door"):
            draft.frame = Frame((draft.frame.origin[0], -b.spec.depth - 19.0, draft.frame.origin[2]), X, Y)

    monkeypatch.setattr(making, "make_shelves", too_deep)
    making.make_unit.cache_clear()
    try:
        w = Workings(msgspec.structs.replace(job, name="Wrong"))
        made = w.made.of(cell)
        assert made is not None and made.parts == ()
        (snag,) = [s for s in w.snags if s.where.cell == cell and s.weight == "wrong"]
        assert "shelf 1" in snag.what and "door 1" in snag.what and "same space" in snag.what and "19" in snag.what
        assert not [i for i in w.made.parts() if i.cell == cell] and [i for i in w.made.parts() if i.cell != cell]
        assert not any("A1." in number for row in w.cut_rows for number in row.numbers)
    finally:
        forget_all()


def inset(job: Job, cell: str) -> Job:
    return units.set_own(job, (cell,), "overlay", "inset").job


def front_edge(made: making.MadeUnit, name: str) -> float:
    """How far a board's front edge stands behind the carcass's, mm."""
    (board,) = [p for p in made.parts if p.name == name]
    f = board.frame
    ys = [f.at(u, v, w)[1] for u in (0.0, board.length) for v in (0.0, board.width) for w in (0.0, board.thickness)]
    return min(ys) + made.spec.depth


@pytest.mark.parametrize(
    ("kind", "split", "between"), [("door 600", "rows", "shelf"), ("pair 900", "columns", "divider")]
)
def test_a_fixed_board_behind_a_front_that_is_set_in_leaves_it_its_room(kind: str, split: str, between: str) -> None:
    """It stood 19 mm in the door."""
    job = with_run(new_job(), "A", Level.BASE, kind)
    cell = job.cells()[0].id
    job = bays.split_bay(inset(job, cell), cell, (), "2", split, between).job
    made = Workings(job).made.of(cell)
    assert made is not None and made.parts and not shared_space(made.parts)
    name = "fixed shelf 1" if between == "shelf" else "divider 1"
    standard = made.spec.made
    assert front_edge(made, name) == pytest.approx(standard.front_thickness + standard.gap_inset)
    # Over the gables nothing changes; nor where each bay has a front of its own and the board parts them.
    plain = bays.split_bay(with_run(new_job(), "A", Level.BASE, kind), new_cell(kind), (), "2", split, between).job
    over = Workings(plain).made.of(plain.cells()[0].id)
    assert over is not None and front_edge(over, name) == 0.0
    each = bays.set_front(bays.set_front(job, ((cell, ()),), "none").job, ((cell, (0,)), (cell, (1,))), "door").job
    own = Workings(each).made.of(cell)
    assert own is not None and own.parts and front_edge(own, name) == 0.0 and not shared_space(own.parts)


def new_cell(kind: str) -> str:
    return with_run(new_job(), "A", Level.BASE, kind).cells()[0].id


def test_a_sinks_standing_rail_leaves_doors_that_are_set_in_their_room() -> None:
    """It stood in both doors."""
    job = with_run(new_job(), "A", Level.BASE, "sink 900")
    cell = job.cells()[0].id
    made = Workings(inset(job, cell)).made.of(cell)
    assert made is not None and made.parts and not shared_space(made.parts)
    standard = made.spec.made
    assert front_edge(made, "front rail") == pytest.approx(standard.front_thickness + standard.gap_inset)


def plates(made: making.MadeUnit) -> dict[str, set[float]]:
    """Part -> places across the unit of the hinge plates on it, mm."""
    found: dict[str, set[float]] = {}
    for p in made.parts:
        for op in p.operations:
            if isinstance(op, Bore) and op.use == "hinge plate":
                found.setdefault(p.name, set()).add(round(p.place(op.face, op.x, op.y)[0], 1))
    return found


def test_doors_of_columns_with_nothing_between_hang_on_the_gables_or_are_refused() -> None:
    """Their plates went into a gable 300 or 600 mm away."""
    job = with_run(new_job(), "A", Level.BASE, "door 600")
    cell = job.cells()[0].id
    bare = bays.set_shelves(job, cell, (), "0").job
    two = bays.split_bay(bare, cell, (), "2", "columns", "nothing").job
    made = Workings(two).made.of(cell)
    assert made is not None and [(f.kind, f.hand) for f in made.fronts] == [("door", "left"), ("door", "right")]
    assert plates(made) == {"left gable": {18.0}, "right gable": {582.0}}
    with pytest.raises(PlankError, match="no gable or divider to hang on") as told:
        bays.split_bay(bare, cell, (), "3", "columns", "nothing")
    assert "divider" in told.value.remedy
    with pytest.raises(PlankError, match="no gable or divider"):
        wide = with_run(new_job(), "A", Level.BASE, "pair 1200")
        inner = wide.cells()[0].id
        bays.split_bay(bays.set_shelves(wide, inner, (), "0").job, inner, (), "2", "columns", "nothing")
    # Turned round, the left door would hang on nothing.
    with pytest.raises(PlankError, match="no gable or divider"):
        bays.set_front_value(two, ((cell, (0,)),), "hand", "right")


@pytest.mark.parametrize(
    ("change", "word"),
    [
        (lambda job, cell: bays.set_shelves(job, cell, (0,), "1"), "A shelf"),
        (lambda job, cell: bays.split_bay(job, cell, (1,), "2", "rows", "shelf"), "A fixed shelf"),
    ],
)
def test_nothing_is_put_between_a_gable_and_nothing(change: Any, word: str) -> None:
    job = with_run(new_job(), "A", Level.BASE, "open 900")
    cell = job.cells()[0].id
    job = bays.set_shelves(job, cell, (), "0").job
    job = bays.split_bay(job, cell, (), "2", "columns", "nothing").job
    with pytest.raises(PlankError, match=f"{word}.* has nothing to hold it at"):
        change(job, cell)
    drawers = bays.set_front(job, ((cell, (0,)),), "drawer").job
    w = Workings(drawers)
    assert any("A drawer has nothing to hold it at the right of its bay" in s.what for s in w.snags)
    assert not w.made.of(cell).parts  # type: ignore[union-attr]


@pytest.mark.parametrize("standard", [s.code for s in new_job().standards])
def test_a_dividers_tongue_enters_both_rails(standard: str) -> None:
    """It stood 5 or 6 mm in a rear rail that had no groove."""
    job = with_run(units_in(new_job(), standard), "A", Level.BASE, "pair 900")
    cell = job.cells()[0].id
    job = bays.set_shelves(units.set_own(job, (cell,), "joint", "groove").job, cell, (), "0").job
    made = Workings(bays.split_bay(job, cell, (), "2", "columns", "divider").job).made.of(cell)
    assert made is not None and made.parts and not shared_space(made.parts) and not independent(made.parts)
    grooved = {p.name for p in made.parts for op in p.operations if isinstance(op, Groove) and op.over == "divider 1"}
    assert grooved >= {"front rail", "rear rail", "bottom"}


@pytest.mark.parametrize("back", sorted(CHOICES["back_fit"]))
@pytest.mark.parametrize("joint", sorted(CHOICES["joint"]))
def test_every_joint_goes_with_every_fit_of_bottom_top_and_back(joint: str, back: str) -> None:
    """Where gables stood in the bottom by a tongue, the back ran into the tongues, which had no groove."""
    for bottom in CHOICES["bottom_fit"]:
        for top in CHOICES["top_fit"]:
            for text in ("door 600", "sink 900", "open 600"):
                job = with_run(new_job(), "A", Level.BASE, text)
                cell = job.cells()[0].id
                for key, value in (("joint", joint), ("bottom_fit", bottom), ("top_fit", top), ("back_fit", back)):
                    job = units.set_own(job, (cell,), key, value).job
                made = Workings(job).made.of(cell)
                assert made is not None
                assert not [p.what for p in made.problems if "same space" in p.what], (bottom, top, text)


def dowels(parts: Sequence[Part]) -> list[tuple[str, tuple[float, ...], tuple[float, ...], float]]:
    """(part, place, direction into the wood, depth) of every dowel hole, in the unit."""
    return [
        (p.name, p.place(op.face, op.x, op.y), p.inwards(op.face), op.depth)
        for p in parts
        for op in p.operations
        if isinstance(op, Bore) and op.use == "dowel"
    ]


def stocked(job: Job, thickness: float) -> Job:
    """The job with what it stocks 15 thick in another thickness too."""
    more = [b for b in job.stock.boards if b.thickness == 15.0 and thickness != 15.0]
    found = (msgspec.structs.replace(b, code=f"{b.code}-{thickness:g}", thickness=thickness) for b in more)
    stock = msgspec.structs.replace(job.stock, boards=(*job.stock.boards, *found))
    return msgspec.structs.replace(job, stock=stock)


@pytest.mark.parametrize("standard", [s.code for s in new_job().standards])
@pytest.mark.parametrize("thickness", ["12", "15", "16"])
def test_every_dowel_goes_in_whole_with_room_for_glue(standard: str, thickness: str) -> None:
    """A dowel of 30 stood in holes of 7 and 20 where drawer sides are 12 thick: it could not close. Holes together 1 to
    2 mm deeper than the dowel is common practice; much deeper than 6 mm more leaves it loose."""
    for text in ("drawers 600", "door 600", "open 600", "drawer door 450"):
        job = stocked(units_in(new_job(), standard), float(thickness))
        job = with_run(job, "A", Level.BASE, text)
        cell = job.cells()[0].id
        job = standards.set_in_force(job, "drawer_thickness", thickness).job
        job = units.set_own(job, (cell,), "joint", "dowel").job
        made = Workings(job).made.of(cell)
        assert made is not None
        length = next(f.length for f in job.stock.fittings if f.code == made.spec.made.dowel)
        if "drawer" in text:
            assert {p.thickness for p in made.parts if p.role == "drawer"} == {float(thickness)}
        holes = dowels([p for p in made.parts if p.role in ("carcass", "drawer", "drawer bottom")])
        for name, at, way, depth in holes:
            mates = [
                other for other in holes
                if other[0] != name and math.dist(other[1], at) < 0.05
                and sum(a * b for a, b in zip(other[2], way, strict=True)) < -0.999
            ]  # fmt: skip
            assert len(mates) == 1, (text, name, at)
            assert length + 1.0 <= depth + mates[0][3] <= length + 6.0, (text, name, depth, mates)
