"""How long the real window keeps a hand waiting: the four jobs from an empty start, step by step, and a held undo key.

For every step the longest while is taken in which the window could not have answered: the doing itself, or what came
between two beats of the event loop. Each job is done several times; the median of its slowest step is printed, and the
slowest of all.
"""

from __future__ import annotations

import os
import statistics
import sys
import tempfile
import time
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
sys.path.insert(0, str(Path(__file__).parent.parent / "tests"))

from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from desk.fourjobs import JOBS
from desk.hand import CONTROL, Hand
from tall_plank.desk.app.application import make_app, open_window
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import theme
from tall_plank.files.userdata import UserFolders
from tall_plank.job.start import new_job

TIMES = 5
LONGEST = 0.100
"""Seconds that a step may keep the hand waiting."""

UNDOS = 2.0
"""Seconds that fifty undos by a held key may take."""


def opened(folder: Path) -> Window:
    window = open_window(new_job(), UserFolders(folder / "c", folder / "s", folder / "d"))
    window.resize(1280, 800)
    window.show()
    window.activateWindow()
    QTest.qWait(500)
    return window


def closed(window: Window) -> None:
    if window.package_task is not None:
        window.package_task.stop()
        window.package_task.wait()
    window.document.history.mark_saved()
    window.close()
    window.deleteLater()
    QTest.qWait(50)


def jobs() -> bool:
    """Every job several times; whether each kept within its clicks, keys and time."""
    good = True
    for name, job in JOBS.items():
        slowest: list[tuple[float, str]] = []
        hand = None
        for _ in range(TIMES):
            folder = Path(tempfile.mkdtemp(prefix="hand-"))
            window = opened(folder)
            hand = Hand(window)
            job.do(hand, folder)
            slowest.append(hand.slowest)
            closed(window)
        assert hand is not None
        middle, worst = statistics.median(s for s, _ in slowest), max(slowest)
        within = hand.clicks < job.clicks and hand.keys < job.keys and middle <= LONGEST
        good = good and within
        print(
            f"{name:10s} {hand.clicks:3d} clicks (under {job.clicks}), {hand.keys:3d} keys (under {job.keys}); slowest "
            f"step {middle * 1000:4.0f} ms (100), of {TIMES} at most {worst[0] * 1000:.0f}: {worst[1]}"
            f"{'' if within else '  MISSED'}"
        )
    return good


def undos() -> bool:
    """Fifty undos by a held key in a kitchen."""
    folder = Path(tempfile.mkdtemp(prefix="hand-"))
    window = opened(folder)
    hand = Hand(window)
    JOBS["kitchen"].do(hand, folder)
    sink = next(p for p in window.document.room.placed if p.template == "sink")
    hand.unit(sink.number)
    for i in range(50):
        hand.type(f"w{800 + i}")
        hand.enter()
    start = time.perf_counter()
    hand.key(Qt.Key.Key_Z, CONTROL, times=50)
    took = time.perf_counter() - start
    closed(window)
    print(f"50 undos by a held key in the kitchen: {took:.2f} s (2){'' if took <= UNDOS else '  MISSED'}")
    return took <= UNDOS


def main() -> int:
    app = make_app()
    theme.apply(app, dark=False)
    good = jobs()
    good = undos() and good
    sys.stdout.flush()
    os._exit(0 if good else 1)


if __name__ == "__main__":
    main()
