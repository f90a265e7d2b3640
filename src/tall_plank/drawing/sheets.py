"""Sheets: views on paper at standard scales, with a frame, a title block, notes and a bar to check the print by."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence

import msgspec

from tall_plank.assets import cap_of, text_width
from tall_plank.drawing.primitives import Drawing, Shape
from tall_plank.drawing.shown import Shown, shown
from tall_plank.measure.remembered import remembered

PAPER = {
    "A1": (841.0, 594.0), "A2": (594.0, 420.0), "A3": (420.0, 297.0), "A4": (297.0, 210.0),
    "Broadsheet": (558.8, 431.8), "Tabloid": (431.8, 279.4), "Letter": (279.4, 215.9),
}  # fmt: skip
"""Lying sizes, mm: after ISO 216, and in inches 22 x 17, 17 x 11 and 11 x 8 1/2 (ANSI/ASME Y14.1, from memory)."""

SERIES = (("A1", "A2", "A3", "A4"), ("Broadsheet", "Tabloid", "Letter"))
"""Papers that go together, the largest first."""

SCALES = (1, 2, 5, 10, 20, 50, 100, 200, 500)
"""Reductions after ISO 5455 (from memory): 1:2, 1:5, 1:10 and their tenfolds."""

STEPS = (1.0, 1.25, 1.6, 2.0, 2.5, 3.2, 4.0, 5.0, 6.3, 8.0)
"""Preferred numbers of the series R10 (ISO 3, from memory): the sizes of pictures, which have no scale."""

LEFT, EDGE = 20.0, 10.0
"""Frame after ISO 5457 (from memory): 20 mm on the left, 10 mm elsewhere."""

ROW = 10.0
BLOCK = (180.0, 3 * ROW)
"""Title block 180 mm wide after ISO 7200 (from memory), at the lower right."""

BAR = 100.0
"""mm; length of the bar to check a print by."""

FOOT = 9.0
"""mm; the strip over the block that holds the bar where there is no room beside it."""

CLEAR = 4.0
"""mm of paper between the frame and what is drawn."""

FULL = 0.35
"""Share of its frame that a view fills at the least; else it shares its sheet where there is another."""

POINT = 25.4 / 72
"""mm."""

SMALLEST = 7.8
"""Points; capitals of 1.8 mm, the smallest of ISO 3098 (from memory)."""


class FrameText(msgspec.Struct, frozen=True):
    """A text of the frame: place in mm from the lower left, its em in points, whether it is strong or quiet."""

    x: float
    y: float
    text: str
    points: float
    strong: bool = False
    quiet: bool = False


class Block(msgspec.Struct, frozen=True):
    """What a title block says. ISO 7200 (from memory) asks for owner, number, date, sheet, title, approval, creator
    and kind of document."""

    title: str
    owner: str = ""
    job: str = ""
    client: str = ""
    kind: str = ""
    number: str = ""
    revision: str = ""
    sheet: str = ""
    creator: str = ""
    approved: str = ""
    date: str = ""
    units: str = ""


class View(msgspec.Struct, frozen=True):
    """A drawing at a place on a sheet.

    Attributes
    ----------
    scale : real mm per mm of paper
    x, y : place on paper (mm from the lower left) of the drawing's own (0, 0)
    caption : under it, where a sheet has several
    image : a PNG or JPEG file that fills it; empty: it is drawn
    """

    drawing: Drawing
    scale: float
    x: float
    y: float
    caption: str = ""
    image: bytes = b""

    @property
    def shown(self) -> Shown:
        """What of it stands on paper."""
        return shown(self.drawing, self.scale)

    def at(self, x: float, y: float) -> tuple[float, float]:
        """A place of the drawing on paper, mm from the lower left."""
        return self.x + x / self.scale, self.y + y / self.scale


class Sheet(msgspec.Struct, frozen=True):
    """Views on a sheet.

    Attributes
    ----------
    paper : name of the size
    upright : whether the paper stands
    logo : the shop's mark, a PNG or JPEG file, and how wide it is for its height
    notes : lines at the foot, beside the title block
    """

    views: tuple[View, ...]
    paper: str
    block: Block
    notes: tuple[str, ...] = ()
    upright: bool = False
    logo: bytes = b""
    logo_ratio: float = 1.0

    @property
    def size(self) -> tuple[float, float]:
        wide, high = PAPER[self.paper]
        return (high, wide) if self.upright else (wide, high)

    @property
    def title(self) -> str:
        return self.block.title

    @property
    def drawing(self) -> Drawing:
        """The first view's."""
        return self.views[0].drawing

    @property
    def scale(self) -> float:
        """The first view's."""
        return self.views[0].scale

    @property
    def scales(self) -> str:
        """In words, for the block."""
        found = sorted({v.scale for v in self.views if v.drawing.has_scale})
        return ", ".join(f"1:{s:g}" for s in found)


