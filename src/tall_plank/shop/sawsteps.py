"""A board's cuts as who saws it sets them: piece in hand, measure from the stop, what falls, what is left of the piece.

On a beam saw a turn is done on all its pieces before the next; on a panel saw each strip is cut up as soon as it is off
the board. Boards that are laid out alike are sawn in packs, one set of cuts for all of them.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from itertools import groupby

import msgspec

from tall_plank.job.cutting import Cutting, LaidBoard
from tall_plank.shop.boards import Plan, cuts_of, offcuts_of
from tall_plank.shop.nesting.cuts import Box, Cut
from tall_plank.stock import Stock

NEAR = 0.01
"""mm; places nearer than this are one."""


class SawStep(msgspec.Struct, frozen=True):
    """One cut as it is set.

    Attributes
    ----------
    hand : name of the piece that is cut: the board, or a strip by its number
    size : its length and width, mm
    measure : from the stop, mm: the size of what falls
    falls : a part's number, the name of a piece that is cut on, an offcut's mark, or waste
    fallen : length and width of that, mm
    rest : where this is the last cut of its piece, what is left of it; else empty
    rest_size : mm along the measure; 0: nothing is left
    """

    number: int
    turn: int
    along: bool
    hand: str
    size: tuple[float, float]
    measure: float
    falls: str
    fallen: tuple[float, float]
    last: bool
    rest: str
    rest_size: float
    cut: Cut


class Pack(msgspec.Struct, frozen=True):
    """Boards that are laid out alike: their numbers in the plan, how many are sawn at once, how often."""

    boards: tuple[int, ...]
    at_once: int
    packs: int


WASTE = "waste"
BOARD = "board"


def saw_steps(number: int, b: LaidBoard, plan: Plan, saw: Cutting) -> tuple[SawStep, ...] | None:
    """The cuts of a board in their order; None where edge-to-edge cuts do not part it. `number`: the board's in its
    plan, for the marks of offcuts."""
    found = cuts_of(b, plan, saw)
    if found is None:
        return None
    by_piece = [(piece, list(cuts)) for piece, cuts in groupby(found.cuts, key=lambda c: c.piece)]
    ways = dict(by_piece)
    names = _named(ways)
    boxes = _what_lies(number, b, names, offcuts_of(b, plan, saw))
    steps: list[SawStep] = []
    for piece, at in _ordered(by_piece, ways, saw, plan.kerf):
        cuts = ways[piece]
        cut = cuts[at]
        high = 3 if cut.along else 2
        last = at + 1 == len(cuts)
        rest_from = cut.at + plan.kerf
        rest_box = _slice(piece, cut.along, rest_from, piece[high])
        rest_size = max(0.0, piece[high] - rest_from) if last else 0.0
        fallen = _slice(piece, cut.along, cut.at - cut.size, cut.at)
        steps.append(
            SawStep(
                len(steps) + 1,
                cut.turn,
                cut.along,
                names[piece],
                (piece[2] - piece[0], piece[3] - piece[1]),
                cut.size,
                boxes.get(_key(fallen), WASTE),
                (fallen[2] - fallen[0], fallen[3] - fallen[1]),
                last,
                boxes.get(_key(rest_box), WASTE) if rest_size > NEAR else "",
                rest_size if rest_size > NEAR else 0.0,
                cut,
            )
        )
    return tuple(steps)


def falling(number: int, b: LaidBoard, plan: Plan, saw: Cutting) -> tuple[str, ...]:
    """The parts of a board in the order in which they come off the saw; as they lie where it is no saw's."""
    steps = saw_steps(number, b, plan, saw) if saw.mode == "saw" else None
    lying = [p.part for p in b.parts]
    known = set(lying)
    off = [name for s in steps or () for name in (s.falls, s.rest) if name in known]
    return tuple(off + [p for p in lying if p not in set(off)])


