"""Meshes for the model view: shade baked into their faces, dark edges, and from where a box is seen whole."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from tall_plank.scene import Mesh

VIEW_ANGLE = 32.0
"""Degrees that the eye takes in from top to bottom."""


def rgb_of(color: str) -> tuple[float, float, float]:
    return tuple(int(color[i : i + 2], 16) / 255 for i in (1, 3, 5))  # type: ignore[return-value]


def _shaded(mesh: Mesh, facing: float) -> Any:
    """Colors per quad, light baked in: from above, and a little from one side of where the eye stood at first.

    Parameters
    ----------
    facing : degrees from east; direction of that eye
    """
    p = mesh.points[mesh.quads]
    normal = np.cross(p[:, 1] - p[:, 0], p[:, 3] - p[:, 0])
    length = np.linalg.norm(normal, axis=1, keepdims=True)
    normal = normal / np.where(length > 0, length, 1.0)
    side = math.radians(facing + 17.0)
    light = np.array([0.55 * math.cos(side), 0.55 * math.sin(side), 0.83])
    bright = 0.86 + 0.17 * np.clip(normal @ light, -1.0, 1.0)
    rgb = np.array(rgb_of(mesh.color))
    return (np.clip(bright[:, None] * rgb[None, :], 0, 1) * 255).astype(np.uint8)


FILLED = 0.93
"""Share of the view that a scene fills when it is fitted."""


def whole_in_view(
    low: tuple[float, float, float], high: tuple[float, float, float], turn: float, tilt: float, shape: float
) -> tuple[tuple[float, float, float], float]:
    """Where to look at, and from how far, so that an upright box fills the view without being cut off.

    Parameters
    ----------
    low, high : corners of the box, mm
    turn, tilt : of the eye about the box, degrees
    shape : width of the view over its height
    """
    a, b = math.radians(turn), math.radians(tilt)
    ahead = np.array([-math.cos(a) * math.cos(b), -math.sin(a) * math.cos(b), -math.sin(b)])
    right = np.array([-math.sin(a), math.cos(a), 0.0])
    up = np.cross(right, ahead)
    corners = np.array([(x, y, z) for x in (low[0], high[0]) for y in (low[1], high[1]) for z in (low[2], high[2])])
    half = math.tan(math.radians(VIEW_ANGLE / 2)) * FILLED
    center, distance = (np.array(low) + np.array(high)) / 2, 0.0
    for step in range(5):
        away = corners - center
        across, upward, deep = away @ right, away @ up, away @ ahead
        distance = float(max((np.abs(across) / (half * shape) - deep).max(), (np.abs(upward) / half - deep).max()))
        if step == 4:
            break  # the distance is that of the middle as it stays
        # What is nearer looks larger: the middle of what is seen comes into the middle of the view.
        for axis, off in ((right, across), (up, upward)):
            seen = off / (distance + deep)
            center = center + axis * (seen.max() + seen.min()) / 2 * distance
    return (float(center[0]), float(center[1]), float(center[2])), distance


def actors_of(mesh: Mesh, facing: float) -> list[Any]:
    """Faces with shade baked in, and their edges."""
    from vtkmodules.util.numpy_support import numpy_to_vtk, numpy_to_vtkIdTypeArray
    from vtkmodules.vtkCommonCore import vtkPoints
    from vtkmodules.vtkCommonDataModel import vtkCellArray, vtkPolyData
    from vtkmodules.vtkRenderingCore import vtkActor, vtkPolyDataMapper

    points = vtkPoints()
    points.SetData(numpy_to_vtk(mesh.points.astype(np.float32), deep=True))

    def cells(array: Any) -> Any:
        flat = np.hstack([np.full((len(array), 1), array.shape[1], dtype=np.int64), array]).reshape(-1)
        made = vtkCellArray()
        ids = numpy_to_vtkIdTypeArray(np.ascontiguousarray(flat), deep=True)
        made.ImportLegacyFormat(ids)
        return made

    faces = vtkPolyData()
    faces.SetPoints(points)
    faces.SetPolys(cells(mesh.quads))
    colors = numpy_to_vtk(_shaded(mesh, facing), deep=True)
    faces.GetCellData().SetScalars(colors)
    mapper = vtkPolyDataMapper()
    mapper.SetInputData(faces)
    mapper.SetResolveCoincidentTopologyToPolygonOffset()
    mapper.SetRelativeCoincidentTopologyPolygonOffsetParameters(1.0, 1.0)
    body = vtkActor()
    body.SetMapper(mapper)
    body.GetProperty().LightingOff()
    body.GetProperty().BackfaceCullingOn()

    outline = vtkPolyData()
    outline.SetPoints(points)
    outline.SetLines(cells(mesh.lines))
    edge_mapper = vtkPolyDataMapper()
    edge_mapper.SetInputData(outline)
    edge_mapper.SetRelativeCoincidentTopologyLineOffsetParameters(0.0, -6.0)
    edges = vtkActor()
    edges.SetMapper(edge_mapper)
    r, g, b = rgb_of(mesh.color)
    edges.GetProperty().SetColor(r * 0.55, g * 0.55, b * 0.55)
    edges.GetProperty().LightingOff()
    edges.SetPickable(False)
    return [body, edges]
