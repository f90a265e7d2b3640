"""Wood screws by what they go through: the shortest that bites, and none that comes out on the other side."""

from __future__ import annotations

from tall_plank.making.builder import Builder
from tall_plank.stock import Fitting, Stock

THIN = 4.5
"""mm; a screw of a larger diameter is made for joints of its own."""

BITE = 10.0
"""mm that a wood screw goes into what it holds to, at least (common practice: three times its diameter)."""

POINT = 2.0
"""mm of wood that stay before its point."""

CLEAR, PILOT = 4.0, 2.5
"""mm; holes for a screw of 3.5: in what is screwed on, and in what holds it (common practice)."""

WOOD_SCREW, CLEAR_HOLE, BACK_SCREW = "wood screw", "screw clear", "back screw"
"""Uses of holes: both halves of a screwed joint; a further layer that a screw goes through; a hole in a back."""


def screw_for(stock: Stock, through: float, into: float) -> Fitting | None:
    """The shortest wood screw that holds one thing to another; None where the stock has none.

    Parameters
    ----------
    through : mm that it goes through
    into : mm of what holds it
    """
    fits = (
        f
        for f in stock.fittings_of("screw")
        if 0.0 < f.gauge <= THIN and through + BITE - 1e-6 <= f.length <= through + into - POINT + 1e-6
    )
    return min(fits, key=lambda f: (f.length, f.code), default=None)


def needed_screw(b: Builder, through: float, into: float, what: str) -> Fitting | None:
    """The screw for a joint; where the stock has none, that is told. `through`, `into`: mm."""
    screw = screw_for(b.stock, through, into)
    if screw is None:
        b.problem(
            f"The stock has no wood screw for {what}: {through + BITE:g} to {through + into - POINT:g} mm long.",
            "Add one to the stock.",
        )
    return screw
