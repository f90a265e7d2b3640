"""Tables as XLSX: numbers stay numbers, one sheet a table."""

from __future__ import annotations

from collections.abc import Iterable
from decimal import Decimal
from pathlib import Path
from typing import Any

from tall_plank.measure import DisplayUnit
from tall_plank.papers.tables import Column, Table, Value, head_of

FORMATS = {"length": "0.0##", "money": "#,##0.00", "number": "#,##0.00", "percent": "0", "count": "0"}


def write_xlsx(tables: Iterable[Table], path: Path, display: DisplayUnit = DisplayUnit.MM) -> None:
    """Write tables as sheets of one workbook. Lengths stand in the unit's plain number (mm, cm or inches)."""
    from openpyxl import Workbook
    from openpyxl.styles import Alignment, Font
    from openpyxl.utils import get_column_letter

    book = Workbook()
    book.remove(book.active)
    bold = Font(bold=True)
    for table in tables:
        sheet = book.create_sheet(table.title[:31])
        sheet.append([table.title])
        sheet["A1"].font = Font(bold=True, size=14)
        sheet.append([table.subtitle])
        sheet.append([head_of(c, display) for c in table.columns])
        for cell in sheet[3]:
            cell.font = bold
        sheet.freeze_panes = "A4"
        for row in (*table.rows, *table.totals):
            sheet.append([_value(v, c, display) for v, c in zip(row, table.columns, strict=True)])
        for i, column in enumerate(table.columns, 1):
            letter = get_column_letter(i)
            sheet.column_dimensions[letter].width = max(9.0, column.wide * 12)
            for cell in sheet[letter][3:]:
                # A text that starts with = would be run as a formula; ours never is one.
                if cell.data_type == "f":
                    cell.data_type = "s"
                if column.is_number:
                    cell.number_format = FORMATS.get(column.kind, "General")
                    cell.alignment = Alignment(horizontal="right")
        for cells in sheet.iter_rows(min_row=4 + len(table.rows), max_row=3 + len(table.rows) + len(table.totals)):
            for cell in cells:
                cell.font = bold
        if table.note:
            sheet.append([])
            sheet.append([table.note])
    book.save(path)


def _value(value: Value, column: Column, display: DisplayUnit) -> Any:
    if value is None:
        return None
    if column.kind == "length":
        assert isinstance(value, float | int)
        return round(float(value) / display.factor, 4)
    if isinstance(value, Decimal):
        return value
    if isinstance(value, float):
        return round(value, 4)
    return value
