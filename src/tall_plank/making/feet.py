"""Legs that are seen: where they stand under a unit, by the shop standard's inset and rules."""

from __future__ import annotations

from tall_plank.job import Body, Construction, Run
from tall_plank.setout import Placed


def leg_count(width: float, made: Construction) -> int | None:
    """Number of legs by the unit's width (mm), or as decided by hand; None where no rule reaches."""
    if made.legs != "auto":
        return int(made.legs)
    return next((rule.count for rule in made.leg_rules if width <= rule.width), None)


LEG = 40.0
"""mm; a seen leg is this wide and deep (common practice: 40 to 60)."""


def seen_legs(run: Run, placed: Placed, made: Construction) -> tuple[tuple[float, float], ...]:
    """Left front corners (x, y) of the legs of a unit in its own frame, mm; none where a plinth hides them.

    Two at each end, set in from the carcass's edges, and further pairs evenly between on wide units.
    """
    if run.feet != "legs" or placed.bottom <= 0 or placed.body is not Body.CARCASS or placed.level == "hung":
        return ()
    count = leg_count(placed.width, made) or 4
    pairs = max(2, count // 2)
    inset = made.leg_inset
    span = placed.width - 2 * inset - LEG
    if span <= 0 or placed.depth - 2 * inset - LEG <= 0:
        return ()
    rows = (-placed.depth + inset, -inset - LEG)
    return tuple((inset + span * i / (pairs - 1), y) for i in range(pairs) for y in rows)
