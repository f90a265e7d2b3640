"""Hardware by rule: each line says why; rules are overridden on one unit; what is screwed on has its holes."""

from __future__ import annotations

import pytest

from conftest import cell_of, with_run
from tall_plank.edits import fittings, standards, units
from tall_plank.edits.things.island import add_island
from tall_plank.edits.things.service import add_service
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making import Bore, MadeUnit
from tall_plank.making.parts import Cutout
from tall_plank.workings import Workings


def job_of(text: str, level: Level = Level.BASE) -> Job:
    return with_run(new_job(), "A", level, text)


def made(job: Job, number: str = "A1") -> MadeUnit:
    found = Workings(job).made.of(cell_of(job, number))
    assert found is not None
    return found


def uses(unit: MadeUnit, name: str, use: str) -> list[Bore]:
    return [op for p in unit.parts if p.name == name for op in p.operations if isinstance(op, Bore) and op.use == use]


def test_every_line_of_the_schedule_says_why() -> None:
    job = job_of("door 450, drawers 600, wardrobe 1000, pair 900")
    for row in Workings(job).hardware:
        assert row.why and all(why.strip() for why in row.why), row.code


def test_hinges_are_set_by_hand_on_one_unit_and_given_back() -> None:
    job = job_of("door 450, door 450")
    cell = cell_of(job, "A1")
    job = units.set_own(job, (cell,), "hinges", "4").job
    hinges = {n: next(i for i in made(job, n).items if i.code == "HG-110") for n in ("A1", "A2")}
    assert (hinges["A1"].qty, hinges["A2"].qty) == (4, 2)
    assert "by hand" in hinges["A1"].why and "by hand" not in hinges["A2"].why
    assert len(uses(made(job), "door 1", "hinge")) == 4 * 3
    job = units.inherit_again(job, (cell,), "hinges").job
    assert next(i for i in made(job).items if i.code == "HG-110").qty == 2


def test_leg_plates_are_screwed_under_the_bottom() -> None:
    unit = made(job_of("pair 900"))
    holes = uses(unit, "bottom", "leg plate")
    assert len(holes) == 4 * 4 and {h.face for h in holes} == {"B"}
    bottom = next(p for p in unit.parts if p.name == "bottom")
    for hole in holes:
        assert 40 < hole.x < bottom.length - 40 and 40 < hole.y < bottom.width - 40
    wide = made(job_of("pair 1000"))
    assert len(uses(wide, "bottom", "leg plate")) == 6 * 4


def test_an_odd_leg_stands_in_the_middle() -> None:
    job = job_of("pair 900")
    cell = cell_of(job, "A1")
    unit = made(units.set_own(job, (cell,), "legs", "5").job)
    assert next(i.qty for i in unit.items if i.code == "LG-100") == 5
    holes = uses(unit, "bottom", "leg plate")
    assert len(holes) == 5 * 4
    bottom = next(p for p in unit.parts if p.name == "bottom")
    near = [h for h in holes if abs(h.x - bottom.length / 2) < 60 and abs(h.y - bottom.width / 2) < 60]
    assert len(near) == 4


def test_a_middle_leg_moves_aside_for_a_divider() -> None:
    from tall_plank.edits import bays

    job = job_of("wardrobe 1200")
    cell = cell_of(job, "A1")
    job = bays.split_bay(bays.join_bay(job, cell, ()).job, cell, (), "2", "columns", "divider").job
    unit = made(job)
    assert unit.problems == ()
    divider = next(p for p in unit.parts if p.name == "divider 1")
    middle = divider.frame.origin[0] - divider.thickness / 2
    bottom = next(p for p in unit.parts if p.name == "bottom")
    xs = {round(bottom.frame.at(h.x, h.y, 0.0)[0], 2) for h in uses(unit, "bottom", "leg plate")}
    assert min(abs(x - middle) for x in xs) >= 40 - 0.01


