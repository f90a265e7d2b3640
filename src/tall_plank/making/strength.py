"""Strength of boards: how far a shelf sags, and how wide it may be.

Euler-Bernoulli beams (any handbook of the strength of materials; Wood Handbook ch. 9): simply supported, evenly loaded,
sag = 5 w L^4 / (384 E I), I = b h^3 / 12. Creep is left out: what stays after years of load is more.
"""

from __future__ import annotations

GRAVITY = 9.80665
"""m/s2 (CGPM 1901)."""

SHELF_LOAD = 73.2
"""kg/m2: 15 pounds on a square foot (ANSI/KCMA A161.1, shelves and drawers)."""

SAG_LIMIT = 240.0
"""A shelf sags by no more than its span over this (building practice)."""


def second_moment(width: float, thickness: float) -> float:
    """mm4 of a board on the flat; width and thickness in mm."""
    return width * thickness**3 / 12


def line_load(load: float, density: float, width: float, thickness: float) -> float:
    """N/mm along a shelf: its load (kg/m2) and its own weight (density in kg/m3)."""
    return (load + density * thickness / 1000) * (width / 1000) * GRAVITY / 1000


def sag(span: float, load: float, modulus: float, moment: float) -> float:
    """mm in the middle of a simply supported board.

    Parameters
    ----------
    span : mm between its supports
    load : N/mm, evenly along it
    modulus : N/mm2, of elasticity along the span
    moment : mm4, second moment of area
    """
    return 5 * load * span**4 / (384 * modulus * moment)


def longest(load: float, modulus: float, moment: float, limit: float = SAG_LIMIT) -> float:
    """mm of span at which the sag is the span over the limit."""
    return float((384 * modulus * moment / (5 * load * limit)) ** (1 / 3))
