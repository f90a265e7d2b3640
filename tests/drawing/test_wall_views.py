"""Elevations on paper are views of the room's solids: lines and fills against a plain search of what stands first."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from kept.results import every_kind
from tall_plank.demo import demo_job
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.fills import painted
from tall_plank.drawing.floorview import floor_view
from tall_plank.drawing.primitives import Layer, Line, Pen, Shape
from tall_plank.drawing.seen import Way, look, order_of, see
from tall_plank.drawing.shown import shown
from tall_plank.drawing.shows import Shows, on_paper
from tall_plank.drawing.things.common import Scope
from tall_plank.drawing.wallview import standing_on, wall_view, way_to
from tall_plank.edits.outline import type_outline
from tall_plank.edits.things.column import add_column
from tall_plank.edits.units import set_own
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.measure import Frame
from tall_plank.measure import outlines as ol
from tall_plank.measure.frames import RoomPoint
from tall_plank.solids.solids import Box, Prism, Solid
from tall_plank.workings import Workings

sizes = st.integers(4, 40).map(float)
places = st.integers(0, 60).map(float)


@st.composite
def scenes(draw: st.DrawFn) -> list[Solid]:
    """Boxes and prisms that stand apart in depth, some turned about the upright."""
    solids: list[Solid] = []
    for n in range(draw(st.integers(2, 9))):
        turn = math.radians(draw(st.sampled_from([0.0, 0.0, 0.0, 20.0, -35.0])))
        x = (math.cos(turn), math.sin(turn), 0.0)
        place = RoomPoint((draw(places), -100.0 * n, draw(places)))
        # About the upright, or about the line of sight: then nothing of it is an upright rectangle.
        rolled = draw(st.booleans())
        frame = Frame(place, (x[0], 0.0, x[1]), (0.0, 1.0, 0.0)) if rolled else Frame(place, x, (-x[1], x[0], 0.0))
        source, color = Kind.CELL.of(f"c{n}"), f"#{n:06X}"
        if draw(st.booleans()):
            solids.append(Box(frame, (draw(sizes), 10.0, draw(sizes)), color, source, str(n)))
        else:
            w = draw(sizes)
            solids.append(
                Prism(frame, ((0.0, 0.0), (w, 0.0), (w, 8.0), (w / 2, 4.0), (0.0, 8.0)), 20.0, color, source, str(n))
            )
    return solids


def topmost(corners: np.ndarray, owner: np.ndarray, x: float, y: float) -> int | None:
    """Whose face stands first at a place, by looking at every face; None near any side of one."""
    best: tuple[float, int] | None = None
    for face, n in zip(corners, owner, strict=True):
        points = [tuple(p[:2]) for p in face]
        for a, b in zip(points, (*points[1:], points[0]), strict=True):
            size = math.dist(a, b)
            if size > 1e-9 and ol_distance(a, b, x, y) < 0.05:
                return None
        if not ol.inside(tuple(points), x, y):
            continue
        normal = np.cross(face[1] - face[0], face[2] - face[0])
        z = face[0][2] - (normal[0] * (x - face[0][0]) + normal[1] * (y - face[0][1])) / normal[2]
        if best is None or z > best[0]:
            best = (float(z), int(n))
    return best[1] if best is not None else None


def ol_distance(a: tuple[float, ...], b: tuple[float, ...], x: float, y: float) -> float:
    dx, dy = b[0] - a[0], b[1] - a[1]
    t = max(0.0, min(1.0, ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy)))
    return math.hypot(x - a[0] - t * dx, y - a[1] - t * dy)


@given(scenes(), st.lists(st.tuples(st.floats(0, 80), st.floats(0, 80)), min_size=12, max_size=12))
def test_what_is_painted_last_is_what_stands_first(solids: list[Solid], spots: list[tuple[float, float]]) -> None:
    order = order_of(solids)
    looked = look(order, Way((0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 0.0, 1.0)))
    fills = painted(looked.corners, looked.face_of)
    for x, y in spots:
        first = topmost(looked.corners, looked.face_of, x, y)
        over = [f for f in fills if ol.inside(f.outline, x, y)]
        if first is not None:
            assert over, (x, y)
            assert int(looked.face_of[over[-1].face]) == first


def with_a_column() -> Job:
    """The demo with a column in a corner of its first room, on the next wall."""
    job = demo_job()
    change = add_column(job, job.rooms[0].id, "C", "column")
    return change.job


@pytest.mark.parametrize("job", [demo_job(), every_kind(), with_a_column()], ids=["demo", "every kind", "column"])
@pytest.mark.parametrize("fronts", [True, False], ids=["closed", "open"])
def test_lines_on_paper_are_those_that_the_solids_of_the_wall_show(job: Job, fronts: bool) -> None:
    w = Workings(job)
    told = 0
    for room in w.layout.rooms:
        for wall in room.lines:
            view = wall_view(job, room, wall, w.made, fronts=fronts, worktops=True)
            items = elevation(
                job, room, wall, w.made, shows=on_paper(Shows(dims=False, labels=False, fronts=fronts))
            ).items
            kept = [i for i in items if isinstance(i, Line)]
            assert set(view.lines) <= set(kept)
            for line in view.lines:
                assert isinstance(line, Line)
                assert line.pen in (Pen.MEDIUM, Pen.NARROW)
                assert line.source is not None
            told += len(view.lines)
    assert told > 500


def test_the_plan_shows_what_stands_and_leaves_out_what_hangs() -> None:
    for job in (demo_job(), every_kind()):
        w = Workings(job)
        for room in w.layout.rooms:
            view = floor_view(job, room, w.made)
            seen = {i.source for i in (*view.fills, *view.lines)}
            hung = {Kind.CELL.of(p.cell) for p in room.placed if p.level is Level.HUNG}
            assert not seen & hung
            standing = {Kind.CELL.of(p.cell) for p in room.placed if p.level is not Level.HUNG and p.is_solid}
            assert standing <= seen


def test_what_is_hidden_is_no_line() -> None:
    """Carcasses behind doors, and what a worktop covers, show nowhere but in gaps."""
    job = demo_job()
    w = Workings(job)
    room = w.layout.rooms[0]
    wall = room.wall("A")
    closed = wall_view(job, room, wall, w.made, fronts=True, worktops=True)
    opened = wall_view(job, room, wall, w.made, fronts=False, worktops=True)
    bare = wall_view(job, room, wall, w.made, fronts=True, worktops=False)

    def length(view: object, layer: Layer) -> float:
        return sum(math.hypot(i.x2 - i.x1, i.y2 - i.y1) for i in view.lines if i.layer is layer)  # type: ignore[attr-defined]

    assert length(closed, Layer.FRONT) > 20_000.0
    assert length(opened, Layer.FRONT) < length(closed, Layer.FRONT) / 10  # fillers stay
    assert length(opened, Layer.CARCASS) > 3 * length(closed, Layer.CARCASS)
    assert length(bare, Layer.TRIM) < length(closed, Layer.TRIM) - 2 * 4000.0


def test_a_column_in_the_corner_is_seen_beside_the_wall_and_ends_where_it_does() -> None:
    job = demo_job()
    room = Workings(job).layout.rooms[0]
    at = room.walls.index(room.wall("C"))
    follow = room.walls[(at + 1) % len(room.walls)]
    change = add_column(job, room.room.id, "C", "column", x=room.wall("C").length)
    w = Workings(change.job)
    room = w.layout.rooms[0]
    view = wall_view(change.job, room, room.wall(follow.id), w.made, fronts=True, worktops=True)
    (fill,) = [
        f for f in (*view.fills, *view.before) if isinstance(f, Shape) and f.source == Kind.COLUMN.of(change.made[0])
    ]
    assert fill.fill == "column"
    assert fill.layer is Layer.WALL
    assert ol.bounds(fill.points)[0] == pytest.approx(0.0, abs=0.01)
    assert ol.bounds(fill.points)[2] == pytest.approx(300.0, abs=0.01)


def test_marks_of_fronts_lie_under_their_handles() -> None:
    job = demo_job()
    w = Workings(job)
    room = w.layout.rooms[0]
    items = elevation(job, room, room.wall("A"), w.made, shows=on_paper(Shows(dims=False))).items
    moving = [n for n, i in enumerate(items) if isinstance(i, Line) and i.pen is Pen.MOVING]
    handles = [n for n, i in enumerate(items) if isinstance(i, Shape) and i.layer is Layer.HANDLE]
    fronts = [n for n, i in enumerate(items) if isinstance(i, Shape) and i.layer is Layer.FRONT and i.pen is Pen.NONE]
    assert max(fronts) < min(moving)
    assert max(moving) < min(handles)


def test_lines_of_a_view_are_all_that_see_finds() -> None:
    job = demo_job()
    w = Workings(job)
    room = w.layout.room(job.rooms[1].id)
    for wall in room.walls:
        standing = [s.solid for s in standing_on(Scope(job, room, w.made), wall, Shows())]
        seen = see(standing, way_to(wall))
        whole = np.hypot(*(seen.lines[:, 2:] - seen.lines[:, :2]).T).sum() if len(seen.lines) else 0.0
        view = wall_view(job, room, wall, w.made, fronts=True, worktops=True)
        drawn = sum(math.hypot(i.x2 - i.x1, i.y2 - i.y1) for i in view.lines if isinstance(i, Line))
        outside = sum(1 for x in seen.lines[:, [0, 2]].ravel() if x < -0.5 or x > wall.length + 0.5)
        assert drawn == pytest.approx(whole, abs=0.5 if not outside else whole)


def marks_seen(job: Job, w: Workings, wall_at: tuple[int, str], *, exact: bool) -> dict[tuple[str, str], float]:
    """mm of marks that are seen on paper, by unit and kind: how fronts move, fittings in open bays."""
    room = w.layout.rooms[wall_at[0]]
    shows = Shows(dims=False, labels=False)
    drawing = elevation(job, room, room.wall(wall_at[1]), w.made, shows=on_paper(shows) if exact else shows)
    found: dict[tuple[str, str], float] = {}
    for item in shown(drawing, 20.0).drawn:
        if isinstance(item, Line) and item.source is not None and item.source.kind is Kind.CELL:
            kind = "moving" if item.pen is Pen.MOVING else "fitting" if item.layer is Layer.HANDLE else ""
            if kind == "moving" or (kind and abs(item.x1 - item.x2) > 1.0 and abs(item.y1 - item.y2) > 1.0):
                key = (item.source.id, kind)
                found[key] = found.get(key, 0.0) + math.hypot(item.x2 - item.x1, item.y2 - item.y1)
    return found


@pytest.mark.parametrize("job", [demo_job(), every_kind()], ids=["demo", "every kind"])
def test_marks_are_seen_where_nothing_stands_before_them(job: Job) -> None:
    """As they are when each thing is painted over what it covers: none behind sliding doors, none lost."""
    w = Workings(job)
    told = 0
    for n, room in enumerate(w.layout.rooms):
        for wall in room.lines:
            painted_ones = marks_seen(job, w, (n, wall.id), exact=False)
            exact_ones = marks_seen(job, w, (n, wall.id), exact=True)
            for key in {*painted_ones, *exact_ones}:
                a, b = painted_ones.get(key, 0.0), exact_ones.get(key, 0.0)
                assert abs(a - b) < 0.08 * a + 60.0, (room.room.name, wall.id, key, a, b)
                told += 1
    assert told > 10


def test_lines_on_light_finishes_are_told_from_those_on_dark_ones() -> None:
    """The window's night look draws them dark there, and light everywhere else."""
    job = demo_job()
    w = Workings(job)
    room = w.layout.rooms[2]
    lines = wall_view(job, room, room.wall("C"), w.made, fronts=True, worktops=True).lines
    low = [i for i in lines if isinstance(i, Line) and max(i.y1, i.y2) < 90.0 and i.layer is Layer.CARCASS]
    high = [i for i in lines if isinstance(i, Line) and min(i.y1, i.y2) > 1000.0 and i.layer is Layer.CARCASS]
    assert low and high
    assert not any(i.over for i in low if abs(i.x1 - i.x2) < 0.1)  # dark legs
    assert all(i.over for i in high)  # shelves and a bookcase of birch


