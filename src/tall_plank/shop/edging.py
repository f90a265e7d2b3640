"""Edging lengths by material, net and with what the edge bander wastes."""

from __future__ import annotations

import msgspec

from tall_plank.making import MadeJob
from tall_plank.stock import Stock

TRIM_ALLOWANCE = 60.0
"""mm of edging that the edge bander cuts off at each banded edge, both ends together (common practice)."""


class EdgingRow(msgspec.Struct, frozen=True):
    """One edging. Lengths in metres; `edges` is the number of banded edges."""

    code: str
    name: str
    supplier: str
    thickness: float
    width: float
    edges: int
    net_m: float
    order_m: float


def edging_rows(made: MadeJob, stock: Stock) -> tuple[EdgingRow, ...]:
    """Every edging of the job with its net length and the length to order."""
    net: dict[str, float] = {}
    count: dict[str, int] = {}
    for item in made.parts():
        for _, code, length in item.part.banded:
            net[code] = net.get(code, 0.0) + length
            count[code] = count.get(code, 0) + 1
    rows = []
    for code in sorted(net):
        edging = stock.edging_by_code(code)
        assert edging is not None  # parts are banded from stock only
        rows.append(
            EdgingRow(
                code=code,
                name=edging.name,
                supplier=edging.supplier,
                thickness=edging.thickness,
                width=edging.width,
                edges=count[code],
                net_m=net[code] / 1000,
                order_m=(net[code] + TRIM_ALLOWANCE * count[code]) / 1000,
            )
        )
    return tuple(rows)
