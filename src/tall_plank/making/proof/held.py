"""No part floats: each is joined to the others, stands in a groove, lies on pins, hangs, or says how it is fixed."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from tall_plank.making.parts import Bore, Part
from tall_plank.making.proof.hanging import HANGS
from tall_plank.making.proof.joints import PAIRED, Lent
from tall_plank.making.proof.mouths import Mouth
from tall_plank.making.proof.paths import Drawn
from tall_plank.making.proof.space import Box, boxes_of

SCREWED = frozenset({"back screw"})
"""Uses of holes by which a part is fixed to what stands behind them, which has none."""

HOLDS = frozenset({"shelf"}) | SCREWED
"""Further uses of holes that hold something."""

NEAR = 110.0
"""mm between a front's hole and the one that it hangs by, at most."""

ON_PINS = 6.0
"""mm between a shelf's underside and the middle of the holes that its pins stand in, at most."""

BENT_NEAR = 600.0
"""mm; the same for a bent front, whose hinges are held to their height only."""

OUT = -1
"""What stands outside the unit: panels beside it."""


class _Groups:
    """Parts that hold one another, as sets that grow together."""

    def __init__(self) -> None:
        self.of: dict[int, int] = {}

    def first(self, i: int) -> int:
        while self.of.get(i, i) != i:
            i = self.of[i]
        return i

    def join(self, i: int, k: int) -> None:
        a, b = self.first(i), self.first(k)
        if a != b:
            self.of[max(a, b)] = min(a, b)


def floating(
    parts: Sequence[Part],
    mouths: Sequence[Mouth],
    entered: Sequence[tuple[int, int]],
    lent: Lent = (),
    drawn: Sequence[Drawn] = (),
    known: Sequence[Box] | None = None,
) -> Iterator[int]:
    """Places in the list of parts that nothing holds.

    Parameters
    ----------
    entered : pairs of parts of which one stands in the other's grooves, or is joined to the other
    known : the boxes about the parts
    """
    boxes = known or boxes_of(parts)
    groups = _Groups()
    for i, part in enumerate(parts):
        if part.fixed:
            groups.join(0, i)
    for i, k in entered:
        groups.join(i, k)
    _by_holes(groups, parts, mouths, lent)
    _on_pins(groups, parts, mouths, boxes)
    for thing in drawn:
        for i in thing.parts:
            groups.join(thing.parts[0], i)
        low, high = (f(boxes[i][axis][2] for i in thing.parts) for f, axis in ((min, 0), (max, 1)))
        for mouth in mouths:
            if mouth.use == "runner" and low <= mouth.at[2] <= high:
                groups.join(thing.parts[0], max(mouth.part, 0))
    held = groups.first(0)
    outside = groups.first(OUT) if lent else held
    for i in range(len(parts)):
        if groups.first(i) not in (held, outside):
            yield i


def _slants(mouth: Mouth) -> bool:
    return isinstance(mouth.op, Bore) and mouth.op.slant != 0.0


def _by_holes(groups: _Groups, parts: Sequence[Part], mouths: Sequence[Mouth], lent: Lent) -> None:
    """What joints and hinges hold together; what is asked of a panel is held from outside."""
    asked = {(work.use, round(work.at[0]), round(work.at[1]), round(work.at[2])) for _, works in lent for work in works}
    if lent:
        groups.join(OUT, 0)
    loose: list[Mouth] = []
    for mouth in mouths:
        use = mouth.use
        if use in SCREWED:
            groups.join(0, mouth.part)
        elif use in HANGS or _slants(mouth):
            loose.append(mouth)
        elif asked and use in PAIRED:
            x, y, z = mouth.at
            if (use, round(x), round(y), round(z)) in asked:
                groups.join(OUT, mouth.part)
    pilots = [m for m in mouths if m.use == "pocket screw" and not _slants(m)]
    fixed = [m for m in loose if m.use in ("hinge plate", "frame hinge", "butt hinge")]
    for mouth in loose:
        if mouth.use in ("hinge", "butt hinge"):
            others = fixed
        elif mouth.use == "pocket screw":
            others = pilots
            if any(use == "pocket screw" for use, *_ in asked):
                groups.join(OUT, mouth.part)
        else:
            continue
        # Where a bent front stands, its frame does not say.
        near = BENT_NEAR if mouth.part >= 0 and parts[mouth.part].bend else NEAR
        for other in others:
            if other.part != mouth.part and math.dist(other.at, mouth.at) < near:
                groups.join(mouth.part, max(other.part, 0))
        if mouth.use in ("hinge", "butt hinge") and any(use in ("hinge plate", "butt hinge") for use, *_ in asked):
            groups.join(OUT, mouth.part)


def _on_pins(groups: _Groups, parts: Sequence[Part], mouths: Sequence[Mouth], boxes: Sequence[Box]) -> None:
    """Shelves lie on the pins in the holes just below them."""
    pins = [m for m in mouths if m.use == "shelf"]
    for i, part in enumerate(parts):
        if part.role != "shelf":
            continue
        (x0, y0, z0), (x1, y1, _) = boxes[i]
        for pin in pins:
            x, y, z = pin.at
            if 0.0 <= z0 - z < ON_PINS and x0 - ON_PINS < x < x1 + ON_PINS and y0 < y < y1:
                groups.join(max(pin.part, 0), i)