class Room(msgspec.Struct, frozen=True):
    """Where on a sheet views stand, mm from the lower left."""

    x: float
    y: float
    width: float
    height: float


def room_of(paper: str, *, upright: bool = False, lines: int = 0) -> Room:
    """What frame, title block and so many lines of notes leave of a sheet."""
    wide, high = PAPER[paper]
    if upright:
        wide, high = high, wide
    foot = _foot(wide) + PITCH * max(0, lines - _lines_beside(wide))
    return Room(LEFT + CLEAR, EDGE + foot + CLEAR, wide - LEFT - EDGE - 2 * CLEAR, high - 2 * EDGE - foot - 2 * CLEAR)


LOGO = (20.0, 8.6)
"""mm; room for the shop's mark, at the right of the owner's cell."""


def images_of(sheet: Sheet) -> list[tuple[float, float, float, float, bytes]]:
    """The images on a sheet: x, y, width and height, mm from the lower left, and their files."""
    found = []
    for view in sheet.views:
        if view.image:
            x, y = view.at(view.drawing.x0, view.drawing.y0)
            found.append((x, y, view.drawing.width / view.scale, view.drawing.height / view.scale, view.image))
    if sheet.logo:
        wide = min(LOGO[0], LOGO[1] * sheet.logo_ratio)
        high = wide / sheet.logo_ratio
        right = sheet.size[0] - EDGE - BLOCK[0] + OWNER - 0.7
        middle = EDGE + BLOCK[1] - ROW / 2
        found.append((right - wide, middle - high / 2, wide, high, sheet.logo))
    return found


OWNER = 52.0
"""mm; width of the owner's cell."""

PITCH = 3.6
"""mm from one line of notes to the next."""


def _foot(wide: float) -> float:
    """Height of the block, and of the strip over it where the bar has no room beside it."""
    return BLOCK[1] + (0.0 if _bar_beside(wide) else FOOT)


def _notes_width(wide: float) -> float:
    return wide - LEFT - EDGE - BLOCK[0] - 6.0


def _lines_beside(wide: float) -> int:
    """Lines of notes that have room beside the block."""
    if _notes_width(wide) < 30.0:
        return 0
    return int((BLOCK[1] - 2.0 - (9.0 if _bar_beside(wide) else 0.0)) / PITCH)


def _bar_beside(wide: float) -> bool:
    """Whether the bar has room beside the block."""
    return wide - LEFT - EDGE - BLOCK[0] >= BAR + 12.0


