"""Sloped ceilings: how high they are over a place, and the upper edges of walls under them."""

from __future__ import annotations

import itertools

import msgspec

from tall_plank.job import Room, Slope
from tall_plank.measure import PlankError
from tall_plank.setout.things.common import ThingSetOut
from tall_plank.setout.wall import Wall


def slope_height(slope: Slope, away: float, height: float) -> float:
    """Height of a slope at a distance from its wall, under a ceiling of a height; all mm."""
    if slope.run.mm <= 0:
        return height
    return slope.low.mm + (height - slope.low.mm) * min(max(away, 0.0) / slope.run.mm, 1.0)


def sloped(wall: Wall, walls: tuple[Wall, ...], height: float, slopes: tuple[Slope, ...]) -> Wall:
    """The wall with its upper edge under the slopes: straight pieces between the places where planes meet.
    `height`: mm."""
    planes = []
    for slope in slopes:
        at = next((w for w in walls if w.id == slope.wall), None)
        if at is None:
            continue
        # Distance from the slope's wall along this wall: linear in x.
        d0 = -at.frame.from_floor(wall.start)[1]
        d1 = -at.frame.from_floor(wall.end)[1]
        planes.append((slope, d0, d1))
    marks = {0.0, 1.0}
    for slope, d0, d1 in planes:
        for level in (0.0, slope.run.mm):
            if abs(d1 - d0) > 1e-9 and 0.0 < (level - d0) / (d1 - d0) < 1.0:
                marks.add((level - d0) / (d1 - d0))
    cuts = sorted(marks)

    def tall(t: float) -> float:
        found = [min(height, wall.height)]
        found += [slope_height(slope, d0 + (d1 - d0) * t, height) for slope, d0, d1 in planes]
        return min(found)

    # Where two slopes meet inside a stretch, the edge turns too.
    extra = set()
    for t0, t1 in itertools.pairwise(cuts):
        for k, (s, d0, d1) in enumerate(planes):
            for s2, e0, e1 in planes[k + 1 :]:
                f0 = slope_height(s, d0 + (d1 - d0) * t0, height) - slope_height(s2, e0 + (e1 - e0) * t0, height)
                f1 = slope_height(s, d0 + (d1 - d0) * t1, height) - slope_height(s2, e0 + (e1 - e0) * t1, height)
                if f0 * f1 < 0:
                    extra.add(t0 + (t1 - t0) * f0 / (f0 - f1))
    profile = tuple((t * wall.length, tall(t)) for t in sorted(marks | extra))
    if all(abs(z - profile[0][1]) < 1e-9 for _, z in profile):
        return msgspec.structs.replace(wall, height=profile[0][1])
    return msgspec.structs.replace(wall, height=max(z for _, z in profile), profile=profile)


def check_slope(room: Room, slope: Slope) -> None:
    """Raises PlankError where a slope does not go with its room."""
    if slope.low.mm >= room.height.mm:
        raise PlankError("The slope would start above the ceiling.", "slope", "Type a lower height at the wall.")
    if any(s.wall == slope.wall and s.id != slope.id for s in room.slopes):
        what = f"The ceiling slopes to wall {slope.wall} already."
        raise PlankError(what, f"wall {slope.wall}", "Change that slope.")


SLOPE = ThingSetOut(fits=check_slope)
