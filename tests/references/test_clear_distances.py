"""Clear distances on four sides of what hangs or stands on a wall, against boxes of the geometry library Shapely."""

from __future__ import annotations

import random

import pytest
from shapely.geometry import box
from shapely.geometry.base import BaseGeometry

from conftest import with_run
from tall_plank.edits import hanging
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.setout import Placed, set_out
from tall_plank.setout.clear import clear_of

LENGTH, HEIGHT, HAIR = 3600.0, 2500.0, 1e-6


def scattered(seed: int) -> Job:
    r = random.Random(seed)
    job = with_run(
        new_job(), "A", Level.BASE, r.choice(("drawers 600, pair 900", "gap 400, media 1500", "wardrobe 900"))
    )
    if r.random() < 0.5:
        job = with_run(job, "A", Level.HUNG, r.choice(("gap 1800, door 400", "door 500, gap 300, pair 800")))
    for _ in range(r.randint(1, 5)):
        code = r.choice(("floating", "wall-box", "hung-door", "floating-shelves"))
        job = hanging.hang(job, "r1", "A", code, float(r.randint(0, 3600)), float(r.randint(0, 2400))).job
    return job


def shape(p: Placed) -> BaseGeometry:
    return box(p.x, p.bottom, p.right, p.top)


def free_ways(p: Placed, others: list[BaseGeometry]) -> dict[str, float]:
    """How far the box about a unit can go to each side before it meets another or the wall's edge: the strip between
    it and the edge is cut by what stands there, and the distance to the nearest piece is taken."""
    strips = {
        "left": box(0.0, p.bottom, p.x, p.top),
        "right": box(p.right, p.bottom, LENGTH, p.top),
        "below": box(p.x, 0.0, p.right, p.bottom),
        "above": box(p.x, p.top, p.right, HEIGHT),
    }
    edges = {"left": p.x, "right": LENGTH - p.right, "below": p.bottom, "above": HEIGHT - p.top}
    mine, found = shape(p), {}
    for side, strip in strips.items():
        met = [strip.intersection(o) for o in others]
        near = [mine.distance(m) for m in met if m.area > HAIR]
        found[side] = min([edges[side], *near])
    return found


@pytest.mark.parametrize("seed", range(60))
def test_clear_distances_are_those_between_boxes(seed: int) -> None:
    job = scattered(seed)
    layout = set_out(job).rooms[0]
    for p in (p for p in layout.placed if p.level is Level.HUNG and p.is_solid):
        others = [shape(o) for o in layout.placed if o.cell != p.cell and o.is_solid]
        if any(shape(p).intersection(o).area > HAIR for o in others):
            continue  # one in the other has no clear distance; the proof of the making tells of it
        tops = [box(t.x, t.bottom, t.x + t.length, t.bottom + t.thickness) for t in layout.worktops]
        if any(shape(p).intersection(t).area > HAIR for t in tops):
            continue
        ways, clear = free_ways(p, others), clear_of(layout, p)
        below = free_ways(p, others + tops)["below"]
        assert (clear.left, clear.right, clear.above) == pytest.approx((ways["left"], ways["right"], ways["above"]))
        assert clear.below == pytest.approx(below)


@pytest.mark.parametrize("seed", range(60))
def test_a_typed_distance_puts_the_box_there(seed: int) -> None:
    from tall_plank.edits import runs

    r = random.Random(seed + 1000)
    job = scattered(seed)
    cell = next(c for _, run in job.runs() if run.free for c in run.cells)
    side, mm = r.choice(("left", "right", "below", "above")), float(r.randint(0, 900))
    before = set_out(job).find(cell.id)
    assert before is not None
    clear = getattr(clear_of(set_out(job).rooms[0], before), side)
    try:
        after = set_out(runs.set_clear(job, cell.id, side, f"{mm:g}").job).find(cell.id)
    except PlankError:
        return
    assert after is not None
    by = mm - clear
    moved = {"left": (by, 0.0), "right": (-by, 0.0), "below": (0.0, by), "above": (0.0, -by)}[side]
    x, y = (shape(after).centroid.x - shape(before).centroid.x, shape(after).centroid.y - shape(before).centroid.y)
    assert (x, y) == pytest.approx(moved, abs=1e-6)
