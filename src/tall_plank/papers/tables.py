"""A table as content: columns with kinds and units, rows of plain values. Screens and writers replay it."""

from __future__ import annotations

from decimal import Decimal
from typing import Literal

import msgspec

from tall_plank.costing.money import shown
from tall_plank.measure import DisplayUnit, format_length

Kind = Literal["text", "length", "count", "number", "percent", "money", "edges"]
Value = str | float | int | Decimal | None


class Column(msgspec.Struct, frozen=True):
    """A column. `key` is its name in CSV, `head` on paper; `wide` its share of the page's width."""

    key: str
    head: str
    kind: Kind = "text"
    unit: str = ""
    wide: float = 1.0

    @property
    def is_number(self) -> bool:
        return self.kind not in ("text", "edges")


class Table(msgspec.Struct, frozen=True):
    """A table with its title, a line under it, rows and closing rows."""

    title: str
    subtitle: str
    columns: tuple[Column, ...]
    rows: tuple[tuple[Value, ...], ...]
    totals: tuple[tuple[Value, ...], ...] = ()
    note: str = ""
    keys: tuple[str, ...] = ()
    """Per row, the id of the cell it speaks of, for taking the user there."""


def text_of(value: Value, column: Column, display: DisplayUnit) -> str:
    """A value for people; lengths in the job's display unit (the unit stands in the column's head)."""
    if value is None or value == "":
        return ""
    match column.kind:
        case "length":
            assert isinstance(value, float | int)
            return format_length(float(value), display)
        case "money":
            assert isinstance(value, Decimal)
            return shown(value)
        case "number":
            whole = isinstance(value, Decimal) and value == value.to_integral_value()
            return f"{value:,.0f}" if whole else f"{value:,.2f}"
        case "percent":
            return f"{value:.0f} %"
        case _:
            return str(value)


def head_of(column: Column, display: DisplayUnit) -> str:
    """The head of a column with its unit."""
    unit = display.head if column.kind == "length" else column.unit
    return f"{column.head} {unit}".strip()
