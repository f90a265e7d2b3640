"""Joints, hinges, runners and ways out: what the proof says of parts by hand, and of every kind by chance."""

from __future__ import annotations

import math
from collections import Counter
from typing import Any

import msgspec
import pytest

from conftest import made_alone, with_run
from tall_plank.drawing.part import part_drawing
from tall_plank.edits import bays, runs, standards, units
from tall_plank.edits.choices import CHOICES
from tall_plank.job import Body, Job, Level
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.making import Part
from tall_plank.making.parts import Asked, Bore, Cutout, Groove, Rebate
from tall_plank.making.proof import faults_of
from tall_plank.making.proof.hanging import amiss_hanging
from tall_plank.making.proof.joints import amiss_between
from tall_plank.making.proof.paths import Drawn, barred_ways
from tall_plank.making.unit import MadeUnit
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.frames import NEG_Z, X, Y, Z
from tall_plank.workings import Workings

KINDS = [t for t in shipped_templates() if t.body is not Body.GAP]
STANDARDS = [s.code for s in new_job().standards]


def part(name: str, size: tuple[float, float, float], frame: Any, *operations: Any) -> Part:
    return Part(name, "B", "board", *size, "none", frame, operations=operations)


def gable(*operations: Any) -> Part:
    """From x 0 to 18, its face A towards the bay; x of the part runs down from 700, y back from -500."""
    return part("gable", (700.0, 500.0, 18.0), Frame((0.0, -500.0, 700.0), NEG_Z, Y), *operations)


def bottom(*operations: Any) -> Part:
    """Between the gables: x from 18 to 582, 18 thick."""
    return part("bottom", (564.0, 500.0, 18.0), Frame((18.0, -500.0, 0.0), X, Y), *operations)


def said(*parts: Part, lengths: dict[str, float] | None = None, lent: Any = ()) -> list[str]:
    return [f"{parts[i].name}: {a.what}" for i, a in amiss_between(parts, lent, lengths)]


def dowel_pair(x: float = 691.0, depth: float = 12.0, end: float = 20.0, wide: float = 8.0) -> tuple[Part, Part]:
    return gable(Bore("A", x, 100, 8, depth, "dowel")), bottom(Bore("W1", 100, 9, wide, end, "dowel"))


def test_both_halves_of_a_dowel_meet_and_take_it_whole() -> None:
    assert said(*dowel_pair(), lengths={"dowel": 30.0}) == []
    assert said(*dowel_pair(x=690.9)) == [
        "gable: a dowel hole has no other half",
        "bottom: a dowel hole has no other half",
    ]
    assert "gable: a dowel hole is not as wide as its other half" in said(*dowel_pair(wide=10.0))
    (short,) = said(*dowel_pair(end=18.0), lengths={"dowel": 30.0})
    assert short == "gable: both dowel holes are 30 mm deep together: 30 mm do not go in"
    (loose,) = said(*dowel_pair(end=30.0), lengths={"dowel": 30.0})
    assert loose == "gable: both dowel holes are 42 mm deep together: 30 mm lie loose"
    # Without the gable, the panel beside the unit has the other half.
    (_, alone) = dowel_pair()
    assert said(alone) and said(alone, lent=(("left gable", (Asked((18.0, -400.0, 9.0), 8.0, 12.0, "dowel"),)),)) == []


def test_a_screw_bites_and_does_not_come_out() -> None:
    face = gable(Bore("A", 691, 100, 7, 18, "carcass screw", through=True))
    end = bottom(Bore("W1", 100, 9, 5, 45, "carcass screw"))
    assert said(face, end, lengths={"carcass screw": 50.0}) == []
    (short,) = said(face, end, lengths={"carcass screw": 30.0})
    assert short == "gable: a screw 30 mm long bites 12 mm; 15 mm is the least"
    rail = part("rail", (40.0, 500.0, 18.0), Frame((18.0, -500.0, 0.0), X, Y), end.operations[0])
    (out,) = said(face, rail, lengths={"carcass screw": 60.0})
    assert out == "gable: a screw 60 mm long comes out on the other side"


