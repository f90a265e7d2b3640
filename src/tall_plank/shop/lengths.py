"""The lengths of a job that are cut from bars: moldings by profile, and the bars of the stock."""

from __future__ import annotations

from tall_plank.making import MadeJob
from tall_plank.shop.bars import BarPiece, BarStock
from tall_plank.stock import PriceBook, Stock

KERF = 3.0
"""mm of a mitre saw's cut (common practice: 2.8 to 3.2)."""

MITRE_ALLOWANCE = 10.0
"""mm added to a piece for each mitred end: room to cut the angle anew (common practice)."""


def pieces_of(made: MadeJob, allowance: float = MITRE_ALLOWANCE) -> tuple[BarPiece, ...]:
    """Every molding that is not by others, at its long points, with an allowance for each mitred end."""
    return tuple(
        BarPiece(
            m.number,
            round(m.piece.length + allowance * sum(abs(a) > 0.01 for a in (m.piece.left, m.piece.right)), 3),
            1,
            m.piece.profile,
        )
        for m in made.moldings
        if not m.by_others
    )


def bars_of(stock: Stock, book: PriceBook) -> tuple[BarStock, ...]:
    """Bars of every profile; the price of one by the metre or each."""
    rows = {r.code: r for r in book.rows}
    found = []
    for p in stock.profiles:
        row = rows.get(p.code)
        price = 0.0 if row is None else float(row.price) * (p.length / 1000 if row.per == "m" else 1.0)
        found.append(BarStock(p.code, p.length, round(price, 4)))
    return tuple(found)
