"""Closed outlines that drawings of several formats hold: what counts as one, and rings of single lines and arcs."""

from __future__ import annotations

import math
from dataclasses import dataclass

from tall_plank.edits.outline import WALL_LETTERS
from tall_plank.measure import outlines as ol
from tall_plank.measure.outlines import Point, Points
from tall_plank.measure.paths import Corner, Path, Side, area, chords, crossing, joined, path_of, sides_of

JOIN = 1.0
"""mm; ends of lines nearer than this meet."""

WALL_CHORDS = (5.0, 10.0, 20.0, 40.0, 80.0)
"""mm by which straight walls may leave an arc of the drawing, the first that gives few enough."""


@dataclass(frozen=True)
class Found:
    """A closed outline of a drawing, mm, with its layer; `scaled` says whether the drawing named its unit."""

    path: Path
    layer: str
    scaled: bool

    @property
    def points(self) -> Points:
        """Its corners, arcs by straight pieces: walls are straight."""
        return chords(self.path, self.within)

    @property
    def within(self) -> float:
        """mm by which straight walls leave its arcs at the most: as little as the number of walls of a room allows."""
        allowed = (mm for mm in WALL_CHORDS if len(chords(self.path, mm)) <= len(WALL_LETTERS))
        return next(allowed, WALL_CHORDS[-1])

    @property
    def arcs(self) -> int:
        """How many of its sides are arcs."""
        return sum(1 for side in sides_of(self.path) if side.bulge)

    @property
    def area(self) -> float:
        return abs(area(self.path))

    def with_length(self, side: int, mm: float) -> Found:
        """The outline scaled so that one of its sides is as long as is known."""
        factor = mm / list(sides_of(self.path))[side].length
        path = tuple((x * factor, y * factor, b) for x, y, b in self.path)
        return Found(path, self.layer, scaled=True)


REACH = 10_000_000.0
"""mm; ten kilometres from the drawing's origin nothing is a room, and NaN is nowhere."""


MOST_SIDES = 200


def add_closed(
    found: list[Found], corners: list[Corner], layer: str, *, closed: bool, scaled: bool, join: float = JOIN
) -> None:
    """Add a row of corners where it closes an outline that does not cross itself. `join`: mm; ends nearer meet."""
    if len(corners) > 2 and math.dist(corners[0][:2], corners[-1][:2]) < join:
        corners, closed = corners[:-1], True
    if not closed or not all(abs(x) <= REACH and abs(y) <= REACH and abs(b) <= 1e6 for x, y, b in corners):
        return
    path = _cleaned(corners)
    if 2 <= len(path) <= MOST_SIDES and abs(area(path)) > 1e-6 and crossing(path) is None:
        found.append(Found(path, layer, scaled))


def _cleaned(corners: list[Corner]) -> Path:
    """Without corners twice in one place and those in the middle of a straight side; begun at a straight side."""
    sides = [s for s in sides_of(tuple(corners)) if s.chord > 1e-6]
    if not any(s.bulge for s in sides):
        return path_of(ol.cleaned([s.a for s in sides]))
    kept: list[Side] = []
    for side in sides:
        if kept and not side.bulge and not kept[-1].bulge and len(ol.cleaned([kept[-1].a, side.a, side.b])) < 3:
            kept[-1] = Side(kept[-1].a, side.b, 0.0)
        else:
            kept.append(side)
    first = next((i for i, s in enumerate(kept) if not s.bulge), 0)
    return joined([*kept[first:], *kept[:first]])


def rings_of(lines: list[Side], join: float = JOIN) -> list[list[Corner]]:
    """Rings that single lines and arcs make, each used once. `join`: mm; ends nearer than this meet."""

    def key(p: Point) -> tuple[int, int]:
        return (round(p[0] / join), round(p[1] / join))

    at: dict[tuple[int, int], list[int]] = {}
    for i, (a, b, _) in enumerate(lines):
        at.setdefault(key(a), []).append(i)
        at.setdefault(key(b), []).append(i)
    used: set[int] = set()
    rings = []
    for i, (a, b, bulge) in enumerate(lines):
        if i in used:
            continue
        ring, here, start = [(*a, bulge)], b, key(a)
        used.add(i)
        while key(here) != start:
            ahead = [k for k in at[key(here)] if k not in used]
            if not ahead:
                ring = []
                break
            used.add(ahead[0])
            side = lines[ahead[0]]
            on = side if key(side.a) == key(here) else side.turned()
            ring.append((*here, on.bulge))
            here = on.b
        if len(ring) >= 2:
            rings.append(ring)
    return rings
