"""The page of cutting plans: planned beside the window, stopped, kept, planned anew for another board."""

from __future__ import annotations

import msgspec
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.conftest import cell, spec, type_into
from tall_plank.desk.app.window import Window
from tall_plank.edits import cutting, runs
from tall_plank.edits.change import Change
from tall_plank.job import Kind

LEFT = Qt.MouseButton.LeftButton
LONG = 30_000  # ms; a cold process compiles on its first start


def test_boards_are_planned_beside_the_window_and_the_plan_is_kept(window: Window, qtbot) -> None:
    doc, page = window.document, window.plans
    # However busy the machine is: the search goes to its end.
    doc.do(lambda job: cutting.set_cutting(job, "seconds", "3600"))
    window.open_schedule("boards")
    assert "a first plan" in page.figures.text()
    assert not page.keep.isEnabled()
    with qtbot.waitSignal(page.planner.ended, timeout=LONG):
        window.commands.run("plan_boards")
        assert page.stop.isVisible() and not page.search.isVisible()
        # The window goes on working: another unit is looked at meanwhile.
        doc.select((Kind.CELL.of(cell(window, "A3")),))
    assert "found, not kept yet" in page.figures.text()
    before = doc.workings.tally.boards
    QTest.mouseClick(page.keep, LEFT)
    assert doc.workings.plan_is_kept
    assert doc.workings.tally.boards <= before
    assert page.figures.text().endswith("kept")
    window.commands.run("undo")
    assert doc.job.kept_plan is None
    window.commands.run("redo")
    window.commands.run("drop_plan")
    assert "a first plan" in page.figures.text()


def test_a_search_is_stopped_early_with_its_best(window: Window, qtbot) -> None:
    doc, page = window.document, window.plans
    doc.do(
        lambda job: Change(
            msgspec.structs.replace(job, cutting=msgspec.structs.replace(job.cutting, effort=9, seconds=600.0)), "x"
        )
    )
    window.open_schedule("boards")
    with qtbot.waitSignal(page.planner.told, timeout=LONG):
        page.start()
    if page.planner.busy:
        with qtbot.waitSignal(page.planner.ended, timeout=LONG):
            QTest.mouseClick(page.stop, LEFT)
    assert page.found is not None
    assert not page.planner.busy
    assert page.keep.isEnabled()


def test_a_change_of_the_job_puts_a_found_plan_aside(window: Window, qtbot) -> None:
    doc, page = window.document, window.plans
    window.open_schedule("boards")
    with qtbot.waitSignal(page.planner.ended, timeout=LONG):
        page.start()
    doc.do(lambda job: runs.set_width(job, (cell(window, "A2"),), "610"))
    assert page.found is None
    assert "a first plan" in page.figures.text()
    # Another kerf is planned anew.
    type_into(spec(window, "kerf"), "4.4")
    with qtbot.waitSignal(page.planner.ended, timeout=LONG) as told:
        page.start()
    assert told.args[0].boards
    assert page.planner.request.rules.kerf == 4.4


def test_one_material_is_shown_by_itself(window: Window) -> None:
    page = window.plans
    window.open_schedule("boards")
    names = [page.material.itemData(i) for i in range(page.material.count())]
    page.material.setCurrentIndex(names.index("Birch ply 9"))
    page.material.activated.emit(page.material.currentIndex())
    assert {b.material for _, b in page.boards.shown} == {"Birch ply 9"}
    assert 0 < len(page.boards.placed) < len(page.boards.plan.boards)


def test_a_search_that_dies_says_so_and_the_plan_before_it_stands(window: Window, qtbot) -> None:
    page = window.plans
    window.open_schedule("boards")
    before = page.boards.plan
    with qtbot.waitSignal(page.planner.failed, timeout=LONG):
        page.start()
        page.planner._process.kill()
    assert "the one before it stands" in page.note.text()
    assert page.boards.plan == before
    with qtbot.waitSignal(page.planner.ended, timeout=LONG):
        page.start()


def test_cuts_are_a_schedule_too(window: Window) -> None:
    window.open_schedule("saw-cuts")
    assert "cuts in at most" in window.table.subtitle.text()
