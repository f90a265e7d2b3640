"""Dividing a length among members: fixed, equal or proportional share, or what is left.

One function serves runs, bays, fronts and dimensions, so that sums are exact everywhere and the remainder of
rounding is named and goes where the designer says (M3).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from enum import StrEnum

from tall_plank.measure.units import TOLERANCE


class Rule(StrEnum):
    """How a member takes its part of the length."""

    FIXED = "fixed"
    SHARE = "share"
    REST = "rest"


class RestGoes(StrEnum):
    """Where the remainder of a step size goes."""

    LAST = "last"
    ENDS = "ends"
    EVENLY = "evenly"


@dataclass(frozen=True)
class Member:
    """One taker of a length.

    Attributes
    ----------
    rule : fixed, share or rest
    size : float, mm, for fixed members
    weight : float, for shares; two shares of weight 1 and 2 stand 1 to 2
    least, most : float, mm; the range a share or rest member may take
    """

    rule: Rule = Rule.FIXED
    size: float = 0.0
    weight: float = 1.0
    least: float = 0.0
    most: float = math.inf


@dataclass(frozen=True)
class Shares:
    """The outcome of a share-out.

    Attributes
    ----------
    sizes : tuple of float, mm, one per member
    left : float, mm; what nobody took (0 where a member takes what is left)
    short : float, mm; what is missing for everybody's least or fixed size
    rounded : float, mm; the remainder of the step that was handed to the `rest_goes` members
    """

    sizes: tuple[float, ...]
    left: float = 0.0
    short: float = 0.0
    rounded: float = field(default=0.0)

    @property
    def fits(self) -> bool:
        return self.short < TOLERANCE


def share_out(
    total: float,
    members: Sequence[Member],
    *,
    gap: float = 0.0,
    step: float = 0.0,
    rest_goes: RestGoes = RestGoes.LAST,
    takers: Sequence[int] = (),
) -> Shares:
    """Divide `total` among `members` with `gap` between neighbours.

    Fixed members take their size. Shares divide what remains in proportion to their weights, held in their
    ranges (clamp and redistribute). Rest members take, equally, what shares do not: where both stand, shares take
    equal parts together with the rest members, so a rest member absorbs only the remainder of rounding and ranges.

    Parameters
    ----------
    total, gap, step : float, mm; with a step, shares are rounded down to it
    rest_goes : who gets the remainder of the step where no rest member stands
    takers : numbers of the members that get the remainder of the step instead, whatever their rule, equally

    Returns
    -------
    Shares; sizes and left and gaps always sum to the total, or `short` says by how much they cannot
    """
    if not members:
        return Shares((), left=total)
    room = total - gap * (len(members) - 1)
    sizes = [m.size if m.rule is Rule.FIXED else 0.0 for m in members]
    loose = [i for i, m in enumerate(members) if m.rule is not Rule.FIXED]
    room -= math.fsum(sizes)
    if not loose:
        return Shares(tuple(sizes), left=max(0.0, room), short=max(0.0, -room))
    least = math.fsum(members[i].least for i in loose)
    if room < least - TOLERANCE:
        for i in loose:
            sizes[i] = members[i].least
        return Shares(tuple(sizes), short=least - room)
    _clamp_and_share(sizes, members, loose, room)
    rounded = 0.0
    if step > 0:
        rounded = _round_down(sizes, members, loose, room, step, rest_goes, takers)
    if takers:
        room = total - gap * (len(members) - 1) - math.fsum(s for i, s in enumerate(sizes) if i not in loose)
    left = room - math.fsum(sizes[i] for i in loose)
    if abs(left) < TOLERANCE:
        # Put the float dust on the last loose member so that the sum is exact.
        sizes[loose[-1]] += left
        left = 0.0
    return Shares(tuple(sizes), left=left, rounded=rounded)


def _clamp_and_share(sizes: list[float], members: Sequence[Member], loose: list[int], room: float) -> None:
    open_ones = list(loose)
    while open_ones:
        free = room - math.fsum(sizes[i] for i in loose if i not in open_ones)
        weight = math.fsum(members[i].weight for i in open_ones)
        trial = {i: free * members[i].weight / weight for i in open_ones}
        low = [i for i in open_ones if trial[i] < members[i].least - 1e-9]
        high = [i for i in open_ones if trial[i] > members[i].most + 1e-9]
        if not low and not high:
            for i in open_ones:
                sizes[i] = trial[i]
            return
        # Fix the side whose violation is larger in sum: the usual rule that keeps the outcome feasible.
        under = math.fsum(members[i].least - trial[i] for i in low)
        over = math.fsum(trial[i] - members[i].most for i in high)
        for i in low if under >= over else high:
            sizes[i] = members[i].least if under >= over else members[i].most
            open_ones.remove(i)


def _round_down(
    sizes: list[float],
    members: Sequence[Member],
    loose: list[int],
    room: float,
    step: float,
    goes: RestGoes,
    named: Sequence[int],
) -> float:
    rests = [i for i in loose if members[i].rule is Rule.REST]
    for i in loose:
        if i not in rests:
            sizes[i] = math.floor(sizes[i] / step + 1e-9) * step
    spare = room - math.fsum(sizes[i] for i in loose)
    if abs(spare) < TOLERANCE:
        return 0.0
    takers: Sequence[int]
    if named:
        takers = named
    elif rests:
        takers = rests
    elif goes is RestGoes.ENDS:
        takers = [loose[0], loose[-1]]
    elif goes is RestGoes.EVENLY:
        takers = loose
    else:
        takers = [loose[-1]]
    for i in takers:
        sizes[i] += spare / len(takers)
    return spare
