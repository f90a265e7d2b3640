"""Roof windows, guide lines, plan images and what appliances ask of a room."""

from __future__ import annotations

import io
import math
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from conftest import cell_of, with_run
from tall_plank.drawing.elevation import elevation, marked_label
from tall_plank.drawing.plan import plan
from tall_plank.drawing.primitives import Pen, Shape
from tall_plank.edits import placing, rooms, runs, units, values
from tall_plank.edits.change import Change
from tall_plank.edits.things.guide import add_guide, clear_guides, move_guide, set_guide
from tall_plank.edits.things.roof_window import add_roof_window, move_roof_window, set_roof_window
from tall_plank.edits.things.service import add_service
from tall_plank.edits.things.slope import add_slope, set_slope
from tall_plank.edits.things.table import delete_thing
from tall_plank.edits.things.underlay import add_underlay, scale_underlay, set_underlay
from tall_plank.files.images import read_image
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.job import History, Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.setout import set_out
from tall_plank.setout.things.roof_window import roof_window_corners
from tall_plank.workings import Workings


def sloped() -> Job:
    """3600 x 2400 (the start room), the ceiling down to 1200 at wall C, full height 1300 from it."""
    job = rooms.set_room_length(new_job(), "r1", "height", "2500").job
    slope = add_slope(job, "r1", "C")
    job = set_slope(slope.job, slope.made[0], "low", "1200").job
    return set_slope(job, slope.made[0], "run", "1300").job


def with_window(**sizes: str) -> Job:
    change = add_roof_window(sloped(), "r1", "C")
    job = change.job
    for key, text in sizes.items():
        job = set_roof_window(job, change.made[0], key, text).job
    return job


def test_a_roof_window_lies_in_the_plane_of_its_slope() -> None:
    # 1300 up in 1300: 45 degrees. Its sill 200 above the wall lies 200 from the wall; 1000 up the slope is 707 each way.
    job = with_window(length="1000", sill="1400", x="500", width="800")
    room = job.rooms[0]
    corners = roof_window_corners(room, room.roof_windows[0])
    wall = set_out(job).rooms[0].wall("C")
    seen = [wall.frame.into(c) for c in corners]
    up = 1000 / math.sqrt(2)
    assert seen[0] == pytest.approx((500, -200, 1400))
    assert seen[1] == pytest.approx((1300, -200, 1400))
    assert seen[2] == pytest.approx((1300, -200 - up, 1400 + up))
    # Every corner lies under the ceiling's slope.
    for x, y, z in corners:
        assert z == pytest.approx(1200 - wall.frame.into((x, y, 0))[1])


def test_a_roof_window_that_leaves_its_slope_is_refused() -> None:
    job = with_window()
    name = job.rooms[0].roof_windows[0].id
    for key, text, word in (
        ("sill", "1100", "below the slope"), ("sill", "2400", "past the upper end"), ("x", "3000", "past the end of the"),
        ("length", "5000", "past the upper end"), ("width", "20", "100"), ("hand", "left", "no hand"),
    ):  # fmt: skip
        with pytest.raises(PlankError, match=word):
            set_roof_window(job, name, key, text)
    with pytest.raises(PlankError, match="No ceiling slopes"):
        add_roof_window(job, "r1", "A")
    # A slope that no longer holds it is refused as well; taken away, it takes the window along.
    slope = job.rooms[0].slopes[0].id
    with pytest.raises(PlankError, match="below the slope"):
        set_slope(job, slope, "low", "2300")
    assert delete_thing(job, Kind.SLOPE.of(slope)).job.rooms[0].roof_windows == ()