def test_slots_meet_along_their_whole_length() -> None:
    face = gable(Groove("A", 691, 72, 691, 128, 4, 12, "biscuit"))
    assert said(face, bottom(Groove("W1", 72, 9, 128, 9, 4, 12, "biscuit"))) == []
    assert said(face, bottom(Groove("W1", 80, 9, 120, 9, 4, 12, "biscuit")))
    assert said(face, bottom(Groove("W1", 73, 9, 129, 9, 4, 12, "biscuit")))


def hung(cup: float = 21.5, plate: float = 37.0, up: float = 0.0) -> list[str]:
    """A door with one hinge whose plate lies so far behind it and so much too high."""
    frame = Frame((2.0, -519.0, 2.0), Z, X)  # its face A looks into the unit
    leaf = part("door", (696.0, 596.0, 19.0), frame, Bore("A", 98, cup, 35, 12.5, "hinge"))
    side = gable(*(Bore("A", 600 - up - dz, plate, 5, 13, "hinge plate") for dz in (-16, 16)))
    return [a.what for _, a in amiss_hanging((side, leaf))]


def test_a_cup_has_its_plate_at_its_height_and_37_behind_its_front() -> None:
    """37 from the front's back to the plate's line and 32 between its holes: common practice for cup hinges (system
    32)."""
    assert hung() == []
    assert hung(plate=50.0) == ["a hinge's plate stands 50 mm behind its front; 37 mm are needed"]
    assert hung(up=3.0) == ["a hinge's plate is not as high as its cup"]
    assert hung(cup=80.0) == ["a hinge's cup has no plate beside it"]
    assert hung(up=200.0) == ["a hinge's cup has no plate beside it"]


def test_a_drawer_is_pulled_out_past_what_stands_before_it() -> None:
    side = part("drawer side", (450.0, 150.0, 15.0), Frame((40.0, -490.0, 100.0), Y, Z))
    stile = part("stile", (700.0, 45.0, 19.0), Frame((0.0, -519.0, 0.0), Z, X))
    assert list(barred_ways((side, stile), [Drawn((0,))]))
    assert not list(barred_ways((side, stile), [Drawn((0,), (1,))]))
    narrow = part("stile", (700.0, 30.0, 19.0), Frame((0.0, -519.0, 0.0), Z, X))
    assert not list(barred_ways((side, narrow), [Drawn((0,))]))
    fault, *_ = faults_of((side, stile), drawn=[Drawn((0,))])
    assert fault.what.startswith("Part 1, drawer side, cannot be pulled out past part 2, stile")


# --- units


def of(job: Job, cell: str) -> MadeUnit:
    made = Workings(job).made.of(cell)
    assert made is not None
    return made


def started(text: str, standard: str = "quay-dowelled", level: Level = Level.BASE) -> tuple[Job, str]:
    job = with_run(msgspec.structs.replace(new_job(), standard=standard), "A", level, text)
    return job, job.cells()[0].id


def holes(made: MadeUnit, use: str) -> list[tuple[str, tuple[float, ...]]]:
    return [
        (p.name, p.place(op.face, op.x, op.y))
        for p in made.parts for op in p.operations if isinstance(op, Bore) and op.use == use
    ]  # fmt: skip


@pytest.mark.parametrize("standard", STANDARDS)
@pytest.mark.parametrize("joint", sorted(CHOICES["joint"]))
def test_every_joint_of_every_kind_is_right_or_refused(standard: str, joint: str) -> None:
    """Loose tenons of 40 stood in mortices of 12 and 20; biscuits of 56 ran into the back's groove; slots of units
    between panels had no other half."""
    for kind in KINDS:
        job = runs.insert_unit(msgspec.structs.replace(new_job(), standard=standard), "r1", "A", kind.code).job
        cell = job.cells()[-1].id
        job = units.set_own(job, (cell,), "joint", joint).job
        made = made_alone(job, cell)
        told = [p.what for p in made.problems if "is made with fronts over its gables" not in p.what]
        assert not told, (kind.code, told)


def test_a_tenon_goes_in_whole() -> None:
    job, cell = started("door 600")
    made = of(units.set_own(job, (cell,), "joint", "tenon").job, cell)
    depths = {op.face: op.depth for p in made.parts for op in p.operations
              if isinstance(op, Groove) and op.over == "loose tenon" and p.name in ("left gable", "bottom")}  # fmt: skip
    assert depths["A"] + depths["W1"] == 42.0


