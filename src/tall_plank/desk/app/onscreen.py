"""What is on screen, as it goes to paper or to the clipboard: a schedule, a plan, an elevation, a page, a part, the
model."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QRectF
from PyQt6.QtGui import QColor, QImage, QPainter

from tall_plank.desk.look.texts import tr
from tall_plank.desk.look.theme import font
from tall_plank.desk.pages.sets import SetPage
from tall_plank.desk.views.sheet import paint_sheet
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.plan import plan
from tall_plank.drawing.primitives import Dim, Drawing, Text
from tall_plank.drawing.sheets import PAPER, Sheet
from tall_plank.drawing.shows import exactly
from tall_plank.edits.outline import outline_text
from tall_plank.edits.runtext import run_text
from tall_plank.measure import PlankError
from tall_plank.papers import schedules
from tall_plank.papers.drawings import sheet_of
from tall_plank.papers.tables import Table, head_of, text_of
from tall_plank.shop.cutlist import natural

if TYPE_CHECKING:
    from tall_plank.desk.app.window import Window

MM = 25.4


@dataclass(frozen=True)
class Shown:
    """Something on screen.

    Attributes
    ----------
    title : what it is called
    sheets : drawings on paper, true to scale
    write : writes it as PDF, where it is no drawing
    text : it in words, parted by tabs and lines
    picture : it as it looks, where it is neither
    """

    title: str
    sheets: tuple[Sheet, ...] = ()
    write: Callable[[Path], None] | None = None
    text: str = ""
    picture: QImage | None = None


def shown_now(w: Window) -> Shown:
    """What is on screen and has the keys, else what takes most of the window."""
    page = w.center.currentWidget()
    if page is w.center.design:
        return _drawn(w)
    pane = w.center.table_shown()
    if pane is not None and pane.table is not None:
        return _table(w, pane.seen())
    if isinstance(page, SetPage) and page.sheets:
        sheets = tuple(page.sheets)
        return Shown(tr("The set of drawings"), sheets, text="\n".join(f"{s.block.number}\t{s.title}" for s in sheets))
    if page is w.unit_page and w.unit_page.drawing.placed:
        return _drawing(w, w.unit_page.drawing.placed[0].drawing, shop=False)
    if page is w.plans:
        return _shop(w, "saw", tr("Work sheets"))
    if page is w.machine:
        return _shop(w, "setup", tr("Set-up sheets"))
    if page is w.bars:
        from tall_plank.papers.drawings import bar_sheets

        sheets = tuple(bar_sheets(w.document.workings, date.today().isoformat()))
        return Shown(tr("Bars"), sheets, text=_table_text(schedules.bars(w.document.workings), w))
    together = w.together.plan_shown() if page is w.together else None
    if together is not None:
        return _table(w, schedules.boards_of(together))
    return _table(w, schedules.ALL["cut-list"](w.document.workings))


def _drawn(w: Window) -> Shown:
    """A view of the room: the strip's wall, the plan, or the model as it is looked at."""
    doc = w.document
    view = w.center.focused_view()
    if view is w.model:
        image = w.model.grab().toImage()
        return Shown(f"{tr('Model')}, {doc.room.room.name}", picture=image, text=doc.room.room.name)
    if view is w.plan:
        drawing = plan(doc.job, doc.room, doc.workings.made, shows=exactly(doc.shows(fronts=True)))
        words = f"{doc.room.room.name}\n{outline_text(doc.job, doc.room.room)}"
        return _drawing(w, drawing, shop=doc.shop, text=words)
    wall = doc.room.wall(w.strip.current_wall())
    drawing = elevation(doc.job, doc.room, wall, doc.workings.made, shows=exactly(doc.shows()))
    runs = [
        f"{tr(wall.title)}, {tr(r.run.level.value)}: {run_text(doc.job, r.run)}"
        for r in doc.room.runs
        if r.wall.id == wall.id and r.run.cells
    ]
    return _drawing(w, drawing, shop=doc.shop, text="\n".join(runs))


def _drawing(w: Window, drawing: Drawing, *, shop: bool, text: str = "") -> Shown:
    sheet = sheet_of(w.document.workings, drawing, 1, 1, date.today().isoformat(), shop=shop)
    return Shown(drawing.title, (sheet,), text=text or drawing_text(drawing))


def _table(w: Window, table: Table) -> Shown:
    from tall_plank.package import write_table

    works = w.document.workings
    return Shown(table.title, write=lambda path: write_table(works, table, path), text=_table_text(table, w))


def _table_text(table: Table, w: Window) -> str:
    display = w.document.job.display
    lines = [[head_of(c, display) for c in table.columns]]
    lines += [[text_of(v, c, display) for v, c in zip(row, table.columns, strict=True)] for row in table.rows]
    lines += [[text_of(v, c, display) for v, c in zip(row, table.columns, strict=True)] for row in table.totals]
    return "\n".join("\t".join(line) for line in lines)


def _shop(w: Window, what: str, title: str) -> Shown:
    from tall_plank.package import write_shop_sheets

    works = w.document.patient()
    table = schedules.saw_cuts(works) if what == "saw" else schedules.by_hand(works)
    today = date.today().isoformat()
    return Shown(title, write=lambda path: write_shop_sheets(works, what, path, today), text=_table_text(table, w))


