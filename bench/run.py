"""Measured figures, printed as a table: ./plank bench

Each figure is a median of several runs in this process, except the start of the window, which is a new process
each time (warm: one start before goes uncounted). Targets are those of the issues; noise of a shared machine is
shown as the fastest and slowest run.
"""

from __future__ import annotations

import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from tall_plank.edits import runs, runtext
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making import make_job
from tall_plank.making.unit import make_unit
from tall_plank.setout import set_out

BASE = (
    "filler 50, drawers 600, door 500, sink 900, dishwasher 600, drawers 600, pair 800, open 300, door 450, pair rest"
)
HUNG = "pair 900, door 450, pair 800, gap 900, pair 900, door share, door share, open 300, pair 800"
SOUTH = "drawers 900, pair 900, door 450, open rest"


def twenty_units() -> Job:
    """A job with 20 units in three runs."""
    from tall_plank.edits.rooms import set_room_length

    job = set_room_length(new_job("Twenty"), "r1", "width", "6000mm").job
    for wall, level, text in (("A", Level.BASE, BASE), ("A", Level.HUNG, HUNG), ("C", Level.BASE, SOUTH)):
        change = runs.add_run(job, "r1", wall, level)
        job = runtext.type_run(change.job, change.made[0], text).job
    solid = [p for p in set_out(job).placed if p.is_solid and p.body != "filler"]
    assert len(solid) == 20 + 1, len(solid)
    return job


def median(run: Callable[[], object], times: int, before: Callable[[], object] = lambda: None) -> list[float]:
    """Milliseconds of several runs."""
    found = []
    for _ in range(times):
        before()
        start = time.perf_counter()
        run()
        found.append((time.perf_counter() - start) * 1000)
    return found


rows: list[tuple[str, list[float], str, float]] = []


def report(name: str, values: list[float], unit: str, target: float) -> None:
    rows.append((name, values, unit, target))


def cold_parts(job: Job) -> None:
    from tall_plank.drawing import elevation
    from tall_plank.job import inherit

    def clear() -> None:
        for cached in (make_unit, set_out, inherit._construction, elevation._front_items):
            cached.cache_clear()

    report("parts of 20 units, cold", median(lambda: make_job(job, set_out(job)), 9, clear), "ms", 150)


def typed_width(job: Job) -> None:
    from tall_plank.desk import theme
    from tall_plank.desk.app import make_app
    from tall_plank.desk.shots import settle
    from tall_plank.desk.window import Window
    from tall_plank.files.userdata import UserFolders

    app = make_app()
    theme.apply(app, dark=False)
    with tempfile.TemporaryDirectory() as home:
        window = Window(job, UserFolders(Path(home) / "config", Path(home) / "state"))
        window.resize(1280, 800)
        window.show()
        cell = job.rooms[0].runs[0].cells[1].id
        window.document.select((f"cell:{cell}",))
        settle(app, 500)
        window.model.render_now()
        widths = iter(range(601, 700))

        def type_one() -> None:
            text = str(next(widths))
            window.document.do(lambda job: runs.set_width(job, (cell,), text))
            # All views in one frame, as the window system would show it.
            window.centralWidget().repaint()

        two_d, model = [], []
        for _ in range(21):
            settle(app, 30)
            start = time.perf_counter()
            type_one()
            seen = time.perf_counter()
            window.model.render_now()
            window.model.repaint()
            two_d.append((seen - start) * 1000)
            model.append((time.perf_counter() - start) * 1000)
        report("a typed width: strip, plan, spec sheet, tally", two_d, "ms", 50)
        report("a typed width: model", model, "ms", 100)
        window.document.history.mark_saved()
        window.close()


def start_of_window() -> None:
    """A new process each time, to the window painted; and its memory with the demo drawn."""
    import psutil

    found, memory = [], []
    with tempfile.TemporaryDirectory() as home:
        env = {**os.environ, "TALL_PLANK_READY": "1", "XDG_CONFIG_HOME": home, "XDG_STATE_HOME": home}
        for i in range(6):
            start = time.perf_counter()
            process = subprocess.Popen(
                [sys.executable, "-m", "tall_plank", "demo"], env=env, stdout=subprocess.PIPE, text=True
            )
            assert process.stdout is not None
            line = process.stdout.readline()
            took = (time.perf_counter() - start) * 1000
            assert line.strip() == "ready", line
            time.sleep(2.0)  # the model fills in after the window
            held = psutil.Process(process.pid).memory_info().rss / 1e6
            process.terminate()
            process.wait()
            if i:
                found.append(took)
                memory.append(held)
    report("window up, warm", found, "ms", 2000)
    report("memory with the demo open", memory, "MB", 500)


def main() -> None:
    job = twenty_units()
    cold_parts(job)
    typed_width(job)
    if "--quick" not in sys.argv:
        start_of_window()
    print(f"{'figure':<48} {'median':>9} {'fastest':>9} {'slowest':>9} {'target':>9}")
    for name, values, unit, target in rows:
        middle = statistics.median(values)
        mark = "ok" if middle < target else "MISSED"
        print(
            f"{name:<48} {middle:>6.1f} {unit} {min(values):>6.1f} {unit} {max(values):>6.1f} {unit} "
            f"{target:>6.0f} {unit}  {mark}"
        )


if __name__ == "__main__":
    main()
