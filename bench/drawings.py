"""Figures of the drawings: ./plank bench drawings [JOBS SEED]

Speed: medians of several runs in this process. What can be read: over the demo and random jobs, all sheets.
"""

from __future__ import annotations

import dataclasses
import random
import re
import statistics
import sys
import tempfile
import time
from itertools import product
from pathlib import Path

import msgspec

from tall_plank.demo import demo_job
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.placing import LEAST
from tall_plank.drawing.primitives import Dim, Drawing, Line, Pen, Shape, Text
from tall_plank.drawing.seen import Standpoint, Way, see
from tall_plank.drawing.shown import shown
from tall_plank.drawing.words import box_of
from tall_plank.edits import jobs, rooms, runs, runtext
from tall_plank.edits.papers import set_papers
from tall_plank.edits.things.column import add_column
from tall_plank.edits.things.detail import add_detail, set_detail
from tall_plank.edits.things.opening import add_opening
from tall_plank.edits.things.section import add_section
from tall_plank.edits.things.service import add_service
from tall_plank.edits.things.slope import add_slope
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making.parts import Bore
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.measure.remembered import forget_all
from tall_plank.papers.sets import KINDS, set_sheets
from tall_plank.solids.room import solids_in
from tall_plank.workings import Workings

rows: list[tuple[str, float, float, str, float]] = []


def report(name: str, values: list[float] | float, unit: str, target: float) -> None:
    """A figure: the median of what was measured, and the least."""
    found = values if isinstance(values, list) else [values]
    rows.append((name, statistics.median(found), min(found), unit, target))


