"""Rods: running figures from one end, each where it is true or on a leader from there; matched fronts and levels."""

from __future__ import annotations

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.demo import demo_job
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.primitives import Dim, Layer, Line, Text
from tall_plank.drawing.rod import LEAN, rod_drawing, spread, wall_rows
from tall_plank.drawing.shows import Shows
from tall_plank.drawing.veneer import veneer_marks
from tall_plank.edits.papers import set_papers
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.making.matching import match_groups
from tall_plank.measure import format_length
from tall_plank.workings import Workings

PAPER = Shows(spread=True)


def furnished() -> Job:
    job = with_run(new_job(), "A", Level.BASE, "filler 50, drawers 600, pair 900, door rest")
    return with_run(job, "A", Level.HUNG, "pair 900, door 450")


@given(st.lists(st.floats(0, 400), min_size=1, max_size=40))
def test_figures_are_moved_apart_and_keep_their_order(places: list[float]) -> None:
    places = sorted(places)
    found = spread(places, LEAN)
    assert all(b - a >= LEAN - 1e-6 for a, b in zip(found, found[1:], strict=False))
    # Those that have room stay where they are.
    if all(b - a >= LEAN for a, b in zip(places, places[1:], strict=False)):
        assert found == pytest.approx(places)
    assert sum(found) == pytest.approx(sum(places), abs=1e-6)  # as much to the left as to the right


@pytest.mark.parametrize("number", [0, 1, 2])
def test_every_edge_of_every_unit_has_its_running_figure(number: int) -> None:
    w = Workings(demo_job())
    room = w.layout.rooms[number]
    for wall in room.lines:
        rod = rod_drawing(w.job, room, wall, w.made)
        units = [p for p in room.placed if p.wall_id == wall.id and p.width > 0]
        assert (rod is not None) or not units
        if rod is None:
            continue
        words = [i.text for i in rod.items if isinstance(i, Text) and i.layer is Layer.DIMENSION]
        for p in units:
            assert format_length(p.x, w.job.display) in words and format_length(p.right, w.job.display) in words
        for row in wall_rows(room, wall, w.made):
            for a, b, _ in row.spans:
                assert format_length(round(b, 2), w.job.display) in words and b > a
        # A leader goes from the true place to the figure.
        leaders = [i for i in rod.items if isinstance(i, Line) and i.layer is Layer.DIMENSION]
        assert len(leaders) == len(words)
        assert {format_length(i.x1, w.job.display) for i in leaders} == set(words)


def test_levels_and_heights_stand_at_what_they_measure_on_paper() -> None:
    job = with_run(new_job(), "A", Level.BASE, "pair 900, door 600, tall rest")
    job = with_run(job, "A", Level.HUNG, "pair 900")
    w = Workings(job)
    room = w.layout.rooms[0]
    wall = room.wall("A")
    drawing = elevation(job, room, wall, w.made, shows=PAPER)
    top = room.worktops[0]
    level = format_length(top.bottom + top.thickness, job.display)
    (word,) = [i for i in drawing.items if isinstance(i, Text) and i.text == f"▽ +{level}"]
    assert word.y == pytest.approx(top.bottom + top.thickness)
    right = [i for i in drawing.items if isinstance(i, Dim) and i.along == "y" and i.base == wall.length]
    tall = max(room.placed, key=lambda p: p.height)
    assert (tall.x + tall.right) / 2 > wall.length / 2 and any(d.b == pytest.approx(tall.top) for d in right)
    # On screen, where walls stand side by side, they stay at the left.
    strip = elevation(job, room, wall, w.made)
    assert not [i for i in strip.items if isinstance(i, Dim) and i.along == "y" and i.base == wall.length]


def test_chains_measure_to_the_edges_of_worktops_and_say_so() -> None:
    job = set_papers(furnished(), "chains", "worktops").job
    w = Workings(job)
    room = w.layout.rooms[0]
    wall = room.wall("A")
    dims = [
        i for i in elevation(job, room, wall, w.made).items if isinstance(i, Dim) and i.row == -1 and i.along == "x"
    ]
    ends = {round(v, 3) for t in room.worktops if t.wall_id == "A" for v in (t.x, t.x + t.length)}
    assert {round(d.b, 3) for d in dims} | {0.0} >= ends and dims[-1].name == "worktop edges"
    assert sum(d.b - d.a for d in dims) == pytest.approx(wall.length)


def test_matched_fronts_are_marked_by_row_place_and_way_of_the_grain() -> None:
    job = with_run(new_job(), "A", Level.BASE, "pair 900, drawers 600")
    job = msgspec.structs.replace(job, cutting=msgspec.structs.replace(job.cutting, matched="run"))
    w = Workings(job)
    groups = match_groups(w.made, "run")
    room = w.layout.rooms[0]
    words = [i.text for i in elevation(job, room, room.wall("A"), w.made, shows=PAPER).items if isinstance(i, Text)]
    marks = [t for t in words if " V" in t]
    assert len(marks) == len(groups)
    rows = {row for row, _, _ in groups.values()}
    assert {m.split(" V")[1].split(".")[0] for m in marks} == {str(n) for n in range(1, len(rows) + 1)}
    assert all(m[0] in "↑↓←→" for m in marks)
    plain = msgspec.structs.replace(job, cutting=msgspec.structs.replace(job.cutting, matched="no"))
    wp = Workings(plain)
    none = elevation(plain, wp.layout.rooms[0], wp.layout.rooms[0].wall("A"), wp.made, shows=PAPER)
    assert not [i for i in none.items if isinstance(i, Text) and " V" in i.text]


def test_worktops_of_one_height_have_one_level() -> None:
    job = with_run(new_job(), "A", Level.BASE, "pair 900, tall 600, pair 900")
    w = Workings(job)
    room = w.layout.rooms[0]
    assert len([t for t in room.worktops if t.wall_id == "A"]) > 1
    items = elevation(job, room, room.wall("A"), w.made, shows=PAPER).items
    assert len([i for i in items if isinstance(i, Text) and i.text.startswith("▽")]) == 1


def test_a_front_that_looks_along_the_wall_has_its_mark_on_the_other_one() -> None:
    job = with_run(new_job(), "A", Level.BASE, "pair 900, corner 900")
    job = msgspec.structs.replace(job, cutting=msgspec.structs.replace(job.cutting, matched="run"))
    w = Workings(job)
    room = w.layout.rooms[0]
    wall = room.wall("A")
    items = veneer_marks(job, room, wall, w.made)
    seen = {}
    for item in w.made.parts():
        corners = [wall.frame.into(item.parent.at(*item.part.frame.at(x, y, 0.0)))
                   for x, y in ((0.0, 0.0), (item.part.length, 0.0), (item.part.length, item.part.width))]  # fmt: skip
        seen[item.number] = max(c[1] for c in corners) - min(c[1] for c in corners) < 1.0
    groups = match_groups(w.made, "run")
    assert len(items) == sum(seen[number] for number in groups)
    # A front turned a quarter would have none.
    turned = room.wall("B")
    there = {p.cell for p in room.placed if p.wall_id == "B"}
    assert not there and not veneer_marks(job, room, turned, w.made)