def frame_of(sheet: Sheet) -> tuple[list[tuple[float, float, float, float, float]], list[FrameText]]:
    """The frame, the title block, the bar and the notes of a sheet: boxes (x, y, width, height, width of their line)
    and texts; mm of paper from the lower left."""
    width, height = sheet.size
    boxes = [(LEFT, EDGE, width - LEFT - EDGE, height - 2 * EDGE, 0.7)]
    x0 = width - EDGE - BLOCK[0]
    boxes.append((x0, EDGE, *BLOCK, 0.35))
    texts: list[FrameText] = []
    for x, y, wide, label, text in _cells(sheet, x0):
        boxes.append((x, y, wide, ROW, 0.25))
        texts.append(FrameText(x + 1.5, y + ROW - 3.2, label, SMALLEST, quiet=True))
        size = 10.5
        if label == "Owner" and sheet.logo:
            wide -= LOGO[0]
        while size > SMALLEST and text_width(text, cap_of(size * POINT)) * 1.07 > wide - 3:
            size -= 0.25
        texts.append(FrameText(x + 1.5, y + 2.0, _cut(text, size, wide - 3), size, strong=True))
    beside = _bar_beside(width)
    bar_y = EDGE + 4.0 if beside else EDGE + BLOCK[1] + 3.0
    bar_x = LEFT + 3.0
    boxes += [(bar_x + i * BAR / 4, bar_y, BAR / 4, 1.6, 0.25) for i in range(4)]
    boxes += [(bar_x + i * BAR / 4, bar_y + 0.8, BAR / 4, 0.0, 0.7) for i in (0, 2)]
    texts.append(FrameText(bar_x, bar_y + 3.0, "100 mm long where the print is true to scale", SMALLEST, quiet=True))
    for view in sheet.views:
        if view.caption:
            seen = view.shown
            x, y = view.at(seen.x0, seen.y0)
            texts.append(FrameText(max(x, LEFT + CLEAR), y - CAPTION + 1.6, view.caption, 9.0, strong=True))
    beside_block = _lines_beside(width)
    for i, note in enumerate(note_lines(sheet)):
        y = EDGE + BLOCK[1] - (i + 1) * PITCH
        if i >= beside_block:  # what finds no room there stands over the foot
            y = EDGE + _foot(width) + (i - beside_block) * PITCH + 1.4
        texts.append(FrameText(LEFT + 3.0, y, note, SMALLEST))
    return boxes, [t for t in texts if t.text]


CAPTION = 6.0
"""mm of paper under a view for its caption."""


def _cells(sheet: Sheet, x0: float) -> Iterator[tuple[float, float, float, str, str]]:
    """The cells of the block: place, width, label and text."""
    b = sheet.block
    rows = (
        ((OWNER, "Owner", b.owner), (62.0, "Job", b.job), (40.0, "Client", b.client), (26.0, "Kind", b.kind)),
        (
            (90.0, "Title", b.title), (44.0, "Number", b.number), (26.0, "Sheet", b.sheet),
            (20.0, "Revision", b.revision),
        ),
        (
            (38.0, "Drawn by", b.creator), (38.0, "Approved by", b.approved), (32.0, "Date of issue", b.date),
            (38.0, "Lengths in", b.units), (34.0, "Scale", sheet.scales),
        ),
    )  # fmt: skip
    for i, row in enumerate(rows):
        x, y = x0, EDGE + BLOCK[1] - (i + 1) * ROW
        for wide, label, text in row:
            yield x, y, wide, label, text
            x += wide


def _cut(text: str, points: float, wide: float) -> str:
    """A text as far as it has room, with dots where it is cut."""
    size = cap_of(points * POINT) * 1.07
    if text_width(text, size) <= wide:
        return text
    while text and text_width(text + "…", size) > wide:
        text = text[:-1]
    return text + "…"


def letters_of(sheet: Sheet) -> list[tuple[str, str]]:
    """What letters stand for on a sheet."""
    return [row for view in sheet.views for row in view.shown.table]


def note_lines(sheet: Sheet) -> list[str]:
    """The notes and the table of letters in lines no wider than there is room."""
    wide = _notes_width(sheet.size[0])
    if wide < 30.0:
        wide = sheet.size[0] - LEFT - EDGE - 8.0
    table = [f"{letter} = {text}" for letter, text in letters_of(sheet)]
    found: list[str] = []
    for words, joint in (*((n, " ") for n in sheet.notes), ("\0".join(table), "   ")):
        line = ""
        for word in words.split("\0" if joint != " " else " "):
            longer = f"{line}{joint}{word}" if line else word
            if line and text_width(longer, 1.8) > wide:
                found.append(line)
                line = word
            else:
                line = longer
        found.append(line)
    return [line for line in found if line]


