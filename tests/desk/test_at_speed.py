"""Working at speed in the real window: by keys and menus, kept units, mirrored runs, worktops by typing."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.conftest import cell, choose, pick, placed, spec, strip_point, type_into
from tall_plank.desk.app.window import Window
from tall_plank.edits import runs
from tall_plank.edits.things.opening import add_opening
from tall_plank.files.library import kept
from tall_plank.job import Job, Kind

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier
CTRL = Qt.KeyboardModifier.ControlModifier


def test_a_unit_is_centred_moved_repeated_and_labelled_by_keys(window: Window) -> None:
    w = window
    w.document.do(lambda job: add_opening(job, "r1", "A", "window", 1000.0))
    pick(w, Kind.CELL.of(cell(w, "A3")))
    w.strip.setFocus()
    QTest.keyClick(w.strip, Qt.Key.Key_C)
    assert placed(w, "A3").x + 450 == pytest.approx(1500)
    QTest.keyClick(w.strip, Qt.Key.Key_U, Qt.KeyboardModifier.ShiftModifier)
    assert placed(w, "A3").x == 650
    pick(w, Kind.CELL.of(cell(w, "A8")))
    w.strip.setFocus()
    QTest.keyClick(w.strip, Qt.Key.Key_B)
    QTest.keyClicks(w.strip.box, "-100")
    QTest.keyClick(w.strip.box, Qt.Key.Key_Return)
    assert placed(w, "A8").x - placed(w, "A7").right == pytest.approx(800)
    pick(w, Kind.CELL.of(cell(w, "A2")))
    w.commands.run("repeat")
    type_into(w.strip.box, "x")
    assert w.strip.box.isVisible()
    type_into(w.strip.box, "2 @ 650")
    assert len([p for p in w.document.room.placed if p.template == "drawers"]) == 3
    w.commands.run("label")
    type_into(w.run_text.box, "B{width}")
    texts = {item.text for item in w.strip.placed[0].drawing.items if hasattr(item, "text")}
    assert "B600" in texts


def test_group_lock_hide_and_link_through_the_menus(window: Window) -> None:
    w = window
    two = (Kind.CELL.of(cell(w, "A2")), Kind.CELL.of(cell(w, "A5")))
    w.document.select(two)
    w.commands.run("group")
    w.document.select(())
    QTest.mouseClick(w.strip, LEFT, NONE, strip_point(w, "A2"))
    assert set(w.document.selection) == set(two)
    w.commands.run("ungroup")
    w.commands.run("lock")
    w.commands.run("delete")
    assert "locked" in w.message.text.text()
    w.commands.run("lock")
    w.commands.run("hide")
    sources = {item.source for item in w.strip.placed[0].drawing.items if hasattr(item, "source")}
    assert two[0] not in sources
    assert w.document.workings.tally.parts > 0
    w.commands.run("show_all")
    w.document.select((two[1], Kind.CELL.of(cell(w, "A6"))))
    w.commands.run("link")
    assert placed(w, "A6").template == "door"
    w.commands.run("unlink")


def test_units_are_kept_in_the_library_and_placed_from_the_shelf(window: Window) -> None:
    w = window
    w.document.select((Kind.CELL.of(cell(w, "A2")),))
    w.commands.run("keep")
    w.run_text.box.clear()
    QTest.keyClick(w.run_text.box, Qt.Key.Key_Return)
    assert "needs a name" in w.run_text.note.text()
    type_into(w.run_text.box, "Harrow drawers")
    codes = [w.shelf.list.item(i).data(Qt.ItemDataRole.UserRole) for i in range(w.shelf.list.count())]
    assert "saved:Harrow drawers.json" in codes
    pick(w, Kind.WALL.of("C"))
    w.shelf.list.used.emit("saved:Harrow drawers.json")
    assert [p.template for p in w.document.room.placed if p.wall_id == "C"] == ["drawers"]
    w.commands.run("forget")
    type_into(w.run_text.box, "Harrow drawers")
    codes = [w.shelf.list.item(i).data(Qt.ItemDataRole.UserRole) for i in range(w.shelf.list.count())]
    assert "saved:Harrow drawers.json" not in codes


def test_a_whole_run_is_mirrored_and_undone(window: Window) -> None:
    before: Job = window.document.job
    pick(window, Kind.CELL.of(cell(window, "A2")))
    window.commands.run("mirror_run")
    assert [p.number for p in window.document.room.runs[0].cells] == ["A6", "A5", "A4", "A3", "A2", "A1"]
    window.commands.run("undo")
    assert window.document.job == before


def test_a_corner_kitchen_by_text_and_its_worktop_by_typing(empty_window: Window) -> None:
    w = empty_window
    w.commands.run("type_base")
    type_into(w.run_text.box, "drawers 600, sink 900, dishwasher 600, door rest, corner 950")
    pick(w, Kind.WALL.of("B"))
    w.commands.run("type_base")
    type_into(w.run_text.box, "drawers 600, pair rest")
    assert placed(w, "B1").x == 900
    run = w.document.room.runs[0].run.id
    pick(w, Kind.RUN.of(run))
    choose(w, "joint", "mitre")
    assert any(t.joints[0] == "mitre" for t in w.document.room.worktops)
    type_into(spec(w, "overhang_front"), "45")
    assert w.document.room.worktops[0].depth == 560 + 19 + 45
    type_into(spec(w, "overhang_front"), "wide")
    assert w.spec.line("overhang_front").error.text()
    w.spec.line("overhang_front").revert.click()
    assert w.document.room.worktops[0].depth == 599
    choose(w, "feet", "legs")
    assert not [p for p in w.document.room.plinths if p.wall_id == "A"]


def test_what_is_kept_is_what_was_selected_when_its_name_was_asked_for(window: Window) -> None:
    doc = window.document
    doc.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("keep")
    doc.select(())
    type_into(window.run_text.box, "Quay drawers")
    assert not window.run_text.isVisible()
    (saved,) = kept(doc.folders)[0]
    assert (saved.saved.name, len(saved.saved.runs[0].units)) == ("Quay drawers", 1)
    # What is gone by then is told in the line.
    doc.select((Kind.CELL.of(cell(window, "A2")),))
    window.commands.run("keep")
    doc.do(lambda job: runs.delete_cells(job, doc.cells))
    type_into(window.run_text.box, "Lost")
    assert "no longer there" in window.run_text.note.text()
