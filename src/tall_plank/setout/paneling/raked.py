"""Bands of a wall that rise along a stair: their lines, and where all of a band is free.

Heights in a band are measured plumb from its lower line, so that what is divided there is divided as in a level one;
only a rail, whose width is square to the rake, is higher plumb: its width divided by the cosine of the angle.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import msgspec
from shapely import union_all
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from tall_plank.measure.outlines import Points
from tall_plank.measure.paths import Path, chords, path_of
from tall_plank.measure.regions import Region
from tall_plank.setout.paneling.marks import Box

NEAR = 0.05
"""mm of a strip that may be missing and it still counts as covered."""

HAIR = 0.01
"""mm by which what is covered is widened."""

Span = tuple[float, float]


class RakeLine(msgspec.Struct, frozen=True, cache_hash=True):
    """A line that rises to the right: its height at a place, and what it rises by for each mm along.

    Attributes
    ----------
    x, z : a point of it on the wall, mm
    slope : above 0 it rises to the right
    """

    x: float
    z: float
    slope: float

    def at(self, x: float) -> float:
        """Its height above the floor at a place along the wall, mm."""
        return self.z + self.slope * (x - self.x)

    def raised(self, by: float) -> RakeLine:
        """The line as much higher, plumb, mm."""
        return RakeLine(self.x, self.z + by, self.slope)

    def band(self, x0: float, x1: float, low: float, high: float) -> Path:
        """What lies between two heights above it, mm plumb, from x0 to x1."""
        return path_of(self.quad((x0, low, x1, high)))

    def quad(self, box: Box) -> Points:
        """Corners of a box whose heights are measured plumb from the line, counter-clockwise from its lower left."""
        x0, low, x1, high = box
        a, b = self.at(x0), self.at(x1)
        return ((x0, a + low), (x1, b + low), (x1, b + high), (x0, a + high))


def rake_line(box: Box, degrees: float, start: float) -> RakeLine:
    """The lower line of a band in a zone's box. `start`: mm above the box's foot where the line is lower."""
    x0, z0, x1, _ = box
    return RakeLine(x0 if degrees >= 0 else x1, z0 + start, math.tan(math.radians(degrees)))


def joined(regions: Sequence[Region]) -> BaseGeometry:
    """What regions cover together, a hair wider, so that those that touch cover what lies across both."""
    here = [Polygon(chords(r.outer), [chords(h) for h in r.holes]) for r in regions]
    return union_all(here).buffer(HAIR, join_style="mitre") if here else Polygon()


def covered_spans(there: BaseGeometry, strip: Points) -> list[Span]:
    """Where along the wall all of a strip is covered, mm; what is narrower than `NEAR` is left out.

    Parameters
    ----------
    there : what is covered, of `joined`
    strip : its corners; its two ends are upright
    """
    x0, x1 = min(x for x, _ in strip), max(x for x, _ in strip)
    missing = Polygon(strip).difference(there)
    spans = [(x0, x1)]
    for part in getattr(missing, "geoms", [missing]):
        if part.is_empty or part.area < NEAR * NEAR:
            continue
        a, _, b, _ = part.bounds
        if b - a < NEAR and part.area < NEAR:
            continue
        # What was widened is taken back, so that spans end where the regions do.
        a, b = a - HAIR if a > x0 + HAIR else a, b + HAIR if b < x1 - HAIR else b
        spans = [(s, e) for p, q in spans for s, e in ((p, min(q, a)), (max(p, b), q)) if e - s > NEAR]
    return spans
