"""Labels, read back by a general-purpose reader of barcodes."""

from __future__ import annotations

import io
from pathlib import Path

import pymupdf
import pytest
import zxingcpp
from PIL import Image

from tall_plank.edits import jobs
from tall_plank.job import Job
from tall_plank.papers.barcodes import code128, code128_values
from tall_plank.papers.labelprinter import LabelPrinter
from tall_plank.papers.labels import BARS_HIGH, draw_label, label_picture, labels_of, write_label_sheets
from tall_plank.workings import Workings


def labels(job: Job):  # type: ignore[no-untyped-def]
    return labels_of(Workings(jobs.set_text(job, "number", "TP-07").job))


def test_every_part_that_is_cut_has_one_label_with_its_place(job: Job) -> None:
    w = Workings(job)
    found = labels_of(w)
    cut = sorted(n for row in w.cut_rows for n in row.numbers)
    assert sorted(x.part for x in found) == cut
    for label in found:
        assert label.place is not None
        if label.place.word == "bar":
            assert w.bars.bars[label.place.board - 1].pieces[label.place.mine][0] == label.part
            continue
        board = w.plan.boards[label.place.board - 1]
        assert board.parts[label.place.mine].part == label.part


def test_both_codes_of_a_printed_label_are_read_back(job: Job) -> None:
    for label in labels(job)[:4]:
        image = Image.open(io.BytesIO(label_picture(label))).convert("L")
        read = {str(r.format).split(".")[-1].replace("_", "").lower(): r.text for r in zxingcpp.read_barcodes(image)}
        assert set(read.values()) == {f"TP-07 {label.part}"}
        assert len(read) == 2, read


def test_a_sheet_of_labels_is_read_back_from_its_pdf(job: Job, tmp_path: Path) -> None:
    found = labels(job)
    write_label_sheets(found, tmp_path / "labels.pdf", skip=4)
    document = pymupdf.open(tmp_path / "labels.pdf")
    assert document.page_count == -(-(len(found) + 4) // 21)
    page = document[0].get_pixmap(dpi=300, colorspace=pymupdf.csGRAY)
    image = Image.frombytes("L", (page.width, page.height), page.samples)
    texts = {r.text for r in zxingcpp.read_barcodes(image)}
    assert {f"TP-07 {x.part}" for x in found[:17]} <= texts
    assert found[0].name in document[0].get_text()


def test_the_printer_counts_on(job: Job, tmp_path: Path) -> None:
    found = labels(job)[:3]
    printer = LabelPrinter(tmp_path / "printer")
    first, again = printer.print_labels(found), printer.print_labels(found[:1])
    assert [p.name[:5] for p in (*first, *again)] == ["00001", "00002", "00003", "00004"]
    assert Image.open(first[0]).size == (945, 591)  # 80 x 50 mm at 300 dots an inch


@pytest.mark.parametrize(("text", "check"), [("CAB-0042", 98), ("PANEL 7/12", 102), ("Side L", 15)])
def test_the_check_symbol_is_that_of_the_standard(text: str, check: int) -> None:
    """ISO/IEC 15417: (start + sum of place x value) mod 103; values computed by hand for set B."""
    values = code128_values(text)
    if values[0] == 104 and 99 not in values[1:-2]:
        assert values[-2] == check
    assert values[-2] == (values[0] + sum(i * v for i, v in enumerate(values[1:-2], 1))) % 103
    assert values[-1] == 106


def test_a_symbol_is_eleven_modules_and_the_stop_thirteen() -> None:
    widths = code128("A1.1")
    symbols = len(code128_values("A1.1"))
    assert sum(widths) == 11 * (symbols - 1) + 13
    with pytest.raises(ValueError, match="plain characters"):
        code128("Tür")


class _Noted:
    """A pen that notes the boxes it fills."""

    dot = 25.4 / 200

    def __init__(self) -> None:
        self.bars: list[tuple[float, float]] = []

    def box(self, x: float, y: float, wide: float, high: float, *, fill: bool, heavy: bool = False) -> None:
        if fill and high == BARS_HIGH:
            self.bars.append((x, wide))

    def text(self, x: float, y: float, size: float, text: str, *, bold: bool = False) -> None:
        pass


@pytest.mark.parametrize("number", ["7", "TP-07", "2026/117-B", "A very long number of a job"])
@pytest.mark.parametrize("wide", [56.0, 63.5, 80.0, 105.0])
def test_bars_are_whole_dots_wide_two_at_least(job: Job, number: str, wide: float) -> None:
    """What a reader takes for sure: every bar an even run of whole dots, no module less than two of them."""
    label = labels_of(Workings(jobs.set_text(job, "number", number).job))[0]
    pen = _Noted()
    draw_label(pen, label, (wide, 38.0))
    for _, bar in pen.bars:
        assert bar / pen.dot == pytest.approx(round(bar / pen.dot), abs=1e-6)
    assert not pen.bars or min(bar for _, bar in pen.bars) >= 2 * pen.dot - 1e-6
