"""Moldings along units: where they run, their mitres, what stops them."""

from __future__ import annotations

import math

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Point, Polygon, box

from conftest import cell_of, with_run
from tall_plank.edits import outline, rooms
from tall_plank.edits.hanging import put
from tall_plank.edits.runs import delete_cells
from tall_plank.edits.stock import take_offered
from tall_plank.edits.things.column import add_column
from tall_plank.edits.things.molding import add_molding, set_molding
from tall_plank.edits.things.wall_field import add_field, set_field
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
from tall_plank.job.things.molding import ALONG_UNITS
from tall_plank.measure import PlankError
from tall_plank.measure.paths import chords
from tall_plank.setout import MoldingPiece, set_out
from tall_plank.setout.rooms import corners_of
from tall_plank.stock.library import shipped_stock
from tall_plank.workings import Workings

HUNG = "pair 900, gap 900, door share, door share, open 300"


def pieces(job: Job) -> tuple[MoldingPiece, ...]:
    return set_out(job).rooms[0].unit_moldings


def told(job: Job) -> list[tuple[float, float, float]]:
    return sorted((round(p.length, 1), p.left, p.right) for p in pieces(job))


@pytest.fixture
def hung(empty_job: Job) -> Job:
    return with_run(empty_job, "A", Level.HUNG, HUNG)


def covered(piece: MoldingPiece, depth: float) -> Polygon:
    """What a piece takes of the floor, with its mitres."""
    length = math.dist(piece.start, piece.end)
    ux, uy = (piece.end[0] - piece.start[0]) / length, (piece.end[1] - piece.start[1]) / length
    a, b = (depth * math.tan(math.radians(angle)) for angle in (piece.left, piece.right))
    x0, y0, x1, y1 = *piece.start, *piece.end
    return Polygon([
        (x0, y0), (x1, y1), (x1 - ux * b + uy * depth, y1 - uy * b - ux * depth),
        (x0 + ux * a + uy * depth, y0 + uy * a - ux * depth),
    ])  # fmt: skip


def test_a_cornice_runs_along_hung_units_and_returns_to_the_wall_at_open_ends(hung: Job) -> None:
    job = add_molding(hung, "r1", "unit cornice").job
    depth = job.stock.profile("MP-CORN-60").depth  # type: ignore[union-attr]
    expected = sorted([
        (900 + depth, 0, -45), (330 + depth, -45, 0), (330 + depth, 0, -45), (1600 + 2 * depth, -45, -45),
        (330 + depth, -45, 0),
    ])  # fmt: skip
    assert [found for row in told(job) for found in row] == pytest.approx(
        [x for row in expected for x in row], abs=0.06
    )
    assert {p.low for p in pieces(job)} == {2120.0}
    # In front of the wall's own end it ends square at the wall.
    first = next(p for p in pieces(job) if p.start[0] < 0.01)
    assert first.left == 0 and first.end[0] == pytest.approx(900.0, abs=1e-3)


def test_a_light_rail_hangs_under_them_behind_their_faces(hung: Job) -> None:
    job = add_molding(hung, "r1", "light rail").job
    found = pieces(job)
    assert {round(p.low + p.height, 6) for p in found} == {1400.0}
    # Its face is flush with the carcasses: at the long points it is as long as they are.
    assert told(job) == sorted([(900, 0, -45), (330, -45, 0), (330, 0, -45), (1600, -45, -45), (330, -45, 0)])
    assert max(p.height for p in found) == 36


def test_it_runs_into_the_side_of_a_tall_unit_and_over_a_gap_to_a_wall(empty_job: Job) -> None:
    job = rooms.set_room_length(empty_job, "r1", "width", "2600mm").job
    job = put(job, "r1", "A", tall_code(job), after="").job
    tall = next(p for p in set_out(job).placed if p.top > 1800)
    job = with_run(job, "A", Level.HUNG, f"gap {tall.width + 20:g}, door 600, door 600")
    job = add_molding(job, "r1", "light rail").job
    # 20 mm beside the tall unit, along its side, and back to the wall at the open end.
    assert told(job) == [(330, -45, 0), (1220, 0, -45)]
    cornice = add_molding(job, "r1", "unit cornice", tuple(p.cell for p in set_out(job).placed if p.is_solid)).job
    on = [p for p in pieces(cornice) if p.kind == "unit cornice"]
    assert len({p.low for p in on}) == 2


def tall_code(job: Job) -> str:
    return next(t.code for t in job.templates if t.level is Level.TALL)


