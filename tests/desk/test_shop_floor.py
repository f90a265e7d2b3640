"""From plan to sheet in the real window: a pack of boards, a machine chosen, its set-up, a part turned, handwork."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pymupdf
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from conftest import with_run
from desk.conftest import opened, spec, type_into
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.edits import jobs
from tall_plank.files.userdata import UserFolders
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.measure import DisplayUnit
from tall_plank.shop.machine.model import SHIPPED
from tall_plank.shop.sawsteps import packs_of

LEFT = Qt.MouseButton.LeftButton
LONG = 60_000


def eight_alike() -> Job:
    """So many shelves of one size that their boards come out alike."""
    return with_run(new_job(), "A", Level.BASE, ", ".join(["open 400"] * 12))


@pytest.fixture
def packed(qtbot, folders: UserFolders) -> Iterator[Window]:
    yield from opened(qtbot, eight_alike(), folders)


def text_of(path: Path) -> str:
    with pymupdf.open(path) as document:
        return "\n".join(page.get_text() for page in document)


def test_a_pack_goes_from_plan_to_sheet(packed: Window, qtbot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    doc, page = packed.document, packed.plans
    packed.open_schedule("boards")
    # Too high a pack is refused in its box, nothing changes; one that the saw takes is set.
    type_into(spec(packed, "pack"), "300")
    assert doc.job.cutting.pack == 0.0
    type_into(spec(packed, "pack"), "90")
    assert doc.job.cutting.pack == 0.0 and "higher than the saw takes" in packed.message.text.text() + _told(packed)
    type_into(spec(packed, "pack"), "60")
    assert doc.job.cutting.pack == 60.0
    with qtbot.waitSignal(page.planner.ended, timeout=LONG):
        packed.commands.run("plan_boards")
    QTest.mouseClick(page.keep, LEFT)
    assert doc.workings.plan_is_kept
    packs = packs_of(doc.workings.plan, doc.job.cutting, doc.job.stock)
    alike = [p for p in packs if len(p.boards) > 1]
    assert alike and sum(len(p.boards) for p in packs) == len(doc.workings.plan.boards)
    # Each layout is shown once, with how many boards it stands for.
    shown = [name for *_, name, _, _ in page.boards._heads]
    assert len(shown) == len(packs) and any(f"× {len(alike[0].boards)}" in name for name in shown)
    monkeypatch.setattr(asking, "ask_save", lambda *_: tmp_path / "saw.pdf")
    packed.commands.run("export_saw_sheets")
    said = text_of(tmp_path / "saw.pdf")
    assert f"{len(alike[0].boards)} boards in" in said and "from the stop" in said
    # Cutting costs less by what falls together; undo takes it back.
    packed.commands.run("undo")
    assert doc.job.kept_plan is None


def _told(window: Window) -> str:
    return " ".join(w.text() for w in window.findChildren(type(window.message.text)) if w.text())


def test_a_machine_is_chosen_its_set_up_looked_at_and_the_part_turned(
    window: Window, qtbot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    doc, page = window.document, window.machine
    doc.do(lambda job: jobs.set_display(job, DisplayUnit.FRACTION_16))
    mine = tmp_path / "loft.toml"
    mine.write_text(
        SHIPPED.read_text().replace(
            'name = "Quay router"', 'name = "Loft router"\nzero = "front right"\nunits = "inch"\nlength_offsets = true'
        )
    )
    window.lists.chosen["shop"] = "machine"
    window.show_stage("shop")
    monkeypatch.setattr(asking, "ask_read", lambda *_: mine)
    page.read_machine()
    qtbot.waitUntil(lambda: "no faults" in page.figures.text(), timeout=LONG)
    assert page.machines.currentText() == "Loft router"
    second = next(n for n in page._programs if n.endswith("-second"))
    first = second.removesuffix("-second")
    for name, up, edge in ((first, "B", "L2"), (second, "A", "L1")):
        at = page.choice.findData(name)
        page.choice.setCurrentIndex(at)
        page.choice.activated.emit(at)
        qtbot.waitUntil(
            lambda n=name: page.figures.text().startswith(n) and "no faults" in page.figures.text(), timeout=LONG
        )  # type: ignore[misc]
        said = page.setup.text()
        assert "Machine Loft router" in said
        work = page._programs[name].setup.works[0]  # type: ignore[union-attr]
        assert f"face {work.up} up; end W2 at X0" in said
        assert work.up in (up, "A", "B") and edge in ("L1", "L2")
    assert "turned over about its length" in page.setup.text()
    text = page._programs[first].text
    assert "G20" in text and "G43 H" in text
    # Its sheets, and the handwork with places.
    monkeypatch.setattr(asking, "ask_save", lambda *_: tmp_path / "setup.pdf")
    window.commands.run("export_setup")
    said = text_of(tmp_path / "setup.pdf")
    assert f"{second}.ngc" in said and "Loft router" in said and "end W2" in said
    monkeypatch.setattr(asking, "ask_save", lambda *_: tmp_path / "hand.pdf")
    window.commands.run("export_handwork")
    left = doc.workings.machine_files.left
    said = text_of(tmp_path / "hand.pdf")
    assert left and all(x.part in said for x in left[:20])
    window.open_schedule("handwork")
    assert window.table.rows.rowCount() == len(left)


def test_an_empty_job_has_no_sheets(empty_window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(asking, "ask_save", lambda *_: tmp_path / "none.pdf")
    for what in ("export_saw_sheets", "export_setup", "export_handwork"):
        empty_window.commands.run(what)
        assert "nothing to be put on these sheets" in empty_window.message.text.text()
    assert not (tmp_path / "none.pdf").exists()


def test_papers_and_prices_are_set_in_their_sheets(window: Window) -> None:
    doc = window.document
    window.show_stage("room")
    type_into(spec(window, "papers_firm"), "Lamp Row Joinery")
    assert doc.job.papers.firm == "Lamp Row Joinery"
    type_into(spec(window, "label_width"), "12")
    assert doc.job.papers.labels.size[0] == 63.5, "no number has room there: refused in its box"
    type_into(spec(window, "label_width"), "60")
    assert doc.job.papers.labels.size[0] == 60.0
    window.commands.run("undo")
    assert doc.job.papers.labels.size[0] == 63.5
