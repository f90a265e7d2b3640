"""Working at speed: repeats, mirrored runs, groups, locks, links, labels, the library."""

from __future__ import annotations

import math
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of, with_run
from tall_plank.edits import library, placing, rooms, runs, units
from tall_plank.edits.change import Change
from tall_plank.edits.things.island import add_island, set_island, turn_island
from tall_plank.files import library as shelf
from tall_plank.files.userdata import UserFolders
from tall_plank.job import History, Job, Level
from tall_plank.job.start import new_job
from tall_plank.making.labels import label_of
from tall_plank.measure import PlankError
from tall_plank.setout import set_out

TEXT = "filler 50, drawers 600, door 450, sink 900, slant right 300"


@pytest.fixture
def run_job() -> Job:
    return with_run(new_job(), "A", Level.BASE, TEXT)


def spans(job: Job, run: int = 0) -> list[tuple[float, float]]:
    return [(p.x, p.right) for p in set_out(job).rooms[0].runs[run].cells]


def test_repeating_a_unit_butts_copies_with_numbers_of_their_own(run_job: Job) -> None:
    job = placing.repeat(run_job, cell_of(run_job, "A3"), 2).job
    assert [p.number for p in set_out(job).placed] == ["A1", "A2", "A3", "A6", "A7", "A4", "A5"]
    assert len({c.unit for c in job.cells()}) == 7


def test_repeating_at_a_pitch_leaves_gaps(run_job: Job) -> None:
    job = placing.repeat(run_job, cell_of(run_job, "A5"), 2, "500").job
    lefts = [p.x for p in set_out(job).placed if p.template == "end-right"]
    assert lefts == [2000, 2500, 3000]
    with pytest.raises(PlankError, match="300 mm wide"):
        placing.repeat(run_job, cell_of(run_job, "A5"), 2, "250")
    with pytest.raises(PlankError):
        placing.repeat(run_job, cell_of(run_job, "A5"), 0)


def test_units_are_spaced_evenly_between_the_first_and_the_last() -> None:
    job = with_run(new_job(), "A", Level.HUNG, "door 400, gap 100, door 400, door 400, gap 700, door 400")
    doors = tuple(c.id for c in job.cells() if job.template_of(c).code == "hung-door")
    job = placing.spread(job, doors).job
    found = [(p.x, p.right) for p in set_out(job).placed if p.is_solid]
    gaps = [b[0] - a[1] for a, b in zip(found, found[1:], strict=False)]
    assert gaps == pytest.approx([800 / 3] * 3)
    assert (found[0][0], found[-1][1]) == pytest.approx((0, 2400))
    with pytest.raises(PlankError, match="three"):
        placing.spread(job, doors[:2])


def test_a_unit_moves_by_a_typed_distance(run_job: Job) -> None:
    job = placing.move_by(run_job, (cell_of(run_job, "A5"),), '4"').job
    assert spans(job)[-1][0] == pytest.approx(2000 + 101.6)
    with pytest.raises(PlankError, match="go"):
        placing.move_by(run_job, (cell_of(run_job, "A5"),), "-10")


def test_a_mirrored_run_turns_round_and_swaps_hands(run_job: Job) -> None:
    job = placing.mirror_run(run_job, run_job.rooms[0].runs[0].id).job
    codes = [p.template for p in set_out(job).placed]
    assert codes == ["end-left", "sink", "door", "drawers", "filler"]
    assert job.unit(job.cells()[2].unit).bay.front.hand == "right"  # type: ignore[union-attr]


@given(
    st.lists(
        st.sampled_from(["door 450", "pair 900", "drawers 600", "gap 200", "slant right 300", "open 300"]),
        min_size=1,
        max_size=6,
    )
)
def test_mirroring_twice_gives_the_same_job(pieces: list[str]) -> None:
    job = with_run(new_job(), "A", Level.BASE, ", ".join(pieces))
    run = job.rooms[0].runs[0].id
    job = runs.set_run_length(job, run, "start", "120").job
    once = placing.mirror_run(job, run).job
    assert placing.mirror_run(once, run).job == job
    cells = tuple(c.id for c in job.cells())
    assert placing.mirror(placing.mirror(job, cells).job, cells).job == job


EDITS = (
    lambda j, c: placing.repeat(j, c, 1),
    lambda j, c: placing.set_label(j, (c,), "B{width}"),
    lambda j, c: placing.set_flag(j, (c,), "hidden", True),
    lambda j, c: runs.set_width(j, (c,), "share"),
    lambda j, c: placing.mirror(j, (c,)),
    lambda j, c: placing.hold(j, c, "left", None, "300"),
    lambda j, c: runs.delete_cells(j, (c,)),
    lambda j, c: placing.start_from(j, c),
    lambda j, c: units.set_own(j, (c,), "depth", "500"),
)


