"""Raking panels against what a stair builder works out by hand (common practice): plumb height of a rail, length at the
long points, saw angle, and the diagonal of a panel."""

from __future__ import annotations

import math

import pytest

from tall_plank.edits import rooms
from tall_plank.edits.things.wall_field import add_field
from tall_plank.edits.treatments import set_zone
from tall_plank.job.start import new_job
from tall_plank.workings import Workings


def test_a_stair_of_three_to_four() -> None:
    """Rise to going as 3 to 4 (36.8699°): the triangle of 3, 4 and 5 gives every figure without a table."""
    job = rooms.set_room_length(new_job("Stair"), "r1", "width", "4000mm").job
    job = rooms.set_room_length(job, "r1", "height", "5000mm").job
    job = add_field(job, "r1", "A", "raked panels").job
    t = job.treatments[0].id
    job = set_zone(job, t, (), "angle", "36.86989764584402").job
    job = set_zone(job, t, (), "height", "1000mm").job
    for key, text in (("target", "900mm"), ("stile", "80mm"), ("step", "0mm"), ("top_rail", "80mm")):
        job = set_zone(job, t, (0,), key, text).job
    job = set_zone(job, t, (0,), "bottom_rail", "160mm").job
    w = Workings(job)
    (s,) = w.layout.rooms[0].fields[0].zones[0].stretches
    assert s.grid is not None
    # Rails of 80 and 160 square to the rake are 100 and 200 plumb: 700 are left for the panels.
    assert s.grid.height == pytest.approx(700.0, abs=1e-6)
    # 4000 - 5 x 80 = 3600; 3600 / 4 = 900.
    assert s.grid.panels == pytest.approx((900.0,) * 4, abs=1e-9)
    parts = [t.part for t in w.made.trims if t.part is not None]
    stile = next(p for p in parts if p.role == "wall stile" and p.length > 1000)
    # Its long side is as much longer as the stair rises on its width: 80 x 3 / 4 = 60.
    assert stile.length == pytest.approx(1060.0, abs=1e-6)
    rails = [p for p in parts if p.role == "wall rail"]
    # Along the rake 3840 mm between the end stiles are 4800; a plumb cut takes 3 / 4 of the width, 120 of 160.
    whole = sum(p.length for p in rails if p.width > 100)
    count = sum(1 for p in rails if p.width > 100)
    assert whole == pytest.approx(4800.0 + 120.0 * count, abs=1e-5)
    for p in rails:
        (x0, y0), (x1, y1) = p.outline[0], p.outline[-1]
        lean = math.degrees(math.atan2(abs(x1 - x0), abs(y1 - y0)))
        assert lean == pytest.approx(36.8699, abs=1e-3), "the saw stands at the stair's angle from square"
