"""Styles of fronts yield real parts that go together, by every standard."""

from __future__ import annotations

import msgspec
import pytest

from conftest import cell_of, with_run
from making.test_standards import overlaps
from tall_plank.edits import bays, standards, units
from tall_plank.job import Job, Level
from tall_plank.job.shipped import shipped_standards
from tall_plank.job.standard import CHOICES
from tall_plank.job.start import new_job
from tall_plank.making import MadeUnit
from tall_plank.measure import PlankError
from tall_plank.workings import Workings


def styled(style: str, text: str = "pair 900", standard: str = "quay-dowelled") -> MadeUnit:
    job = msgspec.structs.replace(new_job(), standard=standard)
    job = standards.set_in_force(with_run(job, "A", Level.BASE, text), "front_style", style).job
    return made(job)


def made(job: Job, number: str = "A1") -> MadeUnit:
    found = Workings(job).made.of(cell_of(job, number))
    assert found is not None
    return found


@pytest.mark.parametrize("standard", [s.code for s in shipped_standards()])
@pytest.mark.parametrize("style", CHOICES["front_style"])
def test_the_pieces_of_a_front_do_not_take_the_same_space(style: str, standard: str) -> None:
    for text in ("pair 900", "wardrobe 1000", "drawers 600"):
        unit = styled(style, text, standard)
        assert unit.problems == () and unit.parts
        assert overlaps(unit.parts) == []


def test_a_glazed_door_has_bars_and_a_pane_in_its_rebate() -> None:
    unit = styled("glazed", "wardrobe 1000")
    door = unit.fronts[0]
    pane = next(p for p in unit.parts if p.role == "glass" and door.owns(p.name))
    stile = rail = 70.0
    assert pane.width == pytest.approx(door.width - 2 * stile + 2 * (10 - 2))
    assert pane.length == pytest.approx(door.height - 2 * rail + 2 * (10 - 2))
    bars = [p for p in unit.parts if p.role == "front bar" and door.owns(p.name)]
    # Two columns and three rows of panes: one upright bar, two cross bars in each column.
    assert len([p for p in bars if "upright" in p.name]) == 1
    crossing = [p for p in bars if "cross" in p.name]
    assert {round(p.length, 3) for p in crossing} == {round((door.width - 2 * stile - 22) / 2, 3)}
    assert pane.weight == pytest.approx(pane.length * pane.width * 4 * 2500e-9)


def test_drawers_beside_glazed_doors_have_flat_panels() -> None:
    unit = styled("glazed", "drawers 600")
    assert not any(p.role == "glass" for p in unit.parts)
    assert "framed" in {f.style for f in unit.fronts}


def test_louvres_stay_within_the_fronts_thickness_and_cover_the_sight() -> None:
    unit = styled("louvred")
    door = unit.fronts[0]
    louvres = [p for p in unit.parts if p.role == "louver" and door.owns(p.name)]
    heights = sorted(p.frame.at(0, p.width / 2, p.thickness / 2)[2] for p in louvres)
    steps = {round(b - a, 3) for a, b in zip(heights, heights[1:], strict=False)}
    assert steps == {20.0}
    for p in louvres:
        ys = [p.frame.at(0, v, w)[1] for v in (0, p.width) for w in (0, p.thickness)]
        assert max(ys) - min(ys) <= 19.01
    # One covers the next, seen square.
    zs = [p.frame.at(0, v, w)[2] for p in louvres[:1] for v in (0, p.width) for w in (0, p.thickness)]
    assert max(zs) - min(zs) > 20.0


def test_an_arched_rail_rises_to_its_middle() -> None:
    unit = styled("arched")
    rail = next(p for p in unit.parts if p.name.endswith("top rail"))
    assert rail.outline
    lows = [y for x, y in rail.outline if abs(x - rail.length / 2) < 1.0]
    assert max(lows) == pytest.approx(rail.width - 60, abs=0.5)


def test_a_raised_panel_stands_flush_with_its_frame() -> None:
    unit = styled("raised")
    panel = next(p for p in unit.parts if p.role == "front panel")
    stile = next(p for p in unit.parts if p.name.endswith("left stile"))
    assert panel.thickness == pytest.approx(stile.thickness)
    assert panel.frame.origin[1] == pytest.approx(stile.frame.origin[1])


