"""Islands and peninsulas: faces, what closes them, worktops with seating and waterfalls, aisles."""

from __future__ import annotations

import pytest

from conftest import cell_of
from tall_plank.edits import placing, runs, runtext, units
from tall_plank.edits.things.island import add_island, delete_island, set_aisle, set_island, turn_island
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.setout import set_out
from tall_plank.setout.clear import aisles_of
from tall_plank.workings import Workings


def with_island(text: str, back: str = "", **decisions: str) -> Job:
    from tall_plank.edits import rooms

    job = rooms.set_room_length(new_job(), "r1", "width", "6000").job
    job = rooms.set_room_length(job, "r1", "depth", "5000").job
    change = add_island(job, "r1")
    job, name = change.job, change.made[0]
    for key, value in {"length": "2000", **decisions}.items():
        job = set_island(job, name, key, value).job
    for face, line in (("K1", text), ("K2", back)):
        if line:
            run = runs.add_run(job, "r1", face, Level.BASE)
            job = runtext.type_run(run.job, run.made[0], line).job
    return job


def island_of(job: Job):  # type: ignore[no-untyped-def]
    return job.rooms[0].islands[0]


def test_faces_look_away_from_one_another_and_share_the_islands_letter() -> None:
    job = with_island("drawers 900, pair rest", "open 900, open rest")
    room = set_out(job).rooms[0]
    assert [p.number for p in room.placed] == ["K1", "K2", "K3", "K4"]
    fronts = {p.number: p.frame.at(0.0, -p.depth, 0.0) for p in room.placed}
    backs = {p.number: p.frame.at(0.0, 0.0, 0.0) for p in room.placed}
    assert fronts["K1"][1] < backs["K1"][1] == backs["K3"][1] < fronts["K3"][1]
    # K3 stands at the left of the back face, which is the right end of the front one.
    assert fronts["K3"][0] > fronts["K4"][0]


def test_end_panels_take_their_thickness_from_both_faces() -> None:
    job = with_island("pair rest, pair share", "pair 900", left="panel", right="waterfall")
    first, second = set_out(job).rooms[0].runs
    assert (first.x, first.end) == (19, 2000 - 40 - 20)
    assert (second.x, second.end) == (60, 2000 - 19)


def test_seating_and_a_waterfall_end() -> None:
    job = with_island("drawers share, drawers share", seating="300", right="waterfall")
    room = set_out(job).rooms[0]
    (top,) = room.worktops
    # front: depth, front, overhang; back: a back panel, then the seats
    assert (top.depth, top.rear) == (599, -(19 + 300))
    assert (top.x, top.x + top.length) == (-10, 2000)
    assert top.open_back
    kinds = {b.kind: b for b in room.boards}
    leg = kinds["waterfall leg"]
    assert (leg.length, leg.width) == (870, 918)
    assert leg.box()[1][0] == pytest.approx(2000)
    assert kinds["back panel"].width == pytest.approx(2000 - 19 - 40)
    assert kinds["end panel"].length == 830
    assert kinds["waterfall filler"].width == 20
    parts = {t.kind: t.part for t in Workings(job).made.trims}
    assert all(part is not None for part in parts.values())
    assert parts["worktop"].edges.l2  # type: ignore[union-attr]


def test_two_faces_of_different_depth_under_one_worktop() -> None:
    job = with_island("drawers share, drawers share", "open share, open share")
    for number in ("K3", "K4"):
        job = units.set_own(job, (cell_of(job, number),), "depth", "300").job
    (top,) = set_out(job).rooms[0].worktops
    assert top.depth - top.rear == pytest.approx(560 + 19 + 20 + 300 + 20)