def offcut_mark(board: int, place: int) -> str:
    """The mark of an offcut: its board's number and a letter."""
    letter = chr(ord("a") + place % 26) * (1 + place // 26)
    return f"{board}{letter}"


def _ordered(
    by_piece: Sequence[tuple[Box, list[Cut]]], ways: dict[Box, list[Cut]], saw: Cutting, kerf: float
) -> Iterator[tuple[Box, int]]:
    if saw.sawn_on == "beam":
        for piece, cuts in sorted(by_piece, key=lambda p: p[1][0].turn):
            yield from ((piece, i) for i in range(len(cuts)))
        return
    inside = {_key(p): p for p in ways}

    def strip_by_strip(piece: Box) -> Iterator[tuple[Box, int]]:
        cuts = ways[piece]
        high = 3 if cuts[0].along else 2
        for i, cut in enumerate(cuts):
            yield piece, i
            off = inside.get(_key(_slice(piece, cut.along, cut.at - cut.size, cut.at)))
            if off is not None:
                yield from strip_by_strip(off)
        rest = inside.get(_key(_slice(piece, cuts[-1].along, cuts[-1].at + kerf, piece[high])))
        if rest is not None:
            yield from strip_by_strip(rest)

    if by_piece:
        yield from strip_by_strip(by_piece[0][0])


def _named(ways: dict[Box, list[Cut]]) -> dict[Box, str]:
    """The board, then strips by their number, then pieces of strips by that and theirs."""
    names: dict[Box, str] = {}
    counts: dict[str, int] = {}
    for piece in ways:
        outer = next((o for o in reversed(list(names)) if _holds(o, piece)), None)
        if outer is None:
            names[piece] = BOARD
            continue
        parent = names[outer]
        counts[parent] = counts.get(parent, 0) + 1
        names[piece] = f"strip {counts[parent]}" if parent == BOARD else f"{parent}.{counts[parent]}"
    return names


def _holds(outer: Box, inner: Box) -> bool:
    return (
        outer[0] <= inner[0] + NEAR and outer[1] <= inner[1] + NEAR
        and inner[2] <= outer[2] + NEAR and inner[3] <= outer[3] + NEAR
    )  # fmt: skip


def _what_lies(number: int, b: LaidBoard, names: dict[Box, str], offcuts: Sequence[Box]) -> dict[tuple[int, ...], str]:
    """What each box is: a piece that is cut on, a part, an offcut."""
    found = {_key(box): name for box, name in names.items()}
    for i, (x, y, long, wide) in enumerate(offcuts):
        found[_key((x, y, x + long, y + wide))] = f"offcut {offcut_mark(number, i)}"
    for p in b.parts:
        found[_key((p.x, p.y, p.x + p.length, p.y + p.width))] = p.part
    return found


def _key(box: Box) -> tuple[int, ...]:
    return tuple(round(v * 10) for v in box)


def _slice(box: Box, along: bool, low: float, high: float) -> Box:
    return (box[0], low, box[2], high) if along else (low, box[1], high, box[3])


# --- packs


def layout_of(b: LaidBoard) -> tuple[object, ...]:
    """What two boards have in common that are sawn with the same cuts: the board and the boxes on it."""
    boxes = tuple(sorted((round(p.x, 2), round(p.y, 2), round(p.length, 2), round(p.width, 2)) for p in b.parts))
    return (b.board, round(b.length, 2), round(b.width, 2), boxes)


def packs_of(plan: Plan, saw: Cutting, stock: Stock) -> tuple[Pack, ...]:
    """The boards of a plan in packs, in its order; one at a time where no pack height is given or it is not sawn."""
    groups: dict[object, list[int]] = {}
    for i, b in enumerate(plan.boards):
        packed = saw.pack > 0 and saw.mode == "saw" and not b.rack
        groups.setdefault(layout_of(b) if packed else i, []).append(i + 1)
    found = []
    for numbers in groups.values():
        stocked = stock.board_by_code(plan.boards[numbers[0] - 1].board)
        most = max(1, math.floor(saw.pack / stocked.thickness + 1e-9)) if stocked is not None else 1
        most = min(most, len(numbers))
        found.append(Pack(tuple(numbers), most, math.ceil(len(numbers) / most)))
    return tuple(found)
