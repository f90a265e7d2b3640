"""Long work beside the window: it ends, fails or is stopped, and the message line is free again."""

from __future__ import annotations

import logging
import sys
import threading
from pathlib import Path

import pytest
from PyQt6.QtCore import QThread
from PyQt6.QtTest import QTest

from desk.test_strip import LEFT
from tall_plank import package
from tall_plank.desk.app.application import catch_defects
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.desk.model.tasks import InThread
from tall_plank.measure import PlankError


def test_a_task_ends_with_its_result_in_the_thread_of_the_window(qtbot) -> None:  # type: ignore[no-untyped-def]
    where = []
    task = InThread(lambda tell: (tell("half"), where.append(QThread.currentThread()), 7)[2])
    told: list[object] = []
    task.told.connect(told.append)
    task.ended.connect(lambda _: where.append(QThread.currentThread()))
    with qtbot.waitSignal(task.ended) as ended:
        task.start()
        assert task.busy
    assert ended.args == [7] and told == ["half"] and not task.busy
    assert where[0] is not where[1] and where[1] is QThread.currentThread()


def test_what_goes_wrong_in_a_task_is_a_sentence(qtbot, caplog: pytest.LogCaptureFixture) -> None:  # type: ignore[no-untyped-def]
    def refused(_: object) -> None:
        raise PlankError("There is no room on the disk.", "a.pdf", "Free some.")

    def broken(_: object) -> None:
        raise ZeroDivisionError

    for work, words in ((refused, "There is no room"), (broken, "Something went wrong")):
        task = InThread(work)
        with caplog.at_level(logging.CRITICAL, "tall_plank"), qtbot.waitSignal(task.failed) as failed:
            task.start()
        assert words in failed.args[0] and not task.busy


def test_a_defect_while_the_package_is_written_ends_it(
    window: Window,
    qtbot,  # type: ignore[no-untyped-def]
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
    caplog: pytest.LogCaptureFixture,
) -> None:
    def broken(*_: object) -> None:
        raise ZeroDivisionError

    monkeypatch.setattr(package, "write_package", broken)
    monkeypatch.setattr(asking, "ask_folder", lambda *_: tmp_path)
    with caplog.at_level(logging.CRITICAL, "tall_plank"):
        window.commands.run("export_package")
        qtbot.waitUntil(lambda: "Something went wrong" in window.message.text.text())
    window.message.tell("The next message")
    assert window.message.text.text() == "The next message"


def test_a_question_closed_by_its_cross_leaves_the_line_free(window: Window) -> None:
    asked: list[str] = []
    question = window.message.ask("Take it up?", {"Yes": lambda: asked.append("yes")})
    assert window.message.isVisible()
    window.message.tell("Told while a question is open")
    assert window.message.text.text() == "Take it up?"
    QTest.mouseClick(window.message.close_button, LEFT)
    assert not window.message.isVisible() and asked == []
    window.message.tell("Told afterwards")
    assert window.message.isVisible() and window.message.text.text() == "Told afterwards"
    # Who asked and goes on speaking does not speak over others.
    window.message.go_on(question, "Still asking")
    window.message.answered(question)
    assert window.message.isVisible() and window.message.text.text() == "Told afterwards"


def test_a_defect_in_any_thread_is_told_in_the_thread_of_the_windows(qtbot, caplog, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    monkeypatch.setattr(sys, "excepthook", sys.excepthook)
    monkeypatch.setattr(threading, "excepthook", threading.excepthook)
    defects = catch_defects()
    where = []
    monkeypatch.setattr(type(defects), "tell", lambda self: where.append(QThread.currentThread()))
    defects.found.disconnect()
    defects.found.connect(defects.tell)

    def broken() -> None:
        raise ZeroDivisionError

    with caplog.at_level(logging.CRITICAL, "tall_plank"):
        thread = threading.Thread(target=broken)
        thread.start()
        thread.join()
        assert where == []
        qtbot.waitUntil(lambda: bool(where))
    assert where == [QThread.currentThread()]
