"""Paths of lines and arcs cut by a line, and run along at a distance: exactly, arcs stay arcs. All in mm."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

from tall_plank.measure.errors import PlankError
from tall_plank.measure.outlines import Point
from tall_plank.measure.paths import NEAR, Path, Side, area, carriers_meet, crossing, distance, inside, joined, sides_of


def cut(path: Path, a: Point, b: Point) -> list[Path]:
    """What of a simple path that runs counter-clockwise lies at the left of the line from a to b, exactly.

    Raises
    ------
    PlankError where a and b are one point
    """
    size = math.dist(a, b)
    if size < NEAR:
        raise PlankError("A line needs two points.", "line", "Give two points that lie apart.")
    ux, uy = (b[0] - a[0]) / size, (b[1] - a[1]) / size

    def away(p: Point) -> float:
        return ux * (p[1] - a[1]) - uy * (p[0] - a[0])

    def along(p: Point) -> float:
        return ux * (p[0] - a[0]) + uy * (p[1] - a[1])

    pieces: list[tuple[Side, bool]] = []
    for side in sides_of(path):
        marks = {0.0, 1.0}
        for p in carriers_meet(side, Side(a, b, 0.0)):
            share = side.share_of(p)
            if 1e-9 < share < 1.0 - 1e-9:
                marks.add(share)
        for low, high in pairwise(sorted(marks)):
            piece = side.part(low, high)
            if piece.chord > NEAR or abs(piece.bulge) > 1.0:
                pieces.append((piece, away(piece.at(0.5)) > NEAR))
    if all(kept for _, kept in pieces):
        return [path]
    chains = _chains(pieces)
    if not chains:
        return []
    # Along the line what is inside lies between every odd end and the next: each chain's end goes on to the next chain.
    starts = sorted(range(len(chains)), key=lambda i: along(chains[i][0].a))
    ends = {i: along(chain[-1].b) for i, chain in enumerate(chains)}
    left = set(starts)
    found: list[Path] = []
    while left:
        first = next(i for i in starts if i in left)
        sides: list[Side] = []
        at = first
        while True:
            left.discard(at)
            sides += chains[at]
            # The path runs counter-clockwise, so inside lies ahead along the line where a chain ends.
            after = [i for i in starts if along(chains[i][0].a) >= ends[at] - NEAR and (i in left or i == first)]
            following = after[0] if after else first
            sides.append(Side(sides[-1].b, chains[following][0].a, 0.0))
            if following == first:
                break
            at = following
        found.append(joined(sides))
    return [p for p in found if abs(area(p)) > NEAR]


def _chains(pieces: Sequence[tuple[Side, bool]]) -> list[list[Side]]:
    """Runs of pieces that are kept, each in one; the path is closed."""
    n = len(pieces)
    start = next(i for i in range(n) if not pieces[i][1])
    chains: list[list[Side]] = []
    open_one: list[Side] | None = None
    for k in range(1, n + 1):
        side, kept = pieces[(start + k) % n]
        if kept and open_one is None:
            open_one = []
            chains.append(open_one)
        if kept and open_one is not None:
            open_one.append(side)
        else:
            open_one = None
    return chains


# --- parallel borders


def border(path: Path, away: float) -> Path:
    """The path that runs at a distance from another, with mitred corners; sides that find no room vanish.

    Parameters
    ----------
    path : simple, counter-clockwise
    away : mm; above 0 inwards, below 0 outwards

    Raises
    ------
    PlankError where nothing is left, or an arc has no radius left
    """
    sides = [s for s in sides_of(path) if s.chord > NEAR]
    while len(sides) >= 2:
        moved = [_beside(s, away) for s in sides]
        if None in moved:
            gone = next(i for i, s in enumerate(moved) if s is None)
            if not _may_vanish(sides, gone):
                r = sides[gone].radius
                raise PlankError(
                    f"A border of {abs(away):g} mm does not fit: the least radius is {r:.1f} mm.", "border",
                    f"Give less than {r:.1f} mm.",
                )  # fmt: skip
            del sides[gone]
            continue
        corners = [_corner(moved[i - 1], moved[i], sides[i].a) for i in range(len(sides))]  # type: ignore[arg-type]
        made: list[Side] = []
        worst: tuple[float, int] | None = None
        for i, side in enumerate(moved):
            a, b = corners[i], corners[(i + 1) % len(sides)]
            assert side is not None
            if a is None or b is None:
                worst = (-math.inf, i)
                break
            new, runs_back = _between(side, a, b)
            made.append(new)
            if runs_back > NEAR and (worst is None or runs_back > worst[0]):
                worst = (runs_back, i)
        if worst is None:
            found = joined(made)
            if len(found) >= 2 and area(found) * area(path) > 0 and _keeps_off(found, path, away):
                return found
            break
        del sides[worst[1]]
    raise PlankError(f"A border of {abs(away):g} mm finds no room.", "border", "Give a smaller distance.")


def _keeps_off(found: Path, path: Path, away: float) -> bool:
    """Whether a border is simple, on its side of the path, and nowhere nearer to it than it should be."""
    if crossing(found) is not None:
        return False
    for side in sides_of(found):
        for share in (0.02, 0.25, 0.5, 0.75, 0.98):
            x, y = side.at(share)
            if distance(path, x, y) < abs(away) - 1e-6 or inside(path, x, y) != (away > 0):
                return False
    return True


def _beside(side: Side, away: float) -> Side | None:
    """A side moved to its left, None for an arc that has no radius left."""
    (dx, dy), (ex, ey) = side.way(0.0), side.way(1.0)
    if side.bulge and side.radius - away * math.copysign(1.0, side.bulge) < NEAR:
        return None
    a = (side.a[0] - dy * away, side.a[1] + dx * away)
    b = (side.b[0] - ey * away, side.b[1] + ex * away)
    return Side(a, b, side.bulge)


def _may_vanish(sides: Sequence[Side], i: int) -> bool:
    """Whether a bend between two lines may go: they meet without it."""
    return (
        len(sides) > 2 and not sides[i - 1].bulge and not sides[(i + 1) % len(sides)].bulge and abs(sides[i].turn) < 3.0
    )


def _corner(before: Side, after: Side, near: Point) -> Point | None:
    """Where two sides that were moved meet, next to where they met before."""
    if math.dist(before.b, after.a) < 1e-6:
        return after.a
    found = carriers_meet(before, after)
    return min(found, key=lambda p: math.dist(p, near)) if found else None


def _between(side: Side, a: Point, b: Point) -> tuple[Side, float]:
    """A side drawn out or cut to new ends, and by how many mm it then runs backwards."""
    low, high = side.share_of(a), side.share_of(b)
    if not side.bulge:
        return Side(a, b, 0.0), (low - high) * side.length
    bulge = math.tan(side.turn * (high - low) / 4.0)
    return Side(a, b, bulge), (low - high) * side.length
