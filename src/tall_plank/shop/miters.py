"""How the saw is set for the mitred ends of moldings, as they lie flat on their back on its table.

A molding that leans from the wall by a spring angle is cut by two angles at once. With the spring angle s from the wall
to its back and the corner C, the table turns by atan(sin s / tan(C / 2)) and the blade leans by
asin(cos s * cos(C / 2)) (the plane of the mitre turned into the frame of the back; common practice). The corner of a
saw angle a from square is C = 180 - 2 a.
"""

from __future__ import annotations

import math

import msgspec


class FlatCut(msgspec.Struct, frozen=True):
    """An end as it is cut with the molding flat on its back.

    Attributes
    ----------
    miter : degrees that the table is turned from square
    bevel : degrees that the blade leans from upright
    long : which edge is the longer: "" where the end is square, else the edge at the wall, or the one that stands out
    """

    miter: float
    bevel: float
    long: str


SQUARE = FlatCut(0.0, 0.0, "")


def flat_cut(angle: float, spring: float) -> FlatCut:
    """The cut of an end.

    Parameters
    ----------
    angle : saw angle of the mitre on the plan, degrees from square: above 0 at an inner corner, below at an outer one
    spring : degrees from the wall to the molding's back; 0: it lies on the wall; 90: it turns in the plane of its back,
        as a casing does
    """
    if abs(angle) < 0.005:
        return SQUARE
    a, s = math.radians(abs(angle)), math.radians(spring)
    miter = math.degrees(math.atan(math.sin(s) * math.tan(a)))
    bevel = math.degrees(math.asin(math.cos(s) * math.sin(a)))
    return FlatCut(round(miter, 4), round(bevel, 4), "wall edge" if angle > 0 and spring < 90.0 else "outer edge")
