"""The spec sheet: own and inherited values, many at once, what is wrong at its line."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.conftest import cell, choose, placed, spec, type_into
from tall_plank.desk.app.window import Window
from tall_plank.job import Kind

LEFT = Qt.MouseButton.LeftButton


def test_own_values_are_boxed_and_given_back_with_a_click(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    assert spec(window, "height").property("origin") == "inherited"
    assert "base_height" in spec(window, "height").toolTip()
    type_into(spec(window, "height"), "700")
    line = window.spec.line("height")
    assert line.value.property("origin") == "own"
    assert line.revert.isVisible()
    QTest.mouseClick(line.revert, LEFT)
    assert spec(window, "height").property("origin") == "inherited"
    assert spec(window, "height").text() == "730"


def test_many_selected_show_various_and_are_set_together(window: Window) -> None:
    window.commands.run("select_base")
    assert spec(window, "width").text() == "various"
    assert spec(window, "height").text() == "730"
    type_into(spec(window, "height"), "720")
    assert {p.height for p in window.document.room.runs[0].cells} == {720}
    type_into(spec(window, "width"), "450")
    assert "A1" in window.message.text.text()  # the filler is skipped, and said


def test_leaving_a_various_value_changes_nothing(window: Window) -> None:
    window.commands.run("select_base")
    job = window.document.job
    spec(window, "width").setFocus()
    assert spec(window, "width").text() == ""
    spec(window, "depth").setFocus()
    assert spec(window, "width").text() == "various"
    assert window.document.job is job


def test_a_wrong_value_is_named_at_its_line(window: Window) -> None:
    job = window.document.job
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    for key, text in (("height", "tall"), ("depth", "1"), ("drawers", "many"), ("bay1", "-5")):
        type_into(spec(window, key), text)
        line = window.spec.line(key)
        assert line.error.isVisible(), key
        assert line.value.property("wrong"), key
        QTest.keyClick(line.value, Qt.Key.Key_Escape)
        assert not line.error.isVisible()
    assert window.document.job is job


def test_choices_are_picked_from_their_menu(window: Window) -> None:
    window.document.select((Kind.CELL.of(cell(window, "A5")),))
    choose(window, "hand", "right")
    choose(window, "front_style", "framed")
    choose(window, "handle", "none")
    unit = window.document.workings.made.of(cell(window, "A5"))
    assert unit.fronts[0].hand == "right"  # type: ignore[union-attr]
    assert unit.fronts[0].style == "framed"  # type: ignore[union-attr]
    assert unit.fronts[0].handle is None  # type: ignore[union-attr]
    choose(window, "kind", "drawers")
    assert placed(window, "A5").template == "drawers"


def test_named_values_are_set_and_added_in_the_room_stage(window: Window) -> None:
    window.show_stage("room")
    window.document.select(())
    type_into(spec(window, "value_plinth"), "150")
    assert placed(window, "A2").bottom == 150
    type_into(spec(window, "value_new"), "eye_line = 1500")
    assert window.document.job.value("eye_line") == 1500
    for text in ("1500", "mm = 3", "a = a", "plinth2 = zzz"):
        type_into(spec(window, "value_new"), text)
        assert window.spec.line("value_new").error.isVisible(), text
    type_into(spec(window, "value_plinth"), "hung_bottom")
    assert "circle" in window.spec.line("value_plinth").error.text()


def test_the_saw_and_the_price_are_edited_in_their_stages(window: Window) -> None:
    window.open_schedule("boards")
    type_into(spec(window, "kerf"), "4")
    assert window.document.job.cutting.kerf == 4.0
    assert window.document.workings.plan.kerf == 4.0
    type_into(spec(window, "kerf"), "wide")
    assert window.spec.line("kerf").error.isVisible()
    type_into(spec(window, "seconds"), "0")
    assert "out of range" in window.spec.line("seconds").error.text()
    choose(window, "turns", "3")
    assert window.document.job.cutting.turns == 3
    window.show_stage("offer")
    before = window.document.workings.price.net
    type_into(spec(window, "margin"), "30")
    assert window.document.workings.price.net > before
    type_into(spec(window, "margin"), "110")
    assert window.spec.line("margin").error.isVisible()


def test_a_named_value_is_taken_away_by_emptying_it(window: Window) -> None:
    window.show_stage("room")
    type_into(spec(window, "value_new"), "eye_line = 1500")
    box = spec(window, "value_eye_line")
    box.setFocus()
    box.selectAll()
    QTest.keyClick(box, Qt.Key.Key_Delete)
    QTest.keyClick(box, Qt.Key.Key_Return)
    assert "eye_line" not in window.document.job.named_values()
    box = spec(window, "value_plinth")
    box.setFocus()
    box.selectAll()
    QTest.keyClick(box, Qt.Key.Key_Delete)
    QTest.keyClick(box, Qt.Key.Key_Return)
    assert "used by" in window.spec.line("value_plinth").error.text()


def test_a_refused_text_never_reaches_what_undo_brings_back(window: Window) -> None:
    """It was applied when its box was taken away, as a step of its own after the undo, and the sheet broke."""
    doc = window.document
    doc.select((Kind.CELL.of(cell(window, "A5")),))
    doc.select_bay(())
    type_into(spec(window, "bay_shelves"), "0")
    choose(window, "front", "drawer")
    window.show()
    box = spec(window, "bay_shelves")
    box.setFocus()
    QTest.keyClicks(box, "2")
    QTest.keyClick(box, Qt.Key.Key_Return)
    assert window.spec.line("bay_shelves").error.isVisible()
    steps = len(doc.history.names)
    window.commands.run("undo")
    made = doc.workings.made.of(doc.cells[0])
    assert made is not None and [f.kind for f in made.fronts] == ["door"]
    assert spec(window, "bay_shelves").text() == "0" and spec(window, "front").text() == "door"
    assert len(doc.history.names) == steps - 1 and doc.history.redo_name


def test_what_cannot_be_put_together_is_refused_where_it_is_chosen_and_mended(window: Window) -> None:
    """A drawer is chosen for a bay with a shelf: told, nothing changes; the shelf taken out, it goes in and on paper."""
    doc = window.document
    a5 = cell(window, "A5")  # a door with a shelf
    doc.select((Kind.CELL.of(a5),))
    doc.select_bay(())
    before, steps = doc.job, len(doc.history.names)
    choose(window, "front", "drawer")
    assert doc.job is before and len(doc.history.names) == steps
    line = window.spec.line("front")
    assert line.error.isVisible() and "A drawer takes all the room of a bay" in line.error.text()
    assert "Take that out first" in line.error.text() and spec(window, "front").text() == "door"
    type_into(spec(window, "bay_shelves"), "0")
    choose(window, "front", "drawer")
    made = doc.workings.made.of(a5)
    assert made is not None and not made.problems and len(made.drawers) == 1
    assert any(n.startswith("A5.") for row in doc.workings.cut_rows for n in row.numbers)
    # Now a shelf is refused in its turn, at its own line.
    type_into(spec(window, "bay_shelves"), "2")
    assert "takes all the room of this bay" in window.spec.line("bay_shelves").error.text()
    window.commands.run("undo")
    assert doc.workings.made.of(a5).drawers == ()  # type: ignore[union-attr]


@pytest.mark.parametrize(("keys", "columns"), [("", 2), ("2", 2), ("3", 3)])
def test_what_a_box_offers_is_taken_by_enter(window: Window, keys: str, columns: int) -> None:
    """A bay split by dividers: the box offers 2; Enter on it, or on a 2 that was typed, did nothing."""
    doc = window.document
    unit = cell(window, "A5")
    doc.select((Kind.CELL.of(unit),))
    doc.select_bay(())
    type_into(spec(window, "bay_shelves"), "0")
    window.commands.run("split_divider")
    assert window.strip.box.text() == "2" and window.strip.box.selectedText() == "2"
    QTest.keyClicks(window.strip.box, keys)
    QTest.keyClick(window.strip.box, Qt.Key.Key_Return)
    assert len(doc.job.unit(doc.job.find_cell(unit)[2].unit).bay.children) == columns
    assert not window.strip.box.isVisible()
    window.commands.run("undo")
    # Emptied, it gives up.
    window.commands.run("split_divider")
    window.strip.box.clear()
    QTest.keyClick(window.strip.box, Qt.Key.Key_Return)
    assert doc.job.unit(doc.job.find_cell(unit)[2].unit).bay.children == ()


def test_a_run_of_tall_units_is_called_so_and_named_values_are_in_plain_words(empty_window: Window) -> None:
    from tall_plank.edits import runs, runtext
    from tall_plank.job import Level

    doc = empty_window.document
    for wall, text, called in (("A", "wardrobe 900, wardrobe 900", "Tall run"), ("B", "drawers 600", "Base run")):
        change = runs.add_run(doc.job, "r1", wall, Level.BASE)
        doc.do(lambda _, c=change, t=text: runtext.type_run(c.job, c.made[0], t))
        doc.select((Kind.RUN.of(change.made[0]),))
        assert empty_window.spec.title.text() == called
        doc.select((Kind.CELL.of(doc.job.find_run(change.made[0])[1].cells[0].id),))
        assert called.lower() in empty_window.spec.subtitle.text()
    doc.select(())
    row = spec(empty_window, "value_base_height").line
    assert (
        row.label.text() == "Base height · base_height"
        and "base_height" in row.toolTip() + row.value.toolTip() + row.label.toolTip()
    )