def test_what_stands_before_the_units_does_not_hide_them() -> None:
    """In a passage 900 wide units of the wall behind one's back begin 340 mm from this wall: whoever looks at it stands
    before them."""
    job = type_outline(new_job("Passage"), "r1", "3000mm, 900mm, 3000mm, rest").job
    job = with_run(job, "A", Level.BASE, "door 600, pair 900")
    job = set_own(job, tuple(c.id for c in job.cells()), "depth", "200").job
    alone = Workings(job)
    before = wall_view(
        job, alone.layout.rooms[0], alone.layout.rooms[0].wall("A"), alone.made, fronts=True, worktops=True
    )
    job = with_run(job, "C", Level.BASE, "drawers 900, pair 900, door 600")
    w = Workings(job)
    room = w.layout.rooms[0]
    after = wall_view(job, room, room.wall("A"), w.made, fronts=True, worktops=True)
    cells = {Kind.CELL.of(p.cell) for p in room.placed if p.wall_id == "A"}
    assert {i for i in after.lines if i.source in cells} == {i for i in before.lines if i.source in cells}
    assert any(i.source in cells for i in after.lines)


def test_a_slanted_board_hides_only_what_lies_behind_it() -> None:
    """A square stood on its corner has its upright rectangle's corners free: a box that looks out there is painted."""
    half = math.sqrt(0.5)
    diamond = Box(
        Frame(RoomPoint((50.0, -20.0, 0.0)), (half, 0.0, half), (0.0, 1.0, 0.0)),
        (70.0, 5.0, 70.0), "#111111", Kind.CELL.of("a"), "a",
    )  # fmt: skip
    box = Box(Frame(RoomPoint((18.0, 0.0, 18.0))), (14.0, 5.0, 14.0), "#222222", Kind.CELL.of("b"), "b")
    order = order_of([diamond, box])
    looked = look(order, Way((0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 0.0, 1.0)))
    fills = painted(looked.corners, looked.face_of)
    assert {order[int(looked.face_of[f.face])].name for f in fills} == {"a", "b"}


def test_what_covers_other_walls_is_left_out_as_they_are() -> None:
    """In a corner sharper than square the panels of the next wall stood before this one's; moldings of its own panels
    are its own."""
    from tall_plank.edits import outline
    from tall_plank.edits.things.wall_field import add_field, repeat_on
    from tall_plank.edits.treatments import set_zone

    job = outline.type_outline(new_job("Hall"), "r1", "4000mm corner 83, 2400mm corner 97, rest, rest").job
    job = add_field(job, "r1", "A", "equal panels").job
    job = set_zone(job, job.treatments[0].id, (), "molding", "MP-BEAD-14").job
    job = repeat_on(job, job.rooms[0].fields[0].id, ("B", "C", "D")).job
    w = Workings(job)
    room = w.layout.rooms[0]
    drawn = elevation(job, room, room.wall("A"), w.made, shows=on_paper(Shows()))
    own = Kind.WALL_FIELD.of(job.rooms[0].fields[0].id)
    sources = {i.source for i in drawn.items if isinstance(i, Shape) and i.source and i.source.kind is Kind.WALL_FIELD}
    assert sources == {own}
