"""The workbook of a job: ready to print, sums as formulas that come to what the table says."""

from __future__ import annotations

import re
from decimal import Decimal
from pathlib import Path

import pytest
from openpyxl import load_workbook
from openpyxl.worksheet.worksheet import Worksheet

from tall_plank.demo import demo_job
from tall_plank.papers import schedules
from tall_plank.papers.tables import Column, Table
from tall_plank.papers.write_xlsx import AS_IT_IS, HEAD, MOST_WIDE, UPRIGHT, write_xlsx
from tall_plank.workings import Workings


@pytest.fixture(scope="module")
def tables() -> list[Table]:
    w = Workings(demo_job())
    return [make(w) for make in schedules.ALL.values()]


def worked_out(sheet: Worksheet, formula: str) -> Decimal:
    """A sum over a column, of all rows or of those that begin with a word, as a spreadsheet works it out."""
    found = re.fullmatch(r"=SUM\(([A-Z]+)(\d+):[A-Z]+(\d+)\)", formula)
    word = None
    if found is None:
        part = re.fullmatch(r'=SUMIF\(A\d+:A\d+,"(.*)",(.*)\)', formula)
        assert part is not None
        word = part[1]
        found = re.fullmatch(r"([A-Z]+)(\d+):[A-Z]+(\d+)", part[2])
    assert found is not None
    letter, rows = found[1], range(int(found[2]), int(found[3]) + 1)
    cells = [sheet[f"{letter}{r}"].value for r in rows if word is None or sheet[f"A{r}"].value == word]
    return sum((Decimal(str(v)) for v in cells if isinstance(v, int | float | Decimal)), Decimal(0))


def test_every_sheet_prints_across_the_page_with_its_heads(tables: list[Table], tmp_path: Path) -> None:
    write_xlsx(tables, tmp_path / "all.xlsx")
    book = load_workbook(tmp_path / "all.xlsx")
    assert len(book.worksheets) == len(tables)
    for sheet, table in zip(book.worksheets, tables, strict=True):
        wide = sum(d.width for d in sheet.column_dimensions.values())
        # A wide table lies, a narrow one is not blown up; none is parted across.
        assert sheet.page_setup.orientation == ("portrait" if wide <= UPRIGHT else "landscape")
        fits = sheet.sheet_properties.pageSetUpPr is not None and bool(sheet.sheet_properties.pageSetUpPr.fitToPage)
        assert fits == (wide > AS_IT_IS)
        assert not fits or (sheet.page_setup.fitToWidth, sheet.page_setup.fitToHeight) == (1, 0)
        assert sheet.print_title_rows == f"${HEAD}:${HEAD}"
        assert "&P" in sheet.oddFooter.right.text
        assert sheet.freeze_panes == f"A{HEAD + 1}"
        assert sheet.auto_filter.ref.startswith(f"A{HEAD}:")
        widths = [sheet.column_dimensions[c[0].column_letter].width for c in sheet.iter_cols(max_row=1)]
        assert len(widths) >= len(table.columns) and max(widths) <= MOST_WIDE
        for column, cells in zip(table.columns, sheet.iter_cols(min_row=HEAD + 1, max_row=HEAD + 1), strict=False):
            if table.rows and not column.is_number:
                assert cells[0].alignment.wrap_text


def test_sums_are_formulas_and_come_to_what_is_said(tables: list[Table], tmp_path: Path) -> None:
    write_xlsx(tables, tmp_path / "all.xlsx")
    book = load_workbook(tmp_path / "all.xlsx")
    formulas = 0
    for sheet, table in zip(book.worksheets, tables, strict=True):
        for k, total in enumerate(table.totals):
            for i, value in enumerate(total):
                cell = sheet.cell(HEAD + 1 + len(table.rows) + k, i + 1)
                if isinstance(cell.value, str) and cell.value.startswith("="):
                    formulas += 1
                    assert worked_out(sheet, cell.value) == pytest.approx(Decimal(str(value)), abs=Decimal("0.006"))
                elif table.columns[i].sums and value is not None and k == 0:
                    assert not isinstance(value, Decimal), (table.title, table.columns[i].key)
    assert formulas >= 10


def test_a_text_that_looks_like_a_formula_stays_a_text(tmp_path: Path) -> None:
    table = Table(
        "T", "", (Column("a", "A"), Column("n", "N", "count", sums=True)), (("=1+1", 2), ("x", 3)), (("Total", 5),)
    )
    write_xlsx([table], tmp_path / "t.xlsx")
    sheet = load_workbook(tmp_path / "t.xlsx").active
    assert sheet is not None
    assert sheet["A4"].data_type == "s" and sheet["A4"].value == "=1+1"
    assert sheet["B6"].value == "=SUM(B4:B5)" and sheet["B6"].data_type == "f"
    # What is no sum of the rows above stays a number.
    other = Table("T", "", table.columns, table.rows, (("Total", 7),))
    write_xlsx([other], tmp_path / "o.xlsx")
    assert load_workbook(tmp_path / "o.xlsx").active["B6"].value == 7  # type: ignore[index]
