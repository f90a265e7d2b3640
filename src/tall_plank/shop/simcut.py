"""The inner loop of the simulated machine: what a tool takes off the field of cells on a straight move."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from tall_plank.shop.compiled import compiled


@compiled
def take_off(
    heights: NDArray[np.float32],
    owner: NDArray[np.int32],
    cell: float,
    start: tuple[float, float, float],
    end: tuple[float, float, float],
    radius: float,
    rapid: bool,
    near: float,
) -> tuple[bool, int]:
    """Lower the cells that a tool passes over, unless it moves without cutting.

    Parameters
    ----------
    heights : mm of wood above the spoil board, by cells
    owner : the part that each cell lies in, -1 none
    cell, radius, near : mm; side of a cell, radius of the tool, what a depth may differ by
    start, end : of the tool's tip, mm

    Returns
    -------
    whether it meets wood, more than the rim does; the first part that it goes right through, -1 none
    """
    nx, ny = heights.shape
    x0, y0, z0 = start
    x1, y1, z1 = end
    dx, dy = x1 - x0, y1 - y0
    long = dx * dx + dy * dy
    low = min(z0, z1)
    whole = radius * radius
    rim = max(0.0, radius - 0.75 * cell)
    inner = rim * rim
    meets, hit = False, -1
    first = max(0, math.floor((min(x0, x1) - radius) / cell))
    last = min(nx, math.floor((max(x0, x1) + radius) / cell) + 1)
    for i in range(first, last):
        px = (i + 0.5) * cell - x0
        # The stretch of the way that is near this row of cells.
        if abs(dx) > 1e-9:
            t0 = min(max((px - radius) / dx, 0.0), 1.0)
            t1 = min(max((px + radius) / dx, 0.0), 1.0)
            ya, yb = y0 + t0 * dy, y0 + t1 * dy
        else:
            ya, yb = y0, y1
        c = max(0, math.floor((min(ya, yb) - radius) / cell))
        d = min(ny, math.floor((max(ya, yb) + radius) / cell) + 1)
        for j in range(c, d):
            py = (j + 0.5) * cell - y0
            share = min(max((px * dx + py * dy) / long, 0.0), 1.0) if long > 1e-12 else 0.0
            ex, ey = px - share * dx, py - share * dy
            away = ex * ex + ey * ey
            if away > whole:
                continue
            # Straight up or down, the lowest counts.
            tip = z0 + share * (z1 - z0) if long > 1e-12 else low
            if away <= inner:
                if heights[i, j] > tip + near:
                    meets = True
                if tip <= near and hit < 0 and owner[i, j] >= 0:
                    hit = owner[i, j]
            if not rapid and tip < heights[i, j]:
                heights[i, j] = tip
    return meets, hit
