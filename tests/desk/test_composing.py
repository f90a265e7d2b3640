"""Sets put into order and pages composed by hand, by mouse and keys in the window."""

from __future__ import annotations

import io
from pathlib import Path

import pytest
from PIL import Image
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtTest import QTest

from desk.conftest import cell
from desk.test_sets_of_drawings import opened
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.desk.pages.sets import SetPage
from tall_plank.drawing.primitives import Shape
from tall_plank.edits import runs
from tall_plank.edits.things.section import add_section
from tall_plank.edits.things.table import delete_thing
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.job import Kind
from tall_plank.papers.ownpages import box_on


def laid(qtbot, page: SetPage, do) -> None:  # type: ignore[no-untyped-def]
    """Do something, and wait for the set to be laid out anew."""
    with qtbot.waitSignal(page.laid_out, timeout=60_000):
        do()


def middle_of(page: SetPage, at: int) -> QPointF:
    """The middle of a view on screen."""
    sheet = page.view.sheet
    assert sheet is not None
    x0, y0, x1, y1 = box_on(sheet.views[at])
    return page.view.to_px((x0 + x1) / 2, (y0 + y1) / 2)


def drag(page: SetPage, at: int, dx: float, dy: float) -> None:
    """Drag a view by mm of paper; Alt lets nothing hold it."""
    alt = Qt.KeyboardModifier.AltModifier
    start = middle_of(page, at)
    end = QPointF(start.x() + dx * page.view.scale, start.y() - dy * page.view.scale)
    QTest.mousePress(page.view, Qt.MouseButton.LeftButton, alt, start.toPoint())
    for t in (0.3, 0.7, 1.0):
        at_px = start + (end - start) * t
        from PyQt6.QtCore import QEvent
        from PyQt6.QtGui import QMouseEvent

        move = QMouseEvent(
            QEvent.Type.MouseMove, at_px, page.view.mapToGlobal(at_px), Qt.MouseButton.NoButton,
            Qt.MouseButton.LeftButton, alt,
        )  # fmt: skip
        page.view.mouseMoveEvent(move)
    QTest.mouseRelease(page.view, Qt.MouseButton.LeftButton, alt, end.toPoint())


def numbers(page: SetPage) -> list[str]:
    return [s.block.number for s in page.sheets]


def place(page: SetPage, at: int) -> tuple[float, float]:
    assert page.view.sheet is not None
    return box_on(page.view.sheet.views[at])[:2]


def new_page(window: Window, qtbot, kind: str = "client") -> SetPage:  # type: ignore[no-untyped-def]
    page = opened(window, qtbot, kind)
    laid(qtbot, page, page.tools.begin_page)
    assert page.tools.own is not None and not page.tools.own.views
    return page


