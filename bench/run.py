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
from tall_plank.edits.things.island import add_island
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.making import MadeUnit, make_job
from tall_plank.measure.remembered import figures, forget_all
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
    report("parts of 20 units, cold", median(lambda: make_job(job, set_out(job)), 9, forget_all), "ms", 150)


def one_unit(job: Job) -> None:
    """A unit's width and its joints changed in a job of 20 units: its parts, drilling, schedule and tally anew."""
    from tall_plank.edits import units
    from tall_plank.workings import Workings

    cell = job.rooms[0].runs[0].cells[1].id
    found = []
    for i in range(31):
        changed = runs.set_width(job, (cell,), f"{601 + i}").job
        if i % 2:
            changed = units.set_own(changed, (cell,), "joint", "cam").job
        w = Workings(changed)
        _ = w.layout  # setting-out has its own figure
        start = time.perf_counter()
        _ = (w.made, w.hardware, w.costs, w.quick)
        found.append((time.perf_counter() - start) * 1000)
    report("one unit edited: parts, drilling, schedule, price", found, "ms", 10)


def proof_of_a_unit() -> None:
    """That a unit's parts can be put together, nothing of it known before: a hob unit (about 20 parts), and drawers."""
    from tall_plank.making.proof import faults_of

    lengths = {"dowel": 30.0, "carcass screw": 50.0, "loose tenon": 40.0}
    job = runs.insert_unit(new_job(), "r1", "A", "hob").job
    job = runs.insert_unit(job, "r1", "A", "drawers").job
    for _, made in make_job(job, set_out(job)).rooms[0].units:

        def proved(made: MadeUnit = made) -> object:
            return faults_of(made.parts, made.lent, lengths)

        took = median(proved, 101, before=forget_all)
        limit = max(1.0, len(made.parts) / 20)
        report(f"proof of a unit of {len(made.parts)} parts, from nothing", took, "ms", limit)


def proof_of_an_edit(job: Job) -> None:
    """All that is proved anew when one of 60 units has changed: the unit, and the room about it."""
    from tall_plank.making.between import keep_apart
    from tall_plank.making.lending import lend
    from tall_plank.making.letin import let_in
    from tall_plank.making.proof import faults_of

    layout = set_out(job)
    (room,) = layout.rooms
    (made,) = make_job(job, layout).rooms
    parts = min((u.parts for _, u in made.units if u.parts), key=lambda found: abs(len(found) - 20))

    def again() -> None:
        faults_of(parts)
        keep_apart(let_in(room, lend(room, made.units), job.stock), made.trims)

    report(f"proof of what one edit in {len(made.units)} units changes", median(again, 51), "ms", 15)


def lists_of(job: Job) -> list[float]:
    """Milliseconds, cold, from a job to its parts, drilling, cut list, hardware, edging and price."""
    from tall_plank.workings import Workings

    def run() -> None:
        w = Workings(job)
        _ = (w.made, w.cut_rows, w.hardware, w.edging, w.costs)

    return median(run, 5, forget_all)


def many_units(twenty: Job, many: Job) -> None:
    """200 units from nothing to their lists; how that grows; and the memory of a hole."""
    import gc
    import tracemalloc

    # No two flats alike, so that nothing is made once for several.
    from tall_plank.edits import units
    from tall_plank.making import Bore
    from tall_plank.workings import Workings

    for i, room in enumerate(many.rooms):
        cells = tuple(c.id for run in room.runs for c in run.cells)
        many = units.set_own(many, cells, "height", f"{690 + 4 * i}").job
    few, lots = lists_of(twenty), lists_of(many)
    report("200 units to parts, drilling and lists, cold", lots, "ms", 1500)
    grown = [a / b / 10 for a, b in zip(lots, few, strict=True)]
    report("... time of a unit among 200 over one among 20", grown, "x", 2)
    held = []
    for _ in range(3):
        forget_all()
        w = Workings(many)
        _ = w.layout
        gc.collect()
        tracemalloc.start()
        before = tracemalloc.get_traced_memory()[0]
        made = {id(unit): unit for _, unit in w.made.units}
        gc.collect()
        grown_by = tracemalloc.get_traced_memory()[0] - before
        tracemalloc.stop()
        holes = sum(isinstance(op, Bore) for unit in made.values() for part in unit.parts for op in part.operations)
        held.append(grown_by / holes)
    report("memory of a hole, with its share of all parts", held, "B", 1500)


