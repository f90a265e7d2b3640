"""Schedules as content, before any file is written."""

from __future__ import annotations

import math
from decimal import Decimal
from pathlib import Path

import pytest

from conftest import cell_of
from tall_plank.demo import demo_job
from tall_plank.drawing.primitives import Drawing, Layer, Text
from tall_plank.edits import cutting, jobs, units
from tall_plank.job import Job, Kind
from tall_plank.making import Edges
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.package import write_drawing, write_package, write_table
from tall_plank.papers import drawings, partlists, schedules
from tall_plank.papers.drawings import (
    bar_sheets,
    bars_shown,
    job_sheets,
    room_drawings,
)
from tall_plank.papers.offer import offer
from tall_plank.papers.tables import Column, Table, head_of, text_of
from tall_plank.papers.worksheets import cut_marks, work_sheets
from tall_plank.papers.write_csv import plain
from tall_plank.workings import Workings


@pytest.mark.parametrize(
    ("value", "kind", "unit", "text"),
    [
        (600.0, "length", DisplayUnit.MM, "600"),
        (600.0, "length", DisplayUnit.CM, "60"),
        (609.6, "length", DisplayUnit.FRACTION_16, "24"),
        (Decimal("1234.5"), "money", DisplayUnit.MM, "1,234.50"),
        (Decimal("4.2531"), "number", DisplayUnit.MM, "4.25"),
        (Decimal("12"), "number", DisplayUnit.MM, "12"),
        (82.6, "percent", DisplayUnit.MM, "83 %"),
        (7, "count", DisplayUnit.MM, "7"),
        (None, "money", DisplayUnit.MM, ""),
        ("", "text", DisplayUnit.MM, ""),
    ],
)
def test_values_as_people_read_them(value: object, kind: str, unit: DisplayUnit, text: str) -> None:
    assert text_of(value, Column("k", "K", kind), unit) == text  # type: ignore[arg-type]


def test_the_unit_stands_in_the_head() -> None:
    assert head_of(Column("length", "Length", "length"), DisplayUnit.MM) == "Length mm"
    assert head_of(Column("length", "Length", "length"), DisplayUnit.FEET) == "Length in"
    assert head_of(Column("net", "Net", "number", "m"), DisplayUnit.MM) == "Net m"


@pytest.mark.parametrize(
    ("value", "kind", "text"),
    [
        (600.0, "length", "600"),
        (0.1, "length", "0.1"),
        (Decimal("3"), "money", "3.00"),
        (None, "text", ""),
        ("=SUM(A1)", "text", "'=SUM(A1)"),
        ("plain", "text", "plain"),
    ],
)
def test_values_for_other_programs(value: object, kind: str, text: str) -> None:
    assert plain(value, Column("k", "K", kind)) == text  # type: ignore[arg-type]


def test_banded_edges_are_told_by_letters_not_by_color() -> None:
    assert partlists.edge_marks(Edges("a", "", "", "b")) == "L1 · · W2"
    assert partlists.edge_marks(Edges()) == "· · · ·"


@pytest.mark.parametrize("name", list(schedules.ALL))
def test_every_row_has_a_value_for_every_column(job: Job, name: str) -> None:
    table = schedules.ALL[name](Workings(job))
    for row in (*table.rows, *table.totals):
        assert len(row) == len(table.columns)
        for value, column in zip(row, table.columns, strict=True):
            assert isinstance(text_of(value, column, DisplayUnit.MM), str)


def test_every_schedule_of_an_empty_job_can_be_made(empty_job: Job, tmp_path: Path) -> None:
    w = Workings(empty_job)
    for name, make in schedules.ALL.items():
        for ending in ("csv", "xlsx", "pdf"):
            write_table(w, make(w), tmp_path / f"{name}.{ending}")
    assert len(list(tmp_path.iterdir())) == 3 * len(schedules.ALL)


def test_lengths_in_a_workbook_follow_the_display(job: Job, tmp_path: Path) -> None:
    import openpyxl

    w = Workings(jobs.set_display(job, DisplayUnit.INCH).job)
    write_table(w, schedules.units(w), tmp_path / "u.xlsx")
    sheet = openpyxl.load_workbook(tmp_path / "u.xlsx").active
    assert sheet["D3"].value == "Width in"
    drawers = next(r for r in sheet.iter_rows(min_row=4, values_only=True) if r[0] == "A2")
    assert drawers[3] == pytest.approx(600 / 25.4, abs=1e-4)


def test_the_estimate_names_what_is_by_others(job: Job) -> None:
    table = offer(Workings(job))
    assert "Dishwasher" in table.note
    assert all(row[3] is None for row in table.rows)
    assert [t[1] for t in table.totals] == ["Price before tax", "Tax 20 %", "Price with tax"]


def test_a_unit_that_cannot_be_made_is_in_no_cut_list_but_in_the_snags(job: Job) -> None:
    bad = Workings(units.set_own(job, (cell_of(job, "A2"),), "depth", "150").job)
    listed = {number for row in bad.cut_rows for number in row.numbers}
    assert not any(number.startswith("A2.") for number in listed)
    table = schedules.snags(bad)
    assert any(row[0] == "A2" for row in table.rows)
    assert cell_of(job, "A2") in table.keys


