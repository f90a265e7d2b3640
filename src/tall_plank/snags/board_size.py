"""Parts larger than the board they are cut from. Source: arithmetic; edge trim of 10 mm a side is common practice."""

from __future__ import annotations

from tall_plank.job import Snag, Where
from tall_plank.measure import told
from tall_plank.shop.boards import TRIM
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    found = []
    for item in checked.made.parts():
        board = checked.job.stock.board_by_code(item.part.board)
        if board is None:
            continue
        length, width = board.length - 2 * TRIM, board.width - 2 * TRIM
        p = item.part
        fits = p.cut_length <= length and p.cut_width <= width
        turned = p.grain == "none" and p.cut_width <= length and p.cut_length <= width
        if not fits and not turned:
            size = f"{told(p.cut_length)} x {told(p.cut_width)} mm"
            what = f"The {p.name} is {size}; {board.name} gives {length:.0f} x {width:.0f}."
            where = Where("", "", "", item.cell, item.unit)
            found.append(Snag("board size", what, "Divide it, or choose a larger board.", where))
    return found
