"""A whole job in the real window: room, runs, widths, finishes, tally, save, open, export."""

from __future__ import annotations

import csv
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from pytestqt.qtbot import QtBot

from desk.conftest import cell, choose, placed, spec, type_into
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.files.plankfile import read_plank
from tall_plank.job import Kind
from tall_plank.workings import Workings


def test_from_empty_room_to_papers(
    empty_window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, qtbot: QtBot
) -> None:
    w = empty_window
    # the room, typed in its spec sheet
    w.show_stage("room")
    type_into(spec(w, "width"), "4.2m")
    type_into(spec(w, "name"), "Galley")
    assert w.bar.room.text() == "Galley"
    w.shelf.list.used.emit("window")
    assert w.document.selection[0].kind is Kind.OPENING
    type_into(spec(w, "width"), "1200")
    # a run, typed as text with the keyboard alone
    QTest.keyClick(w, Qt.Key.Key_2, Qt.KeyboardModifier.AltModifier)
    assert w.stage == "units"
    w.commands.run("type_base")
    QTest.keyClicks(w.run_text.box, "filler 50, drawers 600, sink 900, dishwasher 600, door rest")
    w.run_text.box.setText("filler 50, drawers 600, sink 900, dishwasher 600, pair 900, open rest")
    QTest.keyClick(w.run_text.box, Qt.Key.Key_Return)
    assert not w.run_text.isVisible()
    assert [p.width for p in w.document.room.placed][:5] == [50, 600, 900, 600, 900]
    w.commands.run("type_hung")
    type_into(w.run_text.box, "pair 900, gap 1200, pair 900, door 450")
    # The tally follows as soon as the views have painted.
    qtbot.waitUntil(lambda: not w.tally.figures["price"].text().startswith("0.00"))
    before = w.tally.figures["price"].text()
    # a width on the run line
    w.document.select((Kind.CELL.of(cell(w, "A2")),))
    w.lines.setFocus()
    QTest.keyClicks(w.lines, "5")
    QTest.keyClicks(w.lines.box, "50")
    QTest.keyClick(w.lines.box, Qt.Key.Key_Return)
    assert placed(w, "A2").width == 550
    assert spec(w, "width").text() == "550"
    qtbot.waitUntil(lambda: w.tally.figures["price"].text() != before)
    # a finish for the whole job, and one for one unit
    w.show_stage("finish")
    w.document.select(())
    choose(w, "front", "boat-blue")
    w.document.select((Kind.CELL.of(cell(w, "A2")),))
    w.shelf.used.emit("front:storm-oak")
    made = w.document.workings.made
    assert made.of(cell(w, "A2")).spec.front == "storm-oak"  # type: ignore[union-attr]
    assert made.of(cell(w, "A3")).spec.front == "boat-blue"  # type: ignore[union-attr]
    # save, change, open again
    path = tmp_path / "galley.plank"
    monkeypatch.setattr(asking, "ask_save", lambda *a: path)
    w.commands.run("save")
    assert not w.isWindowModified()
    saved = w.document.job
    w.strip.setFocus()
    w.commands.run("select_all")
    w.commands.run("delete")
    assert w.isWindowModified()
    assert len([p for p in w.document.room.placed if p.is_solid]) == 0
    monkeypatch.setattr(asking, "ask_unsaved", lambda *a: "discard")
    monkeypatch.setattr(asking, "ask_open", lambda *a: path)
    w.commands.run("open")
    assert w.document.job == saved == read_plank(path)
    assert path in w.preferences.recent()
    # export the cut list and compare it with the core
    w.open_schedule("cut-list")
    out = tmp_path / "cut.csv"
    monkeypatch.setattr(asking, "ask_save", lambda *a: out)
    w.commands.run("export_schedule")
    rows = list(csv.DictReader(out.open()))
    assert sum(int(r["qty"]) for r in rows) == Workings(saved).tally.parts


def test_everything_can_be_exported_with_progress(window: Window, qtbot, tmp_path: Path, monkeypatch) -> None:
    folder = tmp_path / "all"
    monkeypatch.setattr(asking, "ask_folder", lambda *a: folder)
    window.commands.run("export_package")
    qtbot.waitUntil(lambda: "files written" in window.message.text.text(), timeout=60_000)
    count = int(window.message.text.text().split()[0])
    files = [p for p in folder.rglob("*") if p.is_file() and not p.name.startswith(".")]
    # A program brings the outlines of its parts along.
    beside = [p for p in files if p.parent.name == "programs" and p.suffix == ".json"]
    assert count == len(files) - len(beside) > 15
    assert window.package_task is not None
    window.package_task.wait()
    assert not window.package_task.busy


def test_a_package_can_be_stopped(window: Window, qtbot, tmp_path: Path, monkeypatch) -> None:
    monkeypatch.setattr(asking, "ask_folder", lambda *a: tmp_path / "some")
    window.commands.run("export_package")
    assert window.package_task is not None
    window.package_task.stop()
    qtbot.waitUntil(lambda: "files written" in window.message.text.text(), timeout=60_000)
    assert int(window.message.text.text().split()[0]) <= 3
    window.package_task.wait()
    assert not window.package_task.busy


def test_drawings_and_model_are_exported(window: Window, tmp_path: Path, monkeypatch) -> None:
    for command, name in (
        ("export_drawing", "a.pdf"),
        ("export_drawing", "a.dxf"),
        ("export_plan", "p.svg"),
        ("export_model", "m.glb"),
    ):
        monkeypatch.setattr(asking, "ask_save", lambda *a, name=name: tmp_path / name)
        window.commands.run(command)
        assert (tmp_path / name).stat().st_size > 1000
    monkeypatch.setattr(asking, "ask_save", lambda *a: tmp_path / "no" / "where.pdf")
    window.commands.run("export_drawing")
    assert "cannot be written" in window.message.text.text()
