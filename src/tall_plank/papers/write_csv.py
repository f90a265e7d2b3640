"""Tables as CSV (RFC 4180): one header row, lengths in mm. For programs with commas and decimal points; for a
spreadsheet with a byte mark, parted and with decimals as this computer writes numbers: it opens without questions."""

from __future__ import annotations

import csv
import io
import locale
from dataclasses import dataclass
from decimal import Decimal
from pathlib import Path

from tall_plank.formats.writing import put
from tall_plank.measure.units import trimmed
from tall_plank.papers.tables import Column, Table, Value


@dataclass(frozen=True)
class CsvStyle:
    """How lists are written: what parts columns, the decimal mark, whether a byte mark says that it is UTF-8."""

    part: str = ","
    decimal: str = "."
    mark: bool = False


PLAIN = CsvStyle()


def spreadsheet_style(decimal: str = "") -> CsvStyle:
    """As spreadsheets of this computer expect it: semicolons where its decimal mark is a comma. `decimal`: instead of
    the computer's own."""
    if not decimal:
        try:
            before = locale.setlocale(locale.LC_NUMERIC)
            locale.setlocale(locale.LC_NUMERIC, "")
            decimal = str(locale.localeconv()["decimal_point"])
            locale.setlocale(locale.LC_NUMERIC, before)
        except locale.Error:  # the computer names a locale that it has not
            decimal = "."
    return CsvStyle(";", ",", mark=True) if decimal == "," else CsvStyle(",", ".", mark=True)


def plain(value: Value, column: Column, decimal: str = ".") -> str:
    """A value for other programs: numbers without thousands parted, a text that looks like a formula made safe."""
    if value is None:
        return ""
    if isinstance(value, Decimal):
        return (f"{value:.2f}" if column.kind == "money" else f"{value:f}").replace(".", decimal)
    if isinstance(value, float):
        return trimmed(value, 3).replace(".", decimal)
    text = str(value)
    # Spreadsheets run a cell that starts with these; names are typed by people.
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r") else text


def write_csv(table: Table, path: Path, style: CsvStyle = PLAIN) -> None:
    """Write a table; closing rows are left out, so that the file is data only."""
    file = io.StringIO(newline="")
    writer = csv.writer(file, delimiter=style.part)
    writer.writerow([_key(c) for c in table.columns])
    for row in table.rows:
        writer.writerow([plain(v, c, style.decimal) for v, c in zip(row, table.columns, strict=True)])
    put(path, file.getvalue().encode("utf-8-sig" if style.mark else "utf-8"))


def _key(column: Column) -> str:
    return f"{column.key}_mm" if column.kind == "length" else column.key
