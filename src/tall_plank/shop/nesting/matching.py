"""Fronts whose grain goes on from one to the next: which of a job's fronts are cut side by side, and in what order.

Seen from outside, a front's grain runs along its length; the front beside it across the grain is the one that lies next
to it on the board. So fronts match that have the same way up, the same length and the same place along the grain: the
doors of a row where the grain stands, the fronts of a stack of drawers where it lies (common practice).
"""

from __future__ import annotations

from typing import Literal

from tall_plank.making import MadeJob, NumberedPart

Matched = Literal["no", "unit", "run"]


def _point(item: NumberedPart, at: tuple[float, float, float]) -> tuple[float, float, float]:
    return item.parent.out(item.part.frame.out(at))


def _key_and_place(item: NumberedPart) -> tuple[tuple[float, ...], float]:
    """What two matching fronts have in common, and where along the board's width a front comes; mm."""
    o = _point(item, (0.0, 0.0, 0.0))
    axes = []
    for k in range(3):
        end = _point(item, (float(k == 0), float(k == 1), float(k == 2)))
        axes.append(tuple(e - s for e, s in zip(end, o, strict=True)))
    along, across, out = (sum(a * s for a, s in zip(axis, o, strict=True)) for axis in axes)
    turned = tuple(round(a, 3) + 0.0 for axis in axes for a in axis)
    return (*turned, round(along, 1), round(out, 1), round(item.part.length, 1)), across


def match_groups(made: MadeJob, matched: Matched) -> dict[str, tuple[str, int]]:
    """Number of a front -> the name of its row and its place in it, from 0.

    Only whole fronts of one board with grain; a front alone is in no row. With "unit" a row ends with its unit, with
    "run" it goes on along the run.
    """
    if matched == "no":
        return {}
    runs = {placed.number: placed.run for placed, _ in made.units}
    rows: dict[tuple[object, ...], list[tuple[float, str]]] = {}
    for item in made.parts():
        p = item.part
        if p.role == "front" and p.grain == "length" and not p.outline:
            key, across = _key_and_place(item)
            owner = item.unit if matched == "unit" else runs.get(item.unit, item.unit)
            rows.setdefault((owner, p.board, *key), []).append((across, item.number))
    found = {}
    for row in rows.values():
        if len(row) > 1:
            row.sort()
            name = f"row of {row[0][1]}"
            found.update({number: (name, i) for i, (_, number) in enumerate(row)})
    return found