def test_sheets_are_numbered_and_dated(job: Job) -> None:
    sheets = job_sheets(Workings(job), "2026-11-23")
    assert [s.block.sheet for s in sheets] == ["1 of 2", "2 of 2"]
    assert [[v.drawing.title for v in s.views] for s in sheets] == [["Room, plan"], ["Room, wall A north"]]
    assert {s.block.date for s in sheets} == {"2026-11-23"}


def test_walls_with_nothing_on_them_get_no_sheet(job: Job) -> None:
    assert [name for name, _ in room_drawings(Workings(job), "r1")] == ["plan", "elevation-A"]


def sheets_of(w: Workings) -> tuple[list[Table], list[Drawing | None]]:
    return work_sheets(w.plan, w.job.cutting, w.job.stock, w.job.display)


def test_every_board_has_a_sheet_with_its_parts(job: Job) -> None:
    w = Workings(job)
    tables, pictures = sheets_of(w)
    assert len(tables) == len(pictures) == len(w.plan.boards)
    for picture, board in zip(pictures, w.plan.boards, strict=True):
        assert picture is not None
        drawn = {
            i.source for i in picture.items if (s := getattr(i, "source", None)) is not None and s.kind is Kind.PART
        }
        assert drawn == {Kind.PART.of(p.part) for p in board.parts}


def test_the_cuts_of_a_board_are_numbered_where_the_saw_enters(job: Job) -> None:
    w = Workings(job)
    table = schedules.saw_cuts(w)
    sheets, pictures = sheets_of(w)
    for number, (board, picture, sheet) in enumerate(zip(w.plan.boards, pictures, sheets, strict=True), 1):
        assert picture is not None
        steps = [row[3] for row in table.rows if row[0] == str(number)]
        marks = [i for i in picture.items if isinstance(i, Text) and i.layer is Layer.DIMENSION]
        assert [int(m.text) for m in marks] == steps == [row[0] for row in sheet.rows]
        assert "from the stop" in sheet.note
        for mark, cut in zip(marks, cut_marks(number, board, w.plan, w.job.cutting), strict=True):
            # On its cut: in the kerf, within no part.
            assert (mark.y if cut.along else mark.x) == pytest.approx(cut.y if cut.along else cut.x)
            for p in board.parts:
                inside_x, inside_y = p.x < mark.x < p.x + p.length, p.y < mark.y < p.y + p.width
                assert not (inside_x and inside_y)
        bold = [m for m in marks if m.bold]
        turns = [row[4] for row in table.rows if row[0] == str(number)]
        assert len(bold) == turns.count(1)


def test_a_routed_board_has_no_cuts(job: Job) -> None:
    w = Workings(cutting.set_cutting(job, "mode", "router").job)
    for sheet, picture in zip(*sheets_of(w), strict=True):
        assert picture is not None
        assert not [i for i in picture.items if isinstance(i, Text) and i.layer is Layer.DIMENSION]
        assert "router" in sheet.note and len(sheet.rows) > 0


def test_the_package_stops_when_told(job: Job, tmp_path: Path) -> None:
    told: list[str] = []

    def twice(name: str) -> bool:
        told.append(name)
        return len(told) <= 2

    done = write_package(Workings(job), tmp_path / "p", twice)
    written = [p for p in (tmp_path / "p").rglob("*") if p.is_file() and not p.name.startswith(".")]
    assert len(done) == 2 == len(written)


def test_files_that_cannot_be_written_are_named(job: Job, tmp_path: Path) -> None:
    w = Workings(job)
    blocked = tmp_path / "file"
    blocked.write_text("")
    with pytest.raises(PlankError, match="folder cannot be made"):
        write_package(w, blocked / "p")
    with pytest.raises(PlankError, match="no kind of schedule"):
        write_table(w, schedules.units(w), tmp_path / "x.doc")
    drawing = room_drawings(w, "r1")[0][1]
    with pytest.raises(PlankError, match="no kind of drawing"):
        write_drawing(w, drawing, tmp_path / "x.png")
    for ending in ("pdf", "svg", "dxf"):
        with pytest.raises(PlankError, match="cannot be written"):
            write_drawing(w, drawing, tmp_path / "no" / f"x.{ending}")


def test_sheets_of_bars_are_numbered_from_one(monkeypatch: pytest.MonkeyPatch) -> None:
    w = Workings(demo_job())
    monkeypatch.setattr(drawings, "BARS_A_SHEET", 3)
    sheets = bar_sheets(w)
    said = [s.block.sheet for s in sheets]
    assert len(sheets) > 1
    assert said == [f"{i + 1} of {len(sheets)}" for i in range(len(sheets))]
    # Every bar is on one of them, and each fits its paper.
    assert len(sheets) == math.ceil(len(bars_shown(w)) / 3)
