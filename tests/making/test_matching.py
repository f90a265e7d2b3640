"""Fronts whose grain goes on: which lie side by side on the board, and in what order seen from outside."""

from __future__ import annotations

import hashlib

import msgspec
import pytest

from conftest import with_run
from shop.plan_check import check_plan
from tall_plank.edits import cutting, standards, units
from tall_plank.job import Job, Level, Role
from tall_plank.job.start import new_job
from tall_plank.making import Bore
from tall_plank.making.matching import match_groups
from tall_plank.measure import PlankError
from tall_plank.shop.boards import plan_from
from tall_plank.shop.nesting import NestRules
from tall_plank.shop.nesting.job import request_of
from tall_plank.shop.nesting.kept import fingerprint
from tall_plank.shop.nesting.nest import nest
from tall_plank.workings import Workings


def oak(text: str, wall: str = "A", grain: str = "vertical") -> Workings:
    """A run with fronts of a board that has grain."""
    job = with_run(new_job(), wall, Level.BASE, text)
    job = units.set_scheme_finish(job, Role.FRONT, "storm-oak").job
    return Workings(standards.set_in_force(job, "front_grain", grain).job)


def rows_of(w: Workings, how: str) -> list[list[str]]:
    """Rows of fronts, `unit name`, in the order in which they lie on the board."""
    names = {i.number: f"{i.unit} {i.part.name}" for i in w.made.parts()}
    rows: dict[str, dict[int, str]] = {}
    for number, (row, place, _) in match_groups(w.made, how).items():  # type: ignore[arg-type]
        rows.setdefault(row, {})[place] = names[number]
    return sorted([row[i] for i in range(len(row))] for row in rows.values())


def test_doors_of_a_pair_match_within_their_unit() -> None:
    w = oak("pair 800, door 600")
    assert rows_of(w, "no") == []
    # Hinge cups lie in face A, so that is the inside: seen from there with the grain up, the board's width runs to the
    # left, which is to the right from outside.
    cups = {
        op.face for i in w.made.parts() if i.part.name == "door 1" for op in i.part.operations if isinstance(op, Bore)
    }
    assert "A" in cups
    assert rows_of(w, "unit") == [["A1 door 1", "A1 door 2"]]


def test_doors_match_along_the_run() -> None:
    assert rows_of(oak("pair 800, door 600"), "run") == [["A1 door 1", "A1 door 2", "A2 door 1"]]


@pytest.mark.parametrize("wall", ["A", "B", "C", "D"])
def test_every_wall_is_seen_from_its_own_side(wall: str) -> None:
    w = oak("pair 800, door 600", wall)
    (row,) = rows_of(w, "run")
    first = w.made.units[0][0].number
    assert row == [f"{first} door 1", f"{first} door 2", f"{w.made.units[1][0].number} door 1"]


def test_a_stack_of_drawers_matches_where_the_grain_lies() -> None:
    w = oak("drawers 900", grain="horizontal")
    (row,) = rows_of(w, "unit")
    parts = {
        i.part.name: i.parent.at(*i.part.frame.at(0.0, 0.0, 0.0))[2] for i in w.made.parts() if i.part.role == "front"
    }
    assert len(row) == 3
    heights = [parts[name.split(" ", 1)[1]] for name in row]
    assert heights == sorted(heights, reverse=True)  # seen from inside with the grain to the left: from the top down


def test_a_stack_of_drawers_matches_end_to_end_where_the_grain_stands() -> None:
    w = oak("drawers 900, door 600")
    (row,) = rows_of(w, "unit")
    assert all(name.startswith("A1 drawer front") for name in row) and len(row) == 3
    assert {way for _, _, way in match_groups(w.made, "unit").values()} == {"end"}
    parts = {f"{i.unit} {i.part.name}": i.parent.at(*i.part.frame.at(0.0, 0.0, 0.0))[2] for i in w.made.parts()}
    heights = [parts[name] for name in row]
    # The grain runs up the front and along the board: along the board they lie in the order in which they stand.
    assert heights == sorted(heights)


