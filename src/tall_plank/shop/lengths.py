"""The lengths of a job that are cut from bars: moldings, rails, tracks and profiles, edging strips, worktops from their
blanks."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from string import ascii_lowercase

import msgspec

from tall_plank.job.cutting import Cutting
from tall_plank.making import Bevel, MadeJob, NumberedPart, Part
from tall_plank.shop.bars import BarPiece, BarPlan, BarStock, cut_bars
from tall_plank.shop.edging import TRIM_ALLOWANCE
from tall_plank.shop.hardware import bought_for
from tall_plank.stock import PriceBook, Stock

KERF = 3.0
"""mm of a mitre saw's cut (common practice: 2.8 to 3.2)."""

MITRE_ALLOWANCE = 10.0
"""mm added to a piece for each mitred end: room to cut the angle anew (common practice)."""

LEAST_PIECE = 600.0
"""mm; a joined length has no shorter piece (common practice: joints stand away from corners)."""


def pieces_of(made: MadeJob, stock: Stock, allowance: float = MITRE_ALLOWANCE) -> tuple[BarPiece, ...]:
    """Everything that is cut from bars, worktops left out. `profile` is the code of what it is cut from; a piece
    is named by its molding, its unit, or its part and edge. `allowance`: mm."""
    return (*_profiles(made, stock, allowance), *_cut_fittings(made, stock), *_strips(made, stock))


def joined(length: float, longest: float, lap: float) -> tuple[float, ...]:
    """The pieces of a length that is longer than a bar, mm: whole bars and the rest; where the rest would be short, the
    last two share evenly.

    Parameters
    ----------
    longest : the longest bar
    lap : by how much two pieces overlap at a joint, with what is cut off there
    """
    if length <= longest + 1e-6 or longest - lap < LEAST_PIECE:
        return (length,)
    pieces = []
    left = length
    while left > longest + 1e-6:
        pieces.append(longest)
        left -= longest - lap
    if left < LEAST_PIECE:
        left = pieces[-1] = (pieces[-1] + left) / 2
    return (*pieces, left)


def _named(name: str, lengths: tuple[float, ...], profile: str) -> Iterator[BarPiece]:
    for i, mm in enumerate(lengths):
        own = name if len(lengths) == 1 else f"{name} {ascii_lowercase[i % 26]}"
        yield BarPiece(own, round(mm, 3), 1, profile)


def _profiles(made: MadeJob, stock: Stock, allowance: float) -> Iterator[BarPiece]:
    """Every length of a profile that is not by others, at its long points, with an allowance for each mitred end.
    One that is longer than its bars is scarfed: its pieces lap by the profile's depth (45°, common practice) with an
    allowance on both."""
    for m in made.lengths:
        profile = stock.profile(m.profile)
        if not m.by_others and profile is not None:
            ends = sum(abs(a) > 0.01 for a in (m.left, m.right))
            longest = max((profile.length, *profile.lengths))
            whole = m.length + allowance * ends
            yield from _named(m.number, joined(whole, longest, profile.depth + 2 * allowance), profile.code)


def _cut_fittings(made: MadeJob, stock: Stock) -> Iterator[BarPiece]:
    """Rails, tracks and profiles as long as they are built in: their ends are cut once."""
    for number, items in bought_for(made):
        for item in items:
            fitting = stock.fitting(item.code)
            if fitting is not None and fitting.bars and item.length:
                yield BarPiece(number, round(item.length, 3), item.qty, item.code)


def _strips(made: MadeJob, stock: Stock) -> Iterator[BarPiece]:
    """Edges that get a strip, with what is trimmed off when it is on; long ones of strips that butt."""
    sold = {e.code: max(e.strips) for e in stock.edgings if e.strips}
    if not sold:
        return
    for item in made.parts():
        for name, code, mm in item.part.banded:
            if code in sold:
                yield from _named(f"{item.number} {name}", joined(mm + TRIM_ALLOWANCE, sold[code], 0.0), code)


def worktops_of(made: MadeJob, stock: Stock, allowance: float = MITRE_ALLOWANCE) -> tuple[BarPiece, ...]:
    """Every part that is cut from a blank, in its cut length, with an allowance for each end that is not square.
    `allowance`: mm."""
    return tuple(
        BarPiece(item.number, round(item.part.cut_length + allowance * _slanted(item.part), 3), 1, item.part.board)
        for item in blank_parts(made, stock)
    )


