"""Files, recovery, closing, preferences, stock files, recent files; the main task by keys alone."""

from __future__ import annotations

import shutil
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from conftest import killed
from desk.conftest import cell, placed, spec
from tall_plank.desk.app import dialogs
from tall_plank.desk.app.application import open_window
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.edits import jobs
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.files.userdata import Autosave
from tall_plank.job import Job, Kind
from tall_plank.job.start import new_job
from tall_plank.stock.library import DATA

LEFT, CTRL = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ControlModifier
NONE = Qt.KeyboardModifier.NoModifier


def test_a_broken_file_leaves_the_job_in_place(window: Window, tmp_path: Path) -> None:
    job = window.document.job
    path = tmp_path / "x.plank"
    path.write_text("rubbish")
    assert not window.open_path(path)
    assert window.document.job is job
    assert "x.plank" in window.message.text.text()
    assert window.message.property("level") == "wrong"


def test_a_second_opening_is_read_only(window: Window, tmp_path: Path, folders, monkeypatch) -> None:
    path = tmp_path / "a.plank"
    write_plank(window.document.job, path)
    assert window.open_path(path)
    other = open_window(new_job(), folders)
    other.model._failed = "left out"
    assert other.open_path(path)
    assert other.document.read_only
    assert "read-only" in other.windowTitle()
    monkeypatch.setattr(asking, "ask_save", lambda *a: tmp_path / "b.plank")
    other.commands.run("save")
    assert (tmp_path / "b.plank").exists()
    assert not other.document.read_only
    monkeypatch.setattr(asking, "ask_save", lambda *a: path)
    other.commands.run("save_as")
    assert "open in another window" in other.message.text.text()
    other.close()


def test_work_is_kept_within_seconds_and_put_away_when_saved(window: Window, qtbot, tmp_path: Path, folders) -> None:
    window._autosave_timer.setInterval(20)
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("delete")
    assert window._autosave_timer.isActive()
    with qtbot.waitSignal(window._autosave_timer.timeout, timeout=3000):
        pass
    kept = list((folders.state / "autosave").glob("*.json"))
    assert len(kept) == 1
    window.document.save(tmp_path / "s.plank")
    assert not list((folders.state / "autosave").glob("*.json"))


def test_autosave_comes_within_five_seconds_of_an_edit(window: Window, qtbot, folders) -> None:
    assert window._autosave_timer.interval() < 5000
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("delete")
    with qtbot.waitSignal(window._autosave_timer.timeout, timeout=5000):
        # later edits do not put the writing off
        for number in ("A3", "A4"):
            window.document.select((Kind.CELL.of(cell(window, number)),))
            window.commands.run("delete")
    assert list((folders.state / "autosave").glob("*.json"))


def test_work_left_behind_is_offered_and_taken_up(window: Window, job: Job, folders) -> None:
    left = Autosave(folders)
    left.keep(job, None)
    killed(left)
    (path,) = (folders.state / "autosave").glob("*.json")
    window.offer_recovery(Autosave.left_behind(folders))
    assert window.message.isVisible()
    from PyQt6.QtWidgets import QPushButton

    buttons = {b.text(): b for b in window.message.findChildren(QPushButton)}
    QTest.mouseClick(buttons["Take it up"], LEFT)
    assert window.document.job == job
    assert window.isWindowModified()
    assert not path.exists()


def test_taking_work_up_asks_for_what_is_open_and_changed(window: Window, job: Job, folders, monkeypatch) -> None:
    from PyQt6.QtWidgets import QPushButton

    other = jobs.set_text(job, "name", "Left behind").job
    left = Autosave(folders)
    left.keep(other, Path("/somewhere/else.plank"))
    killed(left)
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("delete")
    mine = window.document.job
    window.offer_recovery(Autosave.left_behind(folders))
    assert "else.plank" in window.message.text.text() and "kB" in window.message.text.text()
    asked: list[str] = []
    monkeypatch.setattr(asking, "ask_unsaved", lambda *_: asked.append("asked") or "cancel")
    buttons = {b.text(): b for b in window.message.findChildren(QPushButton)}
    QTest.mouseClick(buttons["Take it up"], LEFT)
    # Nothing was replaced, and the work is offered still.
    assert asked and window.document.job == mine
    assert Autosave.left_behind(folders)
    monkeypatch.setattr(asking, "ask_unsaved", lambda *_: "discard")
    buttons = {b.text(): b for b in window.message.findChildren(QPushButton)}
    QTest.mouseClick(buttons["Take it up"], LEFT)
    assert window.document.job == other
    assert Autosave.left_behind(folders) == []


