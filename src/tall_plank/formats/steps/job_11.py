"""Job 11 to 12: papers say who draws and who approves, rooms may have section lines, dimensions by hand and
notes, sets of drawings may have been issued. What is new is empty in an older job."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw


def step(job: Raw) -> None:
    """Nothing of an older job changes."""