@given(st.lists(st.tuples(st.integers(0, len(EDITS) - 1), st.integers(0, 4)), max_size=12))
def test_undoing_everything_gives_the_first_state(steps: list[tuple[int, int]]) -> None:
    first = with_run(new_job(), "A", Level.BASE, TEXT)
    history = History(first)
    for which, place in steps:
        cells = history.job.cells()
        if not cells:
            break
        try:
            change: Change = EDITS[which](history.job, cells[place % len(cells)].id)
        except PlankError:
            continue
        history.do(change.name, change.job)
    while history.can_undo:
        history.undo()
    assert history.job == first
    while history.can_redo:
        history.redo()


def test_groups_are_picked_together_and_dissolved(run_job: Job) -> None:
    two = (cell_of(run_job, "A2"), cell_of(run_job, "A4"))
    job = placing.group(run_job, two).job
    assert placing.grouped(job, two[0]) == two
    assert placing.grouped(placing.ungroup(job, two[:1]).job, two[0]) == two[:1]
    with pytest.raises(PlankError):
        placing.group(job, two[:1])


def test_a_locked_unit_stays_as_it_is(run_job: Job) -> None:
    cell = cell_of(run_job, "A2")
    job = placing.set_flag(run_job, (cell,), "locked", True).job
    with pytest.raises(PlankError, match="locked"):
        runs.set_width(job, (cell,), "700")
    with pytest.raises(PlankError, match="locked"):
        runs.move_cell(job, cell, 0)
    with pytest.raises(PlankError, match="locked"):
        runs.delete_cells(job, (cell,))
    with pytest.raises(PlankError, match="locked"):
        placing.hold(job, cell, "left", None)
    change = runs.set_width(job, (cell, cell_of(job, "A3")), "500")
    assert change.skipped == ("A2 is locked",)


def test_linked_copies_follow_until_one_is_set_free(run_job: Job) -> None:
    a, b = cell_of(run_job, "A2"), cell_of(run_job, "A3")
    job = placing.link(run_job, (a, b)).job
    job = units.set_own(job, (a,), "depth", "500").job
    assert {p.number: p.depth for p in set_out(job).placed}["A3"] == 500
    job = placing.unlink(job, (b,)).job
    job = units.set_own(job, (a,), "depth", "450").job
    assert {p.number: p.depth for p in set_out(job).placed}["A3"] == 500


def test_labels_follow_every_change(run_job: Job) -> None:
    def label(job: Job, number: str) -> str:
        layout = set_out(job).rooms[0]
        return label_of(job, layout.room, next(p for p in layout.placed if p.number == number))

    assert label(run_job, "A2") == "A2"
    job = placing.set_label_rule(run_job, "*", "{room}-{number}").job
    job = placing.set_label_rule(job, "drawers", "B{width}").job
    assert (label(job, "A2"), label(job, "A3")) == ("B600", "Room-A3")
    job = runs.set_width(job, (cell_of(job, "A2"),), "650").job
    assert label(job, "A2") == "B650"
    job = placing.set_label(job, (cell_of(job, "A2"),), "left of {kind}").job
    assert label(job, "A2") == "left of Drawers"
    for wrong in ("{colour}", "{width", "width}"):
        with pytest.raises(PlankError):
            placing.set_label(job, (cell_of(job, "A2"),), wrong)


def test_new_units_start_like_the_one_that_was_chosen(run_job: Job) -> None:
    cell = cell_of(run_job, "A2")
    job = units.set_own(runs.set_width(run_job, (cell,), "550").job, (cell,), "depth", "500").job
    job = placing.start_from(units.set_drawers(job, (cell,), "4").job, cell).job
    change = runs.insert_unit(job, "r1", "C", "drawers")
    placed = set_out(change.job).find(change.made[0])
    assert placed is not None and (placed.width, placed.depth) == (550, 500)
    assert len(change.job.unit(placed.unit).bay.children) == 4


# --- the library


def test_a_run_comes_back_from_the_library_in_another_job(run_job: Job, folders: UserFolders) -> None:
    job = placing.link(run_job, (cell_of(run_job, "A2"), cell_of(run_job, "A3"))).job
    text = library.save_run(job, job.rooms[0].runs[0].id, "Harrow run")
    path = shelf.keep(folders, "Harrow run", text)
    ((found,), broken) = shelf.kept(folders)
    assert (found.saved.name, found.path, broken) == ("Harrow run", path, ())
    other = library.place_saved(new_job(), found.text, "r1", "B").job
    assert [p.template for p in set_out(other).placed] == [p.template for p in set_out(job).placed]
    assert [p.number for p in set_out(other).placed] == ["B1", "B2", "B3", "B4", "B5"]
    # Units that were linked still are.
    assert other.cells()[1].unit == other.cells()[2].unit
    shelf.forget(folders, path.name)
    assert shelf.kept(folders) == ((), ())
    assert path.with_name(path.name + ".bak").exists()


