"""What opens has its way free inside its unit: drawers pass between what stands before them, doors turn past what
stands out."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from tall_plank.making.parts import Part
from tall_plank.making.proof.space import TOUCH, Box, Shared, boxes_of
from tall_plank.making.ways import Thing, Way, outline_of


class Drawn(NamedTuple):
    """Something that is pulled straight out to the front.

    Attributes
    ----------
    parts : places of its parts in the list
    before : places of what is opened or taken along first: its own front, doors before it
    """

    parts: tuple[int, ...]
    before: tuple[int, ...] = ()


def barred_ways(parts: Sequence[Part], drawn: Sequence[Drawn], known: Sequence[Box] | None = None) -> Iterator[Shared]:
    """What stands in the way of what is pulled out, with the space that they share on the way."""
    if not drawn:
        return
    boxes = known or boxes_of(parts)
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


class Shut(NamedTuple):
    """A front that something keeps from opening square.

    Attributes
    ----------
    way : the front
    degrees : how far it opens
    part : place in the list of what stands there
    handle : whether its handle meets that first
    """

    way: Way
    degrees: float
    part: int
    handle: bool


def kept_shut(parts: Sequence[Part], ways: Sequence[Way], known: Sequence[Box] | None = None) -> Iterator[Shut]:
    """Fronts that turn and cannot, though every other one that can has been opened before."""
    shut = [way for way in ways if way.moves != "slides"]
    if not shut or _all_flush(parts, shut, known or boxes_of(parts)):
        return
    while shut:
        met = [_first_before(parts, way, [w for w in ways if w.moves == "slides"] + shut) for way in shut]
        left = [way for way, found in zip(shut, met, strict=True) if found is not None]
        if len(left) == len(shut):
            yield from (found for found in met if found is not None)
            return
        shut = left


def _all_flush(parts: Sequence[Part], ways: Sequence[Way], boxes: Sequence[Box]) -> bool:
    """Whether all fronts stand in one straight plane and no part stands out before them: nothing can be met."""
    face = ways[0].face
    if any(way.face != face for way in ways) or face.uy != 0.0:
        return False
    least = face.y - min(way.thick for way in ways) - 1.0
    return all(box[0][1] > least or part.bend for part, box in zip(parts, boxes, strict=True))


def _first_before(parts: Sequence[Part], way: Way, closed: Sequence[Way]) -> Shut | None:
    """What meets a front first: a part, or a handle on a front that is closed still."""
    things: list[Thing] = []
    places: list[int] = []
    still = {w.name for w in closed if w.name != way.name}
    for i, part in enumerate(parts):
        owner = next((w.name for w in closed if w.owns(part.name)), None)
        gone = way.owns(part.name) or (owner is None and part.role in ("front", "front frame", "front panel"))
        if part.bend or gone or (owner is not None and owner not in still):
            continue
        points, low, high = outline_of(part)
        things.append((tuple(way.face.into(x, y) for x, y in points), low, high))
        places.append(i)
    for other in closed:
        if other.name != way.name and (body := other.handle_body()) is not None:
            points, low, high = body
            things.append((tuple(way.face.into(x, y) for x, y in points), low, high))
            places.append(next((i for i, part in enumerate(parts) if other.owns(part.name)), 0))
    met = way.meets(things)
    return None if met is None else Shut(way, met.at, places[met.which], met.handle)
