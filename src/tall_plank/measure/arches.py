"""Arcs by chord and rise or radius, heads of arches, ellipses by arcs that touch in one tangent. All in mm."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Literal

from tall_plank.measure.errors import PlankError
from tall_plank.measure.outlines import Point
from tall_plank.measure.paths import NEAR, Corner, Path, Side, joined, sides_of

Arch = Literal["round", "segmental", "elliptical", "pointed"]

WITHIN = 0.01
"""mm; tangent arcs run within this of an ellipse."""


def bulge_of_rise(chord: float, rise: float) -> float:
    """The bulge of an arc over a chord (a circle's segment: geometry). `chord`, `rise`: mm.

    Raises
    ------
    PlankError without a chord
    """
    if chord < NEAR:
        raise PlankError("An arc needs a width.", "width", "Give a width.")
    return 2.0 * rise / chord


def rise_of_radius(chord: float, radius: float) -> float:
    """The rise of the flatter arc of a radius over a chord (geometry). `chord`, `radius`: mm.

    Raises
    ------
    PlankError for a radius less than half the chord
    """
    if radius < chord / 2 - NEAR:
        raise PlankError(
            f"A radius of {radius:g} mm does not span {chord:g} mm.", "radius", f"Give {chord / 2:g} mm or more."
        )
    return radius - math.sqrt(max(0.0, radius**2 - chord**2 / 4))


def arch_rise(kind: Arch, width: float, rise: float) -> float:
    """The rise of an arch over a width: half of it for a round one whatever is asked; else what is asked for.

    Raises
    ------
    PlankError for a rise that such an arch cannot have
    """
    half = width / 2
    if kind == "round":
        return half
    if rise <= 0.0:
        raise PlankError("An arch needs a rise above 0.", "rise", f"Give up to {half:g} mm.")
    if kind == "segmental" and rise > half + NEAR:
        raise PlankError(
            f"A rise of {rise:g} mm is above half the span of {width:g} mm.", "rise",
            f"Give up to {half:g} mm, or take a pointed arch.",
        )  # fmt: skip
    if kind == "pointed" and rise <= half + NEAR:
        raise PlankError(
            f"A pointed arch over {width:g} mm rises by more than {half:g} mm.", "rise",
            f"Give more than {half:g} mm, or take a segmental arch.",
        )  # fmt: skip
    return rise


def arch(kind: Arch, x0: float, x1: float, spring: float, rise: float = 0.0) -> list[Corner]:
    """The head of an arch from its right end to its left, without its left end: corners that follow the right side
    of an outline that runs counter-clockwise.

    Parameters
    ----------
    x0, x1, spring, rise : mm; `spring`: the height at which it begins

    Raises
    ------
    PlankError for a rise that such an arch cannot have
    """
    width = x1 - x0
    rise = arch_rise(kind, width, rise)
    middle = (x0 + x1) / 2
    match kind:
        case "round" | "segmental":
            return [(x1, spring, bulge_of_rise(width, rise))]
        case "pointed":
            radius = (rise**2 + (width / 2) ** 2) / width
            # Each half turns from upright to the tangent at the point.
            turn = math.atan2(rise, radius - width / 2)
            if radius < width / 2:
                turn = math.pi - math.atan2(rise, width / 2 - radius)
            bulge = math.tan(turn / 4)
            return [(x1, spring, bulge), (middle, spring + rise, bulge)]
        case _:
            quarter = _quarter_ellipse(width / 2, rise)
            right = [(middle + x, spring + y, b) for x, y, b in quarter[:-1]]
            sides = [Side((p[0], p[1]), (q[0], q[1]), p[2]) for p, q in pairwise(quarter)]
            left = [(middle - s.b[0], spring + s.b[1], s.bulge) for s in sides[::-1]]
            return [*right, *left]


def arched(kind: Arch, x0: float, y0: float, x1: float, top: float, rise: float = 0.0) -> Path:
    """An upright outline with an arched head: its highest point lies at `top`.

    Raises
    ------
    PlankError for an arch that is higher than the outline, or a rise that it cannot have
    """
    high = arch_rise(kind, x1 - x0, rise)
    if high > top - y0 + NEAR:
        raise PlankError(
            f"The arch rises by {high:g} mm, its panel by {top - y0:g} mm.", "rise", f"Give up to {top - y0:g} mm."
        )
    found: list[Corner] = [(x0, y0, 0.0), (x1, y0, 0.0), *arch(kind, x0, x1, top - high, rise)]
    found.append((x0, top - high, 0.0))
    return joined(list(sides_of(tuple(found))))


def ellipse(a: float, b: float) -> Path:
    """An ellipse about 0, 0 by tangent arcs within 0.01 mm. `a`, `b`: half its width and height, mm."""
    quarter = _quarter_ellipse(a, b)
    sides = [Side((p[0], p[1]), (q[0], q[1]), p[2]) for p, q in pairwise(quarter)]
    upper = [*sides, *(Side((-s.b[0], s.b[1]), (-s.a[0], s.a[1]), s.bulge) for s in sides[::-1])]
    lower = [Side((-s.a[0], -s.a[1]), (-s.b[0], -s.b[1]), s.bulge) for s in upper]
    return joined([*upper, *lower])


def _quarter_ellipse(a: float, b: float) -> list[Corner]:
    """From (a, 0) to (0, b): pairs of arcs that touch in one tangent (biarcs), halved until they run near enough."""
    if abs(a - b) < NEAR:
        return [(a, 0.0, math.tan(math.pi / 8)), (0.0, b, 0.0)]
    corners: list[Corner] = []
    left = [(0.0, math.pi / 2)]
    while left:
        s, t = left.pop()
        pair = _biarc(_on_ellipse(s, a, b), _tangent(s, a, b), _on_ellipse(t, a, b), _tangent(t, a, b))
        ends = (*pair, (*_on_ellipse(t, a, b), 0.0))
        off = max(_off_ellipse(Side(p[:2], q[:2], p[2]), a, b) for p, q in pairwise(ends))
        if off < 0.9 * WITHIN or t - s < 1e-4:
            corners += pair
        else:
            left += [((s + t) / 2, t), (s, (s + t) / 2)]
    corners.append((0.0, b, 0.0))
    return corners


def _on_ellipse(t: float, a: float, b: float) -> Point:
    return (a * math.cos(t), b * math.sin(t))


def _tangent(t: float, a: float, b: float) -> Point:
    x, y = -a * math.sin(t), b * math.cos(t)
    size = math.hypot(x, y)
    return (x / size, y / size)


def _off_ellipse(side: Side, a: float, b: float) -> float:
    """mm by which a side leaves the ellipse at the most, looked at in 8 places."""
    worst = 0.0
    for i in range(1, 9):
        x, y = side.at(i / 9)
        # One step along the gradient: exact to second order, and the distance is far below the size.
        value = (x / a) ** 2 + (y / b) ** 2 - 1.0
        slope = 2.0 * math.hypot(x / a**2, y / b**2)
        worst = max(worst, abs(value) / slope)
    return worst


def _biarc(p: Point, t: Point, q: Point, u: Point) -> list[Corner]:
    """Two arcs from p along t to q along u with one tangent where they meet (equal shares; geometry): their corners."""
    v = (q[0] - p[0], q[1] - p[1])
    s = (t[0] + u[0], t[1] + u[1])
    vs, vv = v[0] * s[0] + v[1] * s[1], v[0] ** 2 + v[1] ** 2
    k = 2.0 * (1.0 - (t[0] * u[0] + t[1] * u[1]))
    d = vv / (2.0 * vs) if abs(k) < 1e-12 else (-vs + math.sqrt(vs**2 + k * vv)) / k
    m = ((p[0] + q[0] + d * (t[0] - u[0])) / 2, (p[1] + q[1] + d * (t[1] - u[1])) / 2)
    return [(*p, _bulge_along(p, t, m)), (*m, -_bulge_along(q, (-u[0], -u[1]), m))]


def _bulge_along(p: Point, t: Point, q: Point) -> float:
    """The bulge of the arc that leaves p along t and comes to q."""
    dx, dy = q[0] - p[0], q[1] - p[1]
    half = math.atan2(t[0] * dy - t[1] * dx, t[0] * dx + t[1] * dy)
    return math.tan(half / 2)
