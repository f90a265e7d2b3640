"""A picture of what the shop gets on paper: a work sheet of the saw, a set-up sheet, handwork, a part's label."""

from __future__ import annotations

import tempfile
from pathlib import Path

import msgspec
from PyQt6.QtCore import QPoint, QSize, Qt
from PyQt6.QtGui import QColor, QImage, QPainter
from PyQt6.QtPdf import QPdfDocument

from tall_plank.drawing.primitives import Drawing
from tall_plank.edits.things.detail import add_detail
from tall_plank.papers.labels import label_picture, labels_of
from tall_plank.papers.machinesheets import hand_tables, setup_tables
from tall_plank.papers.tables import Table
from tall_plank.papers.worksheets import work_sheets
from tall_plank.papers.write_pdf import write_tables
from tall_plank.shop.sawsteps import packs_of
from tall_plank.workings import Workings

WIDE, HIGH = 1280, 800
PAGE = QSize(408, 577)
"""Pixels of a page."""


def sheets_picture(w: Workings, part: str) -> QImage:
    """Three sheets side by side with a label on them. `part`: whose set-up, handwork and label are shown."""
    saw = msgspec.structs.replace(w.job.cutting, pack=60.0)
    packs = packs_of(w.plan, saw, w.job.stock)
    tables, pictures = work_sheets(w.plan, saw, w.job.stock, w.job.display)
    at = next((i for i, p in enumerate(packs) if len(p.boards) > 1), 0)
    files = w.machine_files
    setups = setup_tables([p for p in files.programs if p.name == part])
    hands = hand_tables({i.number: i.part for i in w.made.parts()}, files.left, w.job.display)
    own = next((i for i, t in enumerate(hands[0]) if part in t.subtitle.split(" · ")[0].split(", ")), 0)
    image = QImage(WIDE, HIGH, QImage.Format.Format_RGB32)
    image.fill(QColor("#DAD5CA"))
    painter = QPainter(image)
    chosen = ((tables[at], pictures[at]), (setups[0][0], setups[1][0]), (hands[0][own], hands[1][own]))
    for i, (table, picture) in enumerate(chosen):
        painter.drawImage(QPoint(14 + i * (PAGE.width() + 14), 14), _page(w, table, picture))
    label = QImage.fromData(label_picture(next(x for x in labels_of(w) if x.part == part)))
    small = label.scaledToHeight(190, Qt.TransformationMode.SmoothTransformation)
    painter.drawImage(QPoint((WIDE - small.width()) // 2, HIGH - small.height() - 10), small)
    painter.end()
    return image


def _page(w: Workings, table: Table, picture: Drawing | None) -> QImage:
    """The first page of a table as it prints."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "sheet.pdf"
        write_tables([table], path, w.job.name, w.job.display, w.title, [picture], upright=True)
        document = QPdfDocument(None)
        document.load(str(path))
        page = document.render(0, PAGE * 2)
        document.close()
    out = QImage(page.size(), QImage.Format.Format_RGB32)
    out.fill(QColor("#FFFFFF"))
    painter = QPainter(out)
    painter.drawImage(0, 0, page)
    painter.end()
    return out.scaled(PAGE, Qt.AspectRatioMode.IgnoreAspectRatio, Qt.TransformationMode.SmoothTransformation)


def drawings_picture(w: Workings) -> QImage:
    """Six sheets of drawings: the site's setting out, a picture, a rod, details, a unit with its sections, parts."""
    from tall_plank.desk.views.sheet import paint_sheet
    from tall_plank.papers.partsheets import part_sheets
    from tall_plank.papers.sets import set_sheets
    from tall_plank.papers.unitsheets import unit_sheets

    day = "2026-12-02"
    job = w.job
    for x, z, cut in ((None, None, "upright"), (3000.0, 600.0, "level")):
        job = add_detail(job, "r1", "A", x, z, cut).job
    client, shop = set_sheets(w, "client", day), set_sheets(Workings(job), "shop", day)
    sheets = [
        set_sheets(w, "site", day)[1],
        next(s for s in client if s.block.number.endswith("C1V1")),
        next(s for s in shop if "rod of wall A" in s.title),
        next(s for s in shop if "detail a" in s.title),
        next(s for s in unit_sheets(w, day) if s.title.startswith("A4 ")),
        next(s for s in part_sheets(w, day) if not s.upright and len(s.views) > 1),
    ]
    # Two rows of three lying sheets.
    wide = (WIDE - 4 * 10) / 3
    high = wide / 2**0.5
    image = QImage(WIDE, round(2 * high + 3 * 10), QImage.Format.Format_RGB32)
    image.fill(QColor("#DAD5CA"))
    painter = QPainter(image)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    for i, sheet in enumerate(sheets):
        scale = min(wide / sheet.size[0], high / sheet.size[1])
        x = 10 + (i % 3) * (wide + 10) + (wide - sheet.size[0] * scale) / 2
        y = 10 + (i // 3) * (high + 10) + (high - sheet.size[1] * scale) / 2
        painter.save()
        painter.translate(x, y)
        paint_sheet(painter, sheet, scale)
        painter.restore()
    painter.end()
    return image
