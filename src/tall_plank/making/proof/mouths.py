"""Where holes and slots open, and which way they go, in the unit: gathered once for all that is asked of them."""

from __future__ import annotations

from collections.abc import Container, Sequence

import msgspec

from tall_plank.making.parts import Bore, Face, Groove, Part
from tall_plank.measure.frames import Vec


class Mouth(msgspec.Struct, frozen=True, gc=False):
    """A hole or a slot of a part.

    Attributes
    ----------
    part : place of its part in the list; -1 on a panel that the unit does not own
    at : the middle of its mouth, in the unit, mm
    way : into the wood, in the unit
    """

    part: int
    use: str
    at: Vec
    way: Vec
    op: Bore | Groove | None = None


def mouths_of(parts: Sequence[Part], uses: Container[str]) -> list[Mouth]:
    """The holes and slots of some uses."""
    found = []
    for i, part in enumerate(parts):
        faces: dict[str, tuple[Vec, Vec, Vec, Vec]] = {}
        for op in part.operations:
            if type(op) is Bore:
                use, u, v = op.use, op.x, op.y
            elif type(op) is Groove:
                use, u, v = op.over, (op.x1 + op.x2) / 2, (op.y1 + op.y2) / 2
            else:
                continue
            if use not in uses:
                continue
            face = op.face
            if face not in faces:
                faces[face] = _face(part, face)
            (ox, oy, oz), (ax, ay, az), (bx, by, bz), way = faces[face]
            at = (ox + ax * u + bx * v, oy + ay * u + by * v, oz + az * u + bz * v)
            found.append(Mouth(i, use, at, way, op))
    return found


def place_on(parts: Sequence[Part], mouth: Mouth) -> Vec:
    """The middle of a mouth in its part's own frame, mm."""
    return parts[mouth.part].frame.into(mouth.at)


def _face(part: Part, face: Face) -> tuple[Vec, Vec, Vec, Vec]:
    """Where a face begins, its two directions, and the one into the wood, in the unit."""
    f = part.frame
    z = f.z
    if face in ("A", "B"):
        u, v, way, size = f.x, f.y, z, part.thickness
    elif face in ("L1", "L2"):
        u, v, way, size = f.x, z, f.y, part.width
    else:
        u, v, way, size = f.y, z, f.x, part.length
    if face in ("B", "L1", "W1"):
        return f.origin, u, v, way
    (x, y, h), (a, b, c) = f.origin, way
    return (x + a * size, y + b * size, h + c * size), u, v, (-a, -b, -c)


def dot(a: Vec, b: Vec) -> float:
    """The scalar product."""
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def apart(a: Mouth, b: Mouth) -> Vec:
    """From one mouth to another, in the unit, mm."""
    (x, y, z), (u, v, w) = a.at, b.at
    return u - x, v - y, w - z
