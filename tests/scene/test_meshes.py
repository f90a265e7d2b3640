from __future__ import annotations

import numpy as np

from tall_plank.job import Job
from tall_plank.measure.frames import box_corners
from tall_plank.scene import build_scene, visible_scene
from tall_plank.workings import Workings


def scene_of(job: Job, *, hidden: bool):  # type: ignore[no-untyped-def]
    w = Workings(job)
    make = build_scene if hidden else visible_scene
    return w, make(job, w.layout, w.made, "r1")


def test_every_part_is_a_box_where_its_frame_says(job: Job) -> None:
    w, scene = scene_of(job, hidden=True)
    named = {name: mesh.points[8 * i : 8 * i + 8] for mesh in scene.meshes for i, name in enumerate(mesh.names)}
    for placed, unit in w.made.units:
        for part in unit.parts:
            points = named[f"{placed.number} {part.name}"]
            low, high = box_corners(placed.frame.then(part.frame), (part.length, part.width, part.thickness))
            assert np.allclose(points.min(axis=0), low)
            assert np.allclose(points.max(axis=0), high)


def test_faces_look_outwards(job: Job) -> None:
    _, scene = scene_of(job, hidden=True)
    for mesh in scene.meshes:
        corners = mesh.points[mesh.quads]
        normals = np.cross(corners[:, 1] - corners[:, 0], corners[:, 3] - corners[:, 0])
        boxes = [np.sum(mesh.point_owner == i) for i in range(len(mesh.sources))]
        assert all(n == 8 for n in boxes)  # nothing here has an outline of its own
        middles = mesh.points.reshape(-1, 8, 3).mean(axis=1)[mesh.quad_owner]
        out = ((corners.mean(axis=1) - middles) * normals).sum(axis=1)
        assert (out > 0).all()


def test_what_closed_fronts_hide_is_left_out(job: Job) -> None:
    _, whole = scene_of(job, hidden=True)
    _, seen = scene_of(job, hidden=False)
    names = {name for mesh in seen.meshes for name in mesh.names}
    assert "A2 drawer 1 bottom" not in names
    assert "A6 shelf 1" in names  # an open unit shows its shelves
    assert sum(len(m.quads) for m in seen.meshes) < sum(len(m.quads) for m in whole.meshes)
