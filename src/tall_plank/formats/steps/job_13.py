"""Job 13 to 14: a dimension by hand may hold on to a corner of an outline. In an older job none does."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw


def step(job: Raw) -> None:
    """Nothing of an older job changes."""
