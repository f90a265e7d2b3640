"""What is pulled out of a unit has its way free: drawers pass between what stands before them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from tall_plank.making.parts import Part
from tall_plank.making.proof.space import TOUCH, Shared, bounds_of


class Drawn(NamedTuple):
    """Something that is pulled straight out to the front.

    Attributes
    ----------
    parts : places of its parts in the list
    before : places of what is opened or taken along first: its own front, doors before it
    """

    parts: tuple[int, ...]
    before: tuple[int, ...] = ()


def barred_ways(parts: Sequence[Part], drawn: Sequence[Drawn]) -> Iterator[Shared]:
    """What stands in the way of what is pulled out, with the space that they share on the way."""
    if not drawn:
        return
    boxes = [bounds_of(part) for part in parts]
    front = min(low[1] for low, _ in boxes)
    for thing in drawn:
        gone = {*thing.parts, *thing.before}
        fixed = [(k, box) for k, box in enumerate(boxes) if k not in gone and not parts[k].bend]
        for i in thing.parts:
            (x0, y0, z0), (x1, _, z1) = boxes[i]
            for k, ((a0, b0, c0), (a1, b1, c1)) in fixed:
                if (
                    b0 < y0 - TOUCH
                    and min(x1, a1) - max(x0, a0) > TOUCH
                    and min(z1, c1) - max(z0, c0) > TOUCH
                    and b1 > front + TOUCH
                ):
                    low = (max(x0, a0), b0, max(z0, c0))
                    yield Shared(i, k, low, (min(x1, a1), min(b1, y0), min(z1, c1)))
