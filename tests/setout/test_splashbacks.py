"""Upstands and splashbacks: one above the other, as long as their worktop."""

from __future__ import annotations

import pytest

from conftest import with_run
from tall_plank.edits import tops
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.setout import TrimBoard, set_out


def with_splashback(upstand: bool) -> Job:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair rest")
    source = Kind.RUN.of(job.rooms[0].runs[0].id)
    job = tops.set_top(job, source, "splashback", "600").job
    return tops.set_top(job, source, "upstand_back", "yes").job if upstand else job


def board(job: Job, kind: str) -> TrimBoard:
    (found,) = [b for b in set_out(job).rooms[0].boards if b.kind == kind]
    return found


@pytest.mark.parametrize("upstand", [False, True])
def test_a_splashback_stands_on_the_worktop_or_on_its_upstand(upstand: bool) -> None:
    """An upstand of 60 mm lifts it by 60; nothing else moves it, and it keeps its own height."""
    job = with_splashback(upstand)
    top = set_out(job).rooms[0].worktops[0]
    surface = top.bottom + top.thickness
    found = board(job, "splashback")
    (x0, _, z0), (x1, y1, z1) = found.box()
    assert z0 == pytest.approx(surface + (60.0 if upstand else 0.0))
    assert z1 - z0 == pytest.approx(600.0)
    assert (x0, x1) == pytest.approx((top.x, top.x + top.length))
    assert y1 == pytest.approx(-top.rear)
    if upstand:
        low, high = board(job, "upstand").box()
        assert (low[2], high[2]) == pytest.approx((surface, surface + 60.0))
        assert high[1] - low[1] == pytest.approx(18.0)
