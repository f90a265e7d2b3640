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
        shot("units", lambda: doc.select((_cell(window, "A2"),)))
        shot("units-hung", lambda: doc.select((_cell(window, "A9"),)))
        shot("room", lambda: doc.select(()), lambda: window.show_stage("room"))
        shot("finish", lambda: window.show_stage("finish"))
        shot("strip", lambda: window.show_stage("units"), lambda: window.show_view("strip"),
             lambda: window.commands.run("dims"))  # fmt: skip
        shot("model", lambda: window.commands.run("dims"), lambda: window.show_view("model"))
        window.show_view("all")
        shot("run-text", lambda: window.commands.run("type_base"))
        window.run_text.hide()
        shot("shop-cut-list", lambda: window.open_schedule("cut-list"))
        shot("shop-plans", lambda: window.open_schedule("boards"))
        shot("shop-hardware", lambda: window.open_schedule("hardware"))
        shot("offer-price", lambda: window.open_schedule("price"))
        shot("offer-sheet", lambda: window.listing.update(offer="sheet1"), lambda: window.show_stage("offer"))
        shot("night", lambda: window.show_stage("units"), lambda: doc.select((_cell(window, "A4"),)),
             lambda: window.set_look("dark"))  # fmt: skip
        window.set_look("light")
        doc.history.mark_saved()
        window.close()
    return done
