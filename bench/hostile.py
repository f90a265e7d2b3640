"""Hostile input: ./plank bench hostile [inputs] [jobs] [first seed] [--untimed]

Inputs by chance and by hand go through every reader and verb, edits with any arguments through every edit. Each is
taken or refused in plain words. Counted are traces, what takes more than two seconds or 500 MB, files written outside
the target, values that were taken and make no sense, and states that do not save, load and compute. One seed, one
input: a fault is told with its seed.
"""

from __future__ import annotations

import contextlib
import logging
import multiprocessing
import os
import random
import resource
import shutil
import signal
import sys
import time
import traceback
from collections import Counter
from pathlib import Path
from typing import Any

sys.path.insert(0, str(Path(__file__).parent.parent / "tests"))

from gates import SHARES, Gates
from sandbox import SenseError

SLOW, LARGE, HANGS = 2.0, 500, 60
"""Seconds and MB that an input may take; seconds after which it is given up."""


class HangError(Exception):
    """It took too long."""


def peak() -> int:
    """MB of memory at the most since the last look."""
    try:
        text = Path("/proc/self/status").read_text(encoding="ascii")
        return int(next(line for line in text.splitlines() if line.startswith("VmHWM")).split()[1]) // 1024
    except (OSError, StopIteration):
        return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss // 1024


def where(error: BaseException) -> str:
    """What went wrong, and at which lines."""
    last = [f"{Path(f.filename).name}:{f.lineno}" for f in traceback.extract_tb(error.__traceback__)[-3:]]
    return f"{type(error).__name__}: {str(error)[:120]} at {last}"


def inputs(first: int, count: int, untimed: bool = False) -> tuple[Counter[str], list[str], float, int]:
    """Inputs with the seeds from one on: counts, what was found, the slowest in s, the largest in MB."""
    gates = Gates()
    logging.getLogger("tall_plank").setLevel(logging.ERROR)
    logging.getLogger("ezdxf").setLevel(logging.CRITICAL)
    names = [name for name, share in SHARES.items() for _ in range(share)]
    found: Counter[str] = Counter()
    told: list[str] = []
    slowest, largest = 0.0, 0

    def late(*_: object) -> None:
        raise HangError

    signal.signal(signal.SIGALRM, late)
    from tall_plank.shop.machine.model import shipped_machine
    from tall_plank.shop.nesting.search import compile_search
    from tall_plank.shop.simulator import run_program

    compile_search()
    gates.box.watching = False
    run_program(gates.program, shipped_machine(), (600.0, 400.0, 19.0))
    # Once through the slow first times: what is compiled and imported counts for no input.
    for name in SHARES:
        with contextlib.suppress(Exception):
            getattr(gates, name)(random.Random(0))
    for seed in range(first, first + count):
        r = random.Random(seed)
        name = r.choice(names)
        with contextlib.suppress(OSError):
            Path("/proc/self/clear_refs").write_text("5")
        gates.box.elsewhere.clear()
        gates.box.watching = True
        started = time.perf_counter()
        signal.alarm(HANGS)
        wrong = ""
        try:
            getattr(gates, name)(r)
        except HangError:
            wrong = "HANG"
        except SenseError as error:
            wrong = f"NO SENSE: {error}"
        except BaseException as error:
            wrong = f"TRACE: {where(error)}"
        finally:
            signal.alarm(0)
            gates.box.watching = False
        took, used = time.perf_counter() - started, peak()
        slowest, largest = max(slowest, took), max(largest, used)
        found[name] += 1
        if wrong:
            found[wrong.split(":")[0]] += 1
            told.append(f"seed {seed}, {name}: {wrong}")
        if took > SLOW and not untimed:
            found["SLOW"] += 1
            told.append(f"seed {seed}, {name}: {took:.1f} s")
        if used > LARGE:
            found["LARGE"] += 1
            told.append(f"seed {seed}, {name}: {used} MB")
        if gates.box.elsewhere:
            found["WRITTEN ELSEWHERE"] += 1
            told.append(f"seed {seed}, {name}: wrote {gates.box.elsewhere[:3]}")
        gates.box.clean()
    shutil.rmtree(gates.box.root, ignore_errors=True)
    return found, told, slowest, largest


def edited(first: int, count: int, steps: int = 100) -> tuple[Counter[str], list[str], float, int]:
    """Jobs with the seeds from one on, each changed by so many edits: every state saves, loads equal and computes."""
    from conftest import with_run
    from edits.anyhow import keeps, one_edit
    from tall_plank.job import Level
    from tall_plank.job.start import new_job

    found: Counter[str] = Counter()
    told: list[str] = []
    slowest = 0.0

    def begun() -> Any:
        return with_run(new_job(), "A", Level.BASE, "door 600, drawers 900, sink 900")

    for seed in range(first, first + count):
        r = random.Random(seed)
        job = begun()
        for step in range(steps):
            started = time.perf_counter()
            name = ""
            try:
                name, _, new, _ = one_edit(r, job, wild=r.choice((0.02, 0.15)))
                found["edits"] += 1
                if new is None:
                    continue
                found["edits made"] += 1
                wrong = keeps(new)
                job = new if len(new.cells()) < 25 and len(new.rooms) < 4 else begun()
            except Exception as error:
                wrong = where(error)
                job = begun()
            slowest = max(slowest, time.perf_counter() - started)
            if wrong:
                found["EDIT FAULT"] += 1
                told.append(f"edit seed {seed}, step {step}, {name}: {wrong}")
    return found, told, slowest, peak()


def main() -> int:
    untimed = "--untimed" in sys.argv  # a busy machine is no fault
    given = [int(x) for x in sys.argv[1:] if x != "--untimed"][:3]
    many, jobs, first = (*given, *(100_000, 100, 1)[len(given) :])
    size = max(1, min(2000, many // 4 or 1))
    lots = [(s, min(size, first + many - s)) for s in range(first, first + many, size)]
    started = time.perf_counter()
    found: Counter[str] = Counter()
    told: list[str] = []
    slowest, largest = 0.0, 0
    # A process of its own for each lot: the memory of one is not that of the next.
    with multiprocessing.get_context("spawn").Pool(os.cpu_count(), maxtasksperchild=1) as pool:
        work = [pool.apply_async(inputs, (*lot, untimed)) for lot in lots] if many else []
        work += [pool.apply_async(edited, (s, min(10, first + jobs - s))) for s in range(first, first + jobs, 10)]
        for done in work:
            counts, said, slow, large = done.get()
            found.update(counts)
            told += said
            slowest, largest = max(slowest, slow), max(largest, large)
    wrong = {k: n for k, n in found.items() if k.isupper()}
    done = f"{found['edits']:,} edits ({found['edits made']:,} made)"
    print(f"{many:,} inputs, {done} from seed {first}, {time.perf_counter() - started:.0f} s")
    print("  " + ", ".join(f"{name} {found[name]:,}" for name in SHARES if found[name]))
    print(f"  slowest {slowest:.2f} s, largest {largest} MB")
    print("  " + (", ".join(f"{n:,} {k.lower()}" for k, n in sorted(wrong.items())) or "no fault"))
    for line in told[:200]:
        print(f"  {line}")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