@pytest.mark.parametrize("inset", ["32", "37", "50"])
@pytest.mark.parametrize("overlay", sorted(CHOICES["overlay"]))
def test_plates_follow_the_hinge_and_not_the_rows_of_holes(inset: str, overlay: str) -> None:
    """With rows 50 behind the edge, they missed their cups by 13."""
    job, cell = started("door 600")
    job = units.set_own(job, (cell,), "overlay", overlay).job
    made = of(standards.set_in_force(job, "row_inset", inset).job, cell)
    assert made.parts
    back = min(y for _, (_, y, _) in holes(made, "hinge"))
    assert {round(y - back, 6) for _, (_, y, _) in holes(made, "hinge plate")} == {37.0}


def test_a_plates_hole_on_the_row_is_a_plates_hole() -> None:
    """Where the row had it already, it stayed a shelf's, with the pin's diameter and depth."""
    job, cell = started("drawer pair 900")
    made = of(standards.set_in_force(job, "pin_diameter", "6").job, cell)
    plates = holes(made, "hinge plate")
    cups = [at for _, at in holes(made, "hinge")][::3]
    assert len(plates) == 2 * len(cups)
    drilled = {
        op.diameter for p in made.parts for op in p.operations if isinstance(op, Bore) and op.use == "hinge plate"
    }
    assert drilled == {5.0}


@pytest.mark.parametrize("kind", ["slant corner 900", "corner 900"])
def test_no_shelf_stands_in_a_hole_of_a_hinge(kind: str) -> None:
    """In corner units pins and plates shared holes."""
    for height in range(600, 1200, 40):
        job = with_run(new_job(), "A", Level.BASE, f"drawers 600, {kind}")
        cell = job.cells()[1].id
        made = of(units.set_own(job, (cell,), "height", str(height)).job, cell)
        both = [at for _, at in holes(made, "hinge plate") + holes(made, "shelf")]
        assert all(math.dist(a, c) > 5.0 for i, a in enumerate(both) for c in both[i + 1 :]), height


def test_fronts_at_a_slant_have_hinges_for_it() -> None:
    """They had the one for square fronts."""
    for text, level, code in (
        ("drawers 600, slant corner 900", Level.BASE, "HG-S135"),
        ("drawers 600, corner 900", Level.BASE, "HG-165"),
    ):
        job = with_run(new_job(), "A", level, text)
        made = of(job, job.cells()[1].id)
        assert code in {i.code for i in made.items} and "HG-110" not in {i.code for i in made.items}
    # A stock without it says so.
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, slant corner 900")
    few = msgspec.structs.replace(job.stock, fittings=tuple(f for f in job.stock.fittings if f.front_angle == 90.0))
    bare = of(msgspec.structs.replace(job, stock=few), job.cells()[1].id)
    assert not bare.parts and "no hinge for a front that stands at 135°" in bare.problems[0].what


def test_a_slanted_corners_door_stays_out_of_its_neighbours_fronts() -> None:
    """It stood 15.4 x 10.9 mm in them over the full height."""
    for standard in STANDARDS:
        job = with_run(
            msgspec.structs.replace(new_job(), standard=standard), "A", Level.BASE, "door 600, slant corner 900"
        )
        made = of(job, job.cells()[1].id)
        if not made.parts:
            assert "made with fronts over its gables" in made.problems[0].what
            continue
        (leaf,) = (p for p in made.parts if p.role == "front")
        corners = [leaf.frame.at(u, v, w) for u in (0.0, leaf.length) for v in (0.0, leaf.width) for w in (0.0, 19.0)]
        assert min(x for x, _, _ in corners) == pytest.approx(made.spec.made.gap_side)
        assert min(y for _, y, _ in corners) == pytest.approx(-made.spec.leg + made.spec.made.gap_side)


