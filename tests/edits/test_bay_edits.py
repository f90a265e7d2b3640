"""Bays: splitting, sliding boards, typed clear sizes, fronts over several bays, fittings that fit or are refused."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of, with_run
from tall_plank.edits import bays, fittings, inserts, units
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making import MadeUnit
from tall_plank.measure import PlankError
from tall_plank.workings import Workings


@pytest.fixture
def job() -> Job:
    return with_run(new_job(), "A", Level.BASE, "wardrobe 1000")


def cell(job: Job) -> str:
    return cell_of(job, "A1")


def made(job: Job) -> MadeUnit:
    found = Workings(job).made.of(cell(job))
    assert found is not None
    return found


def clear(job: Job, *path: int) -> tuple[float, float]:
    boxes = made(job).set.boxes  # type: ignore[union-attr]
    r = next(b.clear for b in boxes if b.path == path)
    return r.width, r.height


def bare(job: Job) -> Job:
    """One undivided open bay."""
    job = bays.join_bay(job, cell(job), ()).job
    while job.unit(job.find_cell(cell(job))[2].unit).bay.fittings:
        job = fittings.remove_fitting(job, cell(job), (), 0).job
    return bays.set_front(job, ((cell(job), ()),), "none").job


def test_a_bay_is_split_by_number_proportion_and_size(job: Job) -> None:
    job = bare(job)
    width, height = clear(job)
    three = bays.split_bay(job, cell(job), (), "3", "rows", "shelf").job
    for i in range(3):
        assert clear(three, i)[1] == pytest.approx((height - 2 * 18) / 3)
    parts = bays.split_bay(job, cell(job), (), "1:2", "columns", "divider").job
    assert clear(parts, 1)[0] == pytest.approx(2 * clear(parts, 0)[0])
    assert clear(parts, 0)[0] + clear(parts, 1)[0] + 18 == pytest.approx(width)
    sizes = bays.split_bay(job, cell(job), (), "300 share 450", "columns", "divider").job
    assert [round(clear(sizes, i)[0], 2) for i in (0, 2)] == [300.0, 450.0]


def test_a_split_by_a_board_keeps_the_front_over_all_of_it(job: Job) -> None:
    job = bays.set_front(bare(job), ((cell(job), ()),), "pair").job
    job = bays.split_bay(job, cell(job), (), "2", "columns", "divider").job
    fronts = made(job).fronts
    assert [f.kind for f in fronts] == ["door", "door"]
    assert all(f.path == () for f in fronts)
    split = bays.split_bay(job, cell(job), (0,), "3", "rows", "shelf").job
    assert len(made(split).fronts) == 2


def test_nothing_between_gives_each_bay_its_own_front(job: Job) -> None:
    job = bays.set_front(bare(job), ((cell(job), ()),), "door").job
    job = bays.split_bay(job, cell(job), (), "600 share", "rows", "nothing").job
    heights = [f.height for f in made(job).fronts]
    assert heights[0] == pytest.approx(600)
    assert len(heights) == 2


@pytest.mark.parametrize(
    ("text", "split", "between", "told"),
    [
        ("1", "rows", "shelf", "not possible"),
        ("three", "rows", "shelf", "no way to split"),
        ("300 300", "columns", "divider", "all the sizes are typed"),
        ("2000 share", "columns", "divider", "short of"),
        ("0:1", "rows", "shelf", "no proportion"),
        ("2", "rows", "divider", "Shelves part rows"),
        ("2", "columns", "shelf", "Shelves part rows"),
        ("-5 share", "rows", "shelf", ""),
    ],
)
def test_what_cannot_be_split_says_why(job: Job, text: str, split: str, between: str, told: str) -> None:
    job = bare(job)
    with pytest.raises(PlankError) as caught:
        bays.split_bay(job, cell(job), (), text, split, between)
    assert told.lower() in caught.value.what.lower()


def test_a_slid_shelf_moves_alone(job: Job) -> None:
    job = bays.split_bay(bare(job), cell(job), (), "4", "rows", "shelf").job
    before = [clear(job, i)[1] for i in range(4)]
    slid = bays.slide_board(job, cell(job), (), 1, before[1] + 70).job
    after = [clear(slid, i)[1] for i in range(4)]
    assert after[1] == pytest.approx(before[1] + 70)
    assert after[2] == pytest.approx(before[2] - 70, abs=0.02)
    assert [after[0], after[3]] == pytest.approx([before[0], before[3]], abs=0.01)
    # Never past the next one.
    far = bays.slide_board(job, cell(job), (), 1, 9000).job
    assert clear(far, 2)[1] == pytest.approx(20, abs=0.02)


def test_a_typed_clear_size_and_back_to_a_share(job: Job) -> None:
    job = bays.split_bay(bare(job), cell(job), (), "3", "columns", "divider").job
    typed = bays.set_size(job, cell(job), (0,), "250").job
    assert clear(typed, 0)[0] == pytest.approx(250)
    assert clear(typed, 1)[0] == pytest.approx(clear(typed, 2)[0])
    assert clear(bays.set_size(typed, cell(job), (0,), "").job, 0) == clear(job, 0)
    with pytest.raises(PlankError):
        bays.set_size(job, cell(job), (0,), "990")
    with pytest.raises(PlankError):
        bays.set_size(job, cell(job), (), "300")


def test_a_board_taken_out_joins_its_bays(job: Job) -> None:
    job = bays.split_bay(bare(job), cell(job), (), "3", "rows", "shelf").job
    two = bays.remove_board(job, cell(job), (), 0).job
    assert len(made(two).set.leaves) == 2  # type: ignore[union-attr]
    one = bays.remove_board(two, cell(job), (), 0).job
    assert made(one).set.leaves[0].path == ()  # type: ignore[union-attr]
    with pytest.raises(PlankError):
        bays.remove_board(one, cell(job), (), 0)


def test_a_front_over_several_bays_takes_the_place_of_those_in_them(job: Job) -> None:
    root = ((cell(job), ()),)
    assert len(made(job).fronts) == 4
    one = bays.set_front(job, root, "pair").job
    assert {f.path for f in made(one).fronts} == {()}
    back = bays.set_front(one, ((cell(job), (1,)),), "door").job
    assert {f.path for f in made(back).fronts} == {(1,)}
    with pytest.raises(PlankError):
        bays.set_front(job, root, "drawer")


def test_inner_drawers_stand_behind_the_doors_on_packers(job: Job) -> None:
    job = bays.set_front(bare(job), ((cell(job), ()),), "pair").job
    job = bays.split_bay(job, cell(job), (), "share 250 250", "rows", "shelf").job
    where = tuple((cell(job), (i,)) for i in (1, 2))
    job = bays.set_front(job, where, "inner").job
    unit = made(job)
    assert len(unit.fronts) == 2 and not unit.problems
    assert sum(p.role == "drawer bottom" for p in unit.parts) == 2
    packers = [p for p in unit.parts if p.role == "packer"]
    assert len(packers) == 4 and all(p.thickness == pytest.approx(18) for p in packers)
    runner = job.stock.fittings_of("runner")[0]
    front = next(p for p in unit.parts if p.name == "drawer 1 front")
    # Clear width less two packers, two runners and two sides.
    expected = clear(job, 1)[0] - 2 * 18 - 2 * runner.side_clearance - 2 * unit.spec.made.drawer_thickness
    assert front.length == pytest.approx(expected)


def test_a_rail_follows_its_bay(job: Job) -> None:
    job = bays.split_bay(bare(job), cell(job), (), "2", "columns", "divider").job
    job = fittings.add_fitting(job, cell(job), (0,), "RL-25").job
    width = clear(job, 0)[0]
    (rail,) = made(job).fitted
    assert rail.width == pytest.approx(width - 3)
    top = next(b.clear.z1 for b in made(job).set.boxes if b.path == (0,))  # type: ignore[union-attr]
    assert rail.z + rail.height == pytest.approx(top - 45)
    wider = bays.set_size(job, cell(job), (0,), "600").job
    assert made(wider).fitted[0].width == pytest.approx(597)
    sockets = [op for p in made(job).parts for op in p.operations if getattr(op, "use", "") == "rail"]
    assert len(sockets) == 4
    assert any(i.code == "RS-25" and i.qty == 2 for i in made(job).items)
    lower = fittings.set_fitting(job, cell(job), (0,), 0, "at", "120").job
    assert made(lower).fitted[0].z == pytest.approx(rail.z - 75)
    assert made(fittings.remove_fitting(job, cell(job), (0,), 0).job).fitted == ()


def test_what_does_not_fit_says_the_clear_size_it_needs(job: Job) -> None:
    job = bays.split_bay(bare(job), cell(job), (), "3", "rows", "shelf").job
    with pytest.raises(PlankError, match="needs 930 mm of clear height"):
        fittings.add_fitting(job, cell(job), (0,), "RL-25")
    narrow = bays.split_bay(bare(job), cell(job), (), "150 share", "columns", "divider").job
    with pytest.raises(PlankError, match="needs 400 mm of clear width; this bay has 150"):
        fittings.add_fitting(narrow, cell(job), (0,), "JT-60")
    wide = units.set_own(bare(job), (cell(job),), "depth", "300").job
    with pytest.raises(PlankError, match="clear depth"):
        fittings.add_fitting(wide, cell(job), (), "TR-460")


def test_two_rails_need_the_height_of_both(job: Job) -> None:
    job = units.set_own(bare(job), (cell(job),), "height", "2300").job
    job = fittings.add_fitting(job, cell(job), (), "RL-25").job
    with pytest.raises(PlankError, match="together they need 1860 mm"):
        fittings.add_fitting(job, cell(job), (), "RL-25")
    with pytest.raises(PlankError, match="needs 900 mm free under it"):
        fittings.add_fitting(job, cell(job), (), "RL-25", "low")
    job = fittings.add_fitting(job, cell(job), (), "RL-25", "middle").job
    assert len(made(job).fitted) == 2 and not made(job).problems
    # The lower one rises until the two no longer go together.
    up = fittings.set_fitting(job, cell(job), (), 1, "at", "60").job
    assert made(up).fitted[1].z == pytest.approx(made(job).fitted[1].z + 60)
    with pytest.raises(PlankError, match="together they need 1860 mm"):
        fittings.set_fitting(job, cell(job), (), 1, "at", "400")


def test_loose_shelves_share_what_the_fittings_leave(job: Job) -> None:
    job = fittings.add_fitting(bare(job), cell(job), (), "RL-25").job
    job = bays.set_shelves(job, cell(job), (), "2").job
    rail = made(job).fitted[0]
    for part in made(job).parts:
        if part.role == "shelf":
            assert part.frame.origin[2] + part.thickness <= rail.z - rail.free_below + 0.01


def test_a_style_is_replaced_everywhere_at_once(job: Job) -> None:
    job = bays.set_front_value(job, ((cell(job), (1,)),), "style", "framed").job
    styles = {f.style for f in made(job).fronts}
    assert styles == {"slab", "framed"}
    job = bays.replace_style(job, "framed", "slab").job
    assert {f.style for f in made(job).fronts} == {"slab"}
    job = bays.replace_style(job, "slab", "framed").job
    assert {f.style for f in made(job).fronts} == {"framed"}
    with pytest.raises(PlankError):
        bays.replace_style(job, "slab", "framed")


@given(st.lists(st.sampled_from(["2", "3", "1:2", "400 share"]), min_size=1, max_size=4), st.randoms())
def test_however_a_unit_is_split_its_boards_and_bays_fill_it(texts: list[str], chance) -> None:  # type: ignore[no-untyped-def]
    job = with_run(new_job(), "A", Level.BASE, "wardrobe 1100")
    at = cell_of(job, "A1")
    job = bays.join_bay(job, at, ()).job
    for text in texts:
        leaves = Workings(job).made.of(at).set.leaves  # type: ignore[union-attr]
        path = chance.choice([b.path for b in leaves])
        way = chance.choice([("rows", "shelf"), ("columns", "divider")])
        try:
            job = bays.split_bay(job, at, path, text, *way).job
        except PlankError:
            continue
    found = Workings(job).made.of(at)
    assert found is not None and found.parts
    assert found.set is not None
    whole = found.set.boxes[0].clear
    area = sum(b.clear.width * b.clear.height for b in found.set.leaves)
    area += sum(b.clear.width * b.clear.height for b in found.set.boards)
    assert area == pytest.approx(whole.width * whole.height, rel=1e-9)


def test_a_kept_inside_is_put_into_bays_of_other_sizes() -> None:
    job = with_run(new_job(), "A", Level.BASE, "wardrobe 800, wardrobe 1000")
    a, b = cell_of(job, "A1"), cell_of(job, "A2")
    job = bays.join_bay(job, a, ()).job
    job = fittings.remove_fitting(job, a, (), 0).job
    job = bays.split_bay(job, a, (), "share 200 200", "rows", "shelf").job
    job = bays.set_front(job, ((a, (1,)), (a, (2,))), "inner").job
    job = inserts.save_insert(job, a, (), "Two drawers").job
    job = bays.join_bay(job, b, ()).job
    job = inserts.put_insert(job, b, (), "Two drawers").job
    unit = Workings(job).made.of(b)
    assert unit is not None and sum(p.role == "drawer bottom" for p in unit.parts) == 2
    assert not unit.problems
    # It resizes; what it cannot fit into refuses it.
    low = units.set_own(job, (b,), "height", "420").job
    with pytest.raises(PlankError):
        inserts.put_insert(bays.join_bay(low, b, ()).job, b, (), "Two drawers")
    with pytest.raises(PlankError):
        inserts.save_insert(job, a, (), "  ")
    with pytest.raises(PlankError):
        inserts.put_insert(job, b, (), "Three drawers")
    assert inserts.delete_insert(job, "Two drawers").job.inserts == ()


def test_an_appliance_is_built_into_a_bay_that_gives_its_opening() -> None:
    job = with_run(new_job(), "A", Level.BASE, "tall 600")
    at = cell_of(job, "A1")
    oven = next(a for a in job.stock.appliances if a.kind == "oven")
    job = bays.join_bay(job, at, ()).job if job.unit(job.find_cell(at)[2].unit).bay.children else job
    job = bays.set_front(job, ((at, ()),), "none").job
    job = bays.split_bay(job, at, (), f"700 {oven.opening[1]:g} share", "rows", "shelf").job
    job = bays.set_appliance(job, at, (1,), oven.code).job
    unit = Workings(job).made.of(at)
    assert unit is not None and unit.problems == () and any(i.code == oven.code for i in unit.items)
    with pytest.raises(PlankError, match="needs an opening"):
        low = bays.set_size(job, at, (0,), "300").job
        low = bays.split_bay(low, at, (0,), "2", "rows", "shelf").job
        bays.set_appliance(low, at, (0, 0), oven.code)
    with pytest.raises(PlankError):
        bays.set_appliance(job, at, (0,), "AP-NONE")
    assert Workings(bays.set_appliance(job, at, (1,), "").job).made.of(at).problems == ()  # type: ignore[union-attr]


@pytest.mark.parametrize("kind", ["drawer", "inner"])
def test_a_drawer_takes_no_bay_that_holds_something(kind: str) -> None:
    """Its box was made right through the shelf."""
    job = with_run(new_job(), "A", Level.BASE, "door 450")
    cell = job.cells()[0].id
    assert job.units[0].bay.shelves == 1
    with pytest.raises(PlankError, match="there is a shelf") as told:
        bays.set_front(job, ((cell, ()),), kind)
    assert "Take that out first" in told.value.remedy
    rail = fittings.add_fitting(bays.set_shelves(job, cell, (), "0").job, cell, (), "LS-12").job
    with pytest.raises(PlankError, match="there is a fitting"):
        bays.set_front(rail, ((cell, ()),), kind)
    # Empty, it takes the drawer; then nothing else goes in.
    empty = bays.set_front(bays.set_shelves(job, cell, (), "0").job, ((cell, ()),), kind).job
    made = Workings(empty).made.of(cell)
    assert made is not None and not made.problems and any(p.role == "drawer" for p in made.parts)
    for change in (
        lambda: bays.set_shelves(empty, cell, (), "2"),
        lambda: fittings.add_fitting(empty, cell, (), "LS-12"),
        lambda: bays.split_bay(empty, cell, (), "2", "rows", "shelf"),
        lambda: bays.split_bay(empty, cell, (), "2", "columns", "divider"),
    ):
        with pytest.raises(PlankError, match="takes all the room"):
            change()
    assert bays.set_shelves(empty, cell, (), "0")
    # With nothing between there are two drawers.
    two = bays.split_bay(empty, cell, (), "2", "rows", "nothing").job
    assert len(Workings(two).made.of(cell).drawers) == 2  # type: ignore[union-attr]
