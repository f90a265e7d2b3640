"""A door that opens square beside a deeper unit: its handle meets that unit's side. Source: geometry."""

from __future__ import annotations

from collections.abc import Iterator

from tall_plank.job import Snag, Where
from tall_plank.making import FrontBox, MadeUnit
from tall_plank.measure import format_length
from tall_plank.setout import Placed
from tall_plank.snags.checked import Checked

AT_EDGE = 30.0
"""mm from a unit's side to the hinged edge of a door that hangs there, at most."""


def find(checked: Checked) -> list[Snag]:
    found: list[Snag] = []
    for placed, unit in checked.made.units:
        beside = [
            (other, made)
            for other, made in checked.made.units
            if other.wall_id == placed.wall_id and other.room == placed.room and other.cell != placed.cell
            if other.is_solid and other.bottom < placed.top - 1.0 and other.top > placed.bottom + 1.0
        ] if unit.fronts else []  # fmt: skip
        for side in ("left", "right"):
            for other, made in beside:
                found += _met(checked, placed, unit, other, made, side)
    return found


def _met(checked: Checked, placed: Placed, unit: MadeUnit, other: Placed, made: MadeUnit, side: str) -> Iterator[Snag]:
    """What a unit's doors that hang at a side meet of another one there."""
    left = side == "left"
    between = placed.x - other.right if left else other.x - placed.right
    if not -1.0 < between < 150.0:
        return
    # How far the other one's fronts stand out before the doors' outer faces, mm.
    deeper = other.depth + made.spec.made.reach - placed.depth - unit.spec.made.reach
    for front in unit.fronts:
        if front.kind not in ("door", "pocket", "bifold") or front.hand != side or front.handle is None:
            continue
        low, high = placed.bottom + front.z, placed.bottom + front.z + front.height
        edge = front.x if left else placed.width - front.x - front.width
        if edge > AT_EDGE or low > other.top or high < other.bottom:
            continue
        handle = checked.job.stock.fitting(front.pull)
        if handle is None or handle.projection <= between + edge + 0.5:
            continue
        # Opened square, the handle stands as far out as it sits from the hinged edge.
        if _from_hinge(front) >= deeper:
            continue
        unit_of = checked.job.display
        what = (
            f"Opened square, the handle of its door stands {format_length(handle.projection, unit_of, mark=True)} out; "
            f"beside it {other.number} leaves {format_length(max(0.0, between + edge), unit_of, mark=True)}."
        )
        where = Where(placed.room, placed.wall_id, placed.run, placed.cell, placed.number)
        yield Snag("opened", what, "Put a filler there, or hinge it at the other side.", where, "mind")
        return


def _from_hinge(front: FrontBox) -> float:
    """mm from the hinged edge to the near side of the handle."""
    assert front.handle is not None
    xs = (front.handle[0], front.handle[2])
    return min(xs) - front.x if front.hand == "left" else front.x + front.width - max(xs)
