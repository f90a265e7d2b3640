"""Fonts and their metrics, icons: what is shipped and is not code."""

from __future__ import annotations

import json
from pathlib import Path

from tall_plank.measure.remembered import lasting, remembered

FOLDER = Path(__file__).parent
FONTS = FOLDER / "fonts"
ICONS = FOLDER / "icons"
REGULAR = FONTS / "SourceSans3-Regular.ttf"
SEMIBOLD = FONTS / "SourceSans3-Semibold.ttf"
BOLD = FONTS / "SourceSans3-Bold.ttf"
ITALIC = FONTS / "SourceSans3-It.ttf"


@lasting
def _metrics() -> tuple[dict[str, float], float]:
    data = json.loads((FOLDER / "metrics.json").read_text(encoding="utf-8"))
    em = data["units_per_em"]
    return {char: width / em for char, width in data["widths"].items()}, data["cap_height"] / em


def text_width(text: str, height: float) -> float:
    """Width of a text in the regular face. `height`: mm.

    Parameters
    ----------
    height : float; height of capitals, in any unit

    Returns
    -------
    float, in the same unit
    """
    return _wide(text) * height


@remembered(8192)
def _wide(text: str) -> float:
    """Width of a text over the height of its capitals."""
    widths, cap = _metrics()
    return sum(widths.get(char, 0.55) for char in text) / cap


def em_of(cap_height: float) -> float:
    """Font size (em) for a height of capitals. `cap_height`: mm."""
    return cap_height / _metrics()[1]


def cap_of(em: float) -> float:
    """Height of capitals for a font size (em), in the same unit."""
    return em * _metrics()[1]
