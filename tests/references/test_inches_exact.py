"""What a job in inches shows, against exact arithmetic: fractions, decimals, square feet, pounds, feet.

1 in = 25.4 mm, 1 ft = 0.3048 m, 1 lb = 0.45359237 kg exactly (international yard and pound agreement, 1959).
"""

from __future__ import annotations

from decimal import Decimal
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.measure import DisplayUnit, format_length, format_measure, parse_length, told_in
from tall_plank.measure.units import with_lengths
from tall_plank.papers.tables import Column, head_of, text_of

INCH = Fraction(254, 10)
POUND, FOOT = Fraction("0.45359237"), Fraction("0.3048")


def read(text: str) -> Fraction:
    """An inch text such as `~23 5/8"` or `2' 7 1/2"`, exactly."""
    text = text.lstrip("~")
    sign = -1 if text.startswith("-") else 1
    feet, mark, rest = text.lstrip("-").partition("'")
    whole = Fraction(feet) * 12 if mark else Fraction(0)
    words = (rest if mark else feet).replace('"', "").split()
    return sign * (whole + sum((Fraction(word) for word in words), Fraction(0)))


@given(
    st.integers(1, 400_000),
    st.sampled_from([DisplayUnit.FRACTION_16, DisplayUnit.FRACTION_32, DisplayUnit.FEET, DisplayUnit.INCH]),
)
def test_what_is_shown_is_the_nearest_step_and_rounding_is_marked(hundredths: int, unit: DisplayUnit) -> None:
    mm = Fraction(hundredths, 100)
    text = format_length(float(mm), unit)
    step = {
        DisplayUnit.FRACTION_16: Fraction(1, 16), DisplayUnit.FRACTION_32: Fraction(1, 32),
        DisplayUnit.FEET: Fraction(1, 16), DisplayUnit.INCH: Fraction(1, 10_000),
    }[unit]  # fmt: skip
    true = mm / INCH
    if true < step / 2:
        return  # a play below the smallest step is shown in decimals
    shown = read(text)
    assert abs(shown - true) <= step / 2
    # A figure that is not the true one to a thousandth of a millimetre says so; one that is does not.
    off = abs(shown - true) * INCH
    if off > Fraction(21, 10_000):
        assert text.startswith("~"), (text, float(off))
    if off < Fraction(9, 10_000):
        assert not text.startswith("~"), (text, float(off))


@given(st.integers(0, 240), st.integers(0, 31))
def test_fractions_typed_are_exact_and_shown_again(whole: int, part: int) -> None:
    wanted = whole + Fraction(part, 32)
    text = f"{whole} {Fraction(part, 32)}" if part and whole else str(wanted)
    mm = parse_length(text, DisplayUnit.FRACTION_32).mm
    assert mm == pytest.approx(float(wanted * INCH), abs=1e-9)
    if wanted:
        assert read(format_length(mm, DisplayUnit.FRACTION_32)) == wanted


@pytest.mark.parametrize(
    ("value", "measure", "word", "factor"),
    [
        (1.0, "kg", "lb", 1 / POUND),
        (3.25, "m²", "sq ft", 1 / FOOT**2),
        (82.3268, "m", "ft", 1 / FOOT),
        (20.0, "kg/m²", "lb/sq ft", FOOT**2 / POUND),
    ],
)
def test_areas_weights_and_long_lengths(value: float, measure: str, word: str, factor: Fraction) -> None:
    found, unit = with_lengths(value, measure, DisplayUnit.FRACTION_16)
    assert unit == word
    assert found == pytest.approx(float(Fraction(str(value)) * factor), rel=1e-12)
    # A job in millimetres keeps its own.
    assert with_lengths(value, measure, DisplayUnit.MM) == (value, measure)
    exact = Decimal(str(value)) * Decimal(factor.numerator) / Decimal(factor.denominator)
    assert format_measure(value, measure, DisplayUnit.INCH) == f"{exact:.1f} {word}"


def test_columns_and_sentences_follow() -> None:
    area, weight, why = (
        Column("area", "Area", "number", "m²"),
        Column("weight", "Weight", "number", "kg"),
        Column("why", "Why"),
    )
    assert head_of(area, DisplayUnit.FRACTION_16) == "Area sq ft"
    assert text_of(1.0, area, DisplayUnit.FRACTION_16) == "10.76"
    assert text_of(10.0, weight, DisplayUnit.FEET) == "22.05"
    assert text_of(10.0, weight, DisplayUnit.MM) == "10.00"
    told = "door 762 mm high, 12.5 kg"
    assert text_of(told, why, DisplayUnit.FRACTION_16) == 'door 30" high, 27.6 lb'
    assert text_of(told, why, DisplayUnit.CM) == "door 76.2 cm high, 12.5 kg"
    assert told_in("under 20 kg/m², 3 m² of board", DisplayUnit.INCH) == "under 4.1 lb/sq ft, 32.3 sq ft of board"
    # Names of what is bought stay as they are.
    assert text_of("Birch ply 18 mm", Column("name", "Name"), DisplayUnit.INCH) == "Birch ply 18 mm"
