"""A table as content: columns with kinds and units, rows of plain values. Screens and writers replay it."""

from __future__ import annotations

from collections.abc import Sequence
from decimal import Decimal
from typing import Literal

import msgspec

from tall_plank.costing.money import shown
from tall_plank.measure import DisplayUnit, format_length, told_in
from tall_plank.measure.units import with_lengths
from tall_plank.shop.cutlist import natural

Kind = Literal["text", "length", "count", "number", "measure", "percent", "money", "edges"]
Value = str | float | int | Decimal | None


class Column(msgspec.Struct, frozen=True):
    """A column.

    Attributes
    ----------
    key : its name in CSV
    head : its name on paper
    wide : its share of the page's width
    groups : whether rows may be grouped by it
    sums : whether a group's head says the sum of it
    """

    key: str
    head: str
    kind: Kind = "text"
    unit: str = ""
    wide: float = 1.0
    groups: bool = False
    sums: bool = False

    @property
    def is_number(self) -> bool:
        return self.kind not in ("text", "edges")


class Table(msgspec.Struct, frozen=True):
    """A table with its title, a line under it, rows and closing rows.

    Attributes
    ----------
    keys : per row, the id of the cell it speaks of, for taking the user there
    group : key of the column that its rows are grouped by; empty: by none
    links : texts of its first column that name a file beside it, to be opened from the paper
    """

    title: str
    subtitle: str
    columns: tuple[Column, ...]
    rows: tuple[tuple[Value, ...], ...]
    totals: tuple[tuple[Value, ...], ...] = ()
    note: str = ""
    keys: tuple[str, ...] = ()
    group: str = ""
    links: frozenset[str] = frozenset()


class Group(msgspec.Struct, frozen=True):
    """Rows of a table that have one value in common: their places, that value, and a head with their sums."""

    name: str
    rows: tuple[int, ...]
    head: tuple[Value, ...]


def groups_of(table: Table, key: str) -> tuple[Group, ...]:
    """The groups of a table by one of its columns, by name; no such column: everything is one group without a head."""
    at = next((i for i, c in enumerate(table.columns) if c.key == key), None)
    if at is None:
        return (Group("", tuple(range(len(table.rows))), ()),)
    found: dict[str, list[int]] = {}
    for i, row in enumerate(table.rows):
        found.setdefault(str(row[at] if row[at] is not None else ""), []).append(i)
    return tuple(
        Group(name, tuple(rows), _head(table, name, at, [table.rows[i] for i in rows]))
        for name, rows in sorted(found.items(), key=lambda g: natural(g[0]))
    )


def _head(table: Table, name: str, at: int, rows: Sequence[tuple[Value, ...]]) -> tuple[Value, ...]:
    head: list[Value] = []
    for i, column in enumerate(table.columns):
        values = [row[i] for row in rows]
        numbers = [v for v in values if isinstance(v, int | float | Decimal)]
        if column.sums and numbers:
            head.append(sum(numbers, type(numbers[0])(0)))
        else:
            own = rows[0][i] if column.is_number else name or "–"
            head.append(own if i == at else None)
    return tuple(head)


def arranged(table: Table, order: Sequence[int], group: str) -> Table:
    """The same table with its rows in another order, grouped by a column (empty: by none)."""
    rows = tuple(table.rows[i] for i in order)
    keys = tuple(table.keys[i] for i in order) if table.keys else ()
    return msgspec.structs.replace(table, rows=rows, keys=keys, group=group)


SENTENCES = ("why", "what", "remedy", "do")
"""Columns whose texts say lengths and weights, in the job's units."""


def _other(column: Column, display: DisplayUnit) -> bool:
    """Whether a column's measure goes by another unit in a job of a display unit."""
    return with_lengths(1.0, column.unit, display)[1] != column.unit


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
            assert isinstance(value, float | int | Decimal)
            if column.unit and _other(column, display):
                value = with_lengths(float(value), column.unit, display)[0]
            whole = isinstance(value, Decimal) and value == value.to_integral_value()
            return f"{value:,.0f}" if whole else f"{value:,.2f}"
        case "measure":  # as it is multiplied, with all its places
            return f"{value:,f}" if isinstance(value, Decimal) else f"{value:,.4f}"
        case "percent":
            return f"{value:.0f} %"
        case _:
            told = column.key in SENTENCES and not column.head.endswith(" mm")
            return told_in(str(value), display) if told else str(value)


def head_of(column: Column, display: DisplayUnit) -> str:
    """The head of a column with its unit."""
    unit = display.head if column.kind == "length" else with_lengths(0.0, column.unit, display)[1]
    return f"{column.head} {unit}".strip()