def settle_in(app: object, milliseconds: int) -> None:
    from tall_plank.desk.app.shots import settle

    settle(app, milliseconds)  # type: ignore[arg-type]


def paint() -> None:
    """Paint every view that has changed, all in one frame, as the window system would."""
    from PyQt6.QtCore import QEvent
    from PyQt6.QtWidgets import QApplication

    QApplication.sendPostedEvents(None, QEvent.Type.LayoutRequest)
    QApplication.sendPostedEvents(None, QEvent.Type.UpdateRequest)


def a_window(job: Job):  # type: ignore[no-untyped-def]
    """A window with a job, and what closes it."""
    from tall_plank.desk.app.application import make_app, open_window
    from tall_plank.desk.look import theme
    from tall_plank.files.userdata import UserFolders

    app = make_app()
    theme.apply(app, dark=False)
    home = tempfile.TemporaryDirectory()
    window = open_window(job, UserFolders(Path(home.name) / "config", Path(home.name) / "state"))
    window.resize(1280, 800)
    window.show()

    def close() -> None:
        window.document.history.mark_saved()
        window.close()
        home.cleanup()

    return app, window, close


def typed_width(job: Job) -> None:
    app, window, close = a_window(job)
    cell = job.rooms[0].runs[0].cells[1].id
    window.document.select((Kind.CELL.of(cell),))
    settle_in(app, 500)
    window.model.render_now()
    two_d, tally, model = [], [], []
    for i in range(21):
        settle_in(app, 30)
        start = time.perf_counter()
        window.document.do(lambda job, text=str(601 + i): runs.set_width(job, (cell,), text))
        paint()
        seen = time.perf_counter()
        # The tally follows once the views have painted.
        window.tally.catch_up()
        paint()
        told = time.perf_counter()
        window.model.render_now()
        window.model.repaint()
        two_d.append((seen - start) * 1000)
        tally.append((told - start) * 1000)
        model.append((time.perf_counter() - start) * 1000)
    report("a typed width: strip, plan, run lines, spec sheet", two_d, "ms", 20)
    report("a typed width: with the tally after them", tally, "ms", 50)
    report("a typed width: model", model, "ms", 100)
    close()


def sixty_units() -> Job:
    """One large room with an island and 60 units in six runs."""
    from tall_plank.edits.rooms import set_room_length

    job = set_room_length(new_job("Sixty"), "r1", "width", "9000mm").job
    job = set_room_length(job, "r1", "depth", "7000mm").job
    job = add_island(job, "r1", (4500.0, 3500.0), 3000.0).job
    for wall, level, text in (
        ("A", Level.BASE, f"{BASE[:-5]} 800, drawers 600, drawers 600, pair 900, door 500, pair rest, corner 900"),
        ("A", Level.HUNG, f"{HUNG}, pair 800, pair 700, door share"),
        ("B", Level.BASE, "drawers 600, pair 900, drawers 600, sink 900, dishwasher 600, pair 900, open rest"),
        ("C", Level.BASE, f"{SOUTH[:-5]} 300, drawers 600, pair 900, drawers 800, pair 900, open rest"),
        ("C", Level.HUNG, HUNG),
        ("D", Level.BASE, "gap 700, tall 600, fridge housing 600, oven housing 600, drawers 600, pair 900, door 450"),
        ("K1", Level.BASE, "drawers 600, drawers 900, pair share, door 450"),
    ):
        change = runs.add_run(job, "r1", wall, level)
        job = runtext.type_run(change.job, change.made[0], text).job
    solid = [p for p in set_out(job).placed if p.is_solid and p.body != "filler"]
    assert 60 <= len(solid) <= 66, len(solid)
    return job


def two_hundred_units() -> Job:
    """A floor of flats: ten kitchens of 20 units, each in a room of its own."""
    from tall_plank.edits.outline import add_room
    from tall_plank.edits.rooms import set_room_length

    job = new_job("Flats")
    for i in range(10):
        if i:
            job = add_room(job, f"Flat {i + 1}").job
        room = job.rooms[-1].id
        job = set_room_length(job, room, "width", "6000mm").job
        # Each flat a little different, as they are.
        base = BASE.replace("door 500", f"door {440 + 10 * i}")
        for wall, level, text in (("A", Level.BASE, base), ("A", Level.HUNG, HUNG), ("C", Level.BASE, SOUTH)):
            change = runs.add_run(job, room, wall, level)
            job = runtext.type_run(change.job, change.made[0], text).job
    solid = [p for p in set_out(job).placed if p.is_solid and p.body != "filler"]
    assert len(solid) >= 200, len(solid)
    return job


