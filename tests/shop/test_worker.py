"""The worker's lines, and plans that are kept in a job."""

from __future__ import annotations

import io
import json

import msgspec
import pytest

from conftest import with_run
from tall_plank.edits import cutting, runs
from tall_plank.files.plankfile import job_bytes, job_from_bytes
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.shop.nesting import NestPlan, Request
from tall_plank.shop.nesting.job import request_of
from tall_plank.shop.nesting.kept import fingerprint, kept, rules_of
from tall_plank.shop.nesting.nest import nest
from tall_plank.shop.nesting.worker import serve
from tall_plank.workings import Workings


def request_for(job: Job, effort: int = 2) -> Request:
    w = Workings(job)
    rules = msgspec.structs.replace(rules_of(job.cutting, job.cutting.kerf), effort=effort, seconds=0.0)
    return request_of(w.made, job.stock, job.price_book(), rules)


def planned(job: Job) -> tuple[NestPlan, Request]:
    request = request_for(job)
    return nest(request), request


def test_the_worker_answers_each_question_and_survives_nonsense(job: Job) -> None:
    request = msgspec.to_builtins(request_for(job))
    lines = ["no json", json.dumps({"ask": 1, "request": request}), json.dumps({"ask": 2}),
             json.dumps({"ask": 3, "request": {**request, "rules": {**request["rules"], "effort": 1}}})]  # fmt: skip
    out = io.StringIO()
    serve(io.StringIO("\n".join(lines) + "\n"), out)
    answers = [json.loads(line) for line in out.getvalue().splitlines()]
    last = {a["ask"]: a for a in answers if a.get("last")}
    assert set(last) == {1, 3}
    assert len(last[1]["plan"]["boards"]) <= len(last[3]["plan"]["boards"])
    assert all(not a.get("error") for a in answers)


def test_every_part_of_a_job_is_asked_for_once_in_its_cut_size(job: Job) -> None:
    w = Workings(job)
    request = request_for(job)
    blanks = {i.number for i in w.blank_parts}
    assert blanks
    cut = {i.number: (i.part.cut_length, i.part.cut_width) for i in w.made.parts() if i.number not in blanks}
    assert {p.part: (p.length, p.width) for p in request.parts} == cut
    assert {b.material for b in request.boards} == {p.material for p in request.parts}
    sheet = next(b for b in request.boards if b.board == "BP18")
    assert sheet.price == pytest.approx(24.50 * 2.5 * 1.25)


def test_a_raised_least_offcut_makes_a_kept_plan_say_that_it_no_longer_fits(job: Job) -> None:
    """It would bring pieces to the rack that nobody keeps any more; a lowered one changes nothing that it says."""
    plan, request = planned(job)
    offcuts = [o for b in plan.boards for o in b.offcuts]
    assert offcuts
    with_plan = cutting.keep_plan(job, kept(plan, request)).job
    assert Workings(with_plan).plan_is_kept
    shorter = min(max(o[2], o[3]) for o in offcuts)
    raised = cutting.set_cutting(with_plan, "keep_length", f"{shorter + 1:.0f}mm").job
    assert not Workings(raised).plan_is_kept
    lowered = cutting.set_cutting(with_plan, "keep_length", "300mm").job
    assert Workings(lowered).plan_is_kept
    same = cutting.set_cutting(raised, "keep_length", f"{job.cutting.keep_length}mm").job
    assert Workings(same).plan_is_kept


def test_a_kept_plan_holds_until_a_part_changes_and_comes_back_with_undo(job: Job) -> None:
    plan, request = planned(job)
    with_plan = cutting.keep_plan(job, kept(plan, request)).job
    w = Workings(with_plan)
    assert w.plan_is_kept
    assert len(w.plan.boards) == len(plan.boards) == w.tally.boards
    assert job_from_bytes(job_bytes(with_plan), "again") == with_plan
    changed = runs.set_width(with_plan, (with_plan.cells()[1].id,), "610").job
    assert not Workings(changed).plan_is_kept
    assert len(Workings(changed).plan.boards) == len(
        Workings(runs.set_width(job, (job.cells()[1].id,), "610").job).plan.boards
    )
    # A price or the effort is no part of it; the kerf is.
    assert Workings(cutting.set_cutting(with_plan, "effort", "7").job).plan_is_kept
    assert not Workings(cutting.set_cutting(with_plan, "kerf", "4").job).plan_is_kept
    assert cutting.drop_plan(with_plan).job == job
    with pytest.raises(PlankError, match="No plan is kept"):
        cutting.drop_plan(job)


@pytest.mark.parametrize(
    ("key", "text", "what"),
    [
        ("kerf", "50", "too large"),
        ("turns", "17", "not offered"),
        ("mode", "laser", "not offered"),
        ("seconds", "x", "no number"),
        ("seconds", "0", "out of range"),
        ("blade", "1", "no blade"),
    ],
)
def test_values_of_the_saw_that_do_not_do_are_refused(job: Job, key: str, text: str, what: str) -> None:
    with pytest.raises(PlankError, match=what):
        cutting.set_cutting(job, key, text)


def test_the_fingerprint_sees_parts_boards_and_cuts(job: Job) -> None:
    request = request_for(job)
    same = fingerprint(request)
    harder = msgspec.structs.replace(request.rules, effort=9, seed=4)
    assert fingerprint(Request(request.parts, request.boards, harder)) == same
    assert fingerprint(Request(request.parts[:-1], request.boards, request.rules)) != same
    assert fingerprint(Request(request.parts, request.boards[:-1], request.rules)) != same
    other = msgspec.structs.replace(request.rules, turns=2)
    assert fingerprint(Request(request.parts, request.boards, other)) != same


def test_router_parts_carry_their_outline_and_openings() -> None:
    job = with_run(new_job(), "A", Level.BASE, "sink 900, drawers 600")
    job = cutting.set_cutting(job, "mode", "router").job
    # Worktops that are cut from boards.
    boards = tuple(msgspec.structs.replace(b, blank=False) for b in job.stock.boards)
    job = msgspec.structs.replace(job, stock=msgspec.structs.replace(job.stock, boards=boards))
    request = request_for(job)
    top = next(p for p in request.parts if p.part == "AW.1")
    assert len(top.holes) == 1
    xs = [x for x, _ in top.holes[0]]
    assert 0 < min(xs) < max(xs) < top.length