def test_hung_units_have_holes_for_their_hangers() -> None:
    unit = made(job_of("pair 900", Level.HUNG))
    for name in ("left gable", "right gable"):
        assert [h.diameter for h in uses(unit, name, "hanger")] == [10, 10]
    # A floating shelf hangs on brackets.
    assert not uses(made(job_of("floating 900", Level.HUNG)), "left gable", "hanger")


def test_tall_units_are_fixed_to_the_wall() -> None:
    codes = {i.code: i for i in made(job_of("bookcase 600, pair 900")).items}
    assert codes["WF-50"].qty == 2 and "mm high" in codes["WF-50"].why
    assert "WF-50" not in {i.code for i in made(job_of("pair 900")).items}


def test_a_tall_unit_on_an_island_has_no_wall_to_be_fixed_to() -> None:
    change = add_island(new_job(), "r1", (2000.0, 1200.0))
    face = Workings(change.job).layout.rooms[0].faces[0].id
    job = with_run(change.job, face, Level.BASE, "bookcase 600")
    told = [s.what for s in Workings(job).snags if s.rule == "strength"]
    assert any("no wall behind it" in what for what in told)


def test_drawers_take_another_handle_than_doors() -> None:
    job = job_of("drawer door 500")
    job = units.set_own(job, (cell_of(job, "A1"),), "handle_drawer", "HD-KNOB").job
    codes = {i.code for i in made(job).items}
    assert {"HD-KNOB", "HD-BAR-192"} <= codes


def test_edging_of_several_materials_in_one_unit_with_right_cut_sizes() -> None:
    job = job_of("door 450")
    cell = cell_of(job, "A1")
    plain = {p.name: p for p in made(job).parts}
    job = units.set_own(job, (cell,), "edging_front_in", "storm-oak").job
    job = units.set_own(job, (cell,), "edging_carcass_in", "harbor-white").job
    mixed = {p.name: p for p in made(job).parts}
    assert mixed["door 1"].edges.l1 == "E-SO-1" and mixed["left gable"].edges.l1 == "E-HW-1"
    assert mixed["door 1"].material == plain["door 1"].material
    assert mixed["door 1"].cut_length == pytest.approx(plain["door 1"].cut_length)
    assert mixed["door 1"].cut_length == pytest.approx(mixed["door 1"].length - 2 * 1.0 + 2 * 0.5)
    listed = {row.code for row in Workings(job).edging}
    assert {"E-SO-1", "E-HW-1"} <= listed
    job = units.set_own(job, (cell,), "edging_front", "3").job
    assert "edging in storm-oak" in made(job).problems[0].what


def test_the_back_is_cut_out_round_pipes_and_near_ones_share_a_hole() -> None:
    job = job_of("sink 900, pair 900")
    room = job.rooms[0].id
    for kind, x, _ in (("water", 400.0, 500), ("waste", 450.0, 400), ("power", 1300.0, 300)):
        job = add_service(job, room, "A", kind, x).job
    first = next(p for p in made(job, "A1").parts if p.name == "back")
    second = next(p for p in made(job, "A2").parts if p.name == "back")
    cuts = [op for op in first.operations if isinstance(op, Cutout)]
    assert len(cuts) == 1
    (power,) = [op for op in second.operations if isinstance(op, Cutout)]
    middle = second.frame.at(power.x + power.length / 2, power.y + power.width / 2, 0.0)
    placed = Workings(job).layout.placed[1]
    assert placed.x + middle[0] == pytest.approx(1300) and placed.bottom + middle[2] == pytest.approx(300)


