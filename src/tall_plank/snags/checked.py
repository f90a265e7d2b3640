"""What the rules look at."""

from __future__ import annotations

from dataclasses import dataclass

from tall_plank.costing import Costs
from tall_plank.job import Job
from tall_plank.making import MadeJob
from tall_plank.setout import Layout


@dataclass(frozen=True)
class Checked:
    """What the rules look at."""

    job: Job
    layout: Layout
    made: MadeJob
    costs: Costs
