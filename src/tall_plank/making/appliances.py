"""The appliances that a unit was made with: what they need of the room."""

from __future__ import annotations

from tall_plank.making.unit import MadeUnit
from tall_plank.stock import Appliance, Stock


def appliances_of(unit: MadeUnit, stock: Stock) -> tuple[Appliance, ...]:
    """Every appliance among the bought items of a unit."""
    found = (stock.appliance(item.code) for item in unit.items)
    return tuple(a for a in found if a is not None)


def clear_front(unit: MadeUnit, stock: Stock) -> float:
    """How much floor has to stay free before a unit for its appliances, mm."""
    return max((a.clear_front for a in appliances_of(unit, stock)), default=0.0)
