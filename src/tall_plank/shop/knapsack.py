"""The inner loop of lengths cut from bars: the most valuable filling of a bar. Compiled once and kept on disk."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from tall_plank.shop.compiled import compiled
from tall_plank.shop.near import NEAR


@compiled
def fill_best(
    sizes: NDArray[np.float64], worth: NDArray[np.float64], need: NDArray[np.int64], room: float, limit: int
) -> tuple[float, NDArray[np.int64], int]:
    """A bounded knapsack by branch and bound.

    Parameters
    ----------
    sizes, worth, need : of each length, mm and money and pieces, the best worth for its length first
    room : mm
    limit : steps after which the best so far is taken

    Returns
    -------
    its value, how many of each, steps taken
    """
    n = sizes.shape[0]
    counts, best = np.zeros(n, np.int64), np.zeros(n, np.int64)
    left, value = np.empty(n + 1, np.float64), np.empty(n + 1, np.float64)
    left[0], value[0] = room, 0.0
    best_value = 0.0
    steps, i, down = 0, 0, True
    while i >= 0:
        if down:
            steps += 1
            if value[i] > best_value + 1e-12:
                best_value = value[i]
                best[:] = counts
            if i == n or steps > limit or value[i] + left[i] * worth[i] / sizes[i] <= best_value + 1e-12:
                i, down = i - 1, False
                continue
            counts[i] = min(need[i], int((left[i] + NEAR) // sizes[i]))
        elif counts[i] == 0:
            i -= 1
            continue
        else:
            counts[i] -= 1
        left[i + 1] = left[i] - counts[i] * sizes[i]
        value[i + 1] = value[i] + counts[i] * worth[i]
        i, down = i + 1, True
    return best_value, best, steps
