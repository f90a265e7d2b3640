"""Job 15 to 16: moldings run along units too, sections have arcs and a spring angle. What an older job has, says the
same."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw


def step(job: Raw) -> None:
    del job  # nothing of it changes; an older program is told that it cannot read the new job