def test_a_page_is_composed_of_views_a_picture_and_a_note(  # type: ignore[no-untyped-def]
    window: Window, qtbot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    page = new_page(window, qtbot)
    plan, wall = "r1:P", "r1:wall A"
    page.tools.put.menu().aboutToShow.emit()  # type: ignore[union-attr]
    offered = {a.text(): a for a in page.tools.put.menu().actions()}  # type: ignore[union-attr]
    title = page.drawings[plan].title
    laid(qtbot, page, offered[title].trigger)
    laid(qtbot, page, lambda: page.tools.put_drawing(wall))
    image = io.BytesIO()
    Image.new("RGB", (60, 40), "#2E6A5A").save(image, "PNG")
    (tmp_path / "p.png").write_bytes(image.getvalue())
    monkeypatch.setattr(asking, "ask_read", lambda *_: tmp_path / "p.png")
    laid(qtbot, page, page.tools.put_picture)
    laid(qtbot, page, page.tools.put_note)
    # The words of the note are typed at once, and Enter hands the keys back to the page.
    assert page.tools.words.hasFocus()
    QTest.keyClicks(page.tools.words, "Oak to be oiled twice")
    laid(qtbot, page, lambda: QTest.keyClick(page.tools.words, Qt.Key.Key_Return))
    assert page.view.hasFocus()
    sheet = page.view.sheet
    assert sheet is not None and len(sheet.views) == 4
    assert window.width() == 1280  # nothing that shows over the sheet makes the window wider
    assert sheet.views[2].image and sheet.views[3].drawing.items[0].text == "Oak to be oiled twice"  # type: ignore[union-attr]
    # What stands on it is laid out nowhere else, and all else still is.
    others = [v.drawing.key for s in page.sheets for v in s.views if s is not sheet]
    assert plan not in others and wall not in others and "approval" in others


def test_a_view_is_dragged_nudged_scaled_typed_and_taken_off(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = new_page(window, qtbot)
    laid(qtbot, page, lambda: page.tools.put_drawing("r1:wall A"))
    before = place(page, 0)
    laid(qtbot, page, lambda: drag(page, 0, 20.0, -10.0))
    after = place(page, 0)
    assert after[0] - before[0] == pytest.approx(20.0, abs=0.6) and after[1] - before[1] == pytest.approx(-10, abs=0.6)
    laid(qtbot, page, lambda: QTest.keyClick(page.view, Qt.Key.Key_Left, Qt.KeyboardModifier.ShiftModifier))
    assert place(page, 0)[0] == pytest.approx(after[0] - 10.0)
    scale = page.view.sheet.views[0].scale  # type: ignore[union-attr]
    laid(qtbot, page, lambda: QTest.keyClicks(page.view, "-"))
    assert page.view.sheet.views[0].scale > scale  # type: ignore[union-attr]
    page.tools.from_left.setFocus()
    page.tools.from_left.selectAll()
    QTest.keyClicks(page.tools.from_left, "55,5")
    laid(qtbot, page, lambda: QTest.keyClick(page.tools.from_left, Qt.Key.Key_Return))
    assert place(page, 0)[0] == pytest.approx(55.5) and page.view.hasFocus()
    # What is no length is told in the row, and the old one is back.
    page.tools.from_left.setFocus()
    page.tools.from_left.selectAll()
    QTest.keyClicks(page.tools.from_left, "far")
    QTest.keyClick(page.tools.from_left, Qt.Key.Key_Return)
    assert "mm of paper" in page.told.text() and page.tools.from_left.text() == "55.5"
    page.view.choose(0)
    # A unit that is selected stays where it is: the key is the page's.
    window.document.select((Kind.CELL.of(cell(window, "A3")),))
    cells = len(window.document.job.cells())
    laid(qtbot, page, lambda: QTest.keyClick(page.view, Qt.Key.Key_Delete))
    assert page.tools.own is not None and not page.tools.own.views and len(window.document.job.cells()) == cells
    laid(qtbot, page, window.document.undo)
    assert len(page.tools.own.views) == 1


def test_a_drawn_picture_is_as_wide_as_is_typed(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = new_page(window, qtbot)
    laid(qtbot, page, lambda: page.tools.put_drawing("r1:V1"))
    page.view.choose(0)
    assert page.tools.wide.isVisible() and not page.tools.scale.isVisible()
    page.tools.wide.setFocus()
    page.tools.wide.selectAll()
    QTest.keyClicks(page.tools.wide, "90")
    laid(qtbot, page, lambda: QTest.keyClick(page.tools.wide, Qt.Key.Key_Return))
    x0, _, x1, _ = box_on(page.view.sheet.views[0])  # type: ignore[union-attr]
    assert x1 - x0 == pytest.approx(90.0, abs=0.5)
    page.tools.wide.setFocus()
    page.tools.wide.selectAll()
    QTest.keyClicks(page.tools.wide, "2")
    QTest.keyClick(page.tools.wide, Qt.Key.Key_Return)
    assert "mm of paper" in page.told.text()


def test_a_sheet_whose_view_is_dragged_becomes_a_page_of_ones_own(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = opened(window, qtbot, "installer")
    page.names.setCurrentIndex(1)
    keys = [v.drawing.key for v in page.view.sheet.views]  # type: ignore[union-attr]
    before = place(page, 0)
    laid(qtbot, page, lambda: drag(page, 0, 6.0, 4.0))
    own = page.tools.own
    assert own is not None and [v.what for v in own.views] == keys
    assert place(page, 0)[0] == pytest.approx(before[0] + 6.0, abs=0.6)
    # The page stays right when the job changes.
    laid(qtbot, page, lambda: window.document.do(lambda job: runs.set_width(job, (cell(window, "A3"),), "850")))
    assert "850" in {t.text for v in page.view.sheet.views for t in v.shown.texts}  # type: ignore[union-attr]
    laid(qtbot, page, window.document.undo)
    laid(qtbot, page, page.tools.leave_out)
    assert not window.document.job.sheet_set("installer").pages
    assert {v.drawing.key for s in page.sheets for v in s.views} >= set(keys)


def test_the_index_is_laid_out_by_itself(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = opened(window, qtbot, "site")
    page.names.setCurrentIndex(0)
    before = place(page, 0)
    drag(page, 0, 15.0, 0.0)
    assert "by themselves" in page.told.text() and place(page, 0) == before
    assert not window.document.job.sheet_set("site").pages


def test_sheets_are_put_into_an_order_that_new_ones_keep_to(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = opened(window, qtbot, "client")
    before = numbers(page)
    assert len(before) > 2
    page.tools.order.click()
    assert page.order.isVisible() and page.order.count() == len(page.every)
    page.order.setCurrentRow(1)
    moved = before[2]
    laid(qtbot, page, lambda: QTest.keyClick(page.order, Qt.Key.Key_Up, Qt.KeyboardModifier.AltModifier))
    assert numbers(page)[1] == moved and sorted(numbers(page)) == sorted(before)
    # Dragged in the list: its last row to the top.
    model = page.order.model()
    assert model is not None
    last = page.order.count() - 1
    laid(qtbot, page, lambda: model.moveRow(model.index(-1, -1), last, model.index(-1, -1), 0))
    assert numbers(page)[1] == before[-1]
    laid(qtbot, page, lambda: window.document.do(lambda job: add_section(job, "r1", "x")))
    assert len(page.sheets) >= len(before) and numbers(page)[1] == before[-1]


def test_a_sheet_is_left_out_and_taken_in_again(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = opened(window, qtbot, "client")
    before = numbers(page)
    page.names.setCurrentIndex(1)
    laid(qtbot, page, page.tools.leave_out)
    assert before[1] not in numbers(page)
    page.tools.order.click()
    out = [page.order.item(i) for i in range(page.order.count())]
    gone = [i for i in out if i is not None and i.checkState() == Qt.CheckState.Unchecked]
    assert gone
    for _ in gone:
        item = next(
            i for i in (page.order.item(n) for n in range(page.order.count()))
            if i is not None and i.checkState() == Qt.CheckState.Unchecked
        )  # fmt: skip
        laid(qtbot, page, lambda item=item: item.setCheckState(Qt.CheckState.Checked))
    assert numbers(page) == before


def test_all_that_stands_on_a_sheet_is_left_out_with_its_tick(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = opened(window, qtbot, "site")
    laid_sheet = next(s for s in page.every if len(s.sheet.views) > 1)
    keys = {v.drawing.key for v in laid_sheet.sheet.views}
    page.tools.order.click()
    row = next(i for i in range(page.order.count()) if page.order.item(i).data(256) == laid_sheet.key)  # type: ignore[union-attr]
    item = page.order.item(row)
    assert item is not None
    laid(qtbot, page, lambda: item.setCheckState(Qt.CheckState.Unchecked))
    assert not keys & {v.drawing.key for s in page.sheets for v in s.views}
    # A page of one's own goes as such, and comes back as it was.
    laid(qtbot, page, window.document.undo)
    laid(qtbot, page, page.tools.begin_page)
    laid(qtbot, page, page.tools.put_note)
    mine = next(page.order.item(i) for i in range(page.order.count()) if page.order.item(i).text().startswith("SG1"))  # type: ignore[union-attr]
    assert mine is not None
    laid(qtbot, page, lambda: mine.setCheckState(Qt.CheckState.Unchecked))
    assert "SG1" not in " ".join(numbers(page)) and window.document.job.sheet_set("site").pages
    again = next(page.order.item(i) for i in range(page.order.count()) if page.order.item(i).text().startswith("SG1"))  # type: ignore[union-attr]
    assert again is not None
    laid(qtbot, page, lambda: again.setCheckState(Qt.CheckState.Checked))
    assert any(n.endswith("SG1") for n in numbers(page))


def test_views_are_drawn_with_or_without(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = opened(window, qtbot, "client")

    def items(key: str) -> int:
        return len(page.drawings[key].items)

    def tops(key: str) -> list[Shape]:
        """Fills of worktops."""
        runs = {t.source for t in window.document.room.worktops}
        low = min(t.bottom for t in window.document.room.worktops)
        shapes = [i for i in page.drawings[key].items if isinstance(i, Shape) and i.source in runs]
        return [i for i in shapes if min(y for _, y in i.points) > low - 1.0]

    closed = items("r1:wall A")
    laid(qtbot, page, lambda: page.tools.show_with("joints", True))
    assert items("r1:wall A") > closed
    items_with_dims = items("r1:wall A")
    laid(qtbot, page, lambda: page.tools.show_with("dimensions", False))
    fewer = items("r1:wall A")
    assert fewer < items_with_dims
    assert tops("r1:wall A")
    laid(qtbot, page, lambda: page.tools.show_with("worktops", False))
    assert not tops("r1:wall A")
    page.tools.shows.menu().aboutToShow.emit()  # type: ignore[union-attr]
    usual = page.tools.shows.menu().actions()[-1]  # type: ignore[union-attr]
    laid(qtbot, page, usual.trigger)
    assert items("r1:wall A") == closed


def test_a_view_that_is_gone_is_told_at_its_place_and_among_the_snags(window: Window, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window.document.do(lambda job: add_section(job, "r1", "x"))
    section = window.document.job.room("r1").sections[0]
    page = new_page(window, qtbot, "shop")
    laid(qtbot, page, lambda: page.tools.put_drawing(f"r1:{section.id}"))
    laid(qtbot, page, lambda: window.document.do(lambda job: delete_thing(job, Kind.SECTION.of(section.id))))
    assert "No longer there" in page.view.sheet.views[0].drawing.title  # type: ignore[union-attr]
    assert [s for s in window.document.workings.snags if s.rule == "page"]
    write_plank(window.document.job, tmp_path / "j.plank")
    assert read_plank(tmp_path / "j.plank").sheet_sets == window.document.job.sheet_sets


def test_a_view_beyond_the_frame_is_told(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    page = new_page(window, qtbot)
    laid(qtbot, page, lambda: page.tools.put_drawing("r1:wall A"))
    laid(qtbot, page, lambda: drag(page, 0, 90.0, 0.0))
    assert "runs beyond the frame" in page.told.text()


def test_the_shops_mark_stands_on_every_sheet(window: Window, qtbot, tmp_path: Path, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    image = io.BytesIO()
    Image.new("RGB", (200, 80), "#B07A1E").save(image, "PNG")
    (tmp_path / "mark.png").write_bytes(image.getvalue())
    monkeypatch.setattr(asking, "ask_read", lambda *_: tmp_path / "mark.png")
    window.commands.actions["choose_logo"].trigger()
    page = opened(window, qtbot, "site")
    assert all(s.logo for s in page.sheets)
    assert not page.view.grab().isNull()
    (tmp_path / "mark.png").write_bytes(b"no image")
    window.commands.actions["choose_logo"].trigger()
    assert "no image" in window.message.text.text()
    laid(qtbot, page, window.commands.actions["drop_logo"].trigger)
    assert not any(s.logo for s in page.sheets) and not window.document.job.pictures


def test_pages_are_reached_by_the_menu_and_by_keys(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    actions = window.commands.actions
    page = window.center.sets["client"]
    laid(qtbot, page, actions["set_client"].trigger)
    laid(qtbot, page, actions["new_page"].trigger)
    laid(qtbot, page, lambda: page.tools.put_drawing("r1:P"))
    laid(qtbot, page, actions["page_note"].trigger)
    page.view.setFocus()
    page.view.choose(-1)
    QTest.keyClick(page.view, Qt.Key.Key_Tab)
    assert page.view.chosen == 0
    QTest.keyClick(page.view, Qt.Key.Key_Tab)
    assert page.view.chosen == 1 and page.tools.words.isVisible()
    QTest.keyClick(page.view, Qt.Key.Key_Escape)
    assert page.view.chosen == -1
    before = numbers(page)
    laid(qtbot, page, actions["sheet_later"].trigger)
    assert numbers(page) != before
    QTest.mouseClick(page.view, Qt.MouseButton.LeftButton, pos=QPoint(2, 2))
    assert page.view.chosen == -1
