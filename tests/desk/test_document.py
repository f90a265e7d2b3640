"""The document behind the views, without a window."""

from __future__ import annotations

from pathlib import Path

import msgspec
import pytest

from conftest import cell_of
from tall_plank.desk.model.document import Document
from tall_plank.edits import Change, jobs, runs, units
from tall_plank.files.plankfile import read_plank
from tall_plank.files.userdata import UserFolders
from tall_plank.job import Job, Kind, Side, Sides
from tall_plank.job.start import new_job
from tall_plank.measure import Length, PlankError


@pytest.fixture
def doc(qapp, job: Job, folders: UserFolders) -> Document:
    return Document(job, folders)


def heard(signal) -> list[tuple]:  # type: ignore[no-untyped-def]
    """What a signal says from now on."""
    found: list[tuple] = []
    signal.connect(lambda *args: found.append(args))
    return found


def test_one_edit_is_one_change_told_once(doc: Document, job: Job) -> None:
    changes = heard(doc.changed)
    assert doc.do(lambda j: runs.set_width(j, (cell_of(job, "A2"),), "500")) is None
    assert len(changes) == 1
    assert doc.workings.job is doc.job


def test_an_edit_that_changes_nothing_is_silent(doc: Document, job: Job) -> None:
    changes = heard(doc.changed)
    doc.do(lambda j: runs.set_width(j, (cell_of(job, "A2"),), "600mm"))
    assert changes == []
    assert not doc.history.can_undo


def test_an_error_is_told_and_given_back(doc: Document, job: Job) -> None:
    told = heard(doc.told)
    error = doc.do(lambda j: runs.set_width(j, (cell_of(job, "A2"),), "wide"))
    assert isinstance(error, PlankError)
    assert told[-1][1] == "wrong"
    assert "wide" in told[-1][0]
    assert doc.job is job


def test_an_error_shown_at_its_place_is_not_told_twice(doc: Document, job: Job) -> None:
    told = heard(doc.told)
    assert doc.do(lambda j: runs.set_width(j, (cell_of(job, "A2"),), "wide"), at_place=True) is not None
    assert told == [("", "wrong")]


def test_what_was_skipped_is_told(doc: Document, job: Job) -> None:
    told = heard(doc.told)
    doc.do(lambda j: units.set_hand(j, (cell_of(job, "A2"), cell_of(job, "A5")), "right"))
    assert "A2" in told[-1][0]


def test_what_is_new_is_selected(doc: Document) -> None:
    doc.do(lambda j: runs.insert_unit(j, "r1", "B", "door"))
    (source,) = doc.selection
    assert source.kind is Kind.CELL
    assert doc.job.find_cell(source.id)[2].number == "B1"


def test_adding_toggles_and_keeps_to_one_kind(doc: Document, job: Job) -> None:
    a, b = Kind.CELL.of(cell_of(job, "A2")), Kind.CELL.of(cell_of(job, "A3"))
    doc.select((a,))
    doc.select((b,), add=True)
    assert doc.selection == (a, b)
    doc.select((a,), add=True)
    assert doc.selection == (b,)
    doc.select((Kind.WALL.of("A"),), add=True)
    assert doc.selection == (Kind.WALL.of("A"),)


def test_selecting_the_same_again_says_nothing(doc: Document, job: Job) -> None:
    doc.select((Kind.CELL.of(cell_of(job, "A2")),))
    said = heard(doc.selected)
    doc.select((Kind.CELL.of(cell_of(job, "A2")),))
    assert said == []


def test_what_is_deleted_leaves_the_selection(doc: Document, job: Job) -> None:
    a, b = cell_of(job, "A2"), cell_of(job, "A3")
    doc.select((Kind.CELL.of(a), Kind.CELL.of(b)))
    doc.do(lambda j: runs.delete_cells(j, (a,)))
    assert doc.selection == (Kind.CELL.of(b),)
    doc.undo()
    assert doc.selection == (Kind.CELL.of(b),)


def test_each_move_of_a_drag_starts_from_where_it_began(doc: Document, job: Job) -> None:
    cell = cell_of(job, "A2")
    doc.begin_drag("Resize")
    for mm in (610.0, 640.0, 620.0):
        doc.drag(lambda j, mm=mm: runs.drag_width(j, cell, mm))
    doc.end_drag()
    assert doc.workings.layout.find(cell).width == 620  # type: ignore[union-attr]
    assert len(doc.history.names) == 1
    doc.undo()
    assert doc.job is job