def test_gables_down_to_the_floor_are_notched_round_the_plinth() -> None:
    from making.test_standards import overlaps
    from tall_plank.making.solids import placed as solid

    job = job_of("pair 1000")
    cell = cell_of(job, "A1")
    on_legs = made(job)
    job = units.set_own(job, (cell,), "gable_foot", "floor").job
    unit = made(job)
    assert unit.problems == () and overlaps(unit.parts) == []
    left = next(p for p in unit.parts if p.name == "left gable")
    standard = unit.spec.made
    assert left.length == pytest.approx(on_legs.spec.height + 100)
    notch = standard.plinth_setback + standard.plinth_thickness
    whole = left.length * left.width * left.thickness
    cut = solid(left).volume()
    holes = solid(next(p for p in on_legs.parts if p.name == "left gable")).volume()
    before = on_legs.spec.height * left.width * left.thickness
    assert whole - cut - (before - holes) == pytest.approx(100 * notch * left.thickness, rel=1e-3)
    # Holes stay where they are in the unit.
    assert {
        round(p.frame.at(op.x, op.y, 0)[2], 2)
        for p in unit.parts
        if p.name == "left gable"
        for op in p.operations
        if isinstance(op, Bore) and op.face == "A"
    } == {
        round(p.frame.at(op.x, op.y, 0)[2], 2)
        for p in on_legs.parts
        if p.name == "left gable"
        for op in p.operations
        if isinstance(op, Bore) and op.face == "A"
    }
    legs = {u: next((i.qty for i in x.items if i.code == "LG-100"), 0) for u, x in (("a", on_legs), ("b", unit))}
    assert legs == {"a": 6, "b": 2}
    under = units.set_own(job, (cell,), "bottom_fit", "under").job
    assert "need the bottom between" in made(under).problems[0].what


def test_a_corner_wardrobe_has_a_rail_along_each_leg() -> None:
    unit = made(job_of("wardrobe 800, corner wardrobe 1000"), "A2")
    assert unit.problems == ()
    rails = [i for i in unit.items if i.code == "RL-25"]
    assert len(rails) == 2 and all(500 < i.length < 1000 for i in rails)


def test_hinges_keep_clear_of_fixed_shelves_and_inner_drawers_behind_the_door() -> None:
    from tall_plank.edits import bays

    for sizes in ("95 share", "share 95", "180 share 260", "share 230 230 230", "100 100 100 share"):
        job = job_of("wardrobe 1000")
        cell = cell_of(job, "A1")
        job = bays.join_bay(job, cell, ()).job
        job = fittings.remove_fitting(job, cell, (), 0).job
        job = bays.split_bay(job, cell, (), sizes, "rows", "shelf").job
        if sizes == "share 95":
            job = bays.set_shelves(job, cell, (0,), "7").job
        if sizes.startswith("share 230"):
            job = bays.set_front(job, tuple((cell, (i,)) for i in (1, 2, 3)), "inner").job
        unit = made(job)
        assert unit.problems == (), sizes
        # The middles of the cups, which the plates share.
        cups = [
            p.frame.at(op.x, op.y, 0.0)[2]
            for p in unit.parts
            for op in p.operations
            if isinstance(op, Bore) and op.diameter == 35
        ]
        assert len(cups) >= 4
        solids = [p for p in unit.parts if p.name.startswith("fixed shelf") or p.role in ("packer", "shelf")]
        for part in solids:
            zs = [
                part.frame.at(u, v, w)[2]
                for u in (0, part.length)
                for v in (0, part.width)
                for w in (0, part.thickness)
            ]
            for z in cups:
                assert not min(zs) - 20 < z < max(zs) + 20, (sizes, part.name, z)


def test_a_blind_hole_behind_a_groove_keeps_wood_between() -> None:
    """A hinge cup 12.5 deep behind a routed groove: with 4 mm of groove 2.5 mm stay, with 8 mm the front is refused."""
    job = standards.set_in_force(job_of("door 450"), "front_style", "slatted").job
    cell = cell_of(job, "A1")
    assert made(job).problems == ()
    job = units.set_own(job, (cell,), "slat_cut", "8").job
    assert "groove of the slats" in made(job).problems[0].what
    assert made(job).parts == ()