@pytest.mark.parametrize("stile", ["30", "36", "38", "40", "45", "50", "60"])
@pytest.mark.parametrize("overlay", sorted(CHOICES["overlay"]))
@pytest.mark.parametrize("hinge", ["HG-110", "HB-64"])
def test_a_face_frame_has_drawers_and_doors_with_any_stile_and_hinge(stile: str, overlay: str, hinge: str) -> None:
    """Packers were had only where stile less carcass was a stocked thickness; cup hinges were not packed out; butt
    hinges of fronts over the frame were let into the door only."""
    for text in ("drawers 600", "door 600", "drawer pair 900", "pair 900"):
        job, cell = started(text, "chandler-frame")
        job = units.set_own(job, (cell,), "overlay", overlay).job
        for key, value in (("face_stile", stile), ("hinge", hinge)):
            job = standards.set_in_force(job, key, value).job
        made = of(job, cell)
        assert made.parts, (text, [p.what for p in made.problems])
        if "pair" in text or "door" in text:
            bought = {i.code for i in made.items}
            assert ("HG-FRAME" in bought) is (overlay != "inset")
        if hinge == "HG-110" and overlay == "inset" and "door" in text:
            # Its plates are plates, whatever the standard of butt hinges names.
            assert {i.code for i in made.items if i.code == "HP-32"}
            plates = [op for p in made.parts for op in p.operations if isinstance(op, Bore) and op.use == "hinge plate"]
            assert {op.diameter for op in plates} == {5.0}
        thin = [p for p in made.parts if p.role == "packer" and p.thickness < 10 and "layer" not in p.name]
        for p in thin:
            assert all(op.through for op in p.operations if isinstance(op, Bore) and op.use == "runner")


def test_a_handle_keeps_clear_of_the_groove_of_its_panel() -> None:
    """On a rail of 70 with its groove from 60 the holes 60 from the edge stood in the groove."""
    for front in ("flap", "drop", "drawer", "door"):
        for style in ("framed", "raised", "glazed", "arched"):
            job, cell = started("door 600")
            job = bays.set_front(bays.set_shelves(job, cell, (), "0").job, ((cell, ()),), front).job
            job = standards.set_in_force(job, "front_style", style).job
            made = of(job, cell)
            assert made.parts or any("weighs" in p.what or "on the glass" in p.what for p in made.problems), (
                front,
                style,
            )
            for p in made.parts:
                low = next((op.depth for op in p.operations if isinstance(op, Groove) and op.face == "L1"), 0.0)
                high = p.width - next(
                    (op.depth for op in p.operations if isinstance(op, Groove) and op.face == "L2"), 0.0
                )
                for op in p.operations:
                    if isinstance(op, Bore) and op.use == "handle" and p.role == "front frame":
                        assert low + op.diameter / 2 <= op.y <= high - op.diameter / 2


def test_too_many_hinges_or_shelves_behind_are_refused_in_words() -> None:
    job, cell = started("door 600")
    job = units.set_own(job, (cell,), "height", "300").job
    with_six = units.set_own(job, (cell,), "hinges", "6").job
    made = of(with_six, cell)
    assert not made.parts
    assert "no room for 6 hinges" in made.problems[0].what


def test_a_divider_behind_a_curved_front_ends_at_the_curve() -> None:
    for kind in ("bow 900", "hollow 900"):
        job, cell = started(kind)
        try:
            split = bays.split_bay(bays.set_shelves(job, cell, (), "0").job, cell, (), "2", "columns", "divider").job
        except PlankError as error:
            assert error.remedy
            continue
        made = of(split, cell)
        assert made.parts or all(p.remedy for p in made.problems)


@pytest.mark.parametrize("back", ["on", "rebate"])
def test_a_back_is_screwed_on_by_what_bites_and_every_screw_has_its_hole(back: str) -> None:
    """Screws of 7 x 50 went through a land of 9 mm, without a hole."""
    for text in ("door 600", "sink 900", "open 450"):
        job, cell = started(text)
        made = of(units.set_own(job, (cell,), "back_fit", back).job, cell)
        assert made.parts, [p.what for p in made.problems]
        board = next(p for p in made.parts if p.name == "back")
        drilled = [op for op in board.operations if isinstance(op, Bore) and op.use == "back screw"]
        bought = {i.code: i.qty for i in made.items if "back screwed" in i.why}
        (code,) = bought
        screw = job.stock.fitting(code)
        assert bought[code] == len(drilled) and screw is not None
        assert screw.gauge <= 4.0 and 10.0 <= screw.length - board.thickness <= 20.0
        # They stand in wood: behind each is a gable, the bottom, the top or a rail.
        rest = [p for p in made.parts if p.role == "carcass"]
        for op in drilled:
            x, y, z = board.place(op.face, op.x, op.y)
            before = (x, y - board.thickness - 5.0, z)
            inside = [
                p for p in rest
                if all(1.9 < v < size - 1.9 for v, size in zip(p.frame.into(before), (p.length, p.width, p.thickness),
                                                               strict=True))
            ]  # fmt: skip
            assert inside, (text, x, z)


