"""Tables and drawings on paper as PDF, in the shipped typeface."""

from __future__ import annotations

import io
from collections.abc import Iterable, Sequence
from pathlib import Path
from typing import Any

from tall_plank import assets
from tall_plank.drawing.primitives import DASHES, INK, PEN_MM, QUIET, TONES, Arc, Drawing, Line, Pen, Shape, Text
from tall_plank.drawing.sheets import Sheet, View, frame_of, images_of
from tall_plank.drawing.shown import shown
from tall_plank.drawing.words import ground_of
from tall_plank.formats.writing import put
from tall_plank.job.papers import ListPaper
from tall_plank.measure import DisplayUnit
from tall_plank.measure.remembered import lasting
from tall_plank.papers.about import About, signed
from tall_plank.papers.pdflayers import Layers
from tall_plank.papers.tables import Table, Value, groups_of, head_of, text_of

REGULAR, STRONG = "PlankText", "PlankStrong"


@lasting
def fonts() -> tuple[str, str]:
    """Register the shipped face once; returns the names of regular and semibold."""
    from reportlab.pdfbase import pdfmetrics
    from reportlab.pdfbase.ttfonts import TTFont

    pdfmetrics.registerFont(TTFont(REGULAR, str(assets.REGULAR)))
    pdfmetrics.registerFont(TTFont(STRONG, str(assets.SEMIBOLD)))
    return REGULAR, STRONG


PICTURE_HIGH = 62.0
"""mm of paper for the picture above a table, at least."""

PICTURE_MOST = 120.0
"""mm of paper for it where its table leaves more."""

ROW_HIGH = 5.5
"""mm of paper that a row takes, about."""


def write_tables(
    tables: Iterable[Table],
    path: Path,
    job_name: str,
    display: DisplayUnit = DisplayUnit.MM,
    head: str = "",
    pictures: Sequence[Drawing | None] = (),
    *,
    upright: bool = False,
    about: About = About(),
    paper: ListPaper = "A4",
) -> None:
    """Write tables, each from a new page, lying where a table has many columns unless it shall stand `upright`, below
    its picture."""
    from reportlab.lib.pagesizes import A4, LETTER, landscape
    from reportlab.lib.styles import ParagraphStyle
    from reportlab.lib.units import mm
    from reportlab.platypus import PageBreak, Paragraph, SimpleDocTemplate, Spacer

    regular, strong = fonts()
    tables = list(tables)
    wide = not upright and any(len(t.columns) > 6 for t in tables)
    size = A4 if paper == "A4" else LETTER
    page = landscape(size) if wide else size
    body = ParagraphStyle("body", fontName=regular, fontSize=8.5, leading=10.5, textColor=INK)
    right = ParagraphStyle("right", parent=body, alignment=2)
    bold = ParagraphStyle("bold", parent=body, fontName=strong)
    bold_right = ParagraphStyle("bold_right", parent=bold, alignment=2)
    title = ParagraphStyle("title", parent=bold, fontSize=16, leading=20)
    quiet = ParagraphStyle("quiet", parent=body, textColor=QUIET)
    width = page[0] - 30 * mm
    story: list[Any] = []
    for n, table in enumerate(tables):
        if n:
            story.append(PageBreak())
        story += [Paragraph(_escape(table.title), title), Paragraph(_escape(table.subtitle), quiet), Spacer(1, 4 * mm)]
        if n < len(pictures) and (drawing := pictures[n]) is not None:
            free = page[1] / mm - 70.0 - ROW_HIGH * (len(table.rows) + len(table.totals))
            story += [_picture(drawing, width / mm, min(max(free, PICTURE_HIGH), PICTURE_MOST)), Spacer(1, 4 * mm)]
        story.append(_grid(table, display, width, (right, body), (bold_right, bold)))
        if table.note:
            story += [Spacer(1, 4 * mm), Paragraph(_escape(table.note), quiet)]

    def footer(canvas: Any, doc: Any) -> None:
        if doc.page == 1:
            signed(canvas, about if about.title else About(job_name))
        canvas.setFont(regular, 8)
        canvas.setFillColor(_ink(QUIET))
        canvas.drawString(15 * mm, 9 * mm, head or job_name)
        canvas.drawRightString(page[0] - 15 * mm, 9 * mm, f"page {doc.page}")

    buffer = io.BytesIO()
    SimpleDocTemplate(
        buffer,
        pagesize=page,
        leftMargin=15 * mm,
        rightMargin=15 * mm,
        topMargin=14 * mm,
        bottomMargin=16 * mm,
        invariant=1,
    ).build(story, onFirstPage=footer, onLaterPages=footer)
    put(path, buffer.getvalue())


