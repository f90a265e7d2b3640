"""Parts as solids with everything that is machined into them: holes are cut only where they are looked at."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
from numpy.typing import NDArray

from tall_plank.making.parts import Bevel, Bore, Cutout, Groove, Part, Rebate
from tall_plank.measure.frames import Vec
from tall_plank.measure.remembered import remembered

SEGMENTS = 16
"""Sides of a hole."""

HAIR = 0.05
"""mm that a cutting solid reaches past the face that it starts on."""


def machined(part: Part) -> Any:
    """The part's solid (a manifold3d Manifold) in its own frame, mm: its board less its operations. Bent parts are
    taken flat; edges worked to a profile stay square."""
    from manifold3d import CrossSection, Manifold

    if part.outline:
        body = Manifold.extrude(CrossSection([np.array(part.outline)]), part.thickness)
    else:
        body = Manifold.cube((part.length, part.width, part.thickness))
    cuts = [cut for op in part.operations if (cut := _cut(part, op)) is not None]
    return body - Manifold.batch_boolean(cuts, _union()) if cuts else body


def _union() -> Any:
    from manifold3d import OpType

    return OpType.Add


def placed(part: Part) -> Any:
    """The machined solid in the frame that the part stands in, mm."""
    f = part.frame
    matrix = np.column_stack([f.x, f.y, f.z, f.origin])
    return machined(part).transform(matrix)


@remembered(512)
def mesh_of_part(part: Part) -> tuple[NDArray[np.float64], NDArray[np.int64]]:
    """Points (n, 3) in mm and triangles (m, 3) of the machined part in its own frame."""
    mesh = machined(part).to_mesh()
    return np.asarray(mesh.vert_properties[:, :3], dtype=np.float64), np.asarray(mesh.tri_verts, dtype=np.int64)


def _cut(part: Part, op: object) -> Any:
    match op:
        case Bore():
            return _hole(part, op)
        case Groove():
            return _trench(part, op)
        case Rebate():
            return _step(part, op)
        case Bevel():
            return _wedge(part, op)
        case Cutout():
            from manifold3d import Manifold

            return Manifold.cube((op.length, op.width, part.thickness + 2 * HAIR)).translate((op.x, op.y, -HAIR))
    return None


def face_matrix(part: Part, face: str) -> NDArray[np.float64]:
    """(3, 4) matrix from a face's own frame (u, v as an operation's place, w into the wood) to the part's frame."""
    length, width, thick = part.length, part.width, part.thickness
    axes: dict[str, tuple[tuple[float, ...], tuple[float, ...], tuple[float, ...], tuple[float, ...]]] = {
        "A": ((1, 0, 0), (0, 1, 0), (0, 0, -1), (0, 0, thick)),
        "B": ((1, 0, 0), (0, 1, 0), (0, 0, 1), (0, 0, 0)),
        "L1": ((1, 0, 0), (0, 0, 1), (0, 1, 0), (0, 0, 0)),
        "L2": ((1, 0, 0), (0, 0, 1), (0, -1, 0), (0, width, 0)),
        "W1": ((0, 1, 0), (0, 0, 1), (1, 0, 0), (0, 0, 0)),
        "W2": ((0, 1, 0), (0, 0, 1), (-1, 0, 0), (length, 0, 0)),
    }
    u, v, w, origin = axes[face]
    return np.column_stack([u, v, w, origin]).astype(np.float64)


def hollow(low: Vec, high: Vec, axis: int) -> Any:
    """What an operation takes away between two corners, mm: round about an axis (0 x, 1 y, 2 z), or a box at -1."""
    from manifold3d import Manifold

    size = tuple(b - a for a, b in zip(low, high, strict=True))
    if axis < 0:
        return Manifold.cube(size).translate(low)
    r = size[(axis + 1) % 3] / 2
    middle = [(a + b) / 2 for a, b in zip(low, high, strict=True)]
    turn = ((0.0, 90.0, 0.0), (90.0, 0.0, 0.0), (0.0, 0.0, 0.0))[axis]
    round_ = Manifold.cylinder(size[axis], r, r, 2 * SEGMENTS, True)
    return round_.rotate(turn).translate(tuple(middle))


