from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.measure import DisplayUnit, Length, LengthError, format_length, parse_length, told_in
from tall_plank.measure.errors import PlankError
from tall_plank.measure.lengths import evaluate_text, names_in
from tall_plank.measure.named import check_name, evaluate_named

UNITS = list(DisplayUnit)


@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ("600", 600.0),
        ("60cm", 600.0),
        ("60 cm", 600.0),
        ("0.6m", 600.0),
        ("0,6 m", 600.0),
        ("1m 20cm", 1200.0),
        ("600mm", 600.0),
        ('24"', 609.6),
        ("24''", 609.6),
        ("24 inches", 609.6),
        ("2ft", 609.6),
        ("2'", 609.6),
        ("2' 6\"", 762.0),
        ("2'6", 762.0),
        ("-5", -5.0),
        ("+5", 5.0),
        ("600 - 2*18", 564.0),
        ("(600 + 300) / 3", 300.0),
        ("600−18", 582.0),
        ("3×18", 54.0),
        ("min(600; 500)", 500.0),
        ("max(60cm; 500)", 600.0),
        ("10*(2+3)", 50.0),
        ("1/2", 0.5),
    ],
)
def test_a_length_typed_in_any_unit_is_read(text: str, mm: float) -> None:
    assert parse_length(text).mm == pytest.approx(mm, abs=1e-9)


@pytest.mark.parametrize(
    ("unit", "mm"),
    [
        (DisplayUnit.MM, 12.0),
        (DisplayUnit.CM, 120.0),
        (DisplayUnit.INCH, 304.8),
        (DisplayUnit.FEET, 304.8),
        (DisplayUnit.FRACTION_16, 304.8),
    ],
)
def test_a_bare_number_means_the_display_unit(unit: DisplayUnit, mm: float) -> None:
    assert parse_length("12", unit).mm == pytest.approx(mm)


@pytest.mark.parametrize(
    ("text", "position", "word"),
    [
        ("", 0, "No length"),
        ("   ", 0, "No length"),
        ("600 700", 4, "not expected"),
        ("60q", 2, "not expected"),
        ("$600", 0, "no place"),
        ("6''7'", 3, "smaller unit"),
        ("(600", 4, "not closed"),
        ("600)", 3, "not expected"),
        ("600 +", 5, "ends too soon"),
        ('2" * 3"', 3, "area"),
        ("600/0", 3, "zero"),
        ("5 / (2mm)", 2, "not a length"),
        ('5 1/0"', 0, "zero below"),
        ("eye", 0, "no value named"),
        ("1m 20", 3, "unit is missing"),
        ("9" * 20, 0, "larger than any room"),
    ],
)
def test_what_is_wrong_is_named_with_its_place(text: str, position: int, word: str) -> None:
    with pytest.raises(LengthError) as caught:
        parse_length(text)
    assert caught.value.position == position
    assert word in caught.value.what
    assert caught.value.remedy


def test_deep_brackets_and_long_texts_are_refused_and_do_not_crash() -> None:
    for text in ("(" * 150 + "1" + ")" * 40, "-" * 190 + "1", "1+" * 5000 + "1"):
        with pytest.raises(LengthError):
            parse_length(text)


def test_least_and_most_are_said_in_the_display_unit() -> None:
    with pytest.raises(LengthError) as caught:
        parse_length("2", DisplayUnit.FRACTION_16, least=254.0)
    assert '2"' in caught.value.what
    assert '10"' in caught.value.remedy
    with pytest.raises(LengthError, match="too large"):
        parse_length("700", most=600)


def test_named_values_stand_in_sums_and_are_lengths() -> None:
    length = parse_length("worktop + 2*18", values={"worktop": 40.0})
    assert length.mm == 76.0
    assert length.is_rule
    assert length.text == "worktop + 2*18mm"
    with pytest.raises(LengthError, match="area"):
        parse_length("worktop * worktop", values={"worktop": 40.0})
    assert parse_length("3 * worktop / worktop", values={"worktop": 40.0}).mm == 3.0


@given(
    st.sampled_from(UNITS),
    st.sampled_from(["7", "7 1/2", "a + 3", "a+2*18", "(3-1)+a", "36/2+a", "min(a;5)*2", "a - -3", "(2+3)*2", "3/4"]),
)
def test_a_kept_text_means_the_same_in_every_display(unit: DisplayUnit, text: str) -> None:
    values = {"a": 100.0}
    kept = parse_length(text, unit, values)
    for other in UNITS:
        assert parse_length(kept.text, other, values).mm == pytest.approx(kept.mm, abs=1e-6)
    assert evaluate_text(kept.text, values) == pytest.approx(kept.mm, abs=1e-6)


@given(st.floats(0.01, 90_000, allow_nan=False))
def test_what_the_program_decides_reads_back(mm: float) -> None:
    length = Length.of(mm)
    assert parse_length(length.text).mm == pytest.approx(mm, abs=1e-5)


