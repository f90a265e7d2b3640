"""An independent check of lengths cut from bars."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

from tall_plank.shop.bars import BarPiece, BarPlan, BarStock


def check_bars(pieces: Sequence[BarPiece], stock: Sequence[BarStock], plan: BarPlan, kerf: float, trim: float) -> None:
    """Every bar is one of the stock and holds its pieces with n - 1 kerfs; quantities are exact."""
    kinds = {(s.profile, s.length, s.price) for s in stock}
    found: Counter[tuple[str, str, float]] = Counter()
    for bar in plan.bars:
        assert (bar.profile, bar.length, bar.price) in kinds
        used = sum(mm for _, mm in bar.pieces) + kerf * (len(bar.pieces) - 1)
        assert used <= bar.length - 2 * trim + 1e-6
        assert abs(bar.length - 2 * trim - used - bar.left) < 1e-5
        found.update((bar.profile, name, round(mm, 6)) for name, mm in bar.pieces)
    lost = Counter({u.piece: u.qty for u in plan.unplaced})
    wanted: Counter[tuple[str, str, float]] = Counter()
    for p in pieces:
        wanted[(p.profile, p.piece, round(p.length, 6))] += p.qty
    for key, qty in wanted.items():
        assert found[key] == qty or found[key] + lost[key[1]] >= qty, key
        assert found[key] <= qty
    assert all(u.why for u in plan.unplaced)
