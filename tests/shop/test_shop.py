from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.edits import units
from tall_plank.job import Job, Level
from tall_plank.job.cutting import LaidBoard
from tall_plank.job.start import new_job
from tall_plank.shop.boards import KERF, TRIM, Piece, plan_board
from tall_plank.shop.cutlist import natural
from tall_plank.stock import Board
from tall_plank.workings import Workings

BOARD = Board("B", "Board", "f", 18.0, 2800.0, 2070.0, 650.0)


def test_the_cut_list_holds_every_part_once(job: Job) -> None:
    w = Workings(job)
    listed = [number for row in w.cut_rows for number in row.numbers]
    assert sorted(listed) == sorted(p.number for p in w.made.parts())
    assert len(listed) == w.tally.parts


def test_parts_alike_stand_together_and_others_do_not() -> None:
    w = Workings(with_run(new_job(), "A", Level.BASE, "open 400, open 400, open 500"))
    gables = next(r for r in w.cut_rows if r.name == "left gable")
    assert gables.qty == 3
    bottoms = [r for r in w.cut_rows if r.name == "bottom"]
    assert [r.qty for r in bottoms] == [1, 2]
    assert bottoms[1].units == ("A1", "A2")


def test_gables_with_other_holes_are_other_parts() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 400, door 400")
    w = Workings(units.set_hand(job, (job.cells()[1].id,), "right").job)
    assert len([r for r in w.cut_rows if r.name == "left gable"]) == 2


def test_numbers_sort_as_people_count() -> None:
    assert sorted(["A10", "A2", "A1.10", "A1.9"], key=natural) == ["A1.9", "A1.10", "A2", "A10"]


def test_the_schedule_counts_hinges_runners_and_handles(job: Job) -> None:
    rows = {r.code: r for r in Workings(job).hardware}
    # A2 three drawers; A3 a pair; A4 an appliance front; A5 a door; hung: a pair and two doors
    assert rows["RN-500"].qty == 3
    assert rows["HD-BAR-192"].qty == 3 + 2 + 1 + 1 + 2 + 2
    doors = [f for _, u in Workings(job).made.units for f in u.fronts if f.kind == "door"]
    assert len(doors) == 7
    assert rows["HG-110"].qty >= 2 * len(doors)
    assert rows["HP-32"].qty == rows["HG-110"].qty
    assert "door" in rows["HG-110"].why[0]
    assert rows["DW-8"].consumable
    assert rows["AP-SINK50"].appliance


def test_fittings_leave_consumables_and_appliances_out(job: Job) -> None:
    w = Workings(job)
    left_out = ("DW-8", "WS-25", "WS-30", "AP-DW60", "AP-SINK50")
    assert w.tally.fittings == sum(r.qty for r in w.hardware if r.code not in left_out)


def test_edging_is_summed_net_and_to_order(job: Job) -> None:
    w = Workings(job)
    total = 0.0
    for item in w.made.parts():
        p = item.part
        sides = zip(p.edges, (p.length, p.length, p.width, p.width), strict=True)
        total += sum(length for code, length in sides if code)
    assert w.tally.edging_m == pytest.approx(total / 1000)
    for row in w.edging:
        assert row.order_m == pytest.approx(row.net_m + 0.06 * row.edges)


def check_board(board: LaidBoard, pieces: dict[str, Piece]) -> None:
    for i, p in enumerate(board.parts):
        piece = pieces[p.part]
        assert (p.length, p.width) == ((piece.width, piece.length) if p.turned else (piece.length, piece.width))
        assert not (p.turned and piece.grain)
        assert p.x >= TRIM - 1e-6
        assert p.y >= TRIM - 1e-6
        assert p.x + p.length <= board.length - TRIM + 1e-6
        assert p.y + p.width <= board.width - TRIM + 1e-6
        for q in board.parts[i + 1 :]:
            apart_x = max(p.x, q.x) - min(p.x + p.length, q.x + q.length)
            apart_y = max(p.y, q.y) - min(p.y + p.width, q.y + q.width)
            assert apart_x >= KERF - 1e-6 or apart_y >= KERF - 1e-6


def guillotine(rects: list[tuple[float, float, float, float]]) -> bool:
    """Whether edge-to-edge cuts can part the rectangles one by one (an independent check, by trying every cut)."""
    if len(rects) <= 1:
        return True
    for axis in (0, 1):
        for cut in sorted({r[axis] + r[axis + 2] for r in rects}):
            low = [r for r in rects if r[axis] + r[axis + 2] <= cut + 1e-6]
            high = [r for r in rects if r[axis] >= cut - 1e-6]
            if low and high and len(low) + len(high) == len(rects):
                return guillotine(low) and guillotine(high)
    return False


PIECES = st.lists(st.tuples(st.floats(60, 2900), st.floats(40, 2100), st.booleans()), min_size=1, max_size=24)


@given(PIECES)
def test_any_cutting_plan_is_valid_edge_to_edge_and_complete(sizes: list[tuple[float, float, bool]]) -> None:
    pieces = {f"P{i}": Piece(f"P{i}", *size) for i, size in enumerate(sizes)}
    boards, unplaced = plan_board(BOARD, tuple(pieces.values()), KERF, TRIM)
    placed = [p.part for b in boards for p in b.parts]
    assert sorted((*placed, *unplaced)) == sorted(pieces)
    for board in boards:
        check_board(board, pieces)
        assert guillotine([(p.x, p.y, p.length, p.width) for p in board.parts])
        assert 0 < board.used <= 1
    for name in unplaced:
        piece = pieces[name]
        length, width = BOARD.length - 2 * TRIM, BOARD.width - 2 * TRIM
        fits = piece.length <= length and piece.width <= width
        turned = not piece.grain and piece.width <= length and piece.length <= width
        assert not fits and not turned


def test_the_same_job_gives_the_same_plan(job: Job) -> None:
    assert Workings(job).plan == Workings(job).plan


def test_tally_of_an_empty_job_is_all_zero(empty_job: Job) -> None:
    tally = Workings(empty_job).tally
    assert (tally.units, tally.parts, tally.boards, tally.fittings, tally.snags) == (0, 0, 0, 0, 0)
    assert tally.price.net == 0
