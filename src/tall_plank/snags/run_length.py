"""A run that is longer than its wall allows. Source: arithmetic."""

from __future__ import annotations

from typing import TYPE_CHECKING

from tall_plank.job import Snag, Where
from tall_plank.measure import format_length

if TYPE_CHECKING:
    from tall_plank.snags.check import Checked


def find(checked: Checked) -> list[Snag]:
    found = []
    for room in checked.layout.rooms:
        for run in room.runs:
            if run.short > 0.001:
                short = format_length(run.short, checked.job.display, mark=True)
                found.append(
                    Snag(
                        "run length",
                        f"The {run.run.level} run on wall {run.wall.id} is {short} short.",
                        "Make a unit narrower, take one out, or let one take what is left.",
                        Where(room.room.id, run.wall.id, run.run.id, "", f"wall {run.wall.id}, {run.run.level} run"),
                    )
                )
    return found
