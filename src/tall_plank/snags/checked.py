"""What the rules look at."""

from __future__ import annotations

from dataclasses import dataclass

from tall_plank.costing import Costs
from tall_plank.costing.orders import Bought
from tall_plank.job import Job
from tall_plank.making import MadeJob
from tall_plank.setout import Layout
from tall_plank.shop.machine.model import Machine


@dataclass(frozen=True)
class Checked:
    """What the rules look at."""

    job: Job
    layout: Layout
    made: MadeJob
    costs: Costs
    router: Machine | None = None
    """The machine that its programs are written for; not looked at where it is not known."""
    kerf: float = 0.0
    """Between parts on a board, mm."""
    bought: Bought | None = None