def a_wall(count: int) -> Job:
    """A wall of so many units, half of them hung."""
    job = rooms.set_room_length(new_job("Wall"), "r1", "width", f"{min(count * 300 + 200, 49_000)}mm").job
    for level, text in (
        (Level.BASE, "drawers 400, sink 540, door 300, pair 600"),
        (Level.HUNG, "pair 500, door 450, open 300, pair 600"),
    ):
        change = runs.add_run(job, "r1", "A", level)
        kinds = text.split(", ")
        job = runtext.type_run(change.job, change.made[0], ", ".join(kinds[i % 4] for i in range(count // 2))).job
    return job


def hidden_lines() -> None:
    for count, whole, again in ((60, 25.0, 5.0), (200, 80.0, 0.0)):
        job = a_wall(count)
        w = Workings(job)
        room = w.layout.rooms[0]
        wall = room.wall("A")
        way = Way(wall.frame.origin, wall.frame.x, (0.0, 0.0, 1.0), near=2400.0, far=-1.0)
        times, later = [], []
        for _ in range(9):
            start = time.perf_counter()
            solids = solids_in(job, room, w.made, hidden=False)
            see(solids, way)
            times.append((time.perf_counter() - start) * 1000)
        report(f"scene and hidden lines of {count} units", times, "ms", whole)
        stand = Standpoint(way)
        stand.see(solids)
        cell = room.placed[5].cell
        for i in range(9):
            changed = [dataclasses.replace(s, color=f"#00000{i}") if s.source.id == cell else s for s in solids]
            start = time.perf_counter()
            stand.see(changed)
            later.append((time.perf_counter() - start) * 1000)
        if again:
            report(f"one of {count} units looked at anew", later, "ms", again)


def dimensions_of_a_wall() -> None:
    job = a_wall(40)
    w = Workings(job)
    room = w.layout.rooms[0]
    drawing = elevation(job, room, room.wall("A"), w.made)
    bare = Drawing("", tuple(i for i in drawing.items if not isinstance(i, Dim | Text)), 0, 0, drawing.x1, drawing.y1)
    whole, without = [], []
    for _ in range(9):
        for d, into in ((drawing, whole), (bare, without)):
            shown.cache_clear()
            start = time.perf_counter()
            shown(d, 50.0)
            into.append((time.perf_counter() - start) * 1000)
    more = [a - b for a, b in zip(sorted(whole), sorted(without), strict=True)]
    report("a wall of 40 units dimensioned and placed, more", more, "ms", 5.0)


def the_whole_set() -> None:
    from tall_plank.papers.write_pdf import write_sheets

    w = Workings(demo_job())
    _ = w.made, w.plan
    shown.cache_clear()
    start = time.perf_counter()
    count = 0
    for kind in KINDS:
        sheets = set_sheets(w, kind, "2026-11-28")
        count += len(sheets)
        with tempfile.TemporaryDirectory() as folder:
            write_sheets(sheets, Path(folder) / "set.pdf", "x")
    report(f"all four sets of the demo as PDF, {count} sheets", time.perf_counter() - start, "s", 20.0)


def random_job(seed: int) -> Job:
    """A room of random sizes with things of every kind, some in inches."""
    rng = random.Random(seed)
    job = new_job(f"Random {seed}")
    job = jobs.set_display(
        job, rng.choice([DisplayUnit.MM, DisplayUnit.MM, DisplayUnit.FRACTION_16, DisplayUnit.FEET])
    ).job
    for key, low, high in (("width", 2600, 6500), ("depth", 2400, 5200)):
        job = rooms.set_room_length(job, "r1", key, f"{rng.randint(low, high)}mm").job
    base = ["drawers 600", "pair 900", "door 450", "sink 900", "open 300", "filler 37", "drawers 523", "pair 812"]
    hung = ["pair 900", "door 450", "open 300", "pair 700", "door 333"]
    steps = []
    for wall in "ABCD":
        if rng.random() < 0.7:
            steps.append(("run", wall, Level.BASE, ", ".join(rng.sample(base, rng.randint(1, 4)))))
        if rng.random() < 0.5:
            steps.append(("run", wall, Level.HUNG, ", ".join(rng.sample(hung, rng.randint(1, 3)))))
        if rng.random() < 0.5:
            steps.append(("opening", wall, rng.choice(["window", "door", "arch"]), rng.randint(0, 2000)))
        if rng.random() < 0.3:
            steps.append(("service", wall, rng.choice(["water", "power", "waste"]), rng.randint(100, 2000)))
        if rng.random() < 0.2:
            steps.append(("column", wall, "column", rng.randint(0, 2000)))
        if rng.random() < 0.15:
            steps.append(("slope", wall, "", 0))
    if rng.random() < 0.5:
        steps.append(("section", "", rng.choice("xy"), 0))
    for kind, wall, what, value in steps:
        try:
            if kind == "run":
                change = runs.add_run(job, "r1", wall, what)
                job = runtext.type_run(change.job, change.made[0], value).job
            elif kind == "opening":
                job = add_opening(job, "r1", wall, what, float(value)).job
            elif kind == "service":
                job = add_service(job, "r1", wall, what, float(value)).job
            elif kind == "column":
                job = add_column(job, "r1", wall, what, float(value)).job
            elif kind == "slope":
                job = add_slope(job, "r1", wall).job
            else:
                job = add_section(job, "r1", what).job
        except PlankError:
            continue  # what does not fit there is left out
    return _drawn_further(job, random.Random(seed + 1_000_000))


def _drawn_further(job: Job, rng: random.Random) -> Job:
    """With details anywhere, chains that measure to something else, fronts matched."""
    for _ in range(rng.randint(0, 3)):
        cut = rng.choice(["upright", "level", "seen"])
        change = add_detail(job, "r1", rng.choice("ABCD"), rng.uniform(0, 4000), rng.uniform(0, 2500), cut)
        job = set_detail(change.job, change.made[0], "scale", rng.choice(["1:1", "1:2", "1:5", "1:10"])).job
    job = set_papers(job, "chains", rng.choice(["carcass", "fronts", "worktops"])).job
    matched = rng.choice(["no", "unit", "run"])
    return msgspec.structs.replace(job, cutting=msgspec.structs.replace(job.cutting, matched=matched))


def told_by(drawing: Drawing) -> set[tuple[str, int, int]]:
    """Face and place (tenths of a mm) of every hole that the words of a part's drawing tell, in mm."""
    lines = [i.text for i in drawing.items if isinstance(i, Text) and i.align == "left" and not i.quiet]
    found: set[tuple[str, int, int]] = set()
    face, text = "", ""

    def close() -> None:
        match = re.fullmatch(r"(\w) (.+): (\w) (.+)", text.strip())
        if face and match:
            first = {"W1": "y", "W2": "y"}.get(face, "x")
            for across, along in product(_steps(match[2]), _steps(match[4])):
                u, v = (across, along) if match[1] == first else (along, across)
                found.add((face, round(u * 10), round(v * 10)))

    for line in lines:
        if head := re.match(r"\d+ on (\w+): hole", line):
            close()
            face, text = head[1], ""
        elif line.startswith("      "):
            text += " " + line.strip()
        elif line.startswith("   ") and re.match(r"\s+[xyz] ", line):
            close()
            text = line
        elif not line.startswith("   "):
            close()
            face, text = "", ""
    close()
    return found


def _steps(text: str) -> list[float]:
    found: list[float] = []
    for piece in text.split(", "):
        numbers = [float(t.lstrip("~")) for t in re.findall(r"~?[\d.]+", piece)]
        found += [numbers[0] + i * numbers[2] for i in range(int(numbers[1]) + 1)] if "×" in piece else numbers[:1]
    return found


def what_is_read(count: int, seed: int) -> None:
    """Over the demo and random jobs: holes that no words tell, figures dropped, words over words, too small."""
    holes = dropped = over = small = sheets = figures = 0
    worst = 0.0
    for n in range(count + 1):
        job = demo_job() if n == 0 else random_job(seed + n)
        w = Workings(job)
        by_number = {item.number: item.part for item in w.made.parts()}
        for kind in KINDS:
            for sheet in set_sheets(w, kind, "2026-11-28"):
                sheets += 1
                boxes: list[tuple[float, float, float, float]] = []
                for view in sheet.views:
                    seen = view.shown
                    dims = [d for d in view.drawing.items if isinstance(d, Dim)]
                    figures += len(dims)
                    dropped += _dropped(dims, seen.figures)
                    small += sum(t.size < LEAST - 1e-9 for t in seen.texts)
                    for text in seen.texts:
                        x0, y0, x1, y1 = box_of(text, view.scale)
                        boxes.append((view.x + x0, view.y + y0, view.x + x1, view.y + y1))
                    worst = max(worst, _hidden_share(view.drawing, view.scale))
                    if job.display is DisplayUnit.MM and view.drawing.mark in by_number and view.drawing.scale:
                        holes += _untold(view.drawing, by_number[view.drawing.mark])
                over += _overlaps(boxes)
        forget_all()
    report(f"sheets of {count + 1} jobs, {figures} figures: dropped", dropped, "", 0.5)
    report(f"words over words on {sheets} sheets", over, "", 0.5)
    report("words under 1.8 mm", small, "", 0.5)
    report("holes of parts that no words tell", holes, "", 0.5)
    report("most of a DXF's lines that fills hide", worst * 100, "%", 0.05)


def _untold(drawing: Drawing, part: object) -> int:
    told = told_by(drawing)
    missing = 0
    for op in part.operations:  # type: ignore[attr-defined]
        if isinstance(op, Bore):
            u, v = round(op.x * 10), round(op.y * 10)
            missing += not any((op.face, u + a, v + b) in told for a in (-1, 0, 1) for b in (-1, 0, 1))
    return missing


def _dropped(dims: list[Dim], figures: tuple[object, ...]) -> int:
    """Distances that no figure says; one in a row of equal ones that are one figure is said by it."""
    said = [f.dim for f in figures if f.text is not None]  # type: ignore[attr-defined]

    def is_said(d: Dim) -> bool:
        low, high = sorted((d.a, d.b))
        return any(
            s.along == d.along and s.row == d.row and abs(s.base - d.base) < 0.1
            and min(s.a, s.b) <= low + 0.06 and max(s.a, s.b) >= high - 0.06
            for s in said
        )  # fmt: skip

    return sum(not is_said(d) for d in dims)


def _overlaps(boxes: list[tuple[float, float, float, float]]) -> int:
    boxes.sort()
    count = 0
    for i, a in enumerate(boxes):
        for b in boxes[i + 1 :]:
            if b[0] >= a[2] - 1e-6:
                break
            count += a[1] < b[3] - 1e-6 and b[1] < a[3] - 1e-6
    return count


def _hidden_share(drawing: Drawing, scale: float) -> float:
    """Share of the drawn lines' length that lies under a fill of the same file: fills come first, so none should."""
    seen = shown(drawing, scale)
    last_fill = max((i for i, x in enumerate(seen.drawn) if isinstance(x, Shape) and x.fill), default=-1)
    lines = [
        (i, x)
        for i, x in enumerate(seen.drawn)
        if isinstance(x, Line) or (isinstance(x, Shape) and x.pen is not Pen.NONE)
    ]
    return sum(i < last_fill for i, _ in lines) / len(lines) if lines else 0.0


def main() -> None:
    numbers = [int(a) for a in sys.argv[1:] if a.isdigit()]
    hidden_lines()
    dimensions_of_a_wall()
    the_whole_set()
    what_is_read(numbers[0] if numbers else 40, numbers[1] if len(numbers) > 1 else 0)
    print(f"{'figure':<62} {'median':>9} {'least':>9} {'target':>11}")
    for name, value, least, unit, target in rows:
        mark = "ok" if value < target else "MISSED"
        print(f"{name:<62} {value:>9.2f} {least:>9.2f} {unit:<3} {target:>7g}  {mark}")


if __name__ == "__main__":
    main()
