"""A room with one of each thing: where every one of them lies on its walls, on the plan and in the model, worked out
by hand from what was typed.

The room is 3600 x 2400 and 2500 high; wall A is its north side from (0, 2400) to the east, then clockwise.
"""

from __future__ import annotations

import math

import pytest

from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.plan import plan
from tall_plank.drawing.primitives import Arc, Dim, Item, Line, Shape, Text
from tall_plank.edits import outline, rooms
from tall_plank.edits.change import Change
from tall_plank.edits.things.column import add_column, set_column
from tall_plank.edits.things.opening import add_opening, set_opening
from tall_plank.edits.things.roof_window import add_roof_window, set_roof_window
from tall_plank.edits.things.slope import add_slope, set_slope
from tall_plank.edits.things.soffit import add_soffit
from tall_plank.job import Job, Kind
from tall_plank.job.start import new_job
from tall_plank.setout import RoomLayout, set_out
from tall_plank.solids.room import shell_solids
from tall_plank.solids.solids import Box, Solid, mesh_of
from tall_plank.workings import Workings

UP = 1000.0 / math.sqrt(2)
"""mm that a roof window of 1000 reaches up and inwards in a slope of 45 degrees."""


def set_all(change: Change, setter, **values: str) -> Job:  # type: ignore[no-untyped-def]
    job = change.job
    for key, text in values.items():
        job = setter(job, change.made[0], key, text).job
    return job


@pytest.fixture(scope="module")
def full() -> Workings:
    job = rooms.set_room_length(new_job(), "r1", "height", "2500").job
    window = add_opening(job, "r1", "A", "window")
    job = set_all(window, set_opening, x="700", width="1000", height="1100", sill="950")
    job = set_all(add_opening(job, "r1", "B", "door"), set_opening, x="300", width="800", height="2000")
    job = set_all(add_column(job, "r1", "D", "column"), set_column, x="500", width="400", depth="300")
    job = add_soffit(job, "r1", "A", 400.0, 250.0).job
    job = set_all(add_slope(job, "r1", "C"), set_slope, low="1200", run="1300")
    roof = add_roof_window(job, "r1", "C")
    return Workings(set_all(roof, set_roof_window, length="1000", sill="1400", x="500", width="800"))


def room_of(w: Workings) -> RoomLayout:
    return w.layout.rooms[0]


def bounds(points) -> tuple[float, ...]:  # type: ignore[no-untyped-def]
    rows = list(points)
    return tuple(f(p[i] for p in rows) for f in (min, max) for i in range(len(rows[0])))


def of_kind(items: tuple[Item, ...], kind: Kind) -> list[Item]:
    return [i for i in items if getattr(i, "source", None) is not None and i.source.kind is kind]  # type: ignore[union-attr]


def shapes(items: tuple[Item, ...], kind: Kind) -> list[tuple[float, ...]]:
    return [bounds(i.points) for i in of_kind(items, kind) if isinstance(i, Shape)]


def on_wall(w: Workings, wall: str) -> tuple[Item, ...]:
    return elevation(w.job, room_of(w), room_of(w).wall(wall), w.made).items


def test_openings_stand_on_their_walls_where_they_were_typed(full: Workings) -> None:
    # x from the wall's left end seen from inside; the inner line is its frame of 45.
    assert shapes(on_wall(full, "A"), Kind.OPENING) == [
        pytest.approx((700, 950, 1700, 2050)),
        pytest.approx((745, 995, 1655, 2005)),
    ]
    # A door has no frame below.
    assert shapes(on_wall(full, "B"), Kind.OPENING) == [
        pytest.approx((300, 0, 1100, 2000)),
        pytest.approx((345, 0, 1055, 1955)),
    ]
    chains = [(i.a, i.b) for i in of_kind(on_wall(full, "A"), Kind.OPENING) if isinstance(i, Dim)]
    assert chains == [(0, 700), (700, 1700), (1700, 3600)]


def test_a_soffit_is_cut_where_it_touches_a_wall_and_seen_along_its_own(full: Workings) -> None:
    for wall, along in (("A", (0, 3600)), ("B", (0, 400)), ("D", (2000, 2400))):
        assert shapes(on_wall(full, wall), Kind.SOFFIT) == [pytest.approx((along[0], 2250, along[1], 2500))], wall
    assert shapes(on_wall(full, "C"), Kind.SOFFIT) == []
    # One that stands further than 400 before a wall is no cut on it, one at 390 is.
    for depth, seen in (("2000", 1), ("1990", 0)):
        job = add_soffit(new_job(), "r1", "A", float(depth) + 5.0, 250.0).job
        w = Workings(job)
        assert len(shapes(on_wall(w, "C"), Kind.SOFFIT)) == seen, depth


