"""One table says what makes sense: every number and length of jobs, stock and machines has its row or the widest one."""

from __future__ import annotations

import math
import typing
from collections.abc import Iterator

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.demo import demo_job
from tall_plank.job import Job, Opening
from tall_plank.job.job import Picture
from tall_plank.job.room import Rectangle
from tall_plank.job.unit import Own
from tall_plank.measure import Length, PlankError
from tall_plank.measure.limits import ANY, LIMITS, Range, check_reach, check_sound, limits_of, plain_text, unsound
from tall_plank.shop.machine.model import Machine
from tall_plank.stock import Board, Stock


def kinds_in(kind: type, seen: set[type]) -> Iterator[type]:
    """Every struct that a kind of value holds."""
    if kind in seen:
        return
    seen.add(kind)
    yield kind
    for hint in typing.get_type_hints(kind).values():
        for inner in leaves(hint):
            if isinstance(inner, type) and issubclass(inner, msgspec.Struct) and inner is not Length:
                yield from kinds_in(inner, seen)


def leaves(hint: object) -> Iterator[object]:
    args = typing.get_args(hint)
    if args:
        for arg in args:
            yield from leaves(arg)
    else:
        yield hint


KINDS = list(kinds_in(Job, set())) + list(kinds_in(Machine, set()))
FREE = {("Job", "next_id"), ("LaidBoard", "rack"), ("Own", "value"), ("BuildPart", "count")}
"""Numbers that only the program counts, and own values, whose row goes by their key."""


@pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.__name__)
def test_every_number_and_length_has_its_row(kind: type) -> None:
    hints = typing.get_type_hints(kind)
    for name in kind.__struct_fields__:
        if (kind.__name__, name) not in FREE and {Length, float, int} & set(leaves(hints[name])):
            assert name in LIMITS.get(kind.__name__, {}), f"{kind.__name__}.{name} has no limits"


def test_every_row_is_of_a_kind_and_field_that_there_is() -> None:
    fields = {k.__name__: set(k.__struct_fields__) for k in KINDS}
    for kind, rows in LIMITS.items():
        assert kind == "Listed" or set(rows) <= fields[kind], kind
        assert all(span.least < span.most for span in rows.values())


@given(st.floats())
def test_a_range_holds_what_lies_in_it_and_no_number_that_is_none(value: float) -> None:
    span = Range(0.0, 100.0)
    assert span.holds(value) == (math.isfinite(value) and -0.001 <= value <= 100.001)


def test_the_shipped_stock_and_the_demo_make_sense() -> None:
    assert unsound(demo_job()) is None


@pytest.mark.parametrize("mm", [math.nan, math.inf, -math.inf, 1e9, -5.0])
def test_a_length_that_makes_no_sense_is_told_at_its_place(mm: float) -> None:
    wide = Rectangle(Length("x", mm), Length.of(3000.0))
    with pytest.raises(PlankError, match="out of range") as told:
        check_sound(wide, "room 1")
    assert told.value.where == "room 1, width"


def test_the_place_of_what_lies_deep_is_named() -> None:
    stock = Stock(boards=(Board("B18", "Birch", "birch", 18.0, 2800.0, 2070.0, math.nan),))
    found = unsound(stock)
    assert found is not None and found.where == "boards[0] B18, density"


@pytest.mark.parametrize("text", ["a\0b", "\ud800", "x" * 5000, "a\x0bb"])
def test_texts_that_no_file_can_hold_are_refused(text: str) -> None:
    assert unsound(Picture(text, 10, 10, b"")) is not None
    assert unsound(Picture(plain_text(text)[:100], 10, 10, b"")) is None


def test_own_values_go_by_their_key() -> None:
    assert unsound(Own("height", Length.of(5000.0))) is not None
    assert unsound(Own("height", Length.of(2400.0))) is None
    assert unsound(Own("parameter.lean", Length.of(-40.0))) is None
    assert unsound(Own("rail_width", Length.of(-40.0))) is not None


def test_a_place_out_of_reach_is_refused() -> None:
    check_reach(0.0, None, -5000.0)
    for place in (math.nan, math.inf, 1e9):
        with pytest.raises(PlankError, match="out of reach"):
            check_reach(1.0, place)


def test_a_field_without_a_row_has_the_widest() -> None:
    assert limits_of(Opening, "nothing") == ANY
