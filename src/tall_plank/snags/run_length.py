"""Runs that are longer than their line allows, or whose cells cannot stand where they are held. Source: arithmetic."""

from __future__ import annotations

from tall_plank.job import Job, Snag, Where
from tall_plank.measure import format_length
from tall_plank.setout import RunLayout
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    found = []
    for room in checked.layout.rooms:
        for run in room.runs:
            found += [_short(checked.job, room.room.id, run, s.cell, s.mm) for s in run.shorts if s.mm > 0.001]
            found += _beyond(checked.job, room.room.id, run)
            for cell in run.unmet:
                placed = next(p for p in run.cells if p.cell == cell)
                where = Where(room.room.id, run.wall.id, run.run.id, cell, placed.number)
                what = "What held it is not on this wall; it stands by its order."
                found.append(Snag("held", what, "Hold it by something else, or let go.", where, "mind"))
    return found


def _beyond(job: Job, room: str, run: RunLayout) -> list[Snag]:
    """What hangs free past an end of its line: the wall was made shorter, or what holds it stands there."""
    if not run.run.free or not run.cells:
        return []
    found = []
    for side, mm, p in (("left", -run.x, run.cells[0]), ("right", run.end - run.wall.length, run.cells[-1])):
        if mm > 0.001:
            where = Where(room, run.wall.id, run.run.id, p.cell, p.number)
            past = format_length(mm, job.display, mark=True)
            what = f"It reaches {past} past the {side} end of {run.wall.title}."
            found.append(Snag("run length", what, "Move it, or make it narrower.", where))
    return found


def _short(job: Job, room: str, run: RunLayout, cell: str, mm: float) -> Snag:
    short = format_length(mm, job.display, mark=True)
    head = f"The {run.run.level} run on {run.wall.title} is {short} short"
    label = f"{run.wall.title}, {run.run.level} run"
    if not cell:
        where = Where(room, run.wall.id, run.run.id, "", label)
        return Snag(
            "run length", f"{head}.", "Make a unit narrower, take one out, or let one take what is left.", where
        )
    placed = next(p for p in run.cells if p.cell == cell)
    where = Where(room, run.wall.id, run.run.id, cell, placed.number or label)
    name = placed.number or "a gap"
    remedy = f"Make a unit before {name} narrower, take one out, or let {name} go."
    return Snag("run length", f"{head} before {name}, which is held in its place.", remedy, where)
