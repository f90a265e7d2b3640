from __future__ import annotations

import pytest

from tall_plank.edits import outline, rooms
from tall_plank.edits.things.column import add_column, set_column
from tall_plank.edits.things.molding import add_molding, set_molding
from tall_plank.edits.things.opening import add_opening
from tall_plank.edits.things.slope import add_slope, set_slope
from tall_plank.edits.things.soffit import add_soffit
from tall_plank.job import Job
from tall_plank.job.start import new_job
from tall_plank.setout import MoldingPiece, set_out
from tall_plank.workings import Workings


def pieces(job: Job) -> list[MoldingPiece]:
    return list(set_out(job).rooms[0].moldings)


def test_a_skirting_goes_round_a_square_room_with_four_inner_mitres() -> None:
    found = pieces(add_molding(new_job(), "r1", "skirting").job)
    assert [(p.wall_id, p.length, p.left, p.right) for p in found] == [
        ("A", 3600, 45, 45),
        ("B", 2400, 45, 45),
        ("C", 3600, 45, 45),
        ("D", 2400, 45, 45),
    ]


def test_it_stops_square_at_a_door_and_runs_on_under_a_window() -> None:
    job = add_molding(new_job(), "r1", "skirting").job
    job = add_opening(job, "r1", "A", "door", 1000.0).job
    job = add_opening(job, "r1", "B", "window").job
    found = pieces(job)
    assert [(p.wall_id, p.length, p.left, p.right) for p in found][:3] == [
        ("A", 1000, 45, 0),
        ("A", 3600 - 1838, 0, 45),
        ("B", 2400, 45, 45),
    ]
    rail = add_molding(job, "r1", "dado rail").job
    # A dado rail at 900 runs under the window too (its sill is at 1050), a picture rail over the door.
    assert sum(p.kind == "dado rail" for p in pieces(rail)) == 5
    high = add_molding(job, "r1", "picture rail").job
    assert [p.wall_id for p in pieces(high) if p.kind == "picture rail"] == ["A", "B", "B", "C", "D"]


def test_it_goes_round_a_chimney_breast_with_outer_mitres() -> None:
    change = add_column(new_job(), "r1", "A", "chimney breast", 1000.0)
    job = add_molding(change.job, "r1", "skirting").job
    found = pieces(job)
    around = [(round(p.length, 1), p.left, p.right) for p in found if p.wall_id in ("A", "")]
    # The face of a piece is longer than its back at an outer corner, by its depth of 18 at 45 degrees.
    start = around.index((1000.0, 45, 45))
    in_order = around[start:] + around[:start]
    assert in_order == [(1000, 45, 45), (368, 45, -45), (1236, -45, -45), (368, -45, 45), (1400, 45, 45)]
    # To the last digit: pieces were 999.99 long, by what columns are taken larger while the path is cut.
    exact = sorted(p.length for p in found if p.wall_id in ("A", ""))
    assert exact == pytest.approx([368.0, 368.0, 1000.0, 1236.0, 1400.0], abs=1e-6)


def test_a_free_column_gets_a_ring_of_outer_corners() -> None:
    change = add_column(new_job(), "r1", "A", "column")
    job = set_column(change.job, change.made[0], "wall", "").job
    job = set_column(job, change.made[0], "y", "1000").job
    job = add_molding(job, "r1", "skirting").job
    ring = [p for p in pieces(job) if p.wall_id == ""]
    assert [(round(p.length), p.left, p.right) for p in ring] == [(336, -45, -45)] * 4


def test_a_cornice_follows_a_soffit_and_a_skirting_does_not() -> None:
    job = add_soffit(new_job(), "r1", "A", 400.0, 300.0).job
    job = add_molding(job, "r1", "cornice").job
    walls = {p.wall_id: round(p.length) for p in pieces(job)}
    assert walls["B"] == 2000
    assert walls[""] == 3600
    skirting = add_molding(new_job(), "r1", "skirting").job
    assert {p.wall_id for p in pieces(add_soffit(skirting, "r1", "A").job)} == set("ABCD")


def test_an_outer_corner_of_the_room_is_mitred_outwards() -> None:
    job = outline.type_outline(new_job(), "r1", "6000, 4800, 3600, 1800 corner 270, rest, rest").job
    found = {p.wall_id: p for p in pieces(add_molding(job, "r1", "skirting").job)}
    assert (found["D"].left, found["D"].right) == (45, -45)
    assert found["D"].length == pytest.approx(1818)
    assert (found["E"].left, found["E"].right) == (-45, 45)


