"""Numbers of lists: read as they are meant, or refused with both readings."""

from __future__ import annotations

from decimal import Decimal
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.files.cutcsv import read_boards, read_parts
from tall_plank.files.stocklist import read_stock_list
from tall_plank.measure import PlankError
from tall_plank.measure.numbers import mark_of, read_number


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("1250", "1250"), ("600.5", "600.5"), ("600,5", "600.5"), ("1.250", "1.250"), ("1,250.50", "1250.50"),
        ("1.250,50", "1250.50"), ("1 250,5", "1250.5"), ("1\u202f250", "1250"), ("1’250.5", "1250.5"),
        ("1,250,000", "1250000"), ("0,250", "0.250"), ("-3,5", "-3.5"), (" ,5 ", "0.5"), ("12,34", "12.34"),
    ],
)  # fmt: skip
def test_what_is_plain_is_read(text: str, value: str) -> None:
    assert read_number(text) == Decimal(value)


@pytest.mark.parametrize("text", ["1,250", "12,000", "+999,001"])
def test_what_has_two_readings_is_refused_with_both(text: str) -> None:
    with pytest.raises(ValueError, match="can be read as") as error:
        read_number(text)
    whole, part = text.lstrip("+").split(",")
    assert f"{whole}{part}" in str(error.value)
    assert str(Decimal(f"{whole}.{part}").normalize()) in str(error.value)
    assert read_number(text, ",") == Decimal(f"{whole}.{part}")
    assert read_number(text, ".") == Decimal(f"{whole}{part}")


@pytest.mark.parametrize(
    "text", ["", "abc", "1e5", "inf", "NaN", "1.2.3,4", "12,34,5", "1,25,000", "5 5", "--1", "1,2.3,4"]
)
def test_what_is_none_is_refused(text: str) -> None:
    with pytest.raises(ValueError, match="is no number"):
        read_number(text)


@given(
    st.decimals(0, 10_000_000, places=2), st.sampled_from([(".", ","), (",", "."), (",", " "), (".", "’"), (".", "")])
)
def test_every_usual_way_of_writing_is_read_back(value: Decimal, way: tuple[str, str]) -> None:
    mark, parts = way
    text = f"{value:,.2f}".replace(",", "\0").replace(".", mark).replace("\0", parts)
    assert read_number(text) == value


def test_a_list_shows_how_it_is_meant() -> None:
    assert mark_of(["1,250", "3,5"]) == ","
    assert mark_of(["1,250", "3.50"]) == "."
    assert mark_of(["1.250.000", "7"]) == ","
    assert mark_of(["1,250", "900"]) == ""
    assert mark_of(["3,5", "3.5"]) == ""


def stock(folder: Path, *prices: str) -> Path:
    path = folder / "list.csv"
    path.write_text("code;kind;price\n" + "".join(f"X{i};handle;{p}\n" for i, p in enumerate(prices)))
    return path


def test_a_price_with_two_readings_is_refused_at_its_place(tmp_path: Path) -> None:
    with pytest.raises(PlankError, match=r"can be read as 1250 and as 1\.25") as error:
        read_stock_list(stock(tmp_path, "1,250"))
    assert error.value.where == "list.csv, row 2, price"
    found = read_stock_list(stock(tmp_path, "1,250", "12,50"))
    assert [row.price for row in found] == [Decimal("1.250"), Decimal("12.50")]
    found = read_stock_list(stock(tmp_path, "1,250", "12.50"))
    assert [row.price for row in found] == [Decimal("1250"), Decimal("12.50")]


def test_lists_for_the_saw_are_read_the_same_way(tmp_path: Path) -> None:
    parts, boards = tmp_path / "p.csv", tmp_path / "b.csv"
    parts.write_text("part;length_mm;width_mm;qty;material\nA;600,5;400;1;M\nB;1.200,5;400;2;M\nC;1,250;1;1;M\n")
    found, faults = read_parts(parts)
    assert [(p.length, p.width) for p in found] == [(600.5, 400.0), (1200.5, 400.0), (1.25, 1.0)] and faults == ()
    boards.write_text("board;material;length_mm;width_mm;price\nX;M;2800;2070;1,250\n")
    kept, faults = read_boards(boards)
    assert kept == () and "price “1,250” can be read as 1250 and as 1.25" in faults[0]
