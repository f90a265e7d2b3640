"""Job 2 to 3: rooms gained roof windows, guide lines and plan images, the job pictures; all may be missing. Shop
standards gained joints, fits and face frames."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import complete_standards, frozen


def step(job: Raw) -> None:
    complete_standards(job, frozen("job_2")["standard"])