def test_a_roof_window_is_drawn_on_the_slope_over_its_wall_and_dashed_in_plan() -> None:
    w = Workings(with_window())
    room = w.layout.rooms[0]
    drawing = elevation(w.job, room, room.wall("C"), w.made)
    assert drawing.height == 2500  # the slope shows above the wall of 1200
    source = Kind.ROOF_WINDOW.of(room.room.roof_windows[0].id)
    seen = [i for i in drawing.items if isinstance(i, Shape) and i.source == source]
    zs = [z for s in seen for _, z in s.points]
    assert min(zs) > 1200 and max(zs) < 2500
    other = elevation(w.job, room, room.wall("A"), w.made)
    assert not any(getattr(i, "source", "") == source for i in other.items)
    above = [i for i in plan(w.job, room, w.made).items if getattr(i, "source", "") == source]
    assert [i.pen for i in above if isinstance(i, Shape)] == [Pen.ABOVE]


def test_a_unit_is_held_by_a_guide_line_and_follows_it() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 400, drawers 600")
    change = add_guide(job, "r1", "x", "A", 1500.0)
    line = change.made[0]
    job = placing.hold(change.job, cell_of(change.job, "A2"), "left", Kind.GUIDE.of(line)).job
    assert set_out(job).find(cell_of(job, "A2")).x == 1500  # type: ignore[union-attr]
    job = set_guide(job, line, "1.7m").job
    assert set_out(job).find(cell_of(job, "A2")).x == 1700  # type: ignore[union-attr]
    # A guide on another wall holds nothing here; one that goes lets the unit go.
    other = add_guide(job, "r1", "x", "B", 500.0)
    with pytest.raises(PlankError, match="not on this unit's wall"):
        placing.hold(other.job, cell_of(job, "A1"), "left", Kind.GUIDE.of(other.made[0]))
    gone = clear_guides(other.job, "r1").job
    assert gone.rooms[0].guides == ()
    assert set_out(gone).find(cell_of(job, "A2")).x == 400  # type: ignore[union-attr]


def test_guides_stay_in_the_room_and_follow_named_values() -> None:
    job = values.set_value(new_job(), "eye_line", "1500").job
    change = add_guide(job, "r1", "z")
    job, line = change.job, change.made[0]
    assert job.rooms[0].guides[0].at.mm == 1500
    assert values.set_value(job, "eye_line", "1600").job.rooms[0].guides[0].at.mm == 1600
    assert move_guide(job, line, 99_999.0).job.rooms[0].guides[0].at.mm == job.rooms[0].height.mm
    with pytest.raises(PlankError):
        set_guide(job, line, "9000")
    with pytest.raises(PlankError):
        add_guide(job, "r1", "q")
    with pytest.raises(PlankError):
        add_guide(job, "r1", "x", "Q")


def test_guides_are_on_no_paper() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 400")
    for axis, wall in (("x", "A"), ("z", ""), ("y", "")):
        job = add_guide(job, "r1", axis, wall).job
    w = Workings(job)
    room = w.layout.rooms[0]
    drawn = [*elevation(job, room, room.wall("A"), w.made).items, *plan(job, room, w.made).items]
    assert not any(i.source is not None and i.source.kind is Kind.GUIDE for i in drawn)


@given(st.floats(-3000, 3000))
def test_a_hung_run_lifts_by_what_is_asked_and_stops_at_floor_and_ceiling(by: float) -> None:
    job = with_run(new_job(), "A", Level.HUNG, "door 400, pair 800")
    run = job.rooms[0].runs[0].id
    before = set_out(job).placed
    after = set_out(runs.lift_run(job, run, by).job).placed
    high = job.rooms[0].height.mm
    moved = after[0].bottom - before[0].bottom
    assert all(p.bottom >= -1e-6 and p.top <= high + 1e-6 for p in after)
    assert moved == pytest.approx(by, abs=1e-3) or min(p.bottom for p in after) < 1e-3 or after[0].top > high - 1e-3
    base = with_run(new_job(), "A", Level.BASE, "door 400")
    with pytest.raises(PlankError, match="plinth"):
        runs.lift_run(base, base.rooms[0].runs[0].id, by)


# --- plan images


def image_file(path: Path, size: tuple[int, int] = (400, 300)) -> Path:
    Image.new("RGB", size, "#ddeeff").save(path)
    return path


