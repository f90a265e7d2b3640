"""Measured figures of paneled walls: ./plank bench paneling

Medians of several runs in this process with the fastest and the slowest; every run changes the job anew, so that
nothing is kept from the one before. Targets are those of the issue.
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable, Iterator

from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.plan import plan
from tall_plank.edits.rooms import set_room_length
from tall_plank.edits.things.opening import add_opening
from tall_plank.edits.things.wall_field import add_field, repeat_on
from tall_plank.edits.treatments import set_band, set_zone
from tall_plank.job import Job
from tall_plank.job.start import new_job
from tall_plank.scene import visible_scene
from tall_plank.workings import Workings

RUNS = 25


def report(name: str, values: list[float], target: float) -> None:
    middle = statistics.median(values)
    told = "" if middle <= target else "  MISSED"
    print(f"{name:64} {middle:8.1f} ms ({min(values):.1f} to {max(values):.1f})  target {target:g}{told}")


def measured(job: Job, changes: Iterator[Job], work: Callable[[Job], object]) -> list[float]:
    """Milliseconds of the work after each change."""
    work(job)
    found = []
    for changed in changes:
        start = time.perf_counter()
        work(changed)
        found.append((time.perf_counter() - start) * 1000)
    return found


def slats_under_an_arch() -> None:
    """250 slats round an arch: parts, drawing and mesh after a change."""
    job = set_room_length(new_job("Slats"), "r1", "width", "5000mm").job
    job = add_field(job, "r1", "A", "arch in slats").job
    treatment = job.treatments[0].id
    job = set_zone(job, treatment, (1,), "pattern", "10 gap 10").job
    job = set_zone(job, treatment, (0,), "groove", "0mm").job

    def work(changed: Job) -> None:
        w = Workings(changed)
        room = w.layout.rooms[0]
        elevation(changed, room, room.wall("A"), w.made)
        visible_scene(changed, w.layout, w.made, room.room.id)

    def parts_only(changed: Job) -> None:
        assert Workings(changed).made.trims

    w = Workings(job)
    count = sum(t.part is not None and t.part.role == "slat" for t in w.made.trims)
    sizes = [f"{901 + i}mm" for i in range(2 * RUNS)]
    report(
        f"{count} slats round an arch: parts",
        measured(job, (set_zone(job, treatment, (), "width", s).job for s in sizes[:RUNS]), parts_only),
        30.0,
    )
    report(
        f"{count} slats round an arch: parts, drawing, mesh",
        measured(job, (set_zone(job, treatment, (), "width", s).job for s in sizes[RUNS:]), work),
        30.0,
    )


def four_walls() -> None:
    """Four paneled walls set out again while the dado is dragged: to all 2D views."""
    job = set_room_length(new_job("Hall"), "r1", "width", "4800mm").job
    for wall, x in (("A", 600.0), ("C", 2000.0)):
        job = add_opening(job, "r1", wall, "door", x).job
    change = add_field(job, "r1", "A", "dado")
    job = repeat_on(change.job, change.made[0], ("B", "C", "D")).job
    treatment = job.treatments[0].id

    def work(changed: Job) -> None:
        w = Workings(changed)
        room = w.layout.rooms[0]
        for wall in room.walls:
            elevation(changed, room, wall, w.made)
        plan(changed, room, w.made)

    heights = [f"{901 + i}mm" for i in range(RUNS)]
    report(
        "four paneled walls while the dado is dragged: 2D views",
        measured(job, (set_band(job, treatment, (), 0, h).job for h in heights), work),
        20.0,
    )

    def edit_and_set_out(changed: Job) -> None:
        assert Workings(changed).made.trims

    heights = [f"{700 + i}mm" for i in range(RUNS)]
    report(
        "  of that: set out and made",
        measured(job, (set_band(job, treatment, (), 0, h).job for h in heights), edit_and_set_out),
        20.0,
    )


def many_modules() -> None:
    """60 whole modules, and the same with cut ones at the edges: parts after a change."""
    for width, edges, target in (("6000mm", "bare", 10.0), ("6300mm", "cut", 20.0)):
        job = set_room_length(new_job("Modules"), "r1", "width", width).job
        job = add_field(job, "r1", "A", "modules").job
        treatment = job.treatments[0].id
        for key, text in (("width", "480mm"), ("height", "480mm"), ("ring", "120mm"), ("edges", edges)):
            job = set_zone(job, treatment, (), key, text).job

        def work(changed: Job) -> None:
            assert Workings(changed).made.trims

        laid = Workings(job).layout.rooms[0].fields[0].zones[0].modules
        assert laid is not None
        pieces = sum(t.part is not None for t in Workings(job).made.trims)
        rings = [f"{100 + i / 2:g}mm" for i in range(RUNS)]
        name = f"{len(laid.whole)} whole modules, {len(laid.cut)} cut pieces: {pieces} parts"
        report(name, measured(job, (set_zone(job, treatment, (), "ring", r).job for r in rings), work), target)


def main() -> None:
    slats_under_an_arch()
    many_modules()
    four_walls()


if __name__ == "__main__":
    main()
