"""Lengths against exact fractions (Python's fractions module) and the international inch.

Source: the inch is 25.4 mm exactly, international yard and pound agreement (1959).
"""

from __future__ import annotations

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.measure import DisplayUnit, parse_length

INCH = Fraction(254, 10)


@given(st.integers(0, 500), st.integers(1, 63), st.sampled_from([2, 4, 8, 16, 32, 64]))
def test_inches_with_any_fraction(whole: int, top: int, below: int) -> None:
    exact = float((whole + Fraction(top, below)) * INCH)
    assert parse_length(f'{whole} {top}/{below}"').mm == pytest.approx(exact, abs=1e-9)


@given(st.integers(0, 60), st.integers(0, 11), st.integers(0, 15))
def test_feet_and_inches(feet: int, inches: int, sixteenths: int) -> None:
    exact = float((feet * 12 + inches + Fraction(sixteenths, 16)) * INCH)
    assert parse_length(f"{feet}' {inches} {sixteenths}/16\"").mm == pytest.approx(exact, abs=1e-9)


NUMBER = st.integers(1, 99).map(str)
SUM = st.recursive(
    NUMBER,
    lambda inner: st.tuples(inner, st.sampled_from(["+", "-", "*"]), inner).map(lambda t: f"({t[0]}{t[1]}{t[2]})"),
    max_leaves=6,
)


@given(SUM)
def test_arithmetic_of_plain_numbers_as_python_counts(text: str) -> None:
    exact = eval(text)  # the text is made of digits, brackets and + - * only
    if abs(exact) < 1_000_000:
        assert parse_length(text).mm == pytest.approx(exact, rel=1e-12, abs=1e-9)


def test_five_panels_between_six_stiles() -> None:
    """Common practice: a wall of 101.25 in, six stiles of 3 in, five panels of 16.65 in."""
    assert parse_length('(101.25"-6*3")/5').mm == pytest.approx(16.65 * 25.4)
    assert parse_length("(101.25-6*3)/5", DisplayUnit.INCH).mm == pytest.approx(16.65 * 25.4)


def test_a_24_inch_shelf_between_gables() -> None:
    """Common practice: a 24 in shelf between two 3/4 in gables needs 25 1/2 in; the second gable starts at 24 3/4."""
    assert parse_length('24" + 2*3/4"').mm == pytest.approx(25.5 * 25.4)
    assert parse_length('24" + 3/4"').mm == pytest.approx(24.75 * 25.4)
