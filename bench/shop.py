"""The shop floor against what is asked for: ./plank bench shop [jobs] [first seed]

For the demo, for a job of every kind of unit and for random rooms, from the saw and for the router: every operation is
counted in programs, on second sides and on the handwork sheet; an independent height map (tests/shop/heightmap.py) is
laid over every program. Then the package of the demo is timed in new processes, and lists of few sizes in large numbers
are planned for packs: the number of layouts beside the least that a solver proves for as many boards.
"""

from __future__ import annotations

import os
import random
import statistics
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent.parent / "tests"))

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp

from kept.results import every_kind
from making.chance import a_room
from shop.heightmap import job_differences
from shop.machine_check import counted
from tall_plank.demo import demo_job
from tall_plank.edits import cutting
from tall_plank.job import Job
from tall_plank.shop.nesting import NestBoard, NestPart, NestRules, Request
from tall_plank.shop.nesting.nest import nest
from tall_plank.shop.sawsteps import layout_of
from tall_plank.workings import Workings

MODES = ("saw", "router")


def jobs_of(name: str) -> Job:
    if name == "demo":
        return demo_job()
    if name == "every kind":
        return every_kind()
    return a_room(random.Random(int(name))).job


def look(task: tuple[str, str]) -> tuple[str, str, int, int, int, list[str]]:
    """One job: operations, programs, points, and what is wrong."""
    name, mode = task
    w = Workings(cutting.set_cutting(jobs_of(name), "mode", mode).job)
    planned = {p.part for b in w.plan.boards for p in b.parts} | {i.number for i in w.blank_parts}
    parts = {i.number: i.part for i in w.made.parts() if i.number in planned}
    wanted, found = counted(w.machine_files, parts)
    wrong = [
        f"{part}: {wanted[part]} operations, {found[part]} found"
        for part in wanted | found
        if wanted[part] != found[part]
    ]
    programs, points, differ = job_differences(w)
    return name, mode, wanted.total(), programs, points, wrong + differ


def package_seconds() -> float:
    """A package of the demo in a new process, its job made before."""
    code = (
        "import time\nfrom pathlib import Path\nimport sys\n"
        "from tall_plank.demo import demo_job\nfrom tall_plank.workings import Workings\n"
        "from tall_plank.package import write_package\n"
        "w = Workings(demo_job())\nw.made\nt = time.perf_counter()\n"
        "write_package(w, Path(sys.argv[1]))\nprint(time.perf_counter() - t)\n"
    )
    with tempfile.TemporaryDirectory() as folder:
        out = subprocess.run([sys.executable, "-c", code, folder], capture_output=True, text=True, check=True)
    return float(out.stdout)


BOARD = NestBoard("B", "m", 2800.0, 2070.0)
RULES = NestRules(effort=5, seconds=30.0, turns=3, pack=True)


def least_layouts(sizes: list[tuple[float, float, int]], boards: int) -> int:
    """The least number of different layouts that so many boards can have, proven: one only where every number divides;
    two only where numbers and areas allow it. Three otherwise: further ones are not excluded here."""
    counts = [n for _, _, n in sizes]
    if all(n % boards == 0 for n in counts):
        return 1
    room = (BOARD.length - 2 * RULES.trim + RULES.kerf) * (BOARD.width - 2 * RULES.trim + RULES.kerf)
    areas = np.array([(long + RULES.kerf) * (wide + RULES.kerf) for long, wide, _ in sizes])
    k = len(sizes)
    for times in range(1, boards):
        # times x p + (boards - times) x q = counts; both lay no more than a board's area.
        rows = np.hstack([times * np.eye(k), (boards - times) * np.eye(k)])
        limits = np.vstack([np.hstack([areas, np.zeros(k)]), np.hstack([np.zeros(k), areas])])
        found = milp(
            np.zeros(2 * k),
            constraints=[LinearConstraint(rows, counts, counts), LinearConstraint(limits, -np.inf, room)],
            integrality=np.ones(2 * k),
            bounds=Bounds(0, max(counts)),
        )
        if found.success:
            return 2
    return 3


def packs(count: int) -> None:
    rnd = random.Random(20261128)
    more: list[int] = []
    for _ in range(count):
        sizes = [
            (rnd.randint(30, 90) * 10.0, rnd.randint(10, 60) * 10.0, rnd.randint(20, 90))
            for _ in range(rnd.randint(1, 4))
        ]
        parts = tuple(
            NestPart(f"{i}-{n}", long, wide, 1, "m") for i, (long, wide, qty) in enumerate(sizes) for n in range(qty)
        )
        plan = nest(Request(parts, (BOARD,), RULES))
        layouts, least = len({layout_of(b) for b in plan.boards}), least_layouts(sizes, len(plan.boards))
        more.append(layouts - least)
        said = ", ".join(f"{qty} of {long:g} x {wide:g}" for long, wide, qty in sizes)
        print(f"  {len(plan.boards):3} boards, {layouts} layouts, at least {least}: {said}", flush=True)
    print(f"layouts above the least proven: at most {max(more)}, {sum(m == 0 for m in more)} of {count} at the least")


def main() -> None:
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 40
    first = int(sys.argv[2]) if len(sys.argv) > 2 else 1
    names = ["demo", "every kind", *(str(first + i) for i in range(count))]
    started = time.perf_counter()
    sums = dict.fromkeys(MODES, (0, 0, 0))
    wrong: list[str] = []
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        for name, mode, operations, programs, points, found in pool.map(look, [(n, m) for n in names for m in MODES]):
            a, b, c = sums[mode]
            sums[mode] = (a + operations, b + programs, c + points)
            wrong += [f"{name}, {mode}: {x}" for x in found]
    for mode, (operations, programs, points) in sums.items():
        print(f"{mode}: {len(names)} jobs, {operations} operations, {programs} programs, {points} points looked at")
    print(f"{len(wrong)} differences in {time.perf_counter() - started:.0f} s")
    for line in wrong[:40]:
        print(f"  {line}")
    times = sorted(package_seconds() for _ in range(3))
    print(f"package of the demo: {statistics.median(times):.1f} s ({times[0]:.1f} to {times[-1]:.1f}), target under 15")
    packs(20)


if __name__ == "__main__":
    main()