def test_round_a_corner_of_two_hung_runs_it_has_an_inner_mitre(empty_job: Job) -> None:
    job = with_run(empty_job, "A", Level.HUNG, ", ".join(["door 600"] * 6))
    job = with_run(job, "B", Level.HUNG, "door 500, door 500")
    job = add_molding(job, "r1", "unit cornice").job
    angles = {a for p in pieces(job) for a in (p.left, p.right)}
    assert 45 in angles and -45 in angles
    meet = [p for p in pieces(job) if 45 in (p.left, p.right)]
    assert len(meet) == 2
    assert {round(c, 2) for c in meet[0].end} == {round(c, 2) for c in meet[1].start} or {
        round(c, 2) for c in meet[1].end
    } == {round(c, 2) for c in meet[0].start}


def test_a_gap_narrower_than_a_hand_beside_a_wall_is_run_over(empty_job: Job) -> None:
    job = rooms.set_room_length(empty_job, "r1", "width", "1840mm").job
    job = with_run(job, "A", Level.HUNG, "door 600, door 600, door 600")
    # 40 mm are left beside wall B.
    job = add_molding(job, "r1", "unit cornice").job
    assert [(round(p.length), p.left, p.right) for p in pieces(job)] == [(1840, 0, 0)]


def test_chosen_units_alone_carry_it(hung: Job) -> None:
    a8, a9 = cell_of(hung, "A2"), cell_of(hung, "A3")
    job = add_molding(hung, "r1", "unit cornice", (a8,)).job
    assert len(pieces(job)) == 3
    # Over the neighbor of the same height it goes back to the wall.
    job = set_molding(job, job.rooms[0].moldings[0].id, "cells", "a2, A3").job
    assert job.rooms[0].moldings[0].cells == (a8, a9)
    with pytest.raises(PlankError, match="no unit Z9"):
        set_molding(job, job.rooms[0].moldings[0].id, "cells", "Z9")
    # Under the neighbor a light rail goes back to the wall too.
    rail = add_molding(hung, "r1", "light rail", (a8,)).job
    assert len(pieces(rail)) == 3


def test_a_height_and_a_place_of_its_own(hung: Job) -> None:
    job = add_molding(hung, "r1", "shelf edge").job
    (molding,) = job.rooms[0].moldings
    assert {round(p.low + p.height, 6) for p in pieces(job)} == {2120.0}
    at = set_molding(job, molding.id, "height", "1700mm").job
    assert {round(p.low + p.height, 6) for p in pieces(at)} == {1700.0}
    above = set_molding(job, molding.id, "height", "2400mm").job
    assert pieces(above) == ()
    assert any("no free side" in s.what for s in Workings(above).snags)
    out = set_molding(job, molding.id, "out", "20mm").job
    assert {round(p.start[1], 3) for p in pieces(out)} == {2400.0 - 330 - 20, 2400.0}
    with pytest.raises(PlankError):
        set_molding(job, molding.id, "out", "2000mm")


def test_it_says_when_it_has_no_unit_or_stands_into_the_ceiling(hung: Job, empty_job: Job) -> None:
    with pytest.raises(PlankError, match="No unit of the room takes a unit cornice"):
        add_molding(empty_job, "r1", "unit cornice")
    job = add_molding(hung, "r1", "unit cornice", (cell_of(hung, "A2"),)).job
    gone = delete_cells(job, (cell_of(job, "A2"),)).job
    assert pieces(gone) == ()
    assert any("No unit is left" in s.what for s in Workings(gone).snags)
    low = rooms.set_room_length(job, "r1", "height", "2150mm").job
    assert any("into the ceiling" in s.what for s in Workings(low).snags)


def test_a_column_before_the_wall_stops_it(empty_job: Job) -> None:
    job = add_column(empty_job, "r1", "A", "chimney breast", 1300.0).job
    job = with_run(job, "A", Level.HUNG, "door 600, door 600")
    job = add_molding(job, "r1", "unit cornice").job
    # Over the gap of 100 between the units and the breast, and square against it.
    assert [(round(p.length), p.left, p.right) for p in pieces(job)] == [(1300, 0, 0)]


KINDS = st.sampled_from(["door", "pair", "open", "gap", "filler", "drawers"])
RUN = st.lists(st.tuples(KINDS, st.integers(30, 900)), min_size=1, max_size=4)


def text_of(run: list[tuple[str, int]]) -> str:
    return ", ".join(f"{kind} {mm if kind in ('gap', 'filler') else max(mm, 300)}" for kind, mm in run)


