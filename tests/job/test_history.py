from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from tall_plank.edits.jobs import set_text
from tall_plank.job import History, Job
from tall_plank.job.start import new_job

START = new_job("start")


def renamed(job: Job, name: str) -> Job:
    return set_text(job, "name", name).job


def test_undo_and_redo_go_through_named_steps() -> None:
    history = History(START)
    history.do("first", renamed(START, "a"))
    history.do("second", renamed(START, "b"))
    assert history.names == ("first", "second")
    assert history.undo() == "second"
    assert history.job.name == "a"
    assert history.redo_name == "second"
    assert history.redo() == "second"
    assert history.redo() == ""


def test_a_step_that_changes_nothing_is_no_step() -> None:
    history = History(START)
    assert not history.do("nothing", renamed(START, "start"))
    assert not history.can_undo


def test_a_new_step_after_undo_forgets_what_could_be_redone() -> None:
    history = History(START)
    history.do("first", renamed(START, "a"))
    history.undo()
    history.do("other", renamed(START, "c"))
    assert not history.can_redo


def test_a_drag_is_one_step_however_often_it_moves() -> None:
    history = History(START)
    origin = history.begin("Drag")
    assert origin is START
    for name in ("a", "b", "c"):
        history.do("moving", renamed(origin, name))
    history.end()
    assert history.names == ("moving",)
    history.undo()
    assert history.job is START


def test_a_drag_given_up_leaves_nothing_and_keeps_redo() -> None:
    history = History(START)
    history.do("first", renamed(START, "a"))
    history.undo()
    history.begin("Drag")
    history.do("moving", renamed(START, "b"))
    history.end(keep=False)
    assert history.job is START
    assert history.redo_name == "first"


def test_a_drag_back_to_its_start_leaves_no_step() -> None:
    history = History(START)
    history.begin("Drag")
    history.do("moving", renamed(START, "b"))
    history.do("moving", START)
    history.end()
    assert not history.can_undo


def test_saved_is_known_by_content() -> None:
    history = History(START)
    assert history.is_saved
    history.do("first", renamed(START, "a"))
    assert not history.is_saved
    history.undo()
    assert history.is_saved
    history.redo()
    history.mark_saved()
    assert history.is_saved
    history.undo()
    assert not history.is_saved


@given(st.lists(st.one_of(st.just("undo"), st.just("redo"), st.text("abc", min_size=1, max_size=2)), max_size=30))
def test_undoing_everything_gives_the_first_job(moves: list[str]) -> None:
    history = History(START)
    for move in moves:
        if move == "undo":
            history.undo()
        elif move == "redo":
            history.redo()
        else:
            history.do(move, renamed(history.job, move))
    while history.can_undo:
        history.undo()
    assert history.job is START
