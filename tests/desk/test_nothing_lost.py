"""Nothing is lost: work left behind, folders that cannot be written, full disks, racks in other hands, bad rows."""

from __future__ import annotations

import errno
import os
import sqlite3
from pathlib import Path

from PyQt6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PyQt6.QtGui import QDragEnterEvent, QDropEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QPushButton

from conftest import killed
from desk.conftest import cell
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.edits import jobs
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.files.userdata import Autosave, Preferences, UserFolders
from tall_plank.formats import writing
from tall_plank.job import Job, Kind
from tall_plank.job.start import new_job
from tall_plank.shop.nesting import NestPlan, Request

LEFT = Qt.MouseButton.LeftButton


def answers(window: Window) -> dict[str, QPushButton]:
    return {b.text(): b for b in window.message.findChildren(QPushButton)}


def left_behind(folders: UserFolders, job: Job, *names: str) -> None:
    """Pieces of work whose programs were killed, one after another."""
    for i, name in enumerate(names):
        left = Autosave(folders)
        left.keep(jobs.set_text(job, "name", name).job, Path(f"/somewhere/{name}.plank"))
        os.utime(left._path, (1_700_000_000 + i, 1_700_000_000 + i))
        killed(left)


def test_several_pieces_of_work_stand_in_a_list(window: Window, job: Job, folders: UserFolders) -> None:
    left_behind(folders, job, "First", "Second", "Third")
    window.offer_recovery(Autosave.left_behind(folders))
    assert "3" in window.message.text.text()
    QTest.mouseClick(answers(window)["Show them"], LEFT)
    shown = window.left_list
    rows = [[shown.table.item(i, c).text() for c in range(4)] for i in range(shown.table.rowCount())]
    assert [r[:2] for r in rows] == [[n, f"{n}.plank"] for n in ("Third", "Second", "First")]
    assert all(len(r[2]) == 16 and r[3].endswith("kB") for r in rows)
    # The second is let go, the first taken up by keys; the last waits for the next time.
    QTest.keyClick(shown.table, Qt.Key.Key_Down)
    QTest.mouseClick(shown.drop_button, LEFT)
    assert [r.job.name for r in shown.found] == ["Third", "First"]
    QTest.keyClick(shown.table, Qt.Key.Key_Up)
    QTest.keyClick(shown, Qt.Key.Key_Return)
    assert window.document.job.name == "Third" and not window.document.history.is_saved
    assert not shown.isVisible()
    assert [r.job.name for r in Autosave.left_behind(folders)] == ["First"]


def test_the_list_keeps_what_is_open_where_that_is_not_given_up(
    window: Window, job: Job, folders: UserFolders, monkeypatch
) -> None:
    left_behind(folders, job, "First", "Second")
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("delete")
    mine = window.document.job
    monkeypatch.setattr(asking, "ask_unsaved", lambda *_: "cancel")
    window.commands.run("left_behind")
    QTest.mouseClick(window.left_list.take_button, LEFT)
    assert window.document.job == mine and window.left_list.isVisible()
    assert len(Autosave.left_behind(folders)) == 2
    window.left_list.reject()


def test_the_command_says_where_nothing_was_left(window: Window) -> None:
    window.commands.run("left_behind")
    assert "No work was left behind" in window.message.text.text()


def test_broken_files_of_the_program_are_told_one_by_one_and_block_nothing(
    window: Window, job: Job, folders: UserFolders
) -> None:
    (folders.config / "preferences.json").write_text('{"recent": [')
    (folders.state / "autosave" / "x.json").write_bytes(b'{"file": 5}\n{}')
    left_behind(folders, job, "Whole")
    notes = [*folders.faults(), *Preferences(folders).told]
    found = Autosave.left_behind(folders, notes)
    window.tell_at_start(notes, found)
    told = window.message.text.text()
    assert "preferences.json.broken" in told and "x.json.broken" in told
    QTest.mouseClick(answers(window)["I know"], LEFT)
    assert "Whole" in window.message.text.text()
    QTest.mouseClick(answers(window)["Take it up"], LEFT)
    assert window.document.job.name == "Whole"


