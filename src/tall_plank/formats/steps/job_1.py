"""Job 1 to 2: rooms gained islands, columns and more, all of which may be missing. Runs keep their typed starts and
ends, and plinths without returns; shop standards gained values."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import complete_standards, frozen


def step(job: Raw) -> None:
    complete_standards(job, frozen("job_1")["standard"])
    for room in job["rooms"]:
        for run in room.get("runs", []):
            run["plinth_returns"] = False  # there were none
