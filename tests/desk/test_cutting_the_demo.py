"""From the demo job to the shop in one go: planned, stopped early, planned anew for another board, labels, papers, a bad
program."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import msgspec
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.conftest import opened
from tall_plank.demo import demo_job
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import asking
from tall_plank.edits import cutting
from tall_plank.edits.stock import replace_stock
from tall_plank.files.userdata import UserFolders
from tall_plank.shop.sawsteps import falling

LEFT = Qt.MouseButton.LeftButton
LONG = 240_000  # ms; a cold process compiles on its first start


@pytest.fixture
def demo(qtbot, folders: UserFolders) -> Iterator[Window]:  # type: ignore[no-untyped-def]
    yield from opened(qtbot, demo_job(), folders)


def test_the_demo_goes_through_the_shop(demo: Window, qtbot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    doc, page = demo.document, demo.plans
    demo.open_schedule("boards")
    first = doc.workings.plan
    assert f"{len(first.boards)} boards" in page.figures.text()
    # Planned for as long as it takes, and stopped early.
    doc.do(lambda job: cutting.set_cutting(job, "effort", "9"))
    doc.do(lambda job: cutting.set_cutting(job, "seconds", "3600"))
    with qtbot.waitSignal(page.planner.told, timeout=LONG):
        demo.commands.run("plan_boards")
    with qtbot.waitSignal(page.planner.ended, timeout=LONG):
        QTest.mouseClick(page.stop, LEFT)
    found = page.found
    assert found is not None and not found.done
    assert len(found.boards) <= len(first.boards)
    demo.commands.run("keep_plan")
    assert doc.workings.plan_is_kept
    # The supplier has other boards now: the plan that was kept no longer fits, another is searched for.
    boards = tuple(
        msgspec.structs.replace(b, length=3050.0, width=1525.0) if b.code == "BP18" else b for b in doc.job.stock.boards
    )
    stock = msgspec.structs.replace(doc.job.stock, boards=boards)
    doc.do(lambda job: replace_stock(job, stock))
    assert "no longer fits" in page.figures.text()
    doc.do(lambda job: cutting.set_cutting(job, "effort", "1"))
    with qtbot.waitSignal(page.planner.ended, timeout=LONG):
        demo.commands.run("plan_boards")
    assert page.found is not None
    assert {b.length for b in page.found.boards if b.board == "BP18"} == {3050.0}
    fewer = [sum(b.board == "BP18" for b in plan.boards) for plan in (page.found, found)]
    assert fewer[0] < fewer[1]
    demo.commands.run("keep_plan")
    # A label for every part, in the order of the boards that are kept.
    monkeypatch.setattr(asking, "ask_folder", lambda *_: tmp_path / "printer")
    demo.commands.run("print_labels")
    names = sorted(p.stem for p in (tmp_path / "printer").glob("*.png"))
    parts = sum(r.qty for r in doc.workings.cut_rows)
    assert len(names) == parts
    plan, saw = doc.workings.plan, doc.job.cutting
    assert names[0].split(" ", 1)[1] == falling(1, plan.boards[0], plan, saw)[0]
    # The package is written beside the window, and stopped.
    monkeypatch.setattr(asking, "ask_folder", lambda *_: tmp_path / "papers")
    demo.commands.run("export_package")
    task = demo.package_task
    assert task is not None
    task.told.connect(lambda name: task.stop() if name == "lists/schedules.pdf" else None)
    qtbot.waitUntil(lambda: "files written" in demo.message.text.text(), timeout=LONG)
    task.wait()
    assert not (tmp_path / "papers" / "models").exists()
    assert {"contents.pdf", "labels.pdf", "cutting-plans.pdf"} <= {p.name for p in (tmp_path / "papers").rglob("*.pdf")}
    # The simulated machine runs a program, and refuses the same one spoiled.
    demo.lists.chosen["shop"] = "machine"
    demo.show_stage("shop")
    machine = demo.machine
    qtbot.waitUntil(lambda: "no faults" in machine.figures.text(), timeout=LONG)
    assert machine.program is not None
    down = next(line for line in machine.program.text.splitlines() if line.startswith("G1 Z"))
    bad = tmp_path / "bad.ngc"
    bad.write_text(machine.program.text.replace(down, "G1 Z-9 F900", 1))
    monkeypatch.setattr(asking, "ask_read", lambda *_: bad)
    QTest.mouseClick(machine.open, LEFT)
    qtbot.waitUntil(
        lambda: "faults" in machine.figures.text() and "no faults" not in machine.figures.text(), timeout=LONG
    )
    assert machine.faults.count() > 0