def with_image(tmp_path: Path) -> Job:
    image = read_image(image_file(tmp_path / "plan.png"))
    return add_underlay(new_job(), "r1", image.wide, image.high, image.data).job


def test_an_image_is_scaled_by_one_known_length_about_the_first_point(tmp_path: Path) -> None:
    job = with_image(tmp_path)
    name = job.rooms[0].underlays[0].id
    job = scale_underlay(job, name, (1000.0, 500.0), (1900.0, 500.0), "1800").job
    under = job.rooms[0].underlays[0]
    # Twice as large; the first point stays: what lay at (1000, 500) lies there still.
    assert (under.width.mm, under.x.mm, under.y.mm) == pytest.approx((7200, -1000, -500))
    for a, b, text in (((0.0, 0.0), (0.0, 0.0), "900"), ((0.0, 0.0), (900.0, 0.0), "nonsense"), ((0, 0), (5, 0), "9m")):
        with pytest.raises(PlankError):
            scale_underlay(job, name, a, b, text)


def test_an_image_lives_in_the_job_file_and_goes_with_its_underlay(tmp_path: Path) -> None:
    job = with_image(tmp_path)
    path = tmp_path / "x.plank"
    write_plank(job, path)
    assert read_plank(path) == job
    import zipfile

    with zipfile.ZipFile(path) as archive:
        assert [n for n in archive.namelist() if n.startswith("assets/")] == [f"assets/{job.pictures[0].name}"]
        # The picture is no part of the text.
        assert len(archive.read("job.json")) < 400_000
    bare = delete_thing(job, Kind.UNDERLAY.of(job.rooms[0].underlays[0].id)).job
    assert bare.pictures == () and bare.rooms[0].underlays == ()


def test_what_is_no_image_is_refused(tmp_path: Path) -> None:
    bad = tmp_path / "bad.png"
    bad.write_bytes(b"\x89PNG\r\n\x1a\n" + b"\0" * 50)
    text = tmp_path / "text.jpg"
    text.write_text("hello")
    for path in (bad, text, tmp_path / "nowhere.png", image_file(tmp_path / "one.png", (1, 1))):
        with pytest.raises(PlankError) as caught:
            read_image(path)
        assert caught.value.remedy
    # A large one is made smaller, its sides kept in proportion.
    large = read_image(image_file(tmp_path / "large.png", (6000, 1500)))
    assert (large.wide, large.high) == (2400, 600)
    assert Image.open(io.BytesIO(large.data)).size == (2400, 600)


def test_a_job_file_with_a_picture_that_is_none_is_refused(tmp_path: Path) -> None:
    import msgspec

    job = with_image(tmp_path)
    picture = job.pictures[0]
    for change in ({"data": b"MZ not an image"}, {"name": "../../x.jpg"}, {"wide": 0}):
        broken = msgspec.structs.replace(picture, **change)
        room = job.rooms[0]
        under = msgspec.structs.replace(room.underlays[0], image=broken.name)
        other = msgspec.structs.replace(
            job, pictures=(broken,), rooms=(msgspec.structs.replace(room, underlays=(under,)),)
        )
        path = tmp_path / "y.plank"
        write_plank(other, path)
        with pytest.raises(PlankError, match=r"picture|bad name"):
            read_plank(path)


# --- appliances and the room


def service_snags(job: Job) -> list[str]:
    return [f"{s.where.label}: {s.what}" for s in Workings(job).snags if s.rule == "service"]


def test_appliances_ask_for_the_service_points_that_they_need() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 600, dishwasher 600, sink 900, hob 900")
    assert service_snags(job) == [f"{job.rooms[0].name}: 3 units with appliances; no service point is marked."]
    job = add_service(job, "r1", "A", "water", 1600.0).job
    job = add_service(job, "r1", "A", "waste", 1700.0).job
    assert service_snags(job) == [
        "A2: No power point lies within 1200 of it.",
        "A4: No power point lies within 1200 of it.",
    ]
    # 900 from the dishwasher's left side, 1800 from the hob's: only the dishwasher is served.
    near = add_service(job, "r1", "A", "power", 300.0).job
    assert service_snags(near) == ["A4: No power point lies within 1200 of it."]
    both = add_service(job, "r1", "A", "power", 1500.0).job
    assert service_snags(both) == []


