"""Running every rule over a job."""

from __future__ import annotations

from dataclasses import dataclass

from tall_plank.costing import Costs
from tall_plank.job import Job, Snag
from tall_plank.making import MadeJob
from tall_plank.setout import Layout


@dataclass(frozen=True)
class Checked:
    """What the rules look at."""

    job: Job
    layout: Layout
    made: MadeJob
    costs: Costs


def all_snags(checked: Checked) -> tuple[Snag, ...]:
    """The snags of every rule, wrong ones first."""
    from tall_plank.snags import (
        appliance,
        board_size,
        clash,
        corner,
        making,
        opening_clash,
        price,
        run_length,
        strength,
    )

    found: list[Snag] = []
    for rule in (run_length, making, corner, opening_clash, clash, appliance, board_size, strength, price):
        found += rule.find(checked)
    return tuple(sorted(found, key=lambda snag: snag.weight != "wrong"))
