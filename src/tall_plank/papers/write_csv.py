"""Tables as CSV (RFC 4180): one header row, lengths in mm, decimal points."""

from __future__ import annotations

import csv
from decimal import Decimal
from pathlib import Path

from tall_plank.measure.units import trimmed
from tall_plank.papers.tables import Column, Table, Value


def plain(value: Value, column: Column) -> str:
    """A value for other programs: numbers without thousands parted, a text that looks like a formula made safe."""
    if value is None:
        return ""
    if isinstance(value, Decimal):
        return f"{value:.2f}" if column.kind == "money" else f"{value:f}"
    if isinstance(value, float):
        return trimmed(value, 3)
    text = str(value)
    # Spreadsheets run a cell that starts with these; names are typed by people.
    return f"'{text}" if text[:1] in ("=", "+", "@", "\t", "\r") else text


def write_csv(table: Table, path: Path) -> None:
    """Write a table; closing rows are left out, so that the file is data only."""
    with path.open("w", newline="", encoding="utf-8") as file:
        writer = csv.writer(file)
        writer.writerow([_key(c) for c in table.columns])
        for row in table.rows:
            writer.writerow([plain(v, c) for v, c in zip(row, table.columns, strict=True)])


def _key(column: Column) -> str:
    return f"{column.key}_mm" if column.kind == "length" else column.key
