"""Units beside units, worktops, plinths and panels: nothing of one stands in another, by an independent check of rooms."""

from __future__ import annotations

import math
import random
from typing import Any

import msgspec
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from conftest import with_run
from making.chance import Chance, a_room
from making.independent import solid_of
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making.parts import Bevel
from tall_plank.workings import Workings


def meetings(w: Workings) -> list[tuple[str, str]]:
    """Parts of different units and boards that share space; slanted ends are left to their own test."""
    items = [i for i in w.made.parts() if not i.part.bend and not any(isinstance(o, Bevel) for o in i.part.operations)]
    solids: list[Any] = []
    for item in items:
        f = item.parent
        solids.append(solid_of(item.part).transform(np.column_stack([f.x, f.y, np.cross(f.x, f.y), f.origin])))
    boxes = [s.bounding_box() for s in solids]
    found = []
    for i, one in enumerate(items):
        for k in range(i):
            a, b = boxes[i], boxes[k]
            if one.cell and one.cell == items[k].cell:
                continue
            if all(min(a[3 + j], b[3 + j]) - max(a[j], b[j]) > 0.12 for j in range(3)):
                common = solids[i] ^ solids[k]
                if common.volume() > 5.0:
                    x0, y0, z0, x1, y1, z1 = common.bounding_box()
                    if min(x1 - x0, y1 - y0, z1 - z0) > 0.12:
                        found.append((one.number, items[k].number))
    return found


@settings(max_examples=12)
@given(st.integers(0, 10_000))
def test_nothing_of_one_thing_stands_in_another_in_any_room(seed: int) -> None:
    c: Chance = a_room(random.Random(seed))
    assert meetings(Workings(c.job)) == [], "; ".join(c.said)


def test_a_slanted_ends_door_at_its_shallow_side_stops_it_beside_a_unit() -> None:
    """It stood 12 mm in its neighbour's gable."""
    job = with_run(new_job(), "A", Level.BASE, "door 600, slant left 300, pair 600")
    w = Workings(job)
    told = {p.number: [q.what for q in m.problems] for p, m in w.made.units}
    assert not told["A1"] and not told["A3"]
    (problem,) = told["A2"]
    assert "door 1, and A1.2, right gable, take the same space" in problem
    made = w.made.units[1][1]
    assert made.parts == () and made.faulty and made.items == ()
    (fault,) = made.problems
    assert fault.place is not None and made.faulty[fault.parts[0] - 1].name == "door 1"
    assert any("take the same space" in s.what and s.where.label == "A2" for s in w.snags)
    assert not any("A2." in n for row in w.cut_rows for n in row.numbers)
    # At the end of its run, its shallow side free, it is right.
    assert all(
        m.parts for _, m in Workings(with_run(new_job(), "A", Level.BASE, "slant left 300, pair 600")).made.units
    )


@pytest.mark.parametrize("width", [250, 300, 400])
@pytest.mark.parametrize("side", ["left", "right"])
def test_plinths_meet_in_a_mitre_where_a_run_ends_in_a_slant(width: int, side: str) -> None:
    """They stood 12 mm in one another, in the job that ships."""
    text = f"slant left {width}, pair 900" if side == "left" else f"pair 900, slant right {width}"
    w = Workings(with_run(new_job(), "A", Level.BASE, text))
    plinths = [t.part for t in w.made.trims if t.kind == "plinth"]
    assert len(plinths) == 2 and all(p is not None for p in plinths)
    cuts = [op for p in plinths for op in p.operations if isinstance(op, Bevel)]  # type: ignore[union-attr]
    assert len(cuts) == 2 and cuts[0].angle == pytest.approx(cuts[1].angle)
    # Both turn by half of what the run turns: atan of what the unit loses in depth over its width.
    (slanted,) = [p for p in w.layout.rooms[0].placed if p.template.startswith("end-")]
    lost = slanted.depth - max(slanted.depth / 3, slanted.depth - slanted.width)
    assert cuts[0].angle == pytest.approx(math.degrees(math.atan2(lost, slanted.width)) / 2)
    assert {op.long for op in cuts} == {"B"}, "long at the front"
    assert w.snags == () or all("take the same space" not in s.what for s in w.snags)


def hung_and_tall() -> Job:
    job = with_run(new_job(), "A", Level.BASE, "tall 600, drawers 600")
    return with_run(job, "A", Level.HUNG, "pair 900")


def test_a_hung_unit_in_a_tall_one_is_told_at_both_their_numbers() -> None:
    w = Workings(hung_and_tall())
    faults = [q for _, m in w.made.units for q in m.problems if "take the same space" in q.what]
    clear = [s for s in w.snags if "take the same space" in s.what]
    over = [p for p in w.layout.rooms[0].placed if p.level is Level.HUNG and p.x < 600.0]
    assert bool(faults) == bool(clear) == bool(over)


def test_what_stands_right_is_as_it_was() -> None:
    """A room without a clash keeps its units as they were made, to the object."""
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, sink 900, door 450")
    w = Workings(job)
    again = Workings(msgspec.structs.replace(job, name="Other"))
    assert [m for _, m in w.made.units] == [m for _, m in again.made.units]
    assert all(m.parts and not m.faulty for _, m in w.made.units)
