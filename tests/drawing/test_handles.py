from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.handles import handle_drawing, handle_items, handle_outline
from tall_plank.drawing.primitives import Layer, Shape
from tall_plank.edits import standards, units
from tall_plank.job import Job
from tall_plank.measure.outlines import area, bounds
from tall_plank.scene import build_scene
from tall_plank.stock import shipped_stock
from tall_plank.workings import Workings

HANDLES = shipped_stock().fittings_of("handle")


@pytest.mark.parametrize("handle", HANDLES, ids=lambda h: h.code)
def test_a_handle_is_drawn_as_long_as_it_is_lying_and_upright(handle) -> None:  # type: ignore[no-untyped-def]
    (lying,) = handle_items(handle, (100, 50, 100 + handle.length, 50))
    (upright,) = handle_items(handle, (100, 50, 100, 50 + handle.length))
    assert isinstance(lying, Shape) and isinstance(upright, Shape)
    x0, _, x1, _ = bounds(lying.points)
    _, y0, _, y1 = bounds(upright.points)
    assert x1 - x0 == pytest.approx(handle.length) == pytest.approx(y1 - y0)
    assert abs(area(lying.points)) == pytest.approx(abs(area(upright.points)))
    assert lying.fill == handle.finish


@pytest.mark.parametrize("handle", HANDLES, ids=lambda h: h.code)
def test_the_picture_of_a_handle_holds_all_of_it(handle) -> None:  # type: ignore[no-untyped-def]
    drawing = handle_drawing(handle)
    for item in drawing.items:
        if isinstance(item, Shape):
            x0, y0, x1, y1 = bounds(item.points)
            assert drawing.x0 <= x0 and x1 <= drawing.x0 + drawing.width
            assert drawing.y0 <= y0 and y1 <= drawing.y0 + drawing.height


@given(st.sampled_from(HANDLES))
def test_a_handle_stands_out_of_its_front_by_its_projection(handle) -> None:  # type: ignore[no-untyped-def]
    from conftest import with_run
    from tall_plank.job import Level
    from tall_plank.job.start import new_job

    job = with_run(new_job(), "A", Level.BASE, "door 600, drawers 600")
    job = standards.set_in_force(job, "handle", handle.code).job
    w = Workings(job)
    scene = build_scene(job, w.layout, w.made, "r1")
    wall = w.layout.rooms[0].walls[0]
    deep = 560 + w.made.units[0][1].spec.made.front_thickness
    found = []
    for mesh in scene.meshes:
        for i, name in enumerate(mesh.names):
            if name.endswith("handle"):
                ys = [wall.frame.into(tuple(p))[1] for p in mesh.points[mesh.point_owner == i]]
                found.append((min(ys), max(ys)))
    assert found
    assert min(low for low, _ in found) == pytest.approx(-deep - handle.projection, abs=1e-6)
    assert max(high for _, high in found) <= -deep + 1e-6 + handle.projection


def test_the_elevation_shows_the_handle_of_each_unit(job: Job) -> None:
    job = units.set_own(job, (cell_of(job, "A2"),), "handle", "HD-KNOB").job
    w = Workings(job)
    drawing = elevation(job, w.layout.rooms[0], w.layout.rooms[0].walls[0], w.made)
    fills = {i.fill for i in drawing.items if isinstance(i, Shape) and i.layer is Layer.HANDLE}
    assert fills == {"#2A2A2A", "#B07A1E"}


@pytest.mark.parametrize("handle", [*HANDLES, None], ids=lambda h: h.code if h is not None else "none")
def test_a_handle_lies_about_its_middle_line(handle) -> None:  # type: ignore[no-untyped-def]
    length = handle.length if handle is not None else 160.0
    x0, y0, x1, y1 = bounds(handle_outline(handle, length))
    assert (x0, x1) == pytest.approx((0.0, length))
    assert y0 == pytest.approx(-y1, abs=0.6)
    thick = {"bar": 12.0, "bow": 12.0, "edge": 14.0, "cup": 34.0}
    shape = handle.shape if handle is not None else "bar"
    if shape in thick and (handle is None or handle.centers or length > 60.0):
        assert y1 - y0 == pytest.approx(thick[shape])