@pytest.mark.parametrize(("answer", "closes"), [("cancel", False), ("discard", True), ("save", True)])
def test_closing_with_unsaved_work_asks(window: Window, monkeypatch, tmp_path: Path, answer: str, closes: bool) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("delete")
    monkeypatch.setattr(asking, "ask_unsaved", lambda *a: answer)
    monkeypatch.setattr(asking, "ask_save", lambda *a: tmp_path / "c.plank")
    assert window.close() is closes
    assert (tmp_path / "c.plank").exists() is (answer == "save")


def test_preferences_are_kept(window: Window) -> None:
    dialog = dialogs.PreferencesDialog(window, window.preferences)
    dialog.display.setCurrentIndex(dialog.display.findData("ft-in"))
    dialog.accept()
    window.document.history.mark_saved()
    window.commands.run("new")
    assert window.document.job.display == "ft-in"
    assert window.stage == "room"


def test_a_defect_in_an_edit_is_one_plain_line_and_changes_nothing(window: Window, caplog) -> None:
    job = window.document.job

    def broken(_: Job):  # type: ignore[no-untyped-def]
        raise ZeroDivisionError("a defect")

    error = window.document.do(broken)
    assert error is not None
    assert window.document.job is job
    assert "Traceback" not in window.message.text.text()
    caplog.clear()


def test_stock_files_are_read_in_one_step_and_a_bad_one_is_named(window: Window, tmp_path: Path, monkeypatch) -> None:
    folder = tmp_path / "stock"
    shutil.copytree(DATA, folder)
    book = folder / "prices" / "quay-2026.toml"
    book.write_text(book.read_text().replace('code = "BP18", price = "24.50"', 'code = "BP18", price = "49.00"'))
    monkeypatch.setattr(asking, "ask_folder", lambda *a: folder)
    before = window.document.workings.price.net
    window.commands.run("read_stock")
    assert window.document.workings.price.net > before
    window.commands.run("undo")
    assert window.document.workings.price.net == before
    job = window.document.job
    (folder / "boards.toml").write_text("board = [{ code = 'X' }]")
    window.commands.run("read_stock")
    assert "boards.toml, board 1 (X)" in window.message.text.text()
    assert window.document.job is job
    finishes = (DATA / "finishes.toml").read_text().replace("sea-sage", "moor-sage")
    (folder / "finishes.toml").write_text(finishes)
    (folder / "boards.toml").write_text((DATA / "boards.toml").read_text().replace("sea-sage", "moor-sage"))
    window.commands.run("read_stock")
    assert "no finish “sea-sage”" in window.message.text.text()
    assert window.document.workings.tally.snags > 0


def test_recent_files_stand_in_their_menu(window: Window, tmp_path: Path) -> None:
    write_plank(new_job("Before"), tmp_path / "before.plank")
    window.preferences.add_recent(tmp_path / "before.plank")
    window.recent.aboutToShow.emit()
    (action,) = window.recent.actions()
    action.trigger()
    assert window.document.job.name == "Before"


def test_the_main_task_goes_with_the_keyboard_alone(empty_window: Window) -> None:
    w = empty_window

    def keys(text: str = "", key: Qt.Key | None = None, modifier: Qt.KeyboardModifier = NONE) -> None:
        at = QApplication.focusWidget() or w
        if text:
            QTest.keyClicks(at, text)
        if key is not None:
            QTest.keyClick(QApplication.focusWidget() or w, key, modifier)

    assert QApplication.focusWidget() is w.strip
    keys(key=Qt.Key.Key_1, modifier=Qt.KeyboardModifier.AltModifier)  # the room
    keys("s")
    for _ in range(2):
        keys(key=Qt.Key.Key_Tab)  # past the name and the use: on to the height, which stands before the width
    while QApplication.focusWidget() is not spec(w, "width"):
        keys(key=Qt.Key.Key_Tab)
    assert QApplication.focusWidget() is spec(w, "width")
    keys("4.2m", Qt.Key.Key_Return)
    assert w.document.room.room.outline.width.mm == 4200
    keys(key=Qt.Key.Key_2, modifier=Qt.KeyboardModifier.AltModifier)  # units
    w.strip.setFocus()
    keys("r")
    keys("filler 50, drawers 600, sink 900, dishwasher 600, door rest", Qt.Key.Key_Return)
    assert QApplication.focusWidget() is w.strip
    assert len(w.document.room.placed) == 5
    keys("..")  # the second unit
    assert w.document.cells == (cell(w, "A2"),)
    keys("w")
    keys("550", Qt.Key.Key_Return)
    assert placed(w, "A2").width == 550
    keys("p")
    keys("pair", Qt.Key.Key_Return)
    assert [p.template for p in w.document.room.runs[0].cells][2] == "pair"
    w.strip.setFocus()
    keys(key=Qt.Key.Key_Delete)
    keys(key=Qt.Key.Key_Z, modifier=CTRL)
    assert len(w.document.room.placed) == 6


