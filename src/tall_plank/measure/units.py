"""How a length is shown: five displays of the same float mm."""

from __future__ import annotations

import math
import re
from collections.abc import Sequence
from enum import StrEnum
from fractions import Fraction

TOLERANCE = 0.001
"""mm; two lengths closer than this are the same length."""

MM = 1.0
CM = 10.0
M = 1000.0
INCH = 25.4  # exact by the international yard and pound agreement (1959)
FOOT = 12 * INCH

FACTORS = {
    "mm": MM,
    "cm": CM,
    "m": M,
    "in": INCH,
    '"': INCH,
    "″": INCH,
    "inch": INCH,
    "inches": INCH,
    "ft": FOOT,
    "'": FOOT,
    "′": FOOT,
    "feet": FOOT,
    "foot": FOOT,
}
"""mm in one of each unit that can be typed."""


class DisplayUnit(StrEnum):
    """What a job shows lengths in; a bare typed number means this unit (feet-inches: inches)."""

    MM = "mm"
    CM = "cm"
    INCH = "in"
    FRACTION_16 = "in/16"
    FRACTION_32 = "in/32"
    FEET = "ft-in"

    @property
    def factor(self) -> float:
        """mm in one bare typed number."""
        return {DisplayUnit.MM: MM, DisplayUnit.CM: CM}.get(self, INCH)

    @property
    def exact(self) -> DisplayUnit:
        """What places are told in that something is drilled or cut by: inches with decimals, where fractions would
        round them."""
        return self if self.factor != INCH else DisplayUnit.INCH

    @property
    def head(self) -> str:
        """The unit as it stands in the head of a column."""
        return {DisplayUnit.MM: "mm", DisplayUnit.CM: "cm"}.get(self, "in")


def same_length(a: float, b: float) -> bool:
    """Whether two lengths in mm are the same to a thousandth of a millimetre."""
    return abs(a - b) < TOLERANCE


def trimmed(value: float, places: int) -> str:
    """A number with at most `places` decimals, without trailing zeros and without a negative zero."""
    text = f"{value:.{places}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def _fraction_text(inches: float, denominator: int) -> str:
    """Inches to the nearest 1/denominator, as `23 5/8`; a leading ~ says that it was rounded."""
    steps = round(inches * denominator)
    exact = abs(steps / denominator - inches) * INCH < TOLERANCE * 2
    if not steps and not exact:
        return trimmed(inches, 4)  # a play or gap below the smallest fraction
    sign = "-" if steps < 0 else ""
    whole, rest = divmod(abs(steps), denominator)
    part = Fraction(rest, denominator)
    words = [str(whole)] if whole or not rest else []
    if rest:
        words.append(f"{part.numerator}/{part.denominator}")
    return ("" if exact else "~") + sign + " ".join(words)


def format_length(mm: float, unit: DisplayUnit = DisplayUnit.MM, *, mark: bool = False) -> str:
    """A length for people. Rounding to a fraction is shown by a leading ``~``, never silent (M3).

    Parameters
    ----------
    mm : float, mm
    unit : what the job displays
    mark : adds the unit, where no column head says it

    Millimetres show at most two decimals (``~`` where more would be needed), decimal inches four.
    """
    if not math.isfinite(mm):
        return "?"
    match unit:
        case DisplayUnit.MM:
            text = ("" if abs(round(mm, 2) - mm) < TOLERANCE else "~") + trimmed(mm, 2)
        case DisplayUnit.CM:
            text = ("" if abs(round(mm, 2) - mm) < TOLERANCE else "~") + trimmed(mm / CM, 3)
        case DisplayUnit.INCH:
            text = ("" if abs(round(mm / INCH, 4) * INCH - mm) < TOLERANCE else "~") + trimmed(mm / INCH, 4)
        case DisplayUnit.FRACTION_16 | DisplayUnit.FRACTION_32:
            text = _fraction_text(mm / INCH, int(unit.value.split("/")[1]))
        case DisplayUnit.FEET:
            return _feet_text(mm)
    if not mark:
        return text
    return f'{text}"' if unit.factor == INCH else f"{text} {unit.head}"


def shown_step(unit: DisplayUnit) -> float:
    """The smallest step in which lengths are shown, mm."""
    match unit:
        case DisplayUnit.MM | DisplayUnit.CM:
            return 0.01
        case DisplayUnit.INCH:
            return INCH / 10_000
        case DisplayUnit.FRACTION_32:
            return INCH / 32
        case _:
            return INCH / 16


