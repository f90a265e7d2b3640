"""Printing what is on screen, with a preview, and copying it as text or as a picture."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date

from PyQt6.QtCore import QMimeData, QRectF, QSizeF
from PyQt6.QtGui import QGuiApplication, QPainter
from PyQt6.QtPrintSupport import QPrinter

from tall_plank.desk.app.onscreen import DPI, MM, MOST_PAGES, SHARP, Shown, as_one, labels_shown, pages_of, shown_now
from tall_plank.desk.app.preview import Preview, fitting_paper
from tall_plank.desk.app.window import Window
from tall_plank.desk.look.texts import counted, tr
from tall_plank.desk.views.sheet import paint_sheet
from tall_plank.measure import PlankError
from tall_plank.papers.drawings import job_sheets

LESS = 0.99
"""Printed at less than this, a page says so."""


def preview(w: Window, shown: Shown, again: Callable[[int], Shown] | None = None, a_page: int = 0) -> Preview:
    """A preview of something on screen, to be printed from. Its paper starts as what is shown is.

    Parameters
    ----------
    again : what is shown where so many labels of the first sheet are used up
    a_page : labels on a sheet

    Raises
    ------
    PlankError where it cannot be put on paper
    """
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setDocName(f"{w.document.job.name} {shown.title}".strip())
    first = pages_of(shown, 40, most=1)
    wide = bool(first) and first[0].width() > first[0].height()
    paper = shown.sheets[0].paper if shown.sheets else fitting_paper(first[0], 40 / MM) if first else "A4"

    def paint(to: QPrinter, used: int) -> None:
        paint_shown(w, again(used) if again is not None and used else shown, to)

    dialog = Preview(w, printer, shown.title, paper, wide, paint, a_page)
    dialog.resize(min(1100, w.width()), min(760, w.height()))
    return dialog


def paint_shown(w: Window, shown: Shown, printer: QPrinter) -> float:
    """Put something on a printer's pages, drawings true to scale; what is larger than the paper is made smaller, and
    says so. The factor that it is printed at."""
    painter = QPainter(printer)
    room = QSizeF(printer.paperRect(QPrinter.Unit.Millimeter).size())
    px = printer.resolution() / MM
    factor = 1.0
    if shown.sheets:
        for i, sheet in enumerate(shown.sheets):
            if i:
                printer.newPage()
            factor = min(factor, room.width() / sheet.size[0], room.height() / sheet.size[1])
            paint_sheet(painter, sheet, px * min(1.0, room.width() / sheet.size[0], room.height() / sheet.size[1]))
    else:
        for i, page in enumerate(pages_of(shown, SHARP)):
            if i:
                printer.newPage()
            size = QSizeF(page.width() / SHARP * MM, page.height() / SHARP * MM)
            less = min(1.0, room.width() / size.width(), room.height() / size.height())
            factor = min(factor, less)
            painter.drawImage(QRectF(0, 0, size.width() * less * px, size.height() * less * px), page)
    painter.end()
    if factor < LESS:
        w.message.tell(f"{tr('The paper is smaller')}: {tr('printed at')} {factor * 100:.0f} %.", "wrong")
    return factor


def print_shown(w: Window) -> None:
    """A preview of what is on screen."""
    try:
        dialog = preview(w, shown_now(w))
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    dialog.exec()


def print_set(w: Window) -> None:
    """A preview of every plan and elevation of the job."""
    works = w.document.workings
    sheets = tuple(job_sheets(works, date.today().isoformat(), shop=w.document.shop))
    preview(w, Shown(tr("The set of drawings"), sheets)).exec()


def print_labels(w: Window) -> None:
    """A preview of labels: of the part that is looked at, of the selected units, or of the whole job."""
    try:
        sheet = w.document.job.papers.labels
        dialog = preview(w, labels_shown(w), lambda used: labels_shown(w, used), sheet.across * sheet.down)
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    dialog.exec()


def copy_picture(w: Window) -> None:
    """Put what is on screen on the clipboard as a picture; a drawing as SVG besides."""
    try:
        shown = shown_now(w)
        image = shown.picture if shown.picture is not None else as_one(pages_of(shown, DPI, MOST_PAGES))
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    data = QMimeData()
    data.setImageData(image)
    if len(shown.sheets) == 1:
        data.setData("image/svg+xml", _svg(shown))
    _to_clipboard(data)
    w.message.tell(f"{shown.title}: {tr('copied as a picture')}, {image.width()} × {image.height()} px.")


def copy_text(w: Window) -> None:
    """Put what is on screen on the clipboard as text: a schedule by tabs, a wall as its runs, a room as its walls."""
    try:
        shown = shown_now(w)
    except PlankError as error:
        w.message.tell(str(error), "wrong")
        return
    if not shown.text.strip():
        w.message.tell(tr("There is no text to copy here."), "wrong")
        return
    data = QMimeData()
    data.setText(shown.text)
    _to_clipboard(data)
    lines = shown.text.count("\n") + 1
    w.message.tell(f"{shown.title}: {counted(lines, 'line', 'lines')} {tr('copied as text')}.")


def _svg(shown: Shown) -> bytes:
    import tempfile
    from pathlib import Path

    from tall_plank.files.svg import write_svg

    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "drawing.svg"
        write_svg(shown.sheets[0], path)
        return path.read_bytes()


def _to_clipboard(data: QMimeData) -> None:
    clipboard = QGuiApplication.clipboard()
    assert clipboard is not None
    clipboard.setMimeData(data)