def test_a_packers_screws_do_not_come_out_on_the_other_side() -> None:
    """50 went through 18 + 18: the points came 14 mm out."""
    for stile in ("30", "36", "45"):
        job, cell = started("drawers 600", "chandler-frame")
        made = of(standards.set_in_force(job, "face_stile", stile).job, cell)
        thick = float(stile) - 18.0
        bought = Counter[str]()
        for item in made.items:
            if "for each packer" in item.why:
                bought[item.code] += item.qty
        packers = [p for p in made.parts if p.role == "packer"]
        (code,) = bought
        screw = job.stock.fitting(code)
        assert screw is not None and thick + 10.0 <= screw.length <= thick + 18.0 - 2.0
        pilots = [at for name, at in holes(made, "wood screw") if "gable" in name]
        whole = [p for p in packers if "layer" not in p.name or p.name.endswith("layer 1")]
        assert bought[code] == len(pilots) == 3 * len(whole) > 0
        assert all(len([op for op in p.operations if isinstance(op, Bore) and "screw" in op.use]) == 3 for p in packers)


def test_the_stock_without_a_screw_that_fits_says_which() -> None:
    job, cell = started("drawers 600", "chandler-frame")
    few = tuple(f for f in job.stock.fittings if not f.code.startswith("WS-"))
    made = of(msgspec.structs.replace(job, stock=msgspec.structs.replace(job.stock, fittings=few)), cell)
    assert not made.parts
    told = [p.what for p in made.problems]
    assert "The stock has no wood screw for a packer: 25 mm to 34 mm long." in told


@pytest.mark.parametrize("grain", sorted(CHOICES["front_grain"]))
@pytest.mark.parametrize("style", ["slab", "grooved", "framed"])
def test_butt_hinges_are_let_into_both_whatever_the_grain(grain: str, style: str) -> None:
    """With the grain across, a slab's hinge edge is an end of it: only the frame was drilled."""
    job, cell = started("door 600", "chandler-frame")
    job = units.set_own(units.set_own(job, (cell,), "front_grain", grain).job, (cell,), "front_style", style).job
    made = of(job, cell)
    assert made.parts, [p.what for p in made.problems]
    by = [name for name, _ in holes(made, "butt hinge")]
    assert len([n for n in by if n.startswith("door")]) == len([n for n in by if n.startswith("face")]) > 0


@pytest.mark.parametrize("joint", sorted(CHOICES["joint"]))
@pytest.mark.parametrize("top", sorted(CHOICES["top_fit"]))
def test_hangers_move_out_of_the_way_of_joints(joint: str, top: str) -> None:
    """With the top over the gables, pockets, cams and tenons stood where the hangers are."""
    for text in ("hung door 600", "hung pair 900", "hung open 450"):
        for standard in STANDARDS:
            kind, width = text.rsplit(" ", 1)
            job = runs.insert_unit(
                msgspec.structs.replace(new_job(), standard=standard), "r1", "A", kind.replace(" ", "-")
            ).job
            cell = job.cells()[-1].id
            job = runs.set_width(job, (cell,), width).job
            job = units.set_own(units.set_own(job, (cell,), "joint", joint).job, (cell,), "top_fit", top).job
            made = of(job, cell)
            told = [p.what for p in made.problems if "A back in a rebate needs" not in p.what]
            assert not told, (text, standard, told)
            if made.parts:
                assert len(holes(made, "hanger")) == 4