def test_a_plan_cuts_a_stack_end_to_end() -> None:
    w = oak("drawers 900, drawers 600")
    request = request_of(w.made, w.job.stock, w.job.price_book(), NestRules(effort=2), matched="unit")
    plan = nest(request)
    check_plan(request, plan)
    stacks: dict[str, list[str]] = {}
    for p in request.parts:
        if p.match:
            assert p.match_way == "end"
            stacks.setdefault(p.match, []).append(p.part)
    assert sorted(len(s) for s in stacks.values()) == [3, 3]
    for stack in stacks.values():
        (board,) = [b for b in plan.boards if any(p.part == stack[0] for p in b.parts)]
        found = [next(p for p in board.parts if p.part == n) for n in stack]
        assert len({round(p.y, 3) for p in found}) == 1 and not any(p.turned for p in found)
        for a, b in zip(found, found[1:], strict=False):
            assert b.x == pytest.approx(a.x + a.length + 3.2)


def test_doors_beside_one_another_come_before_stacks() -> None:
    """A front is in one row only: side by side where it has a neighbour, else end to end."""
    w = oak("pair 800, drawers 900")
    found = match_groups(w.made, "run")
    ways = {number: way for number, (_, _, way) in found.items()}
    names = {i.number: i.part.name for i in w.made.parts()}
    assert {names[n].split()[0] for n, way in ways.items() if way == "side"} == {"door"}
    assert {names[n].split()[0] for n, way in ways.items() if way == "end"} == {"drawer"}


def test_a_plan_that_was_kept_before_stacks_still_holds() -> None:
    """The hash says nothing of how a row lies where all lie side by side, as it did before."""
    w = oak("pair 800")
    request = request_of(w.made, w.job.stock, w.job.price_book(), NestRules(), matched="unit")
    said = [msgspec.structs.asdict(p) for p in request.parts]
    assert all(part.pop("match_way") == "side" for part in said)
    boards = sorted((b.board, b.material, b.length, b.width) for b in request.boards)
    rules = request.rules
    old = (said, boards, rules.kerf, rules.trim, rules.mode, rules.turns, rules.first_cut)
    assert fingerprint(request) == hashlib.sha256(msgspec.json.encode(old)).hexdigest()[:32]


def test_lacquered_fronts_have_no_grain_to_match() -> None:
    assert rows_of(Workings(with_run(new_job(), "A", Level.BASE, "pair 800")), "run") == []


def test_a_plan_cuts_matched_fronts_side_by_side() -> None:
    w = oak("pair 800, door 300, drawers 900")
    saw = w.job.cutting
    request = request_of(w.made, w.job.stock, w.job.price_book(), NestRules(effort=2), matched="run")
    plan = nest(request)
    check_plan(request, plan)
    assert not plan.unplaced
    names = {i.number: i.part.name for i in w.made.parts()}
    row = [p.part for p in request.parts if p.match and p.match_way == "side"]
    assert len(row) == 3 and all(names[n].startswith("door") for n in row)
    drawn = plan_from(plan, w.job.stock, saw.kerf, saw.trim)
    (board,) = [b for b in drawn.boards if any(p.part == row[0] for p in b.parts)]
    found = [next(p for p in board.parts if p.part == n) for n in row]
    assert len({round(p.x, 3) for p in found}) == 1 or len({round(p.y, 3) for p in found}) == 1
    for a, b in zip(found, found[1:], strict=False):
        assert b.y == pytest.approx(a.y + a.width + 3.2)


def test_whether_fronts_match_is_a_decision_of_the_job(job: Job) -> None:
    changed = cutting.set_cutting(job, "matched", "run").job
    assert changed.cutting.matched == "run"
    with pytest.raises(PlankError, match="not offered"):
        cutting.set_cutting(job, "matched", "sometimes")
    plain = msgspec.structs.replace(changed, cutting=msgspec.structs.replace(changed.cutting, matched="no"))
    assert plain == job
