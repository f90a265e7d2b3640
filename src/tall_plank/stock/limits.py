"""What money can sensibly be, wherever it is read or typed: finite, not below zero, and not beyond these."""

from __future__ import annotations

from decimal import Decimal

from tall_plank.measure import PlankError
from tall_plank.stock.models import PriceBook

MOST: dict[str, Decimal] = {
    "price": Decimal(10_000_000),
    "pack": Decimal(1_000_000),
    "least_qty": Decimal(1_000_000),
    "minutes": Decimal(100_000),
    "labor_rate": Decimal(100_000),
    "delivery": Decimal(10_000_000),
    "board_waste_percent": Decimal(300),
    "edging_waste_percent": Decimal(300),
}
"""Most of each value of a price book; the least is 0."""

PERCENT: dict[str, int] = {"overhead": 500, "margin": 95, "discount": 100, "tax": 100, "bought_over": 1000}
"""Most of each percentage from cost to price. A margin of 100 % has no price."""


def in_sense(key: str, value: Decimal, most: Decimal | int, where: str) -> None:
    """Raises PlankError naming the value where it is no number, below zero, or beyond sense."""
    if not value.is_finite() or not 0 <= value <= most:
        raise PlankError(f"{key}: {str(value)[:30]} is out of range.", where, f"Give 0 to {most:,}.")


def check_book(book: PriceBook) -> None:
    """Raises PlankError naming the row of a price book whose value makes no sense."""
    where = f"prices {book.code}"
    for key in ("labor_rate", "delivery", "board_waste_percent", "edging_waste_percent"):
        in_sense(key, getattr(book, key), MOST[key], where)
    for row in book.rows:
        for key in ("price", "pack", "least_qty"):
            in_sense(key, getattr(row, key), MOST[key], f"{where}, {row.code}")
    for labor in book.labor:
        in_sense("minutes", labor.minutes, MOST["minutes"], f"{where}, {labor.work}")
