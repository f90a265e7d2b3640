from __future__ import annotations

from pathlib import Path

import numpy as np
import pytest

from conftest import with_run
from tall_plank.files.gltf import write_gltf
from tall_plank.job import Job, Level
from tall_plank.job.start import new_job
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


def test_the_model_written_as_gltf_has_the_same_faces(tmp_path: Path) -> None:
    """Read back by a general-purpose library: as many triangles, the same area in square metres."""
    import trimesh

    job = with_run(new_job(), "A", Level.BASE, "bow 600, drawers 600, slant right 300")
    _, scene = scene_of(job, hidden=True)
    write_gltf(scene, tmp_path / "model.glb")
    bodies = trimesh.load(tmp_path / "model.glb").geometry.values()
    triangles, area = 0, 0.0
    for mesh in scene.meshes:
        for a, b, c, d in mesh.quads:
            corners = mesh.points[[a, b, c, d]]
            for i, k in ((1, 2), (2, 3)):
                if (i, k) == (2, 3) and c == d:
                    continue
                triangles += 1
                area += float(np.linalg.norm(np.cross(corners[i] - corners[0], corners[k] - corners[0])) / 2)
    assert sum(len(b.faces) for b in bodies) == triangles
    assert sum(b.area for b in bodies) == pytest.approx(area / 1e6, rel=1e-4)
