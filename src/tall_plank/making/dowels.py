"""Where the dowels of a joint go (common practice)."""

from __future__ import annotations

import math

REAR_CLEAR = 20.0
"""mm between a dowel and what is kept free behind it."""


def dowel_places(
    depth: float, from_edge: float, spacing: float, rear: float = 0.0, clear: float = REAR_CLEAR
) -> tuple[float, ...]:
    """Distances of dowels from the front edge of a joint.

    Parameters
    ----------
    depth : float, mm; length of the joint
    from_edge : mm from the front edge to the first dowel
    spacing : mm; the largest distance between neighbours
    rear : mm kept free at the rear (a groove); the last dowel stands as far before it as the first behind the edge
    clear : mm from its middle to what is kept free at the rear

    Narrow joints get two dowels 32 apart about the middle, very narrow ones a single dowel.
    """
    first, last = from_edge, depth - max(from_edge, rear + clear if rear else 0.0)
    if last - first < 32.0:
        middle = (depth - rear) / 2
        return (middle - 16.0, middle + 16.0) if depth - rear >= 60.0 else (middle,)
    steps = max(1, math.ceil((last - first) / spacing - 1e-9))
    return tuple(first + (last - first) * i / steps for i in range(steps + 1))


GLUE_ROOM = 2.0
"""mm that both holes of a dowel are deeper together than it is long: room for glue and air (common practice)."""


def end_depth(length: float, face_depth: float, least: float) -> float:
    """Depth of the hole in an end, so that a dowel goes in whole with room for glue where the face is thin.

    Parameters
    ----------
    length : of the dowel, mm; 0 where the stock does not say
    face_depth : of the hole in the face that the end meets, mm
    least : what the shop standard drills, mm
    """
    return max(least, length + GLUE_ROOM - face_depth) if length else least
