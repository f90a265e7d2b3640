"""Pieces of what is longer than its board: where joints are hidden, else equal ones."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

LEAST_PIECE = 300.0
"""mm; no piece is shorter where it can be helped."""


def joints_in(length: float, most: float, hidden: Sequence[float] = ()) -> tuple[tuple[float, ...], bool]:
    """Where a length is parted so that no piece is longer than its board, and whether every joint is hidden.

    As few pieces as can be, as equal as can be; each joint moves to the nearest place where it is hidden, if the pieces
    beside it still fit.

    Parameters
    ----------
    length, most : mm
    hidden : places where a joint is not seen: behind a stile, a rail, between slats; mm from the start
    """
    if length <= most + 1e-6 or most <= 1.0:
        return (), True
    count = math.ceil(length / most - 1e-9)
    while count < 200:
        cuts = _snapped(length, most, count, hidden)
        if cuts is not None:
            return cuts, True
        # One piece more may let every joint be hidden; two more are not worth it.
        if count > math.ceil(length / most - 1e-9):
            break
        count += 1
    count = math.ceil(length / most - 1e-9)
    return tuple(length * i / count for i in range(1, count)), False


def _snapped(length: float, most: float, count: int, hidden: Sequence[float]) -> tuple[float, ...] | None:
    """Joints at hidden places only; None where the pieces would not fit."""
    cuts: list[float] = []
    at = 0.0
    for i in range(1, count):
        wanted = length * i / count
        able = [h for h in hidden if at + LEAST_PIECE <= h <= min(at + most, length - LEAST_PIECE) + 1e-6]
        # What is left behind this joint has to be enough for the pieces that follow.
        able = [h for h in able if length - h <= most * (count - i) + 1e-6]
        if not able:
            return None
        at = min(able, key=lambda h: abs(h - wanted))
        cuts.append(at)
    return tuple(cuts)


def pieces_between(start: float, end: float, cuts: Sequence[float]) -> list[tuple[float, float]]:
    """From where to where each piece reaches; `cuts` are measured from the start. All in mm."""
    marks = [start, *(start + c for c in cuts), end]
    return list(itertools.pairwise(marks))
