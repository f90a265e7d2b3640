"""Casings round openings: mitred to their outer edges, three sides at a door, four at a window; what meets them stops."""

from __future__ import annotations

import math

import pytest

from tall_plank.edits.things.molding import add_molding
from tall_plank.edits.things.opening import add_opening, set_opening
from tall_plank.edits.things.wall_field import add_field
from tall_plank.job import Job
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.measure.outlines import area
from tall_plank.setout import set_out
from tall_plank.solids.solids import Prism
from tall_plank.solids.things.opening import OPENING
from tall_plank.workings import Workings


def cased(kind: str = "door", x: float = 1000.0) -> Job:
    job = add_opening(new_job("Casings"), "r1", "A", kind, x).job
    return set_opening(job, job.rooms[0].openings[0].id, "casing", "MP-CASE-70").job


def test_a_door_has_two_uprights_and_a_head() -> None:
    """838 x 2040, 70 wide, 5 back from the edge (common practice): long points at the outer edge; square at the
    floor."""
    lengths = [(m.number, m.length, m.left, m.right) for m in Workings(cased()).made.lengths]
    assert lengths == [
        ("AC.1", 2040 + 75, 0.0, 45.0),
        ("AC.2", 838 + 150, 45.0, 45.0),
        ("AC.3", 2040 + 75, 45.0, 0.0),
    ]


def test_a_window_has_four_sides_mitred_all_round() -> None:
    lengths = [(m.length, m.left, m.right) for m in Workings(cased("window")).made.lengths]
    assert sorted(lengths) == sorted([(1150, 45.0, 45.0)] * 2 + [(1250, 45.0, 45.0)] * 2)


@pytest.mark.parametrize("kind", ["door", "window"])
def test_sides_meet_in_their_mitres_and_make_the_frame(kind: str) -> None:
    frame = set_out(cased(kind)).rooms[0].casings[0].frame
    shapes = [frame.outline_of(side, 70.0) for side in frame.sides]
    whole = frame.width * frame.height
    inner = (frame.width - 140) * (frame.height - (140 if kind == "window" else 70))
    assert math.fsum(abs(area(s)) for s in shapes) == pytest.approx(whole - inner)


def test_the_solids_of_a_casing_are_as_large_as_its_drawing() -> None:
    from tall_plank.solids.solids import mesh_of
    from tall_plank.solids.things.common import Stage

    job = cased("window")
    w = Workings(job)
    room = w.layout.rooms[0]
    assert OPENING.dress is not None
    solids = OPENING.dress(Stage(job, room, w.made, "closed"))
    assert len(solids) == 4 and all(isinstance(s, Prism) for s in solids)
    points = mesh_of("x", solids).points
    wall = room.wall("A").frame
    own = [wall.into(tuple(p)) for p in points.tolist()]
    frame = room.casings[0].frame
    assert (min(p[0] for p in own), max(p[0] for p in own)) == pytest.approx((frame.x0, frame.x1))
    assert (min(p[2] for p in own), max(p[2] for p in own)) == pytest.approx((frame.z0, frame.z1))
    assert (min(p[1] for p in own), max(p[1] for p in own)) == pytest.approx((-20.0, 0.0)), (
        "out of the wall, not into it"
    )


def test_skirtings_and_wall_fields_stop_at_a_casing() -> None:
    job = add_molding(cased(), "r1", "skirting").job
    job = add_field(job, "r1", "A", "equal panels").job
    room = set_out(job).rooms[0]
    ends = sorted(mm for m in room.moldings if m.wall_id == "A" for mm in (m.start[0], m.end[0]))
    assert ends == pytest.approx([0.0, 925.0, 1913.0, 3600.0])
    stretches = room.fields[0].zones[0].stretches
    assert [(s.x0, s.x1) for s in stretches] == [
        pytest.approx(p) for p in ((0.0, 925.0), (925.0, 1913.0), (1913.0, 3600.0))
    ]


def test_one_by_others_is_on_no_list() -> None:
    job = cased()
    job = set_opening(job, job.rooms[0].openings[0].id, "casing_by_others", "yes").job
    made = Workings(job).made
    assert all(m.by_others for m in made.lengths) and len(made.lengths) == 3
    with pytest.raises(PlankError, match="no profile"):
        set_opening(job, job.rooms[0].openings[0].id, "casing", "MP-NONE")
