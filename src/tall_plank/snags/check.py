"""Running every rule over a job."""

from __future__ import annotations

from tall_plank.job import Snag
from tall_plank.snags import (
    appliance,
    board_size,
    clash,
    corner,
    detail,
    dimension,
    making,
    opened,
    opening_clash,
    pages,
    price,
    router,
    run_length,
    section,
    strength,
)
from tall_plank.snags.checked import Checked

RULES = (
    run_length, making, corner, opened, opening_clash, clash, appliance, board_size, strength, router, price, dimension,
    section, detail, pages,
)  # fmt: skip
"""In the order in which their snags are listed."""


def all_snags(checked: Checked) -> tuple[Snag, ...]:
    """The snags of every rule, wrong ones first."""
    found: list[Snag] = []
    for rule in RULES:
        found += rule.find(checked)
    return tuple(sorted(found, key=lambda snag: snag.weight != "wrong"))
