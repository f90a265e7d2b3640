"""The model as binary glTF 2.0: metres, y up, one mesh a color, parts named."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from tall_plank.scene import Scene


def write_gltf(scene: Scene, path: Path) -> None:
    """Write a scene as .glb. glTF is y up and in metres: (x, y, z) mm becomes (x, z, -y) / 1000."""
    import numpy as np
    import trimesh

    out: Any = trimesh.Scene()
    for mesh in scene.meshes:
        rgb = [int(mesh.color[i : i + 2], 16) for i in (1, 3, 5)]
        linear = [_linear(c / 255) for c in rgb]
        material = trimesh.visual.material.PBRMaterial(
            baseColorFactor=[*linear, 1.0], metallicFactor=0.0, roughnessFactor=0.7, name=mesh.color
        )
        points = mesh.points[:, [0, 2, 1]] / 1000 * np.array([1.0, 1.0, -1.0])
        # Each box keeps corners of its own for each face, so that shading stays flat.
        corners = points[mesh.quads.reshape(-1)]
        quads = np.arange(len(corners)).reshape(-1, 4)
        triangles = np.concatenate([quads[:, [0, 1, 2]], quads[:, [0, 2, 3]]])
        # A triangle is a quad that repeats its last corner: its second half is nothing.
        flat = mesh.quads[:, 2] == mesh.quads[:, 3]
        triangles = triangles[np.concatenate([np.ones(len(flat), dtype=bool), ~flat])]
        body = trimesh.Trimesh(vertices=corners, faces=triangles, process=False)
        body.visual = trimesh.visual.TextureVisuals(material=material)
        out.add_geometry(body, node_name=f"finish {mesh.color}", geom_name=f"finish {mesh.color}")
    path.write_bytes(out.export(file_type="glb"))


def _linear(c: float) -> float:
    """sRGB to linear (IEC 61966-2-1)."""
    return c / 12.92 if c <= 0.04045 else float(((c + 0.055) / 1.055) ** 2.4)