def _grid(table: Table, display: DisplayUnit, width: float, plain: tuple[Any, Any], strong: tuple[Any, Any]) -> Any:
    """The rows of a table under its heads, with its groups and totals. `width`: points. `plain`, `strong`: the looks
    of numbers and of texts."""
    from reportlab.lib import colors
    from reportlab.pdfbase.pdfmetrics import stringWidth
    from reportlab.platypus import LongTable, Paragraph, TableStyle

    total = sum(c.wide for c in table.columns)
    widths = [width * c.wide / total for c in table.columns]

    def cell(text: str, i: int, looks: tuple[Any, Any]) -> Any:
        """A text that has room stands as it is, which is quick; another one is wrapped."""
        look = looks[0] if table.columns[i].is_number else looks[1]
        if i == 0 and text in table.links:
            return Paragraph(f'<a href="{_escape(text)}" color="{LINK}">{_escape(text)}</a>', look)
        if stringWidth(text, look.fontName, look.fontSize) <= widths[i] - SIDES - 0.5 and "\n" not in text:
            return text
        return Paragraph(_escape(text), look)

    rows = [[cell(head_of(c, display), i, strong) for i, c in enumerate(table.columns)]]
    lines: list[tuple[tuple[Value, ...], bool]] = []
    heads: list[int] = []
    for group in groups_of(table, table.group):
        if group.head:
            heads.append(len(lines) + 1)
            lines.append((group.head, True))
        lines += [(table.rows[i], False) for i in group.rows]
    lines += [(r, True) for r in table.totals]
    for values, is_strong in lines:
        looks = strong if is_strong else plain
        texts = (text_of(v, c, display) for v, c in zip(values, table.columns, strict=True))
        rows.append([cell(text, i, looks) for i, text in enumerate(texts)])
    marks = [("BACKGROUND", (0, i), (-1, i), colors.HexColor("#F1EEE7")) for i in heads]
    look, bold = plain[1], strong[1]
    bolds = [0, *(i for i, (_, is_strong) in enumerate(lines, 1) if is_strong)]
    grid = LongTable(rows, colWidths=widths, repeatRows=1)
    grid.setStyle(
        TableStyle(
            [
                ("FONT", (0, 0), (-1, -1), look.fontName, look.fontSize, look.leading),
                ("TEXTCOLOR", (0, 0), (-1, -1), colors.HexColor(INK)),
                *(("FONT", (0, i), (-1, i), bold.fontName, bold.fontSize, bold.leading) for i in bolds),
                *(("ALIGN", (i, 0), (i, -1), "RIGHT") for i, c in enumerate(table.columns) if c.is_number),
                ("LINEBELOW", (0, 0), (-1, 0), 0.8, colors.HexColor(INK)),
                ("LINEBELOW", (0, 1), (-1, -1), 0.25, colors.HexColor("#CFC8BA")),
                ("VALIGN", (0, 0), (-1, -1), "TOP"),
                ("TOPPADDING", (0, 0), (-1, -1), 2),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 2.5),
                ("LEFTPADDING", (0, 0), (-1, -1), LEFT_PAD),
                ("RIGHTPADDING", (0, 0), (-1, -1), SIDES - LEFT_PAD),
                *marks,
            ]
        )
    )
    return grid


LINK = "#2F5D50"

LEFT_PAD, SIDES = 2.0, 6.0
"""Points left free in a cell before its text, and on both sides of it together."""


def _picture(drawing: Drawing, width: float, high: float) -> Any:
    """A drawing on a page among other things, at the largest scale that fits (mm of paper); not to a standard scale."""
    from reportlab.lib.units import mm
    from reportlab.platypus.flowables import Flowable

    left, below, above = 14.0, 12.0, 8.0
    scale = max(drawing.width / (width - left - 4.0), drawing.height / (high - below - above))
    high = drawing.height / scale + below + above

    class Picture(Flowable):  # type: ignore[misc]
        def wrap(self, _wide: float, _high: float) -> tuple[float, float]:
            return width * mm, high * mm

        def draw(self) -> None:
            def at(x: float, y: float) -> tuple[float, float]:
                return (left + (x - drawing.x0) / scale) * mm, (below + (y - drawing.y0) / scale) * mm

            for item in shown(drawing, scale).items:
                _replay(self.canv, item, at, scale)

    return Picture()