@pytest.mark.parametrize("standard", STANDARDS)
@pytest.mark.parametrize("overlay", sorted(CHOICES["overlay"]))
@pytest.mark.parametrize("style", ["slab", "framed", "raised"])
def test_a_drawer_front_is_screwed_to_its_box(standard: str, overlay: str, style: str) -> None:
    """It had no screws and no holes; before a face frame that fronts lie over, the box did not reach its front."""
    for text in ("drawers 600", "drawers 300", "drawer door 450"):
        job, cell = started(text, standard)
        job = units.set_own(units.set_own(job, (cell,), "overlay", overlay).job, (cell,), "front_style", style).job
        made = of(job, cell)
        if text == "drawers 300" and not made.parts:
            # Both screws of a handle 128 wide stand where its stiles are grooved.
            assert made.spec.made.handle == "HD-BAR-128" and "no whole wood" in made.problems[0].what
            continue
        assert made.parts, [p.what for p in made.problems]
        bought = sum(i.qty for i in made.items if i.why.startswith("screws of a drawer front"))
        fronts = [f for f in made.fronts if f.kind == "drawer"]
        assert bought >= 2 * len(fronts)
        boxes = [p for p in made.parts if p.role == "drawer" and p.name.endswith(" front")]
        assert len(boxes) == len(fronts)
        for drawer, front in zip(boxes, fronts, strict=True):
            mine = [p for p in made.parts if front.owns(p.name)]
            back = max(p.frame.at(0.0, 0.0, w)[1] for p in mine for w in (0.0, p.thickness))
            assert drawer.frame.origin[1] == pytest.approx(back), "the box reaches its front"


def test_no_part_floats() -> None:
    """Face frames, fronts on stays, blind panels were held by nothing that anybody was told."""
    pair = dowel_pair()
    assert faults_of(pair) == ()
    loose = part("shelf", (500.0, 400.0, 18.0), Frame((30.0, -450.0, 300.0), X, Y))
    (fault,) = faults_of((*pair, loose))
    assert fault.what == "Part 3, shelf, is held by nothing." and fault.parts == (3,) and fault.remedy
    said_how = msgspec.structs.replace(loose, fixed="glued on")
    assert faults_of((*pair, said_how)) == ()
    # On pins just below it, it lies.
    side, base = pair
    pins = tuple(Bore("A", 700.0 - 297.5, y, 5, 13, "shelf") for y in (87.0, 413.0))
    shelf = msgspec.structs.replace(loose, role="shelf", frame=Frame((19.0, -450.0, 300.0), X, Y))
    drilled = msgspec.structs.replace(side, operations=(*side.operations, *pins))
    assert faults_of((drilled, base, shelf)) == ()
    higher = msgspec.structs.replace(shelf, frame=Frame((19.0, -450.0, 320.0), X, Y))
    assert [f.what for f in faults_of((drilled, base, higher))] == ["Part 3, shelf, is held by nothing."]


def test_what_nothing_is_drilled_for_says_how_it_is_fixed() -> None:
    for text, standard, name, words in (
        ("door 600", "chandler-frame", "face left stile", "glued to the carcass"),
        ("hob 900", "quay-dowelled", "fixed front 1", "by hand"),
        ("pullout 300", "quay-dowelled", "pull-out front 1", "pull-out's frame"),
        ("drawers 600, blind 1100", "quay-dowelled", "blind panel", "by hand"),
    ):
        job = with_run(msgspec.structs.replace(new_job(), standard=standard), "A", Level.BASE, text)
        made = made_alone(job, job.cells()[-1].id)
        (piece,) = [p for p in made.parts if p.name == name]
        assert words in piece.fixed, (name, piece.fixed)
        drawing = part_drawing("A1.1", piece, job.display)
        assert any(words in getattr(i, "text", "") and "fixed: " in i.text for i in drawing.items)  # type: ignore[union-attr]


def test_a_pull_out_takes_its_whole_bay() -> None:
    """Its frame ran through the shelves of its bay."""
    job, cell = started("door 450")
    with pytest.raises(PlankError, match="A pull-out takes all the room of a bay") as told:
        bays.set_front(job, ((cell, ()),), "pullout")
    assert told.value.remedy
    free = bays.set_shelves(job, cell, (), "0").job
    pulled = bays.set_front(free, ((cell, ()),), "pullout").job
    assert of(pulled, cell).parts
    with pytest.raises(PlankError, match="A pull-out takes all the room of this bay"):
        bays.set_shelves(pulled, cell, (), "2")
    with pytest.raises(PlankError, match="A pull-out takes all the room"):
        bays.split_bay(pulled, cell, (), "2", "rows", "shelf")
    # A job of before, in which it stands so, is refused by its unit.
    unit = pulled.unit(pulled.find_cell(cell)[2].unit)
    old = msgspec.structs.replace(unit, bay=msgspec.structs.replace(unit.bay, shelves=1))
    made = of(msgspec.structs.replace(pulled, units=(old,)), cell)
    assert not made.parts and "takes all the room" in made.problems[0].what


