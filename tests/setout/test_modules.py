"""Modules of mitred pieces: they make their zone, are symmetric, and their pieces are closed bodies."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.edits.rooms import set_room_length
from tall_plank.edits.things.opening import add_opening
from tall_plank.edits.things.service import add_service
from tall_plank.edits.things.wall_field import add_field, set_field
from tall_plank.edits.treatments import set_zone
from tall_plank.job import Job
from tall_plank.job.start import new_job
from tall_plank.making.parts import Cutout
from tall_plank.measure.outlines import area
from tall_plank.setout import set_out
from tall_plank.setout.paneling.modules import ModuleShape, ModulesLaid
from tall_plank.workings import Workings


def covered(width: str = "3600mm", **more: str) -> Job:
    job = set_room_length(new_job("Modules"), "r1", "width", width).job
    job = add_field(job, "r1", "A", "modules").job
    for key, text in more.items():
        job = set_zone(job, job.treatments[0].id, (), key, text).job
    return job


def laid(job: Job) -> ModulesLaid:
    found = set_out(job).rooms[0].fields[0].zones[0].modules
    assert found is not None
    return found


def test_a_module_of_750_with_pieces_of_200_has_a_center_of_350() -> None:
    """Common practice: four mitred wedges 200 wide round a center of 350."""
    pieces = dict(ModuleShape(750.0, 750.0, 200.0).pieces())
    assert abs(area([(x, y) for x, y, _ in pieces["center"]])) == pytest.approx(350**2)
    for name in ("bottom", "right", "top", "left"):
        assert abs(area([(x, y) for x, y, _ in pieces[name]])) == pytest.approx((750 + 350) / 2 * 200)  # type: ignore[index]


@given(
    st.integers(1000, 6000), st.integers(100, 900), st.integers(100, 900), st.integers(0, 40),
    st.sampled_from(("centered", "corner")), st.sampled_from(("", "door", "window")),
)  # fmt: skip
def test_modules_and_gaps_make_their_zone(width: int, w: int, h: int, gap: int, start: str, opening: str) -> None:
    """With a center as thick as the ring and no least piece to speak of, pieces and gaps are the whole zone."""
    job = set_room_length(new_job("Modules"), "r1", "width", f"{width}mm").job
    if opening and width > 2000:
        job = add_opening(job, "r1", "A", opening, 400.0).job
    job = add_field(job, "r1", "A", "modules").job
    tid = job.treatments[0].id
    for key, mm in (("width", w), ("height", h), ("ring", min(w, h) // 4), ("gap", gap), ("least", 1)):
        job = set_zone(job, tid, (), key, f"{mm}mm").job
    job = set_zone(job, tid, (), "start", start).job
    zone = set_out(job).rooms[0].fields[0].zones[0]
    found = zone.modules
    assert found is not None
    covered_area = len(found.whole) * w * h + math.fsum(c.shape.area for c in found.cut)
    assert covered_area <= zone.area + 1.0
    if gap == 0:
        # What is left out is narrower or lower than 1 mm.
        assert covered_area == pytest.approx(zone.area, abs=2.0 * (width + 2500) * 2)
    g = found.grid
    across = g.margin_x + g.across * w + (g.across - 1) * gap + g.other_x
    assert across == pytest.approx(width) and g.other_x < w + gap
    if start == "centered":
        assert g.margin_x == pytest.approx(g.other_x) and g.margin_z == pytest.approx(g.other_z)
        if not opening:
            turned = {(round(width - x - w, 3), z) for x, z in found.whole}
            assert turned == {(round(x, 3), z) for x, z in found.whole}, "symmetric"
    else:
        assert g.margin_x == 0.0 and g.margin_z == 0.0


def test_margins_are_told_with_the_larger_ones() -> None:
    grid = laid(covered()).grid
    assert (grid.across, grid.margin_x, grid.other_x) == (4, 292.5, 292.5)
    assert grid.wider_x == pytest.approx((3600 - 3 * 750 - 2 * 5) / 2)
    grid = laid(covered(start="corner")).grid
    assert (grid.margin_x, grid.other_x) == (0.0, 585.0)


def test_every_piece_is_a_closed_body_of_its_area_and_thickness() -> None:
    """Against trimesh, a general-purpose library: watertight, and as large as its outline times its thickness."""
    import trimesh

    from tall_plank.solids.parts import solid_of
    from tall_plank.solids.solids import mesh_of

    job = covered("4000mm", center_thickness="19mm")
    w = Workings(job)
    trims = [t for t in w.made.trims if t.part is not None and t.part.role == "wall panel"]
    assert len(trims) > 60
    for trim in trims:
        part = trim.part
        assert part is not None and trim.source is not None
        mesh = mesh_of("x", solid_of(trim.parent.then(part.frame), part, "x", trim.source, ""))
        faces = np.concatenate([mesh.quads[:, [0, 1, 2]], mesh.quads[:, [0, 2, 3]]])
        faces = faces[(faces[:, 0] != faces[:, 1]) & (faces[:, 1] != faces[:, 2]) & (faces[:, 2] != faces[:, 0])]
        body = trimesh.Trimesh(mesh.points, faces)
        own = area(part.outline) if part.outline else part.length * part.width
        assert body.is_watertight and body.volume == pytest.approx(own * part.thickness, rel=1e-9)


def test_alike_pieces_are_one_row_wherever_they_lie() -> None:
    w = Workings(covered())
    rows = [r for r in w.cut_rows if r.name.startswith("module piece") and (r.length, r.width) == (750.0, 200.0)]
    assert sorted(r.qty for r in rows) == [6, 48]


def test_an_outlet_is_cut_out_of_one_module_only() -> None:
    job = covered(center_thickness="18mm")
    x, _ = laid(job).whole[4]
    job = add_service(job, "r1", "A", "power", x + 375.0).job
    job = set_field(job, job.rooms[0].fields[0].id, "name", "Relief").job
    w = Workings(job)
    height = w.job.rooms[0].services[0].height.mm
    assert not [t.problem for t in w.made.trims if t.problem is not None]
    cuts = [
        t.part for t in w.made.trims if t.part is not None and any(isinstance(o, Cutout) for o in t.part.operations)
    ]
    told = [p.what for f in w.made.fields for p in f.problems]
    assert len([p for p in cuts if p.role == "wall panel"]) == 1 or any("edge of a piece" in t for t in told), height


@pytest.mark.parametrize(
    ("key", "text", "what"), [("ring", "375mm", "no center"), ("height", "4000mm", "finds no room")]
)
def test_modules_that_cannot_be_are_told(key: str, text: str, what: str) -> None:
    faults = set_out(covered(**{key: text})).rooms[0].fields[0].faults
    assert what in faults[0].what and faults[0].remedy