def test_a_move_that_does_not_fit_keeps_the_last_one_that_did(doc: Document, job: Job) -> None:
    cell = cell_of(job, "A2")

    def refuse(_: Job) -> Change:
        raise PlankError("no", "", "")

    doc.begin_drag("Resize")
    doc.drag(lambda j: runs.drag_width(j, cell, 650.0))
    doc.drag(refuse)
    doc.end_drag()
    assert doc.workings.layout.find(cell).width == 650  # type: ignore[union-attr]


def test_what_a_drag_refuses_says_why_once_and_is_over_when_it_fits_again(doc: Document, job: Job) -> None:
    cell = cell_of(job, "A2")
    told: list[tuple[str, str]] = []
    doc.told.connect(lambda text, level: told.append((text, level)))

    def refuse(_: Job) -> Change:
        raise PlankError("It is locked.", "A2", "Unlock it first.")

    doc.begin_drag("Resize")
    doc.drag(refuse)
    doc.drag(refuse)
    assert told == [("A2: It is locked. Unlock it first.", "wrong")]
    doc.drag(lambda j: runs.drag_width(j, cell, 650.0))
    assert told[1:] == [("", "note")]
    doc.drag(lambda j: runs.drag_width(j, cell, 660.0))
    assert len(told) == 2
    doc.end_drag()


def test_a_drag_that_leads_to_a_job_that_cannot_be_set_out_is_refused(doc: Document, job: Job) -> None:
    told: list[str] = []
    doc.told.connect(lambda text, level: told.append(text))

    def broken(job: Job) -> Change:
        room = job.rooms[0]
        walls = Sides((Side("A", Length.of(3000.0)), Side("B", None), Side("C", None)))
        return Change(msgspec.structs.replace(job, rooms=(msgspec.structs.replace(room, outline=walls),)), "Break")

    doc.begin_drag("Move")
    doc.drag(broken)
    assert doc.job is job and told and told[0]
    doc.end_drag()
    assert doc.job is job


def test_a_drag_given_up_shows_the_job_as_it_was(doc: Document, job: Job) -> None:
    doc.begin_drag("Resize")
    doc.drag(lambda j: runs.drag_width(j, cell_of(job, "A2"), 650.0))
    doc.end_drag(keep=False)
    assert doc.job is job
    assert doc.workings.job is job


def test_moves_without_a_drag_do_nothing(doc: Document, job: Job) -> None:
    doc.drag(lambda j: runs.drag_width(j, cell_of(job, "A2"), 650.0))
    doc.end_drag()
    assert doc.job is job


def test_a_read_only_job_is_not_written_over(doc: Document, folders: UserFolders, tmp_path: Path) -> None:
    path = tmp_path / "a.plank"
    doc.save(path)
    other = Document(new_job(), folders)
    other.open(path)
    assert other.read_only
    other.do(lambda j: jobs.set_text(j, "name", "theirs"))
    with pytest.raises(PlankError, match="read-only"):
        other.save(path)
    assert read_plank(path).name == "Test job"
    doc.release()
    fresh = Document(new_job(), folders)
    fresh.open(path)
    assert not fresh.read_only


def test_saving_elsewhere_moves_the_lock(doc: Document, folders: UserFolders, tmp_path: Path) -> None:
    doc.save(tmp_path / "a.plank")
    doc.save(tmp_path / "b.plank")
    other = Document(new_job(), folders)
    other.open(tmp_path / "a.plank")
    assert not other.read_only
    third = Document(new_job(), folders)
    third.open(tmp_path / "b.plank")
    assert third.read_only


def test_a_save_that_fails_changes_nothing(doc: Document, tmp_path: Path) -> None:
    doc.do(lambda j: jobs.set_text(j, "name", "changed"))
    with pytest.raises(PlankError, match="cannot be written"):
        doc.save(tmp_path / "no" / "where.plank")
    assert doc.path is None
    assert not doc.history.is_saved


def test_another_job_takes_the_place_of_this_one(doc: Document, job: Job) -> None:
    doc.select((Kind.CELL.of(cell_of(job, "A2")),))
    doc.load(new_job("Other"), None, saved=False)
    assert doc.selection == ()
    assert doc.job.name == "Other"
    assert not doc.history.is_saved
    assert not doc.history.can_undo
