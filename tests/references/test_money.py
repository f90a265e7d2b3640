"""Money against worked figures. ISO 80000-1 Annex B rule B (ties away from zero), from memory; VAT by arithmetic."""

from __future__ import annotations

from decimal import Decimal

import pytest

from tall_plank.costing.money import cents, quantity, shown
from tall_plank.costing.price import job_price
from tall_plank.job import Pricing


@pytest.mark.parametrize(
    ("value", "rounded"),
    [
        ("0.125", "0.13"),
        ("0.135", "0.14"),
        ("1.005", "1.01"),
        ("2.675", "2.68"),
        ("-2.675", "-2.68"),
        ("2.674", "2.67"),
    ],
)
def test_ties_go_away_from_zero(value: str, rounded: str) -> None:
    assert cents(Decimal(value)) == Decimal(rounded)


def test_binary_floats_would_have_been_wrong() -> None:
    assert round(2.675, 2) == 2.67  # what a float gives
    assert cents(quantity(2.675)) == Decimal("2.68")


@pytest.mark.parametrize(("margin", "markup"), [(20, 25), (40, "66.6667"), (50, 100), ("33.3333", 50)])
def test_margin_and_markup_are_not_confused(margin: object, markup: object) -> None:
    """markup = margin / (1 - margin)."""
    price = job_price(Decimal(1000), Pricing(Decimal(0), Decimal(str(margin)), Decimal(0), Decimal(0)))
    assert float(price.profit / price.cost * 100) == pytest.approx(float(str(markup)), abs=2e-3)


@pytest.mark.parametrize(
    ("net", "rate", "gross"), [("100", 20, "120.00"), ("49.99", 20, "59.99"), ("100.00", 19, "119.00")]
)
def test_tax_on_a_net_price(net: str, rate: int, gross: str) -> None:
    price = job_price(Decimal(net), Pricing(Decimal(0), Decimal(0), Decimal(0), Decimal(rate)))
    assert price.gross == Decimal(gross)


def test_tax_is_rounded_on_the_total_not_on_lines() -> None:
    """Three lines of 1.03 at 19 %: 0.60 rounded line by line, 0.59 on the total. We tax the total."""
    price = job_price(Decimal("3.09"), Pricing(Decimal(0), Decimal(0), Decimal(0), Decimal(19)))
    assert price.tax == Decimal("0.59")


def test_amounts_are_shown_with_thousands_parted() -> None:
    assert shown(Decimal("6427.385")) == "6,427.39"
