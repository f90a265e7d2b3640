"""Rows of shelf-pin holes on the 32 mm system, and places on its grid (common practice)."""

from __future__ import annotations

import math

from tall_plank.job import Construction


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
