"""A board of a plan in mm: its parts in their places, what is left of it, the turns of its cuts."""

from __future__ import annotations

from collections.abc import Sequence

from tall_plank.job.cutting import LaidBoard, LaidPart, worth_keeping
from tall_plank.shop.nesting.blocks import Block
from tall_plank.shop.nesting.cuts import Box, sawn
from tall_plank.shop.nesting.request import NestBoard, NestRules


def parts_on(laid: Sequence[tuple[Block, float, float, bool]], kerf: float) -> tuple[LaidPart, ...]:
    """Parts of blocks that lie at (x, y), from their least corners on; mm."""
    found: list[LaidPart] = []
    for block, x, y, turned in laid:
        at = 0.0
        for part, (length, width) in zip(block.parts, block.sizes, strict=True):
            size = (width, length) if turned else (length, width)
            place = (x + at, y) if turned != block.ended else (x, y + at)
            found.append(LaidPart(part, round(place[0], 3), round(place[1], 3), *size, turned, 90.0 if turned else 0.0))
            at += (length if block.ended else width) + kerf
    return tuple(sorted(found, key=lambda p: (p.y, p.x, p.part)))


def trimmed(length: float, width: float, trim: float) -> Box:
    return (trim, trim, length - trim, width - trim)


def boxes_of(parts: Sequence[LaidPart]) -> tuple[Box, ...]:
    return tuple((p.x, p.y, p.x + p.length, p.y + p.width) for p in parts)


def board_of(
    board: NestBoard, laid: Sequence[tuple[Block, float, float, bool]], rules: NestRules
) -> tuple[LaidBoard, int]:
    """A board with its parts, the offcuts worth keeping, largest first, and the turns of its cuts."""
    parts = parts_on(laid, rules.kerf)
    area = trimmed(board.length, board.width, rules.trim)
    cut = sawn(boxes_of(parts), area, rules.kerf, rules.first_cut, rules.turns)
    offcuts: list[tuple[float, float, float, float]] = []
    for x0, y0, x1, y1 in cut.left if cut is not None else ():
        long, wide = x1 - x0, y1 - y0
        if worth_keeping(long, wide, rules.keep_length, rules.keep_width):
            offcuts.append((round(x0, 3), round(y0, 3), round(long, 3), round(wide, 3)))
    offcuts.sort(key=lambda o: (-o[2] * o[3], o[0], o[1]))
    made = LaidBoard(board.board, board.material, board.length, board.width, parts, tuple(offcuts))
    return made, cut.turns if cut is not None else 0
