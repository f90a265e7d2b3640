"""Units and rooms by chance: any kind in any standard, with sizes, values, fronts, shelves, splits and units of length of
its own; rooms with runs round their corners, worktops, islands. For tests, and for `./plank bench proof`."""

from __future__ import annotations

import contextlib
import random
from collections.abc import Callable
from typing import Any

import msgspec

from tall_plank.edits import bays, jobs, rooms, runs, runtext, standards, tops, units
from tall_plank.edits.choices import CHOICES
from tall_plank.edits.things.island import add_island, set_island
from tall_plank.job import Body, Job, Kind, Level
from tall_plank.job.inherit import construction_of
from tall_plank.job.standard import LENGTH_KEYS
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.making import MadeUnit
from tall_plank.making.job import make_one
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.setout import set_out

KINDS = [t for t in shipped_templates() if t.body is not Body.GAP]
WIDTHS = (300, 400, 450, 500, 600, 800, 900, 1000, 1200)


class Chance:
    """A job that is changed by chance; what is refused is left out.

    Attributes
    ----------
    said : what was done, to be told with a fault
    """

    def __init__(self, rnd: random.Random) -> None:
        self.rnd = rnd
        self.job: Job = new_job()
        self.said: list[str] = []

    def attempt(self, edit: Callable[..., Any], *given: Any) -> Any:
        try:
            change = edit(self.job, *given)
        except PlankError:
            return None
        self.job = change.job
        self.said.append(f"{edit.__name__}{given!r}")
        return change


def a_unit(rnd: random.Random, *, plain: bool = False) -> tuple[Chance, MadeUnit]:
    """A unit made by itself.

    Parameters
    ----------
    plain : of a shipped kind at a width inside its range, and nothing else changed
    """
    c = Chance(rnd)
    kind = rnd.choice(KINDS)
    c.job = msgspec.structs.replace(c.job, standard=rnd.choice(c.job.standards).code)
    if rnd.random() < 0.3:
        c.attempt(jobs.set_display, rnd.choice(list(DisplayUnit)))
    c.said.append(f"{kind.code} in {c.job.standard}")
    c.job = runs.insert_unit(c.job, "r1", "A", kind.code).job
    cell = c.job.cells()[-1].id
    if plain:
        least, most = max(kind.least, 150.0), min(kind.most, 1200.0)
        if least <= most:
            c.attempt(runs.set_width, (cell,), f"{rnd.uniform(least, most):.1f}mm")
    else:
        _changed(c, cell)
    made = make_one(c.job, set_out(c.job), cell)
    assert made is not None
    return c, made


def _changed(c: Chance, cell: str) -> None:
    rnd = c.rnd
    if rnd.random() < 0.7:
        c.attempt(runs.set_width, (cell,), f"{rnd.choice([*WIDTHS, rnd.randint(150, 1200)])}mm")
    if rnd.random() < 0.3:
        c.attempt(units.set_own, (cell,), "depth", f"{rnd.randint(250, 700)}mm")
    if rnd.random() < 0.4:
        c.attempt(units.set_own, (cell,), "height", f"{rnd.randint(300, 2700)}mm")
    for key in rnd.sample(sorted(CHOICES), rnd.randint(0, 3)):
        c.attempt(units.set_own, (cell,), key, rnd.choice(sorted(CHOICES[key])))
    if rnd.random() < 0.5:
        now = construction_of(c.job, c.job.unit(c.job.find_cell(cell)[2].unit))
        for key in rnd.sample(LENGTH_KEYS, rnd.randint(1, 3)):
            mm = getattr(now, key) * rnd.choice([0.5, 0.7, 0.8, 0.9, 1.1, 1.25, 1.5, 2.0])
            c.attempt(standards.set_in_force, key, f"{round(mm * 2) / 2:g}mm")
    for _ in range(rnd.randint(0, 3)):
        bay = c.job.unit(c.job.find_cell(cell)[2].unit).bay
        path = rnd.choice([(), *bay.paths()])
        match rnd.choice(["front", "shelves", "split"]):
            case "front":
                c.attempt(bays.set_front, ((cell, path),), rnd.choice(sorted(bays.FRONTS)))
            case "shelves":
                c.attempt(bays.set_shelves, cell, path, str(rnd.randint(0, 5)))
            case _:
                split, between = rnd.choice([("rows", "shelf"), ("columns", "divider"), ("rows", "nothing")])
                c.attempt(bays.split_bay, cell, path, str(rnd.randint(2, 3)), split, between)


ENDS = ("corner 900", "slant corner 900", "blind 1000", "blind 1100", "")
IN_RUNS = [t for t in KINDS if not t.corner and t.gables]


def _words(rnd: random.Random, level: Level, length: float, end: str = "") -> str:
    left = length - (900 if "corner" in end else 1100 if end else 0)
    kinds = [t for t in IN_RUNS if t.level is level]
    found: list[str] = []
    while left > 450 and len(found) < 7:
        kind = rnd.choice(kinds)
        width = max(kind.least, min(kind.most, min(left, rnd.choice(WIDTHS))))
        if width > left:
            break
        found.append(f"{kind.words[0]} {int(width)}mm")
        left -= width
    return ", ".join([*found, *([end] if end else [])]) or "drawers 600mm"


def a_room(rnd: random.Random) -> Chance:
    """A room with runs on its walls, round a corner, hung above, and sometimes an island."""
    c = Chance(rnd)
    c.job = msgspec.structs.replace(c.job, standard=rnd.choice(c.job.standards).code)
    wide, deep = rnd.randint(3000, 6500), rnd.randint(2600, 5500)
    c.attempt(rooms.set_room_length, "r1", "width", f"{wide}mm")
    c.attempt(rooms.set_room_length, "r1", "depth", f"{deep}mm")

    def run(wall: str, level: Level, text: str) -> None:
        change = c.attempt(runs.add_run, "r1", wall, level)
        if change is not None:
            c.attempt(runtext.type_run, change.made[0], text)

    run("A", Level.BASE, _words(rnd, Level.BASE, wide, rnd.choice(ENDS)))
    if rnd.random() < 0.7:
        run("B", Level.BASE, _words(rnd, Level.BASE, deep - 1000))
    if rnd.random() < 0.6:
        run("A", Level.HUNG, _words(rnd, Level.HUNG, wide))
    if rnd.random() < 0.3:
        run("C", Level.BASE, _words(rnd, rnd.choice([Level.BASE, Level.TALL]), wide))
    base = c.job.rooms[0].runs[0].id if c.job.rooms[0].runs else ""
    if base and rnd.random() < 0.5:
        c.attempt(tops.set_top, Kind.RUN.of(base), "joint", rnd.choice(["butt", "mitre", "masons mitre"]))
    if base and rnd.random() < 0.4:
        key = rnd.choice(["waterfall_left", "waterfall_right", "upstand_back", "splashback"])
        c.attempt(tops.set_top, Kind.RUN.of(base), key, "500mm" if key == "splashback" else "yes")
    if rnd.random() < 0.3:
        change = c.attempt(add_island, "r1")
        if change is not None:
            name = change.made[0]
            c.attempt(set_island, name, "length", f"{rnd.randint(1200, 2600)}mm")
            for side in ("left", "right"):
                c.attempt(set_island, name, side, rnd.choice(["open", "panel", "waterfall"]))
            with contextlib.suppress(PlankError):
                run("K1", Level.BASE, "drawers rest, pair share")
    return c
