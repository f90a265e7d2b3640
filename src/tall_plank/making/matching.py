"""Fronts whose grain goes on from one to the next: which of a job's fronts are cut side by side, and in what order.

Seen from outside, a front's grain runs along its length; the front beside it across the grain is the one that lies next
to it on the board. So fronts match that have the same way up, the same length and the same place along the grain: the
doors of a row where the grain stands, the fronts of a stack of drawers where it lies (common practice). What lies
beside no other may go on from end to end: the fronts of a stack of drawers where the grain stands.
"""

from __future__ import annotations

from typing import Literal

from tall_plank.making.made import MadeJob, NumberedPart

Matched = Literal["no", "unit", "run"]
Way = Literal["side", "end"]
"""Side by side across the grain, or end to end along it."""


def _point(item: NumberedPart, at: tuple[float, float, float]) -> tuple[float, float, float]:
    return item.parent.at(*item.part.frame.at(*at))


Place = tuple[str, int, Way]
"""Name of a front's row, its place in it from 0, and how the row lies."""


def _keys(item: NumberedPart) -> tuple[tuple[tuple[float, ...], float], tuple[tuple[float, ...], float]]:
    """What two fronts have in common that match side by side, and where along the board's width a front comes; then
    the same for end to end, and where along its length; mm."""
    o = _point(item, (0.0, 0.0, 0.0))
    axes = []
    for k in range(3):
        end = _point(item, (float(k == 0), float(k == 1), float(k == 2)))
        axes.append(tuple(e - s for e, s in zip(end, o, strict=True)))
    along, across, out = (sum(a * s for a, s in zip(axis, o, strict=True)) for axis in axes)
    turned = tuple(round(a, 3) + 0.0 for axis in axes for a in axis)
    side: tuple[float, ...] = (*turned, round(along, 1), round(out, 1), round(item.part.length, 1))
    ends: tuple[float, ...] = (*turned, round(across, 1), round(out, 1), round(item.part.width, 1))
    return (side, across), (ends, along)


def match_groups(made: MadeJob, matched: Matched) -> dict[str, Place]:
    """Number of a front -> its row, its place in it, and how the row lies.

    Only whole fronts of one board with grain; a front alone is in no row. With "unit" a row ends with its unit, with
    "run" it goes on along the run.
    """
    if matched == "no":
        return {}
    runs = {placed.number: placed.run for placed, _ in made.units}
    beside: dict[tuple[object, ...], list[tuple[float, str]]] = {}
    ends: dict[tuple[object, ...], list[tuple[float, str]]] = {}
    for item in made.parts():
        p = item.part
        if p.role == "front" and p.grain == "length" and not p.outline:
            (side, across), (end, along) = _keys(item)
            owner = item.unit if matched == "unit" else runs.get(item.unit, item.unit)
            beside.setdefault((owner, p.board, *side), []).append((across, item.number))
            # A stack stands in one unit.
            ends.setdefault((item.unit, p.board, *end), []).append((along, item.number))
    found: dict[str, Place] = {}
    _add(found, beside, "side")
    _add(found, ends, "end")
    return found


def _add(found: dict[str, Place], rows: dict[tuple[object, ...], list[tuple[float, str]]], way: Way) -> None:
    """Rows of two and more fronts that are in none yet."""
    for row in rows.values():
        left = sorted(r for r in row if r[1] not in found)
        if len(left) > 1:
            name = f"{'row' if way == 'side' else 'stack'} of {left[0][1]}"
            found.update({number: (name, i, way) for i, (_, number) in enumerate(left)})
