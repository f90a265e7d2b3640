"""Pictures of the main views, made from the demo job by the real window."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QEventLoop, QTimer
from PyQt6.QtWidgets import QApplication

from tall_plank.demo import demo_job
from tall_plank.desk import theme
from tall_plank.desk.app import make_app
from tall_plank.desk.window import Window
from tall_plank.files.userdata import UserFolders


def settle(app: QApplication, milliseconds: int = 120) -> None:
    """Let the window paint."""
    loop = QEventLoop()
    QTimer.singleShot(milliseconds, loop.quit)
    loop.exec()
    app.processEvents()


def _cell(window: Window, number: str) -> str:
    return next(f"cell:{c.id}" for c in window.document.job.cells() if c.number == number)


def _near(window: Window, x: float, y: float) -> None:
    """The plan zoomed in on a place of the floor."""
    window.plan.fit()
    window.plan.zoom(2.2)
    at = window.plan.to_px(x, y)
    window.plan.pan(window.plan.width() / 2 - at.x(), window.plan.height() / 2 - at.y())


def _draw(window: Window) -> None:
    """An outline half drawn."""
    window.plan.draw_outline()
    tool = window.plan.tool
    assert tool is not None
    for place in ((0.0, 4800.0), (6000.0, 4800.0), (6000.0, 900.0), (3200.0, 900.0)):
        tool.aim(*place, window.plan.scale)
        tool.press()
    tool.aim(3210.0, 2600.0, window.plan.scale)
    window.plan.update()


def take_shots(folder: Path, only: str = "") -> list[Path]:
    """Write one PNG of each main view, 1280 x 800; returns the paths."""
    app = make_app()
    theme.apply(app, dark=False)
    folder.mkdir(parents=True, exist_ok=True)
    done: list[Path] = []
    with tempfile.TemporaryDirectory() as home:
        window = Window(demo_job(), UserFolders(Path(home) / "config", Path(home) / "state"))
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
        island = f"island:{doc.job.rooms[0].islands[0].id}"
        shot("units", lambda: doc.select((_cell(window, "A5"),)))
        shot("island", lambda: doc.select((island,)))
        shot("room", lambda: doc.select((f"room:{doc.room_id}",)), lambda: window.show_stage("room"))
        shot("corner", lambda: window.show_stage("units"), lambda: window.show_view("plan"),
             lambda: doc.select((_cell(window, "A9"),)), lambda: settle(app),
             lambda: _near(window, 4750.0, 3700.0))  # fmt: skip
        shot("draw-room", lambda: window.plan.fit(), lambda: doc.select(()), lambda: window.show_stage("room"),
             lambda: _draw(window))  # fmt: skip
        window.plan.leave_tool()
        shot("finish", lambda: window.show_view("all"), lambda: doc.select(()), lambda: window.show_stage("finish"))
        shot("strip", lambda: window.show_stage("units"), lambda: window.show_view("strip"), lambda: run("dims"),
             lambda: doc.select(("wall:B",)))  # fmt: skip
        shot("model", lambda: run("dims"), lambda: doc.select(()), lambda: window.show_view("model"))
        window.show_view("all")
        shot("boot-room", lambda: doc.show_room(doc.job.rooms[1].id), lambda: doc.select((_cell(window, "2A3"),)))
        shot("wardrobe", lambda: doc.show_room(doc.job.rooms[2].id),
             lambda: doc.select((f"sliding:{doc.job.rooms[2].runs[0].sliding[0].id}",)))  # fmt: skip
        shot("wardrobe-open", lambda: doc.show_fronts("off"), lambda: doc.select((_cell(window, "3A2"),)),
             lambda: doc.select_bay((1, 0, 0)))  # fmt: skip
        doc.show_fronts("closed")
        shot("unit", lambda: doc.select((_cell(window, "3A2"),)), window.look_into,
             lambda: window.unit_page.apart.setValue(45), lambda: window.unit_page.parts.selectRow(5),
             lambda: settle(app, 300), lambda: window.unit_page.model.render_now(fine=True))  # fmt: skip
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
        shot("shop-cut-list", lambda: window.open_schedule("cut-list"))
        shot("shop-plans", lambda: window.open_schedule("boards"))
        shot("shop-hardware", lambda: window.open_schedule("hardware"))
        shot("offer-price", lambda: window.open_schedule("price"))
        shot("offer-sheet", lambda: window.listing.update(offer="sheet1"), lambda: window.show_stage("offer"))
        shot("night", lambda: window.show_stage("units"), lambda: doc.select((_cell(window, "B3"),)),
             lambda: window.set_look("dark"))  # fmt: skip
        window.set_look("light")
        doc.history.mark_saved()
        window.close()
    return done
