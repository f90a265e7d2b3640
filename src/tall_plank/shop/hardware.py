"""The hardware schedule: what to order, for which units, and why."""

from __future__ import annotations

import msgspec

from tall_plank.making import Item, MadeJob
from tall_plank.shop.cutlist import natural
from tall_plank.stock import Stock


class HardwareRow(msgspec.Struct, frozen=True):
    """One thing to order. `why` gives the rules with their values; consumables are bought by the box."""

    code: str
    name: str
    kind: str
    supplier: str
    qty: int
    units: tuple[str, ...]
    why: tuple[str, ...]
    consumable: bool
    appliance: bool
    metres: float = 0.0
    """Length of all its pieces together, where it is cut to length."""


def bought_for(made: MadeJob) -> list[tuple[str, tuple[Item, ...]]]:
    """What is bought, by the number of the unit or the trim that it is for, or by what the trim is named for it."""
    found = [(placed.number, unit.items) for placed, unit in made.units]
    return found + [(t.bought_for or t.number, t.items) for t in made.trims]


def hardware_rows(made: MadeJob, stock: Stock) -> tuple[HardwareRow, ...]:
    """Every bought item of the job, by supplier, with its total."""
    qty: dict[str, int] = {}
    units: dict[str, set[str]] = {}
    why: dict[str, list[str]] = {}
    metres: dict[str, float] = {}
    for number, items in bought_for(made):
        for item in items:
            qty[item.code] = qty.get(item.code, 0) + item.qty
            units.setdefault(item.code, set()).add(number)
            metres[item.code] = metres.get(item.code, 0.0) + item.length * item.qty / 1000
            reasons = why.setdefault(item.code, [])
            if item.why not in reasons:
                reasons.append(item.why)
    rows = []
    for code, count in qty.items():
        fitting, appliance = stock.fitting(code), stock.appliance(code)
        rows.append(
            HardwareRow(
                code=code,
                name=fitting.name if fitting else appliance.name if appliance else code,
                kind=fitting.kind if fitting else appliance.kind if appliance else "",
                supplier=fitting.supplier if fitting else appliance.supplier if appliance else "",
                qty=count,
                units=tuple(sorted(units[code], key=natural)),
                why=tuple(why[code]),
                consumable=bool(fitting and fitting.consumable),
                appliance=appliance is not None,
                metres=round(metres[code], 4),
            )
        )
    return tuple(sorted(rows, key=lambda r: (r.appliance, r.consumable, r.supplier, r.kind, r.code)))


def fitting_count(rows: tuple[HardwareRow, ...]) -> int:
    """Fittings in pieces; consumables and appliances left out."""
    return sum(r.qty for r in rows if not r.consumable and not r.appliance)