def drag_step(job: Job) -> None:
    """A run dragged: every step to all 2D views painted, then the model."""
    app, window, close = a_window(job)
    cell = job.rooms[0].runs[0].cells[1].id
    window.document.select((Kind.CELL.of(cell),))
    settle_in(app, 500)
    window.model.render_now()
    doc = window.document
    doc.begin_drag("Resize")
    two_d, model = [], []
    for i in range(25):
        settle_in(app, 20)
        width = 601.0 + i
        start = time.perf_counter()
        doc.drag(lambda job, width=width: runs.drag_width(job, cell, width))
        paint()
        seen = time.perf_counter()
        window.model.render_now()
        window.model.repaint()
        two_d.append((seen - start) * 1000)
        model.append((time.perf_counter() - start) * 1000)
    doc.end_drag()
    report("a drag step in 60 units: all 2D views", two_d, "ms", 20)
    report("a drag step in 60 units: model", model, "ms", 100)
    close()


def large_job(job: Job) -> None:
    """A job of 200 units opened from its file, and a width typed in it."""
    from tall_plank.files.plankfile import write_plank

    with tempfile.TemporaryDirectory() as home:
        path = Path(home) / "flats.plank"
        write_plank(job, path)
        app, window, close = a_window(new_job("Empty"))
        settle_in(app, 300)
        window.model.render_now()
        opened = []
        for _ in range(5):
            forget_all()
            start = time.perf_counter()
            window.open_path(path)
            paint()
            window.model.render_now()
            opened.append((time.perf_counter() - start) * 1000)
        report("a job of 200 units opened, cold", opened, "ms", 3000)
        cell = window.document.job.rooms[0].runs[0].cells[1].id
        window.document.select((Kind.CELL.of(cell),))
        settle_in(app, 300)
        two_d = []
        for i in range(21):
            settle_in(app, 30)
            width = f"{601 + i}"
            start = time.perf_counter()
            window.document.do(lambda job, width=width: runs.set_width(job, (cell,), width))
            paint()
            two_d.append((time.perf_counter() - start) * 1000)
        report("an edit in 200 units: all 2D views", two_d, "ms", 80)
        close()


def many_edits(job: Job) -> None:
    """Memory of this process after rounds of 500 edits and 500 undos, with the window painted between."""
    import gc

    import psutil

    app, window, close = a_window(job)
    cell = job.rooms[0].runs[0].cells[1].id
    doc = window.document
    doc.select((Kind.CELL.of(cell),))
    settle_in(app, 500)
    held = []
    for turn in range(3):
        for i in range(500):
            width = f"{500 + (i * 7 + turn) % 300}.{i % 9}"
            doc.do(lambda job, width=width: runs.set_width(job, (cell,), width))
            if i % 25 == 0:
                settle_in(app, 1)
        for _ in range(500):
            doc.undo()
        gc.collect()
        held.append(psutil.Process().memory_info().rss / 1e6)
    report("memory after 500 edits and undos, and again", held, "MB", 500)
    close()


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
    report("window up, warm", found, "ms", 1300)
    report("memory with the demo open", memory, "MB", 330)


def main() -> None:
    job = twenty_units()
    cold_parts(job)
    one_unit(job)
    proof_of_a_unit()
    proof_of_an_edit(sixty_units())
    many_units(job, two_hundred_units())
    typed_width(job)
    drag_step(sixty_units())
    large_job(two_hundred_units())
    many_edits(job)
    if "--quick" not in sys.argv:
        start_of_window()
    print(f"{'figure':<50} {'median':>9} {'fastest':>9} {'slowest':>9} {'target':>9}")
    for name, values, unit, target in rows:
        middle = statistics.median(values)
        mark = "ok" if middle < target else "MISSED"
        print(
            f"{name:<50} {middle:>6.1f} {unit} {min(values):>6.1f} {unit} {max(values):>6.1f} {unit} "
            f"{target:>6.0f} {unit}  {mark}"
        )
    if "--caches" in sys.argv:
        print(f"\n{'what is remembered':<58} {'asked':>9} {'known':>7} {'kept':>7} {'of':>7}")
        for name, hits, misses, size, most in figures():
            asked = hits + misses
            share = f"{hits / asked:.0%}" if asked else "–"
            print(f"{name:<58} {asked or '–':>9} {share:>7} {size:>7} {most or '–':>7}")


if __name__ == "__main__":
    main()