def blank_parts(made: MadeJob, stock: Stock) -> Iterator[NumberedPart]:
    """The parts that are cut from worktop blanks."""
    blanks = {b.code for b in stock.boards if b.blank}
    return (item for item in made.parts() if item.part.board in blanks)


def _slanted(part: Part) -> int:
    """How many of a part's ends are not cut square across: they are bevelled, or the corners there are not both on
    it."""
    bevels = sum(isinstance(op, Bevel) and op.edge in ("W1", "W2") for op in part.operations)
    if not part.outline:
        return bevels

    def has(x: float, y: float) -> bool:
        return any(abs(x - px) < 0.01 and abs(y - py) < 0.01 for px, py in part.outline)

    return bevels + sum(not (has(x, 0.0) and has(x, part.width)) for x in (0.0, part.length))


def bars_of(stock: Stock, book: PriceBook) -> tuple[BarStock, ...]:
    """Bars of every thing that is sold in bars, blanks left out. What is priced each costs that for its first length,
    and by length for its others."""
    found = []
    for p in stock.profiles:
        found += _priced(p.code, (p.length, *p.lengths), book)
    for f in stock.fittings:
        found += _priced(f.code, f.bars, book)
    for e in stock.edgings:
        found += _priced(e.code, e.strips, book)
    return tuple(found)


def _priced(code: str, lengths: Iterable[float], book: PriceBook) -> list[BarStock]:
    row = next((r for r in book.rows if r.code == code), None)
    lengths = tuple(lengths)
    return [
        BarStock(
            code,
            mm,
            0.0 if row is None else round(float(row.price) * (mm / 1000 if row.per == "m" else mm / lengths[0]), 4),
        )
        for mm in lengths
    ]


def blanks_of(stock: Stock, book: PriceBook) -> tuple[BarStock, ...]:
    """Worktop blanks as bars: each code also in the other lengths of its finish, thickness and width."""
    rows = {r.code: r for r in book.rows}
    found = []
    for b in stock.boards:
        if b.blank:
            for other in stock.boards:
                same = (other.finish, round(other.thickness, 3), round(other.width)) == (
                    b.finish,
                    round(b.thickness, 3),
                    round(b.width),
                )
                row = rows.get(other.code)
                if other.blank and same:
                    area = other.length * other.width * 1e-6
                    price = 0.0 if row is None else float(row.price) * (area if row.per == "m2" else 1.0)
                    found.append(BarStock(b.code, other.length, round(price, 4)))
    return tuple(found)


def bar_plan(
    made: MadeJob,
    stock: Stock,
    book: PriceBook,
    saw: Cutting,
    kerf: float = KERF,
    trim: float = 0.0,
    *,
    wait: bool = True,
) -> BarPlan:
    """Everything of a job that is cut from bars: worktops with the kerf and the end trims of the board saw, the rest
    with those of a mitre saw (mm). Without `wait` it is what is known at once."""
    thin = cut_bars(pieces_of(made, stock), bars_of(stock, book), kerf, trim, wait=wait)
    tops = cut_bars(worktops_of(made, stock), blanks_of(stock, book), saw.kerf, saw.trim, wait=wait)
    return BarPlan(
        (*tops.bars, *thin.bars),
        (*tops.unplaced, *thin.unplaced),
        tops.proven and thin.proven,
        tops.bound + thin.bound,
        tops.settled and thin.settled,
    )


class BarThing(msgspec.Struct, frozen=True):
    """What a bar is of: its name, its supplier, its kind in words, kerf and end trim of the saw that cuts it (mm)."""

    name: str
    supplier: str
    kind: str
    kerf: float
    trim: float


KINDS = {
    "rail": "rails", "light": "lights", "slide_profile": "frames of leaves", "slide_top": "tracks",
    "slide_bottom": "tracks", "profile": "profiles",
}  # fmt: skip


def thing_of(stock: Stock, code: str, saw: Cutting) -> BarThing:
    """What stands behind the code of a bar."""
    board, profile = stock.board_by_code(code), stock.profile(code)
    fitting, edging = stock.fitting(code), stock.edging_by_code(code)
    if board is not None:
        return BarThing(board.name, board.supplier, "worktops", saw.kerf, saw.trim)
    if profile is not None:
        return BarThing(profile.name, profile.supplier, "moldings", KERF, 0.0)
    if fitting is not None:
        return BarThing(fitting.name, fitting.supplier, KINDS.get(fitting.kind, "fittings"), KERF, 0.0)
    if edging is not None:
        return BarThing(edging.name, edging.supplier, "edging strips", KERF, 0.0)
    return BarThing(code, "", "bars", KERF, 0.0)