def format_chain(lengths: Sequence[float], unit: DisplayUnit = DisplayUnit.MM) -> list[str]:
    """Texts of lengths that follow one another (mm), so that what is printed adds up to what is printed for the whole.

    Each is rounded to the steps in which lengths are shown; the steps that the whole has beyond the sum of what is
    rounded down go to those with the largest remainder (Hamilton's method of apportionment). ``~`` marks every figure
    that is not exact. A play below half a step keeps its own decimals.
    """
    step = shown_step(unit)
    total = round(sum(lengths) / step)
    exact = [length / step for length in lengths]
    # What is whole but for the noise of floats stays as it is.
    floors = [round(e) if abs(e - round(e)) * step < TOLERANCE else math.floor(e) for e in exact]
    rests = [e - f for e, f in zip(exact, floors, strict=True)]
    order = sorted(range(len(lengths)), key=lambda i: (-rests[i], i))
    for i in order[: max(0, total - sum(floors))]:
        floors[i] += 1
    texts = []
    for length, steps in zip(lengths, floors, strict=True):
        if not steps and length > TOLERANCE:
            texts.append(trimmed(length / unit.factor, 4))
            continue
        text = format_length(steps * step, unit).lstrip("~")
        texts.append(text if abs(steps * step - length) < 2 * TOLERANCE else f"~{text}")
    return texts


def told(mm: float) -> str:
    """A length in a message, mm: to a tenth, with ``~`` where that rounds it."""
    return ("" if abs(round(mm, 1) - mm) < TOLERANCE else "~") + trimmed(mm, 1)


POUND, SQUARE_FOOT = 0.45359237, 0.3048**2
"""kg in a pound and m² in a square foot; exact by the international yard and pound agreement (1959)."""

WITH_INCHES = {
    "kg": ("lb", 1 / POUND), "m²": ("sq ft", 1 / SQUARE_FOOT), "m": ("ft", 1 / 0.3048),
    "kg/m²": ("lb/sq ft", SQUARE_FOOT / POUND),
}  # fmt: skip
"""Units of weights, areas and long lengths, and what a job in inches has in their place."""


def with_lengths(value: float, measure: str, unit: DisplayUnit) -> tuple[float, str]:
    """A weight (kg), an area (m²) or a long length (m) with its unit as it goes with a job's lengths."""
    if unit.factor != INCH or measure not in WITH_INCHES:
        return value, measure
    word, factor = WITH_INCHES[measure]
    return value * factor, word


def format_measure(value: float, measure: str, unit: DisplayUnit, places: int = 1) -> str:
    """A weight, an area or a long length for people: `12.3 kg`, or `27.1 lb` in a job in inches."""
    found, word = with_lengths(value, measure, unit)
    return f"{found:.{places}f} {word}"


_MEASURED = re.compile(r"(?<![\w.])(\d+(?:\.\d+)?) (kg/m²|kg|m²)(?!\w)")

_TOLD = re.compile(r"(?<![\w.])~?\d+(?:\.\d+)?(?: x ~?\d+(?:\.\d+)?)* mm\b")


def _about(number: str, unit: DisplayUnit) -> str:
    """A length of a message, mm, in another unit; what was rounded stays marked so."""
    text = format_length(float(number.lstrip("~")), unit, mark=True)
    return f"~{text}" if number.startswith("~") and not text.startswith("~") else text


def told_in(text: str, unit: DisplayUnit) -> str:
    """A text in which lengths are written in millimetres (`18 mm`, `15 x 480 x 18 mm`), weights in kg and areas in m²,
    with them as a job has them."""
    if unit is DisplayUnit.MM:
        return text

    def shown(found: re.Match[str]) -> str:
        numbers = found[0].removesuffix(" mm").split(" x ")
        return " x ".join(_about(n, unit) for n in numbers)

    def measured(found: re.Match[str]) -> str:
        return format_measure(float(found[1]), found[2], unit)

    return _MEASURED.sub(measured, _TOLD.sub(shown, text))


def _feet_text(mm: float) -> str:
    sixteenths = round(abs(mm) / INCH * 16)
    feet, rest = divmod(sixteenths, 12 * 16)
    exact = abs(sixteenths * INCH / 16 - abs(mm)) < TOLERANCE * 2
    lead = ("" if exact else "~") + ("-" if mm < 0 and sixteenths else "")
    inches = _fraction_text(rest / 16, 16)
    if not feet:
        return f'{lead}{inches}"'
    return f"{lead}{feet}'" + (f' {inches}"' if rest else "")
