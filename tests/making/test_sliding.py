"""Sliding doors: sizes by the trade's formula, bands, lines, what stops them, and what goes when units go."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of, with_run
from tall_plank.edits import bays, runs, standards
from tall_plank.edits.things.sliding import add_sliding, copy_leaf, set_band, set_band_count, set_line, set_sliding
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.job.things.sliding import BayRef
from tall_plank.making.sliding import LEAF, LeafBox, MadeSliding, frees
from tall_plank.making.solids import placed as solid
from tall_plank.measure import PlankError
from tall_plank.workings import Workings


def put(text: str = "wardrobe 1200, wardrobe 1200, wardrobe 1000", leaves: int = 3) -> tuple[Job, str]:
    job = with_run(new_job(), "A", Level.BASE, text)
    cells = [c.id for c in job.cells()]
    change = add_sliding(job, BayRef(cells[-1]), BayRef(cells[0]), leaves)
    return change.job, change.made[0]


def made(job: Job) -> MadeSliding:
    (found,) = Workings(job).made.sliding
    return found


def test_leaf_width_is_opening_and_overlaps_shared_out() -> None:
    job, _ = put()
    doors = made(job)
    assert doors.width == pytest.approx(3400 - 3)
    assert doors.leaves[0].width == pytest.approx((3397 + 2 * 40) / 3)
    last = doors.leaves[-1]
    assert last.x + last.width == pytest.approx(doors.x + doors.width)
    for a, b in zip(doors.leaves, doors.leaves[1:], strict=False):
        assert a.x + a.width - b.x == pytest.approx(40)


def test_the_fronts_behind_are_left_out_but_inner_drawers() -> None:
    job = with_run(new_job(), "A", Level.BASE, "wardrobe 1200, wardrobe 1200")
    first = cell_of(job, "A1")
    job = bays.split_bay(bays.join_bay(job, first, ()).job, first, (), "share 300", "rows", "shelf").job
    job = bays.set_front(job, ((first, (1,)),), "inner").job
    job = add_sliding(job, BayRef(first), BayRef(cell_of(job, "A2"))).job
    work = Workings(job)
    assert all(not unit.fronts for _, unit in work.made.units)
    assert any(p.role == "drawer bottom" for p in work.made.of(first).parts)  # type: ignore[union-attr]
    assert not made(job).problems


def test_bands_take_their_sizes_and_share_the_rest() -> None:
    job, name = put()
    job = set_band_count(job, name, 0, "3").job
    job = set_band(job, name, 0, 1, "finish", "mirror").job
    job = set_band(job, name, 0, 1, "size", "900").job
    doors = made(job)
    bands = doors.leaves[0].bands
    assert bands[1].height == pytest.approx(900)
    frames = 4 * doors.frame
    assert sum(b.height for b in bands) + frames == pytest.approx(doors.leaf_height)
    mirror = next(p for _, p in doors.parts if p.material.startswith("Mirror"))
    assert {mirror.length, mirror.width} == {900 + 16, doors.leaves[0].width - 2 * 28 + 16}
    assert mirror.thickness == pytest.approx(4)
    # No saw cuts a mirror in the shop.
    assert all(b.board != mirror.board for b in Workings(job).plan.boards)


def test_one_leafs_make_up_goes_to_the_others() -> None:
    job, name = put()
    job = set_band_count(job, name, 2, "2").job
    job = set_band(job, name, 2, 0, "finish", "reeded-glass").job
    job = copy_leaf(job, name, 2).job
    assert {tuple(b.finish for b in leaf.bands) for leaf in made(job).leaves} == {("reeded-glass", "sea-sage")}


def test_neighbouring_leaves_never_touch_and_lines_can_be_chosen() -> None:
    job, name = put()
    assert [leaf.line for leaf in made(job).leaves] == [1, 0, 1]
    job = set_line(job, name, 0, "front").job
    # The others follow in turns, and so do leaves that are added.
    assert [leaf.line for leaf in made(job).leaves] == [0, 1, 0]
    more = set_sliding(job, name, "leaves", "4").job
    assert [leaf.line for leaf in made(more).leaves] == [0, 1, 0, 1]
    with pytest.raises(PlankError):
        set_line(job, name, 9, "front")
    work = Workings(put()[0])
    line = work.layout.rooms[0].wall("A").frame
    parts = [(i, p) for i, p in work.made.sliding[0].parts if i >= 0]
    boxes = [(i, solid(p)) for i, p in parts]
    assert line is not None
    for i, a in boxes:
        for k, b in boxes:
            if i < k:
                assert (a ^ b).volume() < 1.0
    spans = sorted({round(p.frame.origin[1], 2) for _, p in parts})
    assert spans[1] - spans[0] > LEAF


def test_tracks_and_profiles_are_bought_by_the_metre() -> None:
    job, _ = put()
    doors = made(job)
    rows = {r.code: r for r in Workings(job).hardware}
    assert rows["ST-2T"].metres == pytest.approx(doors.width / 1000, abs=1e-3)
    stiles = 6 * doors.leaf_height
    rails = 6 * (doors.leaves[0].width - 2 * doors.frame)
    assert rows["SP-28"].metres == pytest.approx((stiles + rails) / 1000, abs=1e-3)
    assert rows["SR-60"].qty == 3
    line = next(line for line in Workings(job).costs.lines if line.code == "SP-28")
    assert line.per == "m" and float(line.qty) == pytest.approx(rows["SP-28"].metres * 1.1, rel=1e-3)


@pytest.mark.parametrize(
    ("key", "text", "told"),
    [
        ("leaves", "1", "not possible"),
        ("leaves", "many", "no number"),
        ("leaves", "99", "not possible"),
        ("overlap", "wide", ""),
        ("overlap", "900", ""),
        ("tracks", "2", "have no"),
    ],
)
def test_what_is_wrong_is_said(key: str, text: str, told: str) -> None:
    job, name = put()
    with pytest.raises(PlankError) as caught:
        set_sliding(job, name, key, text)
    assert told in caught.value.what


def test_leaves_that_do_not_run_well_are_told() -> None:
    job, _ = put(leaves=2)
    assert "mm wide" in made(job).problems[0].what
    assert any("A leaf would be" in s.what for s in Workings(job).snags)
    narrow, _ = put("wardrobe 600", leaves=3)
    assert "fewer" in made(narrow).problems[0].remedy
    job, name = put()
    job = set_band_count(job, name, 0, "2").job
    with pytest.raises(PlankError, match="short"):
        set_band(job, name, 0, 0, "size", "1990")
    with pytest.raises(PlankError):
        set_band(job, name, 0, 0, "finish", "velvet")
    with pytest.raises(PlankError):
        set_band(job, name, 0, 7, "finish", "mirror")


def test_a_door_put_behind_them_is_told() -> None:
    job, _ = put()
    job = bays.set_front(job, ((cell_of(job, "A2"), ()),), "pair").job
    assert "behind the sliding doors" in made(job).problems[0].what
    assert not made(job).parts


def test_a_drawer_that_no_leaf_frees_is_told() -> None:
    """Two leaves free one half each: a drawer across the middle never comes out."""
    job = with_run(new_job(), "A", Level.BASE, "wardrobe 900, wardrobe 600, wardrobe 900")
    middle = cell_of(job, "A2")
    for cell in (middle, cell_of(job, "A1")):
        job = bays.split_bay(bays.join_bay(job, cell, ()).job, cell, (), "share 300", "rows", "shelf").job
    at_side = bays.set_front(job, ((cell_of(job, "A1"), (1,)),), "inner").job
    ends = BayRef(cell_of(job, "A1")), BayRef(cell_of(job, "A3"))
    assert made(add_sliding(at_side, *ends).job).problems == ()
    across = bays.set_front(job, ((middle, (1,)),), "inner").job
    doors = made(add_sliding(across, *ends).job)
    assert "A2, drawer 1, cannot be pulled" in doors.problems[0].what and not doors.parts
    # Three leaves on two lines free the middle third.
    assert made(add_sliding(across, *ends, 3).job).problems == ()


@given(
    st.lists(st.tuples(st.floats(300, 900), st.integers(0, 1)), min_size=1, max_size=4),
    st.floats(0, 1),
    st.floats(0, 1),
)
def test_leaves_free_what_pushing_them_one_by_one_frees(
    leaves: list[tuple[float, int]], start: float, size: float
) -> None:
    """Each leaf is pushed against the one before it while it ends before the drawer; the rest are pushed right."""
    x1 = 2400.0
    low = start * x1
    high = low + size * (x1 - low)
    free = True
    for line in {line for _, line in leaves}:
        at, rest = 0.0, [width for width, on in leaves if on == line]
        while rest and at + rest[0] <= low + 0.5:
            at += rest.pop(0)
        right = x1
        for width in reversed(rest):
            right -= width
        free = free and right >= high - 0.5
    assert frees([LeafBox(0.0, width, line, ()) for width, line in leaves], 0.0, x1, low, high) is free


def test_they_go_with_a_unit_that_limits_them() -> None:
    job, _ = put()
    job = runs.delete_cells(job, (cell_of(job, "A1"),)).job
    assert Workings(job).made.sliding == ()
    assert all(not run.sliding for _, run in job.runs())


def test_bays_of_different_walls_have_no_doors_in_common() -> None:
    job = with_run(new_job(), "A", Level.BASE, "wardrobe 1000")
    job = with_run(job, "B", Level.BASE, "wardrobe 1000")
    with pytest.raises(PlankError, match="several walls"):
        add_sliding(job, BayRef(cell_of(job, "A1")), BayRef(cell_of(job, "B1")))


@given(st.integers(1500, 3600), st.integers(2, 5), st.floats(0, 120))
def test_leaves_cover_any_opening_exactly(width: int, leaves: int, overlap: float) -> None:
    share = width / 3
    job, name = put(", ".join([f"wardrobe {share:.3f}"] * 3), leaves)
    job = set_sliding(job, name, "overlap", f"{overlap:.2f}").job
    found = Workings(job).made.sliding[0]
    if found.problems:
        return
    assert found.leaves[0].x == pytest.approx(found.x)
    assert found.leaves[-1].x + found.leaves[-1].width == pytest.approx(found.x + found.width)
    assert sum(x.width for x in found.leaves) - (leaves - 1) * round(overlap, 2) == pytest.approx(found.width)


def test_the_estimate_names_them() -> None:
    from tall_plank.papers.offer import offer

    job, name = put()
    job = set_band(job, name, 0, 0, "finish", "mirror").job
    (line,) = [row for row in offer(Workings(job)).rows if "sliding doors" in str(row[1])]
    assert "3 leaves" in str(line[1]) and "Mirror" in str(line[1])


def test_leaves_on_one_line_are_told_and_stay_off_the_lists() -> None:
    """As a file could say, which no edit does."""
    import msgspec

    from tall_plank.edits.change import with_run as replaced

    job, _ = put()
    run = next(r for _, r in job.runs() if r.sliding)
    doors = run.sliding[0]
    same = msgspec.structs.replace(
        doors, leaves=tuple(msgspec.structs.replace(leaf, line="front") for leaf in doors.leaves)
    )
    job = replaced(job, msgspec.structs.replace(run, sliding=(same,)))
    assert "same line" in made(job).problems[0].what and made(job).parts == ()
    assert any("same line" in s.what for s in Workings(job).snags)


def test_the_lines_of_the_standard_are_those_that_are_drawn() -> None:
    from tall_plank.drawing.things.sliding import leaves_from_above

    job, _ = put()
    job = standards.set_in_force(job, "slide_line", "55").job
    doors = made(job)
    ys = sorted({round(min(y for _, y in leaf), 3) for leaf in leaves_from_above(doors)})
    assert ys[1] - ys[0] == pytest.approx(55)


@pytest.mark.parametrize(
    ("index", "line", "wanted"), [(1, "front", [1, 0, 1]), (2, "front", [0, 1, 0]), (1, "rear", [0, 1, 0])]
)
def test_a_chosen_line_alternates_from_the_chosen_leaf(index: int, line: str, wanted: list[int]) -> None:
    job, name = put()
    assert [leaf.line for leaf in made(set_line(job, name, index, line).job).leaves] == wanted


def test_doors_fill_the_opening_of_the_bays_they_stand_before() -> None:
    # From the first wardrobe's opening to the last one's, up and across; half a shadow line at each gable's edge.
    job, _ = put()
    w = Workings(job)
    doors = w.made.sliding[0]
    units = [(p, u) for p, u in w.made.units if u.set is not None]
    zones = [(p, b.zone) for p, u in units for b in u.set.boxes if b.path == ()]  # type: ignore[union-attr]
    assert doors.x == pytest.approx(min(p.x + z.x0 for p, z in zones))
    assert doors.x + doors.width == pytest.approx(max(p.x + z.x1 for p, z in zones))
    assert doors.z == pytest.approx(min(p.bottom + z.z0 for p, z in zones))
    assert doors.z + doors.height == pytest.approx(max(p.bottom + z.z1 for p, z in zones))