def screwed_pair(*more: Any, at: tuple[float, float] = (300.0, 250.0)) -> tuple[Part, Part]:
    """A board 18 thick screwed on another one, the screw's head on its face A."""
    on = part(
        "on", (600.0, 500.0, 18.0), Frame((0.0, 0.0, 18.0), X, Y), Bore("B", *at, 4, 18, "wood screw", True), *more
    )
    under = part("under", (600.0, 500.0, 18.0), Frame((0.0, 0.0, 0.0), X, Y), Bore("A", *at, 2.5, 14, "wood screw"))
    return on, under


def test_a_stay_has_its_other_half_on_the_other_side() -> None:
    left = gable(Bore("A", 45, 37, 5, 13, "stay"))
    right = part("right", (700.0, 500.0, 18.0), Frame((600.0, -500.0, 0.0), Z, Y), Bore("A", 655, 37, 5, 13, "stay"))
    lower = part("right", (700.0, 500.0, 18.0), Frame((600.0, -500.0, 0.0), Z, Y), Bore("A", 600, 37, 5, 13, "stay"))
    assert [a.what for _, a in amiss_hanging((left, right))] == []
    assert [a.what for _, a in amiss_hanging((left, lower))] == ["a stay has none on the other side of its front"] * 2
    assert [i for i, _ in amiss_hanging((left,))] == [0]


def test_a_screws_head_has_wood_under_it() -> None:
    """A head is about twice as wide as its thread (common practice): 3.6 about the middle of a hole of 4."""
    assert said(*screwed_pair()) == []
    assert said(*screwed_pair(at=(3.6, 250.0))) == []
    told = ["on: the head of a wood screw finds no whole wood under it in on"]
    assert said(*screwed_pair(at=(3.0, 250.0))) == told
    # On the head's own face, beside it: a groove, a hole, a rebate, a cut-out. On the other face nothing hinders it.
    for cut in (
        Groove("A", 0.0, 256.0, 600.0, 256.0, 8.0, 8.0, "back"),
        Bore("A", 305.0, 250.0, 5.0, 12.0, "hinge plate"),
        Bore("B", 305.0, 250.0, 5.0, 18.0, "pipe", True),
        Cutout(303.0, 200.0, 50.0, 100.0, 5.0),
    ):
        assert said(*screwed_pair(cut)) == told, cut
        moved = msgspec.structs.replace(cut, face="B") if hasattr(cut, "face") else None
        if moved is not None and not getattr(cut, "through", False):
            assert said(*screwed_pair(moved)) == [], moved
    assert said(*screwed_pair(Rebate("A", "L1", 9.0, 8.0), at=(300.0, 11.0))) == told
    assert said(*screwed_pair(Rebate("A", "L1", 9.0, 8.0), at=(300.0, 14.0))) == []
    assert said(*screwed_pair(Groove("A", 0.0, 262.0, 600.0, 262.0, 8.0, 8.0, "back"))) == []


def test_screws_of_a_low_drawer_front_stand_apart() -> None:
    """Two stood 4 mm apart, where only a few millimetres of the front are whole wood."""
    job, cell = started("drawers 600")
    for style in ("slab", "framed", "raised"):
        for height in ("730mm", "900mm", "1300mm"):
            made = of(
                units.set_own(units.set_own(job, (cell,), "front_style", style).job, (cell,), "height", height).job,
                cell,
            )
            for p in made.parts:
                screws = [(op.x, op.y) for op in p.operations if isinstance(op, Bore) and op.use == "wood screw"]
                assert all(math.dist(a, b) >= 12.0 for i, a in enumerate(screws) for b in screws[:i]), p.name