@given(st.integers(0, 900_000), st.sampled_from([DisplayUnit.MM, DisplayUnit.CM]))
def test_shown_millimetres_read_back_exactly(hundredths: int, unit: DisplayUnit) -> None:
    mm = hundredths / 100
    assert parse_length(format_length(mm, unit), unit).mm == pytest.approx(mm, abs=1e-9)


@given(st.integers(0, 40_000), st.sampled_from([DisplayUnit.FRACTION_16, DisplayUnit.FRACTION_32, DisplayUnit.FEET]))
def test_sixteenths_read_back_exactly_and_carry_no_mark(sixteenths: int, unit: DisplayUnit) -> None:
    mm = sixteenths * 25.4 / 16
    text = format_length(mm, unit)
    assert not text.startswith("~")
    assert parse_length(text, unit).mm == pytest.approx(mm, abs=1e-6)


@given(st.text(max_size=40))
def test_no_text_does_more_than_be_refused(text: str) -> None:
    try:
        length = parse_length(text, values={"plinth": 100.0})
    except LengthError as error:
        assert 0 <= error.position <= len(text)
    else:
        assert math.isfinite(length.mm)


@pytest.mark.parametrize(
    ("mm", "unit", "text"),
    [
        (600.0, DisplayUnit.MM, "600"),
        (290.5, DisplayUnit.MM, "290.5"),
        (100 / 3, DisplayUnit.MM, "~33.33"),
        (-0.0001, DisplayUnit.MM, "0"),
        (600.0, DisplayUnit.CM, "60"),
        (25.4, DisplayUnit.INCH, "1"),
        (422.91, DisplayUnit.INCH, "16.65"),
        (422.91, DisplayUnit.FRACTION_16, "~16 5/8"),
        (19.05, DisplayUnit.FRACTION_16, "3/4"),
        (0.0, DisplayUnit.FRACTION_16, "0"),
        (800.1, DisplayUnit.FEET, "2' 7 1/2\""),
        (609.6, DisplayUnit.FEET, "2'"),
        (-609.6, DisplayUnit.FEET, "-2'"),
        (100.0, DisplayUnit.FEET, '~3 15/16"'),
    ],
)
def test_display_marks_rounding(mm: float, unit: DisplayUnit, text: str) -> None:
    assert format_length(mm, unit) == text


def test_names_in_a_text() -> None:
    assert names_in("plinth + 2*base_height") == {"plinth", "base_height"}
    assert names_in("min(plinth; 3)") == {"plinth"}
    assert names_in("600 $$") == frozenset()


def test_named_values_are_worked_out_in_any_order() -> None:
    found = evaluate_named({"c": "a + b", "a": "100", "b": "2*a"})
    assert found == {"a": 100.0, "b": 200.0, "c": 300.0}


def test_a_circle_is_named_in_its_order() -> None:
    with pytest.raises(PlankError) as caught:
        evaluate_named({"a": "b + 1", "b": "c", "c": "2*a"})
    assert "a → b → c → a" in caught.value.what


@pytest.mark.parametrize("name", ["", "2a", "Plinth", "mm", "ft", "min", "a b", "ä"])
def test_names_that_cannot_stand_in_a_length_are_refused(name: str) -> None:
    with pytest.raises(PlankError):
        check_name(name)


def test_a_play_below_the_smallest_fraction_is_not_shown_as_nothing() -> None:
    assert format_length(0.2, DisplayUnit.FRACTION_16) == "0.0079"
    assert format_length(0.0, DisplayUnit.FRACTION_16) == "0"


def test_what_is_told_in_millimetres_is_told_in_the_jobs_unit() -> None:
    """1 in is 25.4 mm exactly (international yard and pound agreement of 1959)."""
    text = "Part 1, shelf, takes 25.4 x 12.7 x 254 mm; 2 parts, at 110°, 38.1 mm lower. Make it 50.8 mm wider (BQ-32)."
    assert told_in(text, DisplayUnit.MM) == text
    assert told_in(text, DisplayUnit.FRACTION_16) == (
        'Part 1, shelf, takes 1" x 1/2" x 10"; 2 parts, at 110°, 1 1/2" lower. Make it 2" wider (BQ-32).'
    )
    assert told_in("18 mm", DisplayUnit.CM) == "1.8 cm"
    assert told_in("about 20 mm", DisplayUnit.FRACTION_16) == 'about ~13/16"'
    # What is no length stays: a code, an area, a number without a unit.
    for other in ("HG-18mm5", "3 mm2", "A1.3 mmm", "no 4 of them"):
        assert told_in(other, DisplayUnit.INCH) == other


def test_named_values_in_a_long_chain_are_evaluated() -> None:
    count = 5000
    texts = {f"v{i}": f"v{i + 1} + 1mm" for i in range(count)} | {f"v{count}": "10mm"}
    assert evaluate_named(texts)["v0"] == count + 10
    with pytest.raises(PlankError, match="circle") as told:
        evaluate_named({**texts, f"v{count}": "v0"})
    assert len(told.value.what) < 300
