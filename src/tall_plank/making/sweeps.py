"""What a front or a drawer passes on its way open, as flat shapes: seen from above where it turns about an upright
axis or slides, from the side where it turns about a level one.

Coordinates of a shape: s along the front from its hinged edge (from its left side where it slides), q out of the face
from the front's back, mm. A front turns about the outer arris of its hinged edge (common practice: hinges of all makers
keep a front that stands square within its own width).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
import shapely
from numpy.typing import NDArray

from tall_plank.measure.outlines import Points
from tall_plank.measure.remembered import remembered

STEP = 5.0
"""Degrees from one place of a turning front to the next; between them it takes the hull of both."""

TOUCH = 0.5
"""mm; what is met by less is only touched."""


class Sweep(NamedTuple):
    """A way open in pieces, in the order in which they are passed.

    Attributes
    ----------
    shapes : the area of each piece
    at : how far open it is where a piece begins: degrees, or mm
    handle : whether it is the handle that passes there
    whole : how far it opens
    slides : whether it slides, so that how far it comes is seen within a piece
    """

    shapes: NDArray[np.object_]
    at: NDArray[np.float64]
    handle: NDArray[np.bool_]
    whole: float
    slides: bool = False


class Meeting(NamedTuple):
    """The first thing that is met.

    Attributes
    ----------
    at : how far it comes open before it does: degrees, or mm
    which : place of what is met in the list
    handle : whether its handle meets it first
    """

    at: float
    which: int
    handle: bool


Grip = tuple[float, float, float]
"""A handle on a front: from and to along s, and how far it stands out, mm."""


@remembered(512)
def turned(length: float, thick: float, grip: Grip | None, degrees: float = 90.0) -> Sweep:
    """A front that turns about its hinged edge. `length`, `thick`: mm."""
    count = round(degrees / STEP)
    angles = np.radians(np.linspace(0.0, degrees, count + 1))
    cos, sin = np.cos(angles), np.sin(angles)

    def hulls(low: float, high: float, near: float, far: float) -> NDArray[np.object_]:
        s = np.array([low, high, high, low])
        q = np.array([near, near, far, far]) - thick
        turned_s = np.outer(cos, s) - np.outer(sin, q)
        turned_q = np.outer(sin, s) + np.outer(cos, q) + thick
        places = np.stack([turned_s, turned_q], axis=2)
        pairs = np.concatenate([places[:-1], places[1:]], axis=1)
        found: NDArray[np.object_] = shapely.convex_hull(shapely.multipoints(pairs))
        return found

    shapes = [hulls(0.0, length, 0.0, thick)]
    if grip is not None:
        shapes.append(hulls(grip[0], grip[1], thick, thick + grip[2]))
    at = np.arange(count) * (degrees / count)
    handle = np.repeat([False, True][: len(shapes)], count)
    return Sweep(np.concatenate(shapes), np.tile(at, len(shapes)), handle, degrees)


@remembered(512)
def pulled(length: float, thick: float, grip: Grip | None, reach: float) -> Sweep:
    """A front or a drawer that slides straight out. `length`, `thick`, `reach`: mm."""
    shapes = [shapely.box(0.0, thick, length, thick + reach)]
    if grip is not None:
        shapes.append(shapely.box(grip[0], thick + grip[2], grip[1], thick + grip[2] + reach))
    count = len(shapes)
    return Sweep(np.array(shapes), np.zeros(count), np.array([False, True][:count]), reach, slides=True)


def first_met(sweep: Sweep, things: Sequence[Points]) -> Meeting | None:
    """What is met first on the way; None where it is free.

    Parameters
    ----------
    things : outlines of what stands there, in the sweep's own coordinates
    """
    if not things:
        return None
    rings = [shapely.linearrings(points) for points in things]
    solid = shapely.buffer(shapely.polygons(rings), -TOUCH, join_style="mitre")
    found: list[Meeting] = []
    for piece, which in np.argwhere(shapely.intersects(sweep.shapes[:, None], solid[None, :])):
        at, shape = float(sweep.at[piece]), sweep.shapes[piece]
        if sweep.slides:
            at += shapely.bounds(shapely.intersection(shape, solid[which]))[1] - shapely.bounds(shape)[1]
        found.append(Meeting(float(at), int(which), bool(sweep.handle[piece])))
    return min(found, default=None)


def seen_from_the_side(outline: Points, low: float, high: float, bottom: float, top: float) -> Points:
    """What of an upright thing lies before a front that turns about a level axis: the rectangle from its bottom to its
    top, and out of the face as far as it reaches within the front's width; nothing where it stands beside. All mm.

    Parameters
    ----------
    outline : (u, out) of its corners
    low, high : the front's left and right side along u
    """
    part = shapely.intersection(shapely.Polygon(outline), shapely.box(low + TOUCH, -1e5, high - TOUCH, 1e5))
    if part.is_empty:
        return ()
    _, near, _, far = part.bounds
    return ((bottom, near), (top, near), (top, far), (bottom, far))


def furthest(length: float, thick: float, grip: Grip | None) -> float:
    """How far out of the front's back the way of a turning front reaches, mm."""
    return thick + math.hypot(length, grip[2] if grip is not None else 0.0)
