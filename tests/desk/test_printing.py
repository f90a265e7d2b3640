"""Print prints what is on screen, true to scale, with a preview; it is copied as text and as a picture."""

from __future__ import annotations

from pathlib import Path

import pymupdf
import pytest
from PyQt6.QtCore import QMarginsF, Qt
from PyQt6.QtGui import QGuiApplication, QImage, QPageLayout, QPageSize
from PyQt6.QtPrintSupport import QPrinter
from PyQt6.QtTest import QTest

from tall_plank.desk.app.menus.printing import paint_shown, preview
from tall_plank.desk.app.onscreen import Shown, as_one, labels_shown, pages_of, shown_now
from tall_plank.desk.app.preview import Preview
from tall_plank.desk.app.window import Window
from tall_plank.edits.papers import set_papers
from tall_plank.job import Kind
from tall_plank.job.papers import LABEL_SHEETS


def pdf(path: Path, paper: str = "A3") -> QPrinter:
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(path))
    size = QPageSize(getattr(QPageSize.PageSizeId, paper))
    printer.setPageLayout(QPageLayout(size, QPageLayout.Orientation.Landscape, QMarginsF(0, 0, 0, 0)))
    printer.setFullPage(True)
    return printer


def clip_text() -> str:
    clipboard = QGuiApplication.clipboard()
    assert clipboard is not None
    return clipboard.text()


def clip_image() -> QImage:
    clipboard = QGuiApplication.clipboard()
    assert clipboard is not None
    return clipboard.image()


def choose_list(w: Window, stage: str, code: str) -> None:
    w.show_stage(stage)
    w.lists.chosen[stage] = code
    w.lists.show_stage(stage)
    QTest.qWait(1)


def test_the_wall_that_is_worked_on_is_printed_true_to_scale(window: Window, tmp_path: Path) -> None:
    w = window
    w.document.select((Kind.WALL.of("A"),))
    w.strip.setFocus()
    shown = shown_now(w)
    assert "wall A" in shown.title
    assert paint_shown(w, shown, pdf(tmp_path / "wall.pdf")) == 1.0
    with pymupdf.open(tmp_path / "wall.pdf") as document:
        (page,) = document
        assert page.rect.width == pytest.approx(420 / 25.4 * 72, abs=1.5)
        words = page.get_text()
        assert "wall A" in words and f"1:{shown.sheets[0].scale:g}" in words
        # A wall of 3600 mm is so long on paper: the widest line of the drawing over its overall dimension.
        wide = 3600 / shown.sheets[0].scale / 25.4 * 72
        lines = [abs(i[2].x - i[1].x) for d in page.get_drawings() for i in d["items"] if i[0] == "l"]
        assert any(abs(length - wide) < 1.0 for length in lines), sorted(lines)[-5:]


def test_on_smaller_paper_it_is_printed_smaller_and_says_so(window: Window, tmp_path: Path) -> None:
    window.strip.setFocus()
    factor = paint_shown(window, shown_now(window), pdf(tmp_path / "small.pdf", "A5"))
    assert factor == pytest.approx(210 / 420, abs=0.01)
    assert "printed at 50 %" in window.message.text.text()


@pytest.mark.parametrize(
    ("stage", "code", "says"),
    [
        ("shop", "cut-list", "Cut list"),
        ("shop", "hardware", "Hardware"),
        ("shop", "plans", "Work sheets"),
        ("shop", "machine", "Set-up sheets"),
        ("shop", "snags", "Snags"),
        ("offer", "price", "Price"),
        ("offer", "offer", "Estimate"),
        ("offer", "sheet0", ""),
    ],
)
def test_every_page_that_is_on_screen_prints(window: Window, tmp_path: Path, stage: str, code: str, says: str) -> None:
    w = window
    choose_list(w, stage, code)
    shown = shown_now(w)
    assert says.lower() in shown.title.lower()
    paint_shown(w, shown, pdf(tmp_path / "page.pdf"))
    with pymupdf.open(tmp_path / "page.pdf") as document:
        assert len(document) == (len(shown.sheets) or len(pages_of(shown, 20)))
        for page in document:
            dark = page.get_pixmap(dpi=30).samples
            assert min(dark) < 180  # something stands on every page
    w.commands.run("copy_words")
    assert clip_text().count("\t") > 2 or clip_text().count("\n") > 2
    w.commands.run("copy_picture")
    assert clip_image().width() > 300