@given(
    RUN, RUN, st.sampled_from(["unit cornice", "light rail", "shelf edge"]), st.integers(-40, 60),
    st.sampled_from([90.0, 135.0, 80.0]),
)  # fmt: skip
def test_pieces_meet_at_their_mitres_and_stand_in_nothing(
    one: list[tuple[str, int]], two: list[tuple[str, int]], kind: str, out: int, angle: float
) -> None:
    job = new_job()
    job = rooms.set_room_length(job, "r1", "width", "4200mm").job
    job = rooms.set_room_length(job, "r1", "depth", "4200mm").job
    job = outline.set_wall_angle(job, "r1", "A", f"{angle:g}").job if angle != 90.0 else job
    try:
        job = with_run(job, "A", Level.HUNG, text_of(one))
        job = with_run(job, "B", Level.HUNG, text_of(two))
        job = add_molding(job, "r1", kind).job
        job = set_molding(job, job.rooms[0].moldings[0].id, "out", f"{out}mm").job
    except PlankError:
        return
    room = set_out(job).rooms[0]
    profile = job.stock.profile(job.rooms[0].moldings[0].profile)
    assert profile is not None
    floor = Polygon(corners_of(room.room.outline))
    found = room.unit_moldings
    shapes = [covered(p, profile.depth) for p in found]
    for piece, shape in zip(found, shapes, strict=True):
        assert shape.is_valid
        assert shape.difference(floor).area < 1.0
        mine = shape.buffer(-0.2)
        for p in room.placed:
            apart = p.bottom >= piece.low + piece.height - 0.5 or p.top <= piece.low + 0.5
            if p.is_solid and not apart and kind != "shelf edge":
                body = Polygon([p.frame.at(x, y)[:2] for x, y in p.plan])
                assert mine.intersection(body).area < 1.0
    for i, a in enumerate(shapes):
        for b in shapes[i + 1 :]:
            assert a.intersection(b).area < 0.5
    # An end that is not square meets another of the same angle, or a wall.
    ends = [(p.start, p.left) for p in found] + [(p.end, p.right) for p in found]
    for i, (at, saw) in enumerate(ends):
        if saw:
            met = any(j != i and math.dist(at, o) < 0.01 and abs(saw - s) < 1e-3 for j, (o, s) in enumerate(ends))
            assert met or floor.exterior.distance(Point(at)) < 0.6


def test_what_it_says_survives_a_change_of_the_room_and_costs_money(hung: Job) -> None:
    job = add_molding(hung, "r1", "unit cornice").job
    numbers = [m.number for m in Workings(job).made.lengths]
    assert numbers == [f"AM.{i}" for i in range(1, 6)]
    free = msgspec.structs.replace(job.rooms[0], moldings=())
    without = msgspec.structs.replace(job, rooms=(free,))
    assert Workings(job).price.net > Workings(without).price.net


def test_a_job_of_last_month_takes_the_new_profiles_first(empty_job: Job) -> None:
    """Its stock has none of them: what to do is said, and does it."""
    shipped = empty_job.stock
    old = msgspec.structs.replace(
        empty_job,
        stock=msgspec.structs.replace(
            shipped, profiles=tuple(p for p in shipped.profiles if not set(p.uses) & set(ALONG_UNITS))
        ),
    )
    old = with_run(old, "A", Level.HUNG, HUNG)
    with pytest.raises(PlankError, match="Take new kinds from the library"):
        add_molding(old, "r1", "light rail")
    # A cornice of the room stands on units too.
    assert pieces(add_molding(old, "r1", "unit cornice").job)
    new = take_offered(old, old.templates, shipped_stock()).job
    assert pieces(add_molding(new, "r1", "light rail").job)


def test_a_narrow_gap_beside_a_corner_filler_is_run_over(empty_job: Job) -> None:
    """What lay in the gap was a rectangle and a point that touched it: the cornice went into the gap and met itself."""
    job = with_run(empty_job, "A", Level.HUNG, "door 300")
    job = with_run(job, "B", Level.HUNG, "door 300, gap 30, door 300")
    job = add_molding(job, "r1", "unit cornice").job
    on_b = [p for p in pieces(job) if p.wall_id == "B"]
    assert len(on_b) == 3
    assert max(math.dist(p.start, p.end) for p in on_b) == pytest.approx(699.0, abs=0.1)


@pytest.mark.parametrize(
    ("gap", "pieces_there"), [(99, 3), (100, 3), (100.4, 3), (100.55, 3), (101, 6), (102, 6), (140, 6)]
)
def test_a_gap_is_run_over_whole_or_not_at_all(gap: float, pieces_there: int, empty_job: Job) -> None:
    """Of one of 101 mm each side ran over 100.5, and both met in it."""
    job = with_run(empty_job, "A", Level.HUNG, f"gap 500, door 300, gap {gap}, door 300")
    job = add_molding(job, "r1", "unit cornice").job
    found = pieces(job)
    assert len(found) == pieces_there
    depth = job.stock.profile("MP-CORN-60").depth  # type: ignore[union-attr]
    shapes = [covered(p, depth) for p in found]
    assert all(a.intersection(b).area < 0.5 for i, a in enumerate(shapes) for b in shapes[i + 1 :])


