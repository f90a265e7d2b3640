"""Sheets: a drawing on paper at a standard scale, with a frame and a title block."""

from __future__ import annotations

import msgspec

from tall_plank.assets import cap_of, text_width
from tall_plank.drawing.primitives import Dim, Drawing

PAPER = {
    "A3": (420.0, 297.0), "A4": (297.0, 210.0), "Tabloid": (431.8, 279.4), "Letter": (279.4, 215.9),
}  # fmt: skip
"""Landscape sizes, mm: after ISO 216, and in inches 17 x 11 and 11 x 8 1/2 (ANSI/ASME Y14.1, from memory)."""

SCALES = (1, 2, 5, 10, 20, 50, 100, 200)
"""Reductions after ISO 5455 (from memory): 1:2, 1:5, 1:10 and their tenfolds."""

LEFT, EDGE = 20.0, 10.0
"""Frame after ISO 5457 (from memory): 20 mm on the left, 10 mm elsewhere."""

BLOCK = (180.0, 24.0)
"""Title block 180 mm wide after ISO 7200 (from memory), at the lower right."""


class FrameText(msgspec.Struct, frozen=True):
    """A text of the frame: place in mm from the lower left, its em in points, whether it is strong or quiet."""

    x: float
    y: float
    text: str
    points: float
    strong: bool = False
    quiet: bool = False


class Sheet(msgspec.Struct, frozen=True):
    """A drawing placed on a sheet.

    Attributes
    ----------
    paper : name of the size, landscape
    scale : real mm per mm of paper
    x, y : place on paper (mm from the lower left) of the drawing's own (0, 0)
    block : lines of the title block: (label, text)
    note : a line at the foot, beside the title block
    """

    drawing: Drawing
    paper: str
    scale: float
    x: float
    y: float
    block: tuple[tuple[str, str], ...]
    note: str = ""

    @property
    def size(self) -> tuple[float, float]:
        return PAPER[self.paper]


def frame_of(sheet: Sheet) -> tuple[list[tuple[float, float, float, float, float]], list[FrameText]]:
    """The frame and the title block of a sheet: boxes (x, y, width, height, width of their line) and texts; mm of paper
    from the lower left."""
    width, height = sheet.size
    boxes = [(LEFT, EDGE, width - LEFT - EDGE, height - 2 * EDGE, 0.7)]
    block = min(BLOCK[0], width - LEFT - EDGE)
    x0 = width - EDGE - block
    boxes.append((x0, EDGE, block, BLOCK[1], 0.35))
    columns = 3
    wide, high = block / columns, BLOCK[1] / 2
    texts = []
    for i, (label, text) in enumerate(sheet.block[:6]):
        x, y = x0 + (i % columns) * wide, EDGE + BLOCK[1] - (i // columns + 1) * high
        boxes.append((x, y, wide, high, 0.35))
        texts.append(FrameText(x + 1.5, y + high - 3.2, label, 6.5, quiet=True))
        size = 10.0
        while size > 6 and text_width(text, cap_of(size * POINT)) > wide - 3:
            size -= 0.5
        texts.append(FrameText(x + 1.5, y + 2.6, text, size, strong=True))
    texts.append(FrameText(LEFT + 3.0, EDGE + 3.0, sheet.note, 7.5))
    return boxes, [t for t in texts if t.text]


POINT = 25.4 / 72
"""mm."""


def lay_out(drawing: Drawing, block: tuple[tuple[str, str], ...], paper: str = "A3") -> Sheet:
    """Choose the largest standard scale at which drawing and dimensions fit the frame, and centre it."""
    width, height = PAPER[paper]
    room_w = width - LEFT - EDGE - 10.0
    room_h = height - 2 * EDGE - BLOCK[1] - 10.0
    dims = [i for i in drawing.items if isinstance(i, Dim)]
    margin = 8.0

    def rows(along: str, sign: int) -> float:
        found = [abs(d.row) for d in dims if d.along == along and (d.row > 0) == (sign > 0)]
        return 4.0 + 6.0 * max(found) if found else 0.0

    below, above = rows("x", -1) + margin, rows("x", 1) + margin
    left, right = rows("y", -1) + margin, rows("y", 1) + margin
    scale = float(SCALES[-1])
    for step in SCALES:
        if drawing.width / step + left + right <= room_w and drawing.height / step + below + above <= room_h:
            scale = float(step)
            break
    used_w, used_h = drawing.width / scale + left + right, drawing.height / scale + below + above
    x = LEFT + (width - LEFT - EDGE - used_w) / 2 + left - drawing.x0 / scale
    y = EDGE + BLOCK[1] + (height - 2 * EDGE - BLOCK[1] - used_h) / 2 + below - drawing.y0 / scale
    return Sheet(drawing, paper, scale, x, y, block)
