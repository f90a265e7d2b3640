"""The offcut rack in the window: filled by typing, used by a plan, booked with it, cut, taken back."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.test_plans_page import LONG
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.desk.pages.boardsearch import booked_by
from tall_plank.files.rack import Rack

LEFT = Qt.MouseButton.LeftButton


def fill(window: Window, length: str, width: str, count: str = "1") -> None:
    page = window.rack
    for box, text in ((page.length, length), (page.width_box, width), (page.count, count)):
        box.setFocus()
        box.selectAll()
        QTest.keyClick(box, Qt.Key.Key_Delete)
        QTest.keyClicks(box, text)
    QTest.keyClick(page.count, Qt.Key.Key_Return)


def carcass_board(window: Window) -> str:
    """The board that most parts of the job are cut from."""
    plan = window.document.workings.plan
    return max(plan.boards, key=lambda b: sum(x.board == b.board for x in plan.boards)).board


def test_offcuts_are_put_on_typed_in_any_unit_and_thrown_away(window: Window) -> None:
    window.commands.run("rack")
    page = window.rack
    assert "Nothing is on the rack" in page.table.note.text()
    fill(window, "1.2 m", "400", "2")
    fill(window, "", "", "7")
    assert [(p.length, p.width) for p in page.rack.pieces()] == [(1200.0, 400.0)] * 2
    assert sum(page.rack.wholes().values()) == 7
    assert page.table.subtitle.text().startswith("2 offcuts, 0 booked; 7")
    QTest.mouseClick(page.throw, LEFT)
    assert "No offcut is chosen" in page.fault.text()
    page.table.view.selectRow(0)
    QTest.mouseClick(page.throw, LEFT)
    assert not page.fault.isVisible()
    assert len(page.rack.pieces()) == 1
    QTest.mouseClick(page.back, LEFT)
    assert len(page.rack.pieces()) == 2
    QTest.mouseClick(page.past, LEFT)
    assert page.table.rows.rowCount() == 3
    assert not page.throw.isEnabled()


@pytest.mark.parametrize(
    ("length", "width", "count"),
    [
        ("wide", "400", "1"),
        ("1200", "", "1"),
        ("3", "400", "1"),
        ("1200", "400", "many"),
        ("1200", "400", "0"),
        ("1200", "400", "-2"),
        ("", "", "99999999"),
    ],
)
def test_nonsense_is_told_and_what_was_typed_stays(window: Window, length: str, width: str, count: str) -> None:
    window.commands.run("rack")
    fill(window, length, width, count)
    assert window.rack.fault.isVisible() and window.rack.fault.text()
    assert window.rack.rack.pieces() == () and window.rack.rack.wholes() == {}
    assert (window.rack.length.text(), window.rack.count.text()) == (length, count)


def test_a_plan_takes_offcuts_first_books_them_and_leaves_its_own(window: Window, qtbot) -> None:
    doc, page, rack = window.document, window.plans, window.plans.rack
    code = carcass_board(window)
    (old,) = rack.add(code, 1600.0, 800.0)
    (other,) = rack.add(code, 1500.0, 700.0)
    rack.book("Another job", [other])
    rack.set_whole(code, 50)
    window.open_schedule("boards")
    with qtbot.waitSignal(page.planner.ended, timeout=LONG):
        page.start()
    assert "1 offcuts" in page.figures.text()
    assert {p.state for p in rack.pieces() if p.id == old} == {"free"}  # looked at, not taken
    page.keep_found()
    booked = {p.id: p.job for p in rack.pieces() if p.state == "booked"}
    assert booked == {old: booked_by(doc.job), other: "Another job"}
    assert any(f"offcut {old}" in head[3] for head in page.boards._heads)
    new = doc.workings.plan.new
    assert doc.workings.tally.boards == new == len(doc.workings.plan.boards) - 1
    window.commands.run("undo")
    assert [p.id for p in rack.pieces() if p.state == "booked"] == [other]
    window.commands.run("redo")
    assert {p.id for p in rack.pieces() if p.state == "booked"} == {old, other}

    left = sum(len(b.offcuts) for b in doc.workings.plan.boards)
    whole = sum(b.board == code and not b.rack for b in doc.workings.plan.boards)
    assert page.cut.isVisible()
    QTest.mouseClick(page.cut, LEFT)
    assert rack.wholes() == {code: 50 - whole}
    assert old not in {p.id for p in rack.pieces()}
    assert sum(p.made_by == booked_by(doc.job) for p in rack.pieces()) == left > 0
    window.commands.run("book_cut")  # once is enough
    assert "cut already" in window.message.text.text()
    assert rack.wholes() == {code: 50 - whole}


def test_a_plan_whose_offcut_is_gone_is_not_kept(window: Window, qtbot) -> None:
    page, rack = window.plans, window.plans.rack
    (old,) = rack.add(carcass_board(window), 1600.0, 800.0)
    window.open_schedule("boards")
    with qtbot.waitSignal(page.planner.ended, timeout=LONG):
        page.start()
    Rack(rack.path).book("A quicker one", [old])
    page.keep_found()
    assert window.document.job.kept_plan is None
    assert f"Offcut {old} is booked by A quicker one" in window.message.text.text()
    page.from_rack.setChecked(False)
    with qtbot.waitSignal(page.planner.ended, timeout=LONG):
        page.start()
    page.keep_found()
    assert window.document.workings.plan_is_kept


def test_a_rack_that_cannot_be_read_is_told_and_plans_go_on(window: Window, qtbot) -> None:
    page = window.plans
    page.rack.path.parent.mkdir(parents=True, exist_ok=True)
    page.rack.path.write_bytes(b"no rack at all" * 99)
    window.commands.run("rack")
    assert "rack.sqlite.broken" in window.rack.fault.text()
    assert page.rack.path.with_name("rack.sqlite.broken").exists()
    window.open_schedule("boards")
    with qtbot.waitSignal(page.planner.ended, timeout=LONG):
        page.start()
    assert page.found is not None


def test_the_window_is_no_wider_for_the_shop_pages(window: Window) -> None:
    window.plans.rack.add(carcass_board(window), 1600.0, 800.0)
    for code in ("plans", "rack", "machine"):
        window.open_schedule(code)
        window.plans.figures.setText(
            "a search tells of bounds, yields and boards for as long as it likes, and then some more"
        )
        window.plans.layout().activate()
        window.centralWidget().layout().activate()
        QTest.qWait(0)
        assert window.minimumSizeHint().width() <= 1200, code


def test_a_read_only_job_books_nothing(window: Window, qtbot) -> None:
    page, rack = window.plans, window.plans.rack
    rack.add(carcass_board(window), 1600.0, 800.0)
    window.open_schedule("boards")
    with qtbot.waitSignal(page.planner.ended, timeout=LONG):
        page.start()
    window.document.read_only = True
    page.keep_found()
    assert window.document.job.kept_plan is not None and window.document.job.kept_plan.rack
    assert {p.state for p in rack.pieces()} == {"free"}


def test_the_rack_is_exported_as_a_schedule(window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    window.plans.rack.add("BP18", 900.0, 600.0)
    window.open_schedule("rack")
    path = tmp_path / "rack.csv"
    monkeypatch.setattr(asking, "ask_save", lambda *_: path)
    window.commands.run("export_schedule")
    lines = path.read_text(encoding="utf-8-sig").splitlines()
    assert lines[0].startswith("number,") and "900" in lines[1]