def test_what_is_too_narrow_for_it_behind_both_faces_has_none(empty_job: Job) -> None:
    job = with_run(empty_job, "A", Level.HUNG, "door 300")
    job = with_run(job, "C", Level.HUNG, "gap 500, filler 30")
    job = add_molding(job, "r1", "unit cornice").job
    molding = job.rooms[0].moldings[0].id
    on_filler = [p for p in pieces(set_molding(job, molding, "out", "-10mm").job) if p.wall_id == "C"]
    assert len(on_filler) == 3
    assert not [p for p in pieces(set_molding(job, molding, "out", "-16mm").job) if p.wall_id == "C"]
    assert [p for p in pieces(set_molding(job, molding, "out", "-16mm").job) if p.wall_id == "A"]


def test_it_goes_round_no_corner_that_stands_in_a_slanted_wall(empty_job: Job) -> None:
    """Its mitre stood 18 mm outside the room: both sides were free, the corner was not."""
    job = rooms.set_room_length(empty_job, "r1", "width", "4200mm").job
    job = rooms.set_room_length(job, "r1", "depth", "4200mm").job
    job = outline.set_wall_angle(job, "r1", "A", "135").job
    job = with_run(job, "A", Level.HUNG, "door 300")
    job = with_run(job, "B", Level.HUNG, "door 300")
    job = add_molding(job, "r1", "unit cornice").job
    job = set_molding(job, job.rooms[0].moldings[0].id, "out", "-24mm").job
    profile = job.stock.profile("MP-CORN-60")
    assert profile is not None and pieces(job)
    floor = Polygon(corners_of(job.rooms[0].outline))
    for piece in pieces(job):
        assert covered(piece, profile.depth).difference(floor).area < 1.0


@given(
    RUN, RUN, st.sampled_from(["unit cornice", "light rail", "shelf edge"]), st.integers(-40, 60),
    st.sampled_from(["equal panels", "slats", "flat boards", "modules"]), st.booleans(),
)  # fmt: skip
def test_a_wall_field_keeps_away_from_it_where_it_goes_back_to_the_wall(
    one: list[tuple[str, int]], two: list[tuple[str, int]], kind: str, out: int, start: str, mirrored: bool
) -> None:
    """45 mm of a cornice's return stood in the panels behind it."""
    job = rooms.set_room_length(new_job(), "r1", "depth", "4200mm").job
    try:
        job = with_run(job, "A", Level.HUNG, text_of(one))
        job = with_run(job, "B", Level.HUNG, text_of(two))
        job = add_molding(job, "r1", kind).job
        job = set_molding(job, job.rooms[0].moldings[0].id, "out", f"{out}mm").job
        for wall in ("A", "B"):
            job = add_field(job, "r1", wall, start).job
            job = set_field(job, job.rooms[0].fields[-1].id, "mirrored", "yes" if mirrored else "no").job
    except PlankError:
        return
    room = set_out(job).rooms[0]
    profile = job.stock.profile(job.rooms[0].moldings[0].profile)
    assert profile is not None
    for field in room.fields:
        frame = room.wall(field.wall_id).frame
        for piece in room.unit_moldings:
            near = [frame.from_floor((x, y)) for x, y in covered(piece, profile.depth).exterior.coords]
            reach = Polygon(near).intersection(box(-9999.0, -field.stands_off, 9999.0, 1.0))
            if reach.area < 1.0:
                continue
            x0, _, x1, _ = reach.bounds
            takes = box(x0, piece.low, x1, piece.low + piece.height)
            for zone in field.zones:
                for region in zone.regions:
                    assert (
                        Polygon(chords(region.outer), [chords(h) for h in region.holes]).intersection(takes).area < 1.0
                    )


def test_a_gap_in_which_two_returns_would_meet_is_run_over(empty_job: Job) -> None:
    """Each stands 42.4 deep and 9 out: two need 102.8 mm, and the gap has 102."""
    job = with_run(empty_job, "A", Level.HUNG, "gap 500, door 300, gap 102, door 300")
    job = add_molding(job, "r1", "unit cornice").job
    molding = job.rooms[0].moldings[0].id
    assert len(pieces(job)) == 6
    assert len(pieces(set_molding(job, molding, "out", "9mm").job)) == 3
