"""The simulated machine in the window: the job's programs run, a bad one is refused with its lines."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.conftest import choose
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.desk.model.document import Document
from tall_plank.edits import cutting


def ran(window: Window, qtbot) -> str:
    qtbot.waitUntil(lambda: "moves" in window.machine.figures.text(), timeout=30_000)
    return window.machine.figures.text()


def show(window: Window) -> None:
    window.lists.chosen["shop"] = "machine"
    window.show_stage("shop")


def test_programs_are_run_and_a_bad_one_is_told_line_by_line(
    window: Window, qtbot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    show(window)
    page = window.machine
    assert ran(window, qtbot).endswith("no faults")
    assert page.choice.count() == len(page._programs) > 5
    name = page.choice.itemData(3)
    page.choice.setCurrentIndex(3)
    page.choice.activated.emit(3)
    assert ran(window, qtbot).startswith(name)
    program = page.program
    assert program is not None
    down = next(line for line in program.text.splitlines() if line.startswith("G1 Z"))
    path = tmp_path / "bad.ngc"
    path.write_text(program.text.replace(down, "G1 Z-9 F900", 1))
    monkeypatch.setattr(asking, "ask_read", lambda *_: path)
    page.figures.setText("")
    QTest.mouseClick(page.open, Qt.MouseButton.LeftButton)
    assert "faults" in ran(window, qtbot)
    line = program.text.splitlines().index(down) + 1
    texts = [page.faults.item(i).text() for i in range(page.faults.count())]  # type: ignore[union-attr]
    assert any(t.startswith(f"line {line}: Z-9.00 goes deeper") for t in texts)
    page.faults.setCurrentRow(0)
    assert page.view.line == page.faults.item(0).data(Qt.ItemDataRole.UserRole)  # type: ignore[union-attr]


def test_boards_for_the_router_are_programs_of_their_own(window: Window, qtbot) -> None:
    doc = window.document
    for key, text in (("kerf", "12"), ("trim", "15")):
        doc.do(lambda job, key=key, text=text: cutting.set_cutting(job, key, text))
    window.open_schedule("boards")
    choose(window, "mode", "router")
    show(window)
    ran(window, qtbot)
    names = [window.machine.choice.itemData(i) for i in range(window.machine.choice.count())]
    assert [n for n in names if n.startswith("board-")] == [
        f"board-{i:02d}" for i in range(1, len(doc.workings.plan.boards) + 1)
    ]


def test_labels_are_printed_and_exported(window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(asking, "ask_folder", lambda *_: tmp_path / "printer")
    window.commands.run("print_labels")
    w = window.document.workings
    parts = sum(len(b.parts) for b in w.plan.boards) + len(w.blank_parts)
    assert len(list((tmp_path / "printer").glob("*.png"))) == parts
    monkeypatch.setattr(asking, "ask_save", lambda *_: tmp_path / "labels.pdf")
    window.commands.run("export_labels")
    assert (tmp_path / "labels.pdf").read_bytes().startswith(b"%PDF")


def test_the_shops_own_machine_is_read_kept_and_given_up(
    window: Window, qtbot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    show(window)
    ran(window, qtbot)
    page, doc = window.machine, window.document
    before = page.program
    assert before is not None
    path = tmp_path / "mine.toml"
    monkeypatch.setattr(asking, "ask_save", lambda *_: path)
    page.write_machine()
    monkeypatch.setattr(asking, "ask_read", lambda *_: path)
    path.write_text(
        path.read_text().replace('"Quay router"', '"Loft router"').replace('ending = "M2"', 'ending = "M30"')
    )
    page.figures.setText("")
    page.read_machine()
    assert doc.workings.router.name == "Loft router"
    assert "Loft router" in window.message.text.text()
    ran(window, qtbot)
    assert page.program is not None and page.program.text.rstrip().endswith("M30") != before.text.rstrip().endswith(
        "M30"
    )
    # Another window starts with it.
    other = Document(doc.job, doc.folders)
    assert other.workings.router == doc.workings.router
    assert other.workings.machine_files.programs[0].text.rstrip().endswith("M30")
    # A step of the job keeps it; so do undo and redo.
    doc.do(lambda job: cutting.set_cutting(job, "kerf", "4"))
    window.commands.run("undo")
    assert doc.workings.router.name == "Loft router"
    # A file that is no machine changes nothing.
    path.write_text("name = 3")
    page.read_machine()
    assert doc.workings.router.name == "Loft router" and "mine.toml" in window.message.text.text()
    # Several machines: the job says which; that undoes, and is saved with it.
    page.machines.setCurrentIndex(page.machines.findData("Quay router"))
    page.machines.activated.emit(page.machines.currentIndex())
    assert doc.job.cutting.machine == "Quay router" == doc.workings.router.name
    assert "Machine Quay router" in doc.workings.machine_files.programs[0].text
    window.commands.run("undo")
    page.refresh()
    assert page.machines.currentText() == "Loft router" == doc.workings.router.name
    # One that was given up is named where it is still asked for.
    doc.do(lambda job: cutting.set_cutting(job, "machine", "Loft router"))
    page.give_up.trigger()
    assert doc.workings.router.name == "Quay router"
    assert any("no machine “Loft router”" in s.what for s in doc.workings.snags)
    page.refresh()
    assert not page.give_up.isEnabled()


def test_a_broken_machine_file_is_told_and_the_shipped_one_used(window: Window, qtbot) -> None:
    folders = window.document.folders
    folders.made().machine.write_text("this is no machine")
    other = Document(window.document.job, folders)
    assert other.workings.router.name == "Quay router" and "machine.toml" in other.machine_fault
    window.document.machine_fault = other.machine_fault
    show(window)
    ran(window, qtbot)
    assert window.machine.faults.item(0).text().startswith("A machine cannot be used")  # type: ignore[union-attr]