def test_a_home_that_cannot_be_written_is_told_and_the_work_goes_on(window: Window, tmp_path: Path) -> None:
    (tmp_path / "a file").write_text("")
    nowhere = UserFolders(tmp_path / "a file" / "c", tmp_path / "a file" / "s", tmp_path / "a file" / "d")
    faults = nowhere.faults()
    assert len(faults) == 3 and "preferences" in faults[0] and "not saved" in faults[1] and "rack" in faults[2]
    preferences = Preferences(nowhere)
    preferences.set("look", "dark")
    assert preferences.get("look", "light") == "dark" and preferences.recent() == []
    assert Autosave.left_behind(nowhere) == []
    window.autosave = Autosave(nowhere)
    window.document.do(lambda j: jobs.set_text(j, "client", "Anybody"))
    assert window.keep_autosave() is False
    assert "cannot be kept safe" in window.message.text.text()
    assert window.document.job.client == "Anybody"


def test_a_recent_file_in_a_folder_that_one_may_not_enter_stops_nothing(window: Window, tmp_path: Path) -> None:
    write_plank(new_job("Other"), tmp_path / "other.plank")
    window.preferences.set("recent", ["/" + "x" * 5000, "a\0b", 5, str(tmp_path / "other.plank")])
    assert window.open_path(tmp_path / "other.plank")
    assert [p.name for p in window.preferences.recent()] == ["other.plank"]


def test_a_full_disk_keeps_the_old_file_and_the_work(window: Window, tmp_path: Path, monkeypatch) -> None:
    path = tmp_path / "job.plank"
    window.document.save(path)
    before = path.read_bytes()
    window.document.do(lambda j: jobs.set_text(j, "client", "Anybody"))

    def full(_: int) -> None:
        raise OSError(errno.ENOSPC, os.strerror(errno.ENOSPC))

    monkeypatch.setattr(writing.os, "fsync", full)
    window.commands.run("save")
    assert "No space left" in window.message.text.text()
    assert path.read_bytes() == before and [p.name for p in tmp_path.iterdir() if p.suffix == ".part"] == []
    assert window.document.job.client == "Anybody" and not window.document.history.is_saved
    monkeypatch.undo()
    window.commands.run("save")
    assert read_plank(path).client == "Anybody"


def test_a_folder_that_cannot_be_written_is_told_and_another_one_taken(
    window: Window, tmp_path: Path, monkeypatch
) -> None:
    monkeypatch.setattr(asking, "ask_save", lambda *_: Path("/proc/job.plank"))
    window.commands.run("save")
    assert "cannot be written" in window.message.text.text() and window.document.path is None
    monkeypatch.setattr(asking, "ask_save", lambda *_: tmp_path / "job.plank")
    window.commands.run("save")
    assert read_plank(tmp_path / "job.plank") == window.document.job


def test_a_file_that_was_moved_away_is_written_anew_and_that_is_told(window: Window, tmp_path: Path) -> None:
    path = tmp_path / "job.plank"
    window.document.save(path)
    path.rename(tmp_path / "moved.plank")
    window.document.do(lambda j: jobs.set_text(j, "client", "Anybody"))
    window.commands.run("save")
    assert "written there anew" in window.message.text.text()
    assert read_plank(path).client == "Anybody" and read_plank(tmp_path / "moved.plank").client == ""
    window.commands.run("save")
    assert "anew" not in window.message.text.text()


def test_a_folder_that_went_away_is_told_and_the_work_stays(window: Window, tmp_path: Path) -> None:
    folder = tmp_path / "stick"
    folder.mkdir()
    window.document.save(folder / "job.plank")
    for path in folder.iterdir():
        path.unlink()
    folder.rmdir()
    window.document.do(lambda j: jobs.set_text(j, "client", "Anybody"))
    window.commands.run("save")
    assert "cannot be written" in window.message.text.text()
    assert not window.document.history.is_saved and window.document.job.client == "Anybody"


def test_a_rack_in_other_hands_is_told_and_free_again_later(window: Window) -> None:
    rack = window.plans.rack
    assert rack.wait <= 0.25, "the window waits for nobody"
    rack.add("BP18", 800.0, 400.0)
    other = sqlite3.connect(rack.path, isolation_level=None)
    other.execute("BEGIN EXCLUSIVE")
    window.commands.run("rack")
    assert "Another program works on the offcut rack" in window.rack.fault.text()
    other.execute("ROLLBACK")
    other.close()
    window.rack.refresh()
    assert [p.length for p in rack.pieces()] == [800.0]


