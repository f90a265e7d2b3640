"""What stands round the corner shows at the end of an elevation where it stands, and only there."""

from __future__ import annotations

import pytest

from conftest import cell_of, with_run
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.primitives import Drawing, Layer, Shape
from tall_plank.edits import runs
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.workings import Workings


def drawn(job: Job, wall: str) -> Drawing:
    w = Workings(job)
    room = w.layout.rooms[0]
    return elevation(job, room, room.wall(wall), w.made)


def spans(job: Job, wall: str, number: str) -> list[tuple[float, float]]:
    """From where to where the carcass of a unit is drawn on a wall, mm."""
    source = Kind.CELL.of(cell_of(job, number))
    shapes = [i for i in drawn(job, wall).items if isinstance(i, Shape) and i.source == source]
    return [(min(x for x, _ in s.points), max(x for x, _ in s.points)) for s in shapes if s.layer is Layer.CARCASS]


def beside() -> Job:
    """A full run on wall B: its first unit stands in the corner with A, its last in that with C."""
    return with_run(new_job(), "B", Level.BASE, "drawers 600, pair rest, door 600")


def test_the_first_unit_of_the_next_wall_shows_at_the_right() -> None:
    job = beside()
    # 560 of carcass and 19 of front, seen from the side against the right end of a wall of 3600.
    assert spans(job, "A", "B1") == [pytest.approx((3600.0 - 579.0, 3600.0))]
    assert spans(job, "A", "B3") == [] and spans(job, "A", "B2") == []


def test_the_last_unit_of_the_wall_before_shows_at_the_left() -> None:
    job = beside()
    assert spans(job, "C", "B3") == [pytest.approx((0.0, 579.0))]
    assert spans(job, "C", "B1") == [] and spans(job, "C", "B2") == []
    assert spans(job, "D", "B1") == [] and spans(job, "D", "B3") == []


@pytest.mark.parametrize(
    ("key", "text", "there"), [("start", "4", True), ("start", "300", True), ("start", "500", False)]
)
def test_what_keeps_away_from_the_corner_does_not_show(key: str, text: str, there: bool) -> None:
    job = beside()
    job = runs.set_run_length(job, job.rooms[0].runs[0].id, key, text).job
    assert bool(spans(job, "A", "B1")) is there


def test_the_worktop_round_the_corner_shows_as_deep_as_it_is() -> None:
    job = beside()
    top = Workings(job).layout.rooms[0].worktops[0]
    for wall, low, high in (("A", 3600.0 - top.depth, 3600.0), ("C", 0.0, top.depth)):
        shapes = [i for i in drawn(job, wall).items if isinstance(i, Shape) and i.source == top.source]
        found = [s for s in shapes if s.layer is Layer.TRIM and max(y for _, y in s.points) > 800.0]
        assert [(min(x for x, _ in s.points), max(x for x, _ in s.points)) for s in found] == [(low, high)]
        assert max(y for _, y in found[0].points) == pytest.approx(top.bottom + top.thickness)
