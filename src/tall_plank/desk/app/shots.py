"""Pictures of the main views, made from the demo job by the real window."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QEventLoop, QTimer
from PyQt6.QtWidgets import QApplication

from tall_plank.demo import demo_job
from tall_plank.desk.app.application import make_app, open_window
from tall_plank.desk.app.sheetshot import drawings_picture, sheets_picture
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import theme
from tall_plank.edits.jobs import set_display
from tall_plank.edits.sheetsets import new_page
from tall_plank.files.userdata import UserFolders
from tall_plank.job import Kind, Source
from tall_plank.job.sheetset import PageView, SetKind
from tall_plank.measure import DisplayUnit


def settle(app: QApplication, milliseconds: int = 120) -> None:
    """Let the window paint."""
    loop = QEventLoop()
    QTimer.singleShot(milliseconds, loop.quit)
    loop.exec()
    app.processEvents()


def _cell(window: Window, number: str) -> Source:
    return next(Kind.CELL.of(c.id) for c in window.document.job.cells() if c.number == number)


def _planned(window: Window) -> None:
    """The search for cutting plans at its end."""
    window.open_schedule("boards")
    loop = QEventLoop()
    window.plans.planner.ended.connect(lambda _: loop.quit())
    window.plans.planner.failed.connect(lambda _: loop.quit())
    window.plans.start()
    loop.exec()


def _settled(window: Window) -> None:
    """The least bars, found beside the window."""
    while window.lists.bars_task is not None:
        loop = QEventLoop()
        window.lists.bars_task.ended.connect(loop.quit)
        loop.exec()


def _machined(window: Window, part: str) -> None:
    """The simulated machine at the end of the program of a part."""
    window.open_schedule("machine")
    page = window.machine
    names = {i.part.name: i.number for i in window.document.workings.made.parts()}
    loop = QEventLoop()
    page.choice.setCurrentIndex(page.choice.findData(names[part]))
    page.choice.activated.emit(page.choice.currentIndex())
    assert page._task is not None
    page._task.ended.connect(lambda _: loop.quit())
    loop.exec()


def _laid_out(window: Window, kind: SetKind, at: int) -> None:
    """A set of drawings, at one of its sheets."""
    page = window.center.sets[kind]
    loop = QEventLoop()
    page.laid_out.connect(loop.quit)
    window.lists.chosen.update(offer=f"set:{kind}")
    window.show_stage("offer")
    if not page.sheets:
        loop.exec()
    page.names.setCurrentIndex(at)


def _composed(window: Window) -> None:
    """A page put together by hand: plan, picture and a note, with the list of sheets beside it."""
    _laid_out(window, "client", 1)
    page = window.center.sets["client"]

    def laid(do: Callable[[], object]) -> None:
        loop = QEventLoop()
        page.laid_out.connect(loop.quit)
        do()
        loop.exec()

    note = PageView("note", 252.0, 216.0, 1.0, "Fronts sea sage, oiled once more on site.\nWorktops slip slate 40.")
    views = (
        PageView("r1:P", 30.0, 76.0, 50.0, "plan"), PageView("r1:V1", 222.0, 100.0, 50.0, "picture"),
        PageView("r1:F", 224.0, 52.0, 1.0, "finishes"), note,
    )  # fmt: skip
    page.look_at("CG1")
    laid(lambda: window.document.do(lambda job: new_page(job, "client", views)))
    page.tools.order.setChecked(True)
    page.view.setFocus()
    page.view.choose(1)


def take_shots(folder: Path, only: str = "") -> list[Path]:
    """Write one PNG of each main view, 1280 x 800; returns the paths."""
    app = make_app()
    theme.apply(app, dark=False)
    folder.mkdir(parents=True, exist_ok=True)
    done: list[Path] = []
    with tempfile.TemporaryDirectory() as home:
        window = open_window(demo_job(), UserFolders(Path(home) / "config", Path(home) / "state"))
        window.resize(1280, 800)
        window.show()
        settle(app, 400)

        def shot(name: str, *steps: Callable[[], object]) -> None:
            if only and only not in name:
                return
            for step in steps:
                step()
            settle(app)
            window.message.hide()
            window.model.render_now(fine=True)
            settle(app)
            path = folder / f"{name}.png"
            window.grab().save(str(path))
            done.append(path)

        doc = window.document
        run = window.commands.run
        island = Kind.ISLAND.of(doc.job.rooms[0].islands[0].id)
        shot("units", lambda: doc.select((_cell(window, "A5"),)))
        shot("island", lambda: doc.select((island,)))
        shot("room", lambda: doc.select((Kind.ROOM.of(doc.room_id),)), lambda: window.show_stage("room"))
        shot("finish", lambda: doc.select(()), lambda: window.show_stage("finish"))
        shot("model", lambda: window.show_stage("units"), lambda: doc.select(()), lambda: window.show_view("model"))
        window.show_view("all")
        shot(
            "wardrobe-open",
            lambda: doc.show_room(doc.job.rooms[2].id),
            lambda: doc.show_fronts("off"),
            lambda: doc.select((_cell(window, "3A2"),)),
            lambda: doc.select_bay((0, 0)),
        )
        doc.show_fronts("closed")
        shot(
            "paneling",
            lambda: doc.show_room(doc.job.rooms[3].id),
            lambda: window.show_stage("paneling"),
            lambda: doc.select((Kind.WALL_FIELD.of(doc.room.room.fields[1].id),)),
            lambda: settle(app, 600),
        )
        window.show_stage("units")
        doc.show_room(doc.job.rooms[2].id)
        shot(
            "unit",
            lambda: doc.select((_cell(window, "3A2"),)),
            window.look_into,
            lambda: window.unit_page.apart.setValue(45),
            lambda: window.unit_page.parts.selectRow(5),
            lambda: settle(app, 300),
            lambda: window.unit_page.model.render_now(fine=True),
        )
        window.leave_unit()
        if not only or only in "standards":
            run("standards")
            settle(app)
            page = window.standards_page
            assert page is not None
            page.only.setChecked(True)
            settle(app)
            page.grab().save(str(folder / "standards.png"))
            done.append(folder / "standards.png")
            page.close()
        if not only or only in "stock":
            doc.select((_cell(window, "3A2"),))
            run("stock")
            stock = window.stock_page
            assert stock is not None
            stock.show_group("Handles")
            settle(app)
            stock.grab().save(str(folder / "stock.png"))
            done.append(folder / "stock.png")
            stock.close()
        doc.show_room(doc.job.rooms[0].id)
        # A job in inches has square feet and pounds besides.
        doc.do(lambda job: set_display(job, DisplayUnit.FRACTION_16))
        shot("shop-cut-list", lambda: window.open_schedule("cut-list"))
        doc.undo()
        shot("shop-bars", lambda: window.open_schedule("bars"), lambda: _settled(window))
        shot("shop-plans", lambda: _planned(window))
        shot("shop-machine", lambda: _machined(window, "left gable"))
        if not only or only in "shop-sheets":
            sheets_picture(doc.workings, "A4.1").save(str(folder / "shop-sheets.png"))
            done.append(folder / "shop-sheets.png")
        shot("offer-price", lambda: window.open_schedule("price"))
        shot("offer-sheet", lambda: _composed(window))
        doc.undo()
        if not only or only in "drawings":
            drawings_picture(doc.workings).save(str(folder / "drawings.png"))
            done.append(folder / "drawings.png")
        shot(
            "night",
            lambda: window.show_stage("units"),
            lambda: doc.show_room(doc.job.rooms[2].id),
            lambda: doc.select((_cell(window, "3C4"),)),
            lambda: window.set_look("dark"),
        )
        window.set_look("light")
        doc.history.mark_saved()
        window.close()
    return done
