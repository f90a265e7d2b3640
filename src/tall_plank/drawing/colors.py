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


def is_light(color: str) -> bool:
    """Whether dark lines read on a color ``#RRGGBB``: a tone of drawings by name is none."""
    if not color.startswith("#"):
        return False
    red, green, blue = (int(color[i : i + 2], 16) for i in (1, 3, 5))
    # Weights of the three for brightness: ITU-R BT.709 (from memory).
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue > 110.0