def test_an_island_is_kept_and_placed_with_both_faces(folders: UserFolders) -> None:
    change = add_island(new_job(), "r1")
    job = set_island(change.job, change.made[0], "seating", "300").job
    for face, text in (("K1", "drawers share, pair share"), ("K2", "open 600")):
        started = runs.add_run(job, "r1", face, Level.BASE)
        from tall_plank.edits.runtext import type_run

        job = type_run(started.job, started.made[0], text).job
    text = library.save_island(job, change.made[0], "Island")
    placed = library.place_saved(job, text, "r1", "A", (500.0, 900.0))
    assert placed.made[0].startswith("i")
    room = set_out(placed.job).rooms[0]
    assert [p.number for p in room.placed if p.wall_id.startswith("L")] == ["L1", "L2", "L3"]
    assert room.room.islands[1].seating.mm == 300


def test_what_a_job_cannot_follow_is_made_plain_and_named(run_job: Job) -> None:
    from tall_plank.edits import values

    job = values.set_value(run_job, "wide", "620").job
    cell = cell_of(job, "A2")
    job = runs.set_width(job, (cell,), "wide").job
    text = library.save_cells(job, (cell,), "One")
    change = library.place_saved(new_job(), text, "r1", "A")
    assert set_out(change.job).placed[0].width == 620


def test_wrong_library_files_are_told_and_left_alone(folders: UserFolders, run_job: Job) -> None:
    folder = shelf.folder_of(folders)
    folder.mkdir(parents=True)
    (folder / "bad.json").write_text("{]")
    (folder / "other.json").write_text('{"kind": "something"}')
    (folder / "bytes.json").write_bytes(b"\xff\xfe\x00")
    assert shelf.kept(folders) == ((), ("bad.json", "bytes.json", "other.json"))
    assert (folder / "bad.json").exists()
    for text in ("", "[]", "x" * 3_000_000):
        with pytest.raises(PlankError, match="nothing that was saved"):
            library.read_saved(text)
    with pytest.raises(PlankError, match="name"):
        library.save_cells(run_job, (cell_of(run_job, "A2"),), "  ")
    with pytest.raises(PlankError, match="file name"):
        shelf.keep(folders, "///", library.save_cells(run_job, (cell_of(run_job, "A2"),), "x"))
    with pytest.raises(PlankError):
        shelf.forget(folders, "../" + Path("x").name)


def test_a_kind_is_replaced_with_its_own_height_and_place_number_and_label_stay(run_job: Job) -> None:
    cell = cell_of(run_job, "A2")
    job = placing.set_label(run_job, (cell,), "here").job
    job = units.set_kind(job, (cell,), "bench").job
    placed = set_out(job).find(cell)
    assert placed is not None and (placed.height, placed.width, placed.number) == (330, 600, "A2")
    job = units.set_own(job, (cell,), "depth", "450").job
    job = units.set_kind(job, (cell,), "tall-door").job
    placed = set_out(job).find(cell)
    # The bench's height came with its kind and goes with it; the typed depth stays.
    assert placed is not None and (placed.height, placed.depth, placed.level) == (2090, 450, Level.TALL)
    assert job.find_cell(cell)[2].label == "here"
    assert units.set_kind(job, (cell,), "hung-door").skipped


@pytest.mark.parametrize("turned", [0, 90, 30])
def test_a_saved_island_stands_inside_a_smaller_room(turned: int) -> None:
    """Without a place it stands in the middle of its room, however it is turned, not where it stood in the other one."""
    big = rooms.set_room_length(rooms.set_room_length(new_job(), "r1", "width", "9000").job, "r1", "depth", "8000").job
    change = add_island(big, "r1", (7500.0, 7000.0))
    job = with_run(
        turn_island(change.job, change.made[0], float(turned)).job, "K1", Level.BASE, "pair 900, drawers 600"
    )
    saved = library.save_island(job, change.made[0], "Far corner")
    small = rooms.set_room_length(new_job(), "r1", "depth", "3000").job
    placed = library.place_saved(small, saved, "r1", "A").job
    layout = set_out(placed)
    room = layout.room("r1")
    points = [p.frame.at(x, y, 0.0) for p in room.placed if p.is_solid for x, y in p.plan]
    assert len(points) >= 8
    middle = [(min(v) + max(v)) / 2 for v in zip(*((x, y) for x, y, _ in points), strict=True)]
    assert math.dist(middle, (room.size[0] / 2, room.size[1] / 2)) < 300.0
    assert all(0 < x < room.size[0] and 0 < y < room.size[1] for x, y, _ in points)
