"""Where holes and slots open, and which way they go, in the unit: gathered once for all that is asked of them."""

from __future__ import annotations

from collections.abc import Container, Sequence

import msgspec

from tall_plank.making.parts import Bore, Groove, Part
from tall_plank.measure.frames import Vec


class Mouth(msgspec.Struct, frozen=True, gc=False):
    """A hole or a slot of a part.

    Attributes
    ----------
    part : place of its part in the list; -1 on a panel that the unit does not own
    at : the middle of its mouth, in the unit, mm
    way : into the wood, in the unit
    place : the middle of its mouth on its part, mm
    """

    part: int
    use: str
    at: Vec
    way: Vec
    place: Vec
    op: Bore | Groove | None = None


def mouths_of(parts: Sequence[Part], uses: Container[str]) -> list[Mouth]:
    """The holes and slots of some uses."""
    found = []
    for i, part in enumerate(parts):
        for op in part.operations:
            if type(op) is Bore:
                if op.use in uses:
                    place = part.on(op.face, op.x, op.y)
                    found.append(Mouth(i, op.use, part.frame.at(*place), part.inwards(op.face), place, op))
            elif type(op) is Groove and op.over in uses:
                place = part.on(op.face, (op.x1 + op.x2) / 2, (op.y1 + op.y2) / 2)
                found.append(Mouth(i, op.over, part.frame.at(*place), part.inwards(op.face), place, op))
    return found


def dot(a: Vec, b: Vec) -> float:
    """The scalar product."""
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def apart(a: Mouth, b: Mouth) -> Vec:
    """From one mouth to another, in the unit, mm."""
    (x, y, z), (u, v, w) = a.at, b.at
    return u - x, v - y, w - z