def test_an_h_of_two_gables_and_a_dividing_panel() -> None:
    job = with_island("between rest", "between rest", spine="yes")
    for number in ("K1", "K2"):
        job = runs.set_width(job, (cell_of(job, number),), "1900 to 2000").job
    room = set_out(job).rooms[0]
    faces = {f.id: f for f in room.faces}
    # The backs stand as far apart as the dividing panel is thick.
    a, b = faces["K1"].frame.origin, faces["K2"].frame.origin
    assert abs(a[1] - b[1]) == 18
    w = Workings(job)
    for _, made in w.made.units:
        assert made.parts and not made.problems
        assert not any("gable" in p.name for p in made.parts)
        assert made.lent
    panels = [t.part for t in w.made.trims if t.kind == "end panel"]
    assert len(panels) == 2
    for panel in panels:
        assert panel is not None
        uses = {op.use for op in panel.operations}  # type: ignore[union-attr]
        assert {"dowel", "shelf pin", "hinge plate"} <= uses
    divider = next(t.part for t in w.made.trims if t.kind == "dividing panel")
    assert divider is not None and divider.length == pytest.approx(2000 - 38)
    # Every hole that the bays ask for is drilled in a panel: none is dropped.
    asked = sum(len(bores) for _, made in w.made.units for _, bores in made.lent)
    drilled = sum(len(p.operations) for p in panels if p is not None)
    assert drilled == asked


def test_a_peninsula_starts_square_at_its_wall() -> None:
    job = with_island("drawers share, pair share", wall="B", x="2500")
    room = set_out(job).rooms[0]
    line = room.faces[0]
    assert line.frame.origin[0] == pytest.approx(6000)
    assert line.frame.x == pytest.approx((-1.0, 0.0, 0.0))
    assert room.runs[0].x == 0  # no panel at the wall
    assert [side for side, _, _ in aisles_of(room, island_of(job))] == ["Front", "Back", "Right"]
    (top,) = room.worktops
    assert top.x == 0 and not top.open_left


def test_aisles_are_measured_to_what_stands_nearest_and_typed() -> None:
    from conftest import with_run

    job = with_run(
        with_island("drawers share, drawers share", seating="300", angle="180"),
        "A",
        Level.BASE,
        "pair 900, pair 900, pair rest, drawers 900, drawers 900",
    )
    room = set_out(job).rooms[0]
    aisles = {side: (mm, to) for side, mm, to in aisles_of(room, island_of(job))}
    assert aisles["Front"][1] == "worktop"
    job = set_aisle(job, island_of(job).id, "front", "1100").job
    room = set_out(job).rooms[0]
    assert {s: mm for s, mm, _ in aisles_of(room, island_of(job))}["Front"] == pytest.approx(1100)
    top = next(t for t in room.worktops if t.source.kind is Kind.ISLAND)
    front = room.wall("K1").frame.at(0.0, -top.depth, 0.0)[1]
    assert front == pytest.approx(5000 - 599 - 1100)


def test_turning_an_island_keeps_its_middle_and_copying_gives_it_a_letter() -> None:
    job = with_island("drawers share, drawers share")
    name = island_of(job).id

    def middle(job: Job) -> tuple[float, float]:
        p = set_out(job).rooms[0].faces[0].frame.at(1000.0, 0.0, 0.0)
        return (round(p[0], 3), round(p[1], 3))

    turned = turn_island(job, name, 90.0).job
    assert middle(turned) == middle(job)
    copy = placing.copy_island(job, name, 0.0, -1500.0).job
    assert [i.letter for i in copy.rooms[0].islands] == ["K", "L"]
    assert [p.number for p in set_out(copy).placed] == ["K1", "K2", "L1", "L2"]
    gone = delete_island(copy, name).job
    assert [p.number for p in set_out(gone).placed] == ["L1", "L2"]
    assert len(gone.units) == 2


@pytest.mark.parametrize(
    ("key", "text"),
    [("length", "10"), ("angle", "steep"), ("left", "brick"), ("wall", "Z"), ("gap", "-1"), ("weight", "5")],
)
def test_wrong_values_of_an_island_are_refused(key: str, text: str) -> None:
    job = with_island("")
    with pytest.raises(PlankError) as caught:
        set_island(job, island_of(job).id, key, text)
    assert caught.value.remedy


def test_seven_islands_are_too_many() -> None:
    job = with_island("")
    for _ in range(5):
        job = add_island(job, "r1").job
    with pytest.raises(PlankError, match="six islands"):
        add_island(job, "r1")


def test_an_island_in_a_run_of_the_wall_is_a_snag() -> None:
    from conftest import with_run

    job = with_run(with_island("drawers share, drawers share"), "A", Level.BASE, "pair 900, pair 900, pair rest")
    name = island_of(job).id
    job = set_island(job, name, "y", "4800").job
    job = set_island(job, name, "x", "500").job
    assert any(s.rule == "clash" and "stands in K" in s.what for s in Workings(job).snags)
