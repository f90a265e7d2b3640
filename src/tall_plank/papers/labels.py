"""Labels for parts: number, name, sizes, edges, the part's place on its board, Code 128 and QR; as sheets in PDF, or
one by one as pictures for a label printer.

A label is laid out once, in mm from its upper left corner, onto a pen that draws boxes and texts.
"""

from __future__ import annotations

import io
import math
from collections.abc import Iterator, Sequence
from itertools import groupby
from pathlib import Path
from typing import Any, Protocol

import msgspec

from tall_plank import assets
from tall_plank.formats.writing import put
from tall_plank.job.cutting import Cutting
from tall_plank.job.papers import LABEL_SHEETS, LabelSheet
from tall_plank.making import NumberedPart, Part
from tall_plank.measure import DisplayUnit, format_length
from tall_plank.papers.about import About, signed
from tall_plank.papers.barcodes import QUIET, code128, qr
from tall_plank.papers.partlists import edge_marks
from tall_plank.shop.boards import Plan
from tall_plank.shop.machine.model import Machine
from tall_plank.shop.machine.setup import lies_across, stop_edges
from tall_plank.shop.machine.work import side_up, worked_on
from tall_plank.shop.sawsteps import falling
from tall_plank.workings import Workings


class Place(msgspec.Struct, frozen=True):
    """Where a part lies on its board or blank: its number, its size, and every part's box (x, y, length, width), mm."""

    board: int
    size: tuple[float, float]
    boxes: tuple[tuple[float, float, float, float], ...]
    mine: int
    word: str = "board"


class Label(msgspec.Struct, frozen=True):
    """What stands on the label of a part. `code` is what its barcodes say."""

    part: str
    name: str
    unit: str
    job: str
    material: str
    size: str
    cut: str
    edges: str
    code: str
    place: Place | None = None
    stop: str = ""
    """What lies at the machine's stops: the corner that its mark shows."""
    corner: tuple[bool, bool] = (False, False)
    """Whether that corner is on the right of the part as it lies, and at the back."""


class Pen(Protocol):
    """Draws in mm from the upper left corner of a label. `dot`: mm of the coarsest printer's dot that it is for."""

    dot: float

    def box(self, x: float, y: float, wide: float, high: float, *, fill: bool, heavy: bool = False) -> None: ...

    def text(self, x: float, y: float, size: float, text: str, *, bold: bool = False) -> None: ...


def labels_of(w: Workings) -> tuple[Label, ...]:
    """A label for every part that is cut, in the order of the boards, so that they are stuck on as the saw goes."""
    display = w.job.display
    parts = {i.number: i for i in w.made.parts()}
    found: list[Label] = []
    seen: set[str] = set()
    for name, number, i in fallen(w.plan, w.job.cutting):
        seen.add(name)
        found.append(label_on(w, parts[name], w.plan, number, i))
    for number, bar in enumerate(w.bars.bars, 1):
        blank = w.job.stock.board_by_code(bar.profile)
        if blank is not None:
            at, spans = w.job.cutting.trim, []
            for name, mm in bar.pieces:
                spans.append((at, 0.0, mm, min(blank.width, parts[name].part.cut_width)))
                at += mm + w.job.cutting.kerf
            for i, (name, _) in enumerate(bar.pieces):
                seen.add(name)
                place = Place(number, (bar.length, blank.width), tuple(spans), i, "bar")
                found.append(_label(w, parts[name], display, place))
    cut = {n for row in w.cut_rows for n in row.numbers}
    found += [_label(w, parts[n], display, None) for n in parts if n in cut and n not in seen]
    return tuple(found)


def fallen(plan: Plan, saw: Cutting) -> Iterator[tuple[str, int, int]]:
    """Every part of a plan as it falls: its name, the number of its board, its place among the board's parts."""
    for number, board in enumerate(plan.boards, 1):
        places = {p.part: i for i, p in enumerate(board.parts)}
        for name in falling(number, board, plan, saw):
            yield name, number, places[name]


def label_on(w: Workings, item: NumberedPart, plan: Plan, number: int, place: int) -> Label:
    """The label of a job's part that lies on a board (from 1) of a plan, at a place among its parts."""
    board = plan.boards[number - 1]
    boxes = tuple((p.x, p.y, p.length, p.width) for p in board.parts)
    return _label(w, item, w.job.display, Place(number, (board.length, board.width), boxes, place))


def _label(w: Workings, item: NumberedPart, display: DisplayUnit, place: Place | None) -> Label:
    part = item.part

    def size(*lengths: float) -> str:
        return " x ".join(format_length(mm, display) for mm in lengths)

    return Label(
        item.number,
        part.name,
        item.unit,
        w.job.name,
        part.material,
        size(part.length, part.width, part.thickness),
        size(part.cut_length, part.cut_width),
        edge_marks(part.edges, part.banded_shapes, display),
        _code(w.job.number, item.number),
        place,
        *_stop_of(
            w.router, part, routed=w.job.cutting.mode == "router" and place is not None and place.word == "board"
        ),
    )


