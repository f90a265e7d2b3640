"""Pieces as they are laid on boards: single parts, and parts that are cut side by side, or end to end, so that their
grain goes on."""

from __future__ import annotations

import msgspec

from tall_plank.shop.nesting.request import NestBoard, NestPart, NestRules, Unplaced


class Block(msgspec.Struct, frozen=True, cache_hash=True):
    """One thing to lay: a part, or matched parts in a row across the grain, or along it.

    Attributes
    ----------
    length, width : mm, of the whole
    parts : their names, from y = 0 on; from x = 0 on where they lie end to end
    sizes : (length, width) of each, mm
    ended : whether they lie end to end
    """

    length: float
    width: float
    turnable: bool
    parts: tuple[str, ...]
    sizes: tuple[tuple[float, float], ...]
    ended: bool = False


def fits_on(length: float, width: float, turnable: bool, board: NestBoard, trim: float) -> bool:
    """Whether a piece lies on a trimmed board; mm."""
    long, wide = board.length - 2 * trim + 1e-6, board.width - 2 * trim + 1e-6
    return (length <= long and width <= wide) or (turnable and width <= long and length <= wide)


def blocks_of(
    parts: tuple[NestPart, ...], boards: tuple[NestBoard, ...], rules: NestRules
) -> tuple[tuple[Block, ...], list[Unplaced]]:
    """The blocks of one material, and the parts that are larger than every board. A row of matched parts that no board
    takes is divided in two, and again."""
    found: list[Block] = []
    lost: list[Unplaced] = []
    rows: dict[str, list[NestPart]] = {}
    largest = max(boards, key=lambda b: b.length * b.width)
    for part in parts:
        turnable = part.grain == "none"
        if not any(fits_on(part.length, part.width, turnable, b, rules.trim) for b in boards):
            long, wide = largest.length - 2 * rules.trim, largest.width - 2 * rules.trim
            why = f"{part.length:g} x {part.width:g} is larger than every board ({long:g} x {wide:g} within its trims)"
            lost.append(Unplaced(part.part, part.qty, why))
        elif part.match:
            rows.setdefault(part.match, []).extend([part] * part.qty)
        else:
            block = Block(part.length, part.width, turnable, (part.part,), ((part.length, part.width),))
            found += [block] * part.qty
    for row in rows.values():
        found += _matched(tuple(row), boards, rules)
    return tuple(found), lost


def _matched(row: tuple[NestPart, ...], boards: tuple[NestBoard, ...], rules: NestRules) -> list[Block]:
    """Parts side by side across the grain or end to end along it, as many together as a board takes."""
    ended = row[0].match_way == "end"
    kerfs = rules.kerf * (len(row) - 1)
    length = sum(p.length for p in row) + kerfs if ended else max(p.length for p in row)
    width = max(p.width for p in row) if ended else sum(p.width for p in row) + kerfs
    if len(row) == 1 or any(fits_on(length, width, False, b, rules.trim) for b in boards):
        sizes = tuple((p.length, p.width) for p in row)
        turnable = len(row) == 1 and row[0].grain == "none"
        return [Block(length, width, turnable, tuple(p.part for p in row), sizes, ended)]
    half = (len(row) + 1) // 2
    return _matched(row[:half], boards, rules) + _matched(row[half:], boards, rules)
