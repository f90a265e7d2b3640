"""Where a window stood and what was worked on is taken up again, by screen; nonsense is left aside."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QPushButton

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
