from __future__ import annotations

import shutil
from decimal import Decimal
from pathlib import Path

import pytest

from tall_plank.measure import PlankError
from tall_plank.stock import load_stock, shipped_stock
from tall_plank.stock.library import DATA


@pytest.fixture
def folder(tmp_path: Path) -> Path:
    shutil.copytree(DATA, tmp_path / "stock")
    return tmp_path / "stock"


def test_shipped_stock_has_a_price_for_everything_the_shop_buys() -> None:
    stock = shipped_stock()
    priced = {row.code for row in stock.prices[0].rows}
    bought = [*stock.boards, *stock.edgings, *stock.fittings]
    assert {thing.code for thing in bought} <= priced


def test_every_board_has_edging_of_its_finish() -> None:
    stock = shipped_stock()
    for board in stock.boards:
        # Glass has ground edges, solid timber its own.
        assert board.cut_to_size or board.solid or stock.edging(board.finish, 1.0) is not None, board.code


def test_prices_are_exact_decimals() -> None:
    row = next(r for r in shipped_stock().prices[0].rows if r.code == "DW-8")
    assert row.price == Decimal("0.03")
    assert isinstance(row.price, Decimal)


def test_lookups() -> None:
    stock = shipped_stock()
    assert stock.board("birch-ply", 18.0).code == "BP18"  # type: ignore[union-attr]
    assert stock.board("birch-ply", 17.0) is None
    assert stock.fitting("HG-110").holes[0].diameter == 35  # type: ignore[union-attr]
    assert stock.finish("nowhere") is None


@pytest.mark.parametrize(
    ("change", "place", "word"),
    [
        ("board = [\n  { code = 'X'", "boards.toml, line", "well-formed"),
        ("plank = []\n", "boards.toml", "no table"),
        ("board = 5\n", "boards.toml", "list"),
        ('board = [{ code = "X" }]\n', "boards.toml, board 1 (X)", "missing"),
        (
            'board = [{ code = "X", name = "x", finish = "birch-ply", thickness = "thick", length = 100, width = 100, density = 1 }]\n',
            "thickness",
            "Expected",
        ),
        (
            'board = [{ code = "X", name = "x", finish = "birch-ply", thickness = 18, length = 0, width = 100, density = 1 }]\n',
            "board 1 (X), length",
            "out of range",
        ),
        (
            'board = [{ code = "X", name = "x", finish = "moon", thickness = 18, length = 100, width = 100, density = 1 }]\n',
            "board X",
            "no finish",
        ),
        (
            'board = [{ code = "X", name = "x", finish = "birch-ply", thickness = 18, length = 100, width = 100, density = 1, colour = 3 }]\n',
            "board 1 (X)",
            "unknown field",
        ),
    ],
)
def test_a_stock_file_with_errors_names_place_and_reason(folder: Path, change: str, place: str, word: str) -> None:
    (folder / "boards.toml").write_text(change)
    with pytest.raises(PlankError) as caught:
        load_stock(folder)
    assert place in str(caught.value)
    assert word in str(caught.value)
    assert caught.value.remedy


def test_a_code_used_twice_is_found_across_files(folder: Path) -> None:
    row = '{ code = "BP18", name = "x", finish = "birch-ply", thickness = 3, length = 100, width = 100, density = 1 }'
    (folder / "more.toml").write_text(f"board = [{row}]\n")
    with pytest.raises(PlankError, match="used twice"):
        load_stock(folder)


def test_a_bad_color_and_a_bad_price_are_found(folder: Path) -> None:
    (folder / "more.toml").write_text('finish = [{ code = "f", name = "f", color = "red" }]\n')
    with pytest.raises(PlankError, match="no color"):
        load_stock(folder)
    (folder / "more.toml").unlink()
    path = folder / "prices" / "quay-2026.toml"
    path.write_text(path.read_text().replace('price = "24.50"', 'price = "-1"'))
    with pytest.raises(PlankError, match="out of range"):
        load_stock(folder)


@pytest.mark.parametrize("price", ['"dear"', '""', '"1,5"', '"1e"', "[1]", "true"])
def test_a_price_that_is_no_number_names_its_place(folder: Path, price: str) -> None:
    path = folder / "prices" / "quay-2026.toml"
    path.write_text(path.read_text().replace('price = "24.50"', f"price = {price}"))
    with pytest.raises(PlankError, match="price") as caught:
        load_stock(folder)
    assert caught.value.remedy


def test_a_file_that_is_no_text_is_refused(folder: Path) -> None:
    (folder / "more.toml").write_bytes(b"\xff\xfe\x00")
    with pytest.raises(PlankError, match="UTF-8"):
        load_stock(folder)