def _stop_of(machine: Machine, part: Part, *, routed: bool) -> tuple[str, tuple[bool, bool]]:
    """Which edges go to the stops, and which corner that is: of the side that is worked first, or where the part comes
    out of a routed board of its second one, if that has work."""
    up = side_up(part)
    if routed:
        up = "A" if up == "B" else "B"
        if not worked_on(part, up):
            return "", (False, False)
    edges = stop_edges(machine, up, turned=lies_across(machine, part))
    if not all(edges):
        return "", (False, False)
    back = "L1" if up == "B" else "L2"
    return f"{up} up, {' '.join(sorted(edges, reverse=True))}", ("W2" in edges, back in edges)


def _code(job: str, part: str) -> str:
    """Job and part for a scanner, plain characters only."""
    text = f"{job} {part}".strip()
    return "".join(c if 32 <= ord(c) < 127 else "-" for c in text)[:40]


BARS_HIGH = 6.2
"""mm; height of the bars of a Code 128 symbol."""

ROOMY = (55.0, 34.0)
"""mm; a smaller label has no room for bars, nor for the picture of its board."""


def draw_label(pen: Pen, label: Label, size: tuple[float, float]) -> None:
    """Lay a label out on a pen: number and sizes on the left, the QR symbol and its board on the right, bars below. A
    small one has the number, the sizes and the QR symbol only."""
    wide, high = size
    roomy = wide >= ROOMY[0] and high >= ROOMY[1]
    pad = 2.2 if roomy else 1.4
    side = min(13.5, high - 2 * pad, wide * 0.4)
    _qr(pen, label.code, wide - pad - side, pad, side)
    room = wide - 2 * pad - side - 1.5
    big = 5.2 if roomy else min(4.2, high * 0.2)
    pen.text(pad, pad + big * 0.9, big, _cut(label.part, big, room), bold=True)
    lines = (label.name, label.size, f"cut {label.cut}", f"{label.edges}   {label.material}")
    step = 3.3 if roomy else 2.7
    for i, text in enumerate(lines):
        y = pad + big + (i + 1) * step
        if y > high - pad + 0.3:
            break
        pen.text(pad, y, step * 0.7, _cut(text, step * 0.7, room), bold=i == 1)
    if not roomy:
        return
    foot = high - pad
    if label.stop:
        _stop_mark(pen, label, pad, foot - BARS_HIGH - 3.6)
    _bars(pen, label, pad, foot - 2.6 - BARS_HIGH, wide - 2 * pad)
    pen.text(pad, foot, 2.0, _cut(f"{label.job} · {label.code}", 2.0, wide - 2 * pad - 20.0))
    if label.place is not None:
        top = pad + side + 1.0
        room_high = foot - 2.6 - BARS_HIGH - 0.8 - top
        _place(pen, label.place, (wide - pad - 17.0, top), (17.0, room_high))
        pen.text(wide - pad - 17.0, foot, 2.0, f"{label.place.word} {label.place.board}")


def _qr(pen: Pen, code: str, x: float, y: float, side: float) -> None:
    """A QR symbol. `side`: mm."""
    symbol = qr(code)
    module = side / len(symbol)
    for row, line in enumerate(symbol):
        col = 0
        for dark, run in groupby(line):
            count = len(list(run))
            if dark:
                pen.box(x + col * module, y + row * module, count * module, module, fill=True)
            col += count


def _bars(pen: Pen, label: Label, x: float, y: float, wide: float) -> None:
    """A Code 128 symbol of the job and the part; of the part alone where its modules would be less than two dots of the
    printer wide, which no reader takes for sure; none where that has no room either."""
    for code in (label.code, label.part):
        bars = code128(code)
        modules = sum(bars) + 2 * QUIET
        unit = math.floor(min(0.4, wide / modules) / pen.dot + 1e-6) * pen.dot
        if unit >= 2 * pen.dot - 1e-6:
            break
    else:
        return
    at = x + QUIET * unit
    for i, width in enumerate(bars):
        if i % 2 == 0:
            pen.box(at, y, width * unit, BARS_HIGH, fill=True)
        at += width * unit


def _stop_mark(pen: Pen, label: Label, x: float, y: float) -> None:
    """A part with its corner at the stops filled in, and which edges these are."""
    wide, high, corner = 5.0, 3.0, 1.3
    pen.box(x, y - high, wide, high, fill=False)
    on_right, at_back = label.corner
    pen.box(x + wide - corner if on_right else x, y - high if at_back else y - corner, corner, corner, fill=True)
    pen.text(x + wide + 1.2, y - 0.6, 2.1, label.stop)