def test_the_plan_has_each_thing_in_its_place(full: Workings) -> None:
    items = plan(full.job, room_of(full), full.made).items
    assert shapes(items, Kind.WALL) == [
        (0, 2400, 3600, 2550), (3600, 0, 3750, 2400), (0, -150, 3600, 0), (-150, 0, 0, 2400),
    ]  # fmt: skip
    assert shapes(items, Kind.OPENING) == [pytest.approx((700, 2400, 1700, 2550)), (3600, 1300, 3750, 2100)]
    assert shapes(items, Kind.COLUMN) == [(0, 500, 300, 900)]
    assert shapes(items, Kind.SOFFIT) == [(0, 2000, 3600, 2400)]
    # Sill 1400 over the low of 1200 lies 200 from wall C, which runs from east to west.
    assert shapes(items, Kind.ROOF_WINDOW) == [pytest.approx((2300, 200, 3100, 200 + UP))]
    arcs = [i for i in of_kind(items, Kind.OPENING) if isinstance(i, Arc)]
    assert [(a.x, a.y, a.radius) for a in arcs] == [pytest.approx((3600, 2100, 800))]
    leaf = [i for i in of_kind(items, Kind.OPENING) if isinstance(i, Line)][-1]
    assert (leaf.x1, leaf.y1, leaf.x2, leaf.y2) == pytest.approx((3600, 2100, 2800, 2100))


def corners(solid: Solid) -> list[tuple[float, float, float]]:
    f = solid.frame
    if isinstance(solid, Box):
        x, y, z = solid.size
        return [f.at(x * i, y * j, z * k) for i in (0, 1) for j in (0, 1) for k in (0, 1)]
    return [f.at(x, y, z) for x, y in solid.points for z in (0.0, solid.thickness)]


def test_the_model_has_each_thing_in_its_place(full: Workings) -> None:
    room = room_of(full)
    solids = shell_solids(room.room, room.walls, room.points)
    found: dict[str, list[tuple[float, ...]]] = {}
    for s in solids:
        found.setdefault(s.name, []).append(bounds(corners(s)))
    assert found["floor"] == [(0, 0, -20, 3600, 2400, 0)]
    assert found["column"] == [pytest.approx((0, 500, 0, 300, 900, 2500))]
    assert found["soffit"] == [(0, 2000, 2250, 3600, 2400, 2500)]
    # Glass in the middle of a wall of 150: at 45 % of its thickness, 15 thick.
    assert found["window"] == [pytest.approx((700, 2467.5, 950, 1700, 2482.5, 2050))]
    assert found["door"] == [pytest.approx((3667.5, 1300, 0, 3682.5, 2100, 2000))]
    # Walls stand beside, below and above their openings, and end under the slope.
    seen = sorted(tuple(round(v, 3) + 0.0 for v in b) for b in found["wall"])
    assert seen == sorted(
        (
            (0, 2400, 0, 700, 2550, 2500), (700, 2400, 0, 1700, 2550, 950), (700, 2400, 2050, 1700, 2550, 2500),
            (1700, 2400, 0, 3600, 2550, 2500), (3600, 2100, 0, 3750, 2400, 2500), (3600, 1300, 2000, 3750, 2100, 2500),
            (3600, 0, 0, 3750, 1300, 2500), (0, -150, 0, 3600, 0, 1200), (-150, 0, 0, 0, 2400, 2500),
        )
    )  # fmt: skip
    # Four bars of 60 and a pane of 20 between them, 30 into bars of 80: along the slope each mm is 0.7071 up and in.
    half = math.sqrt(0.5)
    thick = 80 * half

    def bar(x0: float, x1: float, v0: float, v1: float, near: float = 0.0, deep: float = 80.0) -> tuple[float, ...]:
        """Bounds of what lies from v0 to v1 up the slope; it goes `deep` down into the room, square to the slope."""
        y0, z0 = 200 + (v0 + near) * half, 1400 + (v0 - near - deep) * half
        return (x0, y0, z0, x1, 200 + (v1 + near + deep) * half, 1400 + (v1 - near) * half)

    assert thick == pytest.approx(56.57, abs=0.01)
    assert found["roof window"] == [
        pytest.approx(b)
        for b in (
            bar(2300, 3100, 0, 60), bar(2300, 3100, 940, 1000), bar(3040, 3100, 60, 940), bar(2300, 2360, 60, 940),
        )
    ]  # fmt: skip
    assert found["pane"] == [pytest.approx(bar(2360, 3040, 60, 940, 30.0, 20.0))]