def test_plan_model_and_a_part_print_and_copy_as_what_they_are(window: Window, tmp_path: Path) -> None:
    w = window
    w.show_view("plan")
    w.plan.setFocus()
    assert "plan" in shown_now(w).title.lower()
    w.commands.run("copy_words")
    assert clip_text() == "Room\n3600, 2400, rest, rest"
    w.show_view("model")
    w.model.setFocus()
    assert shown_now(w).picture is not None
    assert paint_shown(w, shown_now(w), pdf(tmp_path / "model.pdf")) == 1.0
    w.commands.run("copy_picture")
    assert not clip_image().isNull()
    w.show_view("all")
    placed = next(p for p in w.document.room.placed if p.number == "A2")
    w.document.select((Kind.CELL.of(placed.cell),))
    w.look_into()
    shown = shown_now(w)
    assert shown.sheets and shown.text.startswith(shown.title)
    w.leave_unit()


def test_a_wall_is_copied_as_its_runs_and_as_svg(window: Window) -> None:
    w = window
    w.document.select((Kind.WALL.of("A"),))
    w.strip.setFocus()
    w.commands.run("copy_words")
    assert "base: filler 50" in clip_text()
    w.commands.run("copy_picture")
    clipboard = QGuiApplication.clipboard()
    assert clipboard is not None
    data = clipboard.mimeData()
    assert data is not None and b"<svg" in data.data("image/svg+xml").data()
    assert "copied as a picture" in w.message.text.text()


def test_a_schedule_prints_as_it_is_filtered_and_sorted(window: Window, tmp_path: Path) -> None:
    w = window
    choose_list(w, "shop", "cut-list")
    pane = w.table
    whole = pane.seen()
    pane.filter.setText("gable")
    some = pane.seen()
    assert 0 < len(some.rows) < len(whole.rows)
    assert not some.totals  # a sum of all would stand under some
    w.commands.run("copy_words")
    assert all("gable" in line.lower() for line in clip_text().splitlines()[1:])
    hidden = whole.columns[-1].key
    pane.show_column(hidden, False)
    assert hidden not in {c.key for c in pane.seen().columns}
    pane.show_column(hidden, True)
    pane.filter.clear()
    paint_shown(w, shown_now(w), pdf(tmp_path / "list.pdf"))
    assert (tmp_path / "list.pdf").stat().st_size > 2000


def test_the_preview_shows_the_pages_on_the_paper_that_is_chosen(window: Window, qtbot, tmp_path: Path) -> None:
    w = window
    w.strip.setFocus()
    shown = shown_now(w)
    dialog = preview(w, Shown("Two", shown.sheets * 2))
    qtbot.addWidget(dialog)
    dialog.show()
    qtbot.waitExposed(dialog)
    assert dialog.view.pageCount() == 2 and dialog.page.text() == "1 / 2"
    assert (dialog.paper.currentText(), dialog.way.currentData()) == ("A3", "across")
    QTest.mouseClick(dialog.on, Qt.MouseButton.LeftButton)
    assert dialog.page.text() == "2 / 2" and not dialog.on.isEnabled()
    dialog.paper.setCurrentText("A4")
    dialog.way.setCurrentIndex(1)
    layout = dialog.printer.pageLayout()
    assert layout.pageSize().id() == QPageSize.PageSizeId.A4
    assert layout.orientation() is QPageLayout.Orientation.Portrait
    assert "printed at 50 %" in w.message.text.text()
    dialog.printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    dialog.printer.setOutputFileName(str(tmp_path / "out.pdf"))
    dialog.view.print()
    with pymupdf.open(tmp_path / "out.pdf") as document:
        assert len(document) == 2 and document[0].rect.width < document[0].rect.height


def test_the_keys_open_the_preview_of_what_is_shown_and_of_the_set(window: Window, monkeypatch) -> None:
    seen: list[str] = []
    monkeypatch.setattr(Preview, "exec", lambda self: seen.append(self.windowTitle()))
    window.commands.run("print")
    window.commands.run("print_set")
    assert len(seen) == 2 and seen[1].endswith("The set of drawings")


