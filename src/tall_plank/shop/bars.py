"""Lengths cut from bars: moldings, rails, edging strips, tracks. Proven best where that can be proven.

All patterns that fill a bar are listed where there are few of them, else the useful ones are found by column generation
(Gilmore & Gomory, Operations Research 9 (1961) and 11 (1963)); whole numbers of patterns are chosen by a mixed-integer
solver. n pieces in a bar need n - 1 kerfs.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import msgspec
import numpy as np
from numpy.typing import NDArray

from tall_plank.measure import PlankError
from tall_plank.measure.remembered import KeptBy
from tall_plank.shop.near import NEAR

MOST_PATTERNS = 4000
"""Patterns listed in full; beyond that they are generated as they are needed."""

SOLVE_NODES = 20_000
"""Branches after which the choice of patterns takes the best so far: counted, so that one question has one answer."""

SOLVE_CELLS = 40_000_000
"""Lengths times patterns, over all rounds, after which no more patterns are looked for."""

MOST_LENGTHS = 800
"""Different lengths of one profile; beyond that a first plan has to do."""

MOST_PIECES = 12_000
"""Pieces that are planned at once."""

FILL_STEPS = 5_000_000
"""Steps after which the search for one filling takes the best so far."""

KEPT = 256
"""Solved questions that are remembered."""


class BarPiece(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A length to cut, `qty` times; mm at its long point."""

    piece: str
    length: float
    qty: int = 1
    profile: str = ""


