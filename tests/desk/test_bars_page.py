"""The page of bars in the real window: what is drawn, chosen and told; it follows the job."""

from __future__ import annotations

from collections.abc import Iterator

import msgspec
import pytest
from PyQt6.QtCore import Qt

from desk.conftest import opened
from shop.bars_check import check_bars
from tall_plank.demo import demo_job
from tall_plank.desk.app.window import Window
from tall_plank.edits import standards, units
from tall_plank.files.userdata import UserFolders
from tall_plank.job import Role
from tall_plank.shop import bars as shop_bars
from tall_plank.shop.bars import BarPlan
from tall_plank.shop.lengths import KERF, bars_of, pieces_of


@pytest.fixture
def demo(qtbot, folders: UserFolders) -> Iterator[Window]:  # type: ignore[no-untyped-def]
    for window in opened(qtbot, demo_job(), folders):
        window.open_schedule("bars")
        qtbot.waitUntil(lambda window=window: window.lists.bars_task is None, timeout=60_000)
        yield window


def test_every_bar_is_drawn_with_its_pieces(demo: Window) -> None:
    page = demo.bars
    assert demo.center.currentWidget() is page
    plan = demo.document.workings.bars
    assert [b.length for b in page.view.bars] == [b.length for b in plan.bars]
    assert [p.name for b in page.view.bars for p in b.pieces] == [name for b in plan.bars for name, _ in b.pieces]
    assert f"{len(plan.bars)} bars" in page.figures.text() and "proven the least" in page.figures.text()
    # All of them are on screen.
    rect = page.view.extent()
    left, right = page.view.to_px(rect.left(), 0).x(), page.view.to_px(rect.right(), 0).x()
    assert 0 <= left < right <= page.view.width() + 1


def test_one_kind_may_be_shown_alone(demo: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = demo.bars
    page.kind.setFocus()
    while page.kind.currentText() != "Rails":
        at = page.kind.currentIndex()
        qtbot.keyClick(page.kind, Qt.Key.Key_Down)
        assert page.kind.currentIndex() == at + 1
    page.kind.activated.emit(page.kind.currentIndex())
    rails = [b for b in demo.document.workings.bars.bars if b.profile == "RL-25"]
    assert [b.length for b in page.view.bars] == [b.length for b in rails]


def test_bars_follow_the_job_and_its_undo(demo: Window) -> None:
    page, doc = demo.bars, demo.document
    before = list(page.view.bars)
    doc.do(lambda job: units.set_scheme_finish(job, Role.WORKTOP, "keel-oak"))
    assert any("Keel oak" in b.head for b in page.view.bars)
    doc.undo()
    assert page.view.bars == before


def test_a_job_without_bars_says_so(demo: Window) -> None:
    doc = demo.document
    boards = tuple(msgspec.structs.replace(b, blank=False) for b in doc.job.stock.boards)
    fittings = tuple(msgspec.structs.replace(f, bars=()) for f in doc.job.stock.fittings)
    stock = msgspec.structs.replace(doc.job.stock, boards=boards, fittings=fittings)
    bare = tuple(msgspec.structs.replace(r, fields=(), openings=()) for r in doc.job.rooms[1:])
    doc.load(msgspec.structs.replace(doc.job, stock=stock, rooms=bare, treatments=()), None, saved=True)
    assert demo.bars.view.bars == []
    assert "nothing is cut from bars" in demo.bars.figures.text()


def lipped(demo: Window) -> None:
    """Lippings of 6 mm in strips: so many pieces that the least bars take seconds to find."""
    doc = demo.document
    doc.do(lambda job: standards.set_value(job, job.standard, "edging_carcass", "6"))


def test_the_window_does_not_wait_for_the_least_bars(demo: Window, qtbot, monkeypatch: pytest.MonkeyPatch) -> None:  # type: ignore[no-untyped-def]
    shop_bars._solved.clear()
    page, doc = demo.bars, demo.document
    lipped(demo)
    # A first plan at once, whole and named as such.
    first = doc.workings.bars
    assert not first.settled and "a first plan" in page.figures.text()
    pieces = pieces_of(doc.workings.made, doc.job.stock)
    book, stock = doc.job.price_book(), doc.job.stock
    mine = tuple(b for b in first.bars if stock.board_by_code(b.profile) is None)
    check_bars(pieces, bars_of(stock, book), BarPlan(mine, (), True, 0.0), KERF, 0.0)
    task = demo.lists.bars_task
    assert task is not None
    # Another change meanwhile is looked into afterwards.
    doc.do(lambda job: units.set_scheme_finish(job, Role.WORKTOP, "keel-oak"))
    qtbot.waitUntil(lambda: demo.lists.bars_task is None and doc.workings.bars.settled, timeout=60_000)
    least = doc.workings.bars
    assert least.cost <= first.cost + 1000 and "a first plan" not in page.figures.text()
    assert [b.length for b in page.view.bars] == [b.length for b in least.bars]
    # What was found is known again at once, and papers say the same.
    doc.undo()
    doc.redo()
    assert doc.workings.bars.settled and doc.workings.bars == least == doc.patient().bars


def test_many_bars_are_scrolled_and_stay_readable(demo: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = demo.bars
    high_before = page.view.height()
    lipped(demo)
    qtbot.waitUntil(lambda: page.view.height() > max(high_before, page.view.scroller.height()))
    high = [p.drawing.height / len(page.view.bars) * 2 * page.view.scale for p in page.view.placed]
    assert min(high) > 45  # px from one bar to the next
    bar = page.view.scroller.verticalScrollBar()
    assert bar is not None and bar.value() == 0
    page.view.setFocus()
    qtbot.keyClick(page.view, Qt.Key.Key_PageDown)
    assert bar.value() > 0
    qtbot.keyClick(page.view, Qt.Key.Key_End)
    assert bar.value() == bar.maximum()
    qtbot.keyClick(page.view, Qt.Key.Key_Home)
    assert bar.value() == 0
    demo.document.undo()
    qtbot.waitUntil(lambda: page.view.height() <= high_before)


def test_a_window_closes_while_bars_are_looked_for(demo: Window, monkeypatch: pytest.MonkeyPatch) -> None:
    shop_bars._solved.clear()
    lipped(demo)
    assert demo.lists.bars_task is not None
    task = demo.lists.bars_task
    demo.document.history.mark_saved()
    demo.close()
    assert not task.busy
