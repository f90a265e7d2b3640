"""How many boards no plan can do without: proven lower bounds for rectangles on boards of one size.

Dual feasible functions (Fekete & Schepers, Mathematical Programming 91 (2001) 11-31; Martello & Vigo, Management
Science 44 (1998) 388-399): sizes are changed so that whatever fits on a board still fits after the change; the changed
area then bounds the number of boards from below. A piece that may be turned counts with the smaller of its two areas.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

MOST_STEPS = 24
"""Thresholds tried for each direction."""


def stretched(sizes: NDArray[np.float64], whole: float, p: float) -> NDArray[np.float64]:
    """u_p: what is longer than whole - p counts whole, what is shorter than p counts nothing (p <= whole / 2).
    `whole`: mm. `p`: a share."""
    return np.where(sizes > whole - p, whole, np.where(sizes < p, 0.0, sizes))


def rounded(sizes: NDArray[np.float64], whole: float, k: int) -> NDArray[np.float64]:
    """u^(k): sizes times (k + 1) rounded down to whole boards, divided by k; exact multiples stay as they are.
    `whole`: mm."""
    share = sizes * (k + 1) / whole
    near = np.round(share)
    exact = np.abs(share - near) < 1e-9
    return np.where(exact, sizes, np.floor(share) * whole / k)


def _steps(sizes: NDArray[np.float64], whole: float) -> list[float]:
    """Thresholds worth trying: sizes up to half the board, and what the large ones leave."""
    found = np.unique(np.concatenate([sizes[sizes <= whole / 2], (whole - sizes)[sizes > whole / 2], [0.0, whole / 2]]))
    found = found[(found >= 0) & (found <= whole / 2)]
    if len(found) > MOST_STEPS:
        found = found[np.linspace(0, len(found) - 1, MOST_STEPS).astype(int)]
    return [float(x) for x in found]


def least_boards(
    wide: NDArray[np.float64], high: NDArray[np.float64], turnable: NDArray[np.bool_], board: tuple[float, float]
) -> int:
    """The best of these bounds for pieces on boards of one size. `board`: mm.

    Parameters
    ----------
    wide, high : (n,) arrays, sizes of the pieces along and across the board, each grown by one kerf
    turnable : (n,) array
    board : usable length and width, grown by one kerf
    """
    if len(wide) == 0:
        return 0
    w, h = board

    def changes(sizes: NDArray[np.float64], whole: float):  # type: ignore[no-untyped-def]
        for p in _steps(np.concatenate([wide, high]), whole):
            yield lambda s, p=p: stretched(s, whole, p)
        for k in (1, 2, 3, 4):
            yield lambda s, k=k: rounded(s, whole, k)

    best = 0.0
    across = [(f(wide), f(high)) for f in changes(wide, w)]
    up = [(f(high), f(wide)) for f in changes(high, h)]
    big = np.inf
    fits_turned = turnable & (high <= w + 1e-9) & (wide <= h + 1e-9)
    fits_plain = (wide <= w + 1e-9) & (high <= h + 1e-9)
    for a_plain, a_turned in across:
        for b_plain, b_turned in up:
            plain = np.where(fits_plain, a_plain * b_plain, big)
            turned = np.where(fits_turned, a_turned * b_turned, big)
            area = np.minimum(plain, turned)
            best = max(best, float(area[np.isfinite(area)].sum()) / (w * h))
    return int(np.ceil(best - 1e-6))