def labels_shown(w: Window, used: int = 0) -> Shown:
    """Labels of the part that is looked at, else of the selected units, else of the whole job, on the job's sheets.

    Parameters
    ----------
    used : labels of the first sheet that are used up

    Raises
    ------
    PlankError where nothing of it has a label
    """
    from tall_plank.papers.about import About
    from tall_plank.papers.labels import labels_of, write_label_sheets

    works = w.document.patient()
    labels = labels_of(works)
    numbers = {works.job.find_cell(cell)[2].number for cell in w.document.cells}
    part = w.unit_page.part_number() if w.center.currentWidget() is w.unit_page else ""
    if part or numbers:
        labels = tuple(x for x in labels if (x.part == part if part else x.unit in numbers))
    if not labels:
        raise PlankError(tr("There is nothing here that gets a label."), tr("labels"), tr("Select other units."))
    words = [part] if part else sorted(numbers, key=natural)
    title = f"{tr('Labels')} {', '.join(words)}".strip()
    about = About(works.title, works.job.papers.firm, date.today().isoformat())
    stock = works.job.papers.labels
    rows = "\n".join("\t".join((x.part, x.name, x.size, x.material, x.edges)) for x in labels)
    return Shown(title, write=lambda to: write_label_sheets(labels, to, stock, used, about), text=rows)


def drawing_text(drawing: Drawing) -> str:
    """What stands on a drawing: its title, its words, and its dimensions."""
    words = [item.text for item in drawing.items if isinstance(item, Text)]
    dims = [item.text for item in drawing.items if isinstance(item, Dim)]
    return "\n".join([drawing.title, *dict.fromkeys(words), *dims])


# --- as pictures

DPI = 200
"""Of a picture on the clipboard."""

SHARP = 300
"""Pixels an inch of what is no drawing, on paper."""

WHITE = QColor("#FFFFFF")


def pages_of(shown: Shown, dpi: int, most: int = 1000) -> list[QImage]:
    """Its pages as they print, so many at most, white under them.

    Raises
    ------
    PlankError where it cannot be put on paper
    """
    if shown.sheets:
        return [_page_of(sheet, dpi) for sheet in shown.sheets[:most]]
    if shown.picture is not None:
        return [_on_paper(shown, dpi)]
    return _rendered(shown, dpi, most)


def _page_of(sheet: Sheet, dpi: int) -> QImage:
    wide, high = (round(mm / MM * dpi) for mm in sheet.size)
    image = QImage(wide, high, QImage.Format.Format_RGB32)
    image.fill(WHITE)
    painter = QPainter(image)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    paint_sheet(painter, sheet, dpi / MM)
    painter.end()
    return image


def _on_paper(shown: Shown, dpi: int) -> QImage:
    """A picture in the middle of a page, with its name."""
    assert shown.picture is not None
    wide, high = (round(mm / MM * dpi) for mm in PAPER["A4"])
    image = QImage(wide, high, QImage.Format.Format_RGB32)
    image.fill(WHITE)
    painter = QPainter(image)
    painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
    room = QRectF(0, 0, wide, high).adjusted(dpi * 0.6, dpi * 0.6, -dpi * 0.6, -dpi * 0.9)
    factor = min(room.width() / shown.picture.width(), room.height() / shown.picture.height())
    target = QRectF(0, 0, shown.picture.width() * factor, shown.picture.height() * factor)
    target.moveCenter(room.center())
    painter.drawImage(target, shown.picture)
    painter.setFont(font(max(9, round(dpi * 0.14))))
    painter.drawText(room.bottomLeft() + QRectF(0, 0, 0, dpi * 0.3).bottomLeft(), shown.title)
    painter.end()
    return image


def _rendered(shown: Shown, dpi: int, most: int) -> list[QImage]:
    """The pages of its PDF."""
    import tempfile

    from PyQt6.QtCore import QSize
    from PyQt6.QtPdf import QPdfDocument

    assert shown.write is not None
    found = []
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "page.pdf"
        shown.write(path)
        document = QPdfDocument(None)
        document.load(str(path))
        for i in range(min(most, document.pageCount())):
            points = document.pagePointSize(i)
            size = QSize(round(points.width() / 72 * dpi), round(points.height() / 72 * dpi))
            page = QImage(size, QImage.Format.Format_RGB32)
            page.fill(WHITE)
            painter = QPainter(page)
            painter.drawImage(0, 0, document.render(i, size))
            painter.end()
            found.append(page)
        document.close()
    return found


def as_one(pages: list[QImage]) -> QImage:
    """Pages under one another as one picture, the white about it cut off but for a hair."""
    pages = [_cut(page) for page in pages]
    wide, high = max(p.width() for p in pages), sum(p.height() for p in pages)
    image = QImage(wide, high, QImage.Format.Format_RGB32)
    image.fill(WHITE)
    painter = QPainter(image)
    y = 0
    for page in pages:
        painter.drawImage(0, y, page)
        y += page.height()
    painter.end()
    return image


MOST_PAGES = 20
"""Pages of one picture on the clipboard."""

HAIR = 12
"""px of white that stay about a picture."""


def _cut(page: QImage) -> QImage:
    import numpy as np

    bits = page.constBits()
    assert bits is not None
    shape = (page.height(), page.bytesPerLine() // 4, 4)
    dark = np.frombuffer(bits.asstring(page.sizeInBytes()), np.uint8).reshape(shape)[:, :, 1] < 250
    rows, columns = np.flatnonzero(dark.any(axis=1)), np.flatnonzero(dark.any(axis=0))
    if not len(rows):
        return page
    x0, y0 = max(0, int(columns[0]) - HAIR), max(0, int(rows[0]) - HAIR)
    x1, y1 = min(page.width(), int(columns[-1]) + HAIR), min(page.height(), int(rows[-1]) + HAIR)
    return page.copy(x0, y0, x1 - x0, y1 - y0)
