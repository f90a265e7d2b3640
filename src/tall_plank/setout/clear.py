"""Clear distances from a unit to its neighbours on all sides (HD3)."""

from __future__ import annotations

import msgspec

from tall_plank.job import Level
from tall_plank.measure.units import TOLERANCE
from tall_plank.setout.layout import RoomLayout
from tall_plank.setout.runs import Placed


class Clear(msgspec.Struct, frozen=True):
    """Clear distances in mm seen from inside the room, and what each is measured to."""

    left: float
    right: float
    below: float
    above: float
    left_to: str
    right_to: str
    below_to: str
    above_to: str


def clear_of(layout: RoomLayout, placed: Placed) -> Clear:
    """Distances to the nearest solid unit whose height overlaps, or to the wall's ends, the worktop, the floor
    and the ceiling."""
    wall = layout.wall(placed.wall)
    left, left_to = placed.x, "wall"
    right, right_to = wall.length - placed.right, "wall"
    below, below_to = placed.bottom, "floor"
    above, above_to = wall.height - placed.top, "ceiling"
    for other in layout.placed:
        if other.wall != placed.wall or other.cell == placed.cell or not other.is_solid:
            continue
        beside = other.bottom < placed.top - TOLERANCE and other.top > placed.bottom + TOLERANCE
        over = other.x < placed.right - TOLERANCE and other.right > placed.x + TOLERANCE
        if beside and other.right <= placed.x + TOLERANCE and placed.x - other.right < left:
            left, left_to = max(0.0, placed.x - other.right), other.number
        if beside and other.x >= placed.right - TOLERANCE and other.x - placed.right < right:
            right, right_to = max(0.0, other.x - placed.right), other.number
        if over and other.top <= placed.bottom + TOLERANCE and placed.bottom - other.top < below:
            below, below_to = placed.bottom - other.top, other.number
        if over and other.bottom >= placed.top - TOLERANCE and other.bottom - placed.top < above:
            above, above_to = other.bottom - placed.top, other.number
    for worktop in layout.worktops:
        over = worktop.x < placed.right - TOLERANCE and worktop.x + worktop.length > placed.x + TOLERANCE
        if worktop.wall != placed.wall or not over:
            continue
        top = worktop.bottom + worktop.thickness
        if placed.level is Level.HUNG and top <= placed.bottom + TOLERANCE and placed.bottom - top < below:
            below, below_to = placed.bottom - top, "worktop"
    return Clear(left, right, below, above, left_to, right_to, below_to, above_to)
