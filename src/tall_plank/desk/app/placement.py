"""Where a window stood, how large it was, what was worked on: kept when it closes, taken up by the next one. By screen,
so that a laptop on the desk and on the road has a place for each."""

from __future__ import annotations

import base64
import binascii
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QByteArray

from tall_plank.desk.app.jobbar import STAGES
from tall_plank.desk.look.texts import tr

if TYPE_CHECKING:
    from tall_plank.desk.app.window import Window

MOST_SCREENS = 12


def screen_of(window: Window) -> str:
    """What a screen is known by: its name and its size."""
    screen = window.screen()
    size = screen.size() if screen is not None else None
    return f"{screen.name()} {size.width()} x {size.height()}" if screen is not None and size is not None else ""


def keep_place(window: Window) -> None:
    """Keep place, size and state of a window, its stage and its job."""
    known = window.preferences.get("windows", {})
    geometry = base64.b64encode(bytes(window.saveGeometry().data())).decode()
    rest = [(k, v) for k, v in known.items() if k != screen_of(window)]
    window.preferences.set("windows", dict([*rest[-MOST_SCREENS:], (screen_of(window), geometry)]))
    window.preferences.set("stage", window.stage)
    path = window.document.path
    window.preferences.set("last", str(path.resolve()) if path is not None else "")


def take_place(window: Window) -> None:
    """Put a window where one of this screen stood last; one that says nonsense has the usual place."""
    kept = window.preferences.get("windows", {}).get(screen_of(window))
    if not isinstance(kept, str):
        return
    try:
        window.restoreGeometry(QByteArray(base64.b64decode(kept, validate=True)))
    except (binascii.Error, ValueError):
        return


def last_stage(window: Window) -> str:
    """The stage that was worked in last."""
    stage = window.preferences.get("stage", "units")
    return stage if stage in STAGES else "units"


def offer_last(window: Window) -> None:
    """Ask whether to go on with the job that was open last, where it is still there."""
    name = window.preferences.get("last", "")
    path = next((p for p in window.preferences.recent() if str(p) == name), None)
    if path is None:
        return

    def go_on() -> None:
        if window.may_leave() and window.open_path(Path(name)):
            window.show_stage(last_stage(window))

    told = f"{tr('Go on with')} {path.name}?"
    window.message.ask(told, {tr("Open it"): go_on, tr("Not now"): lambda: None})
