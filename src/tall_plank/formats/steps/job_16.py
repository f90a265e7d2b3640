"""Job 16 to 17: wall fields lie on the faces of columns too. What an older job has, says the same."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw


def step(job: Raw) -> None:
    del job  # nothing of it changes; an older program is told that it cannot read the new job
