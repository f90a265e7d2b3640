"""Job 4 to 5: shop standards say how runners are chosen; the job gained a shortlist, the stock pictures and shapes of
handles, which may all be missing."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import complete_standards, frozen


def step(job: Raw) -> None:
    complete_standards(job, frozen("job_4")["standard"])