def test_height_is_stated_to_an_edge_and_only_wanted_walls_are_run() -> None:
    change = add_molding(new_job(), "r1", "dado rail")
    job, name = change.job, change.made[0]
    assert pieces(job)[0].low == 900 - 63
    job = set_molding(job, name, "edge", "bottom").job
    assert pieces(job)[0].low == 900
    job = set_molding(job, name, "walls", "A C").job
    assert {(p.wall_id, p.left, p.right) for p in pieces(job)} == {("A", 0, 0), ("C", 0, 0)}


def test_by_others_is_drawn_and_costs_nothing() -> None:
    change = add_molding(new_job(), "r1", "skirting")
    assert Workings(change.job).costs.group("Lengths") == 0
    ours = set_molding(change.job, change.made[0], "by_others", "no").job
    (line,) = [line for line in Workings(ours).costs.lines if line.group == "Lengths"]
    # 12 m of skirting and the book's waste of 10 %
    assert float(line.qty) == pytest.approx(12.0 * 1.1)


@pytest.mark.parametrize("ceiling", ["2400", "2500", "2735"])
def test_a_cornice_hangs_under_the_ceiling_and_a_skirting_stands_on_the_floor(ceiling: str) -> None:
    job = rooms.set_room_length(new_job(), "r1", "height", ceiling).job
    job = add_molding(add_molding(job, "r1", "cornice").job, "r1", "skirting").job
    found = pieces(job)
    for piece in found:
        profile = job.stock.profile(piece.profile)
        assert profile is not None and profile.height > 20.0
        top = piece.low + profile.height
        assert (top if piece.kind == "cornice" else piece.low) == pytest.approx(
            float(ceiling) if piece.kind == "cornice" else 0.0
        )
    assert {p.kind for p in found} == {"cornice", "skirting"}


def test_a_molding_at_a_height_is_measured_at_the_edge_that_was_said() -> None:
    job = add_molding(new_job(), "r1", "dado rail").job
    rail = job.rooms[0].moldings[0]
    low = set_molding(job, rail.id, "edge", "bottom").job
    low = set_molding(low, rail.id, "height", "900").job
    high = set_molding(low, rail.id, "edge", "top").job
    profile = job.stock.profile(rail.profile)
    assert profile is not None
    assert {p.low for p in pieces(low)} == {900.0}
    assert [p.low for p in pieces(high)] == pytest.approx([900.0 - profile.height] * 4)


def sloped(low: str = "1750mm", run: str = "1000mm") -> Job:
    job = add_slope(new_job(), "r1", "C").job
    slope = job.rooms[0].slopes[0].id
    job = set_slope(job, slope, "low", low).job
    return set_slope(job, slope, "run", run).job


def test_a_cornice_follows_the_ceiling_down_to_a_low_wall() -> None:
    """It stayed at the room's height, over the slope: under a wall of 1750 it hangs at 1680, and runs along the next
    walls only as far as their ceiling is level."""
    found = pieces(add_molding(sloped(), "r1", "cornice").job)
    by_wall = {p.wall_id: p for p in found}
    assert [by_wall[w].low for w in "ABCD"] == pytest.approx([2430, 2430, 1680, 2430])
    assert by_wall["C"].length == pytest.approx(3600) and (by_wall["C"].left, by_wall["C"].right) == (0, 0)
    assert (by_wall["A"].left, by_wall["A"].right) == (45, 45)
    # Walls B and D are 2400 long, the last 1000 of them under the slope.
    for wall in "BD":
        length = abs(by_wall[wall].end[1] - by_wall[wall].start[1])
        assert length == pytest.approx(1400)
    room = set_out(add_molding(sloped(), "r1", "cornice").job).rooms[0]
    for piece in found:
        wall = room.wall(piece.wall_id)
        for end in (piece.start, piece.end):
            assert piece.low + 70 <= wall.height_at(wall.frame.from_floor(end)[0]) + 0.01


def test_a_picture_rail_stops_where_its_wall_is_lower() -> None:
    job = add_molding(sloped(), "r1", "picture rail").job
    by_wall = {p.wall_id: p for p in pieces(job)}
    assert set(by_wall) == {"A", "B", "D"}, "wall C is 1750 high, the rail's top 2100"
    # Under the slope the wall rises from 1750 to 2500 over 1000: it is 2100 high 1000 x 350 / 750 from wall C.
    length = abs(by_wall["B"].end[1] - by_wall["B"].start[1])
    assert length == pytest.approx(2400 - 1000 * 350 / 750)
    assert by_wall["B"].right == 0 and by_wall["B"].left == 45