def lay_out(drawing: Drawing, block: Block = Block(""), paper: str = "A3", notes: tuple[str, ...] = ()) -> Sheet:
    """A drawing on a sheet of its own: of the paper and the smaller ones that go with it, either way up, that at which
    it is largest at a standard scale, and of several the one that it fills most."""
    steps = scales_of(drawing)
    best: tuple[tuple[bool, float, float], Sheet] | None = None
    for name, upright in papers_from(paper):
        blank = Sheet((), name, block, notes, upright)
        for step in steps:
            scale = float(step)
            sheet = _alone(drawing, scale, blank)
            if sheet is not None or step == steps[-1]:
                fits = sheet is not None
                sheet = sheet or _centred(drawing, scale, room_of(name, upright=upright), blank)
                rank = (not fits, scale, -fill_of(sheet))
                if best is None or rank < best[0]:
                    best = (rank, sheet)
                break
    assert best is not None
    return best[1]


def _alone(drawing: Drawing, scale: float, blank: Sheet) -> Sheet | None:
    """A drawing in the middle of a sheet; None where it does not fit."""
    room = room_of(blank.paper, upright=blank.upright)
    # What is drawn alone does not fit: the figures need not be placed to know it.
    if drawing.width / scale > room.width or drawing.height / scale > room.height:
        return None
    lines = len(note_lines(msgspec.structs.replace(blank, views=(View(drawing, scale, 0.0, 0.0),))))
    room = room_of(blank.paper, upright=blank.upright, lines=lines)
    wide, high = _size(drawing, scale)
    return _centred(drawing, scale, room, blank) if wide <= room.width and high <= room.height else None


def in_black(sheet: Sheet) -> Sheet:
    """A sheet without the colors of finishes: fills still cover what lies behind them, in white."""
    views = tuple(msgspec.structs.replace(v, drawing=_without_color(v.drawing)) for v in sheet.views)
    return msgspec.structs.replace(sheet, views=views)


@remembered(512)
def _without_color(drawing: Drawing) -> Drawing:
    items = tuple(
        msgspec.structs.replace(i, fill="floor", grain="") if isinstance(i, Shape) and i.fill else i
        for i in drawing.items
    )
    return msgspec.structs.replace(drawing, items=items)


def papers_from(paper: str) -> Iterator[tuple[str, bool]]:
    """A paper and the smaller ones of its series, lying before upright."""
    series = next(s for s in SERIES if paper in s)
    for name in series[series.index(paper) :]:
        yield name, False
        # The block takes the whole width of a small sheet that stands.
        if PAPER[name][1] >= BLOCK[0] + LEFT + EDGE:
            yield name, True


def _size(drawing: Drawing, scale: float) -> tuple[float, float]:
    """Width and height that all of a drawing takes on paper, mm."""
    seen = shown(drawing, scale)
    return (seen.x1 - seen.x0) / scale, (seen.y1 - seen.y0) / scale


def _centred(drawing: Drawing, scale: float, room: Room, sheet: Sheet) -> Sheet:
    seen = shown(drawing, scale)
    wide, high = (seen.x1 - seen.x0) / scale, (seen.y1 - seen.y0) / scale
    x = room.x + (room.width - wide) / 2 - seen.x0 / scale
    y = room.y + (room.height - high) / 2 - seen.y0 / scale
    return msgspec.structs.replace(sheet, views=(View(drawing, scale, x, y),))


def scales_of(drawing: Drawing) -> tuple[float, ...]:
    """Scales at which a drawing may stand on paper, the largest first; a picture at any, by small steps."""
    if drawing.scale:
        return (drawing.scale,)
    if drawing.pictorial:
        return tuple(
            s * step for s in (1.0, 10.0, 100.0) for step in (1.0, 1.25, 1.6, 2.0, 2.5, 3.2, 4.0, 5.0, 6.3, 8.0)
        )
    return tuple(float(s) for s in SCALES)


def caption_of(drawing: Drawing, scale: float) -> str:
    """What stands under a view that is not alone on its sheet."""
    if drawing.is_words:
        return ""
    return f"{drawing.title} · 1:{scale:g}" if drawing.has_scale else drawing.title


