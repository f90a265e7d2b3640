"""Programs killed at any moment: ./plank bench kills [kills] [rounds] [first seed]

The real window edits, saves, exports and books offscreen, and is killed. Then the job file, the rack and everything
exported are read: counted are files that are damaged, seconds of work that are lost (five are allowed), and works that
are not offered again. After that, four programs at a time try to have one file: in every round there is one owner.
"""

from __future__ import annotations

import json
import multiprocessing
import os
import random
import shutil
import signal
import sqlite3
import sys
import tempfile
import time
import zipfile
from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from typing import Any

sys.path.insert(0, str(Path(__file__).parent.parent / "tests"))

ALLOWED = 5.0
"""Seconds of work that may be lost."""

LONGEST = 9.0
"""Seconds after which a program is killed at the latest."""


def folders_in(root: Path) -> Any:
    from tall_plank.files.userdata import UserFolders

    return UserFolders(root / "config", root / "state", root / "data")


def work(root: Path, seed: int) -> None:
    """Edit, save, export and book in a window until killed. Every edit is noted with its time once it is made."""
    from conftest import with_run
    from tall_plank.desk.app.application import make_app, open_window
    from tall_plank.desk.app.background import run_package
    from tall_plank.edits import jobs, runs
    from tall_plank.files.rack import Rack
    from tall_plank.job import Level
    from tall_plank.job.start import new_job
    from tall_plank.measure import PlankError
    from tall_plank.package import write_table
    from tall_plank.papers.schedules import parts_rows

    r = random.Random(seed)
    app = make_app()
    window = open_window(with_run(new_job(), "A", Level.BASE, "door 600, drawers 900"), folders_in(root))
    window.model._failed = "left out of this"
    window.show()
    doc, rack = window.document, Rack(root / "data" / "rack.sqlite")
    noted = os.open(root / "noted", os.O_WRONLY | os.O_CREAT | os.O_APPEND)
    print("ready", flush=True)
    count = 0
    while True:
        pick = r.random()
        if pick < 0.8:
            count += 1
            doc.do(lambda job, n=count: jobs.set_text(job, "client", str(n)))  # type: ignore[misc]
            os.write(noted, f"{count} {time.monotonic()}\n".encode())
        elif pick < 0.86:
            doc.do(lambda job: runs.insert_unit(job, "r1", "C", r.choice(("door", "drawers", "pair"))))
        elif pick < 0.88:
            path = root / f"job {r.randint(1, 2)}.plank"
            try:
                doc.save(path, window.preview_png())
            except PlankError as error:
                os.write(2, f"{error}\n".encode())
        elif pick < 0.92:
            made = doc.patient()
            (root / "out").mkdir(exist_ok=True)
            for ending in ("csv", "xlsx", "pdf"):
                write_table(made, parts_rows(made), root / "out" / f"parts.{ending}")
        elif pick < 0.94:
            # Beside the window, as its command does it.
            if window.package_task is None or not window.package_task.busy:
                window.package_task = run_package(doc, window.message, root / "package")
        else:
            ids = rack.add("BP18", r.uniform(300, 2000), r.uniform(200, 1000), r.randint(1, 3))
            if r.random() < 0.5:
                rack.book("Quay", ids[:1])
            if r.random() < 0.3:
                rack.undo()
        until = time.monotonic() + r.choice((0.0, 0.01, 0.05, 0.2))
        while True:
            app.processEvents()
            left = until - time.monotonic()
            if left <= 0:
                break
            time.sleep(min(0.01, left))


def damaged(root: Path) -> list[str]:
    """What of the files that a program left is damaged."""
    from tall_plank.files.plankfile import read_plank
    from tall_plank.files.rack import Rack
    from tall_plank.measure import PlankError

    wrong = []
    # A rack's journal belongs to the rack, which puts itself right when it is opened.
    files = [p for p in root.rglob("*") if p.is_file() and not p.name.startswith(".") and "sqlite-" not in p.name]
    for path in files:
        data = path.read_bytes()
        try:
            if path.suffix == ".plank" or path.name.endswith(".plank.bak"):
                read_plank(path)
            elif path.suffix == ".sqlite":
                db = sqlite3.connect(path)
                if db.execute("PRAGMA integrity_check").fetchone()[0] != "ok":
                    wrong.append(f"{path.name} is no whole rack")
                db.close()
                rack = Rack(path)
                rack.pieces(gone=True), rack.history(), rack.wholes()
            elif path.suffix == ".json" and path.parent.name != "autosave":
                json.loads(data)
            elif path.suffix == ".xlsx":
                if zipfile.ZipFile(path).testzip():
                    wrong.append(f"{path.name} is no whole workbook")
            else:
                ends = {".pdf": b"%%EOF", ".dxf": b"EOF", ".ngc": b"%", ".svg": b"</svg>", ".csv": b"\n"}
                end = ends.get(path.suffix, b"")
                whole = data.rstrip().endswith(end.strip()) if end.strip() else data.endswith(end)
                if path.suffix == ".ngc":
                    whole = b"M2" in data[-40:] or b"M30" in data[-40:]
                if not whole or not data:
                    wrong.append(f"{path.relative_to(root)} is no whole {path.suffix} file")
        except (PlankError, ValueError, OSError, sqlite3.Error, zipfile.BadZipFile) as error:
            wrong.append(f"{path.relative_to(root)}: {error}")
    return wrong + [f"{p.name}" for p in root.rglob("*.broken*")]