def test_labels_of_a_unit_of_a_part_and_of_all_have_a_preview(window: Window, monkeypatch, tmp_path: Path) -> None:
    w = window
    seen: list[tuple[str, str, str]] = []
    told = lambda d: seen.append((d.windowTitle(), d.paper.currentText(), d.way.currentData()))  # noqa: E731
    monkeypatch.setattr(Preview, "exec", told)
    w.commands.run("labels_here")
    every = labels_shown(w).text.splitlines()
    placed = next(p for p in w.document.room.placed if f"{p.number}.2\t" in labels_shown(w).text)
    w.document.select((Kind.CELL.of(placed.cell),))
    w.commands.run("labels_here")
    some = labels_shown(w)
    mine = [line for line in every if line.startswith(f"{placed.number}.")]
    assert 0 < len(mine) < len(every) and some.text.splitlines() == mine
    assert paint_shown(w, some, pdf(tmp_path / "labels.pdf", "A3")) == pytest.approx(1.0, abs=1e-3)
    w.look_into()
    w.unit_page.parts.selectRow(1)
    w.commands.run("labels_here")
    assert [t[0] for t in seen] == [
        f"Print: {n}" for n in ("Labels", f"Labels {placed.number}", f"Labels {placed.number}.2")
    ]
    assert labels_shown(w).text.splitlines() == [line for line in mine if line.startswith(f"{placed.number}.2\t")]
    assert {t[1:] for t in seen} == {("A4", "upright")}


@pytest.mark.parametrize(("sheet", "paper"), [("A6, one of 105 × 148", "A6"), ("Letter, 14 of 101.6 × 33.9", "Letter")])
def test_the_preview_starts_with_the_paper_of_the_labels(window: Window, sheet: str, paper: str) -> None:
    window.document.do(lambda job: set_papers(job, "labels", sheet))
    assert preview(window, labels_shown(window)).paper.currentText() == paper


def test_labels_that_are_used_up_stay_free(window: Window, monkeypatch, tmp_path: Path) -> None:
    opened: list[Preview] = []
    monkeypatch.setattr(Preview, "exec", lambda self: opened.append(self))
    window.document.select((Kind.CELL.of(next(p for p in window.document.room.placed if p.number).cell),))
    window.commands.run("labels_here")
    (dialog,) = opened
    assert dialog.used.isVisibleTo(dialog) and dialog.used.maximum() == 20

    def inked() -> list[bool]:
        """Whether there is ink in each of the places of the first sheet."""
        path = tmp_path / f"{dialog.used.value()}.pdf"
        dialog.printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
        dialog.printer.setOutputFileName(str(path))
        dialog.view.print()
        sheet = LABEL_SHEETS[0]
        with pymupdf.open(path) as document:
            dark = document[0].get_pixmap(dpi=50, colorspace=pymupdf.csGRAY)
        found = []
        for i in range(21):
            x, y = sheet.left + (i % 3) * sheet.pitch[0], sheet.top + i // 3 * sheet.pitch[1]
            box = (round(v / 25.4 * 50) for v in (x + 2, y + 2, x + 60, y + 36))
            x0, y0, x1, y1 = box
            found.append(any(dark.pixel(px, py)[0] < 128 for px in range(x0, x1) for py in range(y0, y1)))
        return found

    before = inked()
    count = sum(before)
    assert 0 < count <= 16 and before == [i < count for i in range(21)]
    dialog.used.setValue(5)
    assert inked() == [5 <= i < count + 5 for i in range(21)]


def test_without_parts_there_are_no_labels_to_print(empty_window: Window, monkeypatch) -> None:
    monkeypatch.setattr(Preview, "exec", lambda self: pytest.fail("opened"))
    empty_window.commands.run("labels_here")
    assert "nothing here that gets a label" in empty_window.message.text.text()


def test_what_cannot_be_put_on_paper_says_why(empty_window: Window, monkeypatch) -> None:
    w = empty_window
    opened_: list[str] = []
    monkeypatch.setattr(Preview, "exec", lambda self: opened_.append("x"))
    choose_list(w, "shop", "machine")
    w.commands.run("print")
    assert not opened_ and "nothing to be put on these sheets" in w.message.text.text()
    w.commands.run("copy_picture")
    assert "nothing to be put on these sheets" in w.message.text.text()


def test_pages_of_a_picture_lie_under_one_another_without_their_margins() -> None:
    page = QImage(400, 300, QImage.Format.Format_RGB32)
    page.fill(0xFFFFFFFF)
    for x in range(100, 150):
        page.setPixel(x, 120, 0xFF000000)
    one = as_one([page, page])
    assert one.width() < 100 and one.height() < 100
    empty = QImage(40, 30, QImage.Format.Format_RGB32)
    empty.fill(0xFFFFFFFF)
    assert as_one([empty]).size() == empty.size()
    assert Shown("x").text == ""
