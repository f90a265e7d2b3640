"""Where holes go: dowels along a joint, rows on the 32 mm system, hinges on that system (common practice)."""

from __future__ import annotations

import math

from tall_plank.job import Construction


def dowel_places(depth: float, from_edge: float, spacing: float, rear: float = 0.0) -> tuple[float, ...]:
    """Distances of dowels from the front edge of a joint.

    Parameters
    ----------
    depth : float, mm; length of the joint
    from_edge : mm from the front edge to the first dowel
    spacing : mm; the largest distance between neighbours
    rear : mm kept free at the rear (a groove); the last dowel stands as far before it as the first behind the edge

    Narrow joints get two dowels 32 apart about the middle, very narrow ones a single dowel.
    """
    first, last = from_edge, depth - max(from_edge, rear + 20.0 if rear else 0.0)
    if last - first < 32.0:
        middle = (depth - rear) / 2
        return (middle - 16.0, middle + 16.0) if depth - rear >= 60.0 else (middle,)
    steps = max(1, math.ceil((last - first) / spacing - 1e-9))
    return tuple(first + (last - first) * i / steps for i in range(steps + 1))


def row_start(height: float, inset: float, pitch: float) -> float:
    """Height of the lowest system hole in a gable: rows at least `inset` from both ends, and centred."""
    steps = max(0, math.floor((height - 2 * inset) / pitch + 1e-9))
    return (height - steps * pitch) / 2


def rear_row(clear_depth: float, inset: float, pitch: float) -> float:
    """Distance of the rear row from the front edge: the last multiple of the pitch that keeps `inset` behind it."""
    steps = max(1, math.floor((clear_depth - 2 * inset) / pitch + 1e-9))
    return inset + steps * pitch


def row_heights(height: float, low: float, high: float, made: Construction) -> tuple[float, ...]:
    """System hole heights of a gable that lie between low and high, mm from the gable's lower end."""
    start = row_start(height, made.row_inset, made.row_pitch)
    first = max(0, math.ceil((low - start) / made.row_pitch - 1e-9))
    last = math.floor((min(high, height - start) - start) / made.row_pitch + 1e-9)
    return tuple(start + made.row_pitch * i for i in range(first, last + 1))


def on_grid_middle(z: float, height: float, made: Construction) -> float:
    """The middle between two system holes that is nearest to z: a hinge plate's holes then fall on the row."""
    start = row_start(height, made.row_inset, made.row_pitch) + made.row_pitch / 2
    return start + round((z - start) / made.row_pitch) * made.row_pitch


def hinge_count(height: float, weight: float, made: Construction) -> int | None:
    """Number of hinges by height (mm) and weight (kg), the larger demand, or as decided by hand; None where no rule
    reaches."""
    if made.hinges != "auto":
        return int(made.hinges)
    for rule in made.hinge_rules:
        if height <= rule.height and weight <= rule.weight:
            return rule.count
    return None


def leg_count(width: float, made: Construction) -> int | None:
    """Number of legs by the unit's width (mm), or as decided by hand; None where no rule reaches."""
    if made.legs != "auto":
        return int(made.legs)
    return next((rule.count for rule in made.leg_rules if width <= rule.width), None)


LEAST_FROM_END, HINGES_APART = 50.0, 128.0
"""mm from a low door's end to its hinge, and between two hinges (common practice: a cup's screws need about 55)."""


def hinge_heights(
    low: float,
    high: float,
    count: int,
    gable: float,
    made: Construction,
    blocked: tuple[tuple[float, float], ...] = (),
) -> tuple[float, ...]:
    """Heights of hinges on a door from low to high, on the gable's grid: the end ones near their distance from
    the door's ends, the others evenly between; each moves along the grid where a board or drawer behind the door is in
    its way.

    Parameters
    ----------
    blocked : stretches of height, mm, that no hinge's middle may lie in
    """
    # On a low door the hinges stand nearer to its ends, so that they keep clear of one another.
    from_end = min(made.hinge_from_end, max(LEAST_FROM_END, (high - low - HINGES_APART) / 2))
    ends = (low + from_end, high - from_end)
    wanted = [ends[0] + (ends[1] - ends[0]) * i / (count - 1) for i in range(count)] if count > 1 else [ends[0]]
    found: list[float] = []
    for z in wanted:
        at = on_grid_middle(z, gable, made)
        steps = (0, *(s for k in range(1, 12) for s in ((k, -k) if z < (low + high) / 2 else (-k, k))))
        free = (
            at + s * made.row_pitch
            for s in steps
            if low + LEAST_FROM_END <= at + s * made.row_pitch <= high - LEAST_FROM_END
            and not any(a < at + s * made.row_pitch < c for a, c in blocked)
        )
        found.append(next(free, at))
    return tuple(found)
