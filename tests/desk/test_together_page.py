"""The page of jobs that are cut together, in the real window: added, planned, written, booked as cut."""

from __future__ import annotations

from pathlib import Path

import msgspec
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from conftest import with_run
from desk.conftest import cell
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.edits import cutting, runs
from tall_plank.edits.change import Change
from tall_plank.files.plankfile import write_plank
from tall_plank.files.rack import Rack
from tall_plank.job import Level
from tall_plank.job.start import new_job

LEFT = Qt.MouseButton.LeftButton
LONG = 30_000  # ms; a cold process compiles on its first start


@pytest.fixture
def other(tmp_path: Path) -> Path:
    job = with_run(new_job("Rope Yard"), "A", Level.BASE, "door 450, pair 800")
    path = tmp_path / "rope-yard.plank"
    write_plank(msgspec.structs.replace(job, number="15"), path)
    return path


def show(window: Window, monkeypatch: pytest.MonkeyPatch, *paths: Path) -> None:
    doc = window.document
    doc.do(lambda job: cutting.set_cutting(job, "effort", "1"))
    doc.do(lambda job: Change(msgspec.structs.replace(job, number="14"), "x"))
    window.commands.run("cut_together")
    monkeypatch.setattr(asking, "ask_read_many", lambda *_: list(paths))
    QTest.mouseClick(window.together.add, LEFT)


def planned(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = window.together
    with qtbot.waitSignal(page.planner.ended, timeout=LONG):
        QTest.mouseClick(page.search, LEFT)


def test_two_jobs_are_planned_written_and_cut(
    window: Window, qtbot, other: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    page = window.together
    show(window, monkeypatch)
    assert not page.search.isEnabled() and "add the jobs" in page.figures.text()
    show(window, monkeypatch, other)
    assert page.jobs.count() == 2 and not page.write.isEnabled()
    planned(window, qtbot)
    assert page.found is not None and page.boards.plan is not None
    named = {p.part.split("/")[0] for b in page.boards.plan.boards for p in b.parts}
    assert named == {"14", "15"}
    assert f"{len(page.found.boards)} boards" in page.figures.text()
    folder = tmp_path / "plan"
    monkeypatch.setattr(asking, "ask_folder", lambda *_: folder)
    QTest.mouseClick(page.write, LEFT)
    assert page._task is not None and page.write.text() == "Stop writing"
    qtbot.waitUntil(lambda: page._task is None, timeout=LONG)
    assert (folder / "labels.pdf").exists() and "files written into plan" in window.message.text.text()
    # Written again and stopped at once: what is done stays, and the page is ready for another try.
    monkeypatch.setattr(asking, "ask_folder", lambda *_: tmp_path / "stopped")
    QTest.mouseClick(page.write, LEFT)
    QTest.mouseClick(page.write, LEFT)
    qtbot.waitUntil(lambda: page._task is None, timeout=LONG)
    assert page.write.text() == "Write the plan…" and page.write.isEnabled()
    assert not (tmp_path / "stopped" / "plan.json").exists()
    rack = Rack(window.document.folders.rack)
    rack.set_whole("BP18", 40)
    QTest.mouseClick(page.cut, LEFT)
    boards = sum(b.board == "BP18" for b in page.found.boards)
    assert rack.wholes()["BP18"] == 40 - boards
    assert len(rack.pieces()) == sum(len(b.offcuts) for b in page.found.boards)
    QTest.mouseClick(page.cut, LEFT)
    assert "cut already" in window.message.text.text()


def test_a_plan_is_put_aside_when_its_jobs_change(
    window: Window, qtbot, other: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    page = window.together
    show(window, monkeypatch, other, other)
    assert page.jobs.count() == 2  # a file is taken once
    planned(window, qtbot)
    assert page.boards.plan.boards
    window.document.do(lambda job: runs.set_width(job, (cell(window, "A2"),), "610"))
    assert page.found is None and not page.boards.plan.boards and "not planned yet" in page.figures.text()
    planned(window, qtbot)
    page.jobs.setFocus()
    QTest.keyClick(page.jobs, Qt.Key.Key_Down)
    assert page.out.isEnabled()
    page.out.setFocus()
    QTest.keyClick(page.out, Qt.Key.Key_Space)
    assert page.jobs.count() == 1 and page.found is None and not page.search.isEnabled()


def test_jobs_are_remembered_and_one_that_is_gone_is_named(
    window: Window, qtbot, other: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    page = window.together
    bad = tmp_path / "bad.plank"
    bad.write_text("no job")
    show(window, monkeypatch, bad)
    assert page.jobs.count() == 1 and "bad.plank" in window.message.text.text()
    show(window, monkeypatch, other)
    assert window.preferences.get("together", []) == [str(other)]
    other.unlink()
    page.refresh()
    assert "the file is gone" in page.jobs.item(1).text()
    QTest.mouseClick(page.search, LEFT)
    assert not page.planner.busy and "rope-yard.plank" in window.message.text.text()