def killed(first: int, count: int) -> tuple[Counter[str], list[str], float]:
    """Programs with the seeds from one on, each begun, killed, and looked at after."""
    from tall_plank.files.plankfile import read_plank
    from tall_plank.files.userdata import Autosave

    found: Counter[str] = Counter()
    told: list[str] = []
    most_lost = 0.0
    for seed in range(first, first + count):
        r = random.Random(seed)
        root = Path(tempfile.mkdtemp(prefix="kills-"))
        reading, writing = os.pipe()
        child = os.fork()
        if child == 0:
            os.dup2(writing, 1)
            os.dup2(os.open(root / ".errors", os.O_WRONLY | os.O_CREAT), 2)
            try:
                work(root, seed)
            finally:
                os._exit(9)
        os.close(writing)
        os.read(reading, 10)
        time.sleep(r.uniform(0.05, LONGEST))
        ended, status = os.waitpid(child, os.WNOHANG)
        os.kill(child, signal.SIGKILL) if not ended else None
        at = time.monotonic()
        os.waitpid(child, 0) if not ended else None
        os.close(reading)
        found["kills"] += 1
        if ended:
            found["ENDED BY ITSELF"] += 1
            told.append(f"seed {seed}: it ended by itself ({status}): {(root / '.errors').read_text()[-400:]}")
        for what in damaged(root):
            found["DAMAGED"] += 1
            told.append(f"seed {seed}: {what}")
        # The newest state that is to be had: of what is offered again, and of the files.
        offered = Autosave.left_behind(folders_in(root))
        states = [int(x.job.client or 0) for x in offered]
        states += [int(read_plank(p).client or 0) for p in root.glob("*.plank")]
        edits = (
            [line.split() for line in (root / "noted").read_text().splitlines()] if (root / "noted").exists() else []
        )
        missing = [float(when) for number, when in edits if int(number) > max(states, default=0)]
        lost = at - min(missing) if missing else 0.0
        most_lost = max(most_lost, lost)
        if lost > ALLOWED:
            found["LOST"] += 1
            told.append(f"seed {seed}: {lost:.1f} s of work are lost")
        found["offered again"] += bool(offered)
        found["saved, or too young to be kept"] += not offered
        shutil.rmtree(root, ignore_errors=True)
    return found, told, most_lost


def opener(path: str, rounds: int, barrier: Any, told: Any) -> None:
    """One of several programs that try to have a file, round after round."""
    from tall_plank.files.userdata import Lock

    file = Path(path)
    for number in range(rounds):
        lock = Lock(folders_in(file.parent), file)
        barrier.wait()
        got = lock.take()
        barrier.wait()
        told.put((number, got))
        if got:
            lock.release()
        barrier.wait()


def owners(rounds: int, programs: int = 4) -> Counter[int]:
    """How many rounds had how many owners."""
    root = Path(tempfile.mkdtemp(prefix="owners-"))
    context = multiprocessing.get_context("fork")
    barrier, told = context.Barrier(programs), context.Queue()
    given = (str(root / "job.plank"), rounds, barrier, told)
    running = [context.Process(target=opener, args=given) for _ in range(programs)]
    for process in running:
        process.start()
    had: Counter[int] = Counter(dict.fromkeys(range(rounds), 0))
    for _ in range(rounds * programs):
        number, got = told.get()
        had[number] += got
    for process in running:
        process.join()
    shutil.rmtree(root, ignore_errors=True)
    return Counter(had.values())


def main() -> int:
    given = [int(x) for x in sys.argv[1:4]]
    many, rounds, first = (*given, *(500, 1000, 1)[len(given) :])
    # What is slow to import is there before the programs are begun.
    import tall_plank.desk.app.application
    import tall_plank.package  # noqa: F401

    started = time.perf_counter()
    found: Counter[str] = Counter()
    told: list[str] = []
    most_lost = 0.0
    size = 10
    with ProcessPoolExecutor(os.cpu_count(), multiprocessing.get_context("fork")) as pool:
        lots = [pool.submit(killed, s, min(size, first + many - s)) for s in range(first, first + many, size)]
        for lot in lots:
            counts, said, lost = lot.result()
            found.update(counts)
            told += said
            most_lost = max(most_lost, lost)
    had = owners(rounds) if rounds else Counter()
    print(f"{found['kills']} kills from seed {first}, {time.perf_counter() - started:.0f} s")
    wrong = {k: n for k, n in found.items() if k.isupper()}
    rest = ", ".join(f"{n} {k}" for k, n in found.items() if not k.isupper() and k != "kills")
    print(f"  {rest}; {most_lost:.1f} s of work lost at the most")
    print("  " + (", ".join(f"{n} {k.lower()}" for k, n in sorted(wrong.items())) or "nothing damaged, nothing lost"))
    print(
        f"  {rounds} rounds of four programs for one file: " + ", ".join(f"{n} with {k} owners" for k, n in had.items())
    )
    for line in told[:100]:
        print(f"  {line}")
    return 1 if wrong or set(had) - {1} else 0


if __name__ == "__main__":
    sys.exit(main())
