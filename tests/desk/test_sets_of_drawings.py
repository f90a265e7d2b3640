"""Sets of drawings in the window: made in one step, leafed through, right after a change, printed, stopped."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtTest import QTest

from desk.conftest import cell
from desk.hand import Hand
from tall_plank.desk.app.onscreen import pages_of, shown_now
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.desk.pages.sets import SetPage
from tall_plank.desk.views.canvas import PAPER_PX
from tall_plank.drawing.dimensions import offset
from tall_plank.drawing.primitives import Arc, Text
from tall_plank.edits import runs
from tall_plank.edits.things.section import add_section
from tall_plank.edits.things.table import ADDED
from tall_plank.job import Kind


def opened(window: Window, qtbot, kind: str) -> SetPage:  # type: ignore[no-untyped-def]
    """A set chosen from the list by its name, laid out."""
    if window.stage != "offer":
        window.show_stage("offer")
    page = window.center.sets[kind]
    names = [window.lists.item(i).data(Qt.ItemDataRole.UserRole) for i in range(window.lists.count())]  # type: ignore[union-attr]
    with qtbot.waitSignal(page.laid_out, timeout=60_000):
        window.lists.setCurrentRow(names.index(f"set:{kind}"))
    assert window.center.currentWidget() is page
    return page


@pytest.mark.parametrize("kind", ["client", "site", "installer", "shop"])
def test_a_set_is_made_in_one_step_and_leafed_through(window: Window, qtbot, kind: str) -> None:  # type: ignore[no-untyped-def]
    page = opened(window, qtbot, kind)
    assert len(page.sheets) >= 2 and page.names.count() == len(page.sheets)
    assert page.sheets[0].title.startswith("Index")
    assert page.view.sheet is page.sheets[0]
    QTest.keyClick(page, Qt.Key.Key_PageDown)
    assert page.view.sheet is page.sheets[1] and "2 of" in page.told.text()
    page.back.click()
    page.back.click()
    assert page.view.sheet is page.sheets[0]
    page.names.setCurrentIndex(len(page.sheets) - 1)
    assert page.view.sheet is page.sheets[-1]
    assert not page.view.grab().isNull()


def test_a_set_follows_the_job_and_its_sheets_keep_their_numbers(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = opened(window, qtbot, "installer")
    before = {s.block.number for s in page.sheets}
    page.names.setCurrentIndex(1)
    with qtbot.waitSignal(page.laid_out, timeout=60_000):
        window.document.do(lambda job: runs.set_width(job, (cell(window, "A3"),), "850"))
    assert {s.block.number for s in page.sheets} == before
    assert page.names.currentIndex() == 1
    words = {t.text for s in page.sheets for v in s.views for t in v.shown.texts}
    assert "850" in words


def test_the_same_sheet_is_looked_at_where_another_has_come_before_it(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = opened(window, qtbot, "shop")
    at = next(i for i, s in enumerate(page.sheets) if s.block.number == "WUA2")
    page.names.setCurrentIndex(at)
    with qtbot.waitSignal(page.laid_out, timeout=60_000):
        window.document.do(lambda job: add_section(job, "r1", "x"))
    assert page.view.sheet is not None and page.view.sheet.block.number == "WUA2"
    assert page.names.currentIndex() > at


def test_a_set_on_screen_is_what_is_printed(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = opened(window, qtbot, "site")
    shown = shown_now(window)
    assert shown.sheets == tuple(page.sheets)
    (first,) = pages_of(shown, 40, 1)
    assert first.width() / first.height() == pytest.approx(page.sheets[0].size[0] / page.sheets[0].size[1], abs=0.02)
    assert page.sheets[1].block.number in shown.text


def test_stop_ends_the_laying_out_and_says_so(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = window.center.sets["shop"]
    window.show_stage("offer")
    with qtbot.waitSignal(page.laid_out, timeout=60_000):
        page.refresh()
        page.stop.click()
    assert page.sheets == [] and "stopped" in page.told.text()
    with qtbot.waitSignal(page.laid_out, timeout=60_000):
        page.refresh()
    assert page.sheets


def test_a_section_by_mouse_from_the_shelf_moves_on_the_plan_and_has_its_sheet(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    assert "section along" in ADDED
    window.show_stage("room")
    window.commands.run("section_along")
    (section,) = window.document.room.room.sections
    before = section.x1.mm
    window.document.select((Kind.SECTION.of(section.id),))
    plan = window.plan
    start = plan.to_px(before, 1900.0).toPoint()
    end = plan.to_px(before + 500.0, 1900.0).toPoint()
    Hand(window).drag(plan, start, end)
    (moved,) = window.document.room.room.sections
    assert moved.x1.mm == moved.x2.mm == pytest.approx(before + 500.0, abs=25.0)
    page = opened(window, qtbot, "shop")
    titles = [v.drawing.title for s in page.sheets for v in s.views]
    assert any(t.endswith("section 1-1") for t in titles)
    window.document.undo()
    assert window.document.room.room.sections[0].x1.mm == before


def test_a_dimension_by_hand_is_put_moved_and_stays_when_a_width_changes(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    doc = window.document
    first, second = (Kind.CELL.of(cell(window, n)) for n in ("A2", "A4"))
    doc.select((first, second))
    window.strip.setFocus()
    window.commands.run("dimension_between")
    (made,) = doc.room.room.dimensions
    strip = window.strip
    dim = next(d for d in strip.dims() if d.source == Kind.DIMENSION.of(made.id))
    assert dim.text == "900"
    at = offset(dim, strip.paper_scale)
    start = strip.to_px((dim.a + dim.b) / 2, at).toPoint()
    end = strip.to_px((dim.a + dim.b) / 2, at + 8.0 * strip.paper_scale).toPoint()
    Hand(window).drag(strip, start, end)
    (moved,) = doc.room.room.dimensions
    assert moved.offset == pytest.approx(made.offset + 8.0, abs=1.0)
    doc.do(lambda job: runs.set_width(job, (cell(window, "A3"),), "800"))
    dim = next(d for d in strip.dims() if d.source == Kind.DIMENSION.of(made.id))
    assert dim.text == "800" and dim.away == moved.offset
    # A click opens its box: what is typed stands over the true length, and it says so.
    at = offset(dim, strip.paper_scale)
    QTest.mouseClick(strip, Qt.MouseButton.LeftButton, pos=strip.to_px((dim.a + dim.b) / 2, at).toPoint())
    Hand(window).type("as built")
    Hand(window).enter()
    dim = next(d for d in strip.dims() if d.source == Kind.DIMENSION.of(made.id))
    assert dim.text == "as built (is 800)"
    doc.select((Kind.DIMENSION.of(made.id),))
    window.commands.run("delete")
    assert doc.room.room.dimensions == ()
    doc.undo()
    assert doc.room.room.dimensions != ()


def test_a_set_is_issued_changed_and_shows_its_clouds(window: Window, qtbot, tmp_path, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    page = opened(window, qtbot, "client")
    with qtbot.waitSignal(page.laid_out, timeout=60_000):
        page.give_out.click()
    assert window.document.job.issues, page.told.text()
    (issue,) = window.document.job.issues
    assert issue.letter == "A" and page.issued.count() == 2
    page.signer.setFocus()
    with qtbot.waitSignal(page.laid_out, timeout=60_000):
        QTest.keyClicks(page.signer, "M. Harrow")
        QTest.keyClick(page.signer, Qt.Key.Key_Return)
    (issue,) = window.document.job.issues
    assert issue.signed_by == "M. Harrow" and not page.signer.isVisible()
    assert "M. Harrow" in page.issued.itemText(1)
    with qtbot.waitSignal(page.laid_out, timeout=60_000):
        window.document.do(lambda job: runs.set_width(job, (cell(window, "A3"),), "850"))
    starred = [s for s in page.sheets if s.block.revision == "A*"]
    assert starred and any(
        isinstance(i, Arc) and i.pen == "medium" for s in starred for v in s.views for i in v.drawing.items
    )
    monkeypatch.setattr(asking, "ask_save", lambda *args: tmp_path / "a.pdf")
    page.issued.activated.emit(1)
    assert (tmp_path / "a.pdf").read_bytes() == issue.data
    # Issuing is a step like any other.
    for _ in range(2):
        window.document.undo()
    with qtbot.waitSignal(page.laid_out, timeout=60_000):
        window.document.undo()
    assert window.document.job.issues == ()


def test_a_note_is_put_written_and_dragged(window: Window) -> None:
    doc = window.document
    doc.select((Kind.CELL.of(cell(window, "A3")),))
    window.strip.setFocus()
    window.commands.run("note_on")
    (note,) = doc.room.room.notes
    assert doc.selection == (Kind.NOTE.of(note.id),)
    strip = window.strip
    text = next(i for p in strip.placed for i in p.drawing.items if isinstance(i, Text) and i.shift != (0.0, 0.0))
    dx = next(p.dx for p in strip.placed if text in p.drawing.items)
    at = strip.to_px(text.x + dx, text.y) + QPointF(text.shift[0] * PAPER_PX + 8, -text.shift[1] * PAPER_PX - 3)
    assert strip.note_at(at) == text
    Hand(window).drag(strip, at.toPoint(), at.toPoint() + QPoint(36, -18))
    (moved,) = doc.room.room.notes
    assert (moved.right - note.right, moved.up - note.up) == pytest.approx((10.0, 5.0), abs=0.6)
    doc.select(())
    QTest.mouseClick(strip, Qt.MouseButton.LeftButton, pos=at.toPoint() + QPoint(36, -18))
    assert doc.selection == (Kind.NOTE.of(note.id),)
    window.commands.run("delete")
    assert doc.room.room.notes == ()