def _place(pen: Pen, place: Place, corner: tuple[float, float], room: tuple[float, float]) -> None:
    """The board small, with the part filled in."""
    scale = min(room[0] / place.size[0], room[1] / place.size[1])
    pen.box(corner[0], corner[1], place.size[0] * scale, place.size[1] * scale, fill=False, heavy=True)
    for i, (x, y, long, wide) in enumerate(place.boxes):
        top = corner[1] + (place.size[1] - y - wide) * scale
        pen.box(corner[0] + x * scale, top, long * scale, wide * scale, fill=i == place.mine)


def _cut(text: str, size: float, room: float) -> str:
    """A text as far as it has room."""
    height = size * 0.66
    while text and assets.text_width(text, height) > room:
        text = text[:-2].rstrip() + "…" if len(text) > 2 else ""
    return text


# --- sheets


class _PdfPen:
    """Draws on a page; `size` is that of a letter's em in mm."""

    dot = 25.4 / 200  # an office printer's, at its coarsest

    def __init__(self, canvas: Any, x: float, y: float) -> None:
        self.canvas, self.x, self.y = canvas, x, y

    def box(self, x: float, y: float, wide: float, high: float, *, fill: bool, heavy: bool = False) -> None:
        from reportlab.lib.units import mm

        if not fill:
            self.canvas.setLineWidth((0.3 if heavy else 0.12) * mm)
        self.canvas.rect(
            (self.x + x) * mm, (self.y - y - high) * mm, wide * mm, high * mm, stroke=0 if fill else 1, fill=int(fill)
        )

    def text(self, x: float, y: float, size: float, text: str, *, bold: bool = False) -> None:
        from reportlab.lib.units import mm

        from tall_plank.papers.write_pdf import fonts

        self.canvas.setFont(fonts()[1 if bold else 0], size * mm)
        self.canvas.drawString((self.x + x) * mm, (self.y - y) * mm, text)


def write_label_sheets(
    labels: Sequence[Label], path: Path, stock: LabelSheet = LABEL_SHEETS[0], skip: int = 0, about: About = About()
) -> None:
    """Sheets of labels as PDF.

    Parameters
    ----------
    skip : labels of the first sheet that are used up
    """
    from reportlab.lib.units import mm
    from reportlab.pdfgen.canvas import Canvas

    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=(stock.paper[0] * mm, stock.paper[1] * mm), invariant=1)
    signed(canvas, about, "Labels")
    a_page = stock.across * stock.down
    for i, label in enumerate(labels, skip % a_page):
        if i and i % a_page == 0:
            canvas.showPage()
        row, col = divmod(i % a_page, stock.across)
        x = stock.left + col * stock.pitch[0]
        y = stock.paper[1] - stock.top - row * stock.pitch[1]
        draw_label(_PdfPen(canvas, x, y), label, stock.size)
    canvas.save()
    put(path, buffer.getvalue())


# --- single labels


class _PicturePen:
    """Draws on a picture."""

    def __init__(self, draw: Any, dots: float) -> None:
        self.draw, self.dots = draw, dots
        self.dot = 1.0 / dots

    def box(self, x: float, y: float, wide: float, high: float, *, fill: bool, heavy: bool = False) -> None:
        corners = [round(v * self.dots) for v in (x, y, x + wide, y + high)]
        corners[2], corners[3] = max(corners[0], corners[2] - 1), max(corners[1], corners[3] - 1)
        if fill:
            self.draw.rectangle(corners, fill=0)
        else:
            self.draw.rectangle(corners, outline=0, width=2 if heavy else 1)

    def text(self, x: float, y: float, size: float, text: str, *, bold: bool = False) -> None:
        from PIL import ImageFont

        face = ImageFont.truetype(str(assets.SEMIBOLD if bold else assets.REGULAR), max(6, round(size * self.dots)))
        self.draw.text((x * self.dots, y * self.dots), text, font=face, fill=0, anchor="ls")


def label_picture(label: Label, size: tuple[float, float] = (80.0, 50.0), dpi: int = 300) -> bytes:
    """One label as a black-and-white PNG that says its dots an inch. `size`: mm."""
    from PIL import Image, ImageDraw

    dots = dpi / 25.4
    image = Image.new("L", (round(size[0] * dots), round(size[1] * dots)), 255)
    draw_label(_PicturePen(ImageDraw.Draw(image), dots), label, size)
    buffer = io.BytesIO()
    image.convert("1").save(buffer, "PNG", dpi=(dpi, dpi))
    return buffer.getvalue()
