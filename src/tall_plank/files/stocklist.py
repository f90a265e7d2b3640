"""Lists of stock from outside, as CSV or XLSX: code, picture, sizes, price; see docs/stock-files.md."""

from __future__ import annotations

import io
from collections.abc import Iterable
from decimal import Decimal
from pathlib import Path
from typing import Any

from tall_plank.edits.stocklist import ListRow
from tall_plank.files.images import read_image
from tall_plank.formats.door import bytes_of, check_archive, csv_rows, text_of, through
from tall_plank.measure import PlankError
from tall_plank.measure.numbers import Mark, mark_of, read_number

SIZES = {
    "length_mm": "length", "width_mm": "width", "height_mm": "height", "depth_mm": "depth", "centers_mm": "centers",
    "projection_mm": "projection", "reach_mm": "reach", "side_clearance_mm": "side_clearance",
    "capacity_kg": "capacity",
}  # fmt: skip
TEXTS = ("name", "supplier", "finish", "shape")
HEADS = ("code", "kind", "price", "per", "pack", "least", "like", "picture", "bars_mm", *TEXTS, *SIZES)

MOST_ROWS = 20_000
MAX_FILE = 20_000_000
PICTURE = 480
"""Pixels on the longer side that a picture of stock keeps."""


def read_stock_list(path: Path, faults: list[str] | None = None) -> tuple[ListRow, ...]:
    """Read a list. Its first row holds the heads, in any order; ``code`` has to be one, the others may be missing.
    Pictures are files beside the list.

    Parameters
    ----------
    faults : takes what is wrong with single rows, which are then left out

    Raises
    ------
    PlankError naming file, row and column; where `faults` is given only for what spoils the whole list
    """
    with through(path.name, "list", "Save it again as CSV."):
        table = _xlsx(path) if path.suffix.lower() == ".xlsx" else _csv(path)
        rows = iter(table)
        heads = [str(cell or "").strip().lower() for cell in next(rows, ())]
        while heads and not heads[-1]:
            heads.pop()
        _check_heads(heads, path.name)
        found: list[ListRow] = []
        lines = list(rows)
        numeric = [i for i, h in enumerate(heads) if h in SIZES or h in ("price", "pack", "least")]
        mark = mark_of(_text(cells[i]) for cells in lines for i in numeric if i < len(cells))
        for number, cells in enumerate(lines, 2):
            values = {h: c for h, c in zip(heads, (_text(c) for c in cells), strict=False) if c}
            if not values:
                continue
            if len(found) >= MOST_ROWS:
                raise PlankError(f"The list has more than {MOST_ROWS} rows.", path.name, "Split it.")
            try:
                found.append(_row(number, values, path, mark))
            except PlankError as error:
                if faults is None:
                    raise
                faults.append(str(error))
    return tuple(found)


def _csv(path: Path) -> Iterable[list[str]]:
    return csv_rows(text_of(path, MAX_FILE, "list", "Save it as CSV in UTF-8, or as XLSX."), path.name)


def _xlsx(path: Path) -> Iterable[tuple[Any, ...]]:
    from openpyxl import load_workbook

    remedy = "Save it as XLSX or CSV."
    data = bytes_of(path, MAX_FILE, "workbook")
    with through(path.name, "workbook", remedy):
        check_archive(data, path.name, "workbook")
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
        try:
            if not book.worksheets:
                raise PlankError("The workbook has no sheet.", path.name, remedy)
            rows = book.worksheets[0].iter_rows(values_only=True, max_col=MOST_COLUMNS)
            return [row for _, row in zip(range(MOST_ROWS + 2), rows, strict=False)]
        finally:
            book.close()
    raise AssertionError


MOST_COLUMNS = 100
"""Columns of a list that are looked at."""


def _text(cell: Any) -> str:
    if isinstance(cell, float) and cell.is_integer():
        return str(int(cell))
    return "" if cell is None else str(cell).strip()


def _check_heads(heads: list[str], name: str) -> None:
    if "code" not in heads:
        raise PlankError("The list has no column “code”.", f"{name}, row 1", f"Heads: {', '.join(HEADS)}.")
    for head in heads:
        if head not in HEADS:
            raise PlankError(f"The column “{head}” is not known.", f"{name}, row 1", f"Heads: {', '.join(HEADS)}.")
        if heads.count(head) > 1:
            raise PlankError(f"The column “{head}” is there twice.", f"{name}, row 1", "Take one out.")


def _row(number: int, values: dict[str, str], path: Path, mark: Mark) -> ListRow:
    def wrong(head: str, what: str, remedy: str) -> PlankError:
        return PlankError(what, f"{path.name}, row {number}, {head}", remedy)

    if not values.get("code"):
        raise wrong("code", "The row has no code.", "Give it one, or leave the row empty.")
    sizes = {}
    for head, key in SIZES.items():
        if head in values:
            try:
                sizes[key] = float(read_number(values[head], mark))
            except ValueError as error:
                raise wrong(head, f"{error}.", "Write a plain number.") from None
            if not 0.0 <= sizes[key] <= 10_000.0:
                raise wrong(head, f"{values[head][:30]} is out of range.", "Write 0 to 10000.")
    bars = None
    if "bars_mm" in values:
        try:
            bars = tuple(float(text) for text in values["bars_mm"].replace("/", " ").replace(";", " ").split())
        except ValueError:
            told = f"“{values['bars_mm'][:30]}” is no list of lengths."
            raise wrong("bars_mm", told, "Write lengths such as 3000 2000.") from None
        if not all(0.0 < mm <= 20_000.0 for mm in bars):
            raise wrong("bars_mm", f"{values['bars_mm'][:30]} is out of range.", "Write lengths up to 20000.")
    price = None
    if "price" in values:
        try:
            price = read_number(values["price"], mark)
        except ValueError as error:
            raise wrong("price", f"{error}.", "Write a plain number, such as 1250.00.") from None
        if not price.is_finite() or not 0 <= price <= 10_000_000:
            raise wrong("price", f"{values['price'][:30]} is no price.", "Write a number from 0.")
    packs: dict[str, Decimal] = {}
    for head in ("pack", "least"):
        if head in values:
            try:
                packs[head] = read_number(values[head], mark)
            except ValueError as error:
                raise wrong(head, f"{error}.", "Write how many are sold at once, such as 100.") from None
            if not packs[head].is_finite() or not 0 <= packs[head] <= 1_000_000:
                raise wrong(head, f"{values[head][:30]} is out of range.", "Write 0 to 1000000.")
    image = None
    if "picture" in values:
        name = values["picture"]
        if Path(name).name != name or name.startswith("."):
            raise wrong("picture", f"“{name[:40]}” is no file beside the list.", "Write the name of a file beside it.")
        try:
            read = read_image(path.parent / name, most=PICTURE)
        except PlankError as error:
            raise wrong("picture", error.what, error.remedy) from None
        image = (read.wide, read.high, read.data)
    texts = {key: values[key][:200] for key in TEXTS if key in values}
    return ListRow(
        number,
        values["code"][:60],
        values.get("kind", "").lower().replace(" ", "_"),
        sizes,
        texts,
        price,
        values.get("per", "each"),
        values.get("like", ""),
        image,
        bars,
        packs.get("pack"),
        packs.get("least"),
    )
