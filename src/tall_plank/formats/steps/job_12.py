"""Job 12 to 13: sets of drawings may be put into order, with pages composed by hand; papers may have the shop's mark.
What is new is empty in an older job."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw


def step(job: Raw) -> None:
    """Nothing of an older job changes."""