def test_an_appliance_keeps_its_floor_free() -> None:
    job = rooms.set_room_length(new_job(), "r1", "depth", "2000").job
    job = with_run(job, "A", Level.BASE, "gap 1000, cooker 900")

    def found(job: Job) -> list[str]:
        return [s.what for s in Workings(job).snags if s.rule == "clear floor"]

    assert found(job) == []
    facing = with_run(job, "C", Level.BASE, "gap 1400, drawers 1000")
    assert found(facing) == ["It needs 900 of clear floor before it; C1 stands there."]
    assert found(rooms.set_room_length(job, "r1", "depth", "1400").job) == [
        "It needs 900 of clear floor before it; a wall stands there."
    ]


def test_every_aid_undoes_to_the_job_before(tmp_path: Path) -> None:
    start = sloped()
    history = History(start)
    image = read_image(image_file(tmp_path / "p.png"))

    def do(change: Change) -> None:
        history.do(change.name, change.job)

    do(add_roof_window(history.job, "r1", "C"))
    do(move_roof_window(history.job, history.job.rooms[0].roof_windows[0].id, 100.0))
    do(add_guide(history.job, "r1", "y"))
    do(add_underlay(history.job, "r1", image.wide, image.high, image.data))
    do(set_underlay(history.job, history.job.rooms[0].underlays[0].id, "turn", "90"))
    while history.can_undo:
        history.undo()
    assert history.job == start


def test_an_image_moves_along_with_the_outline_that_was_traced_from_it(tmp_path: Path) -> None:
    from tall_plank.edits import outline

    job = with_image(tmp_path)
    job = outline.draw_outline(job, "r1", ((300.0, 400.0), (300.0, 3400.0), (4300.0, 3400.0), (4300.0, 400.0))).job
    under = job.rooms[0].underlays[0]
    assert (under.x.mm, under.y.mm) == (-300, -400)


def test_the_use_of_a_room_gives_new_base_units_a_fitting_depth() -> None:
    job = rooms.set_use(new_job(), "r1", "bathroom").job
    job = with_run(job, "A", Level.BASE, "door 400, sink 900")
    assert [p.depth for p in set_out(job).placed] == [460, 560]  # a sink stays as deep as it needs
    # Units that stand already keep theirs, and it can be given back like any own value.
    assert set_out(rooms.set_use(job, "r1", "kitchen").job).placed[0].depth == 460
    back = units.inherit_again(job, (cell_of(job, "A1"),), "depth").job
    assert set_out(back).placed[0].depth == 560
    # It is no mark of a unit that departs from its kind.
    room = set_out(job).rooms[0]
    assert marked_label(job, room.room, room.placed[0]) == "A1"


@pytest.mark.parametrize("low", ["1200", "1500.5", "2100"])
def test_a_new_roof_window_lies_whole_in_its_slope_on_whole_millimetres(low: str) -> None:
    slope = add_slope(rooms.set_room_length(new_job(), "r1", "height", "2500").job, "r1", "C")
    job = set_slope(set_slope(slope.job, slope.made[0], "low", low).job, slope.made[0], "run", "1300").job
    job = add_roof_window(job, "r1", "C", 3500.0).job
    (window,) = job.rooms[0].roof_windows
    for length in (window.x, window.width, window.sill, window.length):
        assert length.mm == int(length.mm)
    pitch = math.hypot(2500 - float(low), 1300)
    high = min(980.0, pitch * 0.8)
    assert window.length.mm == math.floor(high) - 2
    assert (window.x.mm, window.width.mm) == (3600 - 780, 780)
    # As far from the slope's lower end as from its upper one, within the rounding.
    up = (2500 - float(low)) / pitch
    below, above = window.sill.mm - float(low), 2500 - window.sill.mm - window.length.mm * up
    assert abs(below - above) < 3.5
