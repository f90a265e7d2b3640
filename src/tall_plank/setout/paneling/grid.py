"""Equal panels in a frame of stiles and rails: how a stretch of wall is divided, what is left of rounding and where it
goes, the sum as a carpenter writes it, and outlets that stand on a stile."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import accumulate
from typing import Literal

import msgspec

from tall_plank.measure import DisplayUnit, PlankError, format_length
from tall_plank.measure.shareout import Member, Rule, share_out
from tall_plank.measure.units import TOLERANCE

PanelRest = Literal["ends", "evenly", "last", "panel"]
"""Who takes what is left of rounding: the two end stiles, every stile, the right end stile, the last panel."""

REST_WORDS: dict[PanelRest, str] = {
    "ends": "to each end stile",
    "evenly": "to each stile",
    "last": "to the right end stile",
    "panel": "to the last panel",
}

LEAST = 20.0
"""mm; a narrower panel is none."""

MOST = 200
"""Panels in a row, and rows."""


class PanelSpec(msgspec.Struct, frozen=True, cache_hash=True):
    """How a stretch is paneled; all lengths in mm.

    Attributes
    ----------
    width : of the wall
    count : panels in a row; 0: as many as come nearest to `target`
    target : width that is wanted
    stile, end_stile : between panels, at the ends
    left, right : what stands in the way at the wall's ends, as a casing
    bottom, top : of the zone, from the floor: from the skirting's top to the dado rail's underside or the ceiling
    rows : panels above one another, a `mid_rail` between them
    step : panels come in whole steps of it; 0: exactly
    rest : who takes what is left of rounding; upright the bottom rail does
    """

    width: float
    count: int
    stile: float
    end_stile: float
    target: float = 0.0
    left: float = 0.0
    right: float = 0.0
    bottom: float = 0.0
    top: float = 0.0
    rows: int = 1
    bottom_rail: float = 0.0
    top_rail: float = 0.0
    mid_rail: float = 0.0
    step: float = 0.0
    rest: PanelRest = "ends"


class PanelGrid(msgspec.Struct, frozen=True, cache_hash=True):
    """Panels set out.

    Attributes
    ----------
    stiles : widths from the left, one more than panels; mm
    panels : widths from the left, mm
    height : of every panel, mm; 0 without a zone
    bottom_rail : mm, with what is left of rounding
    left_edges, bottom_edges : of panels, from the wall's left end and from the floor, mm
    rounded, rounded_up : what was left of rounding along the wall and up, mm
    """

    spec: PanelSpec
    stiles: tuple[float, ...]
    panels: tuple[float, ...]
    height: float
    bottom_rail: float
    left_edges: tuple[float, ...]
    bottom_edges: tuple[float, ...]
    rounded: float
    rounded_up: float

    @property
    def count(self) -> int:
        return len(self.panels)


def free_width(spec: PanelSpec, count: int) -> float:
    """mm that `count` panels share; below 0 where stiles alone are too much."""
    return spec.width - spec.left - spec.right - 2 * spec.end_stile - (count - 1) * spec.stile


def count_near(spec: PanelSpec) -> tuple[int, int, int]:
    """The count whose panels come nearest to the target, and the two about it: with wider and with narrower panels.

    Raises
    ------
    PlankError where not even one panel finds room
    """
    if spec.target < LEAST:
        raise PlankError("Panels need a count or a width.", "count", f"Give a count, or a width above {LEAST:g} mm.")
    exact = (free_width(spec, 1) + spec.stile) / (spec.target + spec.stile)
    wider = min(MOST, max(1, math.floor(exact + 1e-9)))
    narrower = min(MOST, wider + 1)
    if free_width(spec, wider) / wider < LEAST:
        _no_room(spec, wider)
    sizes = {n: free_width(spec, n) / n for n in (wider, narrower)}
    best = min(sizes, key=lambda n: (abs(sizes[n] - spec.target) if sizes[n] >= LEAST else math.inf, n))
    return best, wider, narrower


def _no_room(spec: PanelSpec, count: int) -> None:
    most = 0
    while most < MOST and free_width(spec, most + 1) / (most + 1) >= LEAST:
        most += 1
    stiles = spec.width - spec.left - spec.right - free_width(spec, count)
    left = spec.width - spec.left - spec.right
    remedy = f"Take {most} panels or fewer." if most else "Make the stiles narrower."
    words = "panel finds" if count == 1 else "panels find"
    raise PlankError(f"{count} {words} no room: stiles take {stiles:g} of {left:g} mm.", "count", remedy)


def panel_grid(spec: PanelSpec) -> PanelGrid:
    """Set panels out.

    Raises
    ------
    PlankError where they find no room, with the most that do
    """
    count = spec.count or count_near(spec)[0]
    if not 1 <= count <= MOST or not 1 <= spec.rows <= MOST:
        raise PlankError(f"There can be 1 to {MOST} panels in a row, and rows.", "count", "Give another count.")
    if free_width(spec, count) / count < max(LEAST, spec.step):
        _no_room(spec, count)
    members: list[Member] = []
    for i in range(count + 1):
        members.append(Member(Rule.FIXED, size=spec.end_stile if i in (0, count) else spec.stile))
        if i < count:
            members.append(Member(Rule.SHARE))
    last = len(members) - 1
    takers = {"ends": (0, last), "evenly": tuple(range(0, last + 1, 2)), "last": (last,), "panel": (last - 1,)}[
        spec.rest
    ]
    along = share_out(spec.width - spec.left - spec.right, members, step=spec.step, takers=takers)
    height, rail, bottoms, up = _upright(spec)
    lefts = _panel_edges(spec.left, along.sizes)
    return PanelGrid(spec, along.sizes[::2], along.sizes[1::2], height, rail, lefts, bottoms, along.rounded, up)


def _upright(spec: PanelSpec) -> tuple[float, float, tuple[float, ...], float]:
    """Height of panels, the bottom rail, lower edges, what was left of rounding."""
    if spec.top <= spec.bottom:
        return 0.0, spec.bottom_rail, (), 0.0
    rails = spec.bottom_rail + spec.top_rail + (spec.rows - 1) * spec.mid_rail
    zone = spec.top - spec.bottom
    if (zone - rails) / spec.rows < max(LEAST, spec.step):
        raise PlankError(
            f"Panels find no room upright: rails take {rails:g} of {zone:g} mm.",
            "rows",
            "Take fewer rows or lower rails.",
        )
    members = [Member(Rule.FIXED, size=spec.bottom_rail)]
    for i in range(spec.rows):
        members += [Member(Rule.SHARE), Member(Rule.FIXED, size=spec.mid_rail if i + 1 < spec.rows else spec.top_rail)]
    shares = share_out(zone, members, step=spec.step, takers=(0,))
    return shares.sizes[1], shares.sizes[0], _panel_edges(spec.bottom, shares.sizes), shares.rounded


def _panel_edges(start: float, sizes: Sequence[float]) -> tuple[float, ...]:
    """Where panels begin among stiles or rails, panel by panel after each first, mm."""
    ends = list(accumulate(sizes, initial=start))
    return tuple(ends[1:-1:2])


def sum_line(grid: PanelGrid, unit: DisplayUnit) -> str:
    """The sum as a carpenter writes it: `2400 - 6 x 76 = 1944; 1944 / 5 = 388.8`, what stands in the way and other end
    stiles taken off first, what is left of rounding named."""
    spec, n = grid.spec, grid.count

    def show(mm: float) -> str:
        if unit is DisplayUnit.MM:
            return f"{round(mm, 2):.2f}".rstrip("0").rstrip(".")
        return format_length(mm, unit)

    taken = [show(spec.width)]
    taken += [show(mm) for mm in (spec.left, spec.right) if mm > TOLERANCE]
    if abs(spec.end_stile - spec.stile) < TOLERANCE:
        taken.append(f"{n + 1} x {show(spec.stile)}")
    else:
        taken.append(f"2 x {show(spec.end_stile)}")
        if n > 1:
            taken.append(f"{n - 1} x {show(spec.stile)}")
    free = free_width(spec, n)
    words = f"{' - '.join(taken)} = {show(free)}; {show(free)} / {n} = {show(free / n)}"
    if grid.rounded > TOLERANCE:
        takers = {"ends": 2, "evenly": n + 1, "last": 1, "panel": 1}[spec.rest]
        words += f"; {show(min(grid.panels))} each, {show(grid.rounded)} left"
        share = f"{show(grid.rounded / takers)} " if takers > 1 else ""
        words += f": {share}{REST_WORDS[spec.rest]}"
    return words


# --- outlets


class Outlet(msgspec.Struct, frozen=True, cache_hash=True):
    """Something on the wall that a stile must not cross: from where to where, mm from the wall's left end, and above
    the floor."""

    name: str
    low: float
    high: float
    bottom: float = 0.0
    top: float = 0.0


class StileClash(msgspec.Struct, frozen=True, cache_hash=True):
    """An outlet on a stile.

    Attributes
    ----------
    stile : its number from the left, from 0
    counts : panels in a row, near the present count, with which no outlet stands on a stile
    shift : mm by which all panels move to the right (below 0: to the left) so that this outlet clears, the least way;
        None where the end stiles do not allow it
    """

    outlet: Outlet
    stile: int
    counts: tuple[int, ...]
    shift: float | None


def stile_clashes(grid: PanelGrid, outlets: Sequence[Outlet], clearance: float = 0.0) -> list[StileClash]:
    """The outlets that stand on a stile. `clearance`: mm that they keep from its edges."""
    found: list[StileClash] = []
    hit = [(o, i) for o in outlets for i in _stiles_under(grid, o, clearance)]
    if not hit:
        return found
    counts = _clear_counts(grid, outlets, clearance)
    for outlet, i in hit:
        found.append(StileClash(outlet, i, counts, _least_shift(grid, outlet, i, clearance)))
    return found


def _stile_spans(grid: PanelGrid) -> list[tuple[float, float]]:
    right_ends = [x + w for x, w in zip(grid.left_edges, grid.panels, strict=True)]
    end = grid.spec.width - grid.spec.right
    return list(zip((grid.spec.left, *right_ends), (*grid.left_edges, end), strict=True))


def _stiles_under(grid: PanelGrid, outlet: Outlet, clearance: float) -> list[int]:
    low, high = outlet.low - clearance, outlet.high + clearance
    return [i for i, (a, b) in enumerate(_stile_spans(grid)) if a < high - TOLERANCE and b > low + TOLERANCE]


def _clear_counts(grid: PanelGrid, outlets: Sequence[Outlet], clearance: float) -> tuple[int, ...]:
    """The nearest counts, up to two fewer and two more, that clear every outlet."""
    spec, n = grid.spec, grid.count
    fewer: list[int] = []
    more: list[int] = []
    for count in (*range(n - 1, 0, -1), *range(n + 1, min(MOST, 2 * n + 4))):
        lot = fewer if count < n else more
        if len(lot) >= 2:
            continue
        try:
            other = panel_grid(msgspec.structs.replace(spec, count=count, target=0.0))
        except PlankError:
            continue
        if not any(_stiles_under(other, o, clearance) for o in outlets):
            lot.append(count)
    return (*sorted(fewer), *more)


def _least_shift(grid: PanelGrid, outlet: Outlet, stile: int, clearance: float) -> float | None:
    """How far all panels move so that a stile clears an outlet, one end stile taking what the other gives."""
    if stile in (0, grid.count):
        return None
    a, b = _stile_spans(grid)[stile]
    left, right = outlet.low - clearance - b, outlet.high + clearance - a
    first, last = grid.stiles[0], grid.stiles[-1]
    possible = [s for s in (left, right) if first + s > TOLERANCE and last - s > TOLERANCE]
    return min(possible, key=abs) if possible else None
