"""A table as a drawing, in mm of paper, so that it stands on a sheet beside views."""

from __future__ import annotations

from collections.abc import Sequence

from tall_plank.assets import text_width
from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, Text

ROW = 5.2
"""mm from one row to the next."""

PAD = 2.0
"""mm between a column's text and the next one."""

SIZE, HEAD = 1.8, 2.4
"""mm; height of capitals in rows and in the title."""

WIDEST = 62.0
"""mm; a column is no wider: longer texts are cut into lines."""

BLANK = "_"
"""A cell to be filled in by hand."""

BLANK_WIDE = 24.0
"""mm."""


def table_drawing(title: str, heads: Sequence[str], rows: Sequence[Sequence[str]], mark: str = "") -> Drawing:
    """A table with its title: columns as wide as their longest text, ruled under every row.

    Parameters
    ----------
    rows : texts; `BLANK` is room for something that is written by hand
    """
    cells = [[_lines(text) for text in row] for row in rows]
    widths = []
    for k, head in enumerate(heads):
        texts = [text_width(head, SIZE) * 1.07]
        texts += [text_width(line, SIZE) for row in cells for line in row[k]]
        if any(row[k] == BLANK for row in rows):
            texts.append(BLANK_WIDE)
        widths.append(max(texts) + PAD)
    items: list[Item] = [Text(0.0, 0.0, title, HEAD, Layer.LABEL, align="left", bold=True, rise=-HEAD)]
    whole = sum(widths)
    y = -HEAD - 3.0
    y = _row(items, y, [[h] for h in heads], widths, bold=True)
    items.append(Line(0.0, y, whole, y, Pen.MEDIUM, Layer.LABEL))
    for row in cells:
        y = _row(items, y, row, widths, bold=False)
        items.append(Line(0.0, y, whole, y, Pen.NARROW, Layer.LABEL))
    return Drawing(title, tuple(items), 0.0, y, max(whole, text_width(title, HEAD) * 1.07), 0.0, mark, 1.0)


def _row(items: list[Item], y: float, row: Sequence[Sequence[str]], widths: Sequence[float], *, bold: bool) -> float:
    """A row from y down; where it ends."""
    x = 0.0
    for lines, width in zip(row, widths, strict=True):
        for i, line in enumerate(lines):
            if line != BLANK:
                rise = -SIZE - 1.4 - i * (SIZE + 1.2)
                items.append(Text(x, y, line, SIZE, Layer.LABEL, align="left", bold=bold, rise=rise))
        x += width
    return y - ROW - (max(len(lines) for lines in row) - 1) * (SIZE + 1.2)


def _lines(text: str) -> list[str]:
    """A text in lines that a column holds."""
    found = [""]
    for word in text.split(" "):
        longer = f"{found[-1]} {word}".strip()
        if text_width(longer, SIZE) > WIDEST and found[-1]:
            found.append(word)
        else:
            found[-1] = longer
    return found


def in_pieces(rows: Sequence[Sequence[str]], most: int) -> list[Sequence[Sequence[str]]]:
    """Rows of a long table in pieces of so many at the most."""
    return [rows[i : i + most] for i in range(0, len(rows), most)]
