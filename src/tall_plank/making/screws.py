"""Wood screws by what they go through: the shortest that bites, and none that comes out on the other side."""

from __future__ import annotations

from typing import NamedTuple

from tall_plank.making.builder import Builder
from tall_plank.stock import Stock

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


SUNK = 3.0
"""mm that a screw's head may be sunk into what it holds, at most (common practice)."""


class Screw(NamedTuple):
    """A screw for a joint.

    Attributes
    ----------
    bite : mm that it goes into what holds it
    sunk : mm that its head lies below the surface
    """

    code: str
    bite: float
    sunk: float


def screw_for(stock: Stock, through: float, into: float) -> Screw | None:
    """The shortest wood screw that holds one thing to another, its head flush or sunk a little; None where the stock
    has none.

    Parameters
    ----------
    through : mm that it goes through
    into : mm of what holds it
    """
    found = []
    for f in stock.fittings_of("screw"):
        if not 0.0 < f.gauge <= THIN:
            continue
        sunk = max(0.0, through + BITE - f.length)
        bite = f.length - through + sunk
        if sunk <= SUNK + 1e-6 and bite <= into - POINT + 1e-6:
            found.append((sunk > 1e-6, f.length, f.code, Screw(f.code, bite, sunk)))
    return min(found)[3] if found else None


def needed_screw(b: Builder, through: float, into: float, what: str) -> Screw | None:
    """The screw for a joint; where the stock has none, that is told. `through`, `into`: mm."""
    screw = screw_for(b.stock, through, into)
    if screw is None:
        least, most = through + BITE - SUNK, through + into - POINT
        b.problem(f"The stock has no wood screw for {what}: {least:g} mm to {most:g} mm long.", "Add one to the stock.")
    return screw


def sunk_words(screw: Screw) -> str:
    """What is said of a screw whose head is sunk."""
    return f", heads sunk {screw.sunk:g} mm" if screw.sunk > 1e-6 else ""
