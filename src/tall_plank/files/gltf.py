"""The model as binary glTF 2.0 (ISO/IEC 12113): metres, y up; a node for each unit with a node for each of its parts,
normals, one material a finish."""

from __future__ import annotations

from collections.abc import Mapping
from pathlib import Path
from typing import Any

import numpy as np

from tall_plank.formats.writing import put
from tall_plank.job import Source
from tall_plank.scene import Mesh, Scene


def write_gltf(
    scene: Scene, path: Path, owners: Mapping[Source, str] | None = None, finishes: Mapping[str, str] | None = None
) -> None:
    """Write a scene as .glb. glTF is y up and in metres: (x, y, z) mm becomes (x, z, -y) / 1000.

    Parameters
    ----------
    owners : what the things of a scene are called: a unit's number and kind; a thing of no name is the room's
    finishes : color -> name of the finish; a color of none is called by itself
    """
    import trimesh

    out: Any = trimesh.Scene()
    names: dict[str, int] = {}
    groups: dict[str, str] = {}
    for mesh in scene.meshes:
        material = _material(mesh.color, (finishes or {}).get(mesh.color, mesh.color))
        for source, name, quads in _things(mesh):
            body = trimesh.Trimesh(*_triangles(mesh, quads), process=False)
            body.visual = trimesh.visual.TextureVisuals(material=material)
            owner = (owners or {}).get(source, ROOM)
            if owner not in groups:
                groups[owner] = _once(owner, names)
                out.graph.update(frame_from=out.graph.base_frame, frame_to=groups[owner], matrix=np.eye(4))
            node = _once(name or owner, names)
            out.add_geometry(body, node_name=node, geom_name=node, parent_node_name=groups[owner])
    put(path, out.export(file_type="glb", include_normals=True))


ROOM = "room"
"""The node of what belongs to no unit."""


def _once(name: str, names: dict[str, int]) -> str:
    """A name that no other node has: later ones are counted."""
    names[name] = names.get(name, 0) + 1
    return name if names[name] == 1 else f"{name} ({names[name]})"


def _material(color: str, name: str) -> Any:
    import trimesh

    linear = [_linear(int(color[i : i + 2], 16) / 255) for i in (1, 3, 5)]
    return trimesh.visual.material.PBRMaterial(
        baseColorFactor=[*linear, 1.0], metallicFactor=0.0, roughnessFactor=0.7, name=name
    )


def _things(mesh: Mesh) -> list[tuple[Source, str, Any]]:
    """What a mesh is made of: whose, its name, its quads; several bodies of one name are one."""
    order: dict[tuple[Source, str], list[int]] = {}
    for i, key in enumerate(zip(mesh.sources, mesh.names, strict=True)):
        order.setdefault(key, []).append(i)
    place = np.zeros(len(mesh.sources), dtype=np.int64)
    for k, owners in enumerate(order.values()):
        place[owners] = k
    of = place[mesh.quad_owner]
    sort = np.argsort(of, kind="stable")
    ends = np.searchsorted(of[sort], np.arange(len(order) + 1))
    return [
        (source, name, mesh.quads[sort[ends[k] : ends[k + 1]]])
        for k, (source, name) in enumerate(order)
        if ends[k] < ends[k + 1]
    ]


def _triangles(mesh: Mesh, quads: Any) -> tuple[Any, Any]:
    """Corners and triangles of some quads. Each face keeps corners of its own, so that shading stays flat."""
    points = mesh.points[:, [0, 2, 1]] / 1000 * np.array([1.0, 1.0, -1.0])
    corners = points[quads.reshape(-1)]
    places = np.arange(len(corners)).reshape(-1, 4)
    triangles = np.concatenate([places[:, [0, 1, 2]], places[:, [0, 2, 3]]])
    # A triangle is a quad that repeats its last corner: its second half is nothing.
    flat = quads[:, 2] == quads[:, 3]
    triangles = triangles[np.concatenate([np.ones(len(flat), dtype=bool), ~flat])]
    # A corner of no triangle would have no normal.
    used, triangles = np.unique(triangles, return_inverse=True)
    return corners[used], triangles.reshape(-1, 3)


def _linear(c: float) -> float:
    """sRGB to linear (IEC 61966-2-1)."""
    return c / 12.92 if c <= 0.04045 else float(((c + 0.055) / 1.055) ** 2.4)
