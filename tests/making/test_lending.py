"""Units without gables: every hole that they ask for is drilled in a panel beside them, or they are not made."""

from __future__ import annotations

import math

import msgspec
import pytest

from conftest import with_run
from tall_plank.edits import rooms, units
from tall_plank.edits.choices import CHOICES
from tall_plank.edits.things.island import add_island, set_island
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making.parts import Bore, Groove
from tall_plank.workings import Workings


def on_wall(text: str, standard: str = "quay-dowelled") -> Job:
    return with_run(msgspec.structs.replace(new_job(), standard=standard), "A", Level.BASE, text)


@pytest.mark.parametrize("joint", sorted(CHOICES["joint"]))
@pytest.mark.parametrize("standard", [s.code for s in new_job().standards])
def test_panels_of_a_run_are_drilled_for_what_stands_between_them(joint: str, standard: str) -> None:
    """On a wall they had no hole at all."""
    job = on_wall("panel, between 600, panel", standard)
    between = job.cells()[1].id
    job = units.set_own(job, (between,), "joint", joint).job
    w = Workings(job)
    made = [m for _, m in w.made.units]
    assert all(m.parts and not m.problems for m in made), [p.what for m in made for p in m.problems]
    asked = sum(len(works) for _, works in made[1].lent)
    drilled = [op for m in (made[0], made[2]) for op in m.parts[0].operations if isinstance(op, Bore | Groove)]
    assert asked == len(drilled) > 0
    # Each hole stands where the unit asks for it, in the room.
    (place,) = [p for p, m in w.made.units if m is made[1]]
    places = [place.frame.at(*work.at) for _, works in made[1].lent for work in works if work.to is None]
    for p, m in (w.made.units[0], w.made.units[2]):
        for op in m.parts[0].operations:
            if isinstance(op, Bore):
                at = p.frame.at(*m.parts[0].place(op.face, op.x, op.y))
                assert min(math.dist(at, other) for other in places) < 0.01


@pytest.mark.parametrize(
    ("text", "sides"),
    [
        ("between 600", {"left", "right"}),
        ("panel, between 600", {"right"}),
        ("between 600, panel", {"left"}),
        ("panel, between 600, drawers 600", {"right"}),
        ("panel, between 600, between 600, panel", {"left", "right"}),
    ],
)
def test_a_unit_that_nothing_carries_is_not_made(text: str, sides: set[str]) -> None:
    w = Workings(on_wall(text))
    told = {
        side
        for _, m in w.made.units
        for p in m.problems
        if "Nothing stands at its" in p.what
        for side in ("left", "right")
        if side in p.what
    }
    assert told == sides
    for placed, made in w.made.units:
        if placed.template == "spine-bay":
            assert made.parts == () and made.items == ()
    assert any("Nothing stands at its" in s.what and s.weight == "wrong" for s in w.snags)


def island(text: str) -> Job:
    job = rooms.set_room_length(rooms.set_room_length(new_job(), "r1", "width", "6000").job, "r1", "depth", "5000").job
    change = add_island(job, "r1")
    job = set_island(change.job, change.made[0], "length", "2000").job
    return with_run(job, "K1", Level.BASE, text)


def test_on_an_island_the_end_panels_carry_and_a_panel_between_two_is_drilled_from_both_sides() -> None:
    one = Workings(island("between rest"))
    assert all(m.parts for _, m in one.made.units)
    two = Workings(island("between 900, between rest"))
    assert all(not m.parts for _, m in two.made.units)
    # With a panel between them both are carried; where dowels from both sides meet in it, that is told.
    three = Workings(island("between 900, panel, between rest"))
    placed, panel = three.made.units[1]
    assert placed.template == "panel"
    if panel.parts:
        assert {op.face for op in panel.parts[0].operations if isinstance(op, Bore)} == {"A", "B"}
    else:
        assert "runs into" in panel.problems[0].what and panel.problems[0].remedy