def moved_view(sheet: Sheet, at: int, dx: float, dy: float) -> Sheet:
    """A sheet with one of its views moved by mm of paper."""
    view = sheet.views[at]
    new = msgspec.structs.replace(view, x=view.x + dx, y=view.y + dy)
    return msgspec.structs.replace(sheet, views=tuple(new if i == at else v for i, v in enumerate(sheet.views)))


def fill_of(sheet: Sheet) -> float:
    """Share of the room for views that they fill, 0 to 1."""
    room = room_of(sheet.paper, upright=sheet.upright, lines=len(note_lines(sheet)))
    taken = 0.0
    for view in sheet.views:
        seen = view.shown
        taken += (seen.x1 - seen.x0) / view.scale * (seen.y1 - seen.y0) / view.scale
    return taken / (room.width * room.height)


GAP = 12.0
"""mm of paper between views."""


def share(drawings: Sequence[Drawing], paper: str) -> list[Sheet]:
    """Drawings on as few sheets as keep each at the scale at which it fits a sheet: one that fills its own stays alone,
    the others stand together, in their order. Blocks are left empty."""
    found: list[Sheet] = []
    waiting: list[tuple[Drawing, float]] = []
    for drawing in drawings:
        alone = lay_out(drawing, paper=paper)
        if fill_of(alone) >= FULL and alone.paper == paper:
            found += together(waiting, paper)
            waiting = []
            found.append(alone)
        else:
            waiting.append((drawing, alone.scale))
    return [*found, *together(waiting, paper)]


def together(drawings: Sequence[tuple[Drawing, float]], paper: str) -> list[Sheet]:
    """Drawings side by side in rows, as many on a sheet as fit."""
    found: list[Sheet] = []
    rest = list(drawings)
    while rest:
        count = len(rest)
        while count > 1 and _in_rows(rest[:count], paper) is None:
            count -= 1
        sheet = _in_rows(rest[:count], paper) if count > 1 else None
        found.append(sheet or lay_out(rest[0][0], paper=paper))
        rest = rest[count:]
    return found


def _in_rows(drawings: Sequence[tuple[Drawing, float]], paper: str) -> Sheet | None:
    """A sheet with all of them in rows from the top, each at its own scale; None where they do not fit."""
    best: Sheet | None = None
    for name, upright in papers_from(paper):
        room = room_of(name, upright=upright)
        rows: list[list[tuple[Drawing, float, float, float]]] = [[]]
        for drawing, scale in drawings:
            wide, high = _size(drawing, scale)
            used = sum(r[2] for r in rows[-1]) + GAP * len(rows[-1])
            if rows[-1] and used + wide > room.width:
                rows.append([])
            rows[-1].append((drawing, scale, wide, high + CAPTION))
        highs = [max(r[3] for r in row) for row in rows]
        widths = [sum(r[2] for r in row) + GAP * (len(row) - 1) for row in rows]
        if max(widths) > room.width or sum(highs) + GAP / 2 * (len(rows) - 1) > room.height:
            continue
        sheet = Sheet(tuple(_set_rows(rows, highs, room)), name, Block(""), (), upright)
        if best is None or fill_of(sheet) > fill_of(best):
            best = sheet
    return best


def _set_rows(
    rows: Sequence[Sequence[tuple[Drawing, float, float, float]]], highs: Sequence[float], room: Room
) -> Iterable[View]:
    """Views in rows, what is left over shared out between them."""
    spare = (room.height - sum(highs)) / (len(rows) + 1)
    top = room.y + room.height - spare
    for row, high in zip(rows, highs, strict=True):
        between = (room.width - sum(r[2] for r in row)) / (len(row) + 1)
        x = room.x + between
        for drawing, scale, wide, _ in row:
            seen = shown(drawing, scale)
            bottom = top - high + CAPTION
            caption = caption_of(drawing, scale)
            yield View(drawing, scale, x - seen.x0 / scale, bottom - seen.y0 / scale, caption)
            x += wide + between
        top -= high + spare
