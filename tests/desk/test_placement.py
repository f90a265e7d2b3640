"""Where a window stood and what was worked on is taken up again, by screen; nonsense is left aside."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QPushButton, QWidget

from desk.conftest import move
from tall_plank.desk.app.placement import keep_place, last_stage, offer_last, screen_of, take_place
from tall_plank.desk.app.window import Window
from tall_plank.files.userdata import Preferences, UserFolders

LEFT = Qt.MouseButton.LeftButton


def test_size_place_and_stage_are_taken_up(window: Window, folders: UserFolders, monkeypatch) -> None:
    window.setGeometry(40, 30, 1040, 720)
    window.show_stage("finish")
    kept = bytes(window.saveGeometry().data())
    keep_place(window)
    window.setGeometry(0, 0, 1280, 800)
    window.show_stage("units")
    window.preferences = Preferences(folders)
    taken: list[bytes] = []
    # The screen of a test is smaller than the window, which would be fitted into it.
    monkeypatch.setattr(window, "restoreGeometry", lambda geometry: taken.append(bytes(geometry.data())))
    take_place(window)
    assert taken == [kept]
    assert last_stage(window) == "finish"


@pytest.mark.parametrize("kept", [5, "not base64!", "AAAA", None, [], "=" * 5000])
def test_a_place_that_makes_no_sense_is_left_aside(window: Window, kept: object) -> None:
    before = window.geometry()
    window.preferences.set("windows", {screen_of(window): kept})
    take_place(window)
    assert window.geometry() == before
    window.preferences.set("stage", "moon")
    assert last_stage(window) == "units"


def test_screens_have_places_of_their_own_and_old_ones_go(window: Window) -> None:
    window.preferences.set("windows", {f"Screen {i} 1920 x 1080": "x" for i in range(40)})
    keep_place(window)
    kept = window.preferences.get("windows", {})
    assert screen_of(window) in kept and len(kept) <= 13 and "Screen 39 1920 x 1080" in kept


def test_the_last_job_is_offered_and_opened_in_its_stage(window: Window, tmp_path: Path) -> None:
    path = tmp_path / "quay.plank"
    window.document.save(path)
    window.preferences.add_recent(path)
    window.show_stage("shop")
    keep_place(window)
    job = window.document.job
    window.commands.run("new")
    offer_last(window)
    assert "quay.plank" in window.message.text.text()
    buttons = {b.text(): b for b in window.message.findChildren(QPushButton)}
    QTest.mouseClick(buttons["Open it"], LEFT)
    assert window.document.job == job and window.stage == "shop"
    # One that is gone is not offered.
    window.message.close_message()
    path.unlink()
    offer_last(window)
    assert not window.message.isVisible()


def test_the_window_works_at_1000_by_700(window: Window) -> None:
    window.resize(1000, 700)
    for code in ("plans", "together", "rack", "machine", "bars", "by_unit", "cut_list"):
        window.open_schedule(code)
        QTest.qWait(0)
        assert window.width() == 1000, code
        page = window.center.currentWidget()
        for button in page.findChildren(QPushButton):
            if button.isVisible():
                right = button.mapTo(page, button.rect().bottomRight())
                assert page.rect().contains(right), f"{code}: {button.text()}"


# --- panes


def divider(window: Window, i: int):  # type: ignore[no-untyped-def]
    handle = window.middle.handle(i)
    assert handle is not None
    return handle


def pull(handle: QWidget, by: int) -> None:
    """Drag a line between panes; the pointer's way is that of the screen, since the line itself moves."""
    start = handle.mapToGlobal(handle.rect().center())
    QTest.mousePress(handle, LEFT, Qt.KeyboardModifier.NoModifier, handle.rect().center())
    for i in range(1, 9):
        at = start + QPoint(by * i // 8, 0)
        move(handle, handle.mapFromGlobal(at))
    QTest.mouseRelease(handle, LEFT, Qt.KeyboardModifier.NoModifier, handle.mapFromGlobal(start + QPoint(by, 0)))


def test_panes_are_resized_by_dragging_the_line_between_them(window: Window) -> None:
    before = window.spec.width()
    pull(divider(window, 2), -80)
    assert window.spec.width() == pytest.approx(before + 80, abs=8)
    shelf = window.left.width()
    pull(divider(window, 1), 60)
    assert window.left.width() == pytest.approx(shelf + 60, abs=8)
    # Far to the side it closes.
    pull(divider(window, 1), -600)
    assert not window.middle.is_open(window.left)
    assert window.middle.handleWidth() >= 7


def test_a_pane_is_closed_and_opened_by_a_double_click_and_by_a_key_as_wide_as_it_was(window: Window) -> None:
    handle = divider(window, 2)
    wide = window.spec.width()
    QTest.mouseDClick(handle, LEFT, Qt.KeyboardModifier.NoModifier, handle.rect().center())
    assert not window.middle.is_open(window.spec)
    assert window.center.width() > 1000
    assert not window.commands.actions["pane_sheet"].isChecked()
    QTest.mouseDClick(handle, LEFT, Qt.KeyboardModifier.NoModifier, handle.rect().center())
    assert window.spec.width() == pytest.approx(wide, abs=2)
    window.commands.run("pane_shelf")
    assert not window.middle.is_open(window.left)
    # Whoever asks for what is closed gets it.
    window.commands.run("go_shelf")
    assert window.middle.is_open(window.left) and window.shelf.search.hasFocus()
    window.commands.run("pane_sheet")
    window.commands.run("go_spec")
    assert window.middle.is_open(window.spec)


def test_a_closed_pane_keeps_no_keys(window: Window) -> None:
    window.shelf.search.setFocus()
    window.commands.run("pane_shelf")
    assert not window.shelf.search.hasFocus() and window.center.isAncestorOf(window.focusWidget())


def test_the_model_closed_by_hand_comes_when_it_is_asked_for(window: Window) -> None:
    lower = window.center.lower_panes
    lower.open_pane(window.model, False)
    assert not lower.is_open(window.model) and lower.is_open(window.plan)
    window.show_view("model")
    assert lower.is_open(window.model)
    window.show_view("all")
    assert lower.is_open(window.plan)


def test_panes_are_sized_by_commands(window: Window) -> None:
    wide = window.spec.width()
    window.commands.run("sheet_wider")
    assert window.spec.width() > wide
    for _ in range(20):
        window.commands.run("sheet_narrower")
    assert window.middle.is_open(window.spec) and window.spec.width() >= window.spec.minimumWidth()
    high = window.center.top_pane.height()
    window.commands.run("strip_higher")
    assert window.center.top_pane.height() > high


def test_how_the_space_is_shared_is_taken_up_by_screen(window: Window, folders: UserFolders, monkeypatch) -> None:
    monkeypatch.setattr(window, "restoreGeometry", lambda geometry: None)
    window.commands.run("sheet_wider")
    window.commands.run("pane_shelf")
    sizes = window.middle.sizes()
    keep_place(window)
    window.commands.run("pane_shelf")
    window.commands.run("sheet_narrower")
    assert window.middle.sizes() != sizes
    window.preferences = Preferences(folders)
    take_place(window)
    assert window.middle.sizes() == sizes


@pytest.mark.parametrize("kept", [5, {"window": "AAAA"}, {"window": "!"}, {"window": 3, "design": []}, None, "x"])
def test_a_share_that_makes_no_sense_is_left_aside(window: Window, kept: object) -> None:
    before = window.middle.sizes()
    window.preferences.set("panes", {screen_of(window): kept})
    take_place(window)
    assert window.middle.sizes() == before
    window.preferences.set("panes", kept)
    take_place(window)
    assert window.middle.sizes() == before
