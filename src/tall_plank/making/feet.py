"""Legs under a unit: how many, and where they stand, by the unit's own decisions and the shop standard's rules."""

from __future__ import annotations

from tall_plank.job import Body, Construction
from tall_plank.job.choices import Feet
from tall_plank.setout import Placed

LEG_IN = 85.0
"""mm from a carcass's edges to the middle of a hidden leg: its plate stays clear of the joints."""


def leg_count(width: float, made: Construction) -> int | None:
    """Number of legs by the unit's width (mm), or as decided by hand; None where no rule reaches."""
    if made.legs != "auto":
        return int(made.legs)
    return next((rule.count for rule in made.leg_rules if width <= rule.width), None)


def insets(feet: Feet, made: Construction) -> tuple[float, float, float, float]:
    """From the carcass's left, right, front and back edge to the middle of the outermost legs, mm: hidden ones clear of
    the joints, seen ones as decided."""
    if feet != "legs":
        return (LEG_IN,) * 4
    half = made.leg_size / 2
    return made.leg_left + half, made.leg_right + half, made.leg_front + half, made.leg_back + half


def seen_legs(placed: Placed, made: Construction) -> tuple[tuple[float, float], ...]:
    """Left front corners (x, y) of the squares about the legs of a unit in its own frame, mm; none where a plinth hides
    them.

    Two at each end, set in from the carcass's edges, and further pairs evenly between on wide units; an odd leg stands
    in the middle.
    """
    if placed.feet != "legs" or placed.bottom <= 0 or placed.body is not Body.CARCASS or placed.level == "hung":
        return ()
    count = leg_count(placed.width, made) or 4
    pairs = max(2, count // 2)
    left, right, front, back = insets("legs", made)
    half = made.leg_size / 2
    span, deep = placed.width - left - right, placed.depth - front - back
    if span <= 0 or deep <= 0:
        return ()
    rows = (-placed.depth + front - half, -back - half)
    found = [(left + span * i / (pairs - 1) - half, y) for i in range(pairs) for y in rows]
    if count % 2:
        found.append((left + span / 2 - half, (rows[0] + rows[1]) / 2))
    return tuple(found)
