from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.conftest import cell
from tall_plank.desk.app.window import Window
from tall_plank.job import Kind


def test_a_command_is_found_before_the_box_ever_had_the_keys(window: Window) -> None:
    find = window.bar.find_box
    find.setText("cutting no such thing")
    QTest.keyClick(find, Qt.Key.Key_Return)
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    find.setText("duplicate")
    count = len(window.document.job.cells())
    QTest.keyClick(find, Qt.Key.Key_Return)
    assert len(window.document.job.cells()) == count + 1


def test_what_no_longer_applies_is_not_done(window: Window) -> None:
    find = window.bar.find_box
    window.document.select((Kind.CELL.of(cell(window, "A2")),))
    find.setFocus()
    window.document.select(())
    count = len(window.document.job.cells())
    find.setText("duplicate")
    QTest.keyClick(find, Qt.Key.Key_Return)
    assert len(window.document.job.cells()) == count


def found(window: Window, text: str) -> list[str]:
    return [c.name for c in window.bar.find_box.matching(text)]


def test_words_of_the_trade_find_their_command(window: Window) -> None:
    for word, name in (
        ("rotate", "turn_island"), ("dark", "preferences"), ("price", "stage_offer"), ("end panel", "place_panel"),
        ("remove", "delete"), ("recovery", "left_behind"), ("closet", "place_wardrobe"), ("cooktop", "place_hob"),
        ("baseboard", "place_skirting"), ("nesting", "plan_boards"), ("3d", "view_model"), ("offcuts", "rack"),
    ):  # fmt: skip
        assert name in found(window, word), word


def test_every_synonym_belongs_to_a_command(window: Window) -> None:
    from tall_plank.desk.app.synonyms import SYNONYMS

    assert set(SYNONYMS) - set(window.commands.all) == set()


def test_what_does_not_apply_is_shown_grey_with_the_reason(window: Window) -> None:
    find = window.bar.find_box
    window.document.select(())
    find.setFocus()
    model = find.completer().model()
    rows = {model.index(i, 0).data(): model.flags(model.index(i, 0)) for i in range(model.rowCount())}
    (delete,) = [label for label in rows if label.startswith("Delete   (")]
    assert delete.endswith("select a unit first") and not rows[delete] & Qt.ItemFlag.ItemIsEnabled
    (undo,) = [label for label in rows if label.startswith("Undo   (")]
    assert undo.endswith("there is no step to take back")
    # What applies stands first.
    able = [bool(flags & Qt.ItemFlag.ItemIsEnabled) for flags in rows.values()]
    assert able == sorted(able, reverse=True) and any(able) and not all(able)


def test_nothing_found_is_said(window: Window) -> None:
    find = window.bar.find_box
    find.setFocus()
    QTest.keyClicks(find, "hovercraft")
    assert find.none.isVisible() and "hovercraft" in find.none.text()
    QTest.keyClick(find, Qt.Key.Key_Escape)
    assert not find.none.isVisible() and find.text() == ""


def test_menus_do_not_say_place_before_every_line(window: Window) -> None:
    texts = [a.text() for a in window.commands.actions.values()]
    assert not [t for t in texts if t.startswith(("Place:", "Close with:", "Put in:", "All fronts of this style:"))]
    assert window.commands.all["place_door"].title == "Place: Door"
    assert window.commands.all["front_door"].title == "Close with: Door"