def test_good_rows_of_a_list_are_taken_where_some_are_bad(window: Window, tmp_path: Path, monkeypatch) -> None:
    window.commands.run("stock")
    page = window.stock_page
    assert page is not None
    path = tmp_path / "list.csv"
    rows = ["code,name,kind,length_mm,price", "K1,Net knob,handle,31,3", "K2,Dear,handle,31,nan", "K3,Rope,handle,40,5"]
    path.write_text("\n".join([*rows, "K1,Twice,handle,30,2", "K4,What,gizmo,30,2"]) + "\n")
    monkeypatch.setattr(asking, "ask_read", lambda *_: path)
    before = window.document.job
    QTest.mouseClick(page.read, LEFT)
    told = page.error.text()
    assert "3 rows cannot be taken" in told and all(f"row {n}" in told for n in (3, 5, 6))
    assert window.document.job is before and page.others.text() == "&Take the other 2 rows"
    assert page.focusWidget() is page.others
    QTest.keyClick(page.others, Qt.Key.Key_Space)
    assert {f.code for f in window.document.job.stock.fittings} >= {"K1", "K3"}
    assert not page.others.isVisible() and page.error.text() == ""
    assert len(window.document.history.names) == 1
    # The next list is another matter: nothing of the last one waits any more.
    path.write_text("code,name,kind,length_mm,price\nK2,Dear,handle,31,nan\n")
    QTest.mouseClick(page.read, LEFT)
    assert "row 2" in page.error.text() and not page.others.isVisible()


class Deaf:
    """A process that takes what is sent and never answers, as one that is still being got ready."""

    def write(self, data: bytes) -> int:
        return len(data)


def test_stop_is_answered_while_the_search_cannot_listen(window: Window, qtbot) -> None:
    planner = window.plans.planner
    planner._process = Deaf()  # type: ignore[assignment]
    planner.ask(Request((), ()))
    with qtbot.waitSignal(planner.failed, timeout=20_000):
        planner.stop()
    assert not planner.busy
    planner.ask(Request((), ()))
    planner._tell(NestPlan((), (), bound=7), last=False)
    with qtbot.waitSignal(planner.ended, timeout=20_000) as told:
        planner.stop()
    assert told.args[0].bound == 7 and told.args[0].done is False
    # What it says after all is nobody's.
    planner._tell(NestPlan((), (), bound=9), last=False)
    assert not planner.busy
    planner._process = None


def dropped(window: Window, widget, *paths: Path) -> Qt.DropAction:  # type: ignore[no-untyped-def]
    """Files dragged over a widget and dropped there; what becomes of them at their source."""
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(p)) for p in paths])
    actions = Qt.DropAction.CopyAction | Qt.DropAction.MoveAction
    enter = QDragEnterEvent(QPoint(3, 3), actions, data, LEFT, Qt.KeyboardModifier.NoModifier)
    enter.setDropAction(Qt.DropAction.MoveAction)
    QApplication.sendEvent(widget, enter)
    assert enter.isAccepted()
    drop = QDropEvent(QPointF(3, 3), actions, data, LEFT, Qt.KeyboardModifier.NoModifier)
    drop.setDropAction(Qt.DropAction.MoveAction)
    QApplication.sendEvent(window, drop)
    return drop.dropAction()


def test_a_file_dropped_anywhere_is_opened_and_never_moved(window: Window, tmp_path: Path) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    places = [window, window.strip, window.shelf.search, window.shelf, window.tally]
    for i, widget in enumerate(places):
        path = tmp_path / f"{i}.plank"
        write_plank(new_job(f"Job {i}"), path)
        window.document.history.mark_saved()
        assert dropped(window, widget, path) == Qt.DropAction.CopyAction
        assert window.document.job.name == f"Job {i}" and path.exists()
    (tmp_path / "x.txt").write_text("no job")
    dropped(window, window, tmp_path / "x.txt")
    assert "x.txt: this is no job" in window.message.text.text()
