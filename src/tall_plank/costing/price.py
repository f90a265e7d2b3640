"""From cost to price: overhead on cost, margin in the price, discount, tax; each step rounded to the cent."""

from __future__ import annotations

from decimal import Decimal

import msgspec

from tall_plank.costing.money import cents
from tall_plank.job import Pricing


class Price(msgspec.Struct, frozen=True):
    """Each step from cost to what the client pays."""

    cost: Decimal
    overhead: Decimal
    profit: Decimal
    before_discount: Decimal
    discount: Decimal
    net: Decimal
    tax: Decimal
    gross: Decimal


def job_price(cost: Decimal, pricing: Pricing) -> Price:
    """The price of a cost.

    With a margin m the price is cost / (1 - m): the profit is m of the price. (A markup p would be m = p/(1+p).)
    """
    hundred = Decimal(100)
    overhead = cents(cost * pricing.overhead / hundred)
    loaded = cost + overhead
    full = cents(loaded / (1 - pricing.margin / hundred))
    discount = cents(full * pricing.discount / hundred)
    net = full - discount
    tax = cents(net * pricing.tax / hundred)
    return Price(cost, overhead, full - loaded, full, discount, net, tax, net + tax)