class BarStock(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A bar that can be bought: mm, price of one (0 throughout: bars cost their length)."""

    profile: str
    length: float
    price: float = 0.0


class CutBar(msgspec.Struct, frozen=True):
    """A bar with the pieces cut from it, longest first: (piece, mm)."""

    profile: str
    length: float
    pieces: tuple[tuple[str, float], ...]
    price: float = 0.0
    left: float = 0.0


class LostPiece(msgspec.Struct, frozen=True):
    """Pieces on no bar, and why."""

    piece: str
    qty: int
    why: str


class BarPlan(msgspec.Struct, frozen=True):
    """Bars to cut.

    Attributes
    ----------
    proven : whether no plan is better
    bound : what no plan costs less than, all profiles together: money, or mm of bar where there are no prices
    settled : whether the best was looked for; else it is a first plan
    """

    bars: tuple[CutBar, ...]
    unplaced: tuple[LostPiece, ...]
    proven: bool
    bound: float
    settled: bool = True

    @property
    def cost(self) -> float:
        return sum(b.price for b in self.bars)


@dataclass(frozen=True)
class _Bar:
    """A kind of bar: what can be used of it, one kerf longer; what it costs."""

    length: float
    usable: float
    price: float
    cost: float


def cut_bars(
    pieces: Sequence[BarPiece], stock: Sequence[BarStock], kerf: float = 3.0, trim: float = 0.0, *, wait: bool = True
) -> BarPlan:
    """Cut pieces from bars at the least cost; profiles apart.

    Parameters
    ----------
    kerf : mm between two pieces
    trim : mm cut off either end of every bar
    wait : whether the best is looked for; else what was found before for the same question, or a first plan at once

    Raises
    ------
    PlankError for more pieces than can be planned at once
    """
    count = sum(p.qty for p in pieces)
    if count > MOST_PIECES:
        raise PlankError(f"{count:,} pieces are too many at once.", "pieces", f"Plan {MOST_PIECES:,} at the most.")
    settled = True
    bars: list[CutBar] = []
    lost: list[LostPiece] = []
    proven, bound = True, 0.0
    for profile in sorted({p.profile for p in pieces}):
        mine = [p for p in pieces if p.profile == profile and p.qty > 0]
        kinds = _kinds([s for s in stock if s.profile == profile], kerf, trim)
        fitting = []
        for p in mine:
            if not kinds:
                lost.append(LostPiece(p.piece, p.qty, f"no bar of “{profile}”" if profile else "no bar"))
            elif p.length + kerf > max(k.usable for k in kinds) + NEAR:
                longest = max(k.usable for k in kinds) - kerf
                why = f"{p.length:g} is longer than every bar ({longest:g} can be used)"
                lost.append(LostPiece(p.piece, p.qty, why))
            else:
                fitting.append(p)
        if fitting:
            key = (tuple(fitting), tuple(kinds), kerf)
            known = _solved.get(key)
            if known is None and wait:
                known = _one_profile(fitting, kinds, kerf)
                _solved.put(key, known)
            settled = settled and known is not None
            found, least, sure = known or _first_plan(fitting, kinds, kerf)
            bars += [msgspec.structs.replace(b, profile=profile) for b in found]
            bound += least
            proven = proven and sure
    return BarPlan(tuple(bars), tuple(lost), proven, bound, settled)


_Answer = tuple[list[CutBar], float, bool]
_Key = tuple[tuple[BarPiece, ...], "tuple[_Bar, ...]", float]
_solved: KeptBy[_Key, _Answer] = KeptBy("shop.bars.solved", KEPT)
"""Questions that were solved, oldest first."""


def _first_plan(pieces: list[BarPiece], kinds: list[_Bar], kerf: float) -> _Answer:
    """Longest first, each on the first bar with room for it, else on a new one that is cheapest for its length; in the
    end each bar is of the cheapest kind that holds what lies on it."""
    loads: list[list[tuple[str, float]]] = []
    used: list[float] = []
    kind_of: list[_Bar] = []
    for p in sorted(pieces, key=lambda p: -p.length):
        size = p.length + kerf
        for _ in range(p.qty):
            at = next((i for i, k in enumerate(kind_of) if used[i] + size <= k.usable + NEAR), -1)
            if at < 0:
                kind_of.append(min((k for k in kinds if size <= k.usable + NEAR), key=lambda k: k.cost / k.usable))
                loads.append([])
                used.append(0.0)
                at = len(loads) - 1
            loads[at].append((p.piece, round(p.length, 6)))
            used[at] += size
    bars = []
    cost = 0.0
    for load, filled in zip(loads, used, strict=True):
        kind = min((k for k in kinds if filled <= k.usable + NEAR), key=lambda k: k.cost)
        cost += kind.cost
        bars.append(CutBar("", kind.length, tuple(load), kind.price, round(max(0.0, kind.usable - filled), 6)))
    bound = sum(used) * min(k.cost / k.usable for k in kinds)
    return sorted(bars, key=lambda b: (b.left, [-mm for _, mm in b.pieces])), bound, cost <= bound + 1e-6


def _kinds(stock: Sequence[BarStock], kerf: float, trim: float) -> list[_Bar]:
    """Bars that anything can be cut from. Where none has a price, a bar costs its length."""
    priced = any(s.price > 0 for s in stock)
    found = {
        (s.length, s.price): _Bar(s.length, s.length - 2 * trim + kerf, s.price, s.price if priced else s.length)
        for s in stock
        if s.length - 2 * trim > 0
    }
    return sorted(found.values(), key=lambda k: (k.cost, k.length))


def _one_profile(pieces: list[BarPiece], kinds: list[_Bar], kerf: float) -> tuple[list[CutBar], float, bool]:
    """Bars for the pieces of one profile, a lower bound of their cost, and whether they reach it."""
    # Pieces of one length are one kind of length.
    lengths = sorted({round(p.length, 6) for p in pieces}, reverse=True)
    need = np.array([sum(p.qty for p in pieces if round(p.length, 6) == x) for x in lengths], dtype=np.int64)
    sizes = np.array(lengths) + kerf
    if len(lengths) > MOST_LENGTHS:
        return _first_plan(pieces, kinds, kerf)
    patterns = _listed(sizes, need, kinds)
    complete = patterns is not None
    if patterns is None:
        patterns, bound = _generated(sizes, need, kinds)
    else:
        bound = 0.0
    counts, cost, least = _chosen(patterns, need, kinds)
    bound = max(bound, least if complete else 0.0)
    step = _step(kinds)
    if step > 0:
        # Costs come in whole steps, so the bound may be rounded up.
        bound = math.ceil(bound / step - 1e-6) * step
    sure = cost <= bound + 1e-6 * max(1.0, bound)
    return _written(patterns, counts, need, lengths, pieces, kinds, kerf), bound, sure


def _step(kinds: list[_Bar]) -> float:
    """The largest amount that all costs are whole multiples of; 0 where there is none worth the name."""
    cents = [round(k.cost * 1000) for k in kinds]
    if any(abs(c - k.cost * 1000) > 1e-6 for c, k in zip(cents, kinds, strict=True)):
        return 0.0
    return math.gcd(*cents) / 1000


Pattern = tuple[int, tuple[int, ...]]
"""Kind of bar, pieces of each length."""


def _listed(sizes: NDArray[np.float64], need: NDArray[np.int64], kinds: list[_Bar]) -> list[Pattern] | None:
    """Every way to fill a bar to which no piece can be added; None where there are too many."""
    found: list[Pattern] = []
    n = len(sizes)
    steps = 0

    def fill(kind: int, i: int, room: float, counts: list[int]) -> bool:
        nonlocal steps
        steps += 1
        if steps > 400_000:
            return False
        if i == n:
            # Full: what is left takes no piece that is still needed.
            if all(counts[j] >= need[j] or sizes[j] > room + NEAR for j in range(n)) and any(counts):
                found.append((kind, tuple(counts)))
            return len(found) <= MOST_PATTERNS
        most = int(min(need[i], (room + NEAR) // sizes[i]))
        for c in range(most, -1, -1):
            counts.append(c)
            ok = fill(kind, i + 1, room - c * sizes[i], counts)
            counts.pop()
            if not ok:
                return False
        return True

    for k, kind in enumerate(kinds):
        if not fill(k, 0, kind.usable, []):
            return None
    return found


def _relaxed(patterns: list[Pattern], need: NDArray[np.int64], kinds: list[_Bar]) -> tuple[NDArray[np.float64], float]:
    """Worth of a piece of each length, and the cost, where patterns may be cut in fractions (linear program)."""
    from scipy.optimize import linprog

    matrix = np.array([counts for _, counts in patterns], dtype=float).T
    cost = np.array([kinds[k].cost for k, _ in patterns])
    result = linprog(cost, A_ub=-matrix, b_ub=-need.astype(float), bounds=(0, None), method="highs")
    return -np.array(result.ineqlin.marginals), float(result.fun)


def _generated(sizes: NDArray[np.float64], need: NDArray[np.int64], kinds: list[_Bar]) -> tuple[list[Pattern], float]:
    """Patterns that are worth their bar, found one after another, and a lower bound of the cost."""
    n = len(sizes)
    patterns: list[Pattern] = []
    for i in range(n):
        for k, kind in enumerate(kinds):
            most = int(min(need[i], (kind.usable + NEAR) // sizes[i]))
            if most:
                patterns.append((k, tuple(most if j == i else 0 for j in range(n))))
    patterns += _first_fit(sizes, need, kinds)
    known = set(patterns)
    bound = 0.0
    cells = 0
    for _ in range(600):
        cells += n * len(patterns)
        if cells > SOLVE_CELLS:
            break
        worth, cost = _relaxed(patterns, need, kinds)
        new = []
        least = 1.0
        for k, kind in enumerate(kinds):
            value, counts, most_value = _best_filling(sizes, worth, need, kind.usable)
            least = min(least, kind.cost / most_value) if most_value > 0 else least
            if value > kind.cost + 1e-7 and (k, counts) not in known:
                new.append((k, counts))
        # Worths scaled so that no pattern is worth more than its bar are a bound (Farley, Oper. Res. 38 (1990)).
        bound = max(bound, cost * min(1.0, least))
        if not new:
            break
        patterns += new
        known.update(new)
    return patterns, bound


def _first_fit(sizes: NDArray[np.float64], need: NDArray[np.int64], kinds: list[_Bar]) -> list[Pattern]:
    """Patterns of first fit by decreasing length on the bar that is cheapest for its length."""
    k = min(range(len(kinds)), key=lambda i: kinds[i].cost / kinds[i].usable)
    left = need.copy()
    found: list[Pattern] = []
    if sizes.max() > kinds[k].usable + NEAR:
        return found
    while left.any():
        room, counts = kinds[k].usable, []
        for i, size in enumerate(sizes):
            c = int(min(left[i], (room + NEAR) // size))
            counts.append(c)
            room -= c * size
        found.append((k, tuple(counts)))
        left -= np.array(counts)
    return list(dict.fromkeys(found))


def _best_filling(
    sizes: NDArray[np.float64], worth: NDArray[np.float64], need: NDArray[np.int64], room: float
) -> tuple[float, tuple[int, ...], float]:
    """The most valuable filling of a bar: a bounded knapsack by branch and bound, the best value for its length first.
    Its value, its pieces, and what no filling is worth more than: the same, unless the search was cut short."""
    from tall_plank.shop.knapsack import fill_best  # its compiler takes a while to come up

    order = np.array(sorted(range(len(sizes)), key=lambda i: -worth[i] / sizes[i]), np.int64)
    value, found, steps = fill_best(sizes[order], worth[order], need[order], room, FILL_STEPS)
    counts = np.zeros(len(sizes), np.int64)
    counts[order] = found
    most_value = value if steps <= FILL_STEPS else float(room * (worth / sizes).max())
    return float(value), tuple(int(c) for c in counts), float(most_value)


def _chosen(
    patterns: list[Pattern], need: NDArray[np.int64], kinds: list[_Bar]
) -> tuple[NDArray[np.int64], float, float]:
    """How often each pattern is cut, what that costs, and the solver's own lower bound for these patterns."""
    from scipy.optimize import Bounds, LinearConstraint, milp

    matrix = np.array([counts for _, counts in patterns], dtype=float).T
    cost = np.array([kinds[k].cost for k, _ in patterns])
    result = milp(
        cost,
        constraints=LinearConstraint(matrix, lb=need.astype(float)),
        integrality=np.ones(len(patterns)),
        bounds=Bounds(0, np.inf),
        options={"node_limit": SOLVE_NODES, "mip_rel_gap": 0.0},
    )
    if result.x is None:  # out of branches with nothing in hand: round the relaxed answer up
        from scipy.optimize import linprog

        relaxed = linprog(cost, A_ub=-matrix, b_ub=-need.astype(float), bounds=(0, None), method="highs")
        counts = np.ceil(relaxed.x - 1e-9).astype(np.int64)
        return counts, float(cost @ counts), float(relaxed.fun)
    counts = np.round(result.x).astype(np.int64)
    least = float(result.mip_dual_bound) if result.mip_dual_bound is not None else 0.0
    return counts, float(cost @ counts), least


def _written(
    patterns: list[Pattern],
    counts: NDArray[np.int64],
    need: NDArray[np.int64],
    lengths: list[float],
    pieces: list[BarPiece],
    kinds: list[_Bar],
    kerf: float,
) -> list[CutBar]:
    """Bars with the names of their pieces; where patterns cut more than is needed, the surplus stays on the bar."""
    names = [[p.piece for p in pieces if round(p.length, 6) == length for _ in range(p.qty)] for length in lengths]
    left = need.copy()
    bars: list[CutBar] = []
    for (k, pattern), times in sorted(zip(patterns, counts, strict=True), key=lambda pair: pair[0]):
        for _ in range(int(times)):
            on: list[tuple[str, float]] = []
            for i, count in enumerate(pattern):
                take = int(min(count, left[i]))
                left[i] -= take
                on += [(names[i].pop(0), lengths[i]) for _ in range(take)]
            if on:
                kind = kinds[k]
                used = sum(mm for _, mm in on) + kerf * (len(on) - 1)
                rest = round(max(0.0, kind.usable - kerf - used), 6)
                bars.append(CutBar("", kind.length, tuple(on), kind.price, rest))
    return sorted(bars, key=lambda b: (b.left, [-mm for _, mm in b.pieces]))
