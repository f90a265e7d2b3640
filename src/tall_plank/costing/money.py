"""The one place that rounds money: half up, to the cent (ISO 80000-1 Annex B, rule B), from memory."""

from __future__ import annotations

from decimal import ROUND_HALF_UP, Decimal

CENT = Decimal("0.01")


def cents(amount: Decimal) -> Decimal:
    """An amount rounded to the cent, ties away from zero."""
    return amount.quantize(CENT, rounding=ROUND_HALF_UP)


def quantity(value: float, places: int = 4) -> Decimal:
    """A measured quantity as an exact decimal with a stated number of places."""
    return Decimal(f"{value:.{places}f}")


def shown(amount: Decimal) -> str:
    """An amount for people: thousands parted, two places."""
    return f"{cents(amount):,}"