def answers(window: Window) -> dict[str, object]:
    from PyQt6.QtWidgets import QPushButton

    return {b.text(): b for b in window.message.findChildren(QPushButton)}


def changed_behind(window: Window, tmp_path: Path) -> tuple[Path, Job, Job]:
    """A job saved, then changed by another program, then changed here."""
    path = tmp_path / "job.plank"
    window.document.save(path)
    theirs = jobs.set_text(window.document.job, "client", "Theirs").job
    write_plank(theirs, path)
    window.document.do(lambda job: jobs.set_text(job, "client", "Mine"))
    return path, theirs, window.document.job


def test_a_file_changed_behind_the_window_is_not_overwritten_unasked(window: Window, tmp_path: Path) -> None:
    path, theirs, mine = changed_behind(window, tmp_path)
    window.commands.run("save")
    assert read_plank(path) == theirs and "another program has changed" in window.message.text.text()
    assert not window.document.history.is_saved
    QTest.mouseClick(answers(window)["Compare"], LEFT)  # type: ignore[arg-type]
    assert "theirs / here" in window.message.text.text()
    QTest.mouseClick(answers(window)["Save beside it"], LEFT)  # type: ignore[arg-type]
    assert read_plank(path) == theirs and read_plank(tmp_path / "job (2).plank") == mine
    assert window.document.path == tmp_path / "job (2).plank" and window.document.history.is_saved


def test_theirs_is_opened_and_what_was_here_is_kept(window: Window, tmp_path: Path) -> None:
    path, theirs, mine = changed_behind(window, tmp_path)
    window.commands.run("save")
    QTest.mouseClick(answers(window)["Open theirs"], LEFT)  # type: ignore[arg-type]
    assert window.document.job == theirs and window.document.path == path
    assert read_plank(tmp_path / "job (2).plank") == mine


def test_theirs_is_overwritten_on_purpose_and_its_bak_kept(window: Window, tmp_path: Path) -> None:
    path, theirs, mine = changed_behind(window, tmp_path)
    window.commands.run("save")
    QTest.mouseClick(answers(window)["Overwrite theirs"], LEFT)  # type: ignore[arg-type]
    assert read_plank(path) == mine and window.document.history.is_saved
    assert read_plank(tmp_path / "job.plank.bak") == theirs
    # From now on it is this one's again.
    window.document.do(lambda job: jobs.set_text(job, "client", "Again"))
    window.commands.run("save")
    assert read_plank(path) == window.document.job


def test_a_file_that_went_away_is_written_anew(window: Window, tmp_path: Path) -> None:
    path = tmp_path / "job.plank"
    window.document.save(path)
    path.unlink()
    window.document.do(lambda job: jobs.set_text(job, "client", "Mine"))
    window.commands.run("save")
    assert read_plank(path) == window.document.job


def test_a_job_without_a_name_takes_that_of_its_file(window: Window, tmp_path: Path, monkeypatch) -> None:
    window.document.history.mark_saved()
    window.commands.run("new")
    monkeypatch.setattr(asking, "ask_save", lambda *_: tmp_path / "Net loft.plank")
    window.commands.run("save")
    assert window.document.job.name == "Net loft" and read_plank(tmp_path / "Net loft.plank").name == "Net loft"
    monkeypatch.setattr(asking, "ask_save", lambda *_: tmp_path / "Copy.plank")
    window.commands.run("save_as")
    assert window.document.job.name == "Net loft"