@lasting
def _ink(color: str) -> Any:
    """A color as the canvas takes it at once."""
    from reportlab.lib import colors

    return colors.HexColor(color)


def _escape(text: str) -> str:
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")


def write_sheets(sheets: Iterable[Sheet], path: Path, title: str, about: About = About()) -> None:
    """Write drawings, one page a sheet, true to scale."""
    from reportlab.lib.units import mm
    from reportlab.pdfgen.canvas import Canvas

    fonts()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, invariant=1, pdfVersion=(1, 5))
    signed(canvas, about if about.title else About(title))
    layers = Layers(canvas)
    for i, sheet in enumerate(sheets):
        canvas.setPageSize((sheet.size[0] * mm, sheet.size[1] * mm))
        # A bookmark for every sheet, by its number and its title.
        canvas.bookmarkPage(f"sheet{i}")
        words = "  ".join(t for t in (sheet.block.number, sheet.title) if t)
        canvas.addOutlineEntry(words or title, f"sheet{i}")
        _sheet(canvas, sheet, layers)
        canvas.showPage()
    layers.close()
    canvas.save()
    put(path, buffer.getvalue())


def _sheet(canvas: Any, sheet: Sheet, layers: Layers) -> None:
    from reportlab.lib.units import mm
    from reportlab.lib.utils import ImageReader

    canvas.setLineJoin(1)
    for view in sheet.views:

        def at(x: float, y: float, view: View = view) -> tuple[float, float]:
            u, v = view.at(x, y)
            return u * mm, v * mm

        for item in view.shown.items:
            layers.draw_on(item.layer.value)
            _replay(canvas, item, at, view.scale)
    layers.draw_on("")
    for x, y, wide, high, data in images_of(sheet):
        canvas.drawImage(ImageReader(io.BytesIO(data)), x * mm, y * mm, wide * mm, high * mm)
    boxes, texts = frame_of(sheet)
    canvas.setStrokeColor(_ink(INK))
    canvas.setDash()
    for x, y, wide, high, line in boxes:
        canvas.setLineWidth(line * mm)
        canvas.rect(x * mm, y * mm, wide * mm, high * mm)
    for t in texts:
        canvas.setFillColor(_ink(QUIET if t.quiet else INK))
        canvas.setFont(STRONG if t.strong else REGULAR, t.points)
        canvas.drawString(t.x * mm, t.y * mm, t.text)


def _pen(canvas: Any, pen: Pen) -> None:
    from reportlab.lib.units import mm

    width = PEN_MM[pen]
    canvas.setStrokeColor(_ink(INK))
    canvas.setLineWidth(width * mm)
    # Round ends would close the gaps of broken lines.
    canvas.setLineCap(0 if pen in DASHES else 1)
    canvas.setDash([part * mm for part in DASHES.get(pen, ())], 0)


def _replay(canvas: Any, item: Line | Shape | Arc | Text, at: Any, scale: float) -> None:
    from reportlab.lib.units import mm

    match item:
        case Line():
            _pen(canvas, item.pen)
            canvas.line(*at(item.x1, item.y1), *at(item.x2, item.y2))
        case Shape():
            _pen(canvas, item.pen)
            path = canvas.beginPath()
            path.moveTo(*at(*item.points[0]))
            for point in item.points[1:]:
                path.lineTo(*at(*point))
            path.close()
            if item.fill:
                canvas.setFillColor(_ink(TONES.get(item.fill, item.fill)))
            canvas.drawPath(path, stroke=int(item.pen is not Pen.NONE), fill=int(bool(item.fill)))
        case Arc():
            _pen(canvas, item.pen)
            x1, y1 = at(item.x - item.radius, item.y - item.radius)
            x2, y2 = at(item.x + item.radius, item.y + item.radius)
            canvas.arc(x1, y1, x2, y2, item.start, item.sweep)
        case Text():
            x, y = at(item.x, item.y)
            canvas.saveState()
            canvas.translate(x, y)
            canvas.rotate(item.angle)
            if item.backed:
                x0, y0, wide, high = ground_of(item)
                canvas.setFillColor(_ink("#FFFFFF"))
                canvas.rect(x0 * mm, y0 * mm, wide * mm, high * mm, stroke=0, fill=1)
            canvas.setFillColor(_ink(QUIET if item.quiet else INK))
            canvas.setFont(STRONG if item.bold else REGULAR, assets.em_of(item.size) * mm)
            draw = {"left": canvas.drawString, "right": canvas.drawRightString, "middle": canvas.drawCentredString}
            draw[item.align](0, item.rise * mm, item.text)
            canvas.restoreState()