def test_a_bifold_has_two_equal_leaves_hinged_together() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 500")
    job = bays.set_front(job, ((cell_of(job, "A1"), ()),), "bifold").job
    unit = made(job)
    assert [f.kind for f in unit.fronts] == ["bifold", "bifold"]
    assert unit.fronts[0].width == pytest.approx(unit.fronts[1].width)
    codes = {i.code: i.qty for i in unit.items}
    assert codes["HF-135"] == 2 and codes["BF-SET"] == 1
    cups = [op for p in unit.parts for op in p.operations if getattr(op, "diameter", 0) == 35]
    assert len(cups) == 2


def test_a_pocket_door_needs_the_depth_that_it_slides_into() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 450")
    at = cell_of(job, "A1")
    job = bays.set_front(bays.set_shelves(job, at, (), "0").job, ((at, ()),), "pocket").job
    assert {i.code for i in made(job).items} >= {"PK-SET"}
    wide = with_run(new_job(), "A", Level.BASE, "door 600")
    wide = units.set_own(wide, (cell_of(wide, "A1"),), "depth", "400").job
    wide = bays.set_front(wide, ((cell_of(wide, "A1"), ()),), "pocket").job
    assert "mm of clear depth" in made(wide).problems[0].what


def test_too_small_for_its_frame_becomes_a_slab() -> None:
    assert {f.style for f in styled("arched", "door 200").fronts} <= {"slab", "arched"}
    assert styled("framed", "pullout 150").fronts[0].style == "slab"


def test_a_handle_never_sits_on_glass_or_louvres() -> None:
    for style in ("glazed", "louvred"):
        job = standards.set_in_force(with_run(new_job(), "A", Level.BASE, "door 600"), "front_style", style).job
        assert made(job).problems == ()
        job = units.set_own(job, (cell_of(job, "A1"),), "handle_from_edge", "200").job
        assert "would sit on the" in made(job).problems[0].what and made(job).parts == ()


def test_a_front_shows_the_handle_that_it_has() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 600")
    at = cell_of(job, "A1")
    assert made(job).fronts[0].pull == "HD-BAR-192"
    job = bays.set_front_value(job, ((at, ()),), "handle", "HD-KNOB").job
    assert made(job).fronts[0].pull == "HD-KNOB"
    job = bays.set_front_value(job, ((at, ()),), "handle", "none").job
    assert made(job).fronts[0].pull == "" and made(job).fronts[0].handle is None


def test_a_handle_is_moved_on_one_front_and_given_back() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 600, drawers 600")
    at = cell_of(job, "A1")
    start = made(job).fronts[0].handle
    assert start is not None
    job = bays.set_front_value(job, ((at, ()),), "from_edge", "55").job
    job = bays.set_front_value(job, ((at, ()),), "from_end", "100").job
    moved = made(job).fronts[0].handle
    assert moved is not None
    # Hinged at the left: its edge is the right one; a base door is pulled from above.
    assert moved[0] == pytest.approx(start[0] - 15) and moved[1] == pytest.approx(start[1] - 40)
    holes = [op for p in made(job).parts for op in p.operations if getattr(op, "use", "") == "handle"]
    assert len(holes) == 2
    with pytest.raises(PlankError):
        bays.set_front_value(job, ((at, ()),), "from_end", "900")
    with pytest.raises(PlankError, match="lie off its front"):
        bays.set_front_value(job, ((at, ()),), "from_edge", "700")
    job = bays.set_front_value(job, ((at, ()),), "from_edge", "").job
    job = bays.set_front_value(job, ((at, ()),), "from_end", "").job
    assert made(job).fronts[0].handle == start
    drawers = cell_of(job, "A2")
    job = bays.set_front_value(job, ((drawers, (2,)),), "from_end", "50").job
    front = made(job, "A2").fronts[2]
    assert front.handle is not None and front.handle[1] == pytest.approx(front.z + front.height - 50)


@pytest.mark.parametrize(("limit", "count"), [(1.05, 3), (0.95, 4)])
def test_the_fold_of_a_bifold_carries_one_leaf(limit: float, count: int) -> None:
    """Its hinges go by the weight of the leaf that hangs on them: neither by half of it nor by both."""
    job = with_run(new_job(), "A", Level.BASE, "door 500")
    job = bays.set_front(job, ((cell_of(job, "A1"), ()),), "bifold").job
    leaf = sum(p.weight for p in made(job).parts if made(job).fronts[1].owns(p.name))
    rules = f"2500 {leaf * 0.6:.3f}kg: 2; 2500 {leaf * limit:.3f}kg: 3; 2500 {leaf * 1.5:.3f}kg: 4; 2500 90kg: 6"
    job = standards.set_in_force(job, "hinge_rules", rules).job
    assert {i.code: i.qty for i in made(job).items}["HF-135"] == count
