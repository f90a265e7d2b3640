"""The demo job: Skerry Quay, a boathouse conversion. All names, prices and finishes are invented."""

from __future__ import annotations

from tall_plank.edits import jobs, rooms, runs, runtext, units
from tall_plank.edits.change import Change
from tall_plank.job import Job, Level, Role
from tall_plank.job.start import new_job


def demo_job() -> Job:
    """A galley kitchen: two base runs, one hung run, a window over the sink, a door in the west wall."""
    job = new_job("Skerry Quay")

    def do(change: Change) -> Change:
        nonlocal job
        job = change.job
        return change

    do(jobs.set_text(job, "number", "SQ-014"))
    do(jobs.set_text(job, "client", "M. Harrow"))
    do(jobs.set_text(job, "site", "The Boathouse, Skerry Quay"))
    do(rooms.rename_room(job, "r1", "Galley"))
    do(rooms.set_room_length(job, "r1", "width", "4050mm"))
    do(rooms.set_room_length(job, "r1", "depth", "2400mm"))
    do(rooms.set_room_length(job, "r1", "height", "2450mm"))
    window = do(rooms.add_opening(job, "r1", "A", "window")).made[0]
    for key, text in (("width", "1200mm"), ("x", "950mm"), ("sill", "1080mm"), ("height", "1050mm")):
        do(rooms.set_opening(job, window, key, text))
    door = do(rooms.add_opening(job, "r1", "D", "door")).made[0]
    do(rooms.set_opening(job, door, "x", "760mm"))
    base = do(runs.add_run(job, "r1", "A", Level.BASE)).made[0]
    text = "filler 50, drawers 600, door 450, sink 900, dishwasher 600, drawers 500, pair 700, open rest"
    do(runtext.type_run(job, base, text))
    hung = do(runs.add_run(job, "r1", "A", Level.HUNG)).made[0]
    do(runtext.type_run(job, hung, "pair 850, gap 1400, pair 900, door share, door share, open 300"))
    south = do(runs.add_run(job, "r1", "C", Level.BASE)).made[0]
    do(runs.set_run_length(job, south, "start", "450mm"))
    do(runs.set_run_length(job, south, "end", "1000mm"))
    do(runtext.type_run(job, south, "drawers 900, pair share, pair share, open 300"))
    do(units.set_standard_value(job, "front_style", "framed"))
    do(units.set_scheme_finish(job, Role.FRONT, "sea-sage"))
    right_door = next(c.id for c in job.cells() if c.number == "A11")
    do(units.set_hand(job, (right_door,), "right"))
    return job