def test_many_solids_in_one_mesh_keep_their_own_corners(full: Workings) -> None:
    # Faces and edges of every solid, boxes and prisms mixed, join its own corners and no other's.
    room = room_of(full)
    solids = list(shell_solids(room.room, room.walls, room.points))
    assert {type(s).__name__ for s in solids} == {"Box", "Prism"} and len(solids) > 8
    mesh = mesh_of("#FFFFFF", solids)
    in_order = [s for s in solids if isinstance(s, Box)] + [s for s in solids if not isinstance(s, Box)]
    for joins, owner in ((mesh.quads, mesh.quad_owner), (mesh.lines, mesh.line_owner)):
        for row, own in zip(joins, owner, strict=True):
            assert {int(mesh.point_owner[i]) for i in row} == {int(own)}
    for i, solid in enumerate(in_order):
        assert bounds(mesh.points[mesh.point_owner == i].tolist()) == pytest.approx(bounds(corners(solid))), solid.name


@pytest.mark.parametrize(
    ("text", "slanting"),
    [
        ("3000, 2000 corner 135, rest, rest", {"C": 45.0}),
        ("3000 corner 120, 2000, rest, rest", {"B": -60.0, "D": None}),
    ],
)
def test_lengths_of_slanting_walls_are_read_from_below(text: str, slanting: dict[str, float | None]) -> None:
    w = Workings(outline.type_outline(new_job(), "r1", text).job)
    room = room_of(w)
    found = {i.source.id: i for i in plan(w.job, room, w.made).items if isinstance(i, Text) and i.angle}
    for wall in slanting:
        turn = math.degrees(math.atan2(room.wall(wall).frame.x[1], room.wall(wall).frame.x[0]))
        if min(abs(turn), abs(abs(turn) - 90), abs(abs(turn) - 180)) < 0.5:
            continue
        text_item = found[wall]
        # The text runs along the wall, never upside down, and its length is the wall's.
        assert -90.0 < text_item.angle <= 90.0
        assert math.sin(math.radians(text_item.angle - turn)) == pytest.approx(0.0, abs=1e-9)
        assert float(text_item.text.lstrip("~")) == pytest.approx(room.wall(wall).length, abs=0.6)
        assert set_out(w.job).rooms[0].wall(wall).length == room.wall(wall).length
        # It stands 60 outside the wall.
        along, out = room.wall(wall).frame.from_floor((text_item.x, text_item.y))  # type: ignore[arg-type]
        assert (along, out) == pytest.approx((room.wall(wall).length / 2, room.wall(wall).thickness + 60.0))


def test_a_room_of_many_walls_has_its_size_beside_them_once() -> None:
    # Where no wall is as long as the whole room, its size stands in a row further out; where one is, it says it.
    w = Workings(outline.type_outline(new_job(), "r1", "4000 corner 135, 2000, rest, rest").job)
    room = room_of(w)
    wide, deep = room.size
    t = max(wall.thickness for wall in room.walls)
    dims = [i for i in plan(w.job, room, w.made).items if isinstance(i, Dim)]
    whole = [(d.a, d.b, d.base, d.row, d.along) for d in dims if d.source == Kind.ROOM.of("r1")]
    walls = {wall.id: wall for wall in room.walls}
    has_wide = any(abs(v.length - wide) < 0.5 and abs(v.frame.x[1]) < 1e-9 for v in walls.values())
    has_deep = any(abs(v.length - deep) < 0.5 and abs(v.frame.x[0]) < 1e-9 for v in walls.values())
    wanted = ([] if has_wide else [(0.0, wide, deep + t, 2, "x")]) + ([] if has_deep else [(0.0, deep, -t, -1, "y")])
    # At the left no wall runs upright: nothing else stands there.
    assert wanted and whole == wanted
    assert {d.source.id for d in dims if d.source and d.source.kind is Kind.WALL} < set(walls)
