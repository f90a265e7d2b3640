"""The proof against chance: ./plank bench proof [units] [rooms] [first seed]

Random units and rooms (tests/making/chance.py) are made; each is refused in plain words, or an independent check built
on solids (tests/making/independent.py) has to agree that it can be put together. Counted are silent faults (made, and
the check finds one) and false alarms (a shipped kind at a width inside its range, refused by the proof, and the check
finds nothing).
"""

from __future__ import annotations

import os
import random
import re
import sys
import time
from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent.parent / "tests"))

import numpy as np

from making.chance import a_room, a_unit
from making.independent import faults
from tall_plank.making.solids import placed
from tall_plank.workings import Workings

PLAIN = 4
"""Every fourth unit is a shipped kind at a width inside its range, for false alarms."""


def units(first: int, count: int) -> tuple[Counter[str], list[str]]:
    """Units with the seeds from one on."""
    found: Counter[str] = Counter()
    told: list[str] = []
    for seed in range(first, first + count):
        plain = seed % PLAIN == 0
        c, made = a_unit(random.Random(seed), plain=plain)
        if made.parts:
            found["made"] += 1
            wrong = faults(made.parts, made.lent)
            if wrong:
                found["SILENT FAULT"] += 1
                told.append(f"silent, seed {seed}: {wrong[0]}; {'; '.join(c.said)}")
            continue
        found["refused"] += bool(made.problems)
        if any(not p.what or not p.remedy for p in made.problems):
            found["WITHOUT A REMEDY"] += 1
        if made.faulty:
            found["refused by the proof"] += 1
            if plain and not faults(made.faulty, made.lent):
                found["FALSE ALARM"] += 1
                told.append(f"alarm, seed {seed}: {made.problems[0].what}; {'; '.join(c.said)}")
    return found, told


def rooms(first: int, count: int) -> tuple[Counter[str], list[str]]:
    """Rooms with the seeds from one on: nothing of one unit or board stands in another."""
    found: Counter[str] = Counter()
    told: list[str] = []
    for seed in range(first, first + count):
        c = a_room(random.Random(seed))
        made = Workings(c.job).made
        found["rooms"] += 1
        found["units in rooms"] += len(made.units)
        found["units refused in rooms"] += sum(bool(m.problems) and not m.parts for _, m in made.units)
        items = [i for i in made.parts() if not i.part.bend]
        solids = []
        for item in items:
            f = item.parent
            solids.append(placed(item.part).transform(np.column_stack([f.x, f.y, np.cross(f.x, f.y), f.origin])))
        boxes = np.array([s.bounding_box() for s in solids]).reshape(-1, 6)
        for i in range(len(items)):
            near = (np.minimum(boxes[:i, 3:], boxes[i, 3:]) - np.maximum(boxes[:i, :3], boxes[i, :3]) > 0.12).all(
                axis=1
            )
            for k in np.nonzero(near)[0]:
                if items[i].cell and items[i].cell == items[k].cell:
                    continue
                common = solids[i] ^ solids[int(k)]
                if common.volume() < 5.0:
                    continue
                x0, y0, z0, x1, y1, z1 = common.bounding_box()
                if min(x1 - x0, y1 - y0, z1 - z0) > 0.12:
                    found["SILENT FAULT BETWEEN UNITS"] += 1
                    told.append(f"room, seed {seed}: {items[i].number} and {items[int(k)].number}; {'; '.join(c.said)}")
    return found, told


def main() -> int:
    count, of_rooms, first = (int(v) for v in (*sys.argv[1:], *("20000", "500", "1")[len(sys.argv) - 1 :]))
    start = time.perf_counter()
    found: Counter[str] = Counter()
    told: list[str] = []
    step = 50
    workers = max(1, (os.cpu_count() or 2))
    with ProcessPoolExecutor(workers) as pool:
        tasks = [pool.submit(units, at, min(step, first + count - at)) for at in range(first, first + count, step)]
        tasks += [pool.submit(rooms, at, min(5, first + of_rooms - at)) for at in range(first, first + of_rooms, 5)]
        for i, task in enumerate(tasks, 1):
            some, words = task.result()
            found += some
            told += words
            if i % 40 == 0:
                print(f"{i} of {len(tasks)} lots, {time.perf_counter() - start:.0f} s", file=sys.stderr, flush=True)
    for line in told[:40]:
        print(re.sub(r"\s+", " ", line)[:400])
    print(f"{count} units and {of_rooms} rooms from seed {first} on, in {time.perf_counter() - start:.0f} s:")
    for name, number in sorted(found.items()):
        print(f"  {name:<32}{number:>8}")
    return 1 if any(name.isupper() for name in found) else 0


if __name__ == "__main__":
    sys.exit(main())