def _on_face(part: Part, face: str, solid: Any) -> Any:
    """A solid drawn in a face's frame, brought into the part's; a left-handed frame mirrors it, which it allows."""
    return solid.transform(face_matrix(part, face))


def _hole(part: Part, op: Bore) -> Any:
    from manifold3d import Manifold

    deep = op.depth + (2 * HAIR if op.through else HAIR)
    hole = Manifold.cylinder(deep, op.diameter / 2, op.diameter / 2, SEGMENTS)
    if op.slant:
        hole = hole.rotate((0.0, op.slant, 0.0))
    return _on_face(part, op.face, hole.translate((op.x, op.y, -HAIR)))


def _trench(part: Part, op: Groove) -> Any:
    from manifold3d import Manifold

    length = math.hypot(op.x2 - op.x1, op.y2 - op.y1)
    turn = math.degrees(math.atan2(op.y2 - op.y1, op.x2 - op.x1))
    box = Manifold.cube((length, op.width, op.depth + HAIR)).translate((0.0, -op.width / 2, -HAIR))
    return _on_face(part, op.face, box.rotate((0.0, 0.0, turn)).translate((op.x1, op.y1, 0.0)))


def _wedge(part: Part, op: Bevel) -> Any:
    """What a slanted cut takes off along an edge: a wedge, widest at the face that becomes the shorter one."""
    from manifold3d import CrossSection, Manifold

    thick, cut = part.thickness, part.thickness * math.tan(math.radians(op.angle))
    high = op.long == "A"  # it stays whole at the top
    # Across the edge (u inwards from it) and up; a hair past the edge and the short face.
    z_long, z_short = (thick, -HAIR) if high else (0.0, thick + HAIR)
    deep = cut * (1.0 + HAIR / thick)
    section = [(0.0, z_long), (deep, z_short), (-HAIR, z_short), (-HAIR, z_long)]
    along, far = (part.length, part.width) if op.edge in ("L1", "L2") else (part.width, part.length)
    end = op.edge in ("L2", "W2")
    points = [((far - u) if end else u, z) for u, z in section]
    turn = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, [*points[1:], points[0]], strict=True))
    shape = CrossSection([np.array(points if turn > 0 else points[::-1])])
    # Extruded along z, then laid along the edge.
    body = Manifold.extrude(shape, along + 2 * HAIR)
    if op.edge in ("W1", "W2"):  # section (x, z), along y
        matrix = np.column_stack([(1, 0, 0), (0, 0, 1), (0, 1, 0), (0, -HAIR, 0)])
    else:  # section (y, z), along x
        matrix = np.column_stack([(0, 1, 0), (0, 0, 1), (1, 0, 0), (-HAIR, 0, 0)])
    return body.transform(matrix.astype(np.float64))


def _step(part: Part, op: Rebate) -> Any:
    from manifold3d import Manifold

    along = part.length if op.edge in ("L1", "L2") else part.width
    far = {"L1": 0.0, "W1": 0.0, "L2": part.width - op.width, "W2": part.length - op.width}[op.edge]
    if op.edge in ("L1", "L2"):
        box = Manifold.cube((along + 2 * HAIR, op.width + HAIR, op.depth + HAIR))
        at = (-HAIR, far - (HAIR if op.edge == "L1" else 0.0), -HAIR)
    else:
        box = Manifold.cube((op.width + HAIR, along + 2 * HAIR, op.depth + HAIR))
        at = (far - (HAIR if op.edge == "W1" else 0.0), -HAIR, -HAIR)
    return _on_face(part, op.face, box.translate(at))
