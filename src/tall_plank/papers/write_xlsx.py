"""Tables as XLSX: numbers stay numbers, one sheet a table."""

from __future__ import annotations

import io
from collections.abc import Iterable
from copy import copy
from decimal import Decimal
from pathlib import Path
from typing import TYPE_CHECKING, Any

from tall_plank.formats.writing import put
from tall_plank.measure import DisplayUnit
from tall_plank.measure.units import with_lengths
from tall_plank.papers.tables import Column, Table, Value, head_of, text_of

if TYPE_CHECKING:
    from openpyxl.styles.styleable import StyleableObject
    from openpyxl.worksheet.worksheet import Worksheet

FORMATS = {
    "length": "0.0##",
    "money": "#,##0.00",
    "number": "#,##0.00",
    "measure": "#,##0.####",
    "percent": "0",
    "count": "0",
}


HEAD = 3
"""Row of the heads: title and subtitle stand above it."""

SIZE = 9
"""Points of the letters: as many rows on a page as can be read at the bench."""

UPRIGHT = 140.0
"""Characters that an upright page takes, fitted to its width; wider tables lie."""

AS_IT_IS = 78.0
"""Characters that an upright page takes as they are."""

LEAST_WIDE, MOST_WIDE = 6.0, 42.0
"""Characters that a column is wide; longer texts are wrapped."""


def write_xlsx(tables: Iterable[Table], path: Path, display: DisplayUnit = DisplayUnit.MM) -> None:
    """Write tables as sheets of one workbook, ready to print. Lengths stand in the unit's plain number (mm, cm or
    inches); sums are formulas."""
    from openpyxl import Workbook

    book = Workbook()
    book.remove(book.active)
    book._named_styles["Normal"].font.size = SIZE
    for table in tables:
        sheet = book.create_sheet(table.title[:31])
        _fill(sheet, table, display)
        _style(sheet, table)
        _print_setup(sheet, table)
    buffer = io.BytesIO()
    book.save(buffer)
    put(path, buffer.getvalue())


def _fill(sheet: Worksheet, table: Table, display: DisplayUnit) -> None:
    """Titles, heads, rows, sums and the note."""
    sheet.append([table.title])
    sheet.append([table.subtitle])
    sheet.append([head_of(c, display) for c in table.columns])
    for row in table.rows:
        sheet.append([_value(v, c, display) for v, c in zip(row, table.columns, strict=True)])
    # A text that starts with = would be run as a formula; ours never is one.
    for cells in sheet.iter_rows():
        for cell in cells:
            if cell.data_type == "f":
                cell.data_type = "s"
    for row in table.totals:
        values = [_value(v, c, display) for v, c in zip(row, table.columns, strict=True)]
        sheet.append([_sum_of(sheet, table, i, v, values[0]) for i, v in enumerate(values)])
    if table.note:
        sheet.append([])
        sheet.append([table.note])


def _sum_of(sheet: Worksheet, table: Table, i: int, value: Any, label: Any) -> Any:
    """A closing value as a formula, where it is the sum of what stands above it, or of the rows that begin with its
    label."""
    from openpyxl.utils import get_column_letter

    if not table.rows or not isinstance(value, int | float | Decimal):
        return value
    first, last = HEAD + 1, HEAD + len(table.rows)
    cells = [(sheet.cell(r, 1).value, sheet.cell(r, i + 1).value) for r in range(first, last + 1)]
    numbers = [(name, Decimal(str(v))) for name, v in cells if isinstance(v, int | float | Decimal)]

    def comes_to(found: list[Decimal]) -> bool:
        return bool(found) and abs(sum(found) - Decimal(str(value))) <= Decimal("0.005")

    letter = get_column_letter(i + 1)
    span = f"{letter}{first}:{letter}{last}"
    if comes_to([v for _, v in numbers]):
        return f"=SUM({span})"
    if isinstance(label, str) and label and comes_to([v for name, v in numbers if name == label]):
        quoted = label.replace('"', '""')
        return f'=SUMIF(A{first}:A{last},"{quoted}",{span})'
    return value


def _style(sheet: Worksheet, table: Table) -> None:
    """Bold heads and sums, numbers to the right, texts wrapped, columns as wide as what they hold."""
    from openpyxl.styles import Alignment, Font
    from openpyxl.utils import get_column_letter

    bold = Font(bold=True, size=SIZE)
    plain = {
        False: Alignment(wrap_text=True, vertical="top", indent=1),
        True: Alignment(horizontal="right", vertical="top"),
    }
    sheet["A1"].font = Font(bold=True, size=14)
    ends = HEAD + len(table.rows) + len(table.totals)
    for cell in sheet[HEAD]:
        cell.font = bold
        cell.alignment = Alignment(wrap_text=True, vertical="bottom", horizontal="left")
    for i, column in enumerate(table.columns, 1):
        letter = get_column_letter(i)
        texts = [str(sheet.cell(r, i).value or "") for r in range(HEAD, ends + 1)]
        longest = max((len(t) for t in texts if not t.startswith("=")), default=0)
        sheet.column_dimensions[letter].width = min(MOST_WIDE, max(LEAST_WIDE, longest + 1.5))
        first: StyleableObject | None = None
        for r in range(HEAD + 1, ends + 1):
            cell = sheet.cell(r, i)
            if first is None or r == HEAD + len(table.rows) + 1:
                if column.is_number:
                    cell.number_format = FORMATS.get(column.kind, "General")
                cell.alignment = plain[column.is_number]
                if r > HEAD + len(table.rows):
                    cell.font = bold
                first = cell
            else:  # each cell of a column looks like its first: to say it anew costs a search
                cell._style = copy(first._style)


def _print_setup(sheet: Worksheet, table: Table) -> None:
    """Across the page, as wide as it, heads on every page, pages numbered; heads stay in sight and filter."""
    from openpyxl.utils import get_column_letter

    sheet.freeze_panes = f"A{HEAD + 1}"
    sheet.auto_filter.ref = f"A{HEAD}:{get_column_letter(len(table.columns))}{HEAD + max(1, len(table.rows))}"
    wide = sum(d.width for d in sheet.column_dimensions.values())
    sheet.page_setup.orientation = "portrait" if wide <= UPRIGHT else "landscape"
    sheet.page_setup.paperSize = sheet.PAPERSIZE_A4
    if wide > AS_IT_IS:  # a narrow table would be blown up
        sheet.page_setup.fitToWidth, sheet.page_setup.fitToHeight = 1, 0
        sheet.sheet_properties.pageSetUpPr.fitToPage = True
    sheet.print_title_rows = f"{HEAD}:{HEAD}"
    sheet.oddFooter.left.text = table.title.replace("&", "&&")
    sheet.oddFooter.right.text = "&P / &N"
    for side in ("left", "right", "top", "bottom"):
        setattr(sheet.page_margins, side, 0.4 if side in ("left", "right") else 0.55)


def _value(value: Value, column: Column, display: DisplayUnit) -> Any:
    if value is None:
        return None
    if column.kind == "length":
        assert isinstance(value, float | int)
        return round(float(value) / display.factor, 4)
    if column.kind == "number" and isinstance(value, int | float | Decimal):
        other, word = with_lengths(float(value), column.unit, display)
        if word != column.unit:
            return round(other, 4)
    if isinstance(value, Decimal):
        return value
    if isinstance(value, float):
        return round(value, 4)
    return text_of(value, column, display) if isinstance(value, str) else value
