"""Where a window stood, how large it was, what was worked on: kept when it closes, taken up by the next one. By screen,
so that a laptop on the desk and on the road has a place for each."""

from __future__ import annotations

import base64
import binascii
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QByteArray

from tall_plank.desk.app.jobbar import STAGES
from tall_plank.desk.look.panes import Panes
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
    geometry = base64.b64encode(bytes(window.saveGeometry().data())).decode()
    window.preferences.set("windows", dict([*_of_others(window, "windows"), (screen_of(window), geometry)]))
    panes = {name: splitter.kept() for name, splitter in _panes(window).items()}
    window.preferences.set("panes", dict([*_of_others(window, "panes"), (screen_of(window), panes)]))
    window.preferences.set("stage", window.stage)
    path = window.document.path
    window.preferences.set("last", str(path.resolve()) if path is not None else "")


def _of_others(window: Window, key: str) -> list[tuple[str, object]]:
    """What is kept of other screens, the last ones."""
    known = window.preferences.get(key, {})
    others = known.items() if isinstance(known, dict) else ()
    return [(k, v) for k, v in others if k != screen_of(window)][-MOST_SCREENS:]


def _panes(window: Window) -> dict[str, Panes]:
    """Where the space of a window is shared by hand."""
    return {"window": window.middle, "design": window.center.design, "lower": window.center.lower_panes}


def take_place(window: Window) -> None:
    """Put a window where one of this screen stood last; one that says nonsense has the usual place."""
    _take_panes(window)
    kept = window.preferences.get("windows", {}).get(screen_of(window))
    if not isinstance(kept, str):
        return
    try:
        window.restoreGeometry(QByteArray(base64.b64decode(kept, validate=True)))
    except (binascii.Error, ValueError):
        return


def _take_panes(window: Window) -> None:
    """Share the space as it was shared last on this screen."""
    known = window.preferences.get("panes", {})
    kept = known.get(screen_of(window)) if isinstance(known, dict) else None
    for name, splitter in _panes(window).items():
        splitter.take_up(kept.get(name) if isinstance(kept, dict) else None)


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
