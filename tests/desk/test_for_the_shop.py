"""One switch turns the drawings on screen and on paper from the client's to the shop's."""

from __future__ import annotations

from pathlib import Path

import pymupdf
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.conftest import cell
from tall_plank.desk.app.onscreen import shown_now
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.drawing.primitives import Layer
from tall_plank.drawing.shopmarks import NOTE
from tall_plank.job import Kind


def marks(window: Window) -> tuple[int, int]:
    """Marks for the shop on the strip and on the plan."""
    return tuple(
        sum(getattr(i, "layer", None) is Layer.MAKING for placed in view.placed for i in placed.drawing.items)
        for view in (window.strip, window.plan)
    )  # type: ignore[return-value]


def test_one_key_turns_every_drawing_and_back(window: Window) -> None:
    assert marks(window) == (0, 0)
    window.strip.setFocus()
    QTest.keyClick(window.strip, Qt.Key.Key_Z, Qt.KeyboardModifier.ShiftModifier)
    strip, plan = marks(window)
    assert strip > 50
    assert plan > 20
    assert window.commands.actions["for_shop"].isChecked()
    assert NOTE in shown_now(window).sheets[0].notes
    window.commands.run("for_shop")
    assert NOTE not in shown_now(window).sheets[0].notes
    assert marks(window) == (0, 0)
    assert not window.commands.actions["for_shop"].isChecked()


def test_the_marks_follow_an_edit_and_are_no_step_of_the_job(window: Window) -> None:
    steps = len(window.document.history.names)
    window.commands.run("for_shop")
    assert len(window.document.history.names) == steps
    before = marks(window)[0]
    window.document.select((Kind.CELL.of(cell(window, "A5")),))
    window.commands.run("delete")
    assert 0 < marks(window)[0] < before


@pytest.mark.parametrize("shop", [True, False])
def test_what_is_exported_is_what_is_shown(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, shop: bool
) -> None:
    monkeypatch.setattr(asking, "ask_save", lambda *args: tmp_path / "wall.pdf")
    if shop:
        window.commands.run("for_shop")
    window.commands.run("export_drawing")
    with pymupdf.open(tmp_path / "wall.pdf") as document:
        words = document[0].get_text()
    assert ("Shop drawing" in words) is shop
    assert ("axis of a joint" in words) is shop
