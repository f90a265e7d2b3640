"""Colors and grain of finishes on drawings."""

from __future__ import annotations

from tall_plank.stock import Stock


def color_of(stock: Stock, code: str) -> str:
    """The color of a finish; grey where the stock has none of that code."""
    finish = stock.finish(code)
    return finish.color if finish else "#CCCCCC"


def grain_of(stock: Stock, code: str, upright: bool) -> str:
    """The way of the grain on a drawing, x or y; empty for a finish without grain."""
    finish = stock.finish(code)
    if finish is None or finish.grain == "none":
        return ""
    return "y" if upright else "x"
