"""What is bought takes room too: no part stands in a stay, in a fitting of a bay, in a door that slides in."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from tall_plank.making.parts import Part
from tall_plank.making.proof.space import Box, Shared, boxes_of
from tall_plank.measure.frames import Vec

TOUCH = 0.5
"""mm; a bought thing's room is known no better."""


class Taken(NamedTuple):
    """Room that something bought takes.

    Attributes
    ----------
    what : it, in words
    low, high : least and greatest corner, in the unit, mm
    """

    what: str
    low: Vec
    high: Vec


def standing_in(parts: Sequence[Part], taken: Sequence[Taken], boxes: Sequence[Box] | None = None) -> Iterator[Shared]:
    """Every part that stands in the room of something bought; `other` is its place in the list. Bent parts are left
    out: they bow out of their box."""
    if not taken:
        return
    for i, (part, (low, high)) in enumerate(zip(parts, boxes or boxes_of(parts), strict=True)):
        if part.bend:
            continue
        for k, thing in enumerate(taken):
            a = tuple(max(x, y) for x, y in zip(low, thing.low, strict=True))
            b = tuple(min(x, y) for x, y in zip(high, thing.high, strict=True))
            if all(y - x > TOUCH for x, y in zip(a, b, strict=True)):
                yield Shared(i, k, (a[0], a[1], a[2]), (b[0], b[1], b[2]))
